// What hangs on a row goes with it, once and in an order that can be made; names are changed with all that goes by them.
#include "build/gate.hpp"
#include "build/removal.hpp"
#include "entry/entry.hpp"
#include "store/store.hpp"
#include "support/support.hpp"
#include "units/text.hpp"

#include <catch2/catch.hpp>

namespace build_removal_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

Build demo() {
    static const Build built = [] {
        const auto path = test::demoBuild(test::freshFolder("removal"));
        const auto opened = store::Store::open(path, store::Access::Read);
        REQUIRE(opened);
        return (*opened)->build();
    }();
    return built;
}

entry::Understood typed(const Build& b, const char* line, SubjectId subject = the_chassis) {
    entry::Context context;
    context.subject = subject;
    context.who = "test";
    const auto understood = entry::understand(b, context, line);
    INFO(line << ": " << (understood ? "" : understood.error().text()));
    REQUIRE(understood);
    return *understood;
}

Build after(Build b, const Edit& edit) {
    const auto done = enact(b, edit);
    INFO((done ? "" : done.error().text()));
    REQUIRE(done);
    return b;
}

} // namespace

TEST_CASE("every row of the demo can go with all that hangs on it, and comes back whole", "[removal]") {
    const Build b = demo();
    std::size_t removed = 0;
    std::size_t refused = 0;
    eachOfDocument([&]<class T>() {
        if constexpr (is_row<T>) {
            for (const auto& [id, row] : table<T>(b)) {
                const auto removal = withAllThatHangs(b, {"remove", {Drop<T>{id}}});
                if (!removal) {
                    // body and chassis stay, whatever hangs on them
                    INFO(removal.error().text());
                    CHECK(std::is_same_v<T, Subject>);
                    ++refused;
                    continue;
                }
                ++removed;
                Build less = b;
                const auto inverse = enact(less, removal->edit);
                REQUIRE(inverse);
                CHECK_FALSE(table<T>(less).contains(id));
                CHECK(consistent(less));
                REQUIRE(enact(less, *inverse));
                less.next_id = b.next_id;
                CHECK(less == b);
                // it says that something goes along just when the drop alone would be refused
                CHECK(inWords(*removal).empty() == static_cast<bool>(wouldEnact(b, Drop<T>{id})));
            }
        }
    });
    CHECK(removed > 200);
    CHECK(refused == 2);
}

TEST_CASE("a point that is removed takes its readings, its mount and its pin along, and says so first", "[removal][entry]") {
    const Build b = demo();
    const Point* p = pointNamed(b, the_body, "M1l");
    REQUIRE(p);
    const auto understood = typed(b, "remove M1l", the_body);
    CHECK_THAT(understood.doubt,
               Catch::Contains("With it goes what hangs on it") && Catch::Contains("reading") && Catch::Contains("1 body mount"));
    const Build less = after(b, understood.edit);
    CHECK_FALSE(pointNamed(less, the_body, "M1l"));
    for (const auto& [id, r] : less.readings) CHECK((r.from != p->id && r.to != p->id));
    for (const auto& [id, m] : less.mounts) CHECK(m.body_point != p->id);
    // what nothing hangs on goes without a question
    const Build one = after(b, typed(b, "point Zz 0 0 0").edit);
    CHECK(typed(one, "remove Zz").doubt.empty());
}

TEST_CASE("readings outlive the instrument they were taken with", "[removal][entry]") {
    Build b;
    for (const char* line :
         {"point Al rail 0 -400 300", "point Bl rail 900 -400 300", "instrument big tape sigma 0.8", "Al Bl 900 with big"})
        b = after(b, typed(b, line).edit);
    const auto understood = typed(b, "remove instrument big");
    CHECK_THAT(understood.doubt, Catch::Contains("1 reading then counts as read with an instrument of which nothing is known"));
    const Build less = after(b, understood.edit);
    REQUIRE(less.readings.size() == 1);
    CHECK_FALSE(less.readings.begin()->second.instrument);
    CHECK(less.instruments.empty());
}

TEST_CASE("names are changed, and what goes by them follows", "[rename][entry]") {
    Build b;
    for (const char* line :
         {"session monday right-way-up stands", "point Al rail 0 -400 300", "point Ar rail 0 400 300", "Al Ar 800",
          "want point Al", "setup floor plane", "zone plate never 0 100 0 100 0 100", "lower channel 40 floor plate"}) {
        entry::Context context;
        const auto understood = entry::understand(b, context, line);
        if (understood) b = after(b, understood->edit); // how a floor is named is another test's
    }
    const auto renamed = typed(b, "rename Al Front");
    CHECK_THAT(renamed.remark, Catch::Contains("no longer the other side of Ar"));
    b = after(b, renamed.edit);
    CHECK(pointNamed(b, the_chassis, "Front"));
    CHECK_FALSE(pointNamed(b, the_chassis, "Al"));
    CHECK(b.settings.want == "point Front");
    CHECK(nameOf(b, b.readings.begin()->second.from) == "Front");
    CHECK(typed(b, "rename Front Al").remark.empty());
    b = after(b, typed(b, "rename session monday tuesday").edit);
    CHECK(b.sessions.begin()->second.name == "tuesday");
    b = after(b, typed(b, "rename setup floor slab").edit);
    CHECK(setupNamed(b, the_chassis, "slab"));
    Lowering l = b.lowering;
    l.floor = "plate";
    PlannedCut cut;
    cut.id = PlannedCutId{b.next_id};
    cut.name = "cut-1";
    cut.line = {{0, 0, 0}, {1, 0, 0}, {1, 1, 0}};
    cut.crosses = "hump, plate,plates";
    b = after(b, {"", {Set<Lowering>{l}, Put<PlannedCut>{cut}}});
    b = after(b, typed(b, "rename zone plate floor-1").edit);
    CHECK(b.lowering.floor == "floor-1");
    CHECK(b.planned_cuts.begin()->second.crosses == "hump, floor-1,plates");
    // a name that is taken, one that is none, one that is not there
    entry::Context context;
    for (const char* line :
         {"rename Front Ar", "rename Front", "rename Nobody Al", "rename session monday x", "rename subject body shell"}) {
        INFO(line);
        CHECK_FALSE(entry::understand(b, context, line));
    }
}

TEST_CASE("a noun has the form of its number", "[units]") {
    CHECK(units::counted(1, "a reading") == "1 reading");
    CHECK(units::counted(2, "a reading") == "2 readings");
    CHECK(units::counted(0, "a reading") == "no readings");
    CHECK(units::counted(3, "a box") == "3 boxes");
    CHECK(units::counted(2, "an assembly") == "2 assemblies");
    CHECK(units::counted(2, "a way") == "2 ways");
    CHECK(units::counted(2, "a check at a hold point") == "2 checks at a hold point");
    CHECK(units::counted(5, "the datum") == "the datum");
}

} // namespace build_removal_test
