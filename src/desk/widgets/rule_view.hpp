#pragma once

#include "desk/widgets/sheet_view.hpp"

namespace gorvet::desk {

/// The Rule. Dragging its upper half slides the body edge; letting go is one decision.
class RuleView : public SheetView {
    Q_OBJECT
public:
    explicit RuleView(QWidget* parent = nullptr) : SheetView(parent) {}
    /// Pixels a millimetre; 0 when nothing can be slid.
    void setScale(double px_a_mm) { scale_ = px_a_mm; }
    bool sliding() const { return sliding_; }

signals:
    void slid(double mm);       ///< while dragging
    void letGo(double mm);      ///< at the end
    void placePicked(double x); ///< a click, wherever it was

protected:
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    double scale_ = 0;
    bool pressed_ = false;
    bool sliding_ = false;
    QPointF start_;
};

} // namespace gorvet::desk
