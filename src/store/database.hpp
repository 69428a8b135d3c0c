#pragma once

#include "store/sqlite.hpp"
#include "store/store.hpp"

#include <unistd.h>

/// What the files of the store share. Internal to this room.
namespace gorvet::store {

inline constexpr std::int64_t application_id = 0x476F7276; // "Gorv"
/// 1: journal and snapshots. 2: a checksum on each line, blobs.
inline constexpr std::int64_t schema_version = 2;
inline constexpr std::int64_t snapshot_every = 200;

/// The connection, and a second descriptor that carries the kernel's lock. It is closed after SQLite's own, because closing
/// any descriptor of a file drops a process's record locks on it, SQLite's among them.
struct Store::Database {
    sqlite3* handle = nullptr;
    int lock_fd = -1;
    bool sums = true; ///< the file has checksums (version 2 on)
    ~Database() {
        sqlite3_close(handle);
        if (lock_fd >= 0) ::close(lock_fd);
    }
};

/// What an SQLite error means to the person whose file it is.
Error fileError(const std::filesystem::path&, const SqlError&);

const char* kindWord(LogEntry::Kind);
LogEntry::Kind kindOf(const std::string&);

/// Checksum of a journal line, and of a snapshot: the first 16 signs of the SHA-256 of its fields, each ended by a zero byte.
std::string lineSum(std::int64_t seq, std::string_view at_utc, std::string_view who, std::string_view why,
                    std::string_view sentence, std::string_view kind, std::int64_t target, std::string_view changes,
                    std::string_view inverse);
std::string snapshotSum(std::int64_t seq, std::string_view build);

} // namespace gorvet::store
