#include "sim/instruments.hpp"

#include <algorithm>
#include <cmath>

#include <fmt/format.h>

namespace gorvet::sim {
namespace {

using build::InstrumentKind;
using build::ReadingKind;

std::uint64_t mixed(std::uint64_t a, std::string_view text) {
    for (const char c : text) a = (a ^ static_cast<unsigned char>(c)) * 0x100000001b3ULL;
    return a;
}

/// Ways in which a tape is misread, and by how much.
struct Slip {
    double by_mm;
    const char* words;
};
constexpr Slip slips[] = {{10, "a centimetre mark misread"},     {-10, "a centimetre mark misread"},
                          {25.4, "the hook slipped by an inch"}, {20, "two centimetres misread"},
                          {-20, "two centimetres misread"},      {100, "a decimetre misread"}};

Error unknown(const std::string& what, std::string why) { return Error{Error::Code::BadInput, what, std::move(why), "", -1}; }

double corner(std::string_view wheel) {
    return wheel == "front-left" ? 318 : wheel == "front-right" ? 311 : wheel == "rear-left" ? 262 : 271;
}

} // namespace

const std::vector<Played>& played() {
    static const std::vector<Played> list = {
        // the last that takes a kind of reading is the one it is read with
        {InstrumentKind::Tape, "practice-tape"},         {InstrumentKind::Rule, "practice-rule"},
        {InstrumentKind::HeightGauge, "practice-gauge"}, {InstrumentKind::DigitalLevel, "practice-level"},
        {InstrumentKind::Dial, "practice-dial"},         {InstrumentKind::Scales, "practice-scales"}};
    return list;
}

const Played* playedFor(std::string_view kind) {
    InstrumentKind wanted = InstrumentKind::Tape;
    if (kind == "dial")
        wanted = InstrumentKind::Dial;
    else if (kind == "scales")
        wanted = InstrumentKind::Scales;
    else if (const auto reading = build::fromWord<ReadingKind>(kind)) {
        switch (*reading) {
        case ReadingKind::Tape:
        case ReadingKind::Plan: wanted = InstrumentKind::Tape; break;
        case ReadingKind::Height:
        case ReadingKind::Level: wanted = InstrumentKind::HeightGauge; break;
        case ReadingKind::Slope:
        case ReadingKind::CrossLevel: wanted = InstrumentKind::DigitalLevel; break;
        case ReadingKind::Offset: wanted = InstrumentKind::Rule; break;
        default: return nullptr;
        }
    } else
        return nullptr;
    for (const Played& p : played())
        if (p.kind == wanted) return &p;
    return nullptr;
}

Result<Taken> take(const CrookedFrame& f, const Task& task) {
    // taped from either end it is the same reading, with the same noise
    std::string a = task.from;
    std::string b = task.to;
    const auto kind = build::fromWord<ReadingKind>(task.kind);
    if ((!kind || *kind == ReadingKind::Tape || *kind == ReadingKind::Plan) && b < a) std::swap(a, b);
    Chance chance(mixed(mixed(mixed(0xcbf29ce484222325ULL ^ f.seed ^ (static_cast<std::uint64_t>(f.difficulty) << 40) ^
                                        (static_cast<std::uint64_t>(task.before) << 32),
                                    task.kind + " "),
                              a + " "),
                        b));
    Taken t;
    if (task.kind == "scales" || task.kind == "dial") {
        if (!build::fromWord<build::Wheel>(task.from)) return unknown(task.from, fmt::format("There is no wheel {}.", task.from));
        const bool scales = task.kind == "scales";
        t.truth = scales ? corner(task.from) : 0.35;
        t.value =
            scales ? std::round((t.truth + chance.normal()) * 2) / 2 : std::round((t.truth + 0.05 * chance.normal()) * 100) / 100;
        t.figure = scales ? fmt::format("{:.1f} kg", t.value) : fmt::format("{:.2f} mm", t.value);
        return t;
    }
    const FramePoint* from = f.named(task.from);
    if (!from) return unknown(task.from, fmt::format("There is no point {} on this frame.", task.from));
    const FramePoint* to = task.to.empty() ? nullptr : f.named(task.to);
    if (!kind || !playedFor(task.kind)) return unknown(task.kind, fmt::format("No instrument here reads {}.", task.kind));
    if (!to && *kind != ReadingKind::Height && *kind != ReadingKind::Offset)
        return unknown(task.to, fmt::format("There is no point {} on this frame.", task.to.empty() ? "to read to" : task.to));
    if (to == from) return unknown(task.to, "A reading goes between two different points.");
    const Vec3& p = from->truth;
    const Vec3 q = to ? to->truth : Vec3{};
    const double dx = q.x_mm - p.x_mm;
    const double dy = q.y_mm - p.y_mm;
    const double dz = q.z_mm - p.z_mm;
    switch (*kind) {
    case ReadingKind::Tape:
    case ReadingKind::Plan: {
        t.truth = *kind == ReadingKind::Tape ? std::hypot(dx, dy, dz) : std::hypot(dx, dy);
        const double sigma = build::defaultSigma(*kind, t.truth);
        double value = t.truth + sigma * chance.normal();
        const auto which = std::find(f.misread.begin(), f.misread.end(), task.taped);
        if (*kind == ReadingKind::Tape && which != f.misread.end() && task.before == 0) {
            const Slip& slip = slips[Chance(f.seed * 31ULL + static_cast<std::uint64_t>(task.taped)).bits() % std::size(slips)];
            value += slip.by_mm;
            t.misread = true;
            t.slip = slip.words;
        }
        t.value = std::round(value * 2) / 2;
        t.figure = fmt::format("{:.1f} mm", t.value);
        return t;
    }
    case ReadingKind::Height: {
        const double floor = f.floor.x_mm + (f.floor.y_mm * p.x_mm + f.floor.z_mm * p.y_mm) / 1000;
        t.truth = p.z_mm - floor;
        t.value = std::round((t.truth + 0.7 * chance.normal() + 0.01 * task.taken) * 10) / 10;
        t.figure = fmt::format("{:.1f} mm", t.value);
        return t;
    }
    case ReadingKind::Level: {
        // with the gauge from one to the other over the same floor, which is no more level than it is
        t.truth = dz - (f.floor.y_mm * dx + f.floor.z_mm * dy) / 1000;
        t.value = std::round((t.truth + chance.normal()) * 10) / 10;
        t.figure = fmt::format("{:.1f} mm", t.value);
        return t;
    }
    case ReadingKind::Offset:
        t.truth = to ? dy : p.y_mm;
        t.value = std::round((t.truth + chance.normal()) * 2) / 2;
        t.figure = fmt::format("{:.1f} mm", t.value);
        return t;
    default: break;
    }
    const bool cross = *kind == ReadingKind::CrossLevel;
    const bool back = cross ? dy < 0 && std::abs(dy) >= std::abs(dx) : dx < 0 && std::abs(dx) >= std::abs(dy);
    t.truth = (back ? -1 : 1) * std::atan2(cross ? dz : -dz, std::hypot(dx, dy));
    const double degrees = std::round((units::degrees(t.truth) + 0.1 * chance.normal()) * 100) / 100;
    t.value = units::radians(degrees);
    t.figure = fmt::format("{:.2f}°", degrees);
    return t;
}

} // namespace gorvet::sim
