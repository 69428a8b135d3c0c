#!/usr/bin/python3
"""The documents say what the program does: every finding's code, every command, every line that can be typed, every link.

usage: docs_test.py SOURCE_DIR GORVET_CLI
"""
import json
import pathlib
import re
import subprocess
import sys
import tempfile

source, cli = pathlib.Path(sys.argv[1]), sys.argv[2]
failures = []


def check(good, message):
    if not good:
        failures.append(message)


def text(name):
    return (source / name).read_text(encoding="utf-8")


# the benches there are: a file each
benches = [file.stem.removeprefix("bench_") for file in sorted((source / "src/analysis").glob("bench_*.cpp"))]


def codes_in_the_source():
    codes = set()
    for file in sorted((source / "src/analysis").glob("*.cpp")):
        if "findings" in file.name or file.name in ("overlay_clearance.cpp", "kept_cuts.cpp"):
            codes |= set(re.findall(rf'"((?:{"|".join(benches)})\.[a-z-]+[a-z])"', file.read_text()))
    condition = text("src/tape/condition.cpp")
    # a figure is a finding where it is judged: its call ends in `true);`
    for found in re.finditer(r'FigureKind::\w+, "([a-z-]+)", "', condition):
        worst = "addWorst(" in condition[found.start() - 40:found.start()] # of several stations: always judged
        if worst or re.compile(r"\b(true|false)\);").search(condition, found.end()).group(1) == "true":
            codes.add("tape." + found.group(1))
    for file in sorted((source / "src/stretch").glob("*.cpp")):
        codes |= {"stretch." + c for c in re.findall(r'(?:\badd\(|\{)\s*"([a-z][a-z-]+)",\s*(?:[\w<>=.: ]+ \? )?(?:PlanVerdict|fmt::|")', file.read_text())}
    for file in sorted((source / "src/drive").glob("*.cpp")):
        codes |= {"drive." + c for c in re.findall(r'(?:\badd\(|\bside\(|\{)\s*"([a-z][a-z-]+)",\s*(?:v,|share|PlanVerdict|judge|fmt::|spare|s\.slip)', re.sub(r"\s+", " ", file.read_text()))}
    codes |= {"stretch.axle-" + c for c in re.findall(r'\b(?:say|judge)\(\s*"([a-z-]+)"', text("src/stretch/axle.cpp"))}
    for file in sorted((source / "src/make").glob("crossmember.cpp")):
        codes |= {"make.crossmember-" + c for c in re.findall(r'(?:\badd|Remarks\{p\})\(\s*"([a-z-]+)", PlanVerdict|(?:\badd|Remarks\{p\})\(\s*"([a-z-]+)",', file.read_text()) for c in c if c}
    for file in sorted((source / "src/make").glob("*.cpp")):
        codes |= {"make." + c for c in re.findall(r'\b(?:add|bears)\(\s*"((?:part|fixture|join)-[a-z-]+)",', file.read_text())}
    codes |= {"make." + c for c in re.findall(r'\badd\(row, "(bolt-[a-z-]+)",', text("src/make/service.cpp"))}
    codes |= {"make." + c for c in re.findall(r'\badd\("(weld-[a-z-]+)",', text("src/make/weld_plan.cpp"))}
    codes |= {"make.mount-" + c for c in re.findall(r'\b(?:fails|marginal)\(\s*"([a-z-]+)"', text("src/make/mounts.cpp"))}
    return codes


documented = set(re.findall(r"^\| `([a-z]+\.[a-z-]+)` \|", text("docs/findings.md"), re.M))
in_source = codes_in_the_source()
check(len(in_source) > 60, f"only {len(in_source)} codes were found in the source: the search is broken")
for code in sorted(in_source - documented):
    check(False, f"docs/findings.md does not explain {code}")
for code in sorted(documented - in_source):
    check(False, f"docs/findings.md explains {code}, which nothing raises")

manual = text("docs/cli.md")
help_text = subprocess.run([cli, "--help"], capture_output=True, text=True).stdout
commands = re.findall(r"^  ([a-z][a-z-]+) {2,}", help_text.split("Subcommands:")[1], re.M)
check(len(commands) > 10, "gorvet-cli --help lists too few commands: the search is broken")
for command in commands:
    check(re.search(rf"(gorvet-cli |`){command}\b", manual), f"docs/cli.md does not mention the command {command}")
check(len(benches) >= 6, f"only the benches {benches} were found: the search is broken")
for bench in benches:
    check(f"--bench {bench}" in text("docs/cli.md") or f"`{bench}`" in text("docs/cli.md"), f"docs/cli.md does not mention the bench {bench}")
words = 0
for table in sorted((source / "src/entry").glob("commands_*.cpp")):
    entry = table.read_text()
    forms = " ".join(re.findall(r'^ +\{"((?:[^"\\]|\\.)*)".*(?:\n +.*)?', entry, re.M)) + " ".join(re.findall(r'"((?:[^"\\]|\\.)*)"\},$', entry, re.M))
    for group in re.findall(r'\{\{("[a-z-]+"(?:,\s*"[a-z-]+")*)\}', entry):
        for word in re.findall(r"[a-z-]+", group):
            words += 1
            check(re.search(rf"(?<![a-z-]){word}(?![a-z-])", manual), f"docs/cli.md does not mention the line '{word} …'")
            check(re.search(rf"(?<![a-z-]){word}(?![a-z-])", forms), f"no form mentions the line '{word} …'")
check(words > 60, f"only {words} words of lines were found: the search is broken")

kinds = re.findall(r'all\.push_back\(\s*\{\s*"([a-z-]+)"', text("src/build/part_kinds.cpp"))
check(len(kinds) > 6, f"only {len(kinds)} kinds of parts were found: the search is broken")
for kind in kinds:
    check(f"| `{kind}` |" in text("docs/handbook/make.md"), f"docs/handbook/make.md does not say what a {kind} is")

# what docs/file-format.md gives to the sqlite3 shell is run on the demo build
with tempfile.TemporaryDirectory() as folder:
    demo = pathlib.Path(folder) / "demo.gorvet"
    subprocess.run([sys.executable, source / "demo/petrel_on_tern.py", "--plain", "--cli", cli, "--out", demo], capture_output=True, check=True)
    rows = []
    for query in re.findall(r"```sql\n(.*?)```", text("docs/file-format.md"), re.S):
        done = subprocess.run(["sqlite3", "-readonly", demo], input=query, capture_output=True, text=True)
        check(not done.stderr, f"docs/file-format.md: {done.stderr.strip()} in\n{query}")
        rows.append(done.stdout.splitlines())
    check(len(rows) == 4, f"{len(rows)} queries in docs/file-format.md")
    lines = subprocess.run([cli, "log", demo], capture_output=True, text=True).stdout.splitlines()
    check(len(rows[0]) == len(lines), f"{len(rows[0])} lines of the log by sqlite3, {len(lines)} by gorvet-cli")
    readings = []
    for subject in ("chassis", "body"):
        solved = subprocess.run([cli, "tape", "solve", demo, "--subject", subject], capture_output=True, text=True).stdout
        readings += json.loads(solved)["readings"]
    check(len(rows[1]) == len(readings) > 300, f"{len(rows[1])} readings by sqlite3, {len(readings)} by gorvet-cli")
    check(all(f"|{r['from']}|{r['to'] or ''}|" in line for r, line in zip(readings[:20], rows[1])), "the readings by sqlite3 name other points")
    steps = json.loads(subprocess.run([cli, "work", demo], capture_output=True, text=True).stdout)["steps"]
    check([line.split("|")[0] for line in rows[2]] == [s["code"] for s in steps if s["tick"]] != [], "the ticks by sqlite3 are not those of gorvet-cli work")

for page in [source / "README.md", source / "CONTRIBUTING.md", source / "CHANGELOG.md", *sorted((source / "docs").glob("*.md"))]:
    if not page.exists():
        check(False, f"{page.name} is missing")
        continue
    for link in re.findall(r"\]\(([^)#]+)\)", page.read_text(encoding="utf-8")):
        if "://" not in link:
            check((page.parent / link).exists(), f"{page.name} links to {link}, which is not there")
readme = text("README.md")
pictures = sorted(p.name for p in (source / "docs/screenshots").glob("*.png"))
check(0 < len(pictures) < 20, f"{len(pictures)} pictures in docs/screenshots")
for picture in pictures:
    check(picture in readme, f"README.md does not show docs/screenshots/{picture}")

for failure in failures:
    print("docs:", failure)
print(f"{len(in_source)} codes, {len(commands)} commands, {len(pictures)} pictures: {len(failures)} failures")
sys.exit(1 if failures else 0)
