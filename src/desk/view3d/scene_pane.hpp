#pragma once

#include "desk/shell/theme.hpp"

#include <QWidget>

class QBoxLayout;
class QCheckBox;
class QLabel;
class QPushButton;
class QSlider;

namespace gorvet::desk {

class SceneView;

/// The view of the scans with its buttons: where one stands, what is shown, the section. Where the system has no OpenGL it says
/// so.
class ScenePane : public QWidget {
    Q_OBJECT
public:
    explicit ScenePane(QWidget* parent = nullptr);
    /// Null where there is no OpenGL.
    SceneView* view() const { return view_; }
    void setTheme(const Theme&);
    /// A line of words under the buttons; empty: none.
    void say(const QString&);
    /// The stations that the section may be taken at follow what is shown.
    void refreshRange();

    QSize minimumSizeHint() const override;

protected:
    void showEvent(QShowEvent*) override;
    void resizeEvent(QResizeEvent*) override;

private:
    void arrange();
    SceneView* view_ = nullptr;
    QLabel* missing_ = nullptr;
    bool asked_ = false;
    QLabel* words_ = nullptr;
    QWidget* second_row_ = nullptr; ///< layers and section: beside the views, or below them with large text
    QBoxLayout* first_row_ = nullptr;
    QBoxLayout* column_ = nullptr;
    QCheckBox* section_on_ = nullptr;
    QSlider* section_ = nullptr;
    QLabel* station_ = nullptr;
};

} // namespace gorvet::desk
