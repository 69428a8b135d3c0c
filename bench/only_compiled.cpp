// Beside a benchmark that was compiled without optimisation: nobody takes its figures for what the program does.
#include <cstdio>
#include <cstdlib>

namespace {

[[maybe_unused]] const bool refused = [] {
    std::fputs(
        "This benchmark was compiled for the tests, without optimisation: ./gorvet bench builds and runs it as it is measured.\n",
        stderr);
    std::exit(2);
    return true;
}();

} // namespace
