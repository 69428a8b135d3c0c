// The typefaces that are really used, and what a place on a sheet answers to.
#include "desk/shell/theme.hpp"
#include "desk/widgets/card_view.hpp"
#include "desk/widgets/drawing_painter.hpp"

#include <QFontDatabase>
#include <QFontInfo>
#include <QImage>
#include <QLabel>
#include <QLayout>
#include <QPainter>
#include <QTest>
#include <catch2/catch.hpp>
#include <cmath>

namespace desk_paint_test {

using namespace gorvet;

namespace {
double luminance(const QColor& c) {
    const auto linear = [](double v) { return v <= 0.03928 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4); };
    return 0.2126 * linear(c.redF()) + 0.7152 * linear(c.greenF()) + 0.0722 * linear(c.blueF());
}
double contrast(const QColor& a, const QColor& b) {
    const double x = luminance(a);
    const double y = luminance(b);
    return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
}
} // namespace

TEST_CASE("the embedded typefaces are the ones that are used", "[desk]") {
    REQUIRE(desk::registerTypefaces());
    const desk::Theme theme(desk::Ground::Day, 1.0);
    CHECK(QFontInfo(theme.font(15)).family() == "Gorvet Sans");
    CHECK(QFontInfo(theme.font(15, sheet::Face::Mono)).family() == "Gorvet Mono");
    CHECK(QFontInfo(theme.font(15, sheet::Face::Bold)).bold());
    const QFontMetricsF mono(theme.font(40, sheet::Face::Mono));
    CHECK(mono.horizontalAdvance("i") == Approx(mono.horizontalAdvance("W")));
    const QFontMetricsF sans(theme.font(40));
    CHECK(sans.horizontalAdvance("i") < sans.horizontalAdvance("W"));
    CHECK(sans.horizontalAdvance("1") == Approx(sans.horizontalAdvance("8"))); // figures of one width stand in columns
}

TEST_CASE("every ink is readable on both grounds of both themes", "[desk]") {
    for (const auto ground : {desk::Ground::Day, desk::Ground::Dye}) {
        const desk::Theme theme(ground, 1.0);
        for (const auto ink : {sheet::Ink::Ink, sheet::Ink::Second, sheet::Ink::Body, sheet::Ink::Chassis, sheet::Ink::NewSteel,
                               sheet::Ink::Remove, sheet::Ink::Good, sheet::Ink::Warn, sheet::Ink::Bad})
            for (const auto on : {sheet::Ink::Sheet, sheet::Ink::Panel}) {
                INFO(static_cast<int>(ink) << " on " << theme.color(on).name().toStdString());
                CHECK(contrast(theme.color(ink), theme.color(on)) >= 4.5);
            }
    }
}

TEST_CASE("a place answers to what is drawn there, marks before lines", "[desk]") {
    sheet::Drawing d;
    d.add(sheet::Stroke{{{0, 50}, {200, 50}}, false, {}}, "line");
    d.add(sheet::Circle{{100, 52}, 5, {}}, "mark");
    d.add(sheet::Text{{20, 120}, "words", 15}, "text");
    const auto items = sheet::flatten(d);
    CHECK(desk::tagAt(items, {30, 55}, 14) == "line");
    CHECK(desk::tagAt(items, {100, 50}, 14) == "mark");
    CHECK(desk::tagAt(items, {35, 116}, 14) == "text");
    CHECK(desk::tagAt(items, {30, 84}, 14).empty());
}

TEST_CASE("painting puts ink on the sheet in the theme's colour", "[desk]") {
    sheet::Drawing d;
    d.add(sheet::Stroke{{{0, 50}, {100, 50}}, false, {sheet::Ink::Bad, 4, sheet::Dash::Solid}});
    d.add(sheet::Text{{10, 30}, "12.5", 20, sheet::Ink::Body});
    for (const auto ground : {desk::Ground::Day, desk::Ground::Dye}) {
        const desk::Theme theme(ground, 1.0);
        QImage image(100, 100, QImage::Format_RGB32);
        image.fill(theme.color(sheet::Ink::Sheet));
        QPainter q(&image);
        desk::paintItems(q, sheet::flatten(d), theme);
        q.end();
        CHECK(image.pixelColor(50, 50) == theme.color(sheet::Ink::Bad));
        CHECK(image.pixelColor(50, 80) == theme.color(sheet::Ink::Sheet));
        int body = 0;
        for (int x = 0; x < 100; ++x)
            for (int y = 10; y < 32; ++y) body += image.pixelColor(x, y) == theme.color(sheet::Ink::Body);
        CHECK(body > 10);
    }
}

TEST_CASE("a card gives every sentence the room it needs", "[desk][card]") {
    // long sentences used to squash the rows above them: the card took the height that labels would like, not what they need
    QWidget sheet;
    sheet.resize(1280, 690);
    sheet.show();
    REQUIRE(QTest::qWaitForWindowExposed(&sheet));
    analysis::Card c;
    c.title = "a title that is longer than the card is wide";
    for (const char* label : {"diamond", "twist", "sag", "sidesway", "rails left − right"})
        c.rows.push_back({label, "8.2 ± 1.4 mm", sheet::Mark::Derived, true});
    for (int i = 0; i < 3; ++i)
        c.sentences.emplace_back(
            "twist: you said straight, it is 8.3, left side high at the front. Missed. It was one front wheel dropped into a ditch.");
    c.actions.push_back({"an hour costs", "rate hour ", "55", true});
    for (const double scale : {1.0, 1.5}) {
        const desk::Theme theme(desk::Ground::Day, scale);
        qApp->setStyleSheet(theme.styleSheet()); // as the window has it; what another test left would count else
        desk::CardView card(&sheet);
        card.show(c, "builder · 25 Nov 12:49", {600, 300}, theme);
        card.layout()->activate();
        int labels = 0;
        for (const QLabel* label : card.findChildren<QLabel*>()) {
            if (!label->isVisible()) continue;
            ++labels;
            INFO(label->text().toStdString() << " at " << scale);
            const int needed = label->wordWrap() ? label->heightForWidth(label->width()) : label->sizeHint().height();
            CHECK(label->height() >= needed - 1);
        }
        CHECK(labels >= 14);
        CHECK(card.geometry().bottom() <= sheet.height());
    }
}

} // namespace desk_paint_test
