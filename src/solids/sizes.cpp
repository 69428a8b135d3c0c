// Solids from sizes: tubes, bends, plates.
#include "solids/content.hpp"

#include <cmath>

#include <BRepAlgoAPI_Fuse.hxx>
#include <BRepBuilderAPI_MakeEdge.hxx>
#include <BRepBuilderAPI_MakeFace.hxx>
#include <BRepBuilderAPI_MakePolygon.hxx>
#include <BRepBuilderAPI_MakeWire.hxx>
#include <BRepBuilderAPI_Transform.hxx>
#include <BRepOffsetAPI_MakePipe.hxx>
#include <BRepPrimAPI_MakeCylinder.hxx>
#include <BRepPrimAPI_MakePrism.hxx>
#include <BRepPrimAPI_MakeRevol.hxx>
#include <ShapeUpgrade_UnifySameDomain.hxx>
#include <TopoDS.hxx>
#include <TopoDS_Face.hxx>
#include <TopoDS_Wire.hxx>
#include <gp_Ax2.hxx>
#include <gp_Circ.hxx>
#include <gp_Trsf.hxx>
#include <gp_Vec.hxx>

namespace gorvet::shape {
namespace {

constexpr double pi = 3.14159265358979323846;

/// A rounded rectangle in the plane x = 0, centred, counter-clockwise seen from +X.
TopoDS_Wire roundedRectangle(double width, double height, double radius) {
    const double w = width / 2;
    const double h = height / 2;
    BRepBuilderAPI_MakeWire wire;
    const auto line = [&wire](double y0, double z0, double y1, double z1) {
        if (std::hypot(y1 - y0, z1 - z0) > 1e-9) wire.Add(BRepBuilderAPI_MakeEdge(gp_Pnt(0, y0, z0), gp_Pnt(0, y1, z1)).Edge());
    };
    const auto corner = [&wire, radius](double y, double z, double from) {
        if (radius <= 0) return;
        // local axes of the circle: Y of the section first, so that angles count from +Y towards +Z
        const gp_Circ circle(gp_Ax2(gp_Pnt(0, y, z), gp_Dir(1, 0, 0), gp_Dir(0, 1, 0)), radius);
        wire.Add(BRepBuilderAPI_MakeEdge(circle, from, from + pi / 2).Edge());
    };
    const double r = radius;
    line(-w + r, -h, w - r, -h);
    corner(w - r, -h + r, -pi / 2);
    line(w, -h + r, w, h - r);
    corner(w - r, h - r, 0);
    line(w - r, h, -w + r, h);
    corner(-w + r, h - r, pi / 2);
    line(-w, h - r, -w, -h + r);
    corner(-w + r, -h + r, pi);
    return wire.Wire();
}

TopoDS_Wire circleWire(double radius) {
    const gp_Circ circle(gp_Ax2(gp_Pnt(0, 0, 0), gp_Dir(1, 0, 0), gp_Dir(0, 1, 0)), radius);
    return BRepBuilderAPI_MakeWire(BRepBuilderAPI_MakeEdge(circle).Edge()).Wire();
}

TopoDS_Face faceOf(const Section& s) {
    TopoDS_Wire outside;
    TopoDS_Wire inside;
    if (s.kind == Section::Kind::Round) {
        outside = circleWire(s.width_mm / 2);
        inside = circleWire(s.width_mm / 2 - s.wall_mm);
    } else {
        outside = roundedRectangle(s.width_mm, s.height_mm, s.corner_mm);
        inside =
            roundedRectangle(s.width_mm - 2 * s.wall_mm, s.height_mm - 2 * s.wall_mm, std::max(0.0, s.corner_mm - s.wall_mm));
    }
    inside.Reverse();
    BRepBuilderAPI_MakeFace face(outside, true);
    face.Add(inside);
    return face.Face();
}

/// Empty when the section can be made; else why not.
std::string wrong(const Section& s) {
    const double smaller = s.kind == Section::Kind::Round ? s.width_mm : std::min(s.width_mm, s.height_mm);
    if (!(smaller > 0 && std::isfinite(s.width_mm) && std::isfinite(s.height_mm))) return "its outside must be above 0";
    if (!(s.wall_mm > 0 && 2 * s.wall_mm < smaller)) return "its wall must be above 0 and below half its outside";
    if (s.corner_mm < 0 || 2 * s.corner_mm >= smaller) return "its corners must be below half its outside";
    return {};
}

double depth(const Section& s) { return s.kind == Section::Kind::Round ? s.width_mm : s.height_mm; }

} // namespace

Result<Solid> tube(const Section& s, double length_mm) {
    if (const std::string why = wrong(s); !why.empty()) return impossible("tube", why);
    if (!(length_mm > 0 && std::isfinite(length_mm))) return impossible("tube", "its length must be above 0");
    return modelled<Solid>("tube", [&] { return solidOf(BRepPrimAPI_MakePrism(faceOf(s), gp_Vec(length_mm, 0, 0)).Shape()); });
}

Result<Solid> bentTube(const Section& s, double before_mm, double radius_mm, double angle_rad, double after_mm) {
    if (const std::string why = wrong(s); !why.empty()) return impossible("bent tube", why);
    if (!(before_mm >= 0 && after_mm >= 0)) return impossible("bent tube", "its straight ends must not be below 0");
    if (!(angle_rad > 0 && angle_rad <= pi)) return impossible("bent tube", "the bend must be above 0 and at most 180°");
    if (!(radius_mm > depth(s) / 2)) return impossible("bent tube", "the bend's radius must be above half the tube's depth");
    return modelled<Solid>("bent tube", [&] {
        // straight, turned, straight: three exact bodies joined, instead of one swept approximation
        gp_Trsf shift;
        shift.SetTranslation(gp_Vec(before_mm, 0, 0));
        const TopoDS_Face at_bend = TopoDS::Face(BRepBuilderAPI_Transform(faceOf(s), shift, true).Shape());
        const gp_Ax1 axis(gp_Pnt(before_mm, 0, radius_mm), gp_Dir(0, -1, 0));
        TopoDS_Shape whole = BRepPrimAPI_MakeRevol(at_bend, axis, angle_rad).Shape();
        const auto join = [&whole](const TopoDS_Shape& part) { whole = BRepAlgoAPI_Fuse(whole, part).Shape(); };
        if (before_mm > 0) join(BRepPrimAPI_MakePrism(faceOf(s), gp_Vec(before_mm, 0, 0)).Shape());
        if (after_mm > 0) {
            gp_Trsf turn;
            turn.SetRotation(axis, angle_rad);
            const TopoDS_Face end = TopoDS::Face(BRepBuilderAPI_Transform(at_bend, turn, true).Shape());
            join(BRepPrimAPI_MakePrism(end, gp_Vec(after_mm * std::cos(angle_rad), 0, after_mm * std::sin(angle_rad))).Shape());
        }
        return solidOf(whole);
    });
}

Result<Solid> prism(const std::vector<std::pair<double, double>>& outline, double thickness_mm) {
    if (outline.size() < 3 || !(thickness_mm > 0)) return impossible("plate", "it needs three corners and a thickness");
    return modelled<Solid>("plate", [&] {
        BRepBuilderAPI_MakePolygon polygon;
        for (const auto& [x, y] : outline) polygon.Add(gp_Pnt(x, y, 0));
        polygon.Close();
        return solidOf(
            BRepPrimAPI_MakePrism(BRepBuilderAPI_MakeFace(polygon.Wire(), true).Face(), gp_Vec(0, 0, thickness_mm)).Shape());
    });
}

Result<Solid> plate(double width_mm, double height_mm, double thickness_mm, const std::vector<RoundHole>& holes) {
    if (!(width_mm > 0 && height_mm > 0 && thickness_mm > 0)) return impossible("plate", "its sides must be above 0");
    for (const RoundHole& h : holes) {
        const double r = h.diameter_mm / 2;
        if (!(r > 0) || h.x_mm - r <= 0 || h.x_mm + r >= width_mm || h.y_mm - r <= 0 || h.y_mm + r >= height_mm)
            return impossible("plate", "a hole does not lie inside it");
    }
    return modelled<Solid>("plate", [&] {
        BRepBuilderAPI_MakePolygon polygon(gp_Pnt(0, 0, 0), gp_Pnt(width_mm, 0, 0), gp_Pnt(width_mm, height_mm, 0),
                                           gp_Pnt(0, height_mm, 0), true);
        BRepBuilderAPI_MakeFace face(polygon.Wire(), true);
        for (const RoundHole& h : holes) {
            const gp_Circ circle(gp_Ax2(gp_Pnt(h.x_mm, h.y_mm, 0), gp_Dir(0, 0, 1)), h.diameter_mm / 2);
            TopoDS_Wire wire = BRepBuilderAPI_MakeWire(BRepBuilderAPI_MakeEdge(circle).Edge()).Wire();
            wire.Reverse();
            face.Add(wire);
        }
        return solidOf(BRepPrimAPI_MakePrism(face.Face(), gp_Vec(0, 0, thickness_mm)).Shape());
    });
}

Result<Solid> cylinder(double radius_mm, double length_mm) {
    if (!(radius_mm > 0 && length_mm > 0)) return impossible("round bar", "radius and length must be above 0");
    return modelled<Solid>("round bar", [&] {
        return solidOf(BRepPrimAPI_MakeCylinder(gp_Ax2(gp_Pnt(0, 0, 0), gp_Dir(1, 0, 0)), radius_mm, length_mm).Shape());
    });
}

} // namespace gorvet::shape
