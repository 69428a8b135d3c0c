#pragma once

#include <QPointer>
#include <QStringList>
#include <QWidget>
#include <vector>

class QScrollArea;
class QToolButton;

namespace gorvet::desk {

/// A row of words to tap, however many: shown are those that stand there whole, and at either end is what turns to the others.
/// The wheel turns, too, and so does the keyboard when it goes on to a word that is not shown.
class WordRow : public QWidget {
    Q_OBJECT
public:
    /// Takes `words` over: a widget whose layout holds the buttons, side by side.
    explicit WordRow(QWidget* words, QWidget* parent = nullptr);
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override;

protected:
    void resizeEvent(QResizeEvent*) override;
    bool eventFilter(QObject*, QEvent*) override;
    void wheelEvent(QWheelEvent*) override;

private:
    void settleSoon();
    /// Gives the words that fit their room, from the first one that is shown.
    void settle();
    void turn(bool on);
    QToolButton* turner(const QString& text, const QString& name, const QString& said, bool on);
    /// Those there are, from left to right.
    std::vector<QPointer<QWidget>> wordsNow() const;
    QWidget* words_;
    QScrollArea* scroll_;
    QToolButton *back_, *on_;
    std::vector<QPointer<QWidget>> all_; ///< as they were settled
    QStringList names_;                  ///< of those
    std::size_t first_ = 0, after_ = 0;  ///< of them are shown
    int turned_ = 0;                     ///< by the wheel, in its own steps, towards the next turn
    bool waiting_ = false, settling_ = false;
};

} // namespace gorvet::desk
