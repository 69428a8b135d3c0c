// Photos in the build: how they come in, what of them is shown together, and their small ones.
#include "analysis/bench.hpp"
#include "analysis/scans.hpp"
#include "entry/typist.hpp"
#include "support/pictures.hpp"

namespace analysis_photos_test {

using namespace gorvet;
using namespace gorvet::build;
using analysis::NewPhoto;
using entry_tests::Typist;

namespace {

const Signed by_kim{"Kim", "2026-11-28T10:00:00Z"};

std::string hashOf(int n) {
    const std::string digits = std::to_string(n);
    return std::string(64 - digits.size(), 'a') + digits;
}
NewPhoto file(int n, const std::string& taken = {}) {
    NewPhoto p;
    p.hash = hashOf(n);
    p.taken = taken;
    p.width_px = 40;
    p.height_px = 30;
    return p;
}
void keep(Build& b, const std::vector<NewPhoto>& files, const analysis::PhotoAbout& about) {
    const auto edit = analysis::keepPhotos(b, files, about, by_kim);
    REQUIRE(edit);
    REQUIRE(enact(b, *edit));
}

} // namespace

TEST_CASE("photos are named one after the other, and no picture is kept twice", "[analysis][photos]") {
    Typist t;
    t.type("tag earth-left cable area engine bay");
    keep(t.b, {file(1), file(2), file(1)}, {"", "", "earth-left", Stage::Before, ""});
    REQUIRE(t.b.photos.size() == 2);
    const Photo* first = photoNamed(t.b, "p0001");
    REQUIRE(first);
    CHECK(first->area == "engine bay"); // that of the row
    CHECK(first->part == "earth-left");
    CHECK(first->stage == Stage::Before);
    CHECK(first->kept == by_kim);
    const auto again = analysis::keepPhotos(t.b, {file(2)}, {}, by_kim);
    REQUIRE_FALSE(again);
    CHECK(again.error().message.find("p0002") != std::string::npos);
    CHECK_FALSE(analysis::keepPhotos(t.b, {}, {}, by_kim));
    // struck out, it may come once more; its name is not given twice
    t.type("strike-photo p0002");
    CHECK(t.wrong("photo p0002 note a word").message.find("struck out") != std::string::npos);
    keep(t.b, {file(2)}, {});
    CHECK(photoNamed(t.b, "p0003"));
    // what is said of one
    t.type("job floor");
    t.type("photo p0001 after area left sill of the car step floor of earth-left note the hole is shut");
    const Photo* said = photoNamed(t.b, "p0001");
    CHECK(said->stage == Stage::After);
    CHECK(said->area == "left sill of the car");
    CHECK(said->step == "job-floor");
    CHECK(said->part == "earth-left");
    CHECK(said->note == "the hole is shut");
    CHECK(t.wrong("photo p0001 of nobody").message.find("neither") != std::string::npos);
    CHECK(t.wrong("photo nobody before").message.find("no photo") != std::string::npos);
    CHECK(t.wrong("photo p0001").message.find("missing") != std::string::npos);
    // names that change take it along
    t.type("rename tag earth-left earth");
    t.type("rename job floor floor-left");
    CHECK(photoNamed(t.b, "p0001")->part == "earth");
    CHECK(photoNamed(t.b, "p0001")->step == "job-floor-left");
}

TEST_CASE("before and after: the last of each, of the same place", "[analysis][photos]") {
    Typist t;
    t.type("surface sill-in area left sill");
    keep(t.b, {file(1, "2026-11-01 08:00:00"), file(2, "2026-11-03 08:00:00")}, {"", "", "sill-in", Stage::Before, ""});
    keep(t.b, {file(3, "2026-11-09 08:00:00")}, {"", "", "sill-in", Stage::After, ""});
    keep(t.b, {file(4, "2026-11-20 08:00:00")}, {"roof", "", "", Stage::Before, ""}); // nothing after
    keep(t.b, {file(5)}, {"tail", "", "", Stage::Before, ""});
    keep(t.b, {file(6)}, {"tail", "", "", Stage::After, ""}); // the camera does not say: when they were kept
    auto pairs = analysis::beforeAndAfter(t.b);
    REQUIRE(pairs.size() == 2);
    CHECK(pairs[0].place == "tail"); // the newest first
    CHECK(pairs[1].place == "sill-in");
    CHECK(t.b.photos.at(pairs[1].before).name == "p0002");
    CHECK(t.b.photos.at(pairs[1].after).name == "p0003");
    t.type("strike-photo p0002");
    CHECK(t.b.photos.at(analysis::beforeAndAfter(t.b)[1].before).name == "p0001");
    const auto newest = analysis::newestPictures(t.b, 2);
    REQUIRE(newest.size() == 2);
    CHECK(t.b.photos.at(newest[0]).name == "p0006");
    CHECK(t.b.photos.at(newest[1]).name == "p0005");
}

TEST_CASE("the small ones are made beside the screen, once, and what can't be read says so", "[analysis][photos]") {
    Typist t;
    keep(t.b, {file(1), file(2)}, {"tail", "", "", Stage::Before, ""});
    NewPhoto voice = file(3);
    voice.kind = RecordKind::Voice;
    keep(t.b, {voice}, {"tail", "", "", Stage::Unsaid, "what Kim heard"});
    auto r = analysis::analyse(t.b, 1);
    CHECK_FALSE(analysis::currentSlow(t.b, r, analysis::slow::photos));
    int read = 0;
    const analysis::ReadBlob blobs = [&](const std::string& hash, const auto& take) -> Result<void> {
        ++read;
        const std::string bytes = hash == hashOf(1) ? test::jpegOf(200, 1600, 1200) : "nothing of the kind";
        take({reinterpret_cast<const unsigned char*>(bytes.data()), bytes.size()});
        return {};
    };
    REQUIRE(analysis::makeSlow(t.b, r, {analysis::slow::photos}, blobs));
    CHECK(read == 2); // no sound is looked at
    CHECK(analysis::currentSlow(t.b, r, analysis::slow::photos));
    const auto& small = *r.scans->photos;
    REQUIRE(small.at(hashOf(1)));
    const auto p =
        files::readJpeg({reinterpret_cast<const unsigned char*>(small.at(hashOf(1))->data()), small.at(hashOf(1))->size()}, 5000);
    REQUIRE(p);
    CHECK(p->width == 640);
    CHECK(p->height == 480);
    CHECK_FALSE(small.at(hashOf(2)));
    // the sheet shows them
    const analysis::BenchView* view = nullptr;
    for (const auto& v : analysis::benchOf("work")->views)
        if (v.key == "photos") view = &v;
    REQUIRE(view);
    const auto drawing = view->draw(t.b, r, the_body, {}, 900, 600, sheet::Format{});
    int pictures = 0;
    std::string texts;
    for (const auto& item : drawing.items) {
        pictures += std::holds_alternative<sheet::Picture>(item.shape);
        if (const auto* text = std::get_if<sheet::Text>(&item.shape)) texts += text->text + "|";
    }
    CHECK(pictures == 1);
    CHECK(texts.find("it can't be read") != std::string::npos);
    CHECK(texts.find("a spoken note") != std::string::npos);
    CHECK(texts.find("what Kim heard") != std::string::npos);
    CHECK(view->headline(t.b, r, the_body).sentence.find("3 photos") != std::string::npos);
    // one more: only that one is read
    keep(t.b, {file(4)}, {});
    auto more = analysis::analyse(t.b, 2, &r);
    read = 0;
    REQUIRE(analysis::makeSlow(t.b, more, {analysis::slow::photos}, blobs));
    CHECK(read == 2); // and what could not be read, once more
    CHECK(more.scans->photos->at(hashOf(1)) == small.at(hashOf(1)));
}

} // namespace analysis_photos_test
