#pragma once

#include <QString>
#include <QStringList>
#include <functional>

class QWidget;

/// The modal questions of the application, one function each. A test presets the answers instead of clicking dialogs.
namespace gorvet::desk::ask {

/// What a file dialog shows of builds.
inline constexpr const char* build_filter = "Gorvet builds (*.gorvet)";
/// Where file dialogs open: the folder of the builds, until a file was picked elsewhere.
void startIn(const QString& folder);
/// An empty answer means cancelled.
QString fileToOpen(QWidget* parent, const QString& title, const QString& filter);
/// Several; empty means cancelled. A preset answer has them with a line end between them.
QStringList filesToOpen(QWidget* parent, const QString& title, const QString& filter);
QString fileToMake(QWidget* parent, const QString& title, const QString& filter, const QString& proposal);
QString folder(QWidget* parent, const QString& title);
/// One of several, by a button each; −1 when cancelled. A preset answer is the button's text or its place from 0.
int choice(QWidget* parent, const QString& title, const QString& why, const QStringList& choices);
/// Says that something did not work.
void tell(QWidget* parent, const QString& title, const QString& text);

/// Answers for tests, taken in order; while there are any, no dialog appears. `told` collects what was said.
struct Presets {
    QStringList answers;
    QStringList told;
    bool active = false;
};
Presets& presets();

} // namespace gorvet::desk::ask
