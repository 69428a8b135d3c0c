#include "build/describe.hpp"

#include <fmt/format.h>

namespace gorvet::build {
namespace {

template <class V> std::string typeName() {
    if constexpr (std::is_same_v<V, double>) {
        return "number";
    } else if constexpr (std::is_same_v<V, bool>) {
        return "true or false";
    } else if constexpr (std::is_same_v<V, std::string>) {
        return "text";
    } else if constexpr (std::is_same_v<V, units::LengthStep>) {
        return "number";
    } else if constexpr (std::is_same_v<V, Vec3>) {
        return "place";
    } else if constexpr (std::is_same_v<V, Dimension>) {
        return "dimension";
    } else if constexpr (IsId<V>::value) {
        return fmt::format("id of `{}`", Schema<typename V::To>::table.name);
    } else if constexpr (IsOptional<V>::value) {
        return fmt::format("{} or null", typeName<typename V::value_type>());
    } else if constexpr (IsList<V>::value) {
        return fmt::format("list of {}", typeName<typename V::value_type>());
    } else if constexpr (std::is_enum_v<V>) {
        return wordList<V>();
    } else if constexpr (requires { Schema<V>::called; }) {
        return Schema<V>::called;
    } else {
        return fmt::format("`{}`", Schema<V>::table.name);
    }
}

template <class F> std::string typeOf(const F& f) {
    if constexpr (std::is_same_v<typename F::Value, std::string>) {
        if (f.text == TextKind::Word) return "one word";
        if (f.text == TextKind::Name) return "name";
        if (f.text == TextKind::Hash) return "hash of a blob, or empty";
        if (f.text == TextKind::Date) return "date, or empty";
    }
    return typeName<typename F::Value>();
}

std::string bounds(Unit unit, const Range& r) {
    const std::string sign(unitSign(unit));
    if (r.least <= -1e9 && r.most >= 1e9) return sign;
    return fmt::format("{:g} to {:g}{}{}", r.least, r.most, sign.empty() ? "" : " ", sign);
}

} // namespace

namespace {
constexpr int newest() {
    int newest = 1;
    []<class... T>(Types<T...>, int& most) {
        const auto table = [&most]<class U>(U*) {
            most = Schema<U>::table.since > most ? Schema<U>::table.since : most;
            eachField<U>([&most](const auto& f) { most = f.since > most ? f.since : most; });
        };
        (table(static_cast<T*>(nullptr)), ...);
    }(Document{}, newest);
    return newest;
}
} // namespace

int newestVersion() {
    static constexpr int version = newest();
    return version;
}

std::vector<FieldLine> fieldLines() {
    std::vector<FieldLine> lines;
    eachOfDocument([&]<class T>() {
        const TableInfo& t = Schema<T>::table;
        eachField<T>([&](const auto& f) {
            if (std::string_view(f.name) == "id") return;
            lines.push_back(
                {t.name, is_row<T>, t.key, f.name, typeOf(f), bounds(f.unit, f.range), f.about, f.since ? f.since : t.since});
        });
    });
    return lines;
}

std::string fieldTable() {
    std::string text = "| table | in a snapshot | field | what it is | in | since |\n|---|---|---|---|---|---|\n";
    std::string before;
    for (const FieldLine& l : fieldLines()) {
        const bool first = l.table != before;
        before = l.table;
        text += fmt::format("| {} | {} | `{}` | {}{}{} | {} | {} |\n", first ? "`" + l.table + "`" : "",
                            first ? "`" + l.key + (l.row ? "[]`" : "`") : "", l.field, l.type, l.about.empty() ? "" : ": ",
                            l.about, l.range, l.since);
    }
    return text;
}

} // namespace gorvet::build
