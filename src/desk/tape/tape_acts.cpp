#include "desk/tape/tape_acts.hpp"

#include "analysis/export.hpp"
#include "desk/shell/ask.hpp"
#include "desk/shell/paper.hpp"
#include "files/out_file.hpp"
#include "formats/readings_csv.hpp"

#include <QCoreApplication>
#include <QFile>

namespace gorvet::desk {

namespace {

QString trTape(const char* text) { return QCoreApplication::translate("TapeActs", text); }

QString subjectName(Desk& desk) { return QString::fromStdString(build::nameOf(desk.document().build(), desk.subject())); }

/// A picked file's content; none when nothing was picked, or it can't be read (which is then said).
std::optional<QByteArray> contentOf(QWidget* window, const QString& path) {
    if (path.isEmpty()) return std::nullopt;
    if (auto plain = files::isPlainFile(path.toStdString()); !plain) {
        ask::tell(window, trTape("Not read"), QString::fromStdString(plain.error().text()));
        return std::nullopt;
    }
    QFile file(path);
    constexpr qint64 most_bytes = 64LL << 20;
    if (file.size() > most_bytes) {
        ask::tell(window, trTape("Not read"),
                  trTape("%1 has %2 MB: no list of readings is longer than 64 MB. Is it the right file?")
                      .arg(path)
                      .arg(file.size() >> 20));
        return std::nullopt;
    }
    if (file.open(QIODevice::ReadOnly)) return file.readAll();
    ask::tell(window, trTape("Not read"), trTape("%1 can't be read: %2.").arg(path, file.errorString()));
    return std::nullopt;
}

void keepImported(Desk& desk, const build::Edit& edit, const std::vector<formats::CsvProblem>& problems,
                  const std::string& remark) {
    if (!edit.changes.empty())
        if (auto kept = desk.document().keep(edit); !kept)
            return ask::tell(desk.over(), trTape("Not kept"), QString::fromStdString(kept.error().text()));
    if (remark.empty())
        desk.say(trTape("kept: %1").arg(QString::fromStdString(edit.sentence)));
    else
        desk.say(trTape("kept: %1; the file was %2").arg(QString::fromStdString(edit.sentence), QString::fromStdString(remark)),
                 "warn");
    if (problems.empty()) return;
    QStringList lines;
    for (const auto& p : problems) lines << QString::fromStdString(p.sentence());
    const int more = static_cast<int>(lines.size()) - 12;
    if (more > 0) {
        lines = lines.mid(0, 12);
        lines << trTape("and %1 more").arg(more);
    }
    ask::tell(desk.over(), trTape("Lines left out"),
              trTape("All other lines were kept. These were left out:\n") + lines.join('\n'));
}

void keepImport(Desk& desk, const Result<formats::ReadReadings>& read) {
    if (!read) return ask::tell(desk.over(), trTape("Not read"), QString::fromStdString(read.error().text()));
    keepImported(desk, read->edit, read->problems, read->remark);
}

} // namespace

void importReadings(Desk& desk) {
    if (!desk.document().isOpen()) return;
    const QString path =
        ask::fileToOpen(desk.over(), trTape("Import readings of the %1").arg(subjectName(desk)), trTape("Readings (*.csv)"));
    const auto content = contentOf(desk.over(), path);
    if (!content) return;
    build::SessionId session;
    for (const auto& [id, s] : desk.document().latest().sessions)
        if (s.subject == desk.subject()) session = id;
    // a few lines are read at once, thousands beside the window
    auto read = std::make_shared<std::optional<Result<formats::ReadReadings>>>();
    const auto parse = [text = *content, subject = desk.subject(), session, read](const build::Build& b) {
        read->emplace(formats::readReadings({text.constData(), static_cast<size_t>(text.size())}, b, subject, session, "import"));
    };
    if (content->size() < 50'000) {
        parse(desk.document().latest());
        return keepImport(desk, **read);
    }
    if (desk.worker().running())
        return desk.say(trTape("Something else is still being worked out. Do it again in a moment."), "warn");
    const auto revision = desk.document().store()->revision();
    desk.worker().start(
        trTape("reading %1").arg(path.section('/', -1)),
        [parse, b = desk.document().latest()](const Worker::Progress& progress) {
            if (progress(0.01)) parse(b);
        },
        [&desk, read, revision](bool finished) {
            if (!finished || !desk.document().store()) return desk.say(trTape("stopped: nothing was imported"), "warn");
            if (desk.document().store()->revision() != revision)
                return desk.say(trTape("The build was changed meanwhile: nothing was imported. Import again."), "warn");
            keepImport(desk, **read);
        });
}

void importPoints(Desk& desk, formats::PointsAre are) {
    if (!desk.document().isOpen()) return;
    const QString path =
        ask::fileToOpen(desk.over(), trTape("Import points of the %1").arg(subjectName(desk)), trTape("Points (*.csv)"));
    const auto content = contentOf(desk.over(), path);
    if (!content) return;
    const auto read = formats::readPoints({content->constData(), static_cast<size_t>(content->size())}, desk.document().latest(),
                                          desk.subject(), are, path.section('/', -1).section('.', 0, 0).toStdString());
    if (!read) return ask::tell(desk.over(), trTape("Not read"), QString::fromStdString(read.error().text()));
    keepImported(desk, read->edit, read->problems, read->remark);
}

void exportReport(Desk& desk) {
    if (!desk.document().isOpen()) return;
    const QString path = ask::fileToMake(desk.over(), trTape("Report \"as found\" of the %1").arg(subjectName(desk)),
                                         trTape("PDF (*.pdf)"), "as-found.pdf");
    if (path.isEmpty()) return;
    writePages(desk, path, trTape("writing the report"), "As found: ", {},
               [subject = desk.subject()](const build::Build& b, const analysis::Results& r) {
                   return analysis::asFoundReport(b, r, subject);
               });
}

} // namespace gorvet::desk
