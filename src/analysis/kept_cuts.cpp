#include "analysis/kept_cuts.hpp"

#include "analysis/overlay_parts.hpp"
#include "sit/as_cut.hpp"
#include "units/quantity.hpp"

#include <algorithm>
#include <cmath>
#include <sstream>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::analysis {

using namespace build;
using geometry::RigidTransform;
using shape::Point3;

namespace {

constexpr double straight_within_mm = 1.0;
constexpr double sits_elsewhere_mm = 1.0;
constexpr double turned_deg = 0.05;

std::string seatText(const Results& r) {
    const sit::Pose& p = r.seat->pose;
    return fmt::format("{:.2f} {:.2f} {:.2f} {:.4f} {:.4f} {:.4f}", p.shift.x_mm, p.shift.y_mm, p.shift.z_mm,
                       units::degrees(p.yaw_rad), units::degrees(p.pitch_rad), units::degrees(p.roll_rad));
}

/// How far the body stands now from where it stood; none when the text tells nothing.
std::optional<std::pair<double, double>> movedSince(const Results& r, const std::string& made_at) {
    const auto numbers = [](const std::string& text) {
        std::vector<double> v;
        std::istringstream in(text);
        for (double d; in >> d;) v.push_back(d);
        return v;
    };
    const auto then = numbers(made_at), now = numbers(seatText(r));
    if (then.size() != 6 || now.size() != 6) return std::nullopt;
    double turn = 0;
    for (size_t k = 3; k < 6; ++k) turn = std::max(turn, std::abs(then[k] - now[k]));
    return std::pair{std::hypot(then[0] - now[0], then[1] - now[1], then[2] - now[2]), turn};
}

std::vector<Point3> points(const std::vector<Vec3>& list) {
    std::vector<Point3> out;
    for (const Vec3& v : list) out.push_back({v.x_mm, v.y_mm, v.z_mm});
    return out;
}

} // namespace

Result<Edit> keepCuts(const Build& b, const Results& r, const sit::CutMap& map) {
    Edit edit;
    std::uint32_t id = b.next_id;
    std::vector<std::string> taken;
    for (const auto& [old, c] : b.planned_cuts) {
        if (c.by_hand || !c.as_cut.empty())
            taken.push_back(c.name);
        else
            edit.changes.emplace_back(Drop<PlannedCut>{old});
    }
    const RigidTransform back = inverse(seatMotion(r));
    int kept = 0, number = 0;
    for (const sit::Cut& c : map.cuts) {
        if (!c.allowed() || c.lines.empty()) continue;
        const sit::CutLine* line = nullptr;
        for (const sit::CutLine& l : c.lines)
            if (!l.hole && (!line || l.length_mm > line->length_mm)) line = &l;
        if (!line || line->line.places.size() < 3) continue;
        PlannedCut p;
        p.id = PlannedCutId{id++};
        do p.name = fmt::format("cut-{}", ++number);
        while (std::find(taken.begin(), taken.end(), p.name) != taken.end());
        for (const Point3& q : sit::fewerCorners(line->line.places, line->line.closed, straight_within_mm)) {
            const Point3 own = back.transformed(q);
            p.line.push_back({own[0], own[1], own[2]});
        }
        p.closed = line->line.closed;
        p.area_mm2 = c.area_mm2;
        p.mass_kg = c.mass_kg;
        p.crosses = fmt::format("{}", fmt::join(c.crosses, ","));
        p.brace = fmt::format("{}", fmt::join(c.brace, ","));
        p.made_at = seatText(r);
        edit.changes.emplace_back(Put<PlannedCut>{p});
        ++kept;
    }
    if (kept == 0)
        return Error{Error::Code::Conflict, "cut map",
                     map.cuts.empty() ? "Nothing needs to be cut."
                                      : "None of these cuts is allowed: each goes through a zone that is never cut.",
                     map.cuts.empty() ? "" : "Move the body, or the part that fouls.", -1};
    edit.sentence = fmt::format("keep {} cut{} of the body", kept, kept == 1 ? "" : "s");
    return edit;
}

std::vector<Point3> keptCutPlaces(const Results& r, const PlannedCut& c) {
    const RigidTransform seat = seatMotion(r);
    std::vector<Point3> out = points(c.line);
    for (Point3& p : out) p = seat.transformed(p);
    return out;
}

std::vector<Finding> keptCutFindings(const Build& b, const Results& r) {
    std::vector<Finding> list;
    const auto len = [&](double mm) { return units::formatSmall(mm, b.settings.length_step, true); };
    for (const auto& row : b.planned_cuts) {
        const PlannedCut& c = row.second;
        const auto add = [&](sheet::Severity severity, const char* code, const char* word, std::string sentence,
                             std::string remedy) -> Finding& {
            Finding f;
            f.severity = severity;
            f.code = code;
            f.subject = c.name;
            f.word = word;
            f.sentence = std::move(sentence);
            f.remedy = std::move(remedy);
            f.brief = c.name;
            const auto at = keptCutPlaces(r, c);
            if (!at.empty() && r.seated()) f.station_mm = at.front()[0];
            list.push_back(std::move(f));
            return list.back();
        };
        const auto moved = movedSince(r, c.made_at);
        if (moved && (moved->first > sits_elsewhere_mm || moved->second > turned_deg) && c.as_cut.empty()) {
            Finding& f = add(sheet::Severity::Warn, "work.cut-stale", "Marginal",
                             fmt::format("The body sits {} elsewhere since {} was drawn.", len(moved->first), c.name),
                             "Make the cut map again before anything is cut.");
            f.figure = len(moved->first);
            f.need = len(sits_elsewhere_mm);
        }
        if (c.as_cut.empty()) continue;
        const auto off = sit::offTheLine(points(c.line), c.closed, points(c.as_cut));
        const double low = *std::min_element(off.begin(), off.end()), high = *std::max_element(off.begin(), off.end());
        // short: within the margin it clears all the same, beyond it fouls again
        const double margin = b.clearances.margin.value;
        if (low < -1) {
            const bool fouls = -low > margin;
            Finding& f = add(fouls ? sheet::Severity::Bad : sheet::Severity::Warn, "work.cut-short", fouls ? "Fails" : "Marginal",
                             fmt::format("{} came out {} short of its line.", c.name, len(-low)),
                             fouls ? "Creep up to the line: what stands within the margin fouls."
                                   : "It is within the margin; leave it, or creep up to the line.");
            f.figure = len(-low);
            f.need = len(margin);
        }
        if (high > 3) {
            Finding& f = add(sheet::Severity::Warn, "work.cut-far", "Marginal",
                             fmt::format("{} was cut {} beyond its line.", c.name, len(high)),
                             "Let a strip in, or draw the new box by the edge as it is.");
            f.figure = len(high);
            f.need = len(3);
        }
    }
    return list;
}

Result<Edit> moveCutCorner(const Build& b, const Results& r, PlannedCutId id, size_t corner, const shape::Point3& at) {
    const auto kept = b.planned_cuts.find(id);
    if (kept == b.planned_cuts.end() || corner >= kept->second.line.size())
        return Error{Error::Code::NotFound, "cut", "This corner is not there any more.", "Look at the cut again.", -1};
    PlannedCut c = kept->second;
    const shape::Point3 own = inverse(seatMotion(r)).transformed(at);
    c.line[corner] = {own[0], own[1], own[2]};
    c.by_hand = true;
    Edit edit;
    edit.sentence = fmt::format("{}: corner {} at station {:.1f}", c.name, corner + 1, own[0]);
    edit.changes.emplace_back(Put<PlannedCut>{c});
    return edit;
}

} // namespace gorvet::analysis
