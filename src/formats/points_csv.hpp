#pragma once

#include "build/edit.hpp"
#include "formats/readings_csv.hpp"

#include <array>

/// Points as CSV: header `point,x,y,z` in any order, further `role`, `unit`, `sx`, `sy`, `sz` (1σ, mm), `note`. docs/cli.md.
namespace gorvet::formats {

/// What the coordinates of a file are.
enum class PointsAre {
    Rough,      ///< where points are, about
    Drawing,    ///< where a drawing or another car has them; an empty coordinate is not known
    Coordinates ///< measured, by a scan, arm or fixture: readings
};

/// σ of measured coordinates is at least this; a smaller one, as of a held coordinate, is taken as this.
inline constexpr double least_sd_mm = 0.05;

struct ReadPoints {
    build::Edit edit;
    std::vector<CsvProblem> problems; ///< lines that were left out
    int points = 0;                   ///< lines that were taken
    int fresh = 0;                    ///< of these, points that were new
    std::string remark;               ///< how the file was understood where that is worth a look; usually empty
};

/// Reads points of a subject; unknown names become new points. `source` goes with a drawing's figures; coordinates are taken by a
/// session of that name. A bare number takes the line's unit; without one, the build's. Fails only when there is no header to go
/// by.
Result<ReadPoints> readPoints(std::string_view bytes, const build::Build&, build::SubjectId, PointsAre,
                              const std::string& source);

/// One point as it comes out of a survey.
struct PointRow {
    std::string name;
    build::Role role = build::Role::None;
    build::Vec3 at;
    std::array<double, 3> sd_mm{}; ///< 1σ; NaN: not fixed
    std::string state;             ///< "fixed", "assumed", "not fixed"
};
std::string writePoints(const std::vector<PointRow>&);

} // namespace gorvet::formats
