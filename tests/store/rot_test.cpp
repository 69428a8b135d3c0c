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

} // namespace store_rot_test
