// The steps of single parts, and the end of the work.
// Which steps a build needs, from its facts. The cautions stand at the step where they matter.
#include "work/moves.hpp"

#include <algorithm>
#include <cmath>

#include "work/catalogue.hpp"
#include <fmt/format.h>

namespace gorvet::work {

void Catalogue::crossmember() {
    Step& make = add("make-crossmember", "Cut and weld the crossmember, flanges bolted to the rails or a jig",
                     plus({"survey-agrees"}, cold()));
    make.cautions = {licensed_welds, hot_work};
    if (!f_.crossmember_open.empty()) make.conditions = {{f_.crossmember_open, false}};
    // nuts that are welded in through open ends need their holes before the rails are cut: the flanges set them while both
    // rails are whole
    std::vector<std::string> before{"make-crossmember", "support-frame"};
    if (!nuts_through_ends_) before.emplace_back("after-welding");
    Step& drill = add("drill-rails",
                      f_.captive_nuts ? "Drill the rails through the flanges' holes"
                                      : "Drill the rails from the flanges and weld the crush tubes in",
                      plus(before, cold()));
    bodyOff(drill);
    drill.cautions = {hot_work};
    if (f_.cut_planned && nuts_through_ends_)
        for (Step& s : steps_)
            if (s.code == "cut-rails") s.after.emplace_back("drill-rails");
    if (f_.captive_nuts && !nuts_through_ends_) {
        Step& nuts = add("captive-nuts",
                         "Let the crossmember's nuts into the rails on plates through slots below, weld them and the slots",
                         plus({"drill-rails", "after-welding", "strip-frame"}, cold()));
        fromBelow(nuts);
        nuts.why += std::string(nuts.why.empty() ? "" : " ") + "No open end is within reach.";
        nuts.cautions = {licensed_welds, hot_work, fumes};
    }
    Step& fit = add("fit-crossmember", "Bolt the crossmember in, and draw every bolt once to see that it comes out",
                    {"drill-rails", "captive-nuts", "after-welding"});
    fit.attitude = Attitude::RightWayUp;
    fit.cautions = {jack};
}

void Catalogue::mounts() {
    Step& make =
        add("make-mounts",
            fmt::format("Cut the standoffs and shims of {}", units::counted(static_cast<std::size_t>(f_.mounts), "a body mount")),
            {"survey-agrees"});
    if (!f_.mounts_open.empty()) make.conditions = {{f_.mounts_open, false}};
    if (f_.mount_nuts > 0) {
        Step& nuts = add("mount-nuts",
                         fmt::format("Drill the rails and let the nuts of {} in on plates through slots below, weld them "
                                     "and the slots",
                                     units::counted(static_cast<std::size_t>(f_.mount_nuts), "a mount")),
                         plus({"make-mounts", "weld-below", "support-frame", "strip-frame"}, cold()));
        fromBelow(nuts); // in the same turn as the joint's underside
        nuts.cautions = {licensed_welds, hot_work, fumes};
    }
    Step& tack =
        add("tack-mounts", "Tack the standoffs to the rails", plus({"make-mounts", "mount-nuts", "after-welding"}, cold()));
    bodyOff(tack);
    tack.cautions = {hot_work};
    Step& trial = add("trial-sit", "Set the body down on its biscuits, bolts loose, and look at every mount and gap",
                      {"tack-mounts", "fit-crossmember", "body-edges"});
    bodyOn(trial);
    trial.cautions = {nobody_under};
    std::vector<CheckItem> gaps;
    for (const TemporarySteel& t : f_.temporary)
        if (t.gap) gaps.push_back(gapCheck(t));
    if (!gaps.empty()) {
        Step& hold = add("before-mount-welding", "Measure the braced gaps with the body on its mounts", {"trial-sit"});
        bodyOn(hold);
        hold.hold = true;
        hold.checks = std::move(gaps);
    }
    Step& weld = add("weld-mounts", "Weld the standoffs all round", {"trial-sit", "before-mount-welding"});
    bodyOff(weld);
    weld.no_return = true;
    weld.before_return = {"Every bolt went in by hand at the trial.",
                          "The places under the standoffs are bare and primed to weld through."};
    weld.cautions = {licensed_welds, hot_work, fumes};
}

void Catalogue::bodyCuts() {
    std::vector<std::string> braced = fits();
    std::vector<std::string> zones;
    for (const BodyCut& c : f_.body_cuts)
        for (const std::string& zone : c.brace)
            if (std::find(zones.begin(), zones.end(), zone) == zones.end()) zones.push_back(zone);
    for (const std::string& zone : zones) {
        Step& s = add("brace-zone-" + zone, fmt::format("Brace {}: across the opening, and from end to end", zone), cold());
        s.why =
            "It is cut into, and carries the shell. List the brace with the gap it keeps: brace NAME for " + zone + " gap 4.5";
        s.cautions = {hot_work};
        braced.push_back("brace-zone-" + zone);
    }
    std::vector<CheckItem> gaps;
    for (const TemporarySteel& t : f_.temporary)
        if (t.gap) gaps.push_back(gapCheck(t));
    std::vector<std::string> first = plus({"record", "rules", "battery-out", "tank-out", "restraints-off"}, braced);
    if (!gaps.empty()) {
        Step& hold = add("before-body-cuts", "Measure the braced gaps before the body is cut", first);
        hold.hold = true;
        hold.checks = std::move(gaps);
        first = {"before-body-cuts"};
    }
    for (const BodyCut& c : f_.body_cuts) {
        Step& s = add("cut-body-" + c.name, fmt::format("Cut the body along {}, {}", c.name, c.words), first);
        s.why = "Scribe it from the list of places or the 1:1 print, and look behind it first.";
        s.no_return = true;
        s.before_return = {"Nothing runs behind the sheet: loom, lines, trim.", "No plate with a number lies in the line."};
        s.cautions = {discs, plates_and_numbers};
        first = {"cut-body-" + c.name};
    }
    Step& edges =
        add("body-edges", "Deburr the edges of the body's cuts, weld flanges and boxes in, seal and prime both sides", first);
    edges.cautions = {hot_work, fumes};
}

/// What is right only with the weight on.
void Catalogue::onItsWheels() {
    const auto standing = [this](Step& s) {
        bodyOn(s);
        s.sets_support = Support::Wheels;
    };
    if (!f_.bushes.empty()) {
        Step& s = add("tighten-bushes", fmt::format("Tighten the bushes of the {}, the car's weight on its wheels", f_.bushes),
                      {last_, "align"});
        standing(s);
        s.why = "Tightened while it hangs, rubber is wound up for good, holds the car too high and tears.";
        s.cautions = {nobody_under, jack};
    }
    if (!f_.shaft_words.empty()) {
        Step& s =
            add("shaft-lengths",
                fmt::format("Measure joint to joint, the car on its wheels: {}. Then order what is made anew", f_.shaft_words),
                {last_, "align", "tighten-bushes"});
        standing(s);
        s.why = "What was welded and what it settled to is in it then.";
        s.cautions = {nobody_under, jack};
        if (!f_.shafts_open.empty()) s.conditions = {{f_.shafts_open, false}};
    }
}

void Catalogue::finish() {
    if (frame_hot_) {
        std::vector<std::string> done = plus(allThatBurns(), {"untie-rails", "after-welding"});
        for (const GraftJob& g : f_.grafts) done.push_back("graft-cold-" + g.name);
        std::erase(done, "body-edges"); // the body's own
        std::erase(done, "make-crossmember");
        Step& coat = add("coat-frame", "Clean, seal the seams and coat the frame, inside too", done);
        bodyOff(coat);
        coat.cautions = {coating};
    }
    if (turns_) {
        Step& refit = add("refit-frame", "Put engine, gearbox, axles and springs back on the frame",
                          {"strip-frame", "coat-frame", "fit-crossmember"});
        bodyOff(refit);
        refit.cautions = {jack, brakes};
    }
    std::vector<std::string> before_down{"coat-frame",    "weld-mounts", "fit-crossmember",
                                         "support-frame", "body-edges",  "refit-frame"};
    for (const CrossingJob& c : f_.crossings)
        if (c.kind == CrossingKind::BrakeLine || c.kind == CrossingKind::FuelLine) before_down.push_back(c.code());
    const bool asked_on = std::any_of(f_.jobs.begin(), f_.jobs.end(), [](const Job& j) { return j.body == BodyPlace::On; });
    const bool down = separable_ && (lifts_ || f_.mounts > 0 || asked_on);
    if (down) {
        Step& bolt = add("bolt-body", "Set the body down for good and bolt it, from the middle outwards", before_down);
        bodyOn(bolt);
        bolt.cautions = {nobody_under};
    }
    const std::string last = down ? "bolt-body" : turns_ ? "refit-frame" : frame_hot_ ? "coat-frame" : "survey-agrees";
    last_ = last;
    for (const TemporarySteel& t : f_.temporary) {
        Step& s = add(outCode(t), "", {"brace-in-" + t.name, t.out_after.empty() ? last : t.out_after});
        s.takes_out = t.id;
        s.title = fmt::format("Take the brace {} out", t.name);
        for (const WidthJob& w : f_.widths) // a shell sags where its floor is open
            if (w.kind == WidthJob::Kind::LetIn) s.after.push_back("let-in-floor-" + w.name);
        if (isAtTheEnd(t.out_after))
            s.why = "Cold: unbolt it or saw it by hand, the tank and the battery are in.";
        else
            s.cautions = {discs};
        if (t.gap) {
            s.title = fmt::format("Loosen the brace {}, measure its gap, then take it out", t.name);
            s.hold = true;
            s.checks = {gapCheck(t)};
        }
        if (t.out_after.empty() && down) bodyOn(s);
    }
    if (down) {
        Step& s = add("connect", "Connect all that was tagged, and count the tags", {"bolt-body", "disconnect"});
        bodyOn(s);
    }
    std::vector<std::string> closing{last, "connect", "tank-in"};
    // whatever burns or throws sparks comes before the tank: braces are cut out, too, unless they are to stay longer
    for (const TemporarySteel& t : f_.temporary)
        if (!isAtTheEnd(t.out_after)) closing.push_back(outCode(t));
    if ((hot_ || turns_) && f_.fuel_tank != Presence::Absent) {
        std::vector<std::string> before = closing;
        std::erase(before, "tank-in");
        Step& s = add("tank-in", "Put the fuel tank back", plus(plus(before, allThatBurns()), {"run-fuel-line", "coat-frame"}));
        s.cautions = {"No hot work is left to do."};
    }
    for (const CrossingJob& c : f_.crossings) closing.push_back(c.code());
    if (!f_.spine_windows.empty()) closing.emplace_back("spine-covers");
    if (cold_) {
        Step& s = add("leak-test", "Bleed and press-test the brakes, test the fuel side for leaks", closing);
        s.cautions = {brakes};
    }
    if (cold_ && f_.battery != Presence::Absent) {
        Step& s = add("battery-in", "Put the battery back", plus(closing, {"leak-test"}));
        s.cautions = {battery_order};
    }
    if (f_.cut_planned) {
        Step& s = add("align", "Measure wheelbase left and right and the thrust line on its wheels", {last, "leak-test"});
        s.attitude = Attitude::RightWayUp;
        s.sets_support = Support::Wheels;
    }
    onItsWheels();
    if (cold_) {
        std::vector<std::string> all{"align", "battery-in", "leak-test", "tighten-bushes", "shaft-lengths"};
        for (const TemporarySteel& t : f_.temporary) all.push_back(outCode(t));
        Step& s = add("approval", "Have it looked over and approved by licensed people", all);
        s.cautions = {rules_first, brakes};
    }
}

} // namespace gorvet::work
