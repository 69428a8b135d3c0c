#include "desk/shell/entry_line.hpp"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QStyle>
#include <QVBoxLayout>

namespace gorvet::desk {

EntryLine::EntryLine(QWidget* parent)
    : QFrame(parent), pair_(new QLabel), field_(new QLineEdit), echo_(new QLabel), keys_(new QLabel), instrument_(new QLabel) {
    setObjectName("entryFrame");
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(14, 2, 14, 6);
    column->setSpacing(0);
    auto* row = new QHBoxLayout;
    row->setSpacing(10);
    column->addLayout(row);
    column->addWidget(echo_); // what it says never takes the room of what is typed
    pair_->setObjectName("entryPair");
    field_->setObjectName("entry");
    field_->setAccessibleName(tr("entry line"));
    field_->setMinimumWidth(220);
    echo_->setObjectName("entryEcho");
    echo_->setWordWrap(true);
    keys_->setProperty("second", true);
    row->addWidget(pair_);
    row->addWidget(field_, 3);
    row->addWidget(keys_);
    instrument_->setObjectName("instrument");
    instrument_->setAccessibleName(tr("measuring instrument"));
    instrument_->setWordWrap(true);
    instrument_->hide();
    row->addWidget(instrument_, 2);
    field_->installEventFilter(this);
    connect(field_, &QLineEdit::textChanged, this, [this] {
        pair_->setEnabled(takesProposal() || field_->text().isEmpty());
        showKeys();
        pair_->setVisible(proposal_ && (field_->text().isEmpty() || takesProposal()));
        emit edited();
    });
    connect(field_, &QLineEdit::returnPressed, this, [this] {
        if (!field_->text().trimmed().isEmpty()) emit submitted(fullLine());
    });
}

bool EntryLine::takesProposal() const {
    const QString text = field_->text().trimmed();
    if (!proposal_ || text.isEmpty()) return false;
    if (is_name_ && is_name_(text.section(' ', 0, 0))) return false;
    if (text == "-" || text == QString(QChar(0x2212))) return true; // a level or an angle may be below 0
    const bool negative = text.size() > 1 && (text.front() == '-' || text.front() == QChar(0x2212));
    const QChar first = negative ? text.at(1) : text.front();
    return first.isDigit() || first == '.' || first == ',' || first.category() == QChar::Number_Other;
}

QString EntryLine::fullLine() const {
    const QString text = field_->text().trimmed();
    return takesProposal() ? proposal_->prefix + text : text;
}

void EntryLine::setProposal(const std::optional<Proposal>& proposal, const QString& placeholder) {
    proposal_ = proposal;
    pair_->setText(proposal ? proposal->pair : QString());
    pair_->setStyleSheet(QString("font-size: %1px").arg(field_->fontInfo().pixelSize()));
    pair_->setVisible(proposal && (field_->text().isEmpty() || takesProposal()));
    field_->setPlaceholderText(proposal ? tr("length") : QString());
    keys_->setText(proposal ? tr("Enter keeps · Down other pair · F1 find anything")
                            : tr("Enter keeps · Tab completes · F1 find anything"));
    showKeys();
    if (field_->text().isEmpty()) setEcho(proposal ? proposal->hint : placeholder, "");
}

/// F1 lists the keys: here they stand only where nothing else needs the room.
void EntryLine::showKeys() {
    const bool room = width() > pair_->sizeHint().width() + keys_->sizeHint().width() + field_->minimumWidth() + 80;
    keys_->setVisible(room && field_->text().isEmpty() && instrument_->isHidden());
}

void EntryLine::resizeEvent(QResizeEvent* e) {
    QFrame::resizeEvent(e);
    showKeys();
}

void EntryLine::beginWith(const QString& text) {
    field_->setText(text);
    field_->setFocus();
    field_->setCursorPosition(static_cast<int>(text.size()));
}

void EntryLine::clear() {
    field_->clear();
    shown_ = before_.size();
}

void EntryLine::remember(const QString& line) {
    constexpr qsizetype most = 200;
    if (before_.isEmpty() || before_.back() != line) before_ << line;
    if (before_.size() > most) before_.removeFirst();
    shown_ = before_.size();
}

/// Earlier lines, and back to the empty one.
void EntryLine::browse(int step) {
    const qsizetype to = std::clamp<qsizetype>(shown_ + step, 0, before_.size());
    if (to == shown_) return;
    shown_ = to;
    field_->setText(to < before_.size() ? before_[to] : QString());
}

void EntryLine::setInstrument(const QString& words, bool trouble) {
    instrument_->setText(words.isEmpty() || trouble ? words : words + tr(" · F7 takes the reading"));
    instrument_->setVisible(!words.isEmpty());
    showKeys();
    instrument_->setProperty("role", trouble ? "bad" : "");
    instrument_->setProperty("second", !trouble);
    instrument_->style()->unpolish(instrument_);
    instrument_->style()->polish(instrument_);
}

void EntryLine::setEcho(const QString& text, const char* role) {
    echo_->setText(text);
    echo_->setProperty("role", role);
    echo_->setProperty("second", *role == 0);
    echo_->style()->unpolish(echo_);
    echo_->style()->polish(echo_);
}

void EntryLine::pointAt(int column) {
    if (column < 0) return;
    int at = column;
    if (takesProposal()) at -= static_cast<int>(proposal_->prefix.size());
    const int leading = static_cast<int>(field_->text().size() - field_->text().trimmed().size());
    at = std::clamp(at + (leading && field_->text().startsWith(' ') ? leading : 0), 0, static_cast<int>(field_->text().size()));
    field_->setFocus();
    field_->setSelection(at, at < field_->text().size() ? 1 : 0);
    if (at >= field_->text().size()) field_->setCursorPosition(at);
}

bool EntryLine::eventFilter(QObject* watched, QEvent* event) {
    if (watched == field_ && event->type() == QEvent::KeyPress) {
        const auto* key = static_cast<QKeyEvent*>(event);
        emit typed();
        if (key->key() == Qt::Key_Up) return browse(-1), true;
        if (key->key() == Qt::Key_Down) {
            if (shown_ < before_.size())
                browse(1);
            else
                emit otherPair(key->modifiers() & Qt::ShiftModifier ? -1 : 1);
            return true;
        }
        if (key->key() == Qt::Key_Tab && !field_->text().isEmpty()) return emit complete(), true;
        if (key->key() == Qt::Key_Escape && !field_->text().isEmpty()) {
            clear();
            return true;
        }
    }
    return QFrame::eventFilter(watched, event);
}

} // namespace gorvet::desk
