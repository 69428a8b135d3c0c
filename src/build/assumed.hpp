#pragma once

#include "build/build.hpp"

#include <string>
#include <vector>

namespace gorvet::build {

/// How the figures of a struct that are only assumed are called, in the schema's order: "box height". What is a choice of the
/// plan's and no size of a thing that is there (`chosen` in its schema) is left out: its usual value is as good as any.
std::vector<std::string> assumedIn(std::size_t place_in_document, const void* row);
template <class T> std::vector<std::string> assumedIn(const T& row) { return assumedIn(placeInDocument<T>(), &row); }

} // namespace gorvet::build
