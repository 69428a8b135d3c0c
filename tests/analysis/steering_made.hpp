#pragma once

#include "entry/typist.hpp"

#include <string>
#include <tuple>

/// Cars whose parts are taken by a fixture, for tests.
namespace analysis_made {

/// A point and where it is.
inline void place(gorvet::entry_tests::Typist& t, const std::string& name, double x, double y, double z) {
    t.type(fmt::format("point {} {} {} {}", name, x, y, z));
    t.type(fmt::format("coordinates {} {} {} {}", name, x, y, z));
}

/// Front wheels on equal, level wishbones with tie rods from a rack, `higher` over where nothing steers.
inline gorvet::entry_tests::Typist steered(double higher) {
    gorvet::entry_tests::Typist t;
    t.type("session monday right-way-up wheels");
    t.scannedLadder("rail 100 x 60 x 4 box top");
    t.type("travel lock 32deg");
    t.type("tyre front 320");
    for (const int side : {-1, 1}) {
        const char end = side < 0 ? 'l' : 'r';
        for (const auto& [name, x, y, z] : {std::tuple{"TA", -120.0, 250.0, 300.0},
                                            {"TB", 120, 250, 300},
                                            {"TC", 0, 550, 300},
                                            {"UA", -120, 250, 500},
                                            {"UB", 120, 250, 500},
                                            {"UC", 0, 550, 500},
                                            {"SO", 140, 512, 400},
                                            {"SI", 140, 212, 400 + higher}})
            place(t, fmt::format("{}{}", name, end), x, side * y, z);
        const char* word = side < 0 ? "left" : "right";
        for (const char* link : {"lower-{0} front-{0} wishbone TA{1} TB{1} TC{1}",
                                 "upper-{0} front-{0} wishbone UA{1} UB{1} UC{1}", "tie-{0} front-{0} tie-rod SI{1} SO{1}"})
            t.type("link " + fmt::format(fmt::runtime(link), word, end));
    }
    return t;
}

} // namespace analysis_made
