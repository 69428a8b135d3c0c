#include "analysis/slow.hpp"

#include "analysis/bench.hpp"

#include <algorithm>

namespace gorvet::analysis {

using build::Build;

const std::vector<const SlowNode*>& slowNodes() {
    static const auto all = [] {
        std::vector<const SlowNode*> list;
        for (const BenchInfo* bench : benches())
            if (bench->slow)
                for (const SlowNode& node : *bench->slow) list.push_back(&node);
        return list;
    }();
    return all;
}

const SlowNode* slowNode(std::string_view key) {
    const auto& all = slowNodes();
    const auto found = std::find_if(all.begin(), all.end(), [&](const SlowNode* node) { return node->key == key; });
    return found == all.end() ? nullptr : *found;
}

namespace {
std::vector<std::string_view> keysOf(bool SlowNode::*which) {
    std::vector<std::string_view> keys;
    for (const SlowNode* node : slowNodes())
        if (node->*which) keys.push_back(node->key);
    return keys;
}
} // namespace

std::vector<std::string_view> slowOnPaper() { return keysOf(&SlowNode::on_paper); }
std::vector<std::string_view> slowForFindings() { return keysOf(&SlowNode::in_findings); }
std::vector<std::string_view> slowForSpace() { return keysOf(&SlowNode::in_space); }

bool currentSlow(const Build& b, const Results& r, std::string_view key) {
    const SlowNode* node = slowNode(key);
    return node && node->possible(b, r) &&
           std::all_of(node->needs.begin(), node->needs.end(), [&](std::string_view n) { return currentSlow(b, r, n); }) &&
           node->current(b, r);
}

const SlowNode* nextSlow(const Build& b, const Results& r, const std::vector<std::string_view>& keys) {
    for (const std::string_view key : keys) {
        const SlowNode* node = slowNode(key);
        if (!node || r.stopped.contains(key)) continue;
        if (const SlowNode* first = nextSlow(b, r, node->needs)) return first;
        const bool ready =
            std::all_of(node->needs.begin(), node->needs.end(), [&](std::string_view n) { return currentSlow(b, r, n); });
        if (ready && node->possible(b, r) && !node->current(b, r)) return node;
    }
    return nullptr;
}

bool makeSlow(const Build& b, Results& r, const std::vector<std::string_view>& keys, const ReadBlob& blobs,
              const std::function<bool(const SlowNode&, double)>& progress) {
    while (const SlowNode* node = nextSlow(b, r, keys)) {
        const Progress own = [&](double share) { return !progress || progress(*node, share); };
        if (!own(0) || !node->make(b, r, blobs, own)) return false;
        if (!node->current(b, r)) r.stopped.insert(std::string(node->key)); // it can't be made: never begun again
    }
    findAgain(b, r);
    return true;
}

} // namespace gorvet::analysis
