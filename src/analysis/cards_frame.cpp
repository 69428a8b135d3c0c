// Cards of the frame as it carries: a member, a load, a case, a way to close its rails.
#include "analysis/bench_parts.hpp"
#include "analysis/card_maker.hpp"
#include "analysis/frame_boxing.hpp"
#include "analysis/scans.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

namespace {

class FrameCards : CardMaker {
public:
    using CardMaker::CardMaker;

    std::optional<Card> make(const Tag& tag) {
        if (tag.kind == "member") return member(tag.rest);
        if (tag.kind == "load") return load(tag.rest);
        if (tag.kind == "case") return loadCase(tag.rest);
        if (tag.kind == "boxing") return boxing(tag.rest);
        if (tag.kind == "frame") return facts();
        return std::nullopt;
    }

private:
    const frame::Outcome* shown() const {
        const FrameFound& f = *r_.scans->frame;
        return f.planned ? &*f.planned : f.now ? &*f.now : nullptr;
    }

    std::optional<Card> member(const std::string& name) {
        Card c;
        c.title = name;
        if (const frame::Outcome* o = shown())
            for (const frame::OfLine& l : o->lines) {
                if (l.name != name || l.places.empty()) continue;
                const auto worst =
                    std::max_element(l.places.begin(), l.places.end(), [](const frame::AtPlace& a, const frame::AtPlace& p) {
                        return a.stress_mpa * p.yield_mpa < p.stress_mpa * a.yield_mpa;
                    });
                c.rows.push_back({"bears", fmt::format("{:.0f} MPa", worst->stress_mpa), Mark::Derived, true});
                if (worst->worst_case < o->cases.size())
                    c.rows.push_back({"in the case",
                                      fmt::format("{} at {}", o->cases[worst->worst_case].asked.name, len(worst->at.x_mm)),
                                      Mark::None, false});
                c.rows.push_back({"margin", fmt::format("{:.1f} ×", worst->margin()), Mark::Derived, false});
                double works = 0;
                for (const frame::AtPlace& p : l.places)
                    if (p.weld) works = std::max(works, p.range_mpa);
                c.rows.push_back({"works at joints", fmt::format("{:.0f} MPa over ±1 g", works), Mark::Derived, false});
            }
        const Member* m = memberNamed(b_, name);
        if (!m) {
            if (c.rows.empty()) return std::nullopt;
            return c;
        }
        c.rows.push_back({"what", fmt::format("{}, {}", word(m->kind), word(m->joint)), Mark::None, false});
        std::string section(word(m->form));
        for (const build::Dimension* d : {&m->height, &m->width, &m->wall})
            if (d->value > 0) section += fmt::format(" {:g}", d->value);
        c.rows.push_back({"section", section, markOf(m->wall.provenance), false});
        if (m->station)
            c.rows.push_back({m->until ? "from" : "at", len(m->station->value), markOf(m->station->provenance), false});
        if (m->until) c.rows.push_back({"to", len(m->until->value), markOf(m->until->provenance), false});
        if (m->state != MemberState::There)
            c.sentences.emplace_back(m->state == MemberState::Planned ? "It is planned." : "It comes out.");
        if (!m->note.empty()) c.sentences.push_back(m->note);
        const std::string line = "member " + name + " ";
        for (const auto& [state, label] :
             {std::pair{MemberState::There, "it is there"}, std::pair{MemberState::Planned, "planned"},
              std::pair{MemberState::ComesOut, "it comes out"}})
            if (m->state != state) c.actions.push_back({label, line + std::string(word(state)), "", false});
        c.actions.push_back({"another section", line, "", true});
        c.actions.push_back({"remove", "remove " + line.substr(0, line.size() - 1), "", false});
        c.journal_table = "member";
        c.journal_id = m->id.value;
        return c;
    }

    std::optional<Card> load(const std::string& name) {
        const Carried* l = carriedNamed(b_, name);
        if (!l) return std::nullopt;
        Card c;
        c.title = name;
        c.rows.push_back({"mass", fmt::format("{:g} kg", l->mass.value), markOf(l->mass.provenance), true});
        c.rows.push_back({"station", len(l->at.x_mm), Mark::None, false});
        c.rows.push_back({"offset, height", len(l->at.y_mm) + ", " + len(l->at.z_mm), Mark::None, false});
        c.rows.push_back({"hangs over", len(l->over.value), Mark::None, false});
        if (!l->source.empty()) c.rows.push_back({"source", l->source, Mark::None, false});
        c.actions.push_back({"another mass", "load " + name + " ", l->mass.typed, true});
        c.actions.push_back({"move it to", "load " + name + " at ", "", true});
        c.actions.push_back({"remove", "remove load " + name, "", false});
        c.journal_table = "carried";
        c.journal_id = l->id.value;
        return c;
    }

    std::optional<Card> loadCase(const std::string& name) {
        const frame::Outcome* o = shown();
        if (!o) return std::nullopt;
        constexpr std::array<const char*, frame::wheels> wheels{"front left", "front right", "rear left", "rear right"};
        for (const frame::OfCase& k : o->cases) {
            if (k.asked.name != name) continue;
            Card c;
            c.title = "case " + name;
            if (k.tips) {
                c.sentences.emplace_back("The car would tip onto that wheel: it can't be in the air.");
            } else {
                const auto v = verdictOf(r_.scans->frame.input(), k);
                c.word = verdictWord(v);
                c.severity = sheet::severityOf(v);
                c.rows.push_back({"bears", fmt::format("{:.0f} MPa", k.stress_mpa), Mark::Derived, true});
                c.rows.push_back({"where", fmt::format("{} at {}", k.line, len(k.at.x_mm)), Mark::None, false});
                c.rows.push_back({"margin", fmt::format("{:.2f} ×", k.margin), Mark::Derived, false});
                for (std::size_t w = 0; w < frame::wheels; ++w)
                    c.rows.push_back(
                        {std::string("spring ") + wheels[w], fmt::format("{:.0f} N", k.carry_n[w]), Mark::Derived, false});
            }
            c.actions.push_back({"load it otherwise", "case " + name + " ", "", true});
            c.actions.push_back({"leave it out", "case " + name + " off", "", false});
            return c;
        }
        return std::nullopt;
    }

    std::optional<Card> boxing(const std::string& name) {
        for (const BoxingChoice& k : r_.scans->frame->boxing) {
            if (k.name != name || k.kg <= 0) continue;
            Card c;
            c.title = name;
            c.rows.push_back({"in twist", fmt::format("{:.0f} to {:.0f} N·m/deg", k.twist.free_nm_deg, k.twist.held_nm_deg),
                              Mark::Derived, true});
            c.rows.push_back({"steel", fmt::format("{:.1f} kg", k.kg), Mark::Derived, false});
            c.rows.push_back({"seam", fmt::format("{:.1f} m", k.seam_m), Mark::Derived, false});
            c.rows.push_back({"hours", fmt::format("{:.0f}", k.hours), Mark::Assumed, false});
            const auto& where = k.plates.empty() ? k.ribs : k.plates;
            const auto lines = boxingLines(b_, r_, k);
            for (std::size_t i = 0; i < lines.size() && i < where.size(); ++i)
                c.actions.push_back({fmt::format("plan {:.0f} to {:.0f}", where[i].first, where[i].second), lines[i], "", false});
            if (k.members) c.sentences.emplace_back("Members that are open are said closed by their section: boxed 80 40 3 3.");
            if (!k.plates.empty())
                c.sentences.emplace_back("Inside first: nuts, sleeves, brackets; blown clean, coated, drain holes.");
            if (k.upright_mm > 0) c.sentences.emplace_back("An upright is closed: a drain hole at its foot, wax at its top.");
            return c;
        }
        return std::nullopt;
    }

    Card facts() const {
        Card c;
        c.title = "the frame";
        const FrameFacts& f = b_.frame_facts;
        c.rows.push_back({"yield", fmt::format("{:g} MPa", f.yield_MPa.value), markOf(f.yield_MPa.provenance), true});
        c.rows.push_back(
            {"springs, front", fmt::format("{:g} N/mm", f.front_rate.value), markOf(f.front_rate.provenance), false});
        c.rows.push_back({"springs, rear", fmt::format("{:g} N/mm", f.rear_rate.value), markOf(f.rear_rate.provenance), false});
        c.rows.push_back({"hung, front", std::string(word(f.front_springs)), Mark::None, false});
        c.rows.push_back({"hung, rear", std::string(word(f.rear_springs)), Mark::None, false});
        if (f.body_twist)
            c.rows.push_back(
                {"the body's own", fmt::format("{:g} N·m/deg", f.body_twist->value), markOf(f.body_twist->provenance), false});
        for (const std::string& a : r_.scans->frame.input().assumed) c.sentences.push_back("Taken as usual: " + a + ".");
        c.actions.push_back({"yield", "yield ", "", true});
        c.actions.push_back({"springs, front", "wheel-rate front ", "", true});
        c.actions.push_back({"springs, rear", "wheel-rate rear ", "", true});
        c.actions.push_back({"how they are hung", "springs rear ", "", true});
        c.actions.push_back({"the body's own", "body-twist ", "", true});
        return c;
    }
};

} // namespace

std::optional<Card> frameCard(const Build& b, const Results& r, SubjectId subject, const Tag& tag) {
    return FrameCards(b, r, subject).make(tag);
}

} // namespace gorvet::analysis
