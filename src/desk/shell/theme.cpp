#include "desk/shell/theme.hpp"

#include "sheet/fonts.hpp"

#include <QFontDatabase>

namespace gorvet::desk {

using sheet::Ink;

QColor Theme::color(Ink ink) const {
    const bool day = ground_ == Ground::Day;
    const auto pick = [day](const char* on_day, const char* on_dye) { return QColor(day ? on_day : on_dye); };
    switch (ink) {
    case Ink::Ink: return pick("#1E1B16", "#EEF2FF");
    case Ink::Second: return pick("#574F42", "#B4BEDF");
    case Ink::Faint: return pick("#C9C0AC", "#3D467C");
    case Ink::Body: return pick("#1D4F8C", "#8FC7FF");
    case Ink::Chassis: return pick("#7A3E1D", "#F2A86F");
    case Ink::NewSteel:
    case Ink::Good: return pick("#0A6657", "#7FE3C5");
    case Ink::Remove: return pick("#8C1D40", "#FF9EC0");
    case Ink::Warn: return pick("#805300", "#FFD27A");
    case Ink::Bad: return pick("#B3261E", "#FF8F84");
    case Ink::Sheet: return pick("#F4F0E6", "#1A2046");
    case Ink::Panel: return pick("#E8E2D2", "#252C58");
    }
    return {};
}

QFont Theme::font(double size_px, sheet::Face face) const {
    QFont f(face == sheet::Face::Mono ? sheet::mono_family : sheet::sans_family);
    f.setPixelSize(std::max(1, px(size_px)));
    f.setBold(face == sheet::Face::Bold);
    return f;
}

QString Theme::styleSheet() const {
    const auto c = [this](Ink ink) { return color(ink).name(); };
    const QString body = QString::number(px(15));
    QString s = QStringLiteral(R"(
* { font-family: "%FAMILY"; font-size: %BODYpx; color: %INK; }
QMainWindow, #central, #sheetArea { background: %SHEET; }
QWidget#verbStrip, QWidget#ruleArea { background: %PANEL; }
QPushButton, QToolButton { background: %PANEL; border: %BORDERpx solid %SECOND; padding: 4px 14px; min-height: %TARGETpx; }
QPushButton:hover, QToolButton:hover { background: %SHEET; }
QPushButton:focus, QToolButton:focus { border: %FOCUSpx solid %INK; }
QPushButton:disabled { color: %SECOND; border-color: %FAINT; }
QPushButton:checked { background: %INK; color: %SHEET; }
QPushButton[lead="true"] { border: 2px solid %INK; font-weight: bold; }
QPushButton[tall="true"] { min-height: 46px; }
QToolButton:checked { background: %SHEET; border: 3px solid %INK; }
QPushButton[verb="true"] { background: transparent; border: none; padding: 0 4px; }
QToolButton::menu-indicator { image: none; }
QMenu { background: %SHEET; border: 1px solid %INK; }
QMenu::item { padding: 8px 24px; min-height: %MENUpx; }
QMenu::item:selected { background: %INK; color: %SHEET; }
QMenu::item:disabled { color: %SECOND; }
QLineEdit { background: %SHEET; border: 1px solid %SECOND; padding: 4px 8px; min-height: %TARGETpx; selection-background-color: %INK; selection-color: %SHEET; }
QLineEdit:focus { border: 2px solid %INK; }
QFrame#entryFrame { background: %PANEL; border: 2px solid %INK; }
QFrame#entryFrame QLineEdit { background: transparent; border: none; font-size: %HEADpx; }
QFrame#entryFrame QLabel { background: transparent; }
QWidget#head { background: %VEIL; }
QFrame#sceneEdge { background: %SHEET; border: none; }
QFrame#sceneEdge QPushButton { padding: 4px 5px; }
QFrame[card="true"] { background: %SHEET; border: 2px solid %INK; }
QFrame[card="true"][severity="bad"] { border-color: %BAD; }
QFrame[card="true"][severity="warn"] { border-color: %WARN; }
QLabel { background: transparent; }
QLabel[second="true"] { color: %SECOND; }
QLabel[role="bad"] { color: %BAD; }
QLabel[role="warn"] { color: %WARN; }
QLabel[role="good"] { color: %GOOD; }
QDialog, QMessageBox, QPlainTextEdit, QTableWidget { background: %SHEET; }
QPlainTextEdit, QTextEdit { border: 1px solid %SECOND; selection-background-color: %INK; selection-color: %SHEET; }
QScrollArea, QScrollArea > QWidget > QWidget { background: transparent; }
QScrollBar:vertical { background: %PANEL; width: 14px; }
QScrollBar:horizontal { background: %PANEL; height: 14px; }
QScrollBar::handle { background: %SECOND; min-height: 30px; min-width: 30px; margin: 3px; }
QScrollBar::handle:hover { background: %INK; }
QScrollBar::add-line, QScrollBar::sub-line { width: 0; height: 0; }
QScrollBar::add-page, QScrollBar::sub-page { background: none; }
QSlider::groove:horizontal { background: %SECOND; height: 2px; }
QSlider::handle:horizontal { background: %INK; width: 14px; margin: -9px 0; }
QSlider::handle:horizontal:focus { background: %SHEET; border: 2px solid %INK; }
QCheckBox::indicator { width: 16px; height: 16px; border: 2px solid %SECOND; background: %SHEET; }
QCheckBox::indicator:checked { background: %INK; border-color: %INK; }
QCheckBox:focus { text-decoration: underline; }
QListWidget { background: %SHEET; border: 1px solid %SECOND; }
QListWidget::item { padding: 6px 8px; border: none; background: transparent; }
QTableView { background: %SHEET; border: 1px solid %SECOND; selection-background-color: %INK; selection-color: %SHEET; }
QTextBrowser#handbookText { background: %SHEET; border: none; }
QListWidget::item:selected, QTableView::item:selected { background: %INK; color: %SHEET; }
QListWidget::item:disabled { color: %SECOND; }
QPushButton[key="true"] { padding: 4px 10px; min-height: 32px; }
QHeaderView { background: %PANEL; border: none; }
QHeaderView::section { background: %PANEL; color: %SECOND; border: none; padding: 4px 3px; }
QTableView::item { padding: 3px 10px; }
)");
    s.replace("%FAMILY", sheet::sans_family).replace("%BODY", body).replace("%HEAD", QString::number(px(24)));
    const QColor sheet = color(Ink::Sheet); // what is behind words is seen, and they are read
    s.replace("%VEIL", QString("rgba(%1, %2, %3, 215)").arg(sheet.red()).arg(sheet.green()).arg(sheet.blue()));
    s.replace("%INK", c(Ink::Ink))
        .replace("%SHEET", c(Ink::Sheet))
        .replace("%PANEL", c(Ink::Panel))
        .replace("%SECOND", c(Ink::Second));
    s.replace("%FAINT", c(Ink::Faint)).replace("%BAD", c(Ink::Bad)).replace("%WARN", c(Ink::Warn)).replace("%GOOD", c(Ink::Good));
    s.replace("%TARGET", QString::number(30))
        .replace("%MENU", QString::number(24))
        .replace("%BORDER", "1")
        .replace("%FOCUS", "2");
    return s;
}

bool registerTypefaces() {
    bool all = true;
    for (const auto face : {sheet::Face::Sans, sheet::Face::Bold, sheet::Face::Mono}) {
        const auto bytes = sheet::fontBytes(face);
        const QByteArray data(reinterpret_cast<const char*>(bytes.data()), static_cast<qsizetype>(bytes.size()));
        all = QFontDatabase::addApplicationFontFromData(data) >= 0 && all;
    }
    return all;
}

} // namespace gorvet::desk
