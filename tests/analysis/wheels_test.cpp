// Wheels from what was typed to what is shown: motion on links and without, marked and scanned places, findings, cards, sheets.
#include "analysis/wheels.hpp"

#include "analysis/axle_setup.hpp"
#include "analysis/cards.hpp"
#include "analysis/overlay_clearance.hpp"
#include "analysis/overlay_parts.hpp"
#include "build/edit.hpp"
#include "entry/typist.hpp"

#include <numbers>

#include <nlohmann/json.hpp>

namespace analysis_wheels_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

namespace {

Typist wheeled() {
    Typist t;
    t.type("session monday right-way-up wheels");
    t.scannedLadder("rail 100 x 60 x 4 box top");
    for (
        const char* line :
        {"travel rear bump 75", "travel rear droop 85", "travel front bump 60", "travel front droop 70", "travel lock 32deg",
         "rim rear fitted width 6in diameter 15in backspace 110 over-lips 178 tyre 195 aspect 65 outside 634 section 200 carries 615 studs 5 circle 114.3 inside 350 spokes 45",
         "hub rear studs 5 circle 114.3 spigot 70 brake-radius 150 brake-out 20 axle 1100",
         "room arch rear out 150 up 330 ahead 0", "room rail rear out -180 up 60 ahead 0 on frame",
         "pinion rear at station 2600 up 400 slope 2deg swing 0deg"})
        t.type(line);
    return t;
}
const drive::WheelsPlan& planOf(const analysis::Results& r, const std::string& name = "rear") {
    for (const auto& node : r.wheels)
        if (node->name == name) return *node;
    FAIL("no " << name);
    return *r.wheels.front();
}
bool found(const analysis::Results& r, const std::string& code) {
    return std::any_of(r.findings.begin(), r.findings.end(), [&](const auto& f) { return f.code == code; });
}

} // namespace

TEST_CASE("wheels: an axle leans, and what is on one side is looked at on that side", "[analysis][wheels]") {
    Typist t = wheeled();
    const auto r = analysis::analyse(t.b, 1);
    REQUIRE(r.wheels.size() == 1);
    const drive::WheelsPlan& p = planOf(r);
    REQUIRE(p.now.size() == 4);
    // the axle leans: the same places are nearer when the other wheel hangs
    CHECK(p.poses == 3 * 13);
    const double offset = 110 - 89, half = 100;
    CHECK(p.now[0].clear_mm.value < 150 + offset - half - 1);
    CHECK(p.now[0].pose.find("the other wheel at full") != std::string::npos);
    CHECK(p.now[0].clear_mm.value == Approx(p.now[2].clear_mm.value));
    CHECK(p.remarks.empty());
    CHECK(p.missing.empty());
    // that it goes straight up and down without links is a guess, and nothing holds by that
    CHECK(p.verdict == PlanVerdict::Marginal);
    CHECK(r.wheels[0].input().assumed == std::vector<std::string>{"that the rear wheels go straight up and down"});
    Typist one = t;
    one.type("room rail rear side left");
    CHECK(planOf(analysis::analyse(one.b, 1)).now.size() == 3);
    // a marked place of the frame: where it is
    Typist marked = t;
    marked.type("point Lr rail 2600 860 500");
    marked.type("coordinates Lr 2600 860 500");
    marked.type("room post rear at Lr");
    const auto after = analysis::analyse(marked.b, 1);
    REQUIRE(planOf(after).now.size() == 5);
    const auto& post = planOf(after).now.back();
    CHECK(post.name == "post");
    CHECK(post.corner == 1);
    CHECK(post.clear_mm.value < 160 - half); // the surveyed centre is the tyre's middle
    CHECK(post.clear_mm.value > 160 - half - 25);
    // on stands nothing else changes; guessed travel makes no Holds
    Typist guessed = t;
    guessed.type("travel rear bump 75?");
    const auto not_measured = analysis::analyse(guessed.b, 1);
    CHECK(planOf(not_measured).verdict == PlanVerdict::Marginal);
    CHECK(analysis::wheelsHeadline(guessed.b, not_measured, the_chassis).below.find("never measured") != std::string::npos);
}

TEST_CASE("front wheels are steered about the joints that carry them, else about a guess that is said", "[analysis][wheels]") {
    Typist t = wheeled();
    t.type("rim front fitted width 6in diameter 15in backspace 110 tyre 195 aspect 65");
    t.type("room wing front out 150 up 100 ahead 280");
    const auto guess = analysis::analyse(t.b, 1);
    const auto input = analysis::wheelsInput(t.b, guess, AxleEnd::Front);
    REQUIRE(input);
    CHECK(input->corners[0].poses.size() == 13 * 21);
    CHECK(std::any_of(input->assumed.begin(), input->assumed.end(),
                      [](const std::string& a) { return a.find("steered about an upright") != std::string::npos; }));
    // locked, the wheel's corner comes nearer than straight ahead, and both locks are looked at
    const auto& wing = planOf(guess, "front").now.front();
    CHECK(wing.pose.find("locked ") != std::string::npos);
    Typist straight = t;
    straight.type("travel lock 0deg");
    CHECK(planOf(analysis::analyse(straight.b, 1), "front").now.front().clear_mm.value > wing.clear_mm.value + 20);
    // by hand: a place beside the wheel, turned back by the lock about an upright through the wheel's middle
    const double lock = units::radians(32), offset = 110 - (152.4 + 25.4) / 2;
    double by_hand = 1e9;
    const drive::TyreShape tyre = drive::tyreShape(-offset, drive::sectionOn(195, 65, 152.4), 634.5, 381);
    for (int k = 0; k <= 20; ++k) {
        const double a = lock * (k / 10.0 - 1), x = -280, y = 150 + offset; // from the wheel's middle, rearward and outwards
        const double along = x * std::cos(a) - y * std::sin(a), out = x * std::sin(a) + y * std::cos(a);
        for (int up = 0; up <= 12; ++up) {
            const double rise = up < 6 ? 70 * (up / 6.0 - 1) : 60 * (up / 6.0 - 1);
            by_hand = std::min(by_hand, tyre.distance(out - offset, std::hypot(along, 100 - rise)));
        }
    }
    CHECK(wing.clear_mm.value == Approx(by_hand).margin(0.05));
}

TEST_CASE("a wheel's camber leans it, and what was taped from it stays where it was taped", "[analysis][wheels]") {
    Typist t = wheeled();
    t.type("remove pinion rear"); // no axle from wheel to wheel
    t.type("point Lr rail 2600 860 700");
    t.type("coordinates Lr 2600 860 700");
    t.type("room post rear at Lr least 20");
    const auto upright = planOf(analysis::analyse(t.b, 1));
    const auto input = analysis::wheelsInput(t.b, analysis::analyse(t.b, 1), AxleEnd::Rear);
    CHECK(std::find(input->assumed.begin(), input->assumed.end(), "that the rear wheels stand upright") != input->assumed.end());
    t.type("camber rear-left 2° in");
    t.type("camber rear-right 2° in");
    const auto r = analysis::analyse(t.b, 2);
    const drive::WheelsPlan& p = planOf(r);
    const auto clear = [](const drive::WheelsPlan& plan, const char* name) {
        for (const drive::RoomClear& c : plan.now)
            if (c.name == name && c.corner == 1) return c.clear_mm.value;
        return -1e9;
    };
    // the top of the wheel goes in by 2°: a post over it comes to stand further out of the tyre's shoulder
    CHECK(clear(p, "post") > clear(upright, "post") + 5);
    CHECK(clear(p, "post") < clear(upright, "post") + 330 * std::sin(units::radians(2)) + 1);
    // at rest the taped arch is where it was taped, so that only the travel sees the lean
    CHECK(clear(p, "arch") == Approx(clear(upright, "arch")).margin(3));
}

TEST_CASE("what is wanted is judged, its findings named, and undone the same", "[analysis][wheels]") {
    Typist t = wheeled();
    const auto before = analysis::analyse(t.b, 1);
    CHECK_FALSE(found(before, "drive.wheel-room"));
    auto understood = entry::understand(t.b, t.context, "rim rear wanted width 8in offset -20 tyre 255 aspect 55 diameter 16in");
    REQUIRE(understood);
    const auto back = enact(t.b, understood->edit);
    REQUIRE(back);
    const auto after = analysis::analyse(t.b, 2);
    CHECK(found(after, "drive.wheel-room"));
    CHECK(found(after, "drive.wheel-out"));
    CHECK(found(after, "drive.wheel-size"));
    CHECK(planOf(after).verdict == PlanVerdict::Fails);
    CHECK(analysis::draggedOffset(t.b, after, "offset rear", 12.4) == "rim rear wanted offset 12mm");
    CHECK(analysis::draggedOffset(t.b, after, "travel of rear axle", 12.4).empty());
    Typist dragged = t;
    dragged.type(analysis::draggedOffset(t.b, after, "offset rear", 12.4));
    CHECK(wheelSetOf(dragged.b, AxleEnd::Rear, WheelAs::Wanted)->offset->value == 12);
    for (const char* line : {"dial rear-left lateral 0 0.6 0.9 0.6 0 -0.6 -0.9 -0.6", "dial rear-right radial 0 0.1 0.2 0.1",
                             "adaptor rear thick 25 across 170 hub-hole 13 wheel-hole 14"})
        t.type(line);
    const auto r = analysis::analyse(t.b, 3);
    CHECK(found(r, "drive.run-out"));
    CHECK(found(r, "drive.adaptor"));
    for (const std::string& tag : {std::string("wheels:rear"), std::string("room:arch"), std::string("hub:rear"),
                                   fmt::format("dial:{}", t.b.dial_turns.begin()->first.value)}) {
        INFO(tag);
        const auto card = analysis::cardFor(t.b, r, the_chassis, tag);
        REQUIRE(card);
        CHECK_FALSE(card->rows.empty());
        CHECK(card->sentences.size() <= 2);
    }
    CHECK_FALSE(analysis::cardFor(t.b, r, the_chassis, "hub:front"));
    const auto json = nlohmann::json::parse(analysis::driveWheelJson(t.b, r));
    CHECK(json["axles"][0]["axle"] == "rear");
    CHECK(json["axles"][0]["map"]["widths"].size() == 50);
    CHECK(json["axles"][0]["adaptor"]["holes"].size() == 10);
    CHECK(json["axles"][0]["clear_as_wanted"].size() == 4);
    CHECK(json["turned"][0]["highest_at_deg"].get<double>() == Approx(90).margin(1));
    CHECK(analysis::wheelsPages(t.b, r).size() == 3);
    CHECK(analysis::dialList(t.b, r, the_chassis).rows.size() == 2);
    // nothing said: the bench leads
    const Build empty;
    const auto none = analysis::analyse(empty, 1);
    CHECK(analysis::wheelsPages(empty, none).empty());
    CHECK_FALSE(analysis::wheelsHeadline(empty, none, the_chassis).below.empty());
    CHECK_FALSE(analysis::dialHeadline(empty, none, the_chassis).below.empty());
    CHECK(analysis::wheelsDrawing(empty, none, the_chassis, {}, 800, 500, {}).items.empty());
    Typist undone = wheeled();
    CHECK(analysis::analyse(undone.b, 4).wheels.front().input() == before.wheels.front().input());
}

TEST_CASE("no Holds from half a room, a plan that moves the wheel away, or a turn of too few places", "[analysis][wheels]") {
    Typist t = wheeled();
    const auto assumes = [](const analysis::Results& r, const char* words) {
        const auto& all = r.wheels.front().input().assumed;
        return std::any_of(all.begin(), all.end(), [&](const std::string& a) { return a.find(words) != std::string::npos; });
    };
    CHECK_FALSE(assumes(analysis::analyse(t.b, 1), "taped before"));
    // the axle made narrower: what was taped beside it stands elsewhere then
    Typist narrower = t;
    narrower.type("track rear faces 1420 wanted 1360 pinion 0");
    CHECK(assumes(analysis::analyse(narrower.b, 1), "that arch stands so beside the wheel once all is as planned"));
    CHECK(assumes(analysis::analyse(narrower.b, 1), "that rail stands so"));
    // nobody said what stands inside
    Typist half = t;
    half.type("remove room rail");
    const auto missing = planOf(analysis::analyse(half.b, 1)).missing;
    CHECK(std::count_if(missing.begin(), missing.end(), [](const std::string& m) { return m.find("what stands inside") == 0; }) ==
          2);
    // wheels that hung when they were measured, and a place that was marked beside them
    Typist hung = t;
    hung.type("session tuesday right-way-up stands at 300 and 2300");
    hung.type("coordinates Rr 2600 700 400");
    for (const char* line : {"point Lr rail 2600 860 500", "coordinates Lr 2600 860 500", "room post rear at Lr"})
        hung.type(line);
    CHECK(assumes(analysis::analyse(hung.b, 1), "hung as they stand"));
    // four places miss an oval that turns between them; a millimetre just kept is not kept with its ±
    const auto verdict = [](std::vector<double> readings) {
        DialTurn turn;
        turn.readings = std::move(readings);
        return analysis::dialVerdict(turn);
    };
    CHECK(verdict({0, 0.1, 0, 0.1}) == PlanVerdict::Marginal);
    CHECK(verdict({0, 0.1, 0, 0.1, 0, 0.9}) == PlanVerdict::Holds);
    CHECK(verdict({0, 0.1, 0, 0.1, 0, 0.97}) == PlanVerdict::Marginal);
    CHECK(verdict({0, 0.1, 0, 0.1, 0, 1.03}) == PlanVerdict::Marginal);
    CHECK(verdict({0, 0.1, 0, 0.1, 0, 1.1}) == PlanVerdict::Fails);
}

TEST_CASE("axles that are driven together want tyres of one size", "[analysis][wheels]") {
    Typist t = wheeled();
    t.type("pinion front at station 100 up 400 slope 2deg swing 0deg on front-axle");
    t.type("rim front fitted width 6in diameter 15in backspace 110 tyre 195 aspect 65 outside 628");
    CHECK_FALSE(found(analysis::analyse(t.b, 1), "drive.tyres-differ")); // 0.95 %
    t.type("rim front fitted outside 627");
    CHECK(found(analysis::analyse(t.b, 1), "drive.tyres-differ")); // 1.1 %
}

TEST_CASE("scans beside the wheels: a wing panel by hand, the frame's own hubs left out", "[analysis][wheels]") {
    Typist t = wheeled();
    t.type("remove room arch");
    t.type("remove room rail");
    const auto r = analysis::analyse(t.b, 1);
    const auto input = analysis::wheelsInput(t.b, r, AxleEnd::Rear);
    REQUIRE(input);
    analysis::Overlay o;
    const auto panel = [](double x0, double x1, double y, double z0, double z1) {
        auto mesh = std::make_shared<shape::Mesh>();
        mesh->points = {{x0, y, z0}, {x1, y, z0}, {x1, y, z1}, {x0, y, z1}};
        mesh->triangles = {{0, 1, 2}, {0, 2, 3}};
        auto ready = std::make_shared<sit::Ready>();
        ready->mesh = mesh;
        return ready;
    };
    // a wing 160 outside of the right wheel's middle, and a scanned hub within the rim
    analysis::Overlay::Part wing, hub;
    wing.part.name = "wing";
    wing.part.ready = panel(2300, 2900, 860, 300, 800);
    wing.kind = ScanPart::Body;
    wing.scan = ScanId{1};
    hub.part.name = "frame";
    hub.part.ready = panel(2550, 2650, 690, 350, 450);
    hub.kind = ScanPart::Chassis;
    hub.scan = ScanId{2};
    o.body_parts = {wing};
    o.on_chassis = {hub};
    const drive::WheelsIn with = analysis::withScans(*input, o);
    CHECK(with.corners[0].scanned.empty());
    REQUIRE(with.corners[1].scanned.size() == 1);
    CHECK(with.corners[1].scanned[0].name == "wing");
    const drive::WheelsPlan p = drive::wheelsPlan(with);
    REQUIRE(p.now.size() == 1);
    // the axle leans about its middle: at full droop of the other side the upper edge of the tyre stands further out
    CHECK(p.now[0].clear_mm.value < 60);
    CHECK(p.now[0].clear_mm.value > 60 - 2 * 317 * 160 / 1400.0);
    REQUIRE(p.map);
    CHECK(std::any_of(p.map->columns.begin(), p.map->columns.end(), [](const auto& c) { return !c.free.empty(); }));
    // without lean: flat against flat, to the millimetre that is promised
    drive::WheelsIn upright = with;
    for (drive::Corner& c : upright.corners)
        std::erase_if(c.poses, [](const drive::HubPose& pose) { return std::abs(pose.moved.rotation[1][2]) > 1e-9; });
    const double flat = drive::wheelsPlan(upright, 0).now[0].clear_mm.value;
    CHECK(flat <= 60 + 1e-6);
    CHECK(flat >= 60 - 1.5);
}

TEST_CASE("tyres that nobody scanned stand among the scans: one truth on Scan and on Drive", "[analysis][wheels]") {
    Typist t = wheeled();
    t.type("remove room arch");
    t.type("remove room rail");
    t.type("remove pinion rear"); // no lean: both go straight up and down
    const auto r = analysis::analyse(t.b, 1);
    const auto drawn = analysis::drawnWheels(t.b, r);
    REQUIRE(drawn.size() == 2);
    CHECK(drawn[1].name == "rear right tyre, fitted");
    CHECK(drawn[1].centre.y_mm == Approx(700));
    // a closed ring, by Pappus a little more than the round one, never less
    const shape::Mesh ring = analysis::tyreMesh(drawn[1]);
    const shape::MeshReport report = shape::look(ring);
    CHECK(report.closed);
    const double half = 100, outer = 317, seat = 190.5, round = drawn[1].tyre.round_mm;
    const double corners = 2 * round * round * (1 - std::numbers::pi / 4); // cut off by both shoulders
    const double volume =
        std::numbers::pi * (outer * outer - seat * seat) * 2 * half - 2 * std::numbers::pi * (outer - 0.223 * round) * corners;
    CHECK(report.volume_mm3 == Approx(volume).epsilon(0.005));
    // wanted wheels stand where their offset puts them
    Typist wanted = t;
    wanted.type("rim rear wanted offset 1");
    CHECK(analysis::drawnWheels(wanted.b, analysis::analyse(wanted.b, 2))[1].centre.y_mm == Approx(700 + 21 - 1));
    // a wing 160 outside of the wheel's middle with an edge turned in over the tyre: the nearest place is met at full bump
    auto mesh = std::make_shared<shape::Mesh>();
    mesh->points = {{2300, 860, 600}, {2900, 860, 600}, {2900, 860, 900}, {2300, 860, 900}, {2300, 780, 810}, {2900, 780, 810}};
    mesh->triangles = {{0, 1, 2}, {0, 2, 3}, {3, 2, 5}, {3, 5, 4}};
    Scan scan;
    scan.id = ScanId{9001};
    scan.subject = the_body;
    scan.part = ScanPart::Body;
    scan.name = "wing";
    analysis::OverlayInput in =
        analysis::overlayInput(t.b, r, std::make_shared<analysis::ScanMeshes>(analysis::ScanMeshes{{scan.id, mesh}}));
    CHECK(in.wheels.empty()); // without scans nothing is laid on anything
    in.scans[scan.id] = scan;
    in.wheels = drawn;
    const analysis::Overlay o = analysis::placed(analysis::overlayOf(in), analysis::placingOf(t.b, r));
    REQUIRE(o.on_chassis.size() == 2);
    CHECK(o.on_chassis[0].part.sweep);
    const auto found_by_scan = analysis::clearanceOf(o);
    REQUIRE(found_by_scan);
    const double by_scan = found_by_scan->pairs.front().pair.least_mm;
    const auto input = analysis::wheelsInput(t.b, r, AxleEnd::Rear);
    const drive::WheelsPlan plan = drive::wheelsPlan(analysis::withScans(*input, o));
    REQUIRE(plan.now.size() == 1);
    CHECK(plan.now[0].clear_mm.value == Approx(by_scan).margin(1.5));
    CHECK(by_scan < 60);
}

TEST_CASE("an axle on the bench: figures from the drive line and the links, findings, card, sheet, JSON", "[analysis][wheels]") {
    Typist t = wheeled();
    CHECK(analysis::workedSetups(t.b, analysis::analyse(t.b, 1)).empty());
    for (const auto& [name, x, y, z] : {std::tuple{"Fl", 2000, -450, 470}, {"Lal", 2560, -450, 330}, {"St", 2600, -480, 760}}) {
        t.type(fmt::format("point {} {} {} {}", name, x, y, z));
        t.type(fmt::format("coordinates {} {} {} {}", name, x, y, z));
    }
    for (const char* line :
         {"seat rear faces 1420 tube 76 springs 430 430 width 60 pads 1deg u-bolt 14 stack 62",
          "link lower-left rear-axle rod Fl Lal",
          "bracket damper-left rear damper right -480 ahead 0 up -60 frame St closed 300 open 500",
          "tacked perch-left rear is 282 wanted 280", "gears rear-axle backlash 0.14 0.16 0.15 least 0.10 most 0.20"})
        t.type(line);
    const auto r = analysis::analyse(t.b, 1);
    const auto all = analysis::workedSetups(t.b, r);
    REQUIRE(all.size() == 1);
    REQUIRE(all[0].plan.brackets.size() == 2);
    CHECK(all[0].plan.pinion_up_rad->value == Approx(units::radians(1))); // the pinion's slope is that of the drive line
    // the axle's end of the link: 40 ahead of the axle's line and 70 under it
    CHECK(all[0].plan.brackets[1].from_left_mm.value == Approx(710 - 450));
    CHECK(all[0].plan.brackets[1].from_middle_mm.value == Approx(std::hypot(40, 70)));
    CHECK(all[0].plan.brackets[0].rest_mm->value == Approx(420)); // hub centre 400
    CHECK(found(r, "drive.axle-damper-out"));
    CHECK(found(r, "drive.axle-tack"));
    for (const char* tag : {"axle-seat:rear", "bracket:damper-left"}) {
        const auto card = analysis::cardFor(t.b, r, the_chassis, tag);
        REQUIRE(card);
        CHECK_FALSE(card->rows.empty());
        CHECK(card->sentences.size() <= 2);
    }
    CHECK_FALSE(analysis::cardFor(t.b, r, the_chassis, "axle-seat:front"));
    const auto json = nlohmann::json::parse(analysis::driveAxleJson(t.b, r));
    CHECK(json["axles"][0]["perches"][1]["from_right_face_mm"].get<double>() == Approx(280));
    CHECK(json["axles"][0]["u_bolt"]["inside_mm"] == 76);
    CHECK(analysis::axleSetupPages(t.b, r).size() == 1);
    const Build empty;
    CHECK_FALSE(analysis::axleSetupHeadline(empty, analysis::analyse(empty, 1), the_chassis).below.empty());
}

} // namespace analysis_wheels_test
