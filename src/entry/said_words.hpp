#pragma once

#include "entry/line.hpp"

#include <algorithm>
#include <string_view>

/// The words that may stand in a line. Internal to this room.
namespace gorvet::entry {

/// Whether the next word is one of these.
template <std::size_t N> bool saidNext(const std::string_view (&words)[N], const Line& line) {
    return !line.atEnd() && std::find(std::begin(words), std::end(words), line.peek().text) != std::end(words);
}

} // namespace gorvet::entry
