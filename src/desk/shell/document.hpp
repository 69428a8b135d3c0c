#pragma once

#include "analysis/results.hpp"
#include "entry/entry.hpp"
#include "store/store.hpp"

#include <QObject>
#include <QString>
#include <memory>

namespace gorvet::desk {

/// The open build: its file, its results, and the way every change takes.
class Document : public QObject {
    Q_OBJECT
public:
    explicit Document(QObject* parent = nullptr) : QObject(parent) {}
    bool isOpen() const { return store_ != nullptr; }
    Result<void> create(const QString& path);
    Result<void> open(const QString& path);
    void close();

    const build::Build& build() const;
    const analysis::Results& results() const { return results_; }
    const store::Store* store() const { return store_.get(); }

    /// Keeps an edit; the screen follows by `changed`.
    Result<void> keep(const build::Edit&);
    Result<std::string> undo();
    Result<std::string> redo();
    /// Keeps a photo or scan inside the build's file.
    Result<store::Blob> keepBlob(const QString& path);
    QString user() const { return user_; }
    /// "kept 14:02", local time; why it can't be changed, when read-only.
    QString keptText() const;
    /// "M., 25 November 14:02" of the last change to a row; empty when unknown.
    QString history(const std::string& table, std::uint32_t id) const;
    void setUser(const QString& name) { user_ = name; }

signals:
    void changed();

private:
    void analyse();
    store::Author author() const { return {user_.toStdString(), {}}; }
    std::unique_ptr<store::Store> store_;
    analysis::Results results_;
    QString user_;
};

} // namespace gorvet::desk
