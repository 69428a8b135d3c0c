#include "formats/byte_source.hpp"

#include "files/out_file.hpp"

#include <cstring>

#include <fmt/format.h>

namespace gorvet::formats {

namespace {
constexpr size_t window_bytes = 1 << 20;
}

ByteSource::ByteSource(const std::filesystem::path& path, const MeshProgress& progress)
    : file_(files::isPlainFile(path) ? std::fopen(path.c_str(), "rb") : nullptr), progress_(progress), window_(window_bytes) {
    std::error_code ec;
    if (auto plain = files::isPlainFile(path); !plain)
        throw MeshFailure{plain.error().code, plain.error().message, plain.error().remedy};
    size_ = std::filesystem::file_size(path, ec);
    if (!file_ || ec)
        throw MeshFailure{Error::Code::NotFound, fmt::format("{} can't be read.", path.string()),
                          "Check its name and permissions."};
}

bool ByteSource::fill(size_t needed) {
    if (end_ - begin_ >= needed) return true;
    std::memmove(window_.data(), window_.data() + begin_, end_ - begin_);
    base_ += begin_;
    end_ -= begin_;
    begin_ = 0;
    while (end_ < window_.size()) {
        const size_t n = std::fread(window_.data() + end_, 1, window_.size() - end_, file_.get());
        if (n == 0) break;
        end_ += n;
    }
    if (progress_ && !progress_(size_ ? static_cast<double>(base_ + end_) / static_cast<double>(size_) * 0.9 : 0.0))
        throw MeshFailure{Error::Code::Conflict, "Stopped: nothing was read.", ""};
    return end_ - begin_ >= needed;
}

bool ByteSource::atEnd() { return !fill(1); }

const unsigned char* ByteSource::take(size_t n) {
    if (!fill(n)) return nullptr;
    const unsigned char* bytes = window_.data() + begin_;
    begin_ += n;
    return bytes;
}

std::string_view ByteSource::ahead(size_t n) {
    fill(n);
    return {reinterpret_cast<const char*>(window_.data() + begin_), std::min(n, end_ - begin_)};
}

bool ByteSource::line(std::string_view& text) {
    // LF, CR LF, or CR alone
    for (size_t looked = 0;;) {
        const auto* from = window_.data() + begin_;
        const size_t have = end_ - begin_;
        const auto* found = static_cast<const unsigned char*>(std::memchr(from + looked, '\n', have - looked));
        const size_t until = found ? static_cast<size_t>(found - from) : have;
        if (const auto* turn = static_cast<const unsigned char*>(std::memchr(from + looked, '\r', until - looked))) {
            const auto n = static_cast<size_t>(turn - from);
            if (n + 1 == have && have < window_.size() && fill(have + 1)) continue; // is it CR LF?
            const size_t taken = n + 1 < have && from[n + 1] == '\n' ? n + 2 : n + 1;
            begin_ += taken;
            text = {reinterpret_cast<const char*>(from), n};
            return true;
        }
        if (found) {
            begin_ += until + 1;
            text = {reinterpret_cast<const char*>(from), until};
            return true;
        }
        looked = have;
        if (looked == window_.size() || !fill(looked + 1)) {
            if (looked == 0) return false;
            text = {reinterpret_cast<const char*>(window_.data() + begin_), looked};
            begin_ += looked;
            return true;
        }
    }
}

void ByteSource::back() {
    std::rewind(file_.get());
    base_ = begin_ = end_ = 0;
}

} // namespace gorvet::formats
