#pragma once

#include "analysis/bench.hpp"
#include "analysis/json.hpp"
#include "shape/mesh.hpp"
#include "tape/assume.hpp"

#include <nlohmann/json.hpp>

/// What the writers of JSON share. Only for .cpp files.
namespace gorvet::analysis {

using Json = nlohmann::ordered_json;

Json number(double); ///< null where it is no number
Json number(const std::optional<double>&);

/// The one way to write a figure: `value_mm`, `u95_mm` and where it comes from; of one with a name `change_mm`, `change_u95_mm`,
/// `change_provenance`. Angles in degrees: unit "_deg".
void put(Json& to, const build::Figure&, const std::string& unit, const std::string& name = {});

const char* severityWord(sheet::Severity);

Json findings(const std::vector<Finding>&, std::string_view bench = {});

/// A text that may be empty: nothing was said.
Json known(const std::string& text_or_none);
/// Who and when.
Json by(const std::optional<build::Signed>&);

/// What a plan says of itself.
Json remarksJson(const std::vector<build::Remark>&);

Json point(const build::Vec3&);

/// A place of a scan in its own axes, a direction, and a place on the chassis.
Json cornerJson(const shape::Point3&);
Json directionJson(const shape::Point3&);
Json stationJson(const shape::Point3&);

std::string text(const Json&);

} // namespace gorvet::analysis
