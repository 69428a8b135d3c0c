#include "files/out_file.hpp"

#include <algorithm>
#include <array>
#include <cerrno>
#include <cstring>
#include <fstream>
#include <mutex>
#include <optional>
#include <utility>
#include <vector>

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <fmt/format.h>

namespace gorvet::files {
namespace {

namespace fs = std::filesystem;

struct Fd {
    int fd;
    ~Fd() {
        if (fd >= 0) ::close(fd);
    }
    Fd(int number) : fd(number) {}
    Fd(const Fd&) = delete;
    Fd& operator=(const Fd&) = delete;
};

struct Protected {
    std::mutex mutex;
    std::vector<std::pair<dev_t, ino_t>> files;
};
Protected& protectedFiles() {
    static Protected list;
    return list;
}

std::string endingOf(const fs::path& path) {
    std::string ending = path.extension().string();
    std::transform(ending.begin(), ending.end(), ending.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return ending;
}

std::string headOf(const fs::path& path) {
    std::array<char, 512> head{};
    std::ifstream in(path, std::ios::binary);
    in.read(head.data(), head.size());
    return {head.data(), static_cast<size_t>(in.gcount())};
}

const char* nameOf(Kind kind) {
    switch (kind) {
    case Kind::Pdf: return "PDF";
    case Kind::Svg: return "SVG";
    case Kind::Dxf: return "DXF";
    case Kind::Step: return "STEP";
    case Kind::Ply: return "PLY";
    case Kind::Stl: return "STL";
    case Kind::Csv: return "CSV";
    case Kind::Picture: return "picture";
    case Kind::Calendar: return "calendar";
    }
    return "";
}

/// Whether what is there already is of that kind, so that a newer one may take its place.
bool isOfKind(const fs::path& path, Kind kind) {
    const std::string head = headOf(path);
    const std::string ending = endingOf(path);
    if (head.empty()) return true;
    const bool text = head.find('\0') == std::string::npos;
    switch (kind) {
    case Kind::Pdf: return head.starts_with("%PDF");
    case Kind::Svg: return text && head.find("<svg") != std::string::npos;
    case Kind::Dxf: return text && ending == ".dxf";
    case Kind::Step: return head.starts_with("ISO-10303");
    case Kind::Ply: return head.starts_with("ply");
    case Kind::Stl: return ending == ".stl";
    case Kind::Csv: return text && (ending == ".csv" || ending == ".txt");
    case Kind::Calendar: return head.starts_with("BEGIN:VCALENDAR");
    case Kind::Picture: return ending == ".jpg" || ending == ".jpeg" || ending == ".png";
    }
    return false;
}

Error cant(const fs::path& to, int reason) {
    return {Error::Code::File, to.string(),
            reason ? fmt::format("{} can't be written: {}.", to.string(), std::strerror(reason))
                   : fmt::format("{} can't be written.", to.string()),
            reason == ENOSPC ? "Free some space, or choose another place." : "Choose another place.", -1};
}
Error refused(const fs::path& to, std::string why, std::string remedy) {
    return {Error::Code::Conflict, to.string(), fmt::format("{} {}.", to.string(), why), std::move(remedy), -1};
}

/// Where the file really is: a link is followed, so that the link stays one.
fs::path resolved(const fs::path& to) {
    std::error_code ec;
    if (!fs::is_symlink(to, ec)) return to;
    const fs::path real = fs::canonical(to, ec);
    return ec ? to : real;
}

bool copyInto(const fs::path& from, const fs::path& device, int& reason) {
    const Fd in(::open(from.c_str(), O_RDONLY | O_CLOEXEC));
    const Fd out(::open(device.c_str(), O_WRONLY | O_CLOEXEC));
    std::array<char, 65536> piece{};
    if (in.fd < 0 || out.fd < 0) return reason = errno, false;
    for (;;) {
        const ssize_t n = ::read(in.fd, piece.data(), piece.size());
        if (n == 0) return true;
        if (n < 0) return reason = errno, false;
        for (ssize_t done = 0; done < n;) {
            const ssize_t w = ::write(out.fd, piece.data() + done, static_cast<size_t>(n - done));
            if (w < 0 && errno == EINTR) continue;
            if (w <= 0) return reason = errno, false;
            done += w;
        }
    }
}

/// A new, empty file that nobody else has; removed again unless it was given its name.
struct Temporary {
    std::string path;
    bool kept = false;
    /// In `folder`; hidden, with the ending that some writers look at. Empty path when it can't be made.
    Temporary(const fs::path& folder, const fs::path& name) {
        const std::string ending = name.extension().string();
        path = (folder / fmt::format(".{}.XXXXXX{}", name.stem().string().substr(0, 100), ending)).string();
        const Fd made(::mkostemps(path.data(), static_cast<int>(ending.size()), O_CLOEXEC));
        if (made.fd < 0) path.clear();
    }
    ~Temporary() {
        if (!path.empty() && !kept) ::unlink(path.c_str());
    }
    Temporary(const Temporary&) = delete;
    Temporary& operator=(const Temporary&) = delete;
};

/// Whose rights the new file gets: those of the one it replaces, or the usual ones.
mode_t rightsFor(const fs::path& to) {
    struct stat old {};
    if (::stat(to.c_str(), &old) == 0) return old.st_mode & 0777;
    const mode_t mask = ::umask(0);
    ::umask(mask);
    return 0666 & ~mask;
}

} // namespace

bool isBuild(const fs::path& path) {
    if (endingOf(path) == ".gorvet") return true;
    const std::string head = headOf(path);
    return head.size() >= 72 && head.starts_with("SQLite format 3") && head.compare(68, 4, "Gorv") == 0;
}

Result<void> isPlainFile(const fs::path& path) {
    std::error_code ec;
    const auto status = fs::status(path, ec);
    if (ec || !fs::exists(status))
        return Error{Error::Code::NotFound, path.string(), fmt::format("{} can't be read.", path.string()),
                     "Check its name and permissions.", -1};
    if (!fs::is_regular_file(status))
        return Error{Error::Code::NotFound, path.string(), fmt::format("{} is no file: it can't be read.", path.string()),
                     "Choose a file; what comes from a pipe or device goes into one first.", -1};
    return {};
}

void protect(const fs::path& path) {
    struct stat s {};
    if (::stat(path.c_str(), &s) != 0) return;
    const std::lock_guard lock(protectedFiles().mutex);
    protectedFiles().files.emplace_back(s.st_dev, s.st_ino);
}

Result<void> mayPut(const fs::path& to, Kind kind) {
    if (endingOf(to) == ".gorvet")
        return refused(to, "has the name of a build: nothing else is written there", "Choose another name.");
    struct stat s {};
    if (::stat(to.c_str(), &s) != 0) {
        const auto folder = to.has_parent_path() ? to.parent_path() : fs::path(".");
        std::error_code ec;
        if (!fs::is_directory(folder, ec))
            return Error{Error::Code::File, to.string(),
                         fmt::format("{} can't be written: there is no folder {}.", to.string(), folder.string()),
                         "Make it first, or choose another place.", -1};
        return {};
    }
    if (S_ISDIR(s.st_mode)) return refused(to, "is a folder", "Name the file to write.");
    if (!S_ISREG(s.st_mode)) return {};
    if (isBuild(to)) return refused(to, "is a build: nothing is written over it", "Choose another name.");
    {
        const std::lock_guard lock(protectedFiles().mutex);
        for (const auto& [device, number] : protectedFiles().files)
            if (device == s.st_dev && number == s.st_ino)
                return refused(to, "is what this command reads: nothing is written over it", "Choose another name.");
    }
    if (!isOfKind(to, kind))
        return refused(to, fmt::format("is there already and is no {} of an earlier run", nameOf(kind)),
                       "Choose another name, or move that file away.");
    return {};
}

Result<void> put(const fs::path& given, Kind kind, const std::function<Result<void>(const fs::path&)>& write) {
    const fs::path to = resolved(given);
    if (auto may = mayPut(to, kind); !may) return may;
    std::error_code ec;
    const bool device = fs::exists(to, ec) && !fs::is_regular_file(to, ec);
    const auto folder = device ? fs::temp_directory_path(ec) : to.has_parent_path() ? to.parent_path() : fs::path(".");
    errno = 0;
    Temporary temporary(ec ? fs::path("/tmp") : folder, to.filename());
    if (temporary.path.empty()) return cant(to, errno);
    errno = 0;
    if (auto written = write(temporary.path); !written) {
        const int reason = errno;
        if (written.error().code != Error::Code::File) return written;
        return cant(to, reason == ENOSPC || reason == EACCES || reason == EIO ? reason : 0);
    }
    int reason = 0;
    if (device) return copyInto(temporary.path, to, reason) ? Result<void>{} : Result<void>(cant(to, reason));
    {
        const Fd file(::open(temporary.path.c_str(), O_RDONLY | O_CLOEXEC));
        if (file.fd < 0 || ::fchmod(file.fd, rightsFor(to)) != 0 || ::fsync(file.fd) != 0) return cant(to, errno);
    }
    if (::rename(temporary.path.c_str(), to.c_str()) != 0) return cant(to, errno);
    temporary.kept = true;
    const Fd directory(::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
    if (directory.fd >= 0) (void)::fsync(directory.fd);
    return {};
}

Result<void> putText(const fs::path& to, Kind kind, std::string_view text) {
    return put(to, kind, [&](const fs::path& at) -> Result<void> {
        std::ofstream out(at, std::ios::binary);
        out.write(text.data(), static_cast<std::streamsize>(text.size()));
        out.close();
        if (!out) return cant(at, errno);
        return {};
    });
}

} // namespace gorvet::files
