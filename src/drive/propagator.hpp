#pragma once

#include "build/figure.hpp"
#include "units/quantity.hpp"

#include <algorithm>
#include <cmath>
#include <functional>
#include <vector>

/// Figures of numbers that do not depend on each other, their ± by the law of propagation with central differences. Internal to
/// this room; of places that come from one survey it is build::figureOf.
namespace gorvet::drive {

class Propagator {
public:
    using All = std::vector<double>;
    /// Its place in what the functions are given. An infinite ± counts as none: it must be asked before.
    std::size_t add(double value, double u95, build::Provenance origin) {
        values_.push_back(value);
        u95_.push_back(std::isfinite(u95) ? u95 : 0);
        origins_.push_back(origin);
        return values_.size() - 1;
    }
    std::size_t add(const build::Figure& f) { return add(f.value, f.u95, f.provenance); }
    /// What was read with that ±: of a type like build::Dimension.
    template <class Read> std::size_t add(const Read& d, double u95) { return add(d.value, u95, d.provenance); }

    build::Figure of(const std::vector<std::size_t>& which, const std::function<double(const All&)>& f) const {
        All at = values_;
        double square = 0;
        build::Provenance origin = build::Provenance::Derived;
        for (const std::size_t k : which) {
            origin = build::worst(origin, origins_[k]);
            if (u95_[k] <= 0) continue;
            const double step = std::max(1e-6, 1e-4 * std::abs(values_[k]));
            at[k] = values_[k] + step;
            const double more = f(at);
            at[k] = values_[k] - step;
            const double less = f(at);
            at[k] = values_[k];
            square += std::pow((more - less) / (2 * step) * u95_[k], 2);
        }
        return {f(at), std::sqrt(square), origin};
    }
    /// Of all that were added so far.
    build::Figure of(const std::function<double(const All&)>& f) const {
        std::vector<std::size_t> all(values_.size());
        for (std::size_t k = 0; k < all.size(); ++k) all[k] = k;
        return of(all, f);
    }

private:
    All values_, u95_;
    std::vector<build::Provenance> origins_;
};

} // namespace gorvet::drive
