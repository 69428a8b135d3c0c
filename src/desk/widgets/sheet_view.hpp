#pragma once

#include "desk/shell/theme.hpp"
#include "sheet/drawing.hpp"

#include <QWidget>
#include <functional>

class QScrollBar;

namespace gorvet::desk {

/// Shows a drawing that is made anew for the size at hand, and says which of its items are picked, by mouse or keyboard
/// (arrow keys walk through the items, Enter picks). A drawing that needs more height than there is can be scrolled. What has a
/// handle is dragged by it; Escape lets go without a change.
class SheetView : public QWidget {
    Q_OBJECT
public:
    using Maker = std::function<sheet::Drawing(double width, double height, const sheet::Format&)>;
    explicit SheetView(QWidget* parent = nullptr);
    void setMaker(Maker);
    void setTheme(const Theme&);
    /// Makes the drawing again.
    void refresh();
    const sheet::Drawing& drawing() const { return drawing_; }
    /// Where an item stands in the view, for cards and tests; none when nothing carries the tag. May lie outside the view.
    std::optional<QPointF> placeOf(const std::string& tag) const;
    /// Scrolls so far that an item is in view.
    void reveal(const std::string& tag);
    QSize minimumSizeHint() const override { return {300, 60}; }

signals:
    void picked(const QString& tag, const QPoint& at);
    void pickedNothing();
    /// A handle is dragged, and let go, at a value of what it moves.
    void gripMoved(const QString& name, double value);
    void gripLeft(const QString& name, double value);
    /// It is as it was: Escape.
    void gripDropped();

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void mouseReleaseEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    void wheelEvent(QWheelEvent*) override;
    const Theme& theme() const { return theme_; }
    const std::vector<sheet::Item>& items() const { return items_; }

private:
    std::vector<std::string> tagsInOrder() const;
    std::string tagUnder(QPointF) const;
    const sheet::Grip* gripUnder(QPointF) const;
    double draggedTo(QPointF) const;
    void makeDrawing(int width);

    Maker maker_;
    Theme theme_{Ground::Day, 1.0};
    sheet::Drawing drawing_;
    std::vector<sheet::Item> items_;
    struct Dragged {
        sheet::Grip grip;
        QPointF from;
        bool moved = false;
    };
    std::optional<Dragged> dragged_;
    std::string walked_; ///< the tag that the keyboard stands on
    QScrollBar* bar_;    ///< hidden where all is in view
};

} // namespace gorvet::desk
