#pragma once

#include "units/result.hpp"

#include <string>
#include <string_view>

/// Parsing and formatting of what people type and read: lengths, angles, masses. Core units: mm, rad, kg.
namespace gorvet::units {

enum class Kind { Length, Angle, Mass };

/// The units a bare number can stand for.
enum class Unit { Millimetre, Inch, Degree, Radian, Kilogram, Pound };

struct Parsed {
    double value = 0;   ///< mm, rad or kg
    std::string typed;  ///< the text as typed, outer blanks removed
    bool bare = false;  ///< no unit was typed anywhere: the default unit was taken
    std::string remark; ///< how a text was understood where another reading is thinkable; else empty
};

/// Reads what a person types: `4 1/4`, `4-1/4"`, `6' 3 1/2"`, `2m35`, `188,5 cm`, `120 thou`, `3°15'`, `-0.6`, sums and
/// differences (`1885+12`) and multiples (`2x73`). A bare number takes `default_unit`, which must be of `kind`.
/// `2m35` is 2 metres 35 centimetres, `2m350` is 2 metres 350 millimetres; `2m5` is refused as ambiguous, and so is
/// `1,885` (thousands or decimals?) and `2'011` (thousands, or feet and inches?). An integer, a hyphen without blanks and a
/// proper fraction is a mixed number
/// (`4-1/4` = 4.25); with blanks around it the hyphen subtracts.
/// Fails with BadInput; `Error::column` is the character at which reading stopped.
Result<Parsed> parse(std::string_view text, Kind kind, Unit default_unit);

/// How lengths are written.
enum class LengthStep { Mm1, Mm05, Mm01, Inch16, Inch32, InchThousandth };

/// The unit that goes with a step: what a bare number means in a build that shows lengths like this.
Unit unitOf(LengthStep step);
/// The step in mm: values are shown to the nearest multiple of it.
double stepMm(LengthStep step);

/// A length, e.g. `1673.5`, `65 7/8"`. Rounds half away from zero; never writes "-0".
/// With `with_unit` millimetres get " mm" (inches always carry their mark). NaN and infinity give "–".
std::string formatLength(double mm, LengthStep step, bool with_unit = false);

/// A half-width or other small length: in mm always to 0.1, in inches to 0.001 so that it never rounds to nothing.
std::string formatSmall(double mm, LengthStep step, bool with_unit = false);

/// An angle in degrees, e.g. `0.55°`; `decimals` 0…4.
std::string formatAngle(double rad, int decimals = 2);

/// A mass in kg to 0.01 below 10 kg, to 0.1 above, e.g. `4.72 kg`.
std::string formatMass(double kg);

/// The number with a fixed count of decimals, no "-0", a point as separator whatever the locale.
std::string fixed(double value, int decimals);

constexpr double pi = 3.14159265358979323846;
constexpr double degrees(double rad) { return rad * 180.0 / pi; }
constexpr double radians(double deg) { return deg * pi / 180.0; }

/// Density of structural steel (EN 1993-1-1, 3.2.6: 7850 kg/m³).
constexpr double steel_kg_mm3 = 7.85e-6;

} // namespace gorvet::units
