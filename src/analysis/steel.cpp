#include "analysis/steel.hpp"

#include "analysis/frame.hpp"
#include "analysis/graft.hpp"
#include "analysis/let_in.hpp"
#include "analysis/width.hpp"
#include "make/crossmember_solid.hpp"
#include "make/flat_sheet.hpp"
#include "make/part_sheet.hpp"
#include "stretch/graft_sheet.hpp"
#include "stretch/spine_sheet.hpp"
#include "stretch/width_sheet.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

/// mm² of steel in a section with sharp corners.
double sharpArea(StockForm form, double height, double width, double wall) {
    switch (form) {
    case StockForm::Box: return height * width - std::max(0.0, height - 2 * wall) * std::max(0.0, width - 2 * wall);
    case StockForm::Channel: return height * wall + 2 * std::max(0.0, width - wall) * wall;
    case StockForm::Angle: return (height + width - wall) * wall;
    case StockForm::Flat:
    case StockForm::Plate: return height * wall;
    case StockForm::Tube: return units::pi * (height - wall) * wall;
    case StockForm::Bar: return units::pi / 4 * height * height;
    }
    return 0;
}

/// Sawn square from such a section.
SteelBar squareBar(std::string name, StockForm form, double height, double width, double wall, double length, int count) {
    return {std::move(name),
            form,
            height,
            width,
            wall,
            length,
            count,
            "square",
            make::steelMass(sharpArea(form, height, width, wall) * length),
            ""};
}
make::FlatPiece rectangle(std::string name, double length, double width, double thickness, int count) {
    make::FlatPiece flat;
    flat.name = std::move(name);
    flat.count = count;
    flat.thickness_mm = thickness;
    flat.outline = {{0, 0}, {length, 0}, {length, width}, {0, width}};
    flat.mass_kg = make::flatMass(flat);
    return flat;
}

class SteelGather {
public:
    SteelGather(const Build& b, const Results& r) : b_(b), r_(r) {}

    std::vector<SteelThing> all() {
        crossmember();
        mounts();
        sleeves();
        spine();
        railPlates();
        members();
        floors();
        letIns();
        grafts();
        gearPlate();
        for (const auto& node : r_.parts) pieces(*node, "part:" + node->name, node->name + ": ");
        std::erase_if(things_, [](const SteelThing& t) { return t.bars.empty() && t.flats.empty() && t.fixings.empty(); });
        return std::move(things_);
    }

private:
    SteelThing& thing(std::string tag) { return things_.emplace_back(SteelThing{std::move(tag), {}, {}, {}}); }

    static std::vector<double> tilts(const make::BarPiece& bar) {
        std::vector<double> all;
        for (const make::BarEnd& e : bar.ends) {
            const double by = e.kind == make::BarEnd::Kind::Saw ? e.saw_rad : 0;
            all.insert(all.end(), {by * std::cos(e.turned_rad), by * std::sin(e.turned_rad)});
        }
        return all;
    }
    void pieces(const make::PartPlan& p, std::string tag, const std::string& before) {
        SteelThing& t = thing(std::move(tag));
        const auto named = [&](const std::string& piece) { return piece == p.name ? piece : before + piece; };
        for (const make::BarPiece& bar : p.bars) {
            std::string ends = make::endsWords(bar);
            if (!bar.bends.empty()) ends += fmt::format("; {}", units::counted(bar.bends.size(), "a bend"));
            t.bars.push_back({named(bar.name), bar.round ? StockForm::Tube : StockForm::Box, bar.height_mm, bar.width_mm,
                              bar.wall_mm, bar.length_mm.value, bar.count, std::move(ends), bar.mass_kg,
                              bar.at_hand ? "the original" : "", bar.bends, tilts(bar)});
        }
        for (make::FlatPiece flat : p.flats) {
            flat.name = named(flat.name);
            t.flats.push_back(std::move(flat));
        }
    }
    /// The gearbox's: sawn pieces as its own sheet says their ends, plates as they are cut.
    void crossmember() {
        if (!r_.crossmember.made() || !r_.crossmember->possible) return;
        SteelThing& t = thing("crossmember");
        for (const make::CutPiece& p : r_.crossmember->pieces) {
            const std::string name = "crossmember: " + p.name;
            if (p.wall_mm > 0)
                t.bars.push_back({name, p.width_mm > 0 ? StockForm::Box : StockForm::Tube, p.height_mm, p.width_mm, p.wall_mm,
                                  p.length_mm, p.count, p.ends, p.mass_kg / p.count, ""});
            else if (p.length_mm <= 0)
                t.fixings.push_back({name, p.stock, 0, p.count, p.ends});
        }
        for (make::FlatPiece flat : make::crossmemberPieces(r_.crossmember.input(), *r_.crossmember).flats) {
            flat.name = "crossmember: " + flat.name;
            flat.mass_kg = make::flatMass(flat);
            t.flats.push_back(std::move(flat));
        }
    }
    void mounts() {
        for (std::size_t k = 0; k < r_.mounts.size(); ++k) {
            const make::MountStack& m = r_.mounts[k];
            if (!m.on_rail) continue;
            SteelThing& t = thing(fmt::format("mount:{}", r_.mount_ids[k].value));
            if (m.standoff_mm > 0) {
                t.bars.push_back({"standoff " + m.name, StockForm::Tube, 0, 0, 0, m.standoff_mm, 1, "square", 0, "tube"});
            }
            if (m.bolt_length_mm)
                t.fixings.push_back({"mount bolt " + m.name, fmt::format("M{:g} bolt", m.bolt_mm), *m.bolt_length_mm, 1, ""});
            t.fixings.push_back({"mount nut " + m.name, m.nut, 0, 1, ""});
        }
    }
    /// What joins the rails again.
    void sleeves() {
        const stretch::Plan& p = *r_.stretch;
        const bool planned = p.status == stretch::Status::Planned;
        SteelThing& t = thing("sleeve");
        if (p.sleeve)
            t.bars.push_back(squareBar("inner sleeve", r_.stretch.input().channel ? StockForm::Channel : StockForm::Box,
                                       p.sleeve->height_mm, p.sleeve->width_mm, p.sleeve->wall_mm, p.sleeve->length_mm, 2));
        if (p.splice && p.splice->plate) {
            make::FlatPiece plate;
            plate.name = "fish plate";
            plate.count = 4;
            plate.thickness_mm = p.splice->plate->thickness_mm;
            plate.outline = stretch::fishPlateOutline(*p.splice->plate);
            plate.mass_kg = make::flatMass(plate);
            t.flats.push_back(std::move(plate));
        }
        if (!planned || p.shortens) return;
        if (p.spine) { // it is both rails
            t.bars.push_back(
                {"new piece of the spine", StockForm::Box, 0, 0, 0, p.left.length_mm, 1, "square", 0, "as the spine"});
            if (const auto& pan = r_.stretch.input().spine; pan && pan->pan_width_mm && pan->pan_wall_mm)
                t.flats.push_back(rectangle("new piece of a pan", p.left.length_mm, *pan->pan_width_mm, *pan->pan_wall_mm, 2));
            return;
        }
        for (const auto& [name, cut] : {std::pair{"left", &p.left}, std::pair{"right", &p.right}})
            if (cut->known)
                t.bars.push_back({fmt::format("new rail piece {}", name), StockForm::Box, 0, 0, 0, cut->length_mm, 1, "square", 0,
                                  "as the rail"});
    }
    void spine() {
        if (r_.stretch->status != stretch::Status::Planned || !r_.stretch->spine) return;
        const stretch::SpinePlan& s = *r_.stretch->spine;
        SteelThing& t = thing("sleeve");
        t.flats.push_back(flatFrom(stretch::saddlePattern(s), "saddle", s.saddle_wall_mm));
        t.flats.push_back(rectangle("strip below the spine", s.saddle_long_mm, s.strip_wide_mm, s.saddle_wall_mm, 1));
        const auto& asked = r_.stretch.input().spine;
        if (s.pan_strip_long_mm > 0 && asked && asked->pan_wall_mm)
            t.flats.push_back(rectangle("strip under a pan", s.pan_strip_long_mm, s.pan_strip_wide_mm, *asked->pan_wall_mm, 2));
        for (std::size_t k = 0; k < s.windows.size(); ++k)
            t.flats.push_back(flatFrom(stretch::coverPattern(s.windows[k]), fmt::format("cover of window {}", k + 1),
                                       r_.stretch.input().left.thickness_mm));
    }
    /// Plates over open rails, ribs in them.
    void railPlates() {
        for (const frame::ClosingPlate& p : plannedPlates(b_, r_))
            thing("member:" + p.name).flats.push_back(flatFrom(frame::platePattern(p), p.name, p.thickness_mm, p.count));
    }
    /// Members that are to be made: between the rails as they stand there, through their points, or upright in an open rail.
    void members() {
        const bool open = b_.rail.shape == RailShape::Channel;
        for (const auto& [id, m] : b_.members) {
            const auto form = stockFormOf(m.form);
            if (m.state != MemberState::Planned || !form || m.kind == MemberKind::Plate) continue;
            const auto bar = [&](double length, int count, std::string ends) {
                if (length <= 0) return;
                SteelBar one = squareBar(m.name, *form, m.height.value, m.width.value, m.wall.value, length, count);
                one.ends = std::move(ends);
                thing("member:" + m.name).bars.push_back(std::move(one));
            };
            if (m.kind == MemberKind::Rib) {
                if (m.form == SectionForm::Flat || !open) continue; // flat ones are plates
                const int ribs = 1 + static_cast<int>(std::floor((m.until->value - m.station->value + 0.5) / m.pitch->value));
                bar(b_.rail.height.value - 2 * b_.rail.thickness.value, ribs * (m.side == RailSide::Both ? 2 : 1), "square");
            } else if (!m.points.empty()) {
                double length = 0;
                std::optional<Vec3> before;
                for (const PointId point : m.points) {
                    const auto at = r_.chassis.positionOf(point);
                    if (!at) {
                        length = 0;
                        break;
                    }
                    const Vec3 here = r_.planned_chassis.map(*at);
                    if (before) length += geometry::between(*before, here);
                    before = here;
                }
                bar(length, 1, "from mark to mark: tape it there before it is sawn");
            } else if (m.kind == MemberKind::Crossmember && !m.until) {
                const double at = r_.planned_chassis.map(Vec3{m.station->value, 0, 0}).x_mm;
                const auto left = r_.planned_left.at(at), right = r_.planned_right.at(at);
                if (!left || !right) continue;
                const auto half = [&](const RailLine& rail) { return rail.width_mm / 2 - (open ? rail.thickness_mm : 0); };
                bar(right->y_mm - left->y_mm + (open ? 1 : -1) * (half(r_.planned_left) + half(r_.planned_right)), 1,
                    fmt::format("to the {}: tape it there before it is sawn", open ? "rails' webs" : "rails' inner faces"));
            }
        }
    }
    static std::optional<StockForm> stockFormOf(SectionForm form) {
        switch (form) {
        case SectionForm::Box: return StockForm::Box;
        case SectionForm::Channel: return StockForm::Channel;
        case SectionForm::Tube: return StockForm::Tube;
        case SectionForm::Angle: return StockForm::Angle;
        case SectionForm::Flat: return StockForm::Flat;
        case SectionForm::Hat:
        case SectionForm::Nested:
        case SectionForm::Boxed:
        case SectionForm::BuiltUp: break;
        }
        return {};
    }
    void floors() {
        for (const WorkedEdge& e : workedWidth(b_, r_).edges) {
            if (!e.plan.missing.empty() || e.plan.outline.size() < 3) continue;
            SteelThing& t = thing("floor-edge:" + e.edge.name);
            t.flats.push_back(
                flatFrom(stretch::stripPattern(e.plan, e.edge.lap.value), e.edge.name + ": strip", e.edge.sheet.value));
            for (std::size_t k = 0; k < e.plan.outriggers.size(); ++k)
                t.bars.push_back(squareBar(fmt::format("{}: outrigger {}", e.edge.name, k + 1), StockForm::Box,
                                           e.edge.height.value, e.edge.width.value, e.edge.wall.value,
                                           e.plan.outriggers[k].long_mm, 1));
        }
    }
    void letIns() {
        for (const WorkedLetIn& l : workedLetIns(b_, r_)) {
            if (!l.plan.missing.empty()) continue;
            SteelThing& t = thing("let-in:" + l.row.name);
            t.bars.push_back(squareBar(l.row.name + ": rail", StockForm::Box, l.row.height.value, l.row.width.value,
                                       l.row.wall.value, l.plan.length.value, 1));
            for (const stretch::LetInEnd& e : l.plan.ends) {
                const std::string name = fmt::format("{}: inner piece {}", l.row.name, word(e.end));
                if (e.step_mm <= 0) {
                    t.bars.push_back(
                        squareBar(name, StockForm::Box, e.thin_high_mm, e.thin_wide_mm, e.wall_mm, 2 * e.engage_mm, 1));
                    continue;
                }
                const char* tight = e.into_rail ? "in the leg" : "in the rail";
                const char* roomy = e.into_rail ? "in the rail" : "in the leg";
                t.bars.push_back(squareBar(fmt::format("{}, {}", name, tight), StockForm::Box, e.thin_high_mm, e.thin_wide_mm,
                                           e.wall_mm, e.engage_mm, 1));
                t.bars.push_back(squareBar(fmt::format("{}, {}", name, roomy), StockForm::Box, e.thick_high_mm, e.thick_wide_mm,
                                           e.wall_mm, e.engage_mm, 1));
            }
            if (l.plan.foot_long_mm > 0)
                t.flats.push_back(
                    rectangle(l.row.name + ": foot", l.plan.foot_long_mm, l.plan.foot_wide_mm, l.plan.foot_thick_mm, 2));
        }
    }
    void grafts() {
        for (const WorkedGraft& g : workedGrafts(b_, r_, false)) {
            if (!g.waits.empty() || !g.plan.missing.empty()) continue;
            SteelThing& t = thing("graft:" + g.graft.name);
            if (g.plan.way == stretch::GraftWay::Sleeve)
                t.bars.push_back({g.graft.name + ": inner sleeve", StockForm::Box, 0, 0, 0, 2 * g.plan.overlap_mm, 2, "square", 0,
                                  "to fit the rails inside"});
            for (const stretch::TransitionPlate& p : g.plan.plates)
                t.flats.push_back(flatFrom(stretch::transitionPattern(p), g.graft.name + ": " + p.name, g.plan.plate_mm));
        }
    }
    void gearPlate() {
        const drive::GearPlatePlan& plate = *r_.gear_plate;
        if (plate.outline.empty()) return;
        make::FlatPiece flat;
        flat.name = "plate under " + plate.name;
        flat.thickness_mm = plate.thick_mm;
        flat.outline = plate.outline;
        for (const drive::GearPlateHole& h : plate.holes) flat.holes.push_back({{h.a_mm, h.b_mm}, plate.hole_mm, "bolt"});
        flat.mass_kg = plate.mass_kg;
        thing("steer-gear:" + plate.name).flats.push_back(std::move(flat));
    }

    const Build& b_;
    const Results& r_;
    std::vector<SteelThing> things_;
};

std::string cutWords(const make::FlatPiece& flat, double w, double h) {
    std::string words = fmt::format("{:.1f} × {:.1f}", w, h);
    if (!flat.bends.empty()) words += fmt::format(", {}", units::counted(flat.bends.size(), "a bend"));
    if (!flat.holes.empty()) words += fmt::format(", {}", units::counted(flat.holes.size(), "a hole"));
    if (!flat.windows.empty()) words += fmt::format(", {}", units::counted(flat.windows.size(), "a window"));
    return words;
}

} // namespace

make::FlatPiece flatFrom(const sheet::Drawing& pattern, std::string name, double thickness, int count) {
    make::FlatPiece flat;
    flat.name = std::move(name);
    flat.count = count;
    flat.thickness_mm = thickness;
    const auto at = [&](const sheet::P& p) { return geometry::Flat{p.x, pattern.height - p.y}; }; // y up, as it lies
    const auto line = [&](const sheet::Stroke& s) {
        geometry::Outline path;
        for (const sheet::P& p : s.path) path.push_back(at(p));
        if (geometry::areaOf(path) < 0) std::reverse(path.begin(), path.end());
        return path;
    };
    for (const sheet::Item& item : pattern.items) {
        if (const auto* s = std::get_if<sheet::Stroke>(&item.shape)) {
            if (item.tag == "outline")
                flat.outline = line(*s);
            else if (item.tag == "window")
                flat.windows.push_back(line(*s));
            else if (!s->path.empty())
                flat.bends.push_back({at(s->path.front()), at(s->path.back()), 0, 0, 0});
        } else if (const auto* c = std::get_if<sheet::Circle>(&item.shape)) {
            flat.holes.push_back({at(c->centre), 2 * c->radius, "hole"});
        }
    }
    flat.mass_kg = make::flatMass(flat);
    return flat;
}

std::vector<SteelThing> steelThings(const Build& b, const Results& r) { return SteelGather(b, r).all(); }

std::vector<FlatNeed> flatNeeds(const Build& b, const Results& r) {
    std::vector<FlatNeed> all;
    for (SteelThing& t : steelThings(b, r))
        for (make::FlatPiece& flat : t.flats)
            if (!flat.at_hand && geometry::isSimple(flat.outline)) all.push_back({flat.name, t.tag, std::move(flat)});
    return all;
}

std::vector<work::SteelNeed> steelNeeds(const Build& b, const Results& r) {
    std::vector<work::SteelNeed> needs;
    for (const SteelThing& t : steelThings(b, r)) {
        for (const SteelBar& bar : t.bars)
            if (bar.stock.empty())
                needs.push_back({bar.name, bar.form, bar.height_mm, bar.width_mm, bar.wall_mm, bar.length_mm, bar.count, bar.ends,
                                 bar.mass_kg, t.tag});
        for (const make::FlatPiece& flat : t.flats) { // by the rectangle that it is cut from
            if (flat.at_hand) continue;
            const auto [w, h] = make::flatSize(flat);
            needs.push_back({flat.name, StockForm::Plate, h, 0, flat.thickness_mm, w, flat.count,
                             flat.bends.empty() ? "" : units::counted(flat.bends.size(), "a bend"), flat.mass_kg, t.tag});
        }
    }
    return needs;
}

std::vector<CutRow> cutRows(const Build& b, const Results& r) {
    std::vector<CutRow> rows;
    const auto mass = [](int count, double kg) { return kg > 0 ? fmt::format("{:.3f}", count * kg) : std::string(); };
    const auto length = [](double mm) { return mm > 0 ? fmt::format("{:.1f}", mm) : std::string(); };
    for (const SteelThing& t : steelThings(b, r)) {
        for (const SteelBar& bar : t.bars)
            rows.push_back(
                {bar.count, bar.name,
                 bar.stock.empty() ? work::sectionWords(bar.form, bar.height_mm, bar.width_mm, bar.wall_mm) : bar.stock,
                 length(bar.length_mm), bar.length_mm, bar.ends, mass(bar.count, bar.mass_kg), t.tag});
        for (const make::FlatPiece& flat : t.flats) {
            if (flat.at_hand) continue; // nothing is cut for it
            const auto [w, h] = make::flatSize(flat);
            rows.push_back({flat.count, flat.name, fmt::format("plate {}", make::trimmed(flat.thickness_mm)), length(w), w,
                            cutWords(flat, w, h), mass(flat.count, flat.mass_kg), t.tag});
        }
        for (const SteelFixing& f : t.fixings)
            rows.push_back({f.count, f.name, f.stock, f.length_mm > 0 ? fmt::format("{:.0f}", f.length_mm) : "", f.length_mm,
                            f.ends, "", t.tag});
    }
    return rows;
}

} // namespace gorvet::analysis
