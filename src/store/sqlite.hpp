#pragma once

#include "units/result.hpp"

#include <cstdint>
#include <span>
#include <string>
#include <string_view>

#include <sqlite3.h>

/// The thinnest shell round SQLite's handles. Throws SqlError inside the store; nothing of it crosses the store's border.
namespace gorvet::store {

struct SqlError {
    int code;
    std::string message;
};

class Statement {
public:
    Statement(sqlite3* db, const char* sql);
    ~Statement() { sqlite3_finalize(handle_); }
    Statement(const Statement&) = delete;
    Statement& operator=(const Statement&) = delete;
    Statement& bind(int index, std::int64_t value);
    Statement& bind(int index, std::string_view value);
    Statement& bindBytes(int index, std::span<const unsigned char>);
    /// True when a row came, false at the end.
    bool step();
    std::int64_t integer(int column) const { return sqlite3_column_int64(handle_, column); }
    std::string text(int column) const;
    /// Valid until the next step.
    std::span<const unsigned char> bytes(int column) const;

private:
    sqlite3* db_;
    sqlite3_stmt* handle_ = nullptr;
};

void execute(sqlite3* db, const char* sql);

/// BEGIN IMMEDIATE … COMMIT; rolled back unless `commit` was reached.
class Transaction {
public:
    explicit Transaction(sqlite3* db) : db_(db) { execute(db, "BEGIN IMMEDIATE"); }
    ~Transaction() {
        if (open_) sqlite3_exec(db_, "ROLLBACK", nullptr, nullptr, nullptr);
    }
    Transaction(const Transaction&) = delete;
    Transaction& operator=(const Transaction&) = delete;
    void commit() {
        execute(db_, "COMMIT");
        open_ = false;
    }

private:
    sqlite3* db_;
    bool open_ = true;
};

} // namespace gorvet::store
