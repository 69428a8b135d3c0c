// What a file holds: the newest snapshot that can be trusted, and the log, line by line.
#include "store/database.hpp"

#include <fmt/format.h>

namespace gorvet::store {

void Store::damaged(std::string sentence) {
    damage_.push_back(std::move(sentence));
    read_only_reason_ = "it is damaged: " + damage_.front();
    waits_ = false;
}

/// Takes the newest snapshot when it is sound and what it holds is a build; returns the line after which it was made, else 0.
std::int64_t Store::loadSnapshot() {
    try {
        Statement newest(db_->handle, db_->sums() ? "SELECT seq, build, sum FROM snapshot ORDER BY seq DESC LIMIT 1"
                                                  : "SELECT seq, build, '' FROM snapshot ORDER BY seq DESC LIMIT 1");
        if (!newest.step()) return 0;
        const std::int64_t seq = newest.integer(0);
        const std::string text = newest.text(1);
        if (!db_->sums() || newest.text(2) == snapshotSum(seq, text))
            if (auto snapshot = build::buildFromJson(text); snapshot && build::consistent(*snapshot)) {
                build_ = std::move(*snapshot);
                snapshot_seq_ = seq;
                return seq;
            }
        notice_ = "its snapshot could not be trusted: the build was made anew from its log, and nothing is lost";
    } catch (const SqlError&) {
        notice_ = "its snapshot could not be read: the build was made anew from its log, and nothing is lost";
    }
    return 0;
}

/// Follows a line in the lists of what can be undone and done again. False when it does not follow from those before it.
bool Store::follow(const JournalLine& line) {
    const LogEntry::Kind kind = kindOf(line.kind);
    if (kind == LogEntry::Kind::Edit) {
        done_.push_back({line.seq, line.sentence});
        undone_.clear();
        return true;
    }
    auto& source = kind == LogEntry::Kind::Undo ? done_ : undone_;
    auto& sink = kind == LogEntry::Kind::Undo ? undone_ : done_;
    if (source.empty() || source.back().seq != line.target) return false;
    sink.push_back(source.back());
    source.pop_back();
    return true;
}

/// Takes the next line; false when nothing after it may be taken. Lines that the snapshot holds are only looked at.
bool Store::loadLine(const JournalLine& line, std::int64_t snapshot) {
    const bool held = line.seq <= snapshot;
    const auto wrong = [&](const std::string& what) {
        damaged(fmt::format("{}; {}", what,
                            held ? "the build is shown as it was kept, but can't be changed or undone"
                                 : "what was kept before it is shown"));
        return held;
    };
    if (line.seq != revision_ + 1) {
        const std::int64_t first = revision_ + 1;
        if (line.seq <= revision_) return wrong(fmt::format("line {} of its log stands where it does not belong", line.seq));
        const bool one = line.seq - 1 == first;
        const bool go_on = wrong(one ? fmt::format("line {} of its log is gone", first)
                                     : fmt::format("lines {} to {} of its log are gone", first, line.seq - 1));
        if (!go_on) return false;
    } else if (db_->sums() && line.sum != line.sumOver(last_sum_, db_->chained())) {
        if (!wrong(fmt::format("line {} of its log is not as it was written", line.seq))) return false;
    }
    if (held) {
        if (!follow(line) && damage_.empty() &&
            !wrong(fmt::format("line {} of its log does not follow from those before it", line.seq)))
            return false;
        revision_ = line.seq;
        last_sum_ = line.sum;
        refer(line.changes);
        return true;
    }
    const auto stop = [&](const std::string& why) { return wrong(fmt::format("line {} of its log {}", line.seq, why)); };
    auto changes = build::changesFromJson(line.changes);
    if (!changes) return stop("can't be understood");
    rows_since_snapshot_ += changes->size();
    const std::uint32_t next_id = build_.next_id;
    auto inverse = build::enact(build_, build::Edit{line.sentence, std::move(*changes)});
    if (!inverse) return stop("can't be applied (" + inverse.error().message + ")");
    if (!follow(line)) {
        takeBack(*inverse, next_id);
        return stop("does not follow from those before it");
    }
    revision_ = line.seq;
    last_sum_ = line.sum;
    refer(line.changes);
    return true;
}

/// Whether the newest line is there.
void Store::checkHead() {
    Statement head(db_->handle, "SELECT seq, sum FROM head WHERE id = 1");
    if (!head.step()) {
        if (revision_ > 0) damaged("nothing says which line of its log is the newest: later ones may be gone");
        return;
    }
    const std::int64_t newest = head.integer(0);
    if (newest > revision_)
        damaged(newest == revision_ + 1 ? fmt::format("line {} of its log, the newest, is gone", newest)
                                        : fmt::format("lines {} to {} of its log, the newest, are gone", revision_ + 1, newest));
    else if (newest < revision_ || head.text(1) != last_sum_)
        damaged(fmt::format("line {} of its log is not the one that was written last", revision_));
}

/// Remembers which photos and scans a line names: every text of 64 hexadecimal signs.
void Store::refer(std::string_view changes) {
    for (size_t at = changes.find("\":\""); at != std::string_view::npos; at = changes.find("\":\"", at + 3)) {
        const auto value = changes.substr(at + 3, 65);
        if (value.size() == 65 && value[64] == '"' &&
            value.substr(0, 64).find_first_not_of("0123456789abcdef") == std::string_view::npos)
            referred_.emplace(value.substr(0, 64));
    }
}

Result<void> Store::load() {
    sqlite3* db = db_->handle;
    // one view of the file, though others may write meanwhile
    struct Reading {
        sqlite3* db;
        explicit Reading(sqlite3* d) : db(d) { execute(db, "BEGIN"); }
        ~Reading() { sqlite3_exec(db, "COMMIT", nullptr, nullptr, nullptr); }
    } const reading(db);
    try {
        if (const std::string wrong = wrongSchema(db, db_->version); !wrong.empty())
            return Error{Error::Code::Damaged, path_.string(),
                         fmt::format("{} is no build of this program: {}.", path_.filename().string(), wrong),
                         "Nothing in it was changed. Open a copy you kept.", -1};
    } catch (const SqlError& e) {
        if (e.code == SQLITE_NOMEM || (e.code & 0xFF) == SQLITE_BUSY) throw;
        return fileError(path_, e);
    }
    const std::int64_t snapshot = loadSnapshot();
    bool to_the_end = true;
    try {
        Statement rows(db,
                       fmt::format("SELECT {}{} FROM journal ORDER BY seq", line_columns, db_->sums() ? ", sum" : "").c_str());
        while (to_the_end && rows.step()) to_the_end = loadLine(lineFrom(rows, db_->sums()), snapshot);
    } catch (const SqlError& e) {
        if (e.code == SQLITE_NOMEM || (e.code & 0xFF) == SQLITE_BUSY) throw;
        if (revision_ == 0 && snapshot == 0 && e.code != SQLITE_CORRUPT) throw; // no table at all, or a medium that is gone
        damaged(fmt::format("its log can't be read after line {}; {}", revision_,
                            revision_ < snapshot ? "the build is shown as it was kept then" : "what was kept before is shown"));
        to_the_end = false;
    }
    if (revision_ < snapshot) {
        if (to_the_end) damaged(fmt::format("lines {} to {} of its log, the newest, are gone", revision_ + 1, snapshot));
        revision_ = snapshot;
    } else if (to_the_end && db_->chained()) {
        try {
            checkHead();
        } catch (const SqlError& e) {
            if (e.code == SQLITE_NOMEM || (e.code & 0xFF) == SQLITE_BUSY) throw;
            damaged("nothing says which line of its log is the newest: later ones may be gone");
        }
    }
    if (!damage_.empty()) notice_.clear(); // it would say too much
    if (revision_ == 0 && !damage_.empty())
        return Error{Error::Code::Damaged, path_.string(),
                     fmt::format("Nothing in {} can be read: {}.", path_.filename().string(), damage_.front()),
                     "Nothing was changed. Open a copy you kept.", -1};
    return {};
}

} // namespace gorvet::store
