#pragma once

#include "build/remark.hpp"
#include "build/words.hpp"

#include <string>
#include <vector>

/// How new steel is joined to what is there: by what that is made of, how much of it is left, and what lies on it. mm.
namespace gorvet::make {

enum class JoinWay { Weld, PlugWeld, Braze, BondAndRivet, Bolt, Ask };
/// "welded", "bonded and riveted" …
const char* joinWord(JoinWay);

struct JoinIn {
    std::string part, kind, tag;
    build::BaseMetal base = build::BaseMetal::Mild;
    bool base_known = false; ///< somebody said what it is
    build::Figure base_mm;   ///< thickness where it is joined; value 0: not known
    bool coated = false;
    double sheet_mm = 0; ///< the thinnest of the part that is welded there
    bool welded = false; ///< it has seams on the car
    bool bolted = false; ///< it is bolted on
    bool operator==(const JoinIn&) const = default;
};
struct JoinPlan {
    JoinWay way = JoinWay::Ask;
    std::string process;            ///< with filler, by its kind; empty: none
    std::vector<std::string> first; ///< what is done before
    std::vector<build::Remark> remarks;
    build::PlanVerdict verdict = build::PlanVerdict::Marginal;
    bool welds() const { return way == JoinWay::Weld || way == JoinWay::PlugWeld || way == JoinWay::Braze; }
};
/// Mild steel is welded, below 0.8 plug-welded through a doubler or bonded; galvanised brazed where it is thin; stainless with
/// over-alloyed filler; aluminium and cast are never welded to steel; high-strength and unknown are asked about first.
/// engineering.md, Make.
JoinPlan joinPlan(const JoinIn&);

inline constexpr double thin_base_mm = 0.8, least_weld_mm = 1.0, most_ratio = 3, braze_below_mm = 2;

} // namespace gorvet::make
