// Drawings that were handed out: every change that a drawing shows is said, and none that it does not.
#include "analysis/issued.hpp"
#include "analysis/pages.hpp"
#include "analysis/parts.hpp"
#include "analysis/steel.hpp"
#include "entry/typist.hpp"
#include "prompt/context.hpp"
#include "store/store.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <functional>
#include <random>
#include <set>

namespace analysis_issued_test {

using namespace gorvet;
using namespace gorvet::analysis;
using namespace gorvet::build;

namespace {

constexpr auto step = units::LengthStep::Mm01;

IssuedPiece plate() {
    IssuedPiece p;
    p.thing = "part:o1";
    p.piece = "o1: side";
    p.count = 2;
    p.thickness_mm = 5;
    p.lines_mm = {5, 0, 0, 200, 0, 200, 60, 100, 80, 0, 60, 4, 40, 20, 80, 20, 80, 40, 40, 40};
    p.holes_mm = {20, 20, 11, 180, 20, 11, 20, 45, 9};
    p.bends_mm = {0, 30, 200, 30, 5};
    p.angles_rad = {units::pi / 2};
    return p;
}
IssuedPiece tube() {
    IssuedPiece p;
    p.thing = "part:b1";
    p.piece = "b1";
    p.stock = "tube 42 × 3";
    p.length_mm = 612.4;
    p.ends = "coped on 60.3, 45.0°; square";
    p.bends_mm = {120, 300};
    p.angles_rad = {0, 0, 0, 0, 0.5, 0, 0.7, 1.2};
    return p;
}
/// A box sawn off square at one end, nearly square at the other.
IssuedPiece sawnBox() {
    IssuedPiece p;
    p.thing = "part:b2";
    p.piece = "b2";
    p.stock = "box 60 × 40 × 3";
    p.length_mm = 800;
    const double degree = units::pi / 180;
    p.ends = "12.5° off square, 90° about; 0.1° off square, 20° about";
    p.angles_rad = {0, 12.5 * degree, 0.1 * degree * std::cos(20 * degree), 0.1 * degree * std::sin(20 * degree)};
    return p;
}

struct Spoilt {
    const char* what;
    std::function<void(IssuedPiece&, double)> by; ///< mm or, of angles, rad
    double shown, matters;                        ///< from what on it is said, and matters
};

/// What the whole of a page says.
std::string wordsOf(const std::vector<sheet::Drawing>& pages) {
    std::string all;
    for (const sheet::Drawing& page : pages)
        for (const sheet::Item& item : sheet::flatten(page))
            if (const auto* t = std::get_if<sheet::Text>(&item.shape)) all += t->text + "\n";
    return all;
}

struct Shop {
    entry_tests::Typist t;
    Results r;
    explicit Shop(Build b) {
        t.b = std::move(b);
        t.context.who = "M.";
        t.context.now_utc = "2026-12-01T08:00:00Z";
        work();
    }
    void work() {
        r = analyse(t.b, 1);
        prompt::letIssue(t.context, t.b, r);
    }
    void type(const std::string& line) {
        t.type(line);
        work();
    }
    std::vector<Finding> old() const {
        std::vector<Finding> found;
        for (const Finding& f : r.findings)
            if (f.code == "make.issue-old") found.push_back(f);
        return found;
    }
};

Build demo(const std::string& folder) {
    auto store = store::Store::open(test::demoBuild(test::freshFolder(folder)));
    REQUIRE(store);
    Build b = (*store)->build();
    std::vector<Change> without; // what the demo itself handed out
    for (const auto& [id, piece] : b.issued_pieces) without.push_back(Drop<IssuedPiece>{id});
    for (const auto& [id, issue] : b.issues) without.push_back(Drop<Issue>{id});
    REQUIRE(enact(b, Edit{"as before", without}));
    return b;
}

} // namespace

TEST_CASE("a change of a drawing is said from what the drawing shows on, each by its name", "[make][issue]") {
    const double degree = units::pi / 180;
    const std::vector<Spoilt> flat{
        {"thick", [](auto& p, double by) { p.thickness_mm += by; }, 0.05, 0.05},
        {"×", [](auto& p, double by) { p.lines_mm[3] += by, p.lines_mm[5] += by; }, 0.05, 0.5},
        {"corners moved", [](auto& p, double by) { p.lines_mm[9] += by; }, 0.05, 0.5},
        {"windows moved", [](auto& p, double by) { p.lines_mm[15] -= by; }, 0.05, 0.5},
        {"holes moved", [](auto& p, double by) { p.holes_mm[4] += by; }, 0.05, 0.5},
        {"1 hole", [](auto& p, double by) { p.holes_mm[8] += by; }, 0.05, 0.05},
        {"a bend by", [degree](auto& p, double by) { p.angles_rad[0] -= by * degree; }, 0.05, 0.25},
        {"bends moved", [](auto& p, double by) { p.bends_mm[1] += by; }, 0.05, 0.5},
    };
    const std::vector<Spoilt> sawn{
        {"long", [](auto& p, double by) { p.length_mm -= by; }, 0.05, 0.5},
        {"bends moved", [](auto& p, double by) { p.bends_mm[1] += by; }, 0.05, 0.5},
        {"a bend by", [degree](auto& p, double by) { p.angles_rad[7] += by * degree; }, 0.05, 0.25},
        {"ends", [degree](auto& p, double by) { p.angles_rad[1] += by * degree; }, 0.05, 0.25},
    };
    for (const auto& [piece, list] : {std::pair{plate(), flat}, std::pair{tube(), sawn}})
        for (const Spoilt& s : list) {
            INFO(s.what);
            IssuedPiece now = piece;
            CHECK(changesBetween({piece}, {now}, step).empty());
            s.by(now, s.shown * 0.96);
            CHECK(changesBetween({piece}, {now}, step).empty());
            for (const double by : {s.shown * 1.04, s.matters * 0.98, s.matters * 1.02, 12.0}) {
                if (by <= s.shown) continue;
                now = piece;
                s.by(now, by);
                const auto changes = changesBetween({piece}, {now}, step);
                REQUIRE(changes.size() == 1);
                CHECK(changes[0].matters == (by > s.matters));
                CHECK(changeWords(changes[0]).find(s.what) != std::string::npos);
            }
        }
}

TEST_CASE("what is counted, of what it is and how its ends are cut is said", "[make][issue]") {
    const auto said = [](const IssuedPiece& was, const std::function<void(IssuedPiece&)>& by) {
        IssuedPiece now = was;
        by(now);
        const auto changes = changesBetween({was}, {now}, step);
        REQUIRE(changes.size() == 1);
        CHECK(changes[0].matters);
        return changeWords(changes[0]);
    };
    CHECK(said(plate(), [](auto& p) { p.count = 4; }) == "4 of them (was 2)");
    CHECK(said(plate(), [](auto& p) { p.holes_mm.resize(6); }) == "2 holes (was 3)");
    CHECK(said(plate(), [](auto& p) { p.lines_mm.resize(11); }) == "no windows (was 1)");
    CHECK(said(plate(), [](auto& p) { p.angles_rad.clear(), p.bends_mm.clear(); }) == "no bends (was 1)");
    CHECK(said(tube(), [](auto& p) { p.stock = "tube 42 × 4"; }) == "of tube 42 × 4 (was tube 42 × 3)");
    CHECK(said(tube(), [](auto& p) { p.ends = "coped on 60.3, 46.0°; square"; }) ==
          "ends coped on 60.3, 46.0°; square (was coped on 60.3, 45.0°; square)");
    CHECK(said(tube(), [](auto& p) { p.ends = "both square"; }).find("ends both square") == 0);
    // a figure that is rounded otherwise is none that changed
    IssuedPiece rounded = tube();
    rounded.ends = "coped on 60.3, 45.1°; square";
    CHECK(changesBetween({tube()}, {rounded}, step).empty());
    // nor is the direction of an end that is square but for a tenth of a degree
    IssuedPiece about = sawnBox();
    about.ends = "12.5° off square, 90° about; square";
    about.angles_rad[2] = about.angles_rad[3] = 0;
    for (const PieceChange& c : changesBetween({sawnBox()}, {about}, step)) CHECK_FALSE(c.matters);
    about = sawnBox();
    about.ends = "12.5° off square, 90° about; 0.1° off square, 45° about";
    about.angles_rad[2] = 0.1 * units::pi / 180 * std::cos(units::pi / 4);
    about.angles_rad[3] = 0.1 * units::pi / 180 * std::sin(units::pi / 4);
    CHECK(changesBetween({sawnBox()}, {about}, step).empty());
    about.angles_rad[1] = 0.2; // 11.5°
    CHECK(changesBetween({sawnBox()}, {about}, step).at(0).matters);
    // pieces that come and go, two of one name among them
    const auto changes = changesBetween({plate(), plate(), tube()}, {plate()}, step);
    REQUIRE(changes.size() == 2);
    CHECK(changes[0].kind == PieceChange::Kind::Gone);
    CHECK(changesBetween({plate()}, {plate(), tube()}, step).at(0).kind == PieceChange::Kind::New);
    // in inches where those are chosen
    IssuedPiece longer = tube();
    longer.length_mm += 25.4;
    CHECK(changeWords(changesBetween({tube()}, {longer}, units::LengthStep::InchThousandth).at(0)).find("mm") ==
          std::string::npos);
}

TEST_CASE("lines of a piece that make no sense are passed over", "[make][issue][property]") {
    std::mt19937 rng(4);
    std::uniform_real_distribution<double> any(-20, 20);
    for (int k = 0; k < 2000; ++k) {
        const auto wild = [&] {
            IssuedPiece p = plate();
            for (auto* list : {&p.lines_mm, &p.holes_mm, &p.bends_mm, &p.angles_rad}) {
                list->resize(rng() % 12);
                for (double& v : *list) v = rng() % 2 ? any(rng) : static_cast<double>(rng() % 6);
            }
            return p;
        };
        const IssuedPiece one = wild(), other = wild();
        CHECK(changesBetween({one}, {one}, step).empty());
        changesBetween({one}, {other}, step);
    }
}

TEST_CASE("what was handed out is kept; what changes afterwards is said on its drawing, in a list and as a finding",
          "[make][issue][demo]") {
    Shop s(demo("issue-demo"));
    CHECK(s.r.findings.size() > 3);
    CHECK(s.old().empty());
    const Build before = s.t.b;
    s.type("issue note to the saw");
    CHECK(s.t.echo.find("issue A: ") == 0);
    CHECK(issueNamed(s.t.b, "A")->note == "to the saw");
    CHECK(issueNamed(s.t.b, "A")->handed_out.who == "M.");
    std::size_t pieces = 0;
    for (const SteelThing& t : steelThings(s.t.b, s.r)) pieces += t.bars.size() + t.flats.size() + t.fixings.size();
    CHECK(s.t.b.issued_pieces.size() == pieces);
    CHECK(issuesNow(s.t.b, s.r).since.empty());
    CHECK(s.old().empty());
    CHECK(issueMark(issuesNow(s.t.b, s.r), "part:brace-mid") == "issue A");
    // written and read again it is the same
    const auto back = buildFromJson(*buildToJson(s.t.b));
    REQUIRE(back);
    CHECK(issuesNow(*back, s.r).since.empty());

    s.type("part perch-left hole 14");
    const IssuesNow now = issuesNow(s.t.b, s.r);
    std::set<std::string> changed;
    for (const PieceChange& c : now.since) changed.insert(c.thing);
    CHECK(changed.contains("part:perch-left"));
    CHECK_FALSE(changed.contains("part:perch-right")); // its twin is as it was
    CHECK_FALSE(changed.contains("part:brace-mid"));
    REQUIRE(s.old().size() == changed.size());
    const Finding f = s.old().front();
    CHECK(f.tag == "part:perch-left");
    CHECK(f.sentence.find("14.0 mm wide (was 13.5 mm)") != std::string::npos);
    CHECK(issueMark(now, "part:perch-left") == "changed since issue A");
    const std::string pages = wordsOf(partPages(s.t.b, s.r, false));
    CHECK(pages.find("changed since issue A; ") != std::string::npos);
    CHECK(pages.find("changed since\n") != std::string::npos);
    CHECK(wordsOf(issuePages(s.t.b, s.r)).find("perch-left") != std::string::npos);
    CHECK(issuesList(s.t.b, s.r, the_chassis).rows.size() == now.since.size() + 1);
    CHECK(makeIssuesJson(s.t.b, s.r).find("\"change\": \"changed\"") != std::string::npos);

    // handed out again, it holds; the list says what came with which
    s.t.context.now_utc = "2026-12-02T08:00:00Z";
    s.type("issue");
    CHECK(s.old().empty());
    const auto revisions = revisionsOf(issuesNow(s.t.b, s.r), "part:perch-left");
    REQUIRE(revisions.size() == 2);
    CHECK(revisions[0].name == "A");
    CHECK(revisions[0].words == "handed out first");
    CHECK(revisions[1].name == "B");
    CHECK(revisions[1].day == "2026-12-02");
    CHECK(revisions[1].words.find("(was 13.5 mm)") != std::string::npos);
    CHECK(revisionsOf(issuesNow(s.t.b, s.r), "part:perch-right").size() == 1);
    // what is made is measured against its plan, not against its drawing
    s.type("part perch-right hole 14");
    CHECK(s.old().size() == 1);
    s.type("part perch-right made deep 69");
    CHECK(s.old().empty());
    s.type("remove part perch-left");
    REQUIRE_FALSE(s.old().empty());
    CHECK(s.old().front().sentence.find("no longer made") != std::string::npos);
    // taken back, what changed is said against the one before it; its letter is never another's
    s.type("remove issue B");
    CHECK(issuesNow(s.t.b, s.r).records.size() == 1);
    CHECK(issueMark(issuesNow(s.t.b, s.r), "part:perch-right") == "changed since issue A");
    CHECK(s.t.wrong("remove issue B").message == "Issue B was taken back already, on 2026-12-02.");
    s.type("issue note to the cutter");
    CHECK(issueNamed(s.t.b, "C"));
    CHECK(issueMark(issuesNow(s.t.b, s.r), "part:perch-right") == "issue C");
    const Listing with_back = issuesList(s.t.b, s.r, the_chassis);
    CHECK(with_back.rows.back().cells[0].text == "B");
    CHECK(with_back.rows.back().cells[3].text.find("taken back on 2026-12-02") == 0);
    CHECK(makeIssuesJson(s.t.b, s.r).find("\"taken_back\": {") != std::string::npos);
    s.type("remove issue C");
    s.type("remove issue A");
    CHECK(issuesNow(s.t.b, s.r).records.empty());
    CHECK(issuesNow(s.t.b, s.r).taken_back.size() == 3);
    CHECK(s.old().empty());
    CHECK(issueMark(issuesNow(s.t.b, s.r), "part:perch-right").empty());
    CHECK(issuesHeadline(s.t.b, s.r, the_chassis).sentence == "Every drawing that was handed out was taken back.");
    s.type("issue");
    CHECK(issueNamed(s.t.b, "D"));
    CHECK(before.issues.empty());
}

TEST_CASE("what moves a survey by less than a saw's width makes no finding", "[make][issue][demo]") {
    Shop s(demo("issue-moved"));
    s.type("issue");
    int shown = 0, matter = 0;
    for (auto& [line, by] : {std::pair{"change -137.6", 0.2}, std::pair{"change -134", 3.8}}) {
        INFO(line << " " << by);
        s.type(line);
        for (const PieceChange& c : issuesNow(s.t.b, s.r).since) {
            ++shown;
            matter += c.matters;
        }
        CHECK(s.old().empty() == (matter == 0));
    }
    CHECK(shown > 0);
    CHECK(matter > 0);
}

TEST_CASE("an issue is refused where nothing is drawn, and letters go on", "[make][issue][entry]") {
    entry_tests::Typist t;
    t.frame();
    CHECK(t.wrong("issue").message == "What is drawn is not worked out yet.");
    std::vector<IssuedPiece> pieces;
    t.context.drawn = [&] { return pieces; };
    CHECK(t.wrong("issue").message == "Nothing is drawn that could be handed out.");
    pieces = {plate(), tube()};
    for (int k = 0; k < 28; ++k) t.type("issue");
    CHECK(issueNamed(t.b, "Z"));
    CHECK(issueNamed(t.b, "AA"));
    CHECK(issueNamed(t.b, "AB"));
    t.type("remove issue C");
    t.type("issue"); // the letter of none that was ever there
    CHECK(t.b.issues.size() == 29);
    CHECK(issueNamed(t.b, "C")->taken_back);
    CHECK(issueNamed(t.b, "AC"));
    t.type("issue B note to the cutter");
    CHECK(issueNamed(t.b, "B")->note == "to the cutter");
    t.wrong("issue QQ note x");
    t.wrong("issue B");
    t.wrong("issue B to the saw");
}

} // namespace analysis_issued_test
