#include "formats/points_csv.hpp"

#include "build/gate.hpp"
#include "formats/csv.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include <fmt/format.h>

namespace gorvet::formats {
namespace {

using namespace build;

using Bad = BadCell;

class PointsReader {
public:
    PointsReader(const Build& b, SubjectId subject, PointsAre are, std::string source)
        : scratch_(b), subject_(subject), are_(are), source_(std::move(source)) {}

    bool header(const CsvRecord& record) {
        for (size_t i = 0; i < record.fields.size(); ++i) columns_.emplace(trimmed(record.fields[i]), i);
        return columns_.contains("point") && columns_.contains("x") && columns_.contains("y") && columns_.contains("z");
    }

    void line(const CsvRecord& record) {
        record_ = &record;
        std::vector<Change> changes;
        back_.clear();
        try {
            if (record.unterminated) throw Bad{"", "", "A quotation mark is opened and never closed"};
            if (record.fields.size() > columns_.size())
                throw Bad{"", "", fmt::format("There are {} columns, the header has {}", record.fields.size(), columns_.size())};
            const bool fresh = oneLine(scratch_, changes);
            out.edit.changes.insert(out.edit.changes.end(), changes.begin(), changes.end());
            ++out.points;
            out.fresh += fresh;
        } catch (const Bad& bad) {
            for (auto change = back_.rbegin(); change != back_.rend(); ++change) (void)enact(scratch_, *change);
            out.problems.push_back({record.line, bad.column, bad.text, bad.message});
        }
    }

    ReadPoints out;

private:
    std::string cell(const char* column) const {
        const auto found = columns_.find(column);
        return found == columns_.end() || found->second >= record_->fields.size()
                   ? std::string()
                   : csvText(trimmed(record_->fields[found->second]));
    }
    std::optional<double> length(const char* column) const {
        const std::string text = cell(column);
        if (text.empty()) return std::nullopt;
        const std::string unit = cell("unit");
        auto parsed = units::parse(unit.empty() ? text : text + " " + unit, units::Kind::Length,
                                   units::unitOf(scratch_.settings.length_step));
        if (!parsed) throw Bad{column, text, parsed.error().text()};
        return parsed->value;
    }
    void must(Build& trial, std::vector<Change>& changes, Change change) {
        auto done = admit(trial, change);
        if (!done) throw Bad{"", done.error().subject, done.error().text()};
        back_.push_back(std::move(*done));
        changes.push_back(std::move(change));
    }

    bool oneLine(Build& trial, std::vector<Change>& changes) {
        const std::string name = cell("point");
        if (name.empty()) throw Bad{"point", "", "A point's name is missing"};
        if (seen_.contains(name)) throw Bad{"point", name, "This point stands in the file twice; the first counts"};
        const std::optional<double> xyz[3] = {length("x"), length("y"), length("z")};
        const bool all = xyz[0] && xyz[1] && xyz[2];
        if (are_ != PointsAre::Drawing && !all) throw Bad{"", name, "It needs x, y and z"};
        if (!xyz[0] && !xyz[1] && !xyz[2]) throw Bad{"", name, "It has no coordinate"};
        const Point* known = pointNamed(trial, subject_, name);
        Point p = known ? *known : Point{};
        if (!known) {
            p.id = PointId{trial.next_id};
            p.subject = subject_;
            p.name = name;
        }
        if (const std::string role = cell("role"); !role.empty()) {
            const auto read = fromWord<Role>(role);
            if (!read) throw Bad{"role", role, fmt::format("This role is not known; use {}", wordList<Role>())};
            p.role = *read;
        }
        if (all && (are_ == PointsAre::Rough || !p.rough)) p.rough = Vec3{*xyz[0], *xyz[1], *xyz[2]};
        if (const std::string note = cell("note"); !note.empty() && are_ == PointsAre::Rough) p.note = note;
        if (!known || !(p == *known)) must(trial, changes, Put<Point>{p});
        if (are_ == PointsAre::Drawing) {
            DrawingFigure d{DrawingFigureId{trial.next_id}, p.id, xyz[0], xyz[1], xyz[2], source_};
            for (const auto& [id, old] : trial.drawing)
                if (old.point == p.id) d.id = id;
            must(trial, changes, Put<DrawingFigure>{d});
        }
        if (are_ == PointsAre::Coordinates) reading(trial, changes, p.id, {*xyz[0], *xyz[1], *xyz[2]});
        seen_.insert(name);
        return !known;
    }

    void reading(Build& trial, std::vector<Change>& changes, PointId point, const Vec3& at) {
        SessionId session;
        for (const auto& [id, s] : trial.sessions)
            if (s.subject == subject_ && s.name == source_) session = id;
        if (!session) {
            Session s;
            s.id = session = SessionId{trial.next_id};
            s.subject = subject_;
            s.name = source_;
            must(trial, changes, Put<Session>{s});
        }
        Reading r;
        r.id = ReadingId{trial.next_id};
        r.session = session;
        r.kind = ReadingKind::Coordinates;
        r.from = point;
        r.at = at;
        r.value = {at.x_mm, fmt::format("{} {} {}", cell("x"), cell("y"), cell("z")), Provenance::Measured};
        const std::optional<double> s[3] = {length("sx"), length("sy"), length("sz")};
        if (s[0] && s[1] && s[2]) {
            // a coordinate that was held (σ 0) counts as read to the least that any arm reads
            const auto variance = [](double sd) { return std::max(sd, least_sd_mm) * std::max(sd, least_sd_mm); };
            r.covariance_mm2 = {variance(*s[0]), 0, 0, variance(*s[1]), 0, variance(*s[2])};
        }
        r.note = cell("note");
        must(trial, changes, Put<Reading>{r});
    }

    Build scratch_;
    std::vector<Change> back_; ///< undoes what this line did so far
    SubjectId subject_;
    PointsAre are_;
    std::string source_;
    std::map<std::string, size_t> columns_;
    std::set<std::string> seen_;
    const CsvRecord* record_ = nullptr;
};

} // namespace

Result<ReadPoints> readPoints(std::string_view bytes, const Build& build, SubjectId subject, PointsAre are,
                              const std::string& source) {
    auto decoded = decodedText(bytes);
    if (!decoded) return decoded.error();
    const std::string_view text = decoded->text;
    const auto records = splitCsv(text, separatorOf(text));
    PointsReader reader(build, subject, are, source);
    if (records.empty() || !reader.header(records.front()))
        return Error{Error::Code::BadInput, "line 1", "The first line is not the header of a points file.",
                     "It must name point, x, y and z; role, unit, sx, sy, sz and note may be there. Nothing was changed.", -1};
    for (size_t i = 1; i < records.size(); ++i) reader.line(records[i]);
    static constexpr const char* what[3] = {"rough places", "the drawing's figures", "measured coordinates"};
    reader.out.edit.sentence =
        fmt::format("import {} of {} of the {}", what[static_cast<int>(are)],
                    units::counted(static_cast<std::size_t>(reader.out.points), "a point"), nameOf(build, subject));
    reader.out.remark = std::move(decoded->remark);
    return std::move(reader.out);
}

std::string writePoints(const std::vector<PointRow>& rows) {
    std::string csv = "point,role,x,y,z,unit,sx,sy,sz,state\n";
    for (const PointRow& row : rows) {
        const auto sd = [](double v) { return std::isfinite(v) ? fmt::format("{:.4f}", v) : std::string(); };
        csv += fmt::format("{},{},{:.4f},{:.4f},{:.4f},mm,{},{},{},{}\n", csvField(row.name),
                           row.role == Role::None ? "" : word(row.role), row.at.x_mm, row.at.y_mm, row.at.z_mm, sd(row.sd_mm[0]),
                           sd(row.sd_mm[1]), sd(row.sd_mm[2]), row.state);
    }
    return csv;
}

} // namespace gorvet::formats
