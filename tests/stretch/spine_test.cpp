// A spine platform's cut: by hand, on both sides of each limit, and played in a simulated workshop.
#include "sim/plan_player.hpp"
#include "stretch/parts.hpp"
#include "stretch/spine_sheet.hpp"
#include "work/work.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <random>

namespace stretch_spine_test {

using namespace gorvet;
using build::CrossingKind;
using build::PlanVerdict;
using build::Presence;

namespace {

/// A spine of 190 × 150 × 1.6 from −200 to 2300, 140 longer at 1250, a shift rod in it.
stretch::Input platform() {
    stretch::Input in;
    build::RailLine spine;
    for (const double x : {-200.0, 2300.0}) spine.points.push_back({x, 0, 300});
    spine.height_mm = 190;
    spine.width_mm = 150;
    spine.thickness_mm = 1.6;
    in.left = in.right = spine;
    in.change_mm = 140;
    in.cut_station_mm = 1250;
    in.front_axle_mm = 0;
    in.rear_axle_mm = 2240;
    in.sleeve_wall_mm = 2;
    in.obstacles = {{"ahead", "body mount", 800}, {"behind", "body mount", 1750}};
    for (size_t i = 0; i < build::Words<CrossingKind>::text.size(); ++i)
        in.runners.push_back({static_cast<CrossingKind>(i), Presence::Absent, {}, {}, {}});
    in.spine.emplace();
    in.spine->pan_width_mm = 515;
    in.spine->pan_wall_mm = 1.2;
    in.spine->inside = {"shift-rod"};
    return in;
}
std::optional<PlanVerdict> verdict(const stretch::Input& in, const std::string& code) {
    const auto p = stretch::plan(in);
    for (const auto& r : p.remarks)
        if (r.code == code) return r.verdict;
    return std::nullopt;
}

} // namespace

TEST_CASE("no weld line runs through, and what comes out is alike everywhere", "[stretch][spine]") {
    const auto p = stretch::plan(platform());
    REQUIRE(p.status == stretch::Status::Planned);
    REQUIRE(p.spine);
    CHECK_FALSE(p.sleeve); // the inside stays free
    CHECK_FALSE(p.splice);
    const stretch::SpinePlan& s = *p.spine;
    CHECK(s.stagger_mm == 240); // what is let in, and 100
    CHECK(s.cuts[0].first_mm == 1250);
    CHECK(s.cuts[1].first_mm == 1010);
    CHECK(s.cuts[2].first_mm == 1490);
    // reality: both ends of each let-in piece on the planned platform; no weld of a pan ends beside one of the spine
    for (const double change : {-200.0, -80.0, 30.0, 90.0, 140.0, 150.0, 260.0, 400.0}) {
        auto in = platform();
        in.change_mm = change;
        const auto q = stretch::plan(in);
        const auto welds = [&](const stretch::SpineCut& c) {
            return change < 0 ? std::vector<double>{c.first_mm} : std::vector<double>{c.first_mm, c.first_mm + change};
        };
        double least = 1e9;
        for (const std::size_t pan : {1U, 2U})
            for (const double a : welds(q.spine->cuts[0]))
                for (const double b : welds(q.spine->cuts[pan])) least = std::min(least, std::abs(a - b));
        INFO(change);
        CHECK(least >= stretch::spine_stagger);
        CHECK(least == Approx(q.spine->apart_mm));
    }
    CHECK(s.slit_mm[0] == 240);
    // shorter: the same piece out of spine and pans, and along the flanks
    auto shorter = platform();
    shorter.change_mm = -80;
    const auto q = stretch::plan(shorter);
    for (const auto& c : q.spine->cuts) CHECK(c.last_mm - c.first_mm == Approx(82)); // and the root gap of 2
    CHECK(q.spine->slit_mm[0] == Approx(232));
}

TEST_CASE("saddle and plugs by hand", "[stretch][spine][closed-form]") {
    const auto p = stretch::plan(platform());
    const stretch::SpinePlan& s = *p.spine;
    const auto own = stretch::sectionOf(190, 150, 1.6, false);
    CHECK(s.flange_force_N == Approx(own.level_modulus_mm3 * 140 / (190 - 1.6)));
    // sheet of 1.6: 8 mm holes; the sheet round the plug gives before the plug shears
    CHECK(s.plug_mm == 8);
    CHECK(s.plug_N == Approx(std::acos(-1.0) * 8 * 1.6 * 84));
    CHECK(s.plugs_needed == static_cast<int>(std::ceil(1.5 * s.flange_force_N / s.plug_N - 1e-9)));
    CHECK(s.plugs_fit >= s.plugs_needed);
    CHECK(s.share > 1);
    CHECK(s.saddle_long_mm == Approx(std::ceil(p.left.length_mm + 4 + 2 * 380)));
    // its blank bends to its inside sizes: two bends of a quarter circle on the neutral line
    const double bend = std::acos(-1.0) / 2 * (2 + 0.44 * 2);
    CHECK(s.saddle_blank_mm == Approx(2 * (190.5 - 2) + (151 - 4) + 2 * bend));
    // all the holes that are needed, each side, on the saddle and on spine; none nearer than the pitch
    const auto holes = stretch::saddleHoles(s);
    CHECK(static_cast<int>(holes.size()) == 2 * s.plugs_needed);
    for (std::size_t a = 0; a < holes.size(); ++a) {
        CHECK(std::abs(holes[a].y) < 75 - 3.2);
        CHECK((holes[a].x <= s.overlap_mm || holes[a].x >= s.saddle_long_mm - s.overlap_mm));
        for (std::size_t b = a + 1; b < holes.size(); ++b)
            CHECK(std::hypot(holes[a].x - holes[b].x, holes[a].y - holes[b].y) >= s.plug_pitch_mm - 1e-6);
    }
    CHECK(s.plug_pitch_mm >= 25);
    CHECK(s.plug_pitch_mm <= 40);
}

TEST_CASE("each limit of the spine on both sides", "[stretch][spine]") {
    auto in = platform();
    in.change_mm = -80;
    in.spine->stagger_mm = 100;
    CHECK_FALSE(verdict(in, "spine-stagger"));
    in.spine->stagger_mm = 99;
    CHECK(verdict(in, "spine-stagger") == PlanVerdict::Marginal);
    in.spine->stagger_mm = 49;
    CHECK(verdict(in, "spine-stagger") == PlanVerdict::Fails);
    in = platform(); // 140 let in: 150 puts a pan's second weld 10 beside the spine's first
    in.spine->stagger_mm = 150;
    CHECK(verdict(in, "spine-stagger") == PlanVerdict::Fails);
    in.spine->stagger_mm = 239;
    CHECK(verdict(in, "spine-stagger") == PlanVerdict::Marginal);
    // a pan's cut beside what stands on it
    in = platform();
    in.obstacles = {{"seats", "crossmember", 1010 - 60 - 35, 35}};
    CHECK_FALSE(verdict(in, "spine-pan-near"));
    in.obstacles[0].station_mm += 1;
    CHECK(verdict(in, "spine-pan-near") == PlanVerdict::Marginal);
    in.obstacles[0].station_mm = 1000;
    CHECK(verdict(in, "spine-pan-near") == PlanVerdict::Fails);
    in = platform();
    in.cut_station_mm = -100;
    CHECK(verdict(in, "spine-ends") == PlanVerdict::Fails); // the left pan would be cut ahead of the spine
    // plugs: what the saddle needs, and a little less
    in = platform();
    const double need = stretch::plan(in).spine->overlap_need_mm;
    in.overlap_heights = need / 190;
    CHECK_FALSE(verdict(in, "spine-plugs"));
    in.overlap_heights = (need - 1) / 190;
    CHECK(verdict(in, "spine-plugs") == PlanVerdict::Fails);
    // a saddle of the spine's own wall has at least what the spine has; a thinner one does not
    in = platform();
    in.sleeve_wall_mm = 1.6;
    CHECK_FALSE(verdict(in, "spine-saddle"));
    in.sleeve_wall_mm = 1.5;
    CHECK(verdict(in, "spine-saddle") == PlanVerdict::Fails);
    in = platform();
    in.plug_hole_mm = 8;
    CHECK_FALSE(verdict(in, "spine-plug-hole"));
    in.plug_hole_mm = 8.1;
    CHECK(verdict(in, "spine-plug-hole") == PlanVerdict::Marginal);
    in = platform();
    in.spine->pan_width_mm.reset();
    CHECK(verdict(in, "spine-pan-unsaid") == PlanVerdict::Marginal);
    in = platform();
    in.spine->pan_width_mm = 79;
    CHECK(verdict(in, "spine-pan-narrow") == PlanVerdict::Marginal);
}

TEST_CASE("what runs inside gets windows that reach it, clear of the saddle", "[stretch][spine]") {
    auto in = platform();
    const auto p = stretch::plan(in);
    REQUIRE(p.spine->windows.size() == 2);
    const double half = p.spine->windows[0].long_mm / 2;
    CHECK(p.spine->windows[0].station_mm + half < 1250 - p.spine->overlap_mm - 20);
    CHECK(p.spine->windows[1].station_mm - half > 1250 + p.spine->overlap_mm + 20);
    CHECK(p.spine->windows[0].cover_wide_mm <= 150);
    in.spine->inside.clear();
    CHECK(stretch::plan(in).spine->windows.empty());
    CHECK_FALSE(verdict(in, "spine-inside-unsaid")); // everything was looked for and is absent
    in.runners[0].presence = Presence::Unknown;
    CHECK(verdict(in, "spine-inside-unsaid") == PlanVerdict::Marginal);
    // a long saddle on a short spine leaves no place
    in = platform();
    in.overlap_heights = 5;
    CHECK(verdict(in, "spine-window") == PlanVerdict::Fails);
    // the cover has its screws on its lap
    const auto cover = stretch::coverPattern(p.spine->windows[0]);
    int screws = 0;
    for (const auto& item : cover.items)
        if (const auto* c = std::get_if<sheet::Circle>(&item.shape)) {
            ++screws;
            const bool on_window = std::abs(c->centre.x - cover.width / 2) < half &&
                                   std::abs(c->centre.y - cover.height / 2) < p.spine->windows[0].wide_mm / 2;
            CHECK_FALSE(on_window);
        }
    CHECK(screws == p.spine->windows[0].screws);
}

TEST_CASE("the steps of a spine are played to the end, and a wrong order is refused", "[stretch][spine][work]") {
    work::Facts f;
    f.frame_kind = build::FrameKind::SpinePlatform;
    f.has_body = f.cut_planned = f.spine = true;
    f.fuel_tank = f.battery = f.restraints = f.refrigerant = Presence::Present;
    f.cut_words = "at 1250";
    f.pan_words = "the left pan at 1100, the right pan at 1400";
    f.saddle_words = "780 long, wall 2.0";
    f.spine_windows = "140 × 90 at 730 and 1770";
    f.spine_inside = "shift-rod, fuel-line";
    build::TemporarySteel brace;
    brace.id = build::TemporarySteelId{9};
    brace.name = "door";
    f.temporary = {brace};
    const work::Order o = work::order(f, {});
    const auto placeOf = [&](const std::string& code) {
        const auto at = std::find_if(o.steps.begin(), o.steps.end(), [&](const work::Step& s) { return s.code == code; });
        INFO(code);
        REQUIRE(at != o.steps.end());
        return at - o.steps.begin();
    };
    for (const work::Step& s : o.steps) CHECK(s.title.find("both rails") == std::string::npos);
    const auto played = sim::playPlan(f, o);
    INFO(played.refused << ": " << played.why);
    CHECK(played.to_the_end);
    CHECK(placeOf("inside-apart") < placeOf("cut-rails"));
    CHECK(placeOf("inside-joined") > placeOf("tank-in"));
    CHECK(placeOf("spine-covers") < placeOf("leak-test"));
    struct Wrong {
        const char* step;
        const char* before;
        const char* why;
    };
    for (const Wrong& w :
         {Wrong{"inside-joined", "weld-rails", "halves may still move"}, Wrong{"inside-apart", "spine-windows", "no hand"},
          Wrong{"spine-covers", "inside-joined", "still apart"}, Wrong{"inside-apart", "prepare-ends", "sawn through"},
          Wrong{"inside-joined", "untie-rails", "beside the lines"}}) {
        work::Order wrong = o;
        const auto from = wrong.steps.begin() + placeOf(w.step);
        const work::Step moved = *from;
        wrong.steps.erase(from);
        const auto to =
            std::find_if(wrong.steps.begin(), wrong.steps.end(), [&](const work::Step& s) { return s.code == w.before; });
        REQUIRE(to != wrong.steps.end());
        wrong.steps.insert(to, moved);
        const auto refused = sim::playPlan(f, wrong);
        INFO(w.step << " before " << w.before << ": " << refused.refused << ", " << refused.why);
        CHECK_FALSE(refused.to_the_end);
        CHECK(refused.why.find(w.why) != std::string::npos);
    }
    f.spine_windows.clear();
    f.spine_inside.clear();
    const work::Order plain = work::order(f, {});
    CHECK(std::none_of(plain.steps.begin(), plain.steps.end(), [](const work::Step& s) { return s.code == "inside-apart"; }));
    CHECK(sim::playPlan(f, plain).to_the_end);
}

} // namespace stretch_spine_test
