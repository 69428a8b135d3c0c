#pragma once

#include "work/work.hpp"

#include <map>

/// Which step waits for which, by numbers. Internal to this room.
namespace gorvet::work {

class Needs {
public:
    /// Reads `after` of all; codes that no step has are passed over.
    explicit Needs(const std::vector<Step>& steps);
    /// The step of that code; none.
    std::optional<size_t> find(const std::string& code) const;
    void add(size_t step, size_t first) { after_[step].push_back(first); }
    /// Whether a step waits for another, directly or through others; for itself, too.
    bool waits(size_t step, size_t first) const;
    /// Steps of which each waits for the next and the last for the first; empty where there are none.
    std::vector<size_t> circle() const;
    /// All that wait for a step, directly or through others.
    std::vector<size_t> heldUpBy(size_t step) const;

private:
    std::map<std::string, size_t> index_;
    std::vector<std::vector<size_t>> after_;
};

} // namespace gorvet::work
