#pragma once

#include "work/cautions.hpp"
#include "work/moves.hpp"

#include <algorithm>

/// Which steps a build needs, and what each needs before it. Internal to this room.
namespace gorvet::work {

using namespace build;

/// What the register says is not free yet, as conditions.
void addTied(const Tied&, std::vector<Condition>& to);

class Catalogue {
public:
    explicit Catalogue(const Facts& f) : f_(f) {
        turnable_ = f.frame_kind != FrameKind::Monocoque;
        separable_ = f.has_body && turnable_;
        frame_hot_ = f.cut_planned || f.mounts > 0 || f.crossmember || f.steel.any() || !f.grafts.empty() || !f.widths.empty() ||
                     !f.hole_words.empty();
        const bool planned = frame_hot_ || !f.body_cuts.empty() || !f.temporary.empty();
        const auto anyJob = [&](auto so) { return std::any_of(f.jobs.begin(), f.jobs.end(), so); };
        const bool job_turned =
            turnable_ && anyJob([](const Job& j) { return j.attitude && *j.attitude != Attitude::RightWayUp; });
        lifts_ = separable_ && f.start.body == BodyPlace::On &&
                 (planned || f.begun || job_turned || anyJob([](const Job& j) { return j.body == BodyPlace::Off; }));
        hot_ = planned || anyJob([](const Job& j) { return kindOfWork(j.kind).hot; });
        nuts_through_ends_ = nutsThroughOpenEnds(f);
        const bool from_below = f.cut_planned || f.mount_nuts > 0 || (f.crossmember && f.captive_nuts && !nuts_through_ends_);
        turns_ = turnable_ && (from_below || job_turned);
        stands_ = from_below || f.crossmember || f.steel.any() || !f.grafts.empty() || !f.widths.empty() ||
                  !f.hole_words.empty() || turns_;
        cold_ = hot_ || lifts_ || turns_ || f.begun || anyJob([](const Job& j) { return opens(j.kind); });
    }

    /// The steps; `apart`: what jobs ask for and can't have.
    std::vector<Step> all(std::vector<std::string>* apart = nullptr) {
        before();
        if (lifts_) loosen();
        if (stands_) stands();
        if (f_.cut_planned) cutting();
        if (f_.steel.any()) frameSteel();
        grafts();
        if (f_.crossmember) crossmember();
        if (f_.mounts > 0) mounts();
        if (!f_.body_cuts.empty()) bodyCuts();
        widths();
        finish();
        ownJobs();
        // a brace whose step does not exist in this build comes out at the end
        for (const TemporarySteel& t : f_.temporary)
            if (!t.out_after.empty() && !has(t.out_after))
                for (Step& s : steps_)
                    if (s.takes_out == t.id) s.after.push_back(last_);
        openCircles();
        standsWhile();
        register_();
        awaited();
        undecided();
        failed();
        for (Step& s : steps_)
            s.hot = s.hot || std::any_of(s.cautions.begin(), s.cautions.end(),
                                         [](const std::string& c) { return c == hot_work || c == discs; });
        // what does not exist in this build can't be waited for
        for (Step& s : steps_) std::erase_if(s.after, [this](const std::string& code) { return !has(code); });
        if (apart) *apart = std::move(apart_);
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
    /// Steps of the plan on the frame that burn or throw sparks: the tank goes back after them, and what runs inside a spine.
    std::vector<std::string> allThatBurns() const {
        std::vector<std::string> codes{"weld-mounts", "weld-below",       "captive-nuts", "mount-nuts",
                                       "drill-rails", "make-crossmember", "body-edges",   "members-out",
                                       "members-in",  "ribs-in",          "shut-rails"};
        for (const GraftJob& g : f_.grafts) codes.push_back("graft-weld-" + g.name);
        for (const WidthJob& w : f_.widths)
            for (const char* part : w.kind == WidthJob::Kind::Narrower
                                        ? std::vector{"narrow-tie", "narrow-slit", "narrow-weld", "narrow-untie"}
                                    : w.kind == WidthJob::Kind::LetIn ? std::vector{"let-in-weld", "let-in-floor"}
                                                                      : std::vector{"edge-arms", "edge-strip"})
                codes.push_back(part + (w.name.empty() ? "" : "-" + w.name));
        codes.emplace_back("holes-anew");
        return codes;
    }
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
    void openRails();
    void closeRails();
    /// Welded from below, looked at when it is cold, the ties off what they were on: "rails", "sills".
    void fromBelowAndCold(std::string title, const char* tied);
    /// Pieces of other frames (steps_graft.cpp).
    void grafts();
    // how wide it is, and rails let into a shell (steps_width.cpp)
    void widths();
    void narrower(const WidthJob&);
    void letIn(const WidthJob&);
    void floorEdge(const WidthJob&);
    Step& jointBefore(const WidthJob&, const std::string& code, std::string title, std::vector<std::string> after);
    void jointWelded(const WidthJob&, const std::string& stem, const std::string& what, const std::string& after);
    /// Members out and in, ribs, closing plates (steps_frame.cpp).
    void frameSteel();
    // of a spine platform (steps_spine.cpp)
    void openSpine();
    void closeSpine();
    void crossmember();
    void mounts();
    /// The cuts that were kept from the cut map: braced first, one after the other, edges made good.
    void bodyCuts();
    void finish();
    void onItsWheels();

    // ---- what is not planned (steps_jobs.cpp)

    /// Whether it opens what must be dead first: fuel, wiring, belts, refrigerant.
    static bool opens(JobKind k) {
        return k == JobKind::Fuel || k == JobKind::Electrical || k == JobKind::Restraints || k == JobKind::Refrigerant;
    }
    Step* step(const std::string& code) {
        const auto found = std::find_if(steps_.begin(), steps_.end(), [&](const Step& s) { return s.code == code; });
        return found == steps_.end() ? nullptr : &*found;
    }
    /// The code of what was typed as a step: a code, or the name of a job.
    std::string codeOf(const std::string& typed) const { return has(typed) ? typed : "job-" + typed; }
    void ownJobs();
    void ownJob(const Job&);
    void ownNeeds(const Job&);
    /// Whatever burns comes before the tank and the battery are back.
    void hotBeforeFuel();
    /// The body is bolted down once all is done that needs it off.
    void bodyDownLast();
    /// What is done in a space comes before the job that closes it.
    void spaces();
    /// In one place: out with the dirt, then sparks, then coats, unless a job asks for it the other way round.
    void coatsLast();
    bool waitsFor(const std::string& code, const std::string& other) const;
    /// A job asks for what goes round in a circle: what it asks for is left out, and said.
    void openCircles();
    /// What hangs on a frame on stands can't be done while it stands on anything else.
    void standsWhile();
    void register_();
    void awaited();
    void undecided();
    void failed();

    const Facts& f_;
    std::vector<Step> steps_;
    std::vector<std::string> apart_;
    std::vector<std::pair<std::string, std::string>> asked_; ///< by jobs themselves: a step, and what it waits for
    bool turnable_ = false;                                  ///< a frame by itself
    bool separable_ = false;                                 ///< and a body that comes off it
    bool lifts_ = false;
    bool turns_ = false; ///< something is done from below
    bool stands_ = false;
    bool hot_ = false;
    bool cold_ = false; ///< battery and what else is live must be out of the way
    bool frame_hot_ = false;
    bool nuts_through_ends_ = false;
    std::string last_; ///< the step at which body and frame are one again
};

} // namespace gorvet::work
