#include "store/store.hpp"

#include "build/gate.hpp"
#include "store/database.hpp"
#include "store/hash.hpp"
#include "units/dates.hpp"
#include "units/text.hpp"

#include <algorithm>
#include <chrono>

#include <fmt/format.h>

namespace gorvet::store {
std::string nowUtc() {
    // on the day that is said to be today, at the time that it is
    const std::string now =
        units::isoTime(std::chrono::floor<std::chrono::seconds>(std::chrono::system_clock::now().time_since_epoch()).count());
    return units::isoDate(units::today()) + now.substr(std::string_view("2026-11-28").size());
}
const char* kindWord(LogEntry::Kind kind) {
    return kind == LogEntry::Kind::Edit ? "edit" : kind == LogEntry::Kind::Undo ? "undo" : "redo";
}
LogEntry::Kind kindOf(const std::string& text) {
    return text == "undo" ? LogEntry::Kind::Undo : text == "redo" ? LogEntry::Kind::Redo : LogEntry::Kind::Edit;
}

Error fileError(const std::filesystem::path& path, const SqlError& e) {
    switch (e.code & 0xFF) {
    case SQLITE_NOTADB:
    case SQLITE_CORRUPT:
        return {Error::Code::Damaged, path.string(),
                fmt::format("{} is damaged or is no build file ({}).", path.filename().string(), e.message),
                "Nothing in it was changed. Open a copy you kept.", -1};
    case SQLITE_FULL:
        return {Error::Code::File, path.string(), "The disk is full, so this was not kept.",
                "Free some space and do it again; all before it is kept.", -1};
    case SQLITE_READONLY:
        return {Error::Code::File, path.string(), fmt::format("{} can't be written.", path.string()),
                "Check the permissions of file and folder.", -1};
    case SQLITE_BUSY:
    case SQLITE_LOCKED:
        return {Error::Code::Locked, path.string(),
                fmt::format("Another program is writing {} just now.", path.filename().string()),
                "Nothing was changed. Do it again in a moment.", -1};
    case SQLITE_IOERR:
    case SQLITE_CANTOPEN:
        return {Error::Code::File, path.string(), fmt::format("{} can't be reached or written ({}).", path.string(), e.message),
                "Is the disk or stick still there? All that was kept before is on it; do this step again once it is back.", -1};
    default:
        return {Error::Code::File, path.string(), fmt::format("{}: {}.", path.filename().string(), e.message),
                "All that was kept before is still there.", -1};
    }
}

std::string JournalLine::sumOver(std::string_view before, bool chained) const {
    Hash hash;
    constexpr std::string_view end{"\0", 1};
    if (chained) hash.add(before).add(end);
    hash.add(std::to_string(seq)).add(end);
    for (const std::string_view field : {std::string_view(at_utc), std::string_view(who), std::string_view(why),
                                         std::string_view(sentence), std::string_view(kind)})
        hash.add(field).add(end);
    hash.add(std::to_string(target)).add(end).add(changes).add(end).add(inverse).add(end);
    return hash.hex().substr(0, 16);
}

JournalLine lineFrom(const Statement& row, bool sums) {
    return {row.integer(0), row.text(1),    row.text(2), row.text(3), row.text(4),
            row.text(5),    row.integer(6), row.text(7), row.text(8), sums ? row.text(9) : std::string()};
}

std::string snapshotSum(std::int64_t seq, std::string_view build) {
    Hash hash;
    constexpr std::string_view end{"\0", 1};
    hash.add(std::to_string(seq)).add(end).add(build).add(end);
    return hash.hex().substr(0, 16);
}

Error Store::lockedError() const {
    return {Error::Code::Locked, path_.string(), "This build is open read-only, because " + read_only_reason_ + ".",
            damage_.empty() ? "Close the other window, or copy the file." : "Open a copy you kept.", -1};
}

namespace {
std::size_t rowsOf(const build::Build& b) {
    std::size_t rows = 0;
    build::eachOfDocument([&]<class T>() {
        if constexpr (build::is_row<T>) rows += build::table<T>(b).size();
    });
    return rows;
}
} // namespace

Result<void> Store::write(const build::Edit& change, const build::Edit& inverse, LogEntry::Kind kind, std::int64_t target,
                          const Author& author) {
    sqlite3* db = db_->handle;
    JournalLine line;
    line.seq = revision_ + 1;
    line.at_utc = nowUtc();
    line.who = units::visible(author.who.substr(0, 200)); // a name of the system's may be anything
    line.why = author.why;
    line.sentence = change.sentence;
    line.kind = kindWord(kind);
    line.target = target == 0 ? line.seq : target;
    auto changes = build::changesToJson(change.changes);
    auto back = build::changesToJson(inverse.changes);
    if (!changes) return changes.error();
    if (!back) return back.error();
    line.changes = std::move(*changes);
    line.inverse = std::move(*back);
    line.sum = line.sumOver(last_sum_, true);
    // each snapshot when the log has grown by an eighth, or its last lines hold as many rows as an eighth of the build: opening
    // stays short, and an edit does not get dearer
    const std::size_t rows_since = rows_since_snapshot_ + change.changes.size();
    const bool snapshot_due = line.seq - snapshot_seq_ >= std::max(snapshot_every, snapshot_seq_ / 8) ||
                              rows_since >= std::max(snapshot_rows, rowsOf(build_) / 8);
    try {
        Transaction transaction(db);
        Statement insert(
            db,
            "INSERT INTO journal (seq, at_utc, who, why, sentence, kind, target, changes, inverse, sum) VALUES (?1,?2,?3,?4,?5,?6,?7,?8,?9,?10)");
        insert.bind(1, line.seq)
            .bind(2, line.at_utc)
            .bind(3, line.who)
            .bind(4, line.why)
            .bind(5, line.sentence)
            .bind(6, line.kind);
        insert.bind(7, line.target).bind(8, line.changes).bind(9, line.inverse).bind(10, line.sum);
        insert.step();
        Statement head(db, "INSERT OR REPLACE INTO head (id, seq, sum) VALUES (1, ?1, ?2)");
        head.bind(1, line.seq).bind(2, line.sum);
        head.step();
        if (snapshot_due) {
            const auto state = build::buildToJson(build_);
            if (!state) return state.error();
            Statement snapshot(db, "INSERT INTO snapshot (seq, build, sum) VALUES (?1, ?2, ?3)");
            snapshot.bind(1, line.seq).bind(2, *state).bind(3, snapshotSum(line.seq, *state));
            snapshot.step();
            execute(db, "DELETE FROM snapshot WHERE seq < (SELECT max(seq) FROM snapshot)");
        }
        transaction.commit();
    } catch (const SqlError& e) {
        return fileError(path_, e);
    }
    revision_ = line.seq;
    last_sum_ = line.sum;
    if (snapshot_due) snapshot_seq_ = line.seq;
    rows_since_snapshot_ = snapshot_due ? 0 : rows_since;
    refer(line.changes);
    return {};
}

/// Takes an edit back that could not be written.
void Store::takeBack(const build::Edit& inverse, std::uint32_t next_id) {
    if (!build::enact(build_, inverse))
        damaged("what could not be written could not be taken back either: close the build and open it again");
    build_.next_id = next_id;
}

namespace {
/// The edit as it will be read when the file is opened again; fails when that would be another one.
Result<build::Edit> readBack(const build::Edit& edit) {
    const auto written = build::changesToJson(edit.changes);
    if (!written) return written.error();
    auto read = build::changesFromJson(*written);
    if (!read || *read != edit.changes)
        return Error{Error::Code::BadInput, edit.sentence,
                     "This can't be kept as it was entered: it would not read the same again" +
                         (read ? std::string(".") : " (" + read.error().message + ")."),
                     "Nothing was changed.", -1};
    return build::Edit{edit.sentence, std::move(*read)};
}
} // namespace

Result<void> Store::keep(const build::Edit& edit, const Author& author) {
    if (readOnly()) return lockedError();
    if (auto ok = build::acceptable(edit); !ok) return ok;
    if (const auto bad = units::badSign(author.why, units::TextIs::Note))
        return Error{Error::Code::BadInput, units::visible(author.why),
                     fmt::format("The reason: character {}: {}.", bad->column + 1, bad->what), "Type it again.", bad->column};
    auto read = readBack(edit);
    if (!read) return read.error();
    const std::uint32_t next_id = build_.next_id;
    auto inverse = build::enact(build_, *read);
    if (!inverse) {
        build_.next_id = next_id;
        return inverse.error();
    }
    auto back = readBack(*inverse);
    auto written = back ? write(*read, *back, LogEntry::Kind::Edit, 0, author) : Result<void>(back.error());
    if (!written) {
        takeBack(*inverse, next_id);
        return written;
    }
    done_.push_back({revision_, edit.sentence});
    undone_.clear();
    return {};
}

Result<std::string> Store::step(std::vector<Done>& from, std::vector<Done>& to, LogEntry::Kind kind, const Author& author) {
    const bool undo = kind == LogEntry::Kind::Undo;
    if (readOnly()) return lockedError();
    if (from.empty())
        return Error{Error::Code::NotFound, "", undo ? "There is nothing to undo." : "There is nothing to redo.", "", -1};
    const Done target = from.back();
    const std::uint32_t next_id = build_.next_id;
    try {
        JournalLine line;
        std::string before;
        {
            Statement row(db_->handle, fmt::format("SELECT {}, sum FROM journal WHERE seq = ?1", line_columns).c_str());
            row.bind(1, target.seq);
            if (row.step()) line = lineFrom(row, true);
            Statement earlier(db_->handle, "SELECT sum FROM journal WHERE seq = ?1");
            earlier.bind(1, target.seq - 1);
            if (earlier.step()) before = earlier.text(0);
        }
        auto changes = build::changesFromJson(undo ? line.inverse : line.changes);
        if (line.seq != target.seq || line.sum != line.sumOver(before, true) || !changes) {
            damaged(fmt::format("line {} of its log is not as it was written; the build is shown as it is", target.seq));
            return Error{Error::Code::Damaged, path_.string(),
                         "This can't be " + std::string(undo ? "undone" : "done again") + ": " + damage_.front() + ".",
                         "Nothing was changed. Open a copy you kept.", -1};
        }
        const build::Edit edit{target.sentence, std::move(*changes)};
        auto inverse = build::enact(build_, edit);
        if (!inverse) {
            build_.next_id = next_id;
            return inverse.error();
        }
        if (auto written = write(edit, *inverse, kind, target.seq, author); !written) {
            takeBack(*inverse, next_id);
            return written.error();
        }
    } catch (const SqlError& e) {
        return fileError(path_, e);
    }
    to.push_back(target);
    from.pop_back();
    return target.sentence;
}

Result<std::string> Store::undo(const Author& author) { return step(done_, undone_, LogEntry::Kind::Undo, author); }
Result<std::string> Store::redo(const Author& author) { return step(undone_, done_, LogEntry::Kind::Redo, author); }
std::string Store::undoSentence() const { return done_.empty() ? std::string() : done_.back().sentence; }
std::string Store::redoSentence() const { return undone_.empty() ? std::string() : undone_.back().sentence; }

Result<Since> Store::since(int day) const {
    Since s{build_, day, 0};
    try {
        Statement first(db_->handle, "SELECT at_utc FROM journal ORDER BY seq LIMIT 1");
        if (first.step())
            if (const auto begins = units::dayOf(first.text(0).substr(0, 10))) s.day = std::max(day, *begins);
        const std::string end_of_day = units::isoDate(s.day) + "T23:59:59Z";
        Statement rows(db_->handle, "SELECT seq, at_utc, inverse FROM journal WHERE seq <= ?1 ORDER BY seq DESC");
        rows.bind(1, revision_);
        while (rows.step() && rows.text(1) > end_of_day) {
            const auto wrong = [&](const std::string& why) {
                return Error{Error::Code::Damaged, path_.string(),
                             fmt::format("Line {} of the log can't be taken back: {}", rows.integer(0), why),
                             "What it was before that line can't be told.", -1};
            };
            auto inverse = build::changesFromJson(rows.text(2));
            if (!inverse) return wrong(inverse.error().message);
            if (auto back = build::enact(s.then, build::Edit{"back", std::move(*inverse)}); !back)
                return wrong(back.error().message);
            ++s.lines;
        }
    } catch (const SqlError& e) {
        return fileError(path_, e);
    }
    return s;
}

std::vector<LogEntry> Store::log(int most) const {
    std::vector<LogEntry> entries;
    try {
        Statement rows(db_->handle, "SELECT seq, at_utc, who, why, sentence, kind FROM journal ORDER BY seq DESC LIMIT ?1");
        rows.bind(1, static_cast<std::int64_t>(most));
        while (rows.step())
            entries.push_back({rows.integer(0), rows.text(1), rows.text(2), rows.text(3), rows.text(4), kindOf(rows.text(5))});
    } catch (const SqlError&) {
        return entries; // a log that can't be read whole is shown as far as it goes
    }
    return entries;
}

std::optional<LogEntry> Store::lastChange(const std::string& table, std::uint32_t id) const {
    try {
        Statement row(
            db_->handle,
            "SELECT j.seq, at_utc, who, why, sentence, kind FROM journal j, json_each(j.changes) c "
            "WHERE json_extract(c.value, '$.put') = ?1 AND json_extract(c.value, '$.value.id') = ?2 ORDER BY j.seq DESC LIMIT 1");
        row.bind(1, table).bind(2, static_cast<std::int64_t>(id));
        if (row.step()) return LogEntry{row.integer(0), row.text(1), row.text(2), row.text(3), row.text(4), kindOf(row.text(5))};
    } catch (const SqlError&) {
        return std::nullopt;
    }
    return std::nullopt;
}

std::string Store::keptAtUtc() const {
    const auto newest = log(1);
    return newest.empty() ? std::string() : newest.front().at_utc;
}

} // namespace gorvet::store
