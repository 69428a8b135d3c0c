#pragma once

#include "analysis/bench.hpp"
#include "analysis/json.hpp"
#include "shape/mesh.hpp"
#include "tape/assume.hpp"

#include <cmath>

#include <nlohmann/json.hpp>

/// What the writers of JSON share. Only for .cpp files.
namespace gorvet::analysis {

using Json = nlohmann::ordered_json;

inline Json number(double v) { return std::isfinite(v) ? Json(v) : Json(nullptr); }
inline Json number(const std::optional<double>& v) { return v ? number(*v) : Json(nullptr); }

/// The one way to write a figure: `value_mm`, `u95_mm` and where it comes from; of one with a name `change_mm`, `change_u95_mm`,
/// `change_provenance`. Angles in degrees: unit "_deg".
inline void put(Json& to, const build::Figure& f, const std::string& unit, const std::string& name = {}) {
    const double scale = unit == "_deg" ? units::degrees(1) : 1;
    to[(name.empty() ? "value" : name) + unit] = number(f.value * scale);
    to[(name.empty() ? "" : name + "_") + "u95" + unit] = number(f.u95 * scale);
    to[(name.empty() ? "" : name + "_") + "provenance"] = build::word(f.provenance);
}

inline const char* severityWord(sheet::Severity s) {
    return s == sheet::Severity::Good ? "good" : s == sheet::Severity::Warn ? "doubtful" : "bad";
}

inline Json findings(const std::vector<Finding>& list, std::string_view bench = {}) {
    Json j = Json::array();
    for (const Finding& f : list) {
        if (!bench.empty() && f.bench() != bench) continue;
        j.push_back({{"code", f.code},
                     {"bench", benchName(f)},
                     {"severity", severityWord(f.severity)},
                     {"verdict", f.word},
                     {"subject", f.subject},
                     {"figure", f.figure},
                     {"need", f.need},
                     {"sentence", f.sentence},
                     {"remedy", f.remedy},
                     {"station_mm", number(f.station_mm)}});
    }
    return j;
}

/// A text that may be empty: nothing was said.
inline Json known(const std::string& text_or_none) { return text_or_none.empty() ? Json(nullptr) : Json(text_or_none); }
/// Who and when.
inline Json by(const std::optional<build::Signed>& s) { return s ? Json{{"who", s->who}, {"at_utc", s->at_utc}} : Json(nullptr); }

/// What a plan says of itself.
inline Json remarksJson(const std::vector<build::Remark>& remarks) {
    Json j = Json::array();
    for (const build::Remark& r : remarks)
        j.push_back({{"code", r.code},
                     {"verdict", build::verdictWord(r.verdict)},
                     {"sentence", r.sentence},
                     {"remedy", r.remedy},
                     {"figure", r.figure},
                     {"need", r.need}});
    return j;
}

inline Json point(const build::Vec3& v) { return {{"x_mm", number(v.x_mm)}, {"y_mm", number(v.y_mm)}, {"z_mm", number(v.z_mm)}}; }

/// A place of a scan in its own axes, a direction, and a place on the chassis.
inline Json cornerJson(const shape::Point3& p) {
    return {{"x_mm", number(p[0])}, {"y_mm", number(p[1])}, {"z_mm", number(p[2])}};
}
inline Json directionJson(const shape::Point3& p) { return {{"x", number(p[0])}, {"y", number(p[1])}, {"z", number(p[2])}}; }
inline Json stationJson(const shape::Point3& p) {
    return {{"station_mm", number(p[0])}, {"offset_mm", number(p[1])}, {"height_mm", number(p[2])}};
}

inline std::string text(const Json& j) { return j.dump(2, ' ', false, Json::error_handler_t::replace) + "\n"; }

} // namespace gorvet::analysis
