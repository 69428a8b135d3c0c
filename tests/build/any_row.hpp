#pragma once

#include "build/build.hpp"

#include <random>

/// Rows and parts of every type of the document at random, made from the schema: sensible often enough that rules let some in,
/// and wrong often enough that they refuse some.
namespace gorvet::test {

class AnyRow {
public:
    explicit AnyRow(unsigned seed) : dice_(seed) {}

    template <class T> T make() {
        T row{};
        build::eachField<T>([&](const auto& f) { fill(f, row.*(f.member)); });
        if constexpr (std::is_same_v<T, build::Member>) // only a built-up section has walls of its own
            if (row.form != build::SectionForm::BuiltUp && !oneIn(10)) row.walls_mm.clear();
        if constexpr (std::is_same_v<T, build::Member>) // only plates have windows, only they and ribs a pitch
            if (!oneIn(8)) {
                row.window_long.reset();
                row.window_high.reset();
                row.pitch.reset();
            }
        return row;
    }
    int below(int n) { return std::uniform_int_distribution<int>(0, n - 1)(dice_); }
    bool oneIn(int n) { return below(n) == 0; }

    /// Ids are drawn from 1 to this.
    std::uint32_t most_id = 8;
    /// Out of so many figures one lies outside its range; 0: none.
    int wild = 40;

private:
    template <class F, class V> void fill(const F& f, V& v) {
        using namespace build;
        if constexpr (std::is_same_v<V, double>) {
            v = figure(f.range);
        } else if constexpr (std::is_same_v<V, bool>) {
            v = oneIn(2);
        } else if constexpr (std::is_same_v<V, std::string>) {
            v = text(f.text);
        } else if constexpr (std::is_same_v<V, units::LengthStep>) {
            v = static_cast<V>(below(static_cast<int>(units::LengthStep::InchThousandth) + 1));
        } else if constexpr (std::is_enum_v<V>) {
            v = static_cast<V>(below(static_cast<int>(Words<V>::text.size())));
        } else if constexpr (IsId<V>::value) {
            if constexpr (std::is_same_v<V, SubjectId>) {
                v.value = static_cast<std::uint32_t>(oneIn(12) ? 1 + below(5) : 1 + below(2)); // the two that are there, mostly
                return;
            }
            v.value = !f.is_needed && !oneIn(3) ? 0 : 1 + static_cast<std::uint32_t>(below(static_cast<int>(most_id)));
        } else if constexpr (std::is_same_v<V, Dimension>) {
            fill(f, v.value);
            v.typed = text(TextKind::Note);
            v.provenance = static_cast<Provenance>(below(3));
        } else if constexpr (IsOptional<V>::value) {
            if (oneIn(2)) {
                v.reset();
            } else {
                typename V::value_type content{};
                fill(f, content);
                v = std::move(content);
            }
        } else if constexpr (IsList<V>::value) {
            v.clear();
            for (int i = below(4); i > 0; --i) fill(f, v.emplace_back());
        } else {
            v = make<V>();
        }
    }
    double figure(const build::Range& r) {
        if (wild > 0 && oneIn(wild)) return oneIn(2) ? r.most + 1 + std::abs(r.most) : r.least - 1 - std::abs(r.least);
        if (oneIn(8)) return r.least;
        if (oneIn(8)) return r.most;
        if (r.least <= 1 && r.most >= 3 && oneIn(2)) return 1 + below(3); // whole numbers that many fields share
        if (r.least <= 10 && r.most >= 12 && oneIn(3)) return 10;
        const double wide = std::min(r.most - r.least, 1e4);
        const double from = std::max(r.least, std::min(0.0, r.most));
        return from + std::uniform_real_distribution<double>(0, std::min(wide, r.most - from))(dice_);
    }
    std::string text(build::TextKind kind) {
        static const char* const words[] = {"Al", "Ar", "Bl", "Br", "C", "D"};
        static const char* const notes[] = {"", "\"quoted\", with a comma", "two\nlines", "Tür ½ ± 3", "=1+1", "4 1/4\""};
        switch (kind) {
        case build::TextKind::Word: return oneIn(20) ? "two words" : words[below(6)];
        case build::TextKind::Name: return oneIn(20) ? "" : words[below(6)];
        case build::TextKind::Hash: return oneIn(2) ? std::string() : std::string(64, static_cast<char>('a' + below(3)));
        case build::TextKind::Date: return oneIn(3) ? "" : oneIn(20) ? "2026-02-30" : "2026-12-0" + std::to_string(1 + below(9));
        case build::TextKind::Note: break;
        }
        return notes[below(6)];
    }

    std::mt19937 dice_;
};

} // namespace gorvet::test
