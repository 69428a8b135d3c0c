#pragma once

#include <algorithm>
#include <atomic>
#include <thread>
#include <vector>

/// Work on all processors, for rooms that compute.
namespace gorvet::shape {

/// 0: as many as there are.
inline int threadsOf(int wish) { return wish > 0 ? wish : std::max(1, static_cast<int>(std::thread::hardware_concurrency())); }

/// Calls `work(from, to)` for pieces of 0…n of at most `piece`, each once, on so many threads. `work` must not throw.
template <class F> void inPieces(size_t n, size_t piece, int threads, const F& work) {
    std::atomic<size_t> next{0};
    const auto go = [&] {
        for (size_t from = next.fetch_add(piece); from < n; from = next.fetch_add(piece)) work(from, std::min(n, from + piece));
    };
    std::vector<std::thread> others;
    const size_t pieces = (n + piece - 1) / piece;
    for (int t = 1; t < threads && static_cast<size_t>(t) < pieces; ++t) others.emplace_back(go);
    go();
    for (std::thread& t : others) t.join();
}

} // namespace gorvet::shape
