#include "cli/wait.hpp"

#include "analysis/scans.hpp"

#include <iostream>

#include <unistd.h>

#include <fmt/format.h>

namespace gorvet::cli {

void waitFor(const store::Store& store, const build::Build& b, analysis::Results& r, const std::vector<std::string_view>& keys) {
    const analysis::SlowNode* said = nullptr;
    int percent = -1;
    // on a terminal the line is written over; in a log each is written once
    const bool live = isatty(STDERR_FILENO) != 0;
    makeSlow(
        b, r, keys, [&](const std::string& hash, const auto& take) { return store.readBlob(hash, take); },
        [&](const analysis::SlowNode& node, double share) {
            const int now = static_cast<int>(100 * share);
            if (said != &node) {
                if (said && live) std::cerr << "\n";
                std::cerr << fmt::format("working out {}…{}", node.words, live ? "" : "\n");
            } else if (live && now != percent) {
                std::cerr << fmt::format("\rworking out {}… {} %", node.words, now);
            }
            said = &node;
            percent = now;
            return true;
        });
    if (said && live) std::cerr << "\n";
    for (const auto& [id, why] : r.scans->read->troubles)
        std::cerr << fmt::format("gorvet-cli: {}: {}\n", b.scans.at(id).name, why);
}

} // namespace gorvet::cli
