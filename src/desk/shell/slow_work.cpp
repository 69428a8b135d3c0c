#include "desk/shell/slow_work.hpp"

#include "analysis/slow.hpp"
#include "desk/shell/paper.hpp"

#include <algorithm>

namespace gorvet::desk {

SlowWork::SlowWork(Document& document) : document_(document) { connect(&document_, &Document::changed, this, &SlowWork::next); }

SlowWork::~SlowWork() { worker_.stop(); }

void SlowWork::want(Keys keys) {
    if (keys == wanted_) return;
    wanted_ = std::move(keys);
    next();
}

void SlowWork::make(Keys keys, std::function<void(bool)> done) {
    document_.beginAgain(keys);
    waiting_.push_back({std::move(keys), std::move(done)});
    next();
}

bool SlowWork::waiting() const {
    return worker_.running() || document_.stale() ||
           (document_.isOpen() && analysis::nextSlow(document_.build(), document_.results(), wanted_));
}

void SlowWork::next() {
    // what is done may keep an edit, which comes here again
    if (looking_ || worker_.running() || document_.stale() || !document_.isOpen()) return;
    looking_ = true;
    const analysis::SlowNode* node = nullptr;
    while (!node && !waiting_.empty()) {
        const auto& first = waiting_.front();
        node = analysis::nextSlow(document_.build(), document_.results(), first.keys);
        if (node) break;
        const bool made = std::all_of(first.keys.begin(), first.keys.end(), [this](std::string_view key) {
            return analysis::currentSlow(document_.build(), document_.results(), key);
        });
        const auto done = std::move(waiting_.front().done);
        waiting_.pop_front();
        done(made);
        if (document_.stale()) break;
    }
    if (!node && !document_.stale()) node = analysis::nextSlow(document_.build(), document_.results(), wanted_);
    looking_ = false;
    if (node) start(*node);
}

void SlowWork::start(const analysis::SlowNode& node) {
    struct Job {
        build::Build build;
        analysis::Results results;
        std::filesystem::path path;
        bool made = false;
    };
    auto job = std::make_shared<Job>(Job{document_.build(), document_.results(), document_.store()->path()});
    worker_.start(
        tr(node.words),
        [job, &node](const Worker::Progress& progress) {
            job->made = node.make(job->build, job->results, blobReader(job->path), progress);
        },
        [this, job, &node](bool finished) {
            if (!document_.isOpen() || document_.store()->path() != job->path) return next();
            if (finished && job->made) {
                // one that was made and is of now no more is made again; one that can't be made of now is let be
                const bool same = document_.results().revision == job->results.revision;
                document_.takeSlow(job->results, same && !node.current(job->build, job->results) ? node.key : std::string_view{});
            } else {
                // stopped: not begun again by itself
                for (const Waiting& w : std::exchange(waiting_, {})) w.done(false);
                document_.stopSlow(node.key);
            }
            next();
        });
}

} // namespace gorvet::desk
