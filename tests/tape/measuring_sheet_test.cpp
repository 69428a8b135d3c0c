// The sheet to write on: every reading with its place in the sketch and two boxes.
#include "tape/measuring_sheet.hpp"

#include "sheet/page.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>

namespace tape_measuring_sheet_test {

using namespace gorvet;
using tape::ReadingKind;

TEST_CASE("a measuring sheet carries each reading, its number in the sketch, and room for two figures", "[tape][sheet]") {
    std::mt19937 rng(3);
    auto m = test::frameSurvey(6, rng);
    for (int i = 0; i < 12; ++i)
        for (int j = i + 1; j < std::min(12, i + 5); ++j) m.read(ReadingKind::Tape, i, j, test::normal(rng, 0.8), 0.8);
    for (int i = 2; i < 12; i += 2) m.read(ReadingKind::Height, i, -1, test::normal(rng, 0.7), 0.7);
    const auto s = tape::solve(m.survey);
    REQUIRE(s.status == tape::Status::Solved);
    const auto plan = tape::planReadings(m.survey, s, {}, {}, {}, 23);
    REQUIRE(plan.size() == 23);
    const tape::MeasuringSheet sheet{&m.survey, &s, plan};
    const double width = 273;
    const double height = 150;
    const size_t rows = tape::measuringSheetRows(height, sheet::on_paper);
    REQUIRE(rows > 10);
    size_t seen = 0;
    for (size_t first = 0; first < plan.size(); first += rows) {
        const auto d = tape::measuringSheet(sheet, first, rows, width, height, sheet::on_paper);
        const auto e = sheet::extent(sheet::flatten(d));
        CHECK(e.left >= -1);
        CHECK(e.right <= width + 1);
        CHECK(e.bottom <= height + 1);
        std::vector<std::string> texts;
        int boxes = 0;
        for (const auto& item : d.items) {
            if (const auto* t = std::get_if<sheet::Text>(&item.shape)) texts.push_back(t->text);
            if (const auto* b = std::get_if<sheet::Stroke>(&item.shape)) boxes += b->closed && b->path.size() == 4;
        }
        const size_t last = std::min(first + rows, plan.size());
        CHECK(boxes == static_cast<int>(2 * (last - first)));
        for (size_t i = first; i < last; ++i) {
            // once in the sketch, once in the list
            CHECK(std::count(texts.begin(), texts.end(), std::to_string(i + 1)) == 2);
            const std::string one = m.survey.points[plan[i].from].name;
            const std::string pair = plan[i].to < 0 ? std::string() : one + " – " + m.survey.points[plan[i].to].name;
            const std::string what = plan[i].kind == ReadingKind::Height  ? "height of " + one
                                     : plan[i].kind == ReadingKind::Level ? "level " + pair
                                                                          : pair;
            CHECK(std::count(texts.begin(), texts.end(), what) == 1);
            ++seen;
        }
    }
    CHECK(seen == plan.size());
}

} // namespace tape_measuring_sheet_test
