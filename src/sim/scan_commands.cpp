#include "sim/scan_commands.hpp"

#include "formats/mesh_file.hpp"
#include "sim/car_meshes.hpp"
#include "sim/scanner.hpp"

#include <filesystem>
#include <iostream>
#include <numbers>
#include <optional>
#include <sstream>

#include <fmt/format.h>

namespace gorvet::sim {
namespace {

using shape::Mesh;

int failed(const std::string& what) {
    std::cerr << "gorvet-sim: " << what << "\n";
    return 1;
}

std::optional<Mesh> partMesh(const std::string& part, double step) {
    if (part == "body") {
        Mesh m = bodyShell(step);
        append(m, bodyDoors(step));
        return m;
    }
    if (part == "chassis") return ladderFrame(step);
    if (part == "engine") return engineAndGearbox(step);
    if (part == "axle") return rearAxle(step);
    if (part == "wheel") return wheel(step);
    if (part != "car") return std::nullopt;
    Mesh m = ladderFrame(step);
    const BodyPlace p = bodyPlace();
    append(m, transformed(*partMesh("body", step), geometry::rigidTransform(p.shift, 0, p.pitch_rad, 0)));
    return m;
}

} // namespace

int writeMesh(const ScanRequest& r) {
    const auto mesh = partMesh(r.part, r.mesh_step_mm);
    if (!mesh) return failed(fmt::format("no part \"{}\": body, chassis, engine, axle, wheel or car", r.part));
    const auto written = formats::writePly(*mesh, r.out);
    if (!written) return failed(written.error().text());
    std::cerr << fmt::format("{}: {} points, {} triangles\n", r.out, mesh->points.size(), mesh->triangles.size());
    return 0;
}

int writeScan(const ScanRequest& r) {
    auto mesh = partMesh(r.part, r.mesh_step_mm);
    if (!mesh) return failed(fmt::format("no part \"{}\": body, chassis, engine, axle, wheel or car", r.part));
    std::mt19937 rng(r.seed);
    if (r.markers > 0) {
        // the same balls whatever the scanner's seed: they stand about the car while it walks round
        std::mt19937 fixed(4711);
        append(*mesh, markersAround(static_cast<size_t>(r.markers), fixed).mesh);
    }
    shape::Point3 eye{};
    std::istringstream in(r.eye);
    char comma = 0;
    if (!(in >> eye[0] >> comma >> eye[1] >> comma >> eye[2]))
        return failed(fmt::format("\"{}\" is no place: give x,y,z in mm", r.eye));
    const shape::DistanceTree tree(std::make_shared<const Mesh>(std::move(*mesh)));
    ScannerSettings settings;
    settings.step_rad = r.step_mrad / 1000;
    settings.noise_mm = r.noise_mm;
    settings.stray_share = r.stray_share;
    Mesh cloud = scanFrom(tree, eye, settings, rng);
    if (cloud.points.empty()) return failed("nothing of the scene is seen from there");
    if (r.own_frame) {
        // a scanner knows where it stands, not where the car does: turned about its own upright
        std::uniform_real_distribution<double> turn(-std::numbers::pi, std::numbers::pi);
        geometry::RigidTransform m = geometry::rigidTransform({}, turn(rng), 0, 0);
        m.translation = geometry::times(m.rotated(eye), -1);
        cloud = transformed(std::move(cloud), m);
    }
    const auto written = formats::writePly(cloud, r.out);
    if (!written) return failed(written.error().text());
    std::cerr << fmt::format("{}: {} points\n", r.out, cloud.points.size());
    return 0;
}

int writeDemoMeshes(const std::string& folder) {
    std::error_code error;
    std::filesystem::create_directories(folder, error);
    for (const auto& [part, step] : {std::pair("body", 15.0), std::pair("chassis", 10.5), std::pair("engine", 13.0),
                                     std::pair("axle", 13.0), std::pair("wheel", 15.0)}) {
        ScanRequest r;
        r.part = part;
        r.mesh_step_mm = step;
        r.out = folder + "/" + part + ".ply";
        if (const int code = writeMesh(r)) return code;
    }
    return 0;
}

} // namespace gorvet::sim
