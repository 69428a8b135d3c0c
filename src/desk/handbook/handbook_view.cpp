#include "desk/handbook/handbook_view.hpp"

#include "desk/handbook/handbook.hpp"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QScrollBar>
#include <QTextBlock>
#include <QTextBrowser>
#include <QUrl>
#include <QVBoxLayout>

namespace gorvet::desk {

namespace {
constexpr int place_role = Qt::UserRole;
constexpr int heading_role = Qt::UserRole + 1;
} // namespace

HandbookView::HandbookView(QWidget* parent)
    : QWidget(parent), list_(new QListWidget), words_(new QLineEdit), text_(new QTextBrowser) {
    setObjectName("handbook");
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(24, 16, 24, 16);
    row->setSpacing(20);
    auto* side = new QVBoxLayout;
    words_->setObjectName("handbookSearch");
    words_->setAccessibleName(tr("search the handbook"));
    words_->setPlaceholderText(tr("search"));
    words_->setMinimumHeight(44);
    list_->setObjectName("handbookPages");
    list_->setAccessibleName(tr("pages of the handbook"));
    list_->setWordWrap(true);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    side->addWidget(words_);
    side->addWidget(list_, 1);
    const auto button = [&](const QString& text, const char* name, auto signal) {
        auto* b = new QPushButton(text);
        b->setObjectName(name);
        b->setMinimumHeight(44);
        connect(b, &QPushButton::clicked, this, signal);
        side->addWidget(b);
    };
    button(tr("As one PDF…"), "handbookPdf", &HandbookView::pdfWanted);
    button(tr("Back to the bench"), "handbookLeave", &HandbookView::left);
    auto* left = new QWidget;
    left->setLayout(side);
    left->setMinimumWidth(220);
    left->setMaximumWidth(320);
    row->addWidget(left, 1);
    text_->setObjectName("handbookText");
    text_->setAccessibleName(tr("page of the handbook"));
    text_->setOpenLinks(false);
    text_->setFrameShape(QFrame::NoFrame);
    row->addWidget(text_, 4);
    connect(words_, &QLineEdit::textChanged, this, &HandbookView::find);
    connect(list_, &QListWidget::itemClicked, this, [this](const QListWidgetItem* item) {
        show(item->data(place_role).toString(), item->data(heading_role).toString());
    });
    connect(list_, &QListWidget::itemActivated, this, [this](const QListWidgetItem* item) {
        show(item->data(place_role).toString(), item->data(heading_role).toString());
    });
    connect(text_, &QTextBrowser::anchorClicked, this, [this](const QUrl& to) {
        const QString key = to.fileName().section('.', 0, 0);
        if (handbook::pageOf(key)) open(key);
    });
    find({});
}

void HandbookView::setTheme(const Theme& theme) {
    theme_ = theme;
    if (!key_.isEmpty()) show(key_, heading_);
}

void HandbookView::open(const QString& key, const QString& heading) {
    words_->clear();
    show(handbook::pageOf(key) ? key : "index", heading);
    words_->setFocus();
}

double HandbookView::pictureWidth() const { return std::max(200, text_->viewport()->width() - 40); }

void HandbookView::show(const QString& key, const QString& heading) {
    const handbook::Page* page = handbook::pageOf(key);
    if (!page) return;
    key_ = key;
    heading_ = heading;
    text_->document()->clear();
    handbook::layOut(*text_->document(), *page, theme_, pictureWidth());
    text_->verticalScrollBar()->setValue(0);
    for (int i = 0; i < list_->count(); ++i)
        if (words_->text().isEmpty() && list_->item(i)->data(place_role) == key) list_->setCurrentRow(i);
    if (heading.isEmpty()) return;
    for (QTextBlock b = text_->document()->begin(); b.isValid(); b = b.next())
        if (b.blockFormat().headingLevel() && b.text() == heading) {
            QTextCursor at(b);
            text_->setTextCursor(at);
            text_->verticalScrollBar()->setValue(
                static_cast<int>(text_->cursorRect(at).top() + text_->verticalScrollBar()->value() - theme_.px(12)));
        }
}

void HandbookView::find(const QString& words) {
    list_->clear();
    if (words.trimmed().isEmpty()) {
        for (const handbook::Page& page : handbook::pages()) {
            auto* item = new QListWidgetItem(page.title, list_);
            item->setData(place_role, page.key);
        }
        return;
    }
    for (const handbook::Place& place : handbook::search(words)) {
        auto* item =
            new QListWidgetItem(place.text == place.heading ? place.heading : place.heading + "\n" + place.text.left(120), list_);
        item->setData(place_role, place.key);
        item->setData(heading_role, place.heading);
    }
    if (!list_->count()) {
        auto* none = new QListWidgetItem(tr("nothing of these words"), list_);
        none->setFlags(Qt::NoItemFlags);
    }
}

void HandbookView::resizeEvent(QResizeEvent* e) {
    QWidget::resizeEvent(e);
    if (!key_.isEmpty() && e->size().width() != e->oldSize().width()) show(key_, heading_);
}

} // namespace gorvet::desk
