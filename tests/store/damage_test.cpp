// Files that were hurt, that may not be written, or that another version made.
#include "build/describe.hpp"
#include "store/made.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cstdlib>
#include <fstream>
#include <random>
#include <unistd.h>

namespace store_damage_test {

using namespace gorvet;
using namespace gorvet::build;
using store::Store;
using test::addPoint;
using test::author;
using test::made;

namespace {

void writeBytes(const std::filesystem::path& path, const std::string& bytes) { std::ofstream(path, std::ios::binary) << bytes; }

std::filesystem::path fixture() { return std::filesystem::path(GORVET_SOURCE_DIR) / "tests/fixtures/version-1.gorvet"; }

} // namespace

TEST_CASE("a damaged line of the log: what was kept before it opens, read-only", "[store][damage]") {
    const test::QuickFolder quick("store-line");
    const auto& folder = quick.path;
    const auto path = made(folder, 12);
    REQUIRE(
        test::run("sqlite3 " + path.string() + " \"UPDATE journal SET changes = replace(changes, 'P10', 'Q10') WHERE seq = 8\"")
            .code == 0);
    const std::string before = test::fileText(path);
    auto store = Store::open(path);
    REQUIRE(store);
    CHECK((*store)->readOnly());
    REQUIRE((*store)->damage().size() == 1);
    CHECK((*store)->damage()[0] == "line 8 of its log is not as it was written; what was kept before it is shown");
    CHECK((*store)->build().points.size() == 7);
    const auto refused = (*store)->keep(addPoint((*store)->build()), author);
    REQUIRE_FALSE(refused);
    CHECK(refused.error().message.find("it is damaged: line 8") != std::string::npos);
    CHECK(test::fileText(path) == before);
}

TEST_CASE("a damaged snapshot costs only time", "[store][damage]") {
    const test::QuickFolder quick("store-snapshot");
    const auto& folder = quick.path;
    const auto path = made(folder, 205);
    REQUIRE(test::run("sqlite3 " + path.string() + " \"UPDATE snapshot SET build = replace(build, 'P7', 'X7')\"").code == 0);
    auto store = Store::open(path);
    REQUIRE(store);
    CHECK((*store)->damage().empty());
    CHECK((*store)->build().points.size() == 205);
    CHECK(pointNamed((*store)->build(), the_chassis, "P7"));
}

TEST_CASE("files cut short or overwritten at random never crash, are never changed, and show only what was kept",
          "[store][damage]") {
    const test::QuickFolder quick("store-random");
    const auto& folder = quick.path;
    const auto path = made(folder, 60);
    const std::string good = test::fileText(path);
    const Build whole = [&] { return (*Store::open(path))->build(); }();
    std::mt19937 rng(7);
    int opened = 0;
    int partly = 0;
    for (int round = 0; round < 300; ++round) {
        std::string bytes = good;
        if (round % 3 == 0) {
            bytes.resize(rng() % bytes.size());
        } else {
            const auto hits = 1 + rng() % (round % 3 == 1 ? 4 : 400);
            for (unsigned i = 0; i < hits; ++i) bytes[rng() % bytes.size()] = static_cast<char>(rng());
        }
        const auto hurt = folder / "hurt.gorvet";
        writeBytes(hurt, bytes);
        {
            auto store = Store::open(hurt);
            if (store) {
                ++opened;
                partly += !(*store)->damage().empty();
                for (const auto& [id, p] : (*store)->build().points) { // nothing that was never there
                    const auto found = whole.points.find(id);
                    REQUIRE(found != whole.points.end());
                    REQUIRE(found->second == p);
                }
                (void)(*store)->log();
            } else {
                CHECK_FALSE(store.error().message.empty());
            }
        }
        REQUIRE(test::fileText(hurt) == bytes);
        REQUIRE_FALSE(std::filesystem::exists(hurt.string() + "-journal"));
    }
    CHECK(partly > 20); // damage is met, and parts are shown
    WARN("300 hurt files: " << opened << " opened, " << partly << " of them in part and read-only, none changed");
}

TEST_CASE("a file of version 1 is brought up after a copy of it was kept", "[store][migrate]") {
    const auto folder = test::freshFolder("store-migrate");
    const auto path = folder / "low.gorvet";
    std::filesystem::copy_file(fixture(), path);
    const std::string before = test::fileText(path);
    Build migrated;
    {
        auto store = Store::open(path);
        REQUIRE(store);
        CHECK_FALSE((*store)->readOnly());
        CHECK((*store)->keptCopy() == folder / "low.version-1.gorvet");
        CHECK(test::fileText(folder / "low.version-1.gorvet") == before);
        migrated = (*store)->build();
        CHECK(migrated.settings.name == "Low platform");
        CHECK(migrated.points.size() == 4);
        CHECK(migrated.readings.size() == 10);
        CHECK((*store)->undoSentence() == "change the wheelbase by 120.0 mm");
        CHECK((*store)->redoSentence() == "cut the rails at 700.0 mm ?");
        CHECK((*store)->log().size() == 26);
        REQUIRE((*store)->redo(author));
        REQUIRE((*store)->keepBlob(fixture()));
    }
    {
        auto store = Store::open(path);
        REQUIRE(store);
        CHECK((*store)->keptCopy().empty()); // once is enough
        CHECK((*store)->damage().empty());
        CHECK((*store)->build().stretch.cut_station);
    }
    CHECK(test::run("sqlite3 " + path.string() + " 'PRAGMA user_version'").out == std::to_string(build::newestVersion()) + "\n");
    // a second file of the same name does not take the first copy's place
    std::filesystem::remove(path);
    std::filesystem::copy_file(fixture(), path);
    auto store = Store::open(path);
    REQUIRE(store);
    CHECK((*store)->keptCopy() == folder / "low.version-1-2.gorvet");
}

TEST_CASE("a file of version 1 opened by a second window is shown, not brought up", "[store][migrate]") {
    const auto folder = test::freshFolder("store-migrate-locked");
    const auto path = folder / "low.gorvet";
    std::filesystem::copy_file(fixture(), path);
    const std::string before = test::fileText(path);
    const auto holder = test::run("flock -x " + path.string() + " sqlite3 --version");
    REQUIRE(holder.code == 0); // flock is there
    FILE* other = popen(("flock -x " + path.string() + " sh -c 'echo held; read line'").c_str(), "w");
    REQUIRE(other);
    for (int i = 0; i < 200 && test::run("flock -xn " + path.string() + " true").code == 0; ++i) usleep(10'000);
    {
        auto store = Store::open(path);
        REQUIRE(store);
        CHECK((*store)->readOnlyReason() == "another window has it open");
        CHECK((*store)->build().points.size() == 4);
        CHECK_FALSE((*store)->blob("x"));
    }
    fputs("\n", other);
    pclose(other);
    CHECK(test::fileText(path) == before);
}

TEST_CASE("a write-protected file or folder opens read-only and is not brought up", "[store]") {
    if (geteuid() == 0) {
        // root may write anywhere: the same test runs again as nobody
        const auto folder = std::filesystem::temp_directory_path() / ("gorvet-protected-" + std::to_string(getpid()));
        std::filesystem::remove_all(folder);
        std::filesystem::create_directories(folder);
        std::filesystem::copy_file(fixture(), folder / "low.gorvet");
        const auto cli = folder / "gorvet-cli";
        std::filesystem::copy_file(GORVET_CLI, cli);
        std::filesystem::permissions(folder, static_cast<std::filesystem::perms>(0555));
        std::filesystem::permissions(folder / "low.gorvet", static_cast<std::filesystem::perms>(0444));
        const auto as_nobody = [&](const std::string& words) {
            return test::run("setpriv --reuid=65534 --regid=65534 --clear-groups " + cli.string() + " " + words);
        };
        const std::string file = (folder / "low.gorvet").string();
        const auto shown = as_nobody("log " + file);
        INFO(shown.out);
        CHECK(shown.code == 0);
        CHECK(shown.out.find("26 ") != std::string::npos);
        const auto refused = as_nobody("enter " + file + " 'cut 900'");
        CHECK(refused.code == 2);
        CHECK(refused.out.find("write-protected") != std::string::npos);
        CHECK(std::distance(std::filesystem::directory_iterator(folder), {}) == 2); // no copy, no journal
        std::filesystem::remove_all(folder);
        return;
    }
    const auto folder = test::freshFolder("store-protected");
    std::filesystem::copy_file(fixture(), folder / "low.gorvet");
    std::filesystem::permissions(folder, static_cast<std::filesystem::perms>(0555));
    {
        auto store = Store::open(folder / "low.gorvet");
        REQUIRE(store);
        CHECK((*store)->readOnlyReason() == "the file or its folder is write-protected");
        CHECK((*store)->build().points.size() == 4);
        CHECK_FALSE((*store)->keep(addPoint((*store)->build()), author));
    }
    CHECK(std::distance(std::filesystem::directory_iterator(folder), {}) == 1);
    std::filesystem::permissions(folder, static_cast<std::filesystem::perms>(0755));
}

TEST_CASE("photos are kept inside the file, once, and come out as they went in", "[store][blob]") {
    const auto folder = test::freshFolder("store-blob");
    std::string bytes(1'000'003, ' ');
    std::mt19937 rng(1);
    for (char& c : bytes) c = static_cast<char>(rng());
    writeBytes(folder / "brace.jpg", bytes);
    writeBytes(folder / "same.jpg", bytes);
    writeBytes(folder / "empty.jpg", "");
    auto made = Store::create(folder / "a.gorvet");
    REQUIRE(made);
    Store& s = **made;
    double share = 0;
    const auto kept = s.keepBlob(folder / "brace.jpg", [&](double done) {
        CHECK(done >= share);
        share = done;
        return true;
    });
    REQUIRE(kept);
    CHECK(share == 1.0);
    CHECK(kept->bytes == 1'000'003);
    CHECK(kept->hash == test::run("sha256sum " + (folder / "brace.jpg").string()).out.substr(0, 64));
    const auto same = s.keepBlob(folder / "same.jpg");
    REQUIRE(same);
    CHECK(same->name == "brace.jpg");
    std::string back;
    REQUIRE(s.readBlob(kept->hash, [&](auto chunk) { back.append(reinterpret_cast<const char*>(chunk.data()), chunk.size()); }));
    CHECK(back == bytes);
    const auto empty = s.keepBlob(folder / "empty.jpg");
    REQUIRE(empty);
    CHECK(s.readBlob(empty->hash, [](auto) {}));
    writeBytes(folder / "other.jpg", bytes + "x");
    const auto cancelled = s.keepBlob(folder / "other.jpg", [](double done) { return done < 0.7; });
    REQUIRE_FALSE(cancelled);
    CHECK(cancelled.error().message == "Cancelled: other.jpg was not kept.");
    CHECK_FALSE(s.keepBlob(folder / "missing.jpg"));
    CHECK_FALSE(s.keepBlob(folder));
    CHECK_FALSE(s.readBlob(std::string(64, '0'), [](auto) {}));
    Tick tick;
    tick.id = TickId{1};
    tick.step = "brace";
    tick.photo = kept->hash;
    REQUIRE(s.keep({"done", {Put<Tick>{tick}}}, author));
    made = Error{};
    // the empty one, which no line of the log names, was taken out on closing
    CHECK(test::run("sqlite3 " + (folder / "a.gorvet").string() + " 'SELECT count(*) FROM blob'").out == "1\n");
    // a byte that turned inside the file is noticed
    REQUIRE(test::run("sqlite3 " + (folder / "a.gorvet").string() + " \"UPDATE blob_chunk SET data = x'00' WHERE n = 2\"").code ==
            0);
    auto again = Store::open(folder / "a.gorvet");
    REQUIRE(again);
    const auto hurt = (*again)->readBlob(kept->hash, [](auto) {});
    REQUIRE_FALSE(hurt);
    CHECK(hurt.error().code == Error::Code::Damaged);
}

} // namespace store_damage_test
