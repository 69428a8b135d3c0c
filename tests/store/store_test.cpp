#include "store/store.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <fstream>

namespace store_store_test {

using namespace gorvet;
using namespace gorvet::build;
using store::Store;

namespace {

const store::Author author{"M.", "because"};

Edit addPoint(const Build& b, const std::string& name) {
    Point p;
    p.id = PointId{b.next_id};
    p.name = name;
    return {"mark point " + name, {Put<Point>{p}}};
}

std::unique_ptr<Store> opened(const std::filesystem::path& path) {
    auto store = Store::open(path);
    if (!store) FAIL(store.error().text());
    return std::move(*store);
}

} // namespace

TEST_CASE("edits, undo and redo are there after reopening", "[store]") {
    const auto path = test::freshFolder("store-reopen") / "a.gorvet";
    Build expected;
    {
        auto store = Store::create(path);
        REQUIRE(store);
        Store& s = **store;
        for (const char* name : {"A", "B", "C", "D"}) REQUIRE(s.keep(addPoint(s.build(), name), author));
        REQUIRE(s.undo(author));
        REQUIRE(*s.undo(author) == "mark point C");
        expected = s.build();
        CHECK(expected.points.size() == 2);
    }
    {
        auto s = opened(path);
        CHECK(s->build() == expected);
        CHECK(s->undoSentence() == "mark point B");
        CHECK(s->redoSentence() == "mark point C");
        REQUIRE(*s->redo(author) == "mark point C");
        REQUIRE(s->redo(author));
        CHECK(s->build().points.size() == 4);
        CHECK_FALSE(s->redo(author));
        REQUIRE(s->undo(author));
        // a new edit ends the redo chain
        REQUIRE(s->keep(addPoint(s->build(), "E"), author));
        CHECK(s->redoSentence().empty());
        expected = s->build();
    }
    auto s = opened(path);
    CHECK(s->build() == expected);
    CHECK(s->redoSentence().empty());
    const auto log = s->log();
    REQUIRE(log.size() == 10);
    CHECK(log.front().sentence == "mark point E");
    CHECK(log.front().who == "M.");
    CHECK(log.front().why == "because");
    CHECK(log.back().sentence == "mark point A");
    CHECK(s->keptAtUtc().size() == 20);
    const auto change = s->lastChange("point", the_chassis.value + 1);
    REQUIRE(change);
    CHECK(change->sentence == "mark point A");
    CHECK_FALSE(s->lastChange("point", 999));
}

TEST_CASE("undoing everything leads back to the empty build", "[store]") {
    const test::QuickFolder quick("store-undo");
    const auto path = quick.path / "a.gorvet";
    auto made = Store::create(path);
    REQUIRE(made);
    Store& s = **made;
    for (int i = 0; i < 210; ++i) // crosses a snapshot
        REQUIRE(s.keep(addPoint(s.build(), "P" + std::to_string(i)), author));
    auto again = opened(path); // read-only, because the first is open
    CHECK(again->build() == s.build());
    while (s.undo(author)) {}
    CHECK(s.build().points.empty());
    CHECK(s.build().next_id == 213); // ids are never used twice
    CHECK(opened(path)->build() == s.build());
}

TEST_CASE("a refused edit leaves file and build as they were", "[store]") {
    const auto path = test::freshFolder("store-refused") / "a.gorvet";
    auto made = Store::create(path);
    REQUIRE(made);
    REQUIRE((*made)->keep(addPoint((*made)->build(), "A"), author));
    const Build before = (*made)->build();
    Edit edit = addPoint(before, "B");
    edit.changes.push_back(addPoint(before, "A").changes.front()); // a name twice
    CHECK_FALSE((*made)->keep(edit, author));
    CHECK((*made)->build() == before);
    CHECK((*made)->log().size() == 1);
    made = Error{};
    CHECK(opened(path)->build() == before);
}

TEST_CASE("a second window gets the file read-only, and the kernel frees the lock of a killed process", "[store]") {
    const auto path = test::freshFolder("store-lock") / "a.gorvet";
    {
        auto first = Store::create(path);
        REQUIRE(first);
        auto second = opened(path);
        CHECK(second->readOnly());
        CHECK(second->readOnlyReason() == "another window has it open");
        CHECK((*first)->keep(addPoint((*first)->build(), "A"), author)); // the reader does not stop the writer
        const auto refused = second->keep(addPoint(second->build(), "B"), author);
        REQUIRE_FALSE(refused);
        CHECK(refused.error().code == Error::Code::Locked);
    }
    CHECK_FALSE(opened(path)->readOnly());
}

TEST_CASE("files that are no builds are refused and left alone", "[store]") {
    const auto folder = test::freshFolder("store-wrong");
    const auto write = [&](const char* name, const std::string& bytes) {
        std::ofstream(folder / name, std::ios::binary) << bytes;
        return folder / name;
    };
    const auto refuses = [](const std::filesystem::path& path, Error::Code code) {
        const std::string before = test::fileText(path);
        const auto store = Store::open(path);
        REQUIRE_FALSE(store);
        INFO(store.error().text());
        CHECK(store.error().code == code);
        CHECK(test::fileText(path) == before);
    };
    refuses(write("text.gorvet", std::string(5000, 'x')), Error::Code::Damaged);
    refuses(write("empty.gorvet", ""), Error::Code::Damaged);
    const auto missing = Store::open(folder / "missing.gorvet");
    REQUIRE_FALSE(missing);
    CHECK(missing.error().code == Error::Code::NotFound);

    const auto good = folder / "good.gorvet";
    {
        auto made = Store::create(good);
        REQUIRE(made);
        REQUIRE((*made)->keep(addPoint((*made)->build(), "A"), author));
    }
    const auto twice = Store::create(good);
    REQUIRE_FALSE(twice);
    CHECK(twice.error().code == Error::Code::Conflict);

    // a newer version's file
    const auto newer = folder / "newer.gorvet";
    std::filesystem::copy_file(good, newer);
    REQUIRE(test::run("sqlite3 " + newer.string() + " 'PRAGMA user_version = 99'").code == 0);
    refuses(newer, Error::Code::TooNew);

    // another program's database
    const auto other = folder / "other.gorvet";
    REQUIRE(test::run("sqlite3 " + other.string() + " 'CREATE TABLE t (a)'").code == 0);
    refuses(other, Error::Code::Damaged);

    // a journal line that can't be read
    const auto broken = folder / "broken.gorvet";
    std::filesystem::copy_file(good, broken);
    REQUIRE(test::run("sqlite3 " + broken.string() + " \"UPDATE journal SET changes = '[{'\"").code == 0);
    refuses(broken, Error::Code::Damaged);

    // cut short
    const std::string bytes = test::fileText(good);
    refuses(write("short.gorvet", bytes.substr(0, bytes.size() / 2)), Error::Code::Damaged);

    CHECK_FALSE(Store::create(folder / "no" / "such" / "folder.gorvet"));
}

} // namespace store_store_test
