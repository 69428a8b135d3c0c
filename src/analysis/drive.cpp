// The drive line in sentences, lists and pages.
#include "analysis/drive.hpp"

#include "analysis/lead.hpp"
#include "analysis/listing_cells.hpp"
#include "analysis/pages.hpp"
#include "drive/line_sheet.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

const char* const shaft_caution =
    "A shaft that breaks goes through the floor: safety loops, balance, and a shaft shop's word first.";

namespace {

const char* const sign_of_slopes =
    "Slopes are down at the back: a tail that hangs, a pinion whose nose points up, both read above 0.";

const drive::ChainPlan* worstChain(const drive::LinePlan& plan) {
    const drive::ChainPlan* worst = nullptr;
    for (const drive::ChainPlan& c : plan.chains)
        if (!worst || c.verdict > worst->verdict) worst = &c;
    return worst;
}

std::string levelOf(const Build& b, const LevelReading& l) {
    return l.on == LevelOn::Frame  ? std::string("the frame")
           : l.on == LevelOn::Unit ? b.drive_ends.at(l.end).name
                                   : b.shafts.at(l.shaft).name;
}
std::string levelWords(const drive::LevelJudged& j) {
    if (j.set_aside) return j.other_sign ? "with the other sign it would fit" : "stands against all others";
    return j.redundancy < 0.1 ? "nothing checks it" : j.standardised > 2.5 ? "far off" : "fits";
}

} // namespace

bool measuredHanging(const Build& b, PointId id) {
    return std::any_of(b.readings.begin(), b.readings.end(), [&](const auto& row) {
        const Reading& read = row.second;
        return !read.replaced_by && (read.from == id || read.to == id) && b.sessions.at(read.session).support != Support::Wheels;
    });
}

bool namedByLink(const Build& b, PointId id) {
    return std::any_of(b.links.begin(), b.links.end(), [&](const auto& row) {
        return std::find(row.second.points.begin(), row.second.points.end(), id) != row.second.points.end();
    });
}

void addDriveFacts(const Build& b, const Results& r, work::Facts& f) {
    const auto listed = [](std::string& to, const std::string& one) { to += (to.empty() ? "" : ", ") + one; };
    for (const auto& node : r.travels) listed(f.bushes, node->name);
    constexpr double as_it_is_mm = 1; // what a slip joint takes without a thought
    for (const drive::ChainPlan& c : r.drive->chains) {
        for (const drive::ShaftPlan& s : c.shafts)
            if (s.now_mm && std::abs(s.now_mm->value - s.length_mm.value) > as_it_is_mm)
                listed(f.shaft_words,
                       fmt::format("{} {} ± {:.1f}", s.name, units::formatLength(s.length_mm.value, b.settings.length_step),
                                   s.length_mm.u95));
        for (const Remark& remark : c.remarks) // a length can be right though its slip joint has no room: the shaft is made anew
            if (remark.verdict == PlanVerdict::Fails && remark.code != "plunge-in" && remark.code != "plunge-out" &&
                f.shafts_open.empty())
                f.shafts_open = remark.sentence;
    }
}

std::string slopeWords(double rad) {
    const double shown = std::abs(rad);
    return units::formatAngle(shown) + (shown < 8.7e-5 ? "" : rad > 0 ? " down at the back" : " down at the front");
}

std::vector<Lack> driveLacks(const Build& b, const Results& r, SubjectId) {
    std::vector<Lack> list;
    const auto kind = [&](DriveEndKind k) {
        return std::any_of(b.drive_ends.begin(), b.drive_ends.end(), [&](const auto& row) { return row.second.kind == k; });
    };
    if (!kind(DriveEndKind::Output))
        list.push_back({"Where the gearbox ends is not said.", "say the gearbox's output", {}, "output gearbox at ", {}, {}});
    if (!kind(DriveEndKind::Pinion))
        list.push_back({"Where the axle's pinion is is not said.", "say the pinion", {}, "pinion rear at ", {}, {}});
    if (list.empty() && b.shafts.empty()) list.push_back({"No shaft is said.", "say the shaft", {}, "shaft main from ", {}, {}});
    for (const std::string& lack : r.drive.input().missing)
        list.push_back({fmt::format("The shafts wait for {}.", lack), "measure it", {}, {}, "tape", {}});
    return list;
}

Headline driveHeadline(const Build& b, const Results& r, SubjectId subject) {
    const drive::LinePlan& plan = *r.drive;
    if (plan.chains.empty()) {
        const auto lacks = driveLacks(b, r, subject);
        Headline h{"The shafts are not said yet.", sign_of_slopes};
        if (!lacks.empty()) h.sentence = lacks.front().sentence;
        return h;
    }
    const drive::ChainPlan& c = *worstChain(plan);
    Headline h;
    const auto& rest = c.stands.front();
    std::string angles;
    for (std::size_t j = 0; j < c.joints.size(); ++j)
        angles += (j == 0 ? "" : j + 1 == c.joints.size() ? " and " : ", ") + units::formatAngle(rest.angles_rad[j].value);
    h.sentence = fmt::format("{}: its joints bend by {}, together as one of {} at most.", c.name, angles,
                             units::formatAngle(rest.residual_rad.value + rest.residual_rad.u95));
    if (c.verdict == PlanVerdict::Holds)
        h.below = fmt::format("Holds: smooth up to {:.0f} rpm of the shaft. ", plan.top_rpm);
    else if (!c.remarks.empty())
        h.below = fmt::format("{}: {} ", verdictWord(c.verdict), c.remarks.front().sentence);
    else
        h.below = fmt::format("Marginal: {} was never measured. ", r.drive.input().assumed.front());
    if (!c.remedies.empty()) h.below += fmt::format("It runs smooth when you {}. ", c.remedies.front().words);
    h.below += shaft_caution;
    return h;
}

Headline ratioHeadline(const Build& b, const Results&, SubjectId) {
    const auto all = workedRatios(b);
    if (all.empty())
        return {
            "What the axles are geared to is not counted yet.",
            "One wheel up, the other held: turn the wheel once, count the shaft's turns, and type them: turns rear-axle shaft 1.87 wheel 1 one-held."};
    const WorkedRatio& w = all.back();
    Headline h;
    if (w.counted)
        h.sentence = fmt::format("The {} is geared {:.3f} ± {:.3f} to 1.", word(w.axle), w.counted->value, w.counted->u95);
    else
        h.sentence = fmt::format("The {} is said to be geared {:g} to 1, and nobody counted.", word(w.axle), w.said->value);
    if (!w.pairs.empty() && w.pairs.size() <= 4) {
        h.below = "Teeth that fit: ";
        for (std::size_t k = 0; k < w.pairs.size(); ++k)
            h.below += fmt::format("{}{} : {} ({:.3f})", k ? ", " : "", w.pairs[k].crown, w.pairs[k].pinion, w.pairs[k].ratio());
        h.below += ". ";
    } else if (!w.pairs.empty()) {
        h.below = fmt::format("{} pairs of teeth fit: count ten turns of the wheel, and fewer do. ", w.pairs.size());
    }
    if (w.cruise_rpm)
        h.below +=
            fmt::format("At {:g} km/h in top gear the engine turns at {:.0f}. ", b.drive_facts.cruise_kmh->value, *w.cruise_rpm);
    h.below += "Count before a gear set is ordered.";
    return h;
}

Listing levelsList(const Build& b, const Results& r, SubjectId) {
    Listing list;
    list.columns = {"level on", "it showed", "to the frame", "", ""};
    list.one = "level";
    const LevelsRead read = levelsRead(b, r);
    for (std::size_t k = 0; k < read.ids.size(); ++k) {
        const LevelReading& l = b.level_readings.at(read.ids[k]);
        const drive::LevelJudged& j = read.levels.readings[k];
        std::optional<Figure> own;
        if (l.on == LevelOn::Frame)
            own = read.levels.frame;
        else if (l.on == LevelOn::Unit)
            own = read.of(l.end);
        ListRow row;
        row.tag = fmt::format("level:{}", l.id.value);
        row.severity = j.set_aside                                  ? sheet::Severity::Bad
                       : j.standardised > 2.5 || j.redundancy < 0.1 ? sheet::Severity::Warn
                                                                    : sheet::Severity::Good;
        const double no = std::nan("");
        row.cells = {{levelOf(b, l), no, false, Mark::None},
                     {slopeWords(l.slope.value), l.slope.value, true, sheet::markOf(l.slope.provenance)},
                     {own ? fmt::format("{} ± {}", slopeWords(own->value), units::formatAngle(own->u95)) : std::string("–"),
                      own ? own->value : no, true, own ? sheet::markOf(own->provenance) : Mark::None},
                     {levelWords(j), no, false, Mark::None},
                     {j.set_aside                                  ? "Re-tape"
                      : j.standardised > 2.5 || j.redundancy < 0.1 ? "Doubtful"
                                                                   : "Agrees",
                      no, false, Mark::None}};
        list.rows.push_back(std::move(row));
    }
    return list;
}

Listing ratiosList(const Build& b, const Results&, SubjectId) {
    Listing list;
    list.columns = {"axle", "counted", "said", "teeth that fit", "engine at cruise"};
    list.one = "axle";
    const double no = std::nan("");
    for (const WorkedRatio& w : workedRatios(b)) {
        std::string teeth;
        for (std::size_t k = 0; k < std::min<std::size_t>(w.pairs.size(), 5); ++k)
            teeth += fmt::format("{}{} : {}", k ? ", " : "", w.pairs[k].crown, w.pairs[k].pinion);
        if (w.pairs.size() > 5) teeth += fmt::format(" and {} more", w.pairs.size() - 5);
        ListRow row;
        row.tag = fmt::format("ratio:{}", word(w.axle));
        row.severity = w.counted ? sheet::Severity::Good : sheet::Severity::Warn;
        row.cells = {{std::string(word(w.axle)), no, false, Mark::None},
                     {w.counted ? fmt::format("{:.3f} ± {:.3f}", w.counted->value, w.counted->u95) : std::string("–"),
                      w.counted ? w.counted->value : no, true, w.counted ? sheet::markOf(w.counted->provenance) : Mark::None},
                     {w.said ? fmt::format("{:g}", w.said->value) : std::string("–"), w.said ? w.said->value : no, true,
                      w.said ? sheet::markOf(w.said->provenance) : Mark::None},
                     {teeth.empty() ? "–" : teeth, no, false, Mark::None},
                     {w.cruise_rpm ? fmt::format("{:.0f} rpm", *w.cruise_rpm) : std::string("–"), w.cruise_rpm.value_or(no), true,
                      Mark::Derived}};
        list.rows.push_back(std::move(row));
    }
    return list;
}

namespace {

/// What a shaft shop asks for, line by line.
std::vector<std::vector<std::string>> shaftOrder(const Build& b, const Results& r, const drive::ShaftPlan& p) {
    const Shaft& s = *shaftNamed(b, p.name);
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    const double in = p.length_mm.value - p.shortest_mm.value, out = p.longest_mm.value - p.length_mm.value;
    const drive::LineInput& input = r.drive.input();
    std::vector<std::vector<std::string>> rows{
        {"from – to", fmt::format("{} – {}", b.drive_ends.at(s.from).name, b.drive_ends.at(s.to).name)},
        {"joint centre to joint centre, car on its wheels", fmt::format("{} ± {:.1f}", len(p.length_mm.value), p.length_mm.u95)},
        {"front joint, rear joint", b.drive_ends.at(s.to).kind == DriveEndKind::Bearing
                                        ? fmt::format("{}, none: it runs in a bearing", word(s.front))
                                        : fmt::format("{}, {}", word(s.front), word(s.rear))},
        {"slides at", s.slip == SlipAt::None ? "nothing slides" : std::string(word(s.slip))},
        {"must go in by, at least",
         s.slip == SlipAt::None ? "–" : fmt::format("{} (of it {:g} to spare)", len(in + drive::spare_mm), drive::spare_mm)},
        {"must go out by, at least", s.slip == SlipAt::None ? "–"
                                                            : fmt::format("{} (of it {:g} to spare), splines full",
                                                                          len(out + drive::spare_mm), drive::spare_mm)},
        {"its joints bend at most", fmt::format("{} at {}", units::formatAngle(p.most_angle_rad.value), p.most_angle_at)},
        {"yokes",
         s.rear == JointKind::Cross && s.front == JointKind::Cross
             ? (s.phase ? (std::abs(s.phase->value) < 1e-9 ? "in phase" : "turned by " + units::formatAngle(s.phase->value, 1))
                        : "not said")
             : "–"},
        {"tube now", p.tube ? fmt::format("{:g} × {:g}", p.tube->outside_mm, p.tube->wall_mm) : "not said"},
        {"lightest usual tube that does",
         p.lightest ? fmt::format("{:g} × {:g}", p.lightest->outside_mm, p.lightest->wall_mm) : "none: a centre bearing"},
        {"top speed", fmt::format("{:.0f} rpm", r.drive->top_rpm)},
        {"most torque",
         input.torque_Nm && input.first_gear
             ? fmt::format("{:.0f} N·m in first gear", *input.torque_Nm * *input.first_gear * input.low_range.value_or(1))
             : "not said"},
        {"balanced to", "as the shop does for that speed, with its yokes on"},
        {"flanges: bolt circle, bolts, spigot", ""},
        {"cross: cap diameter, span", ""}};
    return rows;
}

} // namespace

std::vector<sheet::Drawing> drivePages(const Build& b, const Results& r) {
    std::vector<sheet::Drawing> pages;
    const drive::LinePlan& plan = *r.drive;
    const auto column = [](const char* name, double width) {
        return sheet::Column{name, width, sheet::Anchor::Left, sheet::Face::Sans, true};
    };
    if (!plan.chains.empty()) {
        sheet::Area area;
        sheet::Drawing page = sheet::blankPage(titled(b, r, "Drive: the shafts"), {shaft_caution, local_rules}, area);
        const drive::LineView view{&r.drive.input(), &plan,
                                   [&](double mm) { return units::formatLength(mm, b.settings.length_step); }, 0, false};
        placeFitted(page, area, [&](double w, double h, const sheet::Format& f) { return drive::lineSheet(view, w, h, f); });
        pages.push_back(std::move(page));
        for (const drive::ChainPlan& c : plan.chains)
            for (const drive::ShaftPlan& s : c.shafts)
                addTablePages(pages, titled(b, r, fmt::format("Drive: what to order, shaft {}", s.name)),
                              {shaft_caution, local_rules}, {column("", 110), column("", 130)}, shaftOrder(b, r, s));
    }
    addListingPages(pages, titled(b, r, "Drive: slopes as read"), {local_rules}, levelsList(b, r, the_chassis),
                    {40, 50, 66, 62, 30});
    addListingPages(pages, titled(b, r, "Drive: what the axles are geared to"), {local_rules}, ratiosList(b, r, the_chassis),
                    {44, 46, 24, 90, 44});
    return pages;
}

} // namespace gorvet::analysis
