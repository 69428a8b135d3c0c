#include "desk/shell/hung_sheet.hpp"

#include <algorithm>

#include <QKeyEvent>
#include <QPainter>
#include <QVBoxLayout>

namespace gorvet::desk {

HungSheet::HungSheet(QWidget* owner, const QString& title, SheetView::Maker maker) : QWidget(owner, Qt::Window) {
    setObjectName("hungSheet");
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(title);
    setFocusPolicy(Qt::StrongFocus);
    sheet_ = new SheetView(this);
    sheet_->setObjectName("hungSheetView");
    sheet_->setFocusPolicy(Qt::NoFocus);
    sheet_->setMaker(std::move(maker));
    auto* column = new QVBoxLayout(this);
    constexpr int margin = 32;
    column->setContentsMargins(margin, margin, margin, margin);
    column->addWidget(sheet_);
    constexpr QSize at_first{1280, 760};
    resize(at_first);
}

void HungSheet::refresh(Ground ground) {
    ground_ = ground;
    fit();
    update();
}

/// Its letters grow with it: it is read across the workshop.
void HungSheet::fit() {
    constexpr double as_in_the_window = 760, most = 3;
    sheet_->setTheme(Theme(ground_, std::clamp(height() / as_in_the_window, 1.0, most)));
    sheet_->refresh();
}

void HungSheet::resizeEvent(QResizeEvent* e) {
    QWidget::resizeEvent(e);
    fit();
}

void HungSheet::paintEvent(QPaintEvent*) { QPainter(this).fillRect(rect(), Theme(ground_, 1.0).color(sheet::Ink::Sheet)); }

void HungSheet::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter) return isFullScreen() ? showNormal() : showFullScreen();
    if (e->key() == Qt::Key_Escape) {
        if (isFullScreen()) return showNormal();
        close();
        return;
    }
    QWidget::keyPressEvent(e);
}

} // namespace gorvet::desk
