#include "make/join.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::make {

using build::BaseMetal;
using build::PlanVerdict;

const char* joinWord(JoinWay w) {
    switch (w) {
    case JoinWay::Weld: return "welded";
    case JoinWay::PlugWeld: return "plug-welded";
    case JoinWay::Braze: return "brazed";
    case JoinWay::BondAndRivet: return "bonded and riveted";
    case JoinWay::Bolt: return "bolted";
    case JoinWay::Ask: return "not said";
    }
    return "";
}

namespace {

class JoinMaker {
public:
    explicit JoinMaker(const JoinIn& in) : in_(in) {}

    JoinPlan plan() {
        if (!in_.welded) {
            bolted();
            return finished();
        }
        if (in_.base_mm.value <= 0)
            add("join-thick", PlanVerdict::Marginal, "How thick the steel is that it is welded to is not known.",
                fmt::format("Measure it where it is clean, by a hole or with a gauge: part {} upon mild thick 3.", in_.part));
        switch (in_.base) {
        case BaseMetal::Mild: mild(); break;
        case BaseMetal::HighStrength: highStrength(); break;
        case BaseMetal::Galvanised: galvanised(); break;
        case BaseMetal::Stainless: stainless(); break;
        case BaseMetal::Aluminium:
            never("Aluminium", "A steel part is bolted to it: a sleeve or a washer of plastic under each head, sealer between.");
            break;
        case BaseMetal::Cast:
            never("What is cast",
                  "Clamp it or bolt it; what is cast and steers, brakes or carries wheels goes to licensed hands.");
            break;
        case BaseMetal::Unknown: unknown(); break;
        }
        if (!in_.base_known && in_.base == BaseMetal::Mild)
            add("join-known", PlanVerdict::Marginal, "What it is joined to is taken as mild steel: nobody said so.",
                fmt::format("A magnet, a file and its papers tell: part {} upon mild.", in_.part));
        return finished();
    }

private:
    build::Remark& add(const char* code, PlanVerdict v, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, v, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }
    void first(std::string what) { p_.first.push_back(std::move(what)); }
    double base() const { return in_.base_mm.value; }
    /// Its least as it is known.
    double leastBase() const { return std::max(0.0, base() - in_.base_mm.u95); }

    void clean() {
        if (in_.coated) first("paint, sealer and wax off, 30 mm all round and behind");
        first("bright metal, 20 mm beyond each seam");
    }
    void thinOrThick() {
        if (base() <= 0 || in_.sheet_mm <= most_ratio * leastBase()) return;
        add("join-thick", PlanVerdict::Marginal,
            fmt::format("{:g} mm are welded to {:g}: the thin one burns through before the thick one melts.", in_.sheet_mm,
                        base()),
            fmt::format("A doubler of {:.1f} between, its corners round, welded on first.", std::min(2 * base(), in_.sheet_mm)));
    }
    void mild() {
        clean();
        if (base() > 0 && leastBase() < thin_base_mm) {
            p_.way = JoinWay::PlugWeld;
            p_.process = "MAG, thin wire of mild steel, through holes of 8 in a doubler on both sides";
            first("the sheet beside cut back to what rings sound");
            add("join-thin", PlanVerdict::Marginal,
                fmt::format("{:.1f} mm are left of what it is joined to: a seam along its edge tears out.", leastBase()),
                "New metal let in first, or a doubler that spreads the load; bond and rivet where nothing may be heated.")
                .of(fmt::format("{:.1f} mm", leastBase()), fmt::format("≥ {:g} mm", thin_base_mm));
            return;
        }
        p_.way = JoinWay::Weld;
        p_.process = in_.sheet_mm > 10 || base() > 10 ? "MAG, solid wire of mild steel; warm it to the hand first"
                                                      : "MAG, solid wire of mild steel";
        thinOrThick();
    }
    void highStrength() {
        clean();
        p_.way = JoinWay::Weld;
        p_.process = "MAG, wire no stronger than the weaker side, short runs, never hotter than a hand bears between";
        thinOrThick();
        add("join-strong", PlanVerdict::Marginal, "High-strength steel goes soft beside a weld, and is never straightened hot.",
            "Weld it where its maker does, by his sheets; where it folds in a crash it is licensed work.");
    }
    void galvanised() {
        first("zinc ground off, 25 mm on both sides of both faces: its fumes make ill");
        if (in_.coated) clean();
        const bool thin = base() > 0 && leastBase() < braze_below_mm;
        p_.way = thin ? JoinWay::Braze : JoinWay::Weld;
        p_.process =
            thin ? "MIG brazing with silicon bronze: a cold joint that keeps the zinc beside" : "MAG, solid wire of mild steel";
        thinOrThick();
        add("join-zinc", PlanVerdict::Marginal, "Where zinc was ground off it rusts first, and zinc fumes are poison.",
            "Air drawn off and a mask; zinc paint on both faces once it is cold.");
    }
    void stainless() {
        clean();
        p_.way = JoinWay::Weld;
        p_.process = "TIG or MAG with over-alloyed austenitic filler, for stainless on mild";
        first("brushes and discs that never touched mild steel");
        thinOrThick();
    }
    void never(const char* what, const char* remedy) {
        p_.way = JoinWay::Bolt;
        add("join-never", PlanVerdict::Fails, fmt::format("{} is not welded to steel.", what), remedy);
    }
    void unknown() {
        p_.way = JoinWay::Ask;
        add("join-unknown", PlanVerdict::Fails, "What it is joined to is not known: nothing is welded to it.",
            fmt::format("A magnet, a file, a spark on the wheel, its maker's papers; then: part {} upon mild.", in_.part));
    }
    void bolted() {
        p_.way = JoinWay::Bolt;
        if (in_.base == BaseMetal::Aluminium) {
            first("a sleeve or washer of plastic under each head, sealer between: steel eats aluminium");
            first("zinc-plated bolts, no bare stainless ones");
        } else if (in_.base == BaseMetal::Cast) {
            first("its own threads or through bolts; no new holes in what is cast without its maker");
        } else {
            first("paint both faces before they meet");
        }
        if (in_.base == BaseMetal::Unknown || !in_.base_known)
            add("join-known", PlanVerdict::Marginal, "What it is bolted to is not known.",
                "Ask what it is before it is drilled.");
    }
    JoinPlan finished() {
        p_.verdict = PlanVerdict::Holds;
        if (in_.welded && p_.welds() && in_.base_mm.value > 0 && in_.base_mm.provenance == build::Provenance::Assumed) {
            p_.verdict = PlanVerdict::Marginal;
            first("how thick it is right there, by a gauge or a hole: it was measured elsewhere");
        }
        std::stable_sort(p_.remarks.begin(), p_.remarks.end(),
                         [](const build::Remark& a, const build::Remark& b) { return a.verdict > b.verdict; });
        for (const build::Remark& r : p_.remarks) p_.verdict = std::max(p_.verdict, r.verdict);
        return std::move(p_);
    }

    const JoinIn& in_;
    JoinPlan p_;
};

} // namespace

JoinPlan joinPlan(const JoinIn& in) { return JoinMaker(in).plan(); }

} // namespace gorvet::make
