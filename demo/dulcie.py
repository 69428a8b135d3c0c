#!/usr/bin/env python3
"""Makes the demo build "Dulcie": a Corvane Dulcie, 1958 coupé, on a spine platform that is made longer and goes narrower behind.

Everything in it is invented. The script states the hidden truth from which it makes its readings:

  chassis  a spine of 190 x 150 x 1.6 down the middle with pans of sheet 1.2 beside it, edges 590 from the middle; wheelbase 2240.0;
           the right pan's edge hangs by 4 mm at Dr, where rust was let in once. Shift rod, park-brake cable, fuel line and a heater
           pipe run inside the spine.
  plan     140 mm longer, cut at 1400; platform and rear axle 70 mm narrower; floors and outriggers out to sills that stand 110 to 120
           further out than its edges do now.
  readings as those of the Petrel: tape 1.0 mm + 0.2 mm/m, heights 0.7, levels, offsets and stations 1.0, all 1 sigma, rounded.

usage: dulcie.py --cli build/gorvet-cli --out build/dulcie.gorvet [--seed 1958]
"""
import random

from survey import Surveyor, make_build

EDGE = 590.0
STATIONS = {"A": 120, "B": 620, "C": 1050, "D": 1760, "E": 2080}


def truth():
    """Points of the chassis: name -> (role, x, y, z)."""
    points = {}

    def pair(name, role, x, y, z):
        points[name + "l"] = (role, x, -y, z)
        points[name + "r"] = (role, x, y, z)

    for name, x in STATIONS.items():
        pair(name, "none", x, EDGE, 210)
    role, x, y, z = points["Dr"]
    points["Dr"] = (role, x, y, z - 4.0)
    points["S1"] = ("none", -200, 0, 290)
    points["S2"] = ("none", 1050, 0, 290)
    points["S3"] = ("none", 2300, 0, 290)
    pair("FW", "front-hub", 0, 640, 300)
    pair("RW", "rear-hub", 2240, 635, 300)
    pair("FS", "suspension", -120, 330, 300)
    pair("RS", "suspension", 2180, 420, 330)
    pair("M", "body-mount", 420, 560, 215)
    pair("N", "body-mount", 1850, 560, 215)
    for name, x, y in (("O", 1050, 710), ("P", 320, 700), ("Q", 1880, 705)):  # the body's sills, taken over with a straightedge
        pair(name, "none", x, y, 205)
    points["G"] = ("gearbox-mount", 320, 0, 250)
    return points


def readings(points, seed):
    s = Surveyor(points, random.Random(seed))
    edges = list(STATIONS)
    first = [(p + a, q + b) for p, q in zip(edges, edges[1:]) for a in "lr" for b in "lr"] + [(p + "l", p + "r") for p in edges]
    first += [("FWl", "RWl"), ("FWr", "RWr"), ("FWl", "RWr"), ("FWr", "RWl"), ("FWl", "FWr"), ("RWl", "RWr"), ("Al", "Er"), ("Ar", "El"),
              ("S1", "S2"), ("S2", "S3"), ("S1", "Al"), ("S1", "Ar"), ("S3", "El"), ("S3", "Er")]
    s.tapes_between(list(points), 110, 200, 3000, first)
    for name in points:
        s.height(name)
    for name in ("Al", "Ar", "Bl", "Cl", "Cr", "El", "Er", "FWl", "FWr", "RWl", "RWr", "G", "S1", "S2", "S3"):
        s.offset(name)
    for a, b in (("Al", "Bl"), ("Bl", "Cl"), ("Ar", "Br"), ("Cl", "Dl"), ("Dr", "Er"), ("S1", "S2"), ("S2", "S3")):
        s.station(a, b)
    for name in points:
        if name.endswith("l"):
            s.level(name, name[:-1] + "r")
    for a, b in (("Al", "Bl"), ("Bl", "Cl"), ("Cl", "Dl"), ("Dl", "El"), ("Ar", "Br"), ("Br", "Cr"), ("Cr", "Dr"), ("Dr", "Er"), ("S1", "S2"),
                 ("S2", "S3"), ("Cl", "S2"), ("FWl", "FSl"), ("RWl", "RSl")):
        s.level(a, b)
    return s.csv([("x", "FWl", 0), ("y", "S1", 0), ("y", "S3", 0)])


# front wheels on two trailing arms a side, one over the other, and a tie rod from the middle: taken by a fixture at rest
ARM_POINTS = {"TA": (-150, 400, 228), "TB": (-150, 250, 228), "TC": (-4, 560, 222), "UA": (-150, 400, 368), "UB": (-150, 250, 368), "UC": (4, 560, 362),
              "SI": (-136, 60, 258), "SO": (-140, 596, 256)}

# the steering: a rack across the middle, a column past the heater pipe, its hand wheel on the left; the plate under the rack
STEERING_POINTS = {"Wh": (880, -330, 640), "Ja": (330, -330, 440), "Jb": (80, -235, 375), "Sg": (-60, -160, 262), "Bg": (600, -330, 538.2),
                   "Ba": (200, -360, 340), "Bb": (200, -190, 340), "Bc": (212, -270, 480), "Ha": (-150, -180, 240), "Hb": (-150, -70, 240),
                   "Hc": (-90, -180, 240), "Hd": (-90, -70, 240), "Ea": (150, -120, 300), "Eb": (700, -150, 240), "Qa": (200, -300, 250),
                   "Qb": (900, -260, 215)}


def arm_lines():
    lines = []
    for name, (x, y, z) in ARM_POINTS.items():
        for end, side in (("l", -1), ("r", 1)):
            lines += [f"point {name}{end} {x} {side * y} {z}", f"coordinates {name}{end} {x} {side * y} {z}"]
    for end, side in (("l", "left"), ("r", "right")):
        lines += [f"link lower-{side} front-{side} wishbone TA{end} TB{end} TC{end}", f"link upper-{side} front-{side} wishbone UA{end} UB{end} UC{end}",
                  f"link tie-{side} front-{side} tie-rod SI{end} SO{end}"]
    for name, (x, y, z) in STEERING_POINTS.items():
        lines += [f"point {name} {x} {y} {z}", f"coordinates {name} {x} {y} {z}"]
    return "\n".join(lines)


LINES = """
name Dulcie
name body Corvane Dulcie
name chassis its platform
frame spine-platform
tyre front 290
tyre rear 290
member spine spine through S1 S2 S3 box 190 150 1.6
member floor pan from 120 to 2080 flat 1180 1.2
member nose crossmember through Al Ar box 80 60 2
member dash crossmember through Bl Br hat 45 70 18 1.5
member seats crossmember through Cl Cr hat 45 70 18 1.5
member rear-seat crossmember through Dl Dr hat 45 70 18 1.5
member heel crossmember through El Er box 90 60 2
springs front other
springs rear other
yield 210 ?
change 140
cut 1400
kerf 1.2
overlap 2
sleeve-wall 2
crossing shift-rod inside answer new-length long 1690 hours 3
crossing park-brake-cable inside slack 20 answer new-length long 2410 hours 1
crossing fuel-line inside slack 10 answer new-length long 2980 hours 1.5 out
crossing cooling-line heater inside slack 10 answer new-length long 2300 hours 1
crossing brake-line slack 15 answer new-length long 2240 hours 2 out
crossing loom slack 180 answer re-clip
crossing exhaust answer new-length long 2600 hours 2
crossing prop-shaft none
load engine 118 kg at 40 0 420 over 500 source scales
load gearbox 36 kg at 420 0 330 over 500 source scales
load shell 240 kg at 1050 0 620 over 2100 with-body source scales
load tank 34 kg at 2350 0 400 over 400 source full
load seats 150 kg? at 1350 0 480 over 600 with-body source two people
weight front-left 168 kg
weight front-right 170 kg
weight rear-left 182 kg
weight rear-right 179 kg
stand nose at -120 rated 500 sound
stand dash at 900 rated 500 sound
stand seat at 1500 rated 500 sound
stand tail at 2240 rated 500 sound
track rear faces 1270 wanted 1200 pinion 0 offset 15 tyre 155 within 1330
track rear tube 70 wall 6 yield 235 flange 55 perches 840 perch 50 brake 85
track rear shaft-left 628 shaft-right 628 splined 90 engaged 34
narrow by 70 at 460
floor-edge left-floor from Al Bl Cl Dl El to Pl Ol Ql sheet 1.5 lap 20 upstand 25 outriggers 60 40 3 pitch 900 carries 100
floor-edge right-floor from Ar Br Cr Dr Er to Pr Or Qr sheet 1.5 lap 20 upstand 25 outriggers 60 40 3 pitch 900 carries 100
{ARMS}
travel front bump 60
travel front droop 50
travel lock 30°
column steering through Wh Ja Jb Sg across 19 bearings Bg bulkhead Ba Bb Bc
column steering forks 0° gives 60 limit 35°
steer-gear rack-1 rack holes Ha Hb Hd Hc bolt 8 plate 5
steer-gear rack-1 rack each-way 66 turns 2.8
run heater cooling-line through Qa Qb across 18
run downpipe exhaust through Ea Eb across 42
spring front torsion bar 15 long 880 arm 146 higher -20
lifted front 520 rear 376 kg
lifted front 640 rear 380 kg
present fuel-tank
absent refrigerant
absent restraints
""".replace("{ARMS}", arm_lines())


def main():
    out = make_build(__doc__, "Dulcie", 1958, lambda seed: readings(truth(), seed),
                     ("session monday right-way-up stands at 300 and 1900", "point Ml body-mount 420 -560 260", LINES))
    print(f"{out}: a spine platform of {len(truth())} points, to be made longer and narrower")


if __name__ == "__main__":
    main()
