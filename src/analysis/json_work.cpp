// The order of work, jobs and the register as JSON.
#include "analysis/json_parts.hpp"
#include "analysis/work_facts.hpp"
#include "sim/plan_player.hpp"

namespace gorvet::analysis {

namespace {

/// Least, likely, most as far as they are said.
Json hoursJson(double least, double likely, double most) {
    if (likely <= 0) return nullptr;
    Json j = {{"likely", likely}};
    if (least > 0) j["least"] = least;
    if (most > 0) j["most"] = most;
    return j;
}

Json signedBy(const std::optional<build::Signed>& s) { return s ? Json{{"who", s->who}, {"at_utc", s->at_utc}} : Json(nullptr); }

} // namespace

std::string playedJson(const Results& r, bool& to_the_end) {
    const sim::PlayedPlan p = sim::playPlan(r.work_facts, *r.work);
    to_the_end = p.to_the_end;
    return text({{"played_to_the_end", p.to_the_end},
                 {"steps", p.steps},
                 {"of", r.work->steps.size()},
                 {"refused", p.refused.empty() ? Json(nullptr) : Json(p.refused)},
                 {"title", p.title},
                 {"why", p.why}});
}

std::string workJson(const build::Build& b, const Results& r) {
    const work::Order& o = *r.work;
    const auto stance = [](const work::Stance& s) {
        return Json{{"body", build::word(s.body)}, {"attitude", build::word(s.attitude)}, {"support", build::word(s.support)}};
    };
    Json j;
    j["planned"] = workBegun(b, r);
    j["now"] = stance(o.now);
    j["next"] = o.next ? Json(o.steps[*o.next].code) : Json(nullptr);
    j["done"] = o.done;
    j["body_moves_left"] = o.body_moves_left;
    j["turns_left"] = o.turns_left;
    j["stuck"] = o.stuck;
    j["moves"] = {{"left", o.moves_left}, {"no_order_needs_fewer_than", o.least_moves}, {"exact", o.exact}};
    j["can_not_be_had"] = o.apart;
    j["steps"] = Json::array();
    for (const work::Step& s : o.steps) {
        Json q = {{"code", s.code},
                  {"title", s.title},
                  {"status", work::statusWord(s.status)},
                  {"waits_for", s.waits_for},
                  {"after", s.after},
                  {"stance", stance(s.stance)},
                  {"hold_point", s.hold},
                  {"no_return", s.no_return},
                  {"hot", s.hot},
                  {"before_return", s.before_return},
                  {"cautions", s.cautions},
                  {"why", s.why},
                  {"stands_here_because", s.because},
                  {"earliest_place", s.earliest},
                  {"latest_place", s.latest},
                  {"needs_support", s.support ? Json(build::word(*s.support)) : Json(nullptr)},
                  {"failed_before", s.failed}};
        q["hours"] = hoursJson(s.least_h, s.likely_h, s.most_h);
        if (s.job) {
            q["job"] = {{"kind", build::word(s.kind)}, {"area", s.area},
                        {"people", s.people},          {"closes", s.closes},
                        {"inside", s.inside},          {"wanted", s.wanted.empty() ? Json(nullptr) : Json(s.wanted)}};
            q["job"]["rests_h"] = s.rest_h;
        }
        q["checks"] = Json::array();
        for (const work::CheckItem& c : s.checks)
            q["checks"].push_back({{"name", c.name},
                                   {"kind", c.gap_of  ? "gap"
                                            : c.level ? "level"
                                                      : "tape"},
                                   {"plan_mm", number(c.plan_mm)},
                                   {"u95_mm", number(c.u95_mm)},
                                   {"tolerance_mm", number(c.tolerance_mm)},
                                   {"read_mm", number(c.read_mm)},
                                   {"stale", c.stale},
                                   {"agrees", c.agrees()}});
        q["conditions"] = Json::array();
        for (const work::Condition& c : s.conditions) q["conditions"].push_back({{"text", c.text}, {"met", c.met}});
        q["tick"] = nullptr;
        if (s.tick)
            q["tick"] = {{"who", s.tick->who}, {"at_utc", s.tick->at_utc}, {"note", s.tick->note}, {"photo", s.tick->photo}};
        j["steps"].push_back(std::move(q));
    }
    j["temporary_steel"] = Json::array();
    for (const work::SteelEntry& e : o.steel)
        j["temporary_steel"].push_back({{"name", e.steel.name},
                                        {"purpose", e.steel.purpose},
                                        {"blocks", e.steel.blocks},
                                        {"gap_mm", e.steel.gap ? number(e.steel.gap->value) : Json(nullptr)},
                                        {"out_after", e.steel.out_after},
                                        {"state", e.state == work::SteelState::In    ? "in"
                                                  : e.state == work::SteelState::Out ? "out"
                                                                                     : "planned"}});
    j["build"] = b.settings.name;
    j["findings"] = findings(r.findings, "work");
    return text(j);
}

std::string jobJson(const build::Build& b, const Results& r, const std::string& code) {
    const work::Order& o = *r.work;
    const work::Step* s = o.find(code);
    if (!s) s = o.find("job-" + code);
    if (!s) return {};
    Json j = {{"code", s->code}, {"title", s->title}, {"status", work::statusWord(s->status)}};
    j["place"] = s - o.steps.data() + 1;
    j["of"] = o.steps.size();
    j["stands_here_because"] = s->because;
    j["earliest_place"] = s->earliest;
    j["latest_place"] = s->latest;
    j["waits_for"] = s->waits_for;
    j["hours"] = hoursJson(s->least_h, s->likely_h, s->most_h);
    const auto named = [&](const std::vector<std::string>& codes) {
        Json list = Json::array();
        for (const std::string& k : codes)
            if (const work::Step* step = o.find(k)) list.push_back({{"code", k}, {"title", step->title}});
        return list;
    };
    j["if_it_slips_these_wait"] = named(work::heldUpBy(o.steps, s->code));
    Json beside = Json::array();
    for (const work::Step* k : work::besides(o, *s)) beside.push_back({{"code", k->code}, {"title", k->title}});
    j["another_can_do_meanwhile"] = std::move(beside);
    j["attempts"] = Json::array();
    for (const auto& [id, a] : b.attempts)
        if (a.step == s->code) j["attempts"].push_back({{"why", a.why}, {"who", a.who}, {"at_utc", a.at_utc}});
    j["awaited"] = Json::array();
    for (const auto& [id, a] : b.awaited)
        if (a.step == s->code || "job-" + a.step == s->code)
            j["awaited"].push_back({{"name", a.name},
                                    {"supplier", a.supplier},
                                    {"ordered", a.ordered.empty() ? Json(nullptr) : Json(a.ordered)},
                                    {"arrived", a.arrived.empty() ? Json(nullptr) : Json(a.arrived)},
                                    {"days", hoursJson(a.least_days, a.likely_days, a.most_days)}});
    j["cautions"] = s->cautions;
    return text(j);
}

std::string releaseJson(const build::Build& b, const Results& r) {
    Json j;
    int tied = 0, unproved = 0, off = 0, loose = 0;
    j["rows"] = Json::array();
    for (const auto& [id, row] : b.releases) {
        tied += !row.released;
        unproved += row.released && !row.proved;
        off += row.fate != build::Fate::Scrap && !row.refitted;
        loose += row.refitted && row.torque_nm > 0 && !row.tightened;
        j["rows"].push_back({{"name", row.name},
                             {"kind", build::word(row.kind)},
                             {"area", row.area},
                             {"joins", row.joins},
                             {"how", row.how},
                             {"cap", row.cap},
                             {"bag", row.bag.empty() ? row.name : row.bag},
                             {"photo", row.photo.empty() ? Json(nullptr) : Json(row.photo)},
                             {"frees", row.frees.empty() ? "body" : row.frees},
                             {"torque_Nm", row.torque_nm > 0 ? number(row.torque_nm) : Json(nullptr)},
                             {"tightened_on_its_wheels", row.on_wheels},
                             {"seized", row.seized},
                             {"captive_nut", row.captive},
                             {"fastener", row.renew ? "renew" : "use again"},
                             {"fate", build::word(row.fate)},
                             {"soaked", signedBy(row.soaked)},
                             {"released", signedBy(row.released)},
                             {"proved", signedBy(row.proved)},
                             {"refitted", signedBy(row.refitted)},
                             {"tightened", signedBy(row.tightened)},
                             {"note", row.note}});
    }
    j["still_tied"] = tied;
    j["not_seen_free_twice"] = unproved;
    j["not_on_again"] = off;
    j["not_tightened"] = loose;
    Json lift = nullptr;
    for (const work::Step& s : r.work->steps)
        if (s.moves_to && s.status != work::Status::Done && s.moves_to->body == build::BodyPlace::Off &&
            s.stance.body == build::BodyPlace::On) {
            lift = {{"code", s.code}, {"can_be_made", s.open()}, {"waits_for", s.waits_for}};
            break;
        }
    j["lift"] = std::move(lift);
    j["findings"] = findings(r.findings, "work");
    return text(j);
}

} // namespace gorvet::analysis
