#include "units/text.hpp"

#include <algorithm>
#include <array>
#include <cstdint>

#include <fmt/format.h>

namespace gorvet::units {
namespace {

/// The code point that begins at `i`, which moves behind it; nothing when it is broken (then `i` moves by one).
std::optional<char32_t> next(std::string_view text, size_t& i) {
    const auto at = [&](size_t k) { return static_cast<unsigned char>(text[k]); };
    const unsigned char first = at(i);
    const size_t extra = first < 0x80                    ? 0
                         : first >= 0xC2 && first < 0xE0 ? 1
                         : first >= 0xE0 && first < 0xF0 ? 2
                         : first >= 0xF0 && first < 0xF5 ? 3
                                                         : 9;
    if (extra == 9 || i + extra >= text.size()) {
        ++i;
        return std::nullopt;
    }
    char32_t point = extra == 0 ? first : first & (0x3FU >> extra);
    for (size_t k = 1; k <= extra; ++k) {
        if ((at(i + k) & 0xC0) != 0x80) {
            ++i;
            return std::nullopt;
        }
        point = (point << 6) | (at(i + k) & 0x3FU);
    }
    const bool overlong = (extra == 2 && point < 0x800) || (extra == 3 && point < 0x10000);
    if (overlong || (point >= 0xD800 && point < 0xE000) || point > 0x10FFFF) {
        ++i;
        return std::nullopt;
    }
    i += extra + 1;
    return point;
}

bool isControl(char32_t c) { return c < 0x20 || (c >= 0x7F && c < 0xA0); }
/// Turns or isolates the direction of writing: a text then does not read as it is stored.
bool turns(char32_t c) {
    return (c >= 0x202A && c <= 0x202E) || (c >= 0x2066 && c <= 0x2069) || c == 0x200E || c == 0x200F || c == 0x061C;
}
bool unseen(char32_t c) {
    return c == 0xAD || c == 0xA0 || c == 0x034F || (c >= 0x2000 && c <= 0x200D) || c == 0x2028 || c == 0x2029 || c == 0x202F ||
           c == 0x205F || (c >= 0x2060 && c <= 0x2064) || c == 0x3000 || c == 0xFEFF || (c >= 0xFFF9 && c <= 0xFFFB) ||
           (c >= 0xE0000 && c <= 0xE007F) || (c & 0xFFFE) == 0xFFFE;
}

void append(std::string& to, char32_t c) {
    const auto put = [&](char32_t byte) { to += static_cast<char>(static_cast<unsigned char>(byte)); };
    if (c < 0x80) {
        put(c);
    } else if (c < 0x800) {
        put(0xC0 | (c >> 6));
        put(0x80 | (c & 0x3F));
    } else if (c < 0x10000) {
        put(0xE0 | (c >> 12));
        put(0x80 | ((c >> 6) & 0x3F));
        put(0x80 | (c & 0x3F));
    } else {
        put(0xF0 | (c >> 18));
        put(0x80 | ((c >> 12) & 0x3F));
        put(0x80 | ((c >> 6) & 0x3F));
        put(0x80 | (c & 0x3F));
    }
}

/// The code points of the bytes 0x80…0x9F; 0: not in it.
constexpr std::array<char16_t, 32> windows_1252 = {
    0x20AC, 0,      0x201A, 0x0192, 0x201E, 0x2026, 0x2020, 0x2021, 0x02C6, 0x2030, 0x0160, 0x2039, 0x0152, 0, 0x017D, 0,
    0,      0x2018, 0x2019, 0x201C, 0x201D, 0x2022, 0x2013, 0x2014, 0x02DC, 0x2122, 0x0161, 0x203A, 0x0153, 0, 0x017E, 0x0178};

} // namespace

std::optional<BadText> notUtf8(std::string_view text) {
    BadText bad;
    for (size_t i = 0; i < text.size(); ++bad.column) {
        bad.byte = i;
        if (static_cast<unsigned char>(text[i]) < 0x80) {
            ++i;
            continue;
        }
        if (!next(text, i)) {
            bad.what = fmt::format("the byte {:02X} is no UTF-8", static_cast<unsigned char>(text[bad.byte]));
            return bad;
        }
    }
    return std::nullopt;
}

std::optional<BadText> badSign(std::string_view text, TextIs is) {
    BadText bad;
    for (size_t i = 0; i < text.size(); ++bad.column) {
        bad.byte = i;
        const auto c = next(text, i);
        if (!c) {
            bad.what = fmt::format("the byte {:02X} is no UTF-8", static_cast<unsigned char>(text[bad.byte]));
            return bad;
        }
        const char* what = isControl(*c) && !(is == TextIs::Note && (*c == '\n' || *c == '\t')) ? "a control sign"
                           : turns(*c)                        ? "a sign that turns the direction of writing"
                           : is == TextIs::Name && unseen(*c) ? "a sign that can't be seen"
                                                              : nullptr;
        if (what) {
            bad.what = fmt::format("{} (U+{:04X})", what, static_cast<std::uint32_t>(*c));
            return bad;
        }
    }
    return std::nullopt;
}

size_t characters(std::string_view text) {
    size_t count = 0;
    for (size_t i = 0; i < text.size(); ++count) (void)next(text, i);
    return count;
}

std::string visible(std::string_view text) {
    std::string out;
    out.reserve(text.size());
    for (size_t i = 0; i < text.size();) {
        const auto c = next(text, i);
        append(out, !c || isControl(*c) || turns(*c) ? U'\uFFFD' : *c);
    }
    return out;
}

std::string counted(std::size_t count, std::string_view noun) {
    for (const std::string_view stays : {"the ", "what ", "how "})
        if (noun.starts_with(stays)) return std::string(noun);
    for (const std::string_view article : {"a ", "an "})
        if (noun.starts_with(article)) noun.remove_prefix(article.size());
    std::size_t end = noun.size();
    for (const std::string_view link : {" at ", " of ", " found "}) end = std::min(end, noun.find(link));
    std::string one(noun.substr(0, end));
    const std::string rest(noun.substr(end));
    const std::string number = count ? std::to_string(count) : "no";
    if (count == 1) return number + " " + one + rest;
    const auto ends = [&](std::string_view with) { return std::string_view(one).ends_with(with); };
    constexpr std::string_view vowels = "aeiou";
    if (ends("y") && one.size() > 1 && vowels.find(one[one.size() - 2]) == std::string_view::npos) {
        one.pop_back();
        return number + " " + one + "ies" + rest;
    }
    const bool hisses = ends("s") || ends("x") || ends("ch") || ends("sh");
    return number + " " + one + (hisses ? "es" : "s") + rest;
}

std::optional<std::string> fromWindows1252(std::string_view text) {
    std::string out;
    out.reserve(text.size() + text.size() / 16);
    for (const char byte : text) {
        const auto c = static_cast<unsigned char>(byte);
        const char32_t point = c >= 0x80 && c < 0xA0 ? windows_1252[c - 0x80U] : c;
        if (point == 0) return std::nullopt; // also the byte 0: no text at all
        append(out, point);
    }
    return out;
}

std::optional<std::string> fromUtf16(std::string_view text) {
    const bool little = text.starts_with("\xFF\xFE");
    if ((!little && !text.starts_with("\xFE\xFF")) || text.size() % 2 != 0) return std::nullopt;
    const auto unit = [&](size_t i) {
        const auto low = static_cast<unsigned char>(text[little ? i : i + 1]);
        const auto high = static_cast<unsigned char>(text[little ? i + 1 : i]);
        return static_cast<char32_t>(high << 8 | low);
    };
    std::string out;
    for (size_t i = 2; i < text.size(); i += 2) {
        char32_t c = unit(i);
        if (c >= 0xD800 && c < 0xDC00) {
            if (i + 3 >= text.size()) return std::nullopt;
            const char32_t second = unit(i + 2);
            if (second < 0xDC00 || second >= 0xE000) return std::nullopt;
            c = 0x10000 + ((c - 0xD800) << 10) + (second - 0xDC00);
            i += 2;
        } else if ((c >= 0xDC00 && c < 0xE000) || c == 0) {
            return std::nullopt;
        }
        append(out, c);
    }
    return out;
}

} // namespace gorvet::units
