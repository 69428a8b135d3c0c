#pragma once

#include "sheet/drawing.hpp"
#include "sit/sit.hpp"

/// The body on its chassis, from the left and from above, to scale, with the pinned dimensions.
namespace gorvet::sit {

struct BodyMark {
    std::string name;
    build::Role role = build::Role::None;
    Vec3 at; ///< in the chassis frame, as seated
};

/// A pin as drawn: where it is measured, what it says.
struct DrawnPin {
    PinKind kind = PinKind::Station;
    std::vector<Vec3> at;
    std::vector<Vec3> to; ///< of a pin between two features
    std::string text;     ///< "1210.0"
    sheet::Mark mark = sheet::Mark::None;
    sheet::Severity severity = sheet::Severity::Good;
    std::string tag;
};

struct SitView {
    std::vector<BodyMark> body;
    std::vector<Vec3> rail_left; ///< top line, as planned
    std::vector<Vec3> rail_right;
    double rail_height_mm = 0;
    double rail_width_mm = 0;
    std::vector<Vec3> front_hubs;
    std::vector<Vec3> rear_hubs; ///< as planned
    double front_radius_mm = 0;  ///< 0: unknown
    double rear_radius_mm = 0;
    std::optional<Ground> ground;
    std::vector<DrawnPin> pins;
    struct DrawnBox {
        std::string name;
        geometry::Box3 box; ///< in the chassis frame
        bool chassis = true;
    };
    std::vector<DrawnBox> boxes; ///< envelopes that pins keep clear of
    std::string zero;            ///< what stands at station 0, where it is not the front axle: stations are drawn from there
    std::string wheelbase_text;  ///< of the dimension between the axles; empty: none
    std::string selected;
};

/// What the sheet needs in height, in pixels at 100 %; with less it is drawn so high all the same, and scrolled.
inline constexpr double sit_sheet_least_px = 290;
sheet::Drawing sitSheet(const SitView&, double width, double height, const sheet::Format&);

} // namespace gorvet::sit
