#pragma once

#include "formats/mesh_file.hpp"

#include <cstdio>
#include <memory>
#include <string_view>

/// A file read through a window of a megabyte, with progress. Internal to this room.
namespace gorvet::formats {

/// Thrown inside the mesh readers; becomes an Error at their border.
struct MeshFailure {
    Error::Code code;
    std::string message;
    std::string remedy;
};

class ByteSource {
public:
    ByteSource(const std::filesystem::path&, const MeshProgress&);
    std::uint64_t size() const { return size_; }
    std::uint64_t at() const { return base_ + begin_; } ///< bytes taken so far
    bool atEnd();
    /// The next n bytes (n ≤ 1 MB), valid until the next call; nullptr when the file ends before.
    const unsigned char* take(size_t n);
    /// The first bytes without taking them; fewer at the end.
    std::string_view ahead(size_t n);
    /// The next line without its end (LF, CR LF or CR); false at the end of the file. A line longer than the window is cut.
    bool line(std::string_view& text);
    void back(); ///< to the beginning

private:
    bool fill(size_t needed);
    struct Closer {
        void operator()(std::FILE* f) const { std::fclose(f); }
    };
    std::unique_ptr<std::FILE, Closer> file_;
    const MeshProgress& progress_;
    std::vector<unsigned char> window_;
    std::uint64_t size_ = 0;
    std::uint64_t base_ = 0; ///< of the window in the file
    size_t begin_ = 0;
    size_t end_ = 0;
};

} // namespace gorvet::formats
