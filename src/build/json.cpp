#include "build/edit.hpp"

#include <limits>

#include <nlohmann/json.hpp>

// A field that a file does not have keeps its default, so that files of older versions read without a special case.
namespace gorvet::build {
namespace {

using Json = nlohmann::json;

// What is done for each of a thousand fields is done out of line: inlined, it takes the compiler minutes.
[[gnu::noinline]] void put(Json& object, const char* name, Json&& value) { object[name] = std::move(value); }
[[gnu::noinline]] void add(Json& list, Json&& value) { list.push_back(std::move(value)); }
/// The member of that name; nullptr when there is none.
[[gnu::noinline]] const Json* memberOf(const Json& object, const char* name) {
    const auto found = object.find(name);
    return found == object.end() ? nullptr : &*found;
}

template <class T> Json written(const T& value);
[[gnu::noinline]] Json written(double value) { return value; }
[[gnu::noinline]] Json written(bool value) { return value; }
[[gnu::noinline]] Json written(const std::string& value) { return value; }
[[gnu::noinline]] Json writtenId(std::uint32_t value) { return value; }
Json written(units::LengthStep step) { return static_cast<int>(step); }
template <class T> Json written(Id<T> id) { return writtenId(id.value); }
template <class T> Json written(const std::optional<T>& value) { return value ? written(*value) : Json(nullptr); }
template <class T> Json written(const std::vector<T>& values) {
    Json list = Json::array();
    for (const T& value : values) add(list, written(value));
    return list;
}
template <class T> Json written(const T& value) {
    if constexpr (std::is_enum_v<T>) {
        return word(value);
    } else {
        Json object = Json::object();
        eachField<T>([&](const auto& f) { put(object, f.name, written(value.*(f.member))); });
        return object;
    }
}

struct Unreadable {
    std::string what;
};

template <class T> void read(const Json& j, T& value);
template <class T> void read(const Json& j, std::optional<T>& value);
template <class T> void read(const Json& j, std::vector<T>& values);
[[gnu::noinline]] void read(const Json& j, double& value) { value = j.get<double>(); }
[[gnu::noinline]] void read(const Json& j, bool& value) { value = j.get<bool>(); }
[[gnu::noinline]] void read(const Json& j, std::string& value) { value = j.get<std::string>(); }
void read(const Json& j, units::LengthStep& step) {
    const int number = j.get<int>();
    if (number < 0 || number > static_cast<int>(units::LengthStep::InchThousandth)) throw Unreadable{"length_step"};
    step = static_cast<units::LengthStep>(number);
}
[[gnu::noinline]] std::uint32_t idFrom(const Json& j) {
    if (!j.is_number_unsigned() || j.get<std::uint64_t>() > std::numeric_limits<std::uint32_t>::max()) throw Unreadable{"an id"};
    return j.get<std::uint32_t>();
}
template <class T> void read(const Json& j, Id<T>& id) { id.value = idFrom(j); }
void read(const Json& j, SubjectId& id) {
    if (!j.is_string()) {
        id.value = idFrom(j);
        return;
    }
    const auto word = j.get<std::string>(); // of a file before version 4, which knew two
    if (word != "body" && word != "chassis") throw Unreadable{word};
    id = word == "body" ? the_body : the_chassis;
}
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
        eachField<T>([&](const auto& f) {
            if (const Json* found = memberOf(j, f.name)) read(*found, value.*(f.member));
        });
    }
}

template <class T> const char* tableName() {
    if constexpr (IsOptional<T>::value)
        return tableName<typename T::value_type>();
    else
        return Schema<T>::table.name;
}

struct ChangeWriter {
    template <class T> Json operator()(const Put<T>& c) const { return {{"put", tableName<T>()}, {"value", written(c.value)}}; }
    template <class T> Json operator()(const Drop<T>& c) const { return {{"drop", tableName<T>()}, {"id", c.id.value}}; }
    template <class T> Json operator()(const Set<T>& c) const { return {{"set", tableName<T>()}, {"value", written(c.value)}}; }
};

/// Calls use.template operator()<T>() for the table, or the part, of that name; false when there is none.
bool pick(bool row, const std::string& name, auto&& use) {
    bool found = false;
    eachOfDocument([&]<class T>() {
        if (found || is_row<T> != row || name != tableName<T>()) return;
        found = true;
        use.template operator()<T>();
    });
    return found;
}

Change readChange(const Json& j) {
    Change change;
    bool known = false;
    if (j.contains("put"))
        known = pick(true, j.at("put").get<std::string>(), [&]<class T>() {
            if constexpr (is_row<T>) {
                Put<T> put{};
                read(j.at("value"), put.value);
                change = std::move(put);
            }
        });
    else if (j.contains("drop"))
        known = pick(true, j.at("drop").get<std::string>(), [&]<class T>() {
            if constexpr (is_row<T>) change = Drop<T>{Id<T>{idFrom(j.at("id"))}};
        });
    else if (j.contains("set"))
        known = pick(false, j.at("set").get<std::string>(), [&]<class T>() {
            if constexpr (!is_row<T>) {
                Set<Held<T>> set{};
                read(j.at("value"), set.value);
                change = std::move(set);
            }
        });
    if (!known) throw Unreadable{j.dump()};
    return change;
}

template <class T> Json rows(const Rows<T>& table) {
    Json list = Json::array();
    for (const auto& [id, row] : table) add(list, written(row));
    return list;
}
template <class T> void readRows(const Json& j, Rows<T>& table) {
    table.clear();
    for (const Json& item : j) {
        Id<T> id;
        if (const Json* j_id = memberOf(item, "id")) read(*j_id, id);
        if (!id || table.contains(id)) throw Unreadable{"an id stands twice"};
        read(item, table[id]);
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
    for (const Change& change : changes) list.push_back(visit(ChangeWriter{}, change));
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
    Json j = {{"next_id", b.next_id}};
    eachOfDocument([&]<class T>() {
        if constexpr (is_row<T>)
            j[Schema<T>::table.key] = rows(table<T>(b));
        else
            j[Schema<T>::table.key] = written(Schema<T>::in(b));
    });
    return dumped(j);
}

Result<Build> buildFromJson(std::string_view text) {
    return guarded<Build>([&] {
        const Json j = parsed(text);
        Build b;
        eachOfDocument([&]<class T>() {
            const auto found = j.find(Schema<T>::table.key);
            if (found == j.end()) {
                if (Schema<T>::table.since <= 1) throw Unreadable{Schema<T>::table.key}; // every file has it
                return;
            }
            if constexpr (is_row<T>)
                readRows(*found, table<T>(b));
            else
                read(*found, Schema<T>::in(b));
        });
        b.next_id = std::max(b.next_id, idFrom(j.at("next_id")));
        return b;
    });
}

} // namespace gorvet::build
