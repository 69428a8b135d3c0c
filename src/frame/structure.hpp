#pragma once

#include "frame/beams.hpp"

#include <memory>
#include <optional>
#include <string>
#include <vector>

/// A frame as it carries: rails, crossmembers, spine and legs as lines with sections, what hangs on them, and what it is asked to
/// bear. mm, N, N·mm, MPa, kg; x rearward, y to the right, z up.
namespace gorvet::frame {

struct Line;
/// Along a line that runs rearward, up to a station; its ends for what lies beyond them.
double alongTo(const Line&, double station_mm);
/// The place of a line at a length of it.
Vec3 placeAlong(const Line&, double along_mm);
/// A length of a line with one section.
struct Piece {
    double until_mm = 0; ///< along its line, from its beginning
    Profile section;     ///< y to the left and z up as the line is followed; its middle is its centroid
    double yield_mpa = 210;
    bool operator==(const Piece&) const = default;
};
/// A rib in an open section, welded to all its walls: it keeps their edges from warping against each other.
struct Rib {
    double along_mm = 0;
    double holds_nmm3 = 0; ///< bimoment (N·mm²) for a rate of twist (1/mm)
    bool operator==(const Rib&) const = default;
};
/// A flat rib of a thickness between the middle lines of flanges and of web and tips: G b h t³ / 3. A tube upright against the
/// web: G h J. Pi and Trahair, Distortion and warping at beam supports; Ojalvo and Chambers, Effect of warping restraints.
double flatRib_nmm3(double height, double width, double thickness, double g_mpa);
double uprightRib_nmm3(double height, double torsion_mm4, double g_mpa);
/// Something of the frame with a middle line, front to rear or left to right.
struct Line {
    std::string name;
    std::vector<Vec3> points;  ///< of its centroid, two at the least
    std::vector<Piece> pieces; ///< one after the other; the last reaches its end
    std::vector<Rib> ribs;
    bool rail = false;      ///< it carries others; else its ends are joined to what they meet
    bool outrigger = false; ///< one of its ends may stand free
    bool clad = false;      ///< it lies on another all along, as a pan on its spine
    bool bolted = false;    ///< its ends hand over no twist where joints give
    Vec3 up{0, 0, 1};
    bool operator==(const Line&) const = default;
};

/// Something carried. It hangs on the lines that run along the frame, from its middle's station half of `over` each way.
struct Hung {
    std::string name;
    double mass_kg = 0;
    Vec3 at;
    double over_mm = 0;
    bool operator==(const Hung&) const = default;
};
/// Where a wheel's spring bears: the line that is nearest takes it, or both hangers of a leaf spring by its lever.
struct Seat {
    Vec3 at;
    double ground_mm = 0;                         ///< height of the ground under the wheel
    double rate = 30;                             ///< N/mm
    std::optional<std::pair<Vec3, Vec3>> hangers; ///< front and rear, on the same side; the rear one is a shackle
    bool operator==(const Seat&) const = default;
};
/// Front left, front right, rear left, rear right.
inline constexpr std::size_t wheels = 4;

struct Case {
    std::string name;
    double up_g = 1;
    double braking_g = 0;              ///< > 0: braked
    double cornering_g = 0;            ///< > 0: leaning on the right wheels
    std::optional<std::size_t> lifted; ///< the wheel in the air
    bool lighter_end = false;          ///< a wheel of the end that is lighter is in the air
    bool operator==(const Case&) const = default;
};

struct Structure {
    std::vector<Line> lines;
    Material material;
    std::vector<Hung> hung;
    std::array<Seat, wheels> seats;
    std::vector<Case> cases;
    std::vector<Vec3> mounts;          ///< of the body, left and right of its middle
    std::optional<double> body_nm_deg; ///< the body's own stiffness in twist, between its first and last mounts
    double mount_rate = 600;           ///< N/mm
    double pitch_mm = 150;             ///< no beam is longer
    bool operator==(const Structure&) const = default;
};

/// How stiff it is in twist between its axle lines, one end held level, N·m/deg: with joints that warp and bolts that turn, and
/// with joints as stiff as gussets could make them. The truth lies between.
struct Stiffness {
    double free_nm_deg = 0;
    double held_nm_deg = 0;
};

/// What a line bears at one place.
struct AtPlace {
    double along_mm = 0;
    Vec3 at;
    double stress_mpa = 0; ///< the worst of all cases, von Mises
    double yield_mpa = 0;
    std::size_t worst_case = 0;
    double range_mpa = 0; ///< ± 1 g, along the line: 0 g to 2 g
    bool weld = false;    ///< another line is joined there
    // of the first case: as forces on what lies behind
    double upright_nmm = 0; ///< bends it up and down
    double level_nmm = 0;   ///< sideways
    double twist_nmm = 0;
    double shear_n = 0; ///< upright
    double axial_n = 0;
    /// Of each case, the worse of joints that give and joints that do not: on what lies behind.
    struct InCase {
        double axial_n = 0, aside_n = 0, upright_n = 0, twist_nmm = 0, upright_nmm = 0, level_nmm = 0;
    };
    std::vector<InCase> in_case;
    /// Yield over 1.5 over the stress: under 1 it fails. 0 where nothing bears on it.
    double margin() const { return stress_mpa > 0 ? yield_mpa / 1.5 / stress_mpa : 0; }
};
struct OfLine {
    std::string name;
    std::vector<AtPlace> places;
};
struct OfCase {
    Case asked;
    std::optional<std::size_t> lifted; ///< the wheel that was in the air
    bool tips = false;                 ///< with that wheel in the air it falls onto it: nothing is said of the case
    double stress_mpa = 0;             ///< the worst
    double margin = 0;                 ///< the least
    std::string line;                  ///< where
    Vec3 at;
    double sinks_mm = 0; ///< the most that a place stands under the plane of its seats
    Vec3 sinks_at;
    std::array<double, wheels> carry_n{}; ///< by the seats
    double unbalanced = 0;                ///< what is left over in the frame's own balance, as a share
};
/// A place of the frame as it bends, for drawing.
struct Shape {
    std::size_t line = 0;
    Vec3 from, to;             ///< as it stands
    Vec3 from_moves, to_moves; ///< in the first case
};
struct Outcome {
    Stiffness twist;
    std::optional<Stiffness> with_body;
    double length_mm = 0; ///< between the axle lines
    double mass_kg = 0;   ///< of its steel
    double all_kg = 0;    ///< with what it carries
    double centre_mm = 0; ///< station of the centre of gravity of all
    double centre_up_mm = 0;
    std::optional<double> torsion_hz; ///< the bare frame, free in space
    std::optional<double> bending_hz;
    std::vector<OfCase> cases;
    std::vector<OfLine> lines;
    std::vector<Shape> shape;
    std::vector<std::string> loose; ///< lines whose ends meet nothing: they are not in it
    bool open = false;              ///< some of its sections are open: the two figures of stiffness differ
    std::size_t beams = 0;
};
/// A section with its walls, worked out.
struct Worth {
    Section section;
    Walls walls;
};
/// Sections that were worked out already: who asks for many frames alike hands it on.
class SectionBook {
public:
    /// Fails as `wallsOf` and `sectionOf`.
    Result<std::shared_ptr<const Worth>> of(const Profile&);

private:
    std::vector<std::pair<Profile, std::shared_ptr<const Worth>>> known_;
};
/// Fails with BadInput where a section can't be, Conflict where the frame does not hang together or can't be held by its seats.
Result<Outcome> analyse(const Structure&, SectionBook&);
Result<Outcome> analyse(const Structure&);
/// Its stiffness alone: what a change does, again and again.
Result<Stiffness> twistOf(const Structure&, SectionBook&);
Result<Stiffness> twistOf(const Structure&);

} // namespace gorvet::frame
