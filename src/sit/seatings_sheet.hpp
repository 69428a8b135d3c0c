#pragma once

#include "sheet/drawing.hpp"

#include <optional>
#include <string>
#include <vector>

/// What costs what: one ruled scale a pin, on which every way to seat the body is a numbered pointer, and beside it what moves
/// of the body bring and take.
namespace gorvet::sit {

/// What a seating comes to on one scale.
struct SeatingFigure {
    bool usable = false;
    double value = 0;
    std::string text;
    sheet::Severity severity = sheet::Severity::Good;
};
/// What a move brings: > 0 better; none: it does not touch this pin.
struct MoveFigure {
    double gain = 0;
    std::string text;
};
struct SeatingRow {
    std::string name;
    std::string wanted;
    double low = 0; ///< between which figures it holds; equal to each other: one mark
    double high = 0;
    bool plain = false;  ///< a figure that nothing is wanted of: no scale, no verdict
    bool no_low = false; ///< a bound: only the other side counts
    bool no_high = false;
    std::vector<SeatingFigure> figures; ///< by column
    std::vector<std::optional<MoveFigure>> moves;
    std::string tag;
};
struct SeatingsView {
    std::vector<std::string> columns; ///< names of the seatings, "now" first
    std::vector<std::string> below;   ///< a line under each: change of wheelbase, lowering
    std::vector<std::string> moves;
    std::vector<SeatingRow> rows;
    std::vector<std::string> sentences; ///< what giving up a pin brings, ways to lower; each one line or more
    std::vector<std::string> cautions;
};

/// What it needs in height at that width; with less it is drawn so high all the same, and scrolled.
double seatingsHeight(const SeatingsView&, double width, const sheet::Format&);
sheet::Drawing seatingsSheet(const SeatingsView&, double width, double height, const sheet::Format&);

} // namespace gorvet::sit
