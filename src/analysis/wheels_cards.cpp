// Cards of the wheels: what is bolted on, what stands beside it, turns under a dial.
#include "analysis/card_maker.hpp"
#include "analysis/wheels.hpp"
#include "drive/degree.hpp"

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

namespace {

std::optional<Card> wheelsOfEnd(const Build& b, const Results& r, const std::string& end) {
    for (const WheelsShown& w : wheelsShown(b, r)) {
        if (w.plan->name != end) continue;
        const drive::WheelsPlan& p = *w.plan;
        Card c;
        c.title = end + " wheels";
        c.word = verdictWord(p.verdict);
        c.severity = sheet::severityOf(p.verdict);
        for (const drive::RoomClear& room : w.input->wanted ? p.planned : p.now)
            if (room.verdict != PlanVerdict::Holds || c.rows.size() < 2)
                c.rows.push_back({fmt::format("to {}, {}", room.name, w.input->corners[room.corner].name),
                                  fmt::format("{:.0f} ± {:.0f} mm, {}", room.clear_mm.value, room.clear_mm.u95,
                                              drive::clearWord(room.verdict)),
                                  markOf(room.clear_mm.provenance), false});
        if (!p.remarks.empty()) c.sentences.push_back(p.remarks.front().sentence + " " + p.remarks.front().remedy);
        c.sentences.push_back(fmt::format("Caution: {}", wheel_caution));
        const WheelSet* shown = w.input->shown();
        const std::string rim = fmt::format("rim {} {} ", end, shown ? word(shown->as) : "fitted");
        c.actions.push_back({"offset", rim + "offset ", "", true});
        c.actions.push_back({"backspace", rim + "backspace ", "", true});
        c.actions.push_back({"tyre", rim + "tyre ", "", true});
        c.actions.push_back({"studs", rim + "studs ", "", true});
        c.actions.push_back({"hub", fmt::format("hub {} ", end), "", true});
        if (!w.input->wanted) c.actions.push_back({"wanted wheels", fmt::format("rim {} wanted width ", end), "", true});
        if (shown) {
            c.actions.push_back({"remove", fmt::format("remove rim {} {}", end, word(shown->as)), "", false});
            c.journal_table = "wheel-set";
            c.journal_id = shown->id.value;
        }
        return c;
    }
    return std::nullopt;
}

std::optional<Card> roomCard(const Build& b, const Results& r, const std::string& name) {
    const WheelRoom* room = wheelRoomNamed(b, name);
    if (!room) return std::nullopt;
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    Card c;
    c.title = fmt::format("{} beside the {} wheels", name, word(room->end));
    if (room->point) {
        c.rows.push_back({"at", nameOf(b, room->point), Mark::None, false});
    } else {
        c.rows.push_back({fmt::format("{} of the {}", room->out->value < 0 ? "inwards" : "outwards", word(room->from)),
                          len(std::abs(room->out->value)), markOf(room->out->provenance), true});
        c.rows.push_back({"over the wheel's centre", len(room->up->value), markOf(room->up->provenance), true});
    }
    for (const WheelsShown& w : wheelsShown(b, r)) {
        if (w.plan->name != word(room->end)) continue;
        for (const drive::RoomClear& clear : w.input->wanted ? w.plan->planned : w.plan->now) {
            if (clear.name != name) continue;
            c.word = drive::clearWord(clear.verdict);
            c.severity = sheet::severityOf(clear.verdict);
            c.rows.push_back({fmt::format("{} tyre", w.input->corners[clear.corner].name),
                              fmt::format("{:.0f} ± {:.0f} mm, {}", clear.clear_mm.value, clear.clear_mm.u95,
                                          clear.pose.empty() ? "at rest" : clear.pose),
                              markOf(clear.clear_mm.provenance), false});
            c.rows.push_back(
                {"asked", fmt::format("{:.0f} mm", clear.least_mm), clear.least_assumed ? Mark::Assumed : Mark::None, false});
        }
    }
    c.sentences.push_back(fmt::format("Caution: {}", wheel_caution));
    const std::string line = fmt::format("room {} {} ", name, word(room->end));
    c.actions.push_back({"how far out", line + "out ", "", true});
    c.actions.push_back({"how high", line + "up ", "", true});
    c.actions.push_back({"asked", line + "least ", "", true});
    c.actions.push_back({"remove", "remove room " + name, "", false});
    c.journal_table = "wheel-room";
    c.journal_id = room->id.value;
    return c;
}

std::optional<Card> hubCard(const Build& b, const Results&, const std::string& name) {
    const auto end = fromWord<AxleEnd>(name);
    const Hub* hub = end ? hubOf(b, *end) : nullptr;
    if (!hub) return std::nullopt;
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    Card c;
    c.title = name + " hub";
    if (hub->studs) c.rows.push_back({"studs", fmt::format("{:g}", hub->studs->value), markOf(hub->studs->provenance), false});
    if (const auto circle = drive::circleOf(hub->studs, hub->circle, hub->chord, hub->next_but_one))
        c.rows.push_back(
            {"on a circle of", fmt::format("{:.1f} ± {:.1f} mm", circle->value, circle->u95), markOf(circle->provenance), false});
    if (hub->spigot) c.rows.push_back({"spigot", len(hub->spigot->value), markOf(hub->spigot->provenance), false});
    if (hub->brake_radius)
        c.rows.push_back({"brake reaches", len(hub->brake_radius->value), markOf(hub->brake_radius->provenance), false});
    const std::string line = fmt::format("hub {} ", name);
    c.actions.push_back({"studs", line + "studs ", "", true});
    c.actions.push_back({"brake", line + "brake-radius ", "", true});
    c.actions.push_back({"axle may carry", line + "axle ", "", true});
    c.actions.push_back({"remove", "remove hub " + name, "", false});
    c.journal_table = "hub";
    c.journal_id = hub->id.value;
    return c;
}

std::optional<Card> dialCard(const Build& b, std::uint32_t id) {
    const auto row = b.dial_turns.find(DialTurnId{id});
    if (row == b.dial_turns.end()) return std::nullopt;
    const DialTurn& t = row->second;
    const drive::RunOut run = drive::runOut(t.readings, t.within ? t.within->value : dial_u95_mm);
    Card c;
    c.title = fmt::format("{} under the dial, {}", word(t.wheel), word(t.way));
    c.word = verdictWord(dialVerdict(t));
    c.severity = sheet::severityOf(dialVerdict(t));
    c.rows.push_back({"least to most", fmt::format("{:.2f} mm", run.total_mm), Mark::Derived, false});
    c.rows.push_back(
        {"once a turn", fmt::format("{:.2f} ± {:.2f} mm", run.first_mm.value, run.first_mm.u95), Mark::Derived, false});
    if (run.high_known)
        c.rows.push_back(
            {"highest, from the valve forwards",
             fmt::format("{:.0f}° ± {:.0f}°", run.high_rad.value / drive::one_degree, run.high_rad.u95 / drive::one_degree),
             Mark::Derived, false});
    c.rows.push_back({"left then", fmt::format("{:.2f} mm", run.rest_mm), Mark::Derived, false});
    c.actions.push_back({"turn it again", fmt::format("dial {} {} ", word(t.wheel), word(t.way)), "", true});
    c.actions.push_back({"remove", fmt::format("remove dial {} {}", word(t.wheel), word(t.way)), "", false});
    c.journal_table = "dial-turn";
    c.journal_id = id;
    return c;
}

} // namespace

std::optional<Card> wheelCard(const Build& b, const Results& r, const Tag& tag) {
    if (tag.kind == "wheels") return wheelsOfEnd(b, r, tag.rest);
    if (tag.kind == "room") return roomCard(b, r, tag.rest);
    if (tag.kind == "hub") return hubCard(b, r, tag.rest);
    if (tag.kind == "dial") return dialCard(b, tag.id);
    return std::nullopt;
}

} // namespace gorvet::analysis
