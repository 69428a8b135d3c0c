#include "desk/shell/document.hpp"

#include "analysis/findings.hpp"
#include "analysis/slow.hpp"

#include <QDateTime>
#include <QLocale>
#include <algorithm>
#include <map>

namespace gorvet::desk {

namespace {
QDateTime localTime(const std::string& utc) {
    return QDateTime::fromString(QString::fromStdString(utc), Qt::ISODate).toLocalTime();
}
} // namespace

Document::Document(QObject* parent) : QObject(parent) {
    watch_.setInterval(2000);
    connect(&watch_, &QTimer::timeout, this, &Document::lookAgain);
}

/// Shows another file, or the same one opened anew.
void Document::take(std::unique_ptr<store::Store> store) {
    store_ = std::move(store);
    if (store_->readOnly() && store_->damage().empty())
        watch_.start();
    else
        watch_.stop();
}

void Document::lookAgain() {
    if (!store_ || worker_.running() || !store_->openAgain()) return;
    auto opened = store::Store::open(store_->path());
    if (!opened) return; // it stays as it was shown; the next look may tell more
    take(std::move(*opened));
    analyse();
    if (!store_->readOnly()) emit writable();
}

Result<void> Document::create(const QString& path, build::Settings settings) {
    if (auto free = busy(); !free) return free;
    auto made = store::Store::create(path.toStdString());
    if (!made) return made.error();
    if (settings.name == build::Settings().name) settings.name = std::filesystem::path(path.toStdString()).stem().string();
    if (auto kept = (*made)->keep({"begin the build " + settings.name, {build::Set<build::Settings>{settings}}}, author()); !kept)
        return kept.error();
    take(std::move(*made));
    shown_ = {};
    results_ = {};
    analyse();
    return {};
}

Result<void> Document::open(const QString& path) {
    if (auto free = busy(); !free) return free;
    // the file that is open already: a second opener would get it read-only
    std::error_code none;
    if (store_ && !store_->readOnly() && std::filesystem::equivalent(store_->path(), path.toStdString(), none)) return {};
    auto opened = store::Store::open(path.toStdString());
    if (!opened) return opened.error();
    take(std::move(*opened));
    shown_ = {};
    results_ = {};
    analyse();
    return {};
}

void Document::close() {
    worker_.stop();
    watch_.stop();
    store_.reset();
    shown_ = {};
    results_ = {};
    emit changed();
}

void Document::takeSlow(const analysis::Results& with, std::string_view unmade) {
    results_.scans = with.scans;
    if (!unmade.empty()) results_.stopped.emplace(unmade);
    analysis::findAgain(shown_, results_);
    emit changed();
}

void Document::stopSlow(std::string_view key) {
    results_.stopped.emplace(key);
    emit changed();
}

void Document::beginAgain(const std::vector<std::string_view>& keys) {
    for (const std::string_view key : keys) {
        if (const auto stopped = results_.stopped.find(key); stopped != results_.stopped.end()) results_.stopped.erase(stopped);
        if (const analysis::SlowNode* node = analysis::slowNode(key)) beginAgain(node->needs);
    }
}

const build::Build& Document::latest() const { return store_ ? store_->build() : shown_; }

void Document::analyse() {
    if (!store_) return;
    std::map<build::SubjectId, size_t> readings;
    if (store_->build().readings.size() > large_) // else no subject can have so many
        for (const auto& [id, r] : store_->build().readings)
            if (const auto from = store_->build().points.find(r.from); from != store_->build().points.end())
                ++readings[from->second.subject];
    const bool large = std::any_of(readings.begin(), readings.end(), [this](const auto& n) { return n.second > large_; });
    if (worker_.running()) {
        again_ = true;
        if (!keeping_blob_) worker_.cancel(); // what it computes is old already
        emit changed();
        return;
    }
    if (large) return analyseBeside();
    shown_ = store_->build();
    results_ = analysis::analyse(shown_, store_->revision(), results_.revision >= 0 ? &results_ : nullptr);
    analysis::sayDamage(results_, store_->damage());
    emit changed();
}

void Document::analyseBeside() {
    struct Pair {
        build::Build build;
        analysis::Results results;
    };
    auto made = std::make_shared<Pair>();
    made->build = store_->build();
    again_ = false;
    const auto revision = store_->revision();
    auto previous = results_.revision >= 0 ? std::make_shared<analysis::Results>(results_) : nullptr;
    worker_.start(
        tr("working out the readings"),
        [made, revision, previous](const Worker::Progress& progress) {
            made->results = analysis::analyse(made->build, revision, previous.get(), progress);
        },
        [this, made](bool finished) {
            if (finished && store_) {
                shown_ = std::move(made->build);
                results_ = std::move(made->results);
                analysis::sayDamage(results_, store_->damage());
            }
            if (again_) {
                again_ = false;
                analyse();
            } else {
                emit changed();
            }
        });
    emit changed();
}

/// Refuses what can't be done while a photo goes into the file.
Result<void> Document::busy() const {
    if (!keeping_blob_) return {};
    return Error{Error::Code::Conflict, "", "A photo is still being kept.", "Do it again in a moment.", -1};
}

Result<void> Document::keep(const build::Edit& edit) {
    if (!store_) return Error{Error::Code::NotFound, "", "No build is open.", "Open one or make a new one.", -1};
    if (auto free = busy(); !free) return free;
    if (auto kept = store_->keep(edit, author()); !kept) return kept;
    analyse();
    return {};
}

void Document::keepBlob(const QString& path, std::function<void(const Result<store::Blob>&)> done) {
    if (!store_) return done(Error{Error::Code::NotFound, "", "No build is open.", "Open one or make a new one.", -1});
    if (worker_.running())
        return done(Error{Error::Code::Conflict, path.toStdString(), "Something else is still being worked out.",
                          "Do it again in a moment.", -1});
    keeping_blob_ = true;
    auto kept = std::make_shared<std::optional<Result<store::Blob>>>();
    worker_.start(
        tr("keeping %1").arg(path.section('/', -1)),
        [store = store_.get(), path = path.toStdString(), kept](const Worker::Progress& progress) {
            kept->emplace(store->keepBlob(path, progress));
        },
        [this, kept, done](bool) {
            keeping_blob_ = false;
            done(**kept);
            if (again_) {
                again_ = false;
                analyse();
            }
        });
}

Result<std::string> Document::undo() {
    if (!store_) return Error{Error::Code::NotFound, "", "No build is open.", "", -1};
    if (auto free = busy(); !free) return free.error();
    auto done = store_->undo(author());
    if (done) analyse();
    return done;
}

Result<std::string> Document::redo() {
    if (!store_) return Error{Error::Code::NotFound, "", "No build is open.", "", -1};
    if (auto free = busy(); !free) return free.error();
    auto done = store_->redo(author());
    if (done) analyse();
    return done;
}

QString Document::keptText() const {
    if (!store_) return {};
    // short: it stands beside the benches' names; the whole reason was said on opening
    if (!store_->damage().empty()) return tr("read-only, damaged");
    if (store_->waitsForWriter()) return tr("read-only, open elsewhere");
    if (store_->readOnly()) return tr("read-only: %1").arg(QString::fromStdString(store_->readOnlyReason()));
    const std::string at = store_->keptAtUtc();
    return at.empty() ? QString() : tr("kept %1").arg(localTime(at).toString("HH:mm"));
}

QString Document::history(const std::string& table, std::uint32_t id) const {
    if (!store_ || table.empty()) return {};
    const auto entry = store_->lastChange(table, id);
    if (!entry) return {};
    const QDateTime at = localTime(entry->at_utc);
    const QString who = QString::fromStdString(entry->who);
    const QString when = QLocale::c().toString(at, "d MMM HH:mm");
    return entry->why.empty()
               ? who + QString::fromUtf8(" · ") + when
               : who + QString::fromUtf8(" · ") + when + QString::fromUtf8(" · ") + QString::fromStdString(entry->why);
}

} // namespace gorvet::desk
