#include "analysis/json_parts.hpp"

namespace gorvet::analysis {

namespace {

Json ranked(const std::vector<tape::RankedReading>& list, const tape::Survey& survey) {
    Json j = Json::array();
    for (const auto& n : list)
        j.push_back({{"kind", build::word(n.kind)},
                     {"from", survey.points[n.from].name},
                     {"to", n.to >= 0 ? survey.points[n.to].name : ""},
                     {build::isAngle(n.kind) ? "about_deg" : "about_mm",
                      number(build::isAngle(n.kind) ? units::degrees(n.about) : n.about)},
                     {"what", n.what},
                     {"fixes", n.fixes},
                     {"u95_before_mm", number(n.before_mm)},
                     {"u95_after_mm", number(n.after_mm)}});
    return j;
}

Json vector(const build::Vec3& v) { return {{"x", number(v.x_mm)}, {"y", number(v.y_mm)}, {"z", number(v.z_mm)}}; }

Json figures(const SurveyOf& s) {
    Json list = Json::array();
    for (const auto& f : s.condition->figures) {
        Json q = {{"key", f.key}};
        put(q, f.size_mm, "_mm");
        q["proven"] = proven(f.size_mm);
        if (tape::isAngle(f.kind)) put(q, f.angle_rad, "_deg");
        if (f.judged) {
            q["verdict"] = build::verdictWord(f.verdict);
            q["words"] = f.words;
            if (!f.remedy.empty()) q["remedy"] = f.remedy;
        }
        list.push_back(std::move(q));
    }
    return list;
}

Json pointsJson(const SurveyOf& s) {
    const tape::Solution& sol = *s.solution;
    Json list = Json::array();
    for (size_t i = 0; i < sol.points.size(); ++i) {
        const auto& p = sol.points[i];
        Json q = {{"name", s.survey.points[i].name}, {"determined", p.determined}, {"assumed", p.assumed}};
        q["x_mm"] = p.placed ? number(p.position.x_mm) : Json(nullptr);
        q["y_mm"] = p.placed ? number(p.position.y_mm) : Json(nullptr);
        q["z_mm"] = p.placed ? number(p.position.z_mm) : Json(nullptr);
        q["sd_x_mm"] = number(p.sd_mm[0]);
        q["sd_y_mm"] = number(p.sd_mm[1]);
        q["sd_z_mm"] = number(p.sd_mm[2]);
        list.push_back(std::move(q));
    }
    return list;
}

Json readings(const SurveyOf& s, const std::map<build::ReadingId, int>& lines) {
    const tape::Solution& sol = *s.solution;
    Json list = Json::array();
    for (size_t i = 0; i < sol.readings.size(); ++i) {
        const auto& a = sol.readings[i];
        const auto& r = s.survey.readings[i];
        const bool angle = build::isAngle(r.kind);
        const auto show = [angle](double v) { return number(angle ? units::degrees(v) : v); };
        const std::string unit = angle ? "_deg" : "_mm";
        const auto line = lines.find(s.reading_ids[i]);
        Json q = {{"line", line == lines.end() ? r.line : line->second},
                  {"kind", build::word(r.kind)},
                  {"from", s.survey.points[r.from].name},
                  {"to", r.to >= 0 ? s.survey.points[r.to].name : ""},
                  {"as_typed", s.readings_as_typed[i]}};
        q["value" + unit] = show(r.value);
        q["sigma" + unit] = show(r.sigma);
        q["residual" + unit] = show(a.residual);
        q["redundancy"] = number(a.redundancy);
        q["w"] = number(a.w);
        q["verdict"] = tape::verdictWord(a.verdict);
        q["check"] = tape::checkWords(a.check);
        q["set_aside"] = a.set_aside;
        q["leave_one_out" + unit] = show(a.leave_one_out);
        q["leave_one_out_u95" + unit] = show(a.leave_one_out_u95);
        q["minimal_detectable_error" + unit] = show(a.minimal_detectable_error);
        q["widened_sigma" + unit] = a.widened_sigma > 0 ? show(a.widened_sigma) : Json(nullptr);
        list.push_back(std::move(q));
    }
    return list;
}

Json setups(const SurveyOf& s) {
    const tape::Solution& sol = *s.solution;
    Json list = Json::array();
    for (size_t i = 0; i < sol.setups.size(); ++i) {
        const auto& u = sol.setups[i];
        const auto& setup = s.survey.setups[i];
        Json q = {{"name", setup.name}, {"kind", build::word(setup.kind)}, {"readings", u.readings}};
        static constexpr const char* keys[3][3] = {
            {"height_mm", "along_mm_per_m", "across_mm_per_m"}, {"offset_mm", "swing_mm_per_m", ""}, {"reads_over_mm", "", ""}};
        for (int k = 0; k < tape::unknownsOf(setup.kind); ++k) {
            const std::string key = keys[static_cast<int>(setup.kind)][k];
            q[key] = u.estimable[k] ? number(u.value[k]) : Json(nullptr);
            q["sd_" + key] = number(u.sd[k]);
            q["assumed_sd_" + key] = u.prior[k] > 0 ? number(u.prior[k]) : Json(nullptr);
        }
        list.push_back(std::move(q));
    }
    return list;
}

Json holds(const SurveyOf& s) {
    const tape::Solution& sol = *s.solution;
    Json j = {{"redundant", sol.redundant_holds},
              {"omega", number(sol.holds_omega)},
              {"omega_limit", number(sol.holds_limit)},
              {"contradict", Json::array()}};
    for (const auto& h : sol.blamed_holds) {
        const auto& held = s.survey.holds[static_cast<size_t>(h.hold)];
        static constexpr const char* axes[] = {"x", "y", "z"};
        j["contradict"].push_back({{"point", s.survey.points[static_cast<size_t>(held.point)].name},
                                   {"axis", axes[static_cast<int>(held.axis)]},
                                   {"held_mm", number(held.value_mm)},
                                   {"off_mm", number(h.off_mm)},
                                   {"u95_mm", number(h.u95_mm)}});
    }
    return j;
}

Json claims(const SurveyOf& s) {
    Json list = Json::array();
    for (const auto& c : tape::checkClaims(s.survey, *s.solution)) {
        const auto& r = s.survey.assumed[static_cast<size_t>(c.claim)];
        const bool angle = build::isAngle(r.kind);
        const auto show = [angle](double v) { return number(angle ? units::degrees(v) : v); };
        const std::string unit = angle ? "_deg" : "_mm";
        Json q = {{"kind", build::word(r.kind)},
                  {"from", s.survey.points[r.from].name},
                  {"to", r.to >= 0 ? s.survey.points[r.to].name : ""},
                  {"contradicted", c.contradicted}};
        q["claimed" + unit] = show(r.value);
        q["survey_says" + unit] = show(c.says);
        q["u95" + unit] = show(c.u95);
        list.push_back(std::move(q));
    }
    return list;
}

Json undetermined(const SurveyOf& s) {
    Json list = Json::array();
    for (const auto& u : s.solution->undetermined) {
        Json q = {{"what", u.what}, {"sentence", u.sentence}, {"remedy", u.remedy}, {"points", Json::array()}};
        for (const int p : u.points) q["points"].push_back(s.survey.points[p].name);
        list.push_back(std::move(q));
    }
    return list;
}

Json since(const SurveyOf& s) {
    if (!s.since->comparison.possible) return nullptr;
    Json j = {
        {"before", s.since->before}, {"after", s.since->after}, {"unlike_supports", s.since->unlike}, {"moved", Json::array()}};
    for (const auto& m : s.since->comparison.moved)
        if (m.proven)
            j["moved"].push_back({{"name", s.survey.points[m.after].name}, {"by_mm", vector(m.by)}, {"t", number(m.t)}});
    return j;
}

} // namespace

std::string tapeJson(const SurveyOf& s, const std::vector<Finding>& all, const std::map<build::ReadingId, int>& lines) {
    const tape::Solution& sol = *s.solution;
    Json j;
    j["status"] = tape::statusWord(sol.status);
    j["message"] = sol.message;
    j["redundancy"] = sol.redundancy;
    j["omega"] = number(sol.omega);
    j["omega_limit"] = number(sol.omega_limit);
    j["kept"] = {
        {"redundancy", sol.kept_redundancy}, {"omega", number(sol.kept_omega)}, {"omega_limit", number(sol.kept_omega_limit)}};
    j["sigma_0"] = number(sol.sigma_0);
    j["points"] = pointsJson(s);
    j["readings"] = readings(s, lines);
    j["setups"] = setups(s);
    j["holds"] = holds(s);
    j["claims"] = claims(s);
    j["next"] = ranked(*s.next, s.survey);
    j["figures"] = figures(s);
    j["undetermined"] = undetermined(s);
    j["since"] = since(s);
    j["findings"] = findings(all, "tape");
    return text(j);
}

namespace {
Json deviationJson(const tape::Deviation& d) {
    Json q;
    put(q, d.size_mm, "_mm");
    q["proven"] = proven(d.size_mm);
    q["verdict"] = build::verdictWord(d.verdict);
    return q;
}
Json sectionsJson(const SurveyOf& s) {
    Json list = Json::array();
    for (const tape::Section& c : s.condition->sections)
        list.push_back({{"left", s.survey.points[c.pair.left].name},
                        {"right", s.survey.points[c.pair.right].name},
                        {"station_mm", number(c.station_mm)},
                        {"left_behind", deviationJson(c.lead)},
                        {"right_high", deviationJson(c.lean)},
                        {"middle_right", deviationJson(c.aside)},
                        {"middle_low", c.low ? deviationJson(*c.low) : Json(nullptr)}});
    return list;
}
} // namespace

std::string conditionJson(const SurveyOf& s) {
    return text({{"status", tape::statusWord(s.solution->status)},
                 {"tolerance_mm", s.frame.tolerance_mm},
                 {"by_chance", s.condition->by_chance},
                 {"figures", figures(s)},
                 {"sections", sectionsJson(s)}});
}

std::string nextJson(const SurveyOf& s, const std::vector<tape::RankedReading>& round) {
    return text(
        {{"wanted",
          s.wanted.key == "point" && s.wanted.point >= 0 ? "point " + s.survey.points[s.wanted.point].name : s.wanted.key},
         {"reach_mm", s.means.reach_mm},
         {"gauge", s.means.gauge},
         {"searched", tape::searchedWords(s.survey).empty() ? "all pairs of placed points" : tape::searchedWords(s.survey)},
         {"best", ranked(*s.next, s.survey)},
         {"round", ranked(round, s.survey)}});
}

std::string compareJson(const tape::Comparison& c, const tape::Survey& before) {
    Json j = {{"possible", c.possible},
              {"message", c.message},
              {"translation_mm", vector(c.shift)},
              {"rotation_deg",
               {{"x", units::degrees(c.turn_rad.x_mm)},
                {"y", units::degrees(c.turn_rad.y_mm)},
                {"z", units::degrees(c.turn_rad.z_mm)}}},
              {"omega", number(c.omega)},
              {"omega_limit", number(c.omega_limit)},
              {"by_chance", c.by_chance}};
    j["points"] = Json::array();
    for (const auto& m : c.moved)
        j["points"].push_back({{"name", before.points[m.before].name},
                               {"moved_mm", vector(m.by)},
                               {"u95_mm", {{"x", m.u95[0]}, {"y", m.u95[1]}, {"z", m.u95[2]}}},
                               {"t", number(m.t)},
                               {"lays", m.lays},
                               {"proven", m.proven}});
    return text(j);
}

std::string alignJson(const SurveyOf& s, const std::vector<tape::AlignmentFigure>& wheels) {
    Json j = {{"axles", Json::array()}, {"wheels", Json::array()}};
    static constexpr const char* axle_keys[] = {"set-back",       "thrust",          "rear-offset",
                                                "wheelbase-left", "wheelbase-right", "wheelbase-difference",
                                                "track-front",    "track-rear"};
    for (const auto& f : figures(s))
        for (const char* key : axle_keys)
            if (f.at("key") == key) j["axles"].push_back(f);
    for (const auto& f : wheels) {
        const std::string unit = f.angle ? "_deg" : f.unit == "%" ? "_percent" : f.unit == "kg" ? "_kg" : "_mm";
        const auto show = [&f](double v) { return number(f.angle ? units::degrees(v) : v); };
        Json q = {{"key", f.key}, {"name", f.name}};
        put(q, f.size, unit);
        if (f.mm) q["between_rims_mm"] = number(*f.mm);
        q["words"] = f.words;
        if (f.judged) {
            q["verdict"] = build::verdictWord(f.verdict);
            q["limit" + unit] = show(f.limit);
            q["remedy"] = f.remedy;
        }
        j["wheels"].push_back(std::move(q));
    }
    return text(j);
}

std::string gapsJson(const std::vector<tape::GapTrend>& trends) {
    Json j = {{"gaps", Json::array()}};
    for (const auto& t : trends) {
        Json readings = Json::array();
        for (const auto& r : t.readings) readings.push_back({{"event", r.event}, {"value_mm", number(r.value_mm)}});
        Json q = {{"place", t.place}, {"readings", readings}};
        put(q, t.change_mm, "_mm", "change");
        q["since_first_mm"] = number(t.since_first_mm);
        q["largest_mm"] = number(t.largest_mm);
        q["tolerance_mm"] = number(t.readings.back().tolerance_mm);
        q["proven"] = proven(t.change_mm);
        q["verdict"] = build::verdictWord(t.verdict);
        j["gaps"].push_back(std::move(q));
    }
    return text(j);
}

} // namespace gorvet::analysis
