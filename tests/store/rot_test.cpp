// Rot, missing lines, snapshots and tables that are not what they seem.
#include "store/made.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <fstream>

namespace store_rot_test {

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

/// The sums of all lines, snapshot and head made anew, as somebody would who knows how: what then protects is the gate.
void sumAnew(const std::filesystem::path& path) {
    std::ofstream(path.string() + ".py") << R"(
import hashlib, sqlite3, sys
db = sqlite3.connect(sys.argv[1])
def s(*fields): return hashlib.sha256(b''.join(str(f).encode() + b'\0' for f in fields)).hexdigest()[:16]
before, last = '', 0
for row in db.execute('SELECT seq, at_utc, who, why, sentence, kind, target, changes, inverse FROM journal ORDER BY seq').fetchall():
    before = s(before, *row); last = row[0]
    db.execute('UPDATE journal SET sum = ? WHERE seq = ?', (before, last))
db.execute('UPDATE head SET seq = ?, sum = ?', (last, before))
for seq, build in db.execute('SELECT seq, build FROM snapshot').fetchall():
    db.execute('UPDATE snapshot SET sum = ? WHERE seq = ?', (s(seq, build), seq))
db.commit()
)";
    REQUIRE(test::run("/usr/bin/python3 " + path.string() + ".py " + path.string() + " 2>&1").code == 0);
}

} // namespace

TEST_CASE("a line older than the snapshot that is not as it was written is told", "[store][rot]") {
    const test::QuickFolder quick("rot-old");
    const auto path = made(quick.path, 210);
    sql(path, "UPDATE journal SET inverse = replace(inverse, '19', '20') WHERE seq = 17");
    auto store = Store::open(path);
    REQUIRE(store);
    REQUIRE((*store)->damage().size() == 1);
    CHECK((*store)->damage()[0] ==
          "line 17 of its log is not as it was written; the build is shown as it was kept, but can't be changed or undone");
    CHECK((*store)->build().points.size() == 210); // the build itself is whole
    CHECK((*store)->readOnly());
}

TEST_CASE("lines that are missing are told: in the middle, before the snapshot, at the end", "[store][rot]") {
    const test::QuickFolder quick("rot-gone");
    const auto told = [&](int points, const std::string& text, size_t left) {
        const auto path = made(quick.path, points);
        sql(path, text);
        auto store = Store::open(path);
        REQUIRE(store);
        CHECK((*store)->build().points.size() == left);
        CHECK((*store)->readOnly());
        std::string said = (*store)->damage().empty() ? "" : (*store)->damage()[0];
        store = Error{};
        std::filesystem::remove(path);
        return said.substr(0, said.find(';'));
    };
    CHECK(told(210, "DELETE FROM journal WHERE seq BETWEEN 60 AND 100", 210) == "lines 60 to 100 of its log are gone");
    CHECK(told(210, "DELETE FROM journal WHERE seq = 5", 210) == "line 5 of its log is gone");
    CHECK(told(210, "DELETE FROM journal WHERE seq > 203", 203) == "lines 204 to 210 of its log, the newest, are gone");
    CHECK(told(210, "DELETE FROM journal WHERE seq > 150", 200) == "lines 151 to 200 of its log, the newest, are gone");
    CHECK(told(30, "DELETE FROM journal WHERE seq = 30", 29) == "line 30 of its log, the newest, is gone");
    CHECK(told(30, "DELETE FROM journal WHERE seq = 12", 11) == "line 12 of its log is gone");
    CHECK(told(30, "DELETE FROM head", 30) == "nothing says which line of its log is the newest: later ones may be gone");
    // lines that changed places with their sums
    CHECK(
        told(
            30,
            "UPDATE journal SET seq = 100 WHERE seq = 12; UPDATE journal SET seq = 12 WHERE seq = 13; UPDATE journal SET seq = 13 WHERE seq = 100",
            11) == "line 12 of its log is not as it was written");
}

TEST_CASE("undo looks at the line it takes back", "[store][rot]") {
    const test::QuickFolder quick("rot-undo");
    const auto path = made(quick.path, 3);
    auto store = Store::open(path);
    REQUIRE(store);
    Settings s = (*store)->build().settings;
    s.frame_tolerance_mm = 5;
    REQUIRE((*store)->keep({"tolerance", {Set<Settings>{s}}}, author));
    sql(path, "UPDATE journal SET inverse = replace(inverse, '3.0', '93.0') WHERE seq = 4"); // rots while it is open
    const auto undone = (*store)->undo(author);
    REQUIRE_FALSE(undone);
    CHECK(undone.error().code == Error::Code::Damaged);
    CHECK((*store)->build().settings.frame_tolerance_mm == 5);
    CHECK_FALSE((*store)->damage().empty());
    CHECK_FALSE((*store)->keep(addPoint((*store)->build()), author)); // and nothing is built on it
}

TEST_CASE("a snapshot is not trusted for its sum: what it holds must be a build", "[store][rot][snapshot]") {
    const test::QuickFolder quick("rot-snapshot");
    for (
        const char* text :
        {"UPDATE snapshot SET build = replace(build, '\\\"pins\\\":[]', '\\\"pins\\\":[{\\\"id\\\":7}]')",
         "UPDATE snapshot SET build = replace(build, '\\\"readings\\\":[]', '\\\"readings\\\":[{\\\"id\\\":9,\\\"from\\\":999,\\\"to\\\":998}]')",
         "UPDATE snapshot SET build = replace(build, '\\\"P7\\\"', '\\\"P8\\\"')",
         "UPDATE snapshot SET build = replace(build, '\\\"next_id\\\":203', '\\\"next_id\\\":2')",
         "UPDATE snapshot SET build = printf('%.*c', 3000000, '[')", "UPDATE snapshot SET build = '{}'",
         "UPDATE snapshot SET build = ''"}) {
        const auto path = made(quick.path, 205);
        sql(path, text);
        sumAnew(path);
        INFO(text);
        {
            auto store = Store::open(path);
            REQUIRE(store);
            CHECK((*store)->notice().find("the build was made anew from its log") != std::string::npos);
            CHECK((*store)->damage().empty());
            CHECK((*store)->build().points.size() == 205);
            REQUIRE((*store)->keep(addPoint((*store)->build()), author));
        }
        std::filesystem::remove(path);
    }
}

TEST_CASE("lines of the log that no edit could have made stop the reading, with sums or without", "[store][rot]") {
    const test::QuickFolder quick("rot-lines");
    for (const char* changes :
         {"[{\\\"drop\\\":\\\"point\\\",\\\"id\\\":99}]", "[{\\\"put\\\":\\\"pin\\\",\\\"value\\\":{\\\"id\\\":50}}]", "[[[[]]]]",
          "{}", "", "[{\\\"put\\\":\\\"point\\\",\\\"value\\\":{\\\"id\\\":4294967295,\\\"name\\\":\\\"X\\\"}}]",
          "[{\\\"put\\\":\\\"reading\\\",\\\"value\\\":{\\\"id\\\":50,\\\"from\\\":1,\\\"to\\\":77}}]"}) {
        const auto path = made(quick.path, 12);
        sql(path, std::string("UPDATE journal SET changes = '") + changes + "' WHERE seq = 9");
        sumAnew(path);
        auto store = Store::open(path);
        INFO(changes);
        REQUIRE(store);
        CHECK((*store)->build().points.size() == 8);
        REQUIRE((*store)->damage().size() == 1);
        CHECK((*store)->damage()[0].find("line 9 of its log") == 0);
        store = Error{};
        std::filesystem::remove(path);
    }
}

TEST_CASE("a file with views, triggers, computed columns or other tables is no build", "[store][rot][schema]") {
    const test::QuickFolder quick("rot-schema");
    for (
        const char* text :
        {"CREATE VIEW extra AS SELECT 1", "CREATE TRIGGER t AFTER INSERT ON journal BEGIN SELECT 1; END",
         "CREATE TABLE other (x)", "CREATE INDEX i ON journal (who)",
         "ALTER TABLE journal ADD COLUMN bomb TEXT AS (printf('%.*c', 1000000000, 'x'))",
         "ALTER TABLE snapshot RENAME COLUMN sum TO total",
         "ALTER TABLE journal RENAME TO j; CREATE VIEW journal AS SELECT * FROM j",
         "ALTER TABLE snapshot RENAME TO s; CREATE TABLE snapshot (seq INTEGER, build TEXT AS (printf('%.*c', 1000000000, 'x')), sum TEXT)",
         "DROP TABLE head"}) {
        const auto path = made(quick.path, 5);
        sql(path, text);
        const std::string before = test::fileText(path);
        const auto store = Store::open(path);
        INFO(text);
        REQUIRE_FALSE(store);
        CHECK(store.error().code == Error::Code::Damaged);
        CHECK(store.error().message.find("no build of this program") != std::string::npos);
        CHECK(test::fileText(path) == before);
        std::filesystem::remove(path);
    }
}

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

TEST_CASE("readers stand in nobody's way, and see what is kept", "[store][lock]") {
    const test::QuickFolder quick("store-readers");
    const auto path = made(quick.path, 3);
    auto reader = Store::open(path, Access::Read);
    REQUIRE(reader);
    CHECK((*reader)->readOnlyReason() == "it was opened to be read");
    CHECK_FALSE((*reader)->keep(addPoint((*reader)->build()), author));
    auto writer = Store::open(path);
    REQUIRE(writer);
    CHECK_FALSE((*writer)->readOnly()); // the reader holds nothing
    CHECK_FALSE((*reader)->openAgain());
    REQUIRE((*writer)->keep(addPoint((*writer)->build()), author));
    CHECK((*reader)->build().points.size() == 3); // a value: it does not change under the reader's hands
    CHECK((*reader)->openAgain());
    auto again = Store::open(path, Access::Read);
    REQUIRE(again);
    CHECK((*again)->build().points.size() == 4);
    // a second writer waits, is read-only, and hears when the first has gone
    auto second = Store::open(path);
    REQUIRE(second);
    CHECK((*second)->waitsForWriter());
    CHECK((*second)->readOnlyReason() == "another window has it open");
    CHECK_FALSE((*second)->openAgain());
    writer = Error{};
    CHECK((*second)->openAgain());
    second = Error{};
    auto third = Store::open(path);
    REQUIRE(third);
    CHECK_FALSE((*third)->readOnly());
}

TEST_CASE("what can't be written as it is, is refused before it is confirmed", "[store][gate]") {
    const test::QuickFolder quick("store-gate");
    auto made = Store::create(quick.path / "a.gorvet");
    REQUIRE(made);
    Store& s = **made;
    REQUIRE(s.keep(addPoint(s.build()), author));
    const Build before = s.build();
    Point p;
    p.id = PointId{before.next_id};
    for (const char* name : {"M\xFCl", "M\xE4l"}) { // two names that would be one
        p.name = name;
        const auto refused = s.keep({"mark", {Put<Point>{p}}}, author);
        REQUIRE_FALSE(refused);
        CHECK(refused.error().message.find("no UTF-8") != std::string::npos);
    }
    Settings settings = before.settings;
    settings.frame_tolerance_mm = 1e300 * 1e300;
    CHECK_FALSE(s.keep({"tolerance", {Set<Settings>{settings}}}, author));
    CHECK_FALSE(s.keep(addPoint(before), {"M.", "why \xFF"}));
    CHECK(s.build() == before);
    REQUIRE(s.keep(addPoint(before), {"M\xFC\x1b.", ""})); // the system's name for somebody may be anything: made visible
    CHECK(s.log(1)[0].who == "M\uFFFD\uFFFD.");
    made = Error{};
    auto again = Store::open(quick.path / "a.gorvet");
    REQUIRE(again);
    CHECK((*again)->damage().empty());
}

TEST_CASE("an edit costs the same at first and after thousands", "[store][growth]") {
    // counted, not timed: what is written for an edit does not grow with the file
    const test::QuickFolder quick("store-growth");
    const auto path = quick.path / "a.gorvet";
    auto made = Store::create(path);
    REQUIRE(made);
    const auto lineBytes = [&](std::int64_t seq) {
        return std::stoi(test::run("sqlite3 " + path.string() +
                                   " 'SELECT length(changes) + length(inverse) FROM journal WHERE seq = " + std::to_string(seq) +
                                   "'")
                             .out);
    };
    int snapshots = 0;
    std::string last;
    for (int i = 1; i <= 3000; ++i) {
        REQUIRE((*made)->keep(addPoint((*made)->build()), author));
        if (i % 100 == 0) {
            const auto now = test::run("sqlite3 " + path.string() + " 'SELECT max(seq) FROM snapshot'").out;
            snapshots += now != last && now != "\n";
            last = now;
        }
    }
    CHECK(snapshots >= 8);
    CHECK(snapshots <= 15); // each only when the log has grown by an eighth
    CHECK(lineBytes(2999) <= lineBytes(10) + 20);
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
    const test::QuickFolder quick("rot-version-8");
    const auto path = quick.path / "eight.gorvet";
    std::filesystem::copy_file(std::filesystem::path(GORVET_SOURCE_DIR) / "tests/fixtures/version-8.gorvet", path);
    std::size_t steps = 0;
    {
        auto store = Store::open(path);
        REQUIRE(store);
        CHECK((*store)->damage().empty());
        CHECK((*store)->keptCopy() == quick.path / "eight.version-8.gorvet");
        const Build& b = (*store)->build();
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
        REQUIRE((*store)->keep(Edit{"narrower", {Set<std::optional<Narrowing>>{n}, Put<FloorEdge>{e}}}, author));
        while ((*store)->undo(author)) ++steps; // what the old program wrote, too
        for (std::size_t k = 0; k < steps; ++k) REQUIRE((*store)->redo(author));
    }
    CHECK(steps > 8);
    auto again = Store::open(path);
    REQUIRE(again);
    CHECK((*again)->damage().empty());
    CHECK((*again)->keptCopy().empty());
    CHECK((*again)->build().narrowing->by.value == 120);
    CHECK(floorEdgeNamed((*again)->build(), "left"));
}

TEST_CASE("a file of version 9 knew no shafts, and reads the same", "[store][migrate]") {
    const test::QuickFolder quick("rot-version-9");
    const auto path = quick.path / "nine.gorvet";
    std::filesystem::copy_file(std::filesystem::path(GORVET_SOURCE_DIR) / "tests/fixtures/version-9.gorvet", path);
    std::size_t steps = 0;
    {
        auto store = Store::open(path);
        REQUIRE(store);
        CHECK((*store)->damage().empty());
        CHECK((*store)->keptCopy() == quick.path / "nine.version-9.gorvet");
        const Build& b = (*store)->build();
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
        REQUIRE((*store)->keep(
            Edit{"a shaft", {Put<DriveEnd>{tail}, Put<DriveEnd>{nose}, Put<Shaft>{s}, Put<Link>{l}, Set<DriveFacts>{f}}},
            author));
        while ((*store)->undo(author)) ++steps; // what the old program wrote, too
        for (std::size_t k = 0; k < steps; ++k) REQUIRE((*store)->redo(author));
    }
    CHECK(steps > 5);
    auto again = Store::open(path);
    REQUIRE(again);
    CHECK((*again)->damage().empty());
    CHECK((*again)->keptCopy().empty());
    CHECK(shaftNamed((*again)->build(), "main")->from == driveEndNamed((*again)->build(), "gearbox")->id);
    CHECK((*again)->build().drive_facts.redline_rpm->value == 5200);
}

} // namespace store_rot_test
