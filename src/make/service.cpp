#include "make/service.hpp"

#include "make/service_room.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

#include <fmt/format.h>
#include <fmt/ranges.h>

namespace gorvet::make {

using build::PlanVerdict;
using geometry::plus;
using geometry::times;

namespace {

/// What a way of a fastener lacks, the worst first found; `code` empty: nothing.
struct Lack {
    std::string code;
    double has = 0, needs = 0;
    int by = -1;
    explicit operator bool() const { return !code.empty(); }
};

/// A fastener with what stands round both of its ends.
class Bolted {
public:
    Bolted(const Fastener& f, const std::vector<ServiceBody>& bodies, const std::vector<geometry::Box3>& boxes)
        : f_(f), size_(*boltSize(f.bolt_mm)), rooms_{room(false), room(true)} {
        geometry::Box3 near;
        const double far = std::max(reach(), depth()) + f.grip_mm;
        for (const double d : {-far, far}) near.take(plus(f.head, {d, d, d}));
        for (std::size_t k = 0; k < bodies.size(); ++k)
            if (boxes[k].meets(near) && !(f.there && bodies[k].given))
                for (AxisRoom& r : rooms_) r.add(*bodies[k].mesh, static_cast<int>(k), bodies[k].slack_mm, bodies[k].closed);
    }

    const Fastener& fastener() const { return f_; }
    double tail() const { return std::max(0.0, f_.length_mm - f_.grip_mm - (f_.captive ? 1 : 2) * size_.washer_thickness); }
    double drawNeeds() const { return f_.length_mm + draw_spare_mm; }
    double nutNeeds() const { return f_.captive ? tail() : size_.washer_thickness + std::max(tail(), size_.nut) + fingers_mm; }

    /// Whether it goes in, is tightened and comes out, all round with so much to spare; `turned`: its head where its nut was.
    Lack lack(bool turned, const std::vector<char>& gone, double spare, bool as_captive = false) const {
        const std::size_t head = turned ? 1 : 0, nut = 1 - head;
        if (const auto out = draw(head, drawNeeds() + spare, gone, spare); out.by >= 0)
            return {"bolt-trapped", out.length_mm + from(), drawNeeds(), out.by};
        const bool captive = f_.captive || as_captive;
        if (f_.captive) {
            // what stands out behind the nut needs room there; before that is the nut itself
            if (const double nut_high = size_.nut, ends = tail() + spare; ends > nut_high)
                if (const auto end = rooms_[nut].free(f_.bolt_mm / 2 + spare, nut_high, ends, gone); end.by >= 0)
                    return {"bolt-bottoms", end.length_mm + nut_high, tail(), end.by};
        } else if (!captive) {
            if (const auto on = rooms_[nut].free(corners() + spare, from(), nutNeeds() + spare, gone); on.by >= 0)
                return {"bolt-captive", on.length_mm + from(), nutNeeds(), on.by};
        }
        const auto [turn_head, hold_head] = tools(head, gone, spare, true);
        const auto [turn_nut, hold_nut] = captive ? std::pair{false, true} : tools(nut, gone, spare, false);
        if ((turn_head && hold_nut) || (turn_nut && hold_head)) return {};
        if (turn_head && !hold_nut) return {"bolt-spins", 0, 0, firstOf(swing(nut, gone, spare, false).by)};
        return {"bolt-tool", swing(head, gone, spare, true).widest_rad, least_swing_rad,
                firstOf(swing(head, gone, spare, true).by)};
    }

    AxisRoom::Free draw(std::size_t end, double needs, const std::vector<char>& gone, double spare) const {
        return rooms_[end].free(corners() + spare, from(), needs, gone);
    }
    AxisRoom::Swing swing(std::size_t end, const std::vector<char>& gone, double spare, bool head) const {
        const double flats = size_.across_flats;
        return rooms_[end].swing(ring_of_flats * flats + spare, half_handle_of_flats * flats + spare,
                                 handle_of_flats * flats + spare, from(), from() + (head ? 0.65 * f_.bolt_mm : size_.nut) + spare,
                                 gone);
    }
    bool socket(std::size_t end, const std::vector<char>& gone, double spare) const {
        return rooms_[end].free(ring_of_flats * size_.across_flats + spare, from(), socket_mm + spare, gone).by < 0;
    }
    const AxisRoom& room(std::size_t end) const { return rooms_[end]; }
    double from() const { return size_.washer_thickness * 0.9; }

private:
    double reach() const { return handle_of_flats * size_.across_flats + 10; }
    double depth() const { return std::max(f_.length_mm + 200, socket_mm) + 20; }
    AxisRoom room(bool of_nut) const {
        return {of_nut ? plus(f_.head, times(f_.along, f_.grip_mm)) : f_.head, times(f_.along, of_nut ? 1 : -1), reach(),
                depth()};
    }
    /// From the middle of a hexagon to its corners, and a washer that comes with it.
    double corners() const { return std::max(size_.across_flats / std::numbers::sqrt3, size_.washer_outside / 2); }
    /// Whether a tool turns that end, and whether one holds it.
    std::pair<bool, bool> tools(std::size_t end, const std::vector<char>& gone, double spare, bool head) const {
        if (socket(end, gone, spare)) return {true, true};
        const auto s = swing(end, gone, spare, head);
        return {s.widest_rad >= least_swing_rad, s.widest_rad > 0.02};
    }
    static int firstOf(const std::vector<int>& by) { return by.empty() ? -1 : by.front(); }

    const Fastener& f_;
    BoltSize size_;
    std::array<AxisRoom, 2> rooms_;
};

class Service {
public:
    explicit Service(const ServiceIn& in) : in_(in), on_(in.bodies.size(), 0), gone_(on_) {
        std::vector<geometry::Box3> boxes(in.bodies.size());
        for (std::size_t k = 0; k < boxes.size(); ++k)
            for (const auto& p : in.bodies[k].mesh->points) boxes[k].take(p);
        bolts_.reserve(in.fasteners.size());
        for (const Fastener& f : in.fasteners) bolts_.emplace_back(f, in.bodies, boxes);
        p_.rows.resize(bolts_.size());
    }

    ServicePlan plan() {
        for (std::size_t k = 0; k < bolts_.size(); ++k) describe(k);
        for (int round = 1; takeOut(round); ++round) {}
        for (std::size_t k = 0; k < bolts_.size(); ++k) judge(k);
        for (const ServiceBody& body : in_.bodies)
            if (body.comes_off && !gone_[index(body.name)]) p_.stays.push_back(body.name);
        for (const ServiceBody& body : in_.bodies) p_.looked_at.push_back(body.name);
        p_.not_looked_at = in_.not_looked_at;
        p_.verdict = PlanVerdict::Holds;
        for (const FastenerRow& row : p_.rows) p_.verdict = std::max(p_.verdict, row.verdict);
        if (p_.rows.empty()) p_.verdict = PlanVerdict::Marginal;
        return std::move(p_);
    }

private:
    std::size_t index(const std::string& name) const {
        for (std::size_t k = 0; k < in_.bodies.size(); ++k)
            if (in_.bodies[k].name == name) return k;
        return in_.bodies.size();
    }
    std::string name(int body) const { return body < 0 ? "" : in_.bodies[static_cast<std::size_t>(body)].name; }

    void describe(std::size_t k) {
        const Bolted& b = bolts_[k];
        const Fastener& f = b.fastener();
        FastenerRow& row = p_.rows[k];
        row.name = f.name;
        row.group = f.group;
        row.tag = f.tag;
        row.bolt_mm = f.bolt_mm;
        row.length_mm = f.length_mm;
        row.grip_mm = f.grip_mm;
        row.captive = f.captive;
        row.assumed = f.assumed;
        row.at = plus(f.head, times(f.along, f.grip_mm / 2));
        for (std::size_t end = 0; end < 2; ++end) {
            FastenerEnd& e = row.ends[end];
            e.need_mm = end == 0 ? b.drawNeeds() : b.nutNeeds();
            const auto free = b.draw(end, e.need_mm, on_, 0);
            e.free_mm = free.by < 0 ? e.need_mm : free.length_mm + b.from();
            e.blocked_by = name(free.by);
            if (end == 1 && f.captive) continue;
            const auto swing = b.swing(end, on_, 0, end == 0);
            e.arcs = swing.arcs;
            e.swing_rad = swing.widest_rad;
            for (const int by : swing.by) e.tool_blocked_by.push_back(name(by));
            e.socket = b.socket(end, on_, 0);
        }
    }

    /// The way in which it comes out now; none.
    std::optional<bool> wayOut(const Bolted& b, const std::vector<char>& gone, double spare) const {
        if (!b.lack(false, gone, spare)) return false;
        if (b.fastener().either && !b.fastener().captive && !b.lack(true, gone, spare)) return true;
        return std::nullopt;
    }

    /// Every fastener that comes out now, then what is held by none any more. False when nothing changed.
    bool takeOut(int round) {
        bool any = false;
        for (std::size_t k = 0; k < bolts_.size(); ++k) {
            FastenerRow& row = p_.rows[k];
            if (row.round) continue;
            if (const auto way = wayOut(bolts_[k], gone_, 0)) {
                row.round = round;
                row.turned = *way;
                any = true;
                if (round > 1) after(bolts_[k], row);
            }
        }
        std::vector<std::string> off;
        for (std::size_t body = 0; body < in_.bodies.size(); ++body) {
            if (!in_.bodies[body].comes_off || gone_[body]) continue;
            bool held = false, holds = false;
            for (std::size_t k = 0; k < bolts_.size(); ++k) {
                const auto& list = in_.fasteners[k].holds;
                if (std::find(list.begin(), list.end(), in_.bodies[body].name) == list.end()) continue;
                holds = true;
                held = held || !p_.rows[k].round;
            }
            if (holds && !held) off.push_back(in_.bodies[body].name);
        }
        for (const std::string& one : off) gone_[index(one)] = 1;
        if (!off.empty()) p_.off.push_back(off);
        return any || !off.empty();
    }

    /// What of all that is off must be off for it.
    void after(const Bolted& b, FastenerRow& row) const {
        std::vector<char> needed = gone_;
        for (std::size_t body = 0; body < needed.size(); ++body) {
            if (!needed[body]) continue;
            needed[body] = 0;
            if (!wayOut(b, needed, 0)) needed[body] = 1;
        }
        for (std::size_t body = 0; body < needed.size(); ++body)
            if (needed[body]) row.after.push_back(in_.bodies[body].name);
    }

    build::Remark& add(FastenerRow& row, const char* code, PlanVerdict verdict, std::string sentence, std::string remedy) {
        row.remarks.push_back({code, verdict, std::move(sentence), std::move(remedy), "", ""});
        return row.remarks.back();
    }

    void judge(std::size_t k) {
        const Bolted& b = bolts_[k];
        FastenerRow& row = p_.rows[k];
        if (row.round == 0) {
            never(b, row);
        } else {
            const std::vector<char>& then = row.after.empty() ? on_ : gone_;
            if (!row.after.empty())
                add(row, "bolt-after", PlanVerdict::Marginal,
                    fmt::format("It comes out only once {} is off.", fmt::join(row.after, " and ")),
                    "Put it in before that goes on; or give it room now, while nothing is welded.");
            if (row.turned)
                add(row, "bolt-turned", PlanVerdict::Marginal,
                    fmt::format("It goes in the other way round only: where its head was planned {} mm are free, {} needed.",
                                fmt::format("{:.0f}", row.ends[0].free_mm), fmt::format("{:.0f}", row.ends[0].need_mm)),
                    "Head where the nut was planned: mark it on the part.");
            if (!wayOut(b, then, service_spare_mm))
                add(row, "bolt-tight", PlanVerdict::Marginal,
                    fmt::format("It has its room, but not with {:g} mm to spare all round.", service_spare_mm),
                    "Try it with the parts tacked, before they are welded.");
        }
        row.verdict = in_.not_looked_at.empty() && row.assumed.empty() ? PlanVerdict::Holds : PlanVerdict::Marginal;
        for (const build::Remark& r : row.remarks) row.verdict = std::max(row.verdict, r.verdict);
    }

    /// Why it never comes out, and the least that mends it.
    void never(const Bolted& b, FastenerRow& row) {
        const Lack lack = b.lack(false, gone_, 0);
        const Fastener& f = b.fastener();
        const std::string by = lack.by < 0 ? "what stands there" : name(lack.by);
        const bool captive_mends = !f.captive && !b.lack(false, gone_, 0, true);
        if (lack.code == "bolt-trapped") {
            std::string mend = shorter(b, lack.has);
            add(row, "bolt-trapped", PlanVerdict::Fails,
                fmt::format("It can't be drawn: {:.0f} mm are free before {}, it needs {:.0f}.", lack.has, by, lack.needs), mend)
                .of(fmt::format("{:.0f} mm", lack.has), fmt::format("≥ {:.0f} mm", lack.needs));
        } else if (lack.code == "bolt-captive") {
            add(row, "bolt-captive", PlanVerdict::Fails,
                fmt::format("Its nut can't be put on: {:.0f} mm are free before {}, it needs {:.0f}.", lack.has, by, lack.needs),
                captive_mends ? "Weld a captive nut there beforehand, square to its hole, before that is closed."
                              : "A captive nut, and room for a tool at its head.")
                .of(fmt::format("{:.0f} mm", lack.has), fmt::format("≥ {:.0f} mm", lack.needs));
        } else if (lack.code == "bolt-spins") {
            add(row, "bolt-spins", PlanVerdict::Fails,
                fmt::format("Its nut can be put on, but nothing holds it while it is turned: {} is in the way.", by),
                "An anti-spin tab: a nut on a strip that stands against an edge; or a captive nut.");
        } else if (lack.code == "bolt-bottoms") {
            add(row, "bolt-bottoms", PlanVerdict::Fails,
                fmt::format("Behind its nut {:.0f} mm are free before {}, and it stands out {:.0f}.", lack.has, by, lack.needs),
                "A shorter bolt.")
                .of(fmt::format("{:.0f} mm", lack.has), fmt::format("≥ {:.0f} mm", lack.needs));
        } else {
            const double turn = lack.has * 180 / std::numbers::pi;
            add(row, "bolt-tool", PlanVerdict::Fails,
                fmt::format("No tool turns it: a spanner has {:.0f}° at its head before {}, a socket no way to it.", turn, by),
                captive_mends ? "Fix its nut beforehand: then it is tightened from its head alone."
                              : "Move it, or open a way for a socket: an access hole, closed afterwards.")
                .of(fmt::format("{:.0f}°", turn), "≥ 30°");
        }
    }

    /// A shorter bolt that would come out, or what must be opened.
    std::string shorter(const Bolted& b, double free) const {
        const Fastener& f = b.fastener();
        const BoltSize& size = *boltSize(f.bolt_mm);
        const auto least = boltLength(size, f.grip_mm);
        if (least && *least < f.length_mm && *least + draw_spare_mm <= free)
            return fmt::format("A bolt of {:g} is long enough, and comes out.", *least);
        if (f.either && !f.captive)
            return "A stud or a captive bolt there; or what stands in its way is bolted on instead of welded.";
        return "What stands in its way is bolted on instead of welded, or gets an access hole on the bolt's axis.";
    }

    const ServiceIn& in_;
    std::vector<Bolted> bolts_;
    std::vector<char> on_, gone_;
    ServicePlan p_;
};

} // namespace

bool ServiceBody::operator==(const ServiceBody& o) const {
    return name == o.name && slack_mm == o.slack_mm && closed == o.closed && given == o.given && touch_mm == o.touch_mm &&
           comes_off == o.comes_off && (mesh == o.mesh || (mesh && o.mesh && *mesh == *o.mesh));
}

ServicePlan servicePlan(const ServiceIn& in) { return Service(in).plan(); }

} // namespace gorvet::make
