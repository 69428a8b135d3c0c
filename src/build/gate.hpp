#pragma once

#include "build/edit.hpp"

/// What may come into a build from outside. Stricter than what a build may hold: what was kept once is never refused again.
namespace gorvet::build {

/// How much of anything a build takes. Far above any car; below what hurts.
inline constexpr std::size_t most_name_characters = 120;
inline constexpr std::size_t most_text_characters = 20'000; ///< notes, and figures as typed
inline constexpr std::size_t most_rows = 200'000;           ///< in one table
inline constexpr std::size_t most_list = 100'000;           ///< points of a line, pins of a seating …
inline constexpr std::uint32_t most_id = 2'000'000'000;

/// Whether every text of the change is UTF-8 without signs that can't be seen and not too long, and every number finite and in
/// the range of its field. Fails with BadInput; the subject is the row, the message names field, figure and range.
Result<void> acceptable(const Change&);
Result<void> acceptable(const Edit&);

/// Whether `admit` would take the whole edit, without a change to the build. The same errors.
Result<void> wouldAdmit(const Build&, const Edit&);

/// `acceptable`, then `enact`: for readers that take line by line.
Result<Change> admit(Build&, const Change&);

} // namespace gorvet::build
