#include "desk/shell/line_words.hpp"

#include "entry/next_words.hpp"

#include <QHBoxLayout>
#include <QPushButton>

#include <algorithm>

namespace gorvet::desk {

namespace {
constexpr int target_px = 40;
constexpr size_t most_words = 60; ///< more are not looked through; they are typed
} // namespace

LineWords::LineWords(QWidget* parent) : QWidget(parent), row_(new QHBoxLayout(this)) {
    setObjectName("lineWords");
    row_->setContentsMargins(0, 0, 0, 0);
    row_->setSpacing(4);
}

void LineWords::add(const QString& text, const QString& name, const std::function<void()>& use) {
    auto* button = new QPushButton(text);
    button->setObjectName(name);
    button->setMinimumSize(target_px, target_px);
    button->setProperty("key", true);
    button->setFocusPolicy(Qt::NoFocus); // the caret stays on the line
    // the row is made anew by what is tapped: not while its button still runs
    connect(button, &QPushButton::clicked, this, use, Qt::QueuedConnection);
    row_->addWidget(button);
    button->ensurePolished();
    button->setMinimumWidth(std::max(target_px, button->sizeHint().width())); // a squeezed one would lose letters
}

void LineWords::addKeys(const QString& keys) {
    for (const QChar key : keys) add(key, QString("key_%1").arg(key), [this, key] { emit letters(key); });
}

void LineWords::show(const entry::NextWords& next, bool keys) {
    while (QLayoutItem* item = row_->takeAt(0)) {
        if (item->widget()) {
            item->widget()->hide();
            item->widget()->deleteLater();
        }
        delete item;
    }
    now_ = std::make_shared<const entry::NextWords>(next);
    offered_ = 0;
    if (next.whole) add(tr("keep"), "lineKeep", [this] { emit keepLine(); });
    const bool has_words = !next.words.empty();
    for (const std::string& w : next.words) {
        if (static_cast<size_t>(offered_) == most_words) break;
        ++offered_;
        const QString text = QString::fromStdString(w);
        add(text, "word_" + text, [this, text] { emit word(text); });
    }
    if (keys) {
        const QString begun = QString::fromStdString(next.begun);
        const bool in_figure =
            next.figure ||
            (!begun.isEmpty() && (begun.front().isDigit() || begun.front() == '-' || begun.front() == QChar(0x2212)));
        if (!begun.isEmpty()) {
            add(QString::fromUtf8("␣"), "key_blank", [this] { emit letters(" "); });
            add(QString::fromUtf8("⌫"), "key_back", [this] { emit rubOut(); });
        }
        if (in_figure) {
            addKeys("1234567890.-/");
            for (const char* unit : {"mm", "in", "kg", "°"})
                add(unit, QString("key_") + unit, [this, unit] { emit letters(unit); });
        }
        if (next.name || next.text) {
            add(capitals_ ? "a" : "A", "key_case", [this, keys] {
                capitals_ = !capitals_;
                show(entry::NextWords(*now_), keys);
            });
            addKeys(capitals_ ? "ABCDEFGHIJKLMNOPQRSTUVWXYZ" : "abcdefghijklmnopqrstuvwxyz");
            if (!in_figure) addKeys("1234567890-");
        }
    }
    row_->addStretch(1);
    setVisible(has_words || next.whole || keys);
}

} // namespace gorvet::desk
