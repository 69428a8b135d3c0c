#pragma once

#include "sim/plan_player.hpp"

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>
#include <set>

#include <fmt/format.h>

/// The car and the shop that a plan is played on. Internal to this room.
namespace gorvet::sim::shop {

using build::Attitude;
using build::BodyPlace;
using build::FrameKind;
using build::Presence;
using build::TemporarySteel;

/// Why a step can't be done; thrown inside this room only.
struct Refusal {
    std::string why;
};
inline void need(bool so, const std::string& why) {
    if (!so) throw Refusal{why};
}

enum class Rails { Whole, Cut, Prepared, Tried, Closed, Tacked, WeldedAbove, Welded };

/// The car and the shop at one moment.
class Workshop {
public:
    explicit Workshop(const work::Facts& f) : f_(f) {
        frame_turns_ = f.frame_kind != FrameKind::Monocoque;
        body_comes_off_ = f.has_body && frame_turns_;
        body_on_ = !frame_turns_ || (f.has_body && f.start.body == BodyPlace::On);
        bolted_ = connected_ = body_comes_off_ && body_on_;
        inverted_ = f.start.attitude == Attitude::Inverted;
        tank_in_ = f.fuel_tank != Presence::Absent;
        battery_in_ = f.battery != Presence::Absent;
        belts_live_ = f.restraints != Presence::Absent;
        refrigerant_in_ = f.refrigerant != Presence::Absent;
        for (const auto& c : f.crossings) over_cut_.insert(c.code().substr(4));
        on_ = f.start.support;
        attitude_ = f.start.attitude;
    }

    void play(const work::Step& s) {
        if (s.moves_to) return move(s);
        if (s.hot) sparks();
        if (s.job) return ownJob(s);
        const auto& known = actions();
        if (const auto exact = known.find(s.code); exact != known.end()) return exact->second();
        const auto starts = [&](const char* prefix) { return s.code.rfind(prefix, 0) == 0; };
        if (starts("brace-in-")) return braceIn(s.fits);
        if (starts("brace-out-")) return braceOut(s);
        if (starts("brace-zone-")) return braceZone(s.code.substr(11));
        if (starts("cut-body-")) return cutBody(s.code.substr(9));
        if (starts("run-")) return run(s.code.substr(4));
        if (starts("graft-")) return graft(s.code.substr(6));
        if (s.code == "holes-anew") {
            bodyAway();
            onStands();
            need(joined(), "a weld still comes beside it");
            need(!coated_, "its swarf would lie in the coat");
            holes_anew_ = true;
            return;
        }
        if (starts("narrow-")) return narrower(s.code.substr(7));
        if (starts("let-in-")) return letIn(s.code.substr(7));
        if (starts("edge-")) return floorEdge(s.code.substr(5));
        throw Refusal{"nobody here knows what to do at this step"};
    }

private:
    using Action = std::function<void()>;

    // what hurts
    void sparks() const {
        need(!tank_in_, "sparks beside a fuel tank");
        need(inside_ != Inside::Joined, "sparks beside the lines that run inside the spine");
        need(!battery_in_, "sparks and weld current with the battery in");
        need(!belts_live_, "weld current with live belt tensioners");
        need(!refrigerant_in_, "refrigerant burns to poison in a flame");
    }
    void upright() const { need(!inverted_, "it lies upside down"); }
    void bodyAway() const { need(!body_comes_off_ || !body_on_, "the body is in the way"); }
    void onStands() const {
        need(stands_, "nothing but its wheels or a jack carries the frame");
        need(on_ != build::Support::Wheels, "it stands on its wheels");
    }
    bool joined() const { return rails_ == Rails::Whole || rails_ == Rails::Welded; }
    bool braced() const {
        return std::all_of(f_.temporary.begin(), f_.temporary.end(),
                           [&](const TemporarySteel& t) { return braces_.contains(t.id.value); });
    }

    /// A job of one's own: what it says of itself, and what its kind of work does.
    void ownJob(const work::Step& s) {
        const build::Job* job = nullptr;
        for (const build::Job& j : f_.jobs)
            if (j.id == s.job) job = &j;
        need(job, "nobody here knows this job");
        if (body_comes_off_ && job->body) need(body_on_ == (*job->body == BodyPlace::On), "the body is not where it must be");
        if (frame_turns_ && job->attitude) need(attitude_ == *job->attitude, "the frame does not lie as it must");
        if (job->support) need(on_ == *job->support, "it does not stand on what it must");
        if (!job->inside.empty()) need(!closed_.contains(job->inside), "what it is done in is closed already");
        if (!job->closes.empty()) {
            for (const build::Job& j : f_.jobs)
                if (j.inside == job->closes) need(done_jobs_.contains(j.id.value), "it would close in what is not done yet");
            closed_.insert(job->closes);
        }
        switch (job->kind) {
        case build::JobKind::Cut:
        case build::JobKind::Grind:
        case build::JobKind::Weld:
            sparks();
            bareOfPaint(*job);
            break;
        case build::JobKind::Electrical: need(!battery_in_, "wires are worked on with the battery in"); break;
        case build::JobKind::Fuel: need(!battery_in_, "open fuel with the battery in"); break;
        case build::JobKind::Restraints: need(!battery_in_, "belt tensioners are not touched with the battery in"); break;
        case build::JobKind::Test: // a bare frame may run by itself
            need(connected_ || !body_comes_off_ || !body_on_, "loom and lines are still apart");
            break;
        default: break;
        }
        done_jobs_.insert(job->id.value);
    }
    void bareOfPaint(const build::Job& job) const {
        if (job.area.empty()) return;
        for (const build::Job& j : f_.jobs)
            if (j.kind == build::JobKind::Paint && j.area == job.area && done_jobs_.contains(j.id.value))
                need(!job.after.empty() || !j.before.empty(), "sparks on fresh paint"); // unless they are asked for so
    }

    void move(const work::Step& s) {
        if (s.moves_to->support != on_) {
            upright();
            need(rails_ == Rails::Whole || rails_ == Rails::Welded || rails_ == Rails::WeldedAbove,
                 "the rails are cut: it falls apart");
            need(s.moves_to->support != build::Support::Wheels || gear_on_, "it has no wheels");
            on_ = s.moves_to->support;
            stands_ = on_ != build::Support::Wheels;
            return;
        }
        const bool off = s.moves_to->body == BodyPlace::Off;
        if (off != !body_on_ && body_comes_off_) {
            upright();
            need(rails_ == Rails::Whole || rails_ == Rails::Welded || rails_ == Rails::WeldedAbove,
                 "the rails are cut: nothing may be lifted");
            need(out_.empty(), "a brace that kept the body's shape is out already");
            if (off) {
                need(!connected_, "loom, lines or cables still tie the body to the frame");
                need(!bolted_, "the body is still bolted down");
                need(braced(), "a brace that keeps the body's shape is not in");
            }
            body_on_ = !off;
            return;
        }
        need(s.moves_to->attitude != attitude_, "it is so already");
        bodyAway();
        need(frame_turns_, "a body that is its own frame is not turned by hand");
        need(!gear_on_, "engine and axles hang on the frame");
        need(!tank_in_, "the tank hangs on the frame");
        need(rails_ == Rails::Whole || rails_ == Rails::Welded || rails_ == Rails::WeldedAbove,
             "the rails are cut: it falls apart");
        onStands();
        attitude_ = s.moves_to->attitude;
        inverted_ = attitude_ != Attitude::RightWayUp;
    }

    void braceIn(build::TemporarySteelId id) {
        sparks();
        braces_.insert(id.value);
    }
    void braceOut(const work::Step& s) {
        need(braces_.contains(s.takes_out.value), "it is not in");
        if (s.hot) sparks(); // else by spanner or hand saw
        braces_.erase(s.takes_out.value);
        out_.insert(s.takes_out.value);
    }
    void braceZone(const std::string& zone) {
        sparks();
        zones_.insert(zone);
    }
    void cutBody(const std::string& name) {
        sparks();
        need(braced(), "a brace that keeps the body's shape is not in");
        for (const work::BodyCut& c : f_.body_cuts)
            if (c.name == name)
                for (const std::string& zone : c.brace)
                    need(zones_.contains(zone), "what carries the shell there is not braced: " + zone);
    }
    /// "off-nose": a piece of another frame, from the old end off to the joint cold.
    void graft(const std::string& what);
    /// "slit": the chassis made narrower. "set-left": a rail let into the shell. "strip-left": a floor that reaches out.
    void narrower(const std::string& act);
    void letIn(const std::string& what);
    void floorEdge(const std::string& what);
    /// Whether all that is planned of its width is done.
    bool wideEnough() const {
        return std::all_of(f_.widths.begin(), f_.widths.end(), [&](const work::WidthJob& w) {
            const auto at = widths_.find(w.name);
            return at != widths_.end() && at->second == GraftState::Welded;
        });
    }
    /// Whether the frame is as narrow as it will be.
    bool asNarrow() const {
        return std::none_of(f_.widths.begin(), f_.widths.end(),
                            [](const work::WidthJob& w) { return w.kind == work::WidthJob::Kind::Narrower; }) ||
               (widths_.contains("") && widths_.at("") == GraftState::Welded);
    }
    bool grafted() const {
        return std::all_of(f_.grafts.begin(), f_.grafts.end(), [&](const work::GraftJob& g) {
            const auto at = grafts_.find(g.name);
            return at != grafts_.end() && at->second == GraftState::Welded;
        });
    }
    void run(const std::string& what) {
        need(joined(), "the rails are not joined yet");
        over_cut_.erase(what);
    }
    /// Upside down where a frame can be turned; a shell is welded overhead.
    void fromBelow() const {
        if (frame_turns_) need(inverted_, "its underside is out of reach of a weld");
        onStands();
    }

    const std::map<std::string, Action>& actions() {
        if (!actions_.empty()) return actions_;
        const Action nothing = [] {};
        actions_["record"] = actions_["rules"] = actions_["survey-agrees"] = actions_["before-body-cuts"] = nothing;
        actions_["battery-out"] = [this] { battery_in_ = false; };
        actions_["restraints-off"] = [this] {
            need(!battery_in_, "belt tensioners are not touched with the battery in");
            belts_live_ = false;
        };
        actions_["refrigerant-out"] = [this] { refrigerant_in_ = false; };
        actions_["tank-out"] = [this] {
            need(!battery_in_, "a tank is not drained with the battery in");
            upright();
            tank_in_ = false;
        };
        actions_["brace-body"] = [this] { sparks(); };
        actions_["disconnect"] = [this] {
            need(body_on_, "the body is off already");
            connected_ = false;
        };
        actions_["unbolt-body"] = [this] {
            need(body_on_ && !connected_, "it is still connected");
            need(braced(), "a brace that keeps the body's shape is not in");
            bolted_ = false;
        };
        actions_["support-frame"] = [this] {
            upright();
            stands_ = true;
            on_ = build::Support::Stands;
        };
        actions_["strip-frame"] = [this] {
            bodyAway();
            onStands();
            gear_on_ = false;
        };
        actions_["refit-frame"] = [this] {
            upright();
            onStands();
            need(joined(), "the rails are not joined yet");
            need(!f_.crossmember || crossmember_fitted_, "the gearbox has nothing to stand on");
            gear_on_ = true;
        };
        rails();
        steel();
        spine();
        parts();
        closing();
        return actions_;
    }

    void rails();

    /// The frame's own members, ribs and closing plates.
    void steel();

    /// A spine platform: what runs inside is out of the saw's way before it, and never beside anything hot.
    void spine();
    /// Nothing that stands in the rails may be where the sleeve goes.
    void sleevePasses() const {
        if (!f_.sleeve_mm || !nuts_in_) return;
        for (const double x : f_.nut_stations_mm)
            need(x < f_.sleeve_mm->first || x > f_.sleeve_mm->second,
                 fmt::format("the nut at {:.0f} stands where the sleeve goes", x));
    }
    bool throughEnds() const {
        return f_.crossmember && f_.captive_nuts && f_.cut_planned && f_.joint_station_mm &&
               std::all_of(f_.nut_stations_mm.begin(), f_.nut_stations_mm.end(),
                           [&](double x) { return std::abs(x - *f_.joint_station_mm) <= work::arm_reach_mm; });
    }

    void parts() {
        actions_["make-crossmember"] = [this] {
            sparks();
            crossmember_made_ = true;
        };
        actions_["drill-rails"] = [this] {
            sparks();
            need(crossmember_made_, "there are no flanges to drill through");
            need(joined(), "with the rails apart no flange fits both");
            need(f_.captive_nuts || upright_or_bare(), "it can't be reached");
            drilled_ = true;
        };
        actions_["captive-nuts"] = [this] {
            sparks();
            need(drilled_, "nothing holds a nut where its hole is to be");
            const bool open = rails_ == Rails::Cut || rails_ == Rails::Prepared;
            if (open)
                for (const double x : f_.nut_stations_mm)
                    need(std::abs(x - f_.joint_station_mm.value_or(1e9)) <= work::arm_reach_mm,
                         fmt::format("no hand reaches {:.0f} through the open end", x));
            else
                fromBelow();
            nuts_in_ = true;
        };
        actions_["fit-crossmember"] = [this] {
            upright();
            need(joined(), "the rails are not joined yet");
            need(crossmember_made_ && drilled_, "it is not made, or nothing is drilled");
            need(!f_.captive_nuts || nuts_in_, "its bolts have no nuts");
            crossmember_fitted_ = true;
        };
        actions_["make-mounts"] = [this] { mounts_made_ = true; };
        actions_["mount-nuts"] = [this] {
            sparks();
            bodyAway();
            need(joined(), "the rails are not joined yet");
            fromBelow();
            mount_nuts_in_ = true;
        };
        actions_["tack-mounts"] = [this] {
            sparks();
            bodyAway();
            upright();
            need(joined(), "the rails are not joined yet");
            need(mounts_made_, "there are no standoffs");
            need(f_.mount_nuts == 0 || mount_nuts_in_, "their bolts go into a closed rail without a nut");
            mounts_tacked_ = true;
        };
        actions_["trial-sit"] = [this] {
            need(body_on_ && mounts_tacked_, "there is nothing to sit on");
            upright();
            tried_ = true;
        };
        actions_["before-mount-welding"] = [this] { need(body_on_, "the gaps are only so with the body on its mounts"); };
        actions_["weld-mounts"] = [this] {
            sparks();
            bodyAway();
            need(mounts_tacked_ && tried_, "nobody saw whether the bolts go in");
            mounts_welded_ = true;
        };
        actions_["body-edges"] = [this] { sparks(); };
        actions_["coat-frame"] = [this] {
            bodyAway();
            need(joined() && !tied_, "it is not welded and cleaned yet");
            need(f_.mounts == 0 || mounts_welded_, "the mounts would be welded through the coat");
            need(!f_.crossmember || drilled_, "the rails would be drilled through the coat");
            need((f_.steel.in_words.empty() || members_in_) && (f_.steel.rib_words.empty() || ribs_in_) &&
                     (f_.steel.plate_words.empty() || shut_) && (f_.steel.out_words.empty() || members_out_),
                 "the frame's steel would be welded through the coat");
            need(grafted(), "a piece would be welded through the coat");
            need(f_.hole_words.empty() || holes_anew_, "it would be drilled through the coat");
            need(wideEnough() && !width_tied_, "floor and sides would be welded through the coat");
            coated_ = true;
        };
    }

    void closing() {
        actions_["bolt-body"] = [this] {
            need(body_on_, "it hangs");
            need(f_.mounts == 0 || mounts_welded_, "its mounts are only tacked");
            bolted_ = true;
        };
        actions_["connect"] = [this] {
            need(body_on_ && bolted_, "it is not bolted down");
            connected_ = true;
        };
        actions_["tank-in"] = [this] {
            upright();
            tank_in_ = true;
        };
        actions_["leak-test"] = [this] {
            need(f_.fuel_tank == Presence::Absent || tank_in_, "there is no tank to test");
            need(over_cut_.empty() || !cleared_, "lines that were cleared are not run again");
        };
        actions_["battery-in"] = [this] { battery_in_ = true; };
        actions_["align"] = [this] {
            upright();
            need(grafted() && wideEnough(), "a part of the frame is not joined yet");
            need(gear_on_, "it has no wheels");
            stands_ = false;
            on_ = build::Support::Wheels;
        };
        const auto on_wheels = [this] {
            upright();
            need(gear_on_, "it has no wheels");
            need(!f_.has_body || body_on_, "its weight is not on it");
            need(grafted() && wideEnough(), "a part of the frame is not joined yet");
            stands_ = false;
            on_ = build::Support::Wheels;
        };
        actions_["tighten-bushes"] = [this, on_wheels] {
            on_wheels();
            bushes_tight_ = true;
        };
        actions_["shaft-lengths"] = [this, on_wheels] {
            on_wheels();
            need(f_.bushes.empty() || bushes_tight_, "it has not settled yet");
        };
        actions_["approval"] = [this] { need(gear_on_ && joined() && braces_.empty(), "it is not ready to be looked over"); };
    }
    bool upright_or_bare() const { return !inverted_ || !gear_on_; }

    const work::Facts& f_;
    std::map<std::string, Action> actions_;
    bool frame_turns_, body_comes_off_, body_on_, bolted_, connected_, inverted_;
    bool tank_in_, battery_in_, belts_live_, refrigerant_in_;
    enum class Inside { There, Apart, Joined } inside_ = Inside::There; ///< what runs inside a spine
    bool windows_ = false, covered_ = false;
    enum class GraftState { Whole, Off, Set, Tacked, Welded };
    std::map<std::string, GraftState> grafts_;
    std::map<std::string, GraftState> widths_; ///< by name; "" is the whole chassis
    bool width_tied_ = false, holes_anew_ = false, bushes_tight_ = false;
    std::set<std::string> armed_; ///< edges whose outriggers are on
    bool members_out_ = false, members_in_ = false, ribs_in_ = false, shut_ = false;
    bool stands_ = false, gear_on_ = true, tied_ = false, cleared_ = false;
    bool crossmember_made_ = false, drilled_ = false, nuts_in_ = false, crossmember_fitted_ = false;
    bool mounts_made_ = false, mount_nuts_in_ = false, mounts_tacked_ = false, tried_ = false, mounts_welded_ = false,
         coated_ = false;
    Rails rails_ = Rails::Whole;
    std::set<std::uint32_t> braces_;
    std::set<std::uint32_t> out_;
    std::set<std::string> zones_;
    std::set<std::string> over_cut_;
    build::Support on_ = build::Support::Wheels;
    Attitude attitude_ = Attitude::RightWayUp;
    std::set<std::string> closed_; ///< spaces
    std::set<std::uint32_t> done_jobs_;
};

} // namespace gorvet::sim::shop
