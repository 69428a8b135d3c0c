#include "desk/shell/recent.hpp"

#include <QCryptographicHash>
#include <QDir>
#include <QFileInfo>
#include <QSettings>
#include <QStandardPaths>

namespace gorvet::desk {

void Recent::recall(QSettings& settings) {
    pictures_ = QStandardPaths::writableLocation(QStandardPaths::CacheLocation) + "/builds";
    folder_ = settings.value("builds/folder").toString();
    list_.clear();
    const int n = settings.beginReadArray("builds/recent");
    for (int i = 0; i < n && list_.size() < most; ++i) {
        settings.setArrayIndex(i);
        list_ << Build{settings.value("path").toString(), settings.value("name").toString(), settings.value("left").toDateTime()};
    }
    settings.endArray();
}

void Recent::remember(QSettings& settings) const {
    settings.setValue("builds/folder", folder_);
    settings.beginWriteArray("builds/recent", static_cast<int>(list_.size()));
    for (qsizetype i = 0; i < list_.size(); ++i) {
        settings.setArrayIndex(static_cast<int>(i));
        settings.setValue("path", list_[i].path);
        settings.setValue("name", list_[i].name);
        settings.setValue("left", list_[i].left);
    }
    settings.endArray();
}

void Recent::add(const QString& path, const QString& name) {
    const QString whole = QFileInfo(path).absoluteFilePath();
    forget(whole);
    list_.prepend({whole, name, QDateTime::currentDateTime()});
    while (list_.size() > most) list_.removeLast();
    folder_ = QFileInfo(whole).absolutePath();
}

void Recent::forget(const QString& path) {
    const QString whole = QFileInfo(path).absoluteFilePath();
    list_.removeIf([&](const Build& b) { return b.path == whole; });
}

QList<Recent::Build> Recent::builds() const {
    QList<Build> there;
    for (const Build& b : list_)
        if (QFileInfo(b.path).isFile()) there << b;
    return there;
}

QString Recent::pictureKey(const QString& path, Ground ground) const {
    const QByteArray key =
        QCryptographicHash::hash(QFileInfo(path).absoluteFilePath().toUtf8(), QCryptographicHash::Sha1).toHex();
    return QString::fromLatin1(key) + (ground == Ground::Dye ? "-dye.png" : ".png");
}

void Recent::keepPicture(const QString& path, Ground ground, const QImage& image) {
    const QString key = pictureKey(path, ground);
    shown_[key] = image;
    // a picture that can't be kept is no loss: the name is shown alone next time
    if (!pictures_.isEmpty() && QDir().mkpath(pictures_)) image.save(pictures_ + "/" + key, "PNG");
}

QImage Recent::picture(const QString& path, Ground ground) const {
    const QString key = pictureKey(path, ground);
    const auto shown = shown_.find(key);
    if (shown != shown_.end()) return *shown;
    return pictures_.isEmpty() ? QImage() : QImage(pictures_ + "/" + key);
}

QString Recent::folder() const {
    if (!folder_.isEmpty() && QFileInfo(folder_).isDir()) return folder_;
    const QString documents = QStandardPaths::writableLocation(QStandardPaths::DocumentsLocation);
    return QFileInfo(documents).isDir() ? documents : QDir::homePath();
}

QString Recent::freePath(const QString& name) const {
    QString plain = name.trimmed();
    for (QChar& c : plain)
        if (!c.isPrint() || QStringLiteral("/\\:*?\"<>|").contains(c)) c = '-';
    while (plain.startsWith('.')) plain.remove(0, 1);
    plain = plain.left(80).trimmed();
    if (plain.isEmpty()) plain = "build";
    for (int n = 1;; ++n) {
        const QString path = folder() + "/" + plain + (n > 1 ? QString(" %1").arg(n) : QString()) + ".gorvet";
        if (!QFileInfo::exists(path)) return path;
    }
}

} // namespace gorvet::desk
