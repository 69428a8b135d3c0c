#include "cli/scan_commands.hpp"

#include "analysis/json_parts.hpp"
#include "cli/read_scan.hpp"
#include "cli/tape_commands.hpp"
#include "scan/fit.hpp"

#include <iostream>

#include <fmt/format.h>

namespace gorvet::cli {

using namespace analysis;

int scanInfo(const std::string& path, const std::string& unit) {
    const auto read = readSaying(path, unit);
    if (!read) return fail(read.error());
    const shape::MeshReport r = shape::look(read->mesh);
    Json j = {{"format", read->format},
              {"unit", unit},
              {"points", r.points},
              {"triangles", r.triangles},
              {"has_normals", !read->mesh.normals.empty()},
              {"has_colours", !read->mesh.colours.empty()},
              {"left_out",
               {{"points", read->points_left_out}, {"triangles", read->triangles_left_out}, {"lines", read->lines_left_out}}},
              {"min", cornerJson(r.box.min)},
              {"max", cornerJson(r.box.max)},
              {"pieces", r.pieces},
              {"closed", r.closed},
              {"holes", r.holes},
              {"boundary_edges", r.boundary_edges},
              {"non_manifold_edges", r.non_manifold_edges},
              {"flipped_edges", r.flipped_edges},
              {"degenerate_triangles", r.degenerate_triangles},
              {"duplicate_triangles", r.duplicate_triangles},
              {"unreferenced_points", r.unreferenced_points},
              {"area_mm2", number(r.area_mm2)},
              {"volume_mm3", r.closed && r.triangles ? number(r.volume_mm3) : Json(nullptr)},
              {"remarks", r.remarks()}};
    std::cout << text(j);
    const bool left_out = read->points_left_out || read->triangles_left_out || read->lines_left_out;
    return left_out ? exit_open : 0;
}

int scanConvert(const std::string& path, const std::string& unit, const std::string& out) {
    const auto read = readSaying(path, unit);
    if (!read) return fail(read.error());
    const auto written = out.ends_with(".stl") ? formats::writeStl(read->mesh, out) : formats::writePly(read->mesh, out);
    if (!written) return fail(written.error());
    std::cerr << fmt::format("wrote {}: {} points, {} triangles, mm\n", out, read->mesh.points.size(),
                             read->mesh.triangles.size());
    return 0;
}

namespace {

int say(const char* shape, const scan::Fit& fit, Json j) {
    j["shape"] = shape;
    j["points"] = fit.points;
    j["outliers"] = fit.outliers;
    j["rms_mm"] = number(fit.rms_mm);
    j["worst_mm"] = number(fit.worst_mm);
    std::cout << text(j);
    return 0;
}

Json radius(double radius_mm, double u95_mm) { return {{"radius_mm", number(radius_mm)}, {"radius_u95_mm", number(u95_mm)}}; }

} // namespace

int scanFit(const std::string& path, const std::string& unit, const std::string& shape, bool outliers) {
    const auto read = readSaying(path, unit);
    if (!read) return fail(read.error());
    const auto& points = read->mesh.points;
    if (shape == "plane") {
        const auto s = scan::fitPlane(points, outliers);
        return s ? say("plane", s->fit, {{"at", cornerJson(s->at)}, {"normal", directionJson(s->normal)}}) : fail(s.error());
    }
    if (shape == "line") {
        const auto s = scan::fitLine(points, outliers);
        return s ? say("line", s->fit, {{"at", cornerJson(s->at)}, {"way", directionJson(s->way)}}) : fail(s.error());
    }
    Json j;
    if (shape == "circle") {
        const auto s = scan::fitCircle(points, outliers);
        if (!s) return fail(s.error());
        j = radius(s->radius_mm, s->radius_u95_mm);
        j["centre"] = cornerJson(s->centre);
        j["normal"] = directionJson(s->normal);
        return say("circle", s->fit, j);
    }
    if (shape == "ball") {
        const auto s = scan::fitSphere(points, outliers);
        if (!s) return fail(s.error());
        j = radius(s->radius_mm, s->radius_u95_mm);
        j["centre"] = cornerJson(s->centre);
        return say("ball", s->fit, j);
    }
    const auto s = scan::fitCylinder(points, outliers);
    if (!s) return fail(s.error());
    j = radius(s->radius_mm, s->radius_u95_mm);
    j["at"] = cornerJson(s->at);
    j["way"] = directionJson(s->way);
    j["length_mm"] = number(s->length_mm);
    return say("tube", s->fit, j);
}

} // namespace gorvet::cli
