#include "drive/joints.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace gorvet::drive {

using geometry::Vec3;

namespace {

Vec3 turnedAbout(const Vec3& v, const Vec3& axis, double by) { // Rodrigues
    using namespace geometry;
    return plus(plus(times(v, std::cos(by)), times(cross(axis, v), std::sin(by))),
                times(axis, dot(axis, v) * (1 - std::cos(by))));
}

/// v carried from `a` to `b` by the smallest turn that takes a to b.
Vec3 carried(const Vec3& v, const Vec3& a, const Vec3& b) {
    const Vec3 normal = geometry::cross(a, b);
    const double sine = geometry::length(normal);
    if (sine < 1e-15) return v;
    return turnedAbout(v, geometry::times(normal, 1 / sine), std::atan2(sine, geometry::dot(a, b)));
}

/// A direction across an axis: down, as far as it can be.
Vec3 across(const Vec3& axis) {
    const Vec3 up = std::abs(axis.z_mm) < 0.9 ? Vec3{0, 0, 1} : Vec3{0, 1, 0};
    return geometry::unit(geometry::minus(up, geometry::times(axis, geometry::dot(axis, up))));
}

double angleAbout(const Vec3& v, const Vec3& axis, const Vec3& zero) {
    return std::atan2(geometry::dot(geometry::cross(zero, v), axis), geometry::dot(zero, v));
}

} // namespace

double angleBetween(const Vec3& a, const Vec3& b) {
    return std::atan2(geometry::length(geometry::cross(a, b)), geometry::dot(a, b));
}

double ratioOfCross(double beta_rad, double fork_rad) {
    const double s = std::sin(beta_rad) * std::cos(fork_rad);
    return std::cos(beta_rad) / (1 - s * s);
}

double residualAngle(const std::vector<ChainJoint>& chain) { return std::sqrt(std::abs(residualSquared(chain))); }

std::complex<double> residualSquared(const std::vector<ChainJoint>& chain) {
    if (chain.empty()) return 0;
    std::complex<double> sum = 0;
    Vec3 zero = across(chain.front().in); // the mark of angle 0, carried along without twist
    double clocked = 0, sign = 1;
    for (const ChainJoint& j : chain) {
        const double beta = angleBetween(j.in, j.out);
        if (&j != &chain.front()) clocked += j.clock_rad;
        if (!j.even) {
            if (beta > 1e-12) {
                const Vec3 normal = geometry::unit(geometry::cross(j.in, j.out)); // of the joint's plane, across both shafts
                const double plane = angleAbout(normal, j.in, zero);
                sum += sign * beta * beta * std::polar(1.0, 2 * (clocked - plane));
            }
            sign = -sign;
        }
        zero = carried(zero, j.in, j.out);
    }
    return sum;
}

namespace {

/// How far the last shaft is ahead of an even one, step by step over a turn, and how fast it turns for the first.
struct Turning {
    std::vector<double> leads;
    std::vector<double> ratios;
};
Turning turning(const std::vector<ChainJoint>& chain, int steps, double whole = 2 * std::numbers::pi) {
    Turning t;
    const Vec3 first = across(chain.front().in);
    double held = 0;
    for (int k = 0; k < steps; ++k) {
        const double turned = whole * k / steps;
        Vec3 fork = turnedAbout(first, chain.front().in, turned); // the pins of the driving fork
        Vec3 zero = first;
        double quarter = 0, ratio = 1;
        for (const ChainJoint& j : chain) {
            if (&j != &chain.front()) {
                fork = turnedAbout(fork, j.in, j.clock_rad);
                quarter += j.clock_rad;
            }
            if (j.even) {
                fork = carried(fork, j.in, j.out);
            } else {
                const double beta = angleBetween(j.in, j.out);
                if (beta > 1e-12) {
                    // 0 with the driving fork's pins across the plane of both shafts
                    const double pins = angleAbout(fork, j.in, geometry::unit(geometry::cross(j.in, j.out)));
                    ratio *= ratioOfCross(beta, pins + std::numbers::pi / 2);
                }
                fork = geometry::unit(geometry::cross(j.out, fork)); // across the driven shaft, and across the pins that drive
                quarter += std::numbers::pi / 2;
            }
            zero = carried(zero, j.in, j.out);
        }
        double lead = angleAbout(fork, chain.back().out, zero) - turned - quarter;
        lead -= 2 * std::numbers::pi * std::round((lead - held) / (2 * std::numbers::pi));
        held = lead;
        t.leads.push_back(lead);
        t.ratios.push_back(ratio);
    }
    return t;
}

} // namespace

RatioSpan exactRatio(const std::vector<ChainJoint>& chain, int steps) {
    RatioSpan span;
    if (chain.empty()) return span;
    for (const double ratio : turning(chain, steps, std::numbers::pi).ratios)
        span = {std::min(span.least, ratio), std::max(span.most, ratio)};
    return span;
}

std::vector<double> exactRatios(const std::vector<ChainJoint>& chain, int steps) {
    return chain.empty() ? std::vector<double>(static_cast<std::size_t>(steps), 1.0) : turning(chain, steps).ratios;
}

double exactLead(const std::vector<ChainJoint>& chain, int steps) {
    if (chain.empty()) return 0;
    double ahead = 0, behind = 0, mean = 0;
    const std::vector<double> leads = turning(chain, steps).leads;
    for (const double lead : leads) mean += lead / steps;
    for (const double lead : leads) {
        ahead = std::max(ahead, lead - mean);
        behind = std::min(behind, lead - mean);
    }
    return (ahead - behind) / 2;
}

} // namespace gorvet::drive
