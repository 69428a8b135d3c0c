#pragma once

#include "desk/shell/theme.hpp"

#include <QWidget>

class QLineEdit;
class QListWidget;
class QTextBrowser;
class QVBoxLayout;

namespace gorvet::desk {

/// The handbook over the whole desk: its pages at the left, a line that searches them, the page that is read.
class HandbookView : public QWidget {
    Q_OBJECT
public:
    explicit HandbookView(QWidget* parent = nullptr);
    void setTheme(const Theme&);
    /// Opens at a page, and there at a heading where one is said.
    void open(const QString& key, const QString& heading = {});
    QString shown() const { return key_; }

signals:
    void left();
    void pdfWanted();

protected:
    void resizeEvent(QResizeEvent*) override;

private:
    void show(const QString& key, const QString& heading);
    void find(const QString& words);
    double pictureWidth() const;

    Theme theme_{Ground::Day, 1.0};
    QString key_;
    QString heading_;
    QListWidget* list_;
    QLineEdit* words_;
    QTextBrowser* text_;
};

} // namespace gorvet::desk
