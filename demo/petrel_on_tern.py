#!/usr/bin/env python3
"""Makes the demo build "Petrel on Tern": an Aldermoor Petrel (1952 two-door fastback) on a Brannock Tern (2003 ladder frame).

Everything in it is invented. The script states the hidden truth from which it makes its readings:

  chassis  wheelbase 2790.0 left, 2789.2 right; the right rail stands 5.2 mm ahead of the left (diamond, left rail aft);
           twisted by 1.5 mm over the frame; rails 100 x 60 x 4, top faces marked.
  body     arch centres 2650.0 apart, so the wheelbase must come down by about 140.
  readings tape 1.0 mm + 0.2 mm/m, heights 0.7, levels, offsets and stations 1.0, plumbed 1.5 + 0.2 mm/m, slopes 0.1 degrees,
           all 1 sigma, rounded as people read; one of them, the chassis diagonal Bl-Dr, was read 10 mm too long.

usage: petrel_on_tern.py --cli build/gorvet-cli --out build/petrel_on_tern.gorvet [--seed 1952]
       petrel_on_tern.py --csv FOLDER [--seed N]      only the two readings files, what is said besides, and truth.json
"""
import argparse
import json
import math
import pathlib
import random
import subprocess
import sys

from survey import Surveyor

MISREAD = ("Bl", "Dr", 10.0)
GROUND_Z = 90.0       # of the ground in the chassis frame: wheel centres at 430, tyres 340
TYRE = 340.0

# ---------------------------------------------------------------- hidden truth

def chassis_truth():
    """Points of the chassis: name -> (role, x, y, z)."""
    points = {}

    def rail_top(x):
        stations = [(-520, 540), (250, 500), (900, 490), (1700, 490), (2450, 560), (3150, 566)]
        for (x0, z0), (x1, z1) in zip(stations, stations[1:]):
            if x0 <= x <= x1:
                return z0 + (z1 - z0) * (x - x0) / (x1 - x0)
        raise ValueError(x)

    def rail_y(x):
        stations = [(-520, 430), (250, 430), (900, 440), (1700, 450), (2450, 500), (3150, 500)]
        for (x0, y0), (x1, y1) in zip(stations, stations[1:]):
            if x0 <= x <= x1:
                return y0 + (y1 - y0) * (x - x0) / (x1 - x0)
        raise ValueError(x)

    def pair(name, role, x, y, z):
        points[name + "l"] = (role, x, -y, z)
        points[name + "r"] = (role, x, y, z)

    for name, x in zip("ABCDEF", (-520, 250, 900, 1700, 2450, 3150)):
        pair(name, "rail", x, rail_y(x), rail_top(x))
    pair("FW", "front-hub", 0, 720, 430)
    pair("RW", "rear-hub", 2790, 720, 430)
    pair("FS", "suspension", 180, 380, 420)
    pair("RS", "suspension", 2180, 470, 470)
    for name, x in (("P", 480), ("Q", 1650), ("R", 2330)):
        pair(name, "body-mount", x, rail_y(x) + 70, rail_top(x) - 20)
    points["G"] = ("gearbox-mount", 954, 12, 509)
    pair("X", "crossmember", 1610, 300, 440)
    points["T"] = ("steering", -300, -360, 470)
    for name, x, y in (("V1", 700, -135), ("V2", 700, 150), ("V3", 912, -135), ("V4", 912, 150)):
        points[name] = ("gearbox-pan", x, y, 410)      # corners of the pan's underside

    crooked = {}
    for name, (role, x, y, z) in points.items():
        if name.endswith("r") and role in ("rail", "body-mount", "crossmember"):
            x -= 5.2                                  # diamond
        if y > 0 and role in ("rail", "body-mount"):
            z += 1.5 * (x - 1300) / 3670              # twist: 1.5 mm from the first to the last pair
        if name == "RWr":
            x -= 0.8
        crooked[name] = (role, round(x, 2), round(y, 2), round(z, 2))
    return crooked, rail_top, rail_y


# where the body belongs on the chassis: front arches on the front axle, sill 285 and 291 over the ground
PITCH = -math.atan2(6.0, 1200.0)                      # nose down
def to_chassis(p):
    x, y, z = p
    c, s = math.cos(PITCH), math.sin(PITCH)
    return (c * x + s * z + 1.2, y, -s * x + c * z)   # heights are set by SHIFT_Z below


def body_truth(rail_top, rail_y):
    points = {}

    def pair(name, role, x, y, z):
        points[name + "l"] = (role, x, -y, z)
        points[name + "r"] = (role, x, y, z)

    pair("H", "hinge-pillar", 560, 690, 800)
    pair("SF", "sill-front", 720, 700, 500)
    pair("SR", "sill-rear", 1920, 700, 500)
    pair("AF", "arch-front", 0, 730, 560)
    pair("AR", "arch-rear", 2650, 730, 560)
    # sill front must come 285 over the ground
    shift_z = GROUND_Z + 285 - to_chassis((720, -700, 500))[2]
    # mounts: drilled where they will meet the rails; gaps that the stacks must make up
    for name, station, behind_cut, gap in (("M1", 350, False, 37.0), ("M2", 800, False, 41.5), ("M3", 1900, True, 33.0)):
        rail_station = station + 140 if behind_cut else station
        y = rail_y(rail_station)
        z_chassis = rail_top(rail_station) + gap
        # undo the pose: small pitch, so two steps are enough
        x, z = station, z_chassis - shift_z
        for _ in range(5):
            px, _, pz = to_chassis((x, 0, z))
            x += station - px
            z += (z_chassis - shift_z) - pz
        pair(name, "body-mount", round(x, 1), round(y, 1), round(z, 1))
    for name, x, z in (("N", -620, 860), ("B", 380, 1230), ("K", 1050, 1640), ("L", 1900, 1560), ("Z", 3350, 880)):
        points[name] = ("outline", x, 0, z)
    for name in list(points):
        if name.endswith("r") and name != "ARr":
            role, x, y, z = points[name]
            points[name] = (role, x + 0.6, y + 0.9, z - 0.4)  # no body is the same on both sides
    return points, shift_z


# ---------------------------------------------------------------- readings

def survey_chassis(points, rng):
    s = Surveyor(points, rng, MISREAD)
    rails = [n for n in points if points[n][0] == "rail"]
    diagonals = []
    for p, q in zip("ABCDE", "BCDEF"):
        diagonals += [(p + "l", q + "r"), (p + "r", q + "l"), (p + "l", q + "l"), (p + "r", q + "r")]
    diagonals += [(p + "l", p + "r") for p in "ABCDEF"]
    diagonals += [("Al", "Fr"), ("Ar", "Fl"), ("Al", "Dr"), ("Ar", "Dl"), ("Bl", "Dr"), ("Br", "Dl"), ("Cl", "Er"), ("Cr", "El"), ("Cl", "Fr"), ("Cr", "Fl")]
    diagonals += [("FWl", "RWl"), ("FWr", "RWr"), ("FWl", "RWr"), ("FWr", "RWl"), ("FWl", "FWr"), ("RWl", "RWr")]
    pan = [n for n in points if points[n][0] == "gearbox-pan"]
    names = [n for n in points if n not in pan]
    s.tapes_between(names, 140, 300, 3600, diagonals)
    for name in names:
        s.height(name)
    for name in ("Al", "Ar", "Cl", "Cr", "El", "Er", "FWl", "FWr", "RWl", "RWr", "G", "Fl"):
        s.offset(name)
    for a, b in (("Al", "Bl"), ("Bl", "Cl"), ("Ar", "Br"), ("Br", "Cr"), ("Dl", "El"), ("Dr", "Er")):
        s.station(a, b)
    for name in names:  # the water level across every pair, and along both sides
        if name.endswith("l"):
            s.level(name, name[:-1] + "r")
    for a, b in (("Al", "Bl"), ("Bl", "Pl"), ("Cl", "Ql"), ("Dl", "Rl"), ("El", "Fl"), ("Ar", "Br"), ("Br", "Pr"), ("Cr", "Qr"), ("Dr", "Rr"),
                 ("Cl", "G"), ("G", "Xl"), ("FSl", "FWl"), ("FSr", "FWr"), ("RSl", "RWl"), ("RSr", "RWr"), ("T", "Al")):
        s.level(a, b)
    for a, b in (("Cl", "Dl"), ("Cr", "Dr")):
        s.slope(a, b)
    for a, b in (("FWl", "RWr"), ("FWr", "RWl"), ("Al", "El"), ("Ar", "Er")):
        s.plan(a, b)
    s.rng = random.Random(rng.random())
    for name in pan:
        s.height(name)
        s.offset(name)
        for other in ("Bl", "Br", "Cl", "Cr", "G"):
            s.tape(name, other)
    holds = [("x", "FWl", points["FWl"][1]), ("y", "Bl", points["Bl"][2]), ("y", "El", points["El"][2])]
    return s, s.csv(holds), rails


def survey_body(points, rng):
    s = Surveyor(points, rng)
    first = [("Hl", "Hr"), ("SFl", "SFr"), ("SRl", "SRr"), ("AFl", "AFr"), ("ARl", "ARr"), ("Hl", "ARr"), ("Hr", "ARl"), ("SFl", "SRr"), ("SFr", "SRl"),
             ("AFl", "ARl"), ("AFr", "ARr"), ("AFl", "ARr"), ("AFr", "ARl"), ("Hl", "ARl"), ("Hr", "ARr")]
    s.tapes_between(list(points), 92, 250, 3800, first)
    for name in points:
        s.height(name)
    for name in ("Hl", "Hr", "ARl", "ARr", "N", "K", "Z", "L"):
        s.offset(name)
    for a, b in (("SFl", "SRl"), ("SFr", "SRr"), ("AFl", "Hl"), ("AFr", "Hr"), ("Hl", "ARl"), ("Hr", "ARr")):
        s.station(a, b)
    for name in points:
        if name.endswith("l"):
            s.level(name, name[:-1] + "r")
    for a, b in (("SFl", "SRl"), ("SFr", "SRr"), ("M1l", "M2l"), ("M2l", "M3l"), ("SFl", "AFl"), ("SRr", "ARr"), ("N", "AFr"), ("Z", "ARl"), ("K", "L"), ("B", "K")):
        s.level(a, b)
    holds = [("x", "AFl", points["AFl"][1]), ("y", "Hl", points["Hl"][2]), ("y", "ARl", points["ARl"][2])]
    return s, s.csv(holds)


# ---------------------------------------------------------------- decisions, as typed on the entry line

LINES = """
name Petrel on Tern
name body Aldermoor Petrel
name chassis Brannock Tern
frame ladder
rail 100 x 60 x 4 box top
tyre front 340
tyre rear 340
hinge 557.5 tol 3
travel width 185
track rear faces 1480 wanted 1420 pinion 30 offset 20 tyre 185 within 1570
track rear tube 76 wall 7 flange 60 perches 1030 perch 60 brake 100
track rear shaft-left 770 shaft-right 710 splined 80 engaged 36
pin up chassis:Rl chassis:Rr to M3l M3r least 20 like
pin height N least 180
centred tol 2
sill front 265 tol 3
sill rear 271 tol 3
arch front tol 5
arch rear tol 3
lower channel 40
seating keep low note 20 lower; the floor channelled over the rails
lower none
sill front 285 tol 3
sill rear 291 tol 3
cut 1280
fish-plate 8
overlap 2.5
sleeve-fit 1.5
crossing prop-shaft from -50 to 2790
crossing brake-line slack 20 from 300 to 2700 answer new-length
crossing fuel-line slack 60 from 700 to 2500 answer new-length
crossing park-brake-cable slack 40 from 900 to 2700
crossing exhaust from 400 to 3100
crossing loom slack 400
crossing shift-rod none
crossing cooling-line none
mount all
biscuit 20 squash 15%
washer 3
floor 3
crossmember
isolator 38
box 70 x 50 x 3
flange 8
pad 6
pad-holes 22 9
crossmember form dropped
crossmember fixing captive
crossmember load 2600
pan-clearance 12
present fuel-tank
present battery
absent restraints
absent refrigerant
standing body-off stands right-way-up
brace door-left for left door opening blocks the left seat until bolt-body gap 4.5
brace door-right for right door opening blocks the right seat until bolt-body gap 5
brace sills for width across the sills blocks the tunnel until before-mount-welding
done record note 64 photos, four boxes
done rules by M. note letter of 3 March
done battery-out
done tank-out
"""
SESSIONS = {
    "chassis": "session monday right-way-up stands at 300 and 2700",
    "body": "session tuesday right-way-up trestles at 500 and 2100",
}


# meshes of gorvet-sim, what they stand on, and what is said of the body's sheet
SCANS = [("body", "body", "body", "shell"), ("chassis", "chassis", "chassis", "frame"), ("engine", "chassis", "engine", "engine"),
         ("axle", "chassis", "axle", "axle")] + [("wheel", "chassis", "wheel", f"wheel-{end}-{side}") for end in ("front", "rear") for side in ("left", "right")]
SCAN_LINES = "\n".join(
    [f"scan wheel-{end}-{side} pose {x} {y} 430" for end, x in (("front", 0), ("rear", 2790)) for side, y in (("left", -640), ("right", 640))]
    + ["zone chassis-plate never 480 500 -120 120 900 960", "zone sill-left brace 480 2100 -745 -635 495 645",
       "zone sill-right brace 480 2100 635 745 495 645", "zone tunnel named 480 2300 -190 190 640 860",
       "zone hump named 1750 3100 -500 500 640 860", "zone bulkhead named 400 505 -640 640 640 1090", "zone floor named 505 1750 -640 640 600 860",
       ""])


def main():
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--cli", help="the program gorvet-cli")
    parser.add_argument("--out", help="the build to make; replaced when it is there")
    parser.add_argument("--csv", help="folder for the readings files alone")
    parser.add_argument("--seed", type=int, default=1952)
    parser.add_argument("--sim", help="the program gorvet-sim: the made-up car is scanned, too, and its meshes kept in the build")
    parser.add_argument("--plain", action="store_true", help="without what drives and carries it, and without parts of new steel")
    args = parser.parse_args()
    chassis, rail_top, rail_y = chassis_truth()
    body, shift_z = body_truth(rail_top, rail_y)
    chassis_survey, chassis_csv, _ = survey_chassis(chassis, random.Random(args.seed))
    body_survey, body_csv = survey_body(body, random.Random(args.seed + 1))
    folder = pathlib.Path(args.csv) if args.csv else pathlib.Path(args.out).parent
    folder.mkdir(parents=True, exist_ok=True)
    chassis_file = folder / "tern-chassis.csv"
    body_file = folder / "petrel-body.csv"
    chassis_file.write_text(chassis_csv)
    body_file.write_text(body_csv)
    truth = {
        "misread": list(MISREAD), "diamond_mm": 5.2, "wheelbase_mm": [2790.0, 2789.2], "arch_distance_mm": 2650.0,
        "chassis": {n: p[1:] for n, p in chassis.items()}, "body": {n: p[1:] for n, p in body.items()}, "body_shift_z_mm": shift_z,
        "readings": {"chassis": len(chassis_survey.rows), "body": len(body_survey.rows)},
    }
    if args.csv:
        (folder / "truth.json").write_text(json.dumps(truth, indent=1))
        (folder / "petrel.lines").write_text(LINES)
        return
    out = pathlib.Path(args.out)
    out.unlink(missing_ok=True)

    def cli(*words, text=None):
        done = subprocess.run([args.cli, *words], input=text, text=True, capture_output=True)
        if done.returncode != 0:
            sys.exit(f"{' '.join(words)}: {done.stderr}{done.stdout}")

    cli("new", str(out), "--name", "Petrel on Tern")
    for subject, file in (("chassis", chassis_file), ("body", body_file)):
        cli("enter", str(out), "--subject", subject, SESSIONS[subject])
        cli("import", str(out), str(file), "--subject", subject)
    cli("enter", str(out), text=LINES)
    if args.sim:
        meshes = out.parent / "demo-meshes"
        subprocess.run([args.sim, "demo-meshes", str(meshes)], check=True, capture_output=True)
        for mesh, subject, part, name in SCANS:
            cli("scan", "keep", str(out), str(meshes / f"{mesh}.ply"), "--unit", "mm", "--on", subject, "--part", part, "--name", name)
        cli("enter", str(out), text=SCAN_LINES)
    if not args.plain:
        cli("enter", str(out), text=(pathlib.Path(__file__).parent / "petrel_drive.lines").read_text())
    print(f"{out}: {len(chassis)} points and {len(chassis_survey.rows)} readings of the chassis, "
          f"{len(body)} points and {len(body_survey.rows)} readings of the body")


main()
