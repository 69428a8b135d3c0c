#pragma once

#include "build/settings.hpp"
#include "desk/shell/recent.hpp"
#include "desk/shell/theme.hpp"

#include <QList>
#include <QWidget>

class QAction;
class QButtonGroup;
class QGridLayout;
class QLabel;
class QLineEdit;
class QPushButton;
class QScrollArea;
class QStackedWidget;

namespace gorvet::desk {

/// What is shown while no build is open: the builds that were open before, each with its picture, and how another begins. A new
/// build asks three things that a builder knows: what kind of frame, what donor and body are called, mm or inches.
class StartPage : public QWidget {
    Q_OBJECT
public:
    /// `acts`: what can be done without a build, a button each.
    StartPage(Recent&, const QList<QAction*>& acts, QWidget* parent = nullptr);
    void setTheme(const Theme&);
    /// The builds anew.
    void refresh();
    /// The three questions.
    void askForNew();
    /// Back from them; false where they were not asked.
    bool leaveQuestions();

signals:
    void opened(const QString& path);
    /// All is answered: make it there. An empty path: where is asked.
    void begun(const gorvet::build::Settings&, const QString& path);

private:
    QWidget* buildFirst(const QList<QAction*>& acts);
    QWidget* buildQuestions();
    QLayout* buildKinds();
    QLayout* buildFoot(); ///< where it is kept, and on
    void follow();
    build::Settings answers() const;

    Recent& recent_;
    Theme theme_{Ground::Day, 1.0};
    QStackedWidget* pages_;
    QWidget* before_ = nullptr;
    QLabel* picture_ = nullptr;
    QGridLayout* cards_ = nullptr;
    QButtonGroup* kinds_ = nullptr;
    QButtonGroup* units_ = nullptr;
    QLineEdit* donor_ = nullptr;
    QLineEdit* body_ = nullptr;
    QLabel* kept_as_ = nullptr;
    QList<QLabel*> heads_;
};

} // namespace gorvet::desk
