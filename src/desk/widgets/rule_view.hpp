#pragma once

#include "desk/widgets/sheet_view.hpp"

#include <optional>

namespace gorvet::desk {

/// The Rule. Dragging its upper half slides the body edge; letting go is one decision.
class RuleView : public SheetView {
    Q_OBJECT
public:
    explicit RuleView(QWidget* parent = nullptr) : SheetView(parent) {}
    /// Pixels a millimetre; 0 when nothing can be slid.
    void setScale(double px_a_mm) { scale_ = px_a_mm; }
    bool sliding() const { return sliding_; }
    /// A line at a place of it with a figure beside it: what the pointer is on in another view. None takes it away.
    void setPointer(std::optional<double> x_px, const QString& figure = {});
    const QString& pointerFigure() const { return pointer_figure_; }

signals:
    void slid(double mm);       ///< while dragging
    void letGo(double mm);      ///< at the end
    void placePicked(double x); ///< a click, wherever it was

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;

private:
    double scale_ = 0;
    bool pressed_ = false;
    bool sliding_ = false;
    QPointF start_;
    std::optional<double> pointer_;
    QString pointer_figure_;
};

} // namespace gorvet::desk
