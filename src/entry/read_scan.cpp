#include "entry/reader.hpp"

#include <algorithm>
#include <cmath>
#include <cstdlib>

// Scans that are kept in the build: where they stand, what they show; zones of the body; what must be clear.
namespace gorvet::entry {

void Reader::scan() {
    const Word name = line_.next("the scan's name");
    const auto at = std::find_if(b_.scans.begin(), b_.scans.end(), [&](const auto& row) { return row.second.name == name.text; });
    if (at == b_.scans.end())
        throw Failure{name.column, fmt::format("There is no scan {}.", name.text),
                      "Add it first: Ctrl+M, or gorvet-cli scan keep."};
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
        say(fmt::format("{} stands at station {}, offset {}, height {}", s.name, units::fixed(s.shift.x_mm, 1),
                        units::fixed(s.shift.y_mm, 1), units::fixed(s.shift.z_mm, 1)));
    } else if (what.text == "move") {
        const Vec3 by{lengthWord("rearward").value, lengthWord("to the right").value, lengthWord("up").value};
        s.shift = {s.shift.x_mm + by.x_mm, s.shift.y_mm + by.y_mm, s.shift.z_mm + by.z_mm};
        say(fmt::format("{} moves by {} rearward, {} to the right, {} up", s.name, units::fixed(by.x_mm, 1),
                        units::fixed(by.y_mm, 1), units::fixed(by.z_mm, 1)));
    } else if (what.text == "part") {
        s.part = oneOf<ScanPart>("what it shows");
        say(fmt::format("{} shows: {}", s.name, word(s.part)));
    } else if (what.text == "on") {
        s.subject = subjectNext();
        say(fmt::format("{} stands on the axes of the {}", s.name, nameOf(b_, s.subject)));
    } else if (what.text == "unit") {
        s.unit = oneOf<ScanUnit>("what one unit of its file is");
        say(fmt::format("one unit of {} is one {}", s.name, word(s.unit)));
    } else if (what.text == "note") {
        s.note = line_.rest().text;
        say(fmt::format("{}: {}", s.name, s.note));
    } else {
        throw Failure{what.column, fmt::format("\"{}\" is not known here.", what.text),
                      "Type pose x y z yaw pitch roll, move x y z, part, on, unit or note."};
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
    const Word what = line_.next("least, finish, margin, flange, sheet or between");
    if (what.text == "between") {
        PairRule p;
        p.one = oneOf<ScanPart>("the first part");
        p.other = oneOf<ScanPart>("the second part");
        for (const auto& [id, old] : b_.pair_rules)
            if ((old.one == p.one && old.other == p.other) || (old.one == p.other && old.other == p.one)) p.id = id;
        p.least = lengthUpTo({"finish"}, "the least clearance");
        if (line_.take("finish")) p.finish = lengthUpTo({}, "what finish takes up");
        if (!p.id) p.id = fresh<PairRule>();
        put(Put<PairRule>{p});
        return say(fmt::format("{} to {}: {} clear", word(p.one), word(p.other), show(p.least)));
    }
    const std::pair<const char*, Dimension*> named[] = {
        {"least", &c.least}, {"finish", &c.finish}, {"margin", &c.margin}, {"flange", &c.flange}, {"sheet", &c.sheet}};
    const auto* which = std::find_if(std::begin(named), std::end(named), [&](const auto& n) { return what.text == n.first; });
    if (which == std::end(named))
        throw Failure{what.column, fmt::format("\"{}\" is not known here.", what.text),
                      "Type least, finish, margin, flange or sheet, and a length; or between, two parts and a length."};
    *which->second = lengthUpTo({}, "the length");
    put(Set<ClearanceRules>{c});
    say(fmt::format("clearance: {} {}", what.text, show(*which->second)));
}

Vec3 Reader::place3() {
    // one after the other: the order of a call's arguments is nobody's promise
    Vec3 v;
    v.x_mm = lengthWord("the station").value;
    v.y_mm = lengthWord("the offset").value;
    v.z_mm = lengthWord("the height").value;
    return v;
}

void Reader::swing() {
    const Word name = line_.next("the scan that swings");
    Swing s;
    for (const auto& [id, scan] : b_.scans)
        if (scan.name == name.text) s.scan = id;
    if (!s.scan)
        throw Failure{name.column, fmt::format("There is no scan {}.", name.text),
                      "Add it first: Ctrl+M, or gorvet-cli scan keep."};
    for (const auto& [id, old] : b_.swings)
        if (old.scan == s.scan) s.id = id;
    s.angle = figure(line_.next("how far it swings"), units::Kind::Angle, "how far it swings");
    if (line_.take("back")) s.back = figure(line_.next("how far back"), units::Kind::Angle, "how far back");
    if (!line_.take("about"))
        throw Failure{line_.atEnd() ? line_.endColumn() : line_.peek().column, "About which axis?",
                      "Like: swing bonnet 60° about 500 -400 900 500 400 900"};
    s.from = place3();
    s.to = place3();
    if (!s.id) s.id = fresh<Swing>();
    put(Put<Swing>{s});
    say(fmt::format("{} swings by {}", name.text, showAngle(s.angle)));
}

void Reader::cutLine() {
    const Word name = line_.next("the kept cut's name");
    const auto old = std::find_if(b_.planned_cuts.begin(), b_.planned_cuts.end(),
                                  [&](const auto& row) { return row.second.name == name.text; });
    if (old == b_.planned_cuts.end())
        throw Failure{name.column, fmt::format("No cut {} was kept.", name.text),
                      "Keep the cuts first: Ctrl+K, or gorvet-cli cutmap --keep."};
    PlannedCut c = old->second;
    const Word what = line_.next("move, add, drop or as-cut");
    const auto corner = [&](size_t most) {
        const Word w = line_.next("which corner");
        char* end = nullptr;
        const double n = std::strtod(w.text.c_str(), &end);
        if (!end || *end || !(n >= 1 && n <= static_cast<double>(most)) || n != std::floor(n))
            throw Failure{w.column, fmt::format("{} has corners 1 to {}.", c.name, c.line.size()), ""};
        return static_cast<size_t>(n) - 1;
    };
    if (what.text == "move") {
        const size_t k = corner(c.line.size());
        c.line[k] = place3();
        say(fmt::format("{}: corner {} at station {}", c.name, k + 1, units::fixed(c.line[k].x_mm, 1)));
    } else if (what.text == "add") {
        const size_t k = corner(c.line.size());
        c.line.insert(c.line.begin() + static_cast<std::ptrdiff_t>(k) + 1, place3());
        say(fmt::format("{}: a corner after corner {}", c.name, k + 1));
    } else if (what.text == "drop") {
        if (c.line.size() <= 3)
            throw Failure{what.column, fmt::format("{} has only {} corners.", c.name, c.line.size()),
                          "Remove the whole cut instead."};
        const size_t k = corner(c.line.size());
        c.line.erase(c.line.begin() + static_cast<std::ptrdiff_t>(k));
        say(fmt::format("{}: without corner {}", c.name, k + 1));
    } else if (what.text == "as-cut") {
        if (line_.take("none")) {
            c.as_cut.clear();
            say(fmt::format("{}: nothing measured of its edge", c.name));
        } else {
            c.as_cut.push_back(place3());
            say(fmt::format("{}: cut at station {}, offset {}, height {}", c.name, units::fixed(c.as_cut.back().x_mm, 1),
                            units::fixed(c.as_cut.back().y_mm, 1), units::fixed(c.as_cut.back().z_mm, 1)));
        }
    } else {
        throw Failure{what.column, fmt::format("\"{}\" is not known here.", what.text),
                      "Type move N x y z, add N x y z, drop N, or as-cut x y z."};
    }
    if (what.text != "as-cut") c.by_hand = true;
    put(Put<PlannedCut>{c});
}

void Reader::removeScan(const Word&) { removeNamed(b_.scans, "scan"); }
void Reader::removeZone(const Word&) { removeNamed(b_.zones, "zone"); }
void Reader::removeCutLine(const Word&) { removeNamed(b_.planned_cuts, "kept cut"); }

void Reader::removeSwing(const Word&) {
    const Word name = line_.next("the name of the scan");
    for (const auto& [id, s] : b_.swings)
        if (b_.scans.at(s.scan).name == name.text) {
            put(Drop<Swing>{id});
            return say(fmt::format("{} does not swing", name.text));
        }
    throw Failure{name.column, fmt::format("{} does not swing.", name.text), ""};
}

void Reader::removePairRule(const Word& what) {
    const auto one = oneOf<ScanPart>("the first part");
    const auto other = oneOf<ScanPart>("the second part");
    for (const auto& [id, p] : b_.pair_rules)
        if ((p.one == one && p.other == other) || (p.one == other && p.other == one)) {
            put(Drop<PairRule>{id});
            return say(fmt::format("{} to {}: the usual clearance", word(one), word(other)));
        }
    throw Failure{what.column, fmt::format("{} to {} has no clearance of its own.", word(one), word(other)), ""};
}

} // namespace gorvet::entry
