#pragma once

#include "desk/shell/theme.hpp"

#include <QDateTime>
#include <QImage>
#include <QList>
#include <QString>

class QSettings;

namespace gorvet::desk {

/// The builds that were open before, each with a picture of how it was left, and the folder where builds are.
class Recent {
public:
    /// No more are remembered.
    static constexpr qsizetype most = 12;
    struct Build {
        QString path;
        QString name;
        QDateTime left;
    };
    void recall(QSettings&);
    void remember(QSettings&) const;
    /// It goes to the front.
    void add(const QString& path, const QString& name);
    void forget(const QString& path);
    /// Those whose file is there, the newest first.
    QList<Build> builds() const;
    /// How it looked when it was left, on either ground; kept beside the settings, or only until the program ends where there are
    /// none.
    void keepPicture(const QString& path, Ground, const QImage&);
    QImage picture(const QString& path, Ground) const;
    /// Where builds were made or opened last; else the documents.
    QString folder() const;
    void setFolder(const QString& folder) { folder_ = folder; }
    /// A file of that name in the folder that is not there yet.
    QString freePath(const QString& name) const;

private:
    QString pictureKey(const QString& path, Ground) const;
    QList<Build> list_;
    QString folder_;
    QString pictures_; ///< folder; empty: none on the disk
    QHash<QString, QImage> shown_;
};

} // namespace gorvet::desk
