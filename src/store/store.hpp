#pragma once

#include "build/edit.hpp"

#include <chrono>
#include <cstdint>
#include <filesystem>
#include <functional>
#include <memory>
#include <optional>
#include <set>
#include <span>
#include <string>
#include <vector>

/// The .gorvet file: one SQLite database with a journal of edits, and photos and scans as blobs. What `keep` has confirmed is on
/// the disk. docs/file-format.md says how it looks inside.
namespace gorvet::store {

/// A line of the logbook.
struct LogEntry {
    std::int64_t seq = 0;
    std::string at_utc; ///< ISO 8601, seconds
    std::string who;
    std::string why; ///< may be empty
    std::string sentence;
    enum class Kind { Edit, Undo, Redo } kind = Kind::Edit;
};

/// Who changes something, and why: goes into the log with the edit.
struct Author {
    std::string who;
    std::string why;
};

/// So many photos and scans a build's file holds, and none of more bytes.
inline constexpr std::int64_t most_blobs = 40'000;
inline constexpr std::uintmax_t most_blob_bytes = 8ULL << 30;

/// A file kept inside the build's file.
struct Blob {
    std::string hash; ///< SHA-256 of its content, 64 hexadecimal signs
    std::string name; ///< the file's name when it was kept
    std::int64_t bytes = 0;
};

/// The build as it stood at the end of a day.
struct Since {
    build::Build then;
    int day = 0;   ///< UTC, days since 1970: the one that was asked for, or the first of the log where that is younger
    int lines = 0; ///< kept since
};

/// The time now, ISO 8601, UTC, to the second.
std::string nowUtc();

/// Called with the share done, 0…1; returning false cancels.
using Progress = std::function<bool(double)>;

struct JournalLine;

/// What a file is opened for. A reader takes no lock and stands in nobody's way; of writers there is one at a time.
enum class Access { Write, Read };

class Store {
public:
    /// Makes a new file. Fails when one of that name exists already, or can't be written.
    static Result<std::unique_ptr<Store>> create(const std::filesystem::path&);
    /// Opens a file. A second writer waits as long as its patience for the first to go, then gets it read-only
    /// (`readOnlyReason`). A writer brings a file of an older version up to this one, after a copy of it was kept beside it
    /// (`keptCopy`); where no copy can be kept it opens read-only as it is. A damaged file opens read-only with what can be read
    /// (`damage`). Fails with TooNew, Damaged (nothing can be read, or its inner form is not a build's), NotFound or File; the
    /// file is untouched then.
    static Result<std::unique_ptr<Store>> open(const std::filesystem::path&, Access = Access::Write,
                                               std::chrono::milliseconds patience = {});
    ~Store();
    Store(const Store&) = delete;
    Store& operator=(const Store&) = delete;

    const build::Build& build() const { return build_; }
    const std::filesystem::path& path() const { return path_; }
    bool readOnly() const { return !read_only_reason_.empty(); }
    const std::string& readOnlyReason() const { return read_only_reason_; }
    /// Read-only for no other reason than that another program writes it.
    bool waitsForWriter() const { return waits_; }
    /// Whether opening it again would show something new: what it waits for has gone, or another program has kept something.
    bool openAgain() const;
    /// What of a damaged file could not be read, in sentences; empty for a sound file.
    const std::vector<std::string>& damage() const { return damage_; }
    /// What was mended on opening without any loss, in a sentence: the build was made anew from its log. Usually empty.
    const std::string& notice() const { return notice_; }
    /// The copy that was kept before a file of an older version was brought up; empty when there was no need.
    const std::filesystem::path& keptCopy() const { return kept_copy_; }
    /// Goes up by one with every edit, undo and redo.
    std::int64_t revision() const { return revision_; }

    /// Validates (build/gate.hpp), writes and applies the edit in one transaction; what is applied is what was read back from its
    /// written form. On failure neither the file nor `build()` changed.
    Result<void> keep(const build::Edit&, const Author&);
    /// Undoes the newest edit that is not undone; NotFound when there is none. Returns the sentence of what it undid.
    Result<std::string> undo(const Author&);
    Result<std::string> redo(const Author&);
    /// Sentence of what undo or redo would do next; empty when nothing.
    std::string undoSentence() const;
    std::string redoSentence() const;
    /// The newest `most` log lines, newest first.
    std::vector<LogEntry> log(int most = 100) const;
    /// Who last put or changed a row of a table ("reading", "pin", …), and when; none when the log does not know.
    std::optional<LogEntry> lastChange(const std::string& table, std::uint32_t id) const;
    /// The build as it stood at the end of a day, by taking back what was kept later. Fails where a line can't be read or taken
    /// back.
    Result<Since> since(int day) const;
    /// When the newest entry was kept, UTC; empty for a new file.
    std::string keptAtUtc() const;

    /// Copies a file into the build's file, in chunks, never whole in memory. A file whose content is there already is not kept
    /// twice. Kept all or not at all, also when cancelled (Error::Code::Conflict). An edit names it by its hash; one that no line
    /// of the log names is taken out again when the file is closed.
    Result<Blob> keepBlob(const std::filesystem::path&, const Progress& = {});
    /// Hands a blob's bytes over, chunk by chunk. NotFound; Damaged when they no longer match the hash (said at the end).
    Result<void> readBlob(const std::string& hash, const std::function<void(std::span<const unsigned char>)>& take) const;
    std::optional<Blob> blob(const std::string& hash) const;

private:
    struct Database;
    struct Done {
        std::int64_t seq;
        std::string sentence;
    };
    explicit Store(std::filesystem::path path);
    static Result<std::unique_ptr<Store>> begin(const std::filesystem::path&, bool fresh, Access, std::chrono::milliseconds);
    Result<void> takeLock(bool fresh, std::chrono::milliseconds patience);
    Result<void> checkVersion();
    Result<void> migrate(std::int64_t from_version);
    Result<void> load();
    std::int64_t loadSnapshot();
    bool loadLine(const JournalLine&, std::int64_t snapshot);
    bool follow(const JournalLine&);
    void checkHead();
    void damaged(std::string sentence);
    void refer(std::string_view changes);
    void sweep();
    void takeBack(const build::Edit& inverse, std::uint32_t next_id);
    Error lockedError() const;
    Result<void> write(const build::Edit& change, const build::Edit& inverse, LogEntry::Kind, std::int64_t target, const Author&);
    Result<std::string> step(std::vector<Done>& from, std::vector<Done>& to, LogEntry::Kind, const Author&);

    std::filesystem::path path_;
    std::unique_ptr<Database> db_;
    build::Build build_;
    std::int64_t revision_ = 0;
    std::int64_t snapshot_seq_ = 0;
    std::size_t rows_since_snapshot_ = 0; ///< changes of the lines after it
    std::string last_sum_;                ///< of the newest line: the next one's sum is made over it, too
    std::vector<Done> done_;
    std::vector<Done> undone_;
    std::set<std::string, std::less<>> referred_; ///< hashes of blobs that a line of the log names
    std::string read_only_reason_;
    bool waits_ = false;
    std::vector<std::string> damage_;
    std::string notice_;
    std::filesystem::path kept_copy_;
};

} // namespace gorvet::store
