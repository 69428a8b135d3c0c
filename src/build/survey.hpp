#pragma once

#include "build/subject.hpp"

/// What was measured: points, readings, and what ties them to axes.
namespace gorvet::build {

struct Session;
struct SetUp;
struct Instrument;
struct Obstacle;
struct Point;
struct Reading;
struct Hold;
struct DatumRule;
struct DrawingFigure;
using SessionId = Id<Session>;
using SetUpId = Id<SetUp>;
using InstrumentId = Id<Instrument>;
using ObstacleId = Id<Obstacle>;
using PointId = Id<Point>;
using ReadingId = Id<Reading>;
using HoldId = Id<Hold>;
using DatumRuleId = Id<DatumRule>;
using DrawingFigureId = Id<DrawingFigure>;

/// Readings taken in one go: how the thing stood and on what. Unlike supports are not compared without saying so.
struct Session {
    SessionId id;
    SubjectId subject = the_chassis;
    std::string name;
    Attitude attitude = Attitude::RightWayUp;
    Support support = Support::Stands;
    std::string support_at; ///< where the supports stand, as typed
    double carried_mass_kg = 0;
    std::string note;
    bool operator==(const Session&) const = default;
};
template <> struct Schema<Session> {
    static constexpr TableInfo table{"session", "sessions", 1, "a measuring session"};
    static constexpr auto& in(auto& build) { return build.sessions; }
    static constexpr auto title = std::tuple{&Session::name};
    static constexpr bool subject_stays = true;
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("subject", &S::subject).needed(),
            name("name", &S::name),
            field("attitude", &S::attitude),
            field("support", &S::support),
            field("support_at", &S::support_at),
            number("carried_mass_kg", &S::carried_mass_kg, Unit::Kg, 0, 20'000).onEntry(),
            field("note", &S::note),
        };
    }
};

/// What readings are read from and share: its place is solved for wherever the readings tell it from the frame's own shape.
struct SetUp {
    SetUpId id;
    SubjectId subject = the_chassis;
    std::string name; ///< unique within the subject; one word
    SetUpKind kind = SetUpKind::Plane;
    std::optional<double> sigma_mm; ///< how well it reads, 1σ; none: the default of the kind of reading
    std::string note;               ///< when and how it was last checked
    bool operator==(const SetUp&) const = default;
};
template <> struct Schema<SetUp> {
    static constexpr TableInfo table{"set-up", "setups", 2, "a set-up"};
    static constexpr auto& in(auto& build) { return build.setups; }
    static constexpr auto key = std::tuple{&SetUp::subject, &SetUp::name};
    static constexpr bool subject_stays = true;
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("subject", &S::subject).needed(),
            word("name", &S::name),
            field("kind", &S::kind),
            mm("sigma_mm", &S::sigma_mm, 0.001, 1000).onEntry(),
            field("note", &S::note),
        };
    }
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
template <> struct Schema<Instrument> {
    static constexpr TableInfo table{"instrument", "instruments", 2, "an instrument"};
    static constexpr auto& in(auto& build) { return build.instruments; }
    static constexpr auto key = std::tuple{&Instrument::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("kind", &S::kind),
            number("sigma", &S::sigma, Unit::MmOrRad, 1e-5, 1000).onEntry().says("1σ; null: the kind's own"),
            number("sigma_per_m", &S::sigma_per_m, Unit::MmPerM, 0, 100),
            field("checked", &S::checked),
        };
    }
};

/// Something in the way of a tape: a box along the axes. An engine, a tank, a floor.
struct Obstacle {
    ObstacleId id;
    SubjectId subject = the_chassis;
    std::string name; ///< unique within the subject; one word
    Vec3 from;        ///< least station, offset, height
    Vec3 to;          ///< greatest
    bool operator==(const Obstacle&) const = default;
};
template <> struct Schema<Obstacle> {
    static constexpr TableInfo table{"obstacle", "obstacles", 2, "a box"};
    static constexpr auto& in(auto& build) { return build.obstacles; }
    static constexpr auto key = std::tuple{&Obstacle::subject, &Obstacle::name};
    static constexpr bool subject_stays = true;
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),    field("subject", &S::subject).needed(),
            word("name", &S::name), field("from", &S::from).says("least station, offset and height of a box along the axes"),
            field("to", &S::to),
        };
    }
};

/// One rule of a datum. Rules come into force once there is one: the survey is then adjusted freely and laid on them.
struct DatumRule {
    DatumRuleId id;
    SubjectId subject = the_chassis;
    DatumKind kind = DatumKind::Free;
    std::vector<PointId> points; ///< none for free; one for height; one or two for station; two for the others
    Dimension value;             ///< mm; of height and station
    bool operator==(const DatumRule&) const = default;
};
template <> struct Schema<DatumRule> {
    static constexpr TableInfo table{"datum", "datum", 2, "the datum"};
    static constexpr auto& in(auto& build) { return build.datum; }
    static constexpr auto title = std::tuple{&DatumRule::kind};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("subject", &S::subject).needed(),
            field("kind", &S::kind),
            field("points", &S::points).needed(),
            mm("value", &S::value, -20'000, 20'000),
        };
    }
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
template <> struct Schema<DrawingFigure> {
    static constexpr TableInfo table{"drawing", "drawing", 2, "the drawing's figures"};
    static constexpr auto& in(auto& build) { return build.drawing; }
    static constexpr auto key = std::tuple{&DrawingFigure::point};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("point", &S::point).needed(),
            mm("x_mm", &S::x_mm, -1e5, 1e5).says("null: the drawing does not say"),
            mm("y_mm", &S::y_mm, -1e5, 1e5),
            mm("z_mm", &S::z_mm, -1e5, 1e5),
            field("source", &S::source),
        };
    }
};

struct Point {
    PointId id;
    SubjectId subject = the_chassis;
    std::string name; ///< unique within the subject; one word
    std::optional<Vec3> rough;
    Role role = Role::None;
    std::string note;
    bool operator==(const Point&) const = default;
};
template <> struct Schema<Point> {
    static constexpr TableInfo table{"point", "points", 1, "a point"};
    static constexpr auto& in(auto& build) { return build.points; }
    static constexpr auto key = std::tuple{&Point::subject, &Point::name};
    static constexpr bool subject_stays = true;
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),     field("subject", &S::subject).needed(),
            word("name", &S::name),  field("rough", &S::rough),
            field("role", &S::role), field("note", &S::note),
        };
    }
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
template <> struct Schema<Reading> {
    static constexpr TableInfo table{"reading", "readings", 1, "a reading"};
    static constexpr auto& in(auto& build) { return build.readings; }
    static constexpr auto title = std::tuple{&Reading::from, &Reading::to};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("session", &S::session).needed(),
            field("kind", &S::kind),
            field("from", &S::from).needed(),
            field("to", &S::to),
            number("value", &S::value, Unit::MmOrRad, -1e5, 1e5),
            number("sigma", &S::sigma, Unit::MmOrRad).says("1σ; null: that of instrument, set-up or kind"),
            field("note", &S::note),
            field("setup", &S::setup).came(2),
            field("instrument", &S::instrument).came(2),
            field("at", &S::at).came(2).says("of coordinates"),
            number("covariance_mm2", &S::covariance_mm2, Unit::Mm2).came(2).says("of coordinates: xx, xy, xz, yy, yz, zz"),
            field("replaced_by", &S::replaced_by).loose().says("the re-taped one"),
        };
    }
};

/// A coordinate held exactly: part of the datum.
struct Hold {
    HoldId id;
    PointId point;
    Axis axis = Axis::X;
    Dimension value;
    bool operator==(const Hold&) const = default;
};
template <> struct Schema<Hold> {
    static constexpr TableInfo table{"hold", "holds", 1, "the datum"};
    static constexpr auto& in(auto& build) { return build.holds; }
    static constexpr auto key = std::tuple{&Hold::point, &Hold::axis};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("point", &S::point).needed(),
            field("axis", &S::axis),
            mm("value", &S::value, -1e5, 1e5).onEntry(),
        };
    }
};

/// Whether readings of this kind are angles, in rad.
constexpr bool isAngle(ReadingKind k) {
    return k == ReadingKind::Slope || k == ReadingKind::CrossLevel || k == ReadingKind::RailAngle;
}

} // namespace gorvet::build
