// The power goes at every single write, sync and unlink of every writing command; what a disk may then hold is opened again.
#include "build/describe.hpp"
#include "formats/readings_csv.hpp"
#include "store/made.hpp"
#include "support/support.hpp"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cstring>
#include <fstream>
#include <functional>
#include <map>
#include <random>
#include <sqlite3.h>

namespace store_power_test {

using namespace gorvet;
using namespace gorvet::build;
using store::Store;
using test::addPoint;
using test::author;

namespace {

/// What the disk surely holds of a file, and what was written since its last sync.
struct Image {
    bool exists = false; ///< its name is in the folder for sure
    std::string durable;
    struct Write {
        sqlite3_int64 at;
        std::string bytes; ///< empty: cut to `at` bytes
    };
    std::vector<Write> pending;
    bool unlinked = false; ///< but the folder was not synchronised since
};

/// The disk as a whole, and at which event the power goes.
struct Disk {
    std::map<std::string, Image> files; ///< by the last part of the name
    int events = 0;
    int cut_at = -1;
    bool off = false;
    std::map<std::string, Image> at_cut;
    int confirmed = 0; ///< commands that had returned
    int confirmed_at_cut = 0;
    /// Before each event: is this the one?
    void event() {
        if (!off && events == cut_at) {
            at_cut = files;
            confirmed_at_cut = confirmed;
            off = true;
        }
        ++events;
    }
};
Disk disk;

std::string lastPart(const char* name) {
    const std::string path = name ? name : "";
    return path.substr(path.rfind('/') + 1);
}

struct File {
    sqlite3_file base;
    sqlite3_file* real;
    std::string* name;
};
sqlite3_file* real(sqlite3_file* f) { return reinterpret_cast<File*>(f)->real; }
Image& image(sqlite3_file* f) { return disk.files[*reinterpret_cast<File*>(f)->name]; }

void layOver(std::string& bytes, const Image::Write& w) {
    const auto end = static_cast<size_t>(w.at) + w.bytes.size();
    if (w.bytes.empty()) {
        bytes.resize(std::min(bytes.size(), static_cast<size_t>(w.at)));
        return;
    }
    if (bytes.size() < end) bytes.resize(end, '\0');
    bytes.replace(static_cast<size_t>(w.at), w.bytes.size(), w.bytes);
}

int closeFile(sqlite3_file* f) {
    const int code = real(f)->pMethods ? real(f)->pMethods->xClose(real(f)) : SQLITE_OK;
    sqlite3_free(real(f));
    delete reinterpret_cast<File*>(f)->name;
    return code;
}
int readFile(sqlite3_file* f, void* to, int n, sqlite3_int64 at) { return real(f)->pMethods->xRead(real(f), to, n, at); }
int writeFile(sqlite3_file* f, const void* from, int n, sqlite3_int64 at) {
    disk.event();
    image(f).pending.push_back({at, std::string(static_cast<const char*>(from), static_cast<size_t>(n))});
    return real(f)->pMethods->xWrite(real(f), from, n, at);
}
int truncateFile(sqlite3_file* f, sqlite3_int64 size) {
    disk.event();
    image(f).pending.push_back({size, {}});
    return real(f)->pMethods->xTruncate(real(f), size);
}
int syncFile(sqlite3_file* f, int flags) {
    disk.event();
    Image& i = image(f);
    for (const auto& w : i.pending) layOver(i.durable, w);
    i.pending.clear();
    i.exists = true; // the first sync of a new journal synchronises its folder
    for (auto& [name, other] : disk.files) other.exists = other.exists || !other.durable.empty();
    return real(f)->pMethods->xSync(real(f), flags);
}
int sizeOfFile(sqlite3_file* f, sqlite3_int64* size) { return real(f)->pMethods->xFileSize(real(f), size); }
int lockFile(sqlite3_file* f, int level) { return real(f)->pMethods->xLock(real(f), level); }
int unlockFile(sqlite3_file* f, int level) { return real(f)->pMethods->xUnlock(real(f), level); }
int checkLock(sqlite3_file* f, int* out) { return real(f)->pMethods->xCheckReservedLock(real(f), out); }
int control(sqlite3_file* f, int op, void* arg) { return real(f)->pMethods->xFileControl(real(f), op, arg); }
int sector(sqlite3_file* f) { return real(f)->pMethods->xSectorSize(real(f)); }
int traits(sqlite3_file*) { return SQLITE_IOCAP_POWERSAFE_OVERWRITE; }
const sqlite3_io_methods methods = {1,        closeFile,  readFile,  writeFile, truncateFile, syncFile, sizeOfFile,
                                    lockFile, unlockFile, checkLock, control,   sector,       traits,   nullptr,
                                    nullptr,  nullptr,    nullptr,   nullptr,   nullptr};
sqlite3_vfs* below = nullptr;

int openFile(sqlite3_vfs*, const char* name, sqlite3_file* f, int flags, int* out) {
    auto* file = reinterpret_cast<File*>(f);
    file->real = static_cast<sqlite3_file*>(sqlite3_malloc(below->szOsFile));
    std::memset(file->real, 0, static_cast<size_t>(below->szOsFile));
    const int code = below->xOpen(below, name, file->real, flags, out);
    file->base.pMethods = code == SQLITE_OK ? &methods : nullptr;
    if (code != SQLITE_OK) {
        sqlite3_free(file->real);
        return code;
    }
    file->name = new std::string(lastPart(name));
    Image& i = disk.files[*file->name];
    if (i.unlinked) i = {}; // a new one of the name; the old one is gone once this is synchronised
    return code;
}
int deleteFile(sqlite3_vfs*, const char* name, int sync_folder) {
    disk.event();
    Image& i = disk.files[lastPart(name)];
    if (sync_folder)
        i = {};
    else
        i.unlinked = true;
    disk.event(); // done, but nobody was told yet
    return below->xDelete(below, name, sync_folder);
}

struct Layer {
    sqlite3_vfs vfs;
    Layer() {
        below = sqlite3_vfs_find(nullptr);
        vfs = *below;
        vfs.zName = "power";
        vfs.szOsFile = sizeof(File);
        vfs.xOpen = openFile;
        vfs.xDelete = deleteFile;
        sqlite3_vfs_register(&vfs, 1);
        disk = {};
    }
    ~Layer() {
        sqlite3_vfs_register(below, 1);
        sqlite3_vfs_unregister(&vfs);
    }
};

/// How much of what was not yet synchronised had reached the disk.
enum class Reached { None, All, Some };

/// Lays the disk as it was at the cut into a folder.
void materialise(const std::filesystem::path& folder, Reached reached, std::mt19937& rng) {
    std::filesystem::remove_all(folder);
    std::filesystem::create_directories(folder);
    for (const auto& [name, image] : disk.at_cut) {
        const bool written = reached == Reached::All || (reached == Reached::Some && rng() % 2);
        if (image.unlinked ? reached == Reached::All || (reached == Reached::Some && rng() % 2) : !image.exists && !written)
            continue;
        std::string bytes = image.durable;
        for (const auto& w : image.pending) {
            if (reached == Reached::None || (reached == Reached::Some && rng() % 3 == 0)) continue;
            auto part = w;
            if (reached == Reached::Some && rng() % 4 == 0 && part.bytes.size() > 512) // torn between two sectors
                part.bytes.resize(512 * (1 + rng() % (part.bytes.size() / 512)));
            layOver(bytes, part);
        }
        std::ofstream(folder / name, std::ios::binary) << bytes;
    }
}

std::string stateOf(const Store& s) {
    Build b = s.build();
    b.next_id = 0;
    return *buildToJson(b);
}

struct Played {
    int cuts = 0;
    int in_flight = 0;
    int kept = 0;
};

/// Plays a command with the power going at each of its events in turn. `command` works on a store and returns how many steps were
/// confirmed; `before` prepares the file.
Played play(const std::filesystem::path& folder, const std::function<void(Store&)>& before,
            const std::vector<std::function<void(Store&)>>& steps) {
    Played played;
    std::mt19937 rng(2026);
    const auto base = folder / "base.gorvet";
    std::filesystem::remove(base);
    {
        auto made = Store::create(base);
        REQUIRE(made);
        before(**made);
    }
    const std::string bytes = test::fileText(base);
    const auto path = folder / "work.gorvet";
    for (int cut = 0;; ++cut) {
        std::ofstream(path, std::ios::binary) << bytes;
        const Layer layer;
        disk.files["work.gorvet"].exists = true;
        disk.files["work.gorvet"].durable = bytes;
        disk.cut_at = cut;
        std::vector<std::string> states;
        {
            auto store = Store::open(path);
            REQUIRE(store);
            REQUIRE_FALSE((*store)->readOnly());
            states.push_back(stateOf(**store));
            for (const auto& step : steps) {
                step(**store);
                ++disk.confirmed;
                states.push_back(stateOf(**store));
                disk.event(); // told, and nothing new begun
            }
        }
        if (!disk.off) break; // all events were met
        ++played.cuts;
        sqlite3_vfs_register(below, 1); // what follows is the next day
        for (const Reached reached : {Reached::None, Reached::All, Reached::Some, Reached::Some, Reached::Some}) {
            materialise(folder / "after", reached, rng);
            auto again = Store::open(folder / "after" / "work.gorvet");
            INFO("cut at event " << cut << " of " << disk.events << ", confirmed " << disk.confirmed_at_cut << ", reached "
                                 << static_cast<int>(reached));
            REQUIRE(again);
            REQUIRE((*again)->damage().empty());
            REQUIRE_FALSE((*again)->readOnly());
            const std::string found = stateOf(**again);
            const auto confirmed = static_cast<size_t>(disk.confirmed_at_cut);
            const bool kept = found == states[confirmed];
            const bool in_flight = confirmed + 1 < states.size() && found == states[confirmed + 1];
            REQUIRE((kept || in_flight)); // all that was confirmed, and at most the step in flight
            played.kept += kept;
            played.in_flight += !kept;
            REQUIRE((*again)->keep(addPoint((*again)->build()), author));
        }
    }
    return played;
}

} // namespace

TEST_CASE("the power goes at every write of every writing command: nothing confirmed is lost", "[store][power]") {
    const test::QuickFolder quick("store-power");
    const auto& folder = quick.path;
    std::ofstream(folder / "a.png", std::ios::binary) << std::string(300'000, 'p');
    const auto nothing = [](Store&) {};
    const auto some = [](Store& s) {
        for (int i = 0; i < 3; ++i) REQUIRE(s.keep(addPoint(s.build()), author));
    };
    const auto add = [](Store& s) { REQUIRE(s.keep(addPoint(s.build()), author)); };
    const auto big = [](Store& s) { REQUIRE(s.keep(addPoint(s.build(), std::string(15'000, 'x')), author)); };
    const auto undo = [](Store& s) { REQUIRE(s.undo(author)); };
    const auto redo = [](Store& s) { REQUIRE(s.redo(author)); };
    const auto import = [](Store& s) {
        std::string csv = "kind,from,to,value,unit,sigma_mm,note\n";
        for (int i = 0; i < 150; ++i)
            csv += "tape,A" + std::to_string(i) + ",B" + std::to_string(i) + "," + std::to_string(900 + i) + ",mm,,\n";
        auto read = formats::readReadings(csv, s.build(), the_chassis, {}, "import");
        REQUIRE(read);
        REQUIRE(s.keep(read->edit, author));
    };
    const auto photo = [&](Store& s) {
        const auto blob = s.keepBlob(folder / "a.png");
        REQUIRE(blob);
        Tick t;
        t.id = TickId{s.build().next_id};
        t.step = "step" + std::to_string(t.id.value);
        t.photo = blob->hash;
        REQUIRE(s.keep({"done", {Put<Tick>{t}}}, author));
        // a photo that a line names is whole, whenever that line is there
        std::size_t bytes = 0;
        REQUIRE(s.readBlob(blob->hash, [&](auto chunk) { bytes += chunk.size(); }));
        REQUIRE(bytes == 300'000);
    };
    const auto almost = [](Store& s) { // the next line brings a snapshot
        for (int i = 0; i < 199; ++i) REQUIRE(s.keep(addPoint(s.build()), author));
    };
    int cuts = 0, in_flight = 0;
    const auto count = [&](const Played& p) {
        CHECK(p.cuts > 10);
        cuts += p.cuts;
        in_flight += p.in_flight;
    };
    count(play(folder, nothing, {add, big, add}));
    count(play(folder, some, {undo, redo, undo, add}));
    count(play(folder, some, {import, undo}));
    count(play(folder, some, {photo, add}));
    count(play(folder, almost, {add, add}));
    // a blob that nobody names is swept on closing
    count(play(folder, some, {[&](Store& s) { REQUIRE(s.keepBlob(folder / "a.png")); }}));
    CHECK(in_flight > 20);
    WARN(cuts << " power cuts, five disks each: all confirmed steps there, " << in_flight << " times the step in flight, too");
}

TEST_CASE("the power goes while a file of an older version is brought up", "[store][power][migrate]") {
    const test::QuickFolder quick("store-power-migrate");
    const auto& folder = quick.path;
    std::mt19937 rng(7);
    for (int version = 1; version < newestVersion(); ++version) {
        const std::string name = "version-" + std::to_string(version) + ".gorvet";
        const std::string bytes = test::fileText(std::filesystem::path(GORVET_SOURCE_DIR) / "tests/fixtures" / name);
        REQUIRE_FALSE(bytes.empty());
        std::string expected;
        int cuts = 0;
        for (int cut = 0;; ++cut) {
            for (const auto& old : std::filesystem::directory_iterator(folder)) std::filesystem::remove_all(old.path());
            const auto path = folder / "work.gorvet";
            std::ofstream(path, std::ios::binary) << bytes;
            const Layer layer;
            disk.files["work.gorvet"].exists = true;
            disk.files["work.gorvet"].durable = bytes;
            disk.cut_at = cut;
            {
                auto store = Store::open(path);
                REQUIRE(store);
                expected = stateOf(**store);
            }
            if (!disk.off) break;
            ++cuts;
            sqlite3_vfs_register(below, 1);
            for (const Reached reached : {Reached::None, Reached::All, Reached::Some, Reached::Some}) {
                materialise(folder / "after", reached, rng);
                auto again = Store::open(folder / "after" / "work.gorvet");
                INFO(name << ", cut at event " << cut << ", reached " << static_cast<int>(reached));
                REQUIRE(again);
                REQUIRE((*again)->damage().empty());
                REQUIRE(stateOf(**again) == expected);
            }
        }
        CHECK(cuts > (version < 3 ? 20 : 5)); // from version 3 on only the mark changes
    }
}

} // namespace store_power_test
