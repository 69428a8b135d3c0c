// Weight and springs: input, sheet, headline, card and JSON.
#include "analysis/car_points.hpp"
#include "analysis/carried.hpp"
#include "analysis/drive.hpp"
#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"
#include "analysis/travel.hpp"
#include "drive/weights_sheet.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Mark;

namespace {

const char* const lifted_caution =
    "A car that is lifted at one end hangs by slings or stands on ramps made for it, wheels free to roll, nobody under it; coil springs and torsion bars are let off "
    "with their own tools.";
/// Scales of a workshop: half of a hundredth, one kilogram at least.
double scaleU95(double kg) { return std::max(1.0, 0.005 * kg); }

class WeightsAsked {
public:
    WeightsAsked(const Build& b, const Results& r) : b_(b), r_(r) {}

    drive::WeightsIn ask() {
        for (const auto& [id, w] : b_.wheels)
            if (w.weight) {
                in_.wheels[static_cast<std::size_t>(w.wheel)] =
                    Figure{w.weight->value, scaleU95(w.weight->value), w.weight->provenance};
                in_.said = true;
            }
        in_.said = in_.said || !b_.springs.empty() || !b_.axles_lifted.empty();
        if (!in_.said) return std::move(in_);
        constexpr const char* names[] = {"front left", "front right", "rear left", "rear right"};
        for (std::size_t k = 0; k < 4; ++k)
            if (!in_.wheels[k])
                in_.missing.push_back(
                    fmt::format("the weight on the {} wheel: weight {} 412kg", names[k], word(static_cast<Wheel>(k))));
        hubs();
        radii();
        for (const auto& [id, l] : b_.axles_lifted)
            in_.lifted.push_back({l.lifted == AxleEnd::Front,
                                  l.up.value,
                                  {l.weight.value, l.within ? l.within->value : scaleU95(l.weight.value), l.weight.provenance}});
        const WheelTravel& t = b_.travel;
        in_.droop_mm = {t.front_droop.value, t.rear_droop.value};
        in_.bump_mm = {t.front_bump.value, t.rear_bump.value};
        for (const AxleEnd end : {AxleEnd::Front, AxleEnd::Rear})
            if (const Spring* s = springOf(b_, end)) spring(*s);
        return std::move(in_);
    }

private:
    /// The car stood on the scales as it is, not as planned.
    void hubs() {
        FixedPoints points(b_, r_.chassis);
        std::array<std::array<int, 2>, 2> place{{{-1, -1}, {-1, -1}}};
        for (const auto& [id, p] : b_.points) {
            if (p.subject != the_chassis || (p.role != Role::FrontHub && p.role != Role::RearHub)) continue;
            const Side side = sideOf(p.name);
            if (side != Side::None) place[p.role == Role::RearHub][side == Side::Right] = points.take(id);
        }
        const Places places = points.places();
        const auto all = [&](std::size_t end) { return place[end][0] >= 0 && place[end][1] >= 0; };
        const auto of = [&](std::size_t end, std::size_t side) { return static_cast<std::size_t>(place[end][side]); };
        for (const std::size_t end : {std::size_t{0}, std::size_t{1}})
            if (all(end))
                in_.track_mm[end] = figureOf(places, {of(end, 0), of(end, 1)},
                                             [&](const std::vector<Vec3>& p) { return p[of(end, 1)].y_mm - p[of(end, 0)].y_mm; });
        if (!all(0) || !all(1)) {
            in_.missing.emplace_back("the wheel centres on the chassis: mark all four on Tape");
            return;
        }
        in_.front_x_mm = (places.at[of(0, 0)].x_mm + places.at[of(0, 1)].x_mm) / 2;
        in_.wheelbase_mm = figureOf(places, {of(0, 0), of(0, 1), of(1, 0), of(1, 1)}, [&](const std::vector<Vec3>& p) {
            return (p[of(1, 0)].x_mm + p[of(1, 1)].x_mm - p[of(0, 0)].x_mm - p[of(0, 1)].x_mm) / 2;
        });
    }
    void radii() {
        const std::array<const std::optional<Dimension>*, 2> over{&b_.axles.front, &b_.axles.rear};
        for (std::size_t end = 0; end < 2; ++end) {
            if (*over[end])
                in_.radius_mm[end] = {(*over[end])->value, 5, (*over[end])->provenance};
            else {
                in_.radius_mm[end] = {320, 20, Provenance::Assumed};
                if (!b_.axles_lifted.empty())
                    in_.assumed.push_back(
                        fmt::format("that the {} wheels' centres are 320 mm over the road", end ? "rear" : "front"));
            }
        }
    }
    void spring(const Spring& row) {
        drive::SpringIn s;
        s.spring = row;
        s.name = std::string(word(row.end));
        const bool front = row.end == AxleEnd::Front;
        const drive::TravelIn* held = heldBy(r_, front, false);
        CarPoints points(b_, r_);
        if (row.foot) {
            // its links first, in the order in which they have their places
            if (held) {
                s.held = held->held;
                s.assumed = held->assumed;
            } else {
                s.assumed.push_back(fmt::format("that the {} wheels go straight up and down", s.name));
            }
            s.foot = points.take(row.foot);
            s.top = points.take(row.top);
            if (row.on) s.on = points.take(b_.links.at(row.on).points);
            if (const std::string lost = points.lost(); !lost.empty()) {
                in_.missing.push_back(lost);
                s.foot.reset();
                s.top.reset();
                s.on.clear();
            }
            joined(s, points, held);
            if (measuredHanging(b_, row.foot) || measuredHanging(b_, row.top))
                s.assumed.push_back(fmt::format("that the {} springs stood as they do with the weight on", s.name));
        } else if (row.form != SpringForm::Torsion) {
            s.assumed.push_back(
                fmt::format("that the {} springs go together as their wheels go up: foot and top are not marked", s.name));
        }
        const auto assume = [&](const std::optional<Dimension>& d, const char* what) {
            if (d && d->provenance == Provenance::Assumed) s.assumed.push_back(fmt::format("{} of the {} springs", what, s.name));
        };
        assume(row.rate, "the rate");
        assume(row.free, "the free length");
        assume(row.stop, "the gap at the stop");
        assume(row.stop_rate, "the rate of the stop");
        assume(row.bar, "the bar");
        assume(row.length, "the length");
        assume(row.arm, "the arm");
        if (row.form == SpringForm::Torsion && (!row.bar || !row.length || !row.arm))
            in_.missing.push_back(fmt::format("bar, length and arm of the {} torsion bars", s.name));
        if (row.form != SpringForm::Torsion && !row.rate)
            in_.missing.push_back(
                fmt::format("the rate of the {} springs: spring {} {} rate 30", s.name, s.name, word(row.form)));
        if (row.higher && row.higher->value != 0) {
            const auto& [bump, droop] = front ? std::tie(b_.travel.front_bump, b_.travel.front_droop)
                                              : std::tie(b_.travel.rear_bump, b_.travel.rear_droop);
            if (bump.provenance == Provenance::Assumed || droop.provenance == Provenance::Assumed)
                s.assumed.push_back(fmt::format("how far the {} wheels go up and down", s.name));
            const PlannedChassis& planned = r_.planned_chassis;
            if (planned.cuts() || planned.narrower_mm > 0)
                s.assumed.push_back(
                    fmt::format("that the {} wheels carry as much once all is as planned: they were weighed before", s.name));
        }
        in_.springs.push_back(std::move(s));
    }
    /// The places of the links, and behind them those of the spring: two readings of one survey, taken as independent.
    static void joined(drive::SpringIn& s, CarPoints& points, const drive::TravelIn* held) {
        const Places own = points.places();
        if (!held) {
            s.places = own;
            return;
        }
        const std::size_t before = held->places.at.size(), n = 3 * (before + own.at.size());
        s.places.names = held->places.names;
        s.places.at = held->places.at;
        s.places.names.insert(s.places.names.end(), own.names.begin(), own.names.end());
        s.places.at.insert(s.places.at.end(), own.at.begin(), own.at.end());
        s.places.covariance.assign(n * n, 0);
        const auto block = [&](const Places& of, std::size_t at) {
            const std::size_t m = 3 * of.at.size();
            for (std::size_t i = 0; i < m; ++i)
                for (std::size_t j = 0; j < m; ++j) s.places.covariance[(3 * at + i) * n + 3 * at + j] = of.covariance[i * m + j];
        };
        block(held->places, 0);
        block(own, before);
        for (auto* k : {&s.foot, &s.top})
            if (*k) **k += before;
        for (std::size_t& k : s.on) k += before;
    }

    const Build& b_;
    const Results& r_;
    drive::WeightsIn in_;
};

} // namespace

drive::WeightsIn weightsInput(const Build& b, const Results& r) { return WeightsAsked(b, r).ask(); }

sheet::Drawing weightsDrawing(const Build&, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                              const sheet::Format& f) {
    return drive::weightsSheet({&r.weights.input(), &*r.weights}, width, height, f);
}

Headline weightsHeadline(const Build&, const Results& r, SubjectId) {
    const drive::WeightsIn& in = r.weights.input();
    if (!in.said)
        return {
            "Nothing was weighed yet.",
            "Put each wheel on a scale: weight front-left 412kg. Then lift one axle and read what the other carries: lifted front 600 rear 798kg."};
    const drive::WeightsPlan& p = *r.weights;
    Headline h;
    if (!p.whole_kg)
        h.sentence = fmt::format("Weight and springs wait for {}.", in.missing.front());
    else if (p.cg_z_mm)
        h.sentence = fmt::format("{:.0f} kg, {:.0f} % on the front wheels; its weight stands {:.0f} ± {:.0f} mm over the road.",
                                 p.whole_kg->value, 100 * p.front_share->value, p.cg_z_mm->value, p.cg_z_mm->u95);
    else
        h.sentence = fmt::format("{:.0f} kg, {:.0f} % on the front wheels.", p.whole_kg->value, 100 * p.front_share->value);
    if (!p.remarks.empty()) h.below = fmt::format("{}: {} ", verdictWord(p.verdict), p.remarks.front().sentence);
    h.below += lifted_caution;
    return h;
}

std::optional<Card> weightsCard(const Build& b, const Results& r, const Tag& tag) {
    const drive::WeightsPlan& p = *r.weights;
    Card c;
    if (tag.kind == "spring") {
        const Spring* s = nullptr;
        for (const auto& [id, row] : b.springs)
            if (word(row.end) == tag.rest) s = &row;
        if (!s) return std::nullopt;
        c.title = fmt::format("{} springs of the {} wheels", word(s->form), word(s->end));
        for (const drive::SpringPlan& plan : p.springs)
            if (plan.name == tag.rest && plan.wheel_rate)
                c.rows.push_back({"rate at the wheel",
                                  fmt::format("{:.1f} ± {:.1f} N/mm", plan.wheel_rate->value, plan.wheel_rate->u95),
                                  markOf(plan.wheel_rate->provenance), true});
        const std::string line = fmt::format("spring {} {} ", word(s->end), word(s->form));
        c.actions.push_back({"stands higher by", line + "higher ", "", true});
        c.actions.push_back({"free length", line + "free ", "", true});
        c.actions.push_back({"stop touches after", line + "stop ", "", true});
        c.actions.push_back({"remove", fmt::format("remove spring {}", word(s->end)), "", false});
        c.journal_table = "spring";
        c.journal_id = s->id.value;
    } else {
        if (!r.weights.input().said) return std::nullopt;
        c.title = "weight of the car";
        c.word = verdictWord(p.verdict);
        c.severity = sheet::severityOf(p.verdict);
        const auto row = [&](const char* name, const std::optional<Figure>& f, const char* unit) {
            if (f)
                c.rows.push_back({name, fmt::format("{:.0f} ± {:.0f} {}", f->value, f->u95, unit), markOf(f->provenance), false});
        };
        row("all of it", p.whole_kg, "kg");
        row("stands at station", p.cg_x_mm, "mm");
        row("over the road", p.cg_z_mm, "mm");
        if (!p.remarks.empty()) c.sentences.push_back(p.remarks.front().sentence + " " + p.remarks.front().remedy);
        c.actions.push_back({"lifted at the front", "lifted front ", "", true});
    }
    c.sentences.push_back(fmt::format("Caution: {}", lifted_caution));
    return c;
}

std::string driveWeightJson(const Build&, const Results& r) {
    const drive::WeightsIn& in = r.weights.input();
    const drive::WeightsPlan& p = *r.weights;
    Json j = {{"said", in.said},
              {"verdict", in.said ? Json(verdictWord(p.verdict)) : Json(nullptr)},
              {"missing", in.missing},
              {"assumed", in.assumed}};
    const auto maybe = [](Json& to, const std::optional<Figure>& f, const char* unit, const char* name) {
        if (f) put(to, *f, unit, name);
    };
    maybe(j, p.whole_kg, "_kg", "whole");
    maybe(j, p.front_share, "", "front_share");
    maybe(j, p.left_share, "", "left_share");
    maybe(j, p.cross_share, "", "front_right_and_rear_left_share");
    maybe(j, p.cg_x_mm, "_mm", "weight_station");
    maybe(j, p.cg_y_mm, "_mm", "weight_right");
    maybe(j, p.cg_z_mm, "_mm", "weight_over_road");
    j["springs"] = Json::array();
    for (std::size_t k = 0; k < p.springs.size(); ++k) {
        const drive::SpringPlan& s = p.springs[k];
        Json one = {{"end", s.name}, {"assumed", in.springs[k].assumed}};
        maybe(one, s.rate, "_N_per_mm", "rate");
        maybe(one, s.per_wheel, "", "spring_per_wheel");
        maybe(one, s.wheel_rate, "_N_per_mm", "wheel_rate");
        maybe(one, s.hertz, "_Hz", "bounce");
        maybe(one, s.length_mm, "_mm", "stands");
        maybe(one, s.load_N, "_N", "load");
        maybe(one, s.free_load_N, "_N", "load_by_free_length");
        if (s.stop) {
            Json stop = Json::object();
            put(stop, s.stop->free_mm, "_mm", "free");
            maybe(stop, s.stop->touch_g, "", "load_where_it_touches");
            maybe(stop, s.stop->most_g, "", "load_at_full_bump");
            one["stop"] = std::move(stop);
        }
        if (s.higher) {
            Json h = {{"by_mm", number(s.higher->by_mm)},
                      {"droop_left_mm", number(s.higher->droop_left_mm)},
                      {"bump_mm", number(s.higher->bump_mm)}};
            maybe(h, s.higher->free_mm, "_mm", "free_length");
            maybe(h, s.higher->spacer_mm, "_mm", "spacer");
            maybe(h, s.higher->rate, "_N_per_mm", "rate");
            maybe(h, s.higher->turn_rad, "_deg", "turn");
            one["higher"] = std::move(h);
        }
        j["springs"].push_back(std::move(one));
    }
    j["remarks"] = remarksJson(p.remarks);
    j["cautions"] = {lifted_caution, local_rules};
    return text(j);
}

} // namespace gorvet::analysis
