#include "desk/instruments/instrument_link.hpp"

#include "formats/instrument_line.hpp"

#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QLocalSocket>
#include <QProcess>
#include <QSerialPort>
#include <QSerialPortInfo>
#include <QTemporaryDir>

namespace gorvet::desk {

InstrumentLink::InstrumentLink(QObject* parent) : QObject(parent), cutter_(std::make_unique<formats::LineCutter>()) {}

InstrumentLink::~InstrumentLink() {
    if (device_) device_->disconnect(this);
    if (played_) {
        played_->disconnect(this);
        played_->kill();
        played_->waitForFinished(2000);
    }
}

QStringList InstrumentLink::serialLines() {
    QStringList list;
    for (const QSerialPortInfo& info : QSerialPortInfo::availablePorts()) list << info.systemLocation();
    return list;
}

void InstrumentLink::say(const QString& words, bool trouble) {
    words_ = words;
    trouble_ = trouble;
    emit stateChanged();
}

void InstrumentLink::letGo() {
    if (device_) {
        device_->disconnect(this);
        device_->close();
        device_.release()->deleteLater();
    }
    if (played_) {
        played_->disconnect(this);
        played_->kill();
        played_->waitForFinished(2000);
        played_.reset();
    }
    connected_ = false;
    known_.clear();
    asked_.clear();
    cutter_ = std::make_unique<formats::LineCutter>();
    say({}, false);
}

void InstrumentLink::connectTo(const QString& address) {
    letGo();
    address_ = address;
    if (address.startsWith("socket:")) {
        auto socket = std::make_unique<QLocalSocket>();
        QLocalSocket* raw = socket.get();
        connect(raw, &QLocalSocket::connected, this, [this] {
            connected_ = true;
            say(tr("connected to %1").arg(address_), false);
        });
        connect(raw, &QLocalSocket::errorOccurred, this,
                [this, raw](QLocalSocket::LocalSocketError) { lost(raw->errorString()); });
        attach(std::move(socket), tr("connecting to %1").arg(address));
        raw->connectToServer(address.mid(7));
        return;
    }
    auto port = std::make_unique<QSerialPort>(address);
    QSerialPort* raw = port.get();
    port->setBaudRate(QSerialPort::Baud9600);
    if (!port->open(QIODevice::ReadWrite)) return say(tr("%1 can't be opened: %2").arg(address, port->errorString()), true);
    connect(raw, &QSerialPort::errorOccurred, this, [this, raw](QSerialPort::SerialPortError e) {
        if (e != QSerialPort::NoError && e != QSerialPort::TimeoutError) lost(raw->errorString());
    });
    connected_ = true;
    attach(std::move(port), tr("listening on %1").arg(address));
}

void InstrumentLink::attach(std::unique_ptr<QIODevice> device, const QString& words) {
    device_ = std::move(device);
    connect(device_.get(), &QIODevice::readyRead, this, &InstrumentLink::hear);
    say(words, false);
}

void InstrumentLink::play(std::uint32_t seed, int difficulty, const QStringList& already) {
    letGo();
    // beside this program, installed or built; a test may say where
    QString program = qEnvironmentVariable("GORVET_SIM");
    for (const QString& place : {QString("/gorvet-sim"), QString("/../gorvet-sim"), QString("/../src/gorvet-sim")})
        if (program.isEmpty() && QFileInfo(QCoreApplication::applicationDirPath() + place).isExecutable())
            program = QCoreApplication::applicationDirPath() + place;
    if (program.isEmpty()) return say(tr("the practice instruments (gorvet-sim) are not installed: type what you read"), true);
    // in a folder that only this user can enter; it goes with the instruments
    auto folder = std::make_shared<QTemporaryDir>(QDir::tempPath() + "/gorvet-XXXXXX");
    if (!folder->isValid()) folder = std::make_shared<QTemporaryDir>("/tmp/gorvet-XXXXXX");
    if (!folder->isValid())
        return say(tr("the practice instruments can't be started: there is no folder for temporary files"), true);
    const QString socket = folder->filePath("sim");
    QStringList arguments{"--socket", socket, "--seed", QString::number(seed), "--difficulty", QString::number(difficulty)};
    for (const QString& line : already) arguments << "--already" << line;
    auto process = std::make_unique<QProcess>();
    QProcess* raw = process.get();
    connect(raw, &QProcess::readyReadStandardOutput, this, [this, raw, socket] {
        if (!raw->readAllStandardOutput().startsWith("ready")) return;
        auto kept = std::move(played_); // connecting lets go of what was there
        connectTo("socket:" + socket);
        played_ = std::move(kept);
    });
    connect(raw, &QProcess::finished, this, [this, folder] { lost(tr("the practice instruments stopped")); });
    connect(raw, &QProcess::errorOccurred, this,
            [this](QProcess::ProcessError) { lost(tr("the practice instruments can't be started")); });
    played_ = std::move(process);
    say(tr("starting the practice instruments"), false);
    raw->start(program, arguments);
}

void InstrumentLink::lost(const QString& why) {
    if (!device_ && !played_) return;
    connected_ = false;
    known_.clear();
    asked_.clear();
    say(tr("unplugged: %1. Typing goes on as ever").arg(why), true);
}

void InstrumentLink::hear() {
    const QByteArray bytes = device_->readAll();
    const int before = cutter_->tooLong();
    const auto lines = cutter_->feed({bytes.constData(), static_cast<size_t>(bytes.size())});
    if (cutter_->tooLong() > before)
        emit complaint(tr("What comes over the line has no end: check its speed, and what is plugged in."));
    for (const std::string& line : lines) {
        if (line.empty()) continue;
        const auto said = formats::readInstrumentLine(line);
        if (!said) {
            emit complaint(QString::fromStdString(said.error().text()));
            continue;
        }
        const QString name = QString::fromStdString(said->name);
        using What = formats::InstrumentSays::What;
        switch (said->what) {
        case What::Hello:
            known_ << name;
            say(known_.size() == 1 ? tr("%1 is there").arg(known_.front())
                                   : tr("%1 and %2 more are there").arg(known_.front()).arg(known_.size() - 1),
                false);
            if (!asked_.isEmpty()) send(asked_);
            break;
        case What::Reads: emit reading(QString::fromStdString(said->value.typed), name); break;
        case What::Trouble: emit complaint(tr("%1: %2.").arg(name, QString::fromStdString(said->text))); break;
        case What::Bye:
            known_.removeAll(name);
            say(tr("%1 is gone").arg(name), true);
            break;
        }
    }
}

void InstrumentLink::send(const QString& line) {
    if (device_ && connected_) device_->write((line + "\n").toUtf8());
}

void InstrumentLink::ask(const QString& kind, const QString& from, const QString& to) {
    const QString line = QString::fromStdString(formats::atLine(kind.toStdString(), from.toStdString(), to.toStdString()));
    if (line == asked_) return;
    asked_ = line;
    send(line);
}

void InstrumentLink::take() {
    if (!connected_) return say(words_.isEmpty() ? tr("no instrument is connected: see the menu") : words_, true);
    send("take");
}

} // namespace gorvet::desk
