#pragma once

#include <string>

namespace gorvet::files {

/// Lines from a descriptor as they come, without waiting for more than the end of the line. A line of more bytes than `most` is
/// given up to there and a bit: whoever reads it refuses it as too long; the rest of it is passed over.
class LineReader {
public:
    LineReader(int fd, size_t most) : fd_(fd), most_(most) {}
    /// False at the end.
    bool next(std::string& line);

private:
    int fd_;
    size_t most_;
    std::string waiting_;
    bool ended_ = false;
};

} // namespace gorvet::files
