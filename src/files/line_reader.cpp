#include "files/line_reader.hpp"

#include <array>
#include <cerrno>

#include <unistd.h>

namespace gorvet::files {

bool LineReader::next(std::string& line) {
    bool passing = false; // over the rest of a line that is too long
    for (size_t looked = 0;;) {
        const size_t end = waiting_.find('\n', looked);
        if (end != std::string::npos) {
            if (!passing) line = waiting_.substr(0, end);
            waiting_.erase(0, end + 1);
            return true;
        }
        if (!passing && waiting_.size() > most_) {
            line = waiting_;
            passing = true;
        }
        if (passing) waiting_.clear();
        looked = waiting_.size();
        if (ended_) {
            if (waiting_.empty()) return passing;
            line = std::move(waiting_);
            waiting_.clear();
            return true;
        }
        std::array<char, 65536> piece{};
        const ssize_t n = ::read(fd_, piece.data(), piece.size());
        if (n < 0 && errno == EINTR) continue;
        if (n <= 0)
            ended_ = true;
        else
            waiting_.append(piece.data(), static_cast<size_t>(n));
    }
}

} // namespace gorvet::files
