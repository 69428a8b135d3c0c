#include "desk/shell/paper.hpp"

#include "analysis/export.hpp"
#include "desk/shell/ask.hpp"
#include "sheet/write.hpp"

#include <QCoreApplication>

namespace gorvet::desk {

namespace {

QString tr(const char* text) { return QCoreApplication::translate("Paper", text); }

/// A build and its results as they are now, for work beside the window.
struct Copy {
    build::Build build;
    analysis::Results results;
    std::filesystem::path path;
    std::shared_ptr<const analysis::Scans> before; ///< what was made when it began
    Result<void> written;
    std::vector<std::filesystem::path> files;
};

std::shared_ptr<Copy> copyOf(Desk& desk) {
    const Document& d = desk.document();
    return std::make_shared<Copy>(Copy{d.build(), d.results(), d.store()->path(), d.results().scans, {}, {}});
}

/// The slow nodes that paper shows; false when stopped.
bool makeNeeds(Copy& copy, const std::vector<std::string_view>& needs, const Worker::Progress& progress) {
    return makeSlow(copy.build, copy.results, needs, blobReader(copy.path),
                    [&](const analysis::SlowNode&, double share) { return progress(0.5 * share); });
}

/// Takes over what was made on the way, and says how it went.
void finish(Desk& desk, const Copy& copy, const QString& said) {
    // not over what was made meanwhile
    const Document& d = desk.document();
    if (d.isOpen() && d.store()->path() == copy.path && d.results().scans == copy.before)
        desk.document().takeSlow(copy.results, {});
    if (copy.written)
        desk.say(said);
    else
        ask::tell(desk.over(), tr("Not written"), QString::fromStdString(copy.written.error().text()));
}

bool busy(Desk& desk) {
    if (!desk.worker().running()) return false;
    desk.say(tr("Something else is still being worked out. Do it again in a moment."), "warn");
    return true;
}

} // namespace

analysis::ReadBlob blobReader(const std::filesystem::path& build) {
    auto store = std::make_shared<std::unique_ptr<store::Store>>();
    return [store, build](const std::string& hash, const auto& take) -> Result<void> {
        if (!*store) {
            auto opened = store::Store::open(build, store::Access::Read);
            if (!opened) return opened.error();
            *store = std::move(*opened);
        }
        return (*store)->readBlob(hash, take);
    };
}

void writePages(Desk& desk, const QString& path, const QString& what, const std::string& title,
                const std::vector<std::string_view>& needs,
                std::function<std::vector<sheet::Drawing>(const build::Build&, const analysis::Results&)> pages) {
    if (busy(desk)) return;
    auto copy = copyOf(desk);
    desk.worker().start(
        what,
        [copy, title, needs, pages = std::move(pages), to = path.toStdString()](const Worker::Progress& progress) {
            const Error cancelled{Error::Code::Conflict, to, "Cancelled: nothing was written.", "", -1};
            copy->written = cancelled;
            if (!makeNeeds(*copy, needs, progress)) return;
            const auto drawn = pages(copy->build, copy->results);
            if (progress(0.7)) copy->written = sheet::writePdf(drawn, {title + copy->build.settings.name, "Gorvet"}, to);
        },
        [&desk, copy, path](bool) { finish(desk, *copy, tr("written: %1").arg(path)); });
}

void exportBuildSheet(Desk& desk) {
    if (!desk.document().isOpen()) return;
    const QString path = ask::fileToMake(desk.over(), tr("Build sheet"), tr("PDF (*.pdf)"), "build-sheet.pdf");
    if (path.isEmpty()) return;
    writePages(desk, path, tr("writing the build sheet"), "Build sheet: ", analysis::slowOnPaper(), analysis::buildSheet);
}

void exportEverything(Desk& desk) {
    if (!desk.document().isOpen()) return;
    const QString folder = ask::folder(desk.over(), tr("Export everything into a folder"));
    if (folder.isEmpty() || busy(desk)) return;
    auto copy = copyOf(desk);
    desk.worker().start(
        tr("writing everything"),
        [copy, to = folder.toStdString()](const Worker::Progress& progress) {
            copy->written = Error{Error::Code::Conflict, to, "Cancelled: nothing was written.", "", -1};
            if (!makeNeeds(*copy, analysis::slowOnPaper(), progress)) return;
            auto files =
                analysis::exportAll(copy->build, copy->results, to, [&](double share) { return progress(0.5 + 0.5 * share); });
            copy->written = files ? Result<void>{} : Result<void>(files.error());
            if (files) copy->files = std::move(*files);
        },
        [&desk, copy, folder](bool) { finish(desk, *copy, tr("%1 files written into %2").arg(copy->files.size()).arg(folder)); });
}

} // namespace gorvet::desk
