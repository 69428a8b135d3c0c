#pragma once

#include "shape/mesh.hpp"

/// The made-up car of the first demo build as meshes: what a scanner would meet if it stood in the workshop. Made from the same
/// hidden truth as demo/petrel_on_tern.py states; nothing in it is a real car. Lengths mm.
namespace gorvet::sim {

/// The Petrel's shell in the body's own frame (station 0 at the front arch): floor with tunnel and hump, bulkhead, sills, sides
/// with arches and door openings, inner arches, roof and tail; bonnet and lid are pieces of their own, a gap apart. Openings are
/// cut along their own curves and their edges turned in. Sheet without thickness: open. `step_mm` > 0: how finely.
shape::Mesh bodyShell(double step_mm);
/// Its doors up to the shoulder, closed.
shape::Mesh bodyDoors(double step_mm);
/// The Tern's frame: two rails with kick-up, four crossmembers, an X-member, outriggers with mount ears. Closed pieces that run
/// into each other. The right rail stands 5.2 mm ahead and the frame is twisted by 1.5 mm, as the demo's truth says.
shape::Mesh ladderFrame(double step_mm);
/// Engine with its manifolds, fan and alternator, and gearbox, on the frame, in the chassis frame: closed pieces.
shape::Mesh engineAndGearbox(double step_mm);
/// The rear axle: tube and housing, in the chassis frame.
shape::Mesh rearAxle(double step_mm);
/// One wheel with its tyre round its own centre, axis along y.
shape::Mesh wheel(double step_mm);

/// Where the body belongs on the chassis.
struct BodyPlace {
    shape::Point3 shift{};
    double pitch_rad = 0;
};
BodyPlace bodyPlace();

} // namespace gorvet::sim
