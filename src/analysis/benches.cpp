// The table of benches. A file of its own: a test links another table with a bench more.
#include "analysis/bench.hpp"

namespace gorvet::analysis {

extern const BenchInfo tape_bench;
extern const BenchInfo scan_bench;
extern const BenchInfo sit_bench;
extern const BenchInfo stretch_bench;
extern const BenchInfo drive_bench;
extern const BenchInfo make_bench;
extern const BenchInfo work_bench;

const std::vector<const BenchInfo*>& benches() {
    static const std::vector<const BenchInfo*> table{&tape_bench,  &scan_bench, &sit_bench, &stretch_bench,
                                                     &drive_bench, &make_bench, &work_bench};
    return table;
}

} // namespace gorvet::analysis
