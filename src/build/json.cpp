#include "build/edit.hpp"

#include "build/members.hpp"

#include <limits>

#include <nlohmann/json.hpp>

// A field that a file does not have keeps its default, so that files of older versions read without a special case.
namespace gorvet::build {
namespace {

using Json = nlohmann::json;

struct Unreadable {
    std::string what;
};

Json written(Slots members, const void* row);

Json written(const SlotType& type, const void* value) {
    using Is = SlotType::Is;
    switch (type.is) {
    case Is::Figure: return *static_cast<const double*>(value);
    case Is::Flag: return *static_cast<const bool*>(value);
    case Is::Text: return *static_cast<const std::string*>(value);
    case Is::Step: return static_cast<int>(*static_cast<const units::LengthStep*>(value));
    case Is::Reference: return *static_cast<const std::uint32_t*>(value);
    case Is::Word: return type.said(value);
    case Is::Maybe: {
        const void* content = type.content(value);
        return content ? written(*type.inner, content) : Json(nullptr);
    }
    case Is::List: {
        Json list = Json::array();
        for (std::size_t k = 0; k < type.size(value); ++k) list.push_back(written(*type.inner, type.at(value, k)));
        return list;
    }
    case Is::Struct: return written(type.members(), value);
    }
    return nullptr;
}
Json written(Slots members, const void* row) {
    Json object = Json::object();
    for (const Slot& m : members) object[m.name] = written(*m.type, m.in(row));
    return object;
}

std::uint32_t idFrom(const Json& j) {
    if (!j.is_number_unsigned() || j.get<std::uint64_t>() > std::numeric_limits<std::uint32_t>::max()) throw Unreadable{"an id"};
    return j.get<std::uint32_t>();
}
std::uint32_t subjectFrom(const Json& j) {
    if (!j.is_string()) return idFrom(j);
    const auto word = j.get<std::string>(); // of a file before version 4, which knew two
    if (word != "body" && word != "chassis") throw Unreadable{word};
    return (word == "body" ? the_body : the_chassis).value;
}
units::LengthStep stepFrom(const Json& j) {
    const int number = j.get<int>();
    if (number < 0 || number > static_cast<int>(units::LengthStep::InchThousandth)) throw Unreadable{"length_step"};
    return static_cast<units::LengthStep>(number);
}

void read(const Json& j, Slots members, void* row);

void read(const Json& j, const SlotType& type, void* value) {
    using Is = SlotType::Is;
    switch (type.is) {
    case Is::Figure: *static_cast<double*>(value) = j.get<double>(); break;
    case Is::Flag: *static_cast<bool*>(value) = j.get<bool>(); break;
    case Is::Text: *static_cast<std::string*>(value) = j.get<std::string>(); break;
    case Is::Step: *static_cast<units::LengthStep*>(value) = stepFrom(j); break;
    case Is::Reference:
        *static_cast<std::uint32_t*>(value) = type.table == placeInDocument<Subject>() ? subjectFrom(j) : idFrom(j);
        break;
    case Is::Word: {
        const auto text = j.get<std::string>();
        if (!type.say(value, text)) throw Unreadable{text};
        break;
    }
    case Is::Maybe:
        type.clear(value);
        if (!j.is_null()) read(j, *type.inner, type.add(value));
        break;
    case Is::List:
        if (!j.is_array()) throw Unreadable{"a list"};
        type.clear(value);
        for (const Json& item : j) read(item, *type.inner, type.add(value));
        break;
    case Is::Struct: read(j, type.members(), value); break;
    }
}
void read(const Json& j, Slots members, void* row) {
    for (const Slot& m : members)
        if (const auto found = j.find(m.name); found != j.end()) read(*found, *m.type, m.in(row));
}

Json written(const Change& change) {
    const Seen c = seen(change);
    const DocumentPart& part = documentParts()[c.part];
    Json j = Json::object();
    j[c.kind == Seen::Kind::Put ? "put" : c.kind == Seen::Kind::Drop ? "drop" : "set"] = part.info->name;
    if (c.kind == Seen::Kind::Drop)
        j["id"] = c.id;
    else
        j["value"] = c.row ? written(part.members(), c.row) : Json(nullptr);
    return j;
}

/// The table, or the single part, of that name; nullptr when there is none.
const DocumentPart* partNamed(bool row, const std::string& name) {
    for (const DocumentPart& part : documentParts())
        if (part.is_row == row && name == part.info->name) return &part;
    return nullptr;
}

Change readChange(const Json& j) {
    const bool put = j.contains("put"), drop = !put && j.contains("drop"), set = !put && !drop && j.contains("set");
    const DocumentPart* part = put || drop || set ? partNamed(!set, j.at(put    ? "put"
                                                                         : drop ? "drop"
                                                                                : "set")
                                                                        .get<std::string>())
                                                  : nullptr;
    if (!part) throw Unreadable{j.dump()};
    if (drop) return part->drop(idFrom(j.at("id")));
    const Json& value = j.at("value");
    if (part->none && value.is_null()) return part->none();
    return part->made([&](void* row) { read(value, part->members(), row); });
}

/// All rows of a table, or a single part.
Json written(const Build& b, const DocumentPart& part) {
    Json list = part.is_row ? Json::array() : Json(nullptr);
    const Slots members = part.members();
    part.each(b, [&](std::uint32_t, const void* row) {
        if (part.is_row)
            list.push_back(written(members, row));
        else
            list = written(members, row);
        return true;
    });
    return list;
}
void read(const Json& j, Build& b, const DocumentPart& part) {
    if (!part.is_row) {
        if (!part.none || !j.is_null()) read(j, part.members(), part.own(b, 0));
        return;
    }
    part.clear(b); // a new build has some
    for (const Json& item : j) {
        const auto said = item.find("id");
        const std::uint32_t id = said == item.end() ? 0 : idFrom(*said);
        if (!id || part.find(b, id)) throw Unreadable{"an id stands twice"};
        read(item, part.members(), part.own(b, id));
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
    for (const Change& change : changes) list.push_back(written(change));
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
    for (const DocumentPart& part : documentParts()) j[part.info->key] = written(b, part);
    return dumped(j);
}

Result<Build> buildFromJson(std::string_view text) {
    return guarded<Build>([&] {
        const Json j = parsed(text);
        Build b;
        for (const DocumentPart& part : documentParts()) {
            const auto found = j.find(part.info->key);
            if (found != j.end())
                read(*found, b, part);
            else if (part.info->since <= 1)
                throw Unreadable{part.info->key}; // every file has it
        }
        b.next_id = std::max(b.next_id, idFrom(j.at("next_id")));
        return b;
    });
}

} // namespace gorvet::build
