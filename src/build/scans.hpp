#pragma once

#include "build/subject.hpp"

/// Scans, what they must clear each other by, and the cuts of the body that come of it.
namespace gorvet::build {

struct Scan;
struct Zone;
struct PairRule;
struct Swing;
struct PlannedCut;
using ScanId = Id<Scan>;
using ZoneId = Id<Zone>;
using PairRuleId = Id<PairRule>;
using SwingId = Id<Swing>;
using PlannedCutId = Id<PlannedCut>;

/// A mesh or cloud kept in the build's file.
struct Scan {
    ScanId id;
    SubjectId subject = the_body; ///< on whose axes it stands
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
template <> struct Schema<Scan> {
    static constexpr TableInfo table{"scan", "scans", 2, "a scan"};
    static constexpr auto& in(auto& build) { return build.scans; }
    static constexpr auto key = std::tuple{&Scan::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("subject", &S::subject).needed().says("on whose axes"),
            field("part", &S::part),
            word("name", &S::name),
            hash("blob", &S::blob),
            name("file", &S::file).says("the name that file had"),
            field("unit", &S::unit),
            field("shift", &S::shift),
            rad("yaw_rad", &S::yaw_rad, -7, 7),
            rad("pitch_rad", &S::pitch_rad, -7, 7),
            rad("roll_rad", &S::roll_rad, -7, 7),
            field("note", &S::note),
        };
    }
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
template <> struct Schema<Zone> {
    static constexpr TableInfo table{"zone", "zones", 2, "a zone"};
    static constexpr auto& in(auto& build) { return build.zones; }
    static constexpr auto key = std::tuple{&Zone::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),     word("name", &S::name),
            field("rule", &S::rule), field("from", &S::from).says("least station, offset and height of a box on the body's axes"),
            field("to", &S::to),
        };
    }
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
template <> struct Schema<ClearanceRules> {
    static constexpr TableInfo table{"clearances", "clearances", 2, "the clearances"};
    static constexpr auto& in(auto& build) { return build.clearances; }
    template <class S> static constexpr auto fields() {
        return FieldList{
            mm("least", &S::least, 0, 500),   mm("finish", &S::finish, 0, 200), mm("margin", &S::margin, 0, 500),
            mm("flange", &S::flange, 0, 500), mm("sheet", &S::sheet, 0.1, 20),
        };
    }
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
template <> struct Schema<PairRule> {
    static constexpr TableInfo table{"pair", "pair_rules", 2, "the clearance of a pair"};
    static constexpr auto& in(auto& build) { return build.pair_rules; }
    static constexpr auto title = std::tuple{&PairRule::one, &PairRule::other};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("one", &S::one),
            field("other", &S::other),
            mm("least", &S::least, 0, 500),
            mm("finish", &S::finish, 0, 200),
        };
    }
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
template <> struct Schema<Swing> {
    static constexpr TableInfo table{"swing", "swings", 2, "a swing"};
    static constexpr auto& in(auto& build) { return build.swings; }
    static constexpr auto key = std::tuple{&Swing::scan};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id), field("scan", &S::scan).needed(),   field("from", &S::from).says("two places on its axis"),
            field("to", &S::to), rad("angle", &S::angle, 0, 3.1416), rad("back", &S::back, 0, 3.1416),
        };
    }
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
template <> struct Schema<WheelTravel> {
    static constexpr TableInfo table{"travel", "travel", 2, "the wheels' travel"};
    static constexpr auto& in(auto& build) { return build.travel; }
    template <class S> static constexpr auto fields() {
        return FieldList{
            mm("front_bump", &S::front_bump, 0, 500),
            mm("front_droop", &S::front_droop, 0, 500),
            mm("rear_bump", &S::rear_bump, 0, 500),
            mm("rear_droop", &S::rear_droop, 0, 500),
            rad("lock", &S::lock, 0, 1.2),
            rad("rock", &S::rock, 0, 0.5),
            mm("width", &S::width, 50, 800),
            mm("front_radius", &S::front_radius, 50, 1500).says("null: the height of the wheel centre"),
            mm("rear_radius", &S::rear_radius, 50, 1500),
        };
    }
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
template <> struct Schema<PlannedCut> {
    static constexpr TableInfo table{"planned-cut", "planned_cuts", 2, "a cut"};
    static constexpr auto& in(auto& build) { return build.planned_cuts; }
    static constexpr auto key = std::tuple{&PlannedCut::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("line", &S::line).says("corners along the body's axes"),
            field("closed", &S::closed),
            number("area_mm2", &S::area_mm2, Unit::Mm2, 0, 1e9).onEntry(),
            number("mass_kg", &S::mass_kg, Unit::Kg, 0, 5000).onEntry(),
            field("crosses", &S::crosses).says("names with commas"),
            field("brace", &S::brace).says("names with commas"),
            field("made_at", &S::made_at).says("the pose then"),
            field("by_hand", &S::by_hand),
            field("as_cut", &S::as_cut),
        };
    }
};

} // namespace gorvet::build
