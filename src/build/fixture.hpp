#pragma once

#include "build/survey.hpp"

/// A table or frame with a grid of holes on which a chassis or a shell is held, and the towers that hold it.
namespace gorvet::build {

struct Fixture;
struct FixtureTower;
using FixtureId = Id<Fixture>;
using FixtureTowerId = Id<FixtureTower>;

struct Fixture {
    FixtureId id;
    std::string name;                                    ///< unique; one word
    Dimension pitch{50, "", Provenance::Assumed};        ///< from hole to hole
    double along = 60;                                   ///< holes along it
    double across = 30;                                  ///< holes across it
    Dimension hole{16, "", Provenance::Assumed};         ///< diameter of its holes
    std::optional<Dimension> high;                       ///< of the datum over the table; none: the lowest tower is the shortest
    Attitude attitude = Attitude::RightWayUp;            ///< of what it holds
    Dimension tower_least{150, "", Provenance::Assumed}; ///< the shortest tower
    Dimension tower_step{50, "", Provenance::Assumed};   ///< from one to the next
    Dimension tower_most{800, "", Provenance::Assumed};  ///< the tallest
    Dimension packer{1, "", Provenance::Assumed};        ///< the thinnest
    Dimension reach{30, "", Provenance::Assumed};        ///< of a head from its hole, each way along and across
    Dimension foot{100, "", Provenance::Assumed};        ///< side of a tower's foot
    std::string note;
    bool operator==(const Fixture&) const = default;
};
template <> struct Schema<Fixture> {
    static constexpr TableInfo table{"fixture", "fixtures", 14, "a fixture table"};
    static constexpr auto& in(auto& build) { return build.fixtures; }
    static constexpr auto key = std::tuple{&Fixture::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            mm("pitch", &S::pitch, 10, 500).says("from hole to hole"),
            number("along", &S::along, Unit::None, 2, 400).says("holes along it"),
            number("across", &S::across, Unit::None, 2, 400).says("holes across it"),
            mm("hole", &S::hole, 4, 100).says("diameter of its holes"),
            mm("high", &S::high, -3000, 3000).chosen().says("of the datum over the table"),
            field("attitude", &S::attitude).says("of what it holds"),
            mm("tower_least", &S::tower_least, 10, 3000).says("the shortest tower"),
            mm("tower_step", &S::tower_step, 1, 1000),
            mm("tower_most", &S::tower_most, 10, 3000).says("the tallest tower"),
            mm("packer", &S::packer, 0.1, 20).says("the thinnest"),
            mm("reach", &S::reach, 0, 500).says("of a head from its hole, each way along and across"),
            mm("foot", &S::foot, 20, 500).says("side of a tower's foot"),
            field("note", &S::note),
        };
    }
};

/// One tower, under one point.
struct FixtureTower {
    FixtureTowerId id;
    FixtureId fixture;
    PointId point;
    TowerDoes does = TowerDoes::Rest;
    std::optional<Dimension> below; ///< its head under the point; none: under the rail, where the point lies on one
    Vec3 pull;                      ///< by which the point is drawn to where the tower's stop is
    std::string note;
    bool operator==(const FixtureTower&) const = default;
};
template <> struct Schema<FixtureTower> {
    static constexpr TableInfo table{"fixture-tower", "fixture_towers", 14, "a tower of a fixture"};
    static constexpr auto& in(auto& build) { return build.fixture_towers; }
    static constexpr auto key = std::tuple{&FixtureTower::fixture, &FixtureTower::point};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("fixture", &S::fixture).needed(),
            field("point", &S::point).needed(),
            field("does", &S::does),
            mm("below", &S::below, -500, 1000).says("its head under the point"),
            field("pull", &S::pull).says("by which the point is drawn to where the tower's stop is"),
            field("note", &S::note),
        };
    }
};

} // namespace gorvet::build
