#pragma once

#include <QFrame>
#include <functional>
#include <vector>

class QLabel;
class QLineEdit;
class QListWidget;

namespace gorvet::desk {

/// Something that can be found by its words, and done.
struct Findable {
    QString section; ///< "Sit", "Build", "findings"
    QString text;
    QString hint; ///< keys, an example
    std::function<void()> use;
};

/// A line that searches everything by its words. Enter does what stands first, Down and Up choose, Escape closes.
class Finder : public QFrame {
    Q_OBJECT
public:
    explicit Finder(QWidget* over);
    /// Opens over the window. Sections stand in the order of the list.
    void open(std::vector<Findable>, const QString& title);
    int shown() const; ///< how many fit what is typed

signals:
    void closed();

protected:
    bool eventFilter(QObject*, QEvent*) override;

private:
    void filter();
    void use(int row);
    void shut();
    std::vector<Findable> all_;
    QLabel* title_;
    QLineEdit* field_;
    QListWidget* list_;
};

} // namespace gorvet::desk
