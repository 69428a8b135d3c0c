#!/usr/bin/env python3
"""Makes the demo build "Drover long": a Marrick Drover, 1961 panel van, on its own channel-section frame.

Everything in it is invented. The script states the hidden truth from which it makes its readings:

  chassis  ladder of open channels 120 x 55 x 3.5, open inwards, top faces marked; wheelbase 2590.0; rails 760 apart over their
           middles; the left rail sags by 3 mm in its middle; at Dl rust has left 2.3 mm of 3.5.
  plan     210 mm longer, cut at 1580; the bay behind the cab closed with plates, the tail's last crossmember renewed.
  readings as those of the Petrel: tape 1.0 mm + 0.2 mm/m, heights 0.7, levels, offsets and stations 1.0, all 1 sigma, rounded.

usage: drover_long.py --cli build/gorvet-cli --out build/drover_long.gorvet [--seed 1961]
"""
import pathlib
import random

from survey import Surveyor, make_build

RAIL_Y = 380.0
STATIONS = {"A": -560, "B": 260, "C": 1000, "D": 1900, "E": 2600, "F": 3400}


def truth():
    """Points of the chassis: name -> (role, x, y, z)."""
    points = {}

    def pair(name, role, x, y, z):
        points[name + "l"] = (role, x, -y, z)
        points[name + "r"] = (role, x, y, z)

    for name, x in STATIONS.items():
        pair(name, "rail", x, RAIL_Y, 560)
    sag = {"C": -2.2, "D": -3.0, "E": -1.4}
    for name, dz in sag.items():
        role, x, y, z = points[name + "l"]
        points[name + "l"] = (role, x, y, z + dz)
    pair("FW", "front-hub", 0, 700, 400)
    pair("RW", "rear-hub", 2590, 700, 400)
    pair("FS", "suspension", -420, 380, 500)
    pair("FT", "suspension", 470, 380, 505)
    pair("RS", "suspension", 2000, 380, 505)
    pair("RT", "suspension", 3180, 380, 505)
    pair("M", "body-mount", 420, 440, 575)
    pair("N", "body-mount", 1250, 440, 575)
    pair("X", "crossmember", 1010, 340, 500)
    pair("Y", "crossmember", 2060, 340, 500)
    points["G"] = ("gearbox-mount", 980, 0, 520)
    return points


def readings(points, seed):
    s = Surveyor(points, random.Random(seed))
    rails = list(STATIONS)
    first = [(p + a, q + b) for p, q in zip(rails, rails[1:]) for a in "lr" for b in "lr"] + [(p + "l", p + "r") for p in rails]
    first += [("FWl", "RWl"), ("FWr", "RWr"), ("FWl", "RWr"), ("FWr", "RWl"), ("FWl", "FWr"), ("RWl", "RWr"), ("Al", "Fr"), ("Ar", "Fl")]
    s.tapes_between(list(points), 120, 250, 3900, first)
    for name in points:
        s.height(name)
    for name in ("Al", "Ar", "Bl", "Cl", "Cr", "El", "Er", "FWl", "FWr", "RWl", "RWr", "G", "Fl"):
        s.offset(name)
    for a, b in (("Al", "Bl"), ("Bl", "Cl"), ("Ar", "Br"), ("Cl", "Dl"), ("Dr", "Er")):
        s.station(a, b)
    for name in points:
        if name.endswith("l"):
            s.level(name, name[:-1] + "r")
    for a, b in (("Al", "Bl"), ("Bl", "Cl"), ("Cl", "Dl"), ("Dl", "El"), ("El", "Fl"), ("Ar", "Br"), ("Br", "Cr"), ("Cr", "Dr"), ("Dr", "Er"),
                 ("Er", "Fr"), ("Cl", "G"), ("FWl", "FSl"), ("RWl", "RSl")):
        s.level(a, b)
    return s.csv([("x", "FWl", 0), ("y", "Bl", -RAIL_Y), ("y", "El", -RAIL_Y)])


LINES = """
name Drover long
name body Marrick Drover
name chassis its own frame
frame ladder
rail 120 x 55 x 3.5 channel top
found thin Dl 2.3 of 3.5
tyre front 335
tyre rear 335
change 210
cut 1580
fish-plate 6
overlap 2
sleeve-fit 1
crossing prop-shaft from 300 to 2590
crossing brake-line left slack 15 from 200 to 2560 clips 9 answer new-length long 2790 hours 2 out
crossing brake-line right slack 15 from 200 to 2560
crossing fuel-line slack 40 from 1600 to 3100
crossing park-brake-cable slack 25 from 900 to 2560
crossing exhaust from 300 to 3300
crossing loom slack 260 answer re-clip
crossing shift-rod none
crossing cooling-line none
member nose crossmember at -480 channel 90 45 3 turned 180° below 8 riveted
member engine crossmember at 300 box 70 60 3 below 22
member middle crossmember at 1010 channel 100 50 3.5 below 4 riveted
member rear-front crossmember at 2060 channel 100 50 3.5 below 4 riveted
member axle crossmember at 2700 tube 60 3 below 6
member tail crossmember at 3300 channel 90 45 2.5 riveted comes-out
member tail-new crossmember at 3300 box 80 60 3 planned
member shut-front plate from 300 to 1010 4 planned
member shut-middle plate from 1010 to 2060 4 planned
yield 235 ?
load engine 190 kg at 60 0 640 over 700 source scales
load gearbox 58 kg at 700 0 560 over 500 source scales
load cab 385 kg at 700 -20 1020 over 1500 with-body source scales
load tank 46 kg at 2950 -150 540 over 500 source full
load bed 260 kg at 2250 0 820 over 1900 with-body source scales
load freight 250 kg? at 2300 0 1050 over 1700 with-body source said by the owner
wheel-rate front 26
wheel-rate rear 32
springs front leaf
springs rear leaf
point Go 1120 8 470
point Pn 2412 20 424
coordinates Go 1120 8 470
coordinates Pn 2412 20 424
point Lfl 1990 -440 470
point Lfr 1990 440 470
point Lal 2525 -440 400
point Lar 2525 440 400
point Ufl 2170 -330 590
point Ufr 2170 330 590
point Ual 2610 -330 560
point Uar 2610 330 560
point Pf 2690 -470 470
point Pa 2690 430 460
coordinates Lfl 1990 -440 470
coordinates Lfr 1990 440 470
coordinates Lal 2525 -440 400
coordinates Lar 2525 440 400
coordinates Ufl 2170 -330 590
coordinates Ufr 2170 330 590
coordinates Ual 2610 -330 560
coordinates Uar 2610 330 560
coordinates Pf 2690 -470 470
coordinates Pa 2690 430 460
output gearbox at Go swing 0.2°
pinion rear at Pn swing 0°
shaft main from gearbox to rear joints cross cross slip front
shaft main phase 0° in 40 out 55 tube 76 2 limit 22° loops
level-on frame -0.6°
level-on frame -0.5°
level-on gearbox 2.4°
level-on rear 4.6°
level-on main 1.5°
drive redline 4200 torque 240 first 3.4 top 1 cruise 90 tyre 690 cg 760 layout parallel ratio-rear 3.73
turns rear-axle shaft 19.5 wheel 10 one-held within 0.1
travel rear bump 75
travel rear droop 85
link lower-left rear-axle rod Lfl Lal
link lower-right rear-axle rod Lfr Lar
link upper-left rear-axle rod Ufl Ual
link upper-right rear-axle rod Ufr Uar
link panhard rear-axle rod Pf Pa
rim rear fitted width 5in diameter 16in backspace 84 over-lips 152 tyre 178 aspect 80 outside 690 section 178
rim rear fitted inside 375 spokes 42 bore 77 studs 5 chord 67.2 carries 690 speed 150
rim rear wanted width 7in offset 2 over-lips 203 tyre 215 aspect 65 inside 372 spokes 40 bore 77 studs 5 circle 114.3 carries 750 speed 190
hub rear studs 5 chord 67.2 spigot 76.8 stud 12 out 30 brake-radius 152 brake-out 18 axle 1300
room arch-lip rear out 152 up 372 ahead 0
room box-wall rear out -205 up 250 ahead 0
room rail rear out -212 up 40 ahead 0 on frame
dial rear-left lateral 0 0.3 0.6 0.8 0.6 0.2 -0.2 -0.5 -0.6 -0.5 -0.3 -0.1
seat rear faces 1412 tube 82 springs 440 440 width 60 pads 1.5deg
point Dtl 2650 -470 640
coordinates Dtl 2650 -470 640
point Sf 2560 -440 440
coordinates Sf 2560 -440 440
point St 2560 -440 700
coordinates St 2560 -440 700
point Xa 700 -250 420
coordinates Xa 700 -250 420
point Xb 2000 -280 400
coordinates Xb 2000 -280 400
point Ka 500 -400 520
coordinates Ka 500 -400 520
point Kb 2300 -395 510
coordinates Kb 2300 -395 510
bracket damper-left rear damper right -500 ahead -60 up -70 frame Dtl closed 225 open 430
tacked lower-left rear is 266.5 wanted 266
tacked lower-right rear is 265.2 wanted 266 welded 264.3
gears rear-axle backlash 0.15 0.17 0.16 0.14 least 0.13 most 0.20 spread 0.05
link-holes lower-left frame pitch 32 above 1 below 2 hole 16
spring rear coil rate 48 foot Sf top St free 318 higher 30
run front-pipe exhaust through Xa Xb across 54
run brake-pipe brake-line through Ka Kb across 6
brake front drum piston 28.6 pistons 2 radius 140 factor 2.4 stroke 0.9
brake rear drum piston 22.2 pistons 1 radius 140 factor 2.2 stroke 0.9
pedal brake lever 280 arm 56 bore 25.4 room 160 stroke 38
weight front-left 402 kg
weight front-right 396 kg
weight rear-left 318 kg
weight rear-right 322 kg
stand nose at -450 rated 1500 sound
stand dash at 1250 rated 1500 sound
stand axle at 1900 rated 1500 sound
stand tail at 3250 rated 1500 sound
"""


def main():
    more = (pathlib.Path(__file__).parent / "drover_long.lines").read_text()
    out = make_build(__doc__, "Drover long", 1961, lambda seed: readings(truth(), seed),
                     ("session monday right-way-up stands at 200 and 2800", "point Ml body-mount 300 -400 600", LINES + more))
    print(f"{out}: a channel frame of {len(truth())} points, its members, loads and work")


if __name__ == "__main__":
    main()
