// The frame as it carries: its members, what hangs on it, how it is loaded, what it is made of.
#include "entry/reader.hpp"

#include "build/usual_cases.hpp"

#include <algorithm>

namespace gorvet::entry {

namespace follows {
namespace {

bool form(const Reader& r, const Word* next) { return one<SectionForm>(r, next); }

constexpr Option member_options[] = {
    {"at"},     {"from"},   {"to"},      {"through"},  {"below"},   {"turned"}, {"side", one<RailSide>},
    {"radius"}, {"welded"}, {"riveted"}, {"bolted"},   {"planned"}, {"there"},  {"comes-out"},
    {"yield"},  {"note"},   {"box"},     {"channel"},  {"hat"},     {"tube"},   {"angle"},
    {"flat"},   {"nested"}, {"boxed"},   {"built-up"}, {"windows"}, {"pitch"},  {"whole"}};

} // namespace
} // namespace follows

namespace {

constexpr const char* member_example = "Like: member front crossmember at 300 box 60 40 3 below 10 riveted.";

/// "60", "-4", "1/8\"", "½", "3?": what else may stand there are words.
bool beginsAsFigure(const std::string& word) {
    for (const std::string_view first : {"0", "1", "2", "3", "4", "5", "6", "7", "8", "9", "-", "−", ".", "½", "¼", "¾"})
        if (word.starts_with(first)) return true;
    return false;
}

/// The row as it is, or a new one of that name.
template <class T> T rowOf(Reader& reader, const T* old, const std::string& name) {
    if (old) return *old;
    T row;
    row.id = reader.fresh<T>();
    row.name = name;
    return row;
}

/// How many figures follow the word of a form.
std::size_t figuresOf(SectionForm f) {
    switch (f) {
    case SectionForm::Tube:
    case SectionForm::Flat: return 2;
    case SectionForm::Hat:
    case SectionForm::Nested:
    case SectionForm::Boxed: return 4;
    default: return 3;
    }
}

} // namespace

/// The sizes of a section, as its form has them: "box 60 40 3".
void Reader::sectionOf(Member& m) {
    const Word said = line_.peek();
    m.form = oneOf<SectionForm>("the form of its section");
    m.height = m.width = m.wall = Dimension{};
    m.other.reset();
    m.walls_mm.clear();
    std::vector<Dimension> sizes;
    while (!line_.atEnd() && beginsAsFigure(line_.peek().text)) sizes.push_back(lengthWord("a size"));
    if (m.form == SectionForm::BuiltUp) {
        for (const Dimension& d : sizes) m.walls_mm.push_back(d.value);
        return; // what it lacks is said by the rules of a member
    }
    const std::size_t wanted = figuresOf(m.form);
    if (sizes.size() != wanted)
        throw Failure{line_.endColumn(),
                      fmt::format("A {} section has {} figures, and {} stand here.", word(m.form), wanted, sizes.size()),
                      m.form == SectionForm::Tube     ? "Diameter and wall: tube 48 3."
                      : m.form == SectionForm::Flat   ? "Width and thickness: flat 60 6."
                      : m.form == SectionForm::Hat    ? "Height, width, flange and wall: hat 60 80 20 2."
                      : m.form == SectionForm::Nested ? "Height, width, wall and overlap: nested 100 60 4 40."
                      : m.form == SectionForm::Boxed  ? "Height, width, wall and plate: boxed 100 50 4 3."
                                                      : fmt::format("Height, width and wall: {} 60 40 3.", word(m.form))};
    m.height = sizes[0];
    if (wanted == 2) {
        m.wall = sizes[1];
        return;
    }
    m.width = sizes[1];
    m.wall = m.form == SectionForm::Hat ? sizes[3] : sizes[2];
    if (wanted == 4) m.other = m.form == SectionForm::Hat ? sizes[2] : sizes[3];
}

void Reader::member() {
    const Word w = line_.next("the member's name");
    const Member* old = memberNamed(b_, w.text);
    Member m = rowOf(*this, old, w.text);
    if (!old && (line_.atEnd() || !fromWord<MemberKind>(line_.peek().text)))
        throw Failure{line_.endColumn(), "What it is is missing.",
                      fmt::format("It is a {}. {}", wordList<MemberKind>(), member_example)};
    if (!line_.atEnd() && fromWord<MemberKind>(line_.peek().text)) m.kind = oneOf<MemberKind>("what it is");
    // a plate has one figure of its own, and so has a rib that is flat
    const bool thick = m.kind == MemberKind::Plate || m.kind == MemberKind::Rib;
    if (m.kind == MemberKind::Plate || (!old && m.kind == MemberKind::Rib)) m.form = SectionForm::Flat;
    while (!line_.atEnd()) {
        const auto length = [&](const char* missing) {
            return figure(line_.upTo([&] { return stopsAt(follows::member_options); }), units::Kind::Length, missing);
        };
        if (follows::form(*this, &line_.peek())) {
            sectionOf(m);
        } else if (line_.take("at") || line_.take("from")) {
            m.station = length("its station");
            m.points.clear();
        } else if (line_.take("to")) {
            m.until = thick ? lengthWord("where it ends") : length("where it ends");
        } else if (line_.take("through")) {
            m.points.clear();
            SubjectId of = the_chassis; // or a piece that is joined to it, where its first point is one of that
            if (!line_.atEnd() && !pointNamed(b_, the_chassis, line_.peek().text))
                for (const auto& [id, g] : b_.grafts)
                    if (pointNamed(b_, g.piece, line_.peek().text)) of = g.piece;
            for (const Point* p : points(of)) m.points.push_back(p->id);
            if (m.points.size() < 2)
                throw Failure{line_.endColumn(),
                              "It runs through two points of the chassis at the least, or of a piece joined to it.",
                              member_example};
            m.station.reset();
            m.until.reset();
        } else if (line_.take("windows")) {
            m.window_long = lengthWord("how long a window is");
            m.window_high = lengthWord("how high it is");
        } else if (line_.take("whole")) {
            m.window_long.reset();
            m.window_high.reset();
            if (m.kind == MemberKind::Plate) m.pitch.reset();
        } else if (line_.take("pitch")) {
            m.pitch = length("how far from each other they are");
        } else if (line_.take("below")) {
            m.below = length("how far it stands under the rails' middle");
        } else if (line_.take("turned")) {
            m.turned_rad = figure(line_.next("the angle"), units::Kind::Angle, "the angle").value;
        } else if (line_.take("side")) {
            m.side = oneOf<RailSide>("which rail");
        } else if (line_.take("radius")) {
            m.radius = length("the radius");
        } else if (line_.take("yield")) {
            m.yield_MPa = Dimension{plainNumber("yield"), "", Provenance::Measured};
        } else if (line_.take("note")) {
            m.note = line_.rest().text;
        } else if (const auto joint = fromWord<Joint>(line_.peek().text)) {
            m.joint = oneOf<Joint>("how it is joined");
        } else if (const auto state = fromWord<MemberState>(line_.peek().text)) {
            m.state = oneOf<MemberState>("whether it is there");
        } else if (thick && beginsAsFigure(line_.peek().text)) {
            m.form = SectionForm::Flat;
            m.height = m.width = Dimension{};
            m.wall = lengthWord("how thick it is");
        } else {
            notKnownHere(member_example);
        }
    }
    put(Put<Member>{m});
    say(fmt::format("{} {}: {}{}", old ? "changed:" : "a member of the frame:", m.name, word(m.kind),
                    m.state == MemberState::There ? "" : fmt::format(", {}", word(m.state))));
}

void Reader::load() {
    const Word w = line_.next("what is carried");
    const Carried* old = carriedNamed(b_, w.text);
    Carried c = rowOf(*this, old, w.text);
    static constexpr std::string_view stops[] = {"at", "over", "stays", "moves", "with-body", "on-frame", "source"};
    const auto stop = [&] {
        return !line_.atEnd() && std::find(std::begin(stops), std::end(stops), line_.peek().text) != std::end(stops);
    };
    bool placed = old != nullptr;
    if (!line_.atEnd() && !stop()) c.mass = figure(line_.upTo(stop), units::Kind::Mass, "its mass");
    while (!line_.atEnd()) {
        if (line_.take("at")) {
            c.at = place3();
            placed = true;
        } else if (line_.take("over"))
            c.over = figure(line_.upTo(stop), units::Kind::Length, "the length over which it hangs");
        else if (line_.take("stays"))
            c.moves = false;
        else if (line_.take("moves"))
            c.moves = true;
        else if (line_.take("with-body"))
            c.with_body = true;
        else if (line_.take("on-frame"))
            c.with_body = false;
        else if (line_.take("source"))
            c.source = line_.rest().text;
        else
            notKnownHere("Like: load engine 180 kg at -50 0 350 over 400 source scales.");
    }
    if (c.mass.value <= 0)
        throw Failure{line_.endColumn(), "What it weighs is missing.", "Like: load engine 180 kg at -50 0 350."};
    if (!placed)
        throw Failure{line_.endColumn(), "Where its middle is is missing.",
                      fmt::format("Station, offset and height: load {} {:g} kg at 1200 0 400.", c.name, c.mass.value)};
    put(Put<Carried>{c});
    say(fmt::format("the frame carries {}: {:g} kg{}", c.name, c.mass.value,
                    c.mass.provenance == Provenance::Assumed ? " ?" : ""));
}

void Reader::loadCase() {
    const Word w = line_.next("the case's name");
    const LoadCase* old = loadCaseNamed(b_, w.text);
    LoadCase c = rowOf(*this, old, w.text);
    if (!old) // a usual one that is changed keeps what is not said of it
        for (const LoadCase& usual : usualCases())
            if (usual.name == c.name) {
                const LoadCaseId id = c.id;
                c = usual;
                c.id = id;
            }
    if (line_.atEnd())
        throw Failure{line_.endColumn(), "How it is loaded is missing.",
                      "Like: case pothole up 4 braking 0.5, or: case bump off."};
    c.left_out = false;
    while (!line_.atEnd()) {
        if (line_.take("up"))
            c.up_g = signedNumber("times its weight");
        else if (line_.take("braking"))
            c.braking_g = signedNumber("times its weight");
        else if (line_.take("cornering"))
            c.cornering_g = signedNumber("times its weight");
        else if (line_.take("lifted"))
            c.lifted = oneOf<Lifted>("the wheel in the air");
        else if (line_.take("off"))
            c.left_out = true;
        else
            notKnownHere("Like: case pothole up 4 braking 0.5 lifted rear-left, or: case bump off.");
    }
    put(Put<LoadCase>{c});
    say(c.left_out ? fmt::format("the load case {} is left out", c.name)
                   : fmt::format("load case {}: {:g} g down, {:g} g braking, {:g} g cornering{}", c.name, c.up_g, c.braking_g,
                                 c.cornering_g, c.lifted == Lifted::None ? "" : fmt::format(", {} in the air", word(c.lifted))));
}

void Reader::frameFact() {
    FrameFacts f = b_.frame_facts;
    const bool wanted = command_ == "twist-wanted";
    if ((command_ == "body-twist" || wanted) && line_.take("none")) {
        (wanted ? f.twist_wanted : f.body_twist).reset();
        put(Set<FrameFacts>{f});
        return say(wanted ? "no stiffness is asked of the frame" : "the body's own stiffness is left out");
    }
    const bool front = command_ == "wheel-rate" && line_.take("front");
    if (command_ == "wheel-rate" && !front && !line_.take("rear"))
        throw Failure{line_.endColumn(), "Front or rear?", "Like: wheel-rate front 28."};
    Dimension d{signedNumber("the figure"), "", Provenance::Measured};
    if (line_.take("?")) d.provenance = Provenance::Assumed;
    (command_ == "yield"        ? f.yield_MPa
     : command_ == "mount-rate" ? f.mount_rate
     : front                    ? f.front_rate
     : command_ == "wheel-rate" ? f.rear_rate
     : wanted                   ? f.twist_wanted.emplace()
                                : f.body_twist.emplace()) = d;
    put(Set<FrameFacts>{f});
    say(fmt::format("{}{} {:g} {}", command_, command_ == "wheel-rate" ? (front ? " front" : " rear") : "", d.value,
                    command_ == "yield"                  ? "MPa"
                    : command_ == "body-twist" || wanted ? "N·m/deg"
                                                         : "N/mm"));
}

void Reader::springs() {
    FrameFacts f = b_.frame_facts;
    const auto end = oneOf<AxleEnd>("which axle");
    (end == AxleEnd::Front ? f.front_springs : f.rear_springs) = oneOf<Springs>("how its springs bear on the frame");
    const Springs s = end == AxleEnd::Front ? f.front_springs : f.rear_springs;
    put(Set<FrameFacts>{f});
    say(fmt::format("{} springs: {}", word(end),
                    s == Springs::Leaf    ? "leaf, hung ahead of the axle and behind it"
                    : s == Springs::Other ? "other, bearing at the suspension point nearest to the axle"
                                          : "unsaid"));
}

void Reader::removeMember(const Word&) { removeNamed(b_.members, "member"); }
void Reader::removeLoad(const Word&) { removeNamed(b_.carried, "load"); }
void Reader::removeCase(const Word&) { removeNamed(b_.load_cases, "case"); }

} // namespace gorvet::entry
