#pragma once

#include <compare>
#include <cstdint>

namespace gorvet::build {

/// A typed, stable reference to a T of the build. 0 means "none". Ids are never used twice in one build.
template <class T> struct Id {
    std::uint32_t value = 0;
    constexpr explicit operator bool() const { return value != 0; }
    constexpr auto operator<=>(const Id&) const = default;
};

struct Session;
struct Point;
struct Reading;
struct Hold;
struct Pin;
struct Mount;
struct Crossing;
struct TemporarySteel;
struct Tick;
struct Check;
struct SetUp;
struct Gap;
struct WheelReadings;
struct ToeReadings;
struct Instrument;
struct Obstacle;
struct DatumRule;
struct DrawingFigure;
struct Flaw;
struct Answer;
struct Scan;
struct Zone;
struct Seating;
struct PairRule;
struct Swing;
struct PlannedCut;
using SessionId = Id<Session>;
using PointId = Id<Point>;
using ReadingId = Id<Reading>;
using HoldId = Id<Hold>;
using PinId = Id<Pin>;
using MountId = Id<Mount>;
using CrossingId = Id<Crossing>;
using TemporarySteelId = Id<TemporarySteel>;
using TickId = Id<Tick>;
using CheckId = Id<Check>;
using SetUpId = Id<SetUp>;
using GapId = Id<Gap>;
using WheelReadingsId = Id<WheelReadings>;
using ToeReadingsId = Id<ToeReadings>;
using InstrumentId = Id<Instrument>;
using ObstacleId = Id<Obstacle>;
using DatumRuleId = Id<DatumRule>;
using DrawingFigureId = Id<DrawingFigure>;
using FlawId = Id<Flaw>;
using AnswerId = Id<Answer>;
using ScanId = Id<Scan>;
using ZoneId = Id<Zone>;
using SeatingId = Id<Seating>;
using PairRuleId = Id<PairRule>;
using SwingId = Id<Swing>;
using PlannedCutId = Id<PlannedCut>;

} // namespace gorvet::build
