#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace gorvet::entry {

/// How many slips of the hand part two words: a letter left out, put in, another, or two in the wrong order. Large and small
/// letters count as alike. Damerau, optimal string alignment.
int slipsBetween(std::string_view, std::string_view);

/// Those of the candidates that the word may have been meant as, the likeliest first: at most one slip for each three letters,
/// or the same beginning of three letters and more. Each once, three at most.
std::vector<std::string> nearest(std::string_view word, const std::vector<std::string>& candidates);

} // namespace gorvet::entry
