#include "tape/repair.hpp"

#include <algorithm>
#include <cctype>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::tape {
namespace {

std::string mm(double v) { return units::fixed(v, 1) + " mm"; }

JudgedFlaw thickness(const FoundFlaw& f) {
    JudgedFlaw j;
    j.steel = true;
    if (!f.amount_mm || !f.nominal_mm) {
        j.sentence = fmt::format("Rust at {}, and nobody measured what is left.", f.where);
        j.remedy = "Clean it, measure the least thickness, and say what it was when new.";
        return j;
    }
    const double loss = 1 - *f.amount_mm / *f.nominal_mm;
    j.verdict = loss <= sound_loss ? PlanVerdict::Holds : loss <= gone_loss ? PlanVerdict::Marginal : PlanVerdict::Fails;
    j.figure = fmt::format("{} of {} left", units::fixed(*f.amount_mm, 1), mm(*f.nominal_mm));
    j.need = mm((1 - gone_loss) * *f.nominal_mm) + " at least";
    j.sentence = fmt::format("{} has {} of {} left.", f.where, units::fixed(*f.amount_mm, 1), mm(*f.nominal_mm));
    switch (j.verdict) {
    case PlanVerdict::Holds: j.remedy = "Clean and coat it."; break;
    case PlanVerdict::Marginal:
        j.remedy = "Clean it, measure round it, and plate it where it carries a mount or a bracket.";
        break;
    case PlanVerdict::Fails: j.remedy = "Cut back to sound steel and let in new of the same thickness."; break;
    }
    return j;
}

/// One length of rail that flaws are renewed with.
struct Length {
    build::Side side;
    double from;
    double to;
    int flaws;
};

/// A rail whose steel is gone is not patched: a length is let in.
bool needsLength(const FoundFlaw& f, const JudgedFlaw& j) {
    return f.on_rail && j.steel && j.verdict == PlanVerdict::Fails && (f.kind == FlawKind::Rust || f.kind == FlawKind::Thin);
}

double hoursOf(const FoundFlaw& f, const JudgedFlaw& j, const build::Rates& r) {
    if (needsLength(f, j)) return r.section_hours;
    switch (f.kind) {
    case FlawKind::Crack: return r.crack_hours;
    case FlawKind::Seized: return r.seized_hours;
    case FlawKind::Play: return r.play_hours;
    case FlawKind::Repair: return r.redo_hours;
    default: return r.patch_hours;
    }
}

} // namespace

JudgedFlaw judgeFlaw(const FoundFlaw& found) {
    FoundFlaw f = found;
    // a sentence begins with it; a point keeps the name it was given
    if (f.is_part && !f.where.empty() && f.kind != FlawKind::Crack && f.kind != FlawKind::Rust)
        f.where[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(f.where[0])));
    JudgedFlaw j;
    switch (f.kind) {
    case FlawKind::Rust:
    case FlawKind::Thin: return thickness(f);
    case FlawKind::Crack:
        j.steel = true;
        j.verdict = PlanVerdict::Fails;
        j.figure = f.amount_mm ? mm(*f.amount_mm) + " long" : "a crack";
        j.need = "none";
        j.sentence = fmt::format("A crack at {}{}.", f.where, f.direction.empty() ? "" : ", " + f.direction);
        j.remedy = "Find both ends, find why it cracked, and have it welded and plated by a licensed person.";
        break;
    case FlawKind::Seized:
        j.sentence = fmt::format("{} is seized{}.", f.where, f.direction.empty() ? "" : ", " + f.direction);
        j.remedy = "Soak it for days before it is needed; heat only away from fuel, rubber and coatings.";
        break;
    case FlawKind::Play:
        j.figure = f.amount_mm ? mm(*f.amount_mm) : "felt, not measured";
        j.need = mm(little_play_mm) + " at most";
        j.verdict = !f.amount_mm                     ? PlanVerdict::Marginal
                    : *f.amount_mm <= little_play_mm ? PlanVerdict::Holds
                    : *f.amount_mm <= much_play_mm   ? PlanVerdict::Marginal
                                                     : PlanVerdict::Fails;
        j.sentence = fmt::format("{} has play{}{}.", f.where, f.amount_mm ? " of " + mm(*f.amount_mm) : "",
                                 f.direction.empty() ? "" : ", " + f.direction);
        j.remedy = f.amount_mm ? "Renew the bush or bearing before anything is aligned to it."
                               : "Measure it with a dial at the wheel or arm.";
        if (j.verdict == PlanVerdict::Holds) j.remedy = "Leave it.";
        break;
    case FlawKind::Repair:
        j.steel = true;
        j.sentence = fmt::format("{} was repaired before{}.", f.where, f.direction.empty() ? "" : ", " + f.direction);
        j.remedy = "Clean it to bare steel and look at weld and metal round it; take it out where it is poor.";
        break;
    case FlawKind::Layers:
        j.steel = true;
        j.figure = fmt::format("{} layers", units::fixed(f.layers, 0));
        j.verdict = f.layers >= 3 ? PlanVerdict::Marginal : PlanVerdict::Holds;
        j.sentence = fmt::format("{} is {} layers of sheet.", f.where, units::fixed(f.layers, 0));
        j.remedy =
            f.layers >= 3 ? "Rust hides between them: open the edge and look before anything is welded on." : "Seal the edges.";
        break;
    }
    return j;
}

namespace {

/// What the flaws add up to, by the ways of seeing to them.
struct Sum {
    struct OnRail {
        const FoundFlaw* flaw;
        bool patch;
        double hours;
        bool length;
    };
    double patches = 0; ///< hours, every place by itself
    double single = 0;  ///< what is left to do one by one when lengths are renewed
    int places = 0;
    int single_places = 0;
    int steel_fails = 0;
    int lengths_let_in = 0; ///< when every place is seen to by itself
    int single_lengths = 0;
    std::vector<OnRail> on_rails;
    int renewed = 0; ///< lengths of rail where places stand close together
    double renew_hours = 0;

    void take(RepairView& view, const std::vector<FoundFlaw>& flaws, const build::Rates& rates) {
        for (const FoundFlaw& f : flaws) {
            view.flaws.push_back(judgeFlaw(f));
            const JudgedFlaw& j = view.flaws.back();
            if (j.verdict == PlanVerdict::Holds || f.elsewhere) continue;
            if (f.of_body) {
                ++view.body_places;
                view.body_hours += hoursOf(f, j, rates);
                continue;
            }
            const bool length = needsLength(f, j);
            const bool patch = j.steel && !length && f.kind != FlawKind::Crack && f.kind != FlawKind::Repair;
            const double hours = hoursOf(f, j, rates);
            patches += hours;
            places += patch ? 1 : 0;
            lengths_let_in += length ? 1 : 0;
            if (j.steel && j.verdict == PlanVerdict::Fails) ++steel_fails;
            if (j.steel && f.on_rail && f.station_mm && f.side != build::Side::None) {
                on_rails.push_back({&f, patch, hours, length});
            } else {
                single += hours;
                single_places += patch ? 1 : 0;
                single_lengths += length ? 1 : 0;
            }
        }
    }
    void joinLengths(const build::Rates& rates) {
        std::sort(on_rails.begin(), on_rails.end(), [](const auto& a, const auto& b) {
            return std::pair(a.flaw->side, *a.flaw->station_mm) < std::pair(b.flaw->side, *b.flaw->station_mm);
        });
        std::vector<Length> lengths;
        for (const OnRail& on : on_rails) {
            const FoundFlaw* f = on.flaw;
            if (!lengths.empty() && lengths.back().side == f->side && *f->station_mm - lengths.back().from <= renewed_length_mm) {
                lengths.back().to = *f->station_mm;
                ++lengths.back().flaws;
            } else {
                lengths.push_back({f->side, *f->station_mm, *f->station_mm, 1});
            }
        }
        for (size_t i = 0, first = 0; i < lengths.size(); first += static_cast<size_t>(lengths[i].flaws), ++i) {
            if (lengths[i].flaws > 1) {
                ++renewed;
                renew_hours += rates.section_hours;
                continue;
            }
            single += on_rails[first].hours;
            single_places += on_rails[first].patch ? 1 : 0;
            single_lengths += on_rails[first].length ? 1 : 0;
        }
    }
};

std::vector<Way> waysOf(const Sum& sum, const build::Rates& rates, bool heat_treated) {
    const auto price = [&](Way& way, double material) {
        if (!way.possible) return;
        if (!rates.hour)
            way.missing = "the price of an hour";
        else
            way.cost = way.hours * *rates.hour + material;
    };
    Way repair{"repair", "repair each place", !heat_treated, "", sum.patches, {}, ""};
    repair.why = heat_treated ? "The rails are heat-treated: they are not welded."
                              : fmt::format("{} to do one by one.", units::fixed(sum.patches, 1) + " hours");
    price(repair, sum.places * rates.patch_material + sum.lengths_let_in * rates.section_material);
    Way part{"part-replace", "renew lengths of rail", !heat_treated && sum.renewed > 0, "", sum.single + sum.renew_hours, {}, ""};
    part.why = heat_treated       ? "The rails are heat-treated: they are not welded."
               : sum.renewed == 0 ? "No two places stand close enough to be renewed together."
                                  : fmt::format("{} length{} of rail where places stand within {}, the rest one by one.",
                                                sum.renewed, sum.renewed == 1 ? "" : "s", mm(renewed_length_mm));
    price(part, (sum.renewed + sum.single_lengths) * rates.section_material + sum.single_places * rates.patch_material);
    Way other{"other-frame", "another frame", true, "", rates.other_frame_hours, {}, ""};
    other.why = "Find one, measure it here before it is bought, and swap everything over.";
    if (!rates.other_frame)
        other.missing = "the price of another frame";
    else
        price(other, *rates.other_frame);
    return {repair, part, other};
}

/// The way that costs least, by hours where not all have a price; and why.
void advise(RepairView& view, const Sum& sum, bool heat_treated) {
    // by cost where all that can be done has one, else by hours
    const bool priced = std::all_of(view.ways.begin(), view.ways.end(), [](const Way& w) { return !w.possible || w.cost; });
    for (int i = 0; i < 3; ++i) {
        const Way& w = view.ways[static_cast<size_t>(i)];
        if (!w.possible) continue;
        const auto worth = [&](const Way& way) { return priced ? *way.cost : way.hours; };
        if (view.advised < 0 || worth(w) < worth(view.ways[static_cast<size_t>(view.advised)])) view.advised = i;
    }
    const Way& best = view.ways[static_cast<size_t>(view.advised)];
    const std::string reason = heat_treated ? "heat-treated rails are not welded"
                               : priced     ? "it costs least by your rates"
                                            : "it takes the fewest hours; " +
                                              (best.missing.empty() ? view.ways.back().missing : best.missing) + " is not said";
    view.sentence = fmt::format("{} {}: {}.",
                                sum.steel_fails ? fmt::format("{} place{} of the steel fail{}.", sum.steel_fails,
                                                              sum.steel_fails == 1 ? "" : "s", sum.steel_fails == 1 ? "s" : "")
                                                : "No steel fails yet.",
                                best.key == std::string("repair")         ? "Repair each place"
                                : best.key == std::string("part-replace") ? "Renew lengths of rail"
                                                                          : "Look for another frame",
                                reason);
}

} // namespace

RepairView repairView(const std::vector<FoundFlaw>& flaws, const build::Rates& rates, bool heat_treated, int crooked) {
    RepairView view;
    Sum sum;
    sum.take(view, flaws, rates);
    const std::string body = view.body_places ? fmt::format("The body has {} place{} of its own, {} hours.", view.body_places,
                                                            view.body_places == 1 ? "" : "s", units::fixed(view.body_hours, 1))
                                              : std::string();
    if (sum.patches == 0) {
        const bool none = std::all_of(flaws.begin(), flaws.end(), [](const FoundFlaw& f) { return f.elsewhere; });
        view.sentence = none ? ""
                        : view.body_places == 0
                            ? "Nothing that was found takes more than cleaning and coating."
                            : "Nothing that was found on the frame takes more than cleaning and coating. " + body;
        return view;
    }
    sum.joinLengths(rates);
    view.ways = waysOf(sum, rates, heat_treated);
    advise(view, sum, heat_treated);
    if (!body.empty()) view.sentence += " " + body;
    if (crooked > 0)
        view.sentence += fmt::format(
            " The frame is also out of true ({} figure{}): pulling it straight is licensed work and is not in these hours.",
            crooked, crooked == 1 ? "" : "s");
    return view;
}

} // namespace gorvet::tape
