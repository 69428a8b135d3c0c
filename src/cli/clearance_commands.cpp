#include "cli/clearance_commands.hpp"

#include "analysis/json_parts.hpp"
#include "cli/read_scan.hpp"
#include "cli/tape_commands.hpp"
#include "sit/clearance.hpp"

#include <iostream>

#include <fmt/format.h>

namespace gorvet::cli {

using namespace analysis;
namespace {

const char* word(sit::Band b) { return b == sit::Band::Fouls ? "Fouls" : b == sit::Band::Tight ? "Tight" : "Clear"; }

Json about(const sit::Ready& r, const formats::ReadMesh& read) {
    size_t closed = 0;
    for (const shape::Piece& p : r.sides->pieces()) closed += p.closed;
    return {
        {"points", r.mesh->points.size()},
        {"triangles", r.mesh->triangles.size()},
        {"pieces", r.sides->pieces().size()},
        {"closed_pieces", closed},
        {"left_out", {{"points", read.points_left_out}, {"triangles", read.triangles_left_out}, {"lines", read.lines_left_out}}}};
}

/// A cloud has no surface: each point counts as itself.
void pointsAsSurface(shape::Mesh& m) {
    if (!m.triangles.empty()) return;
    for (std::uint32_t i = 0; i < m.points.size(); ++i) m.triangles.push_back({i, i, i});
}

} // namespace

int clearanceOf(const ClearanceRequest& request) {
    const auto pose = poseFrom(request.pose);
    if (!pose) return fail(pose.error());
    auto body_file = readSaying(request.body, request.unit);
    if (!body_file) return fail(body_file.error());
    auto chassis_file = readSaying(request.chassis, request.unit);
    if (!chassis_file) return fail(chassis_file.error());
    if (!request.map.empty() && body_file->points_left_out > 0)
        return fail(Error{Error::Code::BadInput, request.body,
                          fmt::format("{} points of {} are no numbers, so that a map can't keep its points' order.",
                                      body_file->points_left_out, request.body),
                          "Write it anew with scan convert, and give that file.", -1});
    const bool body_cloud = body_file->mesh.triangles.empty();
    const bool chassis_cloud = chassis_file->mesh.triangles.empty();
    shape::Mesh surface = std::move(body_file->mesh);
    pointsAsSurface(surface);
    pointsAsSurface(chassis_file->mesh);
    const auto body = sit::readyOf(std::make_shared<const shape::Mesh>(std::move(surface)), request.threads);
    const auto chassis = sit::readyOf(std::make_shared<const shape::Mesh>(std::move(chassis_file->mesh)), request.threads);
    sit::Need need;
    need.cap_mm = request.cap_mm;
    need.least_mm = request.least_mm;
    need.finish_mm = request.finish_mm;
    need.u95_mm = request.u95_mm;
    const auto c = sit::clearance(body, chassis, *pose, need, request.threads);

    const auto& distance = c->live.map.distance_mm;
    size_t inside = 0, within = 0;
    for (const float d : distance) {
        inside += d < 0;
        within += static_cast<double>(std::abs(d)) < need.cap_mm;
    }
    Json fouling = Json::array(), tight = Json::array();
    for (const sit::Contact& k : c->contacts) {
        Json j = {{"verdict", word(k.band)},        {"distance_mm", number(k.distance_mm)},
                  {"surfaces_meet", k.meets},       {"at", stationJson(k.at)},
                  {"from", stationJson(k.box.min)}, {"to", stationJson(k.box.max)},
                  {"area_mm2", number(k.area_mm2)}, {"points", k.points}};
        (k.band == sit::Band::Fouls ? fouling : tight).push_back(std::move(j));
    }
    Json lines = Json::array();
    constexpr size_t most_lines = 10'000;
    for (const shape::Polyline& l : c->crossings.lines)
        if (lines.size() < most_lines)
            lines.push_back({{"length_mm", number(shape::length(l))}, {"closed", l.closed}, {"places", l.places.size()}});
    Json percentiles;
    for (size_t i = 0; i < sit::percentile_ranks.size(); ++i)
        percentiles[std::to_string(sit::percentile_ranks[i])] = number(c->percentiles_mm[i]);
    const bool anything = c->meets || c->least_mm < need.cap_mm;
    Json j = {
        {"unit_of_files", request.unit},
        {"body", about(body, *body_file)},
        {"chassis", about(chassis, *chassis_file)},
        {"pose", request.pose},
        {"cap_mm", number(need.cap_mm)},
        {"need", {{"least_mm", number(need.least_mm)}, {"finish_mm", number(need.finish_mm)}, {"u95_mm", number(need.u95_mm)}}},
        {"signed", c->live.map.has_inside},
        {"counts",
         {{"points", distance.size()},
          {"within_cap", within},
          {"inside", inside},
          {"clear", c->live.clear},
          {"tight", c->live.tight},
          {"fouls", c->live.fouls}}},
        {"surfaces_meet", c->meets},
        {"least_mm", number(c->least_mm)},
        {"depth_known", c->depth_known},
        {"least_of_points_mm", number(c->live.least_mm)},
        {"place", anything ? stationJson(c->at_moving) : Json(nullptr)},
        {"place_on_chassis", anything ? stationJson(c->at_fixed) : Json(nullptr)},
        {"percentiles_mm", percentiles},
        {"verdict", word(c->meets ? sit::Band::Fouls : need.band(c->least_mm))},
        {"fouling", fouling},
        {"tight", tight},
        {"crossing_lines", lines}};
    Json remarks = Json::array();
    if (c->crossings.tangled)
        remarks.push_back(fmt::format(
            "The surfaces cut each other in more than {} places: no sheet of a car does, and no lines were made. Look at the files.",
            shape::most_pieces));
    if (c->crossings.lines.size() > most_lines)
        remarks.push_back(fmt::format("{} of {} crossing lines are listed.", most_lines, c->crossings.lines.size()));
    if (!c->live.map.has_inside)
        remarks.push_back("The chassis file has no closed piece, so no inside: distances are unsigned.");
    else if (!chassis.sides->all())
        remarks.push_back("Some pieces of the chassis file are open: only its closed pieces have an inside.");
    if (body_cloud || chassis_cloud) remarks.push_back("A cloud has no surface: its points alone were looked at.");
    if (!c->depth_known) remarks.push_back("The surfaces cut each other, but neither has an inside: how deep is not known.");
    j["remarks"] = remarks;
    if (!request.map.empty()) {
        shape::Mesh out = *body.mesh;
        if (body_cloud) out.triangles.clear();
        if (const auto written = formats::writePly(out, request.map, distance); !written) return fail(written.error());
    }
    std::cout << text(j);
    return 0;
}

} // namespace gorvet::cli
