#include "analysis/views.hpp"

#include "analysis/lead.hpp"
#include "analysis/origin.hpp"
#include "analysis/survey_lines.hpp"

#include "build/assumed.hpp"
#include "make/make_sheet.hpp"
#include "sit/sit_sheet.hpp"
#include "stretch/stretch_sheet.hpp"
#include "tape/survey_sheet.hpp"
#include "work/work_sheet.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Drawing;
using sheet::Format;
using sheet::Mark;
using sheet::Severity;

namespace {

/// What stands at station 0, where that is not the front axle.
std::string zeroName(const Build& b, const Results& r) {
    const Origin o = originOf(b, r);
    return o.at_axle || !o.axle_mm ? std::string() : o.from.substr(std::string("from ").size());
}

std::vector<Vec3> topLine(const RailLine& rail) {
    std::vector<Vec3> line = rail.points;
    if (rail.datum_face == RailFace::Bottom)
        for (Vec3& p : line) p.z_mm += rail.height_mm;
    return line;
}

std::string signedFigure(double mm, units::LengthStep step) {
    const std::string size = units::formatSmall(std::abs(mm), step);
    const bool zero = size.find_first_of("123456789") == std::string::npos;
    return (zero ? "" : mm < 0 ? "−" : "+") + size;
}

/// What nothing fixes is shown as no shape: a sketch of its kind, with what was marked on it.
Drawing sketchView(const Build& b, const Results& r, SubjectId subject, const ViewOptions& o, double width, double height,
                   const Format& f) {
    const SurveyOf& s = r.of(subject);
    const bool body = kindOf(b, subject) == SubjectKind::Body;
    tape::GhostView v;
    v.ink = body ? sheet::Ink::Body : sheet::Ink::Chassis;
    std::vector<int> drawn(s.point_ids.size(), -1);
    for (size_t i = 0; i < s.point_ids.size(); ++i) {
        const Point& p = b.points.at(s.point_ids[i]);
        if (!p.rough) continue;
        drawn[i] = static_cast<int>(v.marked.size());
        v.marked.push_back({p.name, *p.rough, fmt::format("point:{}", p.id.value)});
    }
    const auto pair = [&](int from, int to) -> std::optional<std::pair<int, int>> {
        if (from < 0 || to < 0 || drawn[static_cast<size_t>(from)] < 0 || drawn[static_cast<size_t>(to)] < 0) return std::nullopt;
        return std::pair{drawn[static_cast<size_t>(from)], drawn[static_cast<size_t>(to)]};
    };
    for (const auto& reading : s.survey.readings)
        if (const auto line = pair(reading.from, reading.to)) v.readings.push_back(*line);
    if (o.next) v.next = pair(o.next->first, o.next->second);
    return tape::ghostSheet(*sketchOf(b, subject), v, width, height, f);
}

} // namespace

Drawing tapeView(const Build& b, const Results& r, SubjectId subject, const ViewOptions& o, double width, double height,
                 const Format& f) {
    const SurveyOf& s = r.of(subject);
    if (showsSketch(b, r, subject)) return sketchView(b, r, subject, o, width, height, f);
    tape::SurveyView v;
    v.survey = &s.survey;
    v.solution = &*s.solution;
    v.condition = &*s.condition;
    v.frame = &s.frame;
    v.step = b.settings.length_step;
    v.ink = kindOf(b, subject) == build::SubjectKind::Body ? sheet::Ink::Body : sheet::Ink::Chassis;
    v.next = o.next;
    v.selected = o.selected;
    for (const PointId id : s.point_ids) v.point_tags.push_back(fmt::format("point:{}", id.value));
    for (const ReadingId id : s.reading_ids) v.reading_tags.push_back(fmt::format("reading:{}", id.value));
    v.lines = surveyLines(b, r, subject);
    for (size_t i = 0; i < r.flaw_ids.size(); ++i) {
        const Flaw& flaw = b.flaws.at(r.flaw_ids[i]);
        if (flaw.subject == subject && flaw.point)
            v.found.push_back({s.indexOf(flaw.point), severityOf(r.repair.flaws[i].verdict), std::string(word(flaw.kind)),
                               fmt::format("flaw:{}", flaw.id.value)});
    }
    for (const auto& [id, box] : b.obstacles)
        if (box.subject == subject) {
            v.blocked.emplace_back(box.from, box.to);
            v.blocked_names.push_back(box.name);
            v.blocked_tags.push_back(fmt::format("obstacle:{}", id.value));
        }
    v.plan_height = height;
    return tape::surveySheet(v, width, std::max(height, tape::surveySheetHeight(v, f)), f);
}

Drawing pairView(const Results& r, SubjectId subject, std::pair<int, int> pair, double width, double height, const Format& f) {
    const SurveyOf& s = r.of(subject);
    tape::SurveyView v;
    v.survey = &s.survey;
    v.solution = &*s.solution;
    v.frame = &s.frame;
    v.ink = subject == the_body ? sheet::Ink::Body : sheet::Ink::Chassis;
    return tape::pairSketch(v, pair, width, height, f);
}

Drawing sitView(const Build& b, const Results& r, const ViewOptions& o, double width, double height, const Format& f) {
    const auto step = b.settings.length_step;
    sit::SitView v;
    v.selected = o.selected;
    // what nothing settles is no shape: the chassis stands alone, with what is open
    const bool settled = r.seat->status == sit::Status::Seated;
    for (const PointId id : r.body.point_ids)
        if (const auto at = r.bodyInChassis(id); at && settled) v.body.push_back({nameOf(b, id), b.points.at(id).role, *at});
    v.rail_left = topLine(r.planned_left);
    v.rail_right = topLine(r.planned_right);
    v.rail_height_mm = b.rail.height.value > 0 ? b.rail.height.value : 80;
    v.rail_width_mm = b.rail.width.value > 0 ? b.rail.width.value : 50;
    const double change = r.seat->change_mm.value_or(0);
    const double slope = r.seat.input().cut_slope_rad;
    for (const int i : {r.seat.input().front_left, r.seat.input().front_right})
        if (i >= 0) v.front_hubs.push_back(r.seat.input().chassis.at[i]);
    for (const int i : {r.seat.input().rear_left, r.seat.input().rear_right})
        if (i >= 0) {
            Vec3 hub = r.seat.input().chassis.at[i];
            hub.x_mm += change;
            hub.z_mm -= change * std::tan(slope);
            v.rear_hubs.push_back(hub);
        }
    v.front_radius_mm = r.seat.input().front_height_mm.value_or(0);
    v.rear_radius_mm = r.seat.input().rear_height_mm.value_or(0);
    v.ground = r.seat->ground;
    v.zero = zeroName(b, r);
    if (r.seat->wheelbase_now_mm) v.wheelbase_text = units::formatLength(*r.seat->wheelbase_now_mm + change, step, true);
    for (size_t i = 0; settled && i < r.pin_ids.size() && i < r.seat->pins.size(); ++i) {
        const Pin& pin = b.pins.at(r.pin_ids[i]);
        const sit::PinResult& w = r.seat->pins[i];
        sit::DrawnPin drawn;
        drawn.kind = pin.kind;
        drawn.tag = fmt::format("pin:{}", r.pin_ids[i].value);
        drawn.severity = severityOf(w.verdict);
        const auto placed = [&](PointId id) {
            if (b.points.at(id).subject == the_body) return r.bodyInChassis(id);
            auto at = r.chassis.positionOf(id);
            return at ? std::optional(r.planned_chassis.map(*at)) : at;
        };
        for (const PointId id : pin.points)
            if (const auto at = placed(id)) drawn.at.push_back(*at);
        for (const PointId id : pin.to)
            if (const auto at = placed(id)) drawn.to.push_back(*at);
        if (drawn.at.size() != pin.points.size() || drawn.to.size() != pin.to.size() || !w.usable) continue;
        if (const auto box = b.obstacles.find(pin.box); box != b.obstacles.end()) {
            const Obstacle& kept_clear = box->second;
            const bool on_body = kept_clear.subject == the_body;
            const sit::Pose own = on_body ? r.seat->pose : sit::Pose{};
            v.boxes.push_back({kept_clear.name, {sit::place(own, kept_clear.from), sit::place(own, kept_clear.to)}, !on_body});
        }
        switch (pin.kind) {
        case PinKind::Station:
        case PinKind::Height:
            drawn.text = units::formatLength(w.achieved.value, step);
            drawn.mark = sheet::markOf(pin.target.provenance);
            break;
        case PinKind::Rake:
            drawn.text = "rake " + units::formatAngle(w.achieved.value);
            drawn.mark = sheet::markOf(pin.target.provenance);
            break;
        case PinKind::Level: drawn.text = "level " + signedFigure(w.miss.value, step); break;
        default:
            drawn.text = pin.kind >= PinKind::Along || pin.bound != Bound::Equal ? units::formatLength(w.achieved.value, step)
                                                                                 : signedFigure(w.miss.value, step);
            drawn.mark = Mark::Derived;
            break;
        }
        v.pins.push_back(std::move(drawn));
    }
    Drawing d = sit::sitSheet(v, width, std::max(height, f.px(sit::sit_sheet_least_px)), f);
    double y = f.body() * 2.6;
    for (const std::string& open : r.seat->open) {
        d.add(sheet::Text{{0, y},
                          open,
                          f.body(),
                          sheet::Ink::Warn,
                          sheet::Anchor::Left,
                          sheet::Level::Base,
                          sheet::Face::Sans,
                          Mark::None,
                          0,
                          true});
        y += f.body() * 1.5;
    }
    return d;
}

Drawing stretchView(const Build& b, const Results& r, const ViewOptions&, double width, double height, const Format& f) {
    stretch::StretchView v;
    v.input = &r.stretch.input();
    v.plan = &*r.stretch;
    v.step = b.settings.length_step;
    v.change_mark = b.stretch.wheelbase_change ? sheet::markOf(b.stretch.wheelbase_change->provenance) : Mark::Derived;
    v.section_given = build::assumedIn(b.rail).empty();
    v.zero = zeroName(b, r);
    return stretch::stretchSheet(v, width, std::max(height, f.px(stretch::stretch_sheet_least_px)), f);
}

Drawing makeView(const Build& b, const Results& r, const ViewOptions& o, double width, double height, const Format& f) {
    const bool cross = r.crossmember.made() && r.crossmember->possible;
    make::MountsView v;
    v.mounts = &r.mounts;
    make::CrossmemberView c;
    const double between = f.px(8);
    const double mounts_least = make::mountsHeight(v, width, f);
    double cross_least = 0;
    if (cross) {
        c.input = &r.crossmember.input();
        c.plan = &*r.crossmember;
        c.step = b.settings.length_step;
        cross_least = make::crossmemberHeight(c, width, f) + between;
    }
    // what is to spare goes to both by what they need
    Drawing d;
    d.width = width;
    d.height = std::max(height, mounts_least + cross_least);
    const double mounts_height =
        mounts_least + cross_least > 0 ? d.height * mounts_least / (mounts_least + cross_least) : d.height;
    if (!r.mounts.empty()) {
        for (const MountId id : r.mount_ids) v.tags.push_back(fmt::format("mount:{}", id.value));
        v.step = b.settings.length_step;
        v.body_thickness_mm = b.mount_design.body_thickness.value;
        v.rail_thickness_mm = b.rail.thickness.value;
        v.selected = o.selected;
        d.place(make::mountsSheet(v, width, mounts_height, f), {0, 0});
    }
    if (cross) {
        d.place(make::crossmemberSheet(c, width, d.height - mounts_height - between, f), {0, mounts_height + between});
    }
    return d;
}

Drawing workView(const Build& b, const Results& r, const ViewOptions& o, double width, double height, const Format& f) {
    return work::workSheet({&*r.work, b.settings.length_step, o.selected}, width,
                           std::max(height, f.px(work::work_sheet_least_px)), f);
}

} // namespace gorvet::analysis
