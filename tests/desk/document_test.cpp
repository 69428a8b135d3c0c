// The open build and the entry line, without the window round them.
#include "desk/shell/document.hpp"
#include "desk/shell/entry_line.hpp"

#include "support/support.hpp"

#include <QLabel>
#include <QLineEdit>
#include <QSignalSpy>
#include <QTest>
#include <catch2/catch.hpp>

namespace desk_document_test {

using namespace gorvet;

namespace {
build::Edit mark(const build::Build& b, const std::string& name) {
    build::Point p;
    p.id = build::PointId{b.next_id};
    p.name = name;
    return {"mark point " + name, {build::Put<build::Point>{p}}};
}
} // namespace

TEST_CASE("every change of the document is kept, analysed and announced", "[desk]") {
    const auto path = test::freshFolder("document") / "d.gorvet";
    desk::Document d;
    d.setUser("M.");
    QSignalSpy changed(&d, &desk::Document::changed);
    CHECK_FALSE(d.keep(mark(d.build(), "A"))); // nothing is open
    CHECK_FALSE(d.undo());
    REQUIRE(d.create(QString::fromStdString(path.string())));
    CHECK(d.build().settings.name == "d");
    REQUIRE(d.keep(mark(d.build(), "A")));
    CHECK(changed.count() == 2);
    CHECK(d.results().revision == d.store()->revision());
    CHECK(d.results().chassis.survey.points.size() == 1);
    CHECK_FALSE(d.keep(mark(d.build(), "A"))); // the name is taken: refused, nothing announced
    CHECK(changed.count() == 2);
    CHECK(d.keptText().startsWith("kept "));
    CHECK(d.history("point", build::the_chassis.value + 1).startsWith("M."));
    CHECK(d.history("point", 99).isEmpty());
    REQUIRE(*d.undo() == "mark point A");
    CHECK(d.results().chassis.survey.points.empty());
    REQUIRE(d.redo());
    CHECK_FALSE(d.redo());
    d.close();
    CHECK_FALSE(d.isOpen());
    REQUIRE(d.open(QString::fromStdString(path.string())));
    CHECK(d.build().points.size() == 1);
    CHECK_FALSE(d.open("/nowhere/at/all.gorvet"));
    CHECK(d.build().points.size() == 1); // what was open stays open
}

TEST_CASE("with a proposal a figure is enough, and a whole line stays possible", "[desk]") {
    desk::EntryLine line;
    line.show();
    line.setProposal(desk::Proposal{"A3 B7", "A3 B7 ", "about 2164", {}}, "type something");
    QSignalSpy submitted(&line, &desk::EntryLine::submitted);
    auto* field = line.field();
    const auto typed = [&](const QString& text) {
        field->clear();
        QTest::keyClicks(field, text);
        QTest::keyClick(field, Qt::Key_Return);
        return submitted.isEmpty() ? QString() : submitted.takeLast().at(0).toString();
    };
    CHECK(line.findChild<QLabel*>("entryPair")->text() == "A3 B7");
    CHECK(line.findChild<QLabel*>("entryEcho")->text() == "about 2164");
    CHECK(typed("2164") == "A3 B7 2164");
    CHECK(typed(".5 m") == "A3 B7 .5 m");
    CHECK(typed("Al Br 12") == "Al Br 12");
    CHECK(typed("height A3 4") == "height A3 4");
    CHECK(typed("   ").isEmpty());
    // names that begin with a figure
    line.setIsName([](const QString& word) { return word == "1l"; });
    CHECK(typed("1l 2r 800") == "1l 2r 800");
    CHECK(typed("800") == "A3 B7 800");
    // an error is pointed at in what was typed, without the proposal's part
    field->setText("21x");
    line.pointAt(8);
    CHECK(field->selectedText() == "x");
    QTest::keyClick(field, Qt::Key_Escape);
    CHECK(field->text().isEmpty());
    QSignalSpy other(&line, &desk::EntryLine::otherPair);
    QTest::keyClick(field, Qt::Key_Down);
    QTest::keyClick(field, Qt::Key_Down, Qt::ShiftModifier);
    REQUIRE(other.count() == 2);
    CHECK(other[0][0].toInt() == 1);
    CHECK(other[1][0].toInt() == -1);
    // Up brings back what was kept, the newest first; Down goes on to the empty line
    for (const char* kept : {"A3 B7 800", "height Al 3", "height Al 3"}) line.remember(kept);
    QTest::keyClick(field, Qt::Key_Up);
    CHECK(field->text() == "height Al 3");
    QTest::keyClick(field, Qt::Key_Up);
    QTest::keyClick(field, Qt::Key_Up); // there is none before the first
    CHECK(field->text() == "A3 B7 800");
    QTest::keyClick(field, Qt::Key_Down);
    QTest::keyClick(field, Qt::Key_Down);
    CHECK(field->text().isEmpty());
    CHECK(other.count() == 2);
    // Tab asks for the rest of a word that is begun, and is a tab on an empty line
    QSignalSpy complete(&line, &desk::EntryLine::complete);
    field->setText("hei");
    QTest::keyClick(field, Qt::Key_Tab);
    CHECK(complete.count() == 1);
    field->clear();
    line.setProposal(std::nullopt, "type something");
    CHECK(line.findChild<QLabel*>("entryEcho")->text() == "type something");
    CHECK(typed("12") == "12");
}

TEST_CASE("a second window follows the first, and can write once it has gone", "[desk][lock]") {
    const auto path = QString::fromStdString((test::freshFolder("document-second") / "d.gorvet").string());
    desk::Document first, second;
    REQUIRE(first.create(path));
    REQUIRE(first.keep(mark(first.build(), "A")));
    REQUIRE(second.open(path));
    QSignalSpy writable(&second, &desk::Document::writable);
    CHECK(second.keptText() == "read-only, open elsewhere");
    CHECK_FALSE(second.keep(mark(second.latest(), "B")));
    second.lookAgain();
    CHECK(second.keptText().startsWith("read-only")); // nothing has changed
    REQUIRE(first.keep(mark(first.build(), "B")));
    second.lookAgain();
    CHECK(second.build().points.size() == 2); // it sees what the other keeps
    CHECK(second.results().chassis.survey.points.size() == 2);
    CHECK(writable.isEmpty());
    first.close();
    second.lookAgain();
    CHECK(writable.count() == 1);
    CHECK(second.keptText().startsWith("kept "));
    REQUIRE(second.keep(mark(second.latest(), "C")));
    second.lookAgain(); // and nothing is opened again while it writes
    CHECK(writable.count() == 1);
    CHECK(second.undo());
}

TEST_CASE("a damaged file says so among the findings, whatever is analysed", "[desk][damage]") {
    const auto path = test::freshFolder("document-damaged") / "d.gorvet";
    {
        desk::Document d;
        REQUIRE(d.create(QString::fromStdString(path.string())));
        for (const char* name : {"A", "B", "C"}) REQUIRE(d.keep(mark(d.build(), name)));
    }
    REQUIRE(test::run("sqlite3 " + path.string() + " \"UPDATE journal SET who = 'X' WHERE seq = 4\"").code == 0);
    desk::Document d;
    REQUIRE(d.open(QString::fromStdString(path.string())));
    for (int round = 0; round < 2; ++round) {
        const auto& findings = d.results().findings;
        REQUIRE_FALSE(findings.empty());
        CHECK(findings.front().code == "file.damaged");
        CHECK(std::count_if(findings.begin(), findings.end(), [](const auto& f) { return f.code == "file.damaged"; }) == 1);
        d.analyse();
    }
    CHECK(d.keptText() == "read-only, damaged");
    d.lookAgain();
    CHECK(d.build().points.size() == 2);
}

} // namespace desk_document_test
