#include "desk/shell/finder.hpp"

#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>
#include <algorithm>

namespace gorvet::desk {

namespace {
constexpr int place_role = Qt::UserRole;
}

Finder::Finder(QWidget* over) : QFrame(over), title_(new QLabel), field_(new QLineEdit), list_(new QListWidget) {
    setObjectName("finder");
    setProperty("card", true);
    hide();
    auto* column = new QVBoxLayout(this);
    title_->setProperty("second", true);
    field_->setObjectName("findField");
    field_->setAccessibleName(tr("find anything"));
    list_->setObjectName("findList");
    list_->setWordWrap(true);
    list_->setFocusPolicy(Qt::NoFocus);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    column->addWidget(title_);
    column->addWidget(field_);
    column->addWidget(list_, 1);
    field_->installEventFilter(this);
    connect(field_, &QLineEdit::textChanged, this, &Finder::filter);
    connect(list_, &QListWidget::itemClicked, this, [this](QListWidgetItem* item) { use(list_->row(item)); });
}

void Finder::open(std::vector<Findable> all, const QString& title) {
    all_ = std::move(all);
    title_->setText(title);
    const QSize room = parentWidget()->size();
    const QSize size(std::min(860, room.width() - 40), std::min(620, room.height() - 40));
    setGeometry((room.width() - size.width()) / 2, 20, size.width(), size.height());
    field_->clear();
    filter();
    show();
    raise();
    field_->setFocus();
}

int Finder::shown() const {
    int n = 0;
    for (int row = 0; row < list_->count(); ++row) n += list_->item(row)->data(place_role).isValid();
    return n;
}

void Finder::filter() {
    list_->clear();
    const QStringList words = field_->text().simplified().split(' ', Qt::SkipEmptyParts);
    const auto fits = [&](const Findable& f) {
        const QString all = f.section + ' ' + f.text + ' ' + f.hint;
        return std::all_of(words.begin(), words.end(), [&](const QString& w) { return all.contains(w, Qt::CaseInsensitive); });
    };
    // what has the words as they are typed stands before what has them anywhere
    std::vector<size_t> found;
    for (const bool as_typed : {true, false})
        for (size_t i = 0; i < all_.size(); ++i)
            if (fits(all_[i]) && all_[i].text.contains(field_->text().simplified(), Qt::CaseInsensitive) == as_typed)
                found.push_back(i);
    QString section;
    for (const size_t i : found) {
        const Findable& f = all_[i];
        if (f.section != section) {
            section = f.section;
            auto* head = new QListWidgetItem(section, list_);
            head->setFlags(Qt::NoItemFlags);
        }
        auto* item = new QListWidgetItem(
            f.hint.isEmpty() ? "    " + f.text : "    " + f.text + QString::fromUtf8("  ·  ") + f.hint, list_);
        item->setData(place_role, static_cast<int>(i));
    }
    for (int row = 0; row < list_->count(); ++row)
        if (list_->item(row)->data(place_role).isValid()) {
            list_->setCurrentRow(row);
            break;
        }
    if (list_->count() == 0) {
        auto* none = new QListWidgetItem(tr("Nothing is called so. Fewer letters find more."), list_);
        none->setFlags(Qt::NoItemFlags);
    }
}

void Finder::use(int row) {
    const auto* item = list_->item(row);
    if (!item || !item->data(place_role).isValid()) return;
    const auto run = all_[static_cast<size_t>(item->data(place_role).toInt())].use;
    shut();
    run();
}

void Finder::shut() {
    hide();
    emit closed();
}

bool Finder::eventFilter(QObject* watched, QEvent* event) {
    if (watched != field_ || event->type() != QEvent::KeyPress) return QFrame::eventFilter(watched, event);
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Escape) return shut(), true;
    if (key == Qt::Key_Return || key == Qt::Key_Enter) return use(list_->currentRow()), true;
    if (key != Qt::Key_Down && key != Qt::Key_Up) return false;
    // heads of sections are passed over
    for (int row = list_->currentRow(), step = key == Qt::Key_Down ? 1 : -1; row + step >= 0 && row + step < list_->count();) {
        row += step;
        if (!list_->item(row)->data(place_role).isValid()) continue;
        list_->setCurrentRow(row);
        break;
    }
    return true;
}

} // namespace gorvet::desk
