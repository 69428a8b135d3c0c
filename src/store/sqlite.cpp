#include "store/sqlite.hpp"

namespace gorvet::store {

namespace {
void check(sqlite3* db, int code) {
    if (code != SQLITE_OK) throw SqlError{sqlite3_extended_errcode(db), sqlite3_errmsg(db)};
}
} // namespace

Statement::Statement(sqlite3* db, const char* sql) : db_(db) { check(db, sqlite3_prepare_v2(db, sql, -1, &handle_, nullptr)); }

Statement& Statement::bind(int index, std::int64_t value) {
    check(db_, sqlite3_bind_int64(handle_, index, value));
    return *this;
}

Statement& Statement::bind(int index, std::string_view value) {
    check(db_, sqlite3_bind_text(handle_, index, value.data(), static_cast<int>(value.size()), SQLITE_TRANSIENT));
    return *this;
}

Statement& Statement::bindBytes(int index, std::span<const unsigned char> value) {
    check(db_, sqlite3_bind_blob64(handle_, index, value.data(), value.size(), SQLITE_TRANSIENT));
    return *this;
}

bool Statement::step() {
    const int code = sqlite3_step(handle_);
    if (code == SQLITE_ROW) return true;
    if (code == SQLITE_DONE) return false;
    throw SqlError{sqlite3_extended_errcode(db_), sqlite3_errmsg(db_)};
}

std::string Statement::text(int column) const {
    const auto* bytes = reinterpret_cast<const char*>(sqlite3_column_text(handle_, column));
    return bytes ? std::string(bytes, static_cast<size_t>(sqlite3_column_bytes(handle_, column))) : std::string();
}

std::span<const unsigned char> Statement::bytes(int column) const {
    const auto* data = static_cast<const unsigned char*>(sqlite3_column_blob(handle_, column));
    return {data, data ? static_cast<size_t>(sqlite3_column_bytes(handle_, column)) : 0};
}

void execute(sqlite3* db, const char* sql) { check(db, sqlite3_exec(db, sql, nullptr, nullptr, nullptr)); }

} // namespace gorvet::store
