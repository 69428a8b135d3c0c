// Where the rails could be cut: every station between the axles, scored with reasons. engineering.md, Stretch.
#include "stretch/parts.hpp"

#include <algorithm>
#include <cmath>
#include <optional>

#include <fmt/format.h>

namespace gorvet::stretch {
namespace {

constexpr double grid_mm = 10;
constexpr double apart_mm = 150;
constexpr size_t most = 5;
constexpr double unmarked_mm = 600;
constexpr double unmarked_most = 5; ///< score of a place where nothing is marked

std::string figure(double v) { return units::fixed(v, 0); }

/// How far a straight sleeve would stray from a rail that bends inside its reach: the largest distance of a rail point from
/// the rail's own line at the cut, in side view and in plan.
double strayOver(const build::RailLine& rail, double from, double to, double cut) {
    const auto at = rail.at(cut);
    if (!at) return 1e9;
    const auto line = [&](double x) {
        const double dx = x - cut;
        return std::pair{at->top_mm - dx * std::tan(at->slope_rad), at->y_mm + dx * std::tan(at->plan_angle_rad)};
    };
    double most_stray = 0;
    const auto look = [&](double x) {
        if (const auto here = rail.at(x)) {
            const auto [top, y] = line(x);
            most_stray = std::max({most_stray, std::abs(here->top_mm - top), std::abs(here->y_mm - y)});
        }
    };
    look(from);
    look(to);
    for (const auto& p : rail.points)
        if (p.x_mm > from && p.x_mm < to) look(p.x_mm);
    return most_stray;
}

class Scorer {
public:
    Scorer(const Plan& p, const Input& in) : p_(p), in_(in), height_(std::max(in.left.height_mm, in.right.height_mm)) {
        overlap_ = in.overlap_heights * height_;
        standing_ = withAxles(in);
    }

    /// With its reasons in words, or for its score alone: the stations that are weighed are many, those that are shown few.
    Candidate at(double station, bool in_words) const {
        Candidate c;
        c.station_mm = station;
        const double last = station + (p_.shortens ? std::abs(p_.change_mm) + in_.root_gap_mm : 0);
        const auto refuse = [&](const auto& why) {
            c.refused = in_words ? std::string(why()) : "refused";
            c.score = 0;
            return c;
        };
        if (in_.heat_treated) return refuse([] { return "the rails may not be welded"; });
        const bool tail = in_.rear_axle_mm && station > *in_.rear_axle_mm;
        if ((in_.front_axle_mm && station <= *in_.front_axle_mm) || (in_.rear_axle_mm && !tail && last >= *in_.rear_axle_mm))
            return refuse([] { return "outside the wheelbase"; });
        for (const build::RailLine* rail : {&in_.left, &in_.right})
            if (!rail->at(station) || !rail->at(last)) return refuse([] { return "the rails are not measured there"; });
        double nearest = 1e9;
        const Obstacle* nearest_thing = nullptr;
        for (const Obstacle& o : standing_) {
            const double distance = std::max(station - o.station_mm, o.station_mm - last) - o.half_mm;
            if (distance < nearest) {
                nearest = distance;
                nearest_thing = &o;
            }
        }
        if (nearest < 0)
            return refuse([&] { return fmt::format("the {} {} stands there", nearest_thing->what, nearest_thing->name); });
        double stray = 0;
        double slope = 0;
        for (const build::RailLine* rail : {&in_.left, &in_.right}) {
            stray = std::max(stray, strayOver(*rail, station - overlap_, last + overlap_, station));
            slope = std::max(slope, std::abs(rail->at(station)->slope_rad));
        }
        const double sideways = std::max(std::abs(sidewaysOf(in_.left, station, p_.change_mm, last)),
                                         std::abs(sidewaysOf(in_.right, station, p_.change_mm, last)));
        if (sideways > in_.sleeve_fit_mm + 3 && !in_.stepped) // else it is made into the joint
            return refuse([&] {
                return fmt::format("the rails run apart in plan: their ends would stand {} mm beside each other",
                                   figure(sideways));
            });
        if (stray > in_.sleeve_fit_mm + 3)
            return refuse([&] { return fmt::format("the rail bends {} mm away inside the sleeve's reach", figure(stray)); });
        c.score = 10;
        const auto say = [&](const auto& why) {
            if (in_words) c.reasons.emplace_back(why());
        };
        const auto take = [&](double points, const auto& why) {
            c.score -= points;
            say([&] { return fmt::format("{} (−{})", why(), units::fixed(points, 1)); });
        };
        if (stray > in_.sleeve_fit_mm)
            take(std::min(3.0, stray - in_.sleeve_fit_mm),
                 [&] { return fmt::format("the rail bends {} mm inside the sleeve's reach", units::fixed(stray, 1)); });
        else
            say([] { return "straight over the sleeve's reach"; });
        if (sideways > in_.sleeve_fit_mm)
            take(std::min(4.0, 1 + sideways - in_.sleeve_fit_mm), [&] {
                return fmt::format("the rails run apart in plan: their ends stand {} mm beside each other",
                                   units::fixed(sideways, 1));
            });
        if (nearest_thing && nearest < p_.clearance_need_mm)
            take(4 * (1 - nearest / p_.clearance_need_mm), [&] {
                return fmt::format("{} from the {} {}, {} wanted", figure(nearest), nearest_thing->what, nearest_thing->name,
                                   figure(p_.clearance_need_mm));
            });
        else if (nearest_thing && nearest < unmarked_mm)
            say([&] { return fmt::format("{} clear of the {} {}", figure(nearest), nearest_thing->what, nearest_thing->name); });
        if (!nearest_thing || nearest >= unmarked_mm)
            say([&] { return fmt::format("nothing is marked within {}: look what stands there", figure(unmarked_mm)); });
        if (slope > units::radians(1))
            take(std::min(2.0, units::degrees(slope) - 1) * 0.75,
                 [&] { return fmt::format("the rail slopes {}°", units::fixed(units::degrees(slope), 1)); });
        bending(station, last, take);
        // where nobody looked nothing is good
        if (!nearest_thing || nearest >= unmarked_mm) c.score = std::min(c.score, unmarked_most);
        int runners = 0;
        for (const Runner& r : in_.runners)
            runners += r.presence == build::Presence::Present && !(r.starts_mm && *r.starts_mm > last) &&
                       !(r.ends_mm && *r.ends_mm < station);
        if (runners > 0) take(0.2 * runners, [&] { return fmt::format("{} lines and shafts cross", runners); });
        c.score = std::max(0.0, std::round(10 * c.score) / 10);
        return c;
    }

private:
    /// Bending moment and shear of a beam under even load between the axles, as shares of their largest: what a frame without
    /// known loads can be taken for. Assumed, and said so.
    void bending(double station, double last, const auto& take) const {
        if (!in_.front_axle_mm || !in_.rear_axle_mm || *in_.rear_axle_mm <= *in_.front_axle_mm || station > *in_.rear_axle_mm)
            return;
        const double span = *in_.rear_axle_mm - *in_.front_axle_mm;
        const double x = ((station + last) / 2 - *in_.front_axle_mm) / span;
        const double moment = 4 * x * (1 - x);
        const double shear = std::abs(1 - 2 * x);
        take(1.5 * moment + 0.8 * shear, [&] {
            return fmt::format("about {} % of the largest bending, {} % of the largest shear, for an even load",
                               figure(100 * moment), figure(100 * shear));
        });
    }

    const Plan& p_;
    const Input& in_;
    double height_;
    double overlap_;
    std::vector<Obstacle> standing_;
};

} // namespace

std::vector<Obstacle> withAxles(const Input& in) {
    std::vector<Obstacle> all = in.obstacles;
    // springs, links and steering stand about the axles whether they were marked or not
    const auto axle = [&](const char* which, const std::optional<double>& station) {
        if (station) all.push_back({which, "axle line", *station});
    };
    axle("front", in.front_axle_mm);
    axle("rear", in.rear_axle_mm);
    return all;
}

double sidewaysOf(const build::RailLine& rail, double station, double change, double last) {
    const auto at = rail.at(station);
    if (!at) return 0;
    if (change > 0) return -change * std::tan(at->plan_angle_rad); // the piece let in runs on as the rail does
    const auto rear = rail.at(last);
    return rear ? rear->y_mm - at->y_mm : 0;
}

void findStations(Plan& p, const Input& in) {
    const double from = std::max({in.left.front(), in.right.front(), in.front_axle_mm.value_or(-1e9)});
    const double to = std::min({in.left.rear(), in.right.rear(), in.rear_axle_mm.value_or(1e9)});
    if (in.left.points.size() < 2 || in.right.points.size() < 2 || !(to > from) || to - from > 20000) return;
    const Scorer scorer(p, in);
    std::vector<Candidate> all;
    for (double x = std::ceil(from / grid_mm) * grid_mm; x <= to; x += grid_mm)
        if (Candidate c = scorer.at(x, false); c.refused.empty()) all.push_back(std::move(c));
    std::stable_sort(all.begin(), all.end(), [](const Candidate& a, const Candidate& b) { return a.score > b.score; });
    for (const Candidate& c : all) {
        if (p.candidates.size() == most) break;
        const bool near = std::any_of(p.candidates.begin(), p.candidates.end(),
                                      [&](const Candidate& o) { return std::abs(o.station_mm - c.station_mm) < apart_mm; });
        if (!near) p.candidates.push_back(scorer.at(c.station_mm, true));
    }
    const auto add = [&p](const char* code, std::string sentence, std::string remedy) -> Remark& {
        return p.remarks.emplace_back(Remark{code, build::PlanVerdict::Marginal, std::move(sentence), std::move(remedy), {}, {}});
    };
    if (p.candidates.empty())
        add("no-station", "No station between the axles suits a cut: something stands or the rail bends everywhere.",
            "Plan a new place for a mount or crossmember, or join in another way with a licensed person.")
            .of("0 stations", "1 station");
    if (!in.cut_station_mm) return;
    p.chosen = scorer.at(*in.cut_station_mm, true);
    if (p.candidates.empty()) return;
    const Candidate& best = p.candidates.front();
    if (!p.chosen->refused.empty())
        add("station-refused", fmt::format("The cut does not suit at {}: {}.", figure(*in.cut_station_mm), p.chosen->refused),
            fmt::format("Cut at {}: it scores {} of 10.", figure(best.station_mm), units::fixed(best.score, 1)))
            .of("0.0 of 10", units::fixed(best.score, 1) + " of 10");
    else if (best.score >= p.chosen->score + 1)
        add("better-station",
            fmt::format("A cut at {} scores {} of 10, this one {}.", figure(best.station_mm), units::fixed(best.score, 1),
                        units::fixed(p.chosen->score, 1)),
            fmt::format("Cut at {}, or keep this one if {} is out of reach for your tools.", figure(best.station_mm),
                        figure(best.station_mm)))
            .of(units::fixed(p.chosen->score, 1) + " of 10", units::fixed(best.score, 1) + " of 10");
}

} // namespace gorvet::stretch
