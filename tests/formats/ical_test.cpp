// Calendars, read back by the library that other programs read them with.
#include "formats/ical.hpp"
#include "support/support.hpp"
#include "units/dates.hpp"

#include <catch2/catch.hpp>

#include <fstream>
#include <sstream>

#include <libical/ical.h>

namespace formats_ical_test {

using namespace gorvet;
using formats::CalendarEntry;

TEST_CASE("a calendar is read back as it was written: whole days, long lines, commas, umlauts", "[ical]") {
    const auto folder = test::freshFolder("ical");
    const auto path = folder / "time.ics";
    const int day = *units::dayOf("2026-12-24");
    const std::string note = "Caution: dust, sparks; nobody under it. " + std::string(300, 'x') + " Tür ½";
    const std::vector<CalendarEntry> entries{{"step-a@Drover", "Weld the floor, left; once", note, day, day + 2},
                                             {"order-seals@Drover", "Order seals", "", day - 30, day - 30}};
    REQUIRE(formats::writeCalendar(entries, "Drover long", day - 40, path));
    // once more over it, as it is a calendar; not over what is none
    CHECK(formats::writeCalendar(entries, "Drover long", day - 40, path));
    const auto other = folder / "notes.ics";
    std::ofstream(other) << "my notes";
    CHECK_FALSE(formats::writeCalendar(entries, "Drover long", day - 40, other));

    std::stringstream text;
    text << std::ifstream(path, std::ios::binary).rdbuf();
    std::istringstream lines(text.str());
    for (std::string line; std::getline(lines, line);) CHECK(line.size() <= 76); // 75 bytes and the carriage return
    icalcomponent* c = icalparser_parse_string(text.str().c_str());
    REQUIRE(c);
    CHECK(icalcomponent_count_errors(c) == 0);
    CHECK(icalrestriction_check(c));
    std::size_t k = 0;
    for (icalcomponent* e = icalcomponent_get_first_component(c, ICAL_VEVENT_COMPONENT); e;
         e = icalcomponent_get_next_component(c, ICAL_VEVENT_COMPONENT), ++k) {
        REQUIRE(k < entries.size());
        CHECK(icalcomponent_get_summary(e) == entries[k].title);
        CHECK(icalcomponent_get_uid(e) == entries[k].uid);
        if (!entries[k].note.empty()) CHECK(icalcomponent_get_description(e) == entries[k].note);
        const icaltimetype from = icalcomponent_get_dtstart(e), to = icalcomponent_get_dtend(e);
        CHECK(from.is_date);
        CHECK(fmt::format("{:04}-{:02}-{:02}", from.year, from.month, from.day) == units::isoDate(entries[k].from));
        CHECK(fmt::format("{:04}-{:02}-{:02}", to.year, to.month, to.day) == units::isoDate(entries[k].to + 1));
    }
    CHECK(k == entries.size());
    icalcomponent_free(c);
}

} // namespace formats_ical_test
