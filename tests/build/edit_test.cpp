#include "build/edit.hpp"

#include <catch2/catch.hpp>
#include <rapidcheck.h>

namespace build_edit_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

Point point(std::uint32_t id, const std::string& name, SubjectId subject = the_chassis) {
    Point p;
    p.id = PointId{id};
    p.subject = subject;
    p.name = name;
    return p;
}

Build small() {
    Build b;
    Session s;
    s.id = SessionId{1};
    s.name = "monday";
    REQUIRE(enact(b, Change{Put<Session>{s}}));
    REQUIRE(enact(b, Change{Put<Point>{point(2, "A")}}));
    REQUIRE(enact(b, Change{Put<Point>{point(3, "B")}}));
    return b;
}

Reading tapeReading(std::uint32_t id, std::uint32_t from, std::uint32_t to, double value) {
    Reading r;
    r.id = ReadingId{id};
    r.session = SessionId{1};
    r.from = PointId{from};
    r.to = PointId{to};
    r.value = {value, "typed", Provenance::Measured};
    return r;
}

/// An arbitrary change, sensible or not.
rc::Gen<Change> anyChange() {
    return rc::gen::mapcat(rc::gen::inRange(0, 9), [](int kind) -> rc::Gen<Change> {
        const auto id = rc::gen::inRange<std::uint32_t>(1, 12);
        switch (kind) {
        case 0:
            return rc::gen::map(rc::gen::pair(id, rc::gen::inRange(0, 8)), [](auto v) {
                return Change{Put<Point>{point(v.first, std::string(1, static_cast<char>('A' + v.second)))}};
            });
        case 1: return rc::gen::map(id, [](auto v) { return Change{Drop<Point>{PointId{v}}}; });
        case 2:
            return rc::gen::map(rc::gen::tuple(id, id, id, rc::gen::inRange(-5, 3000)), [](auto v) {
                return Change{Put<Reading>{tapeReading(std::get<0>(v), std::get<1>(v), std::get<2>(v), std::get<3>(v))}};
            });
        case 3: return rc::gen::map(id, [](auto v) { return Change{Drop<Reading>{ReadingId{v}}}; });
        case 4:
            return rc::gen::map(rc::gen::tuple(id, id, rc::gen::inRange(0, 3)), [](auto v) {
                return Change{Put<Hold>{{HoldId{std::get<0>(v)},
                                         PointId{std::get<1>(v)},
                                         static_cast<Axis>(std::get<2>(v)),
                                         {1, "1", Provenance::Measured}}}};
            });
        case 5: return rc::gen::map(id, [](auto v) { return Change{Drop<Hold>{HoldId{v}}}; });
        case 6:
            return rc::gen::map(rc::gen::inRange(-100, 700), [](int v) {
                RailSection r;
                r.height = {static_cast<double>(v), std::to_string(v), Provenance::Assumed};
                r.width = r.height;
                return Change{Set<RailSection>{r}};
            });
        case 7:
            return rc::gen::map(id, [](auto v) {
                Session s;
                s.id = SessionId{v};
                s.name = "s";
                return Change{Put<Session>{s}};
            });
        default: return rc::gen::map(id, [](auto v) { return Change{Drop<Session>{SessionId{v}}}; });
        }
    });
}

} // namespace

TEST_CASE("every edit has an inverse, and a refused one changes nothing", "[build][property]") {
    CHECK(rc::check("enact, then the inverse, gives the build back", [] {
        Build b = small();
        const auto edits =
            *rc::gen::container<std::vector<std::vector<Change>>>(12, rc::gen::container<std::vector<Change>>(3, anyChange()));
        for (const auto& changes : edits) {
            const Build before = b;
            auto inverse = enact(b, Edit{"step", changes});
            if (!inverse) {
                // ids may have been looked at, nothing else may differ
                RC_ASSERT(b.points == before.points && b.readings == before.readings && b.holds == before.holds &&
                          b.sessions == before.sessions && b.rail == before.rail);
                continue;
            }
            Build undone = b;
            auto again = enact(undone, *inverse);
            RC_ASSERT(static_cast<bool>(again));
            undone.next_id = before.next_id; // grows only
            RC_ASSERT(undone == before);
            RC_ASSERT(static_cast<bool>(enact(undone, *again)));
            undone.next_id = b.next_id;
            RC_ASSERT(undone == b);
        }
    }));
}

TEST_CASE("changes and builds survive JSON", "[build][property]") {
    CHECK(rc::check("changes", [] {
        const auto changes = *rc::gen::container<std::vector<Change>>(6, anyChange());
        const auto back = changesFromJson(*changesToJson(changes));
        RC_ASSERT(static_cast<bool>(back));
        RC_ASSERT(*back == changes);
    }));
    Build b = small();
    Crossmember c;
    c.gearbox_mount = PointId{2};
    c.isolator = {1.0 / 3, "a third", Provenance::Measured};
    REQUIRE(enact(b, Change{Set<std::optional<Crossmember>>{c}}));
    Stretch s;
    s.cut_station = Dimension{1250.1, "1250.1", Provenance::Assumed};
    REQUIRE(enact(b, Change{Set<Stretch>{s}}));
    REQUIRE(enact(b, Change{Put<Reading>{tapeReading(9, 2, 3, 812.35)}}));
    const auto back = buildFromJson(*buildToJson(b));
    REQUIRE(back);
    CHECK(*back == b);
    CHECK_FALSE(changesFromJson("[{\"put\":\"unicorn\",\"value\":{}}]"));
    CHECK_FALSE(changesFromJson("[{"));
    CHECK_FALSE(buildFromJson("{}"));
}

TEST_CASE("what would break a reference is refused and says why", "[build]") {
    Build b = small();
    REQUIRE(enact(b, Change{Put<Reading>{tapeReading(4, 2, 3, 100)}}));
    const auto refused = [&b](Change change) {
        const Build before = b;
        const auto done = enact(b, change);
        REQUIRE_FALSE(done);
        CHECK(b == before);
        return done.error().text();
    };
    CHECK(refused(Drop<Point>{PointId{2}}) == "A is used by a reading. Remove that first.");
    CHECK(refused(Put<Point>{point(7, "A")}) == "There is already a point A on the chassis. Choose another name.");
    CHECK(refused(Put<Point>{point(7, "two words")}).find("one word") != std::string::npos);
    CHECK(refused(Put<Reading>{tapeReading(8, 2, 2, 100)}).find("two different points") != std::string::npos);
    CHECK(refused(Put<Reading>{tapeReading(8, 2, 3, -1)}).find("above 0") != std::string::npos);
    CHECK(refused(Put<Reading>{tapeReading(8, 2, 77, 10)}).find("does not exist") != std::string::npos);
    RailSection r;
    r.height = r.width = {50, "50", Provenance::Measured};
    r.thickness = {25, "25", Provenance::Measured};
    CHECK(refused(Set<RailSection>{r}).find("thicker than the rail") != std::string::npos);
    MountDesign m;
    m.bolt = {11, "11", Provenance::Measured};
    CHECK(refused(Set<MountDesign>{m}) == "bolt = 11: must be 8, 10, 12, 14 or 16 mm.");
    // the same name may stand on the other subject
    CHECK(enact(b, Change{Put<Point>{point(7, "A", the_body)}}));
}

TEST_CASE("sides are read from names", "[build]") {
    CHECK(sideOf("Al") == Side::Left);
    CHECK(sideOf("hub_R") == Side::Right);
    CHECK(sideOf("G") == Side::None);
    CHECK(sideOf("r") == Side::None); // a single letter is a name, not a side
    CHECK(twinName("SFl") == "SFr");
    CHECK(twinName("hub_R") == "hub_L");
    CHECK(twinName("N").empty());
}

} // namespace build_edit_test
