// Jobs of one's own, what they wait for, and what did not come off.
#include "build/rules.hpp"

#include "units/dates.hpp"

#include <algorithm>
#include <cmath>

namespace gorvet::build {

namespace {

/// A figure, or three in their order; nothing is said where all are 0.
Checked threePoints(const std::string& subject, const char* what, double least, double likely, double most) {
    if (least == 0 && most == 0) return {};
    if (least > 0 && least <= likely && likely <= most) return {};
    return bad(subject, fmt::format("The {} go from the least over the likely to the most.", what),
               "Like: hours 2 3 6, or one figure alone.");
}

} // namespace

Checked rules(const Build&, const Job& j) {
    if (auto c = threePoints(j.name, "hours", j.least_h, j.likely_h, j.most_h); !c) return c;
    if (j.attitude && *j.attitude != Attitude::RightWayUp && j.body == BodyPlace::On)
        return bad(j.name, "A frame can't be turned over with the body on.", "Leave one of the two out.");
    if (j.attitude && *j.attitude != Attitude::RightWayUp && j.support == Support::Wheels)
        return bad(j.name, "A frame that is turned over can't stand on its wheels.", "Leave one of the two out.");
    if (!j.closes.empty() && j.closes == j.inside)
        return bad(j.name, "What is done inside a space can't close it off.", "Make two jobs of it.");
    for (const auto* list : {&j.after, &j.before})
        for (const std::string& code : *list)
            if (code == j.name || code == "job-" + j.name) return bad(j.name, "A job can't wait for itself.");
    return {};
}

Checked rules(const Build&, const Awaited& a) {
    if (a.step.empty())
        return bad(a.name, "What is awaited needs the step that waits for it.", "Like: await seal for job-doors.");
    if (auto c = threePoints(a.name, "days", a.least_days, a.likely_days, a.most_days); !c) return c;
    return {};
}

Checked rules(const Build&, const Attempt& a) {
    if (a.step.empty()) return bad("work", "An attempt needs the code of its step.");
    return {};
}

Checked rules(const Build& b, const Lift& l) {
    if (l.centre_u95.x_mm < 0 || l.centre_u95.y_mm < 0 || l.centre_u95.z_mm < 0)
        return bad(l.name, "The ± of a centre of gravity can't be below 0.");
    if (l.way == LiftWay::Slings)
        if (std::any_of(b.lift_points.begin(), b.lift_points.end(),
                        [&](const auto& row) { return row.second.lift == l.id && row.second.length_mm == 0; }))
            return bad(l.name, "A leg of slings needs its length.", "Give each leg its length first.");
    return {};
}

Checked rules(const Build& b, const LiftPoint& p) {
    if (b.lifts.at(p.lift).way == LiftWay::Slings && p.length_mm == 0)
        return bad(p.name, "A leg of slings needs its length.", "Like: leg cab front-left -600 -500 900 long 1800.");
    return {};
}

Checked rules(const Build& b, const DayOff& d) {
    const auto from = units::dayOf(d.from), to = units::dayOf(d.to);
    if (!from || !to) return bad("days off", "Days off have a first and a last date.", "Like: off 2026-12-24 2027-01-02.");
    if (*to < *from) return bad(d.from, "The last day off is before the first.", "Swap the two.");
    for (const auto& [id, other] : b.days_off)
        if (id != d.id && *from <= *units::dayOf(other.to) && *units::dayOf(other.from) <= *to)
            return bad(d.from, "Those days are off already, from " + other.from + " to " + other.to + ".",
                       "Remove those first: remove off " + other.from + ".");
    return {};
}

Checked rules(const Build&, const Estimate& e) {
    if (e.likely_h <= 0) return bad(e.step, "An estimate needs its hours.", "Like: hours battery-out 0.5 1 2.");
    return threePoints(e.step, "hours", e.least_h, e.likely_h, e.most_h);
}

Checked rules(const Build&, const Worked& w) {
    if (w.day.empty()) return bad(w.step, "Hours that were worked need their day.", "Like: worked floor-left 3.5 on 2026-11-28.");
    return {};
}

Checked rules(const Build& b, const Decision& d) {
    if (d.agreed && d.chosen.empty()) return bad(d.name, "What was agreed to is missing.", "Say which of the choices.");
    if (d.agreed && d.agreed->who.empty())
        return bad(d.name, "Who agreed is missing.", "Type the name of whoever the car belongs to.");
    if (!d.chosen.empty() && std::none_of(b.choices.begin(), b.choices.end(), [&](const auto& row) {
            return row.second.decision == d.id && row.second.name == d.chosen;
        }))
        return bad(d.name, "There is no choice " + d.chosen + ".", "Add it first: choice " + d.name + " " + d.chosen + " …");
    return {};
}

Checked rules(const Build&, const Surface& s) {
    if (s.preparation == Preparation::Skip && s.skip_why.empty())
        return bad(s.name, "Why it is skipped is missing.", "Like: surface " + s.name + " skip sound factory coat.");
    return {};
}

Checked rules(const Build&, const Permit& p) {
    if (p.watched && !p.ended) return bad(p.step, "A fire watch can't be over before the last spark.");
    return {};
}

Checked rules(const Build&, const Photo& p) {
    if (p.content.empty())
        return bad(p.name, "A photo needs its content.", "Keep the file first: the photo is named by its hash.");
    if (p.turned != std::floor(p.turned)) return bad(p.name, "How the camera was held is a whole number, 1 to 8.");
    return {};
}

Checked rules(const Build&, const Stock& s) {
    const bool two = s.form == StockForm::Box || s.form == StockForm::Channel || s.form == StockForm::Angle;
    if (two && s.width_mm <= 0)
        return bad(s.name, fmt::format("A {} has a height, a width and a wall.", word(s.form)),
                   fmt::format("Like: stock {} {} 60 40 3 long 2000.", s.name, word(s.form)));
    if (!two && s.width_mm > 0) return bad(s.name, fmt::format("A {} has no second side.", word(s.form)), "Leave it out.");
    if (s.form != StockForm::Bar && s.wall_mm <= 0) return bad(s.name, "How thick it is is missing.", "Give it last: 60 40 3.");
    const double least = s.form == StockForm::Bar || s.form == StockForm::Flat || s.form == StockForm::Plate ? 1e9
                         : two ? std::min(s.height_mm, s.width_mm)
                               : s.height_mm;
    const bool hollow = s.form == StockForm::Box || s.form == StockForm::Tube;
    if (s.wall_mm * (hollow ? 2 : 1) >= least)
        return bad(s.name, fmt::format("A wall of {:g} mm does not fit into a side of {:g}.", s.wall_mm, least),
                   "Give the outside first, the wall last: 60 40 3.");
    if (s.count != std::floor(s.count)) return bad(s.name, "How many there are is a whole number.");
    return {};
}

} // namespace gorvet::build
