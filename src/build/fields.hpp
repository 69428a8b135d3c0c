#pragma once

#include "build/edit.hpp"

/// The fields of every type of the document, by name, and the name of its table. One list each: writer and reader walk over it.
/// Internal to this room.
namespace gorvet::build {

template <class V, class T> void fields(V& v, T& s) {
    using U = std::remove_const_t<T>;
    if constexpr (std::is_same_v<U, Vec3>) {
        v("x_mm", s.x_mm);
        v("y_mm", s.y_mm);
        v("z_mm", s.z_mm);
    } else if constexpr (std::is_same_v<U, Dimension>) {
        v("value", s.value);
        v("typed", s.typed);
        v("provenance", s.provenance);
    } else if constexpr (std::is_same_v<U, Settings>) {
        v("name", s.name);
        v("frame_kind", s.frame_kind);
        v("length_step", s.length_step);
        v("frame_tolerance_mm", s.frame_tolerance_mm);
        v("body_name", s.body_name);
        v("chassis_name", s.chassis_name);
        v("want", s.want);
        v("gauge", s.gauge);
        v("tape_reach_mm", s.tape_reach_mm);
        v("scan_picture", s.scan_picture);
    } else if constexpr (std::is_same_v<U, Session>) {
        v("id", s.id);
        v("subject", s.subject);
        v("name", s.name);
        v("attitude", s.attitude);
        v("support", s.support);
        v("support_at", s.support_at);
        v("carried_mass_kg", s.carried_mass_kg);
        v("note", s.note);
    } else if constexpr (std::is_same_v<U, SetUp>) {
        v("id", s.id);
        v("subject", s.subject);
        v("name", s.name);
        v("kind", s.kind);
        v("sigma_mm", s.sigma_mm);
        v("note", s.note);
    } else if constexpr (std::is_same_v<U, WheelReadings>) {
        v("id", s.id);
        v("wheel", s.wheel);
        v("camber", s.camber);
        v("sweep", s.sweep);
        v("turned_out", s.turned_out);
        v("turned_in", s.turned_in);
        v("ride", s.ride);
        v("weight", s.weight);
        v("run_out", s.run_out);
    } else if constexpr (std::is_same_v<U, ToeReadings>) {
        v("id", s.id);
        v("axle", s.axle);
        v("ahead", s.ahead);
        v("behind", s.behind);
        v("rim", s.rim);
    } else if constexpr (std::is_same_v<U, Gap>) {
        v("id", s.id);
        v("place", s.place);
        v("event", s.event);
        v("value", s.value);
        v("tolerance_mm", s.tolerance_mm);
        v("who", s.who);
        v("at_utc", s.at_utc);
    } else if constexpr (std::is_same_v<U, Point>) {
        v("id", s.id);
        v("subject", s.subject);
        v("name", s.name);
        v("rough", s.rough);
        v("role", s.role);
        v("note", s.note);
    } else if constexpr (std::is_same_v<U, Reading>) {
        v("id", s.id);
        v("session", s.session);
        v("kind", s.kind);
        v("from", s.from);
        v("to", s.to);
        v("value", s.value);
        v("sigma", s.sigma);
        v("note", s.note);
        v("setup", s.setup);
        v("instrument", s.instrument);
        v("at", s.at);
        v("covariance_mm2", s.covariance_mm2);
        v("replaced_by", s.replaced_by);
    } else if constexpr (std::is_same_v<U, Hold>) {
        v("id", s.id);
        v("point", s.point);
        v("axis", s.axis);
        v("value", s.value);
    } else if constexpr (std::is_same_v<U, RailSection>) {
        v("height", s.height);
        v("width", s.width);
        v("thickness", s.thickness);
        v("shape", s.shape);
        v("datum_face", s.datum_face);
        v("heat_treated", s.heat_treated);
    } else if constexpr (std::is_same_v<U, AxleGround>) {
        v("front", s.front);
        v("rear", s.rear);
    } else if constexpr (std::is_same_v<U, Pin>) {
        v("id", s.id);
        v("kind", s.kind);
        v("points", s.points);
        v("target", s.target);
        v("tolerance", s.tolerance);
        v("to", s.to);
        v("box", s.box);
        v("bound", s.bound);
        v("importance", s.importance);
    } else if constexpr (std::is_same_v<U, Seating>) {
        v("id", s.id);
        v("name", s.name);
        v("pins", s.pins);
        v("wheelbase_change", s.wheelbase_change);
        v("leads", s.leads);
        v("lowering", s.lowering);
        v("note", s.note);
    } else if constexpr (std::is_same_v<U, PairRule>) {
        v("id", s.id);
        v("one", s.one);
        v("other", s.other);
        v("least", s.least);
        v("finish", s.finish);
    } else if constexpr (std::is_same_v<U, Swing>) {
        v("id", s.id);
        v("scan", s.scan);
        v("from", s.from);
        v("to", s.to);
        v("angle", s.angle);
        v("back", s.back);
    } else if constexpr (std::is_same_v<U, WheelTravel>) {
        v("front_bump", s.front_bump);
        v("front_droop", s.front_droop);
        v("rear_bump", s.rear_bump);
        v("rear_droop", s.rear_droop);
        v("lock", s.lock);
        v("rock", s.rock);
        v("width", s.width);
        v("front_radius", s.front_radius);
        v("rear_radius", s.rear_radius);
    } else if constexpr (std::is_same_v<U, School>) {
        v("leads", s.leads);
    } else if constexpr (std::is_same_v<U, Lowering>) {
        v("channel", s.channel);
        v("raise", s.raise);
        v("kick", s.kick);
        v("kick_from", s.kick_from);
        v("kick_to", s.kick_to);
        v("floor", s.floor);
    } else if constexpr (std::is_same_v<U, PlannedCut>) {
        v("id", s.id);
        v("name", s.name);
        v("line", s.line);
        v("closed", s.closed);
        v("area_mm2", s.area_mm2);
        v("mass_kg", s.mass_kg);
        v("crosses", s.crosses);
        v("brace", s.brace);
        v("made_at", s.made_at);
        v("by_hand", s.by_hand);
        v("as_cut", s.as_cut);
    } else if constexpr (std::is_same_v<U, Stretch>) {
        v("wheelbase_change", s.wheelbase_change);
        v("cut_station", s.cut_station);
        v("kerf", s.kerf);
        v("root_gap", s.root_gap);
        v("sleeve_fit", s.sleeve_fit);
        v("sleeve_overlap_heights", s.sleeve_overlap_heights);
        v("sleeve_wall", s.sleeve_wall);
        v("plug_hole", s.plug_hole);
        v("fish_plate", s.fish_plate);
        v("butt_counts", s.butt_counts);
    } else if constexpr (std::is_same_v<U, MountDesign>) {
        v("washer", s.washer);
        v("body_thickness", s.body_thickness);
        v("biscuit_free", s.biscuit_free);
        v("biscuit_squash", s.biscuit_squash);
        v("bolt", s.bolt);
        v("standoff_step", s.standoff_step);
        v("grip", s.grip);
    } else if constexpr (std::is_same_v<U, Mount>) {
        v("id", s.id);
        v("body_point", s.body_point);
        v("rail_station", s.rail_station);
    } else if constexpr (std::is_same_v<U, Crossing>) {
        v("id", s.id);
        v("kind", s.kind);
        v("presence", s.presence);
        v("slack", s.slack);
        v("starts", s.starts);
        v("ends", s.ends);
        v("note", s.note);
    } else if constexpr (std::is_same_v<U, WorkFacts>) {
        v("fuel_tank", s.fuel_tank);
        v("battery", s.battery);
        v("restraints", s.restraints);
        v("refrigerant", s.refrigerant);
        v("body", s.body);
        v("attitude", s.attitude);
        v("support", s.support);
    } else if constexpr (std::is_same_v<U, TemporarySteel>) {
        v("id", s.id);
        v("name", s.name);
        v("purpose", s.purpose);
        v("blocks", s.blocks);
        v("out_after", s.out_after);
        v("gap", s.gap);
        v("gap_tolerance_mm", s.gap_tolerance_mm);
    } else if constexpr (std::is_same_v<U, Instrument>) {
        v("id", s.id);
        v("name", s.name);
        v("kind", s.kind);
        v("sigma", s.sigma);
        v("sigma_per_m", s.sigma_per_m);
        v("checked", s.checked);
    } else if constexpr (std::is_same_v<U, Obstacle>) {
        v("id", s.id);
        v("subject", s.subject);
        v("name", s.name);
        v("from", s.from);
        v("to", s.to);
    } else if constexpr (std::is_same_v<U, Scan>) {
        v("id", s.id);
        v("subject", s.subject);
        v("part", s.part);
        v("name", s.name);
        v("blob", s.blob);
        v("file", s.file);
        v("unit", s.unit);
        v("shift", s.shift);
        v("yaw_rad", s.yaw_rad);
        v("pitch_rad", s.pitch_rad);
        v("roll_rad", s.roll_rad);
        v("note", s.note);
    } else if constexpr (std::is_same_v<U, Zone>) {
        v("id", s.id);
        v("name", s.name);
        v("rule", s.rule);
        v("from", s.from);
        v("to", s.to);
    } else if constexpr (std::is_same_v<U, ClearanceRules>) {
        v("least", s.least);
        v("finish", s.finish);
        v("margin", s.margin);
        v("flange", s.flange);
        v("sheet", s.sheet);
    } else if constexpr (std::is_same_v<U, DatumRule>) {
        v("id", s.id);
        v("subject", s.subject);
        v("kind", s.kind);
        v("points", s.points);
        v("value", s.value);
    } else if constexpr (std::is_same_v<U, DrawingFigure>) {
        v("id", s.id);
        v("point", s.point);
        v("x_mm", s.x_mm);
        v("y_mm", s.y_mm);
        v("z_mm", s.z_mm);
        v("source", s.source);
    } else if constexpr (std::is_same_v<U, Flaw>) {
        v("id", s.id);
        v("subject", s.subject);
        v("point", s.point);
        v("part", s.part);
        v("kind", s.kind);
        v("amount", s.amount);
        v("nominal", s.nominal);
        v("layers", s.layers);
        v("direction", s.direction);
        v("note", s.note);
        v("photo", s.photo);
        v("who", s.who);
        v("at_utc", s.at_utc);
    } else if constexpr (std::is_same_v<U, Rates>) {
        v("money", s.money);
        v("hour", s.hour);
        v("other_frame", s.other_frame);
        v("other_frame_hours", s.other_frame_hours);
        v("patch_hours", s.patch_hours);
        v("crack_hours", s.crack_hours);
        v("redo_hours", s.redo_hours);
        v("seized_hours", s.seized_hours);
        v("play_hours", s.play_hours);
        v("section_hours", s.section_hours);
        v("patch_material", s.patch_material);
        v("section_material", s.section_material);
    } else if constexpr (std::is_same_v<U, Practice>) {
        v("on", s.on);
        v("seed", s.seed);
        v("difficulty", s.difficulty);
        v("marked", s.marked);
    } else if constexpr (std::is_same_v<U, Answer>) {
        v("id", s.id);
        v("about", s.about);
        v("value", s.value);
        v("from", s.from);
        v("to", s.to);
    } else if constexpr (std::is_same_v<U, Tick>) {
        v("id", s.id);
        v("step", s.step);
        v("who", s.who);
        v("at_utc", s.at_utc);
        v("note", s.note);
        v("photo", s.photo);
    } else if constexpr (std::is_same_v<U, Check>) {
        v("id", s.id);
        v("step", s.step);
        v("kind", s.kind);
        v("from", s.from);
        v("to", s.to);
        v("gap_of", s.gap_of);
        v("value", s.value);
        v("who", s.who);
        v("at_utc", s.at_utc);
    } else {
        static_assert(std::is_same_v<U, Crossmember>);
        v("gearbox_mount", s.gearbox_mount);
        v("isolator", s.isolator);
        v("pad", s.pad);
        v("box_height", s.box_height);
        v("box_width", s.box_width);
        v("box_wall", s.box_wall);
        v("flange", s.flange);
        v("end_clearance", s.end_clearance);
        v("bolt", s.bolt);
        v("pad_hole_pitch", s.pad_hole_pitch);
        v("pad_hole", s.pad_hole);
        v("form", s.form);
        v("fixing", s.fixing);
        v("pan_clearance", s.pan_clearance);
    }
}

template <class T> constexpr const char* tableName() {
    if constexpr (std::is_same_v<T, Settings>)
        return "settings";
    else if constexpr (std::is_same_v<T, Session>)
        return "session";
    else if constexpr (std::is_same_v<T, Point>)
        return "point";
    else if constexpr (std::is_same_v<T, Reading>)
        return "reading";
    else if constexpr (std::is_same_v<T, Hold>)
        return "hold";
    else if constexpr (std::is_same_v<T, RailSection>)
        return "rail";
    else if constexpr (std::is_same_v<T, AxleGround>)
        return "axles";
    else if constexpr (std::is_same_v<T, Pin>)
        return "pin";
    else if constexpr (std::is_same_v<T, Stretch>)
        return "stretch";
    else if constexpr (std::is_same_v<T, MountDesign>)
        return "mount-design";
    else if constexpr (std::is_same_v<T, Mount>)
        return "mount";
    else if constexpr (std::is_same_v<T, Crossing>)
        return "crossing";
    else if constexpr (std::is_same_v<T, WorkFacts>)
        return "work";
    else if constexpr (std::is_same_v<T, TemporarySteel>)
        return "temporary-steel";
    else if constexpr (std::is_same_v<T, Tick>)
        return "tick";
    else if constexpr (std::is_same_v<T, Check>)
        return "check";
    else if constexpr (std::is_same_v<T, SetUp>)
        return "set-up";
    else if constexpr (std::is_same_v<T, Gap>)
        return "gap";
    else if constexpr (std::is_same_v<T, WheelReadings>)
        return "wheel";
    else if constexpr (std::is_same_v<T, ToeReadings>)
        return "toe";
    else if constexpr (std::is_same_v<T, Instrument>)
        return "instrument";
    else if constexpr (std::is_same_v<T, Obstacle>)
        return "obstacle";
    else if constexpr (std::is_same_v<T, DatumRule>)
        return "datum";
    else if constexpr (std::is_same_v<T, DrawingFigure>)
        return "drawing";
    else if constexpr (std::is_same_v<T, Flaw>)
        return "flaw";
    else if constexpr (std::is_same_v<T, Rates>)
        return "rates";
    else if constexpr (std::is_same_v<T, Practice>)
        return "practice";
    else if constexpr (std::is_same_v<T, Answer>)
        return "answer";
    else if constexpr (std::is_same_v<T, Scan>)
        return "scan";
    else if constexpr (std::is_same_v<T, Zone>)
        return "zone";
    else if constexpr (std::is_same_v<T, ClearanceRules>)
        return "clearances";
    else if constexpr (std::is_same_v<T, Seating>)
        return "seating";
    else if constexpr (std::is_same_v<T, PairRule>)
        return "pair";
    else if constexpr (std::is_same_v<T, Swing>)
        return "swing";
    else if constexpr (std::is_same_v<T, WheelTravel>)
        return "travel";
    else if constexpr (std::is_same_v<T, School>)
        return "school";
    else if constexpr (std::is_same_v<T, Lowering>)
        return "lowering";
    else if constexpr (std::is_same_v<T, PlannedCut>)
        return "planned-cut";
    else
        return "crossmember";
}

} // namespace gorvet::build
