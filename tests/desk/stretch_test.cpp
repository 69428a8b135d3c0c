// Demo 2 in the real window: a channel frame from its survey to what it bears, closed where it helps, and plates to cut.
#include "analysis/frame.hpp"
#include "analysis/scans.hpp"
#include "desk/driver.hpp"

#include <fmt/format.h>
#include <fstream>

namespace desk_stretch_test {

using namespace gorvet;
using test::Driver;
using test::waitFor;

namespace {

/// What is made beside the window takes its time.
template <class F> bool soon(F&& condition) { return QTest::qWaitFor(condition, 30'000); }

} // namespace

TEST_CASE("a channel frame is named member by member, bears its loads, and is closed where it helps", "[desk][stretch][frame]") {
    const auto folder = test::freshFolder("window-frame");
    const auto file = test::demoBuild(folder, "drover_long");
    build::Build as_it_was;
    {
        Driver d;
        REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
        d.bench("stretch");
        const auto found = [&]() -> const analysis::FrameFound& { return *d.window.document().results().scans->frame; };
        const auto current = [&] {
            const auto& doc = d.window.document();
            return doc.results().scans->frame.madeFrom(analysis::frameAsked(doc.build(), doc.results()));
        };
        d.showSheet("strength", "Strength");
        REQUIRE(soon([&] { return current() && found().planned.has_value(); }));
        REQUIRE(waitFor([&] { return d.text("headline").contains("degree of twist"); }));
        const double before = found().planned->twist.free_nm_deg;
        auto* sheet = d.find<desk::SheetView>("sheet");
        auto* card = d.find<desk::CardView>("card");
        // a case has its card: how it is loaded is changed there
        const auto place = sheet->placeOf("case:bump");
        REQUIRE(place);
        QTest::mouseClick(sheet, Qt::LeftButton, {}, place->toPoint());
        REQUIRE(waitFor([&] { return card->isVisible(); }));
        d.find<QPushButton>("cardAction_leave_it_out")->click();
        REQUIRE(waitFor([&] { return build::loadCaseNamed(d.window.document().build(), "bump") != nullptr; }));
        REQUIRE(soon([&] { return current(); }));
        for (const auto& c : found().planned->cases) CHECK(c.asked.name != "bump");
        // another member stiffens it
        d.keep("member brace leg through Cl Dr tube 60 3 planned");
        REQUIRE(soon([&] { return current() && found().planned; }));
        CHECK(found().planned->twist.free_nm_deg > before);
        // one that meets nothing is refused or named, and nothing is lost
        d.type("member brace tube 60");
        CHECK(d.text("entryEcho").contains("2 figures"));
        CHECK(d.find<QLineEdit>("entry")->text() == "member brace tube 60");
        QTest::keyClick(d.find<QLineEdit>("entry"), Qt::Key_Escape);
        d.action("undo");
        CHECK_FALSE(build::memberNamed(d.window.document().build(), "brace"));
        // a bay is closed from the card of its choice
        d.showSheet("boxing", "Open or closed");
        REQUIRE(waitFor([&] { return d.text("headline").contains("Closed all along"); }));
        REQUIRE(soon([&] { return current(); }));
        const auto choice = sheet->placeOf("boxing:all bays");
        REQUIRE(choice);
        const auto plates = d.window.document().build().members.size();
        QTest::mouseClick(sheet, Qt::LeftButton, {}, choice->toPoint());
        REQUIRE(waitFor([&] { return card->isVisible(); }));
        QPushButton* plan = nullptr;
        for (auto* button : card->findChildren<QPushButton*>())
            if (button->text().startsWith("plan ")) plan = button;
        REQUIRE(plan);
        plan->click();
        REQUIRE(waitFor([&] { return d.window.document().build().members.size() == plates + 1; }));
        REQUIRE(soon([&] { return current() && found().planned; }));
        CHECK(found().planned->twist.free_nm_deg > before);
        // a plate is dragged by its end: what it comes to follows, and nothing is kept until it is let go
        d.showSheet("strength", "Strength");
        REQUIRE(soon([&] { return current() && !sheet->drawing().grips.empty(); }));
        const auto grip = [&](const std::string& name) {
            for (const auto& g : sheet->drawing().grips)
                if (g.name == name) return g;
            FAIL("no handle " << name);
            return sheet->drawing().grips.front();
        };
        const auto live = [&] {
            for (const auto& item : sheet->drawing().items)
                if (const auto* t = std::get_if<sheet::Text>(&item.shape);
                    t && t->text.find("N·m/deg") != std::string::npos && t->backed)
                    return t->text;
            return std::string();
        };
        const auto held = grip("shut-front to");
        const QPoint at(static_cast<int>(std::lround(held.at.x)), static_cast<int>(std::lround(held.at.y)));
        const auto untouched = d.window.document().build();
        CHECK(live().empty());
        QTest::mousePress(sheet, Qt::LeftButton, {}, at);
        QTest::mouseMove(sheet, at - QPoint(20, 0));
        REQUIRE(waitFor([&] { return !live().empty(); }));
        const std::string near = live();
        QTest::mouseMove(sheet, at - QPoint(60, 0));
        REQUIRE(waitFor([&] { return live() != near; }));
        CHECK(d.window.document().build() == untouched);
        QTest::keyClick(sheet, Qt::Key_Escape); // as it was
        QTest::mouseRelease(sheet, Qt::LeftButton, {}, at - QPoint(60, 0));
        CHECK(live().empty());
        CHECK(d.window.document().build() == untouched);
        QTest::mousePress(sheet, Qt::LeftButton, {}, at);
        QTest::mouseMove(sheet, at - QPoint(60, 0));
        QTest::mouseRelease(sheet, Qt::LeftButton, {}, at - QPoint(60, 0));
        const build::Member* shut = build::memberNamed(d.window.document().build(), "shut-front");
        REQUIRE(shut);
        CHECK(shut->until->value == Approx(held.value - 60 * held.per_unit).margin(1));
        d.action("undo");
        CHECK(d.window.document().build() == untouched);
        as_it_was = d.window.document().build();
    }
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
    CHECK(d.window.document().build() == as_it_was);
    // what is cut from it
    const auto out = folder / "out";
    const auto kept = test::run(fmt::format("{} export {} --all {}", GORVET_CLI, file.string(), out.string()));
    INFO(kept.out);
    REQUIRE(kept.code == 0);
    for (const char* name : {"plate-shut-front.dxf", "plate-shut-middle.dxf"})
        CHECK(std::filesystem::file_size(out / name) > 500);
}

TEST_CASE("a front clip is surveyed, pinned and joined in the window", "[desk][stretch][graft]") {
    const auto folder = test::freshFolder("window-graft");
    const auto file = test::demoBuild(folder, "drover_long");
    build::Build as_it_was;
    {
        Driver d;
        REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
        d.bench("stretch");
        d.showSheet("graft", "Joined");
        CHECK(d.text("headline").contains("No piece of another frame"));
        d.bench("tape"); // it is surveyed where all is
        d.keep("subject clip component");
        for (const auto& [name, role, x, y, z] :
             {std::tuple{"P", "rail", -500, 400, 420}, {"Q", "rail", 800, 400, 420}, {"H", "front-hub", -40, 690, 330}})
            for (const int side : {-1, 1}) {
                const auto point = QString("%1%2").arg(name).arg(side < 0 ? 'l' : 'r');
                d.keep(QString("point %1 %2 %3 %4 %5").arg(point, role).arg(x).arg(side * y).arg(z));
                d.keep(QString("coordinates %1 %2 %3 %4").arg(point).arg(x).arg(side * y).arg(z));
            }
        d.type("subject chassis");
        d.bench("stretch");
        d.showSheet("graft", "Joined");
        d.type("graft nose front-clip of clap at 640"); // a slip is said, and nothing is lost
        CHECK(d.text("entryEcho").contains("no subject clap"));
        CHECK(d.find<QLineEdit>("entry")->text().contains("clap"));
        d.keep("graft nose front-clip of clip at 520");
        REQUIRE(waitFor([&] { return d.text("headline").contains("is to be joined"); }));
        d.keep("graft nose rails 90 50 4 box top");
        d.keep("graft nose pin station Hl Hr 0");
        d.keep("graft nose pin centred Hl Hr");
        d.keep("graft nose pin height Hl Hr 330");
        d.keep("graft nose pin height Ql 430");
        REQUIRE(waitFor([&] { return d.text("headline").contains("Cut the chassis at"); }));
        CHECK(d.text("below").contains("The wheelbase becomes"));
        auto* sheet = d.find<desk::SheetView>("sheet");
        auto* card = d.find<desk::CardView>("card");
        sheet->reveal("graft:nose"); // it is higher than the window
        const auto place = sheet->placeOf("graft:nose");
        REQUIRE(place);
        QTest::mouseClick(sheet, Qt::LeftButton, {}, place->toPoint());
        REQUIRE(waitFor([&] { return card->isVisible(); }));
        CHECK(d.find<QPushButton>("cardAction_remove")->isVisible());
        d.keep("graft nose transition 300");
        CHECK(build::graftNamed(d.window.document().build(), "nose")->transition->value == 300);
        d.action("undo");
        CHECK_FALSE(build::graftNamed(d.window.document().build(), "nose")->transition);
        as_it_was = d.window.document().build();
    }
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
    CHECK(d.window.document().build() == as_it_was);
    const auto out = folder / "out";
    const auto kept = test::run(fmt::format("{} export {} --all {}", GORVET_CLI, file.string(), out.string()));
    INFO(kept.out);
    REQUIRE(kept.code == 0);
    CHECK(std::filesystem::file_size(out / "graft-nose-left-top.dxf") > 500);
}

TEST_CASE("a rail is let into a shell in the window", "[desk][stretch][let-in]") {
    const auto folder = test::freshFolder("window-let-in");
    const auto file = folder / "shell.gorvet";
    build::Build as_it_was;
    {
        Driver d;
        build::Settings settings;
        settings.name = "Shell";
        REQUIRE(d.window.makeFile(QString::fromStdString(file.string()), settings));
        d.keep("frame monocoque");
        for (const auto& [name, x] : {std::pair{"F", 800}, {"R", 2300}, {"G", 300}, {"S", 2800}})
            for (const int side : {-1, 1}) {
                const auto point = QString("%1%2").arg(name).arg(side < 0 ? 'l' : 'r');
                d.keep(QString("point %1 none %2 %3 200").arg(point).arg(x).arg(side * 400));
                d.keep(QString("coordinates %1 %2 %3 200").arg(point).arg(x).arg(side * 400));
            }
        d.bench("stretch");
        d.showSheet("let-in", "Let in");
        CHECK(d.text("headline").contains("No rail is let into a shell"));
        d.keep("let-in left from Fl to Rl section 90 60 3");
        REQUIRE(waitFor([&] { return d.text("below").contains("front leg's section"); }));
        d.keep("let-in left front-leg 84 54 2.5 rear-leg 84 54 2.5 floor 1.2 yield 210");
        REQUIRE(waitFor([&] { return d.text("headline").contains("Cut left to 149"); }));
        d.keep("let-in left front-along Gl rear-along Sl");
        auto* sheet = d.find<desk::SheetView>("sheet");
        auto* card = d.find<desk::CardView>("card");
        sheet->reveal("let-in:left");
        const auto place = sheet->placeOf("let-in:left");
        REQUIRE(place);
        QTest::mouseClick(sheet, Qt::LeftButton, {}, place->toPoint());
        REQUIRE(waitFor([&] { return card->isVisible(); }));
        QTest::mouseClick(d.find<QPushButton>("cardAction_drive_the_rear_one"), Qt::LeftButton);
        REQUIRE(waitFor([&] { return d.text("headline").contains("its rear piece is driven"); }));
        d.action("undo");
        REQUIRE(waitFor([&] { return d.text("headline").contains("its front piece is driven"); }));
        as_it_was = d.window.document().build();
    }
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
    CHECK(d.window.document().build() == as_it_was);
}

} // namespace desk_stretch_test
