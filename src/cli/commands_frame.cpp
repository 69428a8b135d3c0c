// Commands about the frame as a structure: what a section is worth.
#include "analysis/frame.hpp"
#include "analysis/frame_twist.hpp"
#include "analysis/json.hpp"
#include "analysis/scans.hpp"
#include "analysis/stock_sizes.hpp"
#include "cli/commands.hpp"
#include "cli/open_build.hpp"
#include "cli/tape_commands.hpp"
#include "cli/wait.hpp"
#include "frame/section.hpp"

#include <charconv>
#include <cmath>
#include <iostream>
#include <sstream>

#include <fmt/format.h>

namespace gorvet::cli {

namespace {

int printSection(const std::vector<std::string>& words) {
    if (words == std::vector<std::string>{"stock"}) {
        std::cout << analysis::stockJson();
        return 0;
    }
    const auto walls = frame::wallsFrom(words);
    if (!walls) return fail(walls.error());
    const auto section = frame::sectionOf(*walls);
    if (!section) return fail(section.error());
    std::string said;
    for (const std::string& word : words) said += (said.empty() ? "" : " ") + word;
    std::cout << analysis::sectionJson(said, *section);
    return 0;
}

/// "300:box,60,40,3" or "300:box,60,40,3:25": a station, a shape, and how far it stands under the rails' middle.
Result<frame::Bridge> bridgeFrom(const std::string& text, std::size_t number) {
    std::vector<std::string> parts;
    std::istringstream in(text);
    for (std::string part; std::getline(in, part, ':');) parts.push_back(part);
    const auto bad = [&](const std::string& why) {
        return Error{Error::Code::BadInput, text, why, "Like: --bridge 300:box,60,40,3", -1};
    };
    if (parts.size() < 2 || parts.size() > 3)
        return bad("A bridge is a station, a shape, and how far it stands under the rails' middle.");
    const auto figure = [](const std::string& word) -> std::optional<double> {
        double v = 0;
        const auto [end, wrong] = std::from_chars(word.data(), word.data() + word.size(), v);
        return wrong == std::errc() && end == word.data() + word.size() && std::isfinite(v) ? std::optional(v) : std::nullopt;
    };
    frame::Bridge bridge;
    bridge.name = std::to_string(number);
    const auto station = figure(parts[0]), below = parts.size() == 3 ? figure(parts[2]) : std::optional(0.0);
    if (!station || !below) return bad(fmt::format("\"{}\" is no length in mm.", station ? parts[2] : parts[0]));
    bridge.station_mm = *station;
    bridge.below_mm = *below;
    std::vector<std::string> words;
    std::istringstream shape(parts[1]);
    for (std::string word; std::getline(shape, word, ',');) words.push_back(word);
    const auto walls = frame::wallsFrom(words);
    if (!walls) return walls.error();
    const auto section = frame::sectionOf(*walls);
    if (!section) return section.error();
    bridge.section = *section;
    return bridge;
}

int printTwist(const std::string& path, const std::vector<std::string>& said) {
    const auto store = openToRead(path);
    if (!store) return fail(store.error());
    std::vector<frame::Bridge> bridges;
    for (const std::string& text : said) {
        auto bridge = bridgeFrom(text, bridges.size() + 1);
        if (!bridge) return fail(bridge.error());
        bridges.push_back(std::move(*bridge));
    }
    const auto twist = analysis::frameTwist(analysed(**store), bridges);
    if (!twist) return fail(twist.error());
    std::cout << analysis::twistJson((*store)->build(), *twist);
    return 0;
}

int printFrame(const std::string& path) {
    const auto store = openToRead(path);
    if (!store) return fail(store.error());
    const build::Build& b = (*store)->build();
    analysis::Results r = analysed(**store);
    waitFor(**store, b, r, {analysis::slow::frame});
    const analysis::FrameAsked asked = analysis::frameAsked(b, r);
    const auto cannot = [](const std::string& message, const std::string& remedy) {
        return fail(Error{Error::Code::Conflict, "frame", message, remedy, -1});
    };
    if (!asked.waits.empty())
        return cannot(fmt::format("The frame can't be worked out yet: it needs {}.", asked.waits), asked.remedy);
    if (!r.scans->frame->now) return cannot(r.scans->frame->wrong, r.scans->frame->remedy);
    std::cout << analysis::frameJson(b, r);
    return 0;
}

} // namespace

void addFrameCommands(Commands& commands) {
    std::string all;
    for (const auto& [name, figures] : frame::shapes()) all += (all.empty() ? "" : "; ") + name + ": " + figures;
    auto [c, a] = commands.add(
        commands.app(), "section",
        "what a section is worth: area, moments, torsion and warping, shear centre, shear areas, mass; stock: all common sizes");
    c.add_option("SHAPE", a.lines, all)->required();
    commands.runs(c, [&a = a] { return printSection(a.lines); });
    CLI::App& group = commands.group("frame", "the frame as a structure");
    auto [twist, asked] =
        commands.add(group, "twist", "how much the frame resists being twisted between its axles, as it is and as planned");
    fileArgument(twist, asked.path);
    twist.add_option("--bridge", asked.lines, "STATION:SHAPE,FIGURES…[:BELOW], a crossmember that is there; two at the least")
        ->required();
    auto [analyse, a_frame] =
        commands.add(group, "analyse",
                     "what the frame bears: stiffness, load case by load case, how it swings, what closing its rails brings");
    fileArgument(analyse, a_frame.path);
    commands.runs(analyse, [&a_frame = a_frame] { return printFrame(a_frame.path); });
    commands.runs(twist, [&asked = asked] { return printTwist(asked.path, asked.lines); });
}

} // namespace gorvet::cli
