// Which steps a build needs, from its facts. The cautions stand at the step where they matter.
#include "work/moves.hpp"

#include <algorithm>
#include <cmath>

#include "work/catalogue.hpp"
#include <fmt/format.h>

namespace gorvet::work {

void Catalogue::before() {
    Step& record = add("record", "Photograph it from all sides, bag and label what comes off, note where its numbers are");
    record.cautions = {plates_and_numbers};
    if (f_.cut_planned || !f_.grafts.empty() || !f_.widths.empty())
        add("rules", "Ask the authority and a licensed engineer what this change needs").cautions = {rules_first};
    if (cold_ && f_.battery != Presence::Absent) {
        Step& s = add("battery-out", "Take the battery out", {"record"});
        s.cautions = {battery_order};
        if (f_.battery == Presence::Unknown) s.why = battery_not_told;
    }
    if (cold_ && f_.restraints != Presence::Absent) {
        Step& s = add("restraints-off", "Have airbags and belt tensioners made safe", {"battery-out"});
        s.cautions = {restraints};
        if (f_.restraints == Presence::Unknown) s.why = "Nothing is said about restraint systems, so they are taken as there.";
    }
    if (cold_ && f_.refrigerant != Presence::Absent) {
        Step& s = add("refrigerant-out", "Have the refrigerant taken out", {"record"});
        s.cautions = {refrigerant};
        if (f_.refrigerant == Presence::Unknown) s.why = "Nothing is said about refrigerant, so it is taken as there.";
    }
    if ((hot_ || turns_) && f_.fuel_tank != Presence::Absent) {
        Step& s = add("tank-out", "Drain and take out the fuel tank, cap the lines", {"battery-out"});
        s.cautions = {tank_out};
        if (f_.fuel_tank == Presence::Unknown) s.why = "Nothing is said about the fuel tank, so it is taken as there.";
    }
    for (const TemporarySteel& t : f_.temporary) {
        Step& s = add("brace-in-" + t.name, fmt::format("Fit the brace {}{}", t.name, t.purpose.empty() ? "" : ": " + t.purpose),
                      cold());
        s.fits = t.id;
        s.cautions = {hot_work};
        if (!t.blocks.empty()) s.why = "It blocks " + t.blocks + ".";
        if (!t.gap)
            s.why += std::string(s.why.empty() ? "" : " ") + "Measure the gap it keeps, and type it: brace " + t.name + " gap …";
    }
    if (f_.temporary.empty() && f_.has_body && f_.start.body == BodyPlace::On && hot_) {
        Step& s = add("brace-body", "Brace the door openings and across the sills", cold());
        s.cautions = {hot_work};
        s.why = "No brace is listed; a body without one loses its door gaps. List each: brace door-left gap 4.5";
    }
    Step& agree = add("survey-agrees", "The survey of the chassis can be built on");
    agree.hold = true;
    agree.conditions = {
        {f_.survey_open.empty() ? "All points fixed, no reading left to tape again" : f_.survey_open, f_.survey_open.empty()}};
}

void Catalogue::loosen() {
    Step& s = add("disconnect", "Disconnect and tag all that ties the body to the frame",
                  {"record", "battery-out", "restraints-off", "refrigerant-out"});
    s.why = "Loom, earth straps, brake and clutch lines, steering shaft, filler, hoses, cables: the forgotten one tears.";
    bodyOn(s);
    Step& u = add("unbolt-body", "Take out the body bolts, all but four at the corners", plus({"disconnect"}, fits()));
    bodyOn(u);
    u.why = "Soak seized ones days before.";
}

void Catalogue::stands() {
    Step& support = add("support-frame",
                        f_.cut_planned ? "Set the frame on stands, two pairs ahead of the cut and two behind, level across"
                                       : "Set the frame on stands, level across",
                        plus({"record"}, fits()));
    bodyOff(support);
    support.sets_support = Support::Stands;
    if (!f_.stand_words.empty()) support.why = f_.stand_words;
    if (f_.cut_planned) support.cautions.emplace_back(stands_each_side);
    support.cautions.emplace_back(jack);
    if (!turns_) return;
    Step& strip = add("strip-frame", "Take engine, gearbox, axles, springs and all else that hangs on the frame off it",
                      {"support-frame", "disconnect", "battery-out", "tank-out", "refrigerant-out"});
    bodyOff(strip);
    strip.why = "It is turned over later: only a bare frame is.";
    strip.cautions = {jack, brakes};
}

/// Up to the hold point before the saw.
void Catalogue::openRails() {
    Step& clear = add("clear-rails", "Take away or move what runs along the cut, cap open lines",
                      {"disconnect", "tank-out", "battery-out"});
    for (const CrossingJob& c : f_.crossings) clear.why += (clear.why.empty() ? "It crosses the cut: " : ", ") + c.said();
    if (!clear.why.empty()) clear.why += ".";
    std::string out;
    for (const CrossingJob& c : f_.crossings)
        if (c.out_before_heat) out += (out.empty() ? "" : ", ") + c.said();
    if (!out.empty()) clear.why += fmt::format(" Out of the car, not only aside, before anything hot: {}.", out);
    Step& scribe = add("scribe", "Scribe the cut lines " + f_.cut_words + " on both rails, and punch marks 100 ahead and behind",
                       {"survey-agrees", "support-frame"});
    bodyOff(scribe);
    Step& tie = add("tie-rails", "Tie the rails: across ahead of the cut and behind it, and a slotted guide along each",
                    {"scribe", "tank-out", "battery-out", "clear-rails"});
    bodyOff(tie);
    tie.cautions = {hot_work};
    tie.why = f_.part_words;
}

void Catalogue::cutting() {
    f_.spine ? openSpine() : openRails();
    Step& hold = add("before-cutting", "Tape the diagonals over the cut once more, and level both ends and both sides of it",
                     {"tie-rails", "clear-rails", "inside-apart", "rules", "restraints-off", "refrigerant-out"});
    bodyOff(hold);
    hold.hold = true;
    hold.conditions.push_back({f_.plan_open.empty() ? "The plan of the cut stands" : f_.plan_open, f_.plan_open.empty()});
    shape(hold, false);
    if (!f_.flaw_open.empty()) hold.conditions.push_back({f_.flaw_open, false});
    Step& cut = add("cut-rails",
                    fmt::format("Cut {} {}{}", f_.spine ? "the spine" : "both rails",
                                f_.spine ? f_.cut_words + ", " + f_.pan_words + ", and slit between them" : f_.cut_words,
                                f_.shortens ? " and take the pieces out" : ""),
                    {"before-cutting"});
    bodyOff(cut);
    cut.no_return = true;
    cut.before_return = {f_.spine ? "Nothing runs through the spine where it is cut: look in with a lamp."
                                  : "Nothing runs inside the rails: look in with a lamp.",
                         "Both halves stand by themselves."};
    cut.cautions = {stands_each_side, discs, plates_and_numbers};
    Step& ends = add("prepare-ends",
                     f_.spine ? "Clean the edges bright on both faces, drill the plug holes, blow the spine out, coat the inside"
                              : "Bevel and clean the ends bright, drill the plug holes, blow the rails out, coat the inside",
                     {"cut-rails"});
    bodyOff(ends);
    if (!f_.plug_words.empty()) ends.why = "Plug holes: " + f_.plug_words + ".";
    ends.cautions = {discs};
    if (f_.crossmember && nuts_through_ends_) {
        Step& nuts =
            add("captive-nuts", "Bolt the crossmember's nuts on through the drilled holes, weld them in through the open ends",
                plus({"cut-rails", "drill-rails"}, cold()));
        bodyOff(nuts);
        nuts.why = "A bolt holds each nut where its hole is; draw it once the nut is cold.";
        nuts.cautions = {hot_work};
    }
    f_.spine ? closeSpine() : closeRails();
    for (const CrossingJob& c : f_.crossings) {
        Step& s = add(c.code(), c.answer, {"after-welding", "coat-frame"});
        s.likely_h = c.hours;
        if (!c.caution.empty()) s.cautions = {c.caution};
    }
}

/// From the open ends to the ties taken off.
void Catalogue::closeRails() {
    std::vector<std::string> open_ends{"prepare-ends"};
    if (nuts_through_ends_) open_ends.emplace_back("captive-nuts");
    if (!f_.sleeve_words.empty()) {
        Step& try_in =
            add("try-sleeves", "Try each sleeve in both ends to its full depth: nothing inside may stop it", open_ends);
        bodyOff(try_in);
    }
    Step& close = add("close-up",
                      f_.sleeve_words.empty() ? std::string("Close the rails up to the root gap and clamp them")
                                              : "Slide the sleeves in (" + f_.sleeve_words + "), close up to the root gap, clamp",
                      plus(open_ends, {"try-sleeves"}));
    bodyOff(close);
    Step& tack = add("tack-rails", "Tack the joints: four short tacks each, by turns left and right", {"close-up"});
    bodyOff(tack);
    tack.cautions = {hot_work, fumes};
    Step& before_weld = add("before-welding", "Tape the diagonals and take the levels before full welding", {"tack-rails"});
    bodyOff(before_weld);
    before_weld.hold = true;
    shape(before_weld, true);
    Step& weld = add("weld-rails", "Weld the upper sides and webs, plug welds first, by turns left and right, letting it cool",
                     {"before-welding"});
    bodyOff(weld);
    weld.no_return = true;
    weld.before_return = {"The inside is coated as far as the heat reaches.",
                          "The rails are blown clean and nothing is left inside.", "Drain and vent holes are open."};
    if (f_.crossmember && nuts_through_ends_) weld.before_return.emplace_back("The captive nuts are in.");
    weld.cautions = {licensed_welds, hot_work, fumes};
    fromBelowAndCold(std::string("Weld the undersides") + (f_.fish_plates ? " and the fish plates" : ""), "rails");
}

void Catalogue::fromBelowAndCold(std::string title, const char* tied) {
    Step& below = add("weld-below", std::move(title), {"weld-rails"});
    fromBelow(below);
    below.cautions = {licensed_welds, hot_work, fumes};
    Step& after_weld = add("after-welding", "Tape the diagonals and take the levels when it is cold", {"weld-below"});
    bodyOff(after_weld);
    after_weld.hold = true;
    shape(after_weld, true);
    Step& untie = add("untie-rails", fmt::format("Take the ties off the {} and grind their marks", tied), {"after-welding"});
    bodyOff(untie);
    untie.cautions = {discs};
}

bool nutsThroughOpenEnds(const Facts& f) {
    if (!f.crossmember || !f.captive_nuts || !f.cut_planned || !f.joint_station_mm) return false;
    return std::all_of(f.nut_stations_mm.begin(), f.nut_stations_mm.end(),
                       [&](double x) { return std::abs(x - *f.joint_station_mm) <= arm_reach_mm; });
}

std::vector<Step> stepsFor(const Facts& f, std::vector<std::string>* apart) { return Catalogue(f).all(apart); }

} // namespace gorvet::work
