#pragma once

#include "work/moves.hpp"

/// Which steps a build needs, and what each needs before it. Internal to this room.
namespace gorvet::work {

using namespace build;

inline constexpr const char* plates_and_numbers = "Identification plates and numbers are never cut, moved or hidden.";
inline constexpr const char* rules_first =
    "Local vehicle-modification and roadworthiness rules come first: ask before the first cut.";
inline constexpr const char* licensed_welds = "Structural welds are made or approved by licensed people.";
inline constexpr const char* battery_order = "Earth terminal off first and on last; no spark near it; carry it upright.";
inline constexpr const char* battery_not_told = "Nothing is said about the battery, so it is taken as there.";
inline constexpr const char* tank_out =
    "Drain in the open air, away from any flame; an empty tank explodes more easily than a full one. Cap every line.";
inline constexpr const char* hot_work =
    "Hot work: tank out and lines capped, battery out, floor coverings and sealer away, a person with an extinguisher watching, also for an hour after.";
inline constexpr const char* discs =
    "Cutting discs and wire wheels burst and throw wires: guard on, face shield, gloves, sleeves; nobody in the line of the disc.";
inline constexpr const char* stands_each_side =
    "Stands each side of the cut carry the frame by themselves: when the rail parts, neither half may move.";
inline constexpr const char* nobody_under =
    "Nobody under a hung body, not even a hand. Lower it on blocks; keep lines so that it can't swing.";
inline constexpr const char* lift_check =
    "Slings on strong places, angles from the upright at most 45°, the hook over the centre of gravity: lift 20 mm and look.";
inline constexpr const char* turn_check =
    "A frame turns over its own centre: two people at each end, or a rotisserie; never between it and a wall.";
inline constexpr const char* restraints =
    "Airbags and belt tensioners are left to licensed people: they fire without a battery too.";
inline constexpr const char* refrigerant =
    "Refrigerant is taken out by licensed people; it is never let off, and burns to poison in a weld.";
inline constexpr const char* fumes =
    "Fumes of zinc, paint and underseal are poison: bare metal round the weld, air moving, breathing protection.";
inline constexpr const char* coating =
    "Spray with the mask its maker asks for, no sparks, air moving; hardeners with isocyanate need fed air.";
inline constexpr const char* brakes = "Brakes, steering and fuel are checked by licensed people before it moves.";
inline constexpr const char* jack = "Never reach under a body or frame that only a jack or hoist holds.";

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
            c.u95_mm = l.u95_mm;
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
            c.u95_mm = d.u95_mm;
            c.tolerance_mm = f_.tolerance_mm;
            s.checks.push_back(c);
        }
        if (f_.diagonals.empty())
            s.conditions.push_back({"Diagonals over the cut can be named: mark and tape rail points on both sides of it", false});
    }

    void before();
    void loosen();
    void stands();
    void cutting();
    void crossmember();
    void mounts();
    /// The cuts that were kept from the cut map: braced first, one after the other, edges made good.
    void bodyCuts();
    void finish();

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

} // namespace gorvet::work
