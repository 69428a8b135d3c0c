#pragma once

#include "build/describe.hpp"
#include "store/sqlite.hpp"
#include "store/store.hpp"

#include <algorithm>

#include <unistd.h>

/// What the files of the store share. Internal to this room.
namespace gorvet::store {

inline constexpr std::int64_t application_id = 0x476F7276; // "Gorv"
/// 1: journal and snapshots. 2: a checksum on each line, blobs. 3: each sum made over the one before it, and the newest line
/// named. From 4 on the version is that of the newest table or field: what was written by a program that knows more is never
/// taken for damage.
inline std::int64_t schemaVersion() { return std::max(3, build::newestVersion()); }
inline constexpr std::int64_t snapshot_every = 200; ///< lines, at first: docs/file-format.md
inline constexpr std::size_t snapshot_rows = 2000;  ///< changes, at first: the same

/// The connection, and a second descriptor that carries the kernel's lock. It is closed after SQLite's own, because closing
/// any descriptor of a file drops a process's record locks on it, SQLite's among them.
struct Store::Database {
    sqlite3* handle = nullptr;
    int lock_fd = -1;
    std::int64_t version = schemaVersion(); ///< of the file
    bool sums() const { return version >= 2; }
    bool chained() const { return version >= 3; }
    ~Database() {
        sqlite3_close(handle);
        if (lock_fd >= 0) ::close(lock_fd);
    }
};

/// What an SQLite error means to the person whose file it is.
Error fileError(const std::filesystem::path&, const SqlError&);

const char* kindWord(LogEntry::Kind);
LogEntry::Kind kindOf(const std::string&);

/// A line of the journal as it stands in the file.
struct JournalLine {
    std::int64_t seq = 0;
    std::string at_utc, who, why, sentence, kind;
    std::int64_t target = 0;
    std::string changes, inverse;
    std::string sum; ///< as written
    /// What the sum must be: the first 16 signs of the SHA-256 of the fields, each ended by a zero byte; from version 3 on the
    /// sum of the line before goes first (empty for the first line).
    std::string sumOver(std::string_view before, bool chained) const;
};

/// The columns in the order in which `lineFrom` takes them.
inline constexpr const char* line_columns = "seq, at_utc, who, why, sentence, kind, target, changes, inverse";
JournalLine lineFrom(const Statement&, bool sums);

/// Sum of a snapshot.
std::string snapshotSum(std::int64_t seq, std::string_view build);

/// The tables of a new file.
extern const char* const schema;
extern const char* const blob_schema;
extern const char* const head_schema;
/// Whether the tables are those of the version and nothing runs by itself: no view, trigger, generated column or index of its
/// own. Says what is wrong, or nothing.
std::string wrongSchema(sqlite3*, std::int64_t version);
/// Flags and limits for a file that may come from anywhere.
void makeCareful(sqlite3*);

} // namespace gorvet::store
