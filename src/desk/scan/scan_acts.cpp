#include "desk/scan/scan_acts.hpp"

#include "analysis/cut_files.hpp"
#include "analysis/kept_cuts.hpp"
#include "analysis/scan_edits.hpp"
#include "analysis/scans.hpp"
#include "desk/shell/ask.hpp"
#include "desk/space/space.hpp"
#include "desk/view3d/scene_pane.hpp"
#include "desk/view3d/scene_view.hpp"
#include "files/out_file.hpp"

#include <QCoreApplication>
#include <QFileInfo>
#include <QTemporaryDir>

namespace gorvet::desk {

namespace {

QString trScanActs(const char* text) { return QCoreApplication::translate("ScanActs", text); }

} // namespace

void addScan(Desk& desk) {
    const QString path = ask::fileToOpen(desk.over(), trScanActs("Add a scan"),
                                         trScanActs("Scans (*.ply *.stl *.obj *.xyz *.csv *.txt *.asc *.pts)"));
    if (path.isEmpty()) return;
    const QStringList units{trScanActs("mm"), trScanActs("cm"), trScanActs("m"), trScanActs("inches")};
    const int unit = ask::choice(desk.over(), trScanActs("What is one unit of %1?").arg(QFileInfo(path).fileName()),
                                 trScanActs("A file does not say it, and it is never guessed."), units);
    if (unit < 0) return;
    struct Shows {
        build::SubjectId on;
        build::ScanPart part;
    };
    QStringList subjects{trScanActs("the body"), trScanActs("the chassis"), trScanActs("engine and gearbox, on the chassis"),
                         trScanActs("axle or wheel, on the chassis")};
    std::vector<Shows> choices{{build::the_body, build::ScanPart::Body},
                               {build::the_chassis, build::ScanPart::Chassis},
                               {build::the_chassis, build::ScanPart::Engine},
                               {build::the_chassis, build::ScanPart::Axle}};
    const build::Build& now = desk.document().latest();
    for (const build::SubjectId other : build::subjectsInOrder(now)) {
        if (other == build::the_body || other == build::the_chassis) continue;
        subjects << trScanActs("%1, on axes of its own").arg(QString::fromStdString(build::nameOf(now, other)));
        choices.push_back({other, build::isFrame(now, other) ? build::ScanPart::Chassis : build::ScanPart::Other});
    }
    const int shows = ask::choice(desk.over(), trScanActs("What does it show?"),
                                  trScanActs("It stands on the axes of what it shows until you lay it."), subjects);
    if (shows < 0) return;
    desk.document().keepBlob(path,
                             [&desk, path, unit, shown = choices[static_cast<size_t>(shows)]](const Result<store::Blob>& blob) {
                                 if (!blob) return desk.say(QString::fromStdString(blob.error().text()), "bad");
                                 const build::Build& b = desk.document().latest();
                                 const std::string name = analysis::scanNameFor(b, QFileInfo(path).fileName().toStdString());
                                 if (desk.keep(analysis::keepScan(b, name, shown.on, shown.part,
                                                                  static_cast<build::ScanUnit>(unit), blob->hash, blob->name)))
                                     desk.say(trScanActs("kept the scan %1").arg(QString::fromStdString(name)));
                             });
}

namespace {

/// Hands the cut map over once it is made.
void withCutMap(Desk& desk, std::function<void(const sit::CutMap&)> use) {
    const bool for_way = desk.shownView() == "way";
    const std::string_view key = for_way ? analysis::slow::cuts_for_way : analysis::slow::cuts;
    if (!desk.document().isOpen()) return;
    if (!desk.document().results().scans->overlay->complete())
        return desk.say(trScanActs("A cut map needs a scan of the body and one of the chassis."), "warn");
    desk.slow().make({key}, [&desk, for_way, use](bool made) {
        const auto& node = for_way ? desk.document().results().scans->cuts_for_way : desk.document().results().scans->cuts;
        if (!made) return desk.say(trScanActs("The cut map was not made: it was stopped, or a scan is missing."), "warn");
        if (node->error) return desk.say(QString::fromStdString(node->error->text()), "bad");
        use(node->map);
    });
}

} // namespace

void exportCutMap(Desk& desk) {
    if (!desk.document().results().scans->overlay->complete()) return withCutMap(desk, {});
    const QString folder = ask::folder(desk.over(), trScanActs("Where to write the cut map"));
    if (folder.isEmpty()) return;
    withCutMap(desk, [&desk, folder](const sit::CutMap& map) {
        const auto& d = desk.document();
        if (const auto written = analysis::writeCutMap(d.build(), d.results(), map, folder.toStdString()); !written)
            return desk.say(QString::fromStdString(written.error().text()), "bad");
        std::vector<SceneLine> lines;
        for (const sit::Cut& c : map.cuts)
            for (const sit::CutLine& l : c.lines) lines.push_back({l.line.places, l.line.closed, sheet::Ink::Remove});
        desk.space().showLines(lines);
        QString said = trScanActs("%1 cuts, %2 cm², %3 kg, written into %4.")
                           .arg(map.cuts.size())
                           .arg(map.area_mm2 / 100, 0, 'f', 0)
                           .arg(map.mass_kg, 0, 'f', 1)
                           .arg(folder);
        for (const std::string& remark : map.remarks) said += " " + QString::fromStdString(remark);
        desk.space().pane()->say(said + " " +
                                 trScanActs("Brace before you cut; follow local rules; never cut plates with numbers."));
        desk.say(trScanActs("kept: cut map in %1").arg(folder));
    });
}

void keepCuts(Desk& desk) {
    withCutMap(desk, [&desk](const sit::CutMap& map) {
        const auto edit = analysis::keepCuts(desk.document().latest(), desk.document().results(), map);
        if (!edit) return desk.say(QString::fromStdString(edit.error().text()), "warn");
        if (desk.keep(edit)) desk.say(trScanActs("kept: %1; Work has the steps").arg(QString::fromStdString(edit->sentence)));
    });
}

void savePicture(Desk& desk) {
    if (!desk.space().view()) return;
    const int where = ask::choice(desk.over(), trScanActs("Where does the picture go?"), trScanActs("As it is seen now."),
                                  {trScanActs("as a file"), trScanActs("into the build sheet")});
    if (where < 0) return;
    QImage picture = desk.space().view()->finished();
    if (where == 0) {
        QString path = ask::fileToMake(desk.over(), trScanActs("Save the picture"), trScanActs("Pictures (*.png)"), "scans.png");
        if (path.isEmpty()) return;
        if (!path.endsWith(".png")) path += ".png";
        const auto written =
            files::put(path.toStdString(), files::Kind::Picture, [&](const std::filesystem::path& to) -> Result<void> {
                if (picture.save(QString::fromStdString(to.string()), "PNG")) return {};
                return Error{Error::Code::File, to.string(), "", "", -1};
            });
        return written ? desk.say(trScanActs("kept: %1").arg(path))
                       : desk.say(QString::fromStdString(written.error().text()), "bad");
    }
    if (!desk.document().isOpen()) return;
    const auto folder = std::make_shared<QTemporaryDir>();
    const QString path = folder->filePath("scans.png");
    if (!folder->isValid() || !picture.save(path)) return desk.say(trScanActs("The picture can't be written."), "bad");
    desk.document().keepBlob(path, [&desk, folder](const Result<store::Blob>& blob) {
        if (!blob) return desk.say(QString::fromStdString(blob.error().text()), "bad");
        build::Settings settings = desk.document().latest().settings;
        settings.scan_picture = blob->hash;
        if (desk.keep(build::Edit{"a picture of the scans for the build sheet", {build::Set<build::Settings>{settings}}}))
            desk.say(trScanActs("kept: the picture is in the build sheet"));
    });
}

} // namespace gorvet::desk
