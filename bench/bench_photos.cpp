// Many photos: what opening a build with them costs, and keeping one more, from the file on the disk to all results. The baseline
// is the same on a build that has none.
#include "analysis/photos.hpp"
#include "analysis/results.hpp"
#include "formats/picture.hpp"
#include "quick_folder.hpp"
#include "store/store.hpp"
#include "support/pictures.hpp"

#include <benchmark/benchmark.h>
#include <cstdlib>
#include <filesystem>
#include <map>
#include <sqlite3.h>

#include <fmt/format.h>

using namespace gorvet;
using namespace gorvet::build;
using store::Store;

namespace {

const store::Author author{"bench", ""};

std::string hashOf(int k) { return fmt::format("{:064x}", k + 1); }

/// Contents as the file has them, 2 kB each: by themselves, a transaction each would take minutes.
void putContents(const std::filesystem::path& path, int photos) {
    sqlite3* db = nullptr;
    if (sqlite3_open(path.c_str(), &db) != SQLITE_OK) std::abort();
    sqlite3_exec(db, "BEGIN", nullptr, nullptr, nullptr);
    const std::string bytes(2000, 'p');
    sqlite3_stmt* blob = nullptr;
    sqlite3_stmt* chunk = nullptr;
    sqlite3_prepare_v2(db, "INSERT INTO blob (hash, name, bytes) VALUES (?1, 'p.jpg', 2000)", -1, &blob, nullptr);
    sqlite3_prepare_v2(db, "INSERT INTO blob_chunk (hash, n, data) VALUES (?1, 0, ?2)", -1, &chunk, nullptr);
    for (int k = 0; k < photos; ++k) {
        const std::string hash = hashOf(k);
        sqlite3_bind_text(blob, 1, hash.c_str(), -1, SQLITE_TRANSIENT);
        sqlite3_bind_text(chunk, 1, hash.c_str(), -1, SQLITE_TRANSIENT);
        sqlite3_bind_blob(chunk, 2, bytes.data(), static_cast<int>(bytes.size()), SQLITE_STATIC);
        if (sqlite3_step(blob) != SQLITE_DONE || sqlite3_step(chunk) != SQLITE_DONE) std::abort();
        sqlite3_reset(blob);
        sqlite3_reset(chunk);
    }
    sqlite3_finalize(blob);
    sqlite3_finalize(chunk);
    if (sqlite3_exec(db, "COMMIT", nullptr, nullptr, nullptr) != SQLITE_OK) std::abort();
    sqlite3_close(db);
}

/// A file with so many photos, made once.
const std::filesystem::path& fileOf(int photos) {
    static std::map<int, std::filesystem::path> made;
    auto& path = made[photos];
    if (!path.empty()) return path;
    path = folder() / (std::to_string(photos) + ".gorvet");
    {
        auto s = Store::create(path);
        if (!s) std::abort();
        constexpr int at_once = 500;
        for (int from = 0; from < photos; from += at_once) {
            std::vector<analysis::NewPhoto> files;
            for (int k = from; k < from + at_once; ++k) {
                analysis::NewPhoto p;
                p.hash = hashOf(k);
                p.taken = fmt::format("2026-{:02}-{:02} {:02}:{:02}:00", 1 + k % 12, 1 + k % 28, k % 24, k % 60);
                p.width_px = 4000;
                p.height_px = 3000;
                files.push_back(std::move(p));
            }
            const auto edit = analysis::keepPhotos(
                (*s)->build(), files, {fmt::format("area {}", from / at_once), "", "", Stage(1 + from / at_once % 3), "a note"},
                {"M.", "2026-11-28T10:00:00Z"});
            if (!edit || !(*s)->keep(*edit, author)) std::abort();
        }
    }
    putContents(path, photos);
    return path;
}

void open(benchmark::State& state) {
    const auto& path = fileOf(static_cast<int>(state.range(0)));
    for (auto _ : state) {
        auto s = Store::open(path);
        if (!s || !(*s)->damage().empty()) std::abort();
        benchmark::DoNotOptimize(analysis::analyse((*s)->build(), (*s)->revision()).findings.size());
    }
}

void keepOneMore(benchmark::State& state) {
    const auto path = folder() / "work.gorvet";
    std::filesystem::copy_file(fileOf(static_cast<int>(state.range(0))), path, std::filesystem::copy_options::overwrite_existing);
    auto s = Store::open(path);
    if (!s) std::abort();
    analysis::Results before = analysis::analyse((*s)->build(), (*s)->revision());
    int k = 0;
    for (auto _ : state) {
        state.PauseTiming();
        const auto file =
            test::write(folder() / "new.jpg", test::jpegOf(100, 1200, 900, 3'000'000 + static_cast<std::size_t>(++k)));
        state.ResumeTiming();
        const auto facts = formats::readPicture(file);
        const auto blob = (*s)->keepBlob(file);
        if (!facts || !blob) std::abort();
        analysis::NewPhoto p;
        p.hash = blob->hash;
        p.width_px = facts->width_px;
        p.height_px = facts->height_px;
        const auto edit =
            analysis::keepPhotos((*s)->build(), {p}, {"tail", "", "", Stage::Before, ""}, {"M.", "2026-11-28T10:00:00Z"});
        if (!edit || !(*s)->keep(*edit, author)) std::abort();
        before = analysis::analyse((*s)->build(), (*s)->revision(), &before);
    }
}

/// A picture of twelve million pixels, as small as a sheet shows it.
void makeSmall(benchmark::State& state) {
    files::Pixels p{4000, 3000, {}};
    p.rgb.resize(std::size_t{3} * 4000 * 3000);
    for (std::size_t i = 0; i < p.rgb.size(); ++i) p.rgb[i] = static_cast<unsigned char>((i * 2'654'435'761U) >> 13);
    const std::string jpeg = files::writeJpeg(p);
    const std::span<const unsigned char> raw(reinterpret_cast<const unsigned char*>(jpeg.data()), jpeg.size());
    for (auto _ : state) benchmark::DoNotOptimize(formats::smallPicture(raw, 6, 640)->size());
}

} // namespace

BENCHMARK(open)->Arg(0)->Arg(20'000)->Unit(benchmark::kMillisecond);
BENCHMARK(keepOneMore)->Arg(0)->Arg(20'000)->Unit(benchmark::kMillisecond);
BENCHMARK(makeSmall)->Unit(benchmark::kMillisecond);

BENCHMARK_MAIN();
