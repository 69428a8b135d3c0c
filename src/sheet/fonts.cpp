#include "sheet/fonts.hpp"

// written by data/fonts/rename_fonts.py
extern "C" {
extern const unsigned char gorvet_font_gorvetsans_regular_begin[];
extern const unsigned char gorvet_font_gorvetsans_regular_end[];
extern const unsigned char gorvet_font_gorvetsans_bold_begin[];
extern const unsigned char gorvet_font_gorvetsans_bold_end[];
extern const unsigned char gorvet_font_gorvetmono_regular_begin[];
extern const unsigned char gorvet_font_gorvetmono_regular_end[];
}

namespace gorvet::sheet {

std::span<const unsigned char> fontBytes(Face face) {
    switch (face) {
    case Face::Bold: return {gorvet_font_gorvetsans_bold_begin, gorvet_font_gorvetsans_bold_end};
    case Face::Mono: return {gorvet_font_gorvetmono_regular_begin, gorvet_font_gorvetmono_regular_end};
    default: return {gorvet_font_gorvetsans_regular_begin, gorvet_font_gorvetsans_regular_end};
    }
}

} // namespace gorvet::sheet
