#pragma once

#include <optional>
#include <string>
#include <string_view>

/// Dates as people write them in a workshop: days, without hours and zones.
namespace gorvet::units {

/// Days since 1970-01-01 of "2026-12-24"; nothing where that is no date of the calendar between the years 1900 and 2200.
std::optional<int> dayOf(std::string_view iso);
/// "2026-12-24".
std::string isoDate(int day);
/// "Thu 24 Dec 2026".
std::string dateWords(int day);
/// Seconds since 1970 of "2026-12-24T08:05:00Z"; nothing where it is not written so.
std::optional<long long> secondsOf(std::string_view iso_utc);
/// Today by the machine's clock; GORVET_TODAY, a date, in its place where it is set.
int today();
/// Seconds since 1970 by the machine's clock; noon of `GORVET_TODAY` where that is set.
long long nowSeconds();
/// "2026-12-24T08:05:00Z" of seconds since 1970.
std::string isoTime(long long seconds);
/// 0 for Monday to 6 for Sunday.
int weekday(int day);

} // namespace gorvet::units
