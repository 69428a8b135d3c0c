// How wide a text is, by the shipped fonts themselves.
#include "sheet/fonts.hpp"

#include <array>
#include <ft2build.h>
#include <vector>

#include FT_FREETYPE_H

namespace gorvet::sheet {
namespace {

constexpr char32_t measured_signs = 0x2600; ///< letters, punctuation, mathematics, arrows; what lies beyond is as wide as an em

/// Advance of each sign, in shares of the font's size.
std::vector<float> advancesOf(Face face) {
    std::vector<float> advances(measured_signs, 1.0F);
    FT_Library library = nullptr;
    FT_Face font = nullptr;
    const auto bytes = fontBytes(face);
    if (FT_Init_FreeType(&library) != 0) return advances;
    if (FT_New_Memory_Face(library, bytes.data(), static_cast<FT_Long>(bytes.size()), 0, &font) == 0) {
        for (char32_t sign = 0; sign < measured_signs; ++sign)
            if (FT_Load_Char(font, sign, FT_LOAD_NO_SCALE) == 0)
                advances[sign] = static_cast<float>(font->glyph->advance.x) / static_cast<float>(font->units_per_EM);
        FT_Done_Face(font);
    }
    FT_Done_FreeType(library);
    return advances;
}

const std::vector<float>& advances(Face face) {
    static const std::array<std::vector<float>, 3> of{advancesOf(Face::Sans), advancesOf(Face::Bold), advancesOf(Face::Mono)};
    return of[face == Face::Bold ? 1 : face == Face::Mono ? 2 : 0];
}

/// The next sign of an UTF-8 text; what is none counts as one sign a byte.
char32_t nextSign(std::string_view text, size_t& at) {
    const auto first = static_cast<unsigned char>(text[at++]);
    const int more = first >= 0xF0 ? 3 : first >= 0xE0 ? 2 : first >= 0xC0 ? 1 : 0;
    char32_t sign = more == 0 ? first : first & (0x3FU >> more);
    for (int i = 0; i < more && at < text.size(); ++i, ++at) sign = sign << 6 | (static_cast<unsigned char>(text[at]) & 0x3FU);
    return sign;
}

} // namespace

double textWidth(std::string_view utf8, double size, Face face) {
    const std::vector<float>& advance = advances(face);
    double sum = 0;
    for (size_t at = 0; at < utf8.size();) {
        const char32_t sign = nextSign(utf8, at);
        sum += sign < measured_signs ? static_cast<double>(advance[sign]) : 1.0;
    }
    return sum * size;
}

} // namespace gorvet::sheet
