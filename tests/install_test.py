#!/usr/bin/python3
"""What `cmake --install` leaves is whole: programs that run from where they are, desktop entry, file type, icons, man pages.

usage: install_test.py CMAKE BUILD_DIR FOLDER desk|core
"""
import gzip
import os
import pathlib
import re
import shutil
import subprocess
import sys

cmake, build, folder, what = sys.argv[1], sys.argv[2], pathlib.Path(sys.argv[3]), sys.argv[4]
desk = what == "desk"
failures = []


def check(good, message):
    if not good:
        failures.append(message)


def run(*command, **options):
    return subprocess.run([str(c) for c in command], capture_output=True, text=True, **options)


shutil.rmtree(folder, ignore_errors=True)
done = run(cmake, "--install", build, "--prefix", folder)
check(done.returncode == 0, "cmake --install failed: " + done.stderr)

cli = folder / "bin/gorvet-cli"
version = re.search(r"project\(gorvet VERSION ([0-9.]+)", (pathlib.Path(__file__).parents[1] / "CMakeLists.txt").read_text()).group(1)
check(run(cli, "--help").returncode == 0, "the installed gorvet-cli does not start")
check(run(cli, "new", folder / "x.gorvet").returncode == 0, "the installed gorvet-cli makes no build")
programs = [cli, folder / "bin/gorvet-sim"]
if desk:
    programs.append(folder / "bin/gorvet")
    shown = run(programs[-1], "--version", env={**os.environ, "QT_QPA_PLATFORM": "offscreen"})
    check(shown.stdout.strip() == f"gorvet {version}", f"the installed gorvet says {shown.stdout!r}, not version {version}")
for program in programs:
    dynamic = run("readelf", "-d", program).stdout
    check("NEEDED" in dynamic, f"readelf says nothing of {program.name}")
    check("RPATH" not in dynamic and "RUNPATH" not in dynamic, f"{program.name} looks for libraries in a build folder")
    page = folder / f"share/man/man1/{program.name}.1.gz"
    check(page.exists(), f"there is no man page of {program.name}")
    told = run("man", "--warnings", "-E", "UTF-8", "-l", "-Tutf8", "-Z", page, env={**os.environ, "LC_ALL": "C.UTF-8", "MANROFFSEQ": ""})
    check(told.returncode == 0 and not told.stderr, f"{page.name}: {told.stderr}")
    check(page.exists() and version in gzip.decompress(page.read_bytes()).decode(), f"{page.name} is not of version {version}")

# solids come from a library of their own, opened with the first: no start waits for what it needs
solids = folder / "lib/gorvet/modules/libgorvet_solids.so"
needed = run("readelf", "-d", solids).stdout
check("libTKernel" in needed and "libTKSTEP" in needed, "the library of solids does not bring what models them")
check("RPATH" not in needed and "RUNPATH" not in needed, "the library of solids looks for libraries in a build folder")
for program in programs:
    check("libTK" not in run("readelf", "-d", program).stdout, f"{program.name} loads the library that models solids at every start")

steel = folder / "steel.gorvet"
lines = ["rail box 120 60 3"]
for name, x, y in (("Al", -500, -420), ("Ar", -500, 420), ("Cl", 3200, -420), ("Cr", 3200, 420)):
    lines += [f"point {name} rail {x} {y} 500", f"coordinates {name} {x} {y} 500"]
run(cli, "new", steel)
told = run(cli, "enter", steel, *lines, "part b1 brace at Cl Cr across 42 wall 3")
check(told.returncode == 0, "no part could be planned: " + told.stderr)
scan = folder / "block.obj"
scan.write_text("v 0 0 600\nv 100 0 600\nv 0 100 600\nv 0 0 700\nf 1 3 2\nf 1 2 4\nf 2 3 4\nf 3 1 4\n")
for on in ("body", "chassis"):
    told = run(cli, "scan", "keep", steel, scan, "--on", on, "--unit", "mm", "--name", on + "-1")
    check(told.returncode == 0, "a scan was not kept: " + told.stderr)


def exported(to):
    return run(cli, "export", steel, "--all", to)


done = exported(folder / "with")
steps = list((folder / "with").glob("*.step"))
check(done.returncode == 0 and steps and all(b"ISO-10303-21" in s.read_bytes() for s in steps), "the installed program writes no STEP: " + done.stderr)
solids.rename(folder / "away.so")
done = exported(folder / "without")
check(done.returncode == 2 and "makes solids of steel" in done.stderr and "install it anew" in done.stderr, f"without its library of solids: {done.returncode} {done.stderr!r}")
check(not list((folder / "without").glob("*.step")), "a STEP file without the library that makes solids")
check(list((folder / "without").glob("*.pdf")), "without the library of solids no other file is written")
plain = run(cli, "overlay", steel).stdout
check("shown and cleared plain" in plain and "nothing is cleared" not in plain, "without the library of solids parts are not cleared: " + plain[:300])
(folder / "away.so").rename(solids)
modelled = run(cli, "overlay", steel).stdout
check("Parts of new steel stand" in modelled and "cleared plain" not in modelled, "parts stand plain though they can be modelled: " + modelled[:300])

if desk:
    entry = folder / "share/applications/gorvet.desktop"
    told = run("desktop-file-validate", entry)
    check(told.returncode == 0 and not told.stdout, "desktop-file-validate: " + told.stdout + told.stderr)
    lines = dict(line.split("=", 1) for line in entry.read_text().splitlines() if "=" in line)
    check((folder / "bin" / lines["Exec"].split()[0]).exists(), "the desktop entry starts a program that is not there")
    for size in (48, 128, 256):
        icon = folder / f"share/icons/hicolor/{size}x{size}/apps/{lines['Icon']}.png"
        head = icon.read_bytes()[:24] if icon.exists() else b""
        check(head[:8] == b"\x89PNG\r\n\x1a\n" and int.from_bytes(head[16:20], "big") == size, f"{icon} is no PNG of {size}")
    check((folder / "share/icons/hicolor/scalable/apps/gorvet.svg").exists(), "the icon's SVG is missing")
    # the file type is known by content, too: a build without its ending
    told = run("update-mime-database", folder / "share/mime")
    check(told.returncode == 0, "update-mime-database: " + told.stderr)
    (folder / "x.gorvet").rename(folder / "build-without-ending")
    magic = (folder / "share/mime/magic").read_bytes()
    kind = lines["MimeType"].rstrip(";")
    check(kind.encode() in magic and b"SQLite format 3" in magic and b"Gorv" in magic, "the file type is not known by content")
    check(f"{kind}:*.gorvet" in (folder / "share/mime/globs").read_text(), "the file type is not known by its ending")
    content = (folder / "build-without-ending").read_bytes()
    check(content.startswith(b"SQLite format 3") and content[68:72] == b"Gorv", "a build does not carry its mark")

for failure in failures:
    print("install:", failure)
print(f"{len(failures)} failures")
sys.exit(1 if failures else 0)
