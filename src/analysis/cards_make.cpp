#include "analysis/bench_parts.hpp"
#include "analysis/card_maker.hpp"
#include "analysis/fixtures.hpp"
#include "analysis/parts.hpp"
#include "units/shown.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;
using sheet::Severity;

namespace {

class MakeCards : CardMaker {
public:
    using CardMaker::CardMaker;

    std::optional<Card> make(const Tag& tag) {
        if (tag.kind == "mount") return mount(MountId{tag.id});
        if (tag.kind == "crossmember") return crossmember();
        if (tag.kind == "part") return partCard(b_, r_, tag.rest);
        if (tag.kind == "fixture") return fixtureCard(b_, r_, tag.rest);
        return std::nullopt;
    }

private:
    std::optional<Card> mount(MountId id) {
        const auto found = b_.mounts.find(id);
        if (found == b_.mounts.end()) return std::nullopt;
        Card c;
        const std::string name = nameOf(b_, found->second.body_point);
        c.title = "mount " + name;
        const auto index = std::find(r_.mount_ids.begin(), r_.mount_ids.end(), id);
        if (index != r_.mount_ids.end()) {
            const auto& m = r_.mounts[static_cast<size_t>(index - r_.mount_ids.begin())];
            c.word = verdictWord(m.verdict);
            c.severity = severityOf(m.verdict);
            if (m.on_rail) {
                c.rows.push_back({"gap", units::shown(m.gap_mm, [this](double mm) { return small(mm); }), Mark::Derived, true});
                c.rows.push_back({"washer", small(m.washer_mm.value), markOf(b_.mount_design.washer.provenance), false});
                c.rows.push_back(
                    {"biscuit, squashed", small(m.biscuit_mm.value), markOf(b_.mount_design.biscuit_free.provenance), false});
                c.rows.push_back({"standoff", small(m.standoff_mm), Mark::Derived, false});
                std::string shims;
                for (const double s : m.shims_mm) shims += fmt::format("{}{:g}", shims.empty() ? "" : " + ", s);
                c.rows.push_back({"shims", shims.empty() ? "none" : shims + " mm", Mark::Derived, false});
                c.rows.push_back({"bolt",
                                  m.bolt_length_mm ? fmt::format("M{:g} × {:g}", m.bolt_mm, *m.bolt_length_mm) : "none fits",
                                  Mark::Derived, false});
                c.rows.push_back({"into", m.nut, Mark::Derived, true});
            }
            if (!m.sentence.empty()) c.sentences.push_back(m.sentence + " " + m.remedy);
        } else {
            c.word = "Marginal";
            c.severity = Severity::Warn;
            c.sentences.emplace_back("It waits until the body has a place.");
        }
        c.actions.push_back({"biscuit", "biscuit ", current(b_.mount_design.biscuit_free), true});
        c.actions.push_back({"rail station", "mount " + name + " at ",
                             found->second.rail_station ? current(*found->second.rail_station) : "", true});
        c.actions.push_back({"remove", "remove mount " + name, "", false});
        c.journal_table = "mount";
        c.journal_id = id.value;
        return c;
    }

    std::optional<Card> crossmember() {
        if (!b_.crossmember) return std::nullopt;
        const auto& d = *b_.crossmember;
        const auto& p = *r_.crossmember;
        Card c;
        c.title = "crossmember";
        c.word = verdictWord(p.verdict);
        c.severity = severityOf(p.verdict);
        if (p.possible) {
            if (p.dropped) {
                c.rows.push_back({"middle", len(p.dropped->middle_mm) + " long", Mark::Derived, true});
                c.rows.push_back({"dropped by", len(p.dropped->drop_mm), Mark::Derived, false});
                c.rows.push_back({"legs",
                                  units::formatAngle(p.dropped->left.angle_rad, 1) + " and " +
                                      units::formatAngle(p.dropped->right.angle_rad, 1),
                                  Mark::Derived, false});
            } else {
                c.rows.push_back({"bridge", len(p.box_length_mm) + " long", Mark::Derived, true});
            }
            if (p.pan_over) c.rows.push_back({"clear of the pan", small(p.pan_gap_mm), Mark::Derived, false});
            c.rows.push_back({"free for the bolts", len(p.bolt_free_mm), Mark::Derived, false});
            c.rows.push_back({"between rails", len(p.between_rails_mm), Mark::Derived, false});
            c.rows.push_back({"bolts",
                              p.bolt_length_mm ? fmt::format("{} × M{:g} × {:g}", p.left.holes.size() + p.right.holes.size(),
                                                             p.bolt_mm, *p.bolt_length_mm)
                                               : "none fits",
                              Mark::Derived, false});
            if (p.used)
                c.rows.push_back({"of what it bears, its load takes", fmt::format("{:.0f} % at {}", 100 * *p.used, p.used_at),
                                  Mark::Derived, false});
            c.rows.push_back({"mass", units::formatMass(p.mass_kg), Mark::Derived, false});
        } else {
            c.sentences.push_back("It waits for " + p.waiting_for + ".");
        }
        c.rows.push_back({"isolator", len(d.isolator.value), markOf(d.isolator.provenance), false});
        c.rows.push_back({"box", fmt::format("{:g} × {:g} × {:g}", d.box_width.value, d.box_height.value, d.box_wall.value),
                          markOf(d.box_height.provenance), false});
        c.actions.push_back(d.form == CrossmemberForm::Dropped
                                ? CardAction{"straight form", "crossmember form straight", "", false}
                                : CardAction{"dropped form", "crossmember form dropped", "", false});
        c.actions.push_back(d.fixing == Fixing::Captive ? CardAction{"bolts through", "crossmember fixing through", "", false}
                                                        : CardAction{"captive nuts", "crossmember fixing captive", "", false});
        c.actions.push_back({"load", "crossmember load ", d.load ? fmt::format("{:g}", d.load->value) : std::string(), true});
        c.actions.push_back({"isolator", "isolator ", current(d.isolator), true});
        c.actions.push_back(
            {"box", "box ", fmt::format("{:g} x {:g} x {:g}", d.box_width.value, d.box_height.value, d.box_wall.value), true});
        c.actions.push_back({"flange", "flange ", current(d.flange), true});
        return c;
    }
};

} // namespace

std::optional<Card> makeCard(const Build& b, const Results& r, SubjectId subject, const Tag& tag) {
    return MakeCards(b, r, subject).make(tag);
}

} // namespace gorvet::analysis
