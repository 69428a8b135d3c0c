// What is said of a reading that is proposed.
#include "tape/next_reading.hpp"

#include <fmt/format.h>

namespace gorvet::tape {

std::string searchedWords(const Survey& survey) {
    if (survey.points.size() <= most_points_searched) return {};
    return fmt::format("looked for among {} of {} points: those asked for, and those with the fewest readings",
                       most_points_searched, survey.points.size());
}

std::string RankedReading::words() const {
    if (fixes) return fmt::format("would fix {} point{}", fixes, fixes == 1 ? "" : "s");
    const std::string before = units::fixed(before_mm, 1);
    const std::string after = units::fixed(after_mm, 1);
    return what.empty() || before == after ? std::string() : fmt::format("would take {} from ± {} to ± {}", what, before, after);
}

std::string RankedReading::aboutWords(units::LengthStep step) const {
    return build::isAngle(kind) ? units::formatAngle(about) : units::formatLength(about, step);
}

std::string RankedReading::whatWords(const Survey& survey) const {
    const std::string& one = survey.points[static_cast<size_t>(from)].name;
    if (to < 0) return fmt::format("{} of {}", build::word(kind), one);
    const std::string pair = one + " – " + survey.points[static_cast<size_t>(to)].name;
    return kind == ReadingKind::Tape ? pair : fmt::format("{} {}", build::word(kind), pair);
}

} // namespace gorvet::tape
