#pragma once

#include "build/coats.hpp"
#include "sheet/page.hpp"

#include <string>
#include <vector>

/// Rust and coats: how much of what goes on, how long it dries, what may go on what, and how long bare metal may wait.
namespace gorvet::work {

/// What is usual for a kind of coat, until its own sheet says otherwise.
struct UsualCoat {
    double covers_m2; ///< by a litre, one coat
    double dries_h;   ///< at 20 °C, before the next
    double pot_min;   ///< once mixed, at 20 °C; 0: one pack
    bool isocyanates; ///< its hardener holds them
};
const UsualCoat& usualOf(build::CoatKind);
/// Hours that bare metal may wait for its first coat; 0: as long as it likes. Usual in dry air.
double bareHours(build::Metal, build::Preparation);

struct CoatPlan {
    std::string name;
    build::CoatKind kind = build::CoatKind::EpoxyPrimer;
    double litres = 0;   ///< 0: not known
    double dries_h = 0;  ///< before the next, at the surface's temperature
    double pot_min = 0;  ///< at that temperature; 0: one pack
    bool assumed = true; ///< usual figures of its kind are in it
    bool done = false;
};
struct CoatRemark {
    units::PlanVerdict verdict = units::PlanVerdict::Marginal;
    const char* what = ""; ///< "coat-order", "coat-wet", "coat-metal", "coat-cold", "coat-bare", "coat-size"
    std::string sentence;
    std::string remedy;
};
struct SurfacePlan {
    std::vector<CoatPlan> coats;
    std::vector<CoatRemark> remarks; ///< worst first
    double litres = 0;
    double dries_h = 0;                ///< of coats that are not done
    std::optional<double> bare_h;      ///< since it was bare, while nothing is on it
    std::optional<double> bare_left_h; ///< until it should be coated; < 0: too late
    const CoatPlan* next() const;
};
/// Litres = area × coats / coverage × 1.15 by brush, 1.5 by spray; of seam sealer 0.016 l a metre of seam; pot life and drying
/// halve for each 10 °C more. `engineering.md`, Work. `now_s`: seconds since 1970.
SurfacePlan planOf(const build::Surface&, const std::vector<build::Coat>&, long long now_s);

struct SurfaceShown {
    build::Surface surface;
    std::vector<build::Coat> coats;
    SurfacePlan plan;
};
/// A table of all surfaces with their coats, to be ticked, and what is to be bought.
std::vector<sheet::Drawing> coatPages(const std::vector<SurfaceShown>&, const sheet::PageTitle&,
                                      const std::vector<std::string>& cautions);

} // namespace gorvet::work
