// Parts of new steel.
#include "build/part_kinds.hpp"
#include "entry/commands.hpp"

#include <algorithm>

namespace gorvet::entry {
namespace {

constexpr const char* part_like = "Like: part o1 outrigger at Al Ar deep 80 wide 50.";

const char* slotOf(PartUnit u) {
    switch (u) {
    case PartUnit::Length: return "length";
    case PartUnit::Angle: return "angle";
    case PartUnit::Newton:
    case PartUnit::Count: break;
    }
    return "number";
}

/// All words that may stand in a line on a part.
bool partWord(const std::string& word) {
    static const std::vector<std::string> all = [] {
        std::vector<std::string> words{"at", "pinned", "follows", "made", "upon", "thick", "coated", "bare", "note"};
        for (const PartKind& k : partKinds())
            for (const PartFigureKind& f : k.figures) words.push_back(f.word);
        return words;
    }();
    return std::find(all.begin(), all.end(), word) != all.end();
}

std::string kindList() {
    std::string list;
    for (const PartKind& k : partKinds()) list += (list.empty() ? "" : ", ") + k.word;
    return list;
}

void setFigure(std::vector<PartFigure>& list, const std::string& name, Dimension value) {
    for (PartFigure& f : list)
        if (f.name == name) {
            f.value = std::move(value);
            return;
        }
    list.push_back({name, std::move(value)});
}

} // namespace

std::vector<Shape> partForms(std::initializer_list<Shape> more) {
    static const std::vector<std::array<std::string, 3>> texts = [] {
        static constexpr const char* points[] = {"Al", "Ar", "Bl", "B7", "Dr"};
        std::vector<std::array<std::string, 3>> all;
        for (const PartKind& k : partKinds()) {
            std::string pattern = fmt::format("part NEW {} at", k.word), example = fmt::format("part {}-1 {} at", k.word, k.word),
                        what = k.about + ":";
            for (std::size_t i = 0; i < k.points.size(); ++i) {
                pattern += i + 1 == k.points.size() && k.more ? " ANY-POINT…" : " ANY-POINT";
                example += fmt::format(" {}", points[i % std::size(points)]);
                what += fmt::format("{} {}", i ? ";" : "", k.points[i]);
            }
            for (const PartFigureKind& f : k.figures) {
                pattern += fmt::format(" [{} {}]", f.word, slotOf(f.unit));
                if (f.must) example += fmt::format(" {} {:g}", f.word, f.shown);
                what += fmt::format("; {}: {}", f.word, f.about);
            }
            all.push_back({pattern, example, what});
        }
        return all;
    }();
    std::vector<Shape> forms;
    for (const auto& [pattern, example, what] : texts) forms.push_back({pattern.c_str(), example.c_str(), what.c_str()});
    forms.insert(forms.end(), more);
    return forms;
}

Dimension Reader::partFigure(const PartFigureKind& f) {
    const auto upTo = [&] { return line_.upTo([&] { return !line_.atEnd() && partWord(line_.peek().text); }); };
    const auto column = line_.endColumn();
    Dimension d = f.unit == PartUnit::Length  ? figure(upTo(), units::Kind::Length, f.about.c_str())
                  : f.unit == PartUnit::Angle ? figure(upTo(), units::Kind::Angle, f.about.c_str())
                                              : countNext(f.about.c_str());
    if (d.value < f.least || d.value > f.most)
        throw Failure{column, fmt::format("{} of {:g} can't be: {}.", f.word, d.value, f.about),
                      fmt::format("It is {:g} to {:g}.", f.least, f.most)};
    return d;
}

void Reader::steelPart() {
    const Word name = line_.next("its name");
    const SteelPart* old = steelPartNamed(b_, name.text);
    SteelPart p = old ? *old : SteelPart{};
    if (!old) {
        p.id = fresh<SteelPart>();
        p.name = name.text;
    }
    if (line_.atEnd()) throw Failure{line_.endColumn(), "What is said of it is missing.", part_like};
    if (const PartKind* kind = line_.peek().quoted ? nullptr : partKindNamed(line_.peek().text)) {
        line_.next("its kind");
        if (old && p.kind != kind->word) p.figures.clear(); // said of another kind
        p.kind = kind->word;
    } else if (!old) {
        throw Failure{line_.peek().column, fmt::format("\"{}\" is no kind of part.", line_.peek().text),
                      fmt::format("There are: {}.", kindList())};
    }
    const PartKind* kind = partKindNamed(p.kind);
    if (!kind)
        throw Failure{name.column, fmt::format("A {} is not known here.", p.kind),
                      "A newer program made it: it is kept as it is."};
    while (!line_.atEnd()) {
        if (line_.take("at")) {
            p.at.clear();
            p.pinned.clear();
            while (!line_.atEnd() && !partWord(line_.peek().text)) {
                const Word w = line_.next("a point");
                const Point* found = w.text.find(':') != std::string::npos ? featurePoint(w.text) : pointOfEither(w, the_chassis);
                if (!found) unknown(the_chassis, w, false);
                p.at.push_back(found->id);
            }
            if (p.at.size() < kind->points.size())
                throw Failure{
                    line_.endColumn(),
                    fmt::format("Its {} place is missing: {}.", p.at.empty() ? "first" : "next", kind->points[p.at.size()]),
                    part_like};
            if (p.at.size() > kind->points.size() && !kind->more)
                throw Failure{line_.endColumn(),
                              fmt::format("A {} has {}.", p.kind, units::counted(kind->points.size(), "a place")), part_like};
        } else if (line_.take("pinned")) {
            p.pinned.clear();
            for (std::size_t k = 0; k < p.at.size(); ++k) {
                Vec3 place;
                for (std::size_t axis = 0; axis < 3; ++axis)
                    place[axis] = lengthWord("station, offset and height of each of its places").value;
                p.pinned.push_back(place);
            }
        } else if (line_.take("follows")) {
            p.pinned.clear();
        } else if (line_.take("made")) {
            const Word w = line_.next("which of its figures");
            const PartFigureKind* f = kind->figure(w.text);
            if (!f && w.text != "long")
                throw Failure{w.column, fmt::format("\"{}\" is no figure of a {}.", w.text, p.kind),
                              "Say its main length by the word long."};
            static const PartFigureKind main_length{"long", PartUnit::Length, 1, 20'000, std::nullopt, false, "its main length"};
            if (f && f->asked)
                throw Failure{w.column,
                              fmt::format("\"{}\" is asked of a {}: it does not come out one way or another.", w.text, p.kind),
                              fmt::format("Say it without made: part {} {} …", p.name, w.text)};
            setFigure(p.made, w.text, partFigure(f ? *f : main_length));
        } else if (line_.take("upon")) {
            if (line_.take("unsaid"))
                p.onto.reset();
            else
                p.onto = oneOf<BaseMetal>("what it is joined to");
        } else if (line_.take("thick")) {
            // of what it is joined to; a kind may have a figure of that name of its own
            const PartFigureKind* own = kind->figure("thick");
            static const PartFigureKind base{"thick", PartUnit::Length, 0.2, 100, std::nullopt, false, "of what it is joined to"};
            if (own)
                setFigure(p.figures, own->word, partFigure(*own));
            else
                p.onto_thick = partFigure(base);
        } else if (line_.take("coated")) {
            p.onto_coated = true;
        } else if (line_.take("bare")) {
            p.onto_coated = false;
        } else if (line_.take("note")) {
            p.note = line_.rest().text;
        } else if (const PartFigureKind* f = kind->figure(line_.peek().text)) {
            line_.next("a figure");
            setFigure(p.figures, f->word, partFigure(*f));
        } else {
            notKnownHere(part_like);
        }
    }
    if (p.at.empty())
        throw Failure{line_.endColumn(), fmt::format("Where it goes is missing: {}.", kind->points.front()), part_like};
    put(Put<SteelPart>{p});
    say(fmt::format("{} {} at {}", p.kind, p.name, pointList(p.at)));
}

void Reader::removeSteelPart(const Word&) { removeNamed(b_.steel_parts, "part"); }

} // namespace gorvet::entry
