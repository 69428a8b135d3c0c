#include "tape/undetermined.hpp"

#include "dense/dense.hpp"
#include "tape/rigid.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

#include <fmt/format.h>

namespace gorvet::tape {
namespace {

/// Singular values below this share of the largest count as zero, as in Factor.

std::string nameList(const Survey& survey, const std::vector<int>& points) {
    std::string list;
    const size_t most = 6;
    for (size_t i = 0; i < points.size() && i < most; ++i) {
        if (i > 0) list += i + 1 == points.size() ? " and " : ", ";
        list += survey.points[points[i]].name;
    }
    if (points.size() > most) list += fmt::format(" and {} more", points.size() - most);
    return list;
}

struct Motion {
    const char* what;
    const char* sentence;
    const char* remedy;
};
constexpr Motion six_motions[6] = {
    {"fore and aft", "Nothing holds the survey fore and aft.", "Hold the station of one point (hold-x)."},
    {"sideways", "Nothing holds the survey sideways.", "Hold the offset of one point (hold-y)."},
    {"up and down", "Nothing holds the survey up and down.", "Hold the height of one point (hold-z)."},
    {"roll", "Nothing stops the survey from rolling about its length.",
     "Hold or measure heights on both sides: three heights not on one line fix the datum plane."},
    {"pitch", "Nothing stops the survey from tipping nose up or down.",
     "Hold or measure heights at the front and the rear: three heights not on one line fix the datum plane."},
    {"yaw", "Nothing stops the survey from swinging in plan.",
     "Hold or measure the offset of a second point far from the first (hold-y)."},
};

void sayLocal(const Network& net, const Eigen::MatrixXd& local, const std::vector<char>& untouched,
              std::vector<Undetermined>& out) {
    const Survey& survey = *net.survey;
    std::map<int, std::vector<int>> by_axes; // bit set of open axes → points
    for (size_t i = 0; i < net.at.size(); ++i) {
        int axes = 0;
        for (int axis = 0; axis < 3; ++axis)
            if (const int k = net.free_index[3 * i + axis];
                k >= 0 && (untouched[k] || (local.cols() > 0 && local.row(k).squaredNorm() > 0.01)))
                axes |= 1 << axis;
        if (axes) by_axes[axes].push_back(static_cast<int>(i));
    }
    for (const auto& [axes, points] : by_axes) {
        const bool one = points.size() == 1;
        const std::string names = nameList(survey, points);
        Undetermined u;
        u.points = points;
        u.of_points = true;
        switch (axes) {
        case 1:
            u.what = one ? "station" : "stations";
            u.remedy = one ? "Measure its station, or tape it to a point ahead or behind."
                           : "Measure the station of one of them, or tape it to a point ahead or behind.";
            break;
        case 2:
            u.what = one ? "offset" : "offsets";
            u.remedy = one ? "Measure its offset from the centre string, or tape it across the frame."
                           : "Measure the offset of one of them from the centre string, or tape it across the frame.";
            break;
        case 4:
            u.what = one ? "height" : "heights";
            u.remedy = one ? "Measure its height, or a level to a point whose height is known."
                           : "Measure the height of one of them, or a level to a point whose height is known; then look again.";
            break;
        case 3:
            u.what = one ? "place in plan" : "places in plan";
            u.remedy = "Tape to two more points in different directions, or measure station and offset.";
            break;
        default:
            u.what = one ? "position" : "positions";
            u.remedy = "Tape to three more points in different directions, or measure height, station and offset.";
            break;
        }
        u.sentence = fmt::format("Nothing fixes the {} of {}.", u.what, names);
        out.push_back(std::move(u));
    }
}

} // namespace

Fixing findUndetermined(const Network& net, const Rows& rows) {
    Fixing result;
    const Survey& survey = *net.survey;
    result.determined.assign(net.free_index.size(), 1);
    std::vector<int> nowhere;
    for (size_t i = 0; i < net.at.size(); ++i)
        if (!net.placed[i]) {
            nowhere.push_back(static_cast<int>(i));
            for (int axis = 0; axis < 3; ++axis) result.determined[3 * i + axis] = 0;
        }
    if (!nowhere.empty()) {
        const bool one = nowhere.size() == 1;
        result.undetermined.push_back({nowhere, "position",
                                       fmt::format("{} {} neither a rough position nor enough readings to find one.",
                                                   nameList(survey, nowhere), one ? "has" : "have"),
                                       "Type a rough position, to the nearest hand's breadth, or tape it to three known points.",
                                       true});
        result.defect += static_cast<int>(3 * nowhere.size());
    }
    result.factor = std::make_shared<const Factor>(rows);
    const Factor& factor = *result.factor;
    if (factor.defect() == 0) return result;
    result.defect += factor.defect();
    std::vector<char> untouched(static_cast<size_t>(net.free_count), 0);
    for (const int k : factor.untouched()) untouched[k] = 1;
    const Eigen::MatrixXd& null_space = factor.nullSpace();
    for (size_t k = 0; k < net.free_index.size(); ++k)
        if (const int f = net.free_index[k];
            f >= 0 && (untouched[f] || (null_space.cols() > 0 && null_space.row(f).squaredNorm() > 1e-4)))
            result.determined[k] = 0;

    Eigen::MatrixXd basis;
    for (const int name : openMotions(net, rows, basis))
        result.undetermined.push_back({{}, six_motions[name].what, six_motions[name].sentence, six_motions[name].remedy});
    // what is left of the null space without the rigid motions
    Eigen::MatrixXd local = null_space;
    if (basis.cols() > 0 && null_space.cols() > 0) {
        const Eigen::MatrixXd g = rigidMotions(net).by_coordinate;
        Eigen::MatrixXd rigid = Eigen::MatrixXd::Zero(net.free_count, basis.cols());
        for (size_t k = 0; k < net.free_index.size(); ++k)
            if (net.free_index[k] >= 0 && !untouched[net.free_index[k]])
                rigid.row(net.free_index[k]) = g.row(static_cast<Eigen::Index>(k)) * basis;
        const Eigen::MatrixXd within = null_space.transpose() * rigid; // coordinates of the rigid motions in the null space
        const Eigen::MatrixXd sides = dense::singular(within, dense::Sides::Left).left;
        const Eigen::Index rank = std::min<Eigen::Index>(basis.cols(), null_space.cols());
        local = null_space * sides.rightCols(null_space.cols() - rank);
    }
    if (local.cols() > 0 || !factor.untouched().empty()) sayLocal(net, local, untouched, result.undetermined);
    return result;
}

std::vector<double> coordinateSds(const Network& net, const Fixing& fixing) {
    std::vector<double> sds(net.free_index.size(), 0.0);
    for (size_t k = 0; k < sds.size(); ++k) {
        const int f = net.free_index[k];
        sds[k] = !fixing.determined[k] ? std::numeric_limits<double>::quiet_NaN()
                 : f < 0               ? 0.0
                                       : std::sqrt(std::max(0.0, fixing.factor->entry(f, f)));
    }
    return sds;
}

void leaveOutAssumed(std::vector<Undetermined>& undetermined, const Survey& survey, const Solution& s) {
    const auto assumed = [&](int p) { return s.points[static_cast<size_t>(p)].assumed; };
    for (Undetermined& u : undetermined) {
        const std::string before = nameList(survey, u.points);
        if (std::erase_if(u.points, assumed) == 0 || u.points.empty()) continue;
        if (const size_t at = u.sentence.find(before); at != std::string::npos)
            u.sentence.replace(at, before.size(), nameList(survey, u.points));
    }
    // what concerned points and concerns none any more
    std::erase_if(undetermined, [](const Undetermined& u) { return u.points.empty() && !u.what.empty() && u.of_points; });
}

} // namespace gorvet::tape
