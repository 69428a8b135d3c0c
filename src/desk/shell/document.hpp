#pragma once

#include "analysis/results.hpp"
#include "desk/shell/worker.hpp"
#include "entry/entry.hpp"
#include "store/store.hpp"

#include <QObject>
#include <QString>
#include <QTimer>
#include <memory>

namespace gorvet::desk {

/// The open build: its file, its results, and the way every change takes. Small builds are analysed at once, large ones beside
/// the window: until the new results are in, `build()` and `results()` stay the last pair that belongs together.
class Document : public QObject {
    Q_OBJECT
public:
    explicit Document(QObject* parent = nullptr);
    bool isOpen() const { return store_ != nullptr; }
    /// A new build begins with those settings; without a name it is called as its file.
    Result<void> create(const QString& path, build::Settings = {});
    Result<void> open(const QString& path);
    void close();

    /// The build that `results()` belong to: what is shown.
    const build::Build& build() const { return shown_; }
    /// What is kept: a line typed now is read against this.
    const build::Build& latest() const;
    const analysis::Results& results() const { return results_; }
    /// Takes slow nodes that were made beside the window, and finds again. `unmade`: one that was made and still is not of now.
    void takeSlow(const analysis::Results& with, std::string_view unmade);
    /// A slow node was stopped by hand: it is not begun again before something changes.
    void stopSlow(std::string_view key);
    /// Somebody asks for them: what was stopped of them and of what they need is begun again.
    void beginAgain(const std::vector<std::string_view>& keys);
    /// Newer readings are kept than those that are shown.
    bool stale() const { return store_ && results_.revision != store_->revision(); }
    const store::Store* store() const { return store_.get(); }

    /// Keeps an edit; the screen follows by `changed`.
    Result<void> keep(const build::Edit&);
    Result<std::string> undo();
    Result<std::string> redo();
    /// Who writes.
    store::Author author() const { return {user_.toStdString(), {}}; }
    /// Keeps a photo or scan inside the build's file, beside the window; edits are refused until it is in. `done` gets its
    /// record, or why not.
    void keepBlob(const QString& path, std::function<void(const Result<store::Blob>&)> done);
    QString user() const { return user_; }
    /// "kept 14:02", local time; why it can't be changed, when read-only.
    QString keptText() const;
    /// "M., 25 November 14:02" of the last change to a row; empty when unknown.
    QString history(const std::string& table, std::uint32_t id) const;
    void setUser(const QString& name) { user_ = name; }
    /// Analyses again what was cancelled.
    void analyse();
    Worker& worker() { return worker_; }
    const Worker& worker() const { return worker_; }
    /// Looks whether a build that is open read-only can be opened anew: the other window has gone, or has kept something. Done by
    /// itself every two seconds.
    void lookAgain();
    /// Above so many readings in a survey the analysis runs beside the window. For tests.
    void setLarge(size_t readings) { large_ = readings; }

signals:
    void changed();
    /// What was read-only can be written now.
    void writable();

private:
    void analyseBeside();
    void take(std::unique_ptr<store::Store>);
    Result<void> busy() const;
    std::unique_ptr<store::Store> store_;
    build::Build shown_;
    analysis::Results results_;
    QString user_;
    size_t large_ = 500;
    bool again_ = false; ///< something was kept while an analysis ran
    bool keeping_blob_ = false;
    QTimer watch_;  ///< runs while the build is read-only
    Worker worker_; ///< last: it stops before what it works on goes
};

} // namespace gorvet::desk
