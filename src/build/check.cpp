#include "build/check.hpp"

#include "units/dates.hpp"

namespace gorvet::build {

const char* usedBy(const Build& b, std::size_t place, std::uint32_t id) {
    const Reference use{place, id};
    const char* by = nullptr;
    eachOfDocument([&]<class T>() {
        if (by) return;
        const auto& held = Schema<T>::in(b);
        bool used = false;
        if constexpr (is_row<T>) {
            for (const auto& [key, row] : held) used = used || use.isIn(row);
        } else if constexpr (IsOptional<Held<T>>::value) {
            used = held && use.isIn(*held);
        } else {
            used = use.isIn(held);
        }
        if (used) by = Schema<T>::table.noun;
    });
    return by;
}

Checked inUse(const std::string& title, const char* by) {
    return bad(title, fmt::format("{} is used by {}.", title, by), "Remove that first.");
}

std::string labelOf(std::string_view field) {
    for (const std::string_view unit : {"_mm2", "_mm", "_rad", "_kg"})
        if (field.size() > unit.size() && field.ends_with(unit)) field.remove_suffix(unit.size());
    std::string label(field);
    for (char& c : label)
        if (c == '_') c = ' ';
    return label;
}

std::string outOfRange(std::string_view field, double value, Unit unit, const Range& range) {
    const std::string label = labelOf(field);
    if (!std::isfinite(value)) return fmt::format("{} is no finite number.", label);
    if (unit == Unit::Rad)
        return fmt::format("{} = {:.6g}°: must be between {:.4g}° and {:.4g}°.", label, units::degrees(value),
                           units::degrees(range.least), units::degrees(range.most));
    const std::string sign = unitSign(unit).empty() ? "" : " " + std::string(unitSign(unit));
    return fmt::format("{} = {:g}{}: must be between {:g} and {:g}{}.", label, value, sign, range.least, range.most, sign);
}

void FieldCheck::figure(const char* field, double value, Unit unit, const Range& range) {
    // without bounds of its own a figure that an older file holds may be any
    const bool bounded = range.held && (range.least > Range{}.least || range.most < Range{}.most);
    if (!std::isfinite(value) || (bounded && (value < range.least || value > range.most)))
        wrong_ = outOfRange(field, value, unit, range);
}

void FieldCheck::text(const char* field, const std::string& value, TextKind kind) {
    if (kind == TextKind::Word && (value.empty() || value.find_first_of(" \t,\"") != std::string::npos))
        wrong_ = labelOf(field) + ": it is one word, without blank, comma or quote.";
    const bool is_hash = value.size() == 64 && value.find_first_not_of("0123456789abcdef") == std::string::npos;
    if (kind == TextKind::Hash && !value.empty() && !is_hash)
        wrong_ = labelOf(field) + ": a content is named by the 64 signs of its hash.";
    if (kind == TextKind::Date && !value.empty() && !units::dayOf(value))
        wrong_ = fmt::format("\"{}\" is no date: like 2026-12-24", units::visible(value.substr(0, 40)));
}

void FieldCheck::gone(const char* field, const char* noun, bool named) {
    wrong_ = fmt::format("{}: {} {}.", labelOf(field), noun, named ? "that does not exist" : "is needed");
}

} // namespace gorvet::build
