// Photos and spoken notes that are kept already, and steel on the shelf.
#include "entry/reader.hpp"

#include <algorithm>

namespace gorvet::entry {

namespace follows {
namespace {

/// A row of the register, a surface, or an axle whose gears it shows.
bool part(const Reader& r, const Word* next) {
    return next && (next->text == "nothing" || next->text == "front-axle" || next->text == "rear-axle" ||
                    releaseNamed(r.b_, next->text) || surfaceNamed(r.b_, next->text));
}

} // namespace
} // namespace follows

const Photo& Reader::photoNext() {
    const Word w = line_.next("the photo's name");
    const Photo* p = photoNamed(b_, w.text);
    if (!p)
        throw Failure{w.column, fmt::format("There is no photo {}.", w.text),
                      "Photos come as files: from a card, from a folder that is watched, or gorvet-cli photo-add."};
    if (p->struck)
        throw Failure{w.column, fmt::format("The photo {} was struck out by {}.", w.text, p->struck->who), "It stays as it was."};
    return *p;
}

void Reader::photo() {
    Photo p = photoNext();
    static constexpr Option options[] = {{"area"}, {"step", follows::step}, {"of", follows::part}, {"note"}};
    if (line_.atEnd())
        throw Failure{line_.endColumn(), "What is said of it is missing.",
                      fmt::format("Like: photo {} before area left sill note the hole behind the seam.", p.name)};
    if (const auto stage = fromWord<Stage>(line_.peek().text); stage && !line_.peek().quoted) {
        p.stage = *stage;
        line_.next("when");
    }
    while (!line_.atEnd()) {
        if (line_.take("area")) {
            p.area = textUpTo(options);
        } else if (line_.take("step")) {
            p.step = line_.take("nothing") ? "" : stepNext("the step that it shows");
            if (jobNamed(b_, p.step)) p.step = "job-" + p.step;
        } else if (line_.take("of")) {
            const Word w = line_.next("a row of the register, a surface or an axle");
            if (w.text != "nothing" && !follows::part(*this, &w))
                throw Failure{w.column, fmt::format("There is neither a row of the register nor a surface {}.", w.text),
                              "Tag it first, or say the area; of an axle's gears: rear-axle."};
            p.part = w.text == "nothing" ? "" : w.text;
        } else if (line_.take("note")) {
            p.note = line_.rest().text;
        } else {
            notKnownHere("Like: photo p0012 before area left sill step job-floor of sill-in note the hole behind the seam.");
        }
    }
    put(Put<Photo>{p});
    std::string what = p.stage == Stage::Unsaid ? "" : std::string(word(p.stage));
    for (const std::string& text : {p.area, p.step, p.part, p.note})
        if (!text.empty()) what += (what.empty() ? "" : ", ") + text;
    say(fmt::format("photo {}{}", p.name, what.empty() ? "" : ": " + what));
}

void Reader::strikePhoto() {
    Photo p = photoNext();
    p.struck = Signed{context_.who, context_.now_utc};
    put(Put<Photo>{p});
    say(fmt::format("struck out: photo {} (it stays in the file)", p.name));
}

void Reader::stock() {
    const Word w = line_.next("the name on the shelf");
    const Stock* old = stockNamed(b_, w.text);
    Stock s = old ? *old : Stock{};
    if (!old) {
        s.id = fresh<Stock>();
        s.name = w.text;
    }
    static constexpr Option options[] = {
        {"long"}, {"count", follows::figure}, {"price", follows::figure}, {"grade"}, {"shelf"}, {"any"}, {"note"}};
    const auto form = line_.atEnd() || line_.peek().quoted ? std::nullopt : fromWord<StockForm>(line_.peek().text);
    if (form) {
        line_.next("its form");
        s.form = *form;
        std::vector<double> sizes;
        while (!line_.atEnd() && !stopsAt(options) && sizes.size() < 3) sizes.push_back(lengthWord("a size").value);
        const bool two = s.form == StockForm::Box || s.form == StockForm::Channel || s.form == StockForm::Angle;
        const std::size_t wanted = two ? 3 : s.form == StockForm::Bar ? 1 : 2;
        if (sizes.size() != wanted)
            throw Failure{line_.endColumn(),
                          fmt::format("A {} has {}.", word(s.form),
                                      two                         ? "a height, a width and a wall"
                                      : s.form == StockForm::Bar  ? "a diameter"
                                      : s.form == StockForm::Tube ? "a diameter and a wall"
                                                                  : "a width and a thickness"),
                          two ? "Like: stock b60 box 60 40 3 long 2000." : "Like: stock p6 plate 500 6 long 1000."};
        s.height_mm = sizes[0];
        s.width_mm = two ? sizes[1] : 0;
        s.wall_mm = wanted > 1 ? sizes.back() : 0;
    } else if (!old) {
        throw Failure{line_.endColumn(), "What it is is missing.",
                      fmt::format("It is {}: stock {} box 60 40 3 long 2000.", wordList<StockForm>(), s.name)};
    }
    while (!line_.atEnd()) {
        if (line_.take("long"))
            s.length_mm = figure(line_.upTo([&] { return stopsAt(options); }), units::Kind::Length, "its length").value;
        else if (line_.take("count")) {
            s.count = plainNumber("pieces");
            s.any = false;
        } else if (line_.take("any"))
            s.any = true, s.count = 0;
        else if (line_.take("price"))
            s.price = plainNumber("price");
        else if (line_.take("grade"))
            s.grade = textUpTo(options);
        else if (line_.take("shelf"))
            s.at = textUpTo(options);
        else if (line_.take("note"))
            s.note = line_.rest().text;
        else
            notKnownHere("Like: stock b60 box 60 40 3 long 2000 count 2 price 38 grade S235 shelf left rack.");
    }
    if (s.length_mm <= 0)
        throw Failure{line_.endColumn(), "How long it is is missing.",
                      fmt::format("Like: stock {} box 60 40 3 long 2000.", s.name)};
    put(Put<Stock>{s});
    say(s.any ? fmt::format("can be had: {} of {:g} mm", s.name, s.length_mm)
              : fmt::format("{} {}: {} of {:g} mm", old ? "on the shelf, changed:" : "on the shelf:", s.name, s.count,
                            s.length_mm));
}

/// Pieces off a length, one or more with a + between: what is left over goes back onto the shelf as an offcut. Of what can be had
/// one is bought.
void Reader::cutOff() {
    const Word w = line_.next("what it is cut off");
    const Stock* found = stockNamed(b_, w.text);
    if (!found) throw Failure{w.column, fmt::format("Nothing on the shelf is called {}.", w.text), ""};
    Stock s = *found;
    if (s.count < 1 && !s.any)
        throw Failure{w.column, fmt::format("Of {} none is left.", s.name), "Say how many there are: stock … count 2."};
    double pieces = 0, last = 0;
    std::string list;
    std::size_t cuts = 0;
    do {
        const Word typed = line_.upTo({"for", "+"});
        const Dimension piece = figure(typed, units::Kind::Length, "the length of the piece");
        if (piece.value <= 0) throw Failure{typed.column, "A piece has a length.", ""};
        last = pieces + static_cast<double>(cuts) * b_.stretch.kerf.value + piece.value;
        if (last > s.length_mm)
            throw Failure{typed.column, fmt::format("{} is {:g} mm long.", s.name, s.length_mm),
                          cuts ? "With the kerfs these are longer: cut the last off another." : "Cut it off a longer one."};
        pieces += piece.value;
        ++cuts;
        list += fmt::format("{}{:g}", list.empty() ? "" : " + ", piece.value);
    } while (line_.take("+"));
    const std::string what_for = line_.take("for") ? line_.rest().text : std::string();
    const double kerf = last < s.length_mm ? b_.stretch.kerf.value : 0;
    const double left = std::max(0.0, s.length_mm - last - kerf);
    constexpr double worth_keeping = 50;
    std::string said =
        fmt::format("{} mm off {}{}{}", list, s.name, s.any ? ", bought," : "", what_for.empty() ? "" : " for " + what_for);
    if (!s.any) {
        s.count -= 1;
        put(Put<Stock>{s});
    }
    if (left >= worth_keeping) {
        Stock off = s;
        off.id = fresh<Stock>();
        off.count = 1;
        off.any = false;
        off.length_mm = left;
        off.price.reset();
        off.from = s.from.empty() ? s.name : s.from;
        for (int k = 1;; ++k)
            if (off.name = fmt::format("{}-off{}", off.from, k); !stockNamed(b_, off.name)) break;
        off.note = what_for.empty() ? "" : "left over from " + what_for;
        put(Put<Stock>{off});
        said += fmt::format(": an offcut of {:.0f} mm is {}", left, off.name);
    } else {
        if (s.any) throw Failure{w.column, fmt::format("Nothing of {} is left over: nothing changes on the shelf.", s.name), ""};
        said += fmt::format(": {:.0f} mm is scrap", left);
    }
    say(said);
}

void Reader::removeStock(const Word&) { removeNamed(b_.stock, "stock"); }

} // namespace gorvet::entry
