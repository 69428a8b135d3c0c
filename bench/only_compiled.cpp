// Beside a benchmark that was compiled as the tests are: nobody takes its figures for what the program does.
#include <cstdio>
#include <cstdlib>

namespace {

[[maybe_unused]] const bool refused = [] {
    std::fputs(
        "This benchmark was compiled for the tests, hardly optimised: ./gorvet bench builds and runs it as it is measured.\n",
        stderr);
    std::exit(2);
    return true;
}();

} // namespace
