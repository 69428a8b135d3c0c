#include "build/gate.hpp"

#include "build/check.hpp"
#include "units/text.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::build {
namespace {

/// Goes through a row and keeps the first thing that is wrong.
class Inspector {
public:
    template <class T> void row(const T& value) {
        walk(membersOf<T>(), &value);
        if (!wrong_)
            if (auto ok = entryRules(value); !ok) say(ok.error().message, ok.error().remedy);
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
            return Schema<T>::table.name;
    }

    void text(std::string_view field, const std::string& value, TextKind kind) {
        const bool name = kind != TextKind::Note;
        const size_t most = name ? most_name_characters : most_text_characters;
        const std::string label = labelOf(field);
        if (value.size() > most && units::characters(value) > most)
            return say(fmt::format("{}: {} characters, {} at most.", label, units::characters(value), most), "Make it shorter.");
        if (const auto bad = units::badSign(value, name ? units::TextIs::Name : units::TextIs::Note))
            say(fmt::format("{} ({}): character {}: {}.", label, units::visible(value.substr(0, 40)), bad->column + 1, bad->what),
                "Type it again; a file is saved as UTF-8.");
    }

    void value(const FieldSays& f, const SlotType& type, const void* v) {
        using Is = SlotType::Is;
        if (wrong_) return;
        switch (type.is) {
        case Is::Figure: figure(f, *static_cast<const double*>(v)); break;
        case Is::Text: text(f.name, *static_cast<const std::string*>(v), f.text); break;
        case Is::Maybe:
            if (const void* content = type.content(v)) value(f, *type.inner, content);
            break;
        case Is::List:
            if (type.size(v) > most_list)
                return say(fmt::format("{}: {} entries, {} at most.", labelOf(f.name), type.size(v), most_list), "");
            for (std::size_t k = 0; k < type.size(v); ++k) value(f, *type.inner, type.at(v, k));
            break;
        case Is::Reference:
            if (const auto id = *static_cast<const std::uint32_t*>(v); id > most_id)
                say(fmt::format("{} = {}: no such number is given.", labelOf(f.name), id), "");
            break;
        case Is::Struct:
            if (type.is_dimension) {
                const auto& d = *static_cast<const Dimension*>(v);
                figure(f, d.value); // by the range of the field that holds it
                text(f.name, d.typed, TextKind::Note);
            } else {
                walk(type.members(), v);
            }
            break;
        case Is::Flag:
        case Is::Step:
        case Is::Word: break;
        }
    }
    void figure(const FieldSays& f, double v) {
        if (!std::isfinite(v) || v < f.range.least || v > f.range.most)
            say(outOfRange(f.name, v, f.unit, f.range), "Type it again.");
    }
    void walk(Slots members, const void* row) {
        for (const Slot& m : members) value(m, *m.type, m.in(row));
    }

    std::optional<Error> wrong_;
};

struct GateKeeper {
    Inspector inspector;
    template <class T> void operator()(const Put<T>& c) { inspector.row(c.value); }
    template <class T> void operator()(const Set<T>& c) {
        if constexpr (!IsOptional<T>::value)
            inspector.row(c.value);
        else if (c.value)
            inspector.row(*c.value);
    }
    template <class T> void operator()(const Drop<T>&) {}
};

} // namespace

Result<void> acceptable(const Change& change) {
    GateKeeper keeper;
    visit(keeper, change);
    if (auto wrong = keeper.inspector.wrong()) return *wrong;
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
