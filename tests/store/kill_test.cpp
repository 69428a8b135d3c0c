// Kills a process that edits, undoes, does again, imports and keeps photos, at random moments, and looks what is left.
#include "store/store.hpp"

#include "formats/readings_csv.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <csignal>
#include <cstdio>
#include <fstream>
#include <random>
#include <sqlite3.h>
#include <sys/wait.h>
#include <unistd.h>

namespace store_kill_test {

using namespace gorvet;
using namespace gorvet::build;
using store::Store;

namespace {

const store::Author author{"M.", ""};

/// What the child confirms after each step: how far the journal is, what the build is, and the newest photo.
struct Confirmed {
    std::int64_t revision = 0;
    std::size_t build = 0; ///< hash of its JSON
    char photo[65] = {};
};

/// Of all but next_id: ids are never used twice, so that one stays ahead after an undo.
std::size_t stateOf(const Store& s) {
    Build b = s.build();
    b.next_id = 0;
    return std::hash<std::string>{}(*buildToJson(b));
}

Edit randomEdit(const Build& b, std::mt19937& rng) {
    const auto any = [&rng](const auto& table) { return std::next(table.begin(), static_cast<long>(rng() % table.size())); };
    const auto number = std::to_string(b.next_id);
    switch (rng() % 10) {
    case 0: {
        Settings s = b.settings;
        s.name = "build " + std::to_string(rng());
        return {"name it", {Set<Settings>{s}}};
    }
    case 1: {
        Stretch s = b.stretch;
        s.cut_station = Dimension{static_cast<double>(rng() % 3000), "cut", Provenance::Measured};
        return {"cut", {Set<Stretch>{s}}};
    }
    case 2:
        if (!b.readings.empty()) return {"remove a reading", {Drop<Reading>{any(b.readings)->first}}};
        [[fallthrough]];
    case 3:
    case 4: {
        if (b.points.size() < 2 || b.sessions.empty()) break;
        Reading r;
        r.id = ReadingId{b.next_id};
        r.session = b.sessions.begin()->first;
        r.from = any(b.points)->first;
        r.to = any(b.points)->first;
        if (r.from == r.to) break;
        r.value = {100.0 + rng() % 3000, "typed", Provenance::Measured};
        return {"a reading", {Put<Reading>{r}}};
    }
    case 5: {
        Tick t;
        t.id = TickId{b.next_id};
        t.step = "step-" + number;
        t.at_utc = "2026-01-01T00:00:00Z";
        return {"done " + t.step, {Put<Tick>{t}}};
    }
    default: break;
    }
    Point p;
    p.id = PointId{b.next_id};
    p.name = "P" + number;
    p.rough = Vec3{static_cast<double>(rng() % 4000), 0, 300};
    Edit edit{"mark " + p.name, {Put<Point>{p}}};
    if (b.sessions.empty()) {
        Session s;
        s.id = SessionId{b.next_id + 1};
        s.name = "first";
        edit.changes.push_back(Put<Session>{s});
    }
    return edit;
}

std::string csvOf(const Build& b, std::mt19937& rng) {
    std::string text = "kind,from,to,value,unit,sigma_mm,note\n";
    std::vector<std::string> names;
    for (const auto& [id, p] : b.points) names.push_back(p.name);
    for (int i = 0; i < 40; ++i) {
        const auto& from = names[rng() % names.size()];
        const auto& to = names[rng() % names.size()];
        if (from != to) text += "tape," + from + "," + to + "," + std::to_string(200 + rng() % 2000) + ",mm,,\n";
    }
    return text;
}

/// Never returns: works on until it is killed.
[[noreturn]] void work(const std::filesystem::path& path, std::uint32_t seed, int confirm_fd) {
    auto opened = Store::open(path);
    if (!opened || (*opened)->readOnly()) _exit(1);
    Store& s = **opened;
    std::mt19937 rng(seed);
    Confirmed confirmed;
    for (int step = 0;; ++step) {
        const auto kind = rng() % 20;
        if (kind < 3) {
            (void)s.undo(author);
        } else if (kind < 5) {
            (void)s.redo(author);
        } else if (kind == 5 && s.build().points.size() > 2) {
            auto read = formats::readReadings(csvOf(s.build(), rng), s.build(), the_chassis, {}, "import");
            if (read && !s.keep(read->edit, author)) _exit(2);
        } else if (kind == 6) {
            const auto photo = path.string() + ".photo" + std::to_string(rng() % 1000);
            std::ofstream(photo, std::ios::binary) << std::string(200'000 + rng() % 600'000, static_cast<char>('a' + rng() % 26));
            auto kept = s.keepBlob(photo);
            std::remove(photo.c_str());
            if (!kept) _exit(3);
            std::snprintf(confirmed.photo, sizeof confirmed.photo, "%s", kept->hash.c_str());
        } else if (!s.keep(randomEdit(s.build(), rng), author)) {
            _exit(4);
        }
        confirmed.revision = s.revision();
        confirmed.build = stateOf(s);
        if (write(confirm_fd, &confirmed, sizeof confirmed) != sizeof confirmed) _exit(5);
    }
}

std::string integrity(const std::filesystem::path& path) {
    sqlite3* db = nullptr;
    std::string answer;
    sqlite3_open_v2(path.c_str(), &db, SQLITE_OPEN_READONLY, nullptr);
    sqlite3_exec(
        db, "PRAGMA integrity_check",
        [](void* out, int, char** values, char**) {
            *static_cast<std::string*>(out) += values[0];
            return 0;
        },
        &answer, nullptr);
    sqlite3_close(db);
    return answer;
}

} // namespace

TEST_CASE("200 killed processes lose nothing that was confirmed", "[store][kill]") {
    constexpr int kills = 200;
    constexpr int kills_a_file = 20;
    const test::QuickFolder quick("store-kill"); // what a killed process wrote stays in the system's cache on any disk
    const auto& folder = quick.path;
    std::mt19937 rng(20261125);
    int in_flight = 0;
    std::int64_t confirmed_steps = 0;
    std::filesystem::path path;
    for (int round = 0; round < kills; ++round) {
        if (round % kills_a_file == 0) {
            path = folder / ("k" + std::to_string(round) + ".gorvet");
            REQUIRE(Store::create(path));
        }
        int ends[2];
        REQUIRE(pipe(ends) == 0);
        const auto seed = static_cast<std::uint32_t>(rng());
        const pid_t child = fork();
        REQUIRE(child >= 0);
        if (child == 0) {
            close(ends[0]);
            work(path, seed, ends[1]);
        }
        close(ends[1]);
        Confirmed last;
        Confirmed next;
        const unsigned wanted = 1 + rng() % 25;
        unsigned steps = 0;
        while (steps < wanted && read(ends[0], &next, sizeof next) == sizeof next) {
            last = next;
            ++steps;
        }
        usleep(static_cast<useconds_t>(rng() % 12'000)); // somewhere in the next step
        kill(child, SIGKILL);
        int status = 0;
        waitpid(child, &status, 0);
        REQUIRE(WIFSIGNALED(status));
        while (read(ends[0], &next, sizeof next) == sizeof next) { // what it confirmed before it died
            last = next;
            ++steps;
        }
        close(ends[0]);
        confirmed_steps += steps;

        auto again = Store::open(path);
        INFO("round " << round << ", seed " << seed);
        REQUIRE(again);
        Store& s = **again;
        REQUIRE_FALSE(s.readOnly()); // no stale lock
        REQUIRE(s.damage().empty());
        const bool one_more = s.revision() == last.revision + 1; // written, but not yet confirmed when it died
        if (one_more) {
            ++in_flight;
            // going back by that one line must lead to what was confirmed: the log tells which way back is
            const auto newest = s.log(1).front();
            if (newest.kind == store::LogEntry::Kind::Undo)
                REQUIRE(s.redo(author));
            else
                REQUIRE(s.undo(author));
            REQUIRE(stateOf(s) == last.build);
        } else {
            REQUIRE(s.revision() == last.revision);
            REQUIRE(stateOf(s) == last.build);
        }
        if (last.photo[0] != 0) {
            std::size_t bytes = 0;
            REQUIRE(s.readBlob(last.photo, [&](auto chunk) { bytes += chunk.size(); }));
            REQUIRE(bytes >= 200'000);
        }
        REQUIRE(s.keep({"after the kill", {Set<Settings>{s.build().settings}}}, author));
        again = Error{};
        REQUIRE(integrity(path) == "ok");
    }
    WARN(kills << " kills: " << confirmed_steps << " confirmed steps all there on reopening, " << in_flight
               << " times the step in flight had been written too, no stale lock, every file sound");
}

} // namespace store_kill_test
