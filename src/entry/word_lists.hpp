#pragma once

#include "build/build.hpp"

#include <array>
#include <string_view>

/// Words that a reader takes and that are offered, where no enumeration has them. Internal to this room.
namespace gorvet::entry {

struct NamedRate {
    std::string_view name;
    double build::Rates::*field;
};
/// Rates that are plain numbers; hour and other-frame may be unknown.
inline constexpr std::array<NamedRate, 9> plain_rates{{{"other-frame-hours", &build::Rates::other_frame_hours},
                                                       {"patch-hours", &build::Rates::patch_hours},
                                                       {"crack-hours", &build::Rates::crack_hours},
                                                       {"redo-hours", &build::Rates::redo_hours},
                                                       {"seized-hours", &build::Rates::seized_hours},
                                                       {"play-hours", &build::Rates::play_hours},
                                                       {"section-hours", &build::Rates::section_hours},
                                                       {"patch-material", &build::Rates::patch_material},
                                                       {"section-material", &build::Rates::section_material}}};
/// What can be answered of a practice frame.
inline constexpr std::array<std::string_view, 5> crooked_figures{"diamond", "twist", "rail-difference", "sidesway", "sag"};

} // namespace gorvet::entry
