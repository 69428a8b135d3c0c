#pragma once

#include "desk/shell/theme.hpp"

#include <QWidget>

class QCheckBox;
class QFrame;
class QGridLayout;
class QLabel;
class QPushButton;
class QSlider;

namespace gorvet::desk {

class SceneView;

/// The view of the scans over the whole sheet, and on its lower edge its buttons, which fold away: where one stands, what is
/// shown, the section. Where the system has no OpenGL it says so.
class ScenePane : public QWidget {
    Q_OBJECT
public:
    /// The buttons over its lower edge; null where there is no picture.
    QWidget* controls() const;
    explicit ScenePane(QWidget* parent = nullptr);
    /// Null where there is no OpenGL.
    SceneView* view() const { return view_; }
    void setTheme(const Theme&);
    /// What stands over the view's upper edge: the picture keeps clear of it.
    void standUnder(QWidget* head);
    /// A line of words over the buttons; empty: none.
    void say(const QString&);
    /// The stations that the section may be taken at follow what is shown.
    void refreshRange();
    /// As if the section had been put there by hand.
    void cutOpenAt(double station_mm);

    /// A slider over so many moments, at one of them; 0 takes it away.
    void setTimes(int count, int at = 0);

    QSize minimumSizeHint() const override;

signals:
    void timeMoved(int at);

protected:
    void showEvent(QShowEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    bool eventFilter(QObject*, QEvent*) override;

private:
    void arrange();
    QWidget* buildEdge();
    void buildLayers();
    void buildSection();
    void fold(bool);
    SceneView* view_ = nullptr;
    QLabel* missing_ = nullptr;
    bool asked_ = false;
    QLabel* words_ = nullptr;
    QWidget* head_ = nullptr;
    QFrame* edge_ = nullptr;      ///< the controls, over the view's lower edge
    QPushButton* fold_ = nullptr; ///< all that is left of them when they are folded away
    bool folded_by_hand_ = false;
    QWidget* views_ = nullptr;
    QWidget* more_ = nullptr; ///< what is shown: beside the views, or below them with large text
    QWidget* cut_ = nullptr;  ///< where it is cut open
    QGridLayout* rows_ = nullptr;
    QCheckBox* section_on_ = nullptr;
    QSlider* section_ = nullptr;
    QSlider* time_ = nullptr;
    QLabel* station_ = nullptr;
};

} // namespace gorvet::desk
