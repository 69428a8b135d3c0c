// Pictures as cameras write them, and what is none.
#include "formats/picture.hpp"
#include "support/pictures.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>

#include <array>

namespace formats_picture_test {

using namespace gorvet;

namespace {

std::span<const unsigned char> raw(const std::string& s) { return {reinterpret_cast<const unsigned char*>(s.data()), s.size()}; }

/// 96 × 64: grey, the beginning of its first row red and the end of it green.
std::string corners() {
    files::Pixels p{96, 64, {}};
    for (int y = 0; y < p.height; ++y)
        for (int x = 0; x < p.width; ++x) {
            const bool red = y < 24 && x < 24, green = y < 24 && x >= 72;
            for (const int v : {red ? 255 : green ? 0 : 90, green ? 255 : red ? 0 : 90, red || green ? 0 : 90})
                p.rgb.push_back(static_cast<unsigned char>(v));
        }
    return files::writeJpeg(p);
}
/// The corner that is most red (0) or green (1): "top left".
std::string cornerOf(const files::Pixels& p, std::size_t colour) {
    std::string best;
    int most = -1000;
    for (const auto& [y, vertical] : {std::pair{4, "top"}, std::pair{p.height - 5, "bottom"}})
        for (const auto& [x, across] : {std::pair{4, "left"}, std::pair{p.width - 5, "right"}}) {
            const std::size_t at =
                3 * (static_cast<std::size_t>(y) * static_cast<std::size_t>(p.width) + static_cast<std::size_t>(x));
            const int excess = 2 * p.rgb[at + colour] - p.rgb[at + 1 - colour] - p.rgb[at + 2];
            if (excess > most) {
                most = excess;
                best = std::string(vertical) + " " + across;
            }
        }
    return best;
}

} // namespace

TEST_CASE("a camera's picture says when it was taken and how it was held", "[formats][picture]") {
    const test::QuickFolder folder("pictures");
    const std::string plain = test::jpegOf(120, 64, 32);
    const auto facts =
        formats::readPicture(test::write(folder.path / "a.jpg", test::jpegWithExif(plain, 6, "2026:11:28 14:05:09")));
    REQUIRE(facts);
    CHECK(facts->taken == "2026-11-28 14:05:09");
    CHECK(facts->turned == 6);
    CHECK(facts->width_px == 32); // as it is looked at
    CHECK(facts->height_px == 64);
    // what a camera can't have meant is not said
    for (const char* nonsense : {"0000:00:00 00:00:00", "2026:13:28 14:05:09", "yesterday, at noon."}) {
        const auto odd = formats::readPicture(test::write(folder.path / "b.jpg", test::jpegWithExif(plain, 9, nonsense)));
        REQUIRE(odd);
        CHECK(odd->taken.empty());
        CHECK(odd->turned == 1);
    }
    const auto none = formats::readPicture(test::write(folder.path / "c.jpg", plain));
    REQUIRE(none);
    CHECK(none->taken.empty());
    CHECK(none->width_px == 64);
}

TEST_CASE("what can't be looked at later is refused, with why", "[formats][picture]") {
    const test::QuickFolder folder("no-pictures");
    const auto why = [&](const std::string& bytes, const char* name = "x.jpg") {
        const auto read = formats::readPicture(test::write(folder.path / name, bytes));
        REQUIRE_FALSE(read);
        CHECK(read.error().code == Error::Code::BadInput);
        CHECK_FALSE(read.error().remedy.empty());
        return read.error().message;
    };
    const std::string jpeg = test::jpegOf(50, 200, 100);
    CHECK(why(std::string("\0\0\0\x18", 4) + "ftypheic" + std::string(200, 'x'), "p.heic").find("HEIC") != std::string::npos);
    CHECK(why(std::string("RIFF\0\0\0\0WEBP", 12) + std::string(200, 'x')).find("WebP") != std::string::npos);
    CHECK(why(std::string("II*\0", 4) + std::string(200, 'x')).find("TIFF") != std::string::npos);
    CHECK(why("a letter").find("no picture") != std::string::npos);
    CHECK(why("").find("no picture") != std::string::npos);
    // cut off anywhere
    for (std::size_t length = 4; length < jpeg.size() - 1; length += 37)
        CHECK(why(jpeg.substr(0, length)).find("cut off") != std::string::npos);
    // a small one within it does not pass for the whole
    CHECK(why(test::jpegWithExif(jpeg, 1, "2026:11:28 14:05:09").substr(0, jpeg.size() / 2)).find("cut off") !=
          std::string::npos);
    CHECK_FALSE(formats::smallPicture(raw(jpeg.substr(0, jpeg.size() / 2)), 1, 100));
    CHECK_FALSE(formats::smallPicture(raw("a letter"), 1, 100));
    CHECK(formats::readPicture(test::write(folder.path / "more.jpg", jpeg + "what a phone hangs on")));
    CHECK_FALSE(formats::readPicture(folder.path));
    CHECK_FALSE(formats::readPicture(folder.path / "nowhere.jpg"));
    // spoken notes
    CHECK(formats::isSound(test::write(folder.path / "n.wav", std::string("RIFF\0\0\0\0WAVEfmt ", 16) + std::string(100, 'x'))));
    CHECK(formats::isSound(test::write(folder.path / "n.ogg", "OggS" + std::string(100, 'x'))));
    CHECK_FALSE(formats::isSound(test::write(folder.path / "n.mp3", jpeg)));
    CHECK_FALSE(formats::isSound(folder.path / "nowhere.wav"));
}

TEST_CASE("however the camera was held, small ones stand upright", "[formats][picture]") {
    // by the definition of the tag: where the first row and the first column of what is stored are seen
    struct Held {
        int turned;
        const char* row;    ///< side at which the first row is seen
        const char* column; ///< and the first column
    };
    for (const Held& h :
         {Held{1, "top", "left"}, Held{2, "top", "right"}, Held{3, "bottom", "right"}, Held{4, "bottom", "left"},
          Held{5, "left", "top"}, Held{6, "right", "top"}, Held{7, "right", "bottom"}, Held{8, "left", "bottom"}}) {
        INFO(h.turned);
        const auto small = formats::smallPicture(raw(corners()), h.turned, 96);
        REQUIRE(small);
        const auto p = files::readJpeg(raw(*small), 1000);
        REQUIRE(p);
        const bool aside = h.turned >= 5;
        CHECK(p->width == (aside ? 64 : 96));
        CHECK(p->height == (aside ? 96 : 64));
        const std::string row = h.row, column = h.column;
        const std::string other = column == "left" ? "right" : column == "right" ? "left" : column == "top" ? "bottom" : "top";
        CHECK(cornerOf(*p, 0) == (aside ? column + " " + row : row + " " + column)); // the first row's beginning
        CHECK(cornerOf(*p, 1) == (aside ? other + " " + row : row + " " + other));   // and its end
    }
    // smaller by the mean: a checkerboard becomes grey
    files::Pixels board{400, 200, {}};
    for (int k = 0; k < 400 * 200; ++k) board.rgb.insert(board.rgb.end(), 3, (k % 400 + k / 400) % 2 ? 255 : 0);
    const auto grey = formats::smallPicture(raw(files::writeJpeg(board)), 1, 40);
    REQUIRE(grey);
    const auto p = files::readJpeg(raw(*grey), 1000);
    REQUIRE(p);
    CHECK(p->width == 40);
    CHECK(p->height == 20);
    for (const unsigned char v : p->rgb) CHECK(std::abs(v - 127) < 12);
}

} // namespace formats_picture_test
