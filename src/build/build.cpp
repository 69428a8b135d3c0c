#include "build/build.hpp"

#include <cctype>

namespace gorvet::build {

const Point* pointNamed(const Build& b, Subject subject, std::string_view name) {
    for (const auto& [id, point] : b.points)
        if (point.subject == subject && point.name == name) return &point;
    return nullptr;
}

const SetUp* setupNamed(const Build& b, Subject subject, std::string_view name) {
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

const Point* pointWithRole(const Build& b, Subject subject, Role role) {
    for (const auto& [id, point] : b.points)
        if (point.subject == subject && point.role == role) return &point;
    return nullptr;
}

const Tick* tickOf(const Build& b, std::string_view step) {
    for (const auto& [id, tick] : b.ticks)
        if (tick.step == step) return &tick;
    return nullptr;
}

const Crossing* crossingOf(const Build& b, CrossingKind kind) {
    for (const auto& [id, crossing] : b.crossings)
        if (crossing.kind == kind) return &crossing;
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
    case ReadingKind::Slope: return units::radians(0.1);
    case ReadingKind::Level:
    case ReadingKind::Offset:
    case ReadingKind::Station: return 1.0;
    }
    return 1.0;
}

SecondPoint secondPoint(ReadingKind kind) {
    switch (kind) {
    case ReadingKind::Height: return SecondPoint::None;
    case ReadingKind::Offset:
    case ReadingKind::Station: return SecondPoint::Optional;
    default: return SecondPoint::Needed;
    }
}

} // namespace gorvet::build
