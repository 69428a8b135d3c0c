#include "stretch/stretch.hpp"

#include "stretch/parts.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::stretch {
namespace {

using build::PlanVerdict;

RailCut cutOf(const build::RailLine& rail, const Input& in, double change) {
    RailCut cut;
    const auto at = rail.at(*in.cut_station_mm);
    if (!at) return cut;
    cut.known = true;
    cut.slope_rad = at->slope_rad;
    const double along = std::abs(change) / std::cos(at->slope_rad);
    cut.first_station_mm = *in.cut_station_mm;
    if (change < 0) {
        cut.length_mm = along + in.root_gap_mm;
        cut.last_station_mm = cut.first_station_mm + cut.length_mm * std::cos(at->slope_rad);
    } else {
        cut.length_mm = along + in.kerf_mm - 2 * in.root_gap_mm;
        cut.last_station_mm = cut.first_station_mm;
    }
    cut.sideways_mm = sidewaysOf(rail, cut.first_station_mm, change, cut.last_station_mm);
    return cut;
}

void findNear(Plan& p, const Input& in) {
    const RailCut& cut = p.left.known ? p.left : p.right;
    for (const Obstacle& o : withAxles(in)) {
        Near near{o, 0, PlanVerdict::Holds};
        // what reaches over a cut line stands inside it by so much
        near.distance_mm = std::max(cut.first_station_mm - o.station_mm, o.station_mm - cut.last_station_mm) - o.half_mm;
        if (near.distance_mm <= 0 && (p.shortens || o.half_mm > 0))
            near.verdict = PlanVerdict::Fails;
        else if (near.distance_mm < p.clearance_need_mm)
            near.verdict = PlanVerdict::Marginal;
        p.near.push_back(near);
    }
    std::stable_sort(p.near.begin(), p.near.end(), [](const Near& a, const Near& b) { return a.distance_mm < b.distance_mm; });
}

/// Of a sleeve that is made for ends that stand beside each other: as steep as a box may taper, and as far turned as rails may
/// be.
void stepRemark(Plan& p, const Input& in, double off, const char* side) {
    constexpr double taper = 4, most_deg = 10;
    const double length = in.overlap_heights * in.left.height_mm;
    const double kink = units::degrees(std::atan2(off, std::abs(p.change_mm)));
    const bool holds = p.shortens ? length >= taper * off : kink <= most_deg;
    const auto mm = [](double v) { return units::fixed(v, 1) + " mm"; };
    p.remarks.push_back(
        {"sleeve-step", holds ? PlanVerdict::Marginal : PlanVerdict::Fails,
         p.shortens
             ? fmt::format("The {} sleeve is made of plates with a step of {} in it, spread over {} on either side of the joint.",
                           side, mm(off), mm(taper / 2 * off))
             : fmt::format(
                   "The new piece of the {} rail stands at {}° to it, and the sleeve is made with that kink at both joints.",
                   side, units::fixed(kink, 1)),
         holds        ? "Try it in both ends first; fish plates are bent the same. Have it looked at by someone licensed."
         : p.shortens ? fmt::format("Make the overlap {} rail heights.",
                                    units::fixed(std::ceil(10 * taper * off / in.left.height_mm) / 10, 1))
                      : "Cut where the rails run less aside.",
         p.shortens ? mm(off) : units::fixed(kink, 1) + "°", p.shortens ? mm(length / taper) : "10°"});
}

void findRemarks(Plan& p, const Input& in) {
    const auto add = [&p](const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) -> Remark& {
        return p.remarks.emplace_back(Remark{code, verdict, std::move(sentence), std::move(remedy), {}, {}});
    };
    const char* rail_word = in.spine ? "spine" : "rail";
    if (in.heat_treated)
        add("heat-treated", PlanVerdict::Fails,
            "The rails are heat-treated or of ultra-high strength: welding would take their strength away.",
            "Stop here and ask a licensed engineer.");
    const RailCut& cut = p.left.known ? p.left : p.right;
    if (p.tail)
        add("tail", PlanVerdict::Holds,
            fmt::format("The cut lies behind the rear axle: the frame's tail becomes {} mm {}, the wheelbase stays as it is.",
                        units::fixed(std::abs(p.change_mm), 0), p.shortens ? "shorter" : "longer"),
            "Cut between the axles to change the wheelbase.");
    else if ((in.front_axle_mm && cut.first_station_mm <= *in.front_axle_mm) ||
             (in.rear_axle_mm && cut.last_station_mm >= *in.rear_axle_mm))
        add("outside-wheelbase", PlanVerdict::Fails,
            "The cut lies outside the wheelbase: it would not change the distance between the axles.",
            "Choose a station between the two axles.")
            .of(units::fixed(in.cut_station_mm.value_or(0), 0) + " mm",
                fmt::format("{} to {} mm", units::fixed(in.front_axle_mm.value_or(0), 0),
                            units::fixed(in.rear_axle_mm.value_or(0), 0)));
    for (const auto& [rail, side] : {std::pair{&p.left, "left"}, {&p.right, "right"}}) {
        const double off = std::abs(rail->sideways_mm);
        if (!rail->known || off <= in.sleeve_fit_mm) continue;
        if (in.stepped) {
            stepRemark(p, in, off, side);
            continue;
        }
        // each end may stand off the sleeve by its fit: twice of it at the most, and then no play is left
        const bool passes = off <= 2 * in.sleeve_fit_mm;
        std::string remedy = "Cut where the rails run parallel";
        if (const auto other = std::find_if(
                p.candidates.begin(), p.candidates.end(),
                [&](const Candidate& c) {
                    const double last = c.station_mm + (p.shortens ? std::abs(p.change_mm) + in.root_gap_mm : 0);
                    return std::max(std::abs(sidewaysOf(in.left, c.station_mm, p.change_mm, last)),
                                    std::abs(sidewaysOf(in.right, c.station_mm, p.change_mm, last))) <= in.sleeve_fit_mm;
                });
            other != p.candidates.end())
            remedy += fmt::format(" (at {} they do)", units::fixed(other->station_mm, 0));
        remedy += fmt::format(
            ", dog-leg the rail over a length in front of the joint, or make the sleeve with the step of {} in it (sleeve-step yes). "
            "Do not pull the ends together.",
            units::fixed(off, 1));
        add("rails-diverge", passes ? PlanVerdict::Marginal : PlanVerdict::Fails,
            fmt::format(
                "The {} rail runs aside in plan: once joined its rear end stands {} mm {} of its front end, and the sleeve's fit "
                "lets {} pass.",
                side, units::fixed(off, 1), rail->sideways_mm > 0 ? "to the right" : "to the left",
                units::fixed(in.sleeve_fit_mm, 1)),
            remedy)
            .of(units::fixed(off, 1) + " mm", units::fixed(in.sleeve_fit_mm, 1) + " mm");
    }
    if (!p.left.known || !p.right.known)
        add("one-rail", PlanVerdict::Marginal,
            fmt::format("Only the {} rail is measured at the cut.", p.left.known ? "left" : "right"),
            "Measure rail points on both sides, ahead of the cut and behind it.")
            .of("1 rail", "2 rails");
    else if (std::abs(p.left.slope_rad - p.right.slope_rad) > 0.0087)
        add("unlike-slopes", PlanVerdict::Marginal,
            fmt::format("The two rails slope differently at the cut, by {}°.",
                        units::fixed(units::degrees(std::abs(p.left.slope_rad - p.right.slope_rad)), 1)),
            "Check the frame for twist, and the readings near the cut, before cutting.")
            .of(units::fixed(units::degrees(std::abs(p.left.slope_rad - p.right.slope_rad)), 1) + "°", "0.5° at most");
    const double slope = std::max(std::abs(p.left.slope_rad), std::abs(p.right.slope_rad));
    if (slope > units::radians(3))
        add("kick-up", PlanVerdict::Marginal,
            fmt::format("The {} slopes {}° at the cut: the rear end moves {} mm {} with the change.", rail_word,
                        units::fixed(units::degrees(slope), 1), units::fixed(std::abs(p.shift.z_mm), 0),
                        p.shift.z_mm < 0 ? "down" : "up"),
            fmt::format("Choose a straight, level part of the {}.", rail_word))
            .of(units::fixed(units::degrees(slope), 1) + "°", "3.0° at most");
    if (!p.shortens && p.left.length_mm < 40 && p.left.known)
        add("short-piece", PlanVerdict::Marginal,
            fmt::format("The new piece is only {} mm long: two welds would stand close together.",
                        units::fixed(p.left.length_mm, 0)),
            "Cut a longer piece out and put a longer one in.")
            .of(units::fixed(p.left.length_mm, 0) + " mm", "40 mm");
    if (!in.assumed.empty())
        add("section-assumed", PlanVerdict::Marginal,
            fmt::format("The plan rests on assumed sizes: {}. Sleeve, distances and lengths follow them.",
                        fmt::join(in.assumed, ", ")),
            "Measure the rail and the saw's kerf, and type them.");
    if (in.change_u95_mm > 3)
        add("change-uncertain", PlanVerdict::Marginal,
            fmt::format("The change of wheelbase is known to ± {} mm only.", units::fixed(in.change_u95_mm, 1)),
            "Tape more between the wheel centres and the arches before cutting.")
            .of("± " + units::fixed(in.change_u95_mm, 1) + " mm", "± 3.0 mm");
}

/// Every fit of a tube in hand has an answer.
void tubeRemark(Plan& p, const Input& in) {
    const TubeFit& fit = *p.tube;
    const auto mm = [](double v) { return units::fixed(std::abs(v), 1) + " mm"; };
    const auto add = [&](const char* code, PlanVerdict v, std::string sentence, std::string remedy, std::string need) {
        p.remarks.push_back({code, v, std::move(sentence), std::move(remedy), mm(fit.least()), std::move(need)});
    };
    const char* way = fit.upright_mm < fit.sideways_mm ? "high" : "wide";
    if (fit.least() < 0)
        return add("tube-too-large", PlanVerdict::Fails,
                   fmt::format("The tube in hand does not go into the rail: it is {} too {}.", mm(2 * fit.least()), way),
                   in.strip_mm > 0 ? "Thinner strip, or another tube."
                                   : "Another tube; grinding takes the wall that is to carry.",
                   "0.5 mm a side");
    if (fit.most() > tube_loose_mm) {
        const double strip = std::floor((fit.most() + in.strip_mm - 1) * 2) / 2;
        add("tube-loose", PlanVerdict::Marginal,
            fmt::format("The tube in hand stands off the rail by {} a side.", mm(fit.most())),
            fmt::format(
                "Line it with strip of {} on the sides where it is loose (tube-strip {}), welded along its edges, or take another.",
                mm(strip), units::fixed(strip, 1)),
            "1.5 mm a side at most");
        p.remarks.back().figure = mm(fit.most());
    }
    if (fit.least() < tube_driven_mm)
        add("tube-driven", PlanVerdict::Marginal,
            fmt::format("The tube in hand has {} a side: it must be driven.", mm(fit.least())),
            "Ease its edges, drive it into one half to its mark, tack it, and draw the other half on with a bar: no hammer on the frame's end.",
            "0.5 mm a side");
    else if (fit.least() < tube_tight_mm)
        add("tube-tight", PlanVerdict::Marginal,
            fmt::format("The tube in hand has {} a side: scale and spatter stop it.", mm(fit.least())),
            "Scrape the rails' inside and their seams bright, and try it to its full depth before anything is tacked.",
            "0.5 mm a side");
}

void makeSleeve(Plan& p, const Input& in) {
    const build::RailLine& rail = p.left.known ? in.left : in.right;
    const double joint = p.shortens ? in.root_gap_mm : std::max(p.left.length_mm, p.right.length_mm) + 2 * in.root_gap_mm;
    p.sleeve = sleeveFor(rail, in, joint);
    if (!p.sleeve) return;
    if (p.tube)
        tubeRemark(p, in);
    else if (in.sleeve_fit_mm < tube_tight_mm || in.sleeve_fit_mm > tube_loose_mm)
        p.remarks.push_back(
            {"sleeve-fit", PlanVerdict::Marginal,
             fmt::format("The sleeve's fit is {} mm a side. It needs 0.5 to 1.5.", units::fixed(in.sleeve_fit_mm, 1)),
             "Choose another tube, or line it with strip.", units::fixed(in.sleeve_fit_mm, 1) + " mm", "0.5 to 1.5 mm"});
    if (in.overlap_heights < 1.5)
        p.remarks.push_back({"sleeve-overlap", PlanVerdict::Fails,
                             fmt::format("The sleeve overlaps {} rail heights each side. It needs 1.5 at the least.",
                                         units::fixed(in.overlap_heights, 1)),
                             "Take a longer sleeve: two rail heights each side are usual.",
                             units::fixed(in.overlap_heights, 1) + " rail heights", "1.5 rail heights"});
}

} // namespace

std::optional<Sleeve> sleeveFor(const build::RailLine& rail, const Input& in, double joint_mm) {
    if (!(rail.height_mm > 0 && rail.width_mm > 0 && rail.thickness_mm > 0)) return std::nullopt;
    Sleeve s;
    s.wall_mm = in.sleeve_wall_mm.value_or(rail.thickness_mm);
    s.height_mm = rail.height_mm - 2 * rail.thickness_mm - 2 * in.sleeve_fit_mm;
    s.width_mm = rail.width_mm - (in.channel ? 1 : 2) * (rail.thickness_mm + in.sleeve_fit_mm);
    if (in.tube_height_mm && in.tube_width_mm) {
        s.height_mm = *in.tube_height_mm;
        s.width_mm = *in.tube_width_mm;
    }
    s.overlap_mm = in.overlap_heights * rail.height_mm;
    s.length_mm = std::ceil(joint_mm + 2 * s.overlap_mm);
    if (s.height_mm <= 2 * s.wall_mm || s.width_mm <= (in.channel ? 1 : 2) * s.wall_mm) return std::nullopt;
    return s;
}

TubeFit tubeFit(const build::RailLine& rail, bool channel, double height_mm, double width_mm, double strip_mm) {
    TubeFit f;
    f.bare_upright_mm = (rail.height_mm - 2 * rail.thickness_mm - height_mm) / 2;
    f.bare_sideways_mm =
        channel ? rail.width_mm - rail.thickness_mm - width_mm : (rail.width_mm - 2 * rail.thickness_mm - width_mm) / 2;
    const auto lined = [&](double bare) { return bare > tube_loose_mm ? bare - strip_mm : bare; };
    f.upright_mm = lined(f.bare_upright_mm);
    f.sideways_mm = lined(f.bare_sideways_mm);
    return f;
}

Plan plan(const Input& given) {
    Plan p;
    Input in = given;
    const build::RailLine& holds = in.left.height_mm > 0 ? in.left : in.right;
    if (in.tube_height_mm && in.tube_width_mm && holds.height_mm > 0 && holds.thickness_mm > 0) {
        p.tube = tubeFit(holds, in.channel, *in.tube_height_mm, *in.tube_width_mm, in.strip_mm);
        in.sleeve_fit_mm = std::max(0.0, p.tube->most()); // what a plug has to bridge
    }
    const double height = std::max(in.left.height_mm, in.right.height_mm);
    p.clearance_need_mm = std::max(150.0, 1.5 * height);
    if (!in.change_mm) {
        p.waiting_for = "the change of wheelbase: pin the rear wheels in their arches on Sit, or decide it here";
        return p;
    }
    p.change_mm = *in.change_mm;
    p.shortens = p.change_mm < 0;
    if (std::abs(p.change_mm) < 0.5) {
        p.status = Status::NoChange;
        p.verdict = PlanVerdict::Holds;
        return p;
    }
    p.tail = in.cut_station_mm && in.rear_axle_mm && *in.cut_station_mm > *in.rear_axle_mm;
    findStations(p, in);
    if (!in.cut_station_mm) {
        p.shift = {p.change_mm, 0, 0};
        p.waiting_for = "a cut station on the rail";
        return p;
    }
    p.left = cutOf(in.left, in, p.change_mm);
    p.right = cutOf(in.right, in, p.change_mm);
    if (!p.left.known && !p.right.known) {
        p.shift = {p.change_mm, 0, 0};
        p.waiting_for = in.spine ? "the spine as far as the cut (member spine spine from 200 to 2400 box 180 140 1.6)"
                                 : "rail points ahead of the cut and behind it (role rail)";
        return p;
    }
    p.status = Status::Planned;
    const double slope = p.left.known && p.right.known ? (p.left.slope_rad + p.right.slope_rad) / 2
                         : p.left.known                ? p.left.slope_rad
                                                       : p.right.slope_rad;
    p.shift = {p.change_mm, 0, -p.change_mm * std::tan(slope)};
    // ends that stand beside each other have no butt weld through them
    const double beside = std::max(std::abs(p.left.sideways_mm), std::abs(p.right.sideways_mm));
    if (p.shortens && beside > holds.thickness_mm / 2 && in.butt_counts) {
        in.butt_counts = false;
        p.remarks.push_back(
            {"butt-beside", PlanVerdict::Marginal,
             fmt::format("The ends stand {} mm beside each other: no butt weld goes through there, and none is counted.",
                         units::fixed(beside, 1)),
             "Sleeve and plates carry all of it.", units::fixed(beside, 1) + " mm",
             units::fixed(holds.thickness_mm / 2, 1) + " mm"});
    }
    p.butt_counts = in.butt_counts;
    findNear(p, in);
    findRemarks(p, in);
    if (in.spine) {
        planSpine(p, in);
    } else {
        makeSleeve(p, in);
        joinStrength(p, in);
    }
    answerCrossings(p, in);
    p.verdict = PlanVerdict::Holds;
    const auto worsen = [&p](PlanVerdict v) { p.verdict = std::max(p.verdict, v); };
    for (const Near& near : p.near) worsen(near.verdict);
    for (const Remark& remark : p.remarks) worsen(remark.verdict);
    for (const Crossing& crossing : p.crossings) worsen(crossing.verdict);
    return p;
}

} // namespace gorvet::stretch
