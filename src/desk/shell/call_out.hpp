#pragma once

#include "analysis/last_read.hpp"
#include "desk/shell/bench.hpp"
#include "desk/widgets/sheet_view.hpp"

#include <QWidget>

class QLabel;
class QLineEdit;
class QPushButton;

namespace gorvet::desk {

/// The whole window for one reading, to be read from under the car: the next pair, what to expect, a sketch, the last value
/// and its verdict. A figure and Enter keep it; the sound tells the verdict.
class CallOut : public QWidget {
    Q_OBJECT
public:
    explicit CallOut(QWidget* parent = nullptr);
    void setTheme(const Theme&);
    void setSketch(SheetView::Maker);
    /// Without a pair: what to do instead.
    void showPair(const std::optional<Proposal>&, const QString& instead);
    /// Shows the newest figure; `sound` plays its verdict.
    void showLast(const std::optional<analysis::LastRead>&, bool sound);
    void say(const QString& text); ///< what was wrong with a figure
    bool muted() const { return muted_; }
    void setMuted(bool);
    QLineEdit* field() { return field_; }

signals:
    void figure(const QString& text);
    void otherPair(int step);
    void left();

protected:
    bool eventFilter(QObject*, QEvent*) override;
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;

private:
    void fitPair();
    void fitValues();
    QLabel* pair_;
    QLabel* hint_;
    QLineEdit* field_;
    QLabel* error_;
    QLabel* last_;
    QLabel* word_;
    QLabel* sentence_;
    QPushButton* mute_;
    SheetView* sketch_;
    Theme theme_{Ground::Day, 1.0};
    sheet::Severity severity_ = sheet::Severity::Good;
    bool muted_ = false;
    bool whole_ = false; ///< Enter alone says it
};

} // namespace gorvet::desk
