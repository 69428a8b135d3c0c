// Fixtures: towers from points, sheet, page, table of figures, card and JSON.
#include "analysis/fixtures.hpp"

#include "analysis/fixed_points.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"
#include "files/out_file.hpp"
#include "formats/csv.hpp"
#include "make/fixture_sheet.hpp"

#include <algorithm>
#include <cmath>
#include <map>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using make::FixtureIn;
using make::FixturePlan;
using sheet::Mark;

const char* const fixture_caution =
    "A frame is lifted by two, never over anybody; clamps are shut before it is cut, drawn or heated.";

namespace {

/// So far from a rail's face a point counts as marked on it.
constexpr double on_rail_mm = 15;
constexpr const char* rail_assumed = "the height of the rails";

class FixtureAsked {
public:
    FixtureAsked(const Build& b, const Results& r, const Fixture& f) : b_(b), r_(r), f_(f) {}

    FixtureIn ask() {
        in_.name = f_.name;
        in_.pitch_mm = f_.pitch.value;
        in_.along = static_cast<int>(f_.along);
        in_.across = static_cast<int>(f_.across);
        if (f_.high) in_.high_mm = f_.high->value;
        in_.attitude = f_.attitude;
        in_.tower_least_mm = f_.tower_least.value;
        in_.tower_step_mm = f_.tower_step.value;
        in_.tower_most_mm = f_.tower_most.value;
        in_.packer_mm = f_.packer.value;
        in_.reach_mm = f_.reach.value;
        in_.foot_mm = f_.foot.value;
        for (const auto& [d, what] : {std::pair{&f_.pitch, "its pitch"},
                                      {&f_.tower_least, "its shortest tower"},
                                      {&f_.tower_step, "the step of its towers"},
                                      {&f_.tower_most, "its tallest tower"},
                                      {&f_.packer, "its thinnest packer"},
                                      {&f_.reach, "the reach of its heads"},
                                      {&f_.foot, "the foot of its towers"}})
            if (d->provenance == Provenance::Assumed) in_.assumed.push_back(fmt::format("{}, {:g}", what, d->value));
        std::vector<const FixtureTower*> rows;
        for (const auto& [id, t] : b_.fixture_towers)
            if (t.fixture == f_.id) rows.push_back(&t);
        if (rows.empty()) {
            in_.missing.emplace_back("its towers: tower Bl");
            return std::move(in_);
        }
        const SubjectId subject = b_.points.at(rows.front()->point).subject;
        const bool car = subject == the_chassis;
        FixedPoints points(b_, r_.of(subject));
        std::vector<int> at;
        for (const FixtureTower* row : rows) at.push_back(points.take(row->point));
        for (const FixtureTower* row : rows) // what is drawn is drawn to where its twin is
            if (const Point* twin = bySelf(*row) ? pointNamed(b_, subject, twinName(nameOf(b_, row->point))) : nullptr)
                twins_[row->point] = static_cast<std::size_t>(points.take(twin->id));
        if (const std::string lost = points.lost(); !lost.empty()) {
            in_.missing.push_back(lost);
            return std::move(in_);
        }
        in_.places = points.places();
        for (const std::string& name : points.assumed()) in_.assumed.push_back("the place of " + name);
        for (std::size_t k = 0; k < rows.size(); ++k) {
            make::FixtureTower t;
            t.name = nameOf(b_, rows[k]->point);
            t.does = rows[k]->does;
            t.at = static_cast<std::size_t>(at[k]);
            t.pull = rows[k]->pull;
            const Vec3 place = in_.places.at[t.at];
            if (car && r_.planned_chassis.changes()) t.planned = r_.planned_chassis.map(place);
            t.below = below(*rows[k], place, t.name, car);
            in_.towers.push_back(std::move(t));
        }
        if (auto lost = drawn(rows, subject); !lost.empty()) {
            in_.missing.push_back(std::move(lost));
            in_.towers.clear();
            return std::move(in_);
        }
        if (car)
            for (const make::ServiceBody& body : r_.service.input().bodies)
                if (body.closed && !body.name.starts_with("tyre ") && body.mesh) in_.around.push_back(body);
        if (f_.attitude != Attitude::RightWayUp)
            in_.not_looked_at.emplace_back("how it is turned over, and what is taken off before");
        return std::move(in_);
    }

private:
    /// It is drawn, and nobody said by how much.
    static bool bySelf(const FixtureTower& t) { return t.does == TowerDoes::Pull && geometry::length(t.pull) <= 0; }
    /// Twins of what is drawn straight, and the pairs of towers that hold. What is missing for it; usually nothing.
    std::string drawn(const std::vector<const FixtureTower*>& rows, SubjectId subject) {
        const auto towerOf = [&](PointId point) -> const FixtureTower* {
            const auto found =
                std::find_if(rows.begin(), rows.end(), [&](const FixtureTower* row) { return row->point == point; });
            return found == rows.end() ? nullptr : *found;
        };
        if (std::none_of(rows.begin(), rows.end(), [](const FixtureTower* row) { return bySelf(*row); })) return {};
        for (std::size_t k = 0; k < rows.size(); ++k) {
            const std::string name = nameOf(b_, rows[k]->point);
            const Point* twin = pointNamed(b_, subject, twinName(name));
            const FixtureTower* other = twin ? towerOf(twin->id) : nullptr;
            if (!bySelf(*rows[k])) {
                if (other && sideOf(name) == Side::Left && rows[k]->does != TowerDoes::Pull && other->does != TowerDoes::Pull)
                    in_.held.emplace_back(
                        in_.towers[k].at,
                        in_.towers[static_cast<std::size_t>(std::find(rows.begin(), rows.end(), other) - rows.begin())].at);
                continue;
            }
            if (!twin) return fmt::format("the twin of {}, or by how much it is drawn: tower {} pull by 0 0 3", name, name);
            if (other && other->does == TowerDoes::Pull)
                return fmt::format("by how much {} is drawn: its twin {} is drawn, too", name, twin->name);
            in_.towers[k].twin = twins_.at(rows[k]->point);
        }
        constexpr std::size_t least_pairs = 2;
        if (in_.held.size() < least_pairs)
            return "two pairs of towers that are not drawn, left and right: what is drawn is drawn straight by them";
        in_.assumed.emplace_back("that the frame was made alike left and right, and marked so");
        return {};
    }
    /// Its head under its point, as it lies on the table: under the rail, where the point is marked on one.
    Figure below(const FixtureTower& t, const Vec3& place, const std::string& name, bool car) {
        if (t.below) return figureOf(*t.below);
        for (const RailLine* rail : {&r_.rail_left, &r_.rail_right}) {
            const auto here = car ? rail->at(place.x_mm) : std::nullopt;
            if (!here || std::abs(place.y_mm - here->y_mm) > rail->width_mm / 2 + on_rail_mm) continue;
            if (place.z_mm > here->top_mm + on_rail_mm || place.z_mm < here->bottom_mm - on_rail_mm) continue;
            // of one that is marked above the height of the rail is in it
            const Provenance by = b_.rail.height.provenance == Provenance::Assumed ? Provenance::Assumed : Provenance::Derived;
            if (by == Provenance::Assumed && std::find(in_.assumed.begin(), in_.assumed.end(), rail_assumed) == in_.assumed.end())
                in_.assumed.emplace_back(rail_assumed);
            if (f_.attitude == Attitude::RightWayUp) return {place.z_mm - here->bottom_mm, 0, by};
            if (f_.attitude == Attitude::Inverted) return {here->top_mm - place.z_mm, 0, by};
        }
        in_.assumed.push_back(fmt::format("the head right under {}", name));
        return {0, 0, Provenance::Assumed};
    }

    const Build& b_;
    const Results& r_;
    const Fixture& f_;
    FixtureIn in_;
    std::map<PointId, std::size_t> twins_;
};

make::FixtureView fixtureView(const Build& b, const Results& r, const Node<FixtureIn, FixturePlan>& node) {
    make::FixtureView v{&node.input(), &*node, {}, b.settings.length_step};
    if (!node.input().around.empty()) v.rails = {r.rail_left, r.rail_right};
    return v;
}

std::string stateCsv(const make::TowerState& s) {
    std::string packers;
    for (const double p : s.packers_mm) packers += fmt::format("{}{:g}", packers.empty() ? "" : " + ", p);
    return fmt::format("{},{:.2f},{:.2f},{:.2f},{:.2f},{:g},{},{:.2f}", make::holeName(s.column, s.row), s.off_along_mm,
                       s.off_across_mm, s.head_mm.value, s.head_mm.u95, s.tower_mm, packers, s.over_line_mm);
}

Json towerStateJson(const make::TowerState& s) {
    Json j = {{"hole", make::holeName(s.column, s.row)},
              {"off_along_mm", number(s.off_along_mm)},
              {"off_across_mm", number(s.off_across_mm)},
              {"tower_mm", number(s.tower_mm)},
              {"packers_mm", Json::array()},
              {"left_mm", number(s.left_mm)},
              {"over_sight_line_mm", number(s.over_line_mm)}};
    put(j, s.head_mm, "_mm", "head");
    for (const double p : s.packers_mm) j["packers_mm"].push_back(number(p));
    return j;
}

} // namespace

std::vector<Node<FixtureIn, FixturePlan>> fixturesOf(const Build& b, const Results& r, const Results* previous) {
    using Made = Node<FixtureIn, FixturePlan>;
    std::vector<Made> all;
    for (const auto& [id, f] : b.fixtures) {
        const Made* before = nullptr;
        if (previous)
            for (const Made& node : previous->fixtures)
                if (node.input().name == f.name) before = &node;
        all.push_back(Made::of(FixtureAsked(b, r, f).ask(), before, make::fixturePlan));
    }
    return all;
}

sheet::Drawing fixturesDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                               const sheet::Format& f) {
    sheet::Drawing d{width, height, {}, {}};
    double y = 0;
    for (const auto& node : r.fixtures) {
        if (r.fixtures.size() > 1) {
            y += f.lead();
            d.add(sheet::Text{{0, y},
                              node.input().name,
                              f.lead(),
                              sheet::Ink::Ink,
                              sheet::Anchor::Left,
                              sheet::Level::Base,
                              sheet::Face::Bold},
                  "fixture:" + node.input().name);
            y += f.px(10);
        }
        const sheet::Drawing one = make::fixtureSheet(fixtureView(b, r, node), width, 0, f);
        d.place(one, {0, y});
        y += one.height + f.px(16);
    }
    d.height = std::max(height, y);
    return d;
}

Headline fixturesHeadline(const Build&, const Results& r, SubjectId) {
    if (r.fixtures.empty())
        return {"No fixture is said yet.",
                "Say the table, then a tower for each point that is held: fixture table1 pitch 50 holes 60 30, tower Bl clamp."};
    std::size_t towers = 0, moved = 0, fails = 0;
    for (const auto& node : r.fixtures) {
        towers += node->towers.size();
        fails += node->verdict == PlanVerdict::Fails;
        for (const make::TowerPlan& t : node->towers) moved += t.then.has_value();
    }
    Headline h;
    if (!towers)
        h.sentence = fmt::format("{} waits for {}.", r.fixtures.front().input().name, r.fixtures.front().input().missing.front());
    else if (fails)
        h.sentence = fmt::format("{}: it does not hold the frame as planned.", units::counted(towers, "a tower"));
    else if (moved)
        h.sentence = fmt::format("{}, {} of them moved by the plan.", units::counted(towers, "a tower"), moved);
    else
        h.sentence = fmt::format("{}, the worst head {:.1f} mm off its hole.", units::counted(towers, "a tower"),
                                 r.fixtures.front()->worst_off_mm);
    h.below = fixture_caution;
    return h;
}

std::vector<sheet::Drawing> fixturePages(const Build& b, const Results& r) {
    std::vector<sheet::Drawing> pages;
    for (const auto& node : r.fixtures) {
        if (!node->made()) continue;
        const make::FixtureView v = fixtureView(b, r, node);
        for (sheet::Drawing& page :
             longPages(titled(b, r, "Make: fixture " + node.input().name), {fixture_caution, local_rules}, node->towers.size(),
                       [&](std::size_t first, std::size_t until, double w, double h, const sheet::Format&f) {
                           return make::fixtureSheet(v, w, h, f, first, until);
                       }))
            pages.push_back(std::move(page));
    }
    return pages;
}

void keepFixtureFiles(const Build&, const Results& r, FileKeeper& out) {
    for (const auto& node : r.fixtures) {
        if (!node->made()) continue;
        out.keep(fmt::format("fixture-{}.csv", node.input().name), [&](const auto& to) {
            std::string csv =
                "point,does,when,hole,off_along_mm,off_across_mm,head_mm,u95_mm,tower_mm,packers_mm,over_sight_line_mm\n";
            for (const make::TowerPlan& t : node->towers) {
                csv += fmt::format("{},{},now,{}\n", formats::csvField(t.name), word(t.does), stateCsv(t.now));
                if (t.then) csv += fmt::format("{},{},planned,{}\n", formats::csvField(t.name), word(t.does), stateCsv(*t.then));
            }
            return files::putText(to, files::Kind::Csv, csv);
        });
    }
}

namespace {

class FixtureCards : CardMaker {
public:
    using CardMaker::CardMaker;

    std::optional<Card> fixture(const std::string& name) const {
        const Fixture* f = fixtureNamed(b_, name);
        if (!f) return std::nullopt;
        Card c;
        c.title = "fixture " + name;
        c.journal_table = "fixture";
        c.journal_id = f->id.value;
        const std::string line = fmt::format("fixture {} ", name);
        for (const auto& node : r_.fixtures) {
            if (node.input().name != name) continue;
            c.word = verdictWord(node->verdict);
            c.severity = sheet::severityOf(node->verdict);
            if (!node.input().missing.empty())
                c.sentences.push_back(fmt::format("It waits for {}.", node.input().missing.front()));
            if (node->made()) {
                c.rows.push_back({"towers", fmt::format("{}", node->towers.size()), Mark::None, false});
                c.rows.push_back({"the worst head from its hole", len(node->worst_off_mm), Mark::Derived, false});
                c.rows.push_back({"the datum over the table", len(node->high_mm),
                                  f->high ? markOf(f->high->provenance) : Mark::Derived, false});
            }
            if (!node->remarks.empty())
                c.sentences.push_back(node->remarks.front().sentence + " " + node->remarks.front().remedy);
        }
        if (c.sentences.size() < 2) c.sentences.push_back(fmt::format("Caution: {}", fixture_caution));
        c.actions.push_back({"pitch", line + "pitch ", f->pitch.typed, true});
        c.actions.push_back({"datum over it", line + "high ", f->high ? f->high->typed : "", true});
        c.actions.push_back({"reach of a head", line + "reach ", f->reach.typed, true});
        c.actions.push_back(f->attitude == Attitude::Inverted ? CardAction{"right way up", line + "right-way-up", "", false}
                                                              : CardAction{"turn it over", line + "inverted", "", false});
        c.actions.push_back({"remove", "remove fixture " + name, "", false});
        return c;
    }
};

} // namespace

std::optional<Card> fixtureCard(const Build& b, const Results& r, const std::string& name) {
    return FixtureCards(b, r, the_chassis).fixture(name);
}

std::string makeFixtureJson(const Build&, const Results& r) {
    Json j = {{"fixtures", Json::array()}, {"cautions", {fixture_caution, local_rules}}};
    for (const auto& node : r.fixtures) {
        const FixturePlan& p = *node;
        Json one = {{"name", node.input().name},
                    {"verdict", verdictWord(p.verdict)},
                    {"missing", node.input().missing},
                    {"assumed", node.input().assumed},
                    {"not_looked_at", p.not_looked_at},
                    {"searched", p.searched},
                    {"datum_over_table_mm", number(p.high_mm)},
                    {"first_holes_station_mm", number(p.station_mm)},
                    {"first_holes_to_middle_mm", number(p.middle_mm)},
                    {"sight_line_mm", number(p.line_mm)},
                    {"worst_off_mm", number(p.worst_off_mm)},
                    {"holes_along", p.columns},
                    {"holes_across", p.rows},
                    {"towers", Json::array()},
                    {"tapes", Json::array()}};
        for (const make::TowerPlan& t : p.towers) {
            Json of = {{"point", t.name}, {"does", word(t.does)}, {"now", towerStateJson(t.now)}};
            if (t.then) of["planned"] = towerStateJson(*t.then);
            if (!t.pull.empty()) of["drawn"] = t.pull;
            if (t.straight) {
                static constexpr const char* ways[] = {"rearwards", "to_the_right", "up"};
                for (std::size_t axis = 0; axis < 3; ++axis) put(of, (*t.straight)[axis], "_mm", ways[axis]);
            }
            one["towers"].push_back(std::move(of));
        }
        for (const Measure& m : p.across)
            one["tapes"].push_back({{"between", m.name}, {"mm", number(m.mm)}, {"u95_mm", number(m.u95_mm)}});
        one["remarks"] = remarksJson(p.remarks);
        j["fixtures"].push_back(std::move(one));
    }
    return text(j);
}

} // namespace gorvet::analysis
