#pragma once

#include "analysis/cards.hpp"
#include "desk/shell/theme.hpp"

#include <QFrame>
#include <QPointer>

class QLabel;
class QLineEdit;
class QPushButton;
class QVBoxLayout;

namespace gorvet::desk {

/// A card beside what was picked: its figures, and what can be done about it.
class CardView : public QFrame {
    Q_OBJECT
public:
    explicit CardView(QWidget* parent);
    /// Shows the card near a place, within the parent. `history`: who and when, may be empty.
    void show(const analysis::Card&, const QString& history, const QPoint& near, const Theme&);
    void close();
    /// Where there is room the card stands above this, not over it.
    void keepAbove(QWidget* w) { below_ = w; }
    /// What begins the line that a photo completes, where the card is open and takes one; else empty.
    QString photoPrefix() const { return isVisible() ? photo_prefix_ : QString(); }
    /// What the photos that come while the card is open are of; none where it is closed or takes none.
    std::optional<analysis::PhotoAbout> photoAbout() const { return isVisible() ? photo_about_ : std::nullopt; }
    void say(const QString& error); ///< beside the field that caused it

signals:
    void line(const QString& text);              ///< a line for the entry grammar
    void photoFor(const QString& line);          ///< a photo is wanted, whose hash completes the line
    void photosFor(const analysis::PhotoAbout&); ///< files are wanted, to be kept as photos of this
    void closed();

protected:
    void keyPressEvent(QKeyEvent*) override;

private:
    void clear();
    /// Title and verdict; returns the button that closes.
    QPushButton* addHead(const analysis::Card&, const Theme&);
    void addRows(const analysis::Card&);
    /// Returns the first field to type into; null when nothing is asked.
    QLineEdit* addActions(const analysis::Card&);
    void standNear(const QPoint&, const Theme&);

    QPointer<QWidget> below_;
    QString photo_prefix_;
    std::optional<analysis::PhotoAbout> photo_about_;
    QVBoxLayout* layout_;
    QLabel* error_ = nullptr;
};

} // namespace gorvet::desk
