#include "desk/shell/ask.hpp"

#include <QDialog>
#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QLabel>
#include <QMessageBox>
#include <QPushButton>
#include <QVBoxLayout>

namespace gorvet::desk::ask {

Presets& presets() {
    static Presets p;
    return p;
}

namespace {
QString& place() {
    static QString folder;
    return folder;
}
/// What was picked is where the next one is looked for.
QString went(const QString& path) {
    if (!path.isEmpty()) place() = QFileInfo(path).absolutePath();
    return path;
}
bool preset(QString& answer) {
    Presets& p = presets();
    if (!p.active) return false;
    answer = p.answers.isEmpty() ? QString() : p.answers.takeFirst();
    return true;
}
} // namespace

void startIn(const QString& folder) { place() = folder; }

QString fileToOpen(QWidget* parent, const QString& title, const QString& filter) {
    QString answer;
    return preset(answer) ? answer : went(QFileDialog::getOpenFileName(parent, title, place(), filter));
}

QStringList filesToOpen(QWidget* parent, const QString& title, const QString& filter) {
    QString answer;
    if (preset(answer)) return answer.split('\n', Qt::SkipEmptyParts);
    const QStringList files = QFileDialog::getOpenFileNames(parent, title, place(), filter);
    if (!files.isEmpty()) went(files.front());
    return files;
}

QString fileToMake(QWidget* parent, const QString& title, const QString& filter, const QString& proposal) {
    QString answer;
    return preset(answer) ? answer : went(QFileDialog::getSaveFileName(parent, title, QDir(place()).filePath(proposal), filter));
}

QString folder(QWidget* parent, const QString& title) {
    QString answer;
    return preset(answer) ? answer : QFileDialog::getExistingDirectory(parent, title, place());
}

int choice(QWidget* parent, const QString& title, const QString& why, const QStringList& choices) {
    QString answer;
    if (preset(answer)) {
        bool number = false;
        const int place = answer.toInt(&number);
        return number ? place : static_cast<int>(choices.indexOf(answer));
    }
    QDialog dialog(parent);
    dialog.setWindowTitle(title);
    auto* column = new QVBoxLayout(&dialog);
    column->addWidget(new QLabel(title));
    auto* second = new QLabel(why);
    second->setProperty("second", true);
    column->addWidget(second);
    for (int i = 0; i < choices.size(); ++i) {
        auto* button = new QPushButton(choices[i]);
        button->setMinimumHeight(48);
        QObject::connect(button, &QPushButton::clicked, &dialog, [&dialog, i] { dialog.done(i + 1); });
        column->addWidget(button);
    }
    return dialog.exec() - 1;
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
