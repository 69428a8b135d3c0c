#include "build/fields.hpp"

#include <limits>

#include <nlohmann/json.hpp>

// A field that a file does not have keeps its default, so that files of older versions read without a special case.
namespace gorvet::build {
namespace {

using Json = nlohmann::json;

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
std::uint32_t idFrom(const Json& j) {
    if (!j.is_number_unsigned() || j.get<std::uint64_t>() > std::numeric_limits<std::uint32_t>::max()) throw Unreadable{"an id"};
    return j.get<std::uint32_t>();
}
template <class T> void read(const Json& j, Id<T>& id) { id.value = idFrom(j); }
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
    if (!j.is_array()) throw Unreadable{"a list"};
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
template <class T> Change readDrop(const Json& j) { return Drop<T>{Id<T>{idFrom(j.at("id"))}}; }
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
                ToeReadings, Instrument, Obstacle, DatumRule, DrawingFigure, Flaw, Answer, Scan, Zone, Seating, PairRule, Swing,
                PlannedCut>(name, use);
}
bool pickPart(const std::string& name, auto&& use) {
    return pick<Settings, RailSection, AxleGround, Stretch, MountDesign, std::optional<Crossmember>, WorkFacts, Rates, Practice,
                ClearanceRules, WheelTravel, School, Lowering>(name, use);
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
        const Id<T> id = row.id;
        if (!id || !table.emplace(id, std::move(row)).second) throw Unreadable{"an id stands twice"};
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

/// The text of a JSON value; what is no UTF-8 is refused, never replaced: two names must not become one.
Result<std::string> dumped(const Json& j) {
    try {
        return j.dump();
    } catch (const Json::exception& e) {
        return Error{Error::Code::BadInput, "", std::string("A text is no UTF-8: ") + e.what() + ".", "Nothing was changed.", -1};
    }
}

/// Parses a text whose nesting has a bound: nothing of a build lies deeper than a handful of brackets.
Json parsed(std::string_view text) {
    constexpr int deepest = 24;
    int depth = 0;
    bool quoted = false;
    for (size_t i = 0; i < text.size(); ++i) {
        const char c = text[i];
        if (quoted) {
            if (c == '\\')
                ++i;
            else if (c == '"')
                quoted = false;
        } else if (c == '"') {
            quoted = true;
        } else if (c == '[' || c == '{') {
            if (++depth > deepest) throw Unreadable{"its brackets lie too deep in each other"};
        } else if (c == ']' || c == '}') {
            --depth;
        }
    }
    return Json::parse(text);
}

} // namespace

Result<std::string> changesToJson(const std::vector<Change>& changes) {
    Json list = Json::array();
    for (const Change& change : changes) list.push_back(std::visit(ChangeWriter{}, change));
    return dumped(list);
}

Result<std::vector<Change>> changesFromJson(std::string_view text) {
    return guarded<std::vector<Change>>([&] {
        std::vector<Change> changes;
        const Json list = parsed(text);
        if (!list.is_array()) throw Unreadable{"a list"};
        for (const Json& j : list) changes.push_back(readChange(j));
        return changes;
    });
}

Result<std::string> buildToJson(const Build& b) {
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
                    {"instruments", rows(b.instruments)},
                    {"obstacles", rows(b.obstacles)},
                    {"datum", rows(b.datum)},
                    {"drawing", rows(b.drawing)},
                    {"flaws", rows(b.flaws)},
                    {"rates", written(b.rates)},
                    {"practice", written(b.practice)},
                    {"answers", rows(b.answers)},
                    {"scans", rows(b.scans)},
                    {"zones", rows(b.zones)},
                    {"clearances", written(b.clearances)},
                    {"pair_rules", rows(b.pair_rules)},
                    {"swings", rows(b.swings)},
                    {"travel", written(b.travel)},
                    {"school", written(b.school)},
                    {"lowering", written(b.lowering)},
                    {"seatings", rows(b.seatings)},
                    {"planned_cuts", rows(b.planned_cuts)},
                    {"next_id", b.next_id}};
    return dumped(j);
}

Result<Build> buildFromJson(std::string_view text) {
    return guarded<Build>([&] {
        const Json j = parsed(text);
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
        const auto rowsIfAny = [&j](const char* name, auto& table) {
            if (const auto found = j.find(name); found != j.end()) readRows(*found, table);
        };
        rowsIfAny("crossings", b.crossings);
        if (j.contains("work")) read(j.at("work"), b.work);
        rowsIfAny("temporary_steel", b.temporary_steel);
        rowsIfAny("ticks", b.ticks);
        rowsIfAny("checks", b.checks);
        rowsIfAny("setups", b.setups);
        rowsIfAny("gaps", b.gaps);
        rowsIfAny("wheels", b.wheels);
        rowsIfAny("toe", b.toe);
        rowsIfAny("instruments", b.instruments);
        rowsIfAny("obstacles", b.obstacles);
        rowsIfAny("datum", b.datum);
        rowsIfAny("drawing", b.drawing);
        rowsIfAny("flaws", b.flaws);
        if (j.contains("rates")) read(j.at("rates"), b.rates);
        if (j.contains("practice")) read(j.at("practice"), b.practice);
        rowsIfAny("answers", b.answers);
        rowsIfAny("scans", b.scans);
        rowsIfAny("zones", b.zones);
        if (j.contains("clearances")) read(j.at("clearances"), b.clearances);
        rowsIfAny("pair_rules", b.pair_rules);
        rowsIfAny("swings", b.swings);
        if (j.contains("travel")) read(j.at("travel"), b.travel);
        if (j.contains("school")) read(j.at("school"), b.school);
        if (j.contains("lowering")) read(j.at("lowering"), b.lowering);
        rowsIfAny("seatings", b.seatings);
        rowsIfAny("planned_cuts", b.planned_cuts);
        b.next_id = idFrom(j.at("next_id"));
        return b;
    });
}

} // namespace gorvet::build
