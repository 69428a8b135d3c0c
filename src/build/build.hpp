#pragma once

#include "build/axle.hpp"
#include "build/axle_setup.hpp"
#include "build/brakes.hpp"
#include "build/calendar.hpp"
#include "build/client.hpp"
#include "build/coats.hpp"
#include "build/condition.hpp"
#include "build/drive.hpp"
#include "build/fixture.hpp"
#include "build/graft.hpp"
#include "build/hole.hpp"
#include "build/issue.hpp"
#include "build/jobs.hpp"
#include "build/let_in.hpp"
#include "build/lifts.hpp"
#include "build/part.hpp"
#include "build/photos.hpp"
#include "build/practice.hpp"
#include "build/release.hpp"
#include "build/rows.hpp"
#include "build/scans.hpp"
#include "build/seat.hpp"
#include "build/settings.hpp"
#include "build/shop.hpp"
#include "build/springs.hpp"
#include "build/steel.hpp"
#include "build/steering.hpp"
#include "build/stock.hpp"
#include "build/structure.hpp"
#include "build/subject.hpp"
#include "build/survey.hpp"
#include "build/wheels.hpp"
#include "build/width.hpp"

#include <span>

/// The document: what was measured and what was decided, as plain values. Lengths mm, angles rad, masses kg.
namespace gorvet::build {

/// The members of a build.
struct BuildMembers {
    Settings settings;
    Rows<Subject> subjects = bodyAndChassis();
    Rows<Session> sessions;
    Rows<Point> points;
    Rows<Reading> readings;
    Rows<Hold> holds;
    RailSection rail;
    AxleGround axles;
    Rows<Pin> pins;
    Stretch stretch;
    MountDesign mount_design;
    Rows<Mount> mounts;
    std::optional<Crossmember> crossmember;
    Rows<Crossing> crossings;
    WorkFacts work;
    Rows<TemporarySteel> temporary_steel;
    Rows<Tick> ticks;
    Rows<Check> checks;
    Rows<SetUp> setups;
    Rows<Gap> gaps;
    Rows<WheelReadings> wheels;
    Rows<ToeReadings> toe;
    Rows<Instrument> instruments;
    Rows<Obstacle> obstacles;
    Rows<DatumRule> datum;
    Rows<DrawingFigure> drawing;
    Rows<Flaw> flaws;
    Rates rates;
    Practice practice;
    Rows<Answer> answers;
    Rows<Scan> scans;
    Rows<Zone> zones;
    ClearanceRules clearances;
    Rows<PairRule> pair_rules;
    Rows<Swing> swings;
    WheelTravel travel;
    School school;
    Lowering lowering;
    Rows<Seating> seatings;
    Rows<PlannedCut> planned_cuts;
    Rows<Job> jobs;
    Rows<Awaited> awaited;
    Rows<Attempt> attempts;
    Rows<Release> releases;
    Rows<Lift> lifts;
    Rows<LiftPoint> lift_points;
    Calendar calendar;
    Rows<DayOff> days_off;
    Rows<Estimate> estimates;
    Rows<Worked> worked;
    Rows<Decision> decisions;
    Rows<Choice> choices;
    Rows<Surface> surfaces;
    Rows<Coat> coats;
    Rows<Permit> permits;
    Rows<Photo> photos;
    Rows<Stock> stock;
    Rows<Member> members;
    Rows<Carried> carried;
    Rows<LoadCase> load_cases;
    FrameFacts frame_facts;
    Rows<Stand> stands;
    Rows<AxleJob> axle_jobs;
    Rows<Graft> grafts;
    Rows<GraftPin> graft_pins;
    std::optional<Narrowing> narrowing;
    Rows<FloorEdge> floor_edges;
    Rows<LetIn> let_in;
    Rows<RailHole> rail_holes;
    Rows<DriveEnd> drive_ends;
    Rows<Shaft> shafts;
    Rows<LevelReading> level_readings;
    Rows<TurnCount> turn_counts;
    Rows<Link> links;
    DriveFacts drive_facts;
    Rows<WheelSet> wheel_sets;
    Rows<Hub> hubs;
    Rows<WheelRoom> wheel_rooms;
    Rows<DialTurn> dial_turns;
    Rows<Widening> widenings;
    Rows<Adaptor> adaptors;
    Rows<AxleSeat> axle_seats;
    Rows<AxleBracket> axle_brackets;
    Rows<TackReading> tack_readings;
    Rows<GearReading> gear_readings;
    Rows<SteeringColumn> steering_columns;
    Rows<SteeringGear> steering_gears;
    Rows<Run> runs;
    Rows<Spring> springs;
    Rows<AxleLifted> axles_lifted;
    Rows<LinkHoles> link_holes;
    Rows<Brake> brakes;
    Rows<Pedal> pedals;
    Rows<SteelPart> steel_parts;
    Rows<Fixture> fixtures;
    Rows<FixtureTower> fixture_towers;
    Rows<Issue> issues;
    Rows<IssuedPiece> issued_pieces;
    std::uint32_t next_id = the_chassis.value + 1; ///< grows only; undo does not take it back
    bool operator==(const BuildMembers&) const = default;
};
/// A build. What copies, compares and destroys it stands in one file, as with a change.
struct Build : BuildMembers {
    Build();
    Build(const Build&);
    Build(Build&&) noexcept;
    Build& operator=(const Build&);
    Build& operator=(Build&&) noexcept;
    ~Build();
    bool operator==(const Build&) const;
};

/// What a build holds, in the order of its members. Everything that goes over the document loops over this.
using Document = Types<Settings, Subject, Session, Point, Reading, Hold, RailSection, AxleGround, Pin, Stretch, MountDesign,
                       Mount, Crossmember, Crossing, WorkFacts, TemporarySteel, Tick, Check, SetUp, Gap, WheelReadings,
                       ToeReadings, Instrument, Obstacle, DatumRule, DrawingFigure, Flaw, Rates, Practice, Answer, Scan, Zone,
                       ClearanceRules, PairRule, Swing, WheelTravel, School, Lowering, Seating, PlannedCut, Job, Awaited, Attempt,
                       Release, Lift, LiftPoint, Calendar, DayOff, Estimate, Worked, Decision, Choice, Surface, Coat, Permit,
                       Photo, Stock, Member, Carried, LoadCase, FrameFacts, Stand, AxleJob, Graft, GraftPin, Narrowing, FloorEdge,
                       LetIn, RailHole, DriveEnd, Shaft, LevelReading, TurnCount, Link, DriveFacts, WheelSet, Hub, WheelRoom,
                       DialTurn, Widening, Adaptor, AxleSeat, AxleBracket, TackReading, GearReading, SteeringColumn, SteeringGear,
                       Run, Spring, AxleLifted, LinkHoles, Brake, Pedal, SteelPart, Fixture, FixtureTower, Issue, IssuedPiece>;

/// What holds the T of a build: a map from its id, the struct itself, or an optional of it.
template <class T> using Held = std::remove_reference_t<decltype(Schema<T>::in(std::declval<Build&>()))>;
/// Whether T is a table; else it is a single part.
template <class T> constexpr bool is_row = requires { typename Held<T>::mapped_type; };

/// The table that holds the T of a build.
template <class T> Rows<T>& table(Build& b) { return Schema<T>::in(b); }
template <class T> const Rows<T>& table(const Build& b) { return Schema<T>::in(b); }

/// The place of T in `Document`, from 0.
template <class T> constexpr std::size_t placeInDocument() {
    return []<class... U>(Types<U...>) {
        std::size_t place = 0;
        (void)((std::is_same_v<T, U> || (++place, false)) || ...);
        return place;
    }(Document{});
}

/// Calls f.template operator()<T>() for every table and part of the document, in order.
template <class F> void eachOfDocument(F&& f) {
    [&]<class... T>(Types<T...>) { (f.template operator()<T>(), ...); }(Document{});
}

/// The subject of that name; nullptr when there is none.
const Subject* subjectNamed(const Build&, std::string_view name);
/// All subjects as sheets and lists have them: the chassis, the body, then the others as they came.
std::vector<SubjectId> subjectsInOrder(const Build&);
/// Name of a subject, "?" when the id is unknown.
std::string nameOf(const Build&, SubjectId);
/// Kind of a subject; Component when the id is unknown.
SubjectKind kindOf(const Build&, SubjectId);
/// Whether it is the chassis or another frame.
inline bool isFrame(const Build& b, SubjectId id) { return isFrame(kindOf(b, id)); }
/// The point of that name on the subject; nullptr when there is none.
const Point* pointNamed(const Build&, SubjectId, std::string_view name);
/// The set-up of that name on the subject; nullptr when there is none.
const SetUp* setupNamed(const Build&, SubjectId, std::string_view name);
/// Whether a reading of this kind is read from such a set-up: heights and levels from a plane, offsets from a string, slant and
/// plan distances with a tape.
bool readFrom(SetUpKind, ReadingKind);
/// The instrument of that name; nullptr when there is none.
const Instrument* instrumentNamed(const Build&, std::string_view name);
/// Whether such an instrument takes such readings.
bool takes(InstrumentKind, ReadingKind);
/// The first point with that role on the subject, by id; nullptr when there is none.
const Point* pointWithRole(const Build&, SubjectId, Role);
/// The tick of a step; nullptr when it is not done.
const Tick* tickOf(const Build&, std::string_view step);
/// Whether hot work at a step was ever permitted, with somebody who watches.
bool permitted(const Build&, std::string_view step);
/// The job of that name; nullptr when there is none.
const Job* jobNamed(const Build&, std::string_view name);
/// What is taken apart, by its name; nullptr when there is none.
const Release* releaseNamed(const Build&, std::string_view name);
/// The lift, and the decision, of that name; nullptr when there is none.
const Lift* liftNamed(const Build&, std::string_view name);
const Decision* decisionNamed(const Build&, std::string_view name);
/// The surface of that name; nullptr when there is none.
const Surface* surfaceNamed(const Build&, std::string_view name);
/// The photo, and the steel on the shelf, of that name; nullptr when there is none.
const Photo* photoNamed(const Build&, std::string_view name);
const Stock* stockNamed(const Build&, std::string_view name);
/// The member of the frame, what it carries, and the load case of that name; nullptr when there is none.
const Member* memberNamed(const Build&, std::string_view name);
const Carried* carriedNamed(const Build&, std::string_view name);
const LoadCase* loadCaseNamed(const Build&, std::string_view name);
/// The pair of stands of that name, and what is planned of an axle; nullptr when there is none.
const Stand* standNamed(const Build&, std::string_view name);
const AxleJob* axleJobOf(const Build&, AxleEnd);
/// The piece of another frame of that name; nullptr when there is none.
const Graft* graftNamed(const Build&, std::string_view name);
/// The edge of a floor, and the rail let into a shell, of that name; nullptr when there is none.
const FloorEdge* floorEdgeNamed(const Build&, std::string_view name);
const LetIn* letInNamed(const Build&, std::string_view name);
/// The hole of a rail of that name; nullptr when there is none.
const RailHole* railHoleNamed(const Build&, std::string_view name);
/// The end of a shaft, the shaft, and the link of the suspension of that name; nullptr when there is none.
const DriveEnd* driveEndNamed(const Build&, std::string_view name);
const Shaft* shaftNamed(const Build&, std::string_view name);
const Link* linkNamed(const Build&, std::string_view name);
/// The wheel of an axle, what it is bolted to, its band and its adaptor, and what stands beside it; nullptr when there is none.
const WheelSet* wheelSetOf(const Build&, AxleEnd, WheelAs);
const Hub* hubOf(const Build&, AxleEnd);
const Widening* wideningOf(const Build&, AxleEnd);
const Adaptor* adaptorOf(const Build&, AxleEnd);
/// The springs of an axle that is set up; the bracket, and what was read while it was tacked, of that name.
const AxleSeat* axleSeatOf(const Build&, AxleEnd);
const AxleBracket* axleBracketNamed(const Build&, std::string_view name);
const TackReading* tackReadingNamed(const Build&, std::string_view name);
/// The steering column, the rack or box, and the pipe or line of that name; nullptr when there is none.
const SteeringColumn* steeringColumnNamed(const Build&, std::string_view name);
const SteeringGear* steeringGearNamed(const Build&, std::string_view name);
const Run* runNamed(const Build&, std::string_view name);
/// The springs and brakes of an axle, a pedal, and the holes of a link's end; nullptr when there is none.
const Spring* springOf(const Build&, AxleEnd);
const Brake* brakeOf(const Build&, AxleEnd);
const Pedal* pedalOf(const Build&, PedalKind);
const LinkHoles* linkHolesOf(const Build&, LinkId, LinkEnd);
/// The part of new steel of that name; nullptr when there is none.
const SteelPart* steelPartNamed(const Build&, std::string_view name);
/// The fixture table of that name; nullptr when there is none.
const Fixture* fixtureNamed(const Build&, std::string_view name);
/// The issue of drawings of that name; nullptr when there is none.
const Issue* issueNamed(const Build&, std::string_view name);
const WheelRoom* wheelRoomNamed(const Build&, std::string_view name);
/// The points that a link of that kind has, in order, in words.
std::span<const std::string_view> pointsOf(LinkKind);
/// Coats of a surface, in the order in which they go on.
std::vector<Coat> coatsOf(const Build&, SurfaceId);
/// What should take how long, where it was said of a step of the plan; nullptr when it was not.
const Estimate* estimateOf(const Build&, std::string_view step);
/// The first crossing of its kind, and the one with that name of its own; nullptr when nothing is said of it.
const Crossing* crossingOf(const Build&, CrossingKind);
const Crossing* crossingOf(const Build&, CrossingKind, std::string_view name);
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
