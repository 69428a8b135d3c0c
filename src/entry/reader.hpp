#pragma once

#include "build/part_kinds.hpp"
#include "entry/entry.hpp"
#include "entry/line.hpp"

#include <functional>

#include <fmt/format.h>

/// The reader of one line. Its commands stand in one file a bench (read_tape.cpp, …). Internal to this room.
namespace gorvet::entry {

using namespace build;

class Reader;
/// A word that begins what is said of a row, and whether what follows it is as it has it (`next` nullptr: nothing follows). In a
/// text it is a plain word otherwise. Without `fits` it always begins.
struct Option {
    std::string_view word;
    bool (*fits)(const Reader&, const Word* next) = nullptr;
};
namespace follows {
bool figure(const Reader&, const Word*);
bool date(const Reader&, const Word*);
bool step(const Reader&, const Word*);
template <class E> bool one(const Reader&, const Word* next) { return next && fromWord<E>(next->text); }
} // namespace follows

class Reader {
public:
    Reader(const Build& b, const Context& context, std::string_view text) : b_(b), context_(context), line_(text) {
        next_id_ = b.next_id;
    }

    /// Throws Failure.
    Understood read();

    // all of it is this room's: the tables of commands call it
    template <class T> Id<T> fresh() { return Id<T>{next_id_++}; }
    void put(Change change) { out_.edit.changes.push_back(std::move(change)); }
    void say(std::string sentence) {
        out_.edit.sentence = sentence;
        out_.echo = std::move(sentence);
    }
    units::Unit lengthUnit() const { return units::unitOf(b_.settings.length_step); }

    // ---- figures

    Dimension figure(const Word& typed, units::Kind kind, const char* missing) {
        std::string text = typed.text;
        Dimension d;
        d.provenance = Provenance::Measured;
        while (!text.empty() && (text.back() == ' ' || text.back() == '?')) {
            if (text.back() == '?') d.provenance = Provenance::Assumed;
            text.pop_back();
        }
        if (text.empty()) throw Failure{typed.column, std::string(missing) + " is missing.", ""};
        auto parsed = units::parse(text, kind, kind == units::Kind::Angle ? units::Unit::Degree : lengthUnit());
        if (!parsed) {
            const Error& e = parsed.error();
            throw Failure{typed.column + std::max(0, e.column), e.message, e.remedy};
        }
        d.value = parsed->value;
        d.typed = parsed->typed;
        if (!parsed->remark.empty()) out_.remark = parsed->remark;
        return d;
    }
    /// One length that may hold blanks, up to a stop word or the end.
    Dimension lengthUpTo(std::initializer_list<std::string_view> stops, const char* missing) {
        return figure(line_.upTo(stops), units::Kind::Length, missing);
    }
    /// Two stations, two offsets, two heights: a box, its corners put in order.
    std::pair<Vec3, Vec3> box6();
    /// One length of a single word.
    Dimension lengthWord(const char* missing) { return figure(line_.next(missing), units::Kind::Length, missing); }
    std::string show(const Dimension& d) const {
        return units::formatLength(d.value, b_.settings.length_step, true) + (d.provenance == Provenance::Assumed ? " ?" : "");
    }
    std::string showAngle(const Dimension& d) const {
        return units::formatAngle(d.value) + (d.provenance == Provenance::Assumed ? " ?" : "");
    }

    template <class E> E oneOf(const char* missing) {
        const Word w = line_.next(missing);
        const auto value = fromWord<E>(w.text);
        if (!value) throw Failure{w.column, fmt::format("\"{}\" is not known here.", w.text), "Type " + wordList<E>() + "."};
        return *value;
    }

    /// The next word as the name of a subject.
    SubjectId subjectNext() {
        const Word w = line_.next("the subject");
        if (const Subject* s = subjectNamed(b_, w.text)) return s->id;
        std::string all;
        for (const auto& [id, s] : b_.subjects) all += (all.empty() ? "" : ", ") + s.name;
        throw Failure{
            w.column, fmt::format("There is no subject {}.", w.text),
            fmt::format("There are {}. A new one says what it is: subject {} candidate, component or as-built.", all, w.text)};
    }

    /// Drops the row that the next word names, of those that count.
    template <class T, class Counts = bool (*)(const T&)>
    void removeNamed(
        const Rows<T>& rows, const char* kind, Counts counts = [](const T&) { return true; }) {
        const Word name = line_.next("its name");
        for (const auto& [id, row] : rows)
            if (row.name == name.text && counts(row)) {
                put(Drop<T>{id});
                return say(fmt::format("remove the {} {}", kind, name.text));
            }
        throw Failure{name.column, fmt::format("There is no {} {}.", kind, name.text), ""};
    }

    // ---- points

    const Point& known(SubjectId subject, const Word& w) const {
        const Point* p = pointNamed(b_, subject, w.text);
        if (!p) unknown(subject, w, false);
        return *p;
    }
    /// Says that a word is no point of the subject, nor a command where one could stand, and what it may have been meant as.
    [[noreturn]] void unknown(SubjectId subject, const Word&, bool may_be_command) const;
    /// The next words as long as they name points.
    std::vector<const Point*> points(SubjectId subject) {
        std::vector<const Point*> list;
        while (!line_.atEnd())
            if (const Point* p = pointNamed(b_, subject, line_.peek().text)) {
                list.push_back(p);
                line_.next("a point");
            } else {
                break;
            }
        return list;
    }
    /// Left, then right point of a role on the body, as far as there are any.
    std::vector<PointId> withRole(SubjectId subject, Role role) const {
        std::vector<PointId> list;
        for (const Side side : {Side::Left, Side::Right, Side::None})
            for (const auto& [id, p] : b_.points)
                if (p.subject == subject && p.role == role && sideOf(p.name) == side) list.push_back(id);
        return list;
    }
    std::vector<PointId> needRole(Role role) const {
        auto list = withRole(the_body, role);
        if (list.empty())
            throw Failure{0, fmt::format("No point of the body has the role {}.", word(role)),
                          fmt::format("Give one the role on Tape: role NAME {}.", word(role))};
        return list;
    }

    // tape
    void point();
    void role();
    void hold();
    void session();
    SessionId session(SubjectId subject);
    void reading(ReadingKind kind, bool retape, bool assumed = false);
    void remove();
    void rename();
    void removeSetUp(const Word&);
    void removeGap(const Word&);
    void removeHold(const Word&);
    void setup();
    void want();
    void gauge();
    void reach();
    void gap();
    void toe();
    void camber();
    void sweep();
    void ride();
    void weight();
    void runOut();
    // what the survey stands on
    void instrument();
    void blocked();
    void datum();
    void drawing();
    void assume();
    void coordinates(bool assumed);
    /// The instrument that a reading names (`with NAME`), or the newest one that takes its kind.
    InstrumentId instrumentFor(ReadingKind);
    void removeSubject(const Word&);
    void removeSession(const Word&);
    void removeInstrument(const Word&);
    void removeObstacle(const Word&);
    void removeDrawing(const Word&);
    void removeFlaw(const Word&);
    // what was found, and practice
    void found();
    void rate();
    void answer();
    void handIn();
    /// What was read at the wheel that comes next in the line.
    WheelReadings wheel();
    /// An angle with the word out or in: > 0 out.
    Dimension lean(const char* missing);
    /// The set-up that a reading says, or the newest one it can be from.
    SetUpId setupFor(ReadingKind);
    // sit
    void rail();
    void axleHeight();
    /// Adds the pin, or changes the one of the same kind on the same points.
    void keepPin(Pin p);
    double tolerance(double standard, units::Kind kind = units::Kind::Length, std::initializer_list<std::string_view> stops = {});
    std::string pointList(const std::vector<PointId>& ids) const;
    void pin();
    void finishPin(Pin p);
    void hinge();
    void sill();
    void arch();
    void centred();
    /// A point of either subject: `body:NAME` or `chassis:NAME`, or a bare name, looked for on the body first. Nothing when none
    /// has it.
    const Point* featurePoint(const std::string& text) const;
    /// The next words as long as they name such points.
    std::vector<PointId> feature();
    void betweenFeatures(Pin p);
    void travel();
    void seating();
    void school();
    void lower();
    void removePin(const Word&);
    void removeSeating(const Word&);
    // scans
    void scan();
    void zone();
    void clearance();
    void swing();
    void cutLine();
    Vec3 place3();
    void removeScan(const Word&);
    void removeZone(const Word&);
    void removeCutLine(const Word&);
    void removeSwing(const Word&);
    void removePairRule(const Word&);
    // stretch
    void cut();
    void change();
    void stretchFigure();
    void joint();
    void crossing();
    void sayOfCrossing(Crossing&);
    void removeCrossing(const Word&);
    // the frame as it carries
    void member();
    void sectionOf(Member&);
    void load();
    void loadCase();
    void frameFact();
    void springs();
    void removeMember(const Word&);
    void removeLoad(const Word&);
    void removeCase(const Word&);
    // an axle made narrower or wider
    void track();
    void removeTrack(const Word&);
    // a piece of another frame
    void graft();
    void graftPin(const Graft&);
    void removeGraft(const Word&);
    // how wide the chassis is, and rails let into a shell
    void narrow();
    void removeNarrow(const Word&);
    /// The point of that name on `first`, else on the body, else on the chassis; nullptr when there is none.
    const Point* pointOfEither(const Word&, SubjectId first) const;
    void floorEdge();
    void removeFloorEdge(const Word&);
    void letIn();
    void sayEngage(LetIn&, const std::function<Dimension(const char*)>& length);
    void removeLetIn(const Word&);
    void railHole();
    void removeRailHole(const Word&);
    // what drives the wheels and carries them
    void driveEnd();
    void removeDriveEnd(const Word&);
    void shaft();
    void removeShaft(const Word&);
    void levelOn();
    void removeLevels(const Word&);
    void turns();
    void removeTurns(const Word&);
    void link();
    void removeLink(const Word&);
    void driveFacts();
    void rim();
    void removeRim(const Word&);
    void hub();
    void removeHub(const Word&);
    void wheelRoom();
    void removeWheelRoom(const Word&);
    void dialTurn();
    void removeDialTurn(const Word&);
    void widen();
    void removeWidening(const Word&);
    void adaptor();
    void removeAdaptor(const Word&);
    void axleSeat();
    void removeAxleSeat(const Word&);
    void axleBracket();
    void removeAxleBracket(const Word&);
    void tacked();
    void removeTacked(const Word&);
    void gears();
    void removeGears(const Word&);
    /// The row of an axle's end.
    template <class T> void removeOfEnd(const T* (*of)(const Build&, AxleEnd), const char* what) {
        const AxleEnd end = oneOf<AxleEnd>("front or rear");
        const T* row = of(b_, end);
        if (!row) throw Failure{line_.endColumn(), fmt::format("There is no {} {}.", what, word(end)), ""};
        put(Drop<T>{row->id});
        say(fmt::format("forget the {} {}", what, word(end)));
    }
    void steeringColumn();
    void removeSteeringColumn(const Word&);
    void steeringGear();
    void removeSteeringGear(const Word&);
    void pipeRun();
    void removePipeRun(const Word&);
    /// The next words, up to one of these, as points of the chassis or the body.
    template <std::size_t N> std::vector<PointId> carPoints(const std::string_view (&words)[N], const char* missing);
    void spring();
    void removeSpring(const Word&);
    void axleLifted();
    void removeAxleLifted(const Word&);
    void linkHoles();
    void removeLinkHoles(const Word&);
    void brake();
    void removeBrake(const Word&);
    void pedal();
    void removePedal(const Word&);
    /// A plain figure, of no unit; with a question mark it is assumed.
    Dimension countNext(const char* missing);
    // what the frame rests on
    void stand();
    void removeStand(const Word&);
    // make
    void steelPart();
    void removeSteelPart(const Word&);
    void fixture();
    void removeFixture(const Word&);
    /// The one that is named next; else the newest.
    const Fixture& fixtureMeant(bool named);
    void tower();
    void removeTower(const Word&);
    void frameMetal();
    void issue();
    void removeIssue(const Word&);
    /// The next words as a figure of a part, within its range.
    Dimension partFigure(const PartFigureKind&);
    void mount();
    void biscuit();
    void mountFigure();
    void grip();
    Crossmember needCrossmember() const;
    void crossmember();
    void crossmemberFigure();
    void padHoles();
    void box();
    void panClearance();
    void removeCrossmember(const Word&);
    void removeMount(const Word&);
    // work
    const StepState& step(const Word& w) const;
    const StepState& stepOrNext();
    bool countsAsCheck(ReadingKind, PointId from, PointId to, const Dimension& value);
    const StepState& stepAsking() const;
    const TemporarySteel& temporary(const Word& w) const;
    void done();
    void undone();
    void check();
    void brace();
    void presence();
    void standing();
    void removeBrace(const Word&);
    std::vector<double> oneOrThree(const char* what);
    double plainNumber(const char* what) { return oneOrThree(what).front(); }
    std::string dateNext();
    std::vector<std::string> stepsUpTo(std::span<const Option> options, const std::string& of);
    bool knownStep(const std::string& name) const;
    /// Whether the next word is one of these options, and what follows it is as the option has it.
    bool stopsAt(std::span<const Option>) const;
    /// A text up to the next option: "wax the inside of the sill" goes on behind "inside" where nothing is done inside a space.
    std::string textUpTo(std::span<const Option> options) {
        return line_.upTo([&] { return stopsAt(options); }).text;
    }
    [[noreturn]] void notKnownHere(const char* remedy) const {
        throw Failure{line_.peek().column, fmt::format("\"{}\" is not known here.", line_.peek().text), remedy};
    }
    /// The step or job that the next word names, as it was typed; said where this build has none of it yet.
    std::string stepNext(const char* missing);
    static std::string quotedTitle(const StepState&);
    void renameJob();
    void job();
    void splitJob();
    void repeatJob();
    void failed();
    void readyList();
    void await();
    void tag();
    std::vector<Release> tagged();
    void tagState();
    void openRow();
    void removeJob(const Word&);
    void removeTag(const Word&);
    void removeAwaited(const Word&);
    // time
    void hours();
    void worked();
    void shop();
    void off();
    void removeHours(const Word&);
    void removeWorked(const Word&);
    void removeOff(const Word&);
    // lifts
    void lift();
    void leg();
    const Lift& liftNext();
    void removeLift(const Word&);
    void removeLeg(const Word&);
    // rust and coats, permits
    void surface();
    void coat();
    void bared();
    void coated();
    void coatJobs();
    const Surface& surfaceNext();
    void removeSurface(const Word&);
    void removeCoat(const Word&);
    const Permit* openPermit(const std::string& step) const;
    void permit();
    void sparksOut();
    void watched();
    // whom it belongs to
    void decide();
    void choice();
    void agreed();
    void strike();
    const Decision& decisionNext();
    void changeOrder();
    double signedNumber(const char* what);
    // photos, steel on the shelf
    void photo();
    void strikePhoto();
    void photosFollow(const std::pair<std::string, std::string>& from_to);
    const Photo& photoNext();
    void stock();
    void cutOff();
    void removeStock(const Word&);
    // build
    void settings(const std::function<void(Settings&)>& change, std::string sentence);
    void name();
    void frame();
    void paper();
    void tolerance();
    void show();
    void subject();

    const Build& b_;
    const Context& context_;
    Line line_;
    Understood out_;
    std::string command_;
    std::uint32_t next_id_ = 1;
};

} // namespace gorvet::entry
