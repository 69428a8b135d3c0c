#pragma once

#include "shape/solid_kernel.hpp"

#include <Standard_Failure.hxx>
#include <TopoDS_Shape.hxx>
#include <gp_Dir.hxx>
#include <gp_Pnt.hxx>

/// OpenCASCADE behind the solids. Internal to this room, whose functions are those of solid.hpp: a library of its own, which
/// shows nothing but its table.
namespace gorvet::shape {

struct Solid::Content {
    TopoDS_Shape shape;
};

inline Solid solidOf(TopoDS_Shape shape) { return Solid(std::make_shared<Solid::Content>(Solid::Content{std::move(shape)})); }
inline const TopoDS_Shape& shapeOf(const Solid& s) { return s.content().shape; }
inline gp_Pnt pointOf(const Vec3& v) { return {v.x_mm, v.y_mm, v.z_mm}; }

inline Error impossible(const char* what, std::string why) {
    return Error{Error::Code::BadInput, what, std::string("A ") + what + " of these sizes can't be made: " + std::move(why) + ".",
                 "Check its sizes.", -1};
}

/// Runs a modelling step; what OpenCASCADE throws becomes an Error.
template <class T, class F> Result<T> modelled(const char* what, F&& step) {
    try {
        return step();
    } catch (const Standard_Failure& e) {
        return impossible(what, e.GetMessageString());
    }
}

} // namespace gorvet::shape
