// Common stock: its table, and what of it becomes a sleeve.
#include "analysis/stock_sizes.hpp"

#include "analysis/json_parts.hpp"
#include "analysis/pages.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

constexpr double most_strip_mm = 5; ///< thicker flat makes a sleeve of its own
constexpr double thinner = 0.8;     ///< of the rail's wall: a thinner sleeve joins less than the rail

/// How good a fit is: what slides stands first.
int rank(const SleeveFromStock& s) {
    if (s.strip_mm > 0) return 1;
    return s.fit.least() >= stretch::tube_tight_mm ? 0 : s.fit.least() >= stretch::tube_driven_mm ? 2 : 3;
}

std::optional<SleeveFromStock> asSleeve(const RailLine& rail, bool channel, const frame::StockSize& size, bool turned) {
    SleeveFromStock s;
    s.size = &size;
    s.height_mm = turned ? size.width : size.height;
    s.width_mm = turned ? size.height : size.width;
    s.fit = stretch::tubeFit(rail, channel, s.height_mm, s.width_mm, 0);
    if (s.fit.least() < 0) return {};
    if (s.fit.most() > stretch::tube_loose_mm) {
        s.strip_mm = std::floor((s.fit.most() - 1) * 2) / 2;
        if (s.strip_mm > most_strip_mm) return {};
        s.fit = stretch::tubeFit(rail, channel, s.height_mm, s.width_mm, s.strip_mm);
        if (s.fit.least() < 0 || s.fit.most() > stretch::tube_loose_mm) return {};
    }
    const auto mm = [](double v) { return units::fixed(v, 1); };
    const std::string aside = fmt::format("{} and {} mm a side", mm(s.fit.upright_mm), mm(s.fit.sideways_mm));
    s.words = s.strip_mm > 0                             ? fmt::format("with strip of {} mm: {}", mm(s.strip_mm), aside)
              : s.fit.least() >= stretch::tube_tight_mm  ? "slides: " + aside
              : s.fit.least() >= stretch::tube_driven_mm ? "tight: " + aside
                                                         : "driven: " + aside;
    s.line = fmt::format("sleeve-tube {:g}mm {:g}mm wall {:g}mm", s.height_mm, s.width_mm, size.wall);
    return s;
}

std::vector<sheet::Column> columns() {
    using enum sheet::Anchor;
    return {{"size, mm", 46},
            {"kg/m", 16, Right, sheet::Face::Mono},
            {"area mm²", 20, Right, sheet::Face::Mono},
            {"I level mm⁴", 24, Right, sheet::Face::Mono},
            {"S level mm³", 22, Right, sheet::Face::Mono},
            {"J mm⁴", 24, Right, sheet::Face::Mono},
            {"in the rail", 70}};
}
std::vector<std::string> rowOf(const frame::StockSize& size, const frame::Section& s, const std::string& in_rail) {
    return {size.name(),
            units::fixed(s.mass_kg_per_m, 2),
            units::fixed(s.area_mm2, 0),
            units::fixed(s.level_mm4, 0),
            units::fixed(s.level_modulus_mm3, 0),
            units::fixed(s.torsion_mm4, 0),
            in_rail};
}
std::vector<std::vector<std::string>> rows(const Build& b, const Results& r, bool that_fit) {
    std::vector<std::vector<std::string>> list;
    const auto sleeves = sleevesFromStock(b, r);
    const auto& sizes = frame::commonStock();
    const auto add = [&](const frame::StockSize* size, const std::string& words) {
        list.push_back(rowOf(*size, frame::worthOfStock()[static_cast<std::size_t>(size - sizes.data())], words));
    };
    for (const SleeveFromStock& s : sleeves) add(s.size, s.words);
    if (that_fit) return list;
    for (const frame::StockSize& size : sizes)
        if (std::none_of(sleeves.begin(), sleeves.end(), [&](const SleeveFromStock& s) { return s.size == &size; }))
            add(&size, "");
    return list;
}

} // namespace

std::vector<SleeveFromStock> sleevesFromStock(const Build& b, const Results& r) {
    std::vector<SleeveFromStock> list;
    const RailLine& rail = r.rail_left.height_mm > 0 ? r.rail_left : r.rail_right;
    if (!(rail.height_mm > 0 && rail.width_mm > 0 && rail.thickness_mm > 0)) return list;
    const bool channel = b.rail.shape == RailShape::Channel;
    for (const frame::StockSize& size : frame::commonStock()) {
        if (size.form != (channel ? "channel" : "box") || size.wall < thinner * rail.thickness_mm) continue;
        for (const bool turned : {false, true}) {
            if (turned && (channel || size.height == size.width)) continue;
            if (auto s = asSleeve(rail, channel, size, turned)) list.push_back(std::move(*s));
        }
    }
    std::stable_sort(list.begin(), list.end(), [](const SleeveFromStock& x, const SleeveFromStock& y) {
        return std::tuple(rank(x), x.strip_mm, std::abs(x.fit.most() - 1)) <
               std::tuple(rank(y), y.strip_mm, std::abs(y.fit.most() - 1));
    });
    return list;
}

Headline stockHeadline(const Build& b, const Results& r, SubjectId) {
    const auto sleeves = sleevesFromStock(b, r);
    const char* const below =
        "An extract of what is usual: measure the tube in hand, outside and both ways, and say it: sleeve-tube 90 50 wall 4.";
    if (r.rail_left.height_mm <= 0 && r.rail_right.height_mm <= 0) return {"Common stock, and what it is worth.", below};
    if (sleeves.empty())
        return {"Nothing of common stock goes into the rail as a sleeve: one is folded, or made of two channels.", below};
    return {fmt::format("{} goes into the rail as a sleeve: {}.", sleeves.front().size->name(), sleeves.front().words), below};
}

sheet::Drawing stockDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions&, double width, double height,
                            const sheet::Format& f) {
    sheet::Drawing d;
    d.width = width;
    std::vector<sheet::Column> all = columns();
    for (sheet::Column& c : all) c.width = f.px(c.width * 4.6);
    all = sheet::fittedTo(all, width);
    const auto list = rows(b, r, false);
    const double tall = sheet::tableHeight(all, list, f.small());
    d.height = std::max(height, tall);
    sheet::addTable(d, {0, 0, width, d.height}, all, list, f.small());
    return d;
}

std::vector<sheet::Drawing> stockPages(const Build& b, const Results& r) {
    std::vector<sheet::Drawing> pages;
    const auto list = rows(b, r, true);
    if (r.stretch->status == stretch::Status::Planned && !list.empty())
        addTablePages(pages, titled(b, r, "Stretch: stock that goes into the rail"), {no_certificate, local_rules}, columns(),
                      list);
    return pages;
}

std::string stockJson() {
    Json j;
    j["stock"] = Json::array();
    const auto& sizes = frame::commonStock();
    for (std::size_t k = 0; k < sizes.size(); ++k) {
        const frame::Section& s = frame::worthOfStock()[k];
        j["stock"].push_back({{"name", sizes[k].name()},
                              {"form", sizes[k].form},
                              {"height_mm", number(sizes[k].height)},
                              {"width_mm", sizes[k].width > 0 ? number(sizes[k].width) : Json(nullptr)},
                              {"wall_mm", number(sizes[k].wall)},
                              {"area_mm2", number(s.area_mm2)},
                              {"i_level_mm4", number(s.level_mm4)},
                              {"i_upright_mm4", number(s.upright_mm4)},
                              {"s_level_mm3", number(s.level_modulus_mm3)},
                              {"s_upright_mm3", number(s.upright_modulus_mm3)},
                              {"j_mm4", number(s.torsion_mm4)},
                              {"mass_kg_per_m", number(s.mass_kg_per_m)}});
    }
    return text(j);
}

} // namespace gorvet::analysis
