// Which steps a build needs, from its facts. The cautions stand at the step where they matter.
#include "work/moves.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::work {

using namespace build;

namespace {

const char* plates_and_numbers = "Identification plates and numbers are never cut, moved or hidden.";
const char* rules_first = "Local vehicle-modification and roadworthiness rules come first: ask before the first cut.";
const char* licensed_welds = "Structural welds are made or approved by licensed people.";
const char* battery_order = "Earth terminal off first and on last; no spark near it; carry it upright.";
const char* battery_not_told = "Nothing is said about the battery, so it is taken as there.";
const char* tank_out =
    "Drain in the open air, away from any flame; an empty tank explodes more easily than a full one. Cap every line.";
const char* hot_work =
    "Hot work: tank out and lines capped, battery out, floor coverings and sealer away, a person with an extinguisher watching, also for an hour after.";
const char* discs =
    "Cutting discs and wire wheels burst and throw wires: guard on, face shield, gloves, sleeves; nobody in the line of the disc.";
const char* stands_each_side =
    "Stands each side of the cut carry the frame by themselves: when the rail parts, neither half may move.";
const char* nobody_under = "Nobody under a hung body, not even a hand. Lower it on blocks; keep lines so that it can't swing.";
const char* lift_check =
    "Slings on strong places, angles from the upright at most 45°, the hook over the centre of gravity: lift 20 mm and look.";
const char* turn_check =
    "A frame turns over its own centre: two people at each end, or a rotisserie; never between it and a wall.";
const char* restraints = "Airbags and belt tensioners are left to licensed people: they fire without a battery too.";
const char* refrigerant = "Refrigerant is taken out by licensed people; it is never let off, and burns to poison in a weld.";
const char* fumes = "Fumes of zinc, paint and underseal are poison: bare metal round the weld, air moving, breathing protection.";
const char* coating = "Spray with the mask its maker asks for, no sparks, air moving; hardeners with isocyanate need fed air.";
const char* brakes = "Brakes, steering and fuel are checked by licensed people before it moves.";
const char* jack = "Never reach under a body or frame that only a jack or hoist holds.";

class Catalogue {
public:
    explicit Catalogue(const Facts& f) : f_(f) {
        separable_ = f.has_body && f.frame_kind != FrameKind::Monocoque;
        lifts_ = separable_ && f.start.body == BodyPlace::On;
        hot_ = f.cut_planned || f.mounts > 0 || f.crossmember || !f.body_cuts.empty();
    }

    std::vector<Step> all() {
        before();
        if (lifts_) loosen();
        if (f_.cut_planned) cutting();
        if (f_.crossmember) crossmember();
        if (f_.mounts > 0) mounts();
        if (!f_.body_cuts.empty()) bodyCuts();
        finish();
        // a brace whose step does not exist in this build comes out at the end
        for (const TemporarySteel& t : f_.temporary)
            if (!t.out_after.empty() && !has(t.out_after))
                for (Step& s : steps_)
                    if (s.takes_out == t.id) s.after.push_back(last_);
        // what does not exist in this build can't be waited for
        for (Step& s : steps_) std::erase_if(s.after, [this](const std::string& code) { return !has(code); });
        return std::move(steps_);
    }

private:
    bool has(const std::string& code) const {
        return std::any_of(steps_.begin(), steps_.end(), [&](const Step& s) { return s.code == code; });
    }
    Step& add(std::string code, std::string title, std::vector<std::string> after = {}) {
        Step s;
        s.code = std::move(code);
        s.title = std::move(title);
        s.after = std::move(after);
        steps_.push_back(std::move(s));
        return steps_.back();
    }
    /// Only where the body can come off does its place matter.
    void bodyOff(Step& s) const {
        if (separable_) s.body = BodyPlace::Off;
        s.attitude = Attitude::RightWayUp;
    }
    void bodyOn(Step& s) const {
        if (separable_) s.body = BodyPlace::On;
        s.attitude = Attitude::RightWayUp;
    }
    static std::string outCode(const TemporarySteel& t) { return "brace-out-" + t.name; }
    std::vector<std::string> fits() const {
        std::vector<std::string> codes{"brace-body"};
        for (const TemporarySteel& t : f_.temporary) codes.push_back("brace-in-" + t.name);
        return codes;
    }
    static std::vector<std::string> plus(std::vector<std::string> a, const std::vector<std::string>& b) {
        a.insert(a.end(), b.begin(), b.end());
        return a;
    }

    CheckItem gapCheck(const TemporarySteel& t) const {
        CheckItem c;
        c.name = "gap of " + t.name;
        c.gap_of = t.id;
        c.plan_mm = t.gap->value;
        c.tolerance_mm = t.gap_tolerance_mm;
        return c;
    }
    void diagonals(Step& s, bool planned) const {
        for (const Distance& d : f_.diagonals) {
            CheckItem c;
            c.name = d.name;
            c.from = d.from;
            c.to = d.to;
            c.plan_mm = planned ? d.planned_mm : d.now_mm;
            c.half_width_mm = d.half_width_mm;
            c.tolerance_mm = f_.tolerance_mm;
            s.checks.push_back(c);
        }
        if (f_.diagonals.empty())
            s.conditions.push_back({"Diagonals over the cut can be named: mark and tape rail points on both sides of it", false});
    }

    void before() {
        Step& record = add("record", "Photograph it from all sides, bag and label what comes off, note where its numbers are");
        record.cautions = {plates_and_numbers};
        if (f_.cut_planned)
            add("rules", "Ask the authority and a licensed engineer what this change needs").cautions = {rules_first};
        if (f_.battery != Presence::Absent) {
            Step& s = add("battery-out", "Take the battery out", {"record"});
            s.cautions = {battery_order};
            if (f_.battery == Presence::Unknown) s.why = battery_not_told;
        }
        if (f_.restraints != Presence::Absent) {
            Step& s = add("restraints-off", "Have airbags and belt tensioners made safe", {"battery-out"});
            s.cautions = {restraints};
            if (f_.restraints == Presence::Unknown)
                s.why = "Nothing is said about restraint systems, so they are taken as there.";
        }
        if (f_.refrigerant != Presence::Absent) {
            Step& s = add("refrigerant-out", "Have the refrigerant taken out", {"record"});
            s.cautions = {refrigerant};
            if (f_.refrigerant == Presence::Unknown) s.why = "Nothing is said about refrigerant, so it is taken as there.";
        }
        if (hot_ && f_.fuel_tank != Presence::Absent) {
            Step& s = add("tank-out", "Drain and take out the fuel tank, cap the lines", {"battery-out"});
            s.cautions = {tank_out};
            if (f_.fuel_tank == Presence::Unknown) s.why = "Nothing is said about the fuel tank, so it is taken as there.";
        }
        for (const TemporarySteel& t : f_.temporary) {
            Step& s = add("brace-in-" + t.name,
                          fmt::format("Fit the brace {}{}", t.name, t.purpose.empty() ? "" : ": " + t.purpose), {"record"});
            s.fits = t.id;
            if (!t.blocks.empty()) s.why = "It blocks " + t.blocks + ".";
            if (!t.gap)
                s.why +=
                    std::string(s.why.empty() ? "" : " ") + "Measure the gap it keeps, and type it: brace " + t.name + " gap …";
        }
        if (f_.temporary.empty() && f_.has_body && f_.start.body == BodyPlace::On && hot_) {
            Step& s = add("brace-body", "Brace the door openings and across the sills", {"record"});
            s.why = "No brace is listed; a body without one loses its door gaps. List each: brace door-left gap 4.5";
        }
        Step& agree = add("survey-agrees", "The survey of the chassis can be built on");
        agree.hold = true;
        agree.conditions = {{f_.survey_open.empty() ? "All points fixed, no reading left to tape again" : f_.survey_open,
                             f_.survey_open.empty()}};
    }

    void loosen() {
        Step& s = add("disconnect", "Disconnect and tag all that ties the body to the frame",
                      {"record", "battery-out", "restraints-off", "refrigerant-out"});
        s.why = "Loom, earth straps, brake and clutch lines, steering shaft, filler, hoses, cables: the forgotten one tears.";
        bodyOn(s);
        Step& u = add("unbolt-body", "Take out the body bolts, all but four at the corners", plus({"disconnect"}, fits()));
        bodyOn(u);
        u.why = "Soak seized ones days before.";
    }

    void cutting() {
        Step& support = add("support-frame", "Set the frame on stands, two ahead of the cut and two behind, level across",
                            plus({"record"}, fits()));
        bodyOff(support);
        support.sets_support = Support::Stands;
        support.cautions = {stands_each_side, jack};
        Step& clear = add("clear-rails", "Take away or move what runs along the cut, cap open lines",
                          {"disconnect", "tank-out", "battery-out"});
        for (const CrossingJob& c : f_.crossings)
            clear.why += (clear.why.empty() ? "It crosses the cut: " : ", ") + std::string(word(c.kind));
        if (!clear.why.empty()) clear.why += ".";
        Step& scribe =
            add("scribe", "Scribe the cut lines " + f_.cut_words + " on both rails, and punch marks 100 ahead and behind",
                {"survey-agrees", "support-frame"});
        bodyOff(scribe);
        Step& tie = add("tie-rails", "Tie the rails: across ahead of the cut and behind it, and a slotted guide along each",
                        {"scribe", "tank-out", "battery-out", "clear-rails"});
        bodyOff(tie);
        tie.cautions = {hot_work};
        Step& hold = add("before-cutting", "Tape the diagonals over the cut once more",
                         {"tie-rails", "clear-rails", "rules", "restraints-off", "refrigerant-out"});
        bodyOff(hold);
        hold.hold = true;
        diagonals(hold, false);
        hold.conditions.push_back({f_.plan_open.empty() ? "The plan of the cut stands" : f_.plan_open, f_.plan_open.empty()});
        if (!f_.flaw_open.empty()) hold.conditions.push_back({f_.flaw_open, false});
        Step& cut =
            add("cut-rails", fmt::format("Cut both rails {}{}", f_.cut_words, f_.shortens ? " and take the pieces out" : ""),
                {"before-cutting"});
        bodyOff(cut);
        cut.no_return = true;
        cut.before_return = {"Nothing runs inside the rails: look in with a lamp.", "Both halves stand by themselves."};
        cut.cautions = {stands_each_side, discs, plates_and_numbers};
        Step& ends =
            add("prepare-ends", "Bevel and clean the ends bright, drill the plug holes, blow the rails out, coat the inside",
                {"cut-rails"});
        bodyOff(ends);
        if (!f_.plug_words.empty()) ends.why = "Plug holes: " + f_.plug_words + ".";
        ends.cautions = {discs};
        if (f_.crossmember && f_.captive_nuts) {
            Step& nuts = add("captive-nuts", "Weld the captive nuts of the crossmember into the rails through their open ends",
                             {"cut-rails"});
            bodyOff(nuts);
            nuts.cautions = {hot_work};
        }
        Step& close =
            add("close-up",
                f_.sleeve_words.empty() ? std::string("Close the rails up to the root gap and clamp them")
                                        : "Slide the sleeves in (" + f_.sleeve_words + "), close up to the root gap, clamp",
                {"prepare-ends", "captive-nuts"});
        bodyOff(close);
        Step& tack = add("tack-rails", "Tack the joints: four short tacks each, by turns left and right", {"close-up"});
        bodyOff(tack);
        tack.cautions = {hot_work, fumes};
        Step& before_weld = add("before-welding", "Tape the diagonals before full welding", {"tack-rails"});
        bodyOff(before_weld);
        before_weld.hold = true;
        diagonals(before_weld, true);
        Step& weld =
            add("weld-rails", "Weld the upper sides and webs, plug welds first, by turns left and right, letting it cool",
                {"before-welding"});
        bodyOff(weld);
        weld.no_return = true;
        weld.before_return = {"The inside is coated as far as the heat reaches.",
                              "The rails are blown clean and nothing is left inside.", "Drain and vent holes are open."};
        if (f_.crossmember && f_.captive_nuts) weld.before_return.emplace_back("The captive nuts are in.");
        weld.cautions = {licensed_welds, hot_work, fumes};
        Step& below = add("weld-below", std::string("Weld the undersides") + (f_.fish_plates ? " and the fish plates" : ""),
                          {"weld-rails"});
        bodyOff(below);
        below.attitude = Attitude::Inverted;
        if (!separable_) below.attitude = Attitude::RightWayUp;
        below.cautions = {licensed_welds, hot_work, fumes};
        Step& after_weld = add("after-welding", "Tape the diagonals when it is cold", {"weld-below"});
        bodyOff(after_weld);
        after_weld.hold = true;
        diagonals(after_weld, true);
        Step& untie = add("untie-rails", "Take the ties off the rails and grind their marks", {"after-welding"});
        bodyOff(untie);
        untie.cautions = {discs};
        for (const CrossingJob& c : f_.crossings) {
            Step& s = add("run-" + std::string(word(c.kind)), c.answer, {"after-welding", "coat-frame"});
            if (!c.caution.empty()) s.cautions = {c.caution};
        }
    }

    void crossmember() {
        add("make-crossmember", "Cut and weld the crossmember, flanges bolted to the rails or a jig", {"survey-agrees"})
            .cautions = {licensed_welds, hot_work};
        Step& drill = add("drill-rails",
                          f_.captive_nuts ? "Drill the rails at the captive nuts from the flanges"
                                          : "Drill the rails from the flanges and weld the crush tubes in",
                          {"after-welding", "make-crossmember", "support-frame", "tank-out", "battery-out"});
        bodyOff(drill);
        drill.cautions = {hot_work};
        Step& fit =
            add("fit-crossmember", "Bolt the crossmember in, and draw every bolt once to see that it comes out", {"drill-rails"});
        fit.attitude = Attitude::RightWayUp;
        fit.cautions = {jack};
    }

    void mounts() {
        add("make-mounts", fmt::format("Cut the standoffs and shims of {} body mounts", f_.mounts), {"survey-agrees"});
        Step& tack =
            add("tack-mounts", "Tack the standoffs to the rails", {"make-mounts", "after-welding", "tank-out", "battery-out"});
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

    /// The cuts that were kept from the cut map: braced first, one after the other, edges made good.
    void bodyCuts() {
        std::vector<std::string> braced = fits();
        std::vector<std::string> zones;
        for (const BodyCut& c : f_.body_cuts)
            for (const std::string& zone : c.brace)
                if (std::find(zones.begin(), zones.end(), zone) == zones.end()) zones.push_back(zone);
        for (const std::string& zone : zones) {
            Step& s =
                add("brace-zone-" + zone, fmt::format("Brace {}: across the opening, and from end to end", zone), {"record"});
            s.why = "It is cut into, and carries the shell. List the brace with the gap it keeps: brace NAME for " + zone +
                    " gap 4.5";
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

    void finish() {
        if (hot_) {
            Step& coat = add("coat-frame", "Clean, seal the seams and coat the frame, inside too",
                             {"untie-rails", "weld-mounts", "drill-rails", "after-welding"});
            bodyOff(coat);
            coat.cautions = {coating};
        }
        std::vector<std::string> before_down{"coat-frame", "weld-mounts", "fit-crossmember", "support-frame", "body-edges"};
        for (const CrossingJob& c : f_.crossings)
            if (c.kind == CrossingKind::BrakeLine || c.kind == CrossingKind::FuelLine)
                before_down.push_back("run-" + std::string(word(c.kind)));
        const bool down = separable_ && (lifts_ || f_.mounts > 0);
        if (down) {
            Step& bolt = add("bolt-body", "Set the body down for good and bolt it, from the middle outwards", before_down);
            bodyOn(bolt);
            bolt.cautions = {nobody_under};
        }
        const std::string last = down ? "bolt-body" : hot_ ? "coat-frame" : "survey-agrees";
        last_ = last;
        for (const TemporarySteel& t : f_.temporary) {
            Step& s = add(outCode(t), "", {"brace-in-" + t.name, t.out_after.empty() ? last : t.out_after});
            s.takes_out = t.id;
            s.title = fmt::format("Take the brace {} out", t.name);
            if (t.gap) {
                s.title = fmt::format("Loosen the brace {}, measure its gap, then take it out", t.name);
                s.hold = true;
                s.checks = {gapCheck(t)};
            }
            if (t.out_after.empty() && down) bodyOn(s);
        }
        if (lifts_) {
            Step& s = add("connect", "Connect all that was tagged, and count the tags", {"bolt-body", "disconnect"});
            bodyOn(s);
        }
        std::vector<std::string> closing{last, "connect", "tank-in"};
        if (hot_ && f_.fuel_tank != Presence::Absent) {
            Step& s = add("tank-in", "Put the fuel tank back",
                          {last, "connect", "run-fuel-line", "weld-mounts", "weld-below", "coat-frame", "body-edges"});
            s.cautions = {"No hot work is left to do."};
        }
        for (const CrossingJob& c : f_.crossings) closing.push_back("run-" + std::string(word(c.kind)));
        if (hot_) {
            Step& s = add("leak-test", "Bleed and press-test the brakes, test the fuel side for leaks", closing);
            s.cautions = {brakes};
        }
        if (f_.battery != Presence::Absent) {
            Step& s = add("battery-in", "Put the battery back", plus(closing, {"leak-test"}));
            s.cautions = {battery_order};
        }
        if (f_.cut_planned) {
            Step& s = add("align", "Measure wheelbase left and right and the thrust line on its wheels", {last, "leak-test"});
            s.attitude = Attitude::RightWayUp;
            s.sets_support = Support::Wheels;
        }
        if (hot_) {
            std::vector<std::string> all{"align", "battery-in", "leak-test"};
            for (const TemporarySteel& t : f_.temporary) all.push_back(outCode(t));
            Step& s = add("approval", "Have it looked over and approved by licensed people", all);
            s.cautions = {rules_first, brakes};
        }
    }

    const Facts& f_;
    std::vector<Step> steps_;
    bool separable_ = false;
    bool lifts_ = false;
    bool hot_ = false;
    std::string last_; ///< the step at which body and frame are one again
};

} // namespace

std::vector<Step> stepsFor(const Facts& f) { return Catalogue(f).all(); }

Step bodyMove(bool off, int number, const Stance& to, const std::vector<std::string>& after) {
    Step s;
    s.code = fmt::format("body-{}-{}", off ? "off" : "on", number);
    s.title = off ? "Lift the body off" : "Lower the body on";
    s.after = after;
    s.moves_to = to;
    s.cautions = {nobody_under, lift_check};
    return s;
}

Step frameTurn(int number, const Stance& to) {
    Step s;
    s.code = fmt::format("turn-{}", number);
    s.title = to.attitude == Attitude::Inverted ? "Turn the frame upside down" : "Turn the frame right way up";
    s.moves_to = to;
    s.cautions = {turn_check};
    return s;
}

} // namespace gorvet::work
