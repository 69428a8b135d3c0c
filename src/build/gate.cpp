#include "build/gate.hpp"

#include "build/fields.hpp"
#include "units/text.hpp"

#include <cmath>
#include <set>

#include <fmt/format.h>

namespace gorvet::build {
namespace {

/// Where a field must lie. mm, rad, kg as the field is.
struct Range {
    double least;
    double most;
};
constexpr double far = 1e5; // 100 m: no car
constexpr Range anywhere{-1e9, 1e9};

/// The ranges of fields that no rule of `valid` bounds, by table and field.
template <class T> Range rangeOf(std::string_view field) {
    if constexpr (std::is_same_v<T, Settings>) {
        if (field == "frame_tolerance_mm") return {0.01, 100};
    } else if constexpr (std::is_same_v<T, Session>) {
        if (field == "carried_mass_kg") return {0, 20'000};
    } else if constexpr (std::is_same_v<T, SetUp>) {
        if (field == "sigma_mm") return {0.001, 1000};
    } else if constexpr (std::is_same_v<T, Instrument>) {
        if (field == "sigma") return {1e-5, 1000}; // rad of an angle, mm of a length
        if (field == "sigma_per_m") return {0, 100};
    } else if constexpr (std::is_same_v<T, Gap> || std::is_same_v<T, TemporarySteel>) {
        if (field == "tolerance_mm" || field == "gap_tolerance_mm") return {0.01, 100};
    } else if constexpr (std::is_same_v<T, Pin>) {
        if (field == "tolerance") return {1e-4, 5000};
        if (field == "target") return {-far, far};
    } else if constexpr (std::is_same_v<T, Mount>) {
        if (field == "rail_station") return {-5000, 20'000};
    } else if constexpr (std::is_same_v<T, PlannedCut>) {
        if (field == "area_mm2") return {0, 1e9};
        if (field == "mass_kg") return {0, 5000};
    } else if constexpr (std::is_same_v<T, Vec3>) {
        return {-far, far};
    } else if constexpr (std::is_same_v<T, Hold> || std::is_same_v<T, DrawingFigure>) {
        return {-far, far};
    }
    return anywhere;
}

/// Goes through a row and keeps the first thing that is wrong.
class Inspector {
public:
    template <class T> void row(const T& value) {
        // a reading's σ is in the unit of its kind
        if constexpr (std::is_same_v<T, Reading>) {
            angle_ = isAngle(value.kind);
            if (value.sigma) number("sigma", *value.sigma, angle_ ? Range{1e-6, 0.5} : Range{1e-3, 1000});
        }
        walk(value);
        if constexpr (std::is_same_v<T, Pin>) distinct(value);
        if constexpr (std::is_same_v<T, DatumRule>)
            if (std::set(value.points.begin(), value.points.end()).size() != value.points.size())
                say("It needs different points.", "");
        if (wrong_ && wrong_->subject.empty()) wrong_->subject = nameOfRow(value);
    }
    std::optional<Error> wrong() const { return wrong_; }

private:
    void say(std::string message, std::string remedy) {
        if (!wrong_) wrong_ = Error{Error::Code::BadInput, "", std::move(message), std::move(remedy), -1};
    }

    template <class T> static std::string nameOfRow(const T& value) {
        if constexpr (requires { value.name; })
            return units::visible(value.name.substr(0, 80));
        else
            return tableName<T>();
    }

    void distinct(const Pin& p) {
        for (const auto* list : {&p.points, &p.to})
            if (p.kind != PinKind::Line && std::set(list->begin(), list->end()).size() != list->size())
                say("It names a point twice.", "Name each point once.");
    }

    static bool isName(std::string_view field) {
        return field == "name" || field == "body_name" || field == "chassis_name" || field == "place" || field == "step" ||
               field == "part" || field == "who" || field == "money" || field == "about" || field == "file" || field == "floor" ||
               field == "want";
    }

    void text(const char* field, const std::string& value) {
        const bool name = isName(field);
        const size_t most = name ? most_name_characters : most_text_characters;
        if (value.size() > most && units::characters(value) > most)
            return say(fmt::format("{}: {} characters, {} at most.", field, units::characters(value), most), "Make it shorter.");
        if (const auto bad = units::badSign(value, name ? units::TextIs::Name : units::TextIs::Note))
            say(fmt::format("{} ({}): character {}: {}.", field, units::visible(value.substr(0, 40)), bad->column + 1, bad->what),
                "Type it again; a file is saved as UTF-8.");
    }
    void number(const char* field, double value, Range range) {
        if (!std::isfinite(value)) return say(fmt::format("{} is no finite number.", field), "Type it again.");
        if (value < range.least || value > range.most)
            say(fmt::format("{} = {:g}: must be between {:g} and {:g}.", field, value, range.least, range.most),
                "Type it again.");
    }

    template <class Owner, class V> void field(const char* name, const V& value) {
        if constexpr (std::is_same_v<V, double>) {
            number(name, value, rangeOf<Owner>(name));
        } else if constexpr (std::is_same_v<V, std::string>) {
            text(name, value);
        } else if constexpr (std::is_same_v<V, Dimension>) {
            number(name, value.value, rangeOf<Owner>(name));
            text(name, value.typed);
        } else if constexpr (std::is_same_v<V, bool> || std::is_enum_v<V>) {
            return;
        } else if constexpr (requires { value.has_value(); }) {
            if (value) field<Owner>(name, *value);
        } else if constexpr (requires { value.begin(); }) {
            if (value.size() > most_list)
                return say(fmt::format("{}: {} entries, {} at most.", name, value.size(), most_list), "");
            for (const auto& item : value) field<Owner>(name, item);
        } else if constexpr (requires { value.value; }) { // an id
            if (value.value > most_id) say(fmt::format("{} = {}: no such number is given.", name, value.value), "");
        } else {
            walk(value);
        }
    }
    template <class T> void walk(const T& value) {
        auto visit = [this](const char* name, const auto& member) { this->template field<T>(name, member); };
        fields(visit, value);
    }

    std::optional<Error> wrong_;
    bool angle_ = false;
};

struct Looker {
    Inspector inspector;
    template <class T> void operator()(const Put<T>& c) { inspector.row(c.value); }
    template <class T> void operator()(const Set<T>& c) { inspector.row(c.value); }
    void operator()(const Set<std::optional<Crossmember>>& c) {
        if (c.value) inspector.row(*c.value);
    }
    template <class T> void operator()(const Drop<T>&) {}
};

} // namespace

Result<void> acceptable(const Change& change) {
    Looker looker;
    std::visit(looker, change);
    if (auto wrong = looker.inspector.wrong()) return *wrong;
    return {};
}

Result<void> acceptable(const Edit& edit) {
    if (const auto bad = units::badSign(edit.sentence, units::TextIs::Note))
        return Error{Error::Code::BadInput, "", fmt::format("{}: {}.", units::visible(edit.sentence.substr(0, 60)), bad->what),
                     "Type it again; a file is saved as UTF-8.", -1};
    for (const Change& change : edit.changes)
        if (auto ok = acceptable(change); !ok) return ok;
    return {};
}

Result<void> wouldAdmit(const Build& b, const Edit& edit) {
    if (auto ok = acceptable(edit); !ok) return ok;
    if (edit.changes.empty()) return {};
    if (edit.changes.size() == 1) return wouldEnact(b, edit.changes.front());
    Build trial = b; // each change stands on those before it
    if (auto done = enact(trial, edit); !done) return done.error();
    return {};
}

Result<Change> admit(Build& b, const Change& change) {
    if (auto ok = acceptable(change); !ok) return ok.error();
    return enact(b, change);
}

} // namespace gorvet::build
