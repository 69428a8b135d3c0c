#include "desk/shell/document.hpp"

#include <QDateTime>
#include <QLocale>

namespace gorvet::desk {

namespace {
QDateTime localTime(const std::string& utc) {
    return QDateTime::fromString(QString::fromStdString(utc), Qt::ISODate).toLocalTime();
}
} // namespace

Result<void> Document::create(const QString& path) {
    auto made = store::Store::create(path.toStdString());
    if (!made) return made.error();
    build::Settings settings;
    settings.name = std::filesystem::path(path.toStdString()).stem().string();
    if (auto kept = (*made)->keep({"begin the build " + settings.name, {build::Set<build::Settings>{settings}}}, author()); !kept)
        return kept.error();
    store_ = std::move(*made);
    results_ = {};
    analyse();
    return {};
}

Result<void> Document::open(const QString& path) {
    auto opened = store::Store::open(path.toStdString());
    if (!opened) return opened.error();
    store_ = std::move(*opened);
    results_ = {};
    analyse();
    return {};
}

void Document::close() {
    store_.reset();
    results_ = {};
    emit changed();
}

const build::Build& Document::build() const {
    static const build::Build empty;
    return store_ ? store_->build() : empty;
}

void Document::analyse() {
    results_ = analysis::analyse(store_->build(), store_->revision(), results_.revision >= 0 ? &results_ : nullptr);
    emit changed();
}

Result<void> Document::keep(const build::Edit& edit) {
    if (!store_) return Error{Error::Code::NotFound, "", "No build is open.", "Open one or make a new one.", -1};
    if (auto kept = store_->keep(edit, author()); !kept) return kept;
    analyse();
    return {};
}

Result<store::Blob> Document::keepBlob(const QString& path) {
    if (!store_) return Error{Error::Code::NotFound, "", "No build is open.", "Open one or make a new one.", -1};
    return store_->keepBlob(path.toStdString());
}

Result<std::string> Document::undo() {
    if (!store_) return Error{Error::Code::NotFound, "", "No build is open.", "", -1};
    auto done = store_->undo(author());
    if (done) analyse();
    return done;
}

Result<std::string> Document::redo() {
    if (!store_) return Error{Error::Code::NotFound, "", "No build is open.", "", -1};
    auto done = store_->redo(author());
    if (done) analyse();
    return done;
}

QString Document::keptText() const {
    if (!store_) return {};
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
