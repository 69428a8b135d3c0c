#include "formats/ical.hpp"

#include "files/out_file.hpp"
#include "units/dates.hpp"

#include <algorithm>
#include <memory>

#include <libical/ical.h>

namespace gorvet::formats {

namespace {

struct Free {
    void operator()(icalcomponent* c) const { icalcomponent_free(c); }
};

icaltimetype dateOf(int day) {
    const std::string iso = units::isoDate(day); // 2026-12-24
    icaltimetype t = icaltime_null_date();
    t.year = std::stoi(iso.substr(0, 4));
    t.month = std::stoi(iso.substr(5, 2));
    t.day = std::stoi(iso.substr(8, 2));
    return t;
}

icaltimetype midnight(int day) {
    icaltimetype t = dateOf(day);
    t.is_date = 0;
    t.hour = t.minute = t.second = 0;
    t.zone = icaltimezone_get_utc_timezone();
    return t;
}

} // namespace

Result<void> writeCalendar(const std::vector<CalendarEntry>& entries, const std::string& name, int stamp,
                           const std::filesystem::path& path) {
    const std::unique_ptr<icalcomponent, Free> calendar(icalcomponent_new_vcalendar());
    icalcomponent_add_property(calendar.get(), icalproperty_new_version("2.0"));
    icalcomponent_add_property(calendar.get(), icalproperty_new_prodid("-//Gorvet//Order of work//EN"));
    icalproperty* title = icalproperty_new_x(name.c_str());
    icalproperty_set_x_name(title, "X-WR-CALNAME");
    icalcomponent_add_property(calendar.get(), title);
    for (const CalendarEntry& e : entries) {
        icalcomponent* event = icalcomponent_new_vevent();
        icalcomponent_add_component(calendar.get(), event);
        icalcomponent_add_property(event, icalproperty_new_uid(e.uid.c_str()));
        icalcomponent_add_property(event, icalproperty_new_dtstamp(midnight(stamp)));
        icalcomponent_add_property(event, icalproperty_new_summary(e.title.c_str()));
        if (!e.note.empty()) icalcomponent_add_property(event, icalproperty_new_description(e.note.c_str()));
        icalcomponent_add_property(event, icalproperty_new_dtstart(dateOf(e.from)));
        icalcomponent_add_property(event, icalproperty_new_dtend(dateOf(std::max(e.from, e.to) + 1))); // the day after the last
        icalcomponent_add_property(event, icalproperty_new_transp(ICAL_TRANSP_TRANSPARENT));
    }
    const std::unique_ptr<char, void (*)(void*)> text(icalcomponent_as_ical_string_r(calendar.get()), icalmemory_free_buffer);
    return files::putText(path, files::Kind::Calendar, text.get());
}

} // namespace gorvet::formats
