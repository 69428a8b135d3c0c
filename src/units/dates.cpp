#include "units/dates.hpp"

#include <array>
#include <chrono>
#include <cstdlib>

#include <fmt/format.h>

namespace gorvet::units {

namespace {
std::chrono::year_month_day calendar(int day) { return std::chrono::sys_days{std::chrono::days{day}}; }
} // namespace

std::optional<int> dayOf(std::string_view iso) {
    if (iso.size() != 10 || iso[4] != '-' || iso[7] != '-') return std::nullopt;
    int part[3] = {0, 0, 0};
    int k = 0;
    for (const char c : iso) {
        if (c == '-')
            ++k;
        else if (c < '0' || c > '9')
            return std::nullopt;
        else
            part[k] = part[k] * 10 + (c - '0');
    }
    const std::chrono::year_month_day date{std::chrono::year{part[0]}, std::chrono::month{static_cast<unsigned>(part[1])},
                                           std::chrono::day{static_cast<unsigned>(part[2])}};
    if (!date.ok() || part[0] < 1900 || part[0] > 2200) return std::nullopt;
    return static_cast<int>(std::chrono::sys_days{date}.time_since_epoch().count());
}

std::string isoDate(int day) {
    const auto d = calendar(day);
    return fmt::format("{:04}-{:02}-{:02}", static_cast<int>(d.year()), static_cast<unsigned>(d.month()),
                       static_cast<unsigned>(d.day()));
}

std::string dateWords(int day) {
    static constexpr std::array days = {"Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"};
    static constexpr std::array months = {"Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"};
    const auto d = calendar(day);
    return fmt::format("{} {} {} {}", days[static_cast<std::size_t>(weekday(day))], static_cast<unsigned>(d.day()),
                       months[static_cast<unsigned>(d.month()) - 1], static_cast<int>(d.year()));
}

std::optional<long long> secondsOf(std::string_view iso) {
    if (iso.size() != 20 || iso[10] != 'T' || iso[13] != ':' || iso[16] != ':' || iso[19] != 'Z') return std::nullopt;
    const auto day = dayOf(iso.substr(0, 10));
    if (!day) return std::nullopt;
    int part[3] = {0, 0, 0};
    for (std::size_t k = 0; k < 3; ++k)
        for (std::size_t c = 11 + 3 * k; c < 13 + 3 * k; ++c) {
            if (iso[c] < '0' || iso[c] > '9') return std::nullopt;
            part[k] = part[k] * 10 + (iso[c] - '0');
        }
    return 86400LL * *day + 3600LL * part[0] + 60LL * part[1] + part[2];
}

int weekday(int day) {
    return static_cast<int>(std::chrono::weekday{std::chrono::sys_days{std::chrono::days{day}}}.iso_encoding()) - 1;
}

long long nowSeconds() {
    constexpr long long a_day = 86'400;
    if (const char* said = std::getenv("GORVET_TODAY"))
        if (const auto day = dayOf(said)) return *day * a_day + a_day / 2;
    const auto now = std::chrono::system_clock::now().time_since_epoch();
    return std::chrono::floor<std::chrono::seconds>(now).count();
}

int today() {
    constexpr long long a_day = 86'400;
    return static_cast<int>(nowSeconds() / a_day);
}

std::string isoTime(long long seconds) {
    constexpr long long a_day = 86'400;
    const long long day = seconds >= 0 ? seconds / a_day : (seconds - a_day + 1) / a_day;
    const long long within = seconds - day * a_day;
    return fmt::format("{}T{:02}:{:02}:{:02}Z", isoDate(static_cast<int>(day)), within / 3600, within / 60 % 60, within % 60);
}

} // namespace gorvet::units
