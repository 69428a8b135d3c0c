#include "make/crossmember_solid.hpp"
#include "make/part_examples.hpp"
#include "shape/plain_mesh.hpp"
#include "shape/triangle.hpp"

#include <catch2/catch.hpp>
#include <cmath>
#include <numbers>
#include <random>

namespace make_part_mesh_test {

using namespace gorvet;
using geometry::Vec3;
using make_parts::part;

namespace {

double holesOf(const make::PartPlan& p, const std::string& piece) {
    double volume = 0;
    for (const auto& flat : p.flats)
        if (piece.find(flat.name) != std::string::npos)
            for (const auto& h : flat.holes) volume += std::numbers::pi / 4 * h.diameter_mm * h.diameter_mm * flat.thickness_mm;
    return volume;
}

double fromSurface(const shape::Mesh& m, const Vec3& p) {
    double least = 1e9;
    for (std::uint32_t t = 0; t < m.triangles.size(); ++t)
        least = std::min(least, geometry::between(p, shape::footOn(shape::cornersOf(m, t), p).at));
    return least;
}

/// Its meshes against its solids: closed, right way out, of the same volume but for holes, nowhere farther off than that.
void compare(const std::string& what, const std::vector<make::NamedMesh>& meshes, const std::vector<shape::NamedSolid>& solids,
             const make::PartPlan& p, double off_mm = 0.3) {
    INFO(what);
    REQUIRE(meshes.size() == solids.size());
    for (std::size_t k = 0; k < meshes.size(); ++k) {
        INFO(meshes[k].name);
        CHECK(meshes[k].name == solids[k].name);
        const auto seen = shape::look(meshes[k].mesh);
        CHECK(seen.closed);
        // facets stand off a round surface by hundredths of a millimetre: of a thin wall that is more of it
        double share = 0.01;
        for (const auto& b : p.bars)
            if (b.round && b.name == meshes[k].name) share = std::max(share, 0.025 / b.wall_mm);
        CHECK(seen.volume_mm3 == Approx(shape::volume(solids[k].solid) + holesOf(p, meshes[k].name)).epsilon(share));
        const shape::Mesh true_one = shape::mesh(solids[k].solid, 0.05);
        // every place of the true surface, but on the walls of holes, lies on the plain one; and the plain one's corners on it
        const bool drilled = holesOf(p, meshes[k].name) > 0;
        double worst = 0;
        if (!drilled)
            for (std::size_t i = 0; i < true_one.points.size(); i += 1 + true_one.points.size() / 300)
                worst = std::max(worst, fromSurface(meshes[k].mesh, true_one.points[i]));
        if (!drilled)
            for (std::size_t i = 0; i < meshes[k].mesh.points.size(); i += 1 + meshes[k].mesh.points.size() / 300)
                worst = std::max(worst, fromSurface(true_one, meshes[k].mesh.points[i]));
        CHECK(worst < off_mm);
    }
}
void compare(const make::PartIn& in) {
    const auto p = make::partPlan(in);
    if (!p.made()) return;
    const auto solids = make::partSolids(p);
    REQUIRE(solids);
    compare(in.kind, make::partMeshes(p), *solids, p);
}

} // namespace

TEST_CASE("plain meshes of parts are their solids, of every kind", "[make][part][mesh]") {
    for (const auto& kind : build::partKinds()) {
        std::map<std::string, double> figures;
        for (const auto& f : kind.figures)
            if (f.must) figures[f.word] = f.shown;
        compare(part(kind.word, make_parts::examplePlaces().at(kind.word), figures));
    }
    // sawn aslant in taper, a box and a tube; tapered and sloping boxes; slanted copes; bends out of one plane
    for (const double rear : {-450.0, -380.0}) {
        auto brace = part("brace", {{1000, -410, 450}, {1600, 415, 470}}, {{"across", 40}, {"wide", 60}, {"wall", 3}});
        brace.left = make_parts::rail(-450, rear);
        compare(brace);
        brace.figures.erase("wide");
        compare(brace);
    }
    compare(part("outrigger", {{1000, 480, 480}, {1120, 760, 450}}, {{"deep", 90}, {"deep-end", 45}, {"wide", 60}}));
    compare(part("outrigger", {{1000, 480, 450}, {940, 700, 480}}, {{"deep", 70}, {"deep-end", 60}, {"wide", 45}}));
    compare(part("coped-tube", {{0, 0, 0}, {420, 30, 20}, {60, 300, 0}, {350, 300, 100}},
                 {{"across", 40}, {"wall", 2.5}, {"onto", 50}, {"onto-far", 60}}));
    compare(part("cage-tube", {{0, 0, 0}, {40, 300, 60}, {900, 0, 0}, {900, 300, 100}, {0, 0, 500}, {900, 0, 500}},
                 {{"across", 40}, {"wall", 3}, {"onto", 50}, {"onto-far", 60}}));
    compare(part("bent-tube", {{0, 0, 0}, {400, 0, 0}, {400, 300, 100}, {700, 400, 400}}, {{"across", 38}, {"wall", 3}}));
}

TEST_CASE("plain meshes of a crossmember are its solids, straight and dropped, in taper", "[make][crossmember][mesh]") {
    for (const bool dropped : {false, true}) {
        make::CrossmemberInput in;
        in.gearbox_mount = {900, 20, dropped ? 420.0 : 540.0};
        in.left = make_parts::rail(-430, -470);
        in.right = make_parts::rail(440, 480);
        in.design.dropped = dropped;
        const auto p = make::crossmember(in);
        INFO(p.waiting_for);
        REQUIRE(p.dropped.has_value() == dropped);
        const auto solids = make::crossmemberSolids(in, p);
        REQUIRE(solids);
        const auto pieces = make::crossmemberPieces(in, p);
        compare(dropped ? "dropped" : "straight", make::partMeshes(pieces), *solids, pieces);
        CHECK(solids->size() == (dropped ? 6U : 4U) + (dropped && p.dropped->riser_mm > 0));
    }
}

TEST_CASE("outlines are filled whatever their shape", "[shape][mesh][property]") {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> away(0.3, 1);
    for (int n = 3; n < 60; ++n) {
        geometry::Outline star;
        for (int k = 0; k < n; ++k) {
            const double a = 2 * std::numbers::pi * k / n, r = 100 * away(random);
            star.emplace_back(r * std::cos(a), r * std::sin(a));
        }
        const auto triangles = shape::filled(star);
        CHECK(triangles.size() == star.size() - 2);
        double sum = 0;
        for (const auto& t : triangles) {
            const double part_of = geometry::areaOf({star[t[0]], star[t[1]], star[t[2]]});
            CHECK(part_of >= -1e-9); // none turned over: with the sum right, none over another
            sum += part_of;
        }
        CHECK(sum == Approx(geometry::areaOf(star)));
    }
    // corners in one line
    CHECK(shape::filled({{0, 0}, {1, 0}, {2, 0}, {2, 1}, {1, 1}, {0, 1}}).size() == 4);
}

} // namespace make_part_mesh_test
