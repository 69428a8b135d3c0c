#pragma once

#include "desk/shell/bench.hpp"

#include <QFrame>
#include <functional>

class QLabel;
class QLineEdit;

namespace gorvet::desk {

/// The entry line at the foot of the sheet. With a proposal, a figure alone completes it.
class EntryLine : public QFrame {
    Q_OBJECT
public:
    explicit EntryLine(QWidget* parent = nullptr);
    void setProposal(const std::optional<Proposal>&, const QString& placeholder);
    /// What Enter would keep: the proposal's beginning and the typed figure, or the typed line.
    QString fullLine() const;
    /// Begins a line for the person to go on with.
    void beginWith(const QString& text);
    void clear();
    /// What is connected, or what is wrong with it; empty: nothing.
    void setInstrument(const QString& words, bool trouble);
    void setEcho(const QString& text, const char* role); ///< role: "", "bad", "warn" or "good"
    /// Marks the character at which a line went wrong; column counts characters of `fullLine()`.
    void pointAt(int column);
    /// Tells a point's name from a figure: names may begin with one.
    void setIsName(std::function<bool(const QString&)> is_name) { is_name_ = std::move(is_name); }
    QLineEdit* field() { return field_; }
    /// A line that was taken: Up brings it back.
    void remember(const QString& line);

signals:
    void submitted(const QString& line);
    void edited();
    void otherPair(int step);
    void complete(); ///< Tab: the word that is begun
    void typed();    ///< a key was used

protected:
    bool eventFilter(QObject*, QEvent*) override;
    void resizeEvent(QResizeEvent*) override;

private:
    void showKeys();
    bool takesProposal() const;
    QLabel* pair_;
    QLineEdit* field_;
    QLabel* echo_;
    QLabel* keys_;
    QLabel* instrument_;
    void browse(int step);
    QStringList before_;  ///< lines that were taken, the newest last
    qsizetype shown_ = 0; ///< of them; as many as there are: none
    std::optional<Proposal> proposal_;
    std::function<bool(const QString&)> is_name_;
};

} // namespace gorvet::desk
