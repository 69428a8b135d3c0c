// Pictures as cameras and phones write them: what they say of themselves, and smaller ones.
#include "formats/picture.hpp"

#include "files/jpeg.hpp"
#include "files/out_file.hpp"
#include "units/dates.hpp"

#include <algorithm>
#include <array>
#include <cstring>
#include <fstream>
#include <optional>
#include <string_view>
#include <vector>

#include <cairo.h>
#include <libexif/exif-data.h>

#include <fmt/format.h>

namespace gorvet::formats {

namespace {

using Bytes = std::span<const unsigned char>;
using namespace std::string_view_literals;

constexpr std::string_view png_sign = "\x89PNG\r\n\x1A\n"sv;

std::string_view textOf(Bytes b) { return {reinterpret_cast<const char*>(b.data()), b.size()}; }
bool at(Bytes b, std::size_t from, std::string_view sign) {
    return textOf(b).substr(std::min(from, b.size()), sign.size()) == sign;
}
unsigned big2(Bytes b, std::size_t from) { return static_cast<unsigned>(b[from]) << 8 | b[from + 1]; }
std::uint64_t big4(Bytes b, std::size_t from) { return static_cast<std::uint64_t>(big2(b, from)) << 16 | big2(b, from + 2); }

/// Why a picture of another kind is refused; empty: it is no picture at all.
std::string otherKind(Bytes b) {
    if (at(b, 4, "ftyp"sv) && (at(b, 8, "hei"sv) || at(b, 8, "hev"sv) || at(b, 8, "mif1"sv))) return "HEIC";
    if (at(b, 4, "ftyp"sv) && at(b, 8, "avif"sv)) return "AVIF";
    if (at(b, 0, "RIFF"sv) && at(b, 8, "WEBP"sv)) return "WebP";
    if (at(b, 0, "II*\0"sv) || at(b, 0, "MM\0*"sv)) return "TIFF or raw";
    return {};
}

struct Size {
    double width = 0;
    double height = 0;
};

/// Goes through a JPEG from mark to mark up to its end; none where it breaks off before.
std::optional<Size> walkJpeg(Bytes b) {
    std::optional<Size> size;
    std::size_t i = 2;
    bool in_scan = false;
    while (i + 1 < b.size()) {
        if (in_scan || b[i] != 0xFF) { // what is coded, up to the next mark
            const auto* next = static_cast<const unsigned char*>(std::memchr(b.data() + i, 0xFF, b.size() - 1 - i));
            if (!next) return std::nullopt;
            i = static_cast<std::size_t>(next - b.data());
        }
        const unsigned mark = b[i + 1];
        const bool filled = mark == 0xFF, stuffed = mark == 0x00, restart = mark >= 0xD0 && mark <= 0xD7;
        if (filled) {
            ++i;
            continue;
        }
        if (stuffed || restart) {
            i += 2;
            continue;
        }
        if (mark == 0xD9) return size; // the end
        if (i + 3 >= b.size()) return std::nullopt;
        const unsigned length = big2(b, i + 2);
        const bool frame = mark >= 0xC0 && mark <= 0xCF && mark != 0xC4 && mark != 0xC8 && mark != 0xCC;
        if (frame && i + 9 <= b.size()) size = Size{double(big2(b, i + 7)), double(big2(b, i + 5))};
        in_scan = mark == 0xDA;
        i += 2 + std::max(length, 2U);
    }
    return std::nullopt;
}

/// The same of a PNG, from chunk to chunk.
std::optional<Size> walkPng(Bytes b) {
    std::optional<Size> size;
    for (std::uint64_t i = png_sign.size(); i + 12 <= b.size();) {
        const std::uint64_t length = big4(b, i);
        if (i + 12 + length > b.size()) return std::nullopt;
        if (at(b, i + 4, "IHDR"sv) && length >= 8) size = Size{double(big4(b, i + 8)), double(big4(b, i + 12))};
        if (at(b, i + 4, "IEND"sv)) return size;
        i += 12 + length;
    }
    return std::nullopt;
}

/// When it was taken and how the camera was held, as far as it says so.
void readExif(Bytes b, PictureFacts& facts) {
    ExifData* data = exif_data_new_from_data(b.data(), static_cast<unsigned>(b.size()));
    if (!data) return;
    if (ExifEntry* e = exif_content_get_entry(data->ifd[EXIF_IFD_0], EXIF_TAG_ORIENTATION);
        e && e->format == EXIF_FORMAT_SHORT && e->size >= 2) {
        const int turned = exif_get_short(e->data, exif_data_get_byte_order(data));
        if (turned >= 1 && turned <= 8) facts.turned = turned;
    }
    for (const auto& [ifd, tag] :
         {std::pair{EXIF_IFD_EXIF, EXIF_TAG_DATE_TIME_ORIGINAL}, std::pair{EXIF_IFD_0, EXIF_TAG_DATE_TIME}}) {
        ExifEntry* e = exif_content_get_entry(data->ifd[ifd], tag);
        constexpr std::size_t length = 19; // "2026:11:28 14:05:09"
        if (!e || e->format != EXIF_FORMAT_ASCII || e->size < length) continue;
        std::string text(reinterpret_cast<const char*>(e->data), length);
        text[4] = text[7] = '-';
        if (!units::secondsOf(fmt::format("{}T{}Z", std::string_view(text).substr(0, 10), std::string_view(text).substr(11))))
            continue;
        facts.taken = text;
        break;
    }
    exif_data_unref(data);
}

Result<std::vector<unsigned char>> wholeFile(const std::filesystem::path& path) {
    if (auto plain = files::isPlainFile(path); !plain) return plain.error();
    std::ifstream in(path, std::ios::binary | std::ios::ate);
    const auto unread = [&](const char* why, const char* remedy) {
        return Error{Error::Code::NotFound, path.string(), path.string() + why, remedy, -1};
    };
    if (!in) return unread(" can't be read.", "Check its name and permissions.");
    const auto size = static_cast<std::int64_t>(in.tellg());
    constexpr std::int64_t most_bytes = 200'000'000;
    if (size > most_bytes) return unread(" has more than 200 MB: no camera's picture has.", "Give a smaller one.");
    std::vector<unsigned char> bytes(static_cast<std::size_t>(std::max<std::int64_t>(size, 0)));
    in.seekg(0);
    in.read(reinterpret_cast<char*>(bytes.data()), static_cast<std::streamsize>(bytes.size()));
    if (!in) return unread(" can't be read to its end.", "Copy it once more.");
    return bytes;
}

Result<files::Pixels> readPng(Bytes bytes) {
    struct Reading {
        Bytes left;
    } reading{bytes};
    const auto next = [](void* from, unsigned char* to, unsigned length) {
        auto& r = *static_cast<Reading*>(from);
        if (length > r.left.size()) return CAIRO_STATUS_READ_ERROR;
        std::copy_n(r.left.begin(), length, to);
        r.left = r.left.subspan(length);
        return CAIRO_STATUS_SUCCESS;
    };
    cairo_surface_t* image = cairo_image_surface_create_from_png_stream(next, &reading);
    files::Pixels out;
    if (cairo_surface_status(image) == CAIRO_STATUS_SUCCESS) {
        // on white, where it lets through
        const int w = cairo_image_surface_get_width(image), h = cairo_image_surface_get_height(image);
        cairo_surface_t* opaque = cairo_image_surface_create(CAIRO_FORMAT_RGB24, w, h);
        cairo_t* cr = cairo_create(opaque);
        cairo_set_source_rgb(cr, 1, 1, 1);
        cairo_paint(cr);
        cairo_set_source_surface(cr, image, 0, 0);
        cairo_paint(cr);
        cairo_destroy(cr);
        cairo_surface_flush(opaque);
        if (cairo_surface_status(opaque) == CAIRO_STATUS_SUCCESS) {
            out.width = w;
            out.height = h;
            out.rgb.reserve(std::size_t{3} * static_cast<std::size_t>(w) * static_cast<std::size_t>(h));
            const unsigned char* rows = cairo_image_surface_get_data(opaque);
            const int stride = cairo_image_surface_get_stride(opaque);
            for (int y = 0; y < h; ++y)
                for (int x = 0; x < w; ++x) {
                    std::uint32_t pixel = 0;
                    std::memcpy(&pixel, rows + std::ptrdiff_t{y} * stride + std::ptrdiff_t{4} * x, sizeof pixel);
                    for (const int shift : {16, 8, 0}) out.rgb.push_back(static_cast<unsigned char>(pixel >> shift));
                }
        }
        cairo_surface_destroy(opaque);
    }
    cairo_surface_destroy(image);
    if (out.width == 0) return Error{Error::Code::BadInput, "picture", "The picture can't be read.", "Copy it once more.", -1};
    return out;
}

/// Each pixel the mean of those that it stands for.
files::Pixels shrunk(const files::Pixels& from, int longest_px) {
    const int longest = std::max(from.width, from.height);
    if (longest <= longest_px) return from;
    files::Pixels to;
    const auto scaled = [&](int n) { return std::max(1, static_cast<int>(static_cast<std::int64_t>(n) * longest_px / longest)); };
    to.width = scaled(from.width);
    to.height = scaled(from.height);
    to.rgb.resize(std::size_t{3} * static_cast<std::size_t>(to.width) * static_cast<std::size_t>(to.height));
    const auto begin = [](int k, int n, int of) { return static_cast<int>(static_cast<std::int64_t>(k) * of / n); };
    std::size_t at = 0;
    for (int y = 0; y < to.height; ++y) {
        const int top = begin(y, to.height, from.height), bottom = std::max(top + 1, begin(y + 1, to.height, from.height));
        for (int x = 0; x < to.width; ++x) {
            const int left = begin(x, to.width, from.width), right = std::max(left + 1, begin(x + 1, to.width, from.width));
            std::array<std::uint32_t, 3> sum{};
            for (int v = top; v < bottom; ++v)
                for (int u = left; u < right; ++u)
                    for (std::size_t c = 0; c < 3; ++c)
                        sum[c] += from.rgb[3 * (static_cast<std::size_t>(v) * static_cast<std::size_t>(from.width) +
                                                static_cast<std::size_t>(u)) +
                                           c];
            const auto count = static_cast<std::uint32_t>((bottom - top) * (right - left));
            for (const std::uint32_t s : sum) to.rgb[at++] = static_cast<unsigned char>((s + count / 2) / count);
        }
    }
    return to;
}

/// The right way up. Of the eight ways that a camera may say: 2, 4, 5, 7 are mirrored, 5 to 8 lie on their side.
files::Pixels upright(const files::Pixels& from, int turned) {
    if (turned <= 1 || turned > 8) return from;
    const bool aside = turned >= 5;
    files::Pixels to;
    to.width = aside ? from.height : from.width;
    to.height = aside ? from.width : from.height;
    to.rgb.resize(from.rgb.size());
    for (int y = 0; y < to.height; ++y)
        for (int x = 0; x < to.width; ++x) {
            int u = x, v = y;
            switch (turned) {
            case 2: u = to.width - 1 - x; break;
            case 3: u = to.width - 1 - x, v = to.height - 1 - y; break;
            case 4: v = to.height - 1 - y; break;
            case 5: u = y, v = x; break;
            case 6: u = y, v = to.width - 1 - x; break;
            case 7: u = to.height - 1 - y, v = to.width - 1 - x; break;
            case 8: u = to.height - 1 - y, v = x; break;
            default: break;
            }
            const auto of = [](int row, int column, int width) {
                return 3 * (static_cast<std::size_t>(row) * static_cast<std::size_t>(width) + static_cast<std::size_t>(column));
            };
            std::copy_n(from.rgb.begin() + static_cast<std::ptrdiff_t>(of(v, u, from.width)), 3,
                        to.rgb.begin() + static_cast<std::ptrdiff_t>(of(y, x, to.width)));
        }
    return to;
}

} // namespace

Result<PictureFacts> readPicture(const std::filesystem::path& path) {
    const auto bytes = wholeFile(path);
    if (!bytes) return bytes.error();
    const std::string file = path.filename().string();
    const auto refused = [&](const std::string& why, const char* remedy) {
        return Error{Error::Code::BadInput, path.string(), file + why, remedy, -1};
    };
    const bool jpeg = files::looksLikeJpeg(*bytes), png = at(*bytes, 0, png_sign);
    if (!jpeg && !png) {
        if (const std::string kind = otherKind(*bytes); !kind.empty())
            return refused(
                fmt::format(" is a {} picture: it can be neither shown nor printed here, nor looked at in ten years.", kind),
                "Let the camera write JPEG, or save it as JPEG or PNG. Nothing was kept.");
        return refused(" is no picture.", "Give a JPEG or PNG file. Nothing was kept.");
    }
    const auto size = jpeg ? walkJpeg(*bytes) : walkPng(*bytes);
    if (!size) return refused(" is cut off: its end is missing.", "Copy it from the camera once more. Nothing was kept.");
    if (size->width < 1 || size->height < 1) return refused(" has no size.", "Give a JPEG or PNG file. Nothing was kept.");
    PictureFacts facts;
    if (jpeg) readExif(*bytes, facts);
    facts.width_px = facts.turned >= 5 ? size->height : size->width;
    facts.height_px = facts.turned >= 5 ? size->width : size->height;
    return facts;
}

Result<void> isSound(const std::filesystem::path& path) {
    if (auto plain = files::isPlainFile(path); !plain) return plain;
    std::ifstream in(path, std::ios::binary);
    std::array<unsigned char, 64> head{};
    in.read(reinterpret_cast<char*>(head.data()), head.size());
    const Bytes b(head.data(), static_cast<std::size_t>(in.gcount()));
    const bool mpeg = b.size() > 1 && b[0] == 0xFF && (b[1] & 0xE0) == 0xE0 && (b[1] & 0x06) != 0; // a frame of it
    const bool known = (at(b, 0, "RIFF"sv) && at(b, 8, "WAVE"sv)) || at(b, 0, "OggS"sv) || at(b, 0, "fLaC"sv) ||
                       at(b, 0, "ID3"sv) || (at(b, 4, "ftyp"sv) && at(b, 8, "M4A"sv)) || mpeg;
    if (b.size() == head.size() && known) return {};
    return Error{Error::Code::BadInput, path.string(), path.filename().string() + " is no spoken note.",
                 "Give a WAV, OGG, FLAC, MP3 or M4A file. Nothing was kept.", -1};
}

Result<std::string> smallPicture(Bytes bytes, int turned, int longest_px) {
    const auto read = files::looksLikeJpeg(bytes) ? files::readJpeg(bytes, longest_px) : readPng(bytes);
    if (!read) return read.error();
    return files::writeJpeg(upright(shrunk(*read, longest_px), turned));
}

} // namespace gorvet::formats
