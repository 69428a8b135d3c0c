#include "analysis/export.hpp"

#include "analysis/bench.hpp"
#include "analysis/findings.hpp"
#include "analysis/pages.hpp"
#include "analysis/views.hpp"
#include "sheet/page.hpp"
#include "sheet/write.hpp"

#include <cmath>
#include <functional>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

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
    if (out.failed()) return *out.failed();
    return std::move(out.files());
}

} // namespace gorvet::analysis
