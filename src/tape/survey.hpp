#pragma once

#include "build/build.hpp"
#include "build/figure.hpp"

#include "tape/covariance.hpp"

#include <array>
#include <functional>
#include <string>
#include <vector>

/// Tape: what shape is this frame really in? Readings in, points with ± out.
namespace gorvet::tape {

using build::Axis;
using build::ReadingKind;
using build::Vec3;

struct SurveyPoint {
    std::string name;
    std::optional<Vec3> rough;
    bool operator==(const SurveyPoint&) const = default;
};

/// One reading between points given by index.
/// tape: slant distance · plan: horizontal distance · height: z of `from` above the datum plane · level: z(to) − z(from) ·
/// offset, station: y, x of `from`, or the difference to − from when `to` is given · slope: angle by which the line
/// from–to goes down; a line that runs mainly fore and aft is followed rearward, any other from `from` to `to` · cross-level:
/// angle by which the line goes up, a line mainly across the frame followed from left to right · rail-angle: angle in plan to
/// the centreline, positive to the right, followed rearward · coordinates: how far `from` stands along `along` (a scan's three
/// coordinates are three such readings along the main axes of their covariance, so that each has its own σ) · symmetry:
/// y(from) + y(to), for `Survey::assumed`.
struct SurveyReading {
    int line = 0; ///< where it stands in its source: a line of a CSV file, or its place in the build
    ReadingKind kind = ReadingKind::Tape;
    int from = -1;
    int to = -1;                   ///< −1: none
    double value = 0;              ///< mm; rad for an angle
    double sigma = 1;              ///< 1σ, mm; rad for an angle; > 0
    int setup = -1;                ///< the set-up it was read from; −1: from the datum itself
    std::array<double, 3> along{}; ///< unit vector, of coordinates only
    bool operator==(const SurveyReading&) const = default;
};

/// What readings of one set-up share and nobody measured. A plane (floor, table, laser line) has height at the origin, rise
/// along and rise across (mm/m): heights and levels are read from it. A string has its offset at station 0 and its swing in
/// plan (mm/m): offsets are read from it. A tape has what it reads too long: slant and plan distances.
using build::SetUpKind;
inline constexpr int setup_unknowns = 3;

struct SetUp {
    std::string name;
    SetUpKind kind = SetUpKind::Plane;
    bool operator==(const SetUp&) const = default;
};
/// How many unknowns a kind has: 3, 2, 1.
constexpr int unknownsOf(SetUpKind k) { return k == SetUpKind::Plane ? 3 : k == SetUpKind::String ? 2 : 1; }

/// A coordinate of the datum, held exactly.
struct HeldCoordinate {
    int point = -1;
    Axis axis = Axis::X;
    double value_mm = 0;
    bool operator==(const HeldCoordinate&) const = default;
};

/// One rule of a datum in the workshop's terms. Points by index: none for free, one for height, one or two for station (then
/// their middle), two for centred, upright and level.
struct DatumRule {
    build::DatumKind kind = build::DatumKind::Free;
    std::vector<int> points;
    double value_mm = 0; ///< of height and station
    bool operator==(const DatumRule&) const = default;
};

struct Survey {
    std::vector<SurveyPoint> points;
    std::vector<SurveyReading> readings;
    std::vector<HeldCoordinate> holds;
    std::vector<SetUp> setups;
    std::vector<SurveyReading> assumed; ///< place only what nothing else fixes; never judged, never a check
    std::vector<DatumRule> datum;       ///< when there is one, the survey is adjusted freely and then laid on the rules
    bool operator==(const Survey&) const = default;
};

enum class Verdict { Agrees, Doubtful, Retape };
/// How far the other readings check this one: r ≥ 0.1, below, or r = 0.
enum class Check { Checked, Barely, Nothing };

const char* verdictWord(Verdict);
const char* checkWords(Check);

struct AdjustedPoint {
    bool placed = false;     ///< it has a position at all
    bool determined = false; ///< the readings and the datum fix all three coordinates
    bool assumed = false;    ///< not fixed, and placed by what is assumed: no figure and no check comes from it
    Vec3 position;
    double sd_mm[3] =
        {}; ///< 1σ; NaN for a coordinate that is not fixed, 0 for a held one; of an assumed point, if what is assumed holds
};

struct AdjustedReading {
    double computed = 0;                 ///< from the adjusted points, mm or rad
    double residual = 0;                 ///< adjusted − observed, mm or rad
    double redundancy = 0;               ///< r, 0…1: how much of an error in it shows
    double w = 0;                        ///< residual / (σ √r); 0 when r is 0
    double minimal_detectable_error = 0; ///< smallest error it could hide, 4.13 σ/√r; infinite at r = 0. Baarda
    Verdict verdict = Verdict::Doubtful;
    Check check = Check::Nothing;
    bool set_aside = false;       ///< Re-tape: not used for the points
    double widened_sigma = 0;     ///< Re-tape, but needed: it counts with this σ, the error it may have; 0: with its own
    double leave_one_out = 0;     ///< what the other readings say it should be
    double leave_one_out_u95 = 0; ///< its ± at 95 %
};

/// What was found of a set-up.
struct AdjustedSetUp {
    int readings = 0;                             ///< read from it
    std::array<double, setup_unknowns> value{};   ///< plane: mm, mm/m, mm/m · string: mm, mm/m · tape: mm
    std::array<double, setup_unknowns> sd{};      ///< 1σ; NaN where it is the datum
    std::array<bool, setup_unknowns> estimable{}; ///< the readings tell it apart from the shape of the frame
    std::array<double, setup_unknowns> prior{};   ///< 1σ about zero that is stated of it, as nothing tells it; 0: none is needed
};

/// A held coordinate that contradicts the readings: released, and named.
struct BlamedHold {
    int hold = -1;     ///< index into the survey's holds
    double off_mm = 0; ///< where the readings put it, less what was held
    double u95_mm = 0; ///< ± at 95 %
};

/// Something that neither datum nor readings fix.
struct Undetermined {
    std::vector<int> points; ///< empty: the survey as a whole
    std::string what;        ///< "heights", "stations", "fore and aft", …
    std::string sentence;    ///< "Nothing fixes the heights of A4 and B4."
    std::string remedy;      ///< "Measure a height or a level of one of them."
    bool of_points = false;  ///< it concerns `points`, not the survey as a whole
};

/// Another solution that fits as well, or a start on the wrong side that was mended.
struct Mirror {
    int point = -1; ///< −1: the whole survey
    Vec3 other;     ///< where the point would stand in the other solution
    bool mended = false;
    std::string sentence;
    std::string remedy;
};

enum class Status {
    Solved,
    NotDetermined, ///< see `undetermined`; the points that are fixed are still given
    NoReadings,    ///< nothing to adjust
    NotConverged   ///< rough positions too far off; see `message`
};
const char* statusWord(Status);

struct Solution {
    Status status = Status::NoReadings;
    std::string message;
    int redundancy = 0;      ///< readings − unknowns, all readings
    double omega = 0;        ///< Σ(v/σ)² of all readings
    double omega_limit = 0;  ///< χ² at 5 % for `redundancy`; 0 when that is 0
    int kept_redundancy = 0; ///< the same for the readings that were not set aside
    double kept_omega = 0;
    double kept_omega_limit = 0;
    double sigma_0 = 1; ///< √(Ω/redundancy) when Ω of the kept readings fails high, else 1; contained in every sd
    std::vector<AdjustedPoint> points;
    std::vector<AdjustedReading> readings;
    std::vector<AdjustedSetUp> setups;
    Covariance covariance; ///< of the points' coordinates, 3·point + axis
    std::vector<Undetermined> undetermined;
    std::vector<Mirror> mirrors;
    double datum_missed_mm =
        0; ///< by how much the worst rule of the datum is missed: they contradict each other when it is not 0
    std::vector<std::vector<int>> inseparable; ///< groups of readings of which one is wrong and none can be told: out of the
                                               ///< solution together, or in with `widened_sigma`
    int redundant_holds = 0;                   ///< held coordinates beyond what a datum needs
    double holds_omega = 0;                    ///< Ω with them less Ω of a minimal datum
    double holds_limit = 0;                    ///< χ² at 1 % for them
    std::vector<BlamedHold> blamed_holds;      ///< what of them does not agree with the readings, the worst first
};

struct Options {
    bool set_aside = true;       ///< take Re-tape readings out of the solution; false: every reading counts
    bool test_holds = true;      ///< release held coordinates beyond a datum that contradict the readings
    std::function<bool()> go_on; ///< asked between rounds; false: stop, the solution is then NotConverged. May be empty

    bool goesOn() const { return !go_on || go_on(); }
};

/// Weighted least squares with exact held coordinates, robust start (Huber; angles that are grossly off wait outside), then plain
/// weights; data snooping, largest |w| first, one reading or those that can't be told from it at a time. Held coordinates beyond
/// a minimal datum are tested against the readings first, and released where they contradict them. Ghilani, Adjustment
/// Computations, ch. 15, 21; Baarda, A Testing Procedure.
/// With rules of a datum: a free network with as many coordinates held as nothing else resists, laid on the rules afterwards;
/// what the rules leave open stays about the rough positions (inner constraints). Ghilani ch. 17; Baarda's S-transformation.
/// Never fails: what it can't do is said by `status`, `undetermined` and `message`. Same input, same output.
Solution solve(const Survey&, const Options& = {});

using build::u95Of;

} // namespace gorvet::tape
