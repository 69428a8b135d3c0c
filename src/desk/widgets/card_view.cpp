#include "desk/widgets/card_view.hpp"

#include <QGridLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace gorvet::desk {

namespace {

const char* severityName(sheet::Severity s) {
    return s == sheet::Severity::Good ? "good" : s == sheet::Severity::Warn ? "warn" : "bad";
}

/// Measured plain, derived with a thin underline, assumed with dots and a question mark.
QString marked(const analysis::CardRow& row) {
    QString text = QString::fromStdString(row.value).toHtmlEscaped();
    if (row.mark == sheet::Mark::Assumed) text = "<span style='text-decoration: underline'>" + text + " ?</span>";
    if (row.mark == sheet::Mark::Derived) text = "<u>" + text + "</u>";
    if (row.strong) text = "<b>" + text + "</b>";
    return text;
}

} // namespace

CardView::CardView(QWidget* parent) : QFrame(parent), layout_(new QVBoxLayout(this)) {
    setObjectName("card");
    setProperty("card", true);
    layout_->setContentsMargins(14, 12, 14, 12);
    layout_->setSpacing(6);
    hide();
}

void CardView::clear() {
    photo_prefix_.clear();
    photo_about_.reset();
    const auto empty = [](QLayout* layout, const auto& self) -> void {
        while (QLayoutItem* child = layout->takeAt(0)) {
            if (child->widget()) {
                child->widget()->hide();
                child->widget()->deleteLater();
            }
            if (child->layout()) self(child->layout(), self);
            delete child;
        }
    };
    empty(layout_, empty);
}

QPushButton* CardView::addHead(const analysis::Card& card, const Theme& theme) {
    auto* head = new QHBoxLayout;
    auto* title = new QLabel(QString::fromStdString(card.title));
    title->setObjectName("cardTitle");
    title->setFont(theme.font(18, sheet::Face::Bold));
    title->setStyleSheet(QString("font-size: %1px; font-weight: bold").arg(theme.px(18)));
    // a long title breaks; a short one leaves its verdict beside it
    const bool long_title = card.title.size() + card.word.size() > 24;
    title->setWordWrap(long_title);
    head->addWidget(title, long_title ? 1 : 0);
    if (!card.word.empty()) {
        auto* word = new QLabel(QString::fromUtf8("· ") + QString::fromStdString(card.word));
        word->setObjectName("cardWord");
        word->setProperty("role", severityName(card.severity));
        word->setStyleSheet(QString("font-size: %1px; font-weight: bold").arg(theme.px(18)));
        head->addWidget(word);
    }
    if (!long_title) head->addStretch(1);
    auto* shut = new QPushButton(tr("close"));
    shut->setObjectName("cardClose");
    shut->setAccessibleName(tr("close the card"));
    connect(shut, &QPushButton::clicked, this, &CardView::close);
    head->addWidget(shut);
    layout_->addLayout(head);
    return shut;
}

void CardView::addRows(const analysis::Card& card) {
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(18);
    grid->setVerticalSpacing(3);
    int row_number = 0;
    for (const auto& row : card.rows) {
        auto* label = new QLabel(QString::fromStdString(row.label));
        label->setProperty("second", true);
        auto* value = new QLabel(marked(row));
        value->setTextFormat(Qt::RichText);
        value->setAlignment(Qt::AlignRight);
        value->setObjectName("cardValue_" + QString::fromStdString(row.label).replace(' ', '_'));
        grid->addWidget(label, row_number, 0);
        grid->addWidget(value, row_number++, 1);
    }
    layout_->addLayout(grid);
    for (const auto& sentence : card.sentences) {
        auto* text = new QLabel(QString::fromStdString(sentence));
        text->setWordWrap(true);
        text->setObjectName("cardSentence");
        layout_->addWidget(text);
    }
}

QLineEdit* CardView::addActions(const analysis::Card& card) {
    QLineEdit* first_field = nullptr;
    for (const auto& action : card.actions) {
        const QString prefix = QString::fromStdString(action.line);
        if (action.picks_photo) photo_prefix_ = prefix;
        if (action.photo) photo_about_ = action.photo;
        if (action.asks) {
            auto* row = new QHBoxLayout;
            auto* label = new QLabel(QString::fromStdString(action.label));
            label->setProperty("second", true);
            auto* field = new QLineEdit(QString::fromStdString(action.current));
            field->setObjectName("cardField_" + QString::fromStdString(action.label).replace(' ', '_'));
            field->setAccessibleName(QString::fromStdString(card.title + ", " + action.label));
            connect(field, &QLineEdit::returnPressed, this, [this, field, prefix] {
                if (!field->text().trimmed().isEmpty()) emit line(prefix + field->text().trimmed());
            });
            row->addWidget(label);
            row->addWidget(field, 1);
            layout_->addLayout(row);
            if (!first_field) first_field = field;
        } else {
            auto* button = new QPushButton(QString::fromStdString(action.label));
            button->setObjectName("cardAction_" + QString::fromStdString(action.label).replace(' ', '_'));
            connect(button, &QPushButton::clicked, this, [this, prefix, photo = action.picks_photo, about = action.photo] {
                if (about)
                    emit photosFor(*about);
                else if (photo)
                    emit photoFor(prefix);
                else
                    emit line(prefix);
            });
            layout_->addWidget(button);
        }
    }
    return first_field;
}

void CardView::standNear(const QPoint& near, const Theme& theme) {
    setFixedWidth(std::min(parentWidget()->width() - 20, theme.px(350)));
    layout_->activate();
    // sentences break at this width: what they need in height follows from it, not from the size they would like
    const int needed = layout_->hasHeightForWidth() ? layout_->totalHeightForWidth(width()) : sizeHint().height();
    const int height = std::min(needed, parentWidget()->height() - 8);
    resize(width(), height);
    int x = near.x() + theme.px(28);
    if (x + width() > parentWidget()->width() - 8) x = near.x() - theme.px(28) - width();
    x = std::clamp(x, 8, std::max(8, parentWidget()->width() - width() - 8));
    int bottom = parentWidget()->height();
    if (below_ && below_->isVisible())
        if (const int top = below_->mapTo(parentWidget(), QPoint()).y() - 4; top - height >= 8) bottom = top;
    const int y = std::clamp(near.y() - height / 3, 4, std::max(4, bottom - height - 4));
    move(x, y);
}

void CardView::show(const analysis::Card& card, const QString& history, const QPoint& near, const Theme& theme) {
    clear();
    setProperty("severity", card.word.empty() ? "good" : severityName(card.severity));
    setStyleSheet(QString()); // re-polish after the property changed
    setAccessibleName(QString::fromStdString(card.title + (card.word.empty() ? "" : ": " + card.word)));
    QPushButton* shut = addHead(card, theme);
    addRows(card);
    QLineEdit* first_field = addActions(card);
    error_ = new QLabel;
    error_->setObjectName("cardError");
    error_->setProperty("role", "bad");
    error_->setWordWrap(true);
    error_->hide();
    layout_->addWidget(error_);
    if (!history.isEmpty()) {
        auto* who = new QLabel(history);
        who->setProperty("second", true);
        who->setObjectName("cardHistory");
        layout_->addWidget(who);
    }
    standNear(near, theme);
    QFrame::show();
    raise();
    if (first_field) {
        first_field->setFocus();
        first_field->selectAll();
    } else {
        shut->setFocus();
    }
}

void CardView::say(const QString& error) {
    if (!error_) return;
    error_->setText(error);
    error_->show();
    resize(width(), std::min(layout_->totalHeightForWidth(width()), parentWidget()->height() - 8));
}

void CardView::close() {
    if (!isVisible()) return;
    hide();
    emit closed();
}

void CardView::keyPressEvent(QKeyEvent* e) {
    if (e->key() == Qt::Key_Escape)
        close();
    else
        QFrame::keyPressEvent(e);
}

} // namespace gorvet::desk
