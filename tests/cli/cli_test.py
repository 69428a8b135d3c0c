"""Tests gorvet-cli as a person uses it. usage: cli_test.py CLI SOURCE_DIR WORK_DIR"""
import json
import math
import os
import pathlib
import re
import shutil
import struct
import subprocess
import sys
import unittest

CLI, SOURCE, WORK = sys.argv[1], pathlib.Path(sys.argv[2]), pathlib.Path(sys.argv[3])

HEADER = "kind,from,to,value,unit,sigma_mm,note\n"
RECTANGLE = HEADER + """point,Al,rail,"0 -400 0",mm,,
point,Ar,rail,"0 400 0",mm,,
point,Bl,rail,"2000 -400 0",mm,,
point,Br,rail,"2000 400 0",mm,,
hold-x,Al,,0,mm,,
hold-y,Al,,-400,mm,,
hold-y,Bl,,-400,mm,,
hold-z,Al,,0,mm,,
hold-z,Ar,,0,mm,,
hold-z,Bl,,0,mm,,
hold-z,Br,,0,mm,,
tape,Al,Ar,800,mm,,
tape,Bl,Br,800,mm,,
tape,Al,Bl,2000,mm,,
tape,Ar,Br,2000,mm,,
tape,Al,Br,2154.07,mm,,
tape,Ar,Bl,2154.07,mm,,
"""

os.environ["GORVET_TODAY"] = "2026-11-30"


def jpeg(shade, turned=0, taken=b""):
    """The marks of a JPEG, 64 x 48, with what a camera says; its coded part stands for any."""
    def part(mark, data):
        return b"\xff" + bytes([mark]) + struct.pack(">H", len(data) + 2) + data
    exif = b""
    if turned:
        tiff = (b"II*\0" + struct.pack("<IHHHIHHHHII", 8, 2, 0x0112, 3, 1, turned, 0, 0x8769, 4, 1, 38) + struct.pack("<I", 0) +
                struct.pack("<HHHIII", 1, 0x9003, 2, len(taken) + 1, 56, 0) + taken + b"\0")
        exif = part(0xE1, b"Exif\0\0" + tiff)
    frame = part(0xC0, struct.pack(">BHHB", 8, 48, 64, 1) + b"\x01\x11\x00")
    return b"\xff\xd8" + exif + frame + part(0xDA, b"\x01\x01\x00\x00\x3f\x00") + bytes([shade, 1, 2, 3]) * 20 + b"\xff\xd9"


def cli(*words, text=None, today=None):
    env = dict(os.environ, GORVET_TODAY=today) if today else None
    return subprocess.run([CLI, *map(str, words)], input=text, text=True, capture_output=True, timeout=120, env=env)


class Cli(unittest.TestCase):
    made = None

    def demo(self, path):
        """A copy of the demo build, as its script makes it: once for all tests."""
        if Cli.made is None:
            fresh = WORK / "demo-once.gorvet"
            made = subprocess.run(["/usr/bin/python3", SOURCE / "demo" / "petrel_on_tern.py", "--cli", CLI, "--out", fresh], text=True, capture_output=True)
            self.assertEqual(made.returncode, 0, made.stderr)
            Cli.made = fresh
        shutil.copyfile(Cli.made, path)

    def setUp(self):
        self.dir = WORK / self.id().split(".")[-1]
        shutil.rmtree(self.dir, ignore_errors=True)
        self.dir.mkdir(parents=True)

    def file(self, name, text):
        path = self.dir / name
        path.write_text(text)
        return path

    def crop(self, page, x, y, w, h, to):
        head, dots = page.read_bytes().split(b"255\n", 1)
        width, height = map(int, head.split()[-2:])
        w, h = min(w, width - x), min(h, height - y)
        to.write_bytes(b"P5 %d %d 255\n" % (w, h) + b"".join(dots[line * width + x:line * width + x + w] for line in range(y, y + h)))

    def test_a_cab_comes_off_by_the_line(self):
        build = self.dir / "cab.gorvet"
        cli("new", build, "--name", "Drover long")
        j = json.loads(cli("work", build).stdout)
        self.assertEqual([s["code"] for s in j["steps"]], ["record", "survey-agrees"])
        self.assertFalse(j["planned"])
        self.assertEqual(cli("enter", build, "--subject", "body", "point Ml body-mount 300 -400 600").returncode, 0)
        self.assertEqual(cli("enter", build, "jobs cab-off", "job floor-left does weld the floor kind weld hours 2 3 6 body-off").returncode, 0)
        j = json.loads(cli("work", build).stdout)
        self.assertEqual((j["body_moves_left"], j["stuck"], j["moves"]["exact"]), (2, False, True))
        codes = [s["code"] for s in j["steps"]]
        self.assertLess(codes.index("tank-out"), codes.index("job-floor-left"))
        self.assertEqual(json.loads(cli("work", build, "--play").stdout)["played_to_the_end"], True)
        one = json.loads(cli("job", build, "floor-left").stdout)
        self.assertEqual(one["hours"], {"likely": 3, "least": 2, "most": 6})
        self.assertIn("tank-in", [s["code"] for s in one["if_it_slips_these_wait"]])
        self.assertEqual(cli("job", build, "nobody").returncode, 2)
        self.assertIn("no step or job nobody", cli("job", build, "nobody").stderr)
        # the register: the lift waits for it, and is refused by name
        j = json.loads(cli("release", build).stdout)
        self.assertGreater(j["still_tied"], 8)
        self.assertFalse(j["lift"]["can_be_made"])
        rows = [r["name"] for r in j["rows"]]
        self.assertEqual(cli("enter", build, "untied " + " ".join(rows)).returncode, 0)
        refused = cli("enter", build, "proved " + rows[0])
        self.assertEqual(refused.returncode, 1)
        self.assertIn("walk-round", refused.stderr)
        j = json.loads(cli("release", build).stdout)
        self.assertEqual((j["still_tied"], j["not_seen_free_twice"]), (0, len(rows)))
        # labels: as many codes as rows, read again from the paper
        labels = self.dir / "labels.pdf"
        self.assertEqual(cli("release", build, "--labels", labels, "--stock", "63.5x38.1", "--from", 3).returncode, 0)
        # held on one label after the other, as a person does: 63.5 × 38.1, three across
        subprocess.run(["pdftoppm", "-r", "300", "-gray", labels, self.dir / "page"], check=True)
        for n, page in enumerate(sorted(self.dir.glob("page*.pgm"))):
            for row in range(7):
                for column in range(3):
                    x, y, w, h = (round(mm * 300 / 25.4) for mm in (7.2 + column * 66.0, 15.1 + row * 38.1, 63.5, 38.1))
                    self.crop(page, x, y, w, h, self.dir / f"label-{n}-{row}-{column}.pnm")
        found = subprocess.run(["zbarimg", "--raw", "-q", "-Sdisable", "-Sqrcode.enable", *sorted(self.dir.glob("label*.pnm"))],
                               text=True, capture_output=True).stdout.split("\n")
        self.assertEqual(sorted(filter(None, found)), sorted("row " + r for r in rows))
        self.assertIn("no labels of 1x1", cli("release", build, "--labels", labels, "--stock", "1x1").stderr)
        self.assertIn("earth-strap, engine bay, undone", cli("enter", build, "row earth-strap").stderr)
        # what did not come off is done again; on paper stands the order, and the register both ways
        self.assertEqual(cli("enter", build, "done record", "failed record half of the photos are blurred").returncode, 0)
        self.assertEqual(json.loads(cli("work", build).stdout)["steps"][0]["failed_before"], 1)
        self.assertEqual(cli("export", build, "--all", self.dir / "sheets").returncode, 0)
        text = subprocess.run(["pdftotext", "-layout", self.dir / "sheets" / "register.pdf", "-"], text=True, capture_output=True).stdout
        self.assertIn("seen free once more on another walk-round", text)
        self.assertIn("the same backwards", text)
        undo, again = text.split("the same backwards", 1)
        for row in rows:
            self.assertIn(row, undo)
            self.assertIn(row, again)

    def test_what_hangs_on_slings(self):
        legs = [f"{n}:{x},{y},0:2250:{{}}:sound" for n, x, y in (("fl", -1200, -600), ("fr", -1200, 600), ("rl", 1200, -600), ("rr", 1200, 600))]
        def lift(rated, centre):
            words = ["lift", "--spreader", "--mass", 500, "--mass-pm", 10, "--centre", centre]
            for leg in legs:
                words += ["--leg", leg.format(rated)]
            return cli(*words)
        good = json.loads(lift(1000, "0,0,-300").stdout)
        self.assertEqual((good["verdict"], good["in_balance"]), ("Holds", True))
        self.assertAlmostEqual(good["tilt_deg"], 0, places=6)
        up = (2250**2 - 1200**2 - 600**2) ** 0.5
        self.assertAlmostEqual(good["hook"]["z_mm"], up, places=3)
        self.assertAlmostEqual(good["legs"][0]["most_kg"], 500 * 2250 / up / 2, places=3)
        weak = lift(200, "0,0,-300")
        self.assertEqual((weak.returncode, json.loads(weak.stdout)["verdict"]), (1, "Fails"))
        askew = json.loads(lift(1000, "300,0,-300").stdout)
        self.assertGreater(askew["tilt_deg"], 3)
        self.assertGreater(askew["ballast_kg"], 50)
        self.assertIn("no length", cli("lift", "--mass", 1, "--centre", "0,0,0", "--leg", "a:0,0,0:long", "--leg", "b:1,0,0:5").stderr)

    def test_time_lifts_and_the_owner(self):
        build = self.dir / "cab.gorvet"
        cli("new", build, "--name", "Drover long")
        said = ["jobs cab-off", "job floor-left does weld the floor area left kind weld hours 2 4 9 body-off",
                "job lamps does lamps in hours 3 after floor-left", "await seals for lamps days 10 20 45 cost 90", "hours record 1",
                "shop weekday 3 saturday 6 people 1 wanted 2027-03-01 hour-costs 40", "off 2026-12-24 2027-01-02 holidays",
                "decide floor asks patch it or a whole new floor for floor-left wanted 2026-12-12",
                "choice floor patch what a patch of 1.2 sheet price 180 hours 4 days 1", "choice floor whole price 900 hours 20 days 9",
                "lift cab way slings weighs 380 pm 20 centre 1000 0 500 spreader",
                "leg cab fl 200 -500 900 long 1800 rated 1000 sound", "leg cab fr 200 500 900 long 1800 rated 1000 sound",
                "leg cab rl 1800 -500 900 long 1800 rated 1000 sound", "leg cab rr 1800 500 900 long 1800 rated 1000 sound",
                "lift tail way stands weighs 120 pm 5 centre 90 0 0", "leg tail a 0 -300 0 rated 500 sound", "leg tail b 0 300 0 rated 500 sound",
                "leg tail c 900 0 0 rated 500 sound"]
        ran = cli("enter", build, *said)
        self.assertEqual(ran.returncode, 0, ran.stderr)
        j = json.loads(cli("plan", build).stdout)
        self.assertEqual(j["today"], "2026-11-30")
        self.assertLess(j["finish"]["p10"], j["finish"]["p90"])
        self.assertGreater(j["steps_without_hours"], 5)
        self.assertIn("counted as nothing", j["sentence"])
        self.assertEqual(j["shop"]["provenance"], "measured")
        self.assertEqual(j["costs"]["parts"], 90)
        seals = j["parts"][0]
        self.assertLess(seals["order_by"], "2026-11-30") # a month of waiting is longer than the work before it
        self.assertIn("work.order-by", [f["code"] for f in j["findings"]])
        # what was agreed to changes the hours, and the step waits until it is
        def open_of_the_floor():
            step = [s for s in json.loads(cli("work", build).stdout)["steps"] if s["code"] == "job-floor-left"][0]
            return [c["text"] for c in step["conditions"] if not c["met"]]
        self.assertEqual(open_of_the_floor(), ["floor is agreed: patch it or a whole new floor"])
        refused = cli("enter", build, "agreed floor patch")
        self.assertIn("Who agreed is missing", refused.stderr)
        self.assertEqual(cli("enter", build, "agreed floor patch by A. Owner").returncode, 0)
        self.assertEqual(open_of_the_floor(), [])
        self.assertIn("stay as they were", cli("enter", build, "choice floor patch price 1").stderr)
        j = json.loads(cli("client", build).stdout)
        self.assertEqual(j["agreed"], {"price": 180, "hours": 4, "days": 1})
        self.assertEqual(j["decisions"][0]["agreed"]["who"], "A. Owner")
        floor = [s for s in json.loads(cli("plan", build).stdout)["steps"] if s["code"] == "job-floor-left"][0]
        self.assertEqual(floor["hours"], {"least": 6, "likely": 8, "most": 13})
        # hours that are logged are learned from once the step is done
        self.assertEqual(cli("enter", build, "worked record 3 on 2026-11-28 by Kim", "done record").returncode, 0)
        j = json.loads(cli("plan", build).stdout)
        self.assertEqual(j["history"]["steps"], 1)
        self.assertGreater(j["history"]["takes_times_what_is_said"], 1.1)
        self.assertIn("still to come", cli("enter", build, "worked record 1 on 2099-01-01").stderr)
        # lifts, worked out
        j = {l["name"]: l for l in json.loads(cli("lift", build).stdout)["lifts"]}
        self.assertEqual((j["cab"]["verdict"], j["tail"]["verdict"]), ("Holds", "Marginal"))
        self.assertAlmostEqual(sum(p["load_kg"] for p in j["tail"]["points"]), 120, places=6)
        self.assertAlmostEqual(j["tail"]["points"][2]["load_kg"], 120 * 90 / 900, places=6)
        self.assertEqual(cli("enter", build, "leg cab fl rated 100").returncode, 0)
        j = {l["name"]: l for l in json.loads(cli("lift", build).stdout)["lifts"]}
        self.assertEqual(j["cab"]["verdict"], "Fails")
        self.assertIn("work.lift", [f["code"] for f in json.loads(cli("findings", build).stdout)["findings"]])
        # on paper, and in a calendar that a second reader reads
        self.assertEqual(cli("export", build, "--all", self.dir / "sheets").returncode, 0)
        for name, words in (("lifts.pdf", "may have to carry"), ("time.pdf", "All done, of 100"), ("for-the-owner.pdf", "name and signature")):
            text = subprocess.run(["pdftotext", "-layout", self.dir / "sheets" / name, "-"], text=True, capture_output=True).stdout
            self.assertIn(words, text, name)
        from icalendar import Calendar
        calendar = Calendar.from_ical((self.dir / "sheets" / "time.ics").read_bytes())
        events = {str(e["summary"]): e for e in calendar.walk("VEVENT")}
        self.assertIn("weld the floor", events)
        self.assertIn("Order seals", events)
        self.assertLess(events["weld the floor"].decoded("dtstart"), events["All may be done"].decoded("dtend"))
        self.assertIn("Caution", str(events["weld the floor"]["description"]))

    def test_the_drovers_cab(self):
        build = self.dir / "drover.gorvet"
        cli("new", build, "--name", "Drover long")
        cli("enter", build, "--subject", "body", "point Ml body-mount 300 -400 600")
        ran = cli("enter", build, text=(SOURCE / "demo" / "drover_long.lines").read_text())
        self.assertEqual(ran.returncode, 0, ran.stderr)
        self.assertEqual(json.loads(cli("work", build, "--play").stdout)["played_to_the_end"], True)
        j = json.loads(cli("plan", build).stdout)
        self.assertGreater(j["costs"]["labour_left"]["p50"], 0)
        self.assertEqual(json.loads(cli("client", build).stdout)["agreed"]["price"], 120)
        lifts = {l["name"]: l["verdict"] for l in json.loads(cli("lift", build).stdout)["lifts"]}
        self.assertEqual(lifts, {"cab": "Marginal", "frame": "Holds"}) # one sling was not looked at
        self.assertIn("work.coat-cold", [f["code"] for f in json.loads(cli("findings", build).stdout)["findings"]])

    def test_photos_before_and_after(self):
        f = self.dir / "photos.gorvet"
        cli("new", f)
        cli("enter", f, "job floor-left kind weld hours 4 area cabin", "tag earth-left cable area engine bay")
        before, after = self.dir / "before.jpg", self.dir / "after.jpg"
        before.write_bytes(jpeg(10, 6, b"2026:11:02 09:30:00"))
        after.write_bytes(jpeg(20, 1, b"2026:11:28 17:00:00"))
        heic = self.dir / "phone.heic"
        heic.write_bytes(b"\0\0\0\x18ftypheic" + bytes(200))
        cut = self.dir / "cut.jpg"
        cut.write_bytes(jpeg(30)[:60])
        # what can't be kept is said, file by file, and the others are kept
        ran = cli("photo-add", f, before, heic, cut, "--step", "floor-left", "--when", "before", "--note", "the hole behind the seam")
        self.assertEqual(ran.returncode, 1)
        self.assertIn("HEIC", ran.stderr)
        self.assertIn("cut off", ran.stderr)
        self.assertIn("photo p0001", ran.stderr)
        self.assertEqual(cli("photo-add", f, after, "--area", "cabin", "--when", "after").returncode, 0)
        again = cli("photo-add", f, before)
        self.assertIn("kept already, as p0001", again.stderr)
        self.assertNotEqual(again.returncode, 0)
        self.assertEqual(cli("photo-add", f, after, "--when", "someday").returncode, 2)
        self.assertIn("no step or job nowhere", cli("photo-add", f, after, "--step", "nowhere").stderr)
        self.assertIn("neither a row", cli("photo-add", f, after, "--of", "nobody").stderr)
        sound = self.dir / "said.wav"
        sound.write_bytes(b"RIFF\0\0\0\0WAVEfmt " + bytes(200))
        self.assertEqual(cli("photo-add", f, sound, "--voice", "--of", "earth-left").returncode, 0)
        j = json.loads(cli("photos", f).stdout)
        first, second, third = j["photos"]
        self.assertEqual((first["taken"], first["turned"], first["width_px"], first["height_px"]), ("2026-11-02 09:30:00", 6, 48, 64))
        self.assertEqual((first["step"], first["area"], first["when"]), ("job-floor-left", "cabin", "before"))
        self.assertEqual((third["kind"], third["area"], third["of"]), ("voice", "engine bay", "earth-left"))
        self.assertEqual(j["before_and_after"], [{"place": "cabin", "before": "p0001", "after": "p0002"}])
        self.assertEqual(cli("photo-out", f, first["hash"], self.dir / "out.jpg").returncode, 0)
        self.assertEqual((self.dir / "out.jpg").read_bytes(), before.read_bytes())
        # struck out: it stays in the file
        self.assertEqual(cli("enter", f, "strike-photo p0002").returncode, 0)
        j = json.loads(cli("photos", f).stdout)
        self.assertEqual(j["before_and_after"], [])
        self.assertEqual(len(j["photos"]), 3)

    def test_the_shelf_and_what_must_be_bought(self):
        f = self.dir / "buy.gorvet"
        self.demo(f)
        open_steel = [t for t in json.loads(cli("buy", f).stdout)["things"] if t["kind"] == "steel" and t["open"]]
        self.assertTrue(open_steel)
        bridge = [t for t in open_steel if t["what"].startswith("box")][0]
        section = bridge["what"].replace("×", "").split()
        length = int(bridge["amount"].split()[0])
        stock = f"stock long {section[0]} {section[1]} {section[2]} {section[3]} long {length + 500} price 60"
        self.assertEqual(cli("enter", f, stock, "await seals for record cost 90").returncode, 0)
        j = json.loads(cli("buy", f).stdout)
        still = [t["what"] for t in j["things"] if t["kind"] == "steel" and t["open"]]
        self.assertNotIn(bridge["what"], still)
        from_shelf = [t for t in j["things"] if t["from"] == "long"]
        self.assertTrue(from_shelf)
        self.assertTrue(j["cut_from_the_shelf"]["no_other_way_leaves_less_to_buy"])
        self.assertEqual(j["priced"], 90 + 78 + 64 + 84)  # and a whole plate of 3, one of 6 and one of 8, which are not on the shelf
        self.assertEqual(cli("export", f, "--all", self.dir / "sheets").returncode, 0)
        text = subprocess.run(["pdftotext", "-layout", self.dir / "sheets" / "to-buy.pdf", "-"], text=True, capture_output=True).stdout
        self.assertIn("seals", text)
        self.assertIn("long", text)

    def test_what_the_week_did_and_a_change_order(self):
        f = self.dir / "week.gorvet"
        cli("new", f, today="2026-11-16")
        said = ["job strip kind take-apart hours 6", "job weld-it kind weld hours 12 after strip", "job paint-it kind paint hours 6 after weld-it"]
        self.assertEqual(cli("enter", f, *said, today="2026-11-16").returncode, 0)
        self.assertEqual(cli("enter", f, "worked strip 3 on 2026-11-27", "discovered sill-inner during strip does a new inner sill kind weld hours 14",
                             "change-order sill asks a new inner sill because sill-inner price 420 hours 9", today="2026-11-28").returncode, 0)
        j = json.loads(cli("plan", f, "--since", 7).stdout)
        self.assertEqual((j["since"], j["today"]), ("2026-11-23", "2026-11-30"))
        self.assertGreater(j["likely_end_now"], j["likely_end_then"])
        movers = {m["what"]: m["days"] for m in j["movers"]}
        self.assertGreater(movers["what was found"], 0)
        self.assertLess(movers["work that was done"], 0)
        self.assertAlmostEqual(sum(movers.values()), j["moved_days"], delta=0.3)
        # a build younger than that is compared with its first day
        self.assertEqual(json.loads(cli("plan", f, "--since", 100).stdout)["since"], "2026-11-16")
        plan = json.loads(cli("plan", f).stdout)
        self.assertEqual(plan["found_on_the_way"]["finds"], 1)
        self.assertEqual(plan["found_on_the_way"]["provenance"], "derived")
        picture = self.dir / "rot.jpg"
        picture.write_bytes(jpeg(5))
        self.assertEqual(cli("photo-add", f, picture, "--step", "sill-inner").returncode, 0)
        client = json.loads(cli("client", f).stdout)
        self.assertEqual(client["decisions"][0]["change_order"], 1)
        self.assertIn("a new inner sill", client["decisions"][0]["because"])
        self.assertEqual(client["changes"], {"before": 0, "by": 0, "asked_for": 420})
        self.assertEqual(cli("export", f, "--all", self.dir / "sheets").returncode, 0)
        text = subprocess.run(["pdftotext", "-layout", self.dir / "sheets" / "for-the-owner.pdf", "-"], text=True, capture_output=True).stdout
        self.assertIn("Change order 1", text)
        self.assertIn("Because: a new inner sill", text)

    def test_sections_and_how_a_frame_twists(self):
        j = json.loads(cli("section", "channel", "100", "50", "4").stdout)
        h, b, t = 96, 48, 4  # of its middle line
        self.assertAlmostEqual(j["torsion_mm4"], (h + 2 * b) * t**3 / 3, delta=1)
        self.assertAlmostEqual(j["warping_mm6"] / (t * b**3 * h**2 / 12 * (3 * b + 2 * h) / (6 * b + h)), 1, places=4)
        self.assertFalse(j["closed"])
        for words, why in ((["prism", "3"], "no shape prism"), (["box", "100", "60"], "A box has height, width, wall"), (["box", "100", "60", "50"], "does not fit")):
            refused = cli("section", *words)
            self.assertEqual(refused.returncode, 2)
            self.assertIn(why, refused.stderr)
        f = self.dir / "twist.gorvet"
        self.demo(f)
        bridges = ["--bridge", "0:box,60,40,3", "--bridge", "1500:tube,60,3", "--bridge", "2700:box,60,40,3:30"]
        j = json.loads(cli("frame", "twist", f, *bridges).stdout)
        self.assertGreater(j["as_it_is"]["joints_warp_nm_per_deg"], 100)
        self.assertGreater(j["as_planned"]["joints_warp_nm_per_deg"], j["as_it_is"]["joints_warp_nm_per_deg"])  # shorter is stiffer
        self.assertFalse(j["as_it_is"]["open_sections"])
        self.assertIn("Indicative", j["cautions"][0])
        self.assertIn("Fewer than two", cli("frame", "twist", f, *bridges[:2]).stderr)
        self.assertIn("does not reach", cli("frame", "twist", f, *bridges, "--bridge", "9000:tube,60,3").stderr)
        self.assertIn("no length", cli("frame", "twist", f, "--bridge", "x:tube,60,3").stderr)
        empty = self.dir / "empty.gorvet"
        cli("new", empty)
        self.assertIn("both rails", cli("frame", "twist", empty, *bridges).stderr)

    def test_coats_and_a_fire_watch(self):
        build = self.dir / "coats.gorvet"
        cli("new", build)
        ran = cli("enter", build, "surface sill steel blast m2 1.4 within left sill", "coat sill primer epoxy-primer coats 2 covers 7 brush",
                  "coat sill wax cavity-wax", "surface wing aluminium strip m2 1", "coat wing zinc zinc-primer", "bared sill")
        self.assertEqual(ran.returncode, 0, ran.stderr)
        j = json.loads(cli("coats", build).stdout)
        self.assertAlmostEqual(j["surfaces"][0]["coats"][0]["litres"], 1.4 * 2 / 7 * 1.15)
        codes = [f["code"] for f in j["findings"]]
        self.assertIn("work.coat-metal", codes)
        self.assertIn("work.coat-bare", codes)
        self.assertEqual(cli("enter", build, "job weld-sill kind weld", "permit weld-sill watch Kim", "sparks-out weld-sill").returncode, 0)
        refused = cli("enter", build, "watched weld-sill")
        self.assertEqual(refused.returncode, 1)
        self.assertIn("of the hour", refused.stderr)
        found = {f["code"]: f for f in json.loads(cli("findings", build).stdout)["findings"]}
        self.assertIn("Kim", found["work.fire-watch"]["sentence"])
        # what is done and left alone while it dries holds up what waits for it
        self.assertEqual(cli("enter", build, "job paint-it kind paint hours 2 rests 24", "job fit-it hours 1 after paint-it", "done record", "done battery-out",
                             "done paint-it").returncode, 0)
        self.assertIn("work.rests", [f["code"] for f in json.loads(cli("findings", build).stdout)["findings"]])
        plan = json.loads(cli("plan", build).stdout)
        self.assertEqual([p["name"] for p in plan["parts"]], ["paint-it, left alone"])
        self.assertEqual(cli("export", build, "--all", self.dir / "sheets").returncode, 0)
        text = subprocess.run(["pdftotext", "-layout", self.dir / "sheets" / "coats.pdf", "-"], text=True, capture_output=True).stdout
        self.assertIn("What is still needed", text)
        self.assertIn("What stands on the tin decides", text)

    def test_every_kind_of_reading_through_csv(self):
        more = HEADER.replace("note", "note,setup,instrument") + RECTANGLE.split("\n", 1)[1].replace(",,\n", ",,,,\n")
        more += """plan,Al,Br,2154.1,mm,,,,
height,Ar,,0.2,mm,,,floor,gauge
height,Bl,,-0.3,mm,,,floor,gauge
level,Al,Bl,0.4,mm,,,,
offset,Ar,,400.6,mm,,,,
station,Br,,1999.6,mm,,,,
slope,Al,Bl,0.02,deg,,,,
cross-level,Bl,Br,-0.03,deg,,,,level
rail-angle,Ar,Br,0.05,deg,,,,
coordinates,Br,,2000.3 399.8 0.1,mm,0.3,,,arm
coordinates,Ar,,0.2 400.1 0.1,mm,0.04 0.01 0 0.04 0 0.09,,,arm
point,C,,1000 -400 100,mm,,,,
height,C,,100,mm,,,,
offset,C,,-400,mm,,,,
station,C,,1000?,mm,,,,
point,Dl,,1500 -300 50,mm,,,,
point,Dr,,,mm,,,,
"""
        more = more.replace("point,Dr,,,mm,,,,\n", "")
        more += "coordinates,Dl,,1500 -300 50,mm,,,,\nsymmetry,Dl,Dr,,,,,,\n"
        done = cli("tape", "solve", self.file("all.csv", more))
        self.assertEqual(done.returncode, 1, done.stderr)  # C and Dr stand by what is assumed
        j = json.loads(done.stdout)
        kinds = {r["kind"] for r in j["readings"]}
        self.assertEqual(kinds, {"tape", "plan", "height", "level", "offset", "station", "slope", "cross-level", "rail-angle", "coordinates"})
        self.assertEqual(sum(r["kind"] == "coordinates" for r in j["readings"]), 9)  # three parts each
        points = {p["name"]: p for p in j["points"]}
        self.assertTrue(points["Br"]["determined"] and not points["Br"]["assumed"])
        for name, x, y in (("C", 1000, -400), ("Dr", 1500, 300)):
            self.assertTrue(points[name]["assumed"] and not points[name]["determined"])
            self.assertAlmostEqual(points[name]["x_mm"], x, 0)
            self.assertAlmostEqual(points[name]["y_mm"], y, 0)
        self.assertLess(max(abs(r["w"]) for r in j["readings"]), 3.3)
        self.assertIn("tape.assumed", {f["code"] for f in j["findings"]})

    def test_practice_from_the_first_reading_to_the_marks(self):
        f = self.dir / "p.gorvet"
        self.assertEqual(cli("practice", "new", f, "--seed", 14).returncode, 0)
        self.assertEqual(cli("practice", "new", f, "--seed", 14).returncode, 2)  # never overwrites
        names = [a + s for a in "ABCDE" for s in "lr"]
        for name in names:
            done = cli("practice", "take", f, "height", name, "--keep")
            self.assertEqual(done.returncode, 0, done.stderr)
        for i, a in enumerate(names):
            for b in names[i + 1 : i + 4]:
                self.assertEqual(cli("practice", "take", f, "tape", a, b, "--keep").returncode, 0)
        again = json.loads(cli("practice", "take", f, "tape", "Al", "Ar").stdout)
        self.assertRegex(again["reads"], r"^\d+\.\d mm$")
        self.assertEqual(cli("practice", "take", f, "tape", "Al", "Zz").returncode, 2)
        condition = json.loads(cli("tape", "condition", f).stdout)
        self.assertEqual(len(condition["sections"]), 5)
        self.assertIsNotNone(condition["sections"][2]["middle_low"])
        early = cli("practice", "mark", f)
        self.assertEqual(early.returncode, 1)
        self.assertNotIn("marks", json.loads(early.stdout))
        lines = []
        for figure in condition["figures"]:
            if figure["key"] in ("diamond", "twist", "sag", "sidesway", "rail-difference"):
                size = abs(figure["value_mm"])
                lines.append(f"answer {figure['key']} " + (f"{size:.1f}" if size > 3 else "straight"))
        self.assertEqual(cli("enter", f, *lines, "hand-in").returncode, 0)
        marked = cli("practice", "mark", f)
        self.assertEqual(marked.returncode, 0, marked.stderr)
        j = json.loads(marked.stdout)
        self.assertGreaterEqual(j["points"], 8)
        self.assertGreaterEqual(len(j["marks"]), 5)
        report = cli("tape", "report", f, self.dir / "r.pdf")
        self.assertEqual(report.returncode, 0, report.stderr)
        text = subprocess.run(["pdftotext", "-layout", self.dir / "r.pdf", "-"], capture_output=True, text=True).stdout
        for words in ("As found: the chassis", "Practice:", "middle low", "left aft"):
            self.assertIn(words, text)

    def test_another_frame_is_surveyed_beside_the_chassis(self):
        build = self.dir / "two.gorvet"
        cli("new", build)
        csv = self.file("r.csv", "kind,from,to,value\nheight,Al,,300\nheight,Ar,,300\nheight,Bl,,300\nheight,Br,,330\ntape,Al,Ar,800\ntape,Bl,Br,800.6\ntape,Al,Bl,2150\ntape,Ar,Br,2150.2\ntape,Al,Br,2294.1\ntape,Ar,Bl,2293.9\n")
        unknown = cli("import", build, csv, "--subject", "second")
        self.assertEqual(unknown.returncode, 2)
        self.assertIn("It has body, chassis.", unknown.stderr)
        self.assertEqual(cli("enter", build, "subject second candidate note seen on Friday").returncode, 0)
        self.assertEqual(cli("import", build, csv, "--subject", "second").returncode, 0)
        lines = ["point Al rail 0 -400 300", "point Ar rail 0 400 300", "point Bl rail 2150 -400 300", "point Br rail 2150 400 300", "datum station Al Ar 0", "datum centred Al Ar", "datum centred Bl Br"]
        self.assertEqual(cli("enter", build, "--subject", "second", *lines).returncode, 0)
        solved = cli("tape", "solve", build, "--subject", "second")
        self.assertEqual(solved.returncode, 0, solved.stderr)
        at = {p["name"]: p for p in json.loads(solved.stdout)["points"]}
        self.assertAlmostEqual(at["Br"]["z_mm"] - at["Bl"]["z_mm"], 30, delta=0.5)
        self.assertEqual(cli("tape", "solve", build).returncode, 1)  # nothing is measured on the chassis itself
        twist = [f for f in json.loads(cli("findings", build).stdout)["findings"] if f["code"] == "tape.twist"]
        self.assertEqual([(f["verdict"], f["station_mm"]) for f in twist], [("Fails", None)])
        self.assertEqual(cli("export", build, "--all", self.dir / "x").returncode, 0)
        self.assertTrue((self.dir / "x" / "survey-second.pdf").exists())
        self.assertFalse((self.dir / "x" / "survey-chassis.pdf").exists())
        sheet = subprocess.run(["pdftotext", "-layout", self.dir / "x" / "survey-second.pdf", "-"], text=True, capture_output=True).stdout
        self.assertIn("stations on the axes of the second", sheet)  # nobody marks the chassis by them
        self.assertNotIn("stations from", sheet)
        # what hangs on it goes with it, which is said, and all of it comes back
        points = cli("tape", "points", build, "--subject", "second").stdout
        removed = cli("enter", build, "remove subject second")
        self.assertEqual(removed.returncode, 0)
        self.assertIn("With it goes what hangs on it", removed.stdout + removed.stderr)
        self.assertEqual(cli("tape", "points", build, "--subject", "second").returncode, 2)
        self.assertEqual(cli("undo", build).returncode, 0)
        self.assertEqual(cli("tape", "points", build, "--subject", "second").stdout, points)

    def test_what_a_new_build_lacks_is_said_by_name(self):
        f = self.dir / "n.gorvet"
        cli("new", f)
        lacks = json.loads(cli("lacks", f).stdout)
        self.assertEqual(lacks["tape"][0]["sentence"], "Nothing of the chassis is marked yet.")
        self.assertIn("mark Al and Ar of the chassis", lacks["tape"][0]["would"])
        self.assertEqual({row["subject"] for row in lacks["tape"]}, {"chassis", "body"})
        self.assertEqual(cli("enter", f, "point Al rail 0 -400 300", "rename Al Frontl").returncode, 0)
        self.assertIn("Frontl", cli("tape", "points", f).stdout)

    def test_what_was_found_with_a_photo_and_what_it_costs(self):
        f = self.dir / "b.gorvet"
        cli("new", f)
        cli("import", f, self.file("r.csv", RECTANGLE))
        done = cli("enter", f, "rate hour 50", "rate other-frame 900", "rail 100 x 60 x 4 box top", "found thin Bl 2.5", "found crack Ar 30 way between the bolts")
        self.assertEqual(done.returncode, 0, done.stderr)
        # a file that is no picture proves nothing later: it is not kept
        text = self.file("p.txt", "x")
        refused = cli("photo-found", f, "crack", "Ar", text)
        self.assertEqual(refused.returncode, 2)
        self.assertIn("is no picture", refused.stderr)
        picture = self.dir / "p.jpg"
        picture.write_bytes(jpeg(1))
        self.assertEqual(cli("photo-found", f, "crack", "Ar", picture).returncode, 0)
        j = json.loads(cli("found", f).stdout)
        by_kind = {q["kind"]: q for q in j["found"]}
        self.assertEqual(by_kind["thin"]["figure"], "2.5 of 4.0 mm left")  # new: as thick as the rail
        self.assertEqual(by_kind["thin"]["verdict"], "Fails")
        self.assertEqual(len(by_kind["crack"]["photo"]), 64)
        self.assertEqual(cli("photo-out", f, by_kind["crack"]["photo"], self.dir / "out.jpg").returncode, 0)
        self.assertEqual((self.dir / "out.jpg").read_bytes(), picture.read_bytes())
        ways = {w["key"]: w for w in j["ways"]}
        self.assertEqual(ways["repair"]["cost"], (14 + 3) * 50)  # a length is let in where the wall is gone, the crack welded
        self.assertTrue(ways["repair"]["advised"])
        self.assertEqual(ways["other-frame"]["cost"], 40 * 50 + 900)
        codes = {q["code"] for q in json.loads(cli("findings", f).stdout)["findings"]}
        self.assertLessEqual({"tape.thin", "tape.crack"}, codes)

    def test_points_in_and_out_and_against_the_drawing(self):
        f = self.dir / "b.gorvet"
        cli("new", f)
        cli("import", f, self.file("r.csv", RECTANGLE))
        drawn = self.file("works.csv", "point,x,y,z\nAl,0,-400,0\nAr,0,400,0\nBl,2000,-400,0\nBr,2012,400,\n")
        done = cli("import-points", f, drawn, "--as", "drawing", "--source", "the works")
        self.assertEqual(json.loads(done.stdout), {"points": 4, "new": 0, "left_out": 0})
        j = json.loads(cli("tape", "drawing", f).stdout)
        self.assertEqual(j["source"], "the works")
        worst = j["points"][0]
        self.assertEqual(worst["name"], "Br")
        self.assertTrue(worst["proven"])
        self.assertIsNone(worst["off_mm"]["z"])
        self.assertLess(worst["off_mm"]["x"], -5)
        csv = cli("tape", "points", f)
        self.assertEqual(csv.returncode, 0)
        self.assertEqual(len(csv.stdout.splitlines()), 5)
        self.assertIn("fixed", csv.stdout)
        again = self.dir / "again.gorvet"
        cli("new", again)
        back = cli("import-points", again, self.file("p.csv", csv.stdout), "--as", "coordinates", "--source", "survey")
        self.assertEqual(json.loads(back.stdout)["points"], 4)
        bad = cli("import-points", again, self.file("bad.csv", "point,x,y,z\nQ,1,2,\n"), "--as", "rough")
        self.assertEqual(bad.returncode, 1)
        self.assertIn("line 2", bad.stderr)

    def mesh(self, name, part, step):
        path = self.dir / name
        done = subprocess.run([CLI.replace("gorvet-cli", "gorvet-sim"), "mesh", path, "--of", part, "--mesh-step", str(step)], capture_output=True, text=True)
        self.assertEqual(done.returncode, 0, done.stderr)
        return str(path)

    def test_a_clearance_keeps_the_bodys_own_points_and_says_what_fouls(self):
        body, frame = self.mesh("body.ply", "body", 40), self.mesh("frame.ply", "chassis", 30)
        out = str(self.dir / "map.ply")
        pose = "1.2,0,-125.6,0,-0.28648,0"
        done = cli("clearance", body, frame, "--pose", pose, "--cap", "100", "--map", out)
        self.assertEqual(done.returncode, 0, done.stderr)
        j = json.loads(done.stdout)
        self.assertTrue(j["signed"])
        self.assertGreater(len(j["fouling"]), 2)
        self.assertEqual(j["counts"]["points"], j["counts"]["clear"] + j["counts"]["tight"] + j["counts"]["fouls"])
        self.assertEqual(sorted(j["percentiles_mm"].values()), list(j["percentiles_mm"].values()))

        def header(path):
            data = pathlib.Path(path).read_bytes()
            end = data.index(b"end_header\n") + 11
            return data[:end].decode(), data[end:]

        head, bytes_out = header(out)
        self.assertIn("property float distance", head)
        head_in, bytes_in = header(body)
        self.assertEqual(re.search(r"element vertex (\d+)", head)[1], re.search(r"element vertex (\d+)", head_in)[1])
        n = int(re.search(r"element vertex (\d+)", head)[1])
        names = re.findall(r"property (float|double|uchar) (\w+)", head.split("element face")[0])
        layout = "<" + "".join({"float": "f", "double": "d", "uchar": "B"}[t] for t, _ in names)
        names_in = re.findall(r"property (float|double|uchar) (\w+)", head_in.split("element face")[0])
        layout_in = "<" + "".join({"float": "f", "double": "d", "uchar": "B"}[t] for t, _ in names_in)
        place = [name for _, name in names].index("distance")
        distances = []
        for i in range(n):
            row = struct.unpack_from(layout, bytes_out, i * struct.calcsize(layout))
            own = struct.unpack_from(layout_in, bytes_in, i * struct.calcsize(layout_in))
            self.assertEqual(row[:3], own[:3])
            distances.append(row[place])
        self.assertAlmostEqual(min(distances), j["least_of_points_mm"], places=3)
        self.assertEqual(sum(d < 0 for d in distances), j["counts"]["inside"])
        self.assertLessEqual(max(map(abs, distances)), 100)
        # far away nothing fouls; an open target has no inside; a wrong pose is refused
        far = json.loads(cli("clearance", body, frame, "--pose", "0,0,5000,0,0,0").stdout)
        self.assertEqual((far["least_mm"], far["place"], far["verdict"]), (100.0, None, "Clear"))
        other = json.loads(cli("clearance", frame, body, "--pose", "0,0,5000,0,0,0").stdout)
        self.assertFalse(other["signed"])
        self.assertIn("unsigned", other["remarks"][0])
        for wrong in ("1,2,3", "1,2,3,4,5,x", "1,2,3,4,5,6,7", "nan,0,0,0,0,0"):
            self.assertEqual(cli("clearance", body, frame, "--pose", wrong).returncode, 2)

    def test_a_cut_map_says_what_is_never_cut(self):
        body, frame = self.mesh("b.ply", "body", 40), self.mesh("f.ply", "chassis", 30)
        pose = "1.2,0,-125.6,0,-0.28648,0"
        folder = self.dir / "cuts"
        done = cli("cutmap", body, frame, "--pose", pose, "--margin", "12", "--flange", "8", "--out", str(folder))
        self.assertEqual(done.returncode, 0, done.stderr)
        j = json.loads(done.stdout)
        self.assertGreater(len(j["cuts"]), 2)
        for cut in j["cuts"]:
            self.assertTrue((folder / f"cut-{cut['number']}.dxf").exists())
            self.assertGreater(cut["area_mm2"], 0)
        self.assertAlmostEqual(sum(c["area_mm2"] for c in j["cuts"]), j["area_mm2"], delta=200 * (1 + j["ground_off"]))
        first = j["cuts"][0]
        zone = "never:plate:" + ",".join(str(first["from"][k] - 400) for k in ("station_mm", "offset_mm", "height_mm")) + ":" + ",".join(
            str(first["to"][k] + 400) for k in ("station_mm", "offset_mm", "height_mm"))
        forbidden = cli("cutmap", body, frame, "--pose", pose, "--zone", zone)
        self.assertEqual(forbidden.returncode, 1)
        self.assertIn("never cut", json.loads(forbidden.stdout)["remarks"][0])
        self.assertEqual(cli("cutmap", body, frame, "--margin", "5", "--flange", "9").returncode, 2)
        self.assertEqual(cli("cutmap", body, frame, "--zone", "never:plate:1,2:3").returncode, 2)

    def test_scans_are_laid_checked_thinned_and_kept(self):
        body = self.mesh("shell.ply", "body", 30)
        sim = CLI.replace("gorvet-cli", "gorvet-sim")
        eyes = {"a": "-2500,-2600,1500", "b": "4800,-2700,1600"}
        for name, eye in eyes.items():
            subprocess.run([sim, "scan", self.dir / f"{name}.ply", "--of", "body", f"--from={eye}", "--markers", "8", "--step", "2.5", "--mesh-step", "20"], check=True, capture_output=True)
        a, b = str(self.dir / "a.ply"), str(self.dir / "b.ply")
        done = cli("scan", "align", b, a, "--unit", "mm", "--start", "40,-25,10,1,0.5,-0.5", "--out", str(self.dir / "moved.ply"))
        self.assertEqual(done.returncode, 0, done.stderr)
        j = json.loads(done.stdout)
        self.assertTrue(j["surfaces"]["settled"])
        for k in ("dx_mm", "dy_mm", "dz_mm"):
            self.assertLess(abs(j["pose"][k]), 0.5)
        picks = [w for p in ("0,0,0=10,20,30", "1000,0,0=1010,20,30", "0,1000,0=10,1020,30") for w in ("--pick", p)]
        j = json.loads(cli("scan", "align", b, a, "--unit", "mm", "--only-picks", *picks).stdout)
        self.assertAlmostEqual(j["pose"]["dx_mm"], 10)
        self.assertEqual(cli("scan", "align", b, a, "--unit", "mm", "--pick", "1,2,3").returncode, 2)
        found = json.loads(cli("scan", "markers", a, "--radius", "38", "--unit", "mm").stdout)
        self.assertGreaterEqual(len(found["markers"]), 2)
        j = json.loads(cli("scan", "midplane", body, "--unit", "mm", "--across", "0,1,0").stdout)
        self.assertAlmostEqual(j["normal"]["y"], 1, places=4)
        self.assertEqual(j["unlike"], [])
        j = json.loads(cli("scan", "datum", body, "--plane", "0,0,100", "1000,0,100", "0,500,100", "--line", "0,0,100", "1000,0,100", "--station", "250,0,0", "--unit", "mm").stdout)
        self.assertAlmostEqual(j["pose"]["dx_mm"], -250)
        self.assertAlmostEqual(j["pose"]["dz_mm"], -100)
        j = json.loads(cli("scan", "thin", a, str(self.dir / "thin.ply"), "--bound", "60", "--strays", "--unit", "mm").stdout)
        self.assertLess(j["points_kept"], j["points"] / 2)
        wrong = cli("scan", "check", body, "--from", "-620,0,860", "--to", "3350,0,880", "--known", "156.3", "--unit", "mm")
        self.assertEqual(wrong.returncode, 1)
        # the build keeps them, and lays them on each other as it sits
        build = str(self.dir / "kept.gorvet")
        cli("new", build)
        self.assertEqual(cli("overlay", build).returncode, 1)
        for file, on in ((body, "body"), (self.mesh("rails.ply", "chassis", 40), "chassis")):
            self.assertEqual(cli("scan", "keep", build, file, "--unit", "mm", "--on", on).returncode, 0)
        self.assertEqual(cli("enter", build, "scan shell pose 1.2 0 -125.6 0 -0.28648° 0", "zone plate never 480 500 -120 120 900 960", "clearance least 8").returncode, 0)
        j = json.loads(cli("overlay", build).stdout)
        self.assertIn("fouls the chassis", j["sentence"])
        self.assertEqual(j["need"]["least_mm"], 8)
        self.assertTrue(all(f["code"].startswith("scan.") for f in j["findings"]))
        # the list of findings has those of the scans, too, and says that it takes a while
        every = cli("findings", build)
        self.assertEqual([f for f in json.loads(every.stdout)["findings"] if f["bench"] == "Scan"], j["findings"])
        self.assertIn("working out what fouls", every.stderr)
        without = cli("findings", build, "--without-scans")
        self.assertFalse([f for f in json.loads(without.stdout)["findings"] if f["bench"] == "Scan"])
        self.assertEqual(without.stderr, "")
        pair = j["pairs"][0]
        self.assertEqual((pair["one"], pair["other"], pair["verdict"], pair["provenance"]), ("the body", "the chassis", "Fouls", "measured"))
        # the way in: how high, and what is in the way straight down when the body is cut for its seat alone
        way = j["way_in"]
        down = way["down"]
        self.assertFalse(down["found"], way["words"])
        self.assertEqual([(t["of"], t["to"], t["take_off"]) for t in down["straight_down_touches"]], [("shell", "rails", None)])
        self.assertGreater(down["straight_down_touches"][0]["or_cut_more_mm2"], 1000)
        self.assertGreater(down["left_out_mm2"], 0)
        # kept with the cuts for the way, it comes down
        self.assertEqual(cli("overlay", build, "--for-way-in", "--keep-cuts").returncode, 0)
        way = json.loads(cli("overlay", build).stdout)["way_in"]
        down = way["down"]
        self.assertTrue(down["straight"], way["words"])
        self.assertAlmostEqual(down["steps"][0]["up_mm"], min(way["from_behind"]["lift_mm"], way["from_front"]["lift_mm"]), places=3)
        self.assertEqual((down["steps"][-1]["up_mm"], down["turns_at"]), (0, [0, len(down["steps"]) - 1]))
        near = [s["nearest_mm"] for s in down["steps"][:-1] if s["nearest_mm"] is not None]
        self.assertEqual(down["tightest"]["nearest_mm"], min(near) if near else None)
        cli("undo", build)
        # cut for the way straight down, too: never less than for the seat alone
        besides = json.loads(cli("overlay", build, "--for-way-in").stdout)
        self.assertGreaterEqual(sum(c["area_mm2"] for c in besides["cuts"]), sum(c["area_mm2"] for c in j["cuts"]) - 1)
        # the cuts become steps of the work, and come out on paper with what fouls and the clearances
        kept = cli("overlay", build, "--keep-cuts", "--out", str(self.dir / "kept-cuts"))
        self.assertIn("cut", json.loads(kept.stdout)["kept"])
        self.assertTrue(any(s["code"].startswith("cut-body-") for s in json.loads(cli("work", build).stdout)["steps"]))
        self.assertEqual(cli("export", build, "--all", str(self.dir / "sheets")).returncode, 0)
        sheet = subprocess.run(["pdftotext", "-layout", self.dir / "sheets" / "build-sheet.pdf", "-"], text=True, capture_output=True).stdout
        self.assertIn("clearances, pair by pair", sheet)
        self.assertIn("Scan: the way in", sheet)
        self.assertIn("Nobody under a hung body", sheet)
        self.assertIn("fouls the chassis", sheet)
        # laid anew: by its mid-plane, and by three, two, one where it stands now
        self.assertEqual(cli("enter", build, "scan shell pose 0 18 0 1° 0 0.5°").returncode, 0)
        laid = json.loads(cli("scan", "lay", build, "shell", "--symmetry").stdout)
        self.assertIn("alike", laid["how"])
        self.assertLess(abs(laid["pose"]["yaw_deg"]), 0.05)
        self.assertLess(abs(laid["pose"]["y_mm"]), 1)
        places = ["0,0,50", "1000,0,50", "0,500,50", "0,0,50", "1000,0,50", "100,0,0"]
        laid = json.loads(cli("scan", "lay", build, "shell", "--datum", *places).stdout)
        self.assertEqual(laid["how"], "by places on its axes")
        self.assertEqual(cli("scan", "lay", build, "shell").returncode, 2)
        self.assertEqual(cli("scan", "lay", build, "nothing", "--symmetry").returncode, 2)
        self.assertEqual(cli("scan", "lay", build, "shell", "--survey", "Hl=1,2,3").returncode, 2)

    def test_scans_are_looked_over_converted_and_fitted(self):
        cube = "".join(f"v {x} {y} {z}\n" for z in (0, 1) for y in (0, 1) for x in (0, 1))
        cube += "f 1 3 4 2\nf 5 6 8 7\nf 1 2 6 5\nf 3 7 8 4\nf 1 5 7 3\nf 2 4 8 6\n"
        f = self.file("cube.obj", cube)
        self.assertEqual(cli("scan", "info", f).returncode, 2)  # the unit is never guessed
        done = cli("scan", "info", f, "--unit", "m")
        self.assertEqual(done.returncode, 0, done.stderr)
        j = json.loads(done.stdout)
        self.assertEqual((j["points"], j["triangles"], j["closed"], j["holes"]), (8, 12, True, 0))
        self.assertAlmostEqual(j["volume_mm3"], 1e9)
        out = self.dir / "cube.stl"
        self.assertEqual(cli("scan", "convert", f, out, "--unit", "m").returncode, 0)
        self.assertEqual(out.stat().st_size, 84 + 12 * 50)
        again = json.loads(cli("scan", "info", out, "--unit", "mm").stdout)
        self.assertAlmostEqual(again["volume_mm3"], 1e9)
        self.assertEqual(again["points"], 8)
        # gmsh reads what is written
        said = subprocess.run(["gmsh", "-0", str(out), "-o", str(self.dir / "g.msh2"), "-format", "msh2"], capture_output=True, text=True)
        self.assertEqual(said.returncode, 0, said.stdout + said.stderr)
        cut = self.dir / "cut.stl"
        cut.write_bytes(out.read_bytes()[:-20])
        broken = cli("scan", "info", cut, "--unit", "mm")
        self.assertEqual(broken.returncode, 2)
        self.assertIn("ends after 11 of 12 triangles", broken.stderr)
        hole = "".join(f"{40 * c:.6f} {40 * s:.6f} 7\n" for c, s in ((1, 0), (0, 1), (-1, 0), (0.6, 0.8), (0.8, -0.6)))
        j = json.loads(cli("scan", "fit", self.file("hole.xyz", hole), "--shape", "circle", "--unit", "mm").stdout)
        self.assertAlmostEqual(j["radius_mm"], 40, 4)
        self.assertAlmostEqual(j["centre"]["z_mm"], 7, 6)
        flat = cli("scan", "fit", self.file("flat.xyz", hole), "--shape", "ball", "--unit", "mm")
        self.assertEqual(flat.returncode, 2)
        self.assertIn("one plane", flat.stderr)

    def test_tape_solve_of_a_csv(self):
        done = cli("tape", "solve", self.file("r.csv", RECTANGLE))
        self.assertEqual(done.returncode, 0, done.stderr)
        j = json.loads(done.stdout)
        self.assertEqual(j["status"], "solved")
        self.assertEqual(j["redundancy"], 1)
        self.assertAlmostEqual(j["omega_limit"], 3.841, 2)
        self.assertLess(j["omega"], j["omega_limit"])
        points = {p["name"]: p for p in j["points"]}
        self.assertAlmostEqual(points["Br"]["x_mm"], 2000, 1)
        self.assertAlmostEqual(points["Br"]["y_mm"], 400, 1)
        self.assertEqual(points["Al"]["sd_x_mm"], 0)
        for key in ("x_mm", "y_mm", "z_mm", "sd_x_mm", "sd_y_mm", "sd_z_mm"):
            self.assertIn(key, points["Br"])
        first = j["readings"][0]
        self.assertEqual((first["line"], first["kind"], first["from"], first["to"], first["value_mm"]), (13, "tape", "Al", "Ar", 800))
        for key in ("residual_mm", "redundancy", "w", "verdict"):
            self.assertIn(key, first)
        figures = {f["key"]: f for f in j["figures"]}
        self.assertAlmostEqual(figures["diamond"]["value_mm"], 0, 1)

    def test_bad_lines_are_left_out_by_number_and_column(self):
        done = cli("tape", "solve", self.file("r.csv", RECTANGLE + "tape,Al,Br,21x,mm,,\nwire,Al,Br,1,mm,,\n"))
        self.assertEqual(done.returncode, 1)
        self.assertIn("line 19, column value (21x)", done.stderr)
        self.assertIn("line 20, column kind (wire)", done.stderr)
        self.assertEqual(len(json.loads(done.stdout)["readings"]), 6)

    def test_a_network_it_cannot_fix(self):
        lines = [line for line in RECTANGLE.splitlines() if not line.startswith("hold-y,Bl")]
        done = cli("tape", "solve", self.file("r.csv", "\n".join(lines)))
        self.assertEqual(done.returncode, 1)
        j = json.loads(done.stdout)
        self.assertEqual(j["status"], "not fixed")
        self.assertIn("swinging in plan", j["undetermined"][0]["sentence"])
        self.assertIn("hold-y", j["undetermined"][0]["remedy"])
        self.assertIn("swinging in plan", done.stderr)
        self.assertIsNone({p["name"]: p for p in j["points"]}["Br"]["sd_y_mm"])

    def test_new_enter_import_undo_log(self):
        build = self.dir / "a.gorvet"
        self.assertEqual(cli("new", build, "--name", "Trial").returncode, 0)
        again = cli("new", build)
        self.assertEqual(again.returncode, 2)
        self.assertIn("already there", again.stderr)
        done = cli("import", build, self.file("r.csv", RECTANGLE), "--subject", "chassis", "--why", "first survey")
        self.assertEqual(done.returncode, 0, done.stderr)
        self.assertEqual(json.loads(done.stdout), {"readings": 6, "points": 4, "holds": 7, "left_out": 0})
        done = cli("enter", build, "Al Br 2160", "Al Qq 5")
        self.assertEqual(done.returncode, 1)
        self.assertIn("line 2: There is no point Qq", done.stderr)
        self.assertIn("     ^", done.stderr)  # under the wrong word
        done = cli("enter", build, text="# a remark\n\nheight Al 1 mm\n")
        self.assertEqual(done.returncode, 0, done.stderr)
        self.assertEqual(len(json.loads(cli("tape", "solve", build).stdout)["readings"]), 8)
        undone = cli("undo", build)
        self.assertIn("height Al", undone.stderr)
        self.assertEqual(cli("undo", build).returncode, 0)
        self.assertEqual(len(json.loads(cli("tape", "solve", build).stdout)["readings"]), 6)
        self.assertEqual(cli("redo", build).returncode, 0)
        self.assertEqual(len(json.loads(cli("tape", "solve", build).stdout)["readings"]), 7)
        log = cli("log", build).stdout.splitlines()
        self.assertEqual(len(log), 7)
        self.assertIn("(first survey)", log[1])
        self.assertIn("undo: height Al", log[4])

    def test_what_lines_would_change_is_shown_and_nothing_is_kept(self):
        build = self.dir / "demo.gorvet"
        self.demo(build)
        before = cli("findings", build).stdout
        log = cli("log", build).stdout
        asked = cli("what-if", build, "change -100", "tolerance 8")
        self.assertEqual(asked.returncode, 0, asked.stderr)
        j = json.loads(asked.stdout)
        sit = next(b for b in j["benches"] if b["bench"] == "Sit")
        self.assertIn("141.8", sit["now"])
        self.assertIn("100.0 mm, as decided", sit["then"])
        self.assertIn("sit.pin-miss", [f["code"] for f in j["findings_that_come"]])
        self.assertEqual(cli("log", build).stdout, log)
        self.assertEqual(cli("findings", build).stdout, before)
        # it comes to what the lines come to when they are kept
        for line in ("change -100", "tolerance 8"):
            self.assertEqual(cli("enter", build, line).returncode, 0)
        then = [f["sentence"] for f in json.loads(cli("findings", build).stdout)["findings"]]
        was = [f["sentence"] for f in json.loads(before)["findings"]]
        self.assertEqual(sorted(f["sentence"] for f in j["findings_that_come"]), sorted(s for s in then if s not in was))
        self.assertEqual(sorted(f["sentence"] for f in j["findings_that_go"]), sorted(s for s in was if s not in then))
        wrong = cli("what-if", build, "change sideways")
        self.assertEqual((wrong.returncode, wrong.stdout), (2, ""))

    def test_the_whole_way_on_the_demo(self):
        build = self.dir / "demo.gorvet"
        self.demo(build)
        tape = json.loads(cli("tape", "solve", build).stdout)
        worst = max(tape["readings"], key=lambda r: abs(r["w"]))
        self.assertEqual((worst["from"], worst["to"], worst["verdict"], worst["set_aside"]), ("Bl", "Dr", "Re-tape", True))
        everything = json.loads(cli("tape", "solve", build, "--keep-all").stdout)
        self.assertFalse(any(r["set_aside"] for r in everything["readings"]))
        self.assertAlmostEqual(everything["omega"], tape["omega"], 6)
        sit = json.loads(cli("sit", build).stdout)
        self.assertEqual(sit["status"], "seated")
        self.assertAlmostEqual(sit["wheelbase_change_mm"], -141, delta=4)
        self.assertTrue(all(p["verdict"] == "Holds" for p in sit["pins"]))
        over = next(p for p in sit["pins"] if p["kind"] == "up")
        self.assertEqual((over["bound"], over["importance"], over["to"]), ("least", "like", ["M3l", "M3r"]))
        columns = {c["name"]: c for c in sit["seatings"]["columns"]}
        self.assertLessEqual({"now", "driveline leads", "body leads", "low"}, set(columns))
        sill = {name: next(p["achieved_mm"] for p in c["pins"] if p["name"] == "height of SFl") for name, c in columns.items()}
        self.assertAlmostEqual(sill["now"] - sill["low"], 20, delta=0.5)  # pinned 20 lower
        self.assertEqual(columns["low"]["channel_mm"], 40)
        down = sit["seatings"]["moves"][0]
        self.assertAlmostEqual(next(g["by_mm"] for g in down["gains"] if g["pin"] == over["name"]), -20, delta=0.05)
        self.assertEqual(len(sit["seatings"]["ways_to_lower"]), 4)
        stretch = json.loads(cli("stretch", build).stdout)
        self.assertEqual(stretch["verdict"], "Marginal")  # slacks not measured
        self.assertAlmostEqual(stretch["left"]["take_out_mm"], -sit["wheelbase_change_mm"] + 2, delta=0.05)
        make = json.loads(cli("make", build).stdout)
        self.assertEqual(len(make["mounts"]), 6)
        self.assertEqual(len(make["crossmember"]["plates"][0]["holes"]), 4)
        for mount in make["mounts"]:
            stack = mount["washer_mm"] + mount["biscuit_mm"] + mount["standoff_mm"] + sum(mount["shims_mm"]) + mount["leftover_mm"]
            self.assertAlmostEqual(stack, mount["gap_mm"], 6)
        bolts = json.loads(cli("make", "fasteners", build).stdout)
        names = [f["name"] for f in bolts["fasteners"]]
        self.assertEqual(sum(n.startswith("mount ") for n in names), 6)
        self.assertEqual(sum(n.startswith("flange ") for n in names), 8)
        for bolt in bolts["fasteners"]:
            self.assertEqual(bolt["comes_out"], all(f["code"] not in ("make.bolt-trapped", "make.bolt-tool") for f in bolt["findings"]))
            head = bolt["ends"][0]
            self.assertAlmostEqual(head["needs_mm"], bolt["length_mm"] + 20, 6)
            self.assertLessEqual(head["free_mm"], head["needs_mm"] + 1e-6)
            self.assertEqual(head["blocked_by"] == "", head["free_mm"] >= head["needs_mm"] - 1e-6)
        self.assertIn("the rails", bolts["looked_at"])
        welds = json.loads(cli("make", "welds", build).stdout)
        self.assertEqual([s["number"] for s in welds["seams"]], list(range(1, len(welds["seams"]) + 1)))
        self.assertAlmostEqual(sum(s["length_mm"] for s in welds["seams"]), welds["length_mm"], 3)
        self.assertEqual(sorted(s["on_car"] for s in welds["seams"]), [s["on_car"] for s in welds["seams"]])  # the bench first
        order = json.loads(cli("make", "order", build).stdout)
        self.assertEqual((order["order"][-1]["what"], order["order"][-1]["how"]), ("the crossmember", "bolted on"))
        self.assertTrue(all(o["goes_in_from"] or o["shut_in_by"] for o in order["order"]))
        self.assertTrue(all(0 < n["mm"] <= 60 for n in order["nearest"]))
        joins = {j["part"]: j for j in json.loads(cli("make", "joins", build).stdout)["joins"]}
        self.assertEqual((joins["x-mid"]["onto"], joins["x-mid"]["how"], joins["x-mid"]["thickness_mm"]), ("mild", "welded", 4))
        fixture = json.loads(cli("make", "fixture", build).stdout)["fixtures"][0]
        self.assertEqual([t["point"] for t in fixture["towers"]], ["Bl", "Br", "Cl", "Cr", "Dl", "Dr", "El", "Er"])
        for tower in fixture["towers"]:
            for state in (tower["now"], tower.get("planned", tower["now"])):
                self.assertAlmostEqual(state["tower_mm"] + sum(state["packers_mm"]) + state["left_mm"], state["head_mm"], 6)
                self.assertLessEqual(abs(state["left_mm"]), 0.5)
        tank = next(p for p in json.loads(cli("make", "part", build).stdout)["parts"] if p["name"] == "tank")
        self.assertIn("holds, filled to 95 %", [f["what"] for f in tank["facts"]])
        plates = {t["thickness_mm"]: t for t in json.loads(cli("make", "plates", build).stdout)["thicknesses"]}
        self.assertEqual(set(plates), {3, 6, 8})
        self.assertEqual({p["piece"] for p in plates[8]["plates"][0]["pieces"]}, {"crossmember: flange left", "crossmember: flange right"})
        self.assertEqual(plates[8]["cost"], 84)  # the flanges lie on the shelf; the fish plates want one more
        self.assertEqual(plates[3]["cost"], 78)
        things = {t["from"]: t for t in json.loads(cli("buy", build).stdout)["things"] if t["what"].startswith("plate")}
        self.assertEqual((things["end-p8"]["stands"], things["mill-p3"]["stands"], things["mill-p3"]["price"]), ("on the shelf", "to buy", 78))
        codes = [f["code"] for f in json.loads(cli("findings", build).stdout)["findings"]]
        self.assertIn("tape.retape", codes)
        out = self.dir / "out"
        exported = cli("export", build, "--all", out)
        self.assertEqual(exported.returncode, 0, exported.stderr)
        names = {pathlib.Path(line).name for line in exported.stdout.splitlines()}
        self.assertLessEqual({"build-sheet.pdf", "survey-chassis.pdf", "crossmember.pdf", "flange-left.dxf", "cut-list.csv", "readings-chassis.csv"}, names)
        # what it writes it reads: the exported readings give the same survey
        back = json.loads(cli("tape", "solve", out / "readings-chassis.csv").stdout)
        self.assertAlmostEqual(back["omega"], tape["omega"], 6)

    def test_next_compare_and_gaps(self):
        build = self.dir / "next.gorvet"
        self.demo(build)
        sheet = self.dir / "round.pdf"
        done = cli("tape", "next", build, "--count", "14", "--want", "twist", "--sheet", sheet)
        self.assertEqual(done.returncode, 0, done.stderr)
        answer = json.loads(done.stdout)
        self.assertEqual(answer["wanted"], "twist")
        self.assertEqual(len(answer["round"]), 14)
        self.assertTrue(all(r["what"] == "twist" for r in answer["round"]))
        self.assertTrue(all(r["u95_after_mm"] <= r["u95_before_mm"] for r in answer["best"]))
        text = subprocess.run(["pdftotext", "-layout", sheet, "-"], text=True, capture_output=True).stdout
        for reading in answer["round"]:
            name = f"{reading['from']} – {reading['to']}" if reading["to"] else f"height of {reading['from']}"
            self.assertIn(name, text)
        self.assertEqual(cli("tape", "next", build, "--want", "luck").returncode, 2)
        self.assertEqual(json.loads(cli("tape", "next", build, "--want", "point Bl").stdout)["wanted"], "point Bl")
        figures = json.loads(cli("tape", "condition", build).stdout)["figures"]
        self.assertIn("diamond", [f["key"] for f in figures])
        # a survey compared with itself, one point read 8 higher
        before, after = self.dir / "before.csv", self.dir / "after.csv"
        rows = ["hold-x,Al,,0,mm", "hold-y,Al,,-420,mm", "hold-y,Cl,,-420,mm"]
        points = {"Al": (0, -420, 300), "Ar": (0, 420, 300), "Bl": (1200, -420, 310), "Br": (1200, 420, 310), "Cl": (2400, -420, 340), "Cr": (2400, 420, 340)}

        def survey(raise_br):
            lines = list(rows)
            at = {n: (x, y, z + (raise_br if n == "Br" else 0)) for n, (x, y, z) in points.items()}
            for name, (x, y, z) in points.items():
                lines.append(f'point,{name},rail,"{x} {y} {z}",mm')
                lines.append(f"height,{name},,{at[name][2]},mm")
                lines.append(f"height,{name},,{at[name][2] + 0.3},mm")
            for i, a in enumerate(points):
                for b in list(points)[i + 1:]:
                    d = sum((p - q) ** 2 for p, q in zip(at[a], at[b])) ** 0.5
                    lines.append(f"tape,{a},{b},{d:.2f},mm")
            return "kind,from,to,value,unit\n" + "\n".join(lines) + "\n"

        before.write_text(survey(0))
        after.write_text(survey(8))
        answer = json.loads(cli("tape", "compare", before, after, "--as-measured").stdout)
        self.assertTrue(answer["possible"])
        self.assertEqual(answer["points"][0]["name"], "Br")
        self.assertTrue(answer["points"][0]["proven"])
        self.assertAlmostEqual(answer["points"][0]["moved_mm"]["z"], 8, delta=0.2)
        self.assertFalse(any(p["proven"] for p in answer["points"][1:]))
        self.assertFalse(any(p["proven"] for p in json.loads(cli("tape", "compare", before, before).stdout)["points"]))
        self.assertEqual(cli("tape", "compare", before, f"{build}:nobody").returncode, 2)
        entered = cli("enter", build, "gap door-left 4.5 at brace in", "gap door-left 6.5 at on the chassis")
        self.assertEqual(entered.returncode, 0, entered.stderr)
        gaps = json.loads(cli("gaps", build).stdout)["gaps"]
        self.assertEqual([g["place"] for g in gaps], ["door-left"])
        self.assertAlmostEqual(gaps[0]["change_mm"], 2.0)
        entered = cli("enter", build, "toe front 1398 1401 rim 400", "camber front-left 0.4° out", "camber front-right 0.5° out")
        self.assertEqual(entered.returncode, 0, entered.stderr)
        align = json.loads(cli("axle", "align", build).stdout)
        self.assertIn("thrust", [f["key"] for f in align["axles"]])
        wheels = {f["key"]: f for f in align["wheels"]}
        self.assertAlmostEqual(wheels["toe-front"]["between_rims_mm"], 3)
        self.assertEqual(wheels["camber-front-unlike"]["verdict"], "Holds")
        # a floor that falls away, through CSV and back
        floor = self.dir / "floor.csv"
        text = survey(0).replace("kind,from,to,value,unit\n", "kind,from,to,value,unit,setup\n")
        text += "hold-z,Al,,300,mm\nhold-z,Ar,,300,mm\nhold-z,Cl,,340,mm\n"
        for name, (x, y, z) in points.items():
            text += f"height,{name},,{z - 20 - 5 * x / 1000},mm,floor\n"
        floor.write_text(text)
        setups = json.loads(cli("tape", "solve", floor).stdout)["setups"]
        self.assertEqual(setups[0]["name"], "floor")
        self.assertAlmostEqual(setups[0]["height_mm"], 20, delta=0.6)
        self.assertAlmostEqual(setups[0]["along_mm_per_m"], 5, delta=0.4)

    def test_wrong_use(self):
        self.assertEqual(cli().returncode, 2)
        self.assertEqual(cli("fly").returncode, 2)
        self.assertEqual(cli("--help").returncode, 0)
        missing = cli("sit", self.dir / "none.gorvet")
        self.assertEqual(missing.returncode, 2)
        self.assertIn("There is no file", missing.stderr)
        self.assertEqual(missing.stdout, "")
        self.assertEqual(cli("tape", "solve", self.dir / "none.csv").returncode, 2)
        junk = cli("findings", self.file("junk.gorvet", "x" * 4000))
        self.assertEqual(junk.returncode, 2)
        self.assertIn("damaged or is no build file", junk.stderr)
        self.assertEqual(cli("tape", "solve", self.file("no-header.csv", "1,2,3\n")).returncode, 2)

    def test_a_shaft_its_links_and_a_ratio_as_json(self):
        build = self.dir / "shaft.gorvet"
        cli("new", build)
        places = {"Go": (1200, 0, 460), "Pn": (2420, 0, 420), "Hl": (2600, -700, 400), "Hr": (2600, 700, 400), "Al": (0, -400, 500), "Ar": (0, 400, 500),
                  "Bl": (3000, -400, 500), "Br": (3000, 400, 500), "Ll": (2000, -450, 470), "Lr": (2000, 450, 470), "Ml": (2580, -450, 400),
                  "Mr": (2580, 450, 400), "Ul": (2180, -330, 590), "Ur": (2180, 330, 590), "Vl": (2620, -330, 560), "Vr": (2620, 330, 560),
                  "Pf": (2700, -470, 470), "Pa": (2700, 430, 460)}
        lines = ["session monday right-way-up wheels"]
        for name, at in places.items():
            where = " ".join(str(n) for n in at)
            role = "rear-hub " if name[0] == "H" else "rail " if name[0] in "AB" else ""
            lines += [f"point {name} {role}{where}", f"coordinates {name} {where}"]
        lines += ["output gearbox at Go slope 3deg swing 0deg", "pinion rear at Pn slope 3deg swing 0deg", "shaft main from gearbox to rear",
                  "shaft main phase 0deg in 60 out 60 tube 76 3 limit 22deg", "drive redline 4200 top 1", "travel rear bump 75", "travel rear droop 85",
                  "turns rear-axle shaft 18.64 wheel 10 one-held within 0.05"]
        lines += [f"link {name} rear-axle rod {a} {b}" for name, a, b in
                  (("ll", "Ll", "Ml"), ("lr", "Lr", "Mr"), ("ul", "Ul", "Vl"), ("ur", "Ur", "Vr"), ("pan", "Pf", "Pa"))]
        entered = cli("enter", build, text="\n".join(lines))
        self.assertEqual(entered.returncode, 0, entered.stderr)
        line = json.loads(cli("drive", "shaft", build).stdout)["lines"][0]
        rest = line["stands"][0]
        by_hand = math.degrees(math.atan2(40, 1220)) - 3
        for joint in rest["joints"]:
            self.assertAlmostEqual(joint["angle_deg"], abs(by_hand), delta=0.1)
        self.assertAlmostEqual(rest["lengths"][0]["length_mm"], math.hypot(40, 1220), delta=1.5)
        self.assertLess(rest["residual_deg"], 0.3)
        self.assertEqual(line["verdict"], "Holds")
        held = json.loads(cli("drive", "link", build).stdout)["held"][0]
        self.assertEqual(held["name"], "rear axle")
        self.assertEqual(len(held["travel"]), 21)
        self.assertEqual(held["missing"], [])
        teeth = json.loads(cli("drive", "ratio", build).stdout)["axles"][0]["teeth"][0]
        self.assertEqual((teeth["crown"], teeth["pinion"]), (41, 11))
        wrong = cli("drive", "wheels", build)
        self.assertNotEqual(wrong.returncode, 0)
        self.assertIn("shaft, link, ratio", wrong.stderr)
        # one pinion turned: it fails, and the line that is proposed mends it
        cli("enter", build, "pinion rear turn 3.5deg")
        line = json.loads(cli("drive", "shaft", build).stdout)["lines"][0]
        self.assertEqual(line["verdict"], "Fails")
        self.assertIn("pinion turned by up to 6°", line["searched"])
        cli("enter", build, line["remedies"][0]["line"])
        line = json.loads(cli("drive", "shaft", build).stdout)["lines"][0]
        self.assertNotIn("torsional", [r["code"] for r in line["remarks"]])

    def test_an_axle_a_splice_and_common_stock_as_json(self):
        build = self.dir / "axle.gorvet"
        cli("new", build)
        self.assertEqual(cli("enter", build, "track rear faces 1420 wanted 1300 pinion 25 offset 20 tyre 205",
                             "track rear shaft-left 705 shaft-right 655 splined 95 engaged 38").returncode, 0)
        track = json.loads(cli("stretch", "track", build).stdout)["axles"][0]
        self.assertEqual(track["left"]["cut_mm"], 60)
        self.assertEqual(track["right"]["cut_mm"], 60)
        self.assertEqual(track["left"]["shaft_planned_mm"], 645)
        self.assertEqual(track["track_planned_mm"], 1260)
        self.assertEqual(track["verdict"], "Fails")  # 35 of splines left, the gear holds 38
        self.assertIn("splines", [r["code"] for r in track["remarks"]])
        splice = json.loads(cli("stretch", "splice", build).stdout)
        self.assertIsNone(splice["splice"])
        self.assertEqual(json.loads(cli("stretch", "plan", build).stdout)["status"], splice["status"])
        wrong = cli("stretch", "axles", build)
        self.assertNotEqual(wrong.returncode, 0)
        self.assertIn("plan, splice, track", wrong.stderr)
        stock = json.loads(cli("section", "stock").stdout)["stock"]
        self.assertGreater(len(stock), 120)
        box = next(s for s in stock if s["name"] == "box 60 × 40 × 3")
        # beside the section said by itself, with the same corners
        alone = json.loads(cli("section", "box", 60, 40, 3, 6).stdout)
        self.assertAlmostEqual(box["area_mm2"], alone["area_mm2"])


if __name__ == "__main__":
    unittest.main(argv=[sys.argv[0]], verbosity=2)
