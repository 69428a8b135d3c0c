// What holds for every table and part of the document, whatever they will be: driven by the schema itself.
#include "build/any_row.hpp"
#include "build/describe.hpp"
#include "build/edit.hpp"
#include "build/gate.hpp"

#include <catch2/catch.hpp>
#include <fstream>
#include <limits>
#include <set>
#include <sstream>

#include <fmt/format.h>

namespace build_document_test {

using namespace gorvet;
using namespace gorvet::build;

namespace {

constexpr int kinds = [] {
    int count = 0;
    []<class... T>(Types<T...>, int& n) { n = sizeof...(T); }(Document{}, count);
    return count;
}();

/// Calls f.template operator()<T>() for the n-th of the document.
template <class F> void forKind(int n, F&& f) {
    int at = 0;
    eachOfDocument([&]<class T>() {
        if (at++ == n) f.template operator()<T>();
    });
}

/// What hangs on a subject of its own is mostly given one that is there: by chance alone it would hardly ever be let in.
/// Through points that are there.
std::vector<PointId> pointsOf(const Build& b, SubjectId subject) {
    std::vector<PointId> found;
    for (const auto& [id, p] : b.points)
        if (p.subject == subject) found.push_back(id);
    return found;
}
FloorEdge joined(test::AnyRow& any, const Build& b, FloorEdge e) {
    const auto of_chassis = pointsOf(b, the_chassis), of_body = pointsOf(b, the_body);
    if (of_chassis.size() < 2) return e;
    e.edge = {of_chassis[0], of_chassis[1]};
    e.sill = of_body.size() > 1 && any.oneIn(2) ? std::vector{of_body[0], of_body[1]} : e.edge;
    if (!any.oneIn(4)) {
        e.height.value = e.width.value = e.wall.value = 0;
        e.pitch.reset();
    }
    return e;
}
LetIn joined(test::AnyRow&, const Build& b, LetIn l) {
    const auto points = pointsOf(b, the_chassis);
    if (points.size() < 3) return l;
    l.front = points[0];
    l.rear = points[1];
    l.front_along = points[2];
    l.rear_along = {};
    for (Dimension* d :
         {&l.height, &l.width, &l.wall, &l.leg_height, &l.leg_width, &l.leg_wall, &l.tail_height, &l.tail_width, &l.tail_wall})
        d->value = 0;
    return l;
}

std::vector<PointId> someOfChassis(test::AnyRow& any, const Build& b, std::size_t count) {
    std::vector<PointId> all;
    for (const auto& [id, p] : b.points)
        if (p.subject == the_chassis) all.push_back(id);
    while (all.size() > count) all.erase(all.begin() + any.below(static_cast<int>(all.size())));
    return all;
}

/// Ends, shafts, levels and links as their rules want them.
void driving(test::AnyRow& any, const Build& b, DriveEnd& e) {
    e.fore = e.aft = {};
    e.point = {};
    if (const auto points = someOfChassis(any, b, 1); any.oneIn(2) && !points.empty()) e.point = points.front();
    if (!e.point) e.station = e.up = Dimension{300, "", Provenance::Measured};
}
void driving(test::AnyRow& any, const Build& b, Shaft& s) {
    std::vector<DriveEndId> begin, end;
    for (const auto& [id, e] : b.drive_ends) {
        if (e.kind == DriveEndKind::Output || e.kind == DriveEndKind::Through || e.kind == DriveEndKind::Bearing)
            begin.push_back(id);
        if (e.kind == DriveEndKind::Input || e.kind == DriveEndKind::Pinion) end.push_back(id);
    }
    if (begin.empty() || end.empty()) return;
    s.from = begin[static_cast<std::size_t>(any.below(static_cast<int>(begin.size())))];
    s.to = end[static_cast<std::size_t>(any.below(static_cast<int>(end.size())))];
    s.tube = s.wall = {};
}
void driving(test::AnyRow& any, const Build& b, LevelReading& l) {
    l.end = {};
    l.shaft = {};
    l.on = LevelOn::Frame;
    if (!b.drive_ends.empty() && any.oneIn(2)) {
        l.on = LevelOn::Unit;
        l.end = b.drive_ends.begin()->first;
    }
}
void driving(test::AnyRow& any, const Build& b, Link& l) {
    l.kind = any.oneIn(2) ? LinkKind::Rod : LinkKind::TieRod;
    l.points = someOfChassis(any, b, 2);
}

/// Wheels and what stands beside them as their rules want them.
void driving(test::AnyRow&, const Build&, WheelSet& w) {
    w.width.value = 150;
    w.diameter.value = 381;
    w.over_lips = w.inside = w.outside = w.chord = w.studs = w.aspect = std::nullopt;
    w.next_but_one = false;
}
void driving(test::AnyRow&, const Build&, Hub& h) {
    h.studs = h.chord = std::nullopt;
    h.next_but_one = false;
}
void driving(test::AnyRow& any, const Build& b, WheelRoom& r) {
    r.point = {};
    r.out = r.up = Dimension{120, "", Provenance::Measured};
    if (const auto points = someOfChassis(any, b, 1); any.oneIn(2) && !points.empty()) {
        r.point = points.front();
        r.on = RoomOn::Frame;
        r.out = r.up = r.ahead = std::nullopt;
    }
}
void driving(test::AnyRow&, const Build&, DialTurn& t) { t.readings = {0, 0.2, 0.1, -0.1}; }
void driving(test::AnyRow&, const Build&, Widening& w) { w.sheet.value = 3; }
void driving(test::AnyRow&, const Build&, Adaptor& a) {
    a.nut_across = std::nullopt;
    a.nut_deep.value = 0;
}

void driving(test::AnyRow& any, const Build& b, AxleBracket& a) {
    a.point = a.frame = {};
    a.right = a.up = Dimension{120, "", Provenance::Measured};
    a.closed = a.open = std::nullopt;
    if (const auto points = someOfChassis(any, b, 1); any.oneIn(2) && !points.empty()) {
        a.point = points.front();
        a.right = a.ahead = a.up = std::nullopt;
    }
}
void driving(test::AnyRow&, const Build&, GearReading& g) {
    g.axle = Carrier::Rear;
    g.readings = {0.1, 0.2};
    g.least = g.most = std::nullopt;
}

/// Steering, springs, brakes.
void driving(test::AnyRow& any, const Build& b, SteeringColumn& c) {
    c.points = someOfChassis(any, b, 4);
    c.phases.clear();
    if (c.points.size() == 4 && any.oneIn(2)) c.phases = {0.3};
    c.bulkhead.clear();
    c.bearings = someOfChassis(any, b, any.below(2));
}
void driving(test::AnyRow& any, const Build& b, SteeringGear& g) {
    g.holes = any.oneIn(2) ? someOfChassis(any, b, 3) : std::vector<PointId>{};
    if (g.holes.size() < 2) g.holes.clear();
    g.pivot = g.ball = {};
    g.swing = g.each_way = std::nullopt;
}
void driving(test::AnyRow& any, const Build& b, Run& r) {
    r.points = someOfChassis(any, b, 2);
    if (r.points.size() < 2) r.length.reset();
}
void driving(test::AnyRow& any, const Build& b, SteelPart& p) {
    p.at = someOfChassis(any, b, 3);
    if (p.pinned.size() != p.at.size()) p.pinned.clear();
    for (auto* list : {&p.figures, &p.made})
        if (list->size() > 1) list->resize(1);
}
void driving(test::AnyRow&, const Build&, Fixture& f) {
    f.along = 60;
    f.across = 30;
    f.pitch.value = 50;
    f.hole.value = 16;
    f.tower_least.value = 150;
    f.tower_most.value = 800;
}
void driving(test::AnyRow& any, const Build& b, FixtureTower& t) {
    for (const auto& [id, f] : b.fixtures)
        if (!t.fixture || any.oneIn(2)) t.fixture = id;
    if (const auto points = someOfChassis(any, b, 1); !points.empty()) t.point = points.front();
    t.pull = {0, 0, 2};
}
void driving(test::AnyRow& any, const Build& b, Spring& s) {
    s.form = any.oneIn(2) ? SpringForm::Coil : SpringForm::Torsion;
    s.on = {};
    s.foot = s.top = {};
    (s.form == SpringForm::Coil ? s.bar : s.rate).reset();
    if (s.form == SpringForm::Coil) s.length = s.arm = std::nullopt;
    s.inside.reset();
    if (!s.stop) s.stop_rate.reset();
    if (const auto points = someOfChassis(any, b, 2); points.size() == 2) {
        s.foot = points[0];
        s.top = points[1];
    }
}
void driving(test::AnyRow& any, const Build& b, LinkHoles& h) {
    for (const auto& [id, l] : b.links)
        if (l.kind == LinkKind::Rod && (!h.link || any.oneIn(2))) h.link = id;
    h.above.value = any.below(3);
    h.below.value = 1;
    h.hole.reset();
}
void driving(test::AnyRow&, const Build&, Pedal& p) { p.arm.reset(); }

template <class T> void fitting(test::AnyRow& any, const Build& b, T& row) {
    const auto other = [&] {
        SubjectId found;
        for (const auto& [id, s] : b.subjects)
            if (id != the_body && id != the_chassis) found = id;
        return found;
    };
    if constexpr (std::is_same_v<T, Graft>)
        if (other() && !any.oneIn(4)) row.piece = other();
    if constexpr (std::is_same_v<T, Point>)
        if (other() && any.oneIn(4)) row.subject = other();
    if constexpr (std::is_same_v<T, FloorEdge> || std::is_same_v<T, LetIn>)
        if (!any.oneIn(4)) row = joined(any, b, std::move(row));
    if constexpr (requires { driving(any, b, row); })
        if (!any.oneIn(4)) driving(any, b, row);
    if constexpr (std::is_same_v<T, RailHole>)
        if (!any.oneIn(4) && (row.fate == HoleFate::Move) != row.moved_to.has_value())
            row.moved_to = row.fate == HoleFate::Move ? std::optional(Dimension{1400, "", Provenance::Measured}) : std::nullopt;
    if constexpr (std::is_same_v<T, GraftPin>)
        if (!b.grafts.empty() && !any.oneIn(4)) {
            const auto& [id, graft] = *std::next(b.grafts.begin(), any.below(static_cast<int>(b.grafts.size())));
            row.graft = id;
            row.points.clear();
            for (const auto& [point, p] : b.points)
                if (p.subject == graft.piece && row.points.size() < 2) row.points.push_back(point);
        }
}

/// Something done to a table or a part of that kind: a row put or dropped, a part set.
Change anyChange(test::AnyRow& any, int kind, const Build* b = nullptr) {
    Change change;
    forKind(kind, [&]<class T>() {
        if constexpr (is_row<T>) {
            if (any.oneIn(4))
                change = Drop<T>{Id<T>{1 + static_cast<std::uint32_t>(any.below(static_cast<int>(any.most_id)))}};
            else {
                T row = any.template make<T>();
                if (b) fitting(any, *b, row);
                change = Put<T>{std::move(row)};
            }
        } else {
            if (std::is_same_v<Held<T>, std::optional<T>> && any.oneIn(4))
                change = Set<Held<T>>{};
            else
                change = Set<Held<T>>{any.template make<T>()};
        }
    });
    return change;
}

std::string read(const std::string& path) {
    std::ifstream in(path);
    std::stringstream text;
    text << in.rdbuf();
    return text.str();
}

} // namespace

TEST_CASE("every kind of change: refused and nothing changed, or taken, and its inverse gives the build back",
          "[build][property]") {
    std::vector<int> taken(kinds);
    std::vector<int> refused(kinds);
    const char* more = std::getenv("GORVET_SEEDS");
    for (unsigned seed = 1; seed <= (more ? static_cast<unsigned>(std::atoi(more)) : 400U); ++seed) {
        test::AnyRow any(seed);
        Build b;
        Practice practice; // answers are given to a practice frame only
        practice.on = true;
        REQUIRE(enact(b, Change{Set<Practice>{practice}}));
        for (int i = 0; i < 60 * kinds; ++i) {
            // points first: nearly everything hangs on them
            const int kind = i < 200 ? 1 + any.below(3) : any.below(kinds);
            const Change change = anyChange(any, kind, &b);
            // two million of them: a message is made where one fails, never before
            const auto must = [&](bool held, const char* what, const std::string& why = {}) {
                if (!held) FAIL(what << ": seed " << seed << ", change " << i << " of kind " << kind << ". " << why);
            };
            const auto might = wouldEnact(b, change);
            const bool acceptable_too = static_cast<bool>(acceptable(change));
            const Build before = b;
            auto inverse = enact(b, change);
            must(static_cast<bool>(might) == static_cast<bool>(inverse), "asked and done differ");
            if (!inverse) {
                must(might.error().text() == inverse.error().text(), "refused for two reasons");
                must(!inverse.error().message.empty(), "refused without a word");
                must(b == before, "refused, and changed");
                ++refused[static_cast<size_t>(kind)];
                continue;
            }
            ++taken[static_cast<size_t>(kind)];
            Build undone = b;
            must(static_cast<bool>(enact(undone, *inverse)), "not to be undone");
            undone.next_id = before.next_id; // grows only
            must(undone == before, "undone, and not as before");
            if (!acceptable_too || any.oneIn(6)) b = before; // the gate would not have let it in
            if (any.oneIn(50)) {
                const auto sound = consistent(b);
                must(static_cast<bool>(sound), "not consistent", sound ? std::string() : sound.error().text());
                if (!any.oneIn(4)) continue; // most of the time goes here, and a round of its own is below
                const auto back = buildFromJson(*buildToJson(b));
                must(static_cast<bool>(back), "not read back");
                must(*back == b, "read back otherwise");
            }
        }
    }
    // no kind may slip out of this test
    for (int kind = 0; kind < kinds; ++kind)
        forKind(kind, [&]<class T>() {
            INFO(Schema<T>::table.name);
            CHECK(taken[static_cast<size_t>(kind)] > 20);
            if (is_row<T>) CHECK(refused[static_cast<size_t>(kind)] > 20);
        });
}

TEST_CASE("every kind of change survives JSON", "[build][property]") {
    test::AnyRow any(7);
    for (int round = 0; round < 40; ++round) {
        std::vector<Change> changes;
        for (int kind = 0; kind < kinds; ++kind) changes.push_back(anyChange(any, kind));
        const auto text = changesToJson(changes);
        REQUIRE(text);
        const auto back = changesFromJson(*text);
        REQUIRE(back);
        REQUIRE(*back == changes);
    }
}

namespace {

/// Spoils one field after another of a row and asks whether the gate sees it. Counts what was spoilt.
template <class T, class Asked> int spoilEach(const T& sound, const Asked& seen) {
    int spoilt = 0;
    eachField<T>([&](const auto& f) {
        using V = typename std::remove_cvref_t<decltype(f)>::Value;
        const auto with = [&](auto value) {
            T row = sound;
            row.*(f.member) = value;
            INFO(f.name);
            CHECK(seen(row));
            ++spoilt;
        };
        const std::vector<double> wrong{std::numeric_limits<double>::quiet_NaN(), std::numeric_limits<double>::infinity(), 5e9,
                                        -5e9};
        if constexpr (std::is_same_v<V, double> || std::is_same_v<V, std::optional<double>>) {
            for (const double v : wrong) with(v);
        } else if constexpr (std::is_same_v<V, Dimension> || std::is_same_v<V, std::optional<Dimension>>) {
            for (const double v : wrong) with(Dimension{v, "", Provenance::Measured});
            with(Dimension{1, "\x1b[2J", Provenance::Measured});
        } else if constexpr (std::is_same_v<V, std::string>) {
            with(std::string("A\xFC"));
            with(std::string("A\x1b"));
            with(std::string(30'000, 'x'));
        } else if constexpr (IsId<V>::value) {
            with(V{4'000'000'000U});
        } else if constexpr (std::is_same_v<V, std::vector<Vec3>>) {
            with(V{{0, 0, 2e9}});
        } else if constexpr (std::is_same_v<V, Vec3> || std::is_same_v<V, std::optional<Vec3>>) {
            with(Vec3{0, std::numeric_limits<double>::infinity(), 0});
        }
    });
    return spoilt;
}

} // namespace

TEST_CASE("no figure outside its range, no text with hidden signs comes in, in any field of any kind", "[build][gate]") {
    int spoilt = 0;
    eachOfDocument([&]<class T>() {
        INFO(Schema<T>::table.name);
        test::AnyRow any(3);
        any.wild = 0;
        T sound{};
        const auto change = [](const T& row) {
            if constexpr (is_row<T>)
                return Change{Put<T>{row}};
            else
                return Change{Set<Held<T>>{row}};
        };
        int tries = 0;
        do sound = any.template make<T>();
        while (!acceptable(change(sound)) && ++tries < 2000);
        REQUIRE(acceptable(change(sound)));
        spoilt += spoilEach(sound, [&](const T& row) { return !acceptable(change(row)); });
    });
    CHECK(spoilt > 600);
}

TEST_CASE("tables, keys and fields have names of their own", "[build]") {
    std::set<std::string> tables;
    std::set<std::string> keys;
    std::set<std::pair<std::string, std::string>> fields;
    std::string last;
    for (const FieldLine& l : fieldLines()) {
        INFO(l.table << "." << l.field);
        if (l.table != last) {
            CHECK(tables.insert(l.table).second);
            CHECK(keys.insert(l.key).second);
        }
        last = l.table;
        CHECK(fields.emplace(l.table, l.field).second);
        CHECK(l.since >= 1);
        CHECK(l.since <= newestVersion());
    }
    CHECK(static_cast<int>(tables.size()) == kinds);
}

TEST_CASE("a file version that went out stays as it was: what comes later raises the version", "[build]") {
    // Each published version's fields stand in tests/fixtures/version-N.fields. A field or table that was added later and claims
    // an older version would be lost in silence by a program of that version.
    for (int version = 1; version < newestVersion(); ++version) {
        std::set<std::string> known;
        for (const FieldLine& l : fieldLines())
            if (l.since <= version) known.insert(l.table + "." + l.field);
        const std::string path = fmt::format("{}/tests/fixtures/version-{}.fields", GORVET_SOURCE_DIR, version);
        INFO(path);
        std::set<std::string> published;
        std::ifstream in(path);
        for (std::string line; std::getline(in, line);) published.insert(line);
        CHECK(published.size() > 50);
        CHECK(known == published);
    }
}

TEST_CASE("docs/file-format.md has the table that the schema makes (golden)", "[build][docs]") {
    const std::string path = std::string(GORVET_SOURCE_DIR) + "/docs/file-format.md";
    std::string text = read(path);
    const std::string begin = "<!-- fields: made from the schema -->\n";
    const std::string end = "<!-- end of fields -->\n";
    const auto from = text.find(begin);
    const auto to = text.find(end);
    REQUIRE(from != std::string::npos);
    REQUIRE(to != std::string::npos);
    const std::string made = fieldTable();
    if (std::getenv("GORVET_WRITE_GOLDEN")) {
        text.replace(from + begin.size(), to - from - begin.size(), made);
        std::ofstream(path) << text;
    }
    CHECK(text.substr(from + begin.size(), text.find(end) - from - begin.size()) == made);
    // what says the version by hand says the one that is
    CHECK(text.find(fmt::format("the file version, now **{}** |", newestVersion())) != std::string::npos);
    for (int version = 1; version <= newestVersion(); ++version)
        CHECK(text.find(fmt::format("\n| {} | ", version)) != std::string::npos);
    const std::string changes = read(std::string(GORVET_SOURCE_DIR) + "/CHANGELOG.md");
    CHECK(changes.find(fmt::format("\nFile version {}.\n", newestVersion())) != std::string::npos);
}

} // namespace build_document_test
