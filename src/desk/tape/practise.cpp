#include "desk/tape/practise.hpp"

#include "analysis/practice.hpp"
#include "desk/instruments/instrument_link.hpp"
#include "desk/shell/ask.hpp"

#include <QCoreApplication>
#include <QRandomGenerator>

namespace gorvet::desk {

void practise(Desk& desk, int difficulty) {
    const auto tr = [](const char* text) { return QCoreApplication::translate("Practise", text); };
    if (!desk.makeFile(desk.freePath(tr("Practice frame")))) return; // a build of its own, beside the others
    const auto seed = static_cast<std::uint32_t>(qEnvironmentVariableIsSet("GORVET_PRACTICE_SEED")
                                                     ? qEnvironmentVariableIntValue("GORVET_PRACTICE_SEED")
                                                     : QRandomGenerator::global()->bounded(1, 1'000'000));
    if (auto kept = desk.document().keep(
            {tr("begin the practice frame %1").arg(seed).toStdString(), analysis::beginPractice(seed, difficulty)});
        !kept)
        return ask::tell(desk.over(), tr("Not made"), QString::fromStdString(kept.error().text()));
    playPractice(desk);
}

void playPractice(Desk& desk) {
    const auto& b = desk.document().latest();
    if (!b.practice.on || b.practice.marked) return;
    QStringList already;
    for (const auto& [id, r] : b.readings)
        if (r.value.provenance != build::Provenance::Assumed && b.points.at(r.from).subject == build::the_chassis)
            already << QString("%1 %2 %3")
                           .arg(QString::fromUtf8(build::word(r.kind).data()), QString::fromStdString(build::nameOf(b, r.from)),
                                r.to ? QString::fromStdString(build::nameOf(b, r.to)) : QString())
                           .trimmed();
    desk.instruments().play(static_cast<std::uint32_t>(b.practice.seed), static_cast<int>(b.practice.difficulty), already);
}

} // namespace gorvet::desk
