#pragma once

#include "desk/widgets/sheet_view.hpp"

namespace gorvet::desk {

/// A sheet in a window of its own, for a second screen on the wall: it follows the build, larger the larger it is. Enter fills
/// the screen, Escape leaves that, then closes.
class HungSheet : public QWidget {
    Q_OBJECT
public:
    HungSheet(QWidget* owner, const QString& title, SheetView::Maker);
    /// Draws it again on that ground.
    void refresh(Ground);

protected:
    void resizeEvent(QResizeEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void paintEvent(QPaintEvent*) override;

private:
    void fit();
    SheetView* sheet_;
    Ground ground_ = Ground::Day;
};

} // namespace gorvet::desk
