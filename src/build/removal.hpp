#pragma once

#include "build/edit.hpp"

/// What hangs on a row and goes with it.
namespace gorvet::build {

/// What goes besides: so many rows of a table, with their names.
struct GoesAlong {
    std::string noun;               ///< "a reading"
    std::string table;              ///< "reading"
    std::vector<std::string> names; ///< how each is called in a sentence; never empty
    bool operator==(const GoesAlong&) const = default;
};
struct Removal {
    Edit edit;                          ///< the same sentence; its changes in an order in which each can be made
    std::vector<GoesAlong> along;       ///< tables in the order of the document; empty: nothing hangs on what was to go
    std::size_t without_instrument = 0; ///< readings that stay, and no longer say what they were read with
};

/// The edit with all that hangs on the rows it drops: what refers to one of them goes first; a reading outlives its instrument.
/// Fails as `enact` does where something else is in the way: a row that every build has, one that was handed in.
Result<Removal> withAllThatHangs(const Build&, const Edit&);

/// "With it goes what hangs on it: 3 readings (Al–Br, Al–Dl, Al–Fr) and 1 pin (tyre-front)": at most so many names of each kind.
/// Empty when nothing does.
std::string inWords(const Removal&, std::size_t most_names = 4);

} // namespace gorvet::build
