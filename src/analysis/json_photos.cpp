// Photos, and what must be bought, as JSON.
#include "analysis/json_parts.hpp"
#include "analysis/photos.hpp"
#include "analysis/work_buy.hpp"

namespace gorvet::analysis {

std::string photosJson(const build::Build& b, const Results&) {
    Json j = {{"build", b.settings.name}};
    j["photos"] = Json::array();
    for (const auto& [id, p] : b.photos)
        j["photos"].push_back({{"name", p.name},
                               {"kind", build::word(p.kind)},
                               {"hash", p.content},
                               {"taken", known(p.taken)},
                               {"width_px", p.width_px > 0 ? number(p.width_px) : Json(nullptr)},
                               {"height_px", p.height_px > 0 ? number(p.height_px) : Json(nullptr)},
                               {"turned", p.turned},
                               {"when", build::word(p.stage)},
                               {"area", known(p.area)},
                               {"step", known(p.step)},
                               {"of", known(p.part)},
                               {"note", known(p.note)},
                               {"kept", by(p.kept)},
                               {"struck", by(p.struck)}});
    j["before_and_after"] = Json::array();
    for (const BeforeAfter& two : beforeAndAfter(b))
        j["before_and_after"].push_back(
            {{"place", two.place}, {"before", b.photos.at(two.before).name}, {"after", b.photos.at(two.after).name}});
    return text(j);
}

std::string purchasesJson(const build::Build& b, const Results& r) {
    const Purchases p = purchasesOf(b, r);
    Json j = {{"build", b.settings.name}, {"priced", p.priced}, {"without_a_price", p.unpriced}};
    j["cut_from_the_shelf"] = {{"no_other_way_leaves_less_to_buy", p.steel.exact}, {"bought_mm", number(p.steel.bought_mm)}};
    j["things"] = Json::array();
    for (const Purchase& row : p.rows)
        j["things"].push_back({{"kind", row.kind},
                               {"what", row.what},
                               {"amount", row.amount},
                               {"for", row.why},
                               {"from", known(row.from)},
                               {"stands", row.state},
                               {"open", row.open},
                               {"price", number(row.price)}});
    j["shelf"] = Json::array();
    for (const auto& [id, s] : b.stock)
        j["shelf"].push_back({{"name", s.name},
                              {"section", work::sectionWords(s.form, s.height_mm, s.width_mm, s.wall_mm)},
                              {"length_mm", s.length_mm},
                              {"count", s.count},
                              {"grade", known(s.grade)},
                              {"at", known(s.at)},
                              {"cut_off", known(s.from)},
                              {"price", number(s.price)}});
    return text(j);
}

} // namespace gorvet::analysis
