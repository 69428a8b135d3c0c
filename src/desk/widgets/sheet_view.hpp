#pragma once

#include "desk/shell/theme.hpp"
#include "sheet/drawing.hpp"

#include <QWidget>
#include <functional>

namespace gorvet::desk {

/// Shows a drawing that is made anew for the size at hand, and says which of its items are picked, by mouse or keyboard
/// (arrow keys walk through the items, Enter picks).
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
    /// Where an item stands, for cards and tests; none when nothing carries the tag.
    std::optional<QPointF> placeOf(const std::string& tag) const;
    QSize minimumSizeHint() const override { return {300, 60}; }

signals:
    void picked(const QString& tag, const QPoint& at);
    void pickedNothing();

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mousePressEvent(QMouseEvent*) override;
    void mouseMoveEvent(QMouseEvent*) override;
    void keyPressEvent(QKeyEvent*) override;
    const Theme& theme() const { return theme_; }
    const std::vector<sheet::Item>& items() const { return items_; }

private:
    std::vector<std::string> tagsInOrder() const;

    Maker maker_;
    Theme theme_{Ground::Day, 1.0};
    sheet::Drawing drawing_;
    std::vector<sheet::Item> items_;
    std::string walked_; ///< the tag that the keyboard stands on
};

} // namespace gorvet::desk
