#include "stretch/spine.hpp"

#include "stretch/parts.hpp"
#include "stretch/sheet_plugs.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::stretch {
namespace {

using build::PlanVerdict;

constexpr double usual_stagger = 150;
constexpr double working_MPa = 210 / 1.5;
constexpr double least_saddle_mm = 1.5;
constexpr double neutral = 0.44; ///< of the wall, where a bend of sheet keeps its length
constexpr double pan_clear = 60; ///< of a pan's cut from what stands on it
constexpr double pan_strip = 40;
constexpr double window_long = 140, window_most = 90, window_apart = 40, cover_lap = 20, screw_pitch = 40;

std::string shown(double v, int decimals = 0) { return units::fixed(v, decimals) + " mm"; }

class Spine {
public:
    Spine(Plan& p, const Input& in) : p_(p), in_(in), s_(*in.spine), rail_(in.left), at_(p.left) {}

    void make() {
        plan_.inside = s_.inside;
        cuts();
        saddle();
        plugs();
        pans();
        windows();
        p_.spine = std::move(plan_);
    }

private:
    Remark& add(const char* code, PlanVerdict v, std::string sentence, std::string remedy) {
        p_.remarks.push_back({code, v, std::move(sentence), std::move(remedy), "", ""});
        return p_.remarks.back();
    }

    void cuts() {
        // a piece that is let in has a weld at either end, and so has each pan's: none may end beside one of the spine's
        const double let_in = p_.shortens ? 0 : p_.change_mm;
        const auto apart = [&](double stagger) { return let_in > 0 ? std::min(stagger, std::abs(stagger - let_in)) : stagger; };
        plan_.stagger_mm = s_.stagger_mm.value_or(apart(usual_stagger) >= spine_stagger ? usual_stagger : let_in + spine_stagger);
        plan_.apart_mm = apart(plan_.stagger_mm);
        const auto moved = [&](const char* name, double by) {
            return SpineCut{name, at_.first_station_mm + by, at_.last_station_mm + by};
        };
        plan_.cuts = {moved("spine", 0), moved("left pan", -plan_.stagger_mm), moved("right pan", plan_.stagger_mm)};
        // what comes out goes along each flank, too
        const double piece = at_.last_station_mm - at_.first_station_mm;
        plan_.slit_mm = {plan_.stagger_mm + piece, plan_.stagger_mm + piece};
        const bool one_line = plan_.apart_mm < spine_stagger_least;
        if (plan_.apart_mm < spine_stagger)
            add("spine-stagger", one_line ? PlanVerdict::Fails : PlanVerdict::Marginal,
                fmt::format("With a stagger of {} welds of spine and pans stand {} from each other: {}.", shown(plan_.stagger_mm),
                            shown(plan_.apart_mm), one_line ? "one weld line runs right through" : "that is close"),
                fmt::format("100 mm at the least between any two, with both ends of what is let in: stagger {}.",
                            shown(apart(usual_stagger) >= spine_stagger ? usual_stagger : let_in + spine_stagger)))
                .of(shown(plan_.apart_mm), shown(spine_stagger));
        for (const Obstacle& o : in_.obstacles)
            for (std::size_t pan = 1; pan < plan_.cuts.size(); ++pan) {
                const SpineCut& c = plan_.cuts[pan];
                const double away = std::max(c.first_mm - o.station_mm, o.station_mm - c.last_mm) - o.half_mm;
                if (away >= pan_clear) continue;
                add("spine-pan-near", away <= 0 ? PlanVerdict::Fails : PlanVerdict::Marginal,
                    fmt::format("The {} would be cut {} from {} ({}).", c.name, shown(std::max(0.0, away)), o.name, o.what),
                    "Another station, or another stagger.")
                    .of(shown(std::max(0.0, away)), shown(pan_clear));
            }
        for (const SpineCut& c : plan_.cuts)
            if (!rail_.at(c.first_mm) || !rail_.at(c.last_mm))
                add("spine-ends", PlanVerdict::Fails,
                    fmt::format("The {} would be cut where there is no spine any more.", c.name),
                    "Cut nearer to its middle, or with less stagger.");
    }

    void saddle() {
        const double h = rail_.height_mm, w = rail_.width_mm, t = rail_.thickness_mm;
        plan_.saddle_wall_mm = in_.sleeve_wall_mm.value_or(std::max(t, least_saddle_mm));
        const double ts = plan_.saddle_wall_mm;
        plan_.saddle_high_mm = h + saddle_fit; // the strip below lies on the spine itself
        plan_.saddle_wide_mm = w + 2 * saddle_fit;
        plan_.overlap_mm = in_.overlap_heights * h;
        const double joint = p_.shortens ? in_.root_gap_mm : p_.left.length_mm + 2 * in_.root_gap_mm;
        plan_.saddle_long_mm = std::ceil(joint + 2 * plan_.overlap_mm);
        plan_.strip_wide_mm = std::floor(w);
        // flat: two flanks, the top between two bends with an inside radius of the wall
        const double bend = units::pi / 2 * (ts + neutral * ts);
        plan_.saddle_blank_mm = 2 * (plan_.saddle_high_mm - ts) + (plan_.saddle_wide_mm - 2 * ts) + 2 * bend;
        const Section spine = sectionOf(h, w, t, false);
        const Section over = sectionOf(plan_.saddle_high_mm + 2 * ts, plan_.saddle_wide_mm + 2 * ts, ts, false);
        plan_.share = over.level_modulus_mm3 / spine.level_modulus_mm3;
        plan_.flange_force_N = spine.level_modulus_mm3 * working_MPa / (h - t);
        const double least =
            std::min({plan_.share, over.upright_modulus_mm3 / spine.upright_modulus_mm3,
                      over.torsion_modulus_mm3 / spine.torsion_modulus_mm3, over.web_area_mm2 / spine.web_area_mm2});
        if (least < 1)
            add("spine-saddle", PlanVerdict::Fails,
                fmt::format("Saddle and strip have {} % of the spine in the way in which they have the least.",
                            units::fixed(100 * least, 0)),
                "A thicker saddle (sleeve-wall): as thick as the spine at the least.")
                .of(units::fixed(100 * least, 0) + " %", "100 %");
    }

    void plugs() {
        const double t = std::min(rail_.thickness_mm, plan_.saddle_wall_mm);
        const SheetPlugs g =
            sheetPlugs(t, rail_.width_mm - 4 * rail_.thickness_mm, plan_.overlap_mm, plan_.flange_force_N, in_.plug_hole_mm);
        plan_.plug_mm = g.hole_mm;
        plan_.plug_pitch_mm = g.pitch_mm;
        plan_.plug_N = g.each_N;
        plan_.plugs_needed = g.needed;
        plan_.plugs_fit = g.fit;
        if (g.rows > 0) plan_.overlap_need_mm = g.along_need_mm;
        const bool thin = t < sheet_thin_mm;
        const double d = g.hole_mm;
        if (thin && (d < 5.5 || d > 8))
            add("spine-plug-hole", PlanVerdict::Marginal,
                fmt::format("Plug holes of {} in sheet of {}.", shown(d, 1), shown(t, 1)),
                "5.5 to 8 mm in sheet under 3 mm: smaller ones do not fuse, larger ones burn through.")
                .of(shown(d, 1), "5.5 to 8 mm");
        if (plan_.plugs_fit < plan_.plugs_needed)
            add("spine-plugs", PlanVerdict::Fails,
                fmt::format("{} plug welds fit into the saddle's top each side of the joint, {} are needed.", plan_.plugs_fit,
                            plan_.plugs_needed),
                g.rows > 0 ? fmt::format("A saddle that overlaps {} each side: overlap {}.", shown(plan_.overlap_need_mm),
                                         units::fixed(std::ceil(10 * plan_.overlap_need_mm / rail_.height_mm) / 10, 1))
                           : std::string("Smaller holes, or a wider spine."))
                .of(fmt::format("{}", plan_.plugs_fit), fmt::format("{}", plan_.plugs_needed));
    }

    void pans() {
        if (!s_.pan_width_mm || !s_.pan_wall_mm) {
            add("spine-pan-unsaid", PlanVerdict::Marginal, "How wide and how thick the pans beside the spine are is not said.",
                "Say it: member floor pan from 200 to 2400 flat 1200 1.2.");
            return;
        }
        plan_.pan_strip_wide_mm = pan_strip;
        plan_.pan_strip_long_mm = std::floor(*s_.pan_width_mm);
        plan_.pan_plug_mm = *s_.pan_wall_mm < 1.2 ? 6 : 8;
        plan_.pan_plugs = 2 * std::max(1, static_cast<int>(std::floor(*s_.pan_width_mm / sheet_pitch_mm)));
        if (*s_.pan_width_mm < 2 * pan_strip)
            add("spine-pan-narrow", PlanVerdict::Marginal,
                fmt::format("The pans are {} wide beside the spine: there is hardly room for a joint.", shown(*s_.pan_width_mm)),
                "Measure the floor's whole width: it is said as the pan's.");
    }

    void windows() {
        if (s_.inside.empty()) {
            const bool any = std::any_of(in_.runners.begin(), in_.runners.end(),
                                         [](const Runner& r) { return r.presence != build::Presence::Absent; });
            if (any)
                add("spine-inside-unsaid", PlanVerdict::Marginal,
                    "Nothing is said to run inside the spine: shift rod, cables and pipes often do, and burn or are sawn through.",
                    "Look in with a lamp from both ends, and say it: crossing shift-rod inside.");
            return;
        }
        const double wide = std::min(window_most, std::floor(0.6 * rail_.width_mm));
        for (const bool ahead : {true, false}) {
            const double from_joint = plan_.overlap_mm + window_apart + window_long / 2;
            const double station = ahead ? at_.first_station_mm - from_joint : at_.last_station_mm + from_joint;
            SpineWindow w{station, window_long, wide, window_long + 2 * cover_lap, wide + 2 * cover_lap, 0};
            w.screws = 2 * static_cast<int>(std::ceil((w.cover_long_mm + w.cover_wide_mm) / screw_pitch));
            if (!rail_.at(station - window_long) || !rail_.at(station + window_long) || w.cover_wide_mm > rail_.width_mm)
                add("spine-window", PlanVerdict::Fails,
                    fmt::format("No window {} the saddle reaches what runs inside the spine.", ahead ? "ahead of" : "behind"),
                    "A shorter saddle (overlap), another station, or open the spine's end.");
            else
                plan_.windows.push_back(w);
        }
    }

    Plan& p_;
    const Input& in_;
    const SpineInput& s_;
    const build::RailLine& rail_;
    const RailCut& at_;
    SpinePlan plan_;
};

} // namespace

void planSpine(Plan& p, const Input& in) {
    if (in.spine && p.left.known && in.left.height_mm > 0 && in.left.width_mm > 0 && in.left.thickness_mm > 0)
        Spine(p, in).make();
}

} // namespace gorvet::stretch
