// A long register: what opening a build with it costs, and tagging one row more, from the typed line to all results. The baseline
// is the same on a build that has none.
#include "analysis/results.hpp"
#include "entry/entry.hpp"
#include "quick_folder.hpp"
#include "store/store.hpp"

#include <benchmark/benchmark.h>
#include <cstdlib>
#include <filesystem>
#include <map>
#include <unistd.h>

using namespace gorvet;
using namespace gorvet::build;
using store::Store;

namespace {

const store::Author author{"bench", ""};

/// A file with so many rows, made once; half of them are undone.
const std::filesystem::path& fileOf(int rows) {
    static std::map<int, std::filesystem::path> made;
    auto& path = made[rows];
    if (!path.empty()) return path;
    path = folder() / (std::to_string(rows) + ".gorvet");
    auto s = Store::create(path);
    if (!s) std::abort();
    Edit all{"tag", {}};
    for (int k = 0; k < rows; ++k) {
        Release r;
        r.id = ReleaseId{(*s)->build().next_id + static_cast<std::uint32_t>(k)};
        r.name = "row-" + std::to_string(k);
        r.area = "area " + std::to_string(k % 30);
        r.joins = "what it joins to what";
        if (k % 2) r.released = Signed{"M.", "2026-11-28T10:00:00Z"};
        all.changes.push_back(Put<Release>{std::move(r)});
    }
    if (rows > 0 && !(*s)->keep(all, author)) std::abort();
    return path;
}

void open(benchmark::State& state) {
    const auto& path = fileOf(static_cast<int>(state.range(0)));
    for (auto _ : state) {
        auto s = Store::open(path);
        if (!s) std::abort();
        benchmark::DoNotOptimize(analysis::analyse((*s)->build(), (*s)->revision()).findings.size());
    }
}

void tagOneMore(benchmark::State& state) {
    const auto path = folder() / "work.gorvet";
    std::filesystem::copy_file(fileOf(static_cast<int>(state.range(0))), path, std::filesystem::copy_options::overwrite_existing);
    auto s = Store::open(path);
    if (!s) std::abort();
    analysis::Results before = analysis::analyse((*s)->build(), (*s)->revision());
    int k = 0;
    for (auto _ : state) {
        const auto understood = entry::understand((*s)->build(), {}, "tag new-" + std::to_string(k++) + " cable area engine bay");
        if (!understood || !(*s)->keep(understood->edit, author)) std::abort();
        before = analysis::analyse((*s)->build(), (*s)->revision(), &before);
    }
}

} // namespace

BENCHMARK(open)->Arg(0)->Arg(5000)->Unit(benchmark::kMillisecond);
BENCHMARK(tagOneMore)->Arg(0)->Arg(5000)->Unit(benchmark::kMillisecond);

BENCHMARK_MAIN();
