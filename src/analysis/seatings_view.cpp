#include "analysis/seatings.hpp"
#include "analysis/seatings_clearance.hpp"
#include "analysis/sit_input.hpp"
#include "analysis/views.hpp"
#include "analysis/wording.hpp"

#include "sit/seatings_sheet.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::analysis {

using namespace build;

namespace {

std::string waySentence(const Build& b, const Results& r, const sit::LoweringPlan& p) {
    const auto len = [&](double mm) { return units::formatLength(mm, b.settings.length_step, true); };
    std::vector<std::string> parts;
    if (p.cut_mm > 0) parts.push_back(fmt::format("cuts {}", len(std::round(p.cut_mm))));
    if (p.weld_mm > 0) parts.push_back(fmt::format("welds {}", len(std::round(p.weld_mm))));
    if (p.mass_kg > 0) parts.push_back(fmt::format("new sheet {:.2f} m², {:.1f} kg", p.sheet_area_mm2 / 1e6, p.mass_kg));
    if (p.sill_by_mm != 0) parts.push_back(fmt::format("sills {} higher", len(p.sill_by_mm)));
    if (p.kick_angle_rad > 0) parts.push_back("ramps " + units::formatAngle(p.kick_angle_rad));
    if (p.cuts_rails) parts.emplace_back("the frame is cut: approved by licensed people");
    return fmt::format("{} for {}: {}. {}", capital(sit::name(p.way)), len(r.seatings.lower_by_mm), fmt::join(parts, ", "),
                       fmt::join(p.words, " "));
}

} // namespace

namespace {

/// How near the scans come: what the worst pair has more than it needs, and how many places foul.
void addClearances(sit::SeatingsView& v, const SeatingsCompared& c, const std::vector<SeatingClearance>& list,
                   units::LengthStep step) {
    if (list.size() != c.columns.size()) return;
    sit::SeatingRow spare, fouls;
    spare.name = "clearance of the scans";
    spare.wanted = "what each pair needs, or more";
    spare.no_high = true;
    spare.high = 30;
    fouls.name = "places that foul";
    fouls.plain = true;
    for (size_t k = 0; k < list.size(); ++k) {
        const SeatingClearance& s = list[k];
        sit::SeatingFigure g{s.known, s.spare_mm,
                             (s.spare_mm < 0 ? "−"
                              : s.far        ? "over "
                                             : "+") +
                                 units::formatSmall(std::abs(s.spare_mm), step),
                             s.severity};
        spare.figures.push_back(g);
        fouls.figures.push_back({s.known, static_cast<double>(s.fouls), std::to_string(s.fouls), s.severity});
        if (s.known) v.sentences.push_back(fmt::format("{} {}: {}.", k + 1, c.columns[k].name, s.words));
    }
    v.rows.insert(v.rows.begin(), {std::move(spare), std::move(fouls)});
}

/// The heads of the columns: each seating, then each trial move.
void addHeads(sit::SeatingsView& v, const SeatingsCompared& c, units::LengthStep step) {
    // under a narrow column: whole millimetres, or as inches are shown
    const auto brief = [&](double mm) {
        return units::unitOf(step) == units::Unit::Millimetre ? fmt::format("{:.0f}", mm) : units::formatSmall(mm, step);
    };
    for (const auto& column : c.columns) {
        // "driveline leads" stands in two lines
        const bool school = column.name.ends_with(" leads");
        const Lowering& l = column.lowering;
        v.columns.push_back(school ? column.name.substr(0, column.name.size() - 6) : column.name);
        v.below.push_back(!column.usable        ? "not seated"
                          : school              ? "leads"
                          : l.channel.value > 0 ? "channel " + brief(l.channel.value)
                          : l.raise.value > 0   ? "floor +" + brief(l.raise.value)
                          : l.kick.value > 0    ? "kick " + brief(l.kick.value)
                                                : "");
    }
    for (const auto& m : c.trade_offs->moves) {
        // said short over a column: the way, then how far
        const double turn = units::degrees(m.move.pitch_rad);
        const char* way = m.move.shift.z_mm < 0   ? "down"
                          : m.move.shift.z_mm > 0 ? "up"
                          : m.move.shift.x_mm < 0 ? "forward"
                          : m.move.shift.x_mm > 0 ? "back"
                          : turn < 0              ? "nose down"
                                                  : "nose up";
        v.moves.push_back(turn != 0 ? fmt::format("{} {:g}°", way, std::abs(turn))
                                    : fmt::format("{} {:g}", way, std::abs(m.move.shift.z_mm + m.move.shift.x_mm)));
    }
}

/// What a pin comes to in each column, and what each move would gain it.
sit::SeatingRow pinRow(const Build& b, const Results& r, size_t i) {
    const SeatingsCompared& c = r.seatings;
    const auto step = b.settings.length_step;
    const Pin& pin = c.rows[i];
    sit::SeatingRow row;
    row.name = pinName(b, pin);
    row.wanted = pinWanted(b, pin);
    if (pin.importance != Importance::Want) row.wanted += fmt::format(", {}", word(pin.importance));
    const bool centring = pin.bound == Bound::Equal && (pin.kind == PinKind::Centred || pin.kind == PinKind::Level ||
                                                        pin.kind == PinKind::ArchFront || pin.kind == PinKind::ArchRear);
    const double target = centring ? 0 : pin.target.value;
    row.low = pin.bound == Bound::Equal ? target - pin.tolerance : target;
    row.high = pin.bound == Bound::Equal ? target + pin.tolerance : target;
    if (pin.bound == Bound::AtLeast) {
        row.no_high = true;
        row.high = target + 3 * pin.tolerance;
    }
    if (pin.bound == Bound::AtMost) {
        row.no_low = true;
        row.low = target - 3 * pin.tolerance;
    }
    // of one's own pins there is a ±, and with it a verdict that counts; elsewhere the figure alone is judged
    const auto own = std::find_if(r.pin_ids.begin(), r.pin_ids.end(), [&](PinId id) { return samePin(b.pins.at(id), pin); });
    if (own != r.pin_ids.end()) row.tag = fmt::format("pin:{}", own->value);
    for (size_t k = 0; k < c.columns.size(); ++k) {
        const auto& column = c.columns[k];
        sit::SeatingFigure g;
        if (column.usable && i < column.rows.size() && column.rows[i].usable) {
            const auto place = own == r.pin_ids.end() ? r.seat->pins.size() : static_cast<size_t>(own - r.pin_ids.begin());
            const sit::PinResult& w = k == 0 && place < r.seat->pins.size() ? r.seat->pins[place] : column.rows[i];
            g = {true, w.achieved.value, pinFigure(b, pin, w.achieved.value, false), severityOf(w.verdict)};
        }
        row.figures.push_back(std::move(g));
    }
    for (const auto& m : c.trade_offs->moves) {
        std::optional<sit::MoveFigure> gain;
        const auto place = own == r.pin_ids.end() ? m.gain.size() : static_cast<size_t>(own - r.pin_ids.begin());
        if (place < m.gain.size() && std::abs(m.gain[place]) >= 0.1 * pin.tolerance) {
            const double size = std::abs(m.gain[place]);
            gain = sit::MoveFigure{m.gain[place],
                                   pin.kind == PinKind::Rake ? units::formatAngle(size) : units::formatSmall(size, step)};
        }
        row.moves.push_back(std::move(gain));
    }
    return row;
}

sit::SeatingRow wheelbaseRow(const SeatingsCompared& c, units::LengthStep step) {
    sit::SeatingRow wheelbase;
    wheelbase.name = "change of wheelbase";
    wheelbase.plain = true;
    for (const auto& column : c.columns)
        wheelbase.figures.push_back(column.usable && column.seat->change_mm
                                        ? sit::SeatingFigure{true, *column.seat->change_mm,
                                                             units::formatLength(*column.seat->change_mm, step),
                                                             sheet::Severity::Good}
                                        : sit::SeatingFigure{});
    wheelbase.tag = "change";
    return wheelbase;
}

} // namespace

sheet::Drawing seatingsView(const Build& b, const Results& r, double width, double height, const sheet::Format& f,
                            const std::vector<SeatingClearance>* clearances) {
    const SeatingsCompared& c = r.seatings;
    const auto step = b.settings.length_step;
    sit::SeatingsView v;
    if (c.columns.empty()) v.sentences.emplace_back("Nothing is pinned yet: pin what must hold first, like  sill front 285.");
    addHeads(v, c, step);
    for (size_t i = 0; i < c.rows.size(); ++i) v.rows.push_back(pinRow(b, r, i));
    if (!c.columns.empty()) v.rows.push_back(wheelbaseRow(c, step));
    if (clearances) addClearances(v, c, *clearances, step);
    if (b.school.leads != Leads::Neither)
        v.sentences.push_back(b.school.leads == Leads::Driveline
                                  ? "School: the driveline leads. What stands against the driveline counts three times."
                                  : "School: the body leads. Its station, height and rake count three times.");
    int said = 0;
    for (const auto& g : c.trade_offs->given_up) {
        v.sentences.push_back(givenUpSentence(b, r, g));
        if (++said == 3) break;
    }
    for (const auto& p : c.ways) v.sentences.push_back(waySentence(b, r, p));
    v.cautions = {
        "Rails, floors and sills carry the car: brace before every cut; follow local rules; have structural cuts and welds approved by licensed people."};
    return sit::seatingsSheet(v, width, std::max(height, sit::seatingsHeight(v, width, f)), f);
}

} // namespace gorvet::analysis
