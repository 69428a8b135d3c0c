#pragma once

#include "build/figures.hpp"

/// What steel lies on the shelf, offcuts among it.
namespace gorvet::build {

struct Stock;
using StockId = Id<Stock>;

/// Lengths of one section, or plates of one size.
struct Stock {
    StockId id;
    std::string name; ///< unique; one word
    StockForm form = StockForm::Box;
    double height_mm = 0; ///< outside; of a tube or bar its diameter, of a flat or plate its width
    double width_mm = 0;  ///< outside; 0 for a flat, plate, tube or bar
    double wall_mm = 0;   ///< of a flat or plate its thickness; 0 for a bar
    double length_mm = 0; ///< of each
    double count = 1;
    std::optional<double> price; ///< of each
    std::string grade;           ///< "S235"; empty: not said
    std::string at;              ///< shelf
    std::string from;            ///< what it was cut off: an offcut; empty: it came whole
    bool any = false;            ///< it can be had: as many as are needed, at that price
    std::string note;
    bool operator==(const Stock&) const = default;
};
template <> struct Schema<Stock> {
    static constexpr TableInfo table{"stock", "stock", 7, "steel on the shelf"};
    static constexpr auto& in(auto& build) { return build.stock; }
    static constexpr auto key = std::tuple{&Stock::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("form", &S::form),
            mm("height_mm", &S::height_mm, 0.5, 5000).says("outside; a diameter; the width of a plate"),
            mm("width_mm", &S::width_mm, 0, 5000),
            mm("wall_mm", &S::wall_mm, 0, 200).says("of a plate its thickness"),
            mm("length_mm", &S::length_mm, 1, 20'000).says("of each"),
            number("count", &S::count, Unit::None, 0, 10'000),
            number("price", &S::price, Unit::Money, 0, 1e6).says("of each"),
            field("grade", &S::grade),
            field("at", &S::at).says("shelf"),
            field("from", &S::from).says("what it was cut off"),
            field("any", &S::any).came(13).says("it can be had: as many as are needed, at that price"),
            field("note", &S::note),
        };
    }
};

} // namespace gorvet::build
