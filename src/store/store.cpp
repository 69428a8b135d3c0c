#include "store/store.hpp"

#include "store/database.hpp"
#include "store/hash.hpp"

#include <ctime>

#include <fmt/format.h>

namespace gorvet::store {
std::string nowUtc() {
    const std::time_t now = std::time(nullptr);
    std::tm parts{};
    gmtime_r(&now, &parts);
    char text[32];
    std::strftime(text, sizeof text, "%Y-%m-%dT%H:%M:%SZ", &parts);
    return text;
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
    case SQLITE_IOERR:
    case SQLITE_CANTOPEN:
        return {Error::Code::File, path.string(), fmt::format("{} can't be reached or written ({}).", path.string(), e.message),
                "Is the disk or stick still there? All that was kept before is on it; do this step again once it is back.", -1};
    default:
        return {Error::Code::File, path.string(), fmt::format("{}: {}.", path.filename().string(), e.message),
                "All that was kept before is still there.", -1};
    }
}

std::string lineSum(std::int64_t seq, std::string_view at_utc, std::string_view who, std::string_view why,
                    std::string_view sentence, std::string_view kind, std::int64_t target, std::string_view changes,
                    std::string_view inverse) {
    Hash hash;
    constexpr std::string_view end{"\0", 1};
    hash.add(std::to_string(seq)).add(end);
    for (const std::string_view field : {at_utc, who, why, sentence, kind}) hash.add(field).add(end);
    hash.add(std::to_string(target)).add(end).add(changes).add(end).add(inverse).add(end);
    return hash.hex().substr(0, 16);
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

Result<void> Store::write(const build::Edit& change, const build::Edit& inverse, LogEntry::Kind kind, std::int64_t target,
                          const Author& author) {
    sqlite3* db = db_->handle;
    const std::int64_t seq = revision_ + 1;
    try {
        Transaction transaction(db);
        Statement insert(
            db,
            "INSERT INTO journal (seq, at_utc, who, why, sentence, kind, target, changes, inverse, sum) VALUES (?1,?2,?3,?4,?5,?6,?7,?8,?9,?10)");
        const std::string at = nowUtc();
        const std::int64_t aim = target == 0 ? seq : target;
        const std::string changes = build::changesToJson(change.changes);
        const std::string back = build::changesToJson(inverse.changes);
        insert.bind(1, seq).bind(2, at).bind(3, author.who).bind(4, author.why).bind(5, change.sentence).bind(6, kindWord(kind));
        insert.bind(7, aim).bind(8, changes).bind(9, back);
        insert.bind(10, lineSum(seq, at, author.who, author.why, change.sentence, kindWord(kind), aim, changes, back));
        insert.step();
        if (seq % snapshot_every == 0) {
            const std::string state = build::buildToJson(build_);
            Statement snapshot(db, "INSERT INTO snapshot (seq, build, sum) VALUES (?1, ?2, ?3)");
            snapshot.bind(1, seq).bind(2, state).bind(3, snapshotSum(seq, state));
            snapshot.step();
            execute(db, "DELETE FROM snapshot WHERE seq < (SELECT max(seq) FROM snapshot)");
        }
        transaction.commit();
    } catch (const SqlError& e) {
        return fileError(path_, e);
    }
    revision_ = seq;
    return {};
}

Result<void> Store::keep(const build::Edit& edit, const Author& author) {
    if (readOnly()) return lockedError();
    build::Build before = build_;
    auto inverse = build::enact(build_, edit);
    if (!inverse) {
        build_ = std::move(before);
        return inverse.error();
    }
    if (auto written = write(edit, *inverse, LogEntry::Kind::Edit, 0, author); !written) {
        build_ = std::move(before);
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
    build::Build before = build_;
    try {
        Statement row(db_->handle, "SELECT changes, inverse FROM journal WHERE seq = ?1");
        row.bind(1, target.seq);
        if (!row.step()) return Error{Error::Code::Damaged, path_.string(), "The journal has lost a line.", "", -1};
        auto changes = build::changesFromJson(row.text(undo ? 1 : 0));
        if (!changes) return changes.error();
        const build::Edit edit{target.sentence, std::move(*changes)};
        auto inverse = build::enact(build_, edit);
        if (!inverse) return inverse.error();
        if (auto written = write(edit, *inverse, kind, target.seq, author); !written) {
            build_ = std::move(before);
            return written.error();
        }
    } catch (const SqlError& e) {
        build_ = std::move(before);
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
