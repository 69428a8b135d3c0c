// The window's dealings with files, and its two lists: what can be typed, and the log.
#include "desk/shell/main_window.hpp"

#include "desk/scan/scan_room.hpp"

#include "analysis/export.hpp"
#include "desk/shell/ask.hpp"
#include "files/out_file.hpp"
#include "formats/picture.hpp"
#include "formats/readings_csv.hpp"
#include "sheet/write.hpp"

#include <QDateTime>
#include <QDialog>
#include <QFile>
#include <QHeaderView>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>
#include <memory>
#include <optional>

namespace gorvet::desk {

// ---- files

bool MainWindow::openFile(const QString& path) {
    if (auto opened = document_.open(path); !opened) {
        ask::tell(this, tr("Not opened"), QString::fromStdString(opened.error().text()));
        return false;
    }
    showBench(current_);
    playPractice();
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

namespace {
/// A picked file's content; none when nothing was picked, or it can't be read (which is then said).
std::optional<QByteArray> contentOf(QWidget* window, const QString& path) {
    if (path.isEmpty()) return std::nullopt;
    if (auto plain = files::isPlainFile(path.toStdString()); !plain) {
        ask::tell(window, MainWindow::tr("Not read"), QString::fromStdString(plain.error().text()));
        return std::nullopt;
    }
    QFile file(path);
    constexpr qint64 most_bytes = 64LL << 20;
    if (file.size() > most_bytes) {
        ask::tell(window, MainWindow::tr("Not read"),
                  MainWindow::tr("%1 has %2 MB: no list of readings is longer than 64 MB. Is it the right file?")
                      .arg(path)
                      .arg(file.size() >> 20));
        return std::nullopt;
    }
    if (file.open(QIODevice::ReadOnly)) return file.readAll();
    ask::tell(window, MainWindow::tr("Not read"), MainWindow::tr("%1 can't be read: %2.").arg(path, file.errorString()));
    return std::nullopt;
}
} // namespace

void MainWindow::importReadings() {
    if (!document_.isOpen()) return;
    const QString path = ask::fileToOpen(this, tr("Import readings of the %1").arg(subjectName()), tr("Readings (*.csv)"));
    const auto content = contentOf(this, path);
    if (!content) return;
    const QByteArray& text = *content;
    build::SessionId session;
    for (const auto& [id, s] : document_.latest().sessions)
        if (s.subject == state_.subject) session = id;
    // a few lines are read at once, thousands beside the window
    auto read = std::make_shared<std::optional<Result<formats::ReadReadings>>>();
    const auto parse = [text = text, subject = state_.subject, session, read](const build::Build& b) {
        read->emplace(formats::readReadings({text.constData(), static_cast<size_t>(text.size())}, b, subject, session, "import"));
    };
    if (text.size() < 50'000) {
        parse(document_.latest());
        return keepImport(**read);
    }
    if (worker_.running()) return say(tr("Something else is still being worked out. Do it again in a moment."), "warn");
    const auto revision = document_.store()->revision();
    worker_.start(
        tr("reading %1").arg(path.section('/', -1)),
        [parse, b = document_.latest()](const Worker::Progress& progress) {
            if (progress(0.01)) parse(b);
        },
        [this, read, revision](bool finished) {
            if (!finished || !document_.store()) return say(tr("stopped: nothing was imported"), "warn");
            if (document_.store()->revision() != revision)
                return say(tr("The build was changed meanwhile: nothing was imported. Import again."), "warn");
            keepImport(**read);
        });
}

void MainWindow::keepImport(const Result<formats::ReadReadings>& read) {
    if (!read) {
        ask::tell(this, tr("Not read"), QString::fromStdString(read.error().text()));
        return;
    }
    keepImported(read->edit, read->problems, read->remark);
}

void MainWindow::keepImported(const build::Edit& edit, const std::vector<formats::CsvProblem>& problems,
                              const std::string& remark) {
    if (!edit.changes.empty())
        if (auto kept = document_.keep(edit); !kept) {
            ask::tell(this, tr("Not kept"), QString::fromStdString(kept.error().text()));
            return;
        }
    if (remark.empty())
        say(tr("kept: %1").arg(QString::fromStdString(edit.sentence)));
    else
        say(tr("kept: %1; the file was %2").arg(QString::fromStdString(edit.sentence), QString::fromStdString(remark)), "warn");
    if (!problems.empty()) {
        QStringList lines;
        for (const auto& p : problems) lines << QString::fromStdString(p.sentence());
        const int more = static_cast<int>(lines.size()) - 12;
        if (more > 0) {
            lines = lines.mid(0, 12);
            lines << tr("and %1 more").arg(more);
        }
        ask::tell(this, tr("Lines left out"), tr("All other lines were kept. These were left out:\n") + lines.join('\n'));
    }
}

void MainWindow::importPoints(formats::PointsAre are) {
    if (!document_.isOpen()) return;
    const QString path = ask::fileToOpen(this, tr("Import points of the %1").arg(subjectName()), tr("Points (*.csv)"));
    const auto content = contentOf(this, path);
    if (!content) return;
    const QByteArray& text = *content;
    const auto read = formats::readPoints({text.constData(), static_cast<size_t>(text.size())}, document_.latest(),
                                          state_.subject, are, path.section('/', -1).section('.', 0, 0).toStdString());
    if (!read) {
        ask::tell(this, tr("Not read"), QString::fromStdString(read.error().text()));
        return;
    }
    keepImported(read->edit, read->problems, read->remark);
}

void MainWindow::exportReport() {
    if (!document_.isOpen()) return;
    const QString path =
        ask::fileToMake(this, tr("Report \"as found\" of the %1").arg(subjectName()), tr("PDF (*.pdf)"), "as-found.pdf");
    if (path.isEmpty()) return;
    writePages(path, tr("writing the report"),
               "As found: ", [subject = state_.subject](const build::Build& b, const analysis::Results& r) {
                   return analysis::asFoundReport(b, r, subject);
               });
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

void MainWindow::exportEverything() {
    if (!document_.isOpen()) return;
    const QString folder = ask::folder(this, tr("Export everything into a folder"));
    if (folder.isEmpty()) return;
    if (worker_.running()) return say(tr("Something else is still being worked out. Do it again in a moment."), "warn");
    auto files = std::make_shared<std::optional<Result<std::vector<std::filesystem::path>>>>();
    worker_.start(
        tr("writing everything"),
        [files, b = document_.build(), r = document_.results(), to = folder.toStdString(), scans = room_->sheets()](
            const Worker::Progress& progress) { files->emplace(analysis::exportAll(b, r, to, progress, scans)); },
        [this, files, folder](bool) {
            if (!**files)
                ask::tell(this, tr("Not exported"), QString::fromStdString((**files).error().text()));
            else
                say(tr("%1 files written into %2").arg((**files)->size()).arg(folder));
        });
}

void MainWindow::exportBuildSheet() {
    if (!document_.isOpen()) return;
    const QString path = ask::fileToMake(this, tr("Build sheet"), tr("PDF (*.pdf)"), "build-sheet.pdf");
    if (path.isEmpty()) return;
    writePages(path, tr("writing the build sheet"),
               "Build sheet: ", [scans = room_->sheets()](const build::Build& b, const analysis::Results& r) {
                   return analysis::buildSheet(b, r, scans);
               });
}

void MainWindow::writePages(const QString& path, const QString& what, const std::string& title,
                            std::function<std::vector<sheet::Drawing>(const build::Build&, const analysis::Results&)> pages) {
    if (worker_.running()) return say(tr("Something else is still being worked out. Do it again in a moment."), "warn");
    auto written = std::make_shared<Result<void>>();
    worker_.start(
        what,
        [written, title, pages = std::move(pages), b = document_.build(), r = document_.results(),
         to = path.toStdString()](const Worker::Progress& progress) {
            const auto drawn = pages(b, r);
            *written = progress(0.7) ? sheet::writePdf(drawn, {title + b.settings.name, "Gorvet"}, to)
                                     : Error{Error::Code::Conflict, to, "Cancelled: nothing was written.", "", -1};
        },
        [this, written, path](bool) {
            if (!*written)
                ask::tell(this, tr("Not written"), QString::fromStdString(written->error().text()));
            else
                say(tr("written: %1").arg(path));
        });
}

// ---- what can be typed, and the log

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

void MainWindow::showHelp() {
    QList<QStringList> rows;
    for (const auto& form : entry::forms())
        rows << QStringList{form.bench, QString::fromUtf8(form.pattern), QString::fromUtf8(form.example),
                            QString::fromUtf8(form.what)};
    for (const auto& [keys, what] :
         {std::pair{"Alt+1 … Alt+5", "Tape, Sit, Stretch, Make, Work"}, std::pair{"F2", "to the entry line"},
          std::pair{"F4", "call out: the next reading fills the window; Escape goes back"}, std::pair{"F6", "chassis or body"},
          std::pair{"F7, Shift+F7", "take the reading with the connected instrument; keep what it reads at once"},
          std::pair{"F8", "Day or Dye"}, std::pair{"F9", "the logbook"}, std::pair{"Down, Up", "on the entry line: another pair"},
          std::pair{"arrows, Enter", "on the sheet: walk through what is drawn, open its card"},
          std::pair{"Page Down, Page Up", "on the sheet: scroll it, where it is higher than the window"},
          std::pair{"Ctrl+arrow", "on The Rule: slide the body 1 mm, with Shift 10"},
          std::pair{"Ctrl+Z, Ctrl+Shift+Z", "undo, do again"},
          std::pair{"Ctrl+I, Ctrl+R, Ctrl+P, Ctrl+E", "import, report as found, build sheet, export everything"}})
        rows << QStringList{tr("keys"), QString::fromUtf8(keys), QString(), tr(what)};
    showTable(this, "helpDialog", tr("What can be typed"), {tr("bench"), tr("type"), tr("for example"), tr("what it does")},
              rows);
}

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
