#include "desk/shell/worker.hpp"

#include <QMetaObject>

#include <malloc.h>

namespace gorvet::desk {

Worker::~Worker() {
    cancelled_ = true;
    if (thread_.joinable()) thread_.join();
}

void Worker::stop() {
    cancelled_ = true;
    if (thread_.joinable()) thread_.join();
}

void Worker::start(const QString& what, std::function<void(const Progress&)> work, std::function<void(bool finished)> done) {
    Q_ASSERT(!running_);
    if (thread_.joinable()) thread_.join();
    cancelled_ = false;
    share_ = 0;
    what_ = what;
    running_ = true;
    emit changed();
    thread_ = std::thread([this, work = std::move(work), done = std::move(done)] {
        int last_percent = 0;
        work([&](double share) {
            share_ = share;
            const int percent = static_cast<int>(100 * share);
            if (percent != last_percent) {
                last_percent = percent;
                QMetaObject::invokeMethod(
                    this, [this] { emit changed(); }, Qt::QueuedConnection);
            }
            return !cancelled_.load();
        });
        QMetaObject::invokeMethod(
            this,
            [this, done] {
                if (thread_.joinable()) thread_.join();
                running_ = false;
                const bool finished = !cancelled_;
                emit changed();
                done(finished);
                malloc_trim(0); // what took seconds took memory
            },
            Qt::QueuedConnection);
    });
}

} // namespace gorvet::desk
