#pragma once

#include "build/ids.hpp"
#include "build/words.hpp"
#include "units/quantity.hpp"

#include <map>
#include <optional>
#include <string>
#include <vector>

/// The document: what was measured and what was decided, as plain values. Lengths mm, angles rad, masses kg.
namespace gorvet::build {

/// X station, rearward · Y offset, to the right · Z height, up.
struct Vec3 {
    double x_mm = 0;
    double y_mm = 0;
    double z_mm = 0;
    bool operator==(const Vec3&) const = default;
};

/// A figure with its origin. `value` is mm or rad as the owner's field says; `typed` is what the person read or decided.
struct Dimension {
    double value = 0;
    std::string typed;
    Provenance provenance = Provenance::Assumed;
    bool operator==(const Dimension&) const = default;
};

struct Settings {
    std::string name = "New build";
    FrameKind frame_kind = FrameKind::Ladder;
    units::LengthStep length_step = units::LengthStep::Mm01;
    double frame_tolerance_mm = 3.0;
    std::string want = "figures"; ///< what the next readings are to tell: tape::wanted_keys, or "point NAME"
    bool gauge = true;            ///< there is a height gauge or level to take heights with
    double tape_reach_mm = 8000;  ///< the longest distance that can be taped in one
    std::string scan_picture;     ///< content hash of a picture of the scans for the build sheet; empty: none
    std::string body_name = "body";
    std::string chassis_name = "chassis";
    bool operator==(const Settings&) const = default;
};

/// Readings taken in one go: how the thing stood and on what. Unlike supports are not compared without saying so.
struct Session {
    SessionId id;
    Subject subject = Subject::Chassis;
    std::string name;
    Attitude attitude = Attitude::RightWayUp;
    Support support = Support::Stands;
    std::string support_at; ///< where the supports stand, as typed
    double carried_mass_kg = 0;
    std::string note;
    bool operator==(const Session&) const = default;
};

/// What readings are read from and share: its place is solved for wherever the readings tell it from the frame's own shape.
struct SetUp {
    SetUpId id;
    Subject subject = Subject::Chassis;
    std::string name; ///< unique within the subject; one word
    SetUpKind kind = SetUpKind::Plane;
    std::optional<double> sigma_mm; ///< how well it reads, 1σ; none: the default of the kind of reading
    std::string note;               ///< when and how it was last checked
    bool operator==(const SetUp&) const = default;
};

/// What readings are taken with: how well it reads, and when that was last checked.
struct Instrument {
    InstrumentId id;
    std::string name; ///< unique; one word
    InstrumentKind kind = InstrumentKind::Tape;
    std::optional<double> sigma; ///< 1σ: mm, or rad for an angle; none: the default of the kind
    double sigma_per_m = 0;      ///< and so much more for each metre of a distance, mm
    std::string checked;         ///< against what it was checked, and when
    bool operator==(const Instrument&) const = default;
};

/// Something in the way of a tape: a box along the axes. An engine, a tank, a floor.
struct Obstacle {
    ObstacleId id;
    Subject subject = Subject::Chassis;
    std::string name; ///< unique within the subject; one word
    Vec3 from;        ///< least station, offset, height
    Vec3 to;          ///< greatest
    bool operator==(const Obstacle&) const = default;
};

/// One rule of a datum. Rules come into force once there is one: the survey is then adjusted freely and laid on them.
struct DatumRule {
    DatumRuleId id;
    Subject subject = Subject::Chassis;
    DatumKind kind = DatumKind::Free;
    std::vector<PointId> points; ///< none for free; one for height; one or two for station; two for the others
    Dimension value;             ///< mm; of height and station
    bool operator==(const DatumRule&) const = default;
};

/// Where a drawing, or another car, has a point. Never a reading.
struct DrawingFigure {
    DrawingFigureId id;
    PointId point; ///< unique
    std::optional<double> x_mm;
    std::optional<double> y_mm;
    std::optional<double> z_mm;
    std::string source; ///< "works drawing", "the other car"
    bool operator==(const DrawingFigure&) const = default;
};

/// What was found at a point or part: rust, a crack, play, a seized fastener.
struct Flaw {
    FlawId id;
    Subject subject = Subject::Chassis;
    PointId point;    ///< none: at `part`
    std::string part; ///< where it is, when it is at no marked point
    FlawKind kind = FlawKind::Rust;
    std::optional<Dimension> amount;  ///< mm: length of a crack, least thickness, play
    std::optional<Dimension> nominal; ///< mm: thickness when new; none: the rail's
    double layers = 0;                ///< sheets that lie on each other; 0: not said
    std::string direction;            ///< "up and down", "between the bolts"
    std::string note;
    std::string photo; ///< content hash of a blob in the file; empty: none
    std::string who;
    std::string at_utc;
    bool operator==(const Flaw&) const = default;
};

/// What work costs: the user's own rates. Hours and prices are assumptions until changed.
struct Rates {
    std::string money = "money";       ///< name of the currency
    std::optional<double> hour;        ///< of an hour's work
    std::optional<double> other_frame; ///< another frame, bought and brought
    double other_frame_hours = 40;     ///< to swap everything over
    double patch_hours = 4;            ///< cut out and patch one place
    double crack_hours = 3;            ///< stop-drill, grind out, weld, plate
    double redo_hours = 6;             ///< take out an earlier repair and make it good
    double seized_hours = 1.5;         ///< free one fastener
    double play_hours = 3;             ///< renew one bush or bearing
    double section_hours = 14;         ///< let in one length of rail
    double patch_material = 0;
    double section_material = 0;
    bool operator==(const Rates&) const = default;
};

/// A practice frame: its hidden truth follows from seed and difficulty.
struct Practice {
    bool on = false;
    double seed = 1;       ///< a whole number, 0…2³¹
    double difficulty = 1; ///< 1, 2, 3
    bool marked = false;   ///< the answers were handed in: the truth may be seen
    bool operator==(const Practice&) const = default;
};
/// What the person says is wrong with the practice frame.
struct Answer {
    AnswerId id;
    std::string about;              ///< key of a figure, or "reading"; unique but for readings
    std::optional<Dimension> value; ///< mm; none: "straight"
    PointId from;                   ///< of a reading said to be wrong
    PointId to;
    bool operator==(const Answer&) const = default;
};

/// A mesh or cloud kept in the build's file.
struct Scan {
    ScanId id;
    Subject subject = Subject::Body; ///< on whose axes it stands
    ScanPart part = ScanPart::Body;
    std::string name; ///< unique; one word
    std::string blob; ///< content hash of its file, as it was read
    std::string file; ///< the name that file had, whose ending says what it is
    ScanUnit unit = ScanUnit::Mm;
    Vec3 shift; ///< onto the subject's axes: turned first, then shifted
    double yaw_rad = 0;
    double pitch_rad = 0;
    double roll_rad = 0;
    std::string note; ///< how it was laid, and how well
    bool operator==(const Scan&) const = default;
};

/// A box of the body along its own axes, and what may be done there.
struct Zone {
    ZoneId id;
    std::string name; ///< unique; one word
    ZoneRule rule = ZoneRule::Named;
    Vec3 from; ///< least station, offset, height
    Vec3 to;
    bool operator==(const Zone&) const = default;
};

/// What the body must clear its chassis by, and how it is cut where it does not.
struct ClearanceRules {
    Dimension least{10.0, "", Provenance::Assumed};
    Dimension finish{0.0, "", Provenance::Assumed};  ///< deadener, carpet, heat shield, seals: taken off first
    Dimension margin{10.0, "", Provenance::Assumed}; ///< cut so far beyond what is too near
    Dimension flange{0.0, "", Provenance::Assumed};  ///< left standing for re-joining; at most the margin
    Dimension sheet{0.9, "", Provenance::Assumed};   ///< thickness of the body's sheet
    bool operator==(const ClearanceRules&) const = default;
};

/// The least clearance of two parts, where it differs from the usual one.
struct PairRule {
    PairRuleId id;
    ScanPart one = ScanPart::Body;
    ScanPart other = ScanPart::Chassis; ///< the pair is unique, either way round
    Dimension least{10.0, "", Provenance::Assumed};
    Dimension finish{0.0, "", Provenance::Assumed}; ///< between the two: taken off first
    bool operator==(const PairRule&) const = default;
};

/// A scanned part that swings about an axis: a bonnet, a door, an engine in its mounts.
struct Swing {
    SwingId id;
    ScanId scan; ///< unique
    Vec3 from;   ///< two places on the axis, along the axes of the scan's subject
    Vec3 to;
    Dimension angle; ///< rad, right-handed from `from` to `to`
    Dimension back;  ///< and so far the other way, rad
    bool operator==(const Swing&) const = default;
};

/// How far the wheels move, and how big their tyres are. Typical figures until read.
struct WheelTravel {
    Dimension front_bump{70.0, "", Provenance::Assumed};
    Dimension front_droop{80.0, "", Provenance::Assumed};
    Dimension rear_bump{80.0, "", Provenance::Assumed};
    Dimension rear_droop{90.0, "", Provenance::Assumed};
    Dimension lock{0.6108652381980153, "", Provenance::Assumed};  ///< rad, of the front wheels each way
    Dimension rock{0.05235987755982988, "", Provenance::Assumed}; ///< rad, of the engine in its mounts each way
    Dimension width{195.0, "", Provenance::Assumed};              ///< of a tyre
    std::optional<Dimension> front_radius;                        ///< of the free tyre; none: the height of the wheel centre
    std::optional<Dimension> rear_radius;
    bool operator==(const WheelTravel&) const = default;
};

/// Where good builders disagree: what this build holds with.
struct School {
    Leads leads = Leads::Neither;
    bool operator==(const School&) const = default;
};

/// How the body is let down over the chassis without its floor fouling. Each may be 0.
struct Lowering {
    Dimension channel{0.0, "", Provenance::Assumed};     ///< boxes let into the floor over the rails, so high
    Dimension raise{0.0, "", Provenance::Assumed};       ///< the whole floor set up by so much
    Dimension kick{0.0, "", Provenance::Assumed};        ///< the rails let down between two kick-ups, by so much
    Dimension kick_from{900.0, "", Provenance::Assumed}; ///< stations
    Dimension kick_to{2000.0, "", Provenance::Assumed};
    std::string floor; ///< zone that is the floor; empty: all sheet over the rails
    bool operator==(const Lowering&) const = default;
};

/// A cut of the body that was kept from the cut map, drawn over by hand if need be. Places along the body's own axes.
struct PlannedCut {
    PlannedCutId id;
    std::string name;       ///< unique; one word
    std::vector<Vec3> line; ///< corners of the finished edge, in order
    bool closed = true;
    double area_mm2 = 0; ///< of the sheet taken out, when it was made
    double mass_kg = 0;
    std::string crosses; ///< names of zones, with commas
    std::string brace;   ///< of them, those braced first
    std::string made_at; ///< where the body sat when it was made
    bool by_hand = false;
    std::vector<Vec3> as_cut; ///< measured along the edge after cutting
    bool operator==(const PlannedCut&) const = default;
};

struct Point {
    PointId id;
    Subject subject = Subject::Chassis;
    std::string name; ///< unique within the subject; one word
    std::optional<Vec3> rough;
    Role role = Role::None;
    std::string note;
    bool operator==(const Point&) const = default;
};

struct Reading {
    ReadingId id;
    SessionId session;
    ReadingKind kind = ReadingKind::Tape;
    PointId from;
    PointId to;                  ///< none for height; optional for offset and station (then a difference)
    Dimension value;             ///< mm; rad for an angle; an assumed one only places what nothing else fixes
    std::optional<double> sigma; ///< mm; rad for an angle; none: the default of instrument or kind
    std::string note;
    SetUpId setup;                      ///< what it was read from; none: from the datum
    InstrumentId instrument;            ///< what it was read with; none: not said
    std::optional<Vec3> at;             ///< coordinates
    std::vector<double> covariance_mm2; ///< of coordinates: xx, xy, xz, yy, yz, zz; empty: `sigma` each way
    ReadingId replaced_by;              ///< set when it was re-taped: kept for the log, not used
    bool operator==(const Reading&) const = default;
};

/// A coordinate held exactly: part of the datum.
struct Hold {
    HoldId id;
    PointId point;
    Axis axis = Axis::X;
    Dimension value;
    bool operator==(const Hold&) const = default;
};

struct RailSection {
    Dimension height;
    Dimension width;
    Dimension thickness;
    RailShape shape = RailShape::Box;
    RailFace datum_face = RailFace::Top; ///< the face on which the rail points were marked
    bool heat_treated = false;
    bool operator==(const RailSection&) const = default;
};

/// Height of a wheel centre over the ground: the tyre's loaded radius, or typed.
struct AxleGround {
    std::optional<Dimension> front;
    std::optional<Dimension> rear;
    bool operator==(const AxleGround&) const = default;
};

/// A wish about where the body sits, with the tolerance that gives it its weight.
struct Pin {
    PinId id;
    PinKind kind = PinKind::Station;
    std::vector<PointId> points; ///< of the body; for centred a left/right pair; for level and rake front ones, then rear ones
    Dimension target;            ///< mm; rad for rake; unused for level, centred (0) and arches
    double tolerance = 3.0;      ///< mm; rad for rake; > 0
    std::vector<PointId> to;     ///< second feature, of body or chassis; `points` may then be of either, too
    ObstacleId box;              ///< of clear
    Bound bound = Bound::Equal;
    Importance importance = Importance::Want;
    bool operator==(const Pin&) const = default;
};

/// A way to seat the body that is kept, to be compared with others: the decisions, not their results.
struct Seating {
    SeatingId id;
    std::string name; ///< unique; one word
    std::vector<Pin> pins;
    std::optional<Dimension> wheelbase_change;
    Leads leads = Leads::Neither;
    Lowering lowering;
    std::string note;
    bool operator==(const Seating&) const = default;
};

struct Stretch {
    std::optional<Dimension> wheelbase_change; ///< decided; none: what Sit asks for
    std::optional<Dimension> cut_station;
    Dimension kerf{1.5, "", Provenance::Assumed};
    Dimension root_gap{2.0, "", Provenance::Assumed};
    Dimension sleeve_fit{1.0, "", Provenance::Assumed};             ///< clearance a side between rail and sleeve
    Dimension sleeve_overlap_heights{2.0, "", Provenance::Assumed}; ///< rail heights each side of the cut
    std::optional<Dimension> sleeve_wall;                           ///< none: as the rail
    std::optional<Dimension> plug_hole;                             ///< none: the least that the rules allow
    std::optional<Dimension> fish_plate;                            ///< thickness of a plate on each web; none: no plates
    bool butt_counts = false; ///< the butt weld is fully penetrated, by someone licensed to make it, and may be counted
    bool operator==(const Stretch&) const = default;
};

/// Something that runs along the frame, and whether it is there at all.
struct Crossing {
    CrossingId id;
    CrossingKind kind = CrossingKind::PropShaft;
    Presence presence = Presence::Present;
    std::optional<Dimension> slack;  ///< by how much it can follow as it is, longer or shorter; none: not measured
    std::optional<Dimension> starts; ///< stations between which it runs; none: all along
    std::optional<Dimension> ends;
    std::string note;
    bool operator==(const Crossing&) const = default;
};

/// What every body mount is made of.
struct MountDesign {
    Dimension washer{3.0, "", Provenance::Assumed};
    Dimension body_thickness{3.0, "", Provenance::Assumed}; ///< floor and doubler under the bolt head
    Dimension biscuit_free{20.0, "", Provenance::Assumed};
    Dimension biscuit_squash{0.15, "", Provenance::Assumed}; ///< share of the free height lost under load, 0…0.5
    Dimension bolt{10.0, "", Provenance::Assumed};           ///< nominal diameter: 8, 10, 12, 14 or 16
    Dimension standoff_step{5.0, "", Provenance::Assumed};   ///< standoffs are cut to multiples of this
    Grip grip = Grip::Wall; ///< through the rail's wall only, or the whole rail with a crush tube
    bool operator==(const MountDesign&) const = default;
};

struct Mount {
    MountId id;
    PointId body_point;
    std::optional<Dimension> rail_station; ///< none: straight below the body point
    bool operator==(const Mount&) const = default;
};

/// A box-section bridge between the rails, straight or with a dropped middle, bolted by end flanges.
struct Crossmember {
    PointId gearbox_mount;
    Dimension isolator{35.0, "", Provenance::Assumed}; ///< height under load
    Dimension pad{6.0, "", Provenance::Assumed};       ///< plate under the isolator
    Dimension box_height{40.0, "", Provenance::Assumed};
    Dimension box_width{60.0, "", Provenance::Assumed}; ///< fore and aft
    Dimension box_wall{3.0, "", Provenance::Assumed};
    Dimension flange{8.0, "", Provenance::Assumed};        ///< plate thickness
    Dimension end_clearance{1.0, "", Provenance::Assumed}; ///< between flange and rail, each end
    Dimension bolt{12.0, "", Provenance::Assumed};
    Dimension pad_hole_pitch{80.0, "", Provenance::Assumed}; ///< between the isolator's bolts, fore and aft
    Dimension pad_hole{11.0, "", Provenance::Assumed};
    CrossmemberForm form = CrossmemberForm::Straight;
    Fixing fixing = Fixing::Through;
    Dimension pan_clearance{12.0, "", Provenance::Assumed}; ///< between gearbox pan and steel, least
    bool operator==(const Crossmember&) const = default;
};

/// What the order of work must know that no measurement tells.
struct WorkFacts {
    Presence fuel_tank = Presence::Unknown;
    Presence battery = Presence::Unknown;
    Presence restraints = Presence::Unknown;
    Presence refrigerant = Presence::Unknown;
    BodyPlace body = BodyPlace::On; ///< where it is before any step is done
    Attitude attitude = Attitude::RightWayUp;
    Support support = Support::Wheels;
    bool operator==(const WorkFacts&) const = default;
};

/// A gap of a door or panel, measured at a named place and event: what the body does while it is worked on.
struct Gap {
    GapId id;
    std::string place;         ///< one word: "door-left-rear"
    std::string event;         ///< "brace in", "on the chassis", "weight on its wheels"; the order of entry is the order of time
    Dimension value;           ///< mm
    double tolerance_mm = 1.5; ///< by how much it may move since the event before
    std::string who;
    std::string at_utc;
    bool operator==(const Gap&) const = default;
};

/// What was read at one wheel, standing on the ground.
struct WheelReadings {
    WheelReadingsId id;
    Wheel wheel = Wheel::FrontLeft;      ///< unique
    std::optional<Dimension> camber;     ///< rad, > 0 top out
    std::optional<Dimension> sweep;      ///< turned so far each way for the caster, rad
    std::optional<Dimension> turned_out; ///< camber with the wheel's front turned out
    std::optional<Dimension> turned_in;
    std::optional<Dimension> ride;    ///< mm
    std::optional<Dimension> weight;  ///< kg
    std::optional<Dimension> run_out; ///< mm, least to most over a turn
    bool operator==(const WheelReadings&) const = default;
};
/// Between the rims of an axle at hub height, ahead of the hubs and behind them.
struct ToeReadings {
    ToeReadingsId id;
    AxleEnd axle = AxleEnd::Front; ///< unique
    Dimension ahead;
    Dimension behind;
    Dimension rim{400, "", Provenance::Assumed}; ///< between the two places on a rim
    bool operator==(const ToeReadings&) const = default;
};

/// A brace, spacer or tacked support that must come out again.
struct TemporarySteel {
    TemporarySteelId id;
    std::string name; ///< unique; one word
    std::string purpose;
    std::string blocks;            ///< what can't be done or reached while it is in
    std::string out_after;         ///< code of the step after which it may come out; empty: when the body is down
    std::optional<Dimension> gap;  ///< the gap it keeps, measured when it was fitted; re-checked when it comes out
    double gap_tolerance_mm = 1.5; ///< > 0
    bool operator==(const TemporarySteel&) const = default;
};

/// A step that is done: who says so, and when.
struct Tick {
    TickId id;
    std::string step; ///< code; unique
    std::string who;
    std::string at_utc; ///< ISO 8601, seconds
    std::string note;
    std::string photo; ///< content hash of a blob in the file; empty: none
    bool operator==(const Tick&) const = default;
};

/// A fresh reading taken at a hold point: a distance between two points of the chassis, a level from one to the other, or a gap
/// that a brace keeps.
struct Check {
    CheckId id;
    std::string step;
    ReadingKind kind = ReadingKind::Tape; ///< Tape or Level
    PointId from;
    PointId to;
    TemporarySteelId gap_of; ///< instead of the points
    Dimension value;         ///< mm
    std::string who;
    std::string at_utc;
    bool operator==(const Check&) const = default;
};

struct Build {
    Settings settings;
    std::map<SessionId, Session> sessions;
    std::map<PointId, Point> points;
    std::map<ReadingId, Reading> readings;
    std::map<HoldId, Hold> holds;
    RailSection rail;
    AxleGround axles;
    std::map<PinId, Pin> pins;
    Stretch stretch;
    MountDesign mount_design;
    std::map<MountId, Mount> mounts;
    std::optional<Crossmember> crossmember;
    std::map<CrossingId, Crossing> crossings;
    WorkFacts work;
    std::map<TemporarySteelId, TemporarySteel> temporary_steel;
    std::map<TickId, Tick> ticks;
    std::map<CheckId, Check> checks;
    std::map<SetUpId, SetUp> setups;
    std::map<GapId, Gap> gaps;
    std::map<WheelReadingsId, WheelReadings> wheels;
    std::map<ToeReadingsId, ToeReadings> toe;
    std::map<InstrumentId, Instrument> instruments;
    std::map<ObstacleId, Obstacle> obstacles;
    std::map<DatumRuleId, DatumRule> datum;
    std::map<DrawingFigureId, DrawingFigure> drawing;
    std::map<FlawId, Flaw> flaws;
    Rates rates;
    Practice practice;
    std::map<AnswerId, Answer> answers;
    std::map<ScanId, Scan> scans;
    std::map<ZoneId, Zone> zones;
    ClearanceRules clearances;
    std::map<PairRuleId, PairRule> pair_rules;
    std::map<SwingId, Swing> swings;
    WheelTravel travel;
    School school;
    Lowering lowering;
    std::map<SeatingId, Seating> seatings;
    std::map<PlannedCutId, PlannedCut> planned_cuts;
    std::uint32_t next_id = 1; ///< grows only; undo does not take it back
    bool operator==(const Build&) const = default;
};

/// The table that holds the T of a build.
template <class T> std::map<Id<T>, T>& table(Build& b) {
    if constexpr (std::is_same_v<T, Session>)
        return b.sessions;
    else if constexpr (std::is_same_v<T, Point>)
        return b.points;
    else if constexpr (std::is_same_v<T, Reading>)
        return b.readings;
    else if constexpr (std::is_same_v<T, Hold>)
        return b.holds;
    else if constexpr (std::is_same_v<T, Pin>)
        return b.pins;
    else if constexpr (std::is_same_v<T, Mount>)
        return b.mounts;
    else if constexpr (std::is_same_v<T, Crossing>)
        return b.crossings;
    else if constexpr (std::is_same_v<T, TemporarySteel>)
        return b.temporary_steel;
    else if constexpr (std::is_same_v<T, Tick>)
        return b.ticks;
    else if constexpr (std::is_same_v<T, SetUp>)
        return b.setups;
    else if constexpr (std::is_same_v<T, Gap>)
        return b.gaps;
    else if constexpr (std::is_same_v<T, WheelReadings>)
        return b.wheels;
    else if constexpr (std::is_same_v<T, ToeReadings>)
        return b.toe;
    else if constexpr (std::is_same_v<T, Instrument>)
        return b.instruments;
    else if constexpr (std::is_same_v<T, Obstacle>)
        return b.obstacles;
    else if constexpr (std::is_same_v<T, DatumRule>)
        return b.datum;
    else if constexpr (std::is_same_v<T, DrawingFigure>)
        return b.drawing;
    else if constexpr (std::is_same_v<T, Flaw>)
        return b.flaws;
    else if constexpr (std::is_same_v<T, Answer>)
        return b.answers;
    else if constexpr (std::is_same_v<T, Scan>)
        return b.scans;
    else if constexpr (std::is_same_v<T, Zone>)
        return b.zones;
    else if constexpr (std::is_same_v<T, Seating>)
        return b.seatings;
    else if constexpr (std::is_same_v<T, PairRule>)
        return b.pair_rules;
    else if constexpr (std::is_same_v<T, Swing>)
        return b.swings;
    else if constexpr (std::is_same_v<T, PlannedCut>)
        return b.planned_cuts;
    else
        return b.checks;
}
template <class T> const std::map<Id<T>, T>& table(const Build& b) { return table<T>(const_cast<Build&>(b)); }

/// The point of that name on the subject; nullptr when there is none.
const Point* pointNamed(const Build&, Subject, std::string_view name);
/// The set-up of that name on the subject; nullptr when there is none.
const SetUp* setupNamed(const Build&, Subject, std::string_view name);
/// Whether a reading of this kind is read from such a set-up: heights and levels from a plane, offsets from a string, slant and
/// plan distances with a tape.
bool readFrom(SetUpKind, ReadingKind);
/// The instrument of that name; nullptr when there is none.
const Instrument* instrumentNamed(const Build&, std::string_view name);
/// Whether such an instrument takes such readings.
bool takes(InstrumentKind, ReadingKind);
/// The first point with that role on the subject, by id; nullptr when there is none.
const Point* pointWithRole(const Build&, Subject, Role);
/// The tick of a step; nullptr when it is not done.
const Tick* tickOf(const Build&, std::string_view step);
/// A crossing by its kind; nullptr when nothing is said of it.
const Crossing* crossingOf(const Build&, CrossingKind);
/// What is known of a hazard.
Presence presenceOf(const WorkFacts&, Hazard);
Presence& presenceOf(WorkFacts&, Hazard);
/// Name of a point, "?" when the id is unknown.
std::string nameOf(const Build&, PointId);

enum class Side { None, Left, Right };
/// Left and right by the last letter of the name, l or r, after at least one other character: `Al`, `hub_R`.
Side sideOf(std::string_view name);
/// The name of the same point on the other side: `Al` → `Ar`. Empty when the name has no side.
std::string twinName(std::string_view name);

/// Whether readings of this kind are angles, in rad.
constexpr bool isAngle(ReadingKind k) {
    return k == ReadingKind::Slope || k == ReadingKind::CrossLevel || k == ReadingKind::RailAngle;
}
/// σ that a reading has when none was typed: mm, rad for an angle. `value_mm` is its length. engineering.md, Tape.
double defaultSigma(ReadingKind, double value_mm);
/// The same of an instrument: a trammel 0.5, a laser meter 1.5; else as the kind of reading.
double instrumentSigma(const Instrument&, ReadingKind, double value_mm);
/// σ of a reading as it stands in the build: typed, of its instrument, of its set-up, or the default of its kind.
double sigmaOf(const Build&, const Reading&);
/// Whether a reading of this kind needs a second point, may have one, or has none.
enum class SecondPoint { None, Optional, Needed };
SecondPoint secondPoint(ReadingKind);

} // namespace gorvet::build
