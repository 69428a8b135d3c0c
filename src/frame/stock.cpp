#include "frame/stock.hpp"

#include <array>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::frame {
namespace {

constexpr double inch_mm = 25.4;
/// Manufacturers' standard gauge for steel sheet, inches, from 7 down to 18.
constexpr std::array<double, 12> gauge_in{0.1793, 0.1644, 0.1495, 0.1345, 0.1196, 0.1046,
                                          0.0897, 0.0747, 0.0673, 0.0598, 0.0538, 0.0478};
constexpr int first_gauge = 7;

/// "1 1/2\"": whole inches and sixteenths.
std::string inches(double mm) {
    const long sixteenths = std::lround(mm / inch_mm * 16);
    long part = sixteenths % 16, of = 16;
    while (part > 0 && part % 2 == 0) {
        part /= 2;
        of /= 2;
    }
    const long whole = sixteenths / 16;
    if (part == 0) return fmt::format("{}\"", whole);
    return whole > 0 ? fmt::format("{} {}/{}\"", whole, part, of) : fmt::format("{}/{}\"", part, of);
}
std::string inchWall(double mm) {
    for (std::size_t k = 0; k < gauge_in.size(); ++k)
        if (std::abs(gauge_in[k] * inch_mm - mm) < 1e-6) return fmt::format("{} gauge", first_gauge + static_cast<int>(k));
    return inches(mm);
}

std::vector<StockSize> all() {
    std::vector<StockSize> list;
    const auto box = [&](double h, double w, std::initializer_list<double> walls) {
        for (const double t : walls) list.push_back({"box", h, w, t, false});
    };
    box(20, 20, {2});
    box(25, 25, {2, 2.5});
    box(30, 30, {2, 2.5, 3});
    box(40, 40, {2, 2.5, 3, 4});
    box(50, 50, {2, 3, 4, 5});
    box(60, 60, {2, 3, 4, 5});
    box(70, 70, {3, 4, 5});
    box(80, 80, {3, 4, 5, 6});
    box(90, 90, {3, 4, 5});
    box(100, 100, {3, 4, 5, 6});
    box(120, 120, {4, 5, 6});
    box(40, 20, {2, 3});
    box(50, 25, {2, 3});
    box(50, 30, {2, 3, 4});
    box(60, 30, {2, 3});
    box(60, 40, {2, 3, 4, 5});
    box(80, 40, {2, 3, 4, 5});
    box(80, 60, {3, 4, 5});
    box(90, 50, {3, 4, 5});
    box(100, 40, {3, 4});
    box(100, 50, {3, 4, 5, 6});
    box(100, 60, {3, 4, 5, 6});
    box(100, 80, {4, 5});
    box(120, 60, {3, 4, 5, 6});
    box(120, 80, {4, 5, 6});
    box(140, 80, {4, 5, 6});
    box(150, 100, {4, 5, 6});
    const auto tube = [&](double d, std::initializer_list<double> walls) {
        for (const double t : walls) list.push_back({"tube", d, 0, t, false});
    };
    tube(20, {1.5, 2});
    tube(25, {1.5, 2, 2.5});
    tube(30, {2, 2.5, 3});
    tube(38, {2, 3});
    tube(42.4, {2, 2.6, 3.2});
    tube(48.3, {2.6, 3.2, 4});
    tube(60.3, {2.9, 3.6, 5});
    tube(76.1, {2.9, 3.6, 5});
    tube(88.9, {3.2, 4, 5});
    const auto angle = [&](double a, std::initializer_list<double> walls) {
        for (const double t : walls) list.push_back({"angle", a, a, t, false});
    };
    angle(20, {3});
    angle(25, {3, 4});
    angle(30, {3, 4});
    angle(40, {4, 5});
    angle(50, {5, 6});
    angle(60, {6, 8});
    const auto channel = [&](double h, double w, std::initializer_list<double> walls) {
        for (const double t : walls) list.push_back({"channel", h, w, t, false});
    };
    channel(50, 30, {3});
    channel(60, 30, {3, 4});
    channel(80, 40, {3, 4});
    channel(100, 50, {3, 4, 5});
    channel(120, 50, {4, 5});
    channel(120, 60, {4, 5});
    for (const auto& [w, t] : {std::pair{30.0, 5.0},
                               {40.0, 5.0},
                               {40.0, 6.0},
                               {50.0, 5.0},
                               {50.0, 6.0},
                               {60.0, 6.0},
                               {60.0, 8.0},
                               {80.0, 6.0},
                               {80.0, 8.0},
                               {100.0, 6.0},
                               {100.0, 10.0}})
        list.push_back({"flat", w, 0, t, false});
    // rolled in inches
    const auto inch_box = [&](double h, double w, std::initializer_list<double> walls_in) {
        for (const double t : walls_in) list.push_back({"box", h * inch_mm, w * inch_mm, t * inch_mm, true});
    };
    const double g16 = gaugeMm(16) / inch_mm, g14 = gaugeMm(14) / inch_mm, g11 = gaugeMm(11) / inch_mm;
    inch_box(1, 1, {g16, g14, g11});
    inch_box(1.5, 1.5, {g16, g14, g11, 0.1875});
    inch_box(2, 2, {g14, g11, 0.1875, 0.25});
    inch_box(2.5, 2.5, {g11, 0.1875, 0.25});
    inch_box(3, 3, {g11, 0.1875, 0.25});
    inch_box(4, 4, {g11, 0.1875, 0.25});
    inch_box(2, 1, {g16, g14, g11});
    inch_box(3, 1.5, {g14, g11});
    inch_box(3, 2, {g11, 0.1875, 0.25});
    inch_box(4, 2, {g11, 0.1875, 0.25});
    inch_box(4, 3, {g11, 0.1875, 0.25});
    for (const double d : {1.0, 1.25, 1.5, 1.75, 2.0})
        for (const double t : {0.083, 0.095, 0.12}) list.push_back({"tube", d * inch_mm, 0, t * inch_mm, true});
    return list;
}

} // namespace

double gaugeMm(int gauge) {
    const int k = gauge - first_gauge;
    return k >= 0 && k < static_cast<int>(gauge_in.size()) ? gauge_in[static_cast<std::size_t>(k)] * inch_mm : 0;
}

std::string StockSize::name() const {
    const auto size = [&](double mm) { return inch ? inches(mm) : fmt::format("{:g}", mm); };
    const std::string t = !inch            ? fmt::format("{:g}", wall)
                          : form == "tube" ? fmt::format("{:.3f}\"", wall / inch_mm)
                                           : inchWall(wall);
    return width > 0 ? fmt::format("{} {} × {} × {}", form, size(height), size(width), t)
                     : fmt::format("{} {} × {}", form, size(height), t);
}

Profile StockSize::profile() const {
    Profile p;
    p.shape = form;
    // outside corners of twice the wall, as cold-formed sections have them
    if (form == "box" || form == "channel")
        p.sizes = {height, width, wall, 2 * wall};
    else if (form == "angle")
        p.sizes = {height, width, wall};
    else
        p.sizes = {height, wall};
    return p;
}

const std::vector<StockSize>& commonStock() {
    static const std::vector<StockSize> list = all();
    return list;
}

const std::vector<Section>& worthOfStock() {
    static const std::vector<Section> list = [] {
        std::vector<Section> worths;
        for (const StockSize& size : commonStock()) {
            const auto walls = wallsOf(size.profile());
            const auto section = walls ? sectionOf(*walls) : Result<Section>(walls.error());
            worths.push_back(section ? *section : Section{});
        }
        return worths;
    }();
    return list;
}

} // namespace gorvet::frame
