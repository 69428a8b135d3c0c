#include "store/store.hpp"

#include "store/sqlite.hpp"

#include <cerrno>
#include <cstring>
#include <ctime>

#include <fcntl.h>
#include <sys/file.h>
#include <unistd.h>

#include <fmt/format.h>

namespace gorvet::store {
namespace {

constexpr std::int64_t application_id = 0x476F7276; // "Gorv"
constexpr std::int64_t schema_version = 1;
constexpr std::int64_t snapshot_every = 200;

constexpr const char* schema = R"(
CREATE TABLE journal (
    seq      INTEGER PRIMARY KEY,
    at_utc   TEXT NOT NULL,
    who      TEXT NOT NULL,
    why      TEXT NOT NULL,
    sentence TEXT NOT NULL,
    kind     TEXT NOT NULL CHECK (kind IN ('edit', 'undo', 'redo')),
    target   INTEGER NOT NULL,   -- the edit that is undone or redone; its own seq for an edit
    changes  TEXT NOT NULL,      -- JSON, what was applied
    inverse  TEXT NOT NULL       -- JSON, what takes it back
) STRICT;
CREATE TABLE snapshot (
    seq   INTEGER PRIMARY KEY,   -- the state after this journal line
    build TEXT NOT NULL          -- JSON
) STRICT;
)";

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
    default:
        return {Error::Code::File, path.string(), fmt::format("{}: {}.", path.filename().string(), e.message),
                "All that was kept before is still there.", -1};
    }
}

} // namespace

/// The connection, and a second descriptor that carries the kernel's lock. It is closed after SQLite's own, because closing
/// any descriptor of a file drops a process's record locks on it, SQLite's among them.
struct Store::Database {
    sqlite3* handle = nullptr;
    int lock_fd = -1;
    ~Database() {
        sqlite3_close(handle);
        if (lock_fd >= 0) ::close(lock_fd);
    }
};

Store::Store(std::filesystem::path path) : path_(std::move(path)), db_(std::make_unique<Database>()) {}
Store::~Store() = default;

Result<std::unique_ptr<Store>> Store::begin(const std::filesystem::path& path, bool fresh) {
    std::unique_ptr<Store> store(new Store(path));
    Database& db = *store->db_;
    const int flags = fresh ? O_RDWR | O_CREAT | O_EXCL | O_CLOEXEC : O_RDWR | O_CLOEXEC;
    db.lock_fd = ::open(path.c_str(), flags, 0644);
    if (db.lock_fd < 0 && !fresh && (errno == EACCES || errno == EROFS)) {
        store->read_only_reason_ = "the file or its folder is write-protected";
        db.lock_fd = ::open(path.c_str(), O_RDONLY | O_CLOEXEC);
    }
    if (db.lock_fd < 0) {
        const int reason = errno;
        if (reason == EEXIST)
            return Error{Error::Code::Conflict, path.string(), fmt::format("{} is already there.", path.string()),
                         "Choose another name, or open it.", -1};
        if (reason == ENOENT && !fresh)
            return Error{Error::Code::NotFound, path.string(), fmt::format("There is no file {}.", path.string()),
                         "Check the name, or make a new build.", -1};
        return Error{Error::Code::File, path.string(), fmt::format("{}: {}.", path.string(), std::strerror(reason)),
                     "Choose another place.", -1};
    }
    if (::flock(db.lock_fd, LOCK_EX | LOCK_NB) != 0 && store->read_only_reason_.empty())
        store->read_only_reason_ = "another window has it open";
    const int mode = store->readOnly() ? SQLITE_OPEN_READONLY : SQLITE_OPEN_READWRITE;
    if (sqlite3_open_v2(path.c_str(), &db.handle, mode, nullptr) != SQLITE_OK)
        return fileError(path, SqlError{sqlite3_errcode(db.handle), sqlite3_errmsg(db.handle)});
    sqlite3_busy_timeout(db.handle, 5000);
    sqlite3_extended_result_codes(db.handle, 1);
    return store;
}

Result<std::unique_ptr<Store>> Store::create(const std::filesystem::path& path) {
    auto store = begin(path, true);
    if (!store) return store;
    sqlite3* db = (*store)->db_->handle;
    try {
        // a rollback journal and full synchronising: one file, and what is confirmed is on the disk
        execute(db, "PRAGMA journal_mode = DELETE; PRAGMA synchronous = FULL;");
        Transaction transaction(db);
        execute(db, schema);
        execute(db, fmt::format("PRAGMA application_id = {}; PRAGMA user_version = {};", application_id, schema_version).c_str());
        transaction.commit();
    } catch (const SqlError& e) {
        return fileError(path, e);
    }
    return store;
}

Result<std::unique_ptr<Store>> Store::open(const std::filesystem::path& path) {
    auto store = begin(path, false);
    if (!store) return store;
    sqlite3* db = (*store)->db_->handle;
    try {
        Statement id(db, "PRAGMA application_id");
        Statement version(db, "PRAGMA user_version");
        id.step();
        version.step();
        if (id.integer(0) != application_id)
            return Error{Error::Code::Damaged, path.string(), fmt::format("{} is no Gorvet build.", path.filename().string()),
                         "Nothing in it was changed.", -1};
        if (version.integer(0) > schema_version)
            return Error{Error::Code::TooNew, path.string(),
                         fmt::format("{} was made by a newer Gorvet (file version {}, this one reads {}).",
                                     path.filename().string(), version.integer(0), schema_version),
                         "Open it with that one. Nothing in it was changed.", -1};
        if (!(*store)->readOnly()) execute(db, "PRAGMA synchronous = FULL;");
        if (auto loaded = (*store)->load(); !loaded) return loaded.error();
    } catch (const SqlError& e) {
        return fileError(path, e);
    }
    return store;
}

Result<void> Store::load() {
    sqlite3* db = db_->handle;
    std::int64_t from = 0;
    Statement newest(db, "SELECT seq, build FROM snapshot ORDER BY seq DESC LIMIT 1");
    if (newest.step()) {
        auto snapshot = build::buildFromJson(newest.text(1));
        if (snapshot) { // a bad snapshot costs only time: the journal has everything
            build_ = std::move(*snapshot);
            from = newest.integer(0);
        }
    }
    Statement rows(db,
                   "SELECT seq, sentence, kind, target, CASE WHEN seq > ?1 THEN changes ELSE '' END FROM journal ORDER BY seq");
    rows.bind(1, from);
    while (rows.step()) {
        const std::int64_t seq = rows.integer(0);
        const std::int64_t target = rows.integer(3);
        revision_ = seq;
        switch (kindOf(rows.text(2))) {
        case LogEntry::Kind::Edit:
            done_.push_back({seq, rows.text(1)});
            undone_.clear();
            break;
        case LogEntry::Kind::Undo:
        case LogEntry::Kind::Redo: {
            const bool undo = rows.text(2) == "undo";
            auto& source = undo ? done_ : undone_;
            auto& sink = undo ? undone_ : done_;
            if (source.empty() || source.back().seq != target)
                return Error{Error::Code::Damaged, path_.string(),
                             fmt::format("Line {} of the journal does not follow from those before it.", seq),
                             "Nothing was changed. Open a copy you kept.", -1};
            sink.push_back(source.back());
            source.pop_back();
            break;
        }
        }
        if (seq <= from) continue;
        auto changes = build::changesFromJson(rows.text(4));
        if (!changes) return changes.error();
        auto applied = build::enact(build_, build::Edit{rows.text(1), std::move(*changes)});
        if (!applied)
            return Error{Error::Code::Damaged, path_.string(),
                         fmt::format("Line {} of the journal can't be applied: {}", seq, applied.error().message),
                         "Nothing was changed. Open a copy you kept.", -1};
    }
    return {};
}

Result<void> Store::write(const build::Edit& change, const build::Edit& inverse, LogEntry::Kind kind, std::int64_t target,
                          const Author& author) {
    sqlite3* db = db_->handle;
    const std::int64_t seq = revision_ + 1;
    try {
        Transaction transaction(db);
        Statement insert(
            db,
            "INSERT INTO journal (seq, at_utc, who, why, sentence, kind, target, changes, inverse) VALUES (?1,?2,?3,?4,?5,?6,?7,?8,?9)");
        insert.bind(1, seq)
            .bind(2, nowUtc())
            .bind(3, author.who)
            .bind(4, author.why)
            .bind(5, change.sentence)
            .bind(6, kindWord(kind));
        insert.bind(7, target == 0 ? seq : target)
            .bind(8, build::changesToJson(change.changes))
            .bind(9, build::changesToJson(inverse.changes));
        insert.step();
        if (seq % snapshot_every == 0) {
            Statement snapshot(db, "INSERT INTO snapshot (seq, build) VALUES (?1, ?2)");
            snapshot.bind(1, seq).bind(2, build::buildToJson(build_));
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
    if (readOnly())
        return Error{Error::Code::Locked, path_.string(), "This build is open read-only, because " + read_only_reason_ + ".",
                     "Close the other window, or copy the file.", -1};
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
    if (readOnly())
        return Error{Error::Code::Locked, path_.string(), "This build is open read-only, because " + read_only_reason_ + ".", "",
                     -1};
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
