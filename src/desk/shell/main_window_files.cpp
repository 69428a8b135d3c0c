// The window's dealings with files, and the log.
#include "desk/shell/main_window.hpp"

#include "desk/shell/ask.hpp"
#include "formats/picture.hpp"

#include <QDateTime>
#include <QDialog>
#include <QHeaderView>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

namespace gorvet::desk {

// ---- files

bool MainWindow::openFile(const QString& path) {
    if (auto opened = document_.open(path); !opened) {
        ask::tell(this, tr("Not opened"), QString::fromStdString(opened.error().text()));
        return false;
    }
    showBench(current_);
    for (const auto& b : benches_) b->opened(*this);
    const auto& store = *document_.store();
    if (!store.notice().empty())
        say(QString::fromStdString(store.notice()), "warn");
    else if (store.readOnly())
        say(tr("open read-only: %1").arg(QString::fromStdString(store.readOnlyReason())), "warn");
    else if (!store.keptCopy().empty())
        say(tr("brought up to this version; the file as it was is kept as %1")
                .arg(QString::fromStdString(store.keptCopy().filename().string())),
            "warn");
    return true;
}

bool MainWindow::makeFile(const QString& path) {
    if (auto made = document_.create(path); !made) {
        ask::tell(this, tr("Not made"), QString::fromStdString(made.error().text()));
        return false;
    }
    showBench(0);
    return true;
}

void MainWindow::addPhoto(const QString& line) {
    if (!document_.isOpen()) return;
    const QString path = ask::fileToOpen(this, tr("A photo"), tr("Pictures (*.jpg *.jpeg *.png *.heic *.webp *.tif)"));
    if (path.isEmpty()) return;
    if (auto looked = formats::isPicture(path.toStdString()); !looked)
        return ask::tell(this, tr("Not kept"), QString::fromStdString(looked.error().text()));
    document_.keepBlob(path, [this, line](const Result<store::Blob>& kept) {
        if (!kept)
            ask::tell(this, tr("Not kept"), QString::fromStdString(kept.error().text()));
        else
            enter(line + QString::fromStdString(kept->hash), From::Card);
    });
}

// ---- the log

namespace {
void showTable(QWidget* parent, const QString& name, const QString& title, const QStringList& headings,
               const QList<QStringList>& rows) {
    auto* dialog = new QDialog(parent);
    dialog->setObjectName(name);
    dialog->setWindowTitle(title);
    dialog->setAttribute(Qt::WA_DeleteOnClose);
    dialog->resize(std::min(1180, parent->width() - 40), std::min(680, parent->height() - 60));
    auto* column = new QVBoxLayout(dialog);
    auto* table = new QTableWidget(static_cast<int>(rows.size()), static_cast<int>(headings.size()));
    table->setObjectName(name + "Table");
    table->setHorizontalHeaderLabels(headings);
    table->verticalHeader()->hide();
    table->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table->setSelectionBehavior(QAbstractItemView::SelectRows);
    table->setShowGrid(false);
    for (int r = 0; r < rows.size(); ++r)
        for (int c = 0; c < headings.size(); ++c) table->setItem(r, c, new QTableWidgetItem(rows[r].value(c)));
    // long cells wrap: no column takes more than its share, and nothing is read by scrolling sideways
    table->setWordWrap(true);
    table->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    table->resizeColumnsToContents();
    const int share = (dialog->width() - 60) * 3 / 10;
    for (int c = 0; c + 1 < headings.size(); ++c) table->setColumnWidth(c, std::min(table->columnWidth(c), share));
    table->setColumnWidth(static_cast<int>(headings.size()) - 1, 100);
    table->horizontalHeader()->setStretchLastSection(true);
    QObject::connect(table->horizontalHeader(), &QHeaderView::sectionResized, table, &QTableWidget::resizeRowsToContents);
    column->addWidget(table);
    auto* shut = new QPushButton(QObject::tr("close"));
    QObject::connect(shut, &QPushButton::clicked, dialog, &QDialog::close);
    column->addWidget(shut, 0, Qt::AlignRight);
    dialog->show();
    table->resizeRowsToContents();
}
} // namespace

void MainWindow::showLog() {
    if (!document_.store()) return;
    QList<QStringList> rows;
    for (const auto& e : document_.store()->log(500)) {
        const QString kind = e.kind == store::LogEntry::Kind::Undo   ? tr("undone: ")
                             : e.kind == store::LogEntry::Kind::Redo ? tr("done again: ")
                                                                     : QString();
        rows << QStringList{
            QDateTime::fromString(QString::fromStdString(e.at_utc), Qt::ISODate).toLocalTime().toString("d MMM HH:mm:ss"),
            QString::fromStdString(e.who), kind + QString::fromStdString(e.sentence), QString::fromStdString(e.why)};
    }
    showTable(this, "logDialog", tr("Logbook, newest first"), {tr("when"), tr("who"), tr("what"), tr("why")}, rows);
}

} // namespace gorvet::desk
