// Making, opening, bringing up and loading a file.
#include "store/database.hpp"

#include <array>
#include <cerrno>
#include <cstring>

#include <fcntl.h>
#include <sys/file.h>

#include <fmt/format.h>

namespace gorvet::store {
namespace {

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
    inverse  TEXT NOT NULL,      -- JSON, what takes it back
    sum      TEXT NOT NULL DEFAULT ''
) STRICT;
CREATE TABLE snapshot (
    seq   INTEGER PRIMARY KEY,   -- the state after this journal line
    build TEXT NOT NULL,         -- JSON
    sum   TEXT NOT NULL DEFAULT ''
) STRICT;
)";

constexpr const char* blob_schema = R"(
CREATE TABLE blob (
    hash  TEXT PRIMARY KEY,      -- SHA-256 of the content
    name  TEXT NOT NULL,
    bytes INTEGER NOT NULL
) STRICT;
CREATE TABLE blob_chunk (
    hash TEXT NOT NULL REFERENCES blob (hash),
    n    INTEGER NOT NULL,       -- 0, 1, 2 …
    data BLOB NOT NULL,
    UNIQUE (hash, n)
) STRICT;
)";

/// A name beside the file that nothing has yet: "petrel.version-1.gorvet", then "petrel.version-1-2.gorvet", …
std::filesystem::path freeCopyName(const std::filesystem::path& path, std::int64_t version) {
    for (int n = 1;; ++n) {
        auto name = path;
        name.replace_extension(
            fmt::format(".version-{}{}{}", version, n == 1 ? "" : fmt::format("-{}", n), path.extension().string()));
        if (!std::filesystem::exists(name)) return name;
    }
}

/// Copies and waits until the copy is on the disk.
bool copyForGood(const std::filesystem::path& from, const std::filesystem::path& to) {
    std::error_code code;
    if (!std::filesystem::copy_file(from, to, code) || code) {
        std::filesystem::remove(to, code);
        return false;
    }
    const int fd = ::open(to.c_str(), O_RDONLY | O_CLOEXEC);
    const bool synced = fd >= 0 && ::fsync(fd) == 0;
    if (fd >= 0) ::close(fd);
    return synced;
}

} // namespace

Store::Store(std::filesystem::path path) : path_(std::move(path)), db_(std::make_unique<Database>()) {}
Store::~Store() = default;

Result<std::unique_ptr<Store>> Store::begin(const std::filesystem::path& path, bool fresh) {
    std::unique_ptr<Store> store(new Store(path));
    Database& db = *store->db_;
    std::error_code code;
    if (std::filesystem::exists(path, code) && !std::filesystem::is_regular_file(path, code))
        return Error{Error::Code::File, path.string(), fmt::format("{} is no file.", path.string()), "Choose a build.", -1};
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
    // SQLite keeps its rollback journal in the folder: without leave to write there, nothing can be kept
    const auto folder = path.has_parent_path() ? path.parent_path() : std::filesystem::path(".");
    if (!fresh && ::access(folder.c_str(), W_OK) != 0 && store->read_only_reason_.empty())
        store->read_only_reason_ = "the file or its folder is write-protected";
    if (::flock(db.lock_fd, LOCK_EX | LOCK_NB) != 0 && store->read_only_reason_.empty())
        store->read_only_reason_ = "another window has it open";
    const int mode = store->readOnly() ? SQLITE_OPEN_READONLY : SQLITE_OPEN_READWRITE;
    if (sqlite3_open_v2(path.c_str(), &db.handle, mode, nullptr) != SQLITE_OK)
        return fileError(path, SqlError{sqlite3_errcode(db.handle), sqlite3_errmsg(db.handle)});
    sqlite3_busy_timeout(db.handle, 5000);
    sqlite3_extended_result_codes(db.handle, 1);
    // a file from elsewhere is only data: it may not bring functions, views or triggers that run
    sqlite3_db_config(db.handle, SQLITE_DBCONFIG_DEFENSIVE, 1, nullptr);
    sqlite3_db_config(db.handle, SQLITE_DBCONFIG_TRUSTED_SCHEMA, 0, nullptr);
    sqlite3_db_config(db.handle, SQLITE_DBCONFIG_ENABLE_TRIGGER, 0, nullptr);
    sqlite3_db_config(db.handle, SQLITE_DBCONFIG_ENABLE_VIEW, 0, nullptr);
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
        execute(db, blob_schema);
        execute(db, fmt::format("PRAGMA application_id = {}; PRAGMA user_version = {};", application_id, schema_version).c_str());
        transaction.commit();
    } catch (const SqlError& e) {
        Error error = fileError(path, e);
        store = error; // closes it
        std::error_code code;
        std::filesystem::remove(path, code); // nothing is in it yet
        return error;
    }
    return store;
}

Result<std::unique_ptr<Store>> Store::open(const std::filesystem::path& path) {
    auto store = begin(path, false);
    if (!store) return store;
    try {
        if (auto known = (*store)->checkVersion(); !known) return known.error();
        if (!(*store)->readOnly()) execute((*store)->db_->handle, "PRAGMA synchronous = FULL;");
        if (auto loaded = (*store)->load(); !loaded) return loaded.error();
    } catch (const SqlError& e) {
        return fileError(path, e);
    }
    return store;
}

Result<void> Store::checkVersion() {
    sqlite3* db = db_->handle;
    const auto pragma = [db](const char* sql) {
        Statement s(db, sql);
        s.step();
        return s.integer(0);
    };
    const std::string name = path_.filename().string();
    if (pragma("PRAGMA application_id") != application_id)
        return Error{Error::Code::Damaged, path_.string(), fmt::format("{} is no Gorvet build.", name),
                     "Nothing in it was changed.", -1};
    const std::int64_t version = pragma("PRAGMA user_version");
    if (version > schema_version)
        return Error{
            Error::Code::TooNew, path_.string(),
            fmt::format("{} was made by a newer Gorvet (file version {}, this one reads {}).", name, version, schema_version),
            "Open it with that one. Nothing in it was changed.", -1};
    if (version < 1)
        return Error{Error::Code::Damaged, path_.string(),
                     fmt::format("{} has the file version {}, which never was.", name, version),
                     "Nothing in it was changed. Open a copy you kept.", -1};
    db_->sums = version >= 2;
    if (version < schema_version && !readOnly()) return migrate(version);
    return {};
}

Result<void> Store::migrate(std::int64_t from_version) {
    sqlite3* db = db_->handle;
    { // what does not load as it is must not be rewritten
        Store trial(path_);
        std::swap(trial.db_, db_);
        auto loaded = trial.load();
        std::swap(trial.db_, db_);
        if (!loaded) return loaded.error();
        if (!trial.damage_.empty()) return {}; // opens read-only, as it is: load() finds the same damage again
    }
    const auto copy = freeCopyName(path_, from_version);
    if (!copyForGood(path_, copy)) {
        read_only_reason_ = fmt::format("it is of file version {}, and no copy of it could be kept beside it", from_version);
        return {};
    }
    Transaction transaction(db);
    execute(db, "ALTER TABLE journal ADD COLUMN sum TEXT NOT NULL DEFAULT '';"
                "ALTER TABLE snapshot ADD COLUMN sum TEXT NOT NULL DEFAULT '';");
    execute(db, blob_schema);
    Statement lines(db, "SELECT seq, at_utc, who, why, sentence, kind, target, changes, inverse FROM journal");
    while (lines.step()) {
        Statement put(db, "UPDATE journal SET sum = ?2 WHERE seq = ?1");
        put.bind(1, lines.integer(0))
            .bind(2, lineSum(lines.integer(0), lines.text(1), lines.text(2), lines.text(3), lines.text(4), lines.text(5),
                             lines.integer(6), lines.text(7), lines.text(8)));
        put.step();
    }
    Statement snapshots(db, "SELECT seq, build FROM snapshot");
    while (snapshots.step()) {
        Statement put(db, "UPDATE snapshot SET sum = ?2 WHERE seq = ?1");
        put.bind(1, snapshots.integer(0)).bind(2, snapshotSum(snapshots.integer(0), snapshots.text(1)));
        put.step();
    }
    execute(db, fmt::format("PRAGMA user_version = {}", schema_version).c_str());
    transaction.commit();
    db_->sums = true;
    kept_copy_ = copy;
    return {};
}

void Store::damaged(std::string sentence) {
    damage_.push_back(std::move(sentence));
    read_only_reason_ = "it is damaged: " + damage_.front();
}

/// Takes the newest sound snapshot; returns the journal line after which it was made, 0 when there is none.
std::int64_t Store::loadSnapshot() {
    try {
        Statement newest(db_->handle, db_->sums ? "SELECT seq, build, sum FROM snapshot ORDER BY seq DESC LIMIT 1"
                                                : "SELECT seq, build, '' FROM snapshot ORDER BY seq DESC LIMIT 1");
        if (!newest.step()) return 0;
        const std::int64_t seq = newest.integer(0);
        const std::string text = newest.text(1);
        if (db_->sums && newest.text(2) != snapshotSum(seq, text)) return 0;
        if (auto snapshot = build::buildFromJson(text)) {
            build_ = std::move(*snapshot);
            return seq;
        }
    } catch (const SqlError&) {
        return 0; // a bad snapshot costs only time: the journal has everything
    }
    return 0;
}

/// Follows a line in the lists of what can be undone and done again. False when it does not follow from those before it.
bool Store::loadLine(std::int64_t seq, const std::string& sentence, LogEntry::Kind kind, std::int64_t target) {
    if (kind == LogEntry::Kind::Edit) {
        done_.push_back({seq, sentence});
        undone_.clear();
        return true;
    }
    auto& source = kind == LogEntry::Kind::Undo ? done_ : undone_;
    auto& sink = kind == LogEntry::Kind::Undo ? undone_ : done_;
    if (source.empty() || source.back().seq != target) return false;
    sink.push_back(source.back());
    source.pop_back();
    return true;
}

Result<void> Store::load() {
    sqlite3* db = db_->handle;
    const std::int64_t from = loadSnapshot();
    revision_ = from;
    // the lines that the snapshot holds already: only for what can be undone
    try {
        Statement rows(db, "SELECT seq, sentence, kind, target FROM journal WHERE seq <= ?1 ORDER BY seq");
        rows.bind(1, from);
        std::int64_t last = 0;
        while (rows.step()) {
            last = rows.integer(0);
            if (!loadLine(last, rows.text(1), kindOf(rows.text(2)), rows.integer(3))) break;
        }
        if (last != from) damaged(fmt::format("line {} of its log does not follow from those before it", last));
    } catch (const SqlError& e) {
        if (e.code == SQLITE_NOMEM) throw;
        damaged("the older lines of its log can't be read, so they can't be undone");
    }
    try {
        Statement rows(db, db_->sums ? "SELECT seq, sentence, kind, target, changes, at_utc, who, why, inverse, sum FROM journal "
                                       "WHERE seq > ?1 ORDER BY seq"
                                     : "SELECT seq, sentence, kind, target, changes FROM journal WHERE seq > ?1 ORDER BY seq");
        rows.bind(1, from);
        while (rows.step()) {
            const std::int64_t seq = rows.integer(0);
            const auto stop = [&](const std::string& why) {
                damaged(fmt::format("line {} of its log {}; what was kept before it is shown", seq, why));
            };
            if (seq != revision_ + 1) {
                stop("is not the next one");
                break;
            }
            if (db_->sums && rows.text(9) != lineSum(seq, rows.text(5), rows.text(6), rows.text(7), rows.text(1), rows.text(2),
                                                     rows.integer(3), rows.text(4), rows.text(8))) {
                stop("is not as it was written");
                break;
            }
            auto changes = build::changesFromJson(rows.text(4));
            if (!changes) {
                stop("can't be understood");
                break;
            }
            build::Build before = build_;
            if (auto applied = build::enact(build_, build::Edit{rows.text(1), std::move(*changes)}); !applied) {
                build_ = std::move(before);
                stop("can't be applied (" + applied.error().message + ")");
                break;
            }
            if (!loadLine(seq, rows.text(1), kindOf(rows.text(2)), rows.integer(3))) {
                build_ = std::move(before);
                stop("does not follow from those before it");
                break;
            }
            revision_ = seq;
        }
    } catch (const SqlError& e) {
        if (e.code == SQLITE_NOMEM || (e.code & 0xFF) == SQLITE_BUSY) throw;
        if (revision_ == 0 && e.code != SQLITE_CORRUPT) throw; // no table at all, or a medium that is gone
        damaged(fmt::format("its log can't be read after line {}; what was kept before is shown", revision_));
    }
    if (revision_ == 0 && !damage_.empty())
        return Error{Error::Code::Damaged, path_.string(),
                     fmt::format("Nothing in {} can be read: {}.", path_.filename().string(), damage_.front()),
                     "Nothing was changed. Open a copy you kept.", -1};
    return {};
}

} // namespace gorvet::store
