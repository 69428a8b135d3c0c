#!/usr/bin/env python3
"""Ladder frames as shells, for a general finite-element program (ccx, Debian's package calculix-ccx): what the beams are held against.

Rails from -100 to 2700, their middles 900 apart, three box bridges 60 high and 80 long (middle lines) of 3 mm at 300, 1300 and 2300, welded to the
rails' inner webs, with plates across the rails (as thick as they are) where a bridge's webs meet them.
  box      rails of middle lines 100 x 60, 4 mm
  channel  the same without its outer wall: open outwards, so that the bridges meet a web (the web stands inwards)
  windowed the box, with windows 60 long and 60 high in its outer walls, one every 100
  ribs     the channel, with flat ribs of 8 mm across it at 500, 700, 900, 1100, 1500, 1700, 1900, 2100
  uprights the channel, with tubes of three 3 mm walls, 40 along and 40 deep, upright against the web at the same stations
Seats at 0 and 2600: the whole web line there moves as one (inner web), its middle is held or pulled.
  twist    rear left held along x, y, z, rear right x, z, front right z; 1000 N up at front left
  bend     all four held along z, rear left x, y, front left and rear right y; 1000 N down on each inner web's line at 1300
Quadratic shells of 20 mm (windowed: 10 mm), E 205000, nu so that G is 79000 (0.2975).

usage: shells.py FOLDER      writes the input files, runs ccx, prints the figures that shells.json holds
"""
import json
import pathlib
import subprocess
import sys

RIBS = [500, 700, 900, 1100, 1500, 1700, 1900, 2100]
E, NU = 205000.0, 205000.0 / (2 * 79000.0) - 1


class Mesh:
    def __init__(self, size):
        self.size = size
        self.nodes = {}
        self.elements = []  # (thickness, eight nodes)
        self.seen = set()

    def node(self, p):
        key = tuple(round(v * 1000) for v in p)
        return self.nodes.setdefault(key, len(self.nodes) + 1)

    def patch(self, origin, a, b, thickness):
        """A flat plate from its corner along two vectors, both multiples of the size long."""
        la, lb = (sum(v * v for v in d) ** 0.5 for d in (a, b))
        na, nb = round(la / self.size), round(lb / self.size)

        def at(i, j):
            return tuple(o + i / na * u + j / nb * v for o, u, v in zip(origin, a, b))

        for i in range(na):
            for j in range(nb):
                corners = [(i, j), (i + 1, j), (i + 1, j + 1), (i, j + 1)]
                middles = [(i + .5, j), (i + 1, j + .5), (i + .5, j + 1), (i, j + .5)]
                self.elements.append((thickness, [self.node(at(*c)) for c in corners + middles]))

    def nodes_where(self, test):
        return [n for key, n in self.nodes.items() if test(*(v / 1000 for v in key))]


def frame(kind):
    closed = kind in ("box", "windowed")
    m = Mesh(10.0 if kind == "windowed" else 20.0)
    for side in (-1, 1):
        inner, outer = side * 420.0, side * 480.0
        for z in (-50.0, 50.0):
            m.patch((-100, inner, z), (2800, 0, 0), (0, outer - inner, 0), 4.0)
        m.patch((-100, inner, -50), (2800, 0, 0), (0, 0, 100), 4.0)
        if kind == "box":
            m.patch((-100, outer, -50), (2800, 0, 0), (0, 0, 100), 4.0)
        elif closed:
            for z in (-50, 30):
                m.patch((-100, outer, z), (2800, 0, 0), (0, 0, 20), 4.0)
            m.patch((-100, outer, -30), (20, 0, 0), (0, 0, 60), 4.0)
            for x in range(-20, 2700, 100):
                m.patch((x, outer, -30), (min(40, 2700 - x), 0, 0), (0, 0, 60), 4.0)
        for x in RIBS:
            depth = (0, side * 60.0, 0)
            if kind == "ribs":
                m.patch((x, inner, -50), depth, (0, 0, 100), 8.0)
            if kind == "uprights":
                for xx in (x - 20, x + 20):
                    m.patch((xx, inner, -50), (0, side * 40.0, 0), (0, 0, 100), 3.0)
                m.patch((x - 20, inner + side * 40.0, -50), (40, 0, 0), (0, 0, 100), 3.0)
    for x in (300, 1300, 2300):
        x0, x1 = x - 40.0, x + 40.0
        for z in (-30.0, 30.0):
            m.patch((x0, -420, z), (x1 - x0, 0, 0), (0, 840, 0), 3.0)
        for xx in (x0, x1):
            m.patch((xx, -420, -30), (0, 840, 0), (0, 0, 60), 3.0)
            for side in (-1, 1):
                m.patch((xx, side * 420.0, -50), (0, side * 60.0, 0), (0, 0, 100), 4.0)
    return m


def write(path, m, load):
    lines = ["*NODE, NSET=ALL"]
    for (x, y, z), n in m.nodes.items():
        lines.append(f"{n}, {x / 1000:.3f}, {y / 1000:.3f}, {z / 1000:.3f}")
    number = 0
    for t in sorted({t for t, _ in m.elements}):
        lines.append(f"*ELEMENT, TYPE=S8R, ELSET=T{t:.0f}")
        for thickness, nodes in m.elements:
            if thickness == t:
                number += 1
                lines.append(f"{number}, " + ", ".join(map(str, nodes)))
    lines += ["*MATERIAL, NAME=STEEL", "*ELASTIC", f"{E}, {NU}"]
    for t in sorted({t for t, _ in m.elements}):
        lines += [f"*SHELL SECTION, ELSET=T{t:.0f}, MATERIAL=STEEL", f"{t}"]
    count = len(m.nodes)
    refs = {}

    def web(name, x, y):
        nonlocal count
        ring = m.nodes_where(lambda a, b, c: abs(a - x) < .01 and abs(b - y) < .01)
        refs[name] = (count + 1, count + 2)
        lines.extend(["*NODE", f"{count + 1}, {x}, {y}, 0", f"{count + 2}, {x}, {y}, 0", f"*NSET, NSET=W{name}"])
        lines.extend(f"{n}," for n in ring)
        lines.append(f"*RIGID BODY, NSET=W{name}, REF NODE={count + 1}, ROT NODE={count + 2}")
        count += 2

    for name, x, y in (("FL", 0, -420), ("FR", 0, 420), ("RL", 2600, -420), ("RR", 2600, 420)):
        web(name, x, y)
    lines += ["*NSET, NSET=OUT", f"{refs['FL'][0]},"]
    middle = {}
    if load == "bend":
        for name, y in (("ML", -420), ("MR", 420)):
            middle[name] = m.nodes_where(lambda a, b, c: abs(a - 1300) < .01 and abs(b - y) < .01 and abs(c) <= 50.01)
        lines[-1] += f" {middle['ML'][0]},"
    lines += ["*STEP", "*STATIC", "*BOUNDARY"]
    if load == "twist":
        held = [("RL", 1), ("RL", 2), ("RL", 3), ("RR", 1), ("RR", 3), ("FR", 3)]
    else:
        held = [("RL", 1), ("RL", 2), ("RL", 3), ("RR", 3), ("RR", 2), ("FR", 3), ("FL", 3), ("FL", 2)]
    lines += [f"{refs[name][0]}, {dof}, {dof}" for name, dof in held]
    lines.append("*CLOAD")
    if load == "twist":
        lines.append(f"{refs['FL'][0]}, 3, 1000.")
    else:
        for name in middle:
            lines += [f"{n}, 3, {-1000.0 / len(middle[name]):.6f}" for n in middle[name]]
    lines += ["*NODE PRINT, NSET=OUT", "U", "*END STEP", ""]
    path.write_text("\n".join(lines))
    return refs, middle


def moves(folder, name):
    subprocess.run(["ccx", name], cwd=folder, check=True, capture_output=True)
    found = {}
    for line in (folder / f"{name}.dat").read_text().splitlines():
        words = line.split()
        if len(words) == 4 and words[0].isdigit():
            found[int(words[0])] = [float(w) for w in words[1:]]
    return found


def main():
    folder = pathlib.Path(sys.argv[1])
    folder.mkdir(parents=True, exist_ok=True)
    figures = {}
    for name in ("box", "channel", "windowed", "ribs", "uprights"):
        m = frame(name)
        for load in ("twist", "bend"):
            refs, middle = write(folder / f"{name}-{load}.inp", m, load)
            u = moves(folder, f"{name}-{load}")
            at = refs["FL"][0] if load == "twist" else middle["ML"][0]
            figures[f"{name}_{load}_mm"] = round(abs(u[at][2]), 5)
            print(name, load, len(m.nodes), "nodes", len(m.elements), "shells", u[at], flush=True)
    print(json.dumps(figures, indent=1))


main()
