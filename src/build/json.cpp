#include "build/edit.hpp"

#include <nlohmann/json.hpp>

// Each type names its fields once, in `fields`; the writer and the reader below walk over them. A field that a file does not
// have keeps its default, so that files of older versions read without a special case.
namespace gorvet::build {
namespace {

using Json = nlohmann::json;

template <class V, class T> void fieldsOf(V& v, T& s);

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

template <class T> Json written(const T& value);
Json written(double value) { return value; }
Json written(bool value) { return value; }
Json written(const std::string& value) { return value; }
Json written(units::LengthStep step) { return static_cast<int>(step); }
template <class T> Json written(Id<T> id) { return id.value; }
template <class T> Json written(const std::optional<T>& value) { return value ? written(*value) : Json(nullptr); }
template <class T> Json written(const std::vector<T>& values) {
    Json list = Json::array();
    for (const T& value : values) list.push_back(written(value));
    return list;
}
template <class T> Json written(const T& value) {
    if constexpr (std::is_enum_v<T>) {
        return word(value);
    } else {
        Json object = Json::object();
        auto writer = [&object](const char* name, const auto& field) { object[name] = written(field); };
        fields(writer, value);
        return object;
    }
}

struct Unreadable {
    std::string what;
};

template <class T> void read(const Json& j, T& value);
template <class T> void read(const Json& j, std::optional<T>& value);
template <class T> void read(const Json& j, std::vector<T>& values);
void read(const Json& j, double& value) { value = j.get<double>(); }
void read(const Json& j, bool& value) { value = j.get<bool>(); }
void read(const Json& j, std::string& value) { value = j.get<std::string>(); }
void read(const Json& j, units::LengthStep& step) {
    const int number = j.get<int>();
    if (number < 0 || number > static_cast<int>(units::LengthStep::InchThousandth)) throw Unreadable{"length_step"};
    step = static_cast<units::LengthStep>(number);
}
template <class T> void read(const Json& j, Id<T>& id) { id.value = j.get<std::uint32_t>(); }
template <class T> void read(const Json& j, std::optional<T>& value) {
    if (j.is_null()) {
        value.reset();
        return;
    }
    T content{};
    read(j, content);
    value = std::move(content);
}
template <class T> void read(const Json& j, std::vector<T>& values) {
    values.clear();
    for (const Json& item : j) {
        T value{};
        read(item, value);
        values.push_back(std::move(value));
    }
}
template <class T> void read(const Json& j, T& value) {
    if constexpr (std::is_enum_v<T>) {
        const auto text = j.get<std::string>();
        const auto found = fromWord<T>(text);
        if (!found) throw Unreadable{text};
        value = *found;
    } else {
        auto reader = [&j](const char* name, auto& field) {
            if (const auto found = j.find(name); found != j.end()) read(*found, field);
        };
        fields(reader, value);
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
    else
        return "crossmember";
}

struct ChangeWriter {
    template <class T> Json operator()(const Put<T>& c) const { return {{"put", tableName<T>()}, {"value", written(c.value)}}; }
    template <class T> Json operator()(const Drop<T>& c) const { return {{"drop", tableName<T>()}, {"id", c.id.value}}; }
    template <class T> Json operator()(const Set<T>& c) const { return {{"set", tableName<T>()}, {"value", written(c.value)}}; }
};

template <class T> Change readPut(const Json& j) {
    Put<T> put{};
    read(j.at("value"), put.value);
    return put;
}
template <class T> Change readDrop(const Json& j) { return Drop<T>{Id<T>{j.at("id").get<std::uint32_t>()}}; }
template <class T> Change readSet(const Json& j) {
    Set<T> set{};
    read(j.at("value"), set.value);
    return set;
}

/// Tries the candidate types in turn; false when none carries the name.
template <class... Ts> bool pick(const std::string& name, auto&& use) {
    return ((name == tableName<Ts>() && (use.template operator()<Ts>(), true)) || ...);
}

bool pickRow(const std::string& name, auto&& use) {
    return pick<Session, Point, Reading, Hold, Pin, Mount, Crossing, TemporarySteel, Tick, Check, SetUp, Gap, WheelReadings,
                ToeReadings>(name, use);
}
bool pickPart(const std::string& name, auto&& use) {
    return pick<Settings, RailSection, AxleGround, Stretch, MountDesign, std::optional<Crossmember>, WorkFacts>(name, use);
}

Change readChange(const Json& j) {
    Change change;
    bool known = false;
    if (j.contains("put"))
        known = pickRow(j.at("put").get<std::string>(), [&]<class T>() { change = readPut<T>(j); });
    else if (j.contains("drop"))
        known = pickRow(j.at("drop").get<std::string>(), [&]<class T>() { change = readDrop<T>(j); });
    else if (j.contains("set"))
        known = pickPart(j.at("set").get<std::string>(), [&]<class T>() { change = readSet<T>(j); });
    if (!known) throw Unreadable{j.dump()};
    return change;
}

template <class T> Json rows(const std::map<Id<T>, T>& table) {
    Json list = Json::array();
    for (const auto& [id, row] : table) list.push_back(written(row));
    return list;
}
template <class T> void readRows(const Json& j, std::map<Id<T>, T>& table) {
    for (const Json& item : j) {
        T row{};
        read(item, row);
        table.emplace(row.id, std::move(row));
    }
}

/// Runs a reader of JSON and turns what it throws into an Error.
template <class T, class F> Result<T> guarded(F&& reader) {
    try {
        return reader();
    } catch (const Unreadable& e) {
        return Error{Error::Code::Damaged, e.what, "A part of the file is not understood: " + e.what.substr(0, 80) + ".", "", -1};
    } catch (const Json::exception& e) {
        return Error{Error::Code::Damaged, "", std::string("A part of the file is not understood: ") + e.what() + ".", "", -1};
    }
}

} // namespace

std::string changesToJson(const std::vector<Change>& changes) {
    Json list = Json::array();
    for (const Change& change : changes) list.push_back(std::visit(ChangeWriter{}, change));
    return list.dump(-1, ' ', false, Json::error_handler_t::replace);
}

Result<std::vector<Change>> changesFromJson(std::string_view text) {
    return guarded<std::vector<Change>>([&] {
        std::vector<Change> changes;
        for (const Json& j : Json::parse(text)) changes.push_back(readChange(j));
        return changes;
    });
}

std::string buildToJson(const Build& b) {
    const Json j = {{"settings", written(b.settings)},
                    {"sessions", rows(b.sessions)},
                    {"points", rows(b.points)},
                    {"readings", rows(b.readings)},
                    {"holds", rows(b.holds)},
                    {"rail", written(b.rail)},
                    {"axles", written(b.axles)},
                    {"pins", rows(b.pins)},
                    {"stretch", written(b.stretch)},
                    {"mount_design", written(b.mount_design)},
                    {"mounts", rows(b.mounts)},
                    {"crossmember", written(b.crossmember)},
                    {"crossings", rows(b.crossings)},
                    {"work", written(b.work)},
                    {"temporary_steel", rows(b.temporary_steel)},
                    {"ticks", rows(b.ticks)},
                    {"checks", rows(b.checks)},
                    {"setups", rows(b.setups)},
                    {"gaps", rows(b.gaps)},
                    {"wheels", rows(b.wheels)},
                    {"toe", rows(b.toe)},
                    {"next_id", b.next_id}};
    return j.dump(-1, ' ', false, Json::error_handler_t::replace);
}

Result<Build> buildFromJson(std::string_view text) {
    return guarded<Build>([&] {
        const Json j = Json::parse(text);
        Build b;
        read(j.at("settings"), b.settings);
        readRows(j.at("sessions"), b.sessions);
        readRows(j.at("points"), b.points);
        readRows(j.at("readings"), b.readings);
        readRows(j.at("holds"), b.holds);
        read(j.at("rail"), b.rail);
        read(j.at("axles"), b.axles);
        readRows(j.at("pins"), b.pins);
        read(j.at("stretch"), b.stretch);
        read(j.at("mount_design"), b.mount_design);
        readRows(j.at("mounts"), b.mounts);
        read(j.at("crossmember"), b.crossmember);
        // added with file version 2
        if (j.contains("crossings")) readRows(j.at("crossings"), b.crossings);
        if (j.contains("work")) read(j.at("work"), b.work);
        if (j.contains("temporary_steel")) readRows(j.at("temporary_steel"), b.temporary_steel);
        if (j.contains("ticks")) readRows(j.at("ticks"), b.ticks);
        if (j.contains("checks")) readRows(j.at("checks"), b.checks);
        if (j.contains("setups")) readRows(j.at("setups"), b.setups);
        if (j.contains("gaps")) readRows(j.at("gaps"), b.gaps);
        if (j.contains("wheels")) readRows(j.at("wheels"), b.wheels);
        if (j.contains("toe")) readRows(j.at("toe"), b.toe);
        b.next_id = j.at("next_id").get<std::uint32_t>();
        return b;
    });
}

} // namespace gorvet::build
