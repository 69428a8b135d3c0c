#pragma once

#include "build/survey.hpp"

/// The rails, what is cut and let into them, and what is bolted on.
namespace gorvet::build {

struct Crossing;
struct Mount;
using CrossingId = Id<Crossing>;
using MountId = Id<Mount>;

struct RailSection {
    Dimension height;
    Dimension width;
    Dimension thickness;
    RailShape shape = RailShape::Box;
    RailFace datum_face = RailFace::Top; ///< the face on which the rail points were marked
    bool heat_treated = false;
    bool operator==(const RailSection&) const = default;
};
template <> struct Schema<RailSection> {
    static constexpr TableInfo table{"rail", "rail", 1, "the rail"};
    static constexpr auto& in(auto& build) { return build.rail; }
    template <class S> static constexpr auto fields() {
        return FieldList{
            mm("height", &S::height, 0, 500), mm("width", &S::width, 0, 500),      mm("thickness", &S::thickness, 0, 25),
            field("shape", &S::shape),        field("datum_face", &S::datum_face), field("heat_treated", &S::heat_treated),
        };
    }
};

struct Stretch {
    std::optional<Dimension> wheelbase_change; ///< decided; none: what Sit asks for
    std::optional<Dimension> cut_station;
    Dimension kerf{1.5, "", Provenance::Assumed};
    Dimension root_gap{2.0, "", Provenance::Assumed};
    Dimension sleeve_fit{1.0, "", Provenance::Assumed};             ///< clearance a side between rail and sleeve
    Dimension sleeve_overlap_heights{2.0, "", Provenance::Assumed}; ///< rail heights each side of the cut
    std::optional<Dimension> sleeve_wall;                           ///< none: as the rail
    std::optional<Dimension> tube_height; ///< of the tube in hand that becomes the sleeve, outside; none: one that fits is made
    std::optional<Dimension> tube_width;
    std::optional<Dimension> strip;      ///< of flat on the sides where that tube is loose
    std::optional<Dimension> plug_hole;  ///< none: the least that the rules allow
    std::optional<Dimension> fish_plate; ///< thickness of a plate on each web; none: no plates
    std::optional<Dimension>
        stagger;              ///< of a spine platform: how far its pans are cut from where the spine is; none: as the rules say
    bool butt_counts = false; ///< the butt weld is fully penetrated, by someone licensed to make it, and may be counted
    bool stepped = false;     ///< the sleeve is made with the step, or the kink, of rails that run aside in plan
    bool operator==(const Stretch&) const = default;
};
template <> struct Schema<Stretch> {
    static constexpr TableInfo table{"stretch", "stretch", 1, "the stretch"};
    static constexpr auto& in(auto& build) { return build.stretch; }
    template <class S> static constexpr auto fields() {
        return FieldList{
            mm("wheelbase_change", &S::wheelbase_change, -3000, 3000).chosen(),
            mm("cut_station", &S::cut_station, -5000, 20'000).chosen(),
            mm("kerf", &S::kerf, 0, 10),
            mm("root_gap", &S::root_gap, 0, 10).chosen(),
            mm("sleeve_fit", &S::sleeve_fit, 0, 10).chosen(),
            number("sleeve_overlap_heights", &S::sleeve_overlap_heights, Unit::None, 0.5, 10).chosen().says("rail heights"),
            mm("sleeve_wall", &S::sleeve_wall, 1, 25).came(2),
            mm("tube_height", &S::tube_height, 5, 500).came(8).says("of the tube in hand that becomes the sleeve"),
            mm("tube_width", &S::tube_width, 5, 500).came(8),
            mm("strip", &S::strip, 0.3, 20).came(8).says("of flat on the sides where that tube is loose"),
            mm("plug_hole", &S::plug_hole, 4, 60).came(2),
            mm("fish_plate", &S::fish_plate, 2, 25).came(2),
            field("butt_counts", &S::butt_counts).came(2),
            field("stepped", &S::stepped).came(8).says("the sleeve is made with the step of rails that run aside"),
            mm("stagger", &S::stagger, 0, 1000).came(8).says("of a spine platform: from the spine's cut to those of its pans"),
        };
    }
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
    std::string name;                    ///< its own, where there are several of its kind: "left"; empty: there is one
    std::optional<double> clips;         ///< that hold it along the frame
    std::string fittings;                ///< what it ends in: "M10 flare both ends"
    RunAnswer answer = RunAnswer::Open;  ///< what is done about it; open: nothing is decided
    std::optional<Dimension> new_length; ///< of what is made anew
    std::string supplier;
    std::optional<double> price;
    std::optional<double> hours;
    bool out_before_heat = false; ///< it must be out, or drained, before anything hot is done near it
    bool inside = false;          ///< it runs inside the rail or spine: a window reaches it
    bool operator==(const Crossing&) const = default;
};
template <> struct Schema<Crossing> {
    static constexpr TableInfo table{"crossing", "crossings", 2, "what crosses a cut"};
    static constexpr auto& in(auto& build) { return build.crossings; }
    static constexpr auto key = std::tuple{&Crossing::kind, &Crossing::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("kind", &S::kind),
            field("presence", &S::presence),
            mm("slack", &S::slack, 0, 2000),
            mm("starts", &S::starts, -5000, 20'000),
            mm("ends", &S::ends, -5000, 20'000),
            field("note", &S::note),
            name("name", &S::name).came(7),
            number("clips", &S::clips, Unit::None, 0, 500).came(7),
            field("fittings", &S::fittings).came(7),
            field("answer", &S::answer).came(7),
            mm("new_length", &S::new_length, 1, 20'000).came(7),
            field("supplier", &S::supplier).came(7),
            number("price", &S::price, Unit::Money, 0, 1e6).came(7),
            number("hours", &S::hours, Unit::Hours, 0, 1000).came(7),
            field("out_before_heat", &S::out_before_heat).came(7),
            field("inside", &S::inside).came(8).says("of the rail or spine"),
        };
    }
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
template <> struct Schema<MountDesign> {
    static constexpr TableInfo table{"mount-design", "mount_design", 1, "the design of the mounts"};
    static constexpr auto& in(auto& build) { return build.mount_design; }
    template <class S> static constexpr auto fields() {
        return FieldList{
            mm("washer", &S::washer, 0, 20),
            mm("body_thickness", &S::body_thickness, 0, 40),
            mm("biscuit_free", &S::biscuit_free, 0, 100),
            number("biscuit_squash", &S::biscuit_squash, Unit::None, 0, 0.5).says("share of the free height"),
            mm("bolt", &S::bolt, 8, 16).chosen().says("8, 10, 12, 14 or 16"),
            mm("standoff_step", &S::standoff_step, 0.5, 50).chosen(),
            field("grip", &S::grip),
        };
    }
};

struct Mount {
    MountId id;
    PointId body_point;
    std::optional<Dimension> rail_station; ///< none: straight below the body point
    bool operator==(const Mount&) const = default;
};
template <> struct Schema<Mount> {
    static constexpr TableInfo table{"mount", "mounts", 1, "a body mount"};
    static constexpr auto& in(auto& build) { return build.mounts; }
    static constexpr auto key = std::tuple{&Mount::body_point};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("body_point", &S::body_point).needed(),
            mm("rail_station", &S::rail_station, -5000, 20'000).onEntry().says("null: straight below the body point"),
        };
    }
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
    std::optional<Dimension> load;                          ///< N, down on the mount, at the most
    bool operator==(const Crossmember&) const = default;
};
template <> struct Schema<Crossmember> {
    static constexpr TableInfo table{"crossmember", "crossmember", 1, "the crossmember"};
    static constexpr auto& in(auto& build) { return build.crossmember; }
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("gearbox_mount", &S::gearbox_mount).needed(),
            mm("isolator", &S::isolator, 0, 200),
            mm("pad", &S::pad, 3, 30),
            mm("box_height", &S::box_height, 20, 200),
            mm("box_width", &S::box_width, 20, 200),
            mm("box_wall", &S::box_wall, 1.5, 10),
            mm("flange", &S::flange, 4, 25),
            mm("end_clearance", &S::end_clearance, 0, 10).chosen(),
            mm("bolt", &S::bolt, 8, 16).chosen().says("8, 10, 12, 14 or 16"),
            mm("pad_hole_pitch", &S::pad_hole_pitch, 20, 300),
            mm("pad_hole", &S::pad_hole, 5, 30),
            field("form", &S::form).came(2),
            field("fixing", &S::fixing).came(2),
            mm("pan_clearance", &S::pan_clearance, 0, 100).chosen().came(2),
            number("load", &S::load, Unit::None, 1, 500'000)
                .came(13)
                .says("N, down on the mount, at the most; null: nobody said"),
        };
    }
};

} // namespace gorvet::build
