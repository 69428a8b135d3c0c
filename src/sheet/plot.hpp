#pragma once

#include "sheet/drawing.hpp"

#include <functional>
#include <optional>

/// A small plot in the sheets' own dress: curves over one range, the least and the most said at its side.
namespace gorvet::sheet {

struct PlotCurve {
    std::vector<double> x; ///< rising; one range for all curves of a plot
    std::vector<double> y;
    Dash dash = Dash::Solid;
};
struct Plot {
    P at; ///< its upper left corner, where the curves begin
    double width = 0;
    double height = 0;
    std::string name;
    std::string from; ///< below its left end
    std::string to;   ///< below its right end
    std::vector<PlotCurve> curves;
    std::function<std::string(double)> words; ///< of a value
    std::optional<double> limit;              ///< drawn where it lies within twice the most
    std::optional<double> today;              ///< an x, marked
    bool zero = false;                        ///< the line of nothing is drawn
};
/// How much room it takes to its left, for the words there.
double plotMargin(const Format&);
/// Draws it; the foot of today's line.
P addPlot(Drawing&, const Plot&, const Format&, const std::string& tag = {});
/// The dash of the n-th curve.
Dash dashOf(std::size_t n);

} // namespace gorvet::sheet
