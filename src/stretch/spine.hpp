#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

/// A spine platform made longer or shorter: one hollow spine with sheet pans beside it, tubes and rods inside. Cut in steps, so
/// that no weld line runs through; joined by a saddle outside, because the inside must stay free. engineering.md, Stretch.
namespace gorvet::stretch {

struct SpineInput {
    std::optional<double> pan_width_mm; ///< from the spine's flank to the pan's edge, each side
    std::optional<double> pan_wall_mm;
    std::optional<double> stagger_mm; ///< from the spine's cut to those of its pans; none: as the rules say
    std::vector<std::string> inside;  ///< what runs inside, by name
    bool operator==(const SpineInput&) const = default;
};

/// A cut across: of the spine, or of one pan.
struct SpineCut {
    const char* name = ""; ///< "spine", "left pan", "right pan"
    double first_mm = 0;   ///< front cut line, a station on the frame as it is
    double last_mm = 0;    ///< rear cut line, the same where a piece is put in
};
/// An opening in the spine's top through which what runs inside is reached, and its cover.
struct SpineWindow {
    double station_mm = 0; ///< of its middle, on the frame as it is
    double long_mm = 0;
    double wide_mm = 0;
    double cover_long_mm = 0;
    double cover_wide_mm = 0;
    int screws = 0;
};
struct SpinePlan {
    double stagger_mm = 0;
    double apart_mm = 0;          ///< the least between a weld of the spine and one of a pan, as planned
    std::array<SpineCut, 3> cuts; ///< spine, left pan, right pan
    // along each flank of the spine, between its cut and the pan's
    std::array<double, 2> slit_mm{}; ///< left, right: how long
    // the saddle, outside over top and flanks, and a strip below: a box over the joint
    double saddle_wall_mm = 0;
    double saddle_high_mm = 0; ///< inside
    double saddle_wide_mm = 0; ///< inside
    double saddle_long_mm = 0;
    double saddle_blank_mm = 0; ///< across, flat
    double strip_wide_mm = 0;   ///< below, as long as the saddle
    double overlap_mm = 0;      ///< each side of the joint
    double share = 0;           ///< modulus of saddle and strip over the spine's
    double flange_force_N = 0;  ///< at the spine's modulus times 210 / 1.5 MPa
    double plug_mm = 0;
    double plug_pitch_mm = 0;
    double plug_N = 0;    ///< what one carries: the lesser of weld and sheet
    int plugs_needed = 0; ///< in the top, and in the strip, each side of the joint
    int plugs_fit = 0;
    double overlap_need_mm = 0;
    // each pan is joined on a strip below
    double pan_strip_wide_mm = 0;
    double pan_strip_long_mm = 0;
    double pan_plug_mm = 0;
    int pan_plugs = 0; ///< a joint, both rows
    std::vector<SpineWindow> windows;
    std::vector<std::string> inside;
};

// ---- limits, mm
inline constexpr double spine_stagger = 100;      ///< the least between two weld lines
inline constexpr double spine_stagger_least = 50; ///< less is one line
inline constexpr double saddle_fit = 0.5;         ///< a side: it is clamped on

} // namespace gorvet::stretch
