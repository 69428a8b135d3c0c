// Sections as JSON.
#include "analysis/frame_twist.hpp"
#include "analysis/json_parts.hpp"

namespace gorvet::analysis {

std::string sectionJson(const std::string& said, const frame::Section& s) {
    const auto at = [](const frame::At& p) { return Json{{"y_mm", number(p.y_mm)}, {"z_mm", number(p.z_mm)}}; };
    Json j = {{"section", said}, {"closed", s.closed()}};
    j["area_mm2"] = number(s.area_mm2);
    j["mass_kg_per_m"] = number(s.mass_kg_per_m);
    j["centroid"] = at(s.centroid);
    j["shear_centre"] = at(s.shear_centre);
    j["level_mm4"] = number(s.level_mm4);
    j["upright_mm4"] = number(s.upright_mm4);
    j["product_mm4"] = number(s.product_mm4);
    j["principal_mm4"] = number(s.principal_mm4);
    j["lesser_mm4"] = number(s.lesser_mm4);
    j["turned_deg"] = number(s.turned_rad * units::degrees(1));
    j["level_modulus_mm3"] = number(s.level_modulus_mm3);
    j["upright_modulus_mm3"] = number(s.upright_modulus_mm3);
    j["torsion_mm4"] = number(s.torsion_mm4);
    j["torsion_of_cells_mm4"] = number(s.cells_mm4);
    j["warping_mm6"] = number(s.warping_mm6);
    j["shear_area_level_mm2"] = number(s.shear_level_mm2);
    j["shear_area_upright_mm2"] = number(s.shear_upright_mm2);
    j["cautions"] = {"Figures of thin walls as said: rust, holes and welds are not in them.", "They certify nothing."};
    return text(j);
}

std::string twistJson(const build::Build& b, const FrameTwist& t) {
    const auto twist = [](const frame::Twist& one) {
        return Json{{"joints_warp_nm_per_deg", number(one.free_nm_per_deg)},
                    {"joints_held_nm_per_deg", number(one.held_nm_per_deg)},
                    {"between_axles_mm", number(one.length_mm)},
                    {"open_sections", one.open},
                    {"mass_kg", number(one.mass_kg)}};
    };
    Json j = {{"build", b.settings.name}, {"as_it_is", twist(t.now)}};
    j["as_planned"] = t.planned ? twist(*t.planned) : Json(nullptr);
    j["bridges"] = Json::array();
    for (const frame::Bridge& one : t.bridges)
        j["bridges"].push_back({{"name", one.name}, {"station_mm", number(one.station_mm)}, {"below_mm", number(one.below_mm)}});
    j["assumed"] = t.assumed;
    j["cautions"] = {"Indicative, no certificate: rails and the bridges that were said, as beams with rigid joints.",
                     "Left out: the body, suspension, brackets, holes, rust, welds that give, and bridges that were not said.",
                     "Strength and any change of a frame are for licensed people, by local rules."};
    return text(j);
}

} // namespace gorvet::analysis
