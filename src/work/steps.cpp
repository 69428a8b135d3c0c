// Which steps a build needs, from its facts. The cautions stand at the step where they matter.
#include "work/moves.hpp"

#include <algorithm>
#include <cmath>

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
        turnable_ = f.frame_kind != FrameKind::Monocoque;
        separable_ = f.has_body && turnable_;
        lifts_ = separable_ && f.start.body == BodyPlace::On;
        frame_hot_ = f.cut_planned || f.mounts > 0 || f.crossmember;
        hot_ = frame_hot_ || !f.body_cuts.empty() || !f.temporary.empty();
        nuts_through_ends_ = nutsThroughOpenEnds(f);
        const bool from_below = f.cut_planned || f.mount_nuts > 0 || (f.crossmember && f.captive_nuts && !nuts_through_ends_);
        turns_ = turnable_ && from_below;
        stands_ = from_below || f.crossmember;
    }

    std::vector<Step> all() {
        before();
        if (lifts_) loosen();
        if (stands_) stands();
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
        for (Step& s : steps_)
            s.hot = std::any_of(s.cautions.begin(), s.cautions.end(),
                                [](const std::string& c) { return c == hot_work || c == discs; });
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
    /// Upside down where the frame can be turned: what is welded or let in from below.
    void fromBelow(Step& s) const {
        bodyOff(s);
        if (turnable_)
            s.attitude = Attitude::Inverted;
        else
            s.why += std::string(s.why.empty() ? "" : " ") + "Overhead: shield, leathers, nothing above the face that can drop.";
    }
    /// Before anything burns or throws sparks.
    static std::vector<std::string> cold() { return {"record", "battery-out", "tank-out", "restraints-off", "refrigerant-out"}; }
    /// Steps once the tank is back: what comes out after them comes out cold.
    static bool isAtTheEnd(const std::string& code) {
        static constexpr const char* steps[] = {"tank-in", "leak-test", "battery-in", "align", "approval"};
        return std::find(std::begin(steps), std::end(steps), code) != std::end(steps);
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
    /// Diagonals, and the heights that tell a twist or a bow which no diagonal sees.
    void shape(Step& s, bool planned) const {
        diagonals(s, planned);
        for (const Levelled& l : f_.levels) {
            CheckItem c;
            c.name = l.name;
            c.from = l.from;
            c.to = l.to;
            c.level = l;
            c.plan_mm = planned ? l.planned_mm : l.now_mm;
            c.half_width_mm = l.half_width_mm;
            c.tolerance_mm = f_.tolerance_mm;
            s.checks.push_back(c);
        }
        if (f_.levels.empty())
            s.conditions.push_back(
                {"Heights of two pairs can be named: mark and tape rail pairs ahead of the cut and behind it", false});
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
                          fmt::format("Fit the brace {}{}", t.name, t.purpose.empty() ? "" : ": " + t.purpose), cold());
            s.fits = t.id;
            s.cautions = {hot_work};
            if (!t.blocks.empty()) s.why = "It blocks " + t.blocks + ".";
            if (!t.gap)
                s.why +=
                    std::string(s.why.empty() ? "" : " ") + "Measure the gap it keeps, and type it: brace " + t.name + " gap …";
        }
        if (f_.temporary.empty() && f_.has_body && f_.start.body == BodyPlace::On && hot_) {
            Step& s = add("brace-body", "Brace the door openings and across the sills", cold());
            s.cautions = {hot_work};
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

    void stands() {
        Step& support = add("support-frame",
                            f_.cut_planned ? "Set the frame on stands, two ahead of the cut and two behind, level across"
                                           : "Set the frame on stands, level across",
                            plus({"record"}, fits()));
        bodyOff(support);
        support.sets_support = Support::Stands;
        support.cautions = {jack};
        if (f_.cut_planned) support.cautions.insert(support.cautions.begin(), stands_each_side);
        if (!turns_) return;
        Step& strip = add("strip-frame", "Take engine, gearbox, axles, springs and all else that hangs on the frame off it",
                          {"support-frame", "disconnect", "battery-out", "tank-out", "refrigerant-out"});
        bodyOff(strip);
        strip.why = "It is turned over later: only a bare frame is.";
        strip.cautions = {jack, brakes};
    }

    void cutting() {
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
        Step& hold = add("before-cutting", "Tape the diagonals over the cut once more, and level both ends and both sides of it",
                         {"tie-rails", "clear-rails", "rules", "restraints-off", "refrigerant-out"});
        bodyOff(hold);
        hold.hold = true;
        hold.conditions.push_back({f_.plan_open.empty() ? "The plan of the cut stands" : f_.plan_open, f_.plan_open.empty()});
        shape(hold, false);
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
        if (f_.crossmember && nuts_through_ends_) {
            Step& nuts = add("captive-nuts",
                             "Bolt the crossmember's nuts on through the drilled holes, weld them in through the open ends",
                             plus({"cut-rails", "drill-rails"}, cold()));
            bodyOff(nuts);
            nuts.why = "A bolt holds each nut where its hole is; draw it once the nut is cold.";
            nuts.cautions = {hot_work};
        }
        std::vector<std::string> open_ends{"prepare-ends"};
        if (nuts_through_ends_) open_ends.emplace_back("captive-nuts");
        if (!f_.sleeve_words.empty()) {
            Step& try_in =
                add("try-sleeves", "Try each sleeve in both ends to its full depth: nothing inside may stop it", open_ends);
            bodyOff(try_in);
        }
        Step& close =
            add("close-up",
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
        Step& weld =
            add("weld-rails", "Weld the upper sides and webs, plug welds first, by turns left and right, letting it cool",
                {"before-welding"});
        bodyOff(weld);
        weld.no_return = true;
        weld.before_return = {"The inside is coated as far as the heat reaches.",
                              "The rails are blown clean and nothing is left inside.", "Drain and vent holes are open."};
        if (f_.crossmember && nuts_through_ends_) weld.before_return.emplace_back("The captive nuts are in.");
        weld.cautions = {licensed_welds, hot_work, fumes};
        Step& below = add("weld-below", std::string("Weld the undersides") + (f_.fish_plates ? " and the fish plates" : ""),
                          {"weld-rails"});
        fromBelow(below);
        below.cautions = {licensed_welds, hot_work, fumes};
        Step& after_weld = add("after-welding", "Tape the diagonals and take the levels when it is cold", {"weld-below"});
        bodyOff(after_weld);
        after_weld.hold = true;
        shape(after_weld, true);
        Step& untie = add("untie-rails", "Take the ties off the rails and grind their marks", {"after-welding"});
        bodyOff(untie);
        untie.cautions = {discs};
        for (const CrossingJob& c : f_.crossings) {
            Step& s = add("run-" + std::string(word(c.kind)), c.answer, {"after-welding", "coat-frame"});
            if (!c.caution.empty()) s.cautions = {c.caution};
        }
    }

    void crossmember() {
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

    void mounts() {
        Step& make =
            add("make-mounts", fmt::format("Cut the standoffs and shims of {} body mounts", f_.mounts), {"survey-agrees"});
        if (!f_.mounts_open.empty()) make.conditions = {{f_.mounts_open, false}};
        if (f_.mount_nuts > 0) {
            Step& nuts =
                add("mount-nuts",
                    fmt::format("Drill the rails and let the nuts of {} mounts in on plates through slots below, weld them "
                                "and the slots",
                                f_.mount_nuts),
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

    /// The cuts that were kept from the cut map: braced first, one after the other, edges made good.
    void bodyCuts() {
        std::vector<std::string> braced = fits();
        std::vector<std::string> zones;
        for (const BodyCut& c : f_.body_cuts)
            for (const std::string& zone : c.brace)
                if (std::find(zones.begin(), zones.end(), zone) == zones.end()) zones.push_back(zone);
        for (const std::string& zone : zones) {
            Step& s = add("brace-zone-" + zone, fmt::format("Brace {}: across the opening, and from end to end", zone), cold());
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
        if (frame_hot_) {
            Step& coat = add("coat-frame", "Clean, seal the seams and coat the frame, inside too",
                             {"untie-rails", "weld-mounts", "drill-rails", "captive-nuts", "mount-nuts", "after-welding"});
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
            if (c.kind == CrossingKind::BrakeLine || c.kind == CrossingKind::FuelLine)
                before_down.push_back("run-" + std::string(word(c.kind)));
        const bool down = separable_ && (lifts_ || f_.mounts > 0);
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
        if (lifts_) {
            Step& s = add("connect", "Connect all that was tagged, and count the tags", {"bolt-body", "disconnect"});
            bodyOn(s);
        }
        std::vector<std::string> closing{last, "connect", "tank-in"};
        // whatever burns or throws sparks comes before the tank: braces are cut out, too, unless they are to stay longer
        for (const TemporarySteel& t : f_.temporary)
            if (!isAtTheEnd(t.out_after)) closing.push_back(outCode(t));
        if (hot_ && f_.fuel_tank != Presence::Absent) {
            std::vector<std::string> before = closing;
            std::erase(before, "tank-in");
            Step& s = add("tank-in", "Put the fuel tank back",
                          plus(before, {"run-fuel-line", "weld-mounts", "weld-below", "captive-nuts", "mount-nuts", "drill-rails",
                                        "make-crossmember", "coat-frame", "body-edges"}));
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
    bool turnable_ = false;  ///< a frame by itself
    bool separable_ = false; ///< and a body that comes off it
    bool lifts_ = false;
    bool turns_ = false; ///< something is done from below
    bool stands_ = false;
    bool hot_ = false;
    bool frame_hot_ = false;
    bool nuts_through_ends_ = false;
    std::string last_; ///< the step at which body and frame are one again
};

} // namespace

bool nutsThroughOpenEnds(const Facts& f) {
    if (!f.crossmember || !f.captive_nuts || !f.cut_planned || !f.joint_station_mm) return false;
    return std::all_of(f.nut_stations_mm.begin(), f.nut_stations_mm.end(),
                       [&](double x) { return std::abs(x - *f.joint_station_mm) <= arm_reach_mm; });
}

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
