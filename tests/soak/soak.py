"""A week of work in minutes, under sanitizers: 50,000 edits, 200 imports, 100 scans, 1,000 photos, kills between.
usage: soak.py CLI SIM FOLDER [SHARE]   (SHARE 0.02: a fiftieth of it)"""
import os
import pathlib
import random
import resource
import shutil
import signal
import sqlite3
import struct
import subprocess
import sys
import time
import zlib

CLI, SIM, FOLDER = sys.argv[1], sys.argv[2], pathlib.Path(sys.argv[3])
SHARE = float(sys.argv[4]) if len(sys.argv) > 4 else 1.0
rng = random.Random(50_000)
shutil.rmtree(FOLDER, ignore_errors=True)
FOLDER.mkdir(parents=True)
build = FOLDER / "week.gorvet"
began = time.monotonic()
told = {"edits": 0, "imports": 0, "scans": 0, "photos": 0, "kills": 0, "undone": 0}


def cli(*words, text=None, fine=(0, 1)):
    ran = subprocess.run([CLI, *map(str, words)], input=text, capture_output=True, timeout=600)
    if ran.returncode not in fine or b"runtime error" in ran.stderr or b"AddressSanitizer" in ran.stderr:
        sys.exit(f"soak: {words} ended with {ran.returncode}: {ran.stderr.decode(errors='replace')[-2000:]}")
    return ran


def lines():
    db = sqlite3.connect(f"file:{build}?mode=ro", uri=True)
    n = db.execute("SELECT count(*) FROM journal").fetchone()[0]
    db.close()
    return n


def png(path, number):
    raw = b"".join(b"\0" + bytes([(number + i) % 256] * 96) for i in range(32)) + number.to_bytes(4, "big")

    def chunk(kind, data):
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    path.write_bytes(b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", struct.pack(">IIBBBBB", 32, 32, 8, 2, 0, 0, 0)) + chunk(b"IDAT", zlib.compress(raw)) + chunk(b"IEND", b""))
    return path


cli("new", build, fine=(0,))
subprocess.run([SIM, "mesh", str(FOLDER / "wheel.ply"), "--of", "wheel", "--mesh-step", "60"], check=True, capture_output=True)

# photos and scans first: each is a program of its own, and opens the file
for i in range(int(1000 * SHARE)):
    cli("photo-found", build, "rust", f"part-{i}", png(FOLDER / "p.png", i), fine=(0,))
    told["photos"] += 1
for i in range(int(100 * SHARE)):
    cli("scan", "keep", build, FOLDER / "wheel.ply", "--on", "chassis", "--part", "wheel", "--unit", "mm", "--name", f"w{i}", fine=(0,))
    told["scans"] += 1
for i in range(int(200 * SHARE)):
    rows = "".join(f"tape,I{i}x{k},J{i}x{k},{500 + k},mm,,\n" for k in range(5))
    (FOLDER / "i.csv").write_text("kind,from,to,value,unit,sigma_mm,note\n" + rows)
    cli("import", build, FOLDER / "i.csv", fine=(0,))
    told["imports"] += 1

# then lines, thousands at a time, some of them killed
wanted = int(50_000 * SHARE)
serial = 0
peak = []
while told["edits"] < wanted:
    batch = []
    for _ in range(min(2500, wanted - told["edits"])):
        serial += 1
        kind = rng.randrange(10)
        if kind < 2:
            batch.append(f"point S{serial} {serial % 3000} {serial % 700 - 350} 300")
        elif kind < 8:
            i = rng.randrange(max(1, int(200 * SHARE)))
            k = rng.randrange(5)
            batch.append(f"I{i}x{k} J{i}x{k} {500 + k + rng.random():.1f} note reading {serial}")
        elif kind == 8:
            batch.append(f"name week {serial}")
        else:
            batch.append(f"tolerance {1 + serial % 9}")
    before = lines()
    run = subprocess.Popen([CLI, "enter", str(build)], stdin=subprocess.PIPE, stderr=subprocess.PIPE)
    if rng.random() < 0.3:
        run.stdin.write(("\n".join(batch) + "\n").encode())
        run.stdin.close()
        time.sleep(rng.random() * 0.8)
        run.send_signal(signal.SIGKILL)
        out = run.stderr.read().decode()
        run.wait()
        run.stderr.close()
        told["kills"] += 1
    else:
        _, out = run.communicate(("\n".join(batch) + "\n").encode())
        out = out.decode()
        if run.returncode != 0:
            sys.exit(f"soak: enter ended with {run.returncode}: {out[-1500:]}")
    confirmed = sum(1 for line in out.split("\n")[:-1] if line.startswith(("mark point", "tape", "name the build", "frame tolerance")))
    after = lines()
    if after - before - confirmed not in (0, 1):
        sys.exit(f"soak: {confirmed} were told, {after - before} are there")
    told["edits"] += after - before
    if rng.random() < 0.5:
        cli("undo", build, fine=(0,))
        told["undone"] += 1
    peak.append(resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss // 1024)
    print(f"{told['edits']} edits, {time.monotonic() - began:.0f} s, {peak[-1]} MB", file=sys.stderr)

db = sqlite3.connect(build)
sound = db.execute("PRAGMA integrity_check").fetchone()[0]
blobs = db.execute("SELECT count(*) FROM blob").fetchone()[0]
db.close()
opened = time.monotonic()
last = cli("log", build, fine=(0,))
opened = time.monotonic() - opened
if sound != "ok" or last.stderr:
    sys.exit(f"soak: the file is not sound: {sound} {last.stderr.decode()[:500]}")
if blobs != told["photos"] + (1 if told["scans"] else 0):
    sys.exit(f"soak: {blobs} photos and scans are kept")
print(f"soak: {told}; the file is sound, {build.stat().st_size >> 20} MB, {blobs} blobs; the log of it all in {opened:.2f} s; most memory of a program {max(peak)} MB; {time.monotonic() - began:.0f} s")
