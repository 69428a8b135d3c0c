#include "work/needs.hpp"

#include <algorithm>

namespace gorvet::work {

Needs::Needs(const std::vector<Step>& steps) : after_(steps.size()) {
    for (size_t i = 0; i < steps.size(); ++i) index_.emplace(steps[i].code, i);
    for (size_t i = 0; i < steps.size(); ++i)
        for (const std::string& code : steps[i].after)
            if (const auto k = index_.find(code); k != index_.end()) after_[i].push_back(k->second);
}

std::optional<size_t> Needs::find(const std::string& code) const {
    const auto found = index_.find(code);
    return found == index_.end() ? std::nullopt : std::optional(found->second);
}

bool Needs::waits(size_t step, size_t first) const {
    std::vector<bool> seen(after_.size(), false);
    std::vector<size_t> open{step};
    seen[step] = true;
    while (!open.empty()) {
        const size_t now = open.back();
        open.pop_back();
        if (now == first) return true;
        for (const size_t k : after_[now])
            if (!seen[k]) {
                seen[k] = true;
                open.push_back(k);
            }
    }
    return false;
}

std::vector<size_t> Needs::circle() const {
    enum class Mark { New, Open, Closed };
    std::vector<Mark> marks(after_.size(), Mark::New);
    std::vector<std::pair<size_t, size_t>> way; // a step, and which of its needs is looked at next
    for (size_t start = 0; start < after_.size(); ++start) {
        if (marks[start] != Mark::New) continue;
        way = {{start, 0}};
        marks[start] = Mark::Open;
        while (!way.empty()) {
            auto& [now, next] = way.back();
            if (next == after_[now].size()) {
                marks[now] = Mark::Closed;
                way.pop_back();
                continue;
            }
            const size_t k = after_[now][next++];
            if (marks[k] == Mark::Open) {
                std::vector<size_t> circle;
                const auto from = std::find_if(way.begin(), way.end(), [&](const auto& w) { return w.first == k; });
                for (auto w = from; w != way.end(); ++w) circle.push_back(w->first);
                return circle;
            }
            if (marks[k] == Mark::New) {
                marks[k] = Mark::Open;
                way.emplace_back(k, 0);
            }
        }
    }
    return {};
}

std::vector<size_t> Needs::heldUpBy(size_t step) const {
    std::vector<std::vector<size_t>> before(after_.size());
    for (size_t i = 0; i < after_.size(); ++i)
        for (const size_t k : after_[i]) before[k].push_back(i);
    std::vector<bool> seen(after_.size(), false);
    std::vector<size_t> open{step}, all;
    while (!open.empty()) {
        const size_t now = open.back();
        open.pop_back();
        for (const size_t k : before[now])
            if (!seen[k]) {
                seen[k] = true;
                all.push_back(k);
                open.push_back(k);
            }
    }
    std::sort(all.begin(), all.end());
    return all;
}

} // namespace gorvet::work
