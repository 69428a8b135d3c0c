// The window shows a bench that has no side of its own on the desk: verb, headline, view, cards, entry line.
#include "desk/driver.hpp"
#include "store/store.hpp"

#include <catch2/catch.hpp>

namespace tiny_bench_weigh_window_test {

using namespace gorvet;
using test::Driver;

TEST_CASE("a bench more in the table has its verb in the window", "[desk][tiny-bench]") {
    const auto path = test::freshFolder("tiny-bench-window") / "heron.gorvet";
    REQUIRE(store::Store::create(path));
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
    CHECK_FALSE(d.window.findChild<QPushButton*>("verbSit")); // this table has Tape, Weigh and Work
    d.find<QPushButton>("verbWeigh")->click();
    CHECK(d.window.shownBench() == "weigh");
    d.keep("everywhere 400 kg");
    CHECK(d.text("headline") == "The wheels carry 1600 kg.");
    CHECK(d.find<QPushButton>("verbWeigh")->accessibleName().contains("1 bad"));
    CHECK(d.find<desk::SheetView>("sheet")->placeOf("total"));
    d.window.setBench("sit"); // not there: nothing happens
    CHECK(d.window.shownBench() == "weigh");
}

} // namespace tiny_bench_weigh_window_test
