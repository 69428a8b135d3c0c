#pragma once

#include "entry/commands.hpp"
#include "entry/entry.hpp"

#include <catch2/catch.hpp>
#include <fmt/format.h>

namespace gorvet::entry_tests {

using namespace build;

/// Types lines into a build, as a person does.
struct Typist {
    Build b;
    entry::Context context;
    std::string echo;

    void type(const std::string& line) {
        INFO(line);
        auto understood = entry::understand(b, context, line);
        if (!understood) FAIL(understood.error().text());
        if (understood->subject) context.subject = *understood->subject;
        echo = understood->echo;
        auto kept = enact(b, understood->edit);
        if (!kept) FAIL(kept.error().text());
    }
    gorvet::Error wrong(const std::string& line) const {
        INFO(line);
        const auto understood = entry::understand(b, context, line);
        REQUIRE_FALSE(understood);
        CHECK_FALSE(understood.error().message.empty());
        return understood.error();
    }
    /// What refuses a line, whoever it is: the reader, or the rules of what it would keep.
    std::string refused(const std::string& line) const {
        INFO(line);
        auto read = entry::understand(b, context, line);
        if (!read) return read.error().text();
        Build copy = b;
        const auto kept = enact(copy, read->edit);
        REQUIRE_FALSE(kept);
        return kept.error().text();
    }
    entry::Understood understood(const std::string& line) const {
        INFO(line);
        auto read = entry::understand(b, context, line);
        if (!read) FAIL(read.error().text());
        return *read;
    }
    void frame() {
        for (const char* line : {"point Al rail 0 -420 310", "point Ar rail 0 420 310", "point Bl rail 2000 -420 300",
                                 "point Br rail 2000 420 300", "point G gearbox-mount 1000 0 320"})
            type(line);
    }
    /// Rails 840 apart from −500 to 3200, axles at 0 and 2600, all placed by a scan.
    void scannedLadder(const char* section) {
        for (const auto& [name, role, x, y, z] : {std::tuple{"A", "rail", -500, 420, 500},
                                                  {"B", "rail", 1000, 420, 500},
                                                  {"C", "rail", 3200, 420, 500},
                                                  {"F", "front-hub", 0, 700, 400},
                                                  {"R", "rear-hub", 2600, 700, 400}})
            for (const int side : {-1, 1}) {
                const std::string point = fmt::format("{}{}", name, side < 0 ? 'l' : 'r');
                type(fmt::format("point {} {} {} {} {}", point, role, x, side * y, z));
                type(fmt::format("coordinates {} {} {} {}", point, x, side * y, z));
            }
        type(section);
    }
    void body() {
        type("subject body");
        for (const char* line :
             {"point Hl hinge-pillar 560 -690 800", "point Hr hinge-pillar 560 690 800", "point Sl sill-rear 1900 -700 500",
              "point Sr sill-rear 1900 700 500", "point Ml body-mount 300 -400 600", "point Mr body-mount 300 400 600",
              "point Wl arch-rear 2600 -700 550", "point Wr arch-rear 2600 700 550"})
            type(line);
    }
    /// (The frame must have points Bl and Dr.) An order of work with one step that can be done and one hold point.
    void work() {
        context.knows_work = true;
        context.who = "M.";
        context.now_utc = "2026-03-01T08:00:00Z";
        const auto id = [&](const char* name) { return pointNamed(b, the_chassis, name)->id; };
        context.steps = {{"battery-out", "Take the battery out", "", false, false, {}},
                         {"before-welding",
                          "Tape the diagonals",
                          "3 of 3 fresh readings are still to be taken",
                          false,
                          false,
                          {{id("Bl"), id("Dr"), {}}}},
                         {"weld-rails", "Weld", "first: Tape the diagonals", false, true, {}}};
        context.next_step = "battery-out";
    }
    /// A photo: it comes as a file, never by a line.
    void photo() {
        Photo p;
        p.id = PhotoId{b.next_id};
        p.name = "p0001";
        p.content = std::string(64, 'a');
        p.kept = {"M.", "2026-03-01T08:00:00Z"};
        const auto kept = enact(b, Edit{"a photo", {Put<Photo>{p}}});
        REQUIRE(kept);
    }
    const Reading& last() const { return b.readings.rbegin()->second; }
};

} // namespace gorvet::entry_tests
