#include "analysis/export.hpp"

#include "analysis/bench.hpp"
#include "analysis/findings.hpp"
#include "analysis/pages.hpp"
#include "analysis/views.hpp"
#include "files/out_file.hpp"
#include "formats/csv.hpp"
#include "sheet/page.hpp"
#include "sheet/write.hpp"

#include <cmath>
#include <functional>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

Result<void> writeText(const std::filesystem::path& path, const std::string& text) {
    return files::putText(path, files::Kind::Csv, text);
}

std::string cutListCsv(const Results& r) {
    std::string csv = "count,piece,stock,length_mm,ends,mass_kg\n";
    for (const auto& p : r.crossmember->pieces)
        csv += fmt::format("{},{},{},{:.1f},{},{:.3f}\n", p.count, formats::csvField(p.name), formats::csvField(p.stock),
                           p.length_mm, formats::csvField(p.ends), p.mass_kg);
    for (const auto& m : r.mounts) {
        if (!m.on_rail) continue;
        if (m.standoff_mm > 0)
            csv += fmt::format("1,{},tube,{:.1f},square,\n", formats::csvField("standoff " + m.name), m.standoff_mm);
        if (m.bolt_length_mm)
            csv += fmt::format("1,{},M{:g} bolt,{:.0f},,\n", formats::csvField("mount bolt " + m.name), m.bolt_mm,
                               *m.bolt_length_mm);
        csv += fmt::format("1,{},{},,,\n", formats::csvField("mount nut " + m.name), formats::csvField(m.nut));
    }
    if (r.stretch->sleeve)
        csv += fmt::format("2,inner sleeve,{},{:.1f},square,\n",
                           formats::csvField(fmt::format("{:.1f} × {:.1f} × {:.1f}", r.stretch->sleeve->height_mm,
                                                         r.stretch->sleeve->width_mm, r.stretch->sleeve->wall_mm)),
                           r.stretch->sleeve->length_mm);
    if (r.stretch->splice && r.stretch->splice->plate) {
        const auto& plate = *r.stretch->splice->plate;
        csv += fmt::format("4,fish plate,{},{:.1f},\"{:.0f} high, ends tapered\",\n",
                           formats::csvField(fmt::format("plate {:g}", plate.thickness_mm)), plate.length_mm, plate.height_mm);
    }
    if (r.stretch->status == stretch::Status::Planned && !r.stretch->shortens)
        for (const auto& [name, cut] : {std::pair{"left", &r.stretch->left}, std::pair{"right", &r.stretch->right}})
            if (cut->known) csv += fmt::format("1,new rail piece {},as the rail,{:.1f},square,\n", name, cut->length_mm);
    return csv;
}

} // namespace

Result<std::vector<std::filesystem::path>> exportAll(const Build& b, const Results& r, const std::filesystem::path& folder,
                                                     const Progress& progress) {
    std::error_code ec;
    std::filesystem::create_directories(folder, ec);
    if (ec)
        return Error{Error::Code::File, folder.string(),
                     fmt::format("The folder {} can't be made: {}.", folder.string(), ec.message()), "Choose another place.", -1};
    FileKeeper out(folder, progress);
    out.keep("build-sheet.pdf", [&](const auto& to) {
        return writePdf(buildSheet(b, r), {"Build sheet: " + b.settings.name, "Gorvet build sheet"}, to);
    });
    for (const BenchInfo* bench : benches())
        if (bench->files) bench->files(b, r, out);
    // nothing that a machine cuts from comes out of a damaged file: a sheet can say so, a cutting file can't
    if (r.file_damage.empty() && (!r.mounts.empty() || r.crossmember->possible || r.stretch->status == stretch::Status::Planned))
        out.keep("cut-list.csv", [&](const auto& to) { return writeText(to, cutListCsv(r)); });
    if (out.failed()) return *out.failed();
    return std::move(out.files());
}

} // namespace gorvet::analysis
