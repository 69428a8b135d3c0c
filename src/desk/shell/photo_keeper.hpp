#pragma once

#include "analysis/photos.hpp"
#include "desk/shell/document.hpp"

#include <QObject>
#include <QStringList>
#include <deque>

namespace gorvet::desk {

/// Takes files into the build as photos, one after the other beside the window; those that came together are one step to undo.
/// A file that can't be kept is said, and the others go on.
class PhotoKeeper : public QObject {
    Q_OBJECT
public:
    explicit PhotoKeeper(Document&, QObject* parent = nullptr);
    void keep(const QStringList& files, const analysis::PhotoAbout&);

signals:
    void kept(const QString& sentence);
    void refused(const QString& why);

private:
    struct Together {
        std::filesystem::path build; ///< that was open then
        QStringList files;           ///< still to come
        analysis::PhotoAbout about;
        std::vector<analysis::NewPhoto> photos;
    };
    void next();
    void takeIn(const QString& file);
    void finish();

    Document& document_;
    std::deque<Together> waiting_;
    bool busy_ = false;
};

} // namespace gorvet::desk
