#include "desk/shell/photo_folder.hpp"

#include "formats/picture.hpp"

#include <QDir>

namespace gorvet::desk {

PhotoFolder::PhotoFolder(QObject* parent) : QObject(parent) {
    settle_.setSingleShot(true);
    constexpr int look_again_ms = 300;
    settle_.setInterval(look_again_ms);
    connect(&watcher_, &QFileSystemWatcher::directoryChanged, this, &PhotoFolder::look);
    connect(&settle_, &QTimer::timeout, this, &PhotoFolder::look);
}

QStringList PhotoFolder::pictures() const {
    return QDir(folder_).entryList({"*.jpg", "*.jpeg", "*.png", "*.heic", "*.webp", "*.tif", "*.tiff", "*.avif"},
                                   QDir::Files | QDir::Readable, QDir::Name);
}

bool PhotoFolder::watch(const QString& folder) {
    if (!folder_.isEmpty()) watcher_.removePath(folder_);
    folder_.clear();
    seen_.clear();
    growing_.clear();
    if (folder.isEmpty()) return true;
    if (!QDir(folder).exists() || !watcher_.addPath(folder)) return false;
    folder_ = folder;
    const QStringList there = pictures();
    seen_ = QSet<QString>(there.begin(), there.end());
    return true;
}

void PhotoFolder::look() {
    if (folder_.isEmpty()) return;
    for (const QString& name : pictures()) {
        if (seen_.contains(name)) continue;
        const QString path = QDir(folder_).filePath(name);
        const qint64 size = QFileInfo(path).size();
        if (size == 0 || growing_.value(name, -1) != size) {
            growing_[name] = size;
            settle_.start();
            continue;
        }
        const auto read = formats::readPicture(path.toStdString());
        constexpr qint64 may_go_on_s = 20; // a copy that paused: its end may still come
        if (!read && QFileInfo(path).lastModified().secsTo(QDateTime::currentDateTime()) < may_go_on_s &&
            !name.endsWith(".heic", Qt::CaseInsensitive)) {
            settle_.start();
            continue;
        }
        seen_.insert(name);
        growing_.remove(name);
        if (read)
            emit arrived(path);
        else
            emit refused(QString::fromStdString(read.error().text()));
    }
}

} // namespace gorvet::desk
