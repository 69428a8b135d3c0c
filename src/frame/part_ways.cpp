#include "frame/part_ways.hpp"

#include <cmath>

namespace gorvet::frame {
namespace {

constexpr double newton_per_kg = 9.81;

/// An upright force on the beam, N, up.
struct Upright {
    double at = 0;
    double up = 0;
};

/// A straight beam on two supports, by Macaulay's brackets: E I v = Σ F ⟨x − a⟩³ / 6 + C x + D.
class RestingBeam {
public:
    RestingBeam(std::vector<Upright> forces, double a, double b, double ei) : forces_(std::move(forces)), ei_(ei) {
        double sum = 0, about_a = 0;
        for (const Upright& f : forces_) {
            sum += f.up;
            about_a += f.up * (f.at - a);
        }
        const double at_b = -about_a / (b - a);
        forces_.push_back({b, at_b});
        forces_.push_back({a, -sum - at_b});
        slope_ = -(bent(b) - bent(a)) / (b - a);
        rest_ = -bent(a) - slope_ * a;
    }
    double up(double x) const { return (bent(x) + slope_ * x + rest_) / ei_; }
    double rise(double x) const {
        double sum = slope_;
        for (const Upright& f : forces_)
            if (x > f.at) sum += f.up * (x - f.at) * (x - f.at) / 2;
        return sum / ei_;
    }

private:
    double bent(double x) const {
        double sum = 0;
        for (const Upright& f : forces_)
            if (x > f.at) sum += f.up * std::pow(x - f.at, 3) / 6;
        return sum;
    }

    std::vector<Upright> forces_;
    double ei_;
    double slope_ = 0;
    double rest_ = 0;
};

} // namespace

EndMoves endMoves(const std::vector<Weight>& weights, double near_mm, double far_mm, double end_mm, double ei_nmm2) {
    const double a = std::min(near_mm, far_mm), b = std::max(near_mm, far_mm);
    std::vector<Upright> forces;
    for (const Weight& w : weights) forces.push_back({w.at.x_mm, -w.kg * newton_per_kg});
    const RestingBeam own(std::move(forces), a, b, ei_nmm2);
    const RestingBeam pushed({{end_mm, 1}}, a, b, ei_nmm2);
    // v rises rearward: the rear stands higher
    return {-own.up(end_mm), -own.rise(end_mm), pushed.up(end_mm)};
}

double stepWithTies(double step_mm, const EndMoves& ahead, const EndMoves& behind, double ei_nmm2, double free_mm) {
    const double ends = ahead.yields_mm_n + behind.yields_mm_n;
    if (!(ends > 0)) return 0; // ends that do not give do not move
    const double ties = 2 * 12 * ei_nmm2 / std::pow(free_mm, 3);
    return step_mm / (1 + ends * ties);
}

} // namespace gorvet::frame
