// Axles on the bench: input, sheet, pages, findings, cards and JSON.
#include "analysis/axle_setup.hpp"

#include "analysis/card_maker.hpp"
#include "analysis/drive.hpp"
#include "analysis/fixed_points.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/overlay_parts.hpp"
#include "analysis/pages.hpp"
#include "analysis/travel.hpp"
#include "drive/degree.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using geometry::RigidTransform;
using sheet::Mark;

namespace {

const char* const setup_caution =
    "What carries an axle, and steering, is welded by those who are licensed for it. Bearings, seals and oil out, breather open, before anything is hot.";

/// ± of what is taped on an axle, and of a level on it.
constexpr double taped_u95_mm = 1.5, level_u95_rad = 0.2 * drive::one_degree;

class SetupAsked {
public:
    SetupAsked(const Build& b, const Results& r, AxleEnd end)
        : b_(b), r_(r), end_(end), front_(end == AxleEnd::Front), points_(b, r.chassis) {}

    std::optional<drive::AxleSetupIn> ask() {
        const AxleSeat* seat = axleSeatOf(b_, end_);
        for (const auto& [id, t] : b_.tack_readings)
            if (t.end == end_) in_.tacks.push_back(t);
        for (const auto& [id, g] : b_.gear_readings)
            if ((g.axle == Carrier::Front) == front_) in_.gears.push_back(g);
        for (const auto& [id, p] : b_.photos)
            if (!p.struck && p.part == fmt::format("{}-axle", word(end_))) in_.photos.push_back(p.name);
        const bool brackets = std::any_of(b_.axle_brackets.begin(), b_.axle_brackets.end(),
                                          [&](const auto& row) { return row.second.end == end_; });
        if (!seat && !brackets && in_.tacks.empty() && in_.gears.empty()) return std::nullopt;
        in_.name = fmt::format("{} axle", word(end_));
        in_.front = front_;
        sizes(seat ? *seat : AxleSeat{});
        wheels();
        for (const auto& [id, bracket] : b_.axle_brackets)
            if (bracket.end == end_) take(bracket);
        for (const auto& [id, l] : b_.links) take(l);
        finish();
        return std::move(in_);
    }

private:
    void assume(const build::Dimension& d, std::string what) {
        if (d.provenance == Provenance::Assumed) in_.assumed.push_back(std::move(what));
    }
    std::optional<Figure> figure(const std::optional<build::Dimension>& d, double u95, const char* what) {
        if (!d) return std::nullopt;
        assume(*d, what);
        return Figure{d->value, u95, d->provenance};
    }
    static std::optional<Figure> chosen(const std::optional<build::Dimension>& d) {
        return d ? std::optional(Figure{d->value, 0, Provenance::Derived}) : std::nullopt;
    }
    void sizes(const AxleSeat& seat) {
        const AxleJob* job = axleJobOf(b_, end_);
        in_.faces_mm = figure(seat.faces, taped_u95_mm, "the axle's width");
        if (!in_.faces_mm && job)
            in_.faces_mm = figure(job->faces_wanted ? job->faces_wanted : job->faces, taped_u95_mm, "the axle's width");
        in_.tube_mm = figure(seat.tube ? seat.tube : job ? job->tube : std::nullopt, 0.5, "the tube");
        if (job) in_.brake_in_mm = figure(job->brake_in, taped_u95_mm, "how far the brake stands in");
        in_.springs_mm = {figure(seat.spring_left, taped_u95_mm, "where the left spring sits"),
                          figure(seat.spring_right, taped_u95_mm, "where the right spring sits")};
        in_.spring_width_mm = figure(seat.spring_width, 0.5, "the springs' width");
        in_.pad_slope_rad = figure(seat.pad_slope, level_u95_rad, "the slope of the springs' seats");
        in_.pinion_slope_rad = chosen(seat.pinion_slope);
        if (!in_.pinion_slope_rad)
            for (const drive::EndIn& e : r_.drive.input().ends)
                if (e.kind == DriveEndKind::Pinion && e.on == (front_ ? Carrier::Front : Carrier::Rear) && e.slope) {
                    in_.pinion_slope_rad = *e.slope;
                    in_.pinion_slope_rad->value += e.turned_rad;
                    in_.pinion_slope_rad->provenance = worst(Provenance::Derived, e.slope->provenance);
                    if (e.slope->provenance == Provenance::Assumed) in_.assumed.emplace_back("the pinion's slope");
                }
        in_.kingpin_rad = figure(seat.kingpin, level_u95_rad, "how the kingpins lean");
        in_.caster_rad = chosen(seat.caster);
        const auto value = [](const std::optional<build::Dimension>& d) { return d ? std::optional(d->value) : std::nullopt; };
        in_.u_bolt_mm = value(seat.u_bolt);
        in_.stack_mm = value(seat.stack);
        in_.plate_mm = value(seat.plate);
    }
    void wheels() {
        std::array<int, 2> at{-1, -1};
        for (const auto& [id, p] : b_.points)
            if (p.subject == the_chassis && p.role == (front_ ? Role::FrontHub : Role::RearHub) && sideOf(p.name) != Side::None) {
                at[sideOf(p.name) == Side::Right ? 1 : 0] = points_.take(id);
                hung_ = hung_ || measuredHanging(b_, id);
            }
        marked_ = at[0] >= 0 && at[1] >= 0;
        order_ = {static_cast<std::size_t>(std::max(0, at[0])), static_cast<std::size_t>(std::max(0, at[1]))};
    }
    /// Its place in the input; −1: it has none.
    int place(PointId id) {
        const int k = marked_ ? points_.take(id) : -1;
        if (k < 0) {
            in_.assumed.push_back(fmt::format("nothing of {}: {}", nameOf(b_, id),
                                              marked_ ? "measure it on Tape" : "mark the wheels' centres on Tape"));
            return -1;
        }
        if (const auto& lost = points_.assumed(); std::find(lost.begin(), lost.end(), nameOf(b_, id)) != lost.end())
            in_.assumed.push_back("where " + nameOf(b_, id) + " is");
        order_.push_back(static_cast<std::size_t>(k));
        return static_cast<int>(order_.size()) - 1;
    }
    void take(const AxleBracket& a) {
        drive::BracketIn out;
        out.name = a.name;
        out.tag = "bracket:" + a.name;
        out.kind = a.kind;
        out.closed = a.closed;
        out.open = a.open;
        if (a.point) {
            out.place = place(a.point);
            if (out.place < 0) return;
        } else {
            const auto of = [&](const build::Dimension& d) {
                assume(d, "where " + a.name + " is");
                return Figure{d.value, taped_u95_mm, d.provenance};
            };
            out.right_mm = of(*a.right);
            out.up_mm = of(*a.up);
            out.ahead_mm = a.ahead ? of(*a.ahead) : Figure{0, taped_u95_mm, Provenance::Derived};
        }
        if (a.frame) out.frame = place(a.frame);
        in_.brackets.push_back(std::move(out));
    }
    /// The axle's end of a link is a bracket as well.
    void take(const Link& l) {
        if (l.of != (front_ ? Hung::FrontAxle : Hung::RearAxle)) return;
        const std::size_t end = l.kind == LinkKind::Rod ? 1 : l.kind == LinkKind::Watts ? 0 : l.points.size();
        if (end >= l.points.size()) return;
        drive::BracketIn out;
        out.name = l.name;
        out.tag = "link:" + l.name;
        out.place = place(l.points[end]);
        if (out.place >= 0) in_.brackets.push_back(std::move(out));
    }
    void finish() {
        Places& out = in_.places;
        if (!marked_) {
            out = {{"left", "right"}, {{0, -700, 300}, {0, 700, 300}}, std::vector<double>(36, 0)};
        } else {
            const Places all = points_.places();
            const std::size_t n = 3 * order_.size(), of = 3 * all.at.size();
            out.covariance.assign(n * n, 0);
            for (std::size_t i = 0; i < n; ++i)
                for (std::size_t j = 0; j < n; ++j)
                    out.covariance[i * n + j] = all.covariance[(3 * order_[i / 3] + i % 3) * of + 3 * order_[j / 3] + j % 3];
            for (std::size_t k = 0; k < order_.size(); ++k) {
                out.names.push_back(all.names[order_[k]]);
                out.at.push_back(k < 2 ? r_.planned_chassis.mapHub(all.at[order_[k]], !front_)
                                       : r_.planned_chassis.map(all.at[order_[k]]));
            }
        }
        const WheelTravel& t = b_.travel;
        const build::Dimension &bump = front_ ? t.front_bump : t.rear_bump, &droop = front_ ? t.front_droop : t.rear_droop;
        in_.bump_mm = bump.value;
        if (std::none_of(in_.brackets.begin(), in_.brackets.end(), [](const drive::BracketIn& b) { return b.frame >= 0; }))
            return;
        assume(bump, fmt::format("how far the {} wheels go up", word(end_)));
        assume(droop, fmt::format("how far the {} wheels go down", word(end_)));
        if (hung_ && marked_)
            in_.assumed.push_back(fmt::format(
                "that the {} hung as it does on its wheels: the car stood on something else when it was measured", in_.name));
        in_.travel.push_back({});
        const Vec3 middle = geometry::along(out.at[0], out.at[1], 0.5);
        const drive::TravelIn* held = heldBy(r_, front_, std::nullopt);
        for (const auto& [left, right] : {std::pair{bump.value, bump.value}, std::pair{-droop.value, -droop.value},
                                          std::pair{bump.value, -droop.value}, std::pair{-droop.value, bump.value}}) {
            if (!held) {
                in_.travel.push_back(axleMotion(middle, std::max(1.0, out.at[1].y_mm - out.at[0].y_mm), left, right));
                continue;
            }
            const auto stances = drive::sweep(drive::linkageOf(held->held, held->places.at), {{left, right, 0}});
            if (!stances.empty()) in_.travel.push_back(stances.front().moved);
        }
        if (!held) in_.assumed.push_back(fmt::format("that the {} goes straight up and down", in_.name));
    }

    const Build& b_;
    const Results& r_;
    AxleEnd end_;
    bool front_;
    FixedPoints points_;
    drive::AxleSetupIn in_;
    std::vector<std::size_t> order_;
    bool marked_ = false;
    bool hung_ = false; ///< the wheels, when their centres were measured
};

Card seatCard(const Build& b, const WorkedSetup& w, const AxleSeat* seat) {
    Card c;
    c.title = w.plan.name + " on the bench";
    c.word = verdictWord(w.plan.verdict);
    c.severity = sheet::severityOf(w.plan.verdict);
    for (const drive::PerchRow& p : w.plan.perches)
        c.rows.push_back({fmt::format("{} perch, from both faces", p.right ? "right" : "left"),
                          fmt::format("{:.1f}, {:.1f} mm", p.from_left_mm.value, p.from_right_mm.value),
                          sheet::markOf(p.from_left_mm.provenance), false});
    if (w.plan.pinion_up_rad)
        c.rows.push_back({w.plan.pinion_up_rad->value < 0 ? "pinion's nose under the seats" : "pinion's nose over the seats",
                          units::formatAngle(std::abs(w.plan.pinion_up_rad->value)),
                          sheet::markOf(w.plan.pinion_up_rad->provenance), false});
    if (!w.plan.remarks.empty()) c.sentences.push_back(w.plan.remarks.front().sentence + " " + w.plan.remarks.front().remedy);
    c.sentences.push_back(fmt::format("Caution: {}", setup_caution));
    if (!w.input.gears.empty())
        addPhotos(c, b, {"", "", fmt::format("{}-axle", word(w.end)), Stage::Unsaid, "how its gears bear"});
    const std::string line = fmt::format("seat {} ", word(w.end));
    c.actions.push_back({"width", line + "faces ", "", true});
    c.actions.push_back({"springs", line + "springs ", "", true});
    c.actions.push_back({"their slope", line + "pads ", "", true});
    c.actions.push_back({"pinion", line + "pinion ", "", true});
    c.actions.push_back({"U-bolts", line + "u-bolt ", "", true});
    c.actions.push_back({"a bracket", "bracket ", "", true});
    c.actions.push_back({"tacked", "tacked ", "", true});
    if (seat) {
        c.actions.push_back({"remove", fmt::format("remove seat {}", word(w.end)), "", false});
        c.journal_table = "axle-seat";
        c.journal_id = seat->id.value;
    }
    return c;
}

std::optional<Card> bracketCard(const Build& b, const Results& r, const std::string& name) {
    const AxleBracket* a = axleBracketNamed(b, name);
    if (!a) return std::nullopt;
    Card c;
    c.title = fmt::format("{} {} of the {} axle", word(a->kind), name, word(a->end));
    for (const WorkedSetup& w : workedSetups(b, r)) {
        if (w.end != a->end) continue;
        for (const drive::BracketRow& row : w.plan.brackets) {
            if (row.name != name) continue;
            if (w.input.faces_mm)
                c.rows.push_back({"from both faces",
                                  fmt::format("{:.1f}, {:.1f} mm", row.from_left_mm.value, row.from_right_mm.value),
                                  Mark::Derived, false});
            c.rows.push_back({"from the tube's middle",
                              fmt::format("{:.1f} ± {:.1f} mm", row.from_middle_mm.value, row.from_middle_mm.u95),
                              sheet::markOf(row.from_middle_mm.provenance), false});
            if (row.turned_rad)
                c.rows.push_back({row.turned_rad->value < 0 ? "below the pinion's line" : "over the pinion's line",
                                  units::formatAngle(std::abs(row.turned_rad->value)), Mark::Derived, false});
            if (row.shortest_mm)
                c.rows.push_back({"shortest, longest",
                                  fmt::format("{:.0f}, {:.0f} mm", row.shortest_mm->value, row.longest_mm->value), Mark::Derived,
                                  false});
            if (row.gap_mm)
                c.rows.push_back({"off its stop, at rest", fmt::format("{:.0f} ± {:.0f} mm", row.gap_mm->value, row.gap_mm->u95),
                                  Mark::Derived, false});
        }
    }
    c.sentences.push_back(fmt::format("Caution: {}", setup_caution));
    const std::string line = fmt::format("bracket {} {} {} ", name, word(a->end), word(a->kind));
    c.actions.push_back({"further in or out", line + "right ", "", true});
    c.actions.push_back({"ahead", line + "ahead ", "", true});
    c.actions.push_back({"up", line + "up ", "", true});
    c.actions.push_back({"lengths", line + "closed ", "", true});
    c.actions.push_back({"remove", "remove bracket " + name, "", false});
    c.journal_table = "axle-bracket";
    c.journal_id = a->id.value;
    return c;
}

std::vector<drive::AxleSetupView> viewsOf(const std::vector<WorkedSetup>& all) {
    std::vector<drive::AxleSetupView> views;
    for (const WorkedSetup& w : all) views.push_back({&w.input, &w.plan, setupTag(w.end)});
    return views;
}

} // namespace

std::vector<WorkedSetup> workedSetups(const Build& b, const Results& r) {
    std::vector<WorkedSetup> all;
    for (const AxleEnd end : {AxleEnd::Front, AxleEnd::Rear})
        if (auto in = SetupAsked(b, r, end).ask()) {
            WorkedSetup w{end, std::move(*in), {}};
            w.plan = drive::axleSetupPlan(w.input);
            all.push_back(std::move(w));
        }
    return all;
}

sheet::Drawing axleSetupDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                                const sheet::Format& f) {
    const auto all = workedSetups(b, r);
    return drive::axleSetupSheet(viewsOf(all), width, height, f);
}

Headline axleSetupHeadline(const Build& b, const Results& r, SubjectId) {
    const auto all = workedSetups(b, r);
    if (all.empty())
        return {
            "No axle is on the bench yet.",
            "Say how wide it is and where its springs sit: seat rear faces 1420 tube 76 springs 430 430 width 60 pads 0deg pinion 3deg."};
    const WorkedSetup* w = &all.front();
    for (const WorkedSetup& each : all)
        if (each.plan.verdict > w->plan.verdict) w = &each;
    Headline h;
    if (w->plan.perches.size() == 2)
        h.sentence = fmt::format("The {}: perches {:.0f} and {:.0f} mm from the nearer wheel faces.", w->plan.name,
                                 w->plan.perches[0].from_left_mm.value, w->plan.perches[1].from_right_mm.value);
    else
        h.sentence = fmt::format("The {}: {} to be welded on.", w->plan.name, units::counted(w->plan.brackets.size(), "bracket"));
    h.below = w->plan.verdict == PlanVerdict::Holds ? std::string("Holds. ")
              : !w->plan.remarks.empty() ? fmt::format("{}: {} ", verdictWord(w->plan.verdict), w->plan.remarks.front().sentence)
              : !w->plan.missing.empty() ? fmt::format("Marginal: not judged for want of {}. ", w->plan.missing.front())
                                         : fmt::format("Marginal: {} was never measured. ", w->input.assumed.front());
    h.below += setup_caution;
    return h;
}

std::vector<sheet::Drawing> axleSetupPages(const Build& b, const Results& r) {
    std::vector<sheet::Drawing> pages;
    const auto all = workedSetups(b, r);
    for (const drive::AxleSetupView& v : viewsOf(all)) {
        sheet::Area area;
        sheet::Drawing page = sheet::blankPage(titled(b, r, fmt::format("Drive: the {} on the bench", v.plan->name)),
                                               {setup_caution, local_rules}, area);
        placeFitted(page, area, [&](double w, double h, const sheet::Format& f) { return drive::axleSetupSheet({v}, w, h, f); });
        pages.push_back(std::move(page));
    }
    return pages;
}

std::optional<Card> axleSetupCard(const Build& b, const Results& r, const Tag& tag) {
    if (tag.kind == "bracket") return bracketCard(b, r, tag.rest);
    if (tag.kind != "axle-seat") return std::nullopt;
    for (const WorkedSetup& w : workedSetups(b, r))
        if (word(w.end) == tag.rest) return seatCard(b, w, axleSeatOf(b, w.end));
    return std::nullopt;
}

std::string driveAxleJson(const Build& b, const Results& r) {
    Json j;
    j["axles"] = Json::array();
    for (const WorkedSetup& w : workedSetups(b, r)) {
        const drive::AxleSetupPlan& p = w.plan;
        Json one = {{"axle", word(w.end)}, {"verdict", verdictWord(p.verdict)}};
        one["perches"] = Json::array();
        for (const drive::PerchRow& row : p.perches) {
            Json perch = {{"side", row.right ? "right" : "left"}};
            put(perch, row.from_left_mm, "_mm", "from_left_face");
            put(perch, row.from_right_mm, "_mm", "from_right_face");
            one["perches"].push_back(std::move(perch));
        }
        if (p.pinion_up_rad) put(one, *p.pinion_up_rad, "_deg", "pinion_nose_over_seats");
        if (p.wedge_rad) put(one, *p.wedge_rad, "_deg", "wedge_kingpin_back");
        one["brackets"] = Json::array();
        for (const drive::BracketRow& row : p.brackets) {
            Json bracket = {{"name", row.name}, {"kind", word(row.kind)}};
            if (w.input.faces_mm) {
                put(bracket, row.from_left_mm, "_mm", "from_left_face");
                put(bracket, row.from_right_mm, "_mm", "from_right_face");
            }
            put(bracket, row.from_middle_mm, "_mm", "from_tube_middle");
            if (row.turned_rad) put(bracket, *row.turned_rad, "_deg", "over_pinion_line");
            if (row.rest_mm) put(bracket, *row.rest_mm, "_mm", "length_at_rest");
            if (row.shortest_mm) put(bracket, *row.shortest_mm, "_mm", "shortest");
            if (row.longest_mm) put(bracket, *row.longest_mm, "_mm", "longest");
            if (row.gap_mm) put(bracket, *row.gap_mm, "_mm", "gap_at_rest");
            one["brackets"].push_back(std::move(bracket));
        }
        one["u_bolt"] = p.u_bolt ? Json{{"inside_mm", number(p.u_bolt->inside_mm)},
                                        {"leg_mm", number(p.u_bolt->leg_mm)},
                                        {"thread_mm", number(p.u_bolt->thread_mm)},
                                        {"rod_mm", number(p.u_bolt->rod_mm)}}
                                 : Json(nullptr);
        one["photos"] = w.input.photos;
        one["gears"] = Json::array();
        for (std::size_t k = 0; k < p.gears.size(); ++k)
            one["gears"].push_back({{"check", word(w.input.gears[k].check)},
                                    {"unit", p.gears[k].unit},
                                    {"least", number(p.gears[k].least)},
                                    {"most", number(p.gears[k].most)},
                                    {"mean", number(p.gears[k].mean)},
                                    {"verdict", verdictWord(p.gears[k].verdict)}});
        one["tacked"] = Json::array();
        for (const TackReading& t : w.input.tacks)
            one["tacked"].push_back({{"name", t.name},
                                     {"wanted_mm", t.wanted ? number(t.wanted->value) : Json(nullptr)},
                                     {"tacked_mm", number(t.tacked.value)},
                                     {"welded_mm", t.welded ? number(t.welded->value) : Json(nullptr)}});
        one["remarks"] = remarksJson(p.remarks);
        one["assumed"] = w.input.assumed;
        one["missing"] = p.missing;
        j["axles"].push_back(std::move(one));
    }
    j["cautions"] = {setup_caution, local_rules};
    return text(j);
}

} // namespace gorvet::analysis
