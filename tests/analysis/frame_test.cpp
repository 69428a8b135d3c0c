// The frame as it carries, from the build: what it waits for, what is taken as usual, what is found, now and as planned.
#include "analysis/frame_boxing.hpp"
#include "analysis/scans.hpp"
#include "entry/typist.hpp"

namespace analysis_frame_test {

using namespace gorvet;
using namespace gorvet::build;
using entry_tests::Typist;

namespace {

/// Rails 840 apart, axles at 0 and 2600, all placed by a scan.
Typist ladder(const char* section = "rail 100 x 60 x 4 channel top") {
    Typist t;
    t.scannedLadder(section);
    return t;
}
void members(Typist& t) {
    for (const char* line : {"member front crossmember at -300 box 60 60 3", "member middle crossmember at 900 box 60 60 3",
                             "member rear crossmember at 1700 box 60 60 3", "member tail crossmember at 3000 box 60 60 3"})
        t.type(line);
}
analysis::Results worked(const Typist& t) {
    analysis::Results r = analysis::analyse(t.b, 1);
    REQUIRE(analysis::makeSlow(t.b, r, {analysis::slow::frame}, [](const auto&, const auto&) { return Result<void>{}; }));
    return r;
}
const analysis::Finding* found(const analysis::Results& r, const std::string& code) {
    for (const analysis::Finding& f : r.findings)
        if (f.code == code) return &f;
    return nullptr;
}
bool assumes(const analysis::FrameAsked& a, const std::string& what) {
    return std::any_of(a.assumed.begin(), a.assumed.end(),
                       [&](const std::string& s) { return s.find(what) != std::string::npos; });
}

} // namespace

TEST_CASE("it says what it waits for, one thing after the other", "[analysis][frame]") {
    Typist t;
    const auto waits = [&] { return analysis::frameAsked(t.b, analysis::analyse(t.b, 1)).waits; };
    CHECK(waits().find("rails, or a spine") != std::string::npos);
    t = ladder("rail 100 x 60 x 4 channel top");
    CHECK(waits().find("joins the rails") != std::string::npos);
    t.type("member far crossmember at 4000 box 60 60 3");
    CHECK(waits().find("far") != std::string::npos);
    t.type("remove member far");
    members(t);
    CHECK(waits().empty());
    t.type("point Zl none 100 -400 400"); // never measured
    t.type("member x leg through Zl Br tube 48 3");
    CHECK(waits().find("place of Zl") != std::string::npos);
}

TEST_CASE("what is assumed is named, and nothing assumed ever holds", "[analysis][frame]") {
    Typist t = ladder();
    members(t);
    t.type("load engine 100 kg at 200 0 600");
    auto r = worked(t);
    const analysis::FrameFound& f = *r.scans->frame;
    REQUIRE(f.now);
    CHECK_FALSE(f.planned);
    const analysis::FrameAsked& asked = r.scans->frame.input();
    for (const char* what : {"yield", "springs' rates", "how high a wheel stands", "springs bear"}) CHECK(assumes(asked, what));
    CHECK_FALSE(assumes(asked, "engine"));
    for (const auto& c : f.now->cases)
        if (!c.tips) CHECK(analysis::verdictOf(asked, c) != PlanVerdict::Holds);
    // all of it measured: leaf springs with their hangers
    for (const char* line : {"yield 235", "wheel-rate front 28", "wheel-rate rear 30", "tyre front 335", "tyre rear 335"})
        t.type(line);
    for (const auto& [name, x] : {std::pair{"S", -400}, {"T", 450}, {"U", 2100}, {"V", 3050}})
        for (const int side : {-1, 1}) {
            const std::string point = fmt::format("{}{}", name, side < 0 ? 'l' : 'r');
            t.type(fmt::format("point {} suspension {} {} 450", point, x, side * 420));
            t.type(fmt::format("coordinates {} {} {} 450", point, x, side * 420));
        }
    r = worked(t);
    // what is left: a suspension point may be a link's
    CHECK(r.scans->frame.input().assumed.size() == 1);
    CHECK(assumes(r.scans->frame.input(), "leaf spring"));
    const frame::OfCase& rest = r.scans->frame->now->cases.front();
    CHECK(analysis::verdictOf(r.scans->frame.input(), rest) == PlanVerdict::Marginal);
    analysis::FrameAsked known = r.scans->frame.input();
    known.assumed.clear();
    CHECK(analysis::verdictOf(known, rest) == PlanVerdict::Holds);
    // and nothing holds with a crack, with nothing on it, or with weights spread over it
    for (int k = 0; k < 3; ++k) {
        analysis::FrameAsked less = known;
        if (k == 0) less.cracked = {"Bl"};
        if (k == 1) less.now.hung.clear();
        if (k == 2) less.spread = true;
        CHECK(analysis::verdictOf(less, rest) == PlanVerdict::Marginal);
    }
    CHECK_FALSE(found(r, "stretch.frame-fails"));
    // and where it can't bear it, it fails
    t.type("load freight 6000 kg at 1400 0 700 over 1500");
    r = worked(t);
    REQUIRE(found(r, "stretch.frame-fails"));
    CHECK(found(r, "stretch.frame-fails")->remedy.find("licensed") != std::string::npos);
    CHECK(found(r, "stretch.frame-weld"));
}

TEST_CASE("what is planned stands beside what is: plates, a member that comes out, a longer wheelbase", "[analysis][frame]") {
    Typist t = ladder();
    members(t);
    t.type("member shut plate from 900 to 1700 3 planned");
    auto r = worked(t);
    REQUIRE(r.scans->frame->planned);
    CHECK(r.scans->frame->planned->twist.free_nm_deg > 1.2 * r.scans->frame->now->twist.free_nm_deg);
    CHECK(r.scans->frame->planned->mass_kg > r.scans->frame->now->mass_kg);
    CHECK_FALSE(found(r, "stretch.frame-softer"));
    const auto& boxing = r.scans->frame->boxing;
    REQUIRE(boxing.size() > 2);
    CHECK(boxing.front().kg == 0);
    double before = 0;
    for (std::size_t k = 2; k < boxing.size(); ++k) {
        CHECK(boxing[k].kg > 0);
        for (const auto& [from, to] : boxing[k].plates) CHECK_FALSE((from >= 899 && to <= 1701)); // closed already
        if (!boxing[k].name.starts_with("best") && boxing[k].name != "all bays") continue;
        CHECK(boxing[k].twist.free_nm_deg >= before * (1 - 1e-9)); // of more bays the best is never softer
        before = boxing[k].twist.free_nm_deg;
    }
    t.type("remove member shut");
    t.type("member middle comes-out");
    t.type("member rear comes-out");
    r = worked(t);
    REQUIRE(found(r, "stretch.frame-softer"));
    t.type("member middle there");
    t.type("member rear there");
    t.type("change 210");
    t.type("cut 1300");
    r = worked(t);
    REQUIRE(r.scans->frame->planned);
    CHECK(r.scans->frame->planned->length_mm == Approx(r.scans->frame->now->length_mm + 210).margin(0.5));
}

TEST_CASE("windows, ribs, uprights and open members: what each brings, and the least that is enough",
          "[analysis][frame][boxing]") {
    Typist t = ladder("rail 100 x 50 x 4 channel top");
    members(t);
    t.type("member leg-left leg through Bl Cr channel 80 40 3");
    auto r = worked(t);
    const auto choice = [&](const std::string& name) -> const analysis::BoxingChoice& {
        for (const analysis::BoxingChoice& c : r.scans->frame->boxing)
            if (c.name == name) return c;
        FAIL("no choice " << name);
        return r.scans->frame->boxing.front();
    };
    const double open = choice("as it is").twist.free_nm_deg, all = choice("all bays").twist.free_nm_deg;
    CHECK(choice("windowed").twist.free_nm_deg > open);
    CHECK(choice("windowed").twist.free_nm_deg < all);
    CHECK(choice("windowed").kg < choice("all bays").kg);
    CHECK(choice("windowed").seam_m == Approx(choice("all bays").seam_m));
    CHECK(choice("uprights").twist.free_nm_deg > choice("ribs").twist.free_nm_deg);
    CHECK(choice("ribs").twist.free_nm_deg > open);
    CHECK(choice("ribs").twist.free_nm_deg < 1.1 * open); // flat ribs do next to nothing, and it says so
    CHECK(choice("all bays and members").twist.free_nm_deg >= all);
    CHECK(choice("all bays and members").kg > choice("all bays").kg);
    // each is planned by the lines it offers, and comes to what it said
    for (const char* name : {"windowed", "uprights", "all bays"}) {
        Typist planned = t;
        const auto lines = analysis::boxingLines(t.b, r, choice(name));
        REQUIRE_FALSE(lines.empty());
        for (const std::string& line : lines) planned.type(line);
        const auto then = worked(planned);
        INFO(name);
        REQUIRE(then.scans->frame->planned);
        CHECK(then.scans->frame->planned->twist.free_nm_deg == Approx(choice(name).twist.free_nm_deg).epsilon(0.01));
    }
    // the least steel that reaches a stiffness, on both sides of what there is
    CHECK(std::none_of(r.scans->frame->boxing.begin(), r.scans->frame->boxing.end(),
                       [](const auto& c) { return c.name == "least"; }));
    const auto asked = [&](double wanted) {
        t.type(fmt::format("twist-wanted {:.0f}", wanted));
        r = worked(t);
        return found(r, "stretch.frame-twist-wanted");
    };
    const double wanted = open + 0.6 * (all - open);
    REQUIRE(asked(wanted));
    CHECK(found(r, "stretch.frame-twist-wanted")->severity == sheet::Severity::Bad);
    CHECK(choice("least").twist.free_nm_deg >= wanted - 1);
    CHECK(choice("least").kg < choice("all bays").kg);
    for (const analysis::BoxingChoice& c : r.scans->frame->boxing) // none of those tried with whole plates is lighter and enough
        if (c.name.starts_with("best") || c.name == "all bays")
            CHECK((c.twist.free_nm_deg < wanted || c.kg >= choice("least").kg * (1 - 1e-9)));
    REQUIRE(asked(open - 5)); // it is there, but by sizes nobody measured
    CHECK(found(r, "stretch.frame-twist-wanted")->severity == sheet::Severity::Warn);
    REQUIRE(asked(1e6));
    CHECK(std::none_of(r.scans->frame->boxing.begin(), r.scans->frame->boxing.end(),
                       [](const auto& c) { return c.name == "least"; }));
    t.type("twist-wanted none");
    r = worked(t);
    CHECK_FALSE(found(r, "stretch.frame-twist-wanted"));
    // ribs where a rail is closed do nothing, and are named
    t.type("member shut plate from 900 to 1700 3");
    t.type("member ribs rib from 1000 to 1600 4 pitch 200");
    r = worked(t);
    REQUIRE(found(r, "stretch.frame-rib-idle"));
    t.type("member ribs from 200 to 800");
    CHECK_FALSE(found(worked(t), "stretch.frame-rib-idle"));
}

TEST_CASE("rust takes its share, a crack all of it", "[analysis][frame]") {
    Typist t = ladder();
    members(t);
    t.type("load bed 300 kg at 1300 0 600 over 2000");
    const double sound = worked(t).scans->frame->now->cases.front().stress_mpa;
    t.type("found thin Bl 1.8 of 4");
    auto r = worked(t);
    CHECK(r.scans->frame->now->cases.front().stress_mpa > 1.5 * sound);
    CHECK(r.scans->frame->now->cases.front().line == "left rail");
    CHECK(std::abs(r.scans->frame->now->cases.front().at.x_mm - 1000) < 101);
    t.type("found crack Br 30 way between the bolts");
    r = worked(t);
    REQUIRE(found(r, "stretch.frame-cracked"));
}

TEST_CASE("what it carries against what was weighed, and nothing said of it", "[analysis][frame]") {
    Typist t = ladder();
    members(t);
    auto r = worked(t);
    CHECK(found(r, "stretch.frame-unloaded"));
    for (const char* line :
         {"weight front-left 300 kg", "weight front-right 310 kg", "weight rear-left 250 kg", "weight rear-right 260 kg"})
        t.type(line);
    r = worked(t);
    CHECK_FALSE(found(r, "stretch.frame-unloaded"));
    CHECK(r.scans->frame.input().spread);
    CHECK(assumes(r.scans->frame.input(), "hangs"));
    const auto& carry = r.scans->frame->now->cases.front().carry_n;
    CHECK(carry[0] + carry[1] > carry[2] + carry[3]); // the frame's own weight comes to it
    t.type("load engine 100 kg at 200 0 600");
    r = worked(t);
    REQUIRE(found(r, "stretch.frame-masses"));
    t.type("load rest 980 kg at 1300 0 700 over 1800");
    CHECK_FALSE(found(worked(t), "stretch.frame-masses"));
    t.type("load wings 20 kg at 400 0 700");
    t.type("member lost leg through Fl Rl tube 48 3");
    r = worked(t);
    CHECK_FALSE(found(r, "stretch.frame-cannot"));
}

TEST_CASE("a spine with its pan, and a member that meets nothing", "[analysis][frame]") {
    Typist t;
    for (const auto& [name, role, x] : {std::tuple{"F", "front-hub", 0}, {"R", "rear-hub", 2200}})
        for (const int side : {-1, 1}) {
            const std::string point = fmt::format("{}{}", name, side < 0 ? 'l' : 'r');
            t.type(fmt::format("point {} {} {} {} 200", point, role, x, side * 640));
            t.type(fmt::format("coordinates {} {} {} 200", point, x, side * 640));
        }
    t.type("member keel spine from -200 to 2400 box 180 140 2");
    auto r = worked(t);
    REQUIRE(r.scans->frame->now);
    const double alone = r.scans->frame->now->twist.free_nm_deg;
    t.type("member pan pan from 100 to 2000 hat 40 300 200 1 below 60");
    r = worked(t);
    REQUIRE(r.scans->frame->now);
    CHECK(r.scans->frame->now->twist.free_nm_deg > alone);
    CHECK(r.scans->frame->now->loose.empty());
    CHECK(r.scans->frame->boxing.empty());
    t.type("point Ql none 1000 -900 900");
    t.type("coordinates Ql 1000 -900 900");
    t.type("point Qr none 1000 900 900");
    t.type("coordinates Qr 1000 900 900");
    t.type("member bow leg through Ql Qr tube 48 3");
    r = worked(t);
    REQUIRE(found(r, "stretch.frame-loose"));
    CHECK(found(r, "stretch.frame-loose")->subject == "bow");
}

TEST_CASE("what crosses the cut is a finding until its answer is decided", "[analysis][stretch]") {
    Typist t = ladder("rail 100 x 60 x 4 box top");
    t.type("change 210");
    t.type("cut 1300");
    t.type("crossing fuel-line main slack 40");
    CHECK(found(analysis::analyse(t.b, 1), "stretch.crossing-open"));
    t.type("crossing fuel-line main answer re-clip");
    CHECK(found(analysis::analyse(t.b, 1), "stretch.crossing-short"));
    t.type("crossing fuel-line main answer new-length");
    auto r = analysis::analyse(t.b, 1);
    CHECK_FALSE(found(r, "stretch.crossing-open"));
    CHECK_FALSE(found(r, "stretch.crossing-short"));
    t.type("crossing brake-line left slack 20 answer joiner");
    r = analysis::analyse(t.b, 1);
    REQUIRE(found(r, "stretch.crossing-joiner"));
    CHECK(found(r, "stretch.crossing-joiner")->severity == sheet::Severity::Bad);
    // two of a kind are two steps of the work
    t.type("crossing brake-line right slack 20 answer new-length");
    r = analysis::analyse(t.b, 1);
    CHECK(r.work->find("run-brake-line-left"));
    CHECK(r.work->find("run-brake-line-right"));
    t.type("crossing brake-line right out");
    CHECK(analysis::analyse(t.b, 1).work->find("clear-rails")->why.find("before anything hot: brake-line right") !=
          std::string::npos);
}

TEST_CASE("no cut parts a leaf spring, none stands beside a member, and where nothing is marked none is called good",
          "[analysis][stretch]") {
    Typist t = ladder("rail 100 x 60 x 4 box top");
    t.type("change 100");
    const auto chosen = [&](const char* cut) {
        t.type(cut);
        const auto r = analysis::analyse(t.b, 1);
        REQUIRE(r.stretch->chosen);
        return *r.stretch->chosen;
    };
    CHECK(chosen("cut 1300").score <= 5); // far from all that is known
    t.type("member middle crossmember at 1280 box 60 80 3");
    CHECK(chosen("cut 1300").refused.find("middle") != std::string::npos);
    CHECK(chosen("cut 1700").score > 5);
    t.type("member middle comes-out");
    CHECK(chosen("cut 1300").refused.empty());
    CHECK(chosen("cut 2250").refused.empty());
    for (const auto& [name, x] : {std::pair{"U", 2100}, {"V", 3050}})
        for (const int side : {-1, 1}) {
            const std::string point = fmt::format("{}{}", name, side < 0 ? 'l' : 'r');
            t.type(fmt::format("point {} suspension {} {} 450", point, x, side * 420));
            t.type(fmt::format("coordinates {} {} {} 450", point, x, side * 420));
        }
    CHECK(chosen("cut 2250").refused.find("suspension") != std::string::npos);
    REQUIRE(found(analysis::analyse(t.b, 1), "stretch.station-refused"));
    for (const auto& c : analysis::analyse(t.b, 1).stretch->candidates) CHECK(c.station_mm < 2100);
}

TEST_CASE("the splice is held against what goes through the rail where it is cut, on both sides of its limit",
          "[analysis][frame]") {
    Typist t = ladder("rail 100 x 60 x 4 box top");
    members(t);
    for (const char* line : {"load bed 900 kg at 1300 0 600 over 2000", "change 100", "cut 1300", "sleeve-wall 2"}) t.type(line);
    auto r = worked(t);
    auto s = analysis::spliceBears(t.b, r);
    REQUIRE(s);
    CHECK(s->share < 0.6); // half the wall
    const double thin = s->stress_mpa;
    CHECK(static_cast<bool>(found(r, "stretch.frame-splice")) == (s->margin() < 1));
    CHECK(found(r, "stretch.frame-splice"));
    t.type("butt counts");
    r = worked(t);
    s = analysis::spliceBears(t.b, r);
    REQUIRE(s);
    CHECK(s->share == 1);
    CHECK(s->stress_mpa < thin);
    t.type("butt not");
    t.type("sleeve-wall 8");
    t.type("fish-plate 8");
    t.type("load bed 500 kg at 1300 0 600 over 2000");
    r = worked(t);
    s = analysis::spliceBears(t.b, r);
    REQUIRE(s);
    CHECK_FALSE(s->unlike);
    CHECK(s->margin() > 1);
    CHECK_FALSE(found(r, "stretch.frame-splice"));
    // a plate, or another section, at either joint: the share is of another rail
    t.type("member deep rail from 1280 to 1600 box 140 60 4 planned");
    r = worked(t);
    CHECK(analysis::spliceBears(t.b, r)->unlike);
    CHECK(found(r, "stretch.frame-splice-unlike"));
    CHECK_FALSE(found(r, "stretch.frame-splice"));
}

} // namespace analysis_frame_test
