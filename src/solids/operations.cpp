// What is done to solids: placing, sawing, coping, joining, weighing, meshing.
#include "solids/content.hpp"

#include <fmt/format.h>

#include <cmath>

#include <BRepAlgoAPI_Common.hxx>
#include <BRepAlgoAPI_Cut.hxx>
#include <BRepAlgoAPI_Fuse.hxx>
#include <BRepBndLib.hxx>
#include <BRepBuilderAPI_MakeFace.hxx>
#include <BRepBuilderAPI_Transform.hxx>
#include <BRepCheck_Analyzer.hxx>
#include <BRepExtrema_DistShapeShape.hxx>
#include <BRepGProp.hxx>
#include <BRepMesh_IncrementalMesh.hxx>
#include <BRepPrimAPI_MakeCylinder.hxx>
#include <BRepPrimAPI_MakeHalfSpace.hxx>
#include <BRep_Tool.hxx>
#include <Bnd_Box.hxx>
#include <GProp_GProps.hxx>
#include <Poly_Triangulation.hxx>
#include <TopExp_Explorer.hxx>
#include <TopoDS.hxx>
#include <gp_Ax3.hxx>
#include <gp_Pln.hxx>
#include <gp_Trsf.hxx>
#include <gp_Vec.hxx>

namespace gorvet::shape {
namespace {

GProp_GProps volumeProperties(const TopoDS_Shape& shape) {
    GProp_GProps properties;
    BRepGProp::VolumeProperties(shape, properties);
    return properties;
}

gp_Dir directionOf(const Vec3& v) { return {v.x_mm, v.y_mm, v.z_mm}; }

bool empty(const TopoDS_Shape& shape) { return !TopExp_Explorer(shape, TopAbs_SOLID).More(); }

/// The result of a boolean operation, or why there is none.
template <class Operation> Result<Solid> checked(const char* what, Operation& operation) {
    if (!operation.IsDone() || operation.HasErrors())
        return Error{Error::Code::Degenerate, what, fmt::format("The {} could not be computed.", what),
                     "Move the parts a little, so that faces do not just graze each other.", -1};
    const TopoDS_Shape& shape = operation.Shape();
    if (shape.IsNull() || empty(shape))
        return Error{Error::Code::Degenerate, what, fmt::format("Nothing is left after the {}.", what), "Check its place.", -1};
    return solidOf(shape);
}

/// A tool's length that reaches through everything at hand.
double reach(const TopoDS_Shape& shape) {
    Bnd_Box box;
    BRepBndLib::Add(shape, box);
    return 4 * std::sqrt(box.SquareExtent()) + 10;
}

} // namespace

Solid placed(const Solid& s, const Frame& f) {
    gp_Vec x(f.x.x_mm, f.x.y_mm, f.x.z_mm);
    gp_Vec z = x.Crossed(gp_Vec(f.y.x_mm, f.y.y_mm, f.y.z_mm));
    gp_Trsf to;
    to.SetTransformation(gp_Ax3(pointOf(f.origin), gp_Dir(z), gp_Dir(x)), gp_Ax3());
    return solidOf(BRepBuilderAPI_Transform(shapeOf(s), to, true).Shape());
}

Result<Solid> sawn(const Solid& s, const Vec3& point, const Vec3& normal) {
    if (std::hypot(normal.x_mm, normal.y_mm, normal.z_mm) < 1e-12) return impossible("saw cut", "its plane has no direction");
    return modelled<Solid>("saw cut", [&]() -> Result<Solid> {
        const gp_Dir n = directionOf(normal);
        const gp_Pnt p = pointOf(point);
        const gp_Pnt beyond = p.Translated(gp_Vec(n) * 10.0);
        const TopoDS_Face plane = BRepBuilderAPI_MakeFace(gp_Pln(p, n), -1e5, 1e5, -1e5, 1e5).Face();
        BRepAlgoAPI_Cut operation(shapeOf(s), BRepPrimAPI_MakeHalfSpace(plane, beyond).Solid());
        return checked("saw cut", operation);
    });
}

Result<Solid> coped(const Solid& branch, double main_outside_radius_mm, const Vec3& point, const Vec3& axis) {
    if (!(main_outside_radius_mm > 0)) return impossible("cope", "the main tube's radius must be above 0");
    return modelled<Solid>("cope", [&]() -> Result<Solid> {
        const double length = reach(shapeOf(branch)) + 2 * main_outside_radius_mm;
        const gp_Dir along = directionOf(axis);
        const gp_Pnt start = pointOf(point).Translated(gp_Vec(along) * (-length / 2));
        BRepAlgoAPI_Cut operation(shapeOf(branch),
                                  BRepPrimAPI_MakeCylinder(gp_Ax2(start, along), main_outside_radius_mm, length).Shape());
        return checked("cope", operation);
    });
}

Result<Solid> unite(const std::vector<Solid>& solids) {
    if (solids.empty()) return impossible("union", "there is nothing to unite");
    return modelled<Solid>("union", [&]() -> Result<Solid> {
        TopoDS_Shape whole = shapeOf(solids.front());
        for (size_t i = 1; i < solids.size(); ++i) {
            BRepAlgoAPI_Fuse operation(whole, shapeOf(solids[i]));
            auto joined = checked("union", operation);
            if (!joined) return joined.error();
            whole = shapeOf(*joined);
        }
        return solidOf(whole);
    });
}

Result<Solid> cut(const Solid& from, const Solid& tool) {
    return modelled<Solid>("cut", [&]() -> Result<Solid> {
        BRepAlgoAPI_Cut operation(shapeOf(from), shapeOf(tool));
        return checked("cut", operation);
    });
}

Result<double> sharedVolume(const Solid& a, const Solid& b) {
    return modelled<double>("common part", [&]() -> Result<double> {
        BRepAlgoAPI_Common operation(shapeOf(a), shapeOf(b));
        if (!operation.IsDone() || operation.HasErrors())
            return Error{Error::Code::Degenerate, "common part", "The common part could not be computed.", "", -1};
        return empty(operation.Shape()) ? 0.0 : volumeProperties(operation.Shape()).Mass();
    });
}

Result<double> leastDistance(const Solid& a, const Solid& b) {
    return modelled<double>("distance", [&]() -> Result<double> {
        const BRepExtrema_DistShapeShape distance(shapeOf(a), shapeOf(b));
        if (!distance.IsDone()) return Error{Error::Code::Degenerate, "distance", "The distance could not be computed.", "", -1};
        if (distance.InnerSolution()) return 0.0;
        return distance.Value();
    });
}

double volume(const Solid& s) { return volumeProperties(shapeOf(s)).Mass(); }

Vec3 centreOfMass(const Solid& s) {
    const gp_Pnt c = volumeProperties(shapeOf(s)).CentreOfMass();
    return {c.X(), c.Y(), c.Z()};
}

double surfaceArea(const Solid& s) {
    GProp_GProps properties;
    BRepGProp::SurfaceProperties(shapeOf(s), properties);
    return properties.Mass();
}

geometry::Box3 bounds(const Solid& s) {
    Bnd_Box box;
    BRepBndLib::AddOptimal(shapeOf(s), box, false, false);
    geometry::Box3 b;
    box.Get(b.min.x_mm, b.min.y_mm, b.min.z_mm, b.max.x_mm, b.max.y_mm, b.max.z_mm);
    return b;
}

bool isSound(const Solid& s) { return BRepCheck_Analyzer(shapeOf(s)).IsValid() && volume(s) > 0; }

Mesh mesh(const Solid& s, double chord_mm) {
    Mesh m;
    const TopoDS_Shape& shape = shapeOf(s);
    const BRepMesh_IncrementalMesh meshed(shape, chord_mm, false, 0.35, false); // leaves its triangles in the shape
    for (TopExp_Explorer faces(shape, TopAbs_FACE); faces.More(); faces.Next()) {
        const TopoDS_Face& face = TopoDS::Face(faces.Current());
        TopLoc_Location place;
        const auto triangles = BRep_Tool::Triangulation(face, place);
        if (triangles.IsNull()) continue;
        const auto first = static_cast<std::uint32_t>(m.points.size());
        for (int i = 1; i <= triangles->NbNodes(); ++i) {
            const gp_Pnt p = triangles->Node(i).Transformed(place.Transformation());
            m.points.push_back({p.X(), p.Y(), p.Z()});
        }
        for (int i = 1; i <= triangles->NbTriangles(); ++i) {
            int a = 0;
            int b = 0;
            int c = 0;
            triangles->Triangle(i).Get(a, b, c);
            if (face.Orientation() == TopAbs_REVERSED) std::swap(b, c);
            m.triangles.push_back({first + static_cast<std::uint32_t>(a - 1), first + static_cast<std::uint32_t>(b - 1),
                                   first + static_cast<std::uint32_t>(c - 1)});
        }
    }
    return m;
}

} // namespace gorvet::shape
