#include "build/check.hpp"

#include "units/dates.hpp"

#include <array>

namespace gorvet::build {

namespace {
template <class T> std::string titleOfRow(const Build& b, std::uint32_t id) {
    if constexpr (is_row<T>)
        return titleOf(b, table<T>(b).at({id}));
    else
        return Schema<T>::table.name;
}
} // namespace

std::string titleOf(const Build& b, std::size_t place, std::uint32_t id) {
    using Say = std::string (*)(const Build&, std::uint32_t);
    static constexpr auto each = []<class... T>(Types<T...>) {
        return std::array<Say, sizeof...(T)>{&titleOfRow<T>...};
    }(Document{});
    return each[place](b, id);
}

const char* usedBy(const Build& b, std::size_t place, std::uint32_t id) {
    const Reference use{place, id};
    for (std::size_t user = 0; user < documentParts().size(); ++user) {
        if (!canReferTo(user, place)) continue;
        const DocumentPart& part = documentParts()[user];
        const Slots members = part.members();
        bool used = false;
        part.each(b, [&](std::uint32_t, const void* row) { return !(used = use.isIn(members, row)); });
        if (used) return part.info->noun;
    }
    return nullptr;
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

namespace {

/// Keeps the first thing that is wrong.
class FieldCheck {
public:
    explicit FieldCheck(const Build& b) : b_(b) {}
    std::optional<std::string> wrong(Slots members, const void* row) {
        for (const Slot& m : members) {
            if (wrong_) break;
            if (!m.own_id && !m.is_loose) value(m, *m.type, m.in(row));
        }
        return wrong_;
    }

private:
    void value(const FieldSays& f, const SlotType& type, const void* v) {
        using Is = SlotType::Is;
        if (wrong_) return;
        switch (type.is) {
        case Is::Figure: figure(f, *static_cast<const double*>(v)); break;
        case Is::Text: text(f, *static_cast<const std::string*>(v)); break;
        case Is::Reference: reference(f, type.table, *static_cast<const std::uint32_t*>(v)); break;
        case Is::Maybe:
            if (const void* content = type.content(v)) value(f, *type.inner, content);
            break;
        case Is::List:
            for (std::size_t k = 0; k < type.size(v); ++k) value(f, *type.inner, type.at(v, k));
            break;
        case Is::Struct:
            if (type.is_dimension)
                figure(f, static_cast<const Dimension*>(v)->value); // by the range of the field that holds it
            else
                wrong(type.members(), v);
            break;
        case Is::Flag:
        case Is::Step:
        case Is::Word: break;
        }
    }
    void figure(const FieldSays& f, double value) {
        // without bounds of its own a figure that an older file holds may be any
        const bool bounded = f.range.held && (f.range.least > Range{}.least || f.range.most < Range{}.most);
        if (!std::isfinite(value) || (bounded && (value < f.range.least || value > f.range.most)))
            wrong_ = outOfRange(f.name, value, f.unit, f.range);
    }
    void text(const FieldSays& f, const std::string& value) {
        if (f.text == TextKind::Word && (value.empty() || value.find_first_of(" \t,\"") != std::string::npos))
            wrong_ = labelOf(f.name) + ": it is one word, without blank, comma or quote.";
        const bool is_hash = value.size() == 64 && value.find_first_not_of("0123456789abcdef") == std::string::npos;
        if (f.text == TextKind::Hash && !value.empty() && !is_hash)
            wrong_ = labelOf(f.name) + ": a content is named by the 64 signs of its hash.";
        if (f.text == TextKind::Date && !value.empty() && !units::dayOf(value))
            wrong_ = fmt::format("\"{}\" is no date: like 2026-12-24", units::visible(value.substr(0, 40)));
    }
    void reference(const FieldSays& f, std::size_t table, std::uint32_t id) {
        if (!id && !f.is_needed) return;
        const DocumentPart& to = documentParts()[table];
        if (!to.find(b_, id))
            wrong_ = fmt::format("{}: {} {}.", labelOf(f.name), to.info->noun, id ? "that does not exist" : "is needed");
    }

    const Build& b_;
    std::optional<std::string> wrong_;
};

} // namespace

std::optional<std::string> wrongIn(const Build& b, Slots members, const void* row) { return FieldCheck(b).wrong(members, row); }

} // namespace gorvet::build
