// What is planned of new steel: parts, the fixture that holds the frame.
#include "build/rules_points.hpp"

#include <fmt/format.h>

namespace gorvet::build {

Checked rules(const Build& b, const SteelPart& p) {
    if (auto ok = inTheCar(b, p.name, p.at); !ok) return ok;
    if (twice(p.at)) return bad(p.name, "It joins a point twice.");
    if (!p.pinned.empty() && p.pinned.size() != p.at.size())
        return bad(p.name,
                   fmt::format("{} and {}: each of its points is pinned, or none.", units::counted(p.at.size(), "a point"),
                               units::counted(p.pinned.size(), "a pinned place")));
    for (const auto* list : {&p.figures, &p.made})
        for (std::size_t k = 0; k < list->size(); ++k)
            for (std::size_t j = 0; j < k; ++j)
                if ((*list)[k].name == (*list)[j].name)
                    return bad(p.name, fmt::format("{} is said of it twice.", (*list)[k].name));
    return {};
}

Checked rules(const Build&, const Fixture& f) {
    if (f.hole.value >= f.pitch.value)
        return bad(f.name, fmt::format("Holes of {:g} mm every {:g} run into each other.", f.hole.value, f.pitch.value),
                   "The pitch is from the middle of a hole to the middle of the next.");
    if (f.tower_most.value < f.tower_least.value)
        return bad(f.name,
                   fmt::format("Its tallest tower, {:g} mm, is shorter than its shortest, {:g}.", f.tower_most.value,
                               f.tower_least.value),
                   "Like: towers 150 50 800: the shortest, the step, the tallest.");
    for (const auto& [holes, which] : {std::pair{f.along, "along"}, {f.across, "across"}})
        if (holes != static_cast<double>(static_cast<int>(holes)))
            return bad(f.name, fmt::format("It has {:g} holes {} it: holes are counted whole.", holes, which));
    return {};
}

Checked rules(const Build& b, const FixtureTower& t) {
    const Fixture& f = b.fixtures.at(t.fixture);
    const SubjectId subject = b.points.at(t.point).subject;
    for (const auto& [id, other] : b.fixture_towers)
        if (other.fixture == t.fixture && id != t.id && b.points.at(other.point).subject != subject)
            return bad(nameOf(b, t.point),
                       fmt::format("{} is of the {}, and {} on {} of the {}: one fixture holds one of them.", nameOf(b, t.point),
                                   nameOf(b, subject), nameOf(b, other.point), f.name,
                                   nameOf(b, b.points.at(other.point).subject)),
                       "Give the other a fixture of its own.");
    constexpr double most_mm = 200;
    if (geometry::length(t.pull) > most_mm)
        return bad(nameOf(b, t.point), fmt::format("A pull of {:.0f} mm makes another frame of it.", geometry::length(t.pull)),
                   "Pulls are said in mm: along, across, up.");
    return {};
}

} // namespace gorvet::build
