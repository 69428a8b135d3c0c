#pragma once

#include "analysis/sit_input.hpp"
#include "build/places.hpp"

#include <algorithm>

/// Points of a survey for what is computed from places with their covariance. Internal to this room.
namespace gorvet::analysis {

/// Points of a survey that are fixed, each once, with their covariance.
class FixedPoints {
public:
    FixedPoints(const build::Build& b, const SurveyOf& s) : b_(b), s_(s) {}
    /// Its place in the list; −1 where it has none in the world yet.
    int take(build::PointId id) {
        const int index = s_.indexOf(id);
        if (index < 0 || !placed(index)) {
            if (const std::string name = nameOf(b_, id); std::find(lost_.begin(), lost_.end(), name) == lost_.end())
                lost_.push_back(name);
            return -1;
        }
        const tape::AdjustedPoint& p = s_.solution->points[static_cast<std::size_t>(index)];
        const auto known = std::find(indices_.begin(), indices_.end(), index);
        if (known != indices_.end()) return static_cast<int>(known - indices_.begin());
        indices_.push_back(index);
        out_.names.push_back(nameOf(b_, id));
        out_.at.push_back(p.position);
        if (p.assumed) assumed_.push_back(nameOf(b_, id));
        return static_cast<int>(indices_.size()) - 1;
    }
    build::Places places() {
        out_.covariance = indices_.empty() ? std::vector<double>{} : covarianceOf(*s_.solution, indices_);
        return out_;
    }
    const std::vector<std::string>& assumed() const { return assumed_; }
    /// The same, said of those that have no place: "the places of A and B: measure them on Tape"; empty where all have one.
    std::string lost() const {
        std::string names;
        for (std::size_t k = 0; k < lost_.size(); ++k) names += (k == 0 ? "" : k + 1 == lost_.size() ? " and " : ", ") + lost_[k];
        if (lost_.empty()) return names;
        return lost_.size() == 1 ? "the place of " + names + ": measure it on Tape"
                                 : "the places of " + names + ": measure them on Tape";
    }

private:
    bool placed(int index) const {
        const tape::AdjustedPoint& p = s_.solution->points[static_cast<std::size_t>(index)];
        return p.determined || p.assumed;
    }
    const build::Build& b_;
    const SurveyOf& s_;
    std::vector<int> indices_;
    std::vector<std::string> assumed_, lost_;
    build::Places out_;
};

/// The most that a load case asks, in multiples of the weight.
double mostUp(const build::Build&);

} // namespace gorvet::analysis
