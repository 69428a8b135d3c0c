// An entry is weighed before it is kept, and what is not known is said to be unknown, with what may have been meant.
#include "entry/nearest.hpp"
#include "prompt/context.hpp"
#include "prompt/weigh.hpp"

#include <algorithm>
#include <catch2/catch.hpp>
#include <random>

namespace entry_weigh_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

/// A frame of five pairs, taped all over, as it stands.
struct Taped {
    Build b;
    analysis::Results r;
    std::vector<std::string> names;
    std::vector<Vec3> places;

    Taped() {
        std::mt19937 rng(5);
        std::normal_distribution<double> slip(0, 1);
        for (int i = 0; i < 5; ++i)
            for (const int side : {-1, 1}) {
                names.push_back(std::string(1, static_cast<char>('A' + i)) + (side < 0 ? "l" : "r"));
                places.push_back({700.0 * i, 380.0 * side, 350 + 40.0 * (i % 3)});
                type(fmt::format("point {} rail {} {} {}", names.back(), 700 * i, 380 * side, 350));
            }
        type("datum centred Al Ar El Er");
        for (size_t i = 0; i < names.size(); ++i) {
            type(fmt::format("height {} {:.1f}", names[i], places[i].z_mm + slip(rng)));
            for (size_t j = i + 1; j < std::min(names.size(), i + 6); ++j)
                type(fmt::format("{} {} {:.1f}", names[i], names[j], geometry::between(places[i], places[j]) + slip(rng)));
        }
        r = analysis::analyse(b, 1);
        REQUIRE(r.of(the_chassis).solution->status == tape::Status::Solved);
    }
    void type(const std::string& line) {
        INFO(line);
        const auto read = entry::understand(b, {the_chassis, {}, {}}, line);
        if (!read) FAIL(read.error().text());
        REQUIRE(enact(b, read->edit));
    }
    std::string doubt(const std::string& line) const {
        INFO(line);
        const auto read = entry::understand(b, {the_chassis, {}, {}}, line);
        REQUIRE(read);
        return prompt::doubtOf(b, r, *read);
    }
    std::string complaint(const std::string& line) const {
        const auto read = entry::understand(b, {the_chassis, {}, {}}, line);
        REQUIRE_FALSE(read);
        return read.error().text();
    }
};

} // namespace

TEST_CASE("a slip is asked about, and what a bent frame may give is not", "[entry][weigh]") {
    const Taped t;
    std::mt19937 rng(9);
    int asked = 0, slips = 0;
    for (size_t i = 0; i < t.names.size(); ++i)
        for (size_t j = i + 1; j < t.names.size(); ++j) {
            const double truth = geometry::between(t.places[i], t.places[j]);
            const auto line = [&](double value) { return fmt::format("{} {} {:.1f}", t.names[i], t.names[j], value); };
            // as read, and read on a frame that is out by far more than a builder accepts
            for (const double off : {0.0, 2.0, -12.0, 60.0, -90.0}) CHECK(t.doubt(line(truth + off)).empty());
            // ten times, a figure lost, in inches, a hundred mm misread, the figures swapped about
            for (const double wrong : {truth * 10, truth / 10, truth / 25.4, truth + 250 + truth * 0.05, truth * 0.55}) {
                ++slips;
                asked += !t.doubt(line(wrong)).empty();
            }
        }
    CHECK(asked == slips);
    CHECK(t.doubt("Al Br 9000").find("expected there") != std::string::npos);
    CHECK(t.doubt("height Cl 43").find("about 4") == 0); // a figure of 430 lost
    CHECK(t.doubt("height Cl 431").empty());
    // what is expected of a point that is badly known counts for as little as its ±
    Taped loose = t;
    loose.type("point W 1400 200 400");
    loose.type("coordinates W 1400 200 400 sigma 150");
    loose.r = analysis::analyse(loose.b, 2);
    const double there = geometry::between(t.places[0], {1400, 200, 400});
    CHECK(loose.doubt(fmt::format("Al W {:.1f}", there + 300)).empty());
    CHECK_FALSE(t.doubt(fmt::format("Al Br {:.1f}", geometry::between(t.places[0], t.places[3]) + 300)).empty());
    CHECK_FALSE(loose.doubt(fmt::format("Al W {:.1f}", there + 1500)).empty());
    // of a point that nothing fixes yet only the rough place tells
    Taped more = t;
    more.type("point Q 1000 100 400");
    more.r = analysis::analyse(more.b, 2);
    CHECK(more.doubt("Al Q 1050").empty());
    CHECK(more.doubt("Al Q 11100").find("would fit") != std::string::npos);
}

TEST_CASE("a word that is not known is said to be, with what may have been meant", "[entry][weigh]") {
    CHECK(entry::slipsBetween("", "abc") == 3);
    CHECK(entry::slipsBetween("kitten", "sitting") == 3);
    CHECK(entry::slipsBetween("hieght", "height") == 1); // two letters in the wrong order
    CHECK(entry::slipsBetween("AL", "al") == 0);
    CHECK(entry::nearest("xyz", {"height", "point"}).empty());
    CHECK(entry::nearest("heigth", {"weight", "height", "heights", "point"}).front() == "height");
    CHECK(entry::nearest("Kick", {"Kickl", "Kickr", "pick", "Al"}) == std::vector<std::string>{"Kickl", "Kickr", "pick"});

    Taped t;
    t.type("point Kickl 900 -380 350");
    CHECK_THAT(t.complaint("poitn Q 1 2 3"), Catch::Contains("poitn is no command, and no point of the chassis"));
    CHECK_THAT(t.complaint("poitn Q 1 2 3"), Catch::Contains("Did you mean point"));
    CHECK_THAT(t.complaint("Kikl Al 900"), Catch::Contains("Did you mean Kickl"));
    CHECK_THAT(t.complaint("height Kikl 900"), Catch::Contains("There is no point Kikl on the chassis. Did you mean Kickl?"));
    CHECK_THAT(t.complaint("Zz Al 900"), !Catch::Contains("Did you mean"));
}

} // namespace entry_weigh_test
