#pragma once

#include <QFileSystemWatcher>
#include <QObject>
#include <QSet>
#include <QTimer>

namespace gorvet::desk {

/// A folder into which a phone puts its pictures: says of each new one when it is whole. What lay there before is passed over,
/// what can't be kept is said. Only watched when asked to.
class PhotoFolder : public QObject {
    Q_OBJECT
public:
    explicit PhotoFolder(QObject* parent = nullptr);
    /// From now on; an empty folder: no more. False when there is no such folder.
    bool watch(const QString& folder);
    const QString& folder() const { return folder_; }

signals:
    void arrived(const QString& path);
    void refused(const QString& why);

private:
    void look();
    QStringList pictures() const;

    QFileSystemWatcher watcher_;
    QTimer settle_; ///< a picture that still grows is looked at again
    QString folder_;
    QSet<QString> seen_;
    QHash<QString, qint64> growing_; ///< size when it was last looked at
};

} // namespace gorvet::desk
