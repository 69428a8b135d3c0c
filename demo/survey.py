"""Reads a hidden truth with the errors of hand tools, and makes a build of it. Shared by the scripts that make demo builds."""
import argparse
import math
import pathlib
import subprocess
import sys


def distance(a, b):
    return math.dist(a[1:], b[1:])


class Surveyor:
    """Reads the truth with the errors of hand tools."""

    def __init__(self, points, rng, misread=("", "", 0.0)):
        self.points = points  # name -> (role, x, y, z)
        self.rng = rng
        self.misread = misread  # from, to, and by how much that tape is read too long
        self.rows = []

    def add(self, kind, a, b, value, unit, note=""):
        self.rows.append((kind, a, b, value, unit, "", note))

    def tape(self, a, b):
        true = distance(self.points[a], self.points[b])
        read = true + self.rng.gauss(0, 1.0 + 0.2e-3 * true)
        note = ""
        if (a, b) == self.misread[:2]:
            read = true + self.misread[2]
        n = len(self.rows)
        if n % 37 == 5 and (a, b) != self.misread[:2]:
            self.add("tape", a, b, f"{read / 10:.2f}", "cm", note)
        elif n % 41 == 7 and (a, b) != self.misread[:2]:
            sixteenths = round(read / 25.4 * 32)
            whole, part = divmod(sixteenths, 32)
            while part and part % 2 == 0:
                part //= 2
            bottom = 32
            k = sixteenths % 32
            while k and k % 2 == 0:
                k //= 2
                bottom //= 2
            self.add("tape", a, b, f"{whole} {k}/{bottom}" if k else f"{whole}", "in", note)
        else:
            self.add("tape", a, b, f"{round(read * 2) / 2:g}", "mm", note)

    def plan(self, a, b):
        pa, pb = self.points[a], self.points[b]
        true = math.hypot(pa[1] - pb[1], pa[2] - pb[2])
        self.add("plan", a, b, f"{round((true + self.rng.gauss(0, 1.5 + 0.2e-3 * true)) * 2) / 2:g}", "mm")

    def height(self, a):
        self.add("height", a, "", f"{round((self.points[a][3] + self.rng.gauss(0, 0.7)) * 2) / 2:g}", "mm")

    def level(self, a, b):
        self.add("level", a, b, f"{self.points[b][3] - self.points[a][3] + self.rng.gauss(0, 1.0):.1f}", "mm")

    def offset(self, a):
        self.add("offset", a, "", f"{round((self.points[a][2] + self.rng.gauss(0, 1.0)) * 2) / 2:g}", "mm")

    def station(self, a, b):
        self.add("station", a, b, f"{round((self.points[b][1] - self.points[a][1] + self.rng.gauss(0, 1.0)) * 2) / 2:g}", "mm")

    def slope(self, a, b):
        pa, pb = self.points[a], self.points[b]
        true = math.degrees(math.atan2(pa[3] - pb[3], math.hypot(pa[1] - pb[1], pa[2] - pb[2])))
        self.add("slope", a, b, f"{true + self.rng.gauss(0, 0.1):.1f}", "deg")

    def tapes_between(self, names, wanted, shortest, longest, first=()):
        """Tapes until every point has its share, the least-read points first."""
        done = set()
        count = {n: 0 for n in names}
        for a, b in first:
            self.tape(a, b)
            done.add(frozenset((a, b)))
            count[a] += 1
            count[b] += 1
        while len(done) < wanted:
            candidates = [(count[a] + count[b] + 0.3 * self.rng.random(), a, b)
                          for i, a in enumerate(names) for b in names[i + 1:]
                          if frozenset((a, b)) not in done and shortest < distance(self.points[a], self.points[b]) < longest]
            _, a, b = min(candidates)
            self.tape(a, b)
            done.add(frozenset((a, b)))
            count[a] += 1
            count[b] += 1

    def csv(self, holds):
        lines = ["kind,from,to,value,unit,sigma_mm,note"]
        for name, (role, x, y, z) in self.points.items():
            lines.append(f'point,{name},{role},"{round(x / 20) * 20} {round(y / 20) * 20} {round(z / 20) * 20}",mm,,')
        for axis, name, value in holds:
            lines.append(f"hold-{axis},{name},,{value:g},mm,,")
        lines += [",".join(row) for row in self.rows]
        return "\n".join(lines) + "\n"


def make_build(doc, name, seed, readings, lines):
    """What a demo script does: `readings(seed)` is the survey as CSV; `lines` are typed: before it, of the body, and after it."""
    parser = argparse.ArgumentParser(description=doc, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--cli", required=True, help="the program gorvet-cli")
    parser.add_argument("--out", required=True, help="the build to make; replaced when it is there")
    parser.add_argument("--seed", type=int, default=seed)
    args = parser.parse_args()
    out = pathlib.Path(args.out)
    out.parent.mkdir(parents=True, exist_ok=True)
    out.unlink(missing_ok=True)
    survey = out.with_suffix(".csv")
    survey.write_text(readings(args.seed))

    def cli(*words, text=None):
        done = subprocess.run([args.cli, *words], input=text, text=True, capture_output=True)
        if done.returncode != 0:
            sys.exit(f"{' '.join(words)}: {done.stderr}{done.stdout}")

    before, of_body, after = lines
    cli("new", str(out), "--name", name)
    cli("enter", str(out), before)
    cli("import", str(out), str(survey), "--subject", "chassis")
    cli("enter", str(out), "--subject", "body", of_body)
    cli("enter", str(out), text=after)
    return out
