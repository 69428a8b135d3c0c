#pragma once

#include "units/result.hpp"

#include <filesystem>
#include <string>
#include <vector>

namespace gorvet::formats {

/// A whole day, or some, in a calendar. Days count from 1970-01-01.
struct CalendarEntry {
    std::string uid; ///< stable: the same thing keeps it, so that reading the file anew moves it
    std::string title;
    std::string note;
    int from = 0;
    int to = 0; ///< the last day; not before `from`
};

/// An iCalendar file (RFC 5545) by libical. `stamp`: the day it was made on. Fails where it can't be written.
Result<void> writeCalendar(const std::vector<CalendarEntry>&, const std::string& name, int stamp, const std::filesystem::path&);

} // namespace gorvet::formats
