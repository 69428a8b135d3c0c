#include "desk/shell/ask.hpp"

#include <QFileDialog>
#include <QMessageBox>

namespace gorvet::desk::ask {

Presets& presets() {
    static Presets p;
    return p;
}

namespace {
bool preset(QString& answer) {
    Presets& p = presets();
    if (!p.active) return false;
    answer = p.answers.isEmpty() ? QString() : p.answers.takeFirst();
    return true;
}
} // namespace

QString fileToOpen(QWidget* parent, const QString& title, const QString& filter) {
    QString answer;
    return preset(answer) ? answer : QFileDialog::getOpenFileName(parent, title, QString(), filter);
}

QString fileToMake(QWidget* parent, const QString& title, const QString& filter, const QString& proposal) {
    QString answer;
    return preset(answer) ? answer : QFileDialog::getSaveFileName(parent, title, proposal, filter);
}

QString folder(QWidget* parent, const QString& title) {
    QString answer;
    return preset(answer) ? answer : QFileDialog::getExistingDirectory(parent, title);
}

void tell(QWidget* parent, const QString& title, const QString& text) {
    if (presets().active) {
        presets().told << text;
        return;
    }
    QMessageBox box(QMessageBox::NoIcon, title, text, QMessageBox::Ok, parent);
    box.exec();
}

} // namespace gorvet::desk::ask
