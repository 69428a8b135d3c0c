// Photos and scans inside the build's file: by content hash, in chunks.
#include "store/database.hpp"
#include "store/hash.hpp"

#include <fstream>

#include <fmt/format.h>

namespace gorvet::store {

namespace {
constexpr std::streamsize chunk_bytes = 256 * 1024;

Error unreadable(const std::filesystem::path& file) {
    return {Error::Code::NotFound, file.string(), fmt::format("{} can't be read.", file.string()),
            "Check its name and permissions. Nothing was changed.", -1};
}
Error cancelled(const std::filesystem::path& file) {
    return {Error::Code::Conflict, file.string(), fmt::format("Cancelled: {} was not kept.", file.filename().string()), "", -1};
}

/// Walks over a file in chunks; false when it can't be read or `take` returned false.
bool eachChunk(const std::filesystem::path& file, const std::function<bool(std::span<const unsigned char>)>& take) {
    std::ifstream in(file, std::ios::binary);
    std::vector<unsigned char> buffer(static_cast<size_t>(chunk_bytes));
    while (in) {
        in.read(reinterpret_cast<char*>(buffer.data()), chunk_bytes);
        const auto got = static_cast<size_t>(in.gcount());
        if (got > 0 && !take({buffer.data(), got})) return false;
    }
    return in.eof();
}
} // namespace

Result<Blob> Store::keepBlob(const std::filesystem::path& file, const Progress& progress) {
    if (readOnly()) return lockedError();
    std::error_code code;
    const auto size = std::filesystem::is_regular_file(file, code) ? std::filesystem::file_size(file, code) : 0;
    if (code || !std::filesystem::is_regular_file(file, code)) return unreadable(file);
    if (std::filesystem::equivalent(file, path_, code))
        return Error{Error::Code::Conflict, file.string(), "That is this build itself.", "Choose a photo or a scan.", -1};
    if (size > most_blob_bytes)
        return Error{Error::Code::BadInput, file.string(),
                     fmt::format("{} has {} GB: {} at most are kept in a build.", file.filename().string(), size >> 30,
                                 most_blob_bytes >> 30),
                     "Thin it out where it was made.", -1};
    double done = 0;
    bool go_on = true;
    const auto report = [&](size_t bytes) {
        done += static_cast<double>(bytes);
        if (progress && size > 0) go_on = progress(std::min(1.0, done / (2.0 * static_cast<double>(size))));
        return go_on;
    };
    Hash hash;
    if (!eachChunk(file, [&](auto bytes) {
            hash.add(bytes);
            return report(bytes.size());
        }))
        return go_on ? unreadable(file) : cancelled(file);
    Blob kept{hash.hex(), file.filename().string(), static_cast<std::int64_t>(size)};
    if (const auto there = blob(kept.hash)) return *there;
    try {
        Statement count(db_->handle, "SELECT count(*) FROM blob");
        if (count.step() && count.integer(0) >= most_blobs)
            return Error{Error::Code::Conflict, file.string(),
                         fmt::format("The build holds {} photos and scans already.", most_blobs), "Begin another build.", -1};
        Transaction transaction(db_->handle);
        Statement row(db_->handle, "INSERT INTO blob (hash, name, bytes) VALUES (?1, ?2, ?3)");
        row.bind(1, kept.hash).bind(2, kept.name).bind(3, kept.bytes);
        row.step();
        Hash again; // the file may have changed between the two walks
        std::int64_t number = 0;
        const bool whole = eachChunk(file, [&](auto bytes) {
            Statement chunk(db_->handle, "INSERT INTO blob_chunk (hash, n, data) VALUES (?1, ?2, ?3)");
            chunk.bind(1, kept.hash).bind(2, number++).bindBytes(3, bytes);
            chunk.step();
            again.add(bytes);
            return report(bytes.size());
        });
        if (!whole) return go_on ? unreadable(file) : cancelled(file);
        if (again.hex() != kept.hash)
            return Error{Error::Code::Conflict, file.string(),
                         fmt::format("{} changed while it was being read.", file.filename().string()),
                         "Do it again once it is written. Nothing was changed.", -1};
        transaction.commit();
    } catch (const SqlError& e) {
        return fileError(path_, e);
    }
    return kept;
}

/// Takes out what no line of the log names: a photo that was refused, a scan whose step was never kept.
void Store::sweep() {
    try {
        std::vector<std::string> unused;
        {
            Statement all(db_->handle, "SELECT hash FROM blob");
            while (all.step())
                if (std::string hash = all.text(0); !referred_.contains(hash)) unused.push_back(std::move(hash));
        }
        if (unused.empty()) return;
        Transaction transaction(db_->handle);
        for (const std::string& hash : unused)
            for (const char* sql : {"DELETE FROM blob_chunk WHERE hash = ?1", "DELETE FROM blob WHERE hash = ?1"}) {
                Statement drop(db_->handle, sql);
                drop.bind(1, hash);
                drop.step();
            }
        transaction.commit();
    } catch (const SqlError&) {
        return; // it only takes room
    }
}

std::optional<Blob> Store::blob(const std::string& hash) const {
    if (!db_->sums()) return std::nullopt; // version 1 had none
    try {
        Statement row(db_->handle, "SELECT name, bytes FROM blob WHERE hash = ?1");
        row.bind(1, hash);
        if (row.step()) return Blob{hash, row.text(0), row.integer(1)};
    } catch (const SqlError&) {
        return std::nullopt;
    }
    return std::nullopt;
}

Result<void> Store::readBlob(const std::string& hash, const std::function<void(std::span<const unsigned char>)>& take) const {
    const auto known = blob(hash);
    if (!known) return Error{Error::Code::NotFound, hash, "The file has no photo or scan of that name.", "", -1};
    try {
        Hash check;
        Statement rows(db_->handle, "SELECT data FROM blob_chunk WHERE hash = ?1 ORDER BY n");
        rows.bind(1, hash);
        while (rows.step()) {
            const auto bytes = rows.bytes(0);
            check.add(bytes);
            take(bytes);
        }
        if (check.hex() != hash)
            return Error{Error::Code::Damaged, known->name, fmt::format("{} is damaged inside the file.", known->name),
                         "All else in the build is not touched by it. Add it again from the camera.", -1};
    } catch (const SqlError& e) {
        return fileError(path_, e);
    }
    return {};
}

} // namespace gorvet::store
