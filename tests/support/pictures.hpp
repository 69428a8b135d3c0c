#pragma once

#include "files/jpeg.hpp"

#include <filesystem>
#include <fstream>
#include <string>

/// Pictures that tests make.
namespace gorvet::test {

/// A JPEG of one shade, `bytes` long or as short as it is: what stands behind a picture's end does not harm it.
inline std::string jpegOf(int shade, int width = 16, int height = 16, std::size_t bytes = 0) {
    files::Pixels p{width, height, {}};
    p.rgb.assign(std::size_t{3} * static_cast<std::size_t>(width) * static_cast<std::size_t>(height),
                 static_cast<unsigned char>(shade));
    std::string jpeg = files::writeJpeg(p);
    if (jpeg.size() < bytes) jpeg.append(bytes - jpeg.size(), static_cast<char>('a' + shade % 26));
    return jpeg;
}

/// The same with what a camera writes: how it was held, and when it was taken ("2026:11:28 14:05:09").
inline std::string jpegWithExif(const std::string& jpeg, int turned, const std::string& taken) {
    std::string t = "II*";
    const auto u16 = [&](unsigned v) { t += {static_cast<char>(v & 0xFF), static_cast<char>(v >> 8)}; };
    const auto u32 = [&](unsigned v) {
        u16(v & 0xFFFF);
        u16(v >> 16);
    };
    t += '\0';
    u32(8); // where the first directory is
    u16(2); // its entries
    u16(0x0112), u16(3), u32(1), u16(static_cast<unsigned>(turned)), u16(0);
    u16(0x8769), u16(4), u32(1), u32(38);
    u32(0);
    u16(1); // at 38: when it was taken
    u16(0x9003), u16(2), u32(static_cast<unsigned>(taken.size() + 1)), u32(56);
    u32(0);
    t += taken + std::string(1, '\0'); // at 56
    std::string app = std::string("Exif\0\0", 6) + t;
    const std::size_t length = app.size() + 2;
    return jpeg.substr(0, 2) + "\xFF\xE1" + static_cast<char>(length >> 8) + static_cast<char>(length & 0xFF) + app +
           jpeg.substr(2);
}

inline std::filesystem::path write(const std::filesystem::path& to, const std::string& bytes) {
    std::ofstream(to, std::ios::binary) << bytes;
    return to;
}

} // namespace gorvet::test
