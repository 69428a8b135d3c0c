#pragma once

#include "build/figures.hpp"

/// What holds for the whole build.
namespace gorvet::build {

struct Settings {
    std::string name = "New build";
    FrameKind frame_kind = FrameKind::Ladder;
    units::LengthStep length_step = units::LengthStep::Mm01;
    double frame_tolerance_mm = 3.0;
    std::string want = "figures"; ///< what the next readings are to tell: tape::wanted_keys, or "point NAME"
    bool gauge = true;            ///< there is a height gauge or level to take heights with
    double tape_reach_mm = 8000;  ///< the longest distance that can be taped in one
    std::string scan_picture;     ///< content hash of a picture of the scans for the build sheet; empty: none
    std::string body_name = "body";
    std::string chassis_name = "chassis";
    Paper paper = Paper::A4; ///< that sheets are printed on
    bool operator==(const Settings&) const = default;
};
template <> struct Schema<Settings> {
    static constexpr TableInfo table{"settings", "settings", 1, "the settings"};
    static constexpr auto& in(auto& build) { return build.settings; }
    template <class S> static constexpr auto fields() {
        return FieldList{
            name("name", &S::name),
            field("frame_kind", &S::frame_kind),
            field("length_step", &S::length_step).says("how lengths are shown: a number in the order of `show`"),
            mm("frame_tolerance_mm", &S::frame_tolerance_mm, 0.01, 100).onEntry(),
            name("want", &S::want).came(2),
            field("gauge", &S::gauge).came(2),
            mm("tape_reach_mm", &S::tape_reach_mm, 100, 1e5).came(2),
            hash("scan_picture", &S::scan_picture).came(2),
            name("body_name", &S::body_name),
            name("chassis_name", &S::chassis_name),
            field("paper", &S::paper).came(5).says("that sheets are printed on"),
        };
    }
};

} // namespace gorvet::build
