#include "entry/reader.hpp"

#include <algorithm>

// Scans that are kept in the build: where they stand, what they show; zones of the body; what must be clear.
namespace gorvet::entry {

void Reader::scan() {
    const Word name = line_.next("the scan's name");
    const auto at = std::find_if(b_.scans.begin(), b_.scans.end(), [&](const auto& row) { return row.second.name == name.text; });
    if (at == b_.scans.end())
        throw Failure{name.column, fmt::format("There is no scan {}.", name.text), "Add it first: Ctrl+M, or gorvet-cli scan keep."};
    Scan s = at->second;
    const Word what = line_.next("pose, move, part, on, unit or note");
    const auto angle = [&](const char* missing) { return figure(line_.next(missing), units::Kind::Angle, missing).value; };
    if (what.text == "pose") {
        s.shift = {lengthWord("the station").value, lengthWord("the offset").value, lengthWord("the height").value};
        s.yaw_rad = s.pitch_rad = s.roll_rad = 0;
        if (!line_.atEnd()) {
            s.yaw_rad = angle("the yaw");
            s.pitch_rad = angle("the pitch");
            s.roll_rad = angle("the roll");
        }
        s.note = "typed";
        say(fmt::format("{} stands at station {}, offset {}, height {}", s.name, units::fixed(s.shift.x_mm, 1), units::fixed(s.shift.y_mm, 1),
                        units::fixed(s.shift.z_mm, 1)));
    } else if (what.text == "move") {
        const Vec3 by{lengthWord("rearward").value, lengthWord("to the right").value, lengthWord("up").value};
        s.shift = {s.shift.x_mm + by.x_mm, s.shift.y_mm + by.y_mm, s.shift.z_mm + by.z_mm};
        say(fmt::format("{} moves by {} rearward, {} to the right, {} up", s.name, units::fixed(by.x_mm, 1), units::fixed(by.y_mm, 1), units::fixed(by.z_mm, 1)));
    } else if (what.text == "part") {
        s.part = oneOf<ScanPart>("what it shows");
        say(fmt::format("{} shows: {}", s.name, word(s.part)));
    } else if (what.text == "on") {
        s.subject = oneOf<Subject>("body or chassis");
        say(fmt::format("{} stands on the axes of the {}", s.name, word(s.subject)));
    } else if (what.text == "unit") {
        s.unit = oneOf<ScanUnit>("what one unit of its file is");
        say(fmt::format("one unit of {} is one {}", s.name, word(s.unit)));
    } else if (what.text == "note") {
        s.note = line_.upTo({}).text;
        say(fmt::format("{}: {}", s.name, s.note));
    } else {
        throw Failure{what.column, fmt::format("\"{}\" is not known here.", what.text), "Type pose x y z yaw pitch roll, move x y z, part, on, unit or note."};
    }
    put(Put<Scan>{s});
}

void Reader::zone() {
    Zone z;
    z.name = line_.next("the zone's name").text;
    for (const auto& [id, old] : b_.zones)
        if (old.name == z.name) z.id = id;
    z.rule = oneOf<ZoneRule>("never, brace or named");
    std::tie(z.from, z.to) = box6();
    if (!z.id) z.id = fresh<Zone>();
    put(Put<Zone>{z});
    const char* rule = z.rule == ZoneRule::Never ? "never cut" : z.rule == ZoneRule::Brace ? "braced before it is cut" : "named";
    say(fmt::format("{}, station {} to {}: {}", z.name, units::fixed(z.from.x_mm, 0), units::fixed(z.to.x_mm, 0), rule));
}

void Reader::clearance() {
    ClearanceRules c = b_.clearances;
    const Word what = line_.next("least, finish, margin, flange or sheet");
    const std::pair<const char*, Dimension*> named[] = {
        {"least", &c.least}, {"finish", &c.finish}, {"margin", &c.margin}, {"flange", &c.flange}, {"sheet", &c.sheet}};
    const auto* which = std::find_if(std::begin(named), std::end(named), [&](const auto& n) { return what.text == n.first; });
    if (which == std::end(named))
        throw Failure{what.column, fmt::format("\"{}\" is not known here.", what.text), "Type least, finish, margin, flange or sheet, and a length."};
    *which->second = lengthUpTo({}, "the length");
    put(Set<ClearanceRules>{c});
    say(fmt::format("clearance: {} {}", what.text, show(*which->second)));
}

bool Reader::removeOfScan(const Word& what) {
    const auto byName = [&](const auto& rows, const char* kind) {
        const Word name = line_.next("the name");
        for (const auto& [id, row] : rows)
            if (row.name == name.text) {
                put(Drop<std::decay_t<decltype(row)>>{id});
                say(fmt::format("remove the {} {}", kind, name.text));
                return;
            }
        throw Failure{name.column, fmt::format("There is no {} {}.", kind, name.text), ""};
    };
    if (what.text == "scan") byName(b_.scans, "scan");
    else if (what.text == "zone") byName(b_.zones, "zone");
    else return false;
    return true;
}

} // namespace gorvet::entry
