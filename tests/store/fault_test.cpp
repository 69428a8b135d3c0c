// A disk that fills up and a stick that is pulled out, played by a layer between SQLite and the system.
#include "store/made.hpp"
#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <cstring>
#include <fstream>
#include <sqlite3.h>

namespace store_fault_test {

using namespace gorvet;
using namespace gorvet::build;
using store::Store;
using test::addPoint;
using test::author;

namespace {

/// How many writes still go through, and what happens to those after.
struct Fault {
    enum class Kind { None, Full, Gone } kind = Kind::None;
    int writes_left = 0;
    bool struck = false;
    bool fails() {
        if (kind == Kind::None) return false;
        if (writes_left > 0) {
            --writes_left;
            return false;
        }
        struck = true;
        return true;
    }
    bool gone() const { return kind == Kind::Gone && struck; }
};
Fault fault;

struct File {
    sqlite3_file base;
    sqlite3_file* real;
};
sqlite3_file* real(sqlite3_file* f) { return reinterpret_cast<File*>(f)->real; }
int failure() { return fault.kind == Fault::Kind::Full ? SQLITE_FULL : SQLITE_IOERR_WRITE; }

int closeFile(sqlite3_file* f) {
    const int code = real(f)->pMethods ? real(f)->pMethods->xClose(real(f)) : SQLITE_OK;
    sqlite3_free(real(f));
    return code;
}
int readFile(sqlite3_file* f, void* to, int n, sqlite3_int64 at) {
    return fault.gone() ? SQLITE_IOERR_READ : real(f)->pMethods->xRead(real(f), to, n, at);
}
int writeFile(sqlite3_file* f, const void* from, int n, sqlite3_int64 at) {
    return fault.fails() ? failure() : real(f)->pMethods->xWrite(real(f), from, n, at);
}
int truncateFile(sqlite3_file* f, sqlite3_int64 size) {
    return fault.gone() ? SQLITE_IOERR_TRUNCATE : real(f)->pMethods->xTruncate(real(f), size);
}
int syncFile(sqlite3_file* f, int flags) { return fault.gone() ? SQLITE_IOERR_FSYNC : real(f)->pMethods->xSync(real(f), flags); }
int sizeOfFile(sqlite3_file* f, sqlite3_int64* size) {
    return fault.gone() ? SQLITE_IOERR_FSTAT : real(f)->pMethods->xFileSize(real(f), size);
}
int lockFile(sqlite3_file* f, int level) { return real(f)->pMethods->xLock(real(f), level); }
int unlockFile(sqlite3_file* f, int level) { return real(f)->pMethods->xUnlock(real(f), level); }
int checkLock(sqlite3_file* f, int* out) { return real(f)->pMethods->xCheckReservedLock(real(f), out); }
int control(sqlite3_file* f, int op, void* arg) { return real(f)->pMethods->xFileControl(real(f), op, arg); }
int sector(sqlite3_file* f) { return real(f)->pMethods->xSectorSize(real(f)); }
int traits(sqlite3_file* f) { return real(f)->pMethods->xDeviceCharacteristics(real(f)); }

const sqlite3_io_methods methods = {1,        closeFile,  readFile,  writeFile, truncateFile, syncFile, sizeOfFile,
                                    lockFile, unlockFile, checkLock, control,   sector,       traits,   nullptr,
                                    nullptr,  nullptr,    nullptr,   nullptr,   nullptr};
sqlite3_vfs* below = nullptr;

int openFile(sqlite3_vfs*, const char* name, sqlite3_file* f, int flags, int* out) {
    auto* file = reinterpret_cast<File*>(f);
    file->real = static_cast<sqlite3_file*>(sqlite3_malloc(below->szOsFile));
    std::memset(file->real, 0, static_cast<size_t>(below->szOsFile));
    const int code = fault.gone() ? SQLITE_CANTOPEN : below->xOpen(below, name, file->real, flags, out);
    file->base.pMethods = code == SQLITE_OK ? &methods : nullptr;
    if (code != SQLITE_OK) sqlite3_free(file->real);
    return code;
}
int deleteFile(sqlite3_vfs*, const char* name, int sync) {
    return fault.gone() ? SQLITE_IOERR_DELETE : below->xDelete(below, name, sync);
}

/// While it lives, every SQLite file of this process goes through the layer.
struct Layer {
    sqlite3_vfs vfs;
    Layer() {
        below = sqlite3_vfs_find(nullptr);
        vfs = *below;
        vfs.zName = "fault";
        vfs.szOsFile = sizeof(File);
        vfs.xOpen = openFile;
        vfs.xDelete = deleteFile;
        sqlite3_vfs_register(&vfs, 1);
        fault = {};
    }
    ~Layer() {
        sqlite3_vfs_register(below, 1);
        sqlite3_vfs_unregister(&vfs);
    }
};

/// Lets the fault strike after each number of writes in turn; nothing confirmed may be lost, nothing else may be there.
void strike(Fault::Kind kind, Error::Code expected, const char* word) {
    const Layer layer;
    const test::QuickFolder quick(std::string("store-fault-") + word);
    const auto& folder = quick.path;
    int struck = 0;
    for (int writes = 0; writes < 60; ++writes) {
        const auto path = folder / ("f" + std::to_string(writes) + ".gorvet");
        Build confirmed;
        {
            auto made = Store::create(path);
            REQUIRE(made);
            for (int i = 0; i < 4; ++i) REQUIRE((*made)->keep(addPoint((*made)->build(), "before"), author));
            fault = {kind, writes, false};
            for (int i = 0; i < 8; ++i) {
                const Build before = (*made)->build();
                // long notes: an edit of several pages
                const auto kept = (*made)->keep(addPoint(before, std::string(9000, 'x')), author);
                if (!kept) {
                    INFO(kept.error().text());
                    CHECK(kept.error().code == expected);
                    CHECK((*made)->build() == before);
                    ++struck;
                    break;
                }
            }
            confirmed = (*made)->build();
            fault.kind = kind == Fault::Kind::Gone ? fault.kind : Fault::Kind::None; // space was freed
            if (kind == Fault::Kind::Full) {
                REQUIRE((*made)->keep(addPoint((*made)->build(), "after"), author));
                confirmed = (*made)->build();
            } else if (fault.struck) {
                CHECK_FALSE((*made)->keep(addPoint((*made)->build(), "after"), author));
                CHECK_FALSE((*made)->undo(author));
                CHECK_FALSE((*made)->keepBlob("/bin/sh"));
            }
        }
        fault = {}; // the stick is back
        auto again = Store::open(path);
        REQUIRE(again);
        CHECK((*again)->damage().empty());
        CHECK((*again)->build() == confirmed);
        CHECK((*again)->keep(addPoint((*again)->build(), "goes on"), author));
    }
    CHECK(struck > 30); // the fault was really met
}

} // namespace

TEST_CASE("a full disk refuses an edit and loses nothing", "[store][fault]") {
    strike(Fault::Kind::Full, Error::Code::File, "full");
}

TEST_CASE("a medium that is pulled out loses nothing that was confirmed", "[store][fault]") {
    strike(Fault::Kind::Gone, Error::Code::File, "gone");
}

TEST_CASE("a photo that does not fit on the disk is not kept by half", "[store][fault]") {
    const Layer layer;
    const auto folder = test::freshFolder("store-fault-photo");
    std::ofstream(folder / "big.png", std::ios::binary) << std::string(3'000'000, 'p');
    auto made = Store::create(folder / "a.gorvet");
    REQUIRE(made);
    fault = {Fault::Kind::Full, 20, false};
    const auto refused = (*made)->keepBlob(folder / "big.png");
    REQUIRE_FALSE(refused);
    CHECK(refused.error().message == "The disk is full, so this was not kept.");
    fault = {};
    const auto kept = (*made)->keepBlob(folder / "big.png");
    REQUIRE(kept);
    CHECK(kept->bytes == 3'000'000);
}

} // namespace store_fault_test
