// All new steel in the real window: dragged along its rail from above, in order, joined, on its fixture; to sheets and files.
#include "desk/driver.hpp"
#include "desk/widgets/sheet_view.hpp"

#include <fmt/format.h>

namespace desk_steel_test {

using namespace gorvet;
using test::Driver;
using test::waitFor;

namespace {

const sheet::Grip& gripOf(const desk::SheetView& sheet, const std::string& name) {
    for (const sheet::Grip& g : sheet.drawing().grips)
        if (g.name == name) return g;
    FAIL("no handle of " << name);
    std::abort();
}
bool says(const desk::SheetView& sheet, const std::string& words) {
    for (const auto& item : sheet.drawing().items)
        if (const auto* text = std::get_if<sheet::Text>(&item.shape); text && text->text.find(words) != std::string::npos)
            return true;
    return false;
}

} // namespace

TEST_CASE("demo 1: a part is dragged along its rail from above, says what comes near, and is pinned there", "[desk][make]") {
    const auto folder = test::freshFolder("window-steel-above");
    const auto file = test::demoBuild(folder);
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
    d.bench("make");
    d.showSheet("above", "From above");
    auto* sheet = d.find<desk::SheetView>("sheet");
    REQUIRE(waitFor([&] { return sheet->drawing().grips.size() > 8; }));
    const auto part = [&] { return build::steelPartNamed(d.window.document().build(), "out-front-left"); };
    const sheet::Grip grip = gripOf(*sheet, "out-front-left");
    CHECK(grip.per_unit > 0.5);
    const auto at = [&](double by) {
        return QPoint(static_cast<int>(std::round(grip.at.x + by)), static_cast<int>(std::round(grip.at.y)));
    };
    const double before = grip.value;
    // Escape: it is as it was
    QTest::mousePress(sheet, Qt::LeftButton, {}, at(0));
    QTest::mouseMove(sheet, at(30));
    REQUIRE(waitFor([&] { return says(*sheet, "out-front-left at "); }));
    sheet->setFocus();
    QTest::keyClick(sheet, Qt::Key_Escape);
    REQUIRE(waitFor([&] { return !says(*sheet, "out-front-left at "); }));
    QTest::mouseRelease(sheet, Qt::LeftButton, {}, at(30));
    CHECK(part()->pinned.empty());
    // let go: pinned there, its places by the rail
    QTest::mousePress(sheet, Qt::LeftButton, {}, at(0));
    QTest::mouseMove(sheet, at(25));
    QTest::mouseMove(sheet, at(50));
    REQUIRE(waitFor([&] { return says(*sheet, "out-front-left at "); }));
    QTest::mouseRelease(sheet, Qt::LeftButton, {}, at(50));
    REQUIRE(waitFor([&] { return part()->pinned.size() == 2; }));
    CHECK(part()->pinned[0].x_mm == Approx(before + 50 * grip.per_unit).margin(2 * grip.per_unit + 1));
    CHECK(gripOf(*sheet, "out-front-left").value == Approx(part()->pinned[0].x_mm).margin(0.06));
    d.action("undo");
    REQUIRE(waitFor([&] { return part()->pinned.empty(); }));
    // the X-member forward, into the brace
    const sheet::Grip x = gripOf(*sheet, "x-mid");
    const double reach = (gripOf(*sheet, "brace-mid").value - x.value) / x.per_unit;
    const auto x_at = [&](double by) {
        return QPoint(static_cast<int>(std::round(x.at.x + by)), static_cast<int>(std::round(x.at.y)));
    };
    QTest::mousePress(sheet, Qt::LeftButton, {}, x_at(0));
    QTest::mouseMove(sheet, x_at(reach / 2));
    QTest::mouseMove(sheet, x_at(reach));
    REQUIRE(waitFor([&] { return says(*sheet, "stand in each other"); }));
    sheet->setFocus();
    QTest::keyClick(sheet, Qt::Key_Escape);
    QTest::mouseRelease(sheet, Qt::LeftButton, {}, x_at(reach));
    CHECK(build::steelPartNamed(d.window.document().build(), "x-mid")->pinned.empty());
    // drawn apart, in order
    d.showSheet("order", "In order");
    REQUIRE(waitFor([&] { return sheet->placeOf("part:x-mid").has_value(); }));
    CHECK(d.text("headline").contains("each goes in straight"));
    CHECK(sheet->placeOf("crossmember").has_value());
}

TEST_CASE("demo 1: what it is joined to, and the fixture that holds it, to sheets and files", "[desk][make]") {
    const auto folder = test::freshFolder("window-steel-fixture");
    const auto file = test::demoBuild(folder);
    build::Build as_it_was;
    {
        Driver d;
        REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
        d.bench("make");
        d.showSheet("joins", "Joins");
        REQUIRE(waitFor([&] { return d.text("headline").contains("joined to is"); }));
        const auto seams = [&] { return d.window.document().results().welds->steps.size(); };
        const std::size_t all = seams();
        d.keep("part brace-mid upon cast thick 8");
        REQUIRE(waitFor([&] { return d.text("headline").contains("can't be joined so"); }));
        CHECK(seams() == all - 2); // both its ends
        d.action("undo");
        CHECK(seams() == all);
        d.showSheet("fixture", "Fixture");
        auto* sheet = d.find<desk::SheetView>("sheet");
        auto* card = d.find<desk::CardView>("card");
        REQUIRE(waitFor([&] { return sheet->placeOf("fixture:table1").has_value(); }));
        const auto plan = [&]() -> const make::FixturePlan& { return *d.window.document().results().fixtures.at(0); };
        REQUIRE(plan().towers.size() == 8);
        std::size_t moved = 0;
        for (const auto& t : plan().towers) moved += t.then.has_value();
        CHECK(moved == 4); // behind the cut
        CHECK(d.text("headline").contains("4 of them moved by the plan"));
        QTest::mouseClick(sheet, Qt::LeftButton, {}, sheet->placeOf("fixture:table1")->toPoint());
        REQUIRE(waitFor([&] { return card->isVisible(); }));
        const double high = plan().high_mm;
        for (auto* button : card->findChildren<QPushButton*>())
            if (button->text() == "turn it over") {
                button->click();
                break;
            }
        REQUIRE(
            waitFor([&] { return d.window.document().build().fixtures.begin()->second.attitude == build::Attitude::Inverted; }));
        CHECK(plan().high_mm > high + 500); // it lies on its back: the datum is over the rails
        d.action("undo");
        d.keep("tower El pull by 0 0 4");
        CHECK(plan().verdict == build::PlanVerdict::Marginal);
        d.keep("tower Cr pull"); // to where Cl has its image
        REQUIRE(plan().towers.at(3).straight);
        CHECK(plan().towers.at(3).pull.find(" ± ") != std::string::npos);

        // drawings handed out: what changes afterwards is said, and undone is not
        d.showSheet("issues", "Handed out");
        REQUIRE(waitFor([&] { return d.text("headline").contains("changed since A"); }));
        d.keep("issue note to the cutter");
        REQUIRE(waitFor([&] { return d.text("headline").contains("as they were handed out as B"); }));
        const auto old = [&] {
            const auto& found = d.window.document().results().findings;
            return std::count_if(found.begin(), found.end(), [](const auto& f) { return f.code == "make.issue-old"; });
        };
        CHECK(old() == 0);
        d.keep("part tank deep 190");
        REQUIRE(waitFor([&] { return d.text("headline").contains("changed since B"); }));
        CHECK(old() == 1);
        d.action("undo");
        REQUIRE(waitFor([&] { return d.text("headline").contains("as they were handed out as B"); }));
        CHECK(old() == 0);
        as_it_was = d.window.document().build();
    }
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
    CHECK(d.window.document().build() == as_it_was);
    const auto out = folder / "out";
    const auto kept = test::run(fmt::format("{} export {} --all {}", GORVET_CLI, file.string(), out.string()));
    INFO(kept.out);
    REQUIRE(kept.code == 0);
    const std::string list = test::fileText(out / "fixture-table1.csv");
    CHECK(std::count(list.begin(), list.end(), '\n') == 1 + 8 + 4);
    CHECK(list.find("El,pull,planned,") != std::string::npos);
    const auto text = test::run(fmt::format("pdftotext -layout {} - 2>&1", (out / "build-sheet.pdf").string()));
    for (const char* page : {"Make: fixture table1", "how parts are joined", "the new steel, in order", "Part: x-mid, x-member",
                             "Part: tank, tank", "drawings as handed out, and what changed", "issue B"}) {
        INFO(page);
        CHECK(text.out.find(page) != std::string::npos);
    }
    const std::string step = test::fileText(out / "parts.step");
    for (const char* product : {"PRODUCT('x-mid'", "PRODUCT('tank'", "PRODUCT('x-mid, front leg left'"}) {
        INFO(product);
        CHECK(step.find(product) != std::string::npos);
    }
    std::size_t solids = 0;
    for (const auto& node : d.window.document().results().parts) solids += make::partMeshes(*node).size();
    const auto volumes = test::stepVolumes(out / "parts.step"); // closed, as many, as large
    REQUIRE(volumes.size() == solids);
    double sum = 0, mass = 0;
    for (const double v : volumes) sum += v;
    for (const auto& node : d.window.document().results().parts) {
        mass += node->mass_kg;
        for (const auto& bar : node->bars) mass += bar.at_hand ? bar.mass_kg : 0;
    }
    CHECK(sum * 7.85e-6 == Approx(mass).epsilon(0.01));
}

} // namespace desk_steel_test
