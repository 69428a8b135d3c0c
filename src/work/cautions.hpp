#pragma once

/// What is said where work can hurt someone. Internal to this room.
namespace gorvet::work {

inline constexpr const char* plates_and_numbers = "Identification plates and numbers are never cut, moved or hidden.";
inline constexpr const char* rules_first =
    "Local vehicle-modification and roadworthiness rules come first: ask before the first cut.";
inline constexpr const char* licensed_welds = "Structural welds are made or approved by licensed people.";
inline constexpr const char* battery_order = "Earth terminal off first and on last; no spark near it; carry it upright.";
inline constexpr const char* battery_not_told = "Nothing is said about the battery, so it is taken as there.";
inline constexpr const char* tank_out =
    "Drain in the open air, away from any flame; an empty tank explodes more easily than a full one. Cap every line.";
inline constexpr const char* hot_work =
    "Hot work: tank out and lines capped, battery out, floor coverings and sealer away, a person with an extinguisher watching, also for an hour after.";
inline constexpr const char* discs =
    "Cutting discs and wire wheels burst and throw wires: guard on, face shield, gloves, sleeves; nobody in the line of the disc.";
inline constexpr const char* stands_each_side =
    "Stands each side of the cut carry the frame by themselves: when the rail parts, neither half may move.";
inline constexpr const char* nobody_under =
    "Nobody under a hung body, not even a hand. Lower it on blocks; keep lines so that it can't swing.";
inline constexpr const char* lift_check =
    "Slings on strong places, angles from the upright at most 45°, the hook over the centre of gravity: lift 20 mm and look.";
inline constexpr const char* turn_check =
    "A frame turns over its own centre: two people at each end, or a rotisserie; never between it and a wall.";
inline constexpr const char* restraints =
    "Airbags and belt tensioners are left to licensed people: they fire without a battery too.";
inline constexpr const char* refrigerant =
    "Refrigerant is taken out by licensed people; it is never let off, and burns to poison in a weld.";
inline constexpr const char* fumes =
    "Fumes of zinc, paint and underseal are poison: bare metal round the weld, air moving, breathing protection.";
inline constexpr const char* coating =
    "Spray with the mask its maker asks for, no sparks, air moving; hardeners with isocyanate need fed air.";
inline constexpr const char* brakes = "Brakes, steering and fuel are checked by licensed people before it moves.";
inline constexpr const char* jack = "Never reach under a body or frame that only a jack or hoist holds.";
inline constexpr const char* blasting =
    "Blasting: fed air, gloves and cover; never sand that holds quartz, its dust kills years later. Grit finds every bearing, seam and "
    "box: cover them, and get it out before anything is closed.";
inline constexpr const char* dirt =
    "Droppings, mould, old sealer and brake dust: wet it, no brush, no air line; a mask for fine dust, gloves, and into a bag.";
inline constexpr const char* springs_loaded =
    "A loaded spring kills: a compressor made for it, nobody in line with it, and never the last bolt of a loaded one.";
inline constexpr const char* glass_work =
    "Goggles, gloves, sleeves, and two people to a screen: hardened glass bursts at a knock on its edge.";
inline constexpr const char* fuel_open =
    "Open fuel: in the open air, battery off, no flame, spark or lamp near; catch it in a can made for it, cap what stays open.";
inline constexpr const char* high_voltage = "Orange cables carry a voltage that kills: they are left to people trained for it.";
inline constexpr const char* second_person = "Two people: one only watches, and can shut off, lower or fetch help.";
inline constexpr const char* sealers =
    "Sealers and adhesives: gloves, air moving; a bond never replaces a structural weld without someone licensed looking at it.";
inline constexpr const char* running =
    "Before anything runs: wheels chocked, exhaust out of the room, an extinguisher at hand, hands and sleeves clear of belts and fan.";

} // namespace gorvet::work
