#include "entry/reader.hpp"
#include "entry/word_lists.hpp"

#include <algorithm>
#include <array>
#include <cmath>

// What was found wrong at points and parts, what its repair costs, and what a person says of a practice frame.
namespace gorvet::entry {

void Reader::found() {
    Flaw f;
    f.subject = context_.subject;
    f.kind = oneOf<FlawKind>("what was found");
    const Word where = line_.next("the point or part where it was found");
    if (const Point* p = pointNamed(b_, context_.subject, where.text))
        f.point = p->id;
    else
        f.part = where.text;
    for (const auto& [id, old] : b_.flaws)
        if (old.subject == f.subject && old.kind == f.kind && old.point == f.point && old.part == f.part) f = old;
    while (!line_.atEnd()) {
        if (line_.take("of")) {
            f.nominal = lengthUpTo({"layers", "way", "note", "photo"}, "the thickness when new");
        } else if (line_.take("layers")) {
            const Word n = line_.next("how many layers");
            char* end = nullptr;
            f.layers = std::strtod(n.text.c_str(), &end);
            if (!end || *end || f.layers != std::floor(f.layers)) throw Failure{n.column, "Layers are a whole number.", ""};
        } else if (line_.take("way")) {
            f.direction = line_.upTo({"note", "of", "layers", "photo"}).text;
        } else if (line_.take("photo")) {
            f.photo = line_.next("the photo's hash (the card, or gorvet-cli photo-found, picks a file)").text;
        } else if (line_.take("note")) {
            f.note = line_.rest().text;
        } else if (f.kind == FlawKind::Layers && f.layers == 0 &&
                   line_.peek().text.find_first_not_of("0123456789") == std::string::npos) {
            f.layers = std::stod(line_.next("").text);
        } else {
            f.amount = lengthUpTo({"of", "layers", "way", "note", "photo"}, "how much");
        }
    }
    if (f.kind == FlawKind::Layers && f.layers == 0)
        throw Failure{line_.endColumn(), "How many layers?", "Like: found layers \"sill left\" 3"};
    f.who = context_.who;
    f.at_utc = context_.now_utc;
    if (!f.id) f.id = fresh<Flaw>();
    put(Put<Flaw>{f});
    say(fmt::format("found {} at {}{}{}{}", word(f.kind), where.text, f.amount ? " " + show(*f.amount) : "",
                    f.nominal ? " of " + show(*f.nominal) : "", f.layers > 0 ? fmt::format(", {} layers", f.layers) : ""));
}

void Reader::rate() {
    Rates r = b_.rates;
    const Word what = line_.next("what it is the rate of");
    if (what.text == "money") {
        r.money = line_.next("the name of the money").text;
        put(Set<Rates>{r});
        return say("costs are in " + r.money);
    }
    const Word typed = line_.next("the rate");
    char* end = nullptr;
    const double v = std::strtod(typed.text.c_str(), &end);
    const bool none = typed.text == "unknown";
    if (!none && (!end || *end || !std::isfinite(v)))
        throw Failure{typed.column, fmt::format("{} is not a number.", typed.text), ""};
    if (what.text == "hour" || what.text == "other-frame") {
        auto& price = what.text == "hour" ? r.hour : r.other_frame;
        price = none ? std::nullopt : std::optional(v);
    } else {
        const auto named =
            std::find_if(plain_rates.begin(), plain_rates.end(), [&](const NamedRate& n) { return n.name == what.text; });
        if (named == plain_rates.end())
            throw Failure{what.column, fmt::format("\"{}\" is not known here.", what.text),
                          "Type money, hour, other-frame, other-frame-hours, patch-hours, crack-hours, redo-hours, seized-hours, "
                          "play-hours, section-hours, patch-material or section-material."};
        if (none) throw Failure{typed.column, "Hours and material are numbers.", ""};
        r.*(named->field) = v;
    }
    put(Set<Rates>{r});
    say(fmt::format("rate {} {}", what.text, typed.text));
}

void Reader::answer() {
    if (!b_.practice.on) throw Failure{0, "There is nothing to answer: this is no practice frame.", ""};
    const Word what = line_.next("what you say of");
    Answer a;
    a.about = what.text;
    if (what.text == "reading") {
        a.from = known(context_.subject, line_.next("the reading's first point")).id;
        if (!line_.atEnd()) a.to = known(context_.subject, line_.next("the reading's second point")).id;
        for (const auto& [id, old] : b_.answers)
            if (old.about == "reading" && ((old.from == a.from && old.to == a.to) || (old.from == a.to && old.to == a.from)))
                throw Failure{what.column, "You said so already.", ""};
        a.id = fresh<Answer>();
        put(Put<Answer>{a});
        return say(fmt::format("you say: the reading {}{} is wrong", nameOf(b_, a.from), a.to ? "–" + nameOf(b_, a.to) : ""));
    }
    if (std::find(crooked_figures.begin(), crooked_figures.end(), what.text) == crooked_figures.end())
        throw Failure{what.column, fmt::format("\"{}\" is not known here.", what.text),
                      "Type diamond, twist, rail-difference, sidesway, sag, or reading NAME NAME."};
    for (const auto& [id, old] : b_.answers)
        if (old.about == a.about) a.id = id;
    if (!line_.take("straight")) a.value = lengthUpTo({}, "by how much, or straight");
    if (!a.id) a.id = fresh<Answer>();
    put(Put<Answer>{a});
    say(fmt::format("you say: {} {}", a.about, a.value ? show(*a.value) : "straight"));
}

void Reader::handIn() {
    Practice p = b_.practice;
    if (!p.on) throw Failure{0, "There is nothing to hand in: this is no practice frame.", ""};
    if (p.marked) throw Failure{0, "The answers were handed in already.", ""};
    if (b_.answers.empty()) throw Failure{0, "You said nothing yet.", "Like: answer diamond 8, answer twist straight"};
    p.marked = true;
    put(Set<Practice>{p});
    say("hand in the answers");
}

} // namespace gorvet::entry
