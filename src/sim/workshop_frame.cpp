// What is done to the frame itself: cut and joined, its own members, a spine, pieces of other frames.
#include "sim/workshop.hpp"

namespace gorvet::sim::shop {

void Workshop::rails() {
    actions_["clear-rails"] = [this] {
        need(!tank_in_ && !battery_in_, "fuel lines are not opened with tank or battery in");
        cleared_ = true;
    };
    actions_["scribe"] = [this] {
        bodyAway();
        onStands();
        upright();
    };
    actions_["tie-rails"] = [this] {
        sparks();
        onStands();
        need(rails_ == Rails::Whole, "the rails are cut already");
        tied_ = true;
    };
    actions_["before-cutting"] = [this] { need(tied_, "the rails are not tied"); };
    actions_["cut-rails"] = [this] {
        sparks();
        bodyAway();
        upright();
        onStands();
        need(tied_, "the halves fall apart");
        need(cleared_ || over_cut_.empty(), "something runs along the cut");
        need(f_.spine_windows.empty() || inside_ == Inside::Apart, "what runs inside the spine would be sawn through");
        need(f_.steel.out_words.empty() || members_out_, "a member that is to go still stands there");
        need(rails_ == Rails::Whole, "they are cut already");
        rails_ = Rails::Cut;
    };
    actions_["prepare-ends"] = [this] {
        sparks();
        need(rails_ == Rails::Cut, "there are no open ends");
        rails_ = Rails::Prepared;
    };
    actions_["try-sleeves"] = [this] {
        need(rails_ == Rails::Prepared, "the ends are not prepared");
        sleevePasses();
        rails_ = Rails::Tried;
    };
    actions_["close-up"] = [this] {
        need(rails_ == Rails::Tried || (f_.sleeve_words.empty() && rails_ == Rails::Prepared), "the sleeves were not tried");
        sleevePasses();
        need(!throughEnds() || nuts_in_, "the nuts can't be got in any more once it is closed");
        rails_ = Rails::Closed;
    };
    actions_["tack-rails"] = [this] {
        sparks();
        need(rails_ == Rails::Closed, "there is nothing to tack");
        rails_ = Rails::Tacked;
    };
    actions_["before-welding"] = [this] { need(rails_ == Rails::Tacked, "it is not tacked"); };
    actions_["weld-rails"] = [this] {
        sparks();
        upright();
        need(rails_ == Rails::Tacked, "it is not tacked");
        rails_ = Rails::WeldedAbove;
    };
    actions_["weld-below"] = [this] {
        sparks();
        fromBelow();
        need(rails_ == Rails::WeldedAbove, "the upper sides are not welded");
        rails_ = Rails::Welded;
    };
    actions_["after-welding"] = [this] { need(rails_ == Rails::Welded, "it is not welded"); };
    actions_["untie-rails"] = [this] {
        sparks();
        need(rails_ == Rails::Welded && tied_, "the ties still hold it");
        tied_ = false;
    };
}

void Workshop::steel() {
    const auto reached = [this] {
        sparks();
        bodyAway();
        upright();
        onStands();
        need(!coated_, "it would burn the coat");
    };
    actions_["members-out"] = [this, reached] {
        reached();
        need(joined(), "the halves have nothing else to hold on to");
        need(!f_.cut_planned || rails_ != Rails::Whole || tied_, "nothing keeps the rails apart");
        members_out_ = true;
    };
    actions_["members-in"] = [this, reached] {
        reached();
        need(joined(), "the rails may still move");
        need(f_.steel.out_words.empty() || members_out_, "the old one is in the way");
        members_in_ = true;
    };
    actions_["ribs-in"] = [this, reached] {
        reached();
        need(joined(), "the rails may still move");
        need(!shut_, "the rail is closed: nobody reaches in");
        ribs_in_ = true;
    };
    actions_["shut-rails"] = [this, reached] {
        reached();
        need(joined(), "the plate would hold them where they are");
        need(f_.steel.rib_words.empty() || ribs_in_, "the ribs can't be got in any more");
        need(!f_.crossmember || !f_.captive_nuts || nuts_in_, "the crossmember's nuts can't be got in any more");
        need(f_.mount_nuts == 0 || mount_nuts_in_, "the mounts' nuts can't be got in any more");
        need(!f_.crossmember || drilled_, "the drill would leave its swarf in a closed rail");
        shut_ = true;
    };
}

void Workshop::spine() {
    actions_["spine-windows"] = [this] {
        sparks();
        bodyAway();
        onStands();
        need(rails_ == Rails::Whole, "the spine is cut already");
        windows_ = true;
    };
    actions_["inside-apart"] = [this] {
        need(windows_, "no hand reaches into the spine");
        inside_ = Inside::Apart;
    };
    actions_["inside-joined"] = [this] {
        need(windows_ && !covered_, "no hand reaches into the spine");
        need(inside_ == Inside::Apart, "it was never apart");
        need(joined(), "the halves may still move");
        inside_ = Inside::Joined;
    };
    actions_["spine-covers"] = [this] {
        need(inside_ == Inside::Joined, "what runs inside is still apart, and nobody will reach it any more");
        covered_ = true;
    };
}

void Workshop::graft(const std::string& what) {
    const auto dash = what.find('-');
    const std::string act = what.substr(0, dash);
    GraftState& now = grafts_[what.substr(dash + 1)];
    bodyAway();
    onStands();
    need(joined(), "the rails are cut elsewhere");
    if (act == "before") return;
    if (act == "off") {
        sparks();
        upright();
        need(!connected_ || !body_comes_off_, "loom and lines still run over the joint");
        now = GraftState::Off;
    } else if (act == "set") {
        need(now == GraftState::Off, "the old end is still there");
        now = GraftState::Set;
    } else if (act == "tack") {
        sparks();
        need(now == GraftState::Set, "it does not stand where it shall be");
        now = GraftState::Tacked;
    } else if (act == "weld") {
        sparks();
        need(now == GraftState::Tacked, "it would pull itself out of line");
        need(!coated_, "it would burn the coat");
        now = GraftState::Welded;
    } else {
        need(act == "cold" && now == GraftState::Welded, "it is not welded");
    }
}

void Workshop::narrower(const std::string& act) {
    GraftState& now = widths_[""];
    bodyAway();
    onStands();
    need(joined() && !tied_, "the rails are cut elsewhere");
    if (act == "tie") {
        sparks();
        width_tied_ = true;
    } else if (act == "slit") {
        sparks();
        upright();
        need(width_tied_, "both sides would fall apart");
        need(!connected_ || !body_comes_off_, "loom and lines still run across");
        now = GraftState::Off;
    } else if (act == "set") {
        need(now == GraftState::Off, "nothing is slit yet");
        now = GraftState::Set;
    } else if (act == "tack") {
        sparks();
        need(now == GraftState::Set, "the sides do not stand where they shall be");
        now = GraftState::Tacked;
    } else if (act == "weld") {
        sparks();
        need(now == GraftState::Tacked && width_tied_, "it would pull itself out of line");
        need(!coated_, "it would burn the coat");
        need(!members_in_ && !crossmember_fitted_ && !mounts_tacked_, "what was made for the wide frame fits no more");
        now = GraftState::Welded;
    } else if (act == "untie") {
        need(now == GraftState::Welded, "the sides would fall apart");
        width_tied_ = false;
    } else {
        need(act == "before" || (act == "cold" && now == GraftState::Welded), "it is not welded");
    }
}

void Workshop::letIn(const std::string& what) {
    const auto dash = what.find('-');
    const std::string act = what.substr(0, dash);
    GraftState& now = widths_[what.substr(dash + 1)];
    onStands();
    if (act == "before") return;
    if (act == "open") {
        sparks();
        need(braced(), "the shell would sag at its doors");
        now = GraftState::Off;
    } else if (act == "set") {
        need(now == GraftState::Off, "the floor is in the way");
        now = GraftState::Set;
    } else if (act == "tack") {
        sparks();
        need(now == GraftState::Set, "the rail is not there");
        now = GraftState::Tacked;
    } else if (act == "weld") {
        sparks();
        need(now == GraftState::Tacked && !coated_, "it is not tacked, or the coat would burn");
        now = GraftState::Welded;
    } else if (act == "floor") {
        sparks();
        need(now == GraftState::Welded, "the rail would be pulled by its floor");
    } else {
        need(act == "cold" && now == GraftState::Welded, "it is not welded");
    }
}

void Workshop::floorEdge(const std::string& what) {
    const auto dash = what.find('-');
    const std::string act = what.substr(0, dash), name = what.substr(dash + 1);
    bodyAway();
    onStands();
    need(joined(), "the rails are cut: the edge will stand elsewhere");
    if (act == "before") return;
    sparks();
    need(asNarrow(), "the edge will come in with its side");
    need(!coated_, "it would burn the coat");
    if (act == "arms") {
        armed_.insert(name);
        return;
    }
    const bool arms = std::any_of(f_.widths.begin(), f_.widths.end(),
                                  [&](const work::WidthJob& w) { return w.name == name && !w.pieces.empty(); });
    need(act == "strip" && (!arms || armed_.contains(name)), "nobody reaches the outriggers under the strip");
    widths_[name] = GraftState::Welded;
}

} // namespace gorvet::sim::shop
