// Cards of the drive line: its ends, its shafts, levels, what the axles are geared to.
#include "analysis/axle_setup.hpp"
#include "analysis/card_maker.hpp"
#include "analysis/carried.hpp"
#include "analysis/column.hpp"
#include "analysis/drive.hpp"
#include "analysis/steering.hpp"
#include "analysis/travel.hpp"
#include "analysis/wheels.hpp"

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

namespace {

class DriveCards : CardMaker {
public:
    using CardMaker::CardMaker;

    std::optional<Card> end(const std::string& name) const {
        const DriveEnd* e = driveEndNamed(b_, name);
        if (!e) return std::nullopt;
        Card c;
        c.title = fmt::format("{} {}", word(e->kind), name);
        if (e->point)
            c.rows.push_back({"at", nameOf(b_, e->point), Mark::None, false});
        else
            c.rows.push_back({"at",
                              fmt::format("{}, {} right, {} up", len(e->station->value), len(e->right ? e->right->value : 0),
                                          len(e->up->value)),
                              markOf(e->station->provenance), false});
        if (e->fore) c.rows.push_back({"its line", nameOf(b_, e->fore) + " to " + nameOf(b_, e->aft), Mark::None, false});
        if (const auto read = levelsRead(b_, r_).of(e->id))
            c.rows.push_back({"slope, by levels", fmt::format("{} ± {}", slopeWords(read->value), units::formatAngle(read->u95)),
                              markOf(read->provenance), true});
        else if (e->slope)
            c.rows.push_back({"slope", slopeWords(e->slope->value), markOf(e->slope->provenance), true});
        if (e->swing)
            c.rows.push_back(
                {"to the right at the back", units::formatAngle(e->swing->value), markOf(e->swing->provenance), false});
        if (e->turned.value != 0) c.rows.push_back({"planned: turned", slopeWords(e->turned.value), Mark::None, true});
        for (const auto& [what, d] :
             {std::pair{"planned: up", &e->raised}, std::pair{"planned: right", &e->aside}, std::pair{"planned: back", &e->back}})
            if (d->value != 0) c.rows.push_back({what, len(d->value), Mark::None, true});
        const std::string line = fmt::format("{} {} ", word(e->kind), name);
        if (e->kind != DriveEndKind::Bearing) {
            c.actions.push_back({"its slope", line + "slope ", "", true});
            c.actions.push_back({"a level on it", "level-on " + name + " ", "", true});
            c.actions.push_back({"turn it", line + "turn ", "", true});
        }
        c.actions.push_back({"raise it", line + "raise ", "", true});
        c.actions.push_back({"move it aside", line + "aside ", "", true});
        c.actions.push_back({"remove", fmt::format("remove {} {}", word(e->kind), name), "", false});
        c.journal_table = "drive-end";
        c.journal_id = e->id.value;
        return c;
    }

    std::optional<Card> shaft(const std::string& name) const {
        const Shaft* s = shaftNamed(b_, name);
        if (!s) return std::nullopt;
        Card c;
        c.title = "shaft " + name;
        c.rows.push_back({"from", b_.drive_ends.at(s->from).name + " to " + b_.drive_ends.at(s->to).name, Mark::None, false});
        c.rows.push_back({"joints", fmt::format("{}, {}", word(s->front), word(s->rear)), Mark::None, false});
        for (const drive::ChainPlan& chain : r_.drive->chains)
            for (const drive::ShaftPlan& p : chain.shafts)
                if (p.name == name) planned(c, chain, p);
        c.sentences.push_back(fmt::format("Caution: {}", shaft_caution));
        const std::string line = "shaft " + name + " ";
        c.actions.push_back({"its tube", line + "tube ", "", true});
        c.actions.push_back({"yokes", line + "phase ", "", true});
        c.actions.push_back({"still goes in", line + "in ", "", true});
        c.actions.push_back({"still goes out", line + "out ", "", true});
        c.actions.push_back({"joints bend at most", line + "limit ", "", true});
        c.actions.push_back({"remove", "remove shaft " + name, "", false});
        c.journal_table = "shaft";
        c.journal_id = s->id.value;
        return c;
    }

    std::optional<Card> chain(const std::string& name) const {
        for (const drive::ChainPlan& chain : r_.drive->chains) {
            if (chain.name != name) continue;
            Card c;
            c.title = name;
            c.word = verdictWord(chain.verdict);
            c.severity = sheet::severityOf(chain.verdict);
            c.rows.push_back({"shakes the axle", fmt::format("{:.0f} of {:.0f}", chain.torsional, drive::most_torsional),
                              Mark::Derived, true});
            c.rows.push_back({"shakes the shaft", fmt::format("{:.0f} of {:.0f}", chain.inertial, drive::most_inertial),
                              Mark::Derived, false});
            if (!chain.remarks.empty())
                c.sentences.push_back(chain.remarks.front().sentence + " " + chain.remarks.front().remedy);
            c.sentences.push_back(fmt::format("Caution: {}", shaft_caution));
            for (const drive::Remedy& remedy : chain.remedies)
                if (remedy.line.find(';') == std::string::npos) c.actions.push_back({remedy.words, remedy.line, "", false});
            return c;
        }
        return std::nullopt;
    }

    std::optional<Card> level(std::uint32_t id) const {
        const auto row = b_.level_readings.find(LevelReadingId{id});
        if (row == b_.level_readings.end()) return std::nullopt;
        const LevelReading& l = row->second;
        const std::string on = l.on == LevelOn::Frame  ? "frame"
                               : l.on == LevelOn::Unit ? b_.drive_ends.at(l.end).name
                                                       : b_.shafts.at(l.shaft).name;
        Card c;
        c.title = "level on " + on;
        c.rows.push_back({"it showed", slopeWords(l.slope.value), markOf(l.slope.provenance), true});
        c.actions.push_back({"read it again", "level-on " + on + " ", "", true});
        c.actions.push_back({"forget all on it", "remove level-on " + on, "", false});
        c.journal_table = "level-reading";
        c.journal_id = id;
        return c;
    }

    std::optional<Card> ratio(const std::string& axle) const {
        for (const WorkedRatio& w : workedRatios(b_)) {
            if (word(w.axle) != axle) continue;
            Card c;
            c.title = "the " + axle;
            if (w.counted)
                c.rows.push_back({"counted", fmt::format("{:.3f} ± {:.3f}", w.counted->value, w.counted->u95),
                                  markOf(w.counted->provenance), true});
            if (w.said) c.rows.push_back({"said", fmt::format("{:g}", w.said->value), markOf(w.said->provenance), false});
            for (std::size_t k = 0; k < w.pairs.size() && k < 6; ++k)
                c.rows.push_back({"teeth that fit",
                                  fmt::format("{} : {}, {:.3f}", w.pairs[k].crown, w.pairs[k].pinion, w.pairs[k].ratio()),
                                  Mark::Derived, false});
            c.sentences.push_back("Count before a gear set is ordered; ten turns of the wheel tell more than one.");
            c.actions.push_back({"count turns", "turns " + axle + " shaft ", "", true});
            c.actions.push_back({"forget the counts", "remove turns " + axle, "", false});
            return c;
        }
        return std::nullopt;
    }

private:
    void planned(Card& c, const drive::ChainPlan& chain, const drive::ShaftPlan& p) const {
        c.word = verdictWord(chain.verdict);
        c.severity = sheet::severityOf(chain.verdict);
        c.rows.push_back(
            {"joint to joint", fmt::format("{} ± {:.1f}", len(p.length_mm.value), p.length_mm.u95), Mark::Derived, true});
        c.rows.push_back({"shortest", fmt::format("{}, {}", len(p.shortest_mm.value), p.shortest_at), Mark::Derived, false});
        c.rows.push_back({"longest", fmt::format("{}, {}", len(p.longest_mm.value), p.longest_at), Mark::Derived, false});
        if (p.critical_rpm) c.rows.push_back({"it whips at", fmt::format("{:.0f} rpm", *p.critical_rpm), Mark::Derived, false});
    }
};

} // namespace

std::optional<Card> driveCard(const Build& b, const Results& r, SubjectId subject, const Tag& tag) {
    const DriveCards cards(b, r, subject);
    if (tag.kind == "end") return cards.end(tag.rest);
    if (tag.kind == "shaft") return cards.shaft(tag.rest);
    if (tag.kind == "chain") return cards.chain(tag.rest);
    if (tag.kind == "link") return linkCard(b, r, tag.rest);
    if (tag.kind == "travel") return travelCard(b, r, tag.rest);
    if (tag.kind == "level") return cards.level(tag.id);
    if (tag.kind == "ratio") return cards.ratio(tag.rest);
    if (tag.kind == "steering") return steeringCard(b, r);
    if (tag.kind == "axle-seat" || tag.kind == "bracket") return axleSetupCard(b, r, tag);
    if (tag.kind == "column" || tag.kind == "steer-gear" || tag.kind == "run") return columnCard(b, r, tag);
    for (const char* kind : {"weight", "spring", "link-holes", "brake", "pedal"})
        if (tag.kind == kind) return carriedCard(b, r, tag);
    return wheelCard(b, r, tag);
}

} // namespace gorvet::analysis
