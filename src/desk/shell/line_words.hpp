#pragma once

#include <QWidget>
#include <functional>
#include <memory>

class QHBoxLayout;

namespace gorvet::entry {
struct NextWords;
}

namespace gorvet::desk {

/// The words that may stand next on the line, as targets; and, for who taps, keys for figures and names.
class LineWords : public QWidget {
    Q_OBJECT
public:
    explicit LineWords(QWidget* parent = nullptr);
    /// `keys`: with keys to tap figures and names on.
    void show(const entry::NextWords&, bool keys);
    /// How many words are offered.
    int offered() const { return offered_; }

signals:
    void word(const QString&);    ///< takes the place of what is begun
    void letters(const QString&); ///< goes on at the end
    void rubOut();
    void keepLine();

private:
    void add(const QString& text, const QString& name, const std::function<void()>& use);
    void addKeys(const QString& keys);
    QHBoxLayout* row_;
    int offered_ = 0;
    bool capitals_ = true;
    std::shared_ptr<const entry::NextWords> now_;
};

} // namespace gorvet::desk
