#include "analysis/bench.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

const BenchInfo* benchOf(std::string_view key) {
    for (const BenchInfo* bench : benches())
        if (bench->key == key) return bench;
    return nullptr;
}

std::size_t placeOf(std::string_view key) {
    for (std::size_t i = 0; i < benches().size(); ++i)
        if (benches()[i]->key == key) return i;
    return 0;
}

const char* benchName(const Finding& f) { return benches()[placeOf(f.bench())]->name; }

bool begun(const build::Build& b, const Results& r, std::string_view bench) {
    const BenchInfo* info = benchOf(bench);
    return info && info->begun(b, r);
}

Headline headline(const build::Build& b, const Results& r, std::string_view bench, build::SubjectId subject) {
    const BenchInfo* info = benchOf(bench);
    return info ? info->headline(b, r, subject) : Headline{};
}

Worst worstOf(const std::vector<Finding>& findings, std::string_view bench) {
    Worst worst;
    const std::size_t place = placeOf(bench);
    for (const Finding& f : findings) {
        if (placeOf(f.bench()) != place) continue;
        if (f.severity > worst.severity) worst = {0, f.severity};
        if (f.severity == worst.severity) ++worst.count;
    }
    return worst;
}

void FileKeeper::keep(const std::string& name, const Write& write) {
    constexpr double about_files = 18;
    if (failed_) return;
    if (progress_ && !progress_(std::min(0.99, static_cast<double>(files_.size()) / about_files))) {
        failed_ = Error{Error::Code::Conflict, folder_.string(),
                        fmt::format("Cancelled: {} files were written before.", files_.size()), "", -1};
        return;
    }
    if (auto done = write(folder_ / name); !done)
        failed_ = done.error();
    else
        files_.push_back(folder_ / name);
}

} // namespace gorvet::analysis
