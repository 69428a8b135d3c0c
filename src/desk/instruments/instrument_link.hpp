#pragma once

#include <QObject>
#include <QString>
#include <QStringList>
#include <cstdint>
#include <memory>

class QIODevice;
class QProcess;

namespace gorvet::formats {
class LineCutter;
}

namespace gorvet::desk {

/// The measuring instruments at the window: over a serial line, a local socket, or played for a practice frame by gorvet-sim.
/// What they say comes out as readings, and everything that goes wrong in words.
class InstrumentLink : public QObject {
    Q_OBJECT
public:
    explicit InstrumentLink(QObject* parent = nullptr);
    ~InstrumentLink() override;

    /// Names of the serial lines of this machine.
    static QStringList serialLines();
    /// Connects to a serial line ("/dev/ttyUSB0", 9600 baud, 8N1, no handshake) or a local socket ("socket:PATH"). What was
    /// connected before is let go. Success or failure comes by `stateChanged`.
    void connectTo(const QString& address);
    /// Starts gorvet-sim for a practice frame and connects to it. `already`: readings that were taken, "tape Al Br".
    void play(std::uint32_t seed, int difficulty, const QStringList& already);
    void letGo();

    bool isConnected() const { return connected_; }
    /// What the window shows of it: "practice-tape and 5 more", "unplugged: …", empty when nothing was ever connected.
    QString words() const { return words_; }
    bool inTrouble() const { return trouble_; }
    QStringList names() const { return known_; }

    /// Tells the instruments which reading is asked for: "tape", "Al", "Br". Sent once, not again for the same.
    void ask(const QString& kind, const QString& from, const QString& to);
    /// Asks for the reading now (the key was pressed).
    void take();

signals:
    void stateChanged();
    /// A figure with its unit, as it came.
    void reading(const QString& figure, const QString& instrument);
    /// Something that was said and can't be used.
    void complaint(const QString& text);

private:
    void attach(std::unique_ptr<QIODevice> device, const QString& words);
    void hear();
    void say(const QString& words, bool trouble);
    void send(const QString& line);
    void lost(const QString& why);

    std::unique_ptr<QIODevice> device_;
    std::unique_ptr<QProcess> played_;
    std::unique_ptr<formats::LineCutter> cutter_;
    QStringList known_; ///< names of the instruments that said hello
    QString address_;
    QString asked_;
    QString words_;
    bool connected_ = false;
    bool trouble_ = false;
};

} // namespace gorvet::desk
