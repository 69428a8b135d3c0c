#include "analysis/json_parts.hpp"

#include <cmath>

namespace gorvet::analysis {

Json number(double v) { return std::isfinite(v) ? Json(v) : Json(nullptr); }
Json number(const std::optional<double>& v) { return v ? number(*v) : Json(nullptr); }

void put(Json& to, const build::Figure& f, const std::string& unit, const std::string& name) {
    const double scale = unit == "_deg" ? units::degrees(1) : 1;
    to[(name.empty() ? "value" : name) + unit] = number(f.value * scale);
    to[(name.empty() ? "" : name + "_") + "u95" + unit] = number(f.u95 * scale);
    to[(name.empty() ? "" : name + "_") + "provenance"] = build::word(f.provenance);
}

const char* severityWord(sheet::Severity s) {
    return s == sheet::Severity::Good ? "good" : s == sheet::Severity::Warn ? "doubtful" : "bad";
}

Json findings(const std::vector<Finding>& list, std::string_view bench) {
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

Json known(const std::string& text_or_none) { return text_or_none.empty() ? Json(nullptr) : Json(text_or_none); }
Json by(const std::optional<build::Signed>& s) { return s ? Json{{"who", s->who}, {"at_utc", s->at_utc}} : Json(nullptr); }

Json remarksJson(const std::vector<build::Remark>& remarks) {
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

Json point(const build::Vec3& v) { return {{"x_mm", number(v.x_mm)}, {"y_mm", number(v.y_mm)}, {"z_mm", number(v.z_mm)}}; }

Json cornerJson(const shape::Point3& p) { return {{"x_mm", number(p[0])}, {"y_mm", number(p[1])}, {"z_mm", number(p[2])}}; }
Json directionJson(const shape::Point3& p) { return {{"x", number(p[0])}, {"y", number(p[1])}, {"z", number(p[2])}}; }
Json stationJson(const shape::Point3& p) {
    return {{"station_mm", number(p[0])}, {"offset_mm", number(p[1])}, {"height_mm", number(p[2])}};
}

std::string text(const Json& j) { return j.dump(2, ' ', false, Json::error_handler_t::replace) + "\n"; }

} // namespace gorvet::analysis
