// The tables, and whether a file has them and nothing else.
#include "store/database.hpp"

#include <map>
#include <utility>
#include <vector>

#include <fmt/format.h>

namespace gorvet::store {

const char* const schema = R"(
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

const char* const blob_schema = R"(
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

const char* const head_schema = R"(
CREATE TABLE head (
    id  INTEGER PRIMARY KEY CHECK (id = 1),
    seq INTEGER NOT NULL,        -- the newest line of the journal
    sum TEXT NOT NULL            -- and its sum: so that lines missing at the end are noticed
) STRICT;
)";

namespace {

using Columns = std::vector<std::pair<std::string, std::string>>; ///< name, type

std::map<std::string, Columns> tablesOf(std::int64_t version) {
    std::map<std::string, Columns> tables = {{"journal",
                                              {{"seq", "INTEGER"},
                                               {"at_utc", "TEXT"},
                                               {"who", "TEXT"},
                                               {"why", "TEXT"},
                                               {"sentence", "TEXT"},
                                               {"kind", "TEXT"},
                                               {"target", "INTEGER"},
                                               {"changes", "TEXT"},
                                               {"inverse", "TEXT"}}},
                                             {"snapshot", {{"seq", "INTEGER"}, {"build", "TEXT"}}}};
    if (version >= 2) {
        for (const char* name : {"journal", "snapshot"}) tables[name].emplace_back("sum", "TEXT");
        tables["blob"] = {{"hash", "TEXT"}, {"name", "TEXT"}, {"bytes", "INTEGER"}};
        tables["blob_chunk"] = {{"hash", "TEXT"}, {"n", "INTEGER"}, {"data", "BLOB"}};
    }
    if (version >= 3) tables["head"] = {{"id", "INTEGER"}, {"seq", "INTEGER"}, {"sum", "TEXT"}};
    return tables;
}

} // namespace

std::string wrongSchema(sqlite3* db, std::int64_t version) {
    auto expected = tablesOf(version);
    Statement things(db, "SELECT type, name, coalesce(sql, '') FROM sqlite_master");
    while (things.step()) {
        const std::string type = things.text(0);
        const std::string name = things.text(1);
        if (type == "index" && name.starts_with("sqlite_autoindex_")) continue;
        const auto known = expected.find(name);
        if (type != "table" || known == expected.end())
            return fmt::format("it has a {} {} that no build has", type, name.substr(0, 40));
        if (!things.text(2).starts_with("CREATE TABLE")) return fmt::format("its {} is no plain table", name);
        Columns columns;
        Statement info(db, "SELECT name, type, hidden FROM pragma_table_xinfo(?1)");
        info.bind(1, name);
        while (info.step()) {
            if (info.integer(2) != 0) return fmt::format("its {} has a column that is computed", name);
            columns.emplace_back(info.text(0), info.text(1));
        }
        if (columns != known->second) return fmt::format("its {} has other columns than a build's", name);
        expected.erase(known);
    }
    if (!expected.empty()) return fmt::format("it has no {}", expected.begin()->first);
    return {};
}

void makeCareful(sqlite3* db) {
    sqlite3_extended_result_codes(db, 1);
    // a file from elsewhere is only data: it may not bring functions, views or triggers that run
    sqlite3_db_config(db, SQLITE_DBCONFIG_DEFENSIVE, 1, nullptr);
    sqlite3_db_config(db, SQLITE_DBCONFIG_TRUSTED_SCHEMA, 0, nullptr);
    sqlite3_db_config(db, SQLITE_DBCONFIG_ENABLE_TRIGGER, 0, nullptr);
    sqlite3_db_config(db, SQLITE_DBCONFIG_ENABLE_VIEW, 0, nullptr);
    sqlite3_limit(db, SQLITE_LIMIT_LENGTH, 512 * 1024 * 1024);
    sqlite3_limit(db, SQLITE_LIMIT_SQL_LENGTH, 100'000);
    sqlite3_limit(db, SQLITE_LIMIT_COLUMN, 100);
    sqlite3_limit(db, SQLITE_LIMIT_EXPR_DEPTH, 100);
    sqlite3_limit(db, SQLITE_LIMIT_ATTACHED, 0);
    sqlite3_limit(db, SQLITE_LIMIT_VARIABLE_NUMBER, 100);
    sqlite3_limit(db, SQLITE_LIMIT_TRIGGER_DEPTH, 1);
    sqlite3_limit(db, SQLITE_LIMIT_WORKER_THREADS, 0);
}

} // namespace gorvet::store
