#include "analysis/work_facts.hpp"

#include "analysis/drive.hpp"
#include "analysis/graft.hpp"
#include "analysis/let_in.hpp"
#include "analysis/origin.hpp"
#include "analysis/survey_lines.hpp"
#include "analysis/width.hpp"
#include "analysis/work_plan.hpp"
#include "units/dates.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <sstream>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

/// ± at 95 % of the distance between two surveyed points, from their common covariance.
double distanceU95(const tape::Solution& s, int a, int b, const Vec3& p, const Vec3& q) {
    const double dx[3] = {q.x_mm - p.x_mm, q.y_mm - p.y_mm, q.z_mm - p.z_mm};
    const double length = std::sqrt(dx[0] * dx[0] + dx[1] * dx[1] + dx[2] * dx[2]);
    if (length <= 0) return 0;
    double j[6];
    for (int k = 0; k < 3; ++k) {
        j[k] = -dx[k] / length;
        j[3 + k] = dx[k] / length;
    }
    const auto row = [&](int k) { return 3 * static_cast<size_t>(k < 3 ? a : b) + static_cast<size_t>(k % 3); };
    double variance = 0;
    for (int i = 0; i < 6; ++i)
        for (int k = 0; k < 6; ++k) variance += j[i] * j[k] * s.covariance(row(i), row(k));
    return u95Of(std::sqrt(std::max(0.0, variance)));
}

/// The pairs of rail points ahead of the cut and behind it, from the front.
struct PairsAtCut {
    struct Pair {
        PointId left;
        PointId right;
        double x = 0;
    };
    std::vector<Pair> ahead;
    std::vector<Pair> behind;
};
PairsAtCut pairsAtCut(const Build& b, const Results& r) {
    PairsAtCut pairs;
    if (r.stretch->status != stretch::Status::Planned) return pairs;
    const stretch::RailCut& cut = r.stretch->left.known ? r.stretch->left : r.stretch->right;
    for (const PointId id : r.chassis.point_ids) {
        const Point& p = b.points.at(id);
        const auto counts = [&](const Point& point) {
            if (namedByLink(b, point.id)) return false;
            return point.role == Role::Rail || (r.stretch->spine && (point.role == Role::None || point.role == Role::BodyMount));
        };
        if (!counts(p) || sideOf(p.name) != Side::Left) continue;
        const Point* twin = pointNamed(b, the_chassis, twinName(p.name));
        const auto left = r.chassis.positionOf(id);
        if (!twin || !counts(*twin) || !left || !r.chassis.positionOf(twin->id)) continue;
        if (left->x_mm < cut.first_station_mm - 20) pairs.ahead.push_back({id, twin->id, left->x_mm});
        if (left->x_mm > cut.last_station_mm + 20) pairs.behind.push_back({id, twin->id, left->x_mm});
    }
    const auto by_x = [](const PairsAtCut::Pair& a, const PairsAtCut::Pair& c) { return a.x < c.x; };
    std::sort(pairs.ahead.begin(), pairs.ahead.end(), by_x);
    std::sort(pairs.behind.begin(), pairs.behind.end(), by_x);
    return pairs;
}

/// Three distances over the cut: both diagonals from the foremost to the rearmost pair of rail points, and one between the pairs
/// next to the cut (a straight one along the left rail where there is only one pair on each side).
std::vector<work::Distance> diagonals(const Build& b, const Results& r, const PairsAtCut& pairs) {
    const auto& [ahead, behind] = pairs;
    if (ahead.empty() || behind.empty()) return {};
    const auto distance = [&](PointId from, PointId to) {
        const Vec3 p = *r.chassis.positionOf(from);
        const Vec3 q = *r.chassis.positionOf(to);
        return work::Distance{from,
                              to,
                              nameOf(b, from) + "–" + nameOf(b, to),
                              between(p, q),
                              between(p, r.planned_chassis.lengthwise().map(q)),
                              distanceU95(*r.chassis.solution, r.chassis.indexOf(from), r.chassis.indexOf(to), p, q)};
    };
    const bool more = ahead.size() > 1 || behind.size() > 1;
    return {distance(ahead.front().left, behind.back().right), distance(ahead.front().right, behind.back().left),
            more ? distance(ahead.back().left, behind.front().right) : distance(ahead.front().left, behind.back().left)};
}

/// ± at 95 % of the height of one surveyed point over another.
double levelU95(const tape::Solution& s, int a, int b) {
    const size_t i = 3 * static_cast<size_t>(a) + 2, j = 3 * static_cast<size_t>(b) + 2;
    return u95Of(std::sqrt(std::max(0.0, s.covariance(i, i) + s.covariance(j, j) - 2 * s.covariance(i, j))));
}

/// Heights over the foremost left point: of the first and the last pair, and of those on both sides of the joint.
std::vector<work::Levelled> levels(const Build& b, const Results& r, const PairsAtCut& pairs) {
    const auto& [ahead, behind] = pairs;
    if (ahead.empty() || behind.empty()) return {};
    std::vector<std::pair<PairsAtCut::Pair, bool>> looked_at = {{ahead.front(), false}};
    if (ahead.size() > 1) looked_at.emplace_back(ahead.back(), false);
    if (behind.size() > 1) looked_at.emplace_back(behind.front(), true);
    looked_at.emplace_back(behind.back(), true);
    const PointId from = ahead.front().left;
    const Vec3 p = *r.chassis.positionOf(from);
    std::vector<work::Levelled> list;
    for (size_t k = 0; k < looked_at.size(); ++k) {
        const auto& [pair, moves] = looked_at[k];
        const double width = between(*r.chassis.positionOf(pair.left), *r.chassis.positionOf(pair.right));
        for (const bool left : {true, false}) {
            const PointId to = left ? pair.left : pair.right;
            if (to == from) continue;
            const Vec3 now = *r.chassis.positionOf(to);
            const Vec3 then = r.planned_chassis.lengthwise().map(now);
            list.push_back({from, to, "level " + nameOf(b, from) + "–" + nameOf(b, to), static_cast<int>(k), left,
                            then.x_mm - p.x_mm, width, now.z_mm - p.z_mm, then.z_mm - p.z_mm,
                            levelU95(*r.chassis.solution, r.chassis.indexOf(from), r.chassis.indexOf(to))});
        }
    }
    return list;
}

/// Why parts can't be made as planned, with where to go; empty: they can.
std::string mountsOpen(const Results& r) {
    int fail = 0;
    std::string first;
    for (const auto& m : r.mounts)
        if (m.verdict == PlanVerdict::Fails) {
            ++fail;
            if (first.empty()) first = m.name;
        }
    return fail ? fmt::format("{} body mount{} can't be made as planned ({} first): see Make", fail, fail == 1 ? "" : "s", first)
                : std::string();
}
std::string crossmemberOpen(const Results& r) {
    if (!r.crossmember->possible) return "The crossmember waits for " + r.crossmember->waiting_for + ": see Make";
    for (const auto& remark : r.crossmember->remarks)
        if (remark.verdict == PlanVerdict::Fails) return remark.sentence.substr(0, remark.sentence.size() - 1) + ": see Make";
    return {};
}

std::string surveyOpen(const SurveyOf& s) {
    if (s.survey.points.empty()) return "The chassis is not surveyed yet";
    if (s.solution->status != tape::Status::Solved) return "The chassis survey is not fixed yet";
    int again = 0;
    for (const auto& reading : s.solution->readings) again += reading.verdict == tape::Verdict::Retape;
    if (again == 1) return "One reading of the chassis is to be taped again";
    return again ? fmt::format("{} readings of the chassis are to be taped again", again) : std::string();
}

std::string planOpen(const stretch::Plan& p) {
    if (p.status != stretch::Status::Planned) return "The plan of the cut waits for " + p.waiting_for;
    if (p.verdict != PlanVerdict::Fails) return {};
    for (const auto& remark : p.remarks)
        if (remark.verdict == PlanVerdict::Fails)
            return "The plan of the cut fails: " + remark.sentence.substr(0, remark.sentence.size() - 1);
    return "The plan of the cut fails: see Stretch";
}

/// "2026-12-01 14:00 UTC".
std::string minuteWords(long long seconds) {
    const std::string iso = units::isoTime(seconds);
    return iso.substr(0, 10) + " " + iso.substr(11, 5) + " UTC";
}

/// What the register says, by the step that waits for it.
std::vector<work::Tied> tiedOf(const Build& b) {
    std::map<std::string, work::Tied> by_step;
    for (const auto& [id, row] : b.releases) {
        work::Tied& t = by_step[row.frees];
        t.step = row.frees;
        ++t.rows;
        const std::string name = row.area.empty() ? row.name : row.name + " at " + row.area;
        const auto count = [&](bool so, int& n, std::string& first) {
            if (so && n++ == 0) first = name;
        };
        count(!row.released, t.tied, t.first_tied);
        if (const auto until = soaksUntil(row); until && t.soaking++ == 0)
            t.first_soaking = fmt::format("{}, until {}", name, minuteWords(*until));
        count(row.released && !row.proved, t.unproved, t.first_unproved);
        count(row.fate != Fate::Scrap && !row.refitted, t.off, t.first_off);
        count(row.refitted && row.torque_nm > 0 && !row.tightened, t.loose, t.first_loose);
    }
    std::vector<work::Tied> list;
    for (auto& [step, t] : by_step) list.push_back(std::move(t));
    return list;
}

/// Lifts that fail shut the step that they are for; what was done and must be left alone holds what waits for it.
std::vector<work::Held> heldOf(const Build& b, const Results& r) {
    std::vector<work::Held> held;
    for (const work::WorkedLift& l : workedLifts(b, r)) {
        if (l.holds_step.empty() || !l.waits.empty() || l.verdict() != work::LiftVerdict::Fails) continue;
        held.push_back({l.holds_step,
                        l.made ? fmt::format("The half {} stands by itself: {}", l.name, l.remarks().front().sentence)
                               : fmt::format("The lift {} can be made: {}", l.name, l.remarks().front().sentence),
                        false});
    }
    for (const auto& [id, tick] : b.ticks) {
        const Job* j = tick.step.starts_with("job-") ? jobNamed(b, tick.step.substr(4)) : nullptr;
        if (!j || j->rest_h <= 0) continue;
        const auto until = hoursAfter(tick.at_utc, j->rest_h);
        if (!until || *until <= units::nowSeconds()) continue;
        held.push_back({tick.step,
                        fmt::format("\"{}\" was left alone until {} (if it needs less: job {} rests 0)",
                                    j->title.empty() ? j->name : j->title, minuteWords(*until), j->name),
                        true});
    }
    return held;
}

} // namespace

std::optional<long long> hoursAfter(const std::string& at_utc, double hours) {
    constexpr double an_hour = 3600;
    const auto since = units::secondsOf(at_utc);
    return since ? std::optional(*since + static_cast<long long>(hours * an_hour)) : std::nullopt;
}

std::optional<long long> soaksUntil(const Release& r) {
    if (!r.seized || !r.soaked || r.released) return std::nullopt;
    const auto until = hoursAfter(r.soaked->at_utc, soakHours(r));
    return until && *until > units::nowSeconds() ? until : std::nullopt;
}
double soakHours(const Release& r) {
    constexpr double usual_h = 24;
    return r.soak_h > 0 ? r.soak_h : usual_h;
}

/// What of the steps is otherwise for a spine with its pans.
void spineFacts(work::Facts& f, const stretch::Plan& p, units::LengthStep step) {
    if (!p.spine) return;
    const stretch::SpinePlan& s = *p.spine;
    const auto len = [&](double mm) { return units::formatLength(mm, step); };
    f.spine = true;
    for (std::size_t k = 1; k < s.cuts.size(); ++k)
        f.pan_words += fmt::format("{}the {} at {}{}", k > 1 ? ", " : "", s.cuts[k].name, len(s.cuts[k].first_mm),
                                   p.shortens ? " and " + len(s.cuts[k].last_mm) : "");
    f.saddle_words = fmt::format("{} long, wall {}", len(s.saddle_long_mm), units::fixed(s.saddle_wall_mm, 1));
    for (const stretch::SpineWindow& w : s.windows)
        f.spine_windows += f.spine_windows.empty()
                               ? fmt::format("{} × {} at {}", len(w.long_mm), len(w.wide_mm), len(w.station_mm))
                               : " and " + len(w.station_mm);
    for (const std::string& i : s.inside) f.spine_inside += (f.spine_inside.empty() ? "" : ", ") + i;
    f.plug_words =
        fmt::format("{} of {} mm in the saddle's top and the strip, each side of the joint, {} apart; {} of {} mm at each pan",
                    s.plugs_needed, units::fixed(s.plug_mm, 0), units::fixed(s.plug_pitch_mm, 0), s.pan_plugs,
                    units::fixed(s.pan_plug_mm, 0));
}

/// The words of the cut that is planned.
void cutFacts(work::Facts& f, const Build& b, const Results& r) {
    const stretch::Plan& p = *r.stretch;
    const auto step = b.settings.length_step;
    const stretch::RailCut& cut = p.left.known ? p.left : p.right;
    f.cut_words = "at " + units::formatLength(cut.first_station_mm, step);
    if (p.shortens) f.cut_words += " and " + units::formatLength(cut.last_station_mm, step);
    const Origin origin = originOf(b, r);
    f.cut_words += " " + origin.from + origin.axle_words;
    if (p.sleeve)
        f.sleeve_words =
            fmt::format("{} × {} × {}, {} long", units::fixed(p.sleeve->height_mm, 1), units::fixed(p.sleeve->width_mm, 1),
                        units::fixed(p.sleeve->wall_mm, 1), units::formatLength(p.sleeve->length_mm, step));
    if (p.splice && p.splice->plugs.fit() > 0)
        f.plug_words = fmt::format("{} of {} mm in each flange, each side of the joint, {} apart",
                                   std::min(p.splice->plugs.needed, p.splice->plugs.fit()),
                                   units::fixed(p.splice->plugs.hole_mm, 0), units::fixed(p.splice->plugs.pitch_mm, 0));
    f.fish_plates = p.splice && p.splice->plate;
    spineFacts(f, p, step);
    for (const auto& [id, s] : b.stands)
        f.stand_words += fmt::format("{}{} at {}", f.stand_words.empty() ? "Pairs: " : ", ", s.name,
                                     units::formatLength(s.station.value, step));
    if (!f.stand_words.empty()) f.stand_words += ".";
    if (const auto parts = partWays(b, r)) {
        const auto len = [&](double mm) { return units::formatSmall(std::abs(mm), step, true); };
        constexpr double level_mm = 0.05, level_deg = 0.005;
        if (std::abs(parts->step_mm) < level_mm && std::abs(parts->leans_deg) < level_deg)
            f.part_words = fmt::format(
                "When it parts, the ends stay level to {} by their own weight, as long as nobody leans on one.", len(level_mm));
        else
            f.part_words = fmt::format(
                "When it parts, the end behind {} the other by {} by its own weight, and the gap gets {:.2f}° wider {}.",
                parts->step_mm < 0 ? "rises over" : "drops below", len(parts->step_mm), std::abs(parts->leans_deg),
                parts->leans_deg < 0 ? "below" : "above");
        f.part_words += parts->tube.empty()
                            ? " No tube of common stock holds that: a jack under each end."
                            : fmt::format(" A tube ({}) along each side, fast {} each side of the cut, leaves {} of it.",
                                          parts->tube, units::formatLength(parts->fast_mm, step, true), len(parts->left_mm));
    }
}

/// What of the frame's own members is planned.
work::FrameSteel frameSteel(const Build& b) {
    work::FrameSteel steel;
    const auto len = [&](const build::Dimension& d) { return units::formatLength(d.value, b.settings.length_step); };
    for (const auto& [id, m] : b.members) {
        if (m.state == MemberState::There) continue;
        std::string words = m.name;
        if (m.station) words += (m.until ? " from " : " at ") + len(*m.station);
        if (m.until) words += " to " + len(*m.until);
        if (m.kind == MemberKind::Rib) words += ", one every " + len(*m.pitch);
        std::string& to = m.state == MemberState::ComesOut ? steel.out_words
                          : m.kind == MemberKind::Rib      ? steel.rib_words
                          : m.kind == MemberKind::Plate    ? steel.plate_words
                                                           : steel.in_words;
        to += (to.empty() ? "" : ", ") + words;
        steel.windows = steel.windows || (m.state == MemberState::Planned && m.window_long);
    }
    return steel;
}

/// Pieces of other frames, as work.
std::vector<work::GraftJob> graftJobs(const Build& b, const Results& r) {
    std::vector<work::GraftJob> jobs;
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step); };
    for (const WorkedGraft& g : workedGrafts(b, r)) {
        work::GraftJob job;
        job.name = g.graft.name;
        job.front = g.graft.kind == GraftKind::FrontClip;
        job.cut_words = "at " + len(g.graft.joint.value);
        job.open = g.waits;
        if (g.plan.missing.empty()) {
            job.joined_words = stretch::graftWord(g.plan.way);
            if (g.plan.transition_mm > 0) job.joined_words += fmt::format(", {} long", len(g.plan.transition_mm));
            if (g.plan.overlap_mm > 0) job.joined_words += fmt::format(", {} on each other", len(g.plan.overlap_mm));
            job.trim_words = fmt::format("Cut off its rails: {} left, {} right.", len(std::max(0.0, g.plan.sides[0].trim_mm)),
                                         len(std::max(0.0, g.plan.sides[1].trim_mm)));
            for (const build::Measure& m : g.plan.measures)
                job.measures.push_back(fmt::format("{} {} ± {}", m.name, len(m.mm), units::fixed(m.u95_mm, 1)));
            if (job.open.empty() && g.plan.verdict == PlanVerdict::Fails) job.open = g.plan.remarks.front().sentence;
        }
        jobs.push_back(std::move(job));
    }
    return jobs;
}

/// How wide it is made, and what is let into a shell, as work.
std::vector<work::WidthJob> widthJobs(const Build& b, const Results& r) {
    using Kind = work::WidthJob::Kind;
    std::vector<work::WidthJob> jobs;
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step); };
    const auto measured = [&](const build::Measure& m) {
        return fmt::format("{} {} ± {}", m.name, len(m.mm), units::fixed(m.u95_mm, 1));
    };
    const auto shut = [](PlanVerdict v, const std::vector<Remark>& remarks) {
        return v == PlanVerdict::Fails && !remarks.empty() ? remarks.front().sentence : std::string();
    };
    const WorkedWidth w = workedWidth(b, r);
    if (w.narrow) {
        work::WidthJob job{Kind::Narrower, "", "", "", {}, shut(w.narrow->verdict, w.narrow->remarks)};
        job.words = w.narrow->strip_mm > 0 ? fmt::format("the strip from {} to {} from the middle, on each side",
                                                         len(w.narrow->slit_mm), len(w.narrow->outer_mm))
                                           : fmt::format("{} of what spans it", len(b.narrowing->by.value));
        for (const stretch::NarrowMember& m : w.narrow->members)
            job.pieces += fmt::format("{}{} to {}", job.pieces.empty() ? "" : ", ", m.name, len(m.then_mm));
        for (const build::Measure& m : w.narrow->measures) job.measures.push_back(measured(m));
        jobs.push_back(std::move(job));
    }
    for (const WorkedEdge& e : w.edges) {
        work::WidthJob job{Kind::FloorEdge, e.edge.name, "", "", {}, shut(e.plan.verdict, e.plan.remarks)};
        if (!e.plan.missing.empty()) job.open = fmt::format("{} waits for {}", e.edge.name, e.plan.missing.front());
        for (const stretch::EdgeStation& s : e.plan.stations)
            job.words += fmt::format("{}{} wide at {}", job.words.empty() ? "" : ", ", len(s.width.value), s.at);
        if (!job.words.empty()) job.words += ".";
        for (const stretch::EdgeOutrigger& o : e.plan.outriggers)
            job.pieces += fmt::format("{}{} long at {}", job.pieces.empty() ? "" : ", ", len(o.long_mm), len(o.station_mm));
        jobs.push_back(std::move(job));
    }
    for (const WorkedLetIn& l : workedLetIns(b, r)) {
        work::WidthJob job{Kind::LetIn, l.row.name, "", "", {}, shut(l.plan.verdict, l.plan.remarks)};
        if (!l.plan.missing.empty()) {
            job.open = fmt::format("{} waits for {}", l.row.name, l.plan.missing.front());
        } else {
            job.words = fmt::format("{} wide, {} long", len(l.plan.slot_wide_mm), len(l.plan.length.value));
            job.pieces = fmt::format("The {} piece is driven without a gap, the other slides in and leaves {} for the root.",
                                     word(l.row.driven), len(stretch::let_in_root));
            job.measures.push_back(
                fmt::format("Between both legs {} ± {}", len(l.plan.between.value), units::fixed(l.plan.between.u95, 1)));
        }
        jobs.push_back(std::move(job));
    }
    return jobs;
}

work::Facts workFacts(const Build& b, const Results& r) {
    const auto step = b.settings.length_step;
    work::Facts f;
    f.frame_kind = b.settings.frame_kind;
    f.has_body = !r.body.survey.points.empty() || !b.mounts.empty();
    f.start = {b.work.body, b.work.attitude, b.work.support};
    if (!f.has_body) f.start.body = BodyPlace::Off;
    addDriveFacts(b, r, f);
    f.fuel_tank = b.work.fuel_tank;
    f.battery = b.work.battery;
    f.restraints = b.work.restraints;
    f.refrigerant = b.work.refrigerant;
    const stretch::Plan& p = *r.stretch;
    f.cut_planned = p.status == stretch::Status::Planned ||
                    (b.stretch.cut_station && p.status == stretch::Status::Waiting && r.seat->change_mm);
    f.shortens = p.shortens;
    if (p.status == stretch::Status::Planned) cutFacts(f, b, r);
    for (const auto& c : p.crossings) {
        const Crossing* row = crossingOf(b, c.kind, c.name);
        f.crossings.push_back({c.kind, c.follows ? "Clip the " + c.said() + " anew: it follows" : c.answer, c.caution, c.name,
                               c.out_before_heat, row ? row->hours.value_or(0) : 0});
    }
    f.steel = frameSteel(b);
    f.grafts = graftJobs(b, r);
    f.widths = widthJobs(b, r);
    for (const auto& [id, h] : b.rail_holes)
        if (h.fate == HoleFate::Restore || h.fate == HoleFate::Move)
            f.hole_words += fmt::format("{}{} at {}", f.hole_words.empty() ? "" : ", ", h.name,
                                        units::formatLength(h.moved_to ? h.moved_to->value : h.station.value, step));
    f.mounts = static_cast<int>(b.mounts.size());
    f.crossmember = b.crossmember.has_value();
    f.captive_nuts = b.crossmember && b.crossmember->fixing == Fixing::Captive;
    for (const auto& m : r.mounts) f.mount_nuts += m.nut_inside;
    if (f.mounts) f.mounts_open = mountsOpen(r);
    if (f.crossmember) f.crossmember_open = crossmemberOpen(r);
    if (f.captive_nuts && r.crossmember->possible)
        for (const make::Plate* plate : {&r.crossmember->left, &r.crossmember->right})
            for (const make::Hole& hole : plate->holes)
                f.nut_stations_mm.push_back(r.crossmember->station_mm - plate->width_mm / 2 + hole.x_mm);
    if (p.status == stretch::Status::Planned) {
        const stretch::RailCut& cut = p.left.known ? p.left : p.right;
        f.joint_station_mm = cut.first_station_mm;
        if (r.crossmember.made() && !r.crossmember.input().filled.empty())
            f.sleeve_mm = std::pair{r.crossmember.input().filled.front().from_mm, r.crossmember.input().filled.front().to_mm};
    }
    f.survey_open = surveyOpen(r.chassis);
    f.plan_open = planOpen(p);
    for (const tape::GapTrend& t : tape::gapTrends(gapReadings(b)))
        if (t.verdict == PlanVerdict::Fails && t.readings.size() > 1)
            f.gap_open =
                fmt::format("The gap {} moved by {} since \"{}\": find why, then measure it again at a new event", t.place,
                            units::formatSmall(std::abs(t.change_mm.value), step, true), t.readings[t.readings.size() - 2].event);
    for (size_t i = 0; i < r.flaw_ids.size(); ++i) {
        const Flaw& flaw = b.flaws.at(r.flaw_ids[i]);
        const bool on_rail = flaw.point && b.points.at(flaw.point).role == Role::Rail && flaw.subject == the_chassis;
        if (on_rail && r.repair.flaws[i].steel && r.repair.flaws[i].verdict == PlanVerdict::Fails)
            f.flaw_open = fmt::format("The rail at {} fails ({}): see to it, then take it off the list", nameOf(b, flaw.point),
                                      word(flaw.kind));
    }
    const PairsAtCut pairs = pairsAtCut(b, r);
    f.diagonals = diagonals(b, r, pairs);
    f.levels = levels(b, r, pairs);
    f.tolerance_mm = b.settings.frame_tolerance_mm;
    for (const auto& [id, steel] : b.temporary_steel) f.temporary.push_back(steel);
    for (const auto& [id, c] : b.planned_cuts) {
        work::BodyCut cut;
        cut.name = c.name;
        double from = c.line.front().x_mm, to = from;
        for (const Vec3& v : c.line) {
            from = std::min(from, v.x_mm);
            to = std::max(to, v.x_mm);
        }
        cut.words = fmt::format("body station {:.0f} to {:.0f}, {:.0f} cm²", from, to, c.area_mm2 / 100);
        std::istringstream zones(c.brace);
        for (std::string zone; std::getline(zones, zone, ',');) cut.brace.push_back(zone);
        f.body_cuts.push_back(std::move(cut));
    }
    for (const auto& [id, job] : b.jobs) f.jobs.push_back(job);
    for (const auto& [id, a] : b.awaited) f.awaited.push_back(a);
    for (const auto& [id, a] : b.attempts) f.attempts.push_back(a);
    for (const auto& [id, e] : b.estimates) f.estimates.push_back(e);
    for (const auto& [id, d] : b.decisions)
        if (!d.agreed && !d.struck) f.decisions.push_back(d);
    f.held = heldOf(b, r);
    f.tied = tiedOf(b);
    f.begun = !b.ticks.empty();
    return f;
}

bool workBegun(const Build& b, const Results& r) {
    const work::Facts& f = r.work_facts;
    return f.cut_planned || f.mounts > 0 || f.crossmember || f.steel.any() || !f.grafts.empty() || !f.widths.empty() ||
           !b.planned_cuts.empty() || !b.ticks.empty() || !b.jobs.empty() || !b.releases.empty() || !b.awaited.empty() ||
           !b.decisions.empty() || !b.lifts.empty() || !b.surfaces.empty();
}

const work::Step* firstLift(const work::Order& o) {
    for (const work::Step& s : o.steps)
        if (s.moves_to && s.status != work::Status::Done && s.moves_to->body == BodyPlace::Off && s.stance.body == BodyPlace::On)
            return &s;
    return nullptr;
}

work::Record workRecord(const Build& b) {
    work::Record record;
    for (const auto& [id, tick] : b.ticks) record.ticks.push_back(tick);
    for (const auto& [id, check] : b.checks) record.checks.push_back(check);
    return record;
}

} // namespace gorvet::analysis
