#pragma once

#include "build/part_kinds.hpp"
#include "make/part.hpp"

#include <catch2/catch.hpp>

/// Parts between two rails 900 mm apart, as tests say them.
namespace make_parts {

using namespace gorvet;

inline build::RailLine rail(double y_front, double y_rear) {
    build::RailLine r;
    r.points = {{0, y_front, 500}, {3000, y_rear, 500}};
    r.height_mm = 100;
    r.width_mm = 60;
    r.thickness_mm = 4;
    return r;
}
inline build::Figure said(double value) { return {value, 0, build::Provenance::Measured}; }

/// Its places known to 0.5 mm each way.
inline make::PartIn part(const std::string& kind, const std::vector<geometry::Vec3>& at,
                         const std::map<std::string, double>& figures) {
    make::PartIn in;
    in.name = "p1";
    in.kind = kind;
    in.left = rail(-450, -450);
    in.right = rail(450, 450);
    in.places.at = at;
    in.places.covariance.assign(9 * at.size() * at.size(), 0);
    for (std::size_t k = 0; k < at.size(); ++k) {
        in.places.names.push_back("P" + std::to_string(k));
        in.at.push_back(k);
        for (std::size_t a = 0; a < 3; ++a) in.places.covariance[(3 * k + a) * 3 * at.size() + 3 * k + a] = 0.25;
    }
    for (const auto& f : build::partKindNamed(kind)->figures)
        if (f.usual) in.figures[f.word] = said(*f.usual);
    for (const auto& [word, value] : figures) in.figures[word] = said(value);
    in.yield_mpa = 235;
    in.yield_known = true;
    in.wall_known = true;
    return in;
}

/// Of every kind places that it can be made from.
inline const std::map<std::string, std::vector<geometry::Vec3>>& examplePlaces() {
    // outwards from the right rail's face, and on: each kind finds places there that it can be made from
    static const std::map<std::string, std::vector<geometry::Vec3>> places{
        {"brace", {{1000, -420, 450}, {1000, 420, 450}}},
        {"coped-tube", {{0, 0, 0}, {400, 0, 0}, {0, 300, 0}, {400, 300, 0}}},
        {"outrigger", {{1000, 480, 480}, {1000, 730, 470}}},
        {"gusset", {{0, 0, 0}, {120, 0, 0}, {0, 0, 100}}},
        {"ears", {{500, 0, 570}, {500, 0, 500}}},
        {"drilled-plate", {{0, 0, 0}, {100, 0, 0}, {100, 80, 0}}},
        {"bent-tube", {{0, 0, 0}, {400, 0, 0}, {400, 0, 400}}},
        {"cage-tube", {{0, 0, 0}, {0, 300, 0}, {900, 0, 500}, {900, 300, 500}, {0, 0, 500}}},
        {"angle-bracket", {{0, 0, 60}, {60, 0, 0}}},
        {"standoff", {{1000, 450, 500}, {1000, 450, 560}}},
        {"tab", {{1000, 450, 540}, {1000, 450, 500}}},
        {"u-bolt-plate", {{2400, 450, 400}, {2500, 450, 400}}},
        {"x-member", {{800, -420, 450}, {800, 420, 450}, {1900, -420, 450}, {1900, 420, 450}, {1350, 0, 440}}},
        {"k-brace", {{1000, -420, 450}, {1000, 420, 450}, {1500, 0, 450}}},
        {"lifting-beam", {{1000, -400, 1500}, {1000, 400, 1500}, {1000, 30, 1700}}},
        {"skate", {{600, -400, 700}, {600, 400, 700}, {2200, -380, 640}, {2200, 380, 640}}},
        {"bought-mount", {{1000, 450, 500}, {1180, 450, 500}}},
        {"perch", {{1000, 540, 470}, {1000, 480, 450}}},
        {"axle-perch", {{2400, 450, 400}, {2500, 450, 400}}},
        {"shim-stack", {{1000, 450, 500}, {1000, 450, 513.7}}},
        {"tank", {{2400, -300, 420}, {2400, 300, 420}, {2950, -300, 410}}},
        {"tank-pipe", {{2700, 760, 900}, {2650, 400, 780}, {2600, 320, 600}}},
        {"seat-bar", {{1400, 120, 620}, {1400, 700, 620}}},
        {"belt-plate", {{1600, 700, 700}, {1650, 700, 700}, {1600, 700, 740}}}};
    return places;
}

} // namespace make_parts
