#include "build/edit.hpp"

#include "build/gate.hpp"
#include "build/valid.hpp"

#include <algorithm>
#include <set>

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

/// What must hold before a row is put.
template <class T> Checked mayPut(const Build& b, const T& value) {
    if (!value.id || value.id.value > most_id) return bad("id", "The change has no id that a row can have.");
    if (auto ok = valid(b, value); !ok) return ok;
    const auto& rows = table<T>(b);
    const auto old = rows.find(value.id);
    if (old == rows.end() && rows.size() >= most_rows)
        return bad("build", fmt::format("A build holds {} rows of a kind at most.", most_rows), "Begin another build.");
    if constexpr (std::is_same_v<T, Point> || std::is_same_v<T, Session> || std::is_same_v<T, SetUp> ||
                  std::is_same_v<T, Obstacle>)
        if (old != rows.end() && old->second.subject != value.subject)
            return bad(value.name, fmt::format("{} stays with its subject.", value.name), "Make a new one of the other.");
    return {};
}
template <class T> Checked mayDrop(const Build& b, Id<T> id) {
    if (!table<T>(b).contains(id)) return Error{Error::Code::NotFound, "id", "What should be removed does not exist.", "", -1};
    return unused(b, id);
}

struct Looker {
    const Build& b;
    template <class T> Checked operator()(const Set<T>& change) { return valid(b, change.value); }
    template <class T> Checked operator()(const Put<T>& change) { return mayPut(b, change.value); }
    template <class T> Checked operator()(const Drop<T>& change) { return mayDrop(b, change.id); }
};

struct Applier {
    Build& b;

    template <class T> Result<Change> operator()(const Set<T>& change) {
        if (auto ok = valid(b, change.value); !ok) return ok.error();
        Set<T> inverse{part<T>(b)};
        part<T>(b) = change.value;
        return Change{std::move(inverse)};
    }
    template <class T> Result<Change> operator()(const Put<T>& change) {
        if (auto ok = mayPut(b, change.value); !ok) return ok.error();
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
        if (auto ok = mayDrop(b, change.id); !ok) return ok.error();
        auto& rows = table<T>(b);
        const auto old = rows.find(change.id);
        Put<T> inverse{std::move(old->second)};
        rows.erase(old);
        return Change{std::move(inverse)};
    }
};

} // namespace

Result<Change> enact(Build& b, const Change& change) { return std::visit(Applier{b}, change); }

Result<void> wouldEnact(const Build& b, const Change& change) { return std::visit(Looker{b}, change); }

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

namespace {

template <class T> Checked consistentTable(const Build& b) {
    for (const auto& [id, row] : table<T>(b)) {
        if (!id || id.value >= b.next_id || id.value > most_id) return bad("id", "A row has an id that was never given.");
        if (auto ok = valid(b, row); !ok) return ok;
    }
    return {};
}
template <class... T> Checked consistentTables(const Build& b) {
    return firstOf([&] { return consistentTable<T>(b); }...);
}
template <class... T> Checked consistentParts(const Build& b) {
    return firstOf([&] { return valid(b, part<T>(const_cast<Build&>(b))); }...);
}

/// Points by their own rules, their names looked for all at once.
Checked consistentPoints(const Build& b) {
    std::set<std::pair<Subject, std::string_view>> names;
    for (const auto& [id, p] : b.points) {
        if (!id || id.value >= b.next_id || id.value > most_id) return bad("id", "A row has an id that was never given.");
        if (auto ok = validAlone(p); !ok) return ok;
        if (!names.emplace(p.subject, p.name).second) return bad(p.name, "Two points have one name.");
    }
    return {};
}

} // namespace

Result<void> consistent(const Build& given) {
    Build b = given;
    b.practice.on = true; // what was answered stays when the practice is over
    b.practice.marked = false;
    Checked ok = consistentPoints(b);
    if (ok)
        ok = consistentTables<Session, Reading, Hold, Pin, Mount, Crossing, TemporarySteel, Tick, Check, SetUp, Gap,
                              WheelReadings, ToeReadings, Instrument, Obstacle, DatumRule, DrawingFigure, Flaw, Answer, Scan,
                              Zone, Seating, PairRule, Swing, PlannedCut>(b);
    if (ok)
        ok = consistentParts<Settings, RailSection, AxleGround, Stretch, MountDesign, std::optional<Crossmember>, WorkFacts,
                             Rates, ClearanceRules, WheelTravel, School, Lowering>(b);
    if (!ok) return Error{Error::Code::Damaged, ok.error().subject, ok.error().message, "", -1};
    return {};
}

} // namespace gorvet::build
