// What stands beside the wheels, with ±, and which wheels fit between.
#include "drive/wheels_parts.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::drive {

using build::Provenance;
using build::RoomFrom;
using build::RoomOn;
using build::WheelSet;

const char* clearWord(PlanVerdict v) {
    return v == PlanVerdict::Holds ? "Clear" : v == PlanVerdict::Marginal ? "Tight" : "Fouls";
}

std::size_t WheelNumbers::take(const Figure& f, double step) {
    const double sigma = units::sigmaOfU95(f.u95);
    values_.push_back(f.value);
    variances_.push_back(sigma * sigma);
    steps_.push_back(step);
    return values_.size() - 1;
}

WheelNumbers::Wheel WheelNumbers::wheelOf(const std::optional<WheelSet>& set, double plate) {
    Wheel w;
    if (!set) return w;
    const WheelFigures f = figuresOf(*set);
    if (!f.offset_mm || !f.section_mm || !f.outside_mm) return w;
    w.there = true;
    w.plate_mm = plate;
    w.by_backspace = set->backspace.has_value();
    w.seat_mm = f.diameter_mm.value;
    w.at = take(w.by_backspace ? *f.backspace_mm : *f.offset_mm, 0.2);
    take(f.over_lips_mm, 0.2);
    take(*f.section_mm, 0.2);
    take(*f.outside_mm, 0.2);
    for (const Figure* each : {&*f.offset_mm, &*f.section_mm, &*f.outside_mm})
        w.assumed = w.assumed || each->provenance == Provenance::Assumed;
    return w;
}

WheelNumbers::WheelNumbers(const WheelsIn& in) : in_(in) {
    wheels_ = {wheelOf(in.fitted, 0), wheelOf(in.wanted, in.adaptor ? in.adaptor->thick.value : 0)};
    for (std::size_t side = 0; side < 2; ++side) {
        for (const TapedThing& t : in.corners[side].taped) {
            // a thing on both sides was taped on one, or on each: the figures of both sides are the same
            taped_[side].push_back(take(t.out_mm, 0.2));
            take(t.up_mm, 0.2);
            take(t.ahead_mm, 0.2);
        }
        for (const HubPose& pose : in.corners[side].poses) back_[side].push_back(geometry::inverse(pose.moved));
    }
    places_ = values_.size();
    for (const Vec3& at : in.places.at)
        for (std::size_t axis = 0; axis < 3; ++axis) take({at[axis], 0, Provenance::Derived}, 0.05);
}

double WheelNumbers::middleOf(const Wheel& w, const std::vector<double>& n) const {
    return w.plate_mm + (w.by_backspace ? n[w.at + 1] / 2 - n[w.at] : -n[w.at]);
}

TyreShape WheelNumbers::shapeOf(const Wheel& w, const std::vector<double>& n) const {
    return tyreShape(middleOf(w, n), n[w.at + 2], n[w.at + 3], w.seat_mm);
}

std::vector<SeenThing> WheelNumbers::seen(std::size_t side, const std::vector<double>& n, bool scans) const {
    const Corner& c = in_.corners[side];
    std::vector<SeenThing> all;
    const auto place = [&](std::size_t k) { return Vec3{n[places_ + 3 * k], n[places_ + 3 * k + 1], n[places_ + 3 * k + 2]}; };
    const double outwards = c.right ? 1 : -1;
    // the surveyed centre is that of the fitted wheel: the face it is bolted to stands out from it by its offset
    const double fitted = wheels_[0].there ? middleOf(wheels_[0], n) : 0;
    Vec3 face = place(c.centre);
    face.y_mm -= outwards * fitted;
    const auto through = [&](const RoomThing& thing, const Vec3& at) {
        SeenThing s;
        s.thing = thing;
        s.corner = side;
        for (std::uint32_t k = 0; k < back_[side].size(); ++k) {
            s.places.push_back(seenFrom(face, c.right, back_[side][k], at, k));
            if (thing.on == RoomOn::Hub) break; // it goes with the wheel
        }
        all.push_back(std::move(s));
    };
    for (std::size_t k = 0; k < c.taped.size(); ++k) {
        const TapedThing& t = c.taped[k];
        const std::size_t at = taped_[side][k];
        double out = n[at];
        if (t.from != RoomFrom::Face) {
            if (!wheels_[0].there) continue;
            const double half = (t.from == RoomFrom::Tyre ? n[wheels_[0].at + 2] : n[wheels_[0].at + 1]) / 2;
            out += fitted + (out < 0 ? -half : half);
        }
        // taped along the wheel as it stands: leaning, if it leans
        through(t, c.poses[0].moved.transformed({face.x_mm - n[at + 2], face.y_mm + outwards * out, face.z_mm + n[at + 1]}));
    }
    for (const MarkedThing& m : c.marked)
        if (wheels_[0].there) through(m, place(m.place));
    if (scans && wheels_[0].there) {
        double reach = 0;
        for (const Wheel& w : wheels_)
            if (w.there) reach = std::max(reach, n[w.at + 3] / 2);
        for (const ScannedThing& t : c.scanned) {
            all.push_back(seenScan(t, face, c.right, c.poses, reach + 80));
            all.back().corner = side;
        }
    }
    for (const CarriedThing& t : c.carried) {
        if (!scans || !wheels_[0].there) continue;
        SeenThing s;
        s.thing = t;
        s.corner = side;
        s.u95_mm = t.u95_mm;
        s.slack_mm = t.half_mm;
        for (std::uint32_t k = 0; k < back_[side].size() && k < t.at.size(); ++k)
            for (const Vec3& at : t.at[k]) s.places.push_back(seenFrom(face, c.right, back_[side][k], at, k));
        all.push_back(std::move(s));
    }
    return all;
}

std::vector<RoomClear> WheelNumbers::clearOf(const Wheel& w, const std::array<std::vector<SeenThing>, 2>& seen) const {
    std::vector<RoomClear> list;
    const TyreShape tyre = shapeOf(w, values_);
    for (std::size_t side = 0; side < 2; ++side)
        for (const SeenThing& s : seen[side]) {
            if (s.places.empty()) continue;
            const Nearest near = nearestOf(s, tyre);
            RoomClear c;
            c.corner = side;
            c.name = s.thing.name;
            c.tag = s.thing.tag;
            c.clear_mm = {near.mm, 0, s.thing.assumed || w.assumed ? Provenance::Assumed : Provenance::Derived};
            c.least_mm = s.thing.least_mm;
            c.least_assumed = s.thing.least_assumed;
            c.pose = in_.corners[side].poses[near.pose].words;
            c.out_mm = near.out_mm;
            c.from_mm = near.from_mm;
            c.outer = near.out_mm > tyre.middle_mm;
            list.push_back(std::move(c));
        }
    return list;
}

void WheelNumbers::clearances(WheelsPlan& p) const {
    for (std::size_t side = 0; side < 2; ++side) p.seen[side] = seen(side, values_, true);
    p.poses = in_.corners[0].poses.size();
    for (std::size_t which = 0; which < 2; ++which) {
        const Wheel& w = wheels_[which];
        if (!w.there) continue;
        std::vector<RoomClear>& list = which == 0 ? p.now : p.planned;
        list = clearOf(w, p.seen);
        // what is taped and marked by the law of propagation; of a scan the wheel's figures alone, and its own ± beside
        const std::size_t size = values_.size();
        std::vector<double> covariance(size * size, 0);
        for (std::size_t k = 0; k < size; ++k) covariance[k * size + k] = variances_[k];
        const std::size_t m = 3 * in_.places.at.size();
        for (std::size_t i = 0; i < m; ++i)
            for (std::size_t j = 0; j < m; ++j) covariance[(places_ + i) * size + places_ + j] = in_.places.covariance[i * m + j];
        const auto figures = build::figuresOf(values_, covariance, steps_, [&](const std::vector<double>& n) {
            std::vector<double> all;
            const TyreShape tyre = shapeOf(w, n);
            for (std::size_t side = 0; side < 2; ++side) {
                const auto moved = seen(side, n, false);
                for (std::size_t k = 0; k < p.seen[side].size(); ++k) {
                    const SeenThing& before = p.seen[side][k];
                    if (before.places.empty()) continue;
                    all.push_back(nearestOf(k < moved.size() ? moved[k] : before, tyre).mm);
                }
            }
            return all;
        });
        std::size_t at = 0;
        for (std::size_t side = 0; side < 2; ++side)
            for (const SeenThing& s : p.seen[side])
                if (!s.places.empty()) {
                    RoomClear& c = list[at];
                    // what a scan shows stands where the fitted wheel's middle is: its offset counts once more for another wheel
                    const double scan = s.slack_mm > 0 && which == 1 && p.fitted && p.fitted->offset_mm
                                            ? std::hypot(s.u95_mm, p.fitted->offset_mm->u95)
                                            : s.u95_mm;
                    c.clear_mm.u95 = std::hypot(figures.figures[at].u95, scan);
                    const double low = c.clear_mm.value - c.clear_mm.u95;

                    c.verdict = low < c.least_mm         ? PlanVerdict::Fails
                                : low < 1.5 * c.least_mm ? PlanVerdict::Marginal
                                                         : PlanVerdict::Holds;
                    ++at;
                }
    }
}

namespace {

/// Where the middle of a tyre of one width can't be: so often each tenth of a millimetre is forbidden, and by what at its ends.
class Forbidden {
public:
    Forbidden(double least, double most) : least_(least), counts_(static_cast<std::size_t>((most - least) * 10) + 2, 0) {
        low_.resize(counts_.size(), {1e9, nullptr, 0});
        high_.resize(counts_.size(), {-1e9, nullptr, 0});
    }
    void take(double from, double to, const SeenThing& by, std::uint32_t pose) {
        const double last = static_cast<double>(counts_.size() - 1);
        const double a = (from - least_) * 10, b = (to - least_) * 10;
        if (b <= 0 || a >= last) return;
        const auto first = static_cast<std::size_t>(std::clamp(std::ceil(a), 0.0, last)),
                   end = static_cast<std::size_t>(std::clamp(std::floor(b) + 1, 0.0, last));
        if (first >= end) return;
        ++counts_[first];
        --counts_[end];
        if (low_[first].by == nullptr || from < low_[first].at) low_[first] = {from, &by, pose};
        if (high_[end].by == nullptr || to > high_[end].at) high_[end] = {to, &by, pose};
    }
    struct Border {
        double at = 0;
        const SeenThing* by = nullptr;
        std::uint32_t pose = 0;
    };
    /// Calls with the lower and upper border of all that is free.
    template <class Call> void free(const Call& call) const {
        const std::size_t last = counts_.size() - 1;
        int depth = 0;
        std::optional<std::size_t> since;
        for (std::size_t k = 0; k <= last; ++k) {
            depth += counts_[k];
            const bool open = depth == 0 && k < last;
            if (open && !since) since = k;
            if (!open && since) {
                const Border from = *since == 0 && high_[0].by == nullptr ? Border{least_, nullptr, 0} : high_[*since];
                const Border to = k == last && low_[k].by == nullptr
                                      ? Border{least_ + static_cast<double>(last - 1) / 10, nullptr, 0}
                                      : low_[k];
                call(from, to);
                since.reset();
            }
        }
    }

private:
    double least_;
    std::vector<int> counts_;
    std::vector<Border> low_, high_; ///< where what is forbidden begins, and ends
};

} // namespace

WheelMap wheelMap(const WheelsIn& in, const WheelsPlan& p, std::size_t grid) {
    WheelMap map;
    const WheelFigures& shown = p.wanted && p.wanted->outside_mm && p.wanted->section_mm ? *p.wanted : *p.fitted;
    const auto& list = p.planned.empty() ? p.now : p.planned;
    const double section = shown.section_mm->value, plate = in.adaptor && in.wanted ? in.adaptor->thick.value : 0,
                 offset = shown.offset_mm                   ? shown.offset_mm->value
                          : p.fitted && p.fitted->offset_mm ? p.fitted->offset_mm->value
                                                            : 0;
    map.outside_mm = shown.outside_mm->value;
    map.least_section_mm = std::max(80.0, section - 60);
    map.most_section_mm = section + 80;
    map.least_offset_mm = offset - 70;
    map.most_offset_mm = offset + 70;
    if (const build::WheelSet* w = in.shown(); w->tyre) {
        const RimRange range = usualRims(w->aspect ? w->aspect->value : 80);
        map.least_on_rim_mm = shown.width_mm.value / range.most;
        map.most_on_rim_mm = shown.width_mm.value / range.least;
    }
    const double seat = shown.diameter_mm.value;
    for (std::size_t k = 0; k < grid; ++k) {
        MapColumn column;
        column.section_mm = map.least_section_mm + (map.most_section_mm - map.least_section_mm) * static_cast<double>(k) /
                                                       static_cast<double>(std::max<std::size_t>(1, grid - 1));
        const TyreShape tyre = tyreShape(0, column.section_mm, map.outside_mm, seat);
        for (const bool clear : {true, false}) {
            // the middle of the tyre stands inwards of the face by the offset, outwards by a plate
            Forbidden forbidden(plate - map.most_offset_mm, plate - map.least_offset_mm);
            std::size_t at = 0;
            for (std::size_t side = 0; side < 2; ++side)
                for (const SeenThing& s : p.seen[side]) {
                    if (s.places.empty()) continue;
                    const RoomClear& c = list[at++];
                    const double need = (clear ? 1.5 : 1.0) * s.thing.least_mm + c.clear_mm.u95 + s.slack_mm;
                    for (const RoomPlace& place : s.places)
                        if (const double half = tyre.halfAt(place.from_mm, need); half >= 0)
                            forbidden.take(place.out_mm - half, place.out_mm + half, s, place.pose);
                }
            const auto end = [&](const Forbidden::Border& b) {
                MapEnd e{plate - b.at, "", ""};
                if (b.by) {
                    const Corner& c = in.corners[b.by->corner];
                    e.name = fmt::format("{}, {}", b.by->thing.name, c.name);
                    e.pose = c.poses[b.pose].words;
                }
                return e;
            };
            forbidden.free([&](const Forbidden::Border& from, const Forbidden::Border& to) {
                (clear ? column.clear : column.free).push_back({end(to), end(from)});
            });
        }
        map.columns.push_back(std::move(column));
    }
    return map;
}

WheelsPlan wheelsPlan(const WheelsIn& in, std::size_t grid) {
    WheelsPlan p;
    p.name = in.name;
    if (in.fitted) p.fitted = figuresOf(*in.fitted);
    if (in.wanted) p.wanted = figuresOf(*in.wanted);
    if (p.fitted && p.wanted) p.change = changeOf(*p.fitted, *p.wanted);
    if (in.hub) p.hub_circle_mm = circleOf(in.hub->studs, in.hub->circle, in.hub->chord, in.hub->next_but_one);
    if (in.widening && p.fitted) p.band = bandPlan(*p.fitted, *in.widening);
    if (in.places.at.size() >= 2 && !in.corners[0].poses.empty()) WheelNumbers(in).clearances(p);
    if (grid > 0 && (!p.planned.empty() || !p.now.empty())) p.map = wheelMap(in, p, grid);
    judgeWheels(in, p);
    return p;
}

} // namespace gorvet::drive
