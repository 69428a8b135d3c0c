// Files of every version before: what they held is there, undone and done again, with a copy kept of what they were.
#include "store/made.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <fstream>

namespace store_migrate_test {

using namespace gorvet;
using namespace gorvet::build;
using store::Access;
using store::Store;
using test::addPoint;
using test::author;
using test::made;

namespace {

void sql(const std::filesystem::path& path, const std::string& text) {
    const auto ran = test::run("sqlite3 " + path.string() + " \"" + text + "\" 2>&1");
    INFO(ran.out);
    REQUIRE(ran.code == 0);
}

/// Undoes all of it, what the old program wrote, too, and does it again; how many steps that were.
std::size_t throughItsLog(Store& store) {
    std::size_t steps = 0;
    while (store.undo(author)) ++steps;
    for (std::size_t k = 0; k < steps; ++k) REQUIRE(store.redo(author));
    return steps;
}

/// Opens a copy of that version's fixture, of which a copy is kept, lets `use` look at it and keep something, goes through its
/// whole log, and lets `after` look at what is opened again; how many steps the log has.
template <class Use, class After> std::size_t broughtUp(int version, const Use& use, const After& after) {
    const std::string name = "version-" + std::to_string(version);
    const test::QuickFolder quick("rot-" + name);
    const auto path = quick.path / "old.gorvet";
    std::filesystem::copy_file(std::filesystem::path(GORVET_SOURCE_DIR) / "tests/fixtures" / (name + ".gorvet"), path);
    std::size_t steps = 0;
    {
        auto store = Store::open(path);
        REQUIRE(store);
        CHECK((*store)->damage().empty());
        CHECK((*store)->keptCopy() == quick.path / ("old." + name + ".gorvet"));
        use(**store);
        steps = throughItsLog(**store);
    }
    CHECK(steps > 5);
    auto again = Store::open(path);
    REQUIRE(again);
    CHECK((*again)->damage().empty());
    CHECK((*again)->keptCopy().empty());
    after((*again)->build());
    return steps;
}

} // namespace

TEST_CASE("a file of version 2 keeps what it held, its old log checked before it is rewritten", "[store][migrate]") {
    const test::QuickFolder quick("rot-version-2");
    const auto fixture = std::filesystem::path(GORVET_SOURCE_DIR) / "tests/fixtures/version-2.gorvet";
    const auto path = quick.path / "two.gorvet";
    std::filesystem::copy_file(fixture, path);
    Build shown;
    {
        auto reader = Store::open(path, Access::Read); // is shown as it is
        REQUIRE(reader);
        CHECK((*reader)->keptCopy().empty());
        CHECK((*reader)->damage().empty());
        shown = (*reader)->build();
        CHECK(shown.settings.name == "Zweite Platte — größer");
        CHECK(shown.readings.size() == 100);
    }
    CHECK(test::fileText(path) == test::fileText(fixture));
    {
        auto store = Store::open(path);
        REQUIRE(store);
        CHECK((*store)->keptCopy() == quick.path / "two.version-2.gorvet");
        CHECK((*store)->build() == shown);
        REQUIRE((*store)->redo(author));
        CHECK((*store)->build().settings.frame_tolerance_mm == 2.5);
        for (const auto& [id, f] : (*store)->build().flaws) CHECK((*store)->readBlob(f.photo, [](auto) {}));
        CHECK((*store)->build().flaws.size() == 1);
    }
    CHECK((*Store::open(path))->damage().empty());
    // one that is not as it was written is not rewritten
    std::filesystem::copy_file(fixture, quick.path / "hurt.gorvet");
    sql(quick.path / "hurt.gorvet", "UPDATE journal SET sentence = 'x' WHERE seq = 20");
    const std::string before = test::fileText(quick.path / "hurt.gorvet");
    auto hurt = Store::open(quick.path / "hurt.gorvet");
    REQUIRE(hurt);
    CHECK((*hurt)->damage().at(0).find("line 20 of its log is not as it was written") == 0);
    CHECK((*hurt)->build() == shown);
    CHECK(test::fileText(quick.path / "hurt.gorvet") == before);
}

TEST_CASE("a file of version 3 knew two subjects by their words, and reads the same", "[store][migrate]") {
    const test::QuickFolder quick("rot-version-3");
    const auto fixture = std::filesystem::path(GORVET_SOURCE_DIR) / "tests/fixtures/version-3.gorvet";
    const auto path = quick.path / "three.gorvet";
    std::filesystem::copy_file(fixture, path);
    {
        auto store = Store::open(path);
        REQUIRE(store);
        CHECK((*store)->damage().empty());
        CHECK((*store)->keptCopy() == quick.path / "three.version-3.gorvet");
        const Build& b = (*store)->build();
        CHECK(b.points.size() == 6);
        REQUIRE(pointNamed(b, the_body, "Hl"));
        CHECK(pointNamed(b, the_chassis, "Br"));
        CHECK_FALSE(pointNamed(b, the_chassis, "Hl"));
        CHECK(setupNamed(b, the_chassis, "floor"));
        CHECK(b.subjects.size() == 2);
        REQUIRE((*store)->redo(author));
        CHECK((*store)->build().settings.frame_tolerance_mm == 2.5);
        Subject mill;
        mill.id = SubjectId{(*store)->build().next_id};
        mill.name = "mill";
        REQUIRE((*store)->keep(Edit{"measure the mill", {Put<Subject>{mill}}}, author));
        while (!(*store)->undoSentence().empty()) REQUIRE((*store)->undo(author)); // what the old program wrote, too
        CHECK((*store)->build().points.empty());
    }
    auto again = Store::open(path);
    REQUIRE(again);
    CHECK((*again)->damage().empty());
    CHECK((*again)->keptCopy().empty());
}

TEST_CASE("a file of version 4 did not know what it is printed on, and reads the same", "[store][migrate]") {
    const test::QuickFolder quick("rot-version-4");
    const auto path = quick.path / "four.gorvet";
    std::filesystem::copy_file(std::filesystem::path(GORVET_SOURCE_DIR) / "tests/fixtures/version-4.gorvet", path);
    {
        auto store = Store::open(path);
        REQUIRE(store);
        CHECK((*store)->damage().empty());
        CHECK((*store)->keptCopy() == quick.path / "four.version-4.gorvet");
        const Build& b = (*store)->build();
        CHECK(b.settings.paper == Paper::A4);
        CHECK(b.subjects.size() == 3);
        CHECK(b.points.size() == 9);
        Settings s = b.settings;
        s.paper = Paper::Letter;
        REQUIRE((*store)->keep(Edit{"on letter", {Set<Settings>{s}}}, author));
        REQUIRE((*store)->undo(author));
        REQUIRE((*store)->undo(author)); // what the old program wrote, too
        CHECK((*store)->build().pins.empty());
        REQUIRE((*store)->redo(author));
        REQUIRE((*store)->redo(author));
        CHECK((*store)->build().settings.paper == Paper::Letter);
    }
    auto again = Store::open(path);
    REQUIRE(again);
    CHECK((*again)->damage().empty());
    CHECK((*again)->keptCopy().empty());
    CHECK((*again)->build().settings.paper == Paper::Letter);
}

TEST_CASE("a file of version 5 did not know jobs nor a register, and reads the same", "[store][migrate]") {
    const test::QuickFolder quick("rot-version-5");
    const auto path = quick.path / "five.gorvet";
    std::filesystem::copy_file(std::filesystem::path(GORVET_SOURCE_DIR) / "tests/fixtures/version-5.gorvet", path);
    {
        auto store = Store::open(path);
        REQUIRE(store);
        CHECK((*store)->damage().empty());
        CHECK((*store)->keptCopy() == quick.path / "five.version-5.gorvet");
        const Build& b = (*store)->build();
        CHECK(b.settings.paper == Paper::Letter);
        CHECK(b.points.size() == 5);
        CHECK(b.temporary_steel.size() == 1);
        REQUIRE(tickOf(b, "record"));
        CHECK(b.jobs.empty());
        CHECK(b.releases.empty());
        Job j;
        j.id = JobId{b.next_id};
        j.name = "seats-out";
        j.after = {"record"};
        j.body = BodyPlace::On;
        REQUIRE((*store)->keep(Edit{"seats out", {Put<Job>{j}}}, author));
        Release r;
        r.id = ReleaseId{(*store)->build().next_id};
        r.name = "earth-strap";
        r.released = Signed{"M.", "2026-03-01T08:00:00Z"};
        REQUIRE((*store)->keep(Edit{"earth strap off", {Put<Release>{r}}}, author));
        for (int k = 0; k < 3; ++k) REQUIRE((*store)->undo(author)); // what the old program wrote, too
        CHECK((*store)->build().settings.paper == Paper::A4);
        for (int k = 0; k < 3; ++k) REQUIRE((*store)->redo(author));
    }
    auto again = Store::open(path);
    REQUIRE(again);
    CHECK((*again)->damage().empty());
    CHECK((*again)->keptCopy().empty());
    REQUIRE(jobNamed((*again)->build(), "seats-out"));
    CHECK(jobNamed((*again)->build(), "seats-out")->body == BodyPlace::On);
    CHECK(releaseNamed((*again)->build(), "earth-strap")->released->who == "M.");
}

TEST_CASE("a file of version 6 did not know photos nor a shelf, and reads the same", "[store][migrate]") {
    const test::QuickFolder quick("rot-version-6");
    const auto path = quick.path / "six.gorvet";
    std::filesystem::copy_file(std::filesystem::path(GORVET_SOURCE_DIR) / "tests/fixtures/version-6.gorvet", path);
    {
        auto store = Store::open(path);
        REQUIRE(store);
        CHECK((*store)->damage().empty());
        CHECK((*store)->keptCopy() == quick.path / "six.version-6.gorvet");
        const Build& b = (*store)->build();
        CHECK(b.jobs.size() > 5);
        CHECK(b.lifts.size() == 2);
        CHECK(b.decisions.size() == 2);
        CHECK_FALSE(b.decisions.begin()->second.change);
        CHECK(b.photos.empty());
        Stock s;
        s.id = StockId{b.next_id};
        s.name = "b60";
        s.height_mm = 60;
        s.width_mm = 40;
        s.wall_mm = 3;
        s.length_mm = 2000;
        REQUIRE((*store)->keep(Edit{"b60", {Put<Stock>{s}}}, author));
        for (int k = 0; k < 4; ++k) REQUIRE((*store)->undo(author)); // what the old program wrote, too
        for (int k = 0; k < 4; ++k) REQUIRE((*store)->redo(author));
    }
    auto again = Store::open(path);
    REQUIRE(again);
    CHECK((*again)->damage().empty());
    CHECK((*again)->keptCopy().empty());
    CHECK(stockNamed((*again)->build(), "b60")->length_mm == 2000);
}

TEST_CASE("a file of version 7 did not know stands nor how springs are hung, and reads the same", "[store][migrate]") {
    const test::QuickFolder quick("rot-version-7");
    const auto path = quick.path / "seven.gorvet";
    std::filesystem::copy_file(std::filesystem::path(GORVET_SOURCE_DIR) / "tests/fixtures/version-7.gorvet", path);
    {
        auto store = Store::open(path);
        REQUIRE(store);
        CHECK((*store)->damage().empty());
        CHECK((*store)->keptCopy() == quick.path / "seven.version-7.gorvet");
        const Build& b = (*store)->build();
        CHECK(b.members.size() == 3);
        CHECK(memberNamed(b, "odd")->walls_mm.size() == 10);
        CHECK(carriedNamed(b, "engine")->mass.value == 180);
        CHECK_FALSE(carriedNamed(b, "engine")->with_body);
        CHECK(b.frame_facts.yield_MPa.value == 235);
        CHECK(b.frame_facts.rear_springs == Springs::Unsaid);
        CHECK(b.stands.empty());
        Stand s;
        s.id = StandId{b.next_id};
        s.name = "nose";
        s.station.value = 200;
        AxleJob a;
        a.id = AxleJobId{b.next_id + 1};
        a.faces.value = 1420;
        REQUIRE((*store)->keep(Edit{"stands and an axle", {Put<Stand>{s}, Put<AxleJob>{a}}}, author));
        for (int k = 0; k < 4; ++k) REQUIRE((*store)->undo(author)); // what the old program wrote, too
        for (int k = 0; k < 4; ++k) REQUIRE((*store)->redo(author));
    }
    auto again = Store::open(path);
    REQUIRE(again);
    CHECK((*again)->damage().empty());
    CHECK((*again)->keptCopy().empty());
    CHECK(standNamed((*again)->build(), "nose")->station.value == 200);
    CHECK(axleJobOf((*again)->build(), AxleEnd::Rear)->faces.value == 1420);
}

TEST_CASE("a file of version 8 did not know how wide it is made, and reads the same", "[store][migrate]") {
    const std::size_t steps = broughtUp(
        8,
        [](Store& store) {
            const Build& b = store.build();
            REQUIRE(graftNamed(b, "nose"));
            CHECK(graftNamed(b, "nose")->joint.value == 640);
            CHECK(memberNamed(b, "shut")->window_long->value == 60);
            CHECK(b.frame_facts.twist_wanted->value == 4000);
            CHECK(axleJobOf(b, AxleEnd::Rear)->faces_wanted->value == 1300);
            CHECK_FALSE(b.narrowing);
            CHECK(b.floor_edges.empty());
            Narrowing n;
            n.by.value = 120;
            n.slit.value = 300;
            FloorEdge e;
            e.id = FloorEdgeId{b.next_id};
            e.name = "left";
            e.edge = e.sill = {pointNamed(b, the_chassis, "Al")->id, pointNamed(b, the_chassis, "Ar")->id};
            REQUIRE(store.keep(Edit{"narrower", {Set<std::optional<Narrowing>>{n}, Put<FloorEdge>{e}}}, author));
        },
        [](const Build& now) {
            CHECK(now.narrowing->by.value == 120);
            CHECK(floorEdgeNamed(now, "left"));
        });
    CHECK(steps > 8);
}

TEST_CASE("a file of version 9 knew no shafts, and reads the same", "[store][migrate]") {
    broughtUp(
        9,
        [](Store& store) {
            const Build& b = store.build();
            CHECK(b.narrowing->by.value == 70);
            CHECK(railHoleNamed(b, "fold")->kind == HoleKind::Initiator);
            CHECK(floorEdgeNamed(b, "left")->edge.size() == 2);
            CHECK(letInNamed(b, "left")->height.value == 80);
            CHECK(b.drive_ends.empty());
            CHECK(b.links.empty());
            CHECK_FALSE(b.drive_facts.redline_rpm);
            DriveEnd tail, nose;
            tail.id = DriveEndId{b.next_id};
            tail.name = "gearbox";
            tail.point = pointNamed(b, the_chassis, "Al")->id;
            nose.id = DriveEndId{b.next_id + 1};
            nose.name = "rear";
            nose.kind = DriveEndKind::Pinion;
            nose.on = Carrier::Rear;
            nose.point = pointNamed(b, the_chassis, "Bl")->id;
            Shaft s;
            s.id = ShaftId{b.next_id + 2};
            s.name = "main";
            s.from = tail.id;
            s.to = nose.id;
            Link l;
            l.id = LinkId{b.next_id + 3};
            l.name = "lower";
            l.points = {tail.point, nose.point};
            DriveFacts f;
            f.redline_rpm = Dimension{5200, "5200", Provenance::Measured};
            REQUIRE(store.keep(
                Edit{"a shaft", {Put<DriveEnd>{tail}, Put<DriveEnd>{nose}, Put<Shaft>{s}, Put<Link>{l}, Set<DriveFacts>{f}}},
                author));
        },
        [](const Build& now) {
            CHECK(shaftNamed(now, "main")->from == driveEndNamed(now, "gearbox")->id);
            CHECK(now.drive_facts.redline_rpm->value == 5200);
        });
}

TEST_CASE("a file of version 10 knew no wheels, and reads the same", "[store][migrate]") {
    broughtUp(
        10,
        [](Store& store) {
            const Build& b = store.build();
            CHECK(shaftNamed(b, "main")->tube->value == 76);
            CHECK(linkNamed(b, "lower")->points.size() == 2);
            CHECK(b.drive_facts.layout == DriveLayout::Mirrored);
            CHECK(b.level_readings.size() == 1);
            CHECK(b.turn_counts.size() == 1);
            CHECK(b.wheel_sets.empty());
            WheelSet w;
            w.id = WheelSetId{b.next_id};
            w.width = w.diameter = Dimension{381, "15in", Provenance::Measured};
            w.tyre = Dimension{195, "195", Provenance::Measured};
            WheelRoom room;
            room.id = WheelRoomId{b.next_id + 1};
            room.name = "lip";
            room.on = RoomOn::Frame;
            room.point = pointNamed(b, the_chassis, "Al")->id;
            DialTurn turn;
            turn.id = DialTurnId{b.next_id + 2};
            turn.readings = {0, 0.2, 0.3, 0.1};
            REQUIRE(store.keep(Edit{"wheels", {Put<WheelSet>{w}, Put<WheelRoom>{room}, Put<DialTurn>{turn}}}, author));
        },
        [](const Build& now) {
            CHECK(wheelSetOf(now, AxleEnd::Rear, WheelAs::Fitted)->tyre->value == 195);
            CHECK(wheelRoomNamed(now, "lip")->point == pointNamed(now, the_chassis, "Al")->id);
        });
}

TEST_CASE("a file of version 11 knew no column, spring or brake, and reads the same", "[store][migrate]") {
    broughtUp(
        11,
        [](Store& store) {
            const Build& b = store.build();
            CHECK(wheelSetOf(b, AxleEnd::Rear, WheelAs::Fitted)->tyre->value == 195);
            CHECK(axleBracketNamed(b, "damper-left")->up->value == -60);
            CHECK(tackReadingNamed(b, "perch-left")->welded->value == 280.5);
            CHECK(b.widenings.size() == 1);
            CHECK(b.steering_columns.empty());
            const auto point = [&](const char* name) { return pointNamed(b, the_chassis, name)->id; };
            SteeringColumn c;
            c.id = SteeringColumnId{b.next_id};
            c.name = "steering";
            c.points = {point("Al"), point("Ar"), point("Bl")};
            Spring s;
            s.id = SpringId{b.next_id + 1};
            s.rate = Dimension{32, "32", Provenance::Measured};
            LinkHoles h;
            h.id = LinkHolesId{b.next_id + 2};
            h.link = linkNamed(b, "lower")->id;
            h.pitch.value = 25;
            h.above.value = 1;
            Brake k;
            k.id = BrakeId{b.next_id + 3};
            REQUIRE(
                store.keep(Edit{"steering", {Put<SteeringColumn>{c}, Put<Spring>{s}, Put<LinkHoles>{h}, Put<Brake>{k}}}, author));
        },
        [](const Build& now) {
            CHECK(steeringColumnNamed(now, "steering")->points.size() == 3);
            CHECK(springOf(now, AxleEnd::Rear)->rate->value == 32);
            CHECK(linkHolesOf(now, linkNamed(now, "lower")->id, LinkEnd::Frame)->pitch.value == 25);
        });
}

TEST_CASE("a file of version 12 knew no housing, no run's length and no bump stop, and reads the same", "[store][migrate]") {
    broughtUp(
        12,
        [](Store& store) {
            const Build& b = store.build();
            CHECK(driveEndNamed(b, "gearbox")->housing.empty());
            CHECK_FALSE(runNamed(b, "brake-pipe")->length);
            CHECK(runNamed(b, "brake-pipe")->last_on == Carrier::Frame);
            CHECK_FALSE(springOf(b, AxleEnd::Rear)->stop);
            CHECK(springOf(b, AxleEnd::Rear)->rate->value == 48);
            DriveEnd e = *driveEndNamed(b, "gearbox");
            e.housing = "transfer";
            Run run = *runNamed(b, "brake-pipe");
            run.length = Dimension{1850, "1850", Provenance::Measured};
            run.last_on = Carrier::Rear;
            Spring s = *springOf(b, AxleEnd::Rear);
            s.stop = Dimension{45, "45", Provenance::Measured};
            REQUIRE(store.keep(Edit{"thirteen", {Put<DriveEnd>{e}, Put<Run>{run}, Put<Spring>{s}}}, author));
        },
        [](const Build& now) {
            CHECK(driveEndNamed(now, "gearbox")->housing == "transfer");
            CHECK(runNamed(now, "brake-pipe")->length->value == 1850);
            CHECK(springOf(now, AxleEnd::Rear)->stop->value == 45);
        });
}

TEST_CASE("a file of version 13 knew no fixture and no base metal, and reads the same", "[store][migrate]") {
    broughtUp(
        13,
        [](Store& store) {
            const Build& b = store.build();
            CHECK(b.fixtures.empty());
            CHECK_FALSE(b.frame_facts.metal);
            CHECK(b.frame_facts.yield_MPa.value == 210);
            REQUIRE(steelPartNamed(b, "b1"));
            CHECK_FALSE(steelPartNamed(b, "b1")->onto);
            CHECK(steelPartNamed(b, "b1")->made.size() == 1);
            CHECK(stockNamed(b, "mill-b60")->any);
            CHECK(b.crossmember->load->value == 3000);
            Fixture f;
            f.id = FixtureId{b.next_id};
            f.name = "table1";
            FixtureTower t;
            t.id = FixtureTowerId{b.next_id + 1};
            t.fixture = f.id;
            t.point = pointNamed(b, the_chassis, "Bl")->id;
            t.does = TowerDoes::Clamp;
            SteelPart p = *steelPartNamed(b, "b1");
            p.onto = BaseMetal::Galvanised;
            FrameFacts facts = b.frame_facts;
            facts.metal = BaseMetal::Mild;
            REQUIRE(store.keep(
                Edit{"fourteen", {Put<Fixture>{f}, Put<FixtureTower>{t}, Put<SteelPart>{p}, Set<FrameFacts>{facts}}}, author));
        },
        [](const Build& now) {
            CHECK(fixtureNamed(now, "table1")->along == 60);
            CHECK(now.fixture_towers.begin()->second.does == TowerDoes::Clamp);
            CHECK(steelPartNamed(now, "b1")->onto == BaseMetal::Galvanised);
            CHECK(now.frame_facts.metal == BaseMetal::Mild);
        });
}

TEST_CASE("a file of version 14 knew no drawing that was handed out, and reads the same", "[store][migrate]") {
    broughtUp(
        14,
        [](Store& store) {
            const Build& b = store.build();
            CHECK(b.issues.empty());
            REQUIRE(fixtureNamed(b, "table1"));
            CHECK(b.fixture_towers.size() == 1);
            CHECK(b.frame_facts.metal == BaseMetal::Mild);
            CHECK(steelPartNamed(b, "b1")->onto == BaseMetal::Galvanised);
            Issue i;
            i.id = IssueId{b.next_id};
            i.name = "A";
            IssuedPiece p;
            p.id = IssuedPieceId{b.next_id + 1};
            p.issue = i.id;
            p.thing = "part:b1";
            p.piece = "b1";
            p.lines_mm = {3, 0, 0, 100, 0, 0, 50};
            REQUIRE(store.keep(Edit{"fifteen", {Put<Issue>{i}, Put<IssuedPiece>{p}}}, author));
        },
        [](const Build& now) {
            REQUIRE(issueNamed(now, "A"));
            CHECK(now.issued_pieces.begin()->second.lines_mm.size() == 7);
        });
}

TEST_CASE("a file of version 15 knew no issue that was taken back, and reads the same", "[store][migrate]") {
    broughtUp(
        15,
        [](Store& store) {
            const Build& b = store.build();
            REQUIRE(issueNamed(b, "A"));
            CHECK(b.issued_pieces.size() == 1);
            CHECK(issueNamed(b, "A")->note == "to the cutter");
            CHECK_FALSE(issueNamed(b, "A")->taken_back);
            Issue i = *issueNamed(b, "A");
            i.taken_back = Signed{"Wren", "2026-12-02T10:00:00Z"};
            REQUIRE(store.keep(Edit{"sixteen", {Put<Issue>{i}}}, author));
        },
        [](const Build& now) {
            REQUIRE(issueNamed(now, "A")->taken_back);
            CHECK(issueNamed(now, "A")->taken_back->who == "Wren");
        });
}

} // namespace store_migrate_test
