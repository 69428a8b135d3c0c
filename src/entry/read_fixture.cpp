// Fixture tables and their towers.
#include "entry/reader.hpp"

#include <algorithm>

namespace gorvet::entry {
namespace {

constexpr const char* fixture_like = "Like: fixture table1 pitch 50 holes 60 30 hole 16 towers 150 50 800.";
constexpr const char* tower_like = "Like: tower Bl clamp.";
constexpr std::string_view fixture_words[] = {"pitch", "holes", "hole", "high",         "towers",   "packer",
                                              "reach", "foot",  "note", "right-way-up", "inverted", "on-its-side"};
constexpr std::string_view tower_words[] = {"on", "rest", "clamp", "pin", "pull", "by", "below", "note"};

template <std::size_t N> bool among(const std::string_view (&words)[N], std::string_view word) {
    return std::find(std::begin(words), std::end(words), word) != std::end(words);
}

} // namespace

void Reader::fixture() {
    const Word name = line_.next("its name");
    const Fixture* old = fixtureNamed(b_, name.text);
    Fixture f = old ? *old : Fixture{};
    if (!old) {
        f.id = fresh<Fixture>();
        f.name = name.text;
    }
    if (line_.atEnd()) throw Failure{line_.endColumn(), "What is said of it is missing.", fixture_like};
    const auto length = [&](const char* missing) {
        return figure(line_.upTo([&] { return !line_.atEnd() && among(fixture_words, line_.peek().text); }), units::Kind::Length,
                      missing);
    };
    while (!line_.atEnd()) {
        if (line_.take("pitch"))
            f.pitch = length("from hole to hole");
        else if (line_.take("holes")) {
            f.along = signedNumber("holes along it");
            f.across = signedNumber("holes across it");
        } else if (line_.take("hole"))
            f.hole = length("the diameter of its holes");
        else if (line_.take("high")) {
            if (line_.take("free"))
                f.high.reset();
            else
                f.high = length("how high the datum is over it");
        } else if (line_.take("towers")) {
            f.tower_least = lengthWord("the shortest tower");
            f.tower_step = lengthWord("the step from one to the next");
            f.tower_most = lengthWord("the tallest tower");
        } else if (line_.take("packer"))
            f.packer = length("the thinnest packer");
        else if (line_.take("reach"))
            f.reach = length("how far a head reaches from its hole");
        else if (line_.take("foot"))
            f.foot = length("the side of a tower's foot");
        else if (const auto attitude = fromWord<Attitude>(line_.peek().text)) {
            line_.next("how it lies");
            f.attitude = *attitude;
        } else if (line_.take("note"))
            f.note = line_.rest().text;
        else
            notKnownHere(fixture_like);
    }
    put(Put<Fixture>{f});
    say(fmt::format("fixture {}: {:g} × {:g} holes every {}", f.name, f.along, f.across, show(f.pitch)));
}

void Reader::removeFixture(const Word&) { removeNamed(b_.fixtures, "fixture"); }

const Fixture& Reader::fixtureMeant(bool named) {
    if (named) {
        const Word w = line_.next("the fixture");
        if (const Fixture* f = fixtureNamed(b_, w.text)) return *f;
        throw Failure{w.column, fmt::format("There is no fixture {}.", w.text), fixture_like};
    }
    if (b_.fixtures.empty()) throw Failure{0, "There is no fixture yet.", fixture_like};
    return b_.fixtures.rbegin()->second; // the newest
}

void Reader::tower() {
    const Word w = line_.next("its point");
    const Point* point = pointOfEither(w, context_.subject);
    if (!point) unknown(context_.subject, w, false);
    const Fixture* fixture = nullptr;
    if (line_.take("on")) fixture = &fixtureMeant(true);
    const FixtureTower* old = nullptr;
    for (const auto& [id, row] : b_.fixture_towers)
        if (row.point == point->id && (!fixture || row.fixture == fixture->id)) old = &row;
    FixtureTower t = old ? *old : FixtureTower{};
    if (!old) {
        t.id = fresh<FixtureTower>();
        t.point = point->id;
        t.fixture = (fixture ? fixture : &fixtureMeant(false))->id;
    }
    while (!line_.atEnd()) {
        if (const auto does = fromWord<TowerDoes>(line_.peek().text)) {
            line_.next("what it does");
            t.does = *does;
            t.pull = {}; // one that is drawn by no figure is drawn straight
        } else if (line_.take("by")) {
            t.does = TowerDoes::Pull;
            for (std::size_t axis = 0; axis < 3; ++axis)
                t.pull[axis] = lengthWord("how far rearwards, to the right and up it is drawn").value;
        } else if (line_.take("below")) {
            if (line_.take("free"))
                t.below.reset();
            else
                t.below = figure(line_.upTo([&] { return !line_.atEnd() && among(tower_words, line_.peek().text); }),
                                 units::Kind::Length, "how far its head is under the point");
        } else if (line_.take("note")) {
            t.note = line_.rest().text;
        } else {
            notKnownHere(tower_like);
        }
    }
    const bool by_itself = t.does == TowerDoes::Pull && geometry::length(t.pull) <= 0;
    if (by_itself && twinName(point->name).empty())
        throw Failure{line_.endColumn(), fmt::format("By how much it is drawn is missing: {} has no twin.", point->name),
                      "Rearwards, to the right and up: tower Br pull by 0 0 3."};
    put(Put<FixtureTower>{t});
    say(fmt::format("tower at {} on {}: {}{}", point->name, b_.fixtures.at(t.fixture).name, word(t.does),
                    by_itself ? fmt::format(", to where {} has its image", twinName(point->name)) : ""));
}

void Reader::removeTower(const Word&) {
    const Word w = line_.next("its point");
    for (const auto& [id, row] : b_.fixture_towers)
        if (nameOf(b_, row.point) == w.text) {
            put(Drop<FixtureTower>{id});
            return say(fmt::format("remove the tower at {}", w.text));
        }
    throw Failure{w.column, fmt::format("There is no tower at {}.", w.text), tower_like};
}

void Reader::frameMetal() {
    FrameFacts f = b_.frame_facts;
    if (line_.take("unsaid"))
        f.metal.reset();
    else
        f.metal = oneOf<BaseMetal>("what the frame is made of");
    put(Set<FrameFacts>{f});
    say(f.metal ? fmt::format("the frame is of {} metal", word(*f.metal)) : std::string("what the frame is made of is not said"));
}

} // namespace gorvet::entry
