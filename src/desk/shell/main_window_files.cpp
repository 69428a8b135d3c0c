// The window's dealings with files, and the log.
#include "desk/shell/main_window.hpp"
#include "desk/shell/photo_folder.hpp"
#include "desk/shell/photo_keeper.hpp"
#include "desk/widgets/card_view.hpp"

#include "analysis/emblem.hpp"
#include "analysis/week.hpp"
#include "desk/shell/ask.hpp"
#include "desk/shell/start_page.hpp"
#include "desk/widgets/drawing_painter.hpp"
#include "desk/widgets/sheet_view.hpp"
#include "formats/picture.hpp"
#include "units/dates.hpp"

#include <QApplication>
#include <QDateTime>
#include <QDialog>
#include <QDir>
#include <QFile>
#include <QHeaderView>
#include <QPainter>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>
#include <QVBoxLayout>

namespace gorvet::desk {

// ---- files

bool MainWindow::openFile(const QString& path) {
    keepPicture();
    if (auto opened = document_.open(path); !opened) {
        ask::tell(this, tr("Not opened"), QString::fromStdString(opened.error().text()));
        return false;
    }
    arrived();
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

bool MainWindow::makeFile(const QString& path, const build::Settings& settings) {
    keepPicture();
    if (auto made = document_.create(path, settings); !made) {
        ask::tell(this, tr("Not made"), QString::fromStdString(made.error().text()));
        return false;
    }
    arrived();
    showBench(0);
    return true;
}

/// Another build is open: it is begun with on its frame, found again on the start page, and files are looked for beside it.
void MainWindow::arrived() {
    state_.subject = build::the_chassis;
    const QString path = QString::fromStdString(document_.store()->path().string());
    recent_.add(path, QString::fromStdString(document_.latest().settings.name));
    ask::startIn(recent_.folder());
    start_->leaveQuestions();
    // how it looks now: who ends the program by force finds it so
    constexpr int settled_ms = 1500;
    QTimer::singleShot(settled_ms, this, [this, path] {
        if (document_.isOpen() && QString::fromStdString(document_.store()->path().string()) == path) keepPicture();
    });
    emit buildsChanged();
}

/// How the build that is left looks: The Rule, without its words.
void MainWindow::keepPicture() {
    if (!document_.isOpen()) return;
    const QString path = QString::fromStdString(document_.store()->path().string());
    recent_.add(path, QString::fromStdString(document_.latest().settings.name));
    constexpr int width = 540;
    constexpr int height = 200;
    const auto drawing =
        sheet::flatten(analysis::emblem(document_.build(), document_.results(), width, height, sheet::Format{1.4}));
    for (const Ground ground : {Ground::Day, Ground::Dye}) {
        const Theme theme(ground, 1.0);
        QImage image(width, height, QImage::Format_ARGB32);
        image.fill(theme.color(sheet::Ink::Sheet));
        QPainter painter(&image);
        painter.setRenderHint(QPainter::Antialiasing);
        paintItems(painter, drawing, theme);
        painter.end();
        recent_.keepPicture(path, ground, image);
    }
}

QString MainWindow::demoFile() {
    const QString here = QCoreApplication::applicationDirPath();
    for (const char* place : {"/../share/gorvet/petrel_on_tern.gorvet", "/petrel_on_tern.gorvet"})
        if (QFileInfo(here + place).isFile()) return QDir::cleanPath(here + place);
    return {};
}

/// A copy of it: what is tried on it harms nothing, and it stays where builds are.
void MainWindow::openDemo() {
    const QString copy = recent_.freePath("Petrel on Tern");
    QFile file(demoFile());
    if (!file.copy(copy)) return ask::tell(this, tr("Not opened"), tr("%1 can't be written: %2.").arg(copy, file.errorString()));
    QFile::setPermissions(copy, QFile::ReadOwner | QFile::WriteOwner | QFile::ReadGroup | QFile::ReadOther);
    openFile(copy);
}

void MainWindow::closeBuild() {
    keepPicture();
    document_.close();
    start_->refresh();
}

void MainWindow::addPhoto(const QString& line) {
    if (!document_.isOpen()) return;
    const QString path = ask::fileToOpen(this, tr("A photo"), tr("Pictures (*.jpg *.jpeg *.png)"));
    if (!path.isEmpty()) keepPhoto(path, line);
}

void MainWindow::keepPhoto(const QString& path, const QString& line) {
    if (auto looked = formats::readPicture(path.toStdString()); !looked)
        return ask::tell(this, tr("Not kept"), QString::fromStdString(looked.error().text()));
    if (document_.worker().running()) { // another is on its way in, or figures are made: this one waits for it
        constexpr int in_a_moment = 200;
        QTimer::singleShot(in_a_moment, this, [this, line, path] {
            if (document_.isOpen()) keepPhoto(path, line);
        });
        return;
    }
    document_.keepBlob(path, [this, line](const Result<store::Blob>& kept) {
        if (!kept)
            ask::tell(this, tr("Not kept"), QString::fromStdString(kept.error().text()));
        else
            enter(line + QString::fromStdString(kept->hash), From::Card);
    });
}

PhotoKeeper& MainWindow::photoKeeper() {
    if (!photo_keeper_) {
        photo_keeper_ = new PhotoKeeper(document_, this);
        connect(photo_keeper_, &PhotoKeeper::kept, this, [this](const QString& what) { say(tr("kept: %1").arg(what)); });
        connect(photo_keeper_, &PhotoKeeper::refused, this, [this](const QString& why) { ask::tell(this, tr("Not kept"), why); });
    }
    return *photo_keeper_;
}

void MainWindow::addPhotos(const analysis::PhotoAbout& about) {
    if (document_.isOpen())
        photoKeeper().keep(ask::filesToOpen(this, tr("Photos, or spoken notes"),
                                            tr("Photos and notes (*.jpg *.jpeg *.png *.wav *.ogg *.flac *.mp3 *.m4a)")),
                           about);
}

/// What the last seven days did to the date, on a card.
void MainWindow::showWeek() {
    if (!document_.isOpen()) return;
    constexpr int a_week = 7;
    const auto since = document_.store()->since(units::today() - a_week);
    if (!since) return ask::tell(this, tr("What the week did"), QString::fromStdString(since.error().text()));
    QApplication::setOverrideCursor(Qt::WaitCursor);
    const auto card = analysis::weekCard(analysis::weekDid(since->then, since->day, document_.latest(), document_.results()));
    QApplication::restoreOverrideCursor();
    card_->show(card, {}, sheet_->mapTo(card_->parentWidget(), QPoint(sheet_->width() / 3, sheet_->height() / 3)), theme_);
}

void MainWindow::watchPhotos() {
    if (!photos_) {
        photos_ = new PhotoFolder(this);
        connect(photos_, &PhotoFolder::refused, this, [this](const QString& why) { say(why, "warn"); });
        connect(photos_, &PhotoFolder::arrived, this, &MainWindow::photoArrived);
    }
    if (!photos_->folder().isEmpty()) {
        say(tr("%1 is watched no more").arg(photos_->folder()), "");
        photos_->watch({});
        return;
    }
    const QString folder = ask::folder(this, tr("The folder that a phone puts its pictures in"));
    if (folder.isEmpty()) return;
    if (!photos_->watch(folder))
        return ask::tell(this, tr("Not watched"), tr("%1 can't be watched: is it still there?").arg(folder));
    say(tr("each new picture in %1 is kept: of the card that is open, else of the row tagged last").arg(folder), "");
}

/// To what is open on a card; while the register is shown to its row that was tagged last; else of nothing yet.
void MainWindow::photoArrived(const QString& path) {
    if (!document_.isOpen()) return;
    if (const QString line = card_->photoPrefix(); !line.isEmpty() && !card_->photoAbout()) return keepPhoto(path, line);
    analysis::PhotoAbout about = card_->photoAbout().value_or(analysis::PhotoAbout{});
    const auto& rows = document_.latest().releases;
    if (!card_->photoAbout() && bench().views()[state_.view].key == "register" && !rows.empty()) {
        const build::Release& row = rows.rbegin()->second;
        about.part = row.name;
        about.stage = row.released ? build::Stage::Unsaid : build::Stage::Before;
    }
    photoKeeper().keep({path}, about);
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
