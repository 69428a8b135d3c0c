// The one way to write a file: whole or not at all, and never over what is not its own.
#include "files/line_reader.hpp"
#include "files/out_file.hpp"

#include "support/support.hpp"

#include <catch2/catch.hpp>
#include <fstream>
#include <sys/stat.h>
#include <unistd.h>

namespace files_out_file_test {

using namespace gorvet;
using files::Kind;

namespace {

void write(const std::filesystem::path& path, const std::string& bytes) { std::ofstream(path, std::ios::binary) << bytes; }
size_t entriesIn(const std::filesystem::path& folder) {
    return static_cast<size_t>(std::distance(std::filesystem::directory_iterator(folder), {}));
}

} // namespace

TEST_CASE("a file is written whole, with the rights of the one it replaces", "[files]") {
    const auto folder = test::freshFolder("files-whole");
    const auto path = folder / "list.csv";
    REQUIRE(files::putText(path, Kind::Csv, "a,b\n"));
    CHECK(test::fileText(path) == "a,b\n");
    std::filesystem::permissions(path, static_cast<std::filesystem::perms>(0640));
    REQUIRE(files::putText(path, Kind::Csv, "c\n"));
    CHECK(test::fileText(path) == "c\n");
    struct stat s {};
    REQUIRE(stat(path.c_str(), &s) == 0);
    CHECK((s.st_mode & 0777) == 0640);
    // a link stays a link
    std::filesystem::create_symlink(path, folder / "link.csv");
    REQUIRE(files::putText(folder / "link.csv", Kind::Csv, "d\n"));
    CHECK(std::filesystem::is_symlink(folder / "link.csv"));
    CHECK(test::fileText(path) == "d\n");
    CHECK(entriesIn(folder) == 2); // no temporary stays
}

TEST_CASE("a writer that fails leaves the old file, and nothing of its own", "[files]") {
    const auto folder = test::freshFolder("files-fail");
    const auto path = folder / "sheet.pdf";
    write(path, "%PDF-1.5 old");
    const auto failed = files::put(path, Kind::Pdf, [](const std::filesystem::path& to) -> Result<void> {
        write(to, "%PDF half");
        return Error{Error::Code::File, to.string(), "The pen broke.", "", -1};
    });
    REQUIRE_FALSE(failed);
    CHECK(failed.error().message.find("sheet.pdf can't be written") != std::string::npos);
    CHECK(test::fileText(path) == "%PDF-1.5 old");
    CHECK(entriesIn(folder) == 1);
}

TEST_CASE("nothing is written over a build, an input, a folder or another kind of file", "[files]") {
    const auto folder = test::freshFolder("files-over");
    const auto refused = [&](const std::filesystem::path& to, Kind kind) {
        const bool there = std::filesystem::is_regular_file(to);
        const std::string before = there ? test::fileText(to) : "";
        const auto put = files::putText(to, kind, "text");
        REQUIRE_FALSE(put);
        CHECK_FALSE(files::mayPut(to, kind));
        if (there) CHECK(test::fileText(to) == before);
        return put.error().message;
    };
    write(folder / "a.gorvet", "anything");
    CHECK(refused(folder / "a.gorvet", Kind::Pdf).find("name of a build") != std::string::npos);
    CHECK(refused(folder / "new.GORVET", Kind::Csv).find("name of a build") != std::string::npos);
    // a build under another name
    std::string build(100, '\0');
    build.replace(0, 16, std::string("SQLite format 3\0", 16));
    build.replace(68, 4, "Gorv");
    write(folder / "copy.pdf", build);
    CHECK(refused(folder / "copy.pdf", Kind::Pdf).find("is a build") != std::string::npos);
    std::filesystem::create_symlink(folder / "copy.pdf", folder / "link.pdf");
    CHECK(refused(folder / "link.pdf", Kind::Pdf).find("is a build") != std::string::npos);
    write(folder / "notes.csv", "a,b\n");
    files::protect(folder / "notes.csv");
    std::filesystem::create_hard_link(folder / "notes.csv", folder / "same.csv");
    CHECK(refused(folder / "notes.csv", Kind::Csv).find("what this command reads") != std::string::npos);
    CHECK(refused(folder / "same.csv", Kind::Csv).find("what this command reads") != std::string::npos);
    write(folder / "letter.odt", "a letter");
    for (const Kind kind : {Kind::Pdf, Kind::Svg, Kind::Dxf, Kind::Step, Kind::Ply, Kind::Stl, Kind::Csv, Kind::Picture})
        CHECK(refused(folder / "letter.odt", kind).find("is there already and is no") != std::string::npos);
    CHECK(refused(folder, Kind::Csv).find("is a folder") != std::string::npos);
    CHECK(refused(folder / "no" / "such.csv", Kind::Csv).find("there is no folder") != std::string::npos);
}

TEST_CASE("devices are written as they are, and a full one is an error", "[files]") {
    if (std::filesystem::exists("/dev/full")) {
        const auto full = files::putText("/dev/full", Kind::Csv, "text");
        REQUIRE_FALSE(full);
        CHECK(full.error().message.find("No space left") != std::string::npos);
    }
    CHECK(files::putText("/dev/null", Kind::Csv, "text"));
    const auto folder = test::freshFolder("files-devices");
    REQUIRE(mkfifo((folder / "pipe").c_str(), 0600) == 0);
    CHECK_FALSE(files::isPlainFile(folder / "pipe"));
    CHECK_FALSE(files::isPlainFile("/dev/zero"));
    CHECK_FALSE(files::isPlainFile(folder));
    CHECK_FALSE(files::isPlainFile(folder / "missing"));
}

TEST_CASE("lines come as they are written, and one that is too long is passed over", "[files]") {
    int ends[2];
    REQUIRE(pipe(ends) == 0);
    files::LineReader in(ends[0], 1000);
    std::string line;
    const auto send = [&](const std::string& text) {
        REQUIRE(::write(ends[1], text.data(), text.size()) == static_cast<ssize_t>(text.size()));
    };
    send("first\nsec");
    REQUIRE(in.next(line)); // before the second is whole
    CHECK(line == "first");
    send("ond\n\n");
    REQUIRE(in.next(line));
    CHECK(line == "second");
    REQUIRE(in.next(line));
    CHECK(line.empty());
    send(std::string(30'000, 'x') + "\nafter\nlast");
    close(ends[1]);
    REQUIRE(in.next(line));
    CHECK(line.size() > 1000);
    REQUIRE(in.next(line));
    CHECK(line == "after");
    REQUIRE(in.next(line));
    CHECK(line == "last");
    CHECK_FALSE(in.next(line));
    close(ends[0]);
}

} // namespace files_out_file_test
