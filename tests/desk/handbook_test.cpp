// The handbook: its pages, its search, what it tells to type, and its PDF.
#include "desk/driver.hpp"
#include "desk/handbook/handbook.hpp"
#include "desk/handbook/handbook_view.hpp"
#include "entry/entry.hpp"

#include <QImage>
#include <QListWidget>
#include <QRegularExpression>
#include <QTextBrowser>

namespace desk_handbook_test {

using namespace gorvet;
using test::Driver;
using test::waitFor;

TEST_CASE("every bench has its page, links lead to pages and pictures are there", "[desk][handbook]") {
    const auto& pages = desk::handbook::pages();
    CHECK(pages.size() >= 9);
    for (const analysis::BenchInfo* bench : analysis::benches()) {
        INFO(bench->key);
        CHECK(desk::handbook::pageOf(QString::fromUtf8(bench->key.data())));
    }
    static const QRegularExpression link("\\]\\(([^)]+)\\)");
    for (const auto& page : pages) {
        INFO(page.key.toStdString());
        CHECK_FALSE(page.title.isEmpty());
        for (auto i = link.globalMatch(page.markdown); i.hasNext();) {
            const QString to = i.next().captured(1);
            INFO(to.toStdString());
            if (to.endsWith(".md"))
                CHECK(desk::handbook::pageOf(to.chopped(3)));
            else
                CHECK_FALSE(QImage(QString(to).replace("../", ":/docs/")).isNull());
        }
    }
}

TEST_CASE("the worked example is taken line by line, and comes out as the page says", "[desk][handbook]") {
    build::Build b;
    analysis::Results r = analysis::analyse(b, 0);
    std::vector<std::string> lines;
    const QString page = desk::handbook::pageOf("first")->markdown;
    for (const QString& line : page.section("## A worked example", 1).split('\n'))
        if (line.startsWith("    ")) lines.push_back(line.trimmed().toStdString());
    REQUIRE(lines.size() > 20);
    const auto type = [&](const std::string& line) {
        const auto understood = entry::understand(b, {}, line);
        INFO(line << ": " << (understood ? "" : understood.error().text()));
        REQUIRE(understood);
        REQUIRE(build::enact(b, understood->edit));
    };
    for (size_t i = 0; i + 1 < lines.size(); ++i) type(lines[i]);
    r = analysis::analyse(b, 1);
    CHECK(analysis::headline(b, r, "tape", build::the_chassis).sentence.find("straight") != std::string::npos);
    for (const auto& a : r.of(build::the_chassis).solution->readings) CHECK(a.verdict != tape::Verdict::Retape);
    type(lines.back());
    r = analysis::analyse(b, 2);
    const auto& s = r.of(build::the_chassis);
    int named = 0;
    for (size_t i = 0; i < s.solution->readings.size(); ++i)
        if (s.solution->readings[i].verdict == tape::Verdict::Retape) {
            ++named;
            CHECK(s.survey.readings[i].value == Approx(3512.2));
        }
    CHECK(named == 1);
}

TEST_CASE("what the pages tell to type begins with a word that is known", "[desk][handbook]") {
    std::set<std::string> words;
    for (const entry::Form& f : entry::forms())
        for (const QString& pattern : QString(f.pattern).split(", "))
            for (const QString& part : pattern.split(' ')) // its first word, or what is said further on in the line
                for (QString word : part.split('|')) words.insert(word.remove('[').remove(']').toStdString());
    words.insert("gorvet-cli");
    static const QRegularExpression code("`([a-z][a-z-]+) [^`]*`");
    int checked = 0;
    for (const auto& page : desk::handbook::pages())
        for (auto i = code.globalMatch(page.markdown); i.hasNext();) {
            const std::string word = i.next().captured(1).toStdString();
            INFO(page.key.toStdString() << ": " << word);
            CHECK((words.contains(word) || build::fromWord<build::ReadingKind>(word)));
            ++checked;
        }
    CHECK(checked > 25);
}

TEST_CASE("the handbook opens at the page of the bench, is searched, and is left", "[desk][handbook]") {
    const auto folder = test::freshFolder("handbook");
    Driver d;
    REQUIRE(d.window.openFile(QString::fromStdString(test::demoBuild(folder).string())));
    d.window.setBench("stretch");
    QTest::keyClick(&d.window, Qt::Key_F3);
    auto* book = d.find<desk::HandbookView>("handbook");
    REQUIRE(waitFor([&] { return book->isVisible(); }));
    CHECK(book->shown() == "stretch");
    auto* text = d.find<QTextBrowser>("handbookText");
    CHECK(text->toPlainText().contains("139.8"));
    auto* list = d.find<QListWidget>("handbookPages");
    d.find<QLineEdit>("handbookSearch")->setText("root gap");
    REQUIRE(list->count() >= 1);
    list->setCurrentRow(0);
    emit list->itemClicked(list->item(0));
    CHECK(text->toPlainText().contains("root", Qt::CaseInsensitive));
    d.find<QLineEdit>("handbookSearch")->setText("no such words at all");
    CHECK(list->item(0)->flags() == Qt::NoItemFlags);
    QTest::keyClick(&d.window, Qt::Key_Escape);
    CHECK(waitFor([&] { return !book->isVisible(); }));
    CHECK(d.window.shownBench() == "stretch");
    const auto pdf = folder / "handbook.pdf";
    CHECK(desk::handbook::writePdf(QString::fromStdString(pdf.string())).isEmpty());
    const std::string read = test::run("pdftotext -layout " + pdf.string() + " -").out;
    for (const auto& page : desk::handbook::pages()) {
        INFO(page.title.toStdString());
        CHECK(read.find(page.title.toStdString()) != std::string::npos);
    }
    CHECK(read.find("Software never certifies") != std::string::npos);
    CHECK_FALSE(desk::handbook::writePdf("/no/such/folder/x.pdf").isEmpty());
}

} // namespace desk_handbook_test
