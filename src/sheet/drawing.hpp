#pragma once

#include "units/figure.hpp"

#include <memory>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

/// Drawings as values. The same drawing is painted in the window, written to PDF and SVG, and (part drawings) to DXF.
/// Coordinates are paper units, x to the right, y down: pixels in the window, millimetres on paper.
namespace gorvet::sheet {

struct P {
    double x = 0;
    double y = 0;
    bool operator==(const P&) const = default;
};

/// What a line stands for; a theme or a printer decides how that looks.
enum class Ink { Ink, Second, Faint, Body, Chassis, NewSteel, Remove, Good, Warn, Bad, Sheet, Panel };
enum class Dash { Solid, Dashed, DashDot, Dotted };

struct Pen {
    Ink ink = Ink::Ink;
    double weight = 1;
    Dash dash = Dash::Solid;
    bool operator==(const Pen&) const = default;
};

struct Stroke {
    std::vector<P> path;
    bool closed = false;
    Pen pen;
    bool operator==(const Stroke&) const = default;
};

struct Circle {
    P centre;
    double radius = 0;
    Pen pen;
    bool filled = false; ///< with the pen's ink; else with the sheet's ground when `ground`, else not at all
    bool ground = false;
    bool operator==(const Circle&) const = default;
};

struct Fill {
    std::vector<P> polygon;
    Ink ink = Ink::Panel;
    bool operator==(const Fill&) const = default;
};

struct Hatch {
    std::vector<P> polygon;
    Pen pen;
    double pitch = 4;
    bool crossed = false;
    bool operator==(const Hatch&) const = default;
};

enum class Anchor { Left, Centre, Right };
enum class Level { Base, Middle, Top };
enum class Face { Sans, Bold, Mono };
/// How a figure's origin shows: plain measured, thin underline derived, dotted underline and `?` assumed.
enum class Mark { None, Derived, Assumed };
constexpr Mark markOf(units::Provenance p) {
    return p == units::Provenance::Measured ? Mark::None : p == units::Provenance::Derived ? Mark::Derived : Mark::Assumed;
}

struct Text {
    P at;
    std::string text;
    double size = 15;
    Ink ink = Ink::Ink;
    Anchor anchor = Anchor::Left;
    Level level = Level::Base;
    Face face = Face::Sans;
    Mark mark = Mark::None;
    double turn_deg = 0; ///< counter-clockwise
    bool backed = false; ///< with a patch of the sheet's ground behind it
    bool operator==(const Text&) const = default;
};

/// A linear dimension between two points; the line stands `offset` to the left of a→b (negative: to the right).
struct Dimension {
    P a;
    P b;
    double offset = 12;
    std::string text;
    double size = 15;
    Ink ink = Ink::Ink;
    Mark mark = Mark::None;
    bool operator==(const Dimension&) const = default;
};

/// A picture, a PNG or JPEG file's bytes, fitted into a frame and centred in it. Left out of DXF.
struct Picture {
    P at; ///< upper left corner of the frame
    double width = 0;
    double height = 0;
    std::shared_ptr<const std::string> bytes;
    bool operator==(const Picture&) const = default;
};

using Shape = std::variant<Stroke, Circle, Fill, Hatch, Text, Dimension, Picture>;

struct Item {
    Shape shape;
    std::string tag; ///< what the item stands for, for picking: "reading:12", "pin:3", "figure:twist"; may be empty
    bool operator==(const Item&) const = default;
};

/// A handle by which something is dragged along the page.
struct Grip {
    std::string name; ///< of what it moves: "shut to"
    P at;
    double value = 0;    ///< of what it moves, where the handle stands
    double per_unit = 0; ///< of that value, for a paper unit to the right
    double least = 0;
    double most = 0;
    bool operator==(const Grip&) const = default;
};

struct Drawing {
    double width = 0;
    double height = 0;
    std::vector<Item> items;
    std::vector<Grip> grips; ///< in the window alone

    void add(Shape shape, std::string tag = {}) { items.push_back({std::move(shape), std::move(tag)}); }
    /// Puts another drawing's items here, shifted.
    void place(const Drawing& other, P at);
    bool operator==(const Drawing&) const = default;
};

/// Sizes on the medium at hand: `unit` paper units are one pixel of the screen design at 100 %.
struct Format {
    double unit = 1;
    double small() const { return 13 * unit; }
    double body() const { return 15 * unit; }
    double lead() const { return 18 * unit; }
    double head() const { return 24 * unit; }
    double thin() const { return 1 * unit; }
    double medium() const { return 2 * unit; }
    double thick() const { return 3.5 * unit; }
    double px(double n) const { return n * unit; }
};
inline constexpr Format on_paper{0.21}; ///< 15 px become 3.15 mm: readable at arm's length

enum class Severity { Good, Warn, Bad };
Ink inkOf(Severity);
constexpr Severity severityOf(units::PlanVerdict v) {
    return v == units::PlanVerdict::Holds ? Severity::Good : v == units::PlanVerdict::Marginal ? Severity::Warn : Severity::Bad;
}
/// The mark of a verdict: one punch dot, a scribed line through the dot, crossed scribed lines.
void addMark(Drawing&, P centre, double size, Severity, const std::string& tag = {});

/// Dimensions and hatches as strokes and texts, and no text on another (sheet/settle.hpp); everything else as it is. Painters
/// take this.
std::vector<Item> flatten(const Drawing&);

/// How wide a text is in the shipped fonts; a painter may round the size to its pixels.
double textWidth(std::string_view utf8, double size, Face);

/// Where a drawing's shapes reach to (texts by their width). Empty drawing: zeros.
struct Extent {
    double left = 0;
    double top = 0;
    double right = 0;
    double bottom = 0;
};
Extent extent(const std::vector<Item>&);

/// Real-world points (mm) to paper: scale and shift, the second axis pointing up or down the page.
struct Projection {
    double scale = 1; ///< paper units a mm
    P origin;         ///< paper position of (0, 0)
    bool up = true;   ///< the second coordinate grows up the page
    P operator()(double a, double b) const { return {origin.x + scale * a, origin.y + (up ? -scale : scale) * b}; }
};
/// The projection that fits a range of both coordinates into a box, centred, one scale for both.
Projection fit(double a_min, double a_max, double b_min, double b_max, P top_left, double width, double height, bool up);

} // namespace gorvet::sheet
