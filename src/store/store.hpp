#pragma once

#include "build/edit.hpp"

#include <cstdint>
#include <filesystem>
#include <memory>
#include <optional>
#include <string>
#include <vector>

/// The .gorvet file: one SQLite database with a journal of edits. What `keep` has confirmed is on the disk.
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

class Store {
public:
    /// Makes a new file. Fails when one of that name exists already, or can't be written.
    static Result<std::unique_ptr<Store>> create(const std::filesystem::path&);
    /// Opens a file. A second opener gets it read-only (`readOnlyReason`). Fails with TooNew, Damaged, NotFound or File;
    /// the file is untouched then.
    static Result<std::unique_ptr<Store>> open(const std::filesystem::path&);
    ~Store();
    Store(const Store&) = delete;
    Store& operator=(const Store&) = delete;

    const build::Build& build() const { return build_; }
    const std::filesystem::path& path() const { return path_; }
    bool readOnly() const { return !read_only_reason_.empty(); }
    const std::string& readOnlyReason() const { return read_only_reason_; }
    /// Goes up by one with every edit, undo and redo.
    std::int64_t revision() const { return revision_; }

    /// Validates, applies and writes the edit in one transaction. On failure neither the file nor `build()` changed.
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
    /// When the newest entry was kept, UTC; empty for a new file.
    std::string keptAtUtc() const;

private:
    struct Database;
    struct Done {
        std::int64_t seq;
        std::string sentence;
    };
    explicit Store(std::filesystem::path path);
    static Result<std::unique_ptr<Store>> begin(const std::filesystem::path&, bool fresh);
    Result<void> load();
    Result<void> write(const build::Edit& change, const build::Edit& inverse, LogEntry::Kind, std::int64_t target, const Author&);
    Result<std::string> step(std::vector<Done>& from, std::vector<Done>& to, LogEntry::Kind, const Author&);

    std::filesystem::path path_;
    std::unique_ptr<Database> db_;
    build::Build build_;
    std::int64_t revision_ = 0;
    std::vector<Done> done_;
    std::vector<Done> undone_;
    std::string read_only_reason_;
};

} // namespace gorvet::store
