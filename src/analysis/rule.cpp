#include "analysis/views.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

/// What The Rule spans, in stations of the chassis frame.
struct Span {
    double from = 1e12;
    double to = -1e12;
    bool any() const { return from < to; }
    void reach(double x) {
        from = std::min(from, x);
        to = std::max(to, x);
    }
};

std::vector<std::pair<PointId, Vec3>> bodyPoints(const Results& r) {
    std::vector<std::pair<PointId, Vec3>> list;
    for (const PointId id : r.body.point_ids) {
        if (const auto seated = r.bodyInChassis(id))
            list.emplace_back(id, *seated);
        else if (const auto own = r.body.positionOf(id))
            list.emplace_back(id, *own); // not seated: in its own frame
    }
    return list;
}

Span spanOf(const Results& r) {
    Span s;
    for (const auto& p : r.chassis.solution->points)
        if (p.placed) s.reach(p.position.x_mm);
    for (const auto& [id, at] : bodyPoints(r)) s.reach(at.x_mm);
    return s;
}

class RuleDrafter {
public:
    RuleDrafter(const Build& b, const Results& r, const ViewOptions& o, double width, double height, const Format& f)
        : b_(b), r_(r), o_(o), f_(f) {
        d_.width = width;
        d_.height = height;
        span_ = spanOf(r);
        left_ = f.px(96);
        right_ = width - f.px(150);
        middle_ = height * 0.57;
        const double length = span_.any() ? span_.to - span_.from : 1;
        scale_ = (right_ - left_) / (length * 1.04);
    }

    double scale() const { return span_.any() ? scale_ : 0; }
    std::optional<double> station(double at) const {
        if (!span_.any() || scale_ <= 0) return std::nullopt;
        return (at - left_) / scale_ + span_.from - (span_.to - span_.from) * 0.02;
    }

    Drawing draw() {
        d_.add(Stroke{{{0, middle_}, {d_.width, middle_}}, false, {Ink::Ink, f_.medium(), Dash::Solid}});
        d_.add(Text{{f_.px(24), middle_ - f_.px(10)}, "body", f_.body(), Ink::Body});
        d_.add(Text{{f_.px(24), middle_ + f_.px(22)}, "chassis", f_.body(), Ink::Chassis});
        if (!span_.any()) {
            d_.add(Text{{left_ + f_.px(20), middle_ - f_.px(10)},
                        "The Rule shows body over chassis as soon as points have a place.",
                        f_.body(),
                        Ink::Second});
            return std::move(d_);
        }
        chassis();
        body();
        tags();
        fitWords();
        return std::move(d_);
    }

private:
    double x(double station) const { return left_ + (station - span_.from + (span_.to - span_.from) * 0.02) * scale_; }

    /// Ticks of an edge whose own zero stands at station `zero`; above or below the middle line.
    void ticks(double zero, double from, double to, bool above, Ink ink, double gap_at = 1e12, double gap = 0) {
        const bool inch = units::unitOf(b_.settings.length_step) == units::Unit::Inch;
        const double minor = inch ? 25.4 * 5 : 100;
        const double major = inch ? 25.4 * 20 : 500;
        const double sign = above ? -1 : 1;
        for (double own = std::ceil((from - zero) / minor) * minor; own <= to - zero + 1e-6; own += minor) {
            const double station = zero + own;
            if (station > gap_at && station < gap_at + gap) continue;
            const bool big = std::abs(std::remainder(own, major)) < minor / 10;
            d_.add(Stroke{{{x(station), middle_}, {x(station), middle_ + sign * f_.px(big ? 12 : 6)}},
                          false,
                          {ink, f_.thin() * (big ? 1.6 : 1), Dash::Solid}});
            if (!big) continue;
            const bool zero_mark = std::abs(own) < 1; // a wheel stands there: its figure goes to the left
            d_.add(Text{{x(station) + f_.px(zero_mark ? -11 : 3), middle_ + sign * f_.px(above ? 5 : 14)},
                        units::fixed(inch ? own / 25.4 : own, 0),
                        f_.px(11),
                        ink,
                        zero_mark ? Anchor::Right : Anchor::Left});
        }
    }

    void chassis() {
        const auto& plan = *r_.stretch;
        const bool planned = plan.status == stretch::Status::Planned;
        const stretch::RailCut& cut = plan.left.known ? plan.left : plan.right;
        double from = span_.from;
        double to = -1e12;
        for (const auto& p : r_.chassis.solution->points)
            if (p.placed) {
                from = std::min(from, p.position.x_mm);
                to = std::max(to, p.position.x_mm);
            }
        if (to < from) return;
        const double lift = middle_ + f_.px(25);
        const RailLine& rail = r_.rail_left.points.size() > 1 ? r_.rail_left : r_.rail_right;
        // the rail in side view, hanging below its edge
        Stroke line;
        line.pen = {Ink::Chassis, f_.thick(), Dash::Solid};
        const double z0 = rail.points.empty() ? 0 : rail.points.front().z_mm;
        for (const Vec3& p : rail.points)
            line.path.push_back({x(p.x_mm), lift - std::clamp((p.z_mm - z0) * scale_, -f_.px(4), f_.px(4))});
        if (line.path.size() > 1) d_.add(std::move(line));
        for (const bool rear : {false, true}) {
            const auto& f = r_.chassis.frame;
            for (const int i : {rear ? f.rear_hub_left : f.front_hub_left, rear ? f.rear_hub_right : f.front_hub_right}) {
                if (i < 0 || !r_.chassis.solution->points[i].placed) continue;
                d_.add(Circle{{x(r_.chassis.solution->points[i].position.x_mm), lift},
                              f_.px(9),
                              {Ink::Chassis, f_.medium(), Dash::Solid},
                              false,
                              true},
                       "wheelbase");
                break;
            }
        }
        if (planned) {
            // a cut opens or closes a gap in the lower edge
            const double width = plan.shortens ? cut.last_station_mm - cut.first_station_mm : cut.length_mm;
            const double a = x(cut.first_station_mm);
            const double e = plan.shortens ? x(cut.last_station_mm) : a;
            ticks(0, from, to, false, Ink::Chassis, cut.first_station_mm, plan.shortens ? width : 0);
            const std::string figure = units::formatLength(plan.shortens ? cut.length_mm : width, b_.settings.length_step);
            if (plan.shortens)
                d_.add(Hatch{{{a, middle_ + f_.px(2)}, {e, middle_ + f_.px(2)}, {e, lift + f_.px(5)}, {a, lift + f_.px(5)}},
                             {Ink::Remove, f_.thin() * 1.5, Dash::Solid},
                             f_.px(6),
                             false},
                       "cut");
            else
                d_.add(Stroke{{{a, middle_}, {a - f_.px(4), lift - f_.px(6)}, {a + f_.px(4), lift}, {a, lift + f_.px(8)}},
                              false,
                              {Ink::Remove, f_.medium(), Dash::Solid}},
                       "cut");
            d_.add(Text{{(a + e) / 2, d_.height - f_.px(3)},
                        (plan.shortens ? "take out " : "let in ") + figure,
                        f_.small(),
                        plan.shortens ? Ink::Remove : Ink::NewSteel,
                        Anchor::Centre},
                   "cut");
        } else {
            ticks(0, from, to, false, Ink::Chassis);
        }
        // mounts of the chassis that a body mount could lean to
        for (const auto& m : r_.mounts)
            if (m.on_rail && m.name.back() != 'r' && m.name.back() != 'R') {
                const double body_x = x(m.station_mm - m.lean_mm + o_.slide_mm);
                d_.add(Stroke{{{body_x, middle_ - f_.px(16)}, {x(m.station_mm), lift}},
                              false,
                              {std::abs(m.lean_mm) > 3 ? Ink::Warn : Ink::Second, f_.thin(), Dash::Dotted}});
            }
    }

    void body() {
        const auto points = bodyPoints(r_);
        if (points.empty()) return;
        double from = 1e12;
        double to = -1e12;
        std::vector<Vec3> outline;
        const double zero = (r_.seated() ? r_.seat->pose.shift.x_mm : 0) + o_.slide_mm;
        for (const auto& [id, at] : points) {
            from = std::min(from, at.x_mm + o_.slide_mm);
            to = std::max(to, at.x_mm + o_.slide_mm);
            if (b_.points.at(id).role == Role::Outline) outline.push_back(at);
        }
        ticks(zero, from, to, true, Ink::Body);
        std::sort(outline.begin(), outline.end(), [](const Vec3& a, const Vec3& c) { return a.x_mm < c.x_mm; });
        const double base = middle_ - f_.px(17);
        if (outline.size() > 1) {
            double low = 1e12;
            double high = -1e12;
            for (const Vec3& p : outline) {
                low = std::min(low, p.z_mm);
                high = std::max(high, p.z_mm);
            }
            const double z_scale = std::min(scale_, f_.px(22) / std::max(1.0, high - low));
            for (const double shift : {0.0, f_.px(3)}) {
                Stroke line;
                line.pen = {Ink::Body, f_.thin() * 1.3, Dash::Solid};
                for (const Vec3& p : outline)
                    line.path.push_back({x(p.x_mm + o_.slide_mm), base - (p.z_mm - low) * z_scale + shift});
                d_.add(std::move(line), "body-edge");
            }
        } else {
            for (const double shift : {0.0, f_.px(3)})
                d_.add(Stroke{{{x(from), base + shift}, {x(to), base + shift}}, false, {Ink::Body, f_.thin() * 1.3, Dash::Solid}},
                       "body-edge");
        }
        for (const Role role : {Role::ArchFront, Role::ArchRear})
            for (const auto& [id, at] : points)
                if (b_.points.at(id).role == role) {
                    d_.add(Circle{{x(at.x_mm + o_.slide_mm), middle_ - f_.px(11)},
                                  f_.px(9),
                                  {Ink::Body, f_.thin() * 1.5, Dash::Solid}},
                           "body-edge");
                    break;
                }
    }

    void tags() {
        struct Tag {
            double x;
            const Finding* finding;
        };
        std::vector<Tag> list;
        for (const Finding& f : r_.findings)
            if (f.station_mm && f.severity != Severity::Good) list.push_back({x(*f.station_mm), &f});
        std::stable_sort(list.begin(), list.end(),
                         [](const Tag& a, const Tag& c) { return a.finding->severity > c.finding->severity; });
        // worst in front: each takes the place nearest to its station that is still free
        std::vector<std::pair<double, double>> taken;
        int left_over = 0;
        for (const Tag& tag : list) {
            const double width = f_.px(24) + textWidth(tag.finding->brief, f_.small(), Face::Sans);
            double at = std::clamp(tag.x - f_.px(8), f_.px(8), d_.width - width - f_.px(90));
            bool free = false;
            for (int step = 0; step < 17 && !free; ++step) {
                const int away = (step + 1) / 2; // by turns to the right and to the left
                const double candidate =
                    std::clamp(at + (step % 2 ? 1 : -1) * away * f_.px(26), f_.px(8), d_.width - width - f_.px(90));
                free = std::none_of(taken.begin(), taken.end(),
                                    [&](const auto& t) { return candidate < t.second && candidate + width > t.first; });
                if (free) at = candidate;
            }
            if (!free) {
                ++left_over;
                continue;
            }
            taken.emplace_back(at, at + width + f_.px(6));
            const double y = f_.px(14);
            const auto index = tag.finding - r_.findings.data();
            const std::string name = fmt::format("finding:{}", index);
            d_.add(Stroke{{{at + f_.px(8), y + f_.px(6)}, {tag.x, y + f_.px(12)}, {tag.x, y + f_.px(17)}},
                          false,
                          {inkOf(tag.finding->severity), f_.thin(), Dash::Solid}},
                   name);
            addMark(d_, {at + f_.px(8), y - f_.px(2)}, f_.px(13), tag.finding->severity, name);
            d_.add(Text{{at + f_.px(20), y + f_.px(3)}, tag.finding->brief, f_.small(), inkOf(tag.finding->severity)}, name);
        }
        if (left_over)
            d_.add(Text{{d_.width - f_.px(12), f_.px(17)},
                        fmt::format("+{} more", left_over),
                        f_.small(),
                        Ink::Second,
                        Anchor::Right},
                   "findings");
    }

    void fitWords() {
        if (!r_.seat->change_mm && !r_.seat->change_both_centred_mm) return;
        const double apart = r_.seat->change_both_centred_mm.value_or(*r_.seat->change_mm);
        const std::string figure = units::formatLength(std::abs(apart), b_.settings.length_step);
        const double right = d_.width - f_.px(20);
        if (std::abs(apart) < 0.5) {
            d_.add(Text{{right, middle_ - f_.px(10)}, "wheels fit", f_.small(), Ink::Good, Anchor::Right}, "wheelbase");
            return;
        }
        d_.add(Text{{right, middle_ - f_.px(24)}, "arches " + figure, f_.small(), Ink::Second, Anchor::Right}, "wheelbase");
        d_.add(Text{{right, middle_ - f_.px(8)},
                    apart < 0 ? "closer than axles" : "wider than axles",
                    f_.small(),
                    Ink::Second,
                    Anchor::Right},
               "wheelbase");
    }

    const Build& b_;
    const Results& r_;
    const ViewOptions& o_;
    Format f_;
    Drawing d_;
    Span span_;
    double left_ = 0;
    double right_ = 0;
    double middle_ = 0;
    double scale_ = 1;
};

} // namespace

Drawing ruleView(const Build& b, const Results& r, const ViewOptions& o, double width, double height, const Format& f) {
    return RuleDrafter(b, r, o, width, height, f).draw();
}

double ruleScale(const Build& b, const Results& r, double width, const Format& f) {
    const ViewOptions none;
    return RuleDrafter(b, r, none, width, 1, f).scale();
}

std::optional<double> ruleStation(const Build& b, const Results& r, double width, double at, const Format& f) {
    const ViewOptions none;
    return RuleDrafter(b, r, none, width, 1, f).station(at);
}

} // namespace gorvet::analysis
