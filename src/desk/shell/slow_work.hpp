#pragma once

#include "analysis/slow.hpp"
#include "desk/shell/document.hpp"

#include <list>

namespace gorvet::desk {

/// The slow nodes of the graph, made one after the other beside the window: those that are wanted by what is shown, and before
/// them those that somebody waits for.
class SlowWork : public QObject {
    Q_OBJECT
public:
    explicit SlowWork(Document&);
    ~SlowWork() override;
    using Keys = std::vector<std::string_view>;
    /// What is shown from now on.
    void want(Keys);
    /// Waits for these; `done` hears whether they are there as the build is then, or were stopped or can't be made.
    void make(Keys, std::function<void(bool made)> done);
    /// Something of what is wanted is being made, or will be.
    bool waiting() const;
    Worker& worker() { return worker_; }
    const Worker& worker() const { return worker_; }

private:
    void next();
    void start(const analysis::SlowNode&);
    struct Waiting {
        Keys keys;
        std::function<void(bool)> done;
    };
    Document& document_;
    Keys wanted_;
    std::list<Waiting> waiting_;
    bool looking_ = false;
    Worker worker_; ///< last: it stops before what it works on goes
};

} // namespace gorvet::desk
