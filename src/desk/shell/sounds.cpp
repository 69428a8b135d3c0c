#include "desk/shell/sounds.hpp"

#include <QDir>
#include <QFile>
#include <QProcess>
#include <QSaveFile>
#include <QStandardPaths>
#include <QtEndian>
#include <cmath>
#include <vector>

namespace gorvet::desk {

namespace {
constexpr int rate = 22050;

struct Tone {
    double hertz;
    double seconds;
};

std::vector<Tone> tonesOf(sheet::Severity s) {
    switch (s) {
    case sheet::Severity::Good: return {{1320, 0.14}};
    case sheet::Severity::Warn: return {{784, 0.12}, {0, 0.05}, {784, 0.12}};
    case sheet::Severity::Bad: return {{523, 0.14}, {392, 0.14}, {262, 0.2}};
    }
    return {};
}

void append(QByteArray& bytes, quint32 value, int size) {
    for (int i = 0; i < size; ++i) bytes.append(static_cast<char>((value >> (8 * i)) & 0xFF));
}
} // namespace

QByteArray verdictSound(sheet::Severity severity) {
    QByteArray samples;
    for (const Tone& tone : tonesOf(severity)) {
        const int count = static_cast<int>(tone.seconds * rate);
        for (int i = 0; i < count; ++i) {
            const double fade = std::min({1.0, i / 200.0, (count - i) / 400.0}); // no clicks
            const double value = tone.hertz > 0 ? 0.5 * fade * std::sin(2 * 3.14159265358979 * tone.hertz * i / rate) : 0;
            append(samples, static_cast<quint32>(static_cast<qint32>(std::lround(32767 * value))), 2);
        }
    }
    QByteArray wav("RIFF");
    append(wav, static_cast<quint32>(36 + samples.size()), 4);
    wav += "WAVEfmt ";
    append(wav, 16, 4);
    append(wav, 1, 2);
    append(wav, 1, 2);
    append(wav, rate, 4);
    append(wav, rate * 2, 4);
    append(wav, 2, 2);
    append(wav, 16, 2);
    wav += "data";
    append(wav, static_cast<quint32>(samples.size()), 4);
    return wav + samples;
}

void playVerdict(sheet::Severity severity) {
    QString player;
    for (const char* name : {"pw-play", "paplay", "aplay"})
        if (player = QStandardPaths::findExecutable(name); !player.isEmpty()) break;
    if (player.isEmpty()) return;
    // in a folder of the user's own: a name in /tmp that others can foresee, others can take
    const QString folder = QStandardPaths::writableLocation(QStandardPaths::CacheLocation);
    if (folder.isEmpty() || !QDir().mkpath(folder)) return;
    const QString path = QDir(folder).filePath(QString("verdict-%1.wav").arg(static_cast<int>(severity)));
    if (!QFile::exists(path)) {
        QSaveFile file(path);
        if (!file.open(QIODevice::WriteOnly)) return;
        file.write(verdictSound(severity));
        if (!file.commit()) return;
    }
    QProcess::startDetached(player, {path});
}

} // namespace gorvet::desk
