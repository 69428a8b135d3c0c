#pragma once

#include "desk/shell/bench.hpp"
#include "desk/shell/theme.hpp"

#include <QPushButton>
#include <QWidget>

class QLabel;
class QScrollArea;
class QToolButton;
class QMenu;

namespace gorvet::desk {

/// A verb with its worst mark and how many there are.
class VerbButton : public QPushButton {
    Q_OBJECT
public:
    VerbButton(const QString& name, QWidget* parent);
    void setWorst(analysis::Worst, bool any);
    void setTheme(const Theme&);
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    analysis::Worst worst_;
    bool any_ = false;
    Theme theme_{Ground::Day, 1.0};
};

class VerbStrip : public QWidget {
    Q_OBJECT
public:
    VerbStrip(const std::vector<const Bench*>& benches, QMenu* build_menu, QWidget* parent = nullptr);
    void setCurrent(int index);
    void setWorst(int index, analysis::Worst, bool any);
    void setWords(const QString& build_name, const QString& status);
    void setTheme(const Theme&);
    /// Shows long work and a way to stop it; an empty text takes it away.
    void setWork(const QString& what, double share);
    bool working() const;

signals:
    void chosen(int index);
    void cancelled();

protected:
    void resizeEvent(QResizeEvent*) override;

private:
    /// As much of what is at work as the benches' names leave room for.
    void fitWork();
    std::vector<VerbButton*> buttons_;
    QLabel* name_;
    QLabel* status_;
    QToolButton* menu_;
    QScrollArea* scroll_ = nullptr;
    QLabel* work_ = nullptr;
    QString work_what_, work_share_;
    QPushButton* cancel_ = nullptr;
};

} // namespace gorvet::desk
