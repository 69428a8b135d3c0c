#pragma once

#include "analysis/results.hpp"

#include <span>
#include <string_view>

/// Nodes of the graph that take seconds. `analyse` does not make them: the window makes them beside itself, a command waits for
/// them. What was made is shown until it is made anew; `current` says whether it is of now.
namespace gorvet::analysis {

/// Hands over the bytes that a build's file keeps under a hash. Fails with NotFound or Damaged.
using ReadBlob = std::function<Result<void>(const std::string& hash, const std::function<void(std::span<const unsigned char>)>&)>;

struct SlowNode {
    std::string_view key;                ///< begins with the key of its bench: "scan.clearance"
    const char* words;                   ///< what is being worked out
    std::vector<std::string_view> needs; ///< made before it
    /// There is something to make it from.
    bool (*possible)(const build::Build&, const Results&);
    /// It is made, from what the build says now. Its needs are current.
    bool (*current)(const build::Build&, const Results&);
    /// Makes it. False when it was stopped: the results are then as they were.
    bool (*make)(const build::Build&, Results&, const ReadBlob&, const Progress&);
    bool on_paper = false;    ///< the sheets show it
    bool in_findings = false; ///< findings come of it
    bool in_space = false;    ///< the view of the scans shows it
};
/// Those of all benches; each comes after what it needs.
const std::vector<const SlowNode*>& slowNodes();
const SlowNode* slowNode(std::string_view key);
/// Those that the sheets show.
std::vector<std::string_view> slowOnPaper();
/// Those that findings come of.
std::vector<std::string_view> slowForFindings();
/// Those that the view of the scans shows.
std::vector<std::string_view> slowForSpace();

/// Whether it is made, and all that it needs, from what the build says now.
bool currentSlow(const build::Build&, const Results&, std::string_view key);
/// The first that must be made so that those of `keys` are current; nullptr: they are, or nothing more can be made. What was
/// stopped is left out.
const SlowNode* nextSlow(const build::Build&, const Results&, const std::vector<std::string_view>& keys);
/// Makes all of `keys` and what they need, one after the other, and finds again. `progress` hears which. False when stopped.
bool makeSlow(const build::Build&, Results&, const std::vector<std::string_view>& keys, const ReadBlob&,
              const std::function<bool(const SlowNode&, double)>& progress = {});

} // namespace gorvet::analysis
