// The cut map out of the program: pages, drawings at 1:1, places.
#include "analysis/cut_files.hpp"

#include "analysis/pages.hpp"
#include "files/out_file.hpp"
#include "sheet/tiles.hpp"
#include "sheet/write.hpp"
#include "sit/cut_sheet.hpp"

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

const std::vector<std::string>& cautions() {
    static const std::vector<std::string> list{
        "Brace the body before it is cut. Plates and stamped numbers are never cut, moved or hidden.", hot_work, local_rules};
    return list;
}

} // namespace

std::vector<Drawing> cutMapPages(const Build& b, const Results& r, const sit::CutMap& map) {
    std::vector<Drawing> pages;
    Area area;
    Drawing page = blankPage(titled(b, r, "Cut map: what to take away"), cautions(), area);
    Headline h;
    h.sentence = map.cuts.empty() ? "Nothing needs to be cut."
                                  : fmt::format("{} cut{}, {:.0f} cm², {:.2f} kg of sheet.", map.cuts.size(),
                                                map.cuts.size() == 1 ? "" : "s", map.area_mm2 / 100, map.mass_kg);
    h.below = fmt::format("{}", fmt::join(map.remarks, " "));
    addHeadline(page, area, h);
    page.place(sit::cutMapPage(map, area.width, area.height, on_paper), {area.x, area.y});
    pages.push_back(std::move(page));
    std::vector<std::vector<std::string>> rows;
    for (const sit::Cut& c : map.cuts)
        for (size_t l = 0; l < c.lines.size(); ++l) {
            int n = 0;
            for (const shape::Point3& p : sit::placesAlong(c.lines[l]))
                rows.push_back({fmt::format("{}", c.number), fmt::format("{}", l + 1), fmt::format("{}", ++n),
                                fmt::format("{:.1f}", p[0]), fmt::format("{:.1f}", p[1]), fmt::format("{:.1f}", p[2]), ""});
        }
    if (!rows.empty())
        addTablePages(pages, titled(b, r, "Cut map: places, from the chassis datum"), cautions(),
                      {{"cut", 20}, {"line", 20}, {"place", 24}, {"station", 40}, {"offset", 40}, {"height", 40}, {"as cut", 60}},
                      rows);
    return pages;
}

Result<void> writeCutMap(const Build& b, const Results& r, const sit::CutMap& map, const std::filesystem::path& folder) {
    if (!r.file_damage.empty())
        return Error{Error::Code::Damaged, folder.string(),
                     "No cutting files are written from a damaged file: " + r.file_damage.front() + ".",
                     "Open a copy that was kept.", -1};
    std::error_code error;
    std::filesystem::create_directories(folder, error);
    for (const sit::Cut& c : map.cuts)
        if (const auto ok = writeDxf(sit::cutDrawing(c), folder / fmt::format("cut-{}.dxf", c.number)); !ok) return ok.error();
    const auto list = folder / "cut-places.csv";
    std::string out = "cut,line,place,station_mm,offset_mm,height_mm\n";
    for (const sit::Cut& c : map.cuts)
        for (size_t l = 0; l < c.lines.size(); ++l) {
            int n = 0;
            for (const shape::Point3& p : sit::placesAlong(c.lines[l]))
                out += fmt::format("{},{},{},{:.1f},{:.1f},{:.1f}\n", c.number, l + 1, ++n, p[0], p[1], p[2]);
        }
    if (auto ok = files::putText(list, files::Kind::Csv, out); !ok) return ok;
    // what is flat enough to be drawn from paper
    std::vector<Drawing> prints;
    for (const sit::Cut& c : map.cuts)
        if (c.flat && c.allowed())
            for (Drawing& page : tiled(sit::cutDrawing(c), fmt::format("{}, cut {}", b.settings.name, c.number),
                                       TileOptions::on(paperOf(b).height, paperOf(b).width)))
                prints.push_back(std::move(page));
    if (!prints.empty())
        if (const auto ok = writePdf(prints, {"Cuts 1:1", b.settings.name}, folder / "cuts-1-to-1.pdf"); !ok) return ok.error();
    return writePdf(cutMapPages(b, r, map), {"Cut map", b.settings.name}, folder / "cut-map.pdf");
}

} // namespace gorvet::analysis
