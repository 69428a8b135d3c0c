#include "units/quantity.hpp"

#include <array>
#include <charconv>
#include <cmath>
#include <optional>
#include <vector>

namespace gorvet::units {
namespace {

/// A unit as typed. `per` converts to the core unit.
struct UnitWord {
    std::u32string_view word;
    Kind kind;
    double per;
    enum class Style { Plain, Foot, Inch, Metre, Degree, Minute, Second } style;
};
using Style = UnitWord::Style;

constexpr double deg = pi / 180.0;
// Longest words first, so that the first match is the right one.
constexpr std::array unit_words = {
    UnitWord{U"radians", Kind::Angle, 1.0, Style::Plain},      UnitWord{U"degrees", Kind::Angle, deg, Style::Degree},
    UnitWord{U"inches", Kind::Length, 25.4, Style::Inch},      UnitWord{U"degree", Kind::Angle, deg, Style::Degree},
    UnitWord{U"pounds", Kind::Mass, 0.45359237, Style::Plain}, UnitWord{U"metres", Kind::Length, 1000.0, Style::Metre},
    UnitWord{U"metre", Kind::Length, 1000.0, Style::Metre},    UnitWord{U"thou", Kind::Length, 0.0254, Style::Plain},
    UnitWord{U"inch", Kind::Length, 25.4, Style::Inch},        UnitWord{U"feet", Kind::Length, 304.8, Style::Foot},
    UnitWord{U"foot", Kind::Length, 304.8, Style::Foot},       UnitWord{U"deg", Kind::Angle, deg, Style::Degree},
    UnitWord{U"min", Kind::Angle, deg / 60.0, Style::Minute},  UnitWord{U"rad", Kind::Angle, 1.0, Style::Plain},
    UnitWord{U"lbs", Kind::Mass, 0.45359237, Style::Plain},    UnitWord{U"mm", Kind::Length, 1.0, Style::Plain},
    UnitWord{U"cm", Kind::Length, 10.0, Style::Plain},         UnitWord{U"in", Kind::Length, 25.4, Style::Inch},
    UnitWord{U"ft", Kind::Length, 304.8, Style::Foot},         UnitWord{U"kg", Kind::Mass, 1.0, Style::Plain},
    UnitWord{U"lb", Kind::Mass, 0.45359237, Style::Plain},     UnitWord{U"m", Kind::Length, 1000.0, Style::Metre},
    UnitWord{U"g", Kind::Mass, 0.001, Style::Plain},           UnitWord{U"°", Kind::Angle, deg, Style::Degree},
    UnitWord{U"º", Kind::Angle, deg, Style::Degree},
};

/// Code points of UTF-8; a broken byte becomes U+FFFD, so that nothing crashes and columns stay columns.
std::u32string decode(std::string_view text) {
    std::u32string out;
    for (size_t i = 0; i < text.size();) {
        const auto byte = static_cast<unsigned char>(text[i]);
        const int extra = byte < 0x80 ? 0 : byte >= 0xF0 ? 3 : byte >= 0xE0 ? 2 : byte >= 0xC0 ? 1 : -1;
        if (extra < 0 || i + extra >= text.size()) {
            out += U'\uFFFD';
            ++i;
            continue;
        }
        char32_t point = extra == 0 ? byte : byte & (0x3F >> extra);
        for (int k = 1; k <= extra; ++k) point = (point << 6) | (static_cast<unsigned char>(text[i + k]) & 0x3F);
        out += point;
        i += extra + 1;
    }
    return out;
}

char32_t lower(char32_t c) { return c >= U'A' && c <= U'Z' ? c + 32 : c; }
bool isDigit(char32_t c) { return c >= U'0' && c <= U'9'; }
bool isLetter(char32_t c) { return lower(c) >= U'a' && lower(c) <= U'z'; }

std::optional<double> vulgarFraction(char32_t c) {
    switch (c) {
    case U'½': return 0.5;
    case U'¼': return 0.25;
    case U'¾': return 0.75;
    case U'⅛': return 0.125;
    case U'⅜': return 0.375;
    case U'⅝': return 0.625;
    case U'⅞': return 0.875;
    default: return std::nullopt;
    }
}

struct Failure {
    size_t at;
    std::string message;
    std::string remedy;
};

/// A plain number as typed, with what matters for telling ambiguous ones.
struct Number {
    double value = 0;
    bool fraction = false;        ///< a vulgar fraction was part of it
    bool whole = true;            ///< digits only
    int digits = 0;               ///< count of digits when whole
    bool comma_thousands = false; ///< `1,885`: could be 1885 or 1.885
    size_t at = 0;
};

class Reader {
public:
    Reader(std::u32string text, Kind kind, Unit default_unit) : text_(std::move(text)), kind_(kind), default_(default_unit) {}

    double expression() {
        double sum = signedTerm();
        for (;;) {
            blanks();
            if (end()) return sum;
            if (peek() == U'+') {
                ++pos_;
                sum += term();
            } else if (isMinus(peek())) {
                ++pos_;
                sum -= term();
            } else {
                unexpected();
            }
        }
    }

    bool anyUnit() const { return units_seen_ > 0; }
    bool anyBare() const { return bare_seen_ > 0; }
    bool bareFraction() const { return bare_fraction_; }

private:
    static bool isMinus(char32_t c) { return c == U'-' || c == U'−' || c == U'–'; }
    bool end() const { return pos_ >= text_.size(); }
    char32_t peek(size_t ahead = 0) const { return pos_ + ahead < text_.size() ? text_[pos_ + ahead] : U'\0'; }
    void blanks() {
        while (!end() && (peek() == U' ' || peek() == U'\t' || peek() == U'\u00A0' || peek() == U'\u202F')) ++pos_;
    }
    [[noreturn]] void unexpected() const {
        if (end()) throw Failure{pos_, "A number is missing at the end.", ""};
        throw Failure{pos_, "This can't be read as part of a " + kindWord() + ".", "Type it like " + example() + "."};
    }
    std::string kindWord() const { return kind_ == Kind::Length ? "length" : kind_ == Kind::Angle ? "angle" : "mass"; }
    std::string example() const {
        return kind_ == Kind::Length ? "1885, 4 1/4\" or 2m35" : kind_ == Kind::Angle ? "0.5 or 3°15'" : "12.5 kg";
    }

    double signedTerm() {
        blanks();
        if (isMinus(peek())) {
            ++pos_;
            return -term();
        }
        if (peek() == U'+') ++pos_;
        return term();
    }

    /// quantity, or count x quantity
    double term() {
        blanks();
        const size_t start = pos_;
        const Number first = number();
        blanks();
        const char32_t c = peek();
        if (lower(c) == U'x' || c == U'×' || c == U'*') {
            if (first.comma_thousands) refuseComma(first);
            if (first.value == 0) throw Failure{first.at, "A multiple begins with how many times, 1 or more.", "Like 2x73."};
            ++pos_;
            return first.value * term();
        }
        pos_ = start;
        return quantity();
    }

    [[noreturn]] void refuseComma(const Number& n) const {
        throw Failure{n.at, "A comma before three digits could mark thousands or decimals.", "Write 1885 or 1.885."};
    }

    double quantity() {
        const Number head = number();
        blanks();
        const std::optional<UnitWord> unit = unitWord();
        if (!unit) {
            if (head.comma_thousands) refuseComma(head);
            ++bare_seen_;
            bare_fraction_ = bare_fraction_ || head.fraction;
            return head.value * defaultPer();
        }
        // with metres nobody means thousands: 1,885 m is 1.885 m
        if (head.comma_thousands && unit->style != Style::Metre) refuseComma(head);
        ++units_seen_;
        double value = head.value * unit->per;
        switch (unit->style) {
        case Style::Metre: value += metreTail(head); break;
        case Style::Foot: value += tail(Style::Inch, 12.0); break;
        case Style::Degree: {
            const double minutes = tail(Style::Minute, 60.0);
            value += minutes;
            if (minutes > 0 || consumed_tail_) value += tail(Style::Second, 60.0);
            break;
        }
        case Style::Minute: value += tail(Style::Second, 60.0); break;
        default: break;
        }
        return value;
    }

    /// The centimetres or millimetres after `2m`: two digits are centimetres, three are millimetres.
    double metreTail(const Number& head) {
        blanks();
        if (!isDigit(peek())) return 0;
        const size_t start = pos_;
        const Number rest = number();
        blanks();
        if (const auto unit = unitWord()) { // 2m 35cm
            if (unit->style == Style::Metre || unit->kind != Kind::Length) throw Failure{start, "Metres are given twice.", ""};
            return rest.value * unit->per;
        }
        if (!head.whole)
            throw Failure{start, "Decimals and a second number after metres do not go together.", "Write 2m35 or 2.35 m."};
        if (rest.whole && rest.digits == 2) return rest.value * 10.0;
        if (rest.whole && rest.digits == 3) return rest.value;
        throw Failure{start, "After metres, two digits are centimetres and three are millimetres.", "Write 2m05 or 2m50."};
    }

    /// An optional smaller part: inches after feet, minutes after degrees, seconds after minutes.
    double tail(Style wanted, double limit) {
        consumed_tail_ = false;
        const size_t start = pos_;
        // 6'-3 1/2": the hyphen of a drawing joins feet and inches, it does not subtract
        if (wanted == Style::Inch && isMinus(peek()) && isDigit(peek(1))) ++pos_;
        blanks();
        if (!isDigit(peek()) && peek() != U'.' && !vulgarFraction(peek())) {
            pos_ = start;
            return 0;
        }
        const size_t at = pos_;
        const Number rest = number();
        if (rest.comma_thousands) refuseComma(rest);
        // 2'011: some write thousands like that, and nobody writes inches with three digits
        if (wanted == Style::Inch && rest.whole && rest.digits >= 3 && start > 0 && at == start) {
            const auto digits = [&](size_t from, size_t to) {
                return std::string(text_.begin() + static_cast<long>(from), text_.begin() + static_cast<long>(to));
            };
            size_t head = start - 1; // the mark
            const size_t mark = head;
            while (head > 0 && isDigit(text_[head - 1])) --head;
            const std::string feet = digits(head, mark), inches = digits(at, at + static_cast<size_t>(rest.digits));
            throw Failure{
                at, "This could be " + feet + inches + " with a mark between thousands, or " + feet + " feet and inches.",
                "Write " + feet + inches + ", or " + feet + "' " + std::to_string(static_cast<int>(rest.value)) + "\"."};
        }
        blanks();
        const auto unit = unitWord();
        if (unit && unit->style != wanted) throw Failure{at, "This unit can't follow the one before it.", ""};
        if (rest.value >= limit)
            throw Failure{at, "The smaller part must be below " + std::to_string(static_cast<int>(limit)) + ".", ""};
        consumed_tail_ = true;
        const double per = wanted == Style::Inch ? 25.4 : wanted == Style::Minute ? deg / 60.0 : deg / 3600.0;
        return rest.value * per;
    }

    std::optional<UnitWord> unitWord() {
        const auto primed = primeUnit();
        if (primed) return primed;
        for (const auto& unit : unit_words) {
            if (pos_ + unit.word.size() > text_.size()) continue;
            bool same = true;
            for (size_t i = 0; i < unit.word.size() && same; ++i) same = lower(text_[pos_ + i]) == unit.word[i];
            if (!same) continue;
            const size_t after = pos_ + unit.word.size();
            if (isLetter(unit.word.back()) && after < text_.size() && isLetter(text_[after]) && lower(text_[after]) != U'x')
                continue;
            if (unit.kind != kind_)
                throw Failure{pos_, "This unit is not one of a " + kindWord() + ".", "Type it like " + example() + "."};
            pos_ = after;
            return unit;
        }
        if (isLetter(peek()) && lower(peek()) != U'x')
            throw Failure{pos_, "This unit is not known.", kind_ == Kind::Length ? "Use mm, cm, m, in, ft or thou." : ""};
        return std::nullopt;
    }

    std::optional<UnitWord> primeUnit() {
        const char32_t c = peek();
        const bool two = (c == U'\'' && peek(1) == U'\'');
        const bool second = two || c == U'"' || c == U'″' || c == U'”' || c == U'“';
        const bool first = !two && (c == U'\'' || c == U'′' || c == U'’' || c == U'‘');
        if (!first && !second) return std::nullopt;
        if (kind_ == Kind::Mass) throw Failure{pos_, "This unit is not one of a mass.", ""};
        pos_ += two ? 2 : 1;
        if (kind_ == Kind::Length)
            return second ? UnitWord{U"\"", kind_, 25.4, Style::Inch} : UnitWord{U"'", kind_, 304.8, Style::Foot};
        return second ? UnitWord{U"\"", kind_, deg / 3600.0, Style::Second} : UnitWord{U"'", kind_, deg / 60.0, Style::Minute};
    }

    /// 12 · 12.5 · 12,5 · .5 · 1/2 · 4 1/2 · 4-1/2 · 4½
    Number number() {
        blanks();
        Number n;
        n.at = pos_;
        if (const auto f = vulgarFraction(peek())) {
            ++pos_;
            n.value = *f;
            n.fraction = true;
            n.whole = false;
            return n;
        }
        n = decimal();
        if (const auto f = vulgarFraction(peek()); f && n.whole) {
            ++pos_;
            n.value += *f;
            n.fraction = true;
            n.whole = false;
            return n;
        }
        if (!n.whole) return n;
        if (peek() == U'/') { // 1/2
            n.value = fractionAfter(n.value);
            n.fraction = true;
            n.whole = false;
            return n;
        }
        // a mixed number: 4 1/2 or 4-1/2
        const size_t back = pos_;
        if (isMinus(peek()) && isDigit(peek(1)))
            ++pos_;
        else
            blanks();
        if (pos_ != back && isDigit(peek())) {
            const Number top = decimal();
            if (top.whole && peek() == U'/') {
                const size_t slash = pos_;
                const double f = fractionAfter(top.value);
                if (f < 1.0) {
                    n.value += f;
                    n.fraction = true;
                    n.whole = false;
                    return n;
                }
                if (isMinus(text_[back])) { // 1885-12/2 is a difference
                    pos_ = back;
                    return n;
                }
                throw Failure{slash, "The fraction of a mixed number must be below 1.", ""};
            }
        }
        pos_ = back;
        return n;
    }

    double fractionAfter(double top) {
        ++pos_; // '/'
        blanks();
        const size_t at = pos_;
        const Number bottom = decimal();
        if (bottom.value == 0) throw Failure{at, "A fraction can't have zero below the line.", ""};
        if (!bottom.whole) throw Failure{at, "Below the line of a fraction stands a whole number.", ""};
        return top / bottom.value;
    }

    Number decimal() {
        Number n;
        n.at = pos_;
        std::string digits;
        int before = 0;
        int after = 0;
        while (isDigit(peek())) {
            digits += static_cast<char>(text_[pos_++]);
            ++before;
        }
        const char32_t mark = peek();
        if ((mark == U'.' || mark == U',') && (isDigit(peek(1)) || (before > 0 && mark == U'.'))) {
            digits += '.';
            ++pos_;
            while (isDigit(peek())) {
                digits += static_cast<char>(text_[pos_++]);
                ++after;
            }
            n.whole = false;
            n.comma_thousands = mark == U',' && after == 3 && before >= 1 && before <= 3 && text_[n.at] != U'0';
            if ((peek() == U'.' || peek() == U',') && isDigit(peek(1)))
                throw Failure{pos_, "A number has one decimal mark, and none between thousands.", "Write 12345.6."};
        }
        if (before + after == 0) unexpected();
        n.digits = before;
        if (before > 9) throw Failure{n.at, "This number is too long to be a dimension of a vehicle.", ""};
        const std::string padded = "0" + digits;
        std::from_chars(padded.data(), padded.data() + padded.size(), n.value);
        return n;
    }

    double defaultPer() const {
        switch (default_) {
        case Unit::Inch: return 25.4;
        case Unit::Degree: return deg;
        case Unit::Pound: return 0.45359237;
        default: return 1.0;
        }
    }

    std::u32string text_;
    Kind kind_;
    Unit default_;
    size_t pos_ = 0;
    int units_seen_ = 0;
    int bare_seen_ = 0;
    bool bare_fraction_ = false;
    bool consumed_tail_ = false;
};

std::string trimmed(std::string_view text) {
    const auto first = text.find_first_not_of(" \t\r\n");
    if (first == std::string_view::npos) return {};
    return std::string(text.substr(first, text.find_last_not_of(" \t\r\n") - first + 1));
}

} // namespace

Result<Parsed> parse(std::string_view text, Kind kind, Unit default_unit) {
    Parsed parsed;
    parsed.typed = trimmed(text);
    if (parsed.typed.empty()) return Error{Error::Code::BadInput, "", "Nothing was typed.", "", 0};
    constexpr size_t most_bytes = 400; // nobody types a longer figure, and a sum nests
    if (parsed.typed.size() > most_bytes)
        return Error{Error::Code::BadInput, parsed.typed.substr(0, 60), "This is too long to be a figure.",
                     "Type the sum's result.", 0};
    Reader reader(decode(parsed.typed), kind, default_unit);
    try {
        parsed.value = reader.expression();
        if (!(std::abs(parsed.value) <= 1e9))
            throw Failure{0, "This comes to more than any vehicle measures.", "Check the signs between the numbers."};
    } catch (const Failure& failure) {
        return Error{Error::Code::BadInput, parsed.typed, failure.message, failure.remedy, static_cast<int>(failure.at)};
    }
    parsed.bare = !reader.anyUnit();
    const char* word = default_unit == Unit::Inch ? "inches" : default_unit == Unit::Millimetre ? "mm" : "the default unit";
    if (reader.bareFraction() && default_unit != Unit::Inch)
        parsed.remark = "the fraction was read as " + std::string(word);
    else if (reader.anyUnit() && reader.anyBare())
        parsed.remark = "numbers without a unit were read as " + std::string(word);
    return parsed;
}

} // namespace gorvet::units
