#include "cli/build_scans.hpp"

#include "analysis/json_parts.hpp"
#include "analysis/lay_scan.hpp"
#include "analysis/seatings_clearance.hpp"
#include "analysis/way_in.hpp"
#include "cli/open_build.hpp"
#include "cli/read_scan.hpp"
#include "cli/tape_commands.hpp"

#include <iostream>
#include <span>

#include <fmt/format.h>

namespace gorvet::cli {

using namespace analysis;

/// The meshes of a build's scans; what can't be read is told and left out.
analysis::ScanMeshes meshesOf(const store::Store& store) {
    analysis::ScanMeshes meshes;
    const build::Build& b = store.build();
    for (const auto& [id, s] : b.scans) {
        const auto read = formats::readMeshFrom([&, &hash = s.blob](const auto& take) { return store.readBlob(hash, take); },
                                                s.file, analysis::unitOf(s.unit));
        if (!read) {
            std::cerr << fmt::format("gorvet-cli: {}: {}\n", s.name, read.error().text());
            continue;
        }
        meshes[id] = std::make_shared<const shape::Mesh>(read->mesh);
    }
    return meshes;
}

namespace {

struct Measured {
    std::shared_ptr<const analysis::Overlay> overlay;
    std::shared_ptr<const analysis::OverlayClearance> clearance;
};

/// How near the kept scans come to each other; none when they do not show body and chassis.
std::optional<Measured> measured(const build::Build& b, const analysis::Results& results, const analysis::ScanMeshes& meshes) {
    const auto overlay = std::make_shared<const analysis::Overlay>(analysis::overlayOf(b, results, meshes));
    if (!overlay->complete()) return std::nullopt;
    auto found = analysis::clearanceOf(*overlay, b);
    if (!found) return std::nullopt;
    return Measured{overlay, std::make_shared<const analysis::OverlayClearance>(std::move(*found))};
}

void sayWaiting(const build::Build& b) {
    std::cerr << fmt::format("working out the clearances of {} scan{}…\n", b.scans.size(), b.scans.size() == 1 ? "" : "s");
}

} // namespace

std::vector<analysis::Finding> scanFindings(const store::Store& store, const analysis::Results& results) {
    const build::Build& b = store.build();
    if (b.scans.empty()) return {};
    sayWaiting(b);
    const auto found = measured(b, results, meshesOf(store));
    return found ? analysis::clearanceFindings(b, *found->overlay, *found->clearance) : std::vector<analysis::Finding>{};
}

analysis::ScanSheets scanSheets(const store::Store& store, const analysis::Results& results) {
    analysis::ScanSheets sheets;
    const build::Build& b = store.build();
    if (!b.settings.scan_picture.empty()) {
        auto bytes = std::make_shared<std::string>();
        if (store.readBlob(b.settings.scan_picture,
                           [&](std::span<const unsigned char> part) { bytes->append(part.begin(), part.end()); }))
            sheets.picture = bytes;
    }
    if (b.scans.empty()) return sheets;
    sayWaiting(b);
    const analysis::ScanMeshes meshes = meshesOf(store);
    const auto found = measured(b, results, meshes);
    if (!found) return sheets;
    const auto overlay = found->overlay;
    const auto clearance = found->clearance;
    sheets.findings = analysis::clearanceFindings(b, *overlay, *clearance);
    sheets.pairs = [b, overlay, clearance](double w, double h, const sheet::Format& f) {
        return analysis::pairsView(b, *overlay, *clearance, w, h, f);
    };
    if (auto list = analysis::clearancesOfSeatings(b, results, *overlay, *clearance, meshes))
        sheets.seatings = std::make_shared<const std::vector<analysis::SeatingClearance>>(std::move(*list));
    sheets.way = analysis::wayDrawing(b, overlay, nullptr);
    return sheets;
}

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
        const analysis::ScanMeshes all = meshesOf(**store);
        const auto mesh = all.find(id);
        if (mesh == all.end()) return Error{Error::Code::Damaged, request.scan, "The scan can't be read.", "", -1};
        if (request.symmetry) return analysis::layBySymmetry(b, id, *mesh->second);
        std::vector<shape::Point3> others;
        for (const auto& [other, m] : all)
            if (other != id && b.scans.at(other).subject == scan->second.subject)
                for (const shape::Point3& p : m->points) others.push_back(analysis::poseOf(b.scans.at(other)).moved(p));
        return analysis::layByMarkers(b, id, *mesh->second, others, request.ball_radius_mm);
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
