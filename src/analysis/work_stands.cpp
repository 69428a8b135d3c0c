// What the two halves of a cut frame rest on: their weights from the frame as it carries, their stands as said.
#include "analysis/frame.hpp"
#include "analysis/work_plan.hpp"

#include "frame/part_ways.hpp"
#include "frame/stock.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

/// What a weight from sizes and catalogues is good for: rolled sections ± 4 %, corners, brackets and welds that nobody listed.
constexpr double mass_share_u95 = 0.10;
constexpr Vec3 centre_u95{60, 25, 0};
constexpr double edge_mm = 60; ///< of a stand under a pan, from the pan's edge

/// A half of the frame, from its end to the cut.
struct Half {
    const char* name;
    const char* words;
    double from_mm, to_mm;
};

/// What nobody said, that keeps a half from being called good.
struct Doubt {
    std::string sentence;
    std::string remedy;
};

bool carriesStand(const Half& h, const Stand& s) { return s.station.value >= h.from_mm && s.station.value <= h.to_mm; }

work::WorkedLift restOf(const Build& b, const Results& r, const Half& half, const frame::Mass& mass, bool bare,
                        const std::vector<Doubt>& doubts) {
    work::WorkedLift w;
    w.name = fmt::format("{}{}", half.name, bare ? "-bare" : "");
    w.way = LiftWay::Stands;
    w.made = true;
    w.holds_step = "cut-rails";
    w.note = fmt::format("The part {} the cut{}: its weight from the sizes of the frame{}, ± 10 %.", half.words,
                         bare ? ", once nothing hangs on it any more" : "", bare ? "" : " and what it was said to carry");
    w.rest.mass_kg = mass.kg;
    w.rest.mass_u95_kg = mass_share_u95 * mass.kg;
    w.rest.centre = mass.middle;
    w.rest.centre_u95 = centre_u95;
    for (const auto& [id, s] : b.stands) {
        if (!carriesStand(half, s)) continue;
        if (const auto& in = r.stretch.input(); in.spine) { // under the pans, near their edges
            const double aside = in.left.width_mm / 2 + in.spine->pan_width_mm.value_or(2 * edge_mm) - edge_mm;
            for (const double side : {-1.0, 1.0})
                w.rest.points.push_back({fmt::format("{} {}", s.name, side < 0 ? "left" : "right"),
                                         {s.station.value, side * aside, 0},
                                         s.rated_kg,
                                         s.sound});
            continue;
        }
        for (const bool left : {true, false})
            if (const auto at = (left ? r.rail_left : r.rail_right).at(s.station.value))
                w.rest.points.push_back({fmt::format("{} {}", s.name, left ? "left" : "right"),
                                         {s.station.value, at->y_mm, at->bottom_mm},
                                         s.rated_kg,
                                         s.sound});
    }
    w.carried = work::carry(w.rest);
    for (const Doubt& doubt : doubts) {
        if (w.carried.verdict == work::LiftVerdict::Holds) w.carried.verdict = work::LiftVerdict::Marginal;
        w.carried.remarks.push_back({work::LiftVerdict::Marginal, doubt.sentence, doubt.remedy});
    }
    return w;
}

/// What hangs on the frame while it is cut: nothing that goes with the body, nothing that was only spread over it.
std::vector<frame::Weight> weightsAtCut(const Build& b, FrameAsked& asked) {
    if (asked.spread) asked.now.hung.clear(); // nobody said what of it hangs on the frame
    std::erase_if(asked.now.hung, [&](const frame::Hung& h) {
        const Carried* c = carriedNamed(b, h.name);
        return c && c->with_body;
    });
    return frame::weightsOf(asked.now);
}
/// The two pairs nearest to an end, the nearer first.
std::optional<std::pair<double, double>> pairsNearest(const Build& b, const Half& half, double end_mm) {
    std::vector<double> at;
    for (const auto& [id, s] : b.stands)
        if (carriesStand(half, s)) at.push_back(s.station.value);
    if (at.size() < 2) return {};
    std::sort(at.begin(), at.end(), [&](double x, double y) { return std::abs(x - end_mm) < std::abs(y - end_mm); });
    return std::abs(at[0] - at[1]) < 1 ? std::nullopt : std::optional(std::pair(at[0], at[1]));
}

} // namespace

std::optional<PartWays> partWays(const Build& b, const Results& r) {
    if (b.stands.empty() || r.stretch->status != stretch::Status::Planned) return {};
    FrameAsked asked = frameAsked(b, r);
    if (!asked.waits.empty()) return {};
    const stretch::RailCut& cut = r.stretch->left.known ? r.stretch->left : r.stretch->right;
    const auto& rail = std::find_if(asked.now.lines.begin(), asked.now.lines.end(), [](const frame::Line& l) { return l.rail; });
    if (rail == asked.now.lines.end() || rail->pieces.empty()) return {};
    const auto walls = frame::wallsOf(rail->pieces.front().section);
    const auto section = walls ? frame::sectionOf(*walls) : Result<frame::Section>(walls.error());
    if (!section) return {};
    const double rails = r.stretch->spine ? 1 : 2;
    const double ei = rails * asked.now.material.e_mpa * section->level_mm4;
    const auto weights = weightsAtCut(b, asked);
    const Half ahead{"", "", -1e9, cut.first_station_mm}, behind{"", "", cut.last_station_mm, 1e9};
    const auto near = pairsNearest(b, ahead, ahead.to_mm), far = pairsNearest(b, behind, behind.from_mm);
    if (!near || !far) return {};
    const auto of = [&](const Half& half) {
        std::vector<frame::Weight> own;
        for (const frame::Weight& w : weights)
            if (w.at.x_mm >= half.from_mm && w.at.x_mm <= half.to_mm) own.push_back(w);
        return own;
    };
    const frame::EndMoves one = frame::endMoves(of(ahead), near->first, near->second, ahead.to_mm, ei);
    const frame::EndMoves two = frame::endMoves(of(behind), far->first, far->second, behind.from_mm, ei);
    PartWays p;
    p.step_mm = two.drops_mm - one.drops_mm;
    p.leans_deg = units::degrees(two.leans_rad - one.leans_rad);
    p.fast_mm = std::max(200.0, 2 * b.rail.height.value);
    const double free = 2 * p.fast_mm + (cut.last_station_mm - cut.first_station_mm);
    constexpr double enough_mm = 0.3, least_tie_mm = 40; // a thinner one is bent by whoever leans on it
    double least_kg = 1e9;
    const auto& sizes = frame::commonStock();
    for (std::size_t k = 0; k < sizes.size(); ++k) {
        const frame::Section& worth = frame::worthOfStock()[k];
        if (sizes[k].form != "box" || sizes[k].height != sizes[k].width || sizes[k].height < least_tie_mm ||
            worth.mass_kg_per_m >= least_kg)
            continue;
        const double left = std::abs(frame::stepWithTies(p.step_mm, one, two, asked.now.material.e_mpa * worth.level_mm4, free));
        if (left > enough_mm) continue;
        least_kg = worth.mass_kg_per_m;
        p.tube = sizes[k].name();
        p.left_mm = left;
    }
    return p;
}

std::vector<work::WorkedLift> halvesOnStands(const Build& b, const Results& r) {
    if (b.stands.empty() || r.stretch->status != stretch::Status::Planned) return {};
    const stretch::RailCut& cut = r.stretch->left.known ? r.stretch->left : r.stretch->right;
    const Half halves[] = {{"ahead-of-the-cut", "ahead of", -1e9, cut.first_station_mm},
                           {"behind-the-cut", "behind", cut.last_station_mm, 1e9}};
    std::vector<work::WorkedLift> list;
    FrameAsked asked = frameAsked(b, r);
    if (!asked.waits.empty()) {
        for (const Half& half : halves) {
            work::WorkedLift w;
            w.name = half.name;
            w.way = LiftWay::Stands;
            w.made = true;
            w.waits = asked.waits;
            w.remedy = asked.remedy;
            list.push_back(std::move(w));
        }
        return list;
    }
    std::vector<Doubt> doubts;
    if (b.carried.empty())
        doubts.push_back({"Nothing is said of what hangs on it: an engine or an axle on it is in no figure.",
                          "Say it before the saw: load engine 180 kg at -50 0 350."});
    for (const std::string& a : asked.assumed)
        if (a.ends_with("section") || a.ends_with("mass") || a.ends_with("section or place") || a.starts_with("the rails' "))
            doubts.push_back(
                {fmt::format("Its weight rests on what nobody measured: {}.", a), "Measure it, and say it without the ?."});
    for (const auto& [id, s] : b.stands)
        if (s.station.value > cut.first_station_mm && s.station.value < cut.last_station_mm)
            doubts.push_back({fmt::format("The pair {} stands under the piece that comes out: it carries neither half.", s.name),
                              fmt::format("Move it: stand {} at STATION.", s.name)});
    const auto weights = weightsAtCut(b, asked);
    for (const Half& half : halves) {
        const frame::Mass loaded = frame::massBetween(weights, half.from_mm, half.to_mm, true);
        const frame::Mass bare = frame::massBetween(weights, half.from_mm, half.to_mm, false);
        list.push_back(restOf(b, r, half, loaded, false, doubts));
        if (loaded.kg > bare.kg + 1) list.push_back(restOf(b, r, half, bare, true, doubts)); // it has to stand both ways
    }
    return list;
}

} // namespace gorvet::analysis
