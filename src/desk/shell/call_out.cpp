#include "desk/shell/call_out.hpp"

#include "desk/shell/sounds.hpp"
#include "desk/widgets/drawing_painter.hpp"
#include "sheet/fonts.hpp"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QPushButton>
#include <QStyle>
#include <QVBoxLayout>

namespace gorvet::desk {

CallOut::CallOut(QWidget* parent)
    : QWidget(parent), pair_(new QLabel), hint_(new QLabel), field_(new QLineEdit), error_(new QLabel), last_(new QLabel),
      word_(new QLabel), sentence_(new QLabel), mute_(new QPushButton), sketch_(new SheetView) {
    setObjectName("callOut");
    pair_->setObjectName("callOutPair");
    pair_->setWordWrap(true);
    hint_->setObjectName("callOutHint");
    field_->setObjectName("callOutField");
    field_->setAccessibleName(tr("reading of the pair that is called out"));
    error_->setObjectName("callOutError");
    error_->setProperty("role", "bad");
    error_->setWordWrap(true);
    last_->setObjectName("callOutLast");
    word_->setObjectName("callOutWord");
    sentence_->setObjectName("callOutSentence");
    sentence_->setWordWrap(true);
    mute_->setObjectName("callOutMute");
    sketch_->setObjectName("callOutSketch");
    sketch_->setFocusPolicy(Qt::NoFocus);
    setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Ignored); // its large words must not widen the desk
    hint_->setWordWrap(true);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(48, 12, 24, 12);
    row->setSpacing(24);
    auto* words = new QVBoxLayout;
    words->addWidget(pair_);
    words->addWidget(hint_);
    words->addWidget(field_);
    words->addWidget(error_);
    words->addStretch(1);
    words->addWidget(last_);
    words->addWidget(word_);
    words->addWidget(sentence_);
    words->addStretch(1);
    auto* keys = new QHBoxLayout;
    auto* back = new QPushButton(tr("back to the desk (F4)"));
    back->setObjectName("callOutBack");
    back->setMinimumHeight(56);
    mute_->setMinimumHeight(56);
    connect(back, &QPushButton::clicked, this, &CallOut::left);
    connect(mute_, &QPushButton::clicked, this, [this] {
        setMuted(!muted_);
        field_->setFocus();
    });
    keys->addWidget(back);
    keys->addWidget(mute_);
    keys->addStretch(1);
    words->addLayout(keys);
    row->addLayout(words, 5);
    row->addWidget(sketch_, 6);
    field_->installEventFilter(this);
    connect(field_, &QLineEdit::textEdited, this, [this] { error_->clear(); });
    connect(field_, &QLineEdit::returnPressed, this, [this] {
        if (whole_ || !field_->text().trimmed().isEmpty()) emit figure(field_->text().trimmed());
    });
    setMuted(false);
}

void CallOut::setTheme(const Theme& theme) {
    theme_ = theme;
    const auto size = [](QWidget* widget, double px, bool bold = false) {
        widget->setStyleSheet(QString("font-size: %1px;%2").arg(px).arg(bold ? " font-weight: bold;" : ""));
    };
    // what must be read from afar stays large at every text size; at 150 % it would no longer fit beside the sketch
    fitPair();
    fitValues();
    size(error_, theme.px(18), true);
    sketch_->setTheme(theme);
}

void CallOut::setSketch(SheetView::Maker maker) { sketch_->setMaker(std::move(maker)); }

void CallOut::showPair(const std::optional<Proposal>& proposal, const QString& instead) {
    pair_->setText(proposal ? proposal->pair : tr("Nothing to read"));
    hint_->setText(proposal ? proposal->hint : instead);
    fitPair();
    field_->setEnabled(proposal.has_value());
    whole_ = proposal && !proposal->whole.isEmpty();
    field_->setPlaceholderText(whole_ ? tr("Enter: done") : proposal ? tr("length") : QString());
    sketch_->setVisible(!proposal || proposal->whole.isEmpty()); // what has no sketch takes the width
    sketch_->refresh();
}

void CallOut::showLast(const std::optional<analysis::LastRead>& last, bool sound) {
    last_->setText(last ? QString::fromStdString(last->name + "  " + last->value) : QString());
    word_->setText(last ? QString::fromStdString(last->word) : QString());
    sentence_->setText(last ? QString::fromStdString(last->sentence) : QString());
    severity_ = last ? last->severity : sheet::Severity::Good;
    word_->setProperty("role", severity_ == sheet::Severity::Good ? "good" : severity_ == sheet::Severity::Warn ? "warn" : "bad");
    word_->style()->unpolish(word_);
    word_->style()->polish(word_);
    update();
    if (sound && last && !muted_) playVerdict(severity_);
}

/// As large as it can be read, and no larger than its half of the window.
void CallOut::fitPair() {
    constexpr int largest = 96;
    constexpr int least = 36;
    QFont font(sheet::mono_family);
    font.setPixelSize(largest);
    const int room = std::max(1, (width() - 96) * 5 / 11 - 24);
    const int need = std::max(1, QFontMetrics(font).horizontalAdvance(pair_->text()));
    pair_->setStyleSheet(QString("font-size: %1px; font-family: \"%2\";")
                             .arg(std::clamp(largest * room / need, least, largest))
                             .arg(sheet::mono_family));
}

void CallOut::resizeEvent(QResizeEvent* e) {
    QWidget::resizeEvent(e);
    fitPair();
    fitValues();
}

/// The last value keeps its 64 px whatever happens; the rest gives way in a low window.
void CallOut::fitValues() {
    const bool low = height() < 720;
    last_->setStyleSheet(QString("font-size: %1px;").arg(low ? 64 : 72));
    word_->setStyleSheet(QString("font-size: %1px; font-weight: bold; padding-left: 72px;").arg(low ? 48 : 64));
    field_->setStyleSheet(QString("font-size: %1px; min-height: %2px;").arg(low ? 44 : 64).arg(low ? 56 : 84));
    const double words = std::min<double>(low ? 22 : 30, theme_.px(24));
    for (QLabel* label : {hint_, sentence_}) label->setStyleSheet(QString("font-size: %1px;").arg(words));
}

void CallOut::say(const QString& text) { error_->setText(text); }

void CallOut::setMuted(bool muted) {
    muted_ = muted;
    mute_->setText(muted ? tr("sound is off") : tr("sound is on"));
}

bool CallOut::eventFilter(QObject* watched, QEvent* event) {
    if (watched == field_ && event->type() == QEvent::KeyPress) {
        const auto* key = static_cast<QKeyEvent*>(event);
        if (key->key() == Qt::Key_Down || key->key() == Qt::Key_Up) {
            emit otherPair(key->key() == Qt::Key_Down ? 1 : -1);
            return true;
        }
        if (key->key() == Qt::Key_Escape) {
            emit left();
            return true;
        }
    }
    return QWidget::eventFilter(watched, event);
}

void CallOut::paintEvent(QPaintEvent* event) {
    QWidget::paintEvent(event);
    if (word_->text().isEmpty()) return;
    QPainter q(this);
    sheet::Drawing mark;
    const QPoint at = word_->mapTo(this, QPoint(32, word_->height() / 2));
    sheet::addMark(mark, {static_cast<double>(at.x()), static_cast<double>(at.y())}, 52, severity_);
    paintItems(q, sheet::flatten(mark), theme_);
}

} // namespace gorvet::desk
