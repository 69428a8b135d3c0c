// Making, opening, bringing up and loading a file.
#include "store/database.hpp"

#include <cerrno>
#include <cstring>
#include <thread>

#include <fcntl.h>
#include <sys/file.h>

#include <fmt/format.h>

namespace gorvet::store {
namespace {

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
    const auto folder = to.has_parent_path() ? to.parent_path() : std::filesystem::path(".");
    if (const int directory = ::open(folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC); directory >= 0) {
        (void)::fsync(directory); // so that its name is there, too
        ::close(directory);
    }
    return synced;
}

} // namespace

Store::Store(std::filesystem::path path) : path_(std::move(path)), db_(std::make_unique<Database>()) {}
Store::~Store() {
    if (!readOnly() && db_ && db_->handle) sweep();
}

/// Opens the file for the lock's sake and takes the lock, or says in `read_only_reason_` why not.
Result<void> Store::takeLock(bool fresh, std::chrono::milliseconds patience) {
    Database& db = *db_;
    const int flags = fresh ? O_RDWR | O_CREAT | O_EXCL | O_CLOEXEC : O_RDWR | O_CLOEXEC;
    db.lock_fd = ::open(path_.c_str(), flags, 0644);
    if (db.lock_fd < 0 && !fresh && (errno == EACCES || errno == EROFS)) {
        read_only_reason_ = "the file or its folder is write-protected";
        db.lock_fd = ::open(path_.c_str(), O_RDONLY | O_CLOEXEC);
    }
    if (db.lock_fd < 0) {
        const int reason = errno;
        if (reason == EEXIST)
            return Error{Error::Code::Conflict, path_.string(), fmt::format("{} is already there.", path_.string()),
                         "Choose another name, or open it.", -1};
        return Error{Error::Code::File, path_.string(), fmt::format("{}: {}.", path_.string(), std::strerror(reason)),
                     "Choose another place.", -1};
    }
    if (db.lock_fd <= STDERR_FILENO) { // a closed standard stream: what is printed must never go into the build
        const int higher = ::fcntl(db.lock_fd, F_DUPFD_CLOEXEC, STDERR_FILENO + 1);
        ::close(db.lock_fd);
        db.lock_fd = higher;
        if (higher < 0)
            return Error{Error::Code::File, path_.string(), fmt::format("{}: {}.", path_.string(), std::strerror(errno)),
                         "Close other programs.", -1};
    }
    const auto until = std::chrono::steady_clock::now() + patience;
    while (::flock(db.lock_fd, LOCK_EX | LOCK_NB) != 0) {
        if (std::chrono::steady_clock::now() >= until) {
            waits_ = read_only_reason_.empty();
            if (waits_) read_only_reason_ = "another window has it open";
            break;
        }
        std::this_thread::sleep_for(std::chrono::milliseconds(10));
    }
    return {};
}

Result<std::unique_ptr<Store>> Store::begin(const std::filesystem::path& path, bool fresh, Access access,
                                            std::chrono::milliseconds patience) {
    std::unique_ptr<Store> store(new Store(path));
    Database& db = *store->db_;
    std::error_code code;
    const auto status = std::filesystem::status(path, code);
    if (std::filesystem::exists(status) && !std::filesystem::is_regular_file(status))
        return Error{Error::Code::File, path.string(), fmt::format("{} is no file.", path.string()), "Choose a build.", -1};
    if (!std::filesystem::exists(status) && !fresh)
        return Error{Error::Code::NotFound, path.string(), fmt::format("There is no file {}.", path.string()),
                     "Check the name, or make a new build.", -1};
    if (access == Access::Write) {
        if (auto locked = store->takeLock(fresh, patience); !locked) return locked.error();
    } else {
        store->read_only_reason_ = "it was opened to be read";
    }
    // SQLite keeps its rollback journal in the folder: without leave to write there, nothing can be kept
    const auto folder = path.has_parent_path() ? path.parent_path() : std::filesystem::path(".");
    const bool writable = ::access(path.c_str(), W_OK) == 0 && ::access(folder.c_str(), W_OK) == 0;
    if (!fresh && !writable && store->read_only_reason_.empty())
        store->read_only_reason_ = "the file or its folder is write-protected";
    // a reader, too, may have to finish what a killed writer began: SQLite does that, and nothing else is written by it
    if (sqlite3_open_v2(path.c_str(), &db.handle, writable ? SQLITE_OPEN_READWRITE : SQLITE_OPEN_READONLY, nullptr) != SQLITE_OK)
        return fileError(path, SqlError{sqlite3_errcode(db.handle), sqlite3_errmsg(db.handle)});
    sqlite3_busy_timeout(db.handle, 5000);
    makeCareful(db.handle);
    return store;
}

bool Store::openAgain() const {
    if (!readOnly() || !damage_.empty()) return false;
    try {
        Statement newest(db_->handle, "SELECT coalesce(max(seq), 0) FROM journal");
        if (newest.step() && newest.integer(0) != revision_) return true;
    } catch (const SqlError&) {
        return false; // busy, or away: the next look tells
    }
    if (!waits_ || ::flock(db_->lock_fd, LOCK_EX | LOCK_NB) != 0) return false;
    ::flock(db_->lock_fd, LOCK_UN); // opening takes it again
    return true;
}

Result<std::unique_ptr<Store>> Store::create(const std::filesystem::path& path) {
    auto store = begin(path, true, Access::Write, {});
    if (!store) return store;
    sqlite3* db = (*store)->db_->handle;
    try {
        // a rollback journal, and the folder synchronised after it is unlinked: one file, and what is confirmed outlasts a power
        // cut
        execute(db, "PRAGMA journal_mode = DELETE; PRAGMA synchronous = EXTRA;");
        Transaction transaction(db);
        execute(db, schema);
        execute(db, blob_schema);
        execute(db, head_schema);
        execute(db,
                fmt::format("PRAGMA application_id = {}; PRAGMA user_version = {};", application_id, schemaVersion()).c_str());
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

Result<std::unique_ptr<Store>> Store::open(const std::filesystem::path& path, Access access, std::chrono::milliseconds patience) {
    auto store = begin(path, false, access, patience);
    if (!store) return store;
    try {
        if (auto known = (*store)->checkVersion(); !known) return known.error();
        execute((*store)->db_->handle, (*store)->readOnly() ? "PRAGMA query_only = 1" : "PRAGMA synchronous = EXTRA");
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
    if (version > schemaVersion())
        return Error{
            Error::Code::TooNew, path_.string(),
            fmt::format("{} was made by a newer Gorvet (file version {}, this one reads {}).", name, version, schemaVersion()),
            "Open it with that one. Nothing in it was changed.", -1};
    if (version < 1)
        return Error{Error::Code::Damaged, path_.string(),
                     fmt::format("{} has the file version {}, which never was.", name, version),
                     "Nothing in it was changed. Open a copy you kept.", -1};
    db_->version = version;
    if (version < schemaVersion() && !readOnly()) return migrate(version);
    return {};
}

namespace {

/// Version 3: each line's sum over the one before it, and the newest line named.
void chainSums(sqlite3* db) {
    execute(db, head_schema);
    std::string before;
    std::int64_t newest = 0;
    Statement lines(db, fmt::format("SELECT {} FROM journal ORDER BY seq", line_columns).c_str());
    while (lines.step()) {
        const JournalLine line = lineFrom(lines, false);
        before = line.sumOver(before, true);
        newest = line.seq;
        Statement put(db, "UPDATE journal SET sum = ?2 WHERE seq = ?1");
        put.bind(1, newest).bind(2, before);
        put.step();
    }
    Statement head(db, "INSERT INTO head (id, seq, sum) VALUES (1, ?1, ?2)");
    head.bind(1, newest).bind(2, before);
    head.step();
    Statement snapshots(db, "SELECT seq, build FROM snapshot");
    while (snapshots.step()) {
        Statement put(db, "UPDATE snapshot SET sum = ?2 WHERE seq = ?1");
        put.bind(1, snapshots.integer(0)).bind(2, snapshotSum(snapshots.integer(0), snapshots.text(1)));
        put.step();
    }
}

} // namespace

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
    if (from_version < 2) {
        execute(db, "ALTER TABLE journal ADD COLUMN sum TEXT NOT NULL DEFAULT '';"
                    "ALTER TABLE snapshot ADD COLUMN sum TEXT NOT NULL DEFAULT '';");
        execute(db, blob_schema);
    }
    if (from_version < 3) chainSums(db);
    execute(db, fmt::format("PRAGMA user_version = {}", schemaVersion()).c_str());
    transaction.commit();
    db_->version = schemaVersion();
    kept_copy_ = copy;
    return {};
}

} // namespace gorvet::store
