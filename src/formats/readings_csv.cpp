#include "formats/readings_csv.hpp"

#include "build/gate.hpp"
#include "formats/csv.hpp"

#include <algorithm>
#include <cmath>
#include <optional>

#include <fmt/format.h>

namespace gorvet::formats {
namespace {

using namespace build;

/// Unit words of the unit column.
struct ColumnUnit {
    std::string_view word;
    units::Kind kind;
    double factor; ///< to mm or rad
};
constexpr ColumnUnit column_units[] = {
    {"mm", units::Kind::Length, 1.0},
    {"cm", units::Kind::Length, 10.0},
    {"m", units::Kind::Length, 1000.0},
    {"in", units::Kind::Length, 25.4},
    {"ft", units::Kind::Length, 304.8},
    {"thou", units::Kind::Length, 0.0254},
    {"deg", units::Kind::Angle, units::pi / 180},
    {"rad", units::Kind::Angle, 1.0},
};

using Bad = BadCell;

class Importer {
public:
    Importer(const Build& build, SubjectId subject, SessionId session, const std::string& session_name)
        : scratch_(build), subject_(subject), session_(session) {
        if (!session_) {
            Session fresh;
            fresh.id = SessionId{scratch_.next_id};
            fresh.subject = subject;
            fresh.name = session_name;
            session_ = fresh.id;
            (void)keep(Put<Session>{fresh});
        }
    }

    void header(const CsvRecord& record) {
        for (size_t i = 0; i < record.fields.size(); ++i) columns_.emplace(trimmed(record.fields[i]), i);
    }
    bool hasColumns() const { return columns_.contains("kind") && columns_.contains("from") && columns_.contains("value"); }

    void line(const CsvRecord& record) {
        const size_t changes_before = out.edit.changes.size();
        try {
            if (record.unterminated) throw Bad{"", "", "A quotation mark is opened and never closed"};
            if (record.fields.size() > columns_.size())
                throw Bad{"", "",
                          fmt::format("There are {} columns, the header has {}; a value with a comma goes in quotes",
                                      record.fields.size(), columns_.size())};
            record_ = &record;
            oneLine();
        } catch (const Bad& bad) {
            // points that only this line brought are left out with it
            while (out.edit.changes.size() > changes_before) {
                if (const auto* put = out.edit.changes.back().as<Put<Point>>();
                    put && new_points_.erase(put->value.id) > 0) {
                    scratch_.points.erase(put->value.id);
                    --out.points;
                }
                if (const auto* put = out.edit.changes.back().as<Put<SetUp>>()) scratch_.setups.erase(put->value.id);
                if (const auto* put = out.edit.changes.back().as<Put<Instrument>>())
                    scratch_.instruments.erase(put->value.id);
                out.edit.changes.pop_back();
            }
            out.problems.push_back({record.line, bad.column, bad.text, bad.message});
        }
    }

    ReadReadings out;

private:
    std::string cell(const char* column) const {
        const auto found = columns_.find(column);
        return found == columns_.end() || found->second >= record_->fields.size()
                   ? std::string()
                   : csvText(trimmed(record_->fields[found->second]));
    }

    Result<void> keep(const Change& change) {
        if (auto done = admit(scratch_, change); !done) return done.error();
        out.edit.changes.push_back(change);
        return {};
    }
    void must(const Change& change) {
        if (auto ok = keep(change); !ok) throw Bad{"", ok.error().subject, ok.error().text()};
    }

    PointId pointFor(const char* column) {
        const std::string name = cell(column);
        if (name.empty()) throw Bad{column, "", "A point's name is missing"};
        if (const Point* known = pointNamed(scratch_, subject_, name)) return known->id;
        Point fresh;
        fresh.id = PointId{scratch_.next_id};
        fresh.subject = subject_;
        fresh.name = name;
        if (auto ok = keep(Put<Point>{fresh}); !ok) throw Bad{column, name, ok.error().text()};
        new_points_.insert({fresh.id, true});
        ++out.points;
        return fresh.id;
    }

    /// A set-up that is not known yet is made, of the kind that its first reading asks for.
    /// An instrument that is not known yet is made, of the kind that usually takes such readings.
    InstrumentId instrumentFor(ReadingKind kind) {
        const std::string name = cell("instrument");
        if (name.empty()) return {};
        if (const Instrument* known = instrumentNamed(scratch_, name)) {
            if (!takes(known->kind, kind))
                throw Bad{"instrument", name, fmt::format("A {} reading is not taken with a {}", word(kind), word(known->kind))};
            return known->id;
        }
        using enum InstrumentKind;
        for (const InstrumentKind fits :
             {InstrumentKind::Tape, HeightGauge, WaterLevel, Rule, DigitalLevel, SquareGauge, Scanner}) {
            if (!takes(fits, kind)) continue;
            Instrument fresh;
            fresh.id = InstrumentId{scratch_.next_id};
            fresh.name = name;
            fresh.kind = fits;
            if (auto ok = keep(Put<Instrument>{fresh}); !ok) throw Bad{"instrument", name, ok.error().text()};
            return fresh.id;
        }
        throw Bad{"instrument", name, fmt::format("No instrument takes a {} reading", word(kind))};
    }

    SetUpId setupFor(ReadingKind kind) {
        const std::string name = cell("setup");
        if (name.empty()) return {};
        const SetUp* known = setupNamed(scratch_, subject_, name);
        for (const SetUpKind fits : {SetUpKind::Plane, SetUpKind::String, SetUpKind::Tape}) {
            if (!readFrom(fits, kind)) continue;
            if (known && known->kind != fits)
                throw Bad{"setup", name, fmt::format("A {} reading is not read from a {}", word(kind), word(known->kind))};
            if (known) return known->id;
            SetUp fresh;
            fresh.id = SetUpId{scratch_.next_id};
            fresh.subject = subject_;
            fresh.name = name;
            fresh.kind = fits;
            if (auto ok = keep(Put<SetUp>{fresh}); !ok) throw Bad{"setup", name, ok.error().text()};
            return fresh.id;
        }
        throw Bad{"setup", name, fmt::format("A {} reading is read from no set-up", word(kind))};
    }

    const ColumnUnit* unitColumn(units::Kind kind) const {
        const std::string word = cell("unit");
        if (word.empty()) return nullptr;
        for (const ColumnUnit& unit : column_units)
            if (unit.word == word) {
                if (unit.kind != kind)
                    throw Bad{"unit", word,
                              kind == units::Kind::Angle ? "An angle is in deg or rad"
                                                         : "A length is in mm, cm, m, in, ft or thou"};
                return &unit;
            }
        throw Bad{"unit", word, "This unit is not known; use mm, cm, m, in, ft, thou, deg or rad"};
    }

    Dimension quantity(const std::string& text, units::Kind kind, const char* column) const {
        const ColumnUnit* unit = unitColumn(kind);
        const units::Unit bare_unit = kind == units::Kind::Angle ? units::Unit::Radian : units::Unit::Millimetre;
        const units::Unit build_unit =
            kind == units::Kind::Angle ? units::Unit::Degree : units::unitOf(scratch_.settings.length_step);
        auto parsed = units::parse(text, kind, unit ? bare_unit : build_unit);
        if (!parsed) {
            const Error& e = parsed.error();
            throw Bad{column, text,
                      e.column >= 0 && !text.empty() ? fmt::format("{} (character {})", e.text(), e.column + 1) : e.text()};
        }
        if (!unit) return {parsed->value, parsed->typed, Provenance::Measured};
        if (!parsed->bare) throw Bad{column, text, "The value carries a unit, and the unit column gives another"};
        return {parsed->value * unit->factor, unit->word == "mm" ? parsed->typed : parsed->typed + " " + std::string(unit->word),
                Provenance::Measured};
    }

    void oneLine() {
        const std::string kind = cell("kind");
        if (kind == "point") return roughPosition();
        if (kind == "hold-x" || kind == "hold-y" || kind == "hold-z") return hold(static_cast<Axis>(kind.back() - 'x'));
        const auto reading_kind = fromWord<ReadingKind>(kind);
        if (!reading_kind)
            throw Bad{"kind", kind,
                      fmt::format("This kind is not known; use {}, point, hold-x, hold-y or hold-z", wordList<ReadingKind>())};
        Reading r;
        r.kind = *reading_kind;
        r.session = session_;
        if (r.kind == ReadingKind::Symmetry)
            r.value = {0, "", Provenance::Assumed};
        else if (r.kind == ReadingKind::Coordinates)
            coordinates(r);
        else
            figure(r);
        r.note = cell("note");
        const bool has_to = !cell("to").empty();
        switch (secondPoint(r.kind)) {
        case SecondPoint::Needed:
            if (!has_to) throw Bad{"to", "", fmt::format("A {} reading needs a second point", kind)};
            break;
        case SecondPoint::None:
            if (has_to) throw Bad{"to", cell("to"), fmt::format("A {} reading has one point", kind)};
            break;
        case SecondPoint::Optional: break;
        }
        r.from = pointFor("from");
        if (has_to) r.to = pointFor("to");
        if (r.value.provenance != Provenance::Assumed) {
            r.setup = setupFor(r.kind);
            r.instrument = instrumentFor(r.kind);
        }
        r.id = ReadingId{scratch_.next_id};
        must(Put<Reading>{r});
        out.lines[r.id] = record_->line;
        ++out.readings;
    }

    /// A figure, as it stands in the value column; with a question mark it is assumed.
    void figure(Reading& r) {
        const units::Kind kind = isAngle(r.kind) ? units::Kind::Angle : units::Kind::Length;
        std::string value = cell("value");
        const bool assumed = value.ends_with('?');
        if (assumed) value.pop_back();
        r.value = quantity(trimmed(value), kind, "value");
        if (assumed) r.value.provenance = Provenance::Assumed;
        const std::string sigma = cell("sigma_mm");
        if (sigma.empty()) return;
        auto parsed = units::parse(sigma, kind, isAngle(r.kind) ? units::Unit::Degree : units::Unit::Millimetre);
        if (!parsed) throw Bad{"sigma_mm", sigma, parsed.error().text()};
        if (!(parsed->value > 0)) throw Bad{"sigma_mm", sigma, "σ must be above 0"};
        r.sigma = parsed->value;
    }

    /// "x y z" in the value column; σ one number, or the covariance xx xy xz yy yz zz in mm².
    void coordinates(Reading& r) {
        const std::string value = cell("value");
        const auto words = wordsOf(value);
        if (words.size() != 3) throw Bad{"value", value, "Coordinates are three numbers with blanks between: \"x y z\""};
        double xyz[3];
        for (size_t i = 0; i < 3; ++i) xyz[i] = quantity(words[i], units::Kind::Length, "value").value;
        r.at = Vec3{xyz[0], xyz[1], xyz[2]};
        r.value = {xyz[0], value, Provenance::Measured};
        const std::string sigma = cell("sigma_mm");
        const auto spread = wordsOf(sigma);
        if (spread.empty()) return;
        if (spread.size() != 1 && spread.size() != 6)
            throw Bad{"sigma_mm", sigma, "σ of coordinates is one number, or six: xx xy xz yy yz zz in mm²"};
        std::vector<double> numbers;
        for (const std::string& w : spread) {
            auto parsed = units::parse(w, units::Kind::Length, units::Unit::Millimetre);
            if (!parsed) throw Bad{"sigma_mm", sigma, parsed.error().text()};
            numbers.push_back(parsed->value);
        }
        if (spread.size() == 6) {
            r.covariance_mm2 = numbers;
        } else {
            if (!(numbers[0] > 0)) throw Bad{"sigma_mm", sigma, "σ must be above 0"};
            r.sigma = numbers[0];
        }
    }

    static std::vector<std::string> wordsOf(const std::string& value) {
        std::vector<std::string> words;
        for (size_t at = 0; at < value.size();) {
            const size_t start = value.find_first_not_of(" \t", at);
            if (start == std::string::npos) break;
            const size_t stop = std::min(value.find_first_of(" \t", start), value.size());
            words.push_back(value.substr(start, stop - start));
            at = stop;
        }
        return words;
    }

    void roughPosition() {
        const std::string value = cell("value");
        const auto words = wordsOf(value);
        if (words.size() != 3) throw Bad{"value", value, "A rough position is three numbers with blanks between: \"x y z\""};
        double xyz[3];
        for (size_t i = 0; i < 3; ++i) xyz[i] = quantity(words[i], units::Kind::Length, "value").value;
        std::optional<Role> role;
        if (const std::string word = cell("to"); !word.empty()) {
            role = fromWord<Role>(word);
            if (!role) throw Bad{"to", word, fmt::format("This role is not known; use {}", wordList<Role>())};
        }
        const PointId id = pointFor("from");
        Point p = scratch_.points.at(id);
        p.rough = Vec3{xyz[0], xyz[1], xyz[2]};
        if (role) p.role = *role;
        if (const std::string note = cell("note"); !note.empty()) p.note = note;
        must(Put<Point>{p});
    }

    void hold(Axis axis) {
        const Dimension value = quantity(cell("value"), units::Kind::Length, "value");
        Hold h;
        h.point = pointFor("from");
        h.axis = axis;
        h.value = value;
        h.id = HoldId{scratch_.next_id};
        for (const auto& [id, old] : scratch_.holds)
            if (old.point == h.point && old.axis == axis) {
                if (old.value.value != h.value.value)
                    throw Bad{"value", cell("value"),
                              fmt::format("{} of {} is held at {:g} mm already; take that hold away first if this one is right",
                                          word(axis), nameOf(scratch_, h.point), old.value.value)};
                h.id = id; // the same again
            }
        must(Put<Hold>{h});
        ++out.holds;
    }

    Build scratch_;
    SubjectId subject_;
    SessionId session_;
    std::map<std::string, size_t> columns_;
    std::map<PointId, bool> new_points_;
    const CsvRecord* record_ = nullptr;
};

std::string numberText(double value) { return fmt::format("{}", value); }

/// The value and unit columns of a figure: as typed where that does not depend on the reader's default unit.
std::pair<std::string, std::string> valueAndUnit(const Dimension& d, bool angle, const Settings& settings) {
    if (angle) {
        const auto parsed = units::parse(d.typed, units::Kind::Angle, units::Unit::Degree);
        if (parsed && parsed->bare && parsed->value == d.value) return {d.typed, "deg"};
        return {numberText(d.value), "rad"};
    }
    const auto as_mm = units::parse(d.typed, units::Kind::Length, units::Unit::Millimetre);
    const auto as_inch = units::parse(d.typed, units::Kind::Length, units::Unit::Inch);
    if (as_mm && as_inch) {
        if (as_mm->bare && as_mm->value == d.value) return {d.typed, "mm"};
        if (as_mm->value == as_inch->value && as_mm->value == d.value) return {d.typed, ""};
        if (as_inch->bare && as_inch->value == d.value && units::unitOf(settings.length_step) == units::Unit::Inch)
            return {d.typed, "in"};
    }
    return {numberText(d.value), "mm"};
}

} // namespace

std::string CsvProblem::sentence() const {
    std::string s = fmt::format("line {}", line);
    if (!column.empty()) s += fmt::format(", column {}", column);
    if (!text.empty()) s += fmt::format(" ({}{})", text.substr(0, 60), text.size() > 60 ? "…" : "");
    s += ": " + message;
    if (!s.ends_with('.')) s += '.';
    for (char& c : s) // what stood there may be anything: it must not reach a terminal
        if (static_cast<unsigned char>(c) < 32 || c == 127) c = '?';
    return s;
}

Result<ReadReadings> readReadings(std::string_view bytes, const Build& build, SubjectId subject, SessionId session,
                                  const std::string& session_name) {
    auto decoded = decodedText(bytes);
    if (!decoded) return decoded.error();
    const std::string_view text = decoded->text;
    const auto records = splitCsv(text, separatorOf(text));
    Importer importer(build, subject, session, session_name);
    if (!records.empty()) importer.header(records.front());
    if (records.empty() || !importer.hasColumns())
        return Error{Error::Code::BadInput, "line 1", "The first line is not the header of a readings file.",
                     "It must be: kind,from,to,value,unit,sigma_mm,note. Nothing was changed.", -1};
    for (size_t i = 1; i < records.size(); ++i) importer.line(records[i]);
    importer.out.edit.sentence =
        fmt::format("import {} of the {}", units::counted(static_cast<std::size_t>(importer.out.readings), "a reading"),
                    nameOf(build, subject));
    importer.out.remark = std::move(decoded->remark);
    return std::move(importer.out);
}

std::string writeReadings(const Build& b, SubjectId subject) {
    // the columns of set-ups and instruments only where there are some
    bool setups = false;
    bool instruments = false;
    for (const auto& [id, s] : b.setups) setups = setups || s.subject == subject;
    for (const auto& [id, r] : b.readings) instruments = instruments || (r.instrument && b.points.at(r.from).subject == subject);
    std::string csv = "kind,from,to,value,unit,sigma_mm,note";
    csv += setups || instruments ? ",setup" : "";
    csv += instruments ? ",instrument\n" : "\n";
    for (const auto& [id, p] : b.points) {
        if (p.subject != subject || !p.rough) continue;
        csv += fmt::format("point,{},{},{},mm,,{}\n", csvField(p.name), p.role == Role::None ? "" : word(p.role),
                           csvField(fmt::format("{} {} {}", p.rough->x_mm, p.rough->y_mm, p.rough->z_mm)), csvField(p.note));
    }
    for (const auto& [id, h] : b.holds) {
        const auto point = b.points.find(h.point);
        if (point == b.points.end() || point->second.subject != subject) continue;
        const auto [value, unit] = valueAndUnit(h.value, false, b.settings);
        csv += fmt::format("hold-{},{},,{},{},,\n", word(h.axis), csvField(point->second.name), csvField(value), unit);
    }
    for (const auto& [id, r] : b.readings) {
        const Point& from = b.points.at(r.from);
        if (from.subject != subject || r.replaced_by) continue;
        const bool angle = isAngle(r.kind);
        auto [value, unit] = valueAndUnit(r.value, angle, b.settings);
        std::string sigma = r.sigma ? numberText(angle ? units::degrees(*r.sigma) : *r.sigma) : "";
        if (r.kind == ReadingKind::Symmetry) {
            value = unit = "";
        } else if (r.at) {
            value = fmt::format("{} {} {}", r.at->x_mm, r.at->y_mm, r.at->z_mm);
            unit = "mm";
            for (const double v : r.covariance_mm2) sigma += (sigma.empty() ? "" : " ") + numberText(v);
        } else if (r.value.provenance == Provenance::Assumed) {
            value += "?";
        }
        csv += fmt::format("{},{},{},{},{},{},{}", word(r.kind), csvField(from.name), r.to ? csvField(nameOf(b, r.to)) : "",
                           csvField(value), unit, csvField(sigma), csvField(r.note));
        const auto setup = b.setups.find(r.setup);
        const auto with = b.instruments.find(r.instrument);
        if (setup != b.setups.end() || with != b.instruments.end())
            csv += "," + (setup == b.setups.end() ? "" : csvField(setup->second.name));
        if (with != b.instruments.end()) csv += "," + csvField(with->second.name);
        csv += "\n";
    }
    return csv;
}

} // namespace gorvet::formats
