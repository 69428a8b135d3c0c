#include "tape/survey_sheet.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cmath>

namespace tape_survey_sheet_test {

using namespace gorvet;
using tape::ReadingKind;

namespace {

struct Drawn {
    test::SurveyMaker maker;
    tape::Solution solution;
    tape::Condition condition;
    tape::FramePoints frame;
    tape::SurveyView view;

    explicit Drawn(double blunder) {
        std::mt19937 rng(21);
        maker = test::frameSurvey(4, rng);
        for (int i = 0; i < 8; ++i) {
            maker.read(ReadingKind::Height, i, -1, test::normal(rng, 0.5), 0.7);
            for (int j = i + 1; j < 8; ++j)
                maker.read(ReadingKind::Tape, i, j, test::normal(rng, 0.8) + (i == 1 && j == 6 ? blunder : 0), 1.2);
        }
        for (int i = 0; i < 8; i += 2) frame.pairs.push_back({i, i + 1});
        again();
    }
    void again() {
        solution = tape::solve(maker.survey);
        condition = tape::condition(solution, frame);
        view = {};
        view.survey = &maker.survey;
        view.solution = &solution;
        view.condition = &condition;
        view.frame = &frame;
        for (size_t i = 0; i < maker.survey.readings.size(); ++i) view.reading_tags.push_back("reading:" + std::to_string(i));
        for (size_t i = 0; i < maker.survey.points.size(); ++i) view.point_tags.push_back("point:" + std::to_string(i));
    }
    sheet::Drawing draw() const { return tape::surveySheet(view, 1200, 430, {}); }
};

int countInk(const sheet::Drawing& d, sheet::Ink ink, const std::string& tag_start) {
    int n = 0;
    for (const auto& item : d.items)
        if (const auto* s = std::get_if<sheet::Stroke>(&item.shape)) n += s->pen.ink == ink && item.tag.starts_with(tag_start);
    return n;
}

} // namespace

TEST_CASE("every point and reading is drawn and can be picked; a misread one is marked", "[tape]") {
    Drawn drawn(25);
    const auto d = drawn.draw();
    int circles = 0;
    int names = 0;
    for (const auto& item : d.items) {
        circles += std::holds_alternative<sheet::Circle>(item.shape) && item.tag.starts_with("point:");
        if (const auto* t = std::get_if<sheet::Text>(&item.shape)) names += item.tag.starts_with("point:") && t->text.size() == 2;
    }
    CHECK(circles == 16); // from above and from the left
    CHECK(names == 8);
    CHECK(countInk(d, sheet::Ink::Faint, "reading:") >= 25);
    CHECK(countInk(d, sheet::Ink::Bad, "reading:") == 3); // the line and the two strokes of its cross
    Drawn clean(0);
    CHECK(countInk(clean.draw(), sheet::Ink::Bad, "reading:") == 0);
}

TEST_CASE("left lies below right when the nose points left, and both views share their stations", "[tape]") {
    Drawn drawn(0);
    const auto d = drawn.draw();
    std::vector<sheet::P> above;
    std::vector<sheet::P> side;
    for (const auto& item : d.items)
        if (const auto* c = std::get_if<sheet::Circle>(&item.shape); c && item.tag.starts_with("point:"))
            (above.size() < 8 ? above : side).push_back(c->centre);
    REQUIRE(side.size() == 8);
    CHECK(above[0].y > above[1].y);                                              // Al below Ar
    CHECK(above[6].x > above[0].x);                                              // the rear to the right
    for (size_t i = 0; i < 8; ++i) CHECK(std::abs(above[i].x - side[i].x) < 15); // but for the enlarged faults
}

TEST_CASE("faults are enlarged, and it says by how much", "[tape]") {
    Drawn drawn(0);
    for (int i = 1; i < 8; i += 2) drawn.maker.truth[static_cast<size_t>(i)].x_mm -= 12; // the right rail stands forward
    drawn.maker.survey.readings.clear();
    for (int i = 0; i < 8; ++i) {
        drawn.maker.read(ReadingKind::Height, i);
        for (int j = i + 1; j < 8; ++j) drawn.maker.read(ReadingKind::Tape, i, j);
    }
    drawn.again();
    bool said = false;
    for (const auto& item : drawn.draw().items)
        if (const auto* t = std::get_if<sheet::Text>(&item.shape)) said = said || t->text.find("from above, faults ×") == 0;
    CHECK(said);
}

TEST_CASE("what is picked stands out, and the proposed pair is dashed", "[tape]") {
    Drawn drawn(0);
    drawn.view.selected = "reading:9";
    drawn.view.next = std::pair{0, 7};
    int thick = 0;
    int dashed = 0;
    for (const auto& item : drawn.draw().items)
        if (const auto* s = std::get_if<sheet::Stroke>(&item.shape)) {
            thick += item.tag == "reading:9" && s->pen.weight > 3 && s->pen.ink == sheet::Ink::Ink;
            dashed += item.tag == "next" && s->pen.dash == sheet::Dash::Dashed;
        }
    CHECK(thick == 1);
    CHECK(dashed == 1);
}

TEST_CASE("points that are not fixed are dotted; points without a place are left out", "[tape]") {
    Drawn drawn(0);
    drawn.maker.point("Z", 900, 0, 500);
    drawn.maker.point("Y", 0, 0, 0);
    drawn.maker.survey.points.back().rough.reset();
    drawn.again();
    int dotted = 0;
    int y = 0;
    for (const auto& item : drawn.draw().items) {
        if (const auto* c = std::get_if<sheet::Circle>(&item.shape)) dotted += c->pen.dash == sheet::Dash::Dotted;
        if (const auto* t = std::get_if<sheet::Text>(&item.shape)) y += t->text == "Y";
    }
    CHECK(dotted == 2); // Z, in both views
    CHECK(y == 0);
}

} // namespace tape_survey_sheet_test
