#pragma once

#include <QObject>
#include <QString>
#include <atomic>
#include <functional>
#include <thread>

namespace gorvet::desk {

/// Runs one piece of long work beside the window. The work hears through its callback that it should stop; what it gave is
/// taken on the window's own thread. Signals say what the verb strip shows.
class Worker : public QObject {
    Q_OBJECT
public:
    /// Called with the share done, 0…1; false: stop.
    using Progress = std::function<bool(double)>;
    explicit Worker(QObject* parent = nullptr) : QObject(parent) {}
    ~Worker() override;
    bool running() const { return running_; }
    const QString& what() const { return what_; }
    double share() const { return share_; }
    /// Starts; precondition: nothing runs. `done` is called on this object's thread, with false when it was cancelled.
    void start(const QString& what, std::function<void(const Progress&)> work, std::function<void(bool finished)> done);
    void cancel() { cancelled_ = true; }
    /// Cancels and waits until the work has let go of what it works on; `done` still comes.
    void stop();

signals:
    void changed();

private:
    std::thread thread_;
    std::atomic<bool> cancelled_{false};
    std::atomic<double> share_{0};
    bool running_ = false;
    QString what_;
};

} // namespace gorvet::desk
