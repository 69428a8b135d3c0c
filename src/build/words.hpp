#pragma once

#include "build/figure.hpp"

#include <array>
#include <optional>
#include <string>
#include <string_view>

/// The words of the field as enumerations, each with the one spelling used in files, on the command line and when typed.
namespace gorvet::build {

/// What a thing that is measured is: what the benches make of its points.
enum class SubjectKind {
    Body,
    Chassis,   ///< that the body goes on
    Candidate, ///< another chassis that it might go on
    Component, ///< an engine, axle or gearbox on its own bench
    AsBuilt    ///< the frame after cutting and welding
};
/// What is printed on.
enum class Paper { A4, Letter, A3 };
enum class FrameKind { Ladder, Perimeter, SpinePlatform, BoltedSubframe, Monocoque, SpaceFrame };
enum class Attitude { RightWayUp, Inverted, OnItsSide };
enum class Support { Stands, Trestles, FixtureTable, Wheels, Rotisserie, Floor };
enum class ReadingKind {
    Tape,
    Plan,
    Height,
    Level,
    Offset,
    Station,
    Slope,
    CrossLevel,  ///< lean of a line across the frame, followed from left to right
    RailAngle,   ///< angle in plan of a line to the centreline, followed rearward
    Coordinates, ///< station, offset and height in one, from a scan, arm or fixture
    Symmetry     ///< that two points mirror each other: only ever assumed
};
enum class Axis { X, Y, Z };
/// What a point is, beyond a mark: what the benches look for.
enum class Role {
    None,
    Rail,         ///< on the rail's datum face (see RailSection), on its centreline
    FrontHub,     ///< wheel centre
    RearHub,      ///< wheel centre
    BodyMount,    ///< where the body bolts down
    GearboxMount, ///< underside of the gearbox mounting face
    Crossmember,
    Suspension, ///< spring hanger, link bracket, damper
    Steering,
    HingePillar, ///< hinge-pillar datum of the body
    SillFront,
    SillRear,
    ArchFront, ///< centre of the wheel arch
    ArchRear,
    Outline,    ///< on the silhouette seen from the left
    GearboxPan, ///< on the underside of the gearbox pan: corners and lowest places
    DoorGap,    ///< edge of a door opening
    WindowFrame,
    PinchWeld, ///< on the pinch weld of a sill (rocker)
    Seat,      ///< where a person sits: the cushion, pressed down
    Roof,      ///< inside of the roof, over a seat
    Floor,     ///< inside floor
    Screen     ///< edge of the screen opening
};
enum class PinKind {
    Station,
    Centred,
    Height,
    Level,
    Rake,
    ArchFront,
    ArchRear,
    // from now on between two features of body or chassis; the mean of a feature's points counts
    Along,    ///< how much further back the second feature stands
    Across,   ///< how much further right
    Up,       ///< how much higher
    Straight, ///< the distance between them
    Line,     ///< distance from the line through two points: a steering column, a shaft
    Under,    ///< how far every point lies under the plane through three points or more: an engine under a bonnet
    Tyre,     ///< least gap between the points and the tyre beside them, at rest
    Bump,     ///< the same at full bump
    Clear     ///< least gap between the points and a marked box: booster, pedals, climate unit, loom
};
/// How a pin's figure binds.
enum class Bound { Equal, AtLeast, AtMost };
/// What a pin is worth when not all can be had.
enum class Importance { Must, Want, Like };
/// What leads when body and driveline ask for different places: a school.
enum class Leads { Neither, Driveline, Body };
enum class RailFace { Top, Bottom };
enum class RailShape { Box, Channel };
enum class Grip { Wall, Through };
/// A straight bridge between the rails, or one with its middle dropped on mitred legs.
enum class CrossmemberForm { Straight, Dropped };
/// How a flange is bolted to the rail: bolts right through it, or into nuts held inside it.
enum class Fixing { Through, Captive };
/// What runs along the frame and may cross a cut.
enum class CrossingKind { PropShaft, BrakeLine, FuelLine, ParkBrakeCable, Exhaust, Loom, ShiftRod, CoolingLine };
/// What makes work dangerous as long as it is on the car.
enum class Hazard { FuelTank, Battery, Restraints, Refrigerant };
enum class Presence { Unknown, Present, Absent };
enum class BodyPlace { On, Off };
enum class Wheel { FrontLeft, FrontRight, RearLeft, RearRight };
enum class AxleEnd { Front, Rear };
/// How an axle's springs bear on the frame.
enum class Springs {
    Unsaid,
    Leaf, ///< a hanger ahead of the axle and one behind it, each side
    Other ///< coils, bars, air: at the suspension point that is nearest to the axle
};
/// What several readings were read from, and share the unknown place of: a floor, table or laser plane; a centre string; one
/// tape.
enum class SetUpKind { Plane, String, Tape };
/// What readings are taken with.
enum class InstrumentKind {
    Tape,
    Trammel,
    LaserMeter,
    HeightGauge,
    WaterLevel,
    LaserLevel,
    Rule,         ///< for offsets and stations
    DigitalLevel, ///< for slopes and cross-levels
    SquareGauge,  ///< for angles in plan
    Scanner,      ///< an arm, scan or fixture: coordinates
    Dial,         ///< run-out
    Scales        ///< corner weights
};
/// What a scan shows: sets what it must clear, and by how much.
enum class ScanPart {
    Body,
    Chassis,
    Engine,
    Axle,
    Wheel,
    Exhaust,
    FuelTank,
    PropShaft,
    Other,
    Bonnet,
    Door,
    Radiator,
    SteeringShaft,
    Lines ///< fuel and brake lines
};
/// What one unit of a scan's file is.
enum class ScanUnit { Mm, Cm, M, Inch };
/// What may be done to a zone of the body.
enum class ZoneRule { Named, Brace, Never };
/// What ties the drawing's axes to the thing once it is adjusted: the datum in the workshop's terms.
enum class DatumKind {
    Free,    ///< nothing: the survey is shown about its rough positions
    Height,  ///< one point stands at this height: a pad; three make the plane
    Station, ///< one point, or the middle of two, stands at this station
    Centred, ///< the middle of a pair is on the centreline
    Upright, ///< two points stand one above the other seen from the side
    Level    ///< two points stand equally high
};
/// What was found wrong at a point or part, beyond its place.
enum class FlawKind { Rust, Thin, Crack, Seized, Play, Repair, Layers };

/// What is done at a job: it decides what is dangerous about it, and what must be out, cold or covered before it.
enum class JobKind {
    General,
    TakeApart,
    Fit,
    Measure,
    Clean, ///< droppings, mould, old sealer
    Cut,   ///< with a disc or saw
    Grind, ///< discs, wire wheels
    Weld,  ///< or flame
    Blast, ///< sand, soda, slag
    Lift,  ///< body, engine or car on hoist, jack or slings
    Fuel,
    Electrical,
    Brakes, ///< and steering
    Springs,
    Refrigerant,
    Restraints,
    Glass,
    Seal,
    Paint, ///< primer, paint, cavity wax: what is sprayed
    Test
};
/// What is taken apart.
enum class ReleaseKind { Connector, Line, Hose, Cable, Linkage, Bolt, Trim, Other };
/// What becomes of the part: what is scrapped may be cut off.
enum class Fate { Keep, Renew, Scrap };
enum class Metal { Steel, Galvanised, Aluminium, Stainless, Cast };
/// How a surface is made ready. Skipped: it stays as it is, and why is said.
enum class Preparation { Blast, Strip, Abrade, Skip };
enum class CoatKind { EtchPrimer, EpoxyPrimer, ZincPrimer, SeamSealer, Filler, Surfacer, Base, Clear, StoneGuard, CavityWax };
enum class ByHand { Brush, Spray };
/// What was kept: a picture, or a note that was spoken.
enum class RecordKind { Picture, Voice };
/// When a picture was taken, against the work on what it shows.
enum class Stage { Unsaid, Before, During, After };
/// What steel is bought as: a tube is round, a bar is solid.
enum class StockForm { Box, Channel, Angle, Flat, Plate, Tube, Bar };
/// How a load is lifted or carried: on slings from one hook, by upright straps from beams, or from below.
enum class LiftWay { Slings, Gantry, TwoPost, Forks, Stands, Dolly, People };

/// What a piece of a frame is, beside its rails: `Rail` is a length of a rail with another section, `Plate` closes an open rail,
/// `Rib` is a row of ribs across it.
enum class MemberKind { Crossmember, Spine, Pan, Leg, Outrigger, Rail, Plate, Rib };
/// The shape of a section: see frame/section.hpp.
enum class SectionForm { Box, Channel, Hat, Tube, Angle, Flat, Nested, Boxed, BuiltUp };
enum class RailSide { Both, Left, Right };
enum class Joint { Welded, Riveted, Bolted };
enum class MemberState { There, Planned, ComesOut };
/// A wheel that stands in the air.
enum class Lifted { None, FrontLeft, FrontRight, RearLeft, RearRight };
/// A piece of another frame: what lies ahead of a joint, or behind it.
enum class GraftKind { FrontClip, RearFrame };
/// What sets it.
enum class GraftPinKind { Station, Offset, Height, Centred };
/// A hole that the maker left, or a dent or fold that starts the rail's folding in a crash.
enum class HoleKind { Hole, Initiator };
enum class RailWall { Top, Bottom, Outer, Inner };
/// What is done about it: it stays, it is made anew elsewhere, it is made again where it was, a licensed engineer is asked.
enum class HoleFate { Open, Keep, Move, Restore, Ask };
/// An end of a rail.
enum class RailEnd { Front, Rear };
/// What a shaft is bolted to.
enum class DriveEndKind { Output, Input, Bearing, Pinion, Through };
/// What an end of a shaft moves with.
enum class Carrier { Frame, Front, Rear, SecondRear };
/// A joint of a shaft: one cross, two with centring between them, or one that passes turning on evenly.
enum class JointKind { Cross, DoubleCross, ConstantVelocity };
enum class SlipAt { None, Front, Rear };
/// How engine and pinion are to lie: schools.
enum class DriveLayout { Parallel, Mirrored, Level, Preset };
/// What a level was laid on.
enum class LevelOn { Frame, Unit, Shaft };
/// What is hung by links.
enum class Hung { FrontAxle, RearAxle, FrontLeft, FrontRight, RearLeft, RearRight };
enum class LinkKind { Rod, Wishbone, Hinge, Strut, Leaf, Watts, TieRod };
/// Whether a wheel is there or is wanted.
enum class WheelAs { Fitted, Wanted };
/// What stands beside a wheel is part of: body and frame stay where the wheel moves; what is on the hub, or on an axle from wheel
/// to wheel, moves with it.
enum class RoomOn { Body, Frame, Hub };
/// What a place beside a wheel is taped from: the face it is bolted to, the nearer side of its tyre, the nearer lip of its rim.
enum class RoomFrom { Face, Tyre, Rim };
/// How a dial touches a wheel: on its tread or bead seat, or on its side.
enum class DialWay { Radial, Lateral };
/// Where a band is let into a rim: inside or outside of the wheel's disc.
enum class BandAt { Inside, Outside };
/// What is welded to an axle.
enum class BracketKind { Other, Damper, Stop, Panhard };
/// What is read of an axle's gears: play between the teeth, what turns the pinion alone and with the differential, how the crown
/// wheel runs.
enum class GearCheck { Backlash, PinionPreload, WholePreload, RunOut };
/// What turns the wheels: a rack that slides, or a box whose arm swings a link between the tie rods.
enum class SteerKind { Rack, Box };
/// What carries the weight of an axle's wheels.
enum class SpringForm { Coil, Leaf, Torsion, Air };
enum class BrakeKind { Disc, Drum };
enum class PedalKind { Brake, Clutch };
/// What a tower of a fixture does at its point: carries it, holds it down, goes into its hole, draws it to a stop.
enum class TowerDoes { Rest, Clamp, Pin, Pull };
/// What new steel is joined to.
enum class BaseMetal { Mild, HighStrength, Galvanised, Stainless, Aluminium, Cast, Unknown };
/// Which end of a link has a row of holes.
enum class LinkEnd { Frame, Axle };
/// What is done about something that crosses a cut.
enum class RunAnswer { Open, Nothing, Reclip, Joiner, NewLength, Reroute };

/// The spellings of an enumeration, in its order.
template <class E> struct Words;
template <> struct Words<SubjectKind> {
    static constexpr std::array<std::string_view, 5> text{"body", "chassis", "candidate", "component", "as-built"};
};
template <> struct Words<Paper> { static constexpr std::array<std::string_view, 3> text{"a4", "letter", "a3"}; };
template <> struct Words<FrameKind> {
    static constexpr std::array<std::string_view, 6> text{"ladder",          "perimeter", "spine-platform",
                                                          "bolted-subframe", "monocoque", "space-frame"};
};
template <> struct Words<Attitude> {
    static constexpr std::array<std::string_view, 3> text{"right-way-up", "inverted", "on-its-side"};
};
template <> struct Words<Support> {
    static constexpr std::array<std::string_view, 6> text{"stands", "trestles", "fixture-table", "wheels", "rotisserie", "floor"};
};
template <> struct Words<Provenance> { static constexpr std::array<std::string_view, 3> text{"measured", "derived", "assumed"}; };
template <> struct Words<ReadingKind> {
    static constexpr std::array<std::string_view, 11> text{
        "tape", "plan", "height", "level", "offset", "station", "slope", "cross-level", "rail-angle", "coordinates", "symmetry"};
};
template <> struct Words<Axis> { static constexpr std::array<std::string_view, 3> text{"x", "y", "z"}; };
template <> struct Words<Role> {
    static constexpr std::array<std::string_view, 23> text{
        "none",     "rail",         "front-hub",  "rear-hub",  "body-mount", "gearbox-mount", "crossmember", "suspension",
        "steering", "hinge-pillar", "sill-front", "sill-rear", "arch-front", "arch-rear",     "outline",     "gearbox-pan",
        "door-gap", "window-frame", "pinch-weld", "seat",      "roof",       "floor",         "screen"};
};
template <> struct Words<PinKind> {
    static constexpr std::array<std::string_view, 16> text{"station",   "centred", "height", "level", "rake",     "arch-front",
                                                           "arch-rear", "along",   "across", "up",    "straight", "line",
                                                           "under",     "tyre",    "bump",   "clear"};
};
template <> struct Words<Bound> { static constexpr std::array<std::string_view, 3> text{"equal", "least", "most"}; };
template <> struct Words<Importance> { static constexpr std::array<std::string_view, 3> text{"must", "want", "like"}; };
template <> struct Words<Leads> { static constexpr std::array<std::string_view, 3> text{"neither", "driveline", "body"}; };
template <> struct Words<RailFace> { static constexpr std::array<std::string_view, 2> text{"top", "bottom"}; };
template <> struct Words<RailShape> { static constexpr std::array<std::string_view, 2> text{"box", "channel"}; };
template <> struct Words<Grip> { static constexpr std::array<std::string_view, 2> text{"wall", "through"}; };
template <> struct Words<CrossmemberForm> { static constexpr std::array<std::string_view, 2> text{"straight", "dropped"}; };
template <> struct Words<Fixing> { static constexpr std::array<std::string_view, 2> text{"through", "captive"}; };
template <> struct Words<CrossingKind> {
    static constexpr std::array<std::string_view, 8> text{"prop-shaft", "brake-line", "fuel-line", "park-brake-cable",
                                                          "exhaust",    "loom",       "shift-rod", "cooling-line"};
};
template <> struct Words<Hazard> {
    static constexpr std::array<std::string_view, 4> text{"fuel-tank", "battery", "restraints", "refrigerant"};
};
template <> struct Words<Presence> { static constexpr std::array<std::string_view, 3> text{"unknown", "present", "absent"}; };
template <> struct Words<Wheel> {
    static constexpr std::array<std::string_view, 4> text{"front-left", "front-right", "rear-left", "rear-right"};
};
template <> struct Words<AxleEnd> { static constexpr std::array<std::string_view, 2> text{"front", "rear"}; };
template <> struct Words<SetUpKind> { static constexpr std::array<std::string_view, 3> text{"plane", "string", "tape"}; };
template <> struct Words<InstrumentKind> {
    static constexpr std::array<std::string_view, 12> text{"tape",         "trammel",     "laser-meter", "height-gauge",
                                                           "water-level",  "laser-level", "rule",        "digital-level",
                                                           "square-gauge", "scanner",     "dial",        "scales"};
};
template <> struct Words<DatumKind> {
    static constexpr std::array<std::string_view, 6> text{"free", "height", "station", "centred", "upright", "level"};
};
template <> struct Words<FlawKind> {
    static constexpr std::array<std::string_view, 7> text{"rust", "thin", "crack", "seized", "play", "repair", "layers"};
};
template <> struct Words<ScanPart> {
    static constexpr std::array<std::string_view, 14> text{"body",    "chassis",   "engine",         "axle",  "wheel",
                                                           "exhaust", "fuel-tank", "prop-shaft",     "other", "bonnet",
                                                           "door",    "radiator",  "steering-shaft", "lines"};
};
template <> struct Words<ScanUnit> { static constexpr std::array<std::string_view, 4> text{"mm", "cm", "m", "in"}; };
template <> struct Words<ZoneRule> { static constexpr std::array<std::string_view, 3> text{"named", "brace", "never"}; };
template <> struct Words<JobKind> {
    static constexpr std::array<std::string_view, 20> text{
        "general", "take-apart", "fit",    "measure", "clean",       "cut",        "grind", "weld", "blast", "lift",
        "fuel",    "electrical", "brakes", "springs", "refrigerant", "restraints", "glass", "seal", "paint", "test"};
};
template <> struct Words<ReleaseKind> {
    static constexpr std::array<std::string_view, 8> text{"connector", "line", "hose", "cable",
                                                          "linkage",   "bolt", "trim", "other"};
};
template <> struct Words<Metal> {
    static constexpr std::array<std::string_view, 5> text{"steel", "galvanised", "aluminium", "stainless", "cast"};
};
template <> struct Words<Preparation> {
    static constexpr std::array<std::string_view, 4> text{"blast", "strip", "abrade", "skip"};
};
template <> struct Words<CoatKind> {
    static constexpr std::array<std::string_view, 10> text{"etch-primer", "epoxy-primer", "zinc-primer", "seam-sealer",
                                                           "filler",      "surfacer",     "base",        "clear",
                                                           "stone-guard", "cavity-wax"};
};
template <> struct Words<ByHand> { static constexpr std::array<std::string_view, 2> text{"brush", "spray"}; };
template <> struct Words<LiftWay> {
    static constexpr std::array<std::string_view, 7> text{"slings", "gantry", "two-post", "forks", "stands", "dolly", "people"};
};
template <> struct Words<RecordKind> { static constexpr std::array<std::string_view, 2> text{"picture", "voice"}; };
template <> struct Words<Stage> { static constexpr std::array<std::string_view, 4> text{"unsaid", "before", "during", "after"}; };
template <> struct Words<StockForm> {
    static constexpr std::array<std::string_view, 7> text{"box", "channel", "angle", "flat", "plate", "tube", "bar"};
};
template <> struct Words<MemberKind> {
    static constexpr std::array<std::string_view, 8> text{"crossmember", "spine", "pan",   "leg",
                                                          "outrigger",   "rail",  "plate", "rib"};
};
template <> struct Words<SectionForm> {
    static constexpr std::array<std::string_view, 9> text{"box",  "channel", "hat",   "tube",    "angle",
                                                          "flat", "nested",  "boxed", "built-up"};
};
template <> struct Words<Springs> { static constexpr std::array<std::string_view, 3> text{"unsaid", "leaf", "other"}; };
template <> struct Words<RailSide> { static constexpr std::array<std::string_view, 3> text{"both", "left", "right"}; };
template <> struct Words<Joint> { static constexpr std::array<std::string_view, 3> text{"welded", "riveted", "bolted"}; };
template <> struct Words<MemberState> { static constexpr std::array<std::string_view, 3> text{"there", "planned", "comes-out"}; };
template <> struct Words<Lifted> {
    static constexpr std::array<std::string_view, 5> text{"none", "front-left", "front-right", "rear-left", "rear-right"};
};
template <> struct Words<GraftKind> { static constexpr std::array<std::string_view, 2> text{"front-clip", "rear-frame"}; };
template <> struct Words<GraftPinKind> {
    static constexpr std::array<std::string_view, 4> text{"station", "offset", "height", "centred"};
};
template <> struct Words<HoleKind> { static constexpr std::array<std::string_view, 2> text{"hole", "initiator"}; };
template <> struct Words<RailWall> { static constexpr std::array<std::string_view, 4> text{"top", "bottom", "outer", "inner"}; };
template <> struct Words<HoleFate> {
    static constexpr std::array<std::string_view, 5> text{"open", "keep", "move", "restore", "ask"};
};
template <> struct Words<DriveEndKind> {
    static constexpr std::array<std::string_view, 5> text{"output", "input", "bearing", "pinion", "through"};
};
template <> struct Words<Carrier> {
    static constexpr std::array<std::string_view, 4> text{"frame", "front-axle", "rear-axle", "second-rear-axle"};
};
template <> struct Words<JointKind> {
    static constexpr std::array<std::string_view, 3> text{"cross", "double-cross", "constant-velocity"};
};
template <> struct Words<SlipAt> { static constexpr std::array<std::string_view, 3> text{"none", "front", "rear"}; };
template <> struct Words<DriveLayout> {
    static constexpr std::array<std::string_view, 4> text{"parallel", "mirrored", "level", "preset"};
};
template <> struct Words<LevelOn> { static constexpr std::array<std::string_view, 3> text{"frame", "unit", "shaft"}; };
template <> struct Words<Hung> {
    static constexpr std::array<std::string_view, 6> text{"front-axle",  "rear-axle", "front-left",
                                                          "front-right", "rear-left", "rear-right"};
};
template <> struct Words<LinkKind> {
    static constexpr std::array<std::string_view, 7> text{"rod", "wishbone", "hinge", "strut", "leaf", "watts", "tie-rod"};
};
template <> struct Words<RailEnd> { static constexpr std::array<std::string_view, 2> text{"front", "rear"}; };
template <> struct Words<WheelAs> { static constexpr std::array<std::string_view, 2> text{"fitted", "wanted"}; };
template <> struct Words<RoomOn> { static constexpr std::array<std::string_view, 3> text{"body", "frame", "hub"}; };
template <> struct Words<RoomFrom> { static constexpr std::array<std::string_view, 3> text{"face", "tyre", "rim"}; };
template <> struct Words<DialWay> { static constexpr std::array<std::string_view, 2> text{"radial", "lateral"}; };
template <> struct Words<BandAt> { static constexpr std::array<std::string_view, 2> text{"inside", "outside"}; };
template <> struct Words<BracketKind> {
    static constexpr std::array<std::string_view, 4> text{"other", "damper", "stop", "panhard"};
};
template <> struct Words<GearCheck> {
    static constexpr std::array<std::string_view, 4> text{"backlash", "pinion-preload", "whole-preload", "run-out"};
};
template <> struct Words<SteerKind> { static constexpr std::array<std::string_view, 2> text{"rack", "box"}; };
template <> struct Words<SpringForm> { static constexpr std::array<std::string_view, 4> text{"coil", "leaf", "torsion", "air"}; };
template <> struct Words<BrakeKind> { static constexpr std::array<std::string_view, 2> text{"disc", "drum"}; };
template <> struct Words<PedalKind> { static constexpr std::array<std::string_view, 2> text{"brake", "clutch"}; };
template <> struct Words<TowerDoes> { static constexpr std::array<std::string_view, 4> text{"rest", "clamp", "pin", "pull"}; };
template <> struct Words<BaseMetal> {
    static constexpr std::array<std::string_view, 7> text{"mild",      "high-strength", "galvanised", "stainless",
                                                          "aluminium", "cast",          "unknown"};
};
template <> struct Words<LinkEnd> { static constexpr std::array<std::string_view, 2> text{"frame", "axle"}; };
template <> struct Words<RunAnswer> {
    static constexpr std::array<std::string_view, 6> text{"open", "nothing", "re-clip", "joiner", "new-length", "re-route"};
};
template <> struct Words<Fate> { static constexpr std::array<std::string_view, 3> text{"keep", "renew", "scrap"}; };
template <> struct Words<BodyPlace> { static constexpr std::array<std::string_view, 2> text{"body-on", "body-off"}; };

template <class E> constexpr std::string_view word(E value) { return Words<E>::text[static_cast<size_t>(value)]; }

template <class E> constexpr std::optional<E> fromWord(std::string_view text) {
    for (size_t i = 0; i < Words<E>::text.size(); ++i)
        if (Words<E>::text[i] == text) return static_cast<E>(i);
    return std::nullopt;
}

/// All spellings in one sentence: "a, b or c".
template <class E> std::string wordList() {
    std::string list;
    for (size_t i = 0; i < Words<E>::text.size(); ++i) {
        if (i > 0) list += i + 1 == Words<E>::text.size() ? " or " : ", ";
        list += Words<E>::text[i];
    }
    return list;
}

} // namespace gorvet::build
