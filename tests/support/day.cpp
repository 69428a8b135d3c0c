// The day that tests live on, whatever day it is: compiled into every test program, so that one that is started by hand has it,
// too.
#include <cstdlib>

namespace {
[[maybe_unused]] const bool the_day_is_set = ::setenv("GORVET_TODAY", "2026-11-30", 0) == 0;
} // namespace
