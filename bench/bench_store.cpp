// The build's file: what an edit costs at first and after tens of thousands, and opening. The baseline of opening reads the same
// rows by SQLite alone.
#include "quick_folder.hpp"
#include "store/store.hpp"

#include <benchmark/benchmark.h>
#include <cstdlib>
#include <filesystem>
#include <map>
#include <sqlite3.h>
#include <string>
#include <unistd.h>

using namespace gorvet;
using namespace gorvet::build;
using store::Store;

namespace {

const store::Author author{"bench", ""};

Edit nextEdit(const Build& b) {
    if (b.points.size() < 200) {
        Point p;
        p.id = PointId{b.next_id};
        p.name = "P" + std::to_string(b.next_id);
        p.rough = Vec3{1.0 * b.next_id, 400, 300};
        Edit e{"mark point " + p.name, {Put<Point>{p}}};
        if (b.sessions.empty()) {
            Session s;
            s.id = SessionId{b.next_id + 1};
            s.name = "first";
            e.changes.push_back(Put<Session>{s});
        }
        return e;
    }
    Reading r;
    r.id = ReadingId{b.next_id};
    r.session = b.sessions.begin()->first;
    r.from = b.points.begin()->first;
    r.to = std::prev(b.points.end())->first;
    r.value = {1000.0 + b.next_id % 900, "1000 and some", Provenance::Measured};
    r.note = "a reading of the bench";
    return {"tape P1–P2 1000.0 mm", {Put<Reading>{r}}};
}

/// A file of so many edits, made once.
const std::filesystem::path& fileOf(int edits) {
    static std::map<int, std::filesystem::path> made;
    auto& path = made[edits];
    if (path.empty()) {
        path = folder() / (std::to_string(edits) + ".gorvet");
        auto s = Store::create(path);
        if (!s) std::abort();
        for (int i = 0; i < edits; ++i)
            if (!(*s)->keep(nextEdit((*s)->build()), author)) std::abort();
    }
    return path;
}

void keepAnEdit(benchmark::State& state) {
    const auto path = folder() / "work.gorvet";
    std::filesystem::copy_file(fileOf(static_cast<int>(state.range(0))), path, std::filesystem::copy_options::overwrite_existing);
    auto s = Store::open(path);
    if (!s) std::abort();
    for (auto _ : state)
        if (!(*s)->keep(nextEdit((*s)->build()), author)) std::abort();
}

void openIt(benchmark::State& state) {
    const auto& path = fileOf(static_cast<int>(state.range(0)));
    for (auto _ : state) {
        auto s = Store::open(path, store::Access::Read);
        if (!s || !(*s)->damage().empty()) std::abort();
        benchmark::DoNotOptimize((*s)->revision());
    }
}

void readRowsBySqliteAlone(benchmark::State& state) {
    const auto& path = fileOf(static_cast<int>(state.range(0)));
    for (auto _ : state) {
        sqlite3* db = nullptr;
        sqlite3_open_v2(path.c_str(), &db, SQLITE_OPEN_READONLY, nullptr);
        sqlite3_stmt* rows = nullptr;
        sqlite3_prepare_v2(db, "SELECT * FROM journal ORDER BY seq", -1, &rows, nullptr);
        std::int64_t bytes = 0;
        while (sqlite3_step(rows) == SQLITE_ROW)
            for (int c = 0; c < sqlite3_column_count(rows); ++c) bytes += sqlite3_column_bytes(rows, c);
        benchmark::DoNotOptimize(bytes);
        sqlite3_finalize(rows);
        sqlite3_close(db);
    }
}

} // namespace

BENCHMARK(keepAnEdit)->Arg(300)->Arg(5000)->Arg(20000)->Arg(50000)->Unit(benchmark::kMillisecond)->Iterations(1000);
BENCHMARK(readRowsBySqliteAlone)->Arg(50000)->Unit(benchmark::kMillisecond);
BENCHMARK(openIt)->Arg(300)->Arg(20000)->Arg(50000)->Unit(benchmark::kMillisecond);

int main(int argc, char** argv) {
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
    std::filesystem::remove_all(folder());
    return 0;
}
