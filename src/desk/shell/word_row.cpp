#include "desk/shell/word_row.hpp"

#include <QAbstractButton>
#include <QEvent>
#include <QScrollArea>
#include <QScrollBar>
#include <QToolButton>
#include <QWheelEvent>

#include <algorithm>

namespace gorvet::desk {

namespace {
constexpr int gap_px = 6;
constexpr int wheel_step = 120; ///< one notch, as Qt counts them

int leftOf(const QWidget* word, const QWidget* words) { return word->mapTo(words, QPoint()).x(); }
int rightOf(const QWidget* word, const QWidget* words) { return leftOf(word, words) + word->width(); }
} // namespace

WordRow::WordRow(QWidget* words, QWidget* parent)
    : QWidget(parent), words_(words), scroll_(new QScrollArea(this)),
      back_(turner(QString::fromUtf8("‹"), "wordsBack", tr("earlier words"), false)),
      on_(turner(QString::fromUtf8("›"), "wordsOn", tr("further words"), true)) {
    setObjectName("wordRow");
    scroll_->setFrameShape(QFrame::NoFrame);
    scroll_->setWidgetResizable(true);
    scroll_->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll_->setFocusPolicy(Qt::NoFocus);
    scroll_->setWidget(words);
    scroll_->viewport()->installEventFilter(this);
    words->installEventFilter(this);
    // the keyboard goes to a word that is not shown: from there on
    connect(scroll_->horizontalScrollBar(), &QScrollBar::valueChanged, this, [this](int at) {
        if (settling_) return;
        const auto now = wordsNow();
        const auto begin = std::find_if(now.begin(), now.end(), [&](const auto& w) { return leftOf(w, words_) >= at; });
        first_ = static_cast<std::size_t>(begin - now.begin());
        settleSoon();
    });
}

QToolButton* WordRow::turner(const QString& text, const QString& name, const QString& said, bool on) {
    auto* button = new QToolButton(this);
    button->setText(text);
    button->setObjectName(name);
    button->setAccessibleName(said);
    button->setToolTip(said);
    button->setFocusPolicy(Qt::NoFocus); // the caret stays on the line
    button->hide();
    connect(button, &QToolButton::clicked, this, [this, on] { turn(on); });
    return button;
}

QSize WordRow::sizeHint() const { return scroll_->sizeHint(); }
QSize WordRow::minimumSizeHint() const { return {0, scroll_->minimumSizeHint().height()}; }

void WordRow::resizeEvent(QResizeEvent*) { settleSoon(); }

bool WordRow::eventFilter(QObject* watched, QEvent* e) {
    if (watched == words_ && (e->type() == QEvent::LayoutRequest || e->type() == QEvent::Resize)) settleSoon();
    if (watched == scroll_->viewport() && e->type() == QEvent::Wheel) {
        wheelEvent(static_cast<QWheelEvent*>(e));
        return true;
    }
    return QWidget::eventFilter(watched, e);
}

void WordRow::wheelEvent(QWheelEvent* e) {
    const QPoint by = e->angleDelta();
    turned_ += std::abs(by.x()) > std::abs(by.y()) ? by.x() : by.y();
    for (; turned_ <= -wheel_step; turned_ += wheel_step) turn(true);
    for (; turned_ >= wheel_step; turned_ -= wheel_step) turn(false);
    e->accept();
}

void WordRow::settleSoon() {
    if (waiting_) return;
    waiting_ = true;
    QMetaObject::invokeMethod(
        this,
        [this] {
            waiting_ = false;
            settle();
        },
        Qt::QueuedConnection);
}

std::vector<QPointer<QWidget>> WordRow::wordsNow() const {
    std::vector<QPointer<QWidget>> now;
    for (QAbstractButton* b : words_->findChildren<QAbstractButton*>())
        if (!b->isHidden() && b->parentWidget()->isVisibleTo(words_)) now.emplace_back(b);
    std::sort(now.begin(), now.end(), [this](const auto& a, const auto& b) { return leftOf(a, words_) < leftOf(b, words_); });
    return now;
}

void WordRow::settle() {
    all_ = wordsNow();
    QStringList names;
    for (const auto& word : all_) names << word->objectName();
    if (names != names_) first_ = 0; // others: from their beginning
    names_ = names;
    first_ = all_.empty() ? 0 : std::min(first_, all_.size() - 1);
    settling_ = true;
    const int own = std::max({height(), back_->sizeHint().width(), on_->sizeHint().width()});
    const bool whole = all_.empty() || rightOf(all_.back(), words_) <= width();
    if (whole) first_ = 0;
    const int from = first_ > 0 ? own + gap_px : 0, begin = all_.empty() ? 0 : leftOf(all_[first_], words_);
    const auto upTo = [&](int room) {
        std::size_t k = first_;
        while (k < all_.size() && (k == first_ || rightOf(all_[k], words_) - begin <= room)) ++k;
        return k;
    };
    after_ = upTo(width() - from);
    if (after_ < all_.size()) after_ = upTo(width() - from - own - gap_px);
    const int room = whole ? width() : std::min(width() - from, rightOf(all_[after_ - 1], words_) - begin);
    back_->setVisible(first_ > 0);
    on_->setVisible(after_ < all_.size());
    back_->setGeometry(0, 0, own, height());
    scroll_->setGeometry(from, 0, room, height());
    on_->setGeometry(from + room + gap_px, 0, own, height());
    scroll_->horizontalScrollBar()->setValue(whole ? 0 : begin);
    settling_ = false;
}

void WordRow::turn(bool on) {
    settle();
    if (on) {
        if (after_ < all_.size()) first_ = after_;
    } else if (first_ > 0) { // as many before it as stand there whole
        const int room = width() - 2 * (std::max(height(), back_->sizeHint().width()) + gap_px);
        const int end = rightOf(all_[first_ - 1], words_);
        std::size_t k = first_ - 1;
        while (k > 0 && end - leftOf(all_[k - 1], words_) <= room) --k;
        first_ = k;
    }
    settle();
}

} // namespace gorvet::desk
