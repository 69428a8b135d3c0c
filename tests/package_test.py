#!/usr/bin/python3
"""The Debian package goes over an older one and away again, as dpkg does it in a root folder of its own; builds stay as they are.

usage: package_test.py CPACK BUILD_DIR FOLDER
"""
import hashlib
import os
import pathlib
import shutil
import subprocess
import sys

cpack, build, folder = sys.argv[1], pathlib.Path(sys.argv[2]), pathlib.Path(sys.argv[3]).resolve()
failures = []


def check(good, message):
    if not good:
        failures.append(message)


def run(*command, **options):
    return subprocess.run([str(c) for c in command], capture_output=True, text=True, **options)


def must(*command, **options):
    done = run(*command, **options)
    if done.returncode:
        sys.exit(f"{' '.join(map(str, command))}\n{done.stdout}{done.stderr}")
    return done.stdout


shutil.rmtree(folder, ignore_errors=True)
root = folder / "root"
for part in ("var/lib/dpkg/info", "var/lib/dpkg/updates", "var/lib/dpkg/triggers", "home/builder/builds"):
    (root / part).mkdir(parents=True)
(root / "var/lib/dpkg/status").write_text("")

must(cpack, "-G", "DEB", "--config", build / "CPackConfig.cmake", "-B", folder / "package", "-D", "CPACK_PACKAGE_DIRECTORY=" + str(folder / "package"))
(new,) = (folder / "package").glob("gorvet_*.deb")
version = must("dpkg-deb", "-f", new, "Version").strip()
# what the library of solids needs, which no program names
check("libocct-data-exchange" in must("dpkg-deb", "-f", new, "Depends"), "the package does not ask for what models solids")

# an older one: the same but for its version, a program that says less, and a file that is gone since
old_tree = folder / "old"
must("dpkg-deb", "-R", new, old_tree)
control = old_tree / "DEBIAN/control"
control.write_text(control.read_text().replace(f"Version: {version}", "Version: 0.0.1"))
(old_tree / "usr/share/doc/gorvet/only-in-the-old.md").write_text("gone since\n")
(old_tree / "usr/bin/gorvet-cli").write_text("#!/bin/sh\necho old\n")
(old_tree / "DEBIAN/md5sums").unlink(missing_ok=True)
old = folder / "gorvet_0.0.1.deb"
must("dpkg-deb", "--root-owner-group", "-Zgzip", "-z1", "-b", old_tree, old)  # as fast as it goes: it lives for a minute


def dpkg(*arguments):
    # what it depends on stands on this machine, not in the folder
    return must("dpkg", f"--root={root}", "--force-not-root", "--force-depends", "--force-bad-path", "--log=/dev/null", *arguments,
                env={**os.environ, "DPKG_ROOT": str(root)})


def installed():
    done = run("dpkg-query", f"--admindir={root}/var/lib/dpkg", "-W", "-f", "${db:Status-Status} ${Version}", "gorvet")
    return done.stdout if done.returncode == 0 else ""


dpkg("-i", old)
check(installed() == "installed 0.0.1", f"the old package: {installed()!r}")
check((root / "usr/share/doc/gorvet/only-in-the-old.md").exists(), "the old package's own file is not there")

# a build that its owner made, and a settings file
cli = build / "gorvet-cli"
mine = root / "home/builder/builds/mine.gorvet"
must(cli, "new", mine)
before = hashlib.sha256(mine.read_bytes()).hexdigest()
settings = root / "home/builder/.config/gorvet.conf"
settings.parent.mkdir()
settings.write_text("[desk]\ntheme=dye\n")

dpkg("-i", new)
check(installed() == f"installed {version}", f"the new package over the old: {installed()!r}")
check(not (root / "usr/share/doc/gorvet/only-in-the-old.md").exists(), "a file of the old package is left")
told = run(root / "usr/bin/gorvet-cli", "--help")
check(told.returncode == 0 and told.stdout.strip() != "old", "the new package's gorvet-cli is the old one's")
read = run(root / "usr/bin/gorvet-cli", "findings", mine)
check(read.returncode == 0 and '"findings"' in read.stdout, "the new program does not read the build: " + read.stderr)
listed = {line.strip() for line in must("dpkg", f"--root={root}", "-L", "gorvet").splitlines()}
missing = [path for path in listed if path not in ("/.", "") and not (root / path.lstrip("/")).exists()]
check(listed and not missing, f"it lists what is not there: {missing}")
check(any(path.startswith("/usr/share/doc/gorvet/") for path in listed), "it brings no documents")
check(hashlib.sha256(mine.read_bytes()).hexdigest() == before, "the upgrade touched a build")

for step in ("-r", "-P"):
    dpkg(step, "gorvet")
left = [str(path.relative_to(root)) for path in (root / "usr").rglob("*") if path.is_file()] if (root / "usr").exists() else []
check(not left, f"removed, it leaves {left[:5]}")
check(installed() in ("", "not-installed "), f"removed, it is {installed()!r}")
check(mine.exists() and hashlib.sha256(mine.read_bytes()).hexdigest() == before, "removing the package touched a build")
check(settings.exists(), "removing the package took somebody's settings")

shutil.rmtree(folder / "old")
for failure in failures:
    print("FAILED:", failure)
print(f"{version} over 0.0.1, {len(listed)} files, removed again: {'FAILED' if failures else 'passed'}")
sys.exit(1 if failures else 0)
