#include "build/edit.hpp"

#include "build/valid.hpp"

#include <algorithm>

namespace gorvet::build {
namespace {

Checked unused(const Build& b, PointId id) {
    const std::string name = nameOf(b, id);
    const auto used = [&](const char* by) { return bad(name, fmt::format("{} is used by {}.", name, by), "Remove that first."); };
    for (const auto& [key, r] : b.readings)
        if (r.from == id || r.to == id) return used("a reading");
    for (const auto& [key, h] : b.holds)
        if (h.point == id) return used("the datum");
    for (const auto& [key, p] : b.pins)
        for (const auto* list : {&p.points, &p.to})
            if (std::find(list->begin(), list->end(), id) != list->end()) return used("a pin");
    for (const auto& [key, m] : b.mounts)
        if (m.body_point == id) return used("a body mount");
    if (b.crossmember && b.crossmember->gearbox_mount == id) return used("the crossmember");
    for (const auto& [key, c] : b.checks)
        if (c.from == id || c.to == id) return used("a check at a hold point");
    for (const auto& [key, d] : b.datum)
        if (std::find(d.points.begin(), d.points.end(), id) != d.points.end()) return used("the datum");
    for (const auto& [key, d] : b.drawing)
        if (d.point == id) return used("the drawing's figures");
    for (const auto& [key, f] : b.flaws)
        if (f.point == id) return used("something found there");
    for (const auto& [key, a] : b.answers)
        if (a.from == id || a.to == id) return used("an answer");
    return {};
}
Checked unused(const Build& b, SessionId id) {
    for (const auto& [key, r] : b.readings)
        if (r.session == id) return bad(b.sessions.at(id).name, "The session has readings.", "Remove them first.");
    return {};
}
Checked unused(const Build& b, SetUpId id) {
    for (const auto& [key, r] : b.readings)
        if (r.setup == id) return bad(b.setups.at(id).name, "Readings were read from this set-up.", "Remove them first.");
    return {};
}
Checked unused(const Build& b, TemporarySteelId id) {
    for (const auto& [key, c] : b.checks)
        if (c.gap_of == id)
            return bad(b.temporary_steel.at(id).name, "Its gap was checked at a hold point.", "Undo those checks first.");
    return {};
}
Checked unused(const Build& b, InstrumentId id) {
    for (const auto& [key, r] : b.readings)
        if (r.instrument == id) return bad(b.instruments.at(id).name, "Readings were taken with it.", "Remove them first.");
    return {};
}
Checked unused(const Build& b, ObstacleId id) {
    for (const auto& [key, p] : b.pins)
        if (p.box == id) return bad(b.obstacles.at(id).name, "A pin keeps clear of it.", "Remove the pin first.");
    return {};
}
Checked unused(const Build& b, ScanId id) {
    for (const auto& [key, s] : b.swings)
        if (s.scan == id)
            return bad(b.scans.at(id).name, "It swings.",
                       fmt::format("Remove that first: remove swing {}.", b.scans.at(id).name));
    return {};
}
template <class T> Checked unused(const Build&, Id<T>) { return {}; }

template <class T> T& part(Build& b) {
    if constexpr (std::is_same_v<T, Settings>)
        return b.settings;
    else if constexpr (std::is_same_v<T, RailSection>)
        return b.rail;
    else if constexpr (std::is_same_v<T, AxleGround>)
        return b.axles;
    else if constexpr (std::is_same_v<T, Stretch>)
        return b.stretch;
    else if constexpr (std::is_same_v<T, MountDesign>)
        return b.mount_design;
    else if constexpr (std::is_same_v<T, WorkFacts>)
        return b.work;
    else if constexpr (std::is_same_v<T, Rates>)
        return b.rates;
    else if constexpr (std::is_same_v<T, Practice>)
        return b.practice;
    else if constexpr (std::is_same_v<T, ClearanceRules>)
        return b.clearances;
    else if constexpr (std::is_same_v<T, WheelTravel>)
        return b.travel;
    else if constexpr (std::is_same_v<T, School>)
        return b.school;
    else if constexpr (std::is_same_v<T, Lowering>)
        return b.lowering;
    else
        return b.crossmember;
}

struct Applier {
    Build& b;

    template <class T> Result<Change> operator()(const Set<T>& change) {
        if (auto ok = valid(b, change.value); !ok) return ok.error();
        Set<T> inverse{part<T>(b)};
        part<T>(b) = change.value;
        return Change{std::move(inverse)};
    }
    template <class T> Result<Change> operator()(const Put<T>& change) {
        if (!change.value.id) return bad("id", "The change has no id.");
        if (auto ok = valid(b, change.value); !ok) return ok.error();
        auto& rows = table<T>(b);
        const auto old = rows.find(change.value.id);
        b.next_id = std::max(b.next_id, change.value.id.value + 1);
        if (old == rows.end()) {
            rows.emplace(change.value.id, change.value);
            return Change{Drop<T>{change.value.id}};
        }
        Put<T> inverse{old->second};
        old->second = change.value;
        return Change{std::move(inverse)};
    }
    template <class T> Result<Change> operator()(const Drop<T>& change) {
        auto& rows = table<T>(b);
        const auto old = rows.find(change.id);
        if (old == rows.end()) return Error{Error::Code::NotFound, "id", "What should be removed does not exist.", "", -1};
        if (auto ok = unused(b, change.id); !ok) return ok.error();
        Put<T> inverse{old->second};
        rows.erase(old);
        return Change{std::move(inverse)};
    }
};

} // namespace

Result<Change> enact(Build& b, const Change& change) { return std::visit(Applier{b}, change); }

Result<Edit> enact(Build& b, const Edit& edit) {
    Edit inverse{edit.sentence, {}};
    for (const Change& change : edit.changes) {
        auto undone = enact(b, change);
        if (!undone) {
            for (auto back = inverse.changes.rbegin(); back != inverse.changes.rend(); ++back)
                if (auto again = enact(b, *back); !again) return again.error();
            return undone.error();
        }
        inverse.changes.push_back(std::move(*undone));
    }
    std::reverse(inverse.changes.begin(), inverse.changes.end());
    return inverse;
}

} // namespace gorvet::build
