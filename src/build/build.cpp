#include "build/build.hpp"

#include <cctype>
#include <cmath>

namespace gorvet::build {

Build::Build() = default;
Build::Build(const Build&) = default;
Build::Build(Build&&) noexcept = default;
Build& Build::operator=(const Build&) = default;
Build& Build::operator=(Build&&) noexcept = default;
Build::~Build() = default;
bool Build::operator==(const Build& o) const {
    return static_cast<const BuildMembers&>(*this) == static_cast<const BuildMembers&>(o);
}

namespace {

template <class T> const T* named(const Rows<T>& rows, std::string_view name) {
    for (const auto& [id, row] : rows)
        if (row.name == name) return &row;
    return nullptr;
}

} // namespace

const Subject* subjectNamed(const Build& b, std::string_view name) { return named(b.subjects, name); }
std::string nameOf(const Build& b, SubjectId id) {
    const auto found = b.subjects.find(id);
    return found == b.subjects.end() ? "?" : found->second.name;
}

std::vector<SubjectId> subjectsInOrder(const Build& b) {
    std::vector<SubjectId> list{the_chassis, the_body};
    for (const auto& [id, subject] : b.subjects)
        if (id != the_body && id != the_chassis) list.push_back(id);
    return list;
}

SubjectKind kindOf(const Build& b, SubjectId id) {
    const auto found = b.subjects.find(id);
    return found == b.subjects.end() ? SubjectKind::Component : found->second.kind;
}

const Point* pointNamed(const Build& b, SubjectId subject, std::string_view name) {
    for (const auto& [id, point] : b.points)
        if (point.subject == subject && point.name == name) return &point;
    return nullptr;
}

const SetUp* setupNamed(const Build& b, SubjectId subject, std::string_view name) {
    for (const auto& [id, s] : b.setups)
        if (s.subject == subject && s.name == name) return &s;
    return nullptr;
}

bool readFrom(SetUpKind setup, ReadingKind reading) {
    switch (setup) {
    case SetUpKind::Plane: return reading == ReadingKind::Height || reading == ReadingKind::Level;
    case SetUpKind::String: return reading == ReadingKind::Offset;
    case SetUpKind::Tape: return reading == ReadingKind::Tape || reading == ReadingKind::Plan;
    }
    return false;
}

const Instrument* instrumentNamed(const Build& b, std::string_view name) { return named(b.instruments, name); }
bool takes(InstrumentKind instrument, ReadingKind reading) {
    using enum InstrumentKind;
    switch (reading) {
    case ReadingKind::Tape: return instrument == Tape || instrument == Trammel || instrument == LaserMeter;
    case ReadingKind::Plan: return instrument == Tape || instrument == Trammel || instrument == LaserMeter;
    case ReadingKind::Height: return instrument == HeightGauge || instrument == LaserLevel || instrument == Rule;
    case ReadingKind::Level: return instrument == WaterLevel || instrument == LaserLevel || instrument == HeightGauge;
    case ReadingKind::Offset: return instrument == Rule || instrument == Tape;
    case ReadingKind::Station: return instrument == Rule || instrument == Tape || instrument == LaserMeter;
    case ReadingKind::Slope:
    case ReadingKind::CrossLevel: return instrument == DigitalLevel;
    case ReadingKind::RailAngle: return instrument == SquareGauge;
    case ReadingKind::Coordinates: return instrument == Scanner;
    case ReadingKind::Symmetry: return false;
    }
    return false;
}

const Point* pointWithRole(const Build& b, SubjectId subject, Role role) {
    for (const auto& [id, point] : b.points)
        if (point.subject == subject && point.role == role) return &point;
    return nullptr;
}

const Tick* tickOf(const Build& b, std::string_view step) {
    for (const auto& [id, tick] : b.ticks)
        if (tick.step == step) return &tick;
    return nullptr;
}

bool permitted(const Build& b, std::string_view step) {
    return std::any_of(b.permits.begin(), b.permits.end(), [&](const auto& row) { return row.second.step == step; });
}

const Job* jobNamed(const Build& b, std::string_view name) { return named(b.jobs, name); }
const Release* releaseNamed(const Build& b, std::string_view name) { return named(b.releases, name); }
const Lift* liftNamed(const Build& b, std::string_view name) { return named(b.lifts, name); }
const Decision* decisionNamed(const Build& b, std::string_view name) { return named(b.decisions, name); }
const Surface* surfaceNamed(const Build& b, std::string_view name) { return named(b.surfaces, name); }
const Photo* photoNamed(const Build& b, std::string_view name) { return named(b.photos, name); }
const Member* memberNamed(const Build& b, std::string_view name) { return named(b.members, name); }
const Carried* carriedNamed(const Build& b, std::string_view name) { return named(b.carried, name); }
const LoadCase* loadCaseNamed(const Build& b, std::string_view name) { return named(b.load_cases, name); }
const Stand* standNamed(const Build& b, std::string_view name) { return named(b.stands, name); }
const Graft* graftNamed(const Build& b, std::string_view name) { return named(b.grafts, name); }
const FloorEdge* floorEdgeNamed(const Build& b, std::string_view name) { return named(b.floor_edges, name); }
const RailHole* railHoleNamed(const Build& b, std::string_view name) { return named(b.rail_holes, name); }
const DriveEnd* driveEndNamed(const Build& b, std::string_view name) { return named(b.drive_ends, name); }
const Shaft* shaftNamed(const Build& b, std::string_view name) { return named(b.shafts, name); }
const Link* linkNamed(const Build& b, std::string_view name) { return named(b.links, name); }
const LetIn* letInNamed(const Build& b, std::string_view name) { return named(b.let_in, name); }

namespace {
/// The row of an axle's end; nullptr when there is none.
template <class T> const T* ofEnd(const Rows<T>& rows, AxleEnd end) {
    for (const auto& [id, row] : rows)
        if (row.end == end) return &row;
    return nullptr;
}
} // namespace
const AxleJob* axleJobOf(const Build& b, AxleEnd end) { return ofEnd(b.axle_jobs, end); }
const Hub* hubOf(const Build& b, AxleEnd end) { return ofEnd(b.hubs, end); }
const Widening* wideningOf(const Build& b, AxleEnd end) { return ofEnd(b.widenings, end); }
const Adaptor* adaptorOf(const Build& b, AxleEnd end) { return ofEnd(b.adaptors, end); }
const AxleSeat* axleSeatOf(const Build& b, AxleEnd end) { return ofEnd(b.axle_seats, end); }
const AxleBracket* axleBracketNamed(const Build& b, std::string_view name) { return named(b.axle_brackets, name); }
const TackReading* tackReadingNamed(const Build& b, std::string_view name) { return named(b.tack_readings, name); }
const WheelRoom* wheelRoomNamed(const Build& b, std::string_view name) { return named(b.wheel_rooms, name); }
const SteeringColumn* steeringColumnNamed(const Build& b, std::string_view name) { return named(b.steering_columns, name); }
const SteeringGear* steeringGearNamed(const Build& b, std::string_view name) { return named(b.steering_gears, name); }
const Run* runNamed(const Build& b, std::string_view name) { return named(b.runs, name); }
const Spring* springOf(const Build& b, AxleEnd end) { return ofEnd(b.springs, end); }
const Brake* brakeOf(const Build& b, AxleEnd end) { return ofEnd(b.brakes, end); }
const Fixture* fixtureNamed(const Build& b, std::string_view name) { return named(b.fixtures, name); }
const Issue* issueNamed(const Build& b, std::string_view name) { return named(b.issues, name); }
const SteelPart* steelPartNamed(const Build& b, std::string_view name) { return named(b.steel_parts, name); }
const Pedal* pedalOf(const Build& b, PedalKind kind) {
    for (const auto& [id, pedal] : b.pedals)
        if (pedal.kind == kind) return &pedal;
    return nullptr;
}
const LinkHoles* linkHolesOf(const Build& b, LinkId link, LinkEnd at) {
    for (const auto& [id, holes] : b.link_holes)
        if (holes.link == link && holes.at == at) return &holes;
    return nullptr;
}
const WheelSet* wheelSetOf(const Build& b, AxleEnd end, WheelAs as) {
    for (const auto& [id, wheel] : b.wheel_sets)
        if (wheel.end == end && wheel.as == as) return &wheel;
    return nullptr;
}

const Stock* stockNamed(const Build& b, std::string_view name) { return named(b.stock, name); }
std::vector<Coat> coatsOf(const Build& b, SurfaceId surface) {
    std::vector<Coat> list;
    for (const auto& [id, coat] : b.coats)
        if (coat.surface == surface) list.push_back(coat);
    return list;
}

const Estimate* estimateOf(const Build& b, std::string_view step) {
    for (const auto& [id, estimate] : b.estimates)
        if (estimate.step == step) return &estimate;
    return nullptr;
}

const Crossing* crossingOf(const Build& b, CrossingKind kind) {
    for (const auto& [id, crossing] : b.crossings)
        if (crossing.kind == kind) return &crossing;
    return nullptr;
}

const Crossing* crossingOf(const Build& b, CrossingKind kind, std::string_view name) {
    for (const auto& [id, crossing] : b.crossings)
        if (crossing.kind == kind && crossing.name == name) return &crossing;
    return nullptr;
}

Presence presenceOf(const WorkFacts& w, Hazard hazard) { return presenceOf(const_cast<WorkFacts&>(w), hazard); }

Presence& presenceOf(WorkFacts& w, Hazard hazard) {
    switch (hazard) {
    case Hazard::FuelTank: return w.fuel_tank;
    case Hazard::Battery: return w.battery;
    case Hazard::Restraints: return w.restraints;
    case Hazard::Refrigerant: break;
    }
    return w.refrigerant;
}

std::string nameOf(const Build& b, PointId id) {
    const auto found = b.points.find(id);
    return found == b.points.end() ? "?" : found->second.name;
}

Side sideOf(std::string_view name) {
    if (name.size() < 2) return Side::None;
    const char last = name.back();
    return last == 'l' || last == 'L' ? Side::Left : last == 'r' || last == 'R' ? Side::Right : Side::None;
}

std::string twinName(std::string_view name) {
    if (sideOf(name) == Side::None) return {};
    std::string twin(name);
    switch (twin.back()) {
    case 'l': twin.back() = 'r'; break;
    case 'r': twin.back() = 'l'; break;
    case 'L': twin.back() = 'R'; break;
    default: twin.back() = 'L'; break;
    }
    return twin;
}

double defaultSigma(ReadingKind kind, double value_mm) {
    switch (kind) {
    case ReadingKind::Tape: return 1.0 + 0.2e-3 * value_mm;
    case ReadingKind::Plan: return 1.5 + 0.2e-3 * value_mm;
    case ReadingKind::Height: return 0.7;
    case ReadingKind::Slope:
    case ReadingKind::CrossLevel:
    case ReadingKind::RailAngle: return units::radians(0.1);
    case ReadingKind::Coordinates: return 0.5;
    case ReadingKind::Symmetry: return 5.0;
    case ReadingKind::Level:
    case ReadingKind::Offset:
    case ReadingKind::Station: return 1.0;
    }
    return 1.0;
}

double instrumentSigma(const Instrument& i, ReadingKind kind, double value_mm) {
    if (i.sigma) return *i.sigma + (isAngle(kind) ? 0.0 : i.sigma_per_m * std::abs(value_mm) / 1000);
    if (i.kind == InstrumentKind::Trammel) return 0.5;
    if (i.kind == InstrumentKind::LaserMeter) return 1.5;
    return defaultSigma(kind, value_mm);
}

double sigmaOf(const Build& b, const Reading& r) {
    if (r.sigma) return *r.sigma;
    if (const auto i = b.instruments.find(r.instrument); i != b.instruments.end())
        return instrumentSigma(i->second, r.kind, r.value.value);
    if (const auto s = b.setups.find(r.setup); s != b.setups.end() && s->second.sigma_mm) return *s->second.sigma_mm;
    return defaultSigma(r.kind, r.value.value);
}

SecondPoint secondPoint(ReadingKind kind) {
    switch (kind) {
    case ReadingKind::Height:
    case ReadingKind::Coordinates: return SecondPoint::None;
    case ReadingKind::Offset:
    case ReadingKind::Station: return SecondPoint::Optional;
    default: return SecondPoint::Needed;
    }
}

} // namespace gorvet::build
