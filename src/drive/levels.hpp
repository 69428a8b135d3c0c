#pragma once

#include "build/figure.hpp"

#include <optional>
#include <vector>

/// Slopes read with a digital level against plumb, on a vehicle that does not stand level itself: its own slope is one unknown
/// more. rad, down at the back is positive.
namespace gorvet::drive {

struct LevelIn {
    int unit = -1; ///< −1: on the frame
    double slope = 0;
    double sigma = 0; ///< 1σ, > 0
    bool operator==(const LevelIn&) const = default;
};
/// A slope to the frame that the survey knows, as that of a shaft between two marked joints.
struct KnownSlope {
    int unit = 0;
    double slope = 0;
    double sigma = 0; ///< > 0
    bool operator==(const KnownSlope&) const = default;
};

struct LevelJudged {
    double residual = 0;     ///< read less adjusted
    double redundancy = 0;   ///< 0: nothing checks it
    double standardised = 0; ///< |residual| in its own σ; 0 where nothing checks it
    bool set_aside = false;  ///< it disagrees by more than 3.29 σ
    bool other_sign = false; ///< with the other sign it would agree
};
struct Levels {
    std::optional<build::Figure> frame;              ///< against plumb; none: never read, and taken as level
    std::vector<std::optional<build::Figure>> units; ///< to the frame; assumed where the frame was not read
    std::vector<LevelJudged> readings;
    std::vector<double> covariance; ///< of the units' slopes, n × n, row-major: the frame's own error is in all of them
};

/// Least squares, begun robustly (Huber) so that one gross angle accuses no other; then without what disagrees, the worst first.
/// Without a reading of the frame it is taken as level to within a degree (1σ), and all is assumed. engineering.md, Tape.
Levels levelled(const std::vector<LevelIn>&, const std::vector<KnownSlope>&, std::size_t units);

} // namespace gorvet::drive
