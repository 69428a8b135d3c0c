#include "desk/shell/photo_keeper.hpp"

#include "formats/picture.hpp"

#include <QTimer>

namespace gorvet::desk {

PhotoKeeper::PhotoKeeper(Document& document, QObject* parent) : QObject(parent), document_(document) {}

void PhotoKeeper::keep(const QStringList& files, const analysis::PhotoAbout& about) {
    if (files.isEmpty() || !document_.isOpen()) return;
    waiting_.push_back({document_.store()->path(), files, about, {}});
    if (!busy_) next();
}

void PhotoKeeper::next() {
    busy_ = false;
    // what was to come into a build that was closed meanwhile does not come into another
    while (!waiting_.empty() && !(document_.isOpen() && document_.store()->path() == waiting_.front().build))
        waiting_.pop_front();
    if (waiting_.empty()) return;
    busy_ = true;
    if (waiting_.front().files.isEmpty()) return finish();
    if (document_.worker().running()) { // figures are made, or another file is on its way in
        constexpr int in_a_moment = 100;
        QTimer::singleShot(in_a_moment, this, &PhotoKeeper::next);
        return;
    }
    takeIn(waiting_.front().files.takeFirst());
}

void PhotoKeeper::takeIn(const QString& file) {
    const auto refuse = [this](const Error& e) {
        emit refused(QString::fromStdString(e.text()));
        next();
    };
    analysis::NewPhoto photo;
    const std::string path = file.toStdString();
    const auto facts = formats::readPicture(path);
    if (facts) {
        photo.taken = facts->taken;
        photo.width_px = facts->width_px;
        photo.height_px = facts->height_px;
        photo.turned = facts->turned;
    } else if (formats::isSound(path)) {
        photo.kind = build::RecordKind::Voice;
    } else {
        return refuse(facts.error());
    }
    const std::filesystem::path build = waiting_.front().build;
    document_.keepBlob(file, [this, build, photo, refuse](const Result<store::Blob>& kept) mutable {
        if (!kept) return refuse(kept.error());
        photo.hash = kept->hash;
        if (!waiting_.empty() && waiting_.front().build == build) waiting_.front().photos.push_back(std::move(photo));
        // the document is free again only once this has returned
        QTimer::singleShot(0, this, &PhotoKeeper::next);
    });
}

void PhotoKeeper::finish() {
    const Together done = std::move(waiting_.front());
    waiting_.pop_front();
    if (!done.photos.empty()) {
        const auto edit =
            analysis::keepPhotos(document_.latest(), done.photos, done.about, {document_.author().who, store::nowUtc()});
        if (!edit)
            emit refused(QString::fromStdString(edit.error().text()));
        else if (auto kept_it = document_.keep(*edit); !kept_it)
            emit refused(QString::fromStdString(kept_it.error().text()));
        else
            emit kept(QString::fromStdString(edit->sentence));
    }
    next();
}

} // namespace gorvet::desk
