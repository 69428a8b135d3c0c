#include "cli/lay_command.hpp"

#include "analysis/json_parts.hpp"
#include "analysis/lay_scan.hpp"
#include "analysis/scans.hpp"
#include "cli/open_build.hpp"
#include "cli/read_scan.hpp"
#include "cli/tape_commands.hpp"
#include "cli/wait.hpp"

#include <iostream>

#include <fmt/format.h>

namespace gorvet::cli {

using namespace analysis;

int scanLay(const LayRequest& request) {
    auto store = openToWrite(request.build);
    if (!store) return fail(store.error());
    const build::Build& b = (*store)->build();
    const auto scan =
        std::find_if(b.scans.begin(), b.scans.end(), [&](const auto& row) { return row.second.name == request.scan; });
    if (scan == b.scans.end())
        return fail(Error{Error::Code::NotFound, request.scan, fmt::format("There is no scan {}.", request.scan),
                          "Keep it first: gorvet-cli scan keep.", -1});
    const build::ScanId id = scan->first;
    if ((request.ball_radius_mm > 0) + request.symmetry + !request.datum.empty() + !request.surveyed.empty() != 1)
        return fail(Error{Error::Code::BadInput, "scan lay", "One way to lay it is needed.",
                          "Give --markers, --symmetry, --datum or --survey.", -1});
    const auto laid = [&]() -> Result<analysis::LaidScan> {
        if (!request.datum.empty()) {
            if (request.datum.size() != 6)
                return Error{Error::Code::BadInput, "--datum", fmt::format("{} places.", request.datum.size()),
                             "Give six: three on the plane, two on the centreline, one at station 0.", -1};
            std::array<shape::Point3, 6> places{};
            for (size_t k = 0; k < 6; ++k) {
                const auto at = placeFrom(request.datum[k]);
                if (!at) return at.error();
                places[k] = *at;
            }
            return analysis::layByDatum(b, id, places);
        }
        if (!request.surveyed.empty()) {
            std::vector<std::pair<build::PointId, shape::Point3>> picks;
            for (const std::string& typed : request.surveyed) {
                const auto sign = typed.find('=');
                const build::Point* point = build::pointNamed(b, scan->second.subject, typed.substr(0, sign));
                if (sign == std::string::npos || !point)
                    return Error{Error::Code::BadInput, typed, fmt::format("\"{}\" is no surveyed point and its place.", typed),
                                 "Like: --survey Hl=560,-690,800", -1};
                const auto at = placeFrom(typed.substr(sign + 1));
                if (!at) return at.error();
                picks.emplace_back(point->id, *at);
            }
            return analysis::layOnSurveyedPoints(b, analysed(**store), id, picks);
        }
        analysis::Results r;
        waitFor(**store, b, r, {slow::read});
        const analysis::ScanMeshes& meshes = *r.scans->read->meshes;
        if (!meshes.contains(id)) return Error{Error::Code::Damaged, request.scan, "The scan can't be read.", "", -1};
        return request.symmetry ? analysis::layBySymmetry(b, meshes, id)
                                : analysis::layByMarkers(b, meshes, id, request.ball_radius_mm);
    }();
    if (!laid) return fail(laid.error());
    if (const auto kept = (*store)->keep(laid->edit, author()); !kept) return fail(kept.error());
    const build::Scan& now = (*store)->build().scans.at(id);
    std::cout << text({{"scan", now.name},
                       {"how", now.note},
                       {"words", laid->words},
                       {"pose",
                        {{"x_mm", number(now.shift.x_mm)},
                         {"y_mm", number(now.shift.y_mm)},
                         {"z_mm", number(now.shift.z_mm)},
                         {"yaw_deg", number(units::degrees(now.yaw_rad))},
                         {"pitch_deg", number(units::degrees(now.pitch_rad))},
                         {"roll_deg", number(units::degrees(now.roll_rad))}}}});
    return 0;
}

} // namespace gorvet::cli
