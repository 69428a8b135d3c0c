// The build as it stood at the end of a day.
#include "store/store.hpp"
#include "support/support.hpp"
#include "units/dates.hpp"

#include <catch2/catch.hpp>

#include <cstdlib>

namespace store_since_test {

using namespace gorvet;
using namespace gorvet::build;
using store::Store;

namespace {

/// Another day, while it lives.
struct OnDay {
    std::string before = std::getenv("GORVET_TODAY") ? std::getenv("GORVET_TODAY") : "";
    explicit OnDay(const char* day) { setenv("GORVET_TODAY", day, 1); }
    ~OnDay() { before.empty() ? unsetenv("GORVET_TODAY") : setenv("GORVET_TODAY", before.c_str(), 1); }
};
const store::Author author{"M.", ""};

void job(Store& s, const char* name) {
    Job j;
    j.id = JobId{s.build().next_id};
    j.name = name;
    REQUIRE(s.keep(Edit{name, {Put<Job>{j}}}, author));
}

} // namespace

TEST_CASE("what was kept later is taken back, undone steps and all", "[store][since]") {
    const test::QuickFolder quick("since");
    auto made = Store::create(quick.path / "b.gorvet");
    REQUIRE(made);
    Store& s = **made;
    {
        const OnDay day("2026-11-10");
        job(s, "first");
    }
    Build then;
    {
        const OnDay day("2026-11-20");
        job(s, "second");
        then = s.build();
    }
    {
        const OnDay day("2026-11-28");
        job(s, "third");
        REQUIRE(s.undo(author)); // the third
        REQUIRE(s.undo(author)); // the second
        job(s, "fourth");
    }
    const auto jobsThen = [&](const char* day) {
        const auto since = s.since(*units::dayOf(day));
        REQUIRE(since);
        std::string names;
        for (const auto& [id, j] : since->then.jobs) names += j.name + " ";
        return names;
    };
    CHECK(jobsThen("2026-11-30") == "first fourth ");
    CHECK(jobsThen("2026-11-27") == "first second ");
    CHECK(jobsThen("2026-11-19") == "first ");
    const auto early = s.since(*units::dayOf("2026-01-01")); // before its first day: at the end of that
    REQUIRE(early);
    CHECK(early->day == *units::dayOf("2026-11-10"));
    CHECK(early->then.jobs.size() == 1);
    const auto since = s.since(*units::dayOf("2026-11-20"));
    REQUIRE(since);
    CHECK(since->then.jobs == then.jobs);
    CHECK(since->lines == 4);
    CHECK(s.build().jobs.size() == 2); // nothing of it is changed
}

} // namespace store_since_test
