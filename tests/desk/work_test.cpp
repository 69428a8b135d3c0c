// The order of work in the real window: hold points, fresh readings, a photo.
#include "analysis/scans.hpp"
#include "desk/driver.hpp"
#include "support/pictures.hpp"

#include <QMenu>
#include <QTableView>
#include <fmt/format.h>
#include <fstream>

namespace desk_work_test {

using namespace gorvet;
using test::Driver;
using test::number;
using test::waitFor;

TEST_CASE("a work order is ticked through a hold point that first refuses and then opens", "[desk][work]") {
    const auto folder = test::freshFolder("window-work");
    const auto path = test::demoBuild(folder);
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(path.string())));
    // the survey's hold point refuses while a reading is to be taped again
    d.bench("work");
    const auto next = [&] { return d.window.document().results().work->steps[*d.window.document().results().work->next]; };
    while (next().code != "survey-agrees") {
        REQUIRE(next().open());
        d.keep(next().hot ? "done note Kim watched" : "done");
    }
    d.type("done");
    CHECK(d.text("entryEcho").contains("One reading of the chassis is to be taped again"));
    CHECK(d.find<QLineEdit>("entry")->text() == "done"); // not lost
    d.bench("tape");
    d.keep("retape Bl Dr 1691.5");
    d.bench("work");
    d.keep("done survey-agrees");
    while (next().code != "before-cutting") {
        INFO(next().code);
        REQUIRE(next().open());
        // what burns is offered its permit first, and ticked with it
        const auto tap = [&](const std::string& name) { d.find<QPushButton>(("start_" + name).c_str())->click(); };
        if (next().hot && !build::permitted(d.window.document().build(), next().code)) {
            tap("permit_" + next().code + "_watch");
            REQUIRE(d.find<QLineEdit>("entry")->text() == QString::fromStdString("permit " + next().code + " watch "));
            d.keep(QString::fromStdString("permit " + next().code + " watch Kim"));
        }
        tap("done_" + next().code);
    }
    // diagonals out: the entry line proposes each, a figure is enough
    CHECK(d.text("headline").startsWith("Hold point: "));
    const auto checks = next().checks;
    REQUIRE(checks.size() == 10); // three diagonals, seven levels
    for (size_t i = 0; i < checks.size(); ++i) {
        CHECK(d.text("entryEcho").contains("plan"));
        d.keep(number(checks[i].plan_mm + (i == 1 ? 7.0 : 0.5)) + " mm");
    }
    d.type("done before-cutting");
    CHECK(d.text("entryEcho").contains("7.0 too long"));
    CHECK(d.find<QPushButton>("verbWork")->accessibleName().contains("bad"));
    d.bench("stretch");
    d.bench("work");
    // read again: it agrees, the gate opens
    CHECK(d.text("entryPair").contains(QString::fromStdString(build::nameOf(d.window.document().build(), checks[1].from))));
    d.keep(number(checks[1].plan_mm - 1) + " mm");
    CHECK_FALSE(d.find<QPushButton>("verbWork")->accessibleName().contains("bad"));
    // ticked with a photo from its card
    auto* sheet = d.find<desk::SheetView>("sheet");
    auto* card = d.find<desk::CardView>("card");
    const auto place = sheet->placeOf("step:before-cutting");
    REQUIRE(place);
    QTest::mouseClick(sheet, Qt::LeftButton, {}, place->toPoint());
    REQUIRE(waitFor([&] { return card->isVisible(); }));
    test::write(folder / "diagonals.jpg", test::jpegOf(120, 64, 48, 500'000));
    desk::ask::presets().answers << QString::fromStdString((folder / "diagonals.jpg").string());
    d.find<QPushButton>("cardAction_done,_with_a_photo")->click();
    REQUIRE(waitFor([&] { return build::tickOf(d.window.document().build(), "before-cutting") != nullptr; }));
    const auto* tick = build::tickOf(d.window.document().build(), "before-cutting");
    CHECK(tick->photo.size() == 64);
    CHECK(d.window.document().store()->blob(tick->photo)->bytes == 500'000);
    CHECK(next().code == "cut-rails");
    // undone, the gate is there again, and still open: its readings are kept
    d.action("undo");
    CHECK(next().code == "before-cutting");
    CHECK(next().open());
}

TEST_CASE("Work from the first minute: a ready-made list, a job of one's own, the register, and a lift that is refused",
          "[desk][work][jobs]") {
    const auto folder = test::freshFolder("window-jobs");
    Driver d;
    REQUIRE(d.window.makeFile(QString::fromStdString((folder / "cab.gorvet").string())));
    d.bench("work");
    CHECK(d.text("headline").startsWith("Next: Photograph it"));
    CHECK(d.text("below").contains("Nothing is planned yet"));
    d.window.document().setUser("M.");
    // a body that can come off
    d.bench("tape");
    d.type("subject body");
    d.keep("point Ml body-mount 300 -400 600");
    d.bench("work");
    // by taps: the starter, then the list among the next words
    d.find<QPushButton>("start_jobs")->click();
    REQUIRE(waitFor([&] {
        auto* word = d.window.findChild<QPushButton*>("word_cab-off");
        return word && word->isVisible();
    }));
    d.find<QPushButton>("word_cab-off")->click();
    REQUIRE(waitFor([&] { return d.find<QLineEdit>("entry")->text().contains("cab-off"); }));
    QTest::keyClick(d.find<QLineEdit>("entry"), Qt::Key_Return);
    CHECK(d.window.document().build().jobs.size() > 6);
    d.keep("job floor-left does weld the floor patch area cabin kind weld hours 2 3 6 body-off");
    const auto& order = *d.window.document().results().work;
    CHECK(order.find("job-floor-left")->hot);
    CHECK(order.body_moves_left == 2);
    CHECK(d.text("below").contains("no order needs fewer"));
    // all steps, then the register
    d.find<QPushButton>("view_order")->click();
    auto* list = d.find<QTableView>("list");
    REQUIRE(waitFor([&] { return list->isVisible(); }));
    CHECK(list->model()->rowCount() == static_cast<int>(order.steps.size()));
    QTest::keyClick(&d.window, Qt::Key_F5);
    CHECK(d.find<QPushButton>("view_register")->isChecked());
    const auto rows = d.window.document().build().releases.size();
    REQUIRE(waitFor([&] { return list->model()->rowCount() == static_cast<int>(rows); }));
    CHECK(d.text("headline").contains("still tied"));
    // a label's code, scanned: its row opens; once more in the same breath is no second walk-round
    d.keep("untied earth-strap");
    d.type("row earth-strap");
    auto* card = d.find<desk::CardView>("card");
    REQUIRE(waitFor([&] { return card->isVisible(); }));
    CHECK(d.text("cardTitle") == "earth-strap");
    CHECK(d.text("cardWord").contains("undone"));
    d.find<QPushButton>("cardAction_seen_free_once_more")->click();
    CHECK(d.text("cardError").contains("just now by the same person"));
    d.window.document().setUser("K.");
    d.find<QPushButton>("cardAction_seen_free_once_more")->click();
    CHECK(build::releaseNamed(d.window.document().build(), "earth-strap")->proved->who == "K.");
    // up to the lift: it is refused by name, in the line, as a finding and on the verb
    d.bench("work");
    const auto next = [&] { return d.window.document().results().work->steps[*d.window.document().results().work->next]; };
    d.window.document().setUser("M.");
    for (int guard = 0; next().code != "body-off-1" && guard < 40; ++guard) {
        INFO(next().code << ": " << next().waits_for);
        REQUIRE((next().open() || next().code == "survey-agrees"));
        if (next().code == "survey-agrees") {
            REQUIRE(next().waits_for.find("not surveyed") != std::string::npos);
            // it holds nothing up here: what comes after it is ticked by name
            const auto& o = *d.window.document().results().work;
            for (const auto& s : o.steps)
                if (s.code != "survey-agrees" && s.status == work::Status::Ready && !s.moves_to) {
                    d.keep(QString::fromStdString("done " + s.code + (s.hot ? " note Kim watched" : "")));
                    break;
                }
            const auto& after = *d.window.document().results().work;
            if (const auto* lift = after.find("body-off-1"); lift && lift->waits_for.find("first:") == std::string::npos) break;
            continue;
        }
        d.keep(next().hot ? "done note Kim watched" : "done");
    }
    d.type("done body-off-1");
    CHECK(d.text("entryEcho").contains("still tied"));
    d.keep("untied area engine bay");
    QString tied = "untied";
    for (const auto& [id, r] : d.window.document().build().releases)
        if (!r.released) tied += " " + QString::fromStdString(r.name);
    d.keep(tied);
    d.type("done body-off-1");
    CHECK(d.text("entryEcho").contains("second walk-round"));
    d.window.document().setUser("K.");
    QString all = "proved";
    for (const auto& [id, r] : d.window.document().build().releases)
        if (!r.proved) all += " " + QString::fromStdString(r.name);
    d.keep(all);
    d.keep("done body-off-1");
    CHECK(d.window.document().results().work->now.body == build::BodyPlace::Off);
    // one undo: the body is on again, the rows stay as they were said
    d.action("undo");
    CHECK(d.window.document().results().work->now.body == build::BodyPlace::On);
    CHECK(build::releaseNamed(d.window.document().build(), "earth-strap")->proved);
}

namespace {

std::string printed(const std::filesystem::path& pdf) { return test::run("pdftotext -layout " + pdf.string() + " -").out; }

} // namespace

TEST_CASE("a cab off a truck's frame, from an empty build to the wall, labels, the lift's drawing and the owner's sheet",
          "[desk][work][jobs]") {
    const auto folder = test::freshFolder("window-cab");
    const QString path = QString::fromStdString((folder / "cab.gorvet").string());
    build::Build as_it_was;
    {
        Driver d;
        REQUIRE(d.window.makeFile(path));
        d.window.document().setUser("M.");
        d.bench("tape");
        d.type("subject body");
        d.keep("point Ml body-mount 300 -400 600");
        d.bench("work");
        d.keep("jobs cab-off");
        // time: nothing is said, then hours, the shop's days, a part; the strips stand there
        d.showSheet("time", "Time");
        CHECK(d.text("headline") == "When it will be done is not known yet.");
        d.find<QPushButton>("start_hours")->click();
        CHECK(d.find<QLineEdit>("entry")->text() == "hours ");
        for (const char* line :
             {"hours record 1", "job floor-left does weld the floor patch area left kind weld hours 2 4 9 body-off",
              "job lamps hours 3 after floor-left", "await seals for lamps days 10 20 45 cost 90",
              "shop weekday 3 saturday 6 wanted 2027-06-01", "off 2026-12-24 2027-01-02 holidays"})
            d.keep(line);
        CHECK(d.text("headline").contains("steps have no hours"));
        auto* sheet = d.find<desk::SheetView>("sheet");
        const auto bar = sheet->placeOf("step:job-floor-left");
        REQUIRE(bar);
        QTest::mouseClick(sheet, Qt::LeftButton, {}, bar->toPoint());
        REQUIRE(waitFor([&] { return d.find<desk::CardView>("card")->isVisible(); }));
        CHECK(d.text("cardTitle") == "weld the floor patch");
        QTest::keyClick(&d.window, Qt::Key_Escape);
        // a lift: what is missing is said, a weak leg fails by name
        d.showSheet("lifts", "Lifts");
        CHECK(d.text("headline") == "No lift is planned yet.");
        d.keep("lift cab way slings for body-off-1 weighs 380 pm 20 centre 1000 0 500 spreader");
        CHECK(d.text("headline").contains("waits for the legs of its slings"));
        for (const char* line :
             {"leg cab fl 200 -500 900 long 1800 rated 1000 sound", "leg cab fr 200 500 900 long 1800 rated 1000 sound",
              "leg cab rl 1800 -500 900 long 1800 rated 1000 sound", "leg cab rr 1800 500 900 long 1800 rated 100 sound"})
            d.keep(line);
        CHECK(d.text("headline") == "The lift cab: Fails.");
        CHECK(d.text("below").contains("rr may have to carry"));
        CHECK(d.text("below").contains("Nobody under"));
        d.keep("leg cab rr rated 1000");
        CHECK(d.text("headline") == "The lift cab: Holds, by its mass, legs and points.");
        const auto hook = sheet->placeOf("lift:cab");
        REQUIRE(hook);
        // coats
        d.showSheet("coats", "Coats");
        for (const char* line :
             {"surface floor-in steel strip m2 1.2 area left within left sill", "coat floor-in primer epoxy-primer coats 2 brush",
              "coat floor-in wax cavity-wax", "coat-jobs floor-in"})
            d.keep(line);
        CHECK(d.find<QTableView>("list")->model()->rowCount() == 2);
        // the owner: the step waits until it is agreed
        d.showSheet("owner", "The owner");
        d.keep("decide floor asks patch it or a whole new floor for floor-left");
        d.keep("choice floor patch what a patch of 1.2 sheet price 180 hours 4");
        const auto undecided = [&] {
            const auto& conditions = d.window.document().results().work->find("job-floor-left")->conditions;
            return std::any_of(conditions.begin(), conditions.end(),
                               [](const work::Condition& c) { return c.text.find("floor is agreed") != std::string::npos; });
        };
        CHECK(undecided());
        CHECK(d.text("headline").contains("One question") != d.text("headline").contains("1 question"));
        d.keep("agreed floor patch by A. Owner");
        CHECK_FALSE(undecided());
        const auto out = folder / "out";
        desk::ask::presets().answers << QString::fromStdString(out.string());
        d.action("exportAll");
        REQUIRE(waitFor([&] { return d.text("entryEcho").contains("files written"); }));
        CHECK(printed(out / "wall.pdf").find("Next, place by place") != std::string::npos);
        CHECK(printed(out / "labels.pdf").find("earth-strap") != std::string::npos);
        CHECK(printed(out / "lifts.pdf").find("from above") != std::string::npos);
        CHECK(printed(out / "for-the-owner.pdf").find("A. Owner") != std::string::npos);
        CHECK(printed(out / "time.pdf").find("All done, of 100") != std::string::npos);
        CHECK(printed(out / "coats.pdf").find("epoxy-primer") != std::string::npos);
        CHECK(std::filesystem::exists(out / "time.ics"));
        CHECK(desk::ask::presets().told.isEmpty());
        as_it_was = d.window.document().build();
    }
    Driver d;
    REQUIRE(d.window.openFile(path));
    CHECK(d.window.document().build() == as_it_was);
    d.action("undo");
    CHECK_FALSE(build::decisionNamed(d.window.document().build(), "floor")->agreed);
}

TEST_CASE("the demo's body swap, from an empty build to the wall, labels, the lift, photos, what is bought and a change order",
          "[desk][work][jobs]") {
    const auto folder = test::freshFolder("window-petrel");
    const auto made =
        test::run(fmt::format("/usr/bin/python3 {}/demo/petrel_on_tern.py --csv {}", GORVET_SOURCE_DIR, folder.string()));
    REQUIRE(made.code == 0);
    const QString path = QString::fromStdString((folder / "petrel.gorvet").string());
    build::Build as_it_was;
    {
        Driver d;
        REQUIRE(d.window.makeFile(path));
        d.window.document().setUser("M.");
        d.bench("tape");
        for (const auto& [subject, file] : {std::pair{"chassis", "tern-chassis.csv"}, std::pair{"body", "petrel-body.csv"}}) {
            d.type(QString("subject ") + subject);
            d.type(QString("session %1 right-way-up trestles at 300 and 2100").arg(subject));
            desk::ask::presets().answers << QString::fromStdString((folder / file).string());
            const auto before = d.window.document().build().readings.size();
            d.action("importReadings");
            REQUIRE(waitFor([&] { return d.window.document().build().readings.size() > before; }));
        }
        std::ifstream lines(folder / "petrel.lines");
        for (std::string line; std::getline(lines, line);)
            if (!line.empty()) d.type(QString::fromStdString(line));
        d.bench("work");
        const auto& b = d.window.document().build();
        CHECK(d.window.document().results().work->done == 4);
        // the release, time, a lift of the body
        for (const char* line :
             {"jobs cab-off", "tag bolt-rear bolt area tail soaks 48", "hours scribe 2", "hours cut-rails 3 4 8",
              "hours weld-rails 6 8 14", "shop weekday 3 saturday 6",
              "lift body way gantry weighs 420 pm 20 centre 1200 0 500 pm 50 20 50", "leg body fl 200 -500 900 rated 500 sound",
              "leg body fr 200 500 900 rated 500 sound", "leg body rl 2200 -500 900 rated 500 sound",
              "leg body rr 2200 500 900 rated 500 sound", "stock b60 box 70 50 3 long 2000 price 40",
              "discovered sill-inner during strip-frame does a new inner sill area left sill kind weld hours 4 9 16",
              "change-order sill asks a new inner sill on the left because sill-inner price 420"})
            d.keep(line);
        // photos from the card of the job that was found: one before, later one after
        auto* card = d.find<desk::CardView>("card");
        auto* sheet = d.find<desk::SheetView>("sheet");
        d.showSheet("order", "All steps");
        test::write(folder / "before.jpg", test::jpegWithExif(test::jpegOf(60, 160, 120), 6, "2026:11:02 09:30:00"));
        test::write(folder / "after.jpg", test::jpegWithExif(test::jpegOf(200, 160, 120), 1, "2026:11:28 17:00:00"));
        test::write(folder / "phone.heic", std::string("\0\0\0\x18", 4) + "ftypheic" + std::string(200, 'x'));
        const auto keepFrom = [&](const char* file) {
            const auto before = b.photos.size();
            desk::ask::presets().answers << QString::fromStdString((folder / file).string());
            d.action("addPhotos");
            REQUIRE(waitFor([&] { return d.window.document().build().photos.size() > before; }));
        };
        desk::ask::presets().answers << QString::fromStdString((folder / "phone.heic").string());
        d.action("addPhotos");
        REQUIRE(waitFor([&] { return !desk::ask::presets().told.isEmpty(); }));
        CHECK(desk::ask::presets().told.takeFirst().contains("HEIC"));
        keepFrom("before.jpg");
        d.keep("photo p0001 before area left sill step sill-inner");
        keepFrom("after.jpg");
        d.keep("photo p0002 after area left sill");
        d.showSheet("photos", "Photos");
        CHECK(d.text("headline") == "2 photos, 1 place before and after.");
        REQUIRE(waitFor([&] {
            return analysis::currentSlow(d.window.document().build(), d.window.document().results(), analysis::slow::photos);
        }));
        const auto place = sheet->placeOf("photo:p0001");
        REQUIRE(place);
        QTest::mouseClick(sheet, Qt::LeftButton, {}, place->toPoint());
        REQUIRE(waitFor([&] { return card->isVisible(); }));
        CHECK(d.text("cardTitle") == "p0001");
        QTest::keyClick(&d.window, Qt::Key_Escape);
        // what is bought: the bridge comes from the shelf
        d.showSheet("buy", "To buy");
        CHECK(d.text("headline").contains("to be bought"));
        CHECK(d.find<QTableView>("list")->model()->rowCount() > 3);
        d.showSheet("time", "Time");
        d.action("weekDid");
        REQUIRE(waitFor([&] { return card->isVisible() && d.text("cardTitle") == "What these days did to the date"; }));
        QTest::keyClick(&d.window, Qt::Key_Escape);
        const auto out = folder / "out";
        desk::ask::presets().answers << QString::fromStdString(out.string());
        d.action("exportAll");
        REQUIRE(waitFor([&] { return d.text("entryEcho").contains("files written"); }));
        CHECK(printed(out / "wall.pdf").find("Next, place by place") != std::string::npos);
        CHECK(printed(out / "labels.pdf").find("bolt-rear") != std::string::npos);
        CHECK(printed(out / "lifts.pdf").find("from above") != std::string::npos);
        const std::string owner = printed(out / "for-the-owner.pdf");
        CHECK(owner.find("Change order 1, to be agreed: sill") != std::string::npos);
        CHECK(owner.find("Because: a new inner sill") != std::string::npos);
        CHECK(printed(out / "to-buy.pdf").find("b60") != std::string::npos);
        CHECK(printed(out / "photos.pdf").find("Before and after") != std::string::npos);
        // the pictures themselves stand on the pages, as the JPEGs that they are
        CHECK(test::run("pdfimages -list " + (out / "photos.pdf").string()).out.find("jpeg") != std::string::npos);
        CHECK(test::run("pdfimages -list " + (out / "for-the-owner.pdf").string()).out.find("jpeg") != std::string::npos);
        CHECK(desk::ask::presets().told.isEmpty());
        as_it_was = d.window.document().build();
    }
    Driver d;
    REQUIRE(d.window.openFile(path));
    CHECK(d.window.document().build() == as_it_was);
    d.action("undo"); // the second photo's words
    CHECK(build::photoNamed(d.window.document().build(), "p0002")->stage == build::Stage::Unsaid);
}

TEST_CASE("the register row by row under the car, and a phone's pictures as they come", "[desk][work][jobs]") {
    const auto folder = test::freshFolder("window-under");
    Driver d;
    REQUIRE(d.window.makeFile(QString::fromStdString((folder / "cab.gorvet").string())));
    d.window.document().setUser("M.");
    d.bench("work");
    for (const char* line : {"tag earth-left cable area engine bay joins engine to bulkhead", "tag loom connector"}) d.keep(line);
    d.showSheet("register", "Taken apart");
    // the whole window for one row: Enter says it is undone, a name tags another there
    QTest::keyClick(&d.window, Qt::Key_F4);
    auto* field = d.find<QLineEdit>("callOutField");
    REQUIRE(waitFor([&] { return field->isVisible(); }));
    CHECK(d.text("callOutPair") == "earth-left");
    CHECK(d.text("callOutHint").contains("engine bay"));
    QTest::keyClick(field, Qt::Key_Return);
    const auto row = [&](const char* name) { return build::releaseNamed(d.window.document().build(), name); };
    CHECK(row("earth-left")->released);
    CHECK(d.text("callOutPair") == "loom");
    QTest::keyClicks(field, "hose-top hose joins radiator");
    QTest::keyClick(field, Qt::Key_Return);
    REQUIRE(row("hose-top"));
    CHECK(row("hose-top")->area == "engine bay");
    CHECK_FALSE(row("hose-top")->released);
    QTest::keyClick(field, Qt::Key_Return);
    CHECK(row("loom")->released);
    QTest::keyClick(&d.window, Qt::Key_F4);
    // a folder is watched: what lay there stays, what is no picture is passed over, a new one goes to the row tagged last
    const auto phone = folder / "phone";
    std::filesystem::create_directories(phone);
    const auto picture = [&](const char* name) { test::write(phone / name, test::jpegOf(name[0])); };
    picture("old.jpg");
    desk::ask::presets().answers << QString::fromStdString(phone.string());
    d.action("watchPhotos");
    CHECK(d.text("entryEcho").contains("row tagged last"));
    std::ofstream(phone / "note.jpg") << "no picture at all";
    picture("new.jpg");
    const auto photosOf = [&](const std::string& part) {
        int count = 0;
        for (const auto& [id, p] : d.window.document().build().photos) count += p.part == part;
        return count;
    };
    REQUIRE(waitFor([&] { return photosOf("hose-top") == 1; }));
    CHECK(d.window.document().build().photos.begin()->second.stage == build::Stage::Before);
    CHECK(d.window.document().build().photos.begin()->second.area == "engine bay");
    CHECK(photosOf("loom") == 0);
    // to the card that is open
    d.type("row loom");
    REQUIRE(waitFor([&] { return d.find<desk::CardView>("card")->isVisible(); }));
    picture("second.jpg");
    REQUIRE(waitFor([&] { return photosOf("loom") == 1; }));
    // some at once: none is lost, the last one stays
    const auto kept_before = d.window.document().store()->revision();
    for (const char* name : {"third.jpg", "quite.jpg", "rapid.jpg"}) picture(name);
    REQUIRE(waitFor([&] { return d.window.document().store()->revision() == kept_before + 3; }));
    REQUIRE(waitFor([&] { return photosOf("loom") == 4; }));
    // what a phone writes that can't be shown is said
    test::write(phone / "fourth.heic", std::string("\0\0\0\x18", 4) + "ftypheic" + std::string(200, 'x'));
    REQUIRE(waitFor([&] { return d.text("entryEcho").contains("HEIC"); }));
    d.action("watchPhotos");
    CHECK(d.text("entryEcho").contains("watched no more"));
    CHECK(desk::ask::presets().told.isEmpty());
}

TEST_CASE("the wall hangs on a second screen and follows the build", "[desk][work]") {
    const auto folder = test::freshFolder("window-wall");
    Driver d;
    REQUIRE(d.window.makeFile(QString::fromStdString((folder / "cab.gorvet").string())));
    d.bench("work");
    d.keep("job floor-left does weld the floor area left");
    d.showSheet("register", "Taken apart");
    d.action("hangUp");
    CHECK(d.text("entryEcho").contains("can't be hung up"));
    d.showSheet("wall", "The wall");
    d.action("hangUp");
    auto* hung = d.find<QWidget>("hungSheet");
    REQUIRE(waitFor([&] { return hung->isVisible(); }));
    auto* view = d.find<desk::SheetView>("hungSheetView");
    CHECK(view->placeOf("step:job-floor-left"));
    CHECK_FALSE(view->placeOf("step:job-lamps"));
    // another bench is shown in the window, and the wall stays and follows
    d.bench("tape");
    d.bench("work");
    d.keep("job lamps area front");
    CHECK(view->placeOf("step:job-lamps"));
    QTest::keyClick(hung, Qt::Key_Escape);
    CHECK(waitFor([&] { return !d.window.findChild<QWidget*>("hungSheet"); }));
}

} // namespace desk_work_test
