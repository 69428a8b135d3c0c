#include "desk/shell/verb_strip.hpp"

#include "desk/widgets/drawing_painter.hpp"

#include <QButtonGroup>
#include <QFontMetrics>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QPainter>
#include <QScrollArea>
#include <QToolButton>
#include <QVBoxLayout>

namespace gorvet::desk {

VerbButton::VerbButton(const QString& name, QWidget* parent) : QPushButton(name, parent) {
    setObjectName("verb" + name);
    setProperty("verb", true);
    setCheckable(true);
    setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Expanding);
}

void VerbButton::setWorst(analysis::Worst worst, bool any) {
    worst_ = worst;
    any_ = any;
    const QString word = worst.severity == sheet::Severity::Good   ? tr("nothing to see to")
                         : worst.severity == sheet::Severity::Warn ? tr("%1 doubtful").arg(worst.count)
                                                                   : tr("%1 bad").arg(worst.count);
    setAccessibleName(text() + (any ? ": " + word : QString()));
    updateGeometry();
    update();
}

void VerbButton::setTheme(const Theme& theme) {
    theme_ = theme;
    updateGeometry();
    update();
}

QSize VerbButton::sizeHint() const {
    const QFontMetrics m(theme_.font(22, sheet::Face::Bold)); // as wide when it is chosen and marked as when it is not
    return {m.horizontalAdvance(text()) + theme_.px(60), theme_.px(54)};
}

void VerbButton::paintEvent(QPaintEvent*) {
    QPainter q(this);
    q.setRenderHint(QPainter::Antialiasing);
    const QFont font = theme_.font(22, isChecked() ? sheet::Face::Bold : sheet::Face::Sans);
    q.setFont(font);
    q.setPen(theme_.color(sheet::Ink::Ink));
    const int text_width = QFontMetrics(font).horizontalAdvance(text());
    const double base = height() / 2.0 + theme_.px(7);
    q.drawText(QPointF(theme_.px(8), base), text());
    if (any_) {
        sheet::Drawing marks;
        sheet::addMark(marks, {static_cast<double>(theme_.px(26) + text_width), base - theme_.px(7)}, theme_.px(17),
                       worst_.severity);
        paintItems(q, sheet::flatten(marks), theme_);
        if (worst_.severity != sheet::Severity::Good) {
            q.setFont(theme_.font(15));
            q.setPen(theme_.color(sheet::Ink::Second));
            q.drawText(QPointF(theme_.px(8) + text_width + theme_.px(32), base), QString::number(worst_.count));
        }
    }
    if (isChecked())
        q.fillRect(QRectF(theme_.px(6), height() - theme_.px(5), text_width + theme_.px(4), theme_.px(3)),
                   theme_.color(sheet::Ink::Ink));
    if (hasFocus()) {
        q.setPen(QPen(theme_.color(sheet::Ink::Ink), 1, Qt::DotLine));
        q.drawRect(rect().adjusted(1, 3, -2, -4));
    }
}

VerbStrip::VerbStrip(const std::vector<const Bench*>& benches, QMenu* build_menu, QWidget* parent)
    : QWidget(parent), name_(new QLabel), status_(new QLabel), menu_(new QToolButton) {
    setObjectName("verbStrip");
    setAttribute(Qt::WA_StyledBackground);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(16, 0, 16, 0);
    row->setSpacing(8);
    // with large text the verbs scroll; the build's name and "kept" keep their room
    scroll_ = new QScrollArea;
    scroll_->setObjectName("verbScroll");
    scroll_->setFrameShape(QFrame::NoFrame);
    scroll_->setWidgetResizable(true);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll_->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll_->setFocusPolicy(Qt::NoFocus);
    auto* verbs = new QWidget;
    auto* verb_row = new QHBoxLayout(verbs);
    verb_row->setContentsMargins(0, 0, 0, 0);
    verb_row->setSpacing(8);
    auto* group = new QButtonGroup(this);
    group->setExclusive(true);
    for (size_t i = 0; i < benches.size(); ++i) {
        auto* button = new VerbButton(benches[i]->name(), this);
        button->setToolTip(tr("Alt+%1").arg(i + 1));
        group->addButton(button, static_cast<int>(i));
        buttons_.push_back(button);
        verb_row->addWidget(button);
    }
    verb_row->addStretch(1);
    scroll_->setWidget(verbs);
    row->addWidget(scroll_, 1);
    connect(group, &QButtonGroup::idClicked, this, &VerbStrip::chosen);
    work_ = new QLabel;
    work_->setObjectName("workText");
    cancel_ = new QPushButton(tr("stop"));
    cancel_->setObjectName("workCancel");
    cancel_->setAccessibleName(tr("stop the long work"));
    connect(cancel_, &QPushButton::clicked, this, &VerbStrip::cancelled);
    for (QWidget* widget : {static_cast<QWidget*>(work_), static_cast<QWidget*>(cancel_)}) {
        widget->hide();
        row->addWidget(widget);
    }
    auto* words = new QVBoxLayout;
    words->setSpacing(0);
    name_->setObjectName("buildName");
    status_->setObjectName("keptText");
    status_->setProperty("second", true);
    for (auto* label : {name_, status_}) {
        label->setAlignment(Qt::AlignRight);
        label->setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Preferred);
        words->addWidget(label, 0, Qt::AlignRight);
    }
    words->setContentsMargins(0, 6, 0, 6);
    row->addLayout(words);
    menu_->setObjectName("buildMenuButton");
    menu_->setText(tr("Build"));
    menu_->setAccessibleName(tr("Build: new, open, import, export, undo"));
    menu_->setPopupMode(QToolButton::InstantPopup);
    menu_->setMenu(build_menu);
    row->addWidget(menu_);
}

void VerbStrip::setCurrent(int index) {
    for (size_t i = 0; i < buttons_.size(); ++i) {
        buttons_[i]->setChecked(static_cast<int>(i) == index);
        buttons_[i]->updateGeometry();
    }
    scroll_->widget()->layout()->activate();
    scroll_->ensureWidgetVisible(buttons_[static_cast<size_t>(index)], 24, 0);
}

void VerbStrip::setWorst(int index, analysis::Worst worst, bool any) {
    buttons_[static_cast<size_t>(index)]->setWorst(worst, any);
}

void VerbStrip::setWords(const QString& build_name, const QString& status) {
    name_->setText(build_name);
    status_->setText(status);
}

void VerbStrip::setWork(const QString& what, double share) {
    work_what_ = what;
    work_share_ = QString::fromUtf8("%1 %").arg(static_cast<int>(100 * share));
    work_->setToolTip(what);
    work_->setAccessibleName(what);
    work_->setVisible(!what.isEmpty());
    cancel_->setVisible(!what.isEmpty());
    fitWork();
}

void VerbStrip::fitWork() {
    // the benches keep their names: what is at work says as much as there is room for, its share at the least
    if (work_what_.isEmpty()) return work_->clear();
    const int words = std::max(name_->sizeHint().width(), status_->sizeHint().width()), gaps = 5 * layout()->spacing() + 2 * 16;
    const int room =
        width() - scroll_->widget()->sizeHint().width() - cancel_->sizeHint().width() - words - menu_->sizeHint().width() - gaps;
    const QFontMetrics metrics = work_->fontMetrics();
    const QString ends = QString::fromUtf8(" · ") + work_share_;
    const int left = room - metrics.horizontalAdvance(ends);
    const QString said = metrics.elidedText(work_what_, Qt::ElideRight, left);
    work_->setText(left > 3 * metrics.horizontalAdvance(QString::fromUtf8("…")) ? said + ends : work_share_);
}

void VerbStrip::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    fitWork();
}

bool VerbStrip::working() const { return cancel_->isVisible(); }

void VerbStrip::setTheme(const Theme& theme) {
    for (auto* button : buttons_) button->setTheme(theme);
    setFixedHeight(theme.px(54));
}

} // namespace gorvet::desk
