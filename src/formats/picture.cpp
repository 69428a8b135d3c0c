#include "formats/picture.hpp"

#include "files/out_file.hpp"

#include <array>
#include <fstream>
#include <string_view>

namespace gorvet::formats {

Result<void> isPicture(const std::filesystem::path& path) {
    if (auto plain = files::isPlainFile(path); !plain) return plain;
    std::ifstream in(path, std::ios::binary);
    if (!in)
        return Error{Error::Code::NotFound, path.string(), path.string() + " can't be read.", "Check its name and permissions.",
                     -1};
    constexpr size_t least_bytes = 64; // no picture of any kind is shorter
    std::array<char, least_bytes> head{};
    in.read(head.data(), head.size());
    const std::string_view bytes(head.data(), static_cast<size_t>(in.gcount()));
    const auto at = [&](size_t from, std::string_view sign) {
        return bytes.substr(std::min(from, bytes.size()), sign.size()) == sign;
    };
    using namespace std::string_view_literals;
    const bool boxed = at(4, "ftyp"sv) && (at(8, "hei"sv) || at(8, "hev"sv) || at(8, "mif1"sv) || at(8, "avif"sv));
    const bool known = at(0, "\xFF\xD8\xFF"sv) || at(0, "\x89PNG\r\n\x1A\n"sv) || at(0, "II*\0"sv) || at(0, "MM\0*"sv) ||
                       (at(0, "RIFF"sv) && at(8, "WEBP"sv)) || boxed;
    if (bytes.size() == least_bytes && known) return {};
    return Error{Error::Code::BadInput, path.string(), path.filename().string() + " is no picture.",
                 "Give a JPEG, PNG, TIFF, WebP or HEIC file. Nothing was kept.", -1};
}

} // namespace gorvet::formats
