#include "cli/cut_commands.hpp"

#include "analysis/cut_files.hpp"
#include "analysis/json_scan.hpp"
#include "analysis/kept_cuts.hpp"
#include "analysis/scan_edits.hpp"
#include "analysis/scans.hpp"
#include "analysis/seatings.hpp"
#include "cli/open_build.hpp"
#include "cli/read_scan.hpp"
#include "cli/tape_commands.hpp"
#include "cli/wait.hpp"
#include "store/store.hpp"

#include <iostream>
#include <sstream>

#include <fmt/format.h>

namespace gorvet::cli {

using namespace analysis;
namespace {

Result<void> written(const sit::CutMap& map, const std::string& out, const build::Build& b, const analysis::Results& r) {
    return out.empty() ? Result<void>{} : analysis::writeCutMap(b, r, map, out);
}

int exitCode(const sit::CutMap& map) {
    for (const sit::Cut& c : map.cuts)
        if (!c.allowed()) return exit_open;
    return 0;
}

Result<sit::Zone> zoneFrom(const std::string& typed) {
    const Error wrong{Error::Code::BadInput, typed, fmt::format("\"{}\" is no zone.", typed),
                      "Give never, brace or named, a name and two corners: never:plate:300,-80,900:420,80,960.", -1};
    std::vector<std::string> parts;
    std::istringstream in(typed);
    for (std::string part; std::getline(in, part, ':');) parts.push_back(part);
    if (parts.size() != 4 || parts[1].empty()) return wrong;
    const auto rule = build::fromWord<build::ZoneRule>(parts[0]);
    const auto a = placeFrom(parts[2]);
    const auto b = placeFrom(parts[3]);
    if (!rule || !a || !b) return wrong;
    sit::Zone z;
    z.name = parts[1];
    z.kind = static_cast<sit::ZoneKind>(*rule);
    for (size_t axis = 0; axis < 3; ++axis) {
        z.box.min[axis] = std::min((*a)[axis], (*b)[axis]);
        z.box.max[axis] = std::max((*a)[axis], (*b)[axis]);
    }
    return z;
}

} // namespace

int cutMapOf(const CutRequest& request) {
    const auto pose = poseFrom(request.clearance.pose);
    if (!pose) return fail(pose.error());
    sit::CutOptions o;
    o.need.cap_mm = request.clearance.cap_mm;
    o.need.least_mm = request.clearance.least_mm;
    o.need.finish_mm = request.clearance.finish_mm;
    o.need.u95_mm = request.clearance.u95_mm;
    o.margin_mm = request.margin_mm;
    o.flange_mm = request.flange_mm;
    o.thickness_mm = request.thickness_mm;
    o.fineness_mm = request.fineness_mm;
    for (const std::string& typed : request.zones) {
        const auto zone = zoneFrom(typed);
        if (!zone) return fail(zone.error());
        o.zones.push_back(*zone);
    }
    auto body_file = readSaying(request.clearance.body, request.clearance.unit);
    if (!body_file) return fail(body_file.error());
    auto chassis_file = readSaying(request.clearance.chassis, request.clearance.unit);
    if (!chassis_file) return fail(chassis_file.error());
    if (body_file->mesh.triangles.empty())
        return fail(
            Error{Error::Code::BadInput, request.clearance.body, "A cloud has no sheet to cut.", "Give a mesh of the body.", -1});
    const auto body = sit::readyOf(std::make_shared<const shape::Mesh>(std::move(body_file->mesh)), request.clearance.threads);
    const auto chassis =
        sit::readyOf(std::make_shared<const shape::Mesh>(std::move(chassis_file->mesh)), request.clearance.threads);
    const auto map = sit::cutMap(body, chassis, *pose, o, request.clearance.threads);
    if (!map) return fail(map.error());
    build::Build b;
    b.settings.name = request.clearance.body + " on " + request.clearance.chassis;
    if (const auto done = written(*map, request.out, b, {}); !done) return fail(done.error());
    std::cout << cutMapJson(*map, {{"pose", request.clearance.pose}},
                            {{"least_mm", o.need.least_mm}, {"margin_mm", o.margin_mm}, {"flange_mm", o.flange_mm}});
    return exitCode(*map);
}

int scanKeep(const std::string& build, const std::string& file, const std::string& unit, const std::string& subject,
             const std::string& part, const std::string& name) {
    const auto read = readSaying(file, unit);
    if (!read) return fail(read.error());
    auto store = openToWrite(build);
    if (!store) return fail(store.error());
    const auto blob = (*store)->keepBlob(file);
    if (!blob) return fail(blob.error());
    const auto named = subjectIn((*store)->build(), subject, build);
    if (!named) return fail(named.error());
    const build::SubjectId on = *named;
    const auto shows = part.empty() ? (on == build::the_body ? build::ScanPart::Body : build::ScanPart::Chassis)
                                    : *build::fromWord<build::ScanPart>(part);
    const std::string called = name.empty() ? analysis::scanNameFor((*store)->build(), file) : name;
    const auto edit =
        analysis::keepScan((*store)->build(), called, on, shows, *build::fromWord<build::ScanUnit>(unit), blob->hash, blob->name);
    if (const auto kept = (*store)->keep(edit, author()); !kept) return fail(kept.error());
    std::cerr << fmt::format("kept {}: {} points, {} triangles\n", called, read->mesh.points.size(), read->mesh.triangles.size());
    return 0;
}

int overlayOfBuild(const std::string& build, const std::string& out, bool keep, const std::string& seating, bool for_way) {
    auto store = keep ? openToWrite(build) : openToRead(build);
    if (!store) return fail(store.error());
    build::Build b = (*store)->build();
    if (!seating.empty()) {
        const auto as =
            std::find_if(b.seatings.begin(), b.seatings.end(), [&](const auto& row) { return row.second.name == seating; });
        if (as == b.seatings.end())
            return fail(Error{Error::Code::NotFound, seating, fmt::format("There is no seating {}.", seating),
                              "Keep one first: seating keep NAME.", -1});
        b = analysis::seatedAs(b, as->second);
    }
    analysis::Results r = analysed(b, (*store)->revision());
    const std::string_view cuts = for_way ? slow::cuts_for_way : slow::cuts;
    waitFor(**store, b, r, {slow::clearance, slow::way, cuts});
    if (!currentSlow(b, r, cuts)) {
        std::cout << overlayJson(b, r, seating, nullptr, {});
        return exit_open;
    }
    const Scans::CutsMade& made = for_way ? *r.scans->cuts_for_way : *r.scans->cuts;
    if (made.error) return fail(*made.error);
    std::string kept;
    if (keep) {
        const auto edit = analysis::keepCuts(b, r, made.map);
        if (!edit) return fail(edit.error());
        if (const auto done = (*store)->keep(*edit, author()); !done) return fail(done.error());
        kept = edit->sentence;
    }
    if (const auto done = written(made.map, out, b, r); !done) return fail(done.error());
    std::cout << overlayJson(b, r, seating, &made.map, kept);
    return exitCode(made.map);
}

} // namespace gorvet::cli
