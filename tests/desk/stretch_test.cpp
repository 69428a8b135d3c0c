// Demo 2 in the real window: a channel frame from its survey to what it bears, closed where it helps, and plates to cut.
#include "analysis/frame.hpp"
#include "analysis/scans.hpp"
#include "desk/driver.hpp"

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
    const auto file = folder / "drover.gorvet";
    const auto made = test::run(
        fmt::format("/usr/bin/python3 {}/demo/drover_long.py --cli {} --out {}", GORVET_SOURCE_DIR, GORVET_CLI, file.string()));
    INFO(made.out);
    REQUIRE(made.code == 0);
    build::Build as_it_was;
    {
        Driver d;
        REQUIRE(d.window.openFile(QString::fromStdString(file.string())));
        d.bench(4);
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

} // namespace desk_stretch_test
