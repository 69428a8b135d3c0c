// What fits next on a line: everything that can be typed can be tapped.
#include "entry/form_pattern.hpp"
#include "entry/next_words.hpp"
#include "entry/typist.hpp"

#include "support/support.hpp"

#include <algorithm>
#include <catch2/catch.hpp>

namespace entry_next_words_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

bool has(const entry::NextWords& next, const std::string& word) {
    return std::find(next.words.begin(), next.words.end(), word) != next.words.end();
}

void type(Build& b, entry::Context& c, const std::string& line) {
    const auto read = entry::understand(b, c, line);
    INFO(line << ": " << (read ? "" : read.error().text()));
    REQUIRE(read);
    REQUIRE(enact(b, read->edit));
    if (read->subject) c.subject = *read->subject;
}

/// A build that has something of all that lines name.
Build some(entry::Context& c) {
    Build b;
    c.drawn = [] { return std::vector<IssuedPiece>(1); };
    b.scans[ScanId{1}] = {ScanId{1}, the_body, ScanPart::Body, "shell", std::string(64, 'a')};
    b.scans[ScanId{2}] = {ScanId{2}, the_body, ScanPart::Bonnet, "bonnet", std::string(64, 'b')};
    b.planned_cuts[PlannedCutId{3}] = {PlannedCutId{3}, "cut-1", {{0, 0, 0}, {9, 0, 0}, {9, 9, 0}}};
    b.seatings[SeatingId{4}].id = SeatingId{4};
    b.seatings[SeatingId{4}].name = "low";
    b.next_id = 5;
    for (const char* line : {"point A3 0 0 0",
                             "point B7 2000 0 0",
                             "point Al 0 -400 0",
                             "point Ar 0 400 3",
                             "instrument big tape",
                             "setup floor plane",
                             "session monday right-way-up stands",
                             "subject second-frame candidate",
                             "subject clip component",
                             "point FL front-hub 0 -700 400",
                             "point FR front-hub 0 700 400",
                             "graft nose rear-frame of clip at 2000",
                             "subject body",
                             "point Sfl 900 -500 200",
                             "point Srl 1500 -500 200",
                             "zone floor named 500 1500 -300 300 400 600",
                             "brace door-left for door opening gap 4.5",
                             "blocked booster 0 10 0 10 0 10",
                             "subject chassis",
                             "point Dr 2000 400 0",
                             "point Bl 900 -400 0",
                             "floor-edge left from Al Bl to Sfl Srl",
                             "let-in floor-left from Al to Bl section 80 50 3",
                             "rail-hole bush at 1240 across 30 outer",
                             "rim rear fitted width 6in diameter 15in",
                             "output gearbox at station 1420 up 310",
                             "pinion rear at station 2400 up 300",
                             "shaft main from gearbox to rear",
                             "link lower rear-axle rod Al Bl",
                             "part brace-1 brace at Al Bl across 42 wall 3",
                             "fixture table1 pitch 50",
                             "issue",
                             "jobs cab-off",
                             "lift cab weighs 380",
                             "decide floor asks patch it",
                             "choice floor patch",
                             "surface sill-in steel",
                             "coat sill-in primer epoxy-primer",
                             "stock b60 box 60 40 3 long 2000 count 2"})
        type(b, c, line);
    entry_tests::Typist photographer{b, c, {}};
    photographer.photo();
    return photographer.b;
}

} // namespace

TEST_CASE("forms are read as a grammar", "[entry][next]") {
    const auto pin = entry::readPattern("pin up NAME… to NAME [tol length] [must|want], remove pin NAME");
    REQUIRE(pin.size() == 2);
    const auto& items = pin[0].items;
    REQUIRE(items.size() == 7);
    CHECK(items[0].words == std::vector<std::string>{"pin"});
    CHECK(items[2].slots == std::vector<std::string>{"NAME"});
    CHECK(items[2].repeat);
    CHECK_FALSE(items[4].repeat);
    REQUIRE(items[5].group.size() == 2);
    CHECK(items[5].group[1].slots == std::vector<std::string>{"length"});
    CHECK(items[6].group[0].words == std::vector<std::string>{"must", "want"});
    // an x between lengths stands for itself; one of x, y, z is filled in, but not where it is one of several words
    CHECK(entry::readPattern("box length x length")[0].items[2].words == std::vector<std::string>{"x"});
    CHECK(entry::readPattern("point NEW x y z")[0].items[2].slots == std::vector<std::string>{"x"});
    CHECK(entry::readPattern("hold NAME x|y|z length")[0].items[2].words == std::vector<std::string>{"x", "y", "z"});
    CHECK(entry::readPattern("… note text")[0].suffix);
}

TEST_CASE("every example of the help can be tapped, word by word", "[entry][next]") {
    entry::Context c;
    const Build b = some(c);
    c.knows_work = true;
    c.steps = {{"battery-out", "take the battery out", {}, false, {}},
               {"tank-out", "take the tank out", {}, true, {}},
               {"weld-rails", "weld", {}, false, {}}};
    const auto undone = entry::nextWords(b, c, "undone ");
    CHECK(undone.words == std::vector<std::string>{"tank-out"}); // what is ticked can be taken back, and no other
    c.steps[1].code = c.steps[0].code;                           // for the examples it is both
    for (const auto& form : entry::forms()) {
        const std::string example = form.example;
        std::string line;
        size_t at = 0;
        while (at < example.size()) {
            const size_t end = std::min(example.find(' ', at), example.size());
            const std::string word = example.substr(at, end - at);
            at = end + 1;
            const auto next = entry::nextWords(b, c, line);
            INFO(form.pattern << " · " << example << " · after \"" << line << "\": " << word);
            const bool figure = std::isdigit(static_cast<unsigned char>(word.front())) || word.front() == '-';
            const bool unit = word == "mm" || word == "kg" || word == "m"; // on a key of its own, after a figure
            CHECK((has(next, word) || (figure && (next.figure || next.text)) || next.name || next.text || next.point || unit));
            line += word + " ";
        }
    }
}

TEST_CASE("what may stand next follows the line", "[entry][next]") {
    entry::Context c;
    const Build b = some(c);
    const auto after = [&](const std::string& line, const char* bench = "") { return entry::nextWords(b, c, line, bench); };
    // at the beginning: the commands of the bench
    CHECK(has(after("", "Sit"), "sill"));
    CHECK_FALSE(has(after("", "Sit"), "datum"));
    CHECK(after("", "Tape").point);
    // words of a list, and no other
    const auto datum = after("datum ");
    CHECK(has(datum, "plane"));
    CHECK(has(datum, "free"));
    CHECK_FALSE(has(datum, "sill"));
    CHECK_FALSE(datum.point);
    CHECK(after("datum plane ").point);
    CHECK(has(after("datum plane "), "Al"));
    CHECK_FALSE(has(after("datum plane "), "Sfl")); // of the other subject
    CHECK_FALSE(after("datum plane A3 B7 ").figure);
    CHECK(after("datum plane A3 B7 Al ").figure);
    CHECK(after("datum plane A3 B7 Al ").whole);
    CHECK_FALSE(after("datum plane A3 ").whole);
    // what is begun
    const auto begun = after("datum pl");
    CHECK(begun.begun == "pl");
    CHECK(begun.words == std::vector<std::string>{"plane"});
    CHECK(after("dat").words == std::vector<std::string>{"datum"});
    // names of what there is
    CHECK(has(after("scan "), "shell"));
    CHECK(has(after("seating use "), "low"));
    CHECK(after("seating keep ").name);
    CHECK(has(after("remove subject "), "second-frame"));
    CHECK(has(after("remove scan "), "bonnet"));
    // after a reading: how well, with what, from where, in any order
    const auto read = after("height A3 412 ");
    CHECK(read.whole);
    for (const char* word : {"by", "with", "±", "note"}) CHECK(has(read, word));
    CHECK(has(after("height A3 412 by "), "floor"));
    CHECK(has(after("height A3 412 with "), "big"));
    CHECK(has(after("A3 B7 2000 mm "), "note"));
    // a figure is not a name, a word no figure
    CHECK_FALSE(has(after("sill front high "), "tol"));
    CHECK(after("sill front ").figure);
    // nothing fits after what no form has; nothing is thrown by anything
    CHECK(after("nonsense at all ").words.empty());
    CHECK_NOTHROW(after(std::string(700, 'x')));
    CHECK_NOTHROW(after("pin along a a a a a a a a a a a a a a a a to b b b b b b b b b b b b b b "));
    CHECK_NOTHROW(after("\"unclosed "));
}

} // namespace entry_next_words_test
