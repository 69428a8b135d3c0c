#pragma once

#include "entry/entry.hpp"

/// What fits next on a line, so that it can be tapped or completed instead of typed.
namespace gorvet::entry {

struct NextWords {
    std::vector<std::string> words; ///< each once, in the order of the forms; those that go on with what is begun
    std::string begun;              ///< the last word of the line, when no blank follows it
    bool point = false;             ///< a point's name: it can be picked on a sheet
    bool figure = false;            ///< a figure with or without its unit
    bool name = false;              ///< a name that is made up now
    bool text = false;              ///< any words
    bool whole = false;             ///< the line can be kept as it stands
};

/// By the forms of the commands. `bench`: at the beginning of a line, the commands of this one alone (its name as in a form).
NextWords nextWords(const build::Build&, const Context&, std::string_view line, std::string_view bench = {});

} // namespace gorvet::entry
