#include "desk/widgets/list_pane.hpp"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QSortFilterProxyModel>
#include <QTableView>
#include <QVBoxLayout>

#include <cmath>

namespace gorvet::desk {

namespace {

constexpr int order_role = Qt::UserRole;

/// Sorts figures by their size and words as people do; searches all columns for every word.
class Sorted : public QSortFilterProxyModel {
public:
    using QSortFilterProxyModel::QSortFilterProxyModel;
    void look(const QString& words) {
        words_ = words.split(' ', Qt::SkipEmptyParts);
        invalidateFilter();
    }

protected:
    bool filterAcceptsRow(int row, const QModelIndex& parent) const override {
        return std::all_of(words_.begin(), words_.end(), [&](const QString& word) {
            for (int c = 0; c < sourceModel()->columnCount(parent); ++c)
                if (sourceModel()->index(row, c, parent).data().toString().contains(word, Qt::CaseInsensitive)) return true;
            return false;
        });
    }
    bool lessThan(const QModelIndex& a, const QModelIndex& b) const override {
        const QVariant x = a.data(order_role);
        const QVariant y = b.data(order_role);
        if (x.isValid() && y.isValid()) return x.toDouble() < y.toDouble();
        if (x.isValid() != y.isValid()) return y.isValid(); // what has no figure stands first, and last when turned round
        return QString::localeAwareCompare(a.data().toString(), b.data().toString()) < 0;
    }

private:
    QStringList words_;
};

} // namespace

void ListModel::set(analysis::Listing listing) {
    beginResetModel();
    listing_ = std::move(listing);
    endResetModel();
}

void ListModel::setTheme(const Theme& theme) {
    theme_ = theme;
    if (!listing_.rows.empty()) emit dataChanged(index(0, 0), index(rowCount() - 1, columnCount() - 1));
}

int ListModel::rowCount(const QModelIndex& parent) const { return parent.isValid() ? 0 : static_cast<int>(listing_.rows.size()); }
int ListModel::columnCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(listing_.columns.size());
}

QVariant ListModel::data(const QModelIndex& at, int role) const {
    const analysis::ListRow& row = listing_.rows[static_cast<size_t>(at.row())];
    const analysis::ListCell& cell = row.cells[static_cast<size_t>(at.column())];
    switch (role) {
    case Qt::DisplayRole:
        return QString::fromStdString(cell.text) +
               (cell.mark == sheet::Mark::Assumed && !cell.text.empty() && !cell.text.ends_with('?') ? " ?" : "");
    case Qt::ToolTipRole:
    case Qt::EditRole: return QString::fromStdString(cell.text);
    case order_role: return cell.figure && std::isfinite(cell.order) ? QVariant(cell.order) : QVariant();
    case Qt::TextAlignmentRole: return static_cast<int>(Qt::AlignVCenter | (cell.figure ? Qt::AlignRight : Qt::AlignLeft));
    case Qt::FontRole: {
        QFont font = theme_.font(15); // its figures are as wide as each other
        font.setUnderline(cell.mark == sheet::Mark::Derived);
        return font;
    }
    case Qt::ForegroundRole:
        return row.severity && at.column() + 1 >= columnCount() - 2 ? theme_.color(sheet::inkOf(*row.severity)) : QVariant();
    default: return {};
    }
}

/// As wide as what stands in them, and no wider than leaves room for others: a long text goes on under the pointer and on its
/// card.
void ListPane::fitColumns() {
    table_->resizeColumnsToContents();
    constexpr int widest = 400;
    const int last = model_->columnCount({}) - 1;
    for (int c = 0; c < last; ++c) table_->setColumnWidth(c, std::min(table_->columnWidth(c), widest));
}

QVariant ListModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal) return {};
    if (role == Qt::TextAlignmentRole) { // over its column
        const bool figures = std::any_of(listing_.rows.begin(), listing_.rows.end(), [&](const analysis::ListRow& r) {
            return r.cells[static_cast<size_t>(section)].figure;
        });
        return static_cast<int>(Qt::AlignVCenter | (figures ? Qt::AlignRight : Qt::AlignLeft));
    }
    if (role != Qt::DisplayRole) return {};
    return QString::fromStdString(listing_.columns[static_cast<size_t>(section)]);
}

Qt::ItemFlags ListModel::flags(const QModelIndex& at) const {
    const bool edited = at.column() == listing_.edited && !listing_.rows[static_cast<size_t>(at.row())].line.empty();
    return QAbstractTableModel::flags(at) | (edited ? Qt::ItemIsEditable : Qt::NoItemFlags);
}

bool ListModel::setData(const QModelIndex& at, const QVariant& value, int role) {
    const analysis::ListRow& row = listing_.rows[static_cast<size_t>(at.row())];
    const QString text = value.toString().trimmed();
    if (role != Qt::EditRole || text.isEmpty() || text.toStdString() == row.cells[static_cast<size_t>(at.column())].text)
        return false;
    emit typed(QString::fromStdString(row.line) + text);
    return true;
}

ListPane::ListPane(QWidget* parent)
    : QWidget(parent), model_(new ListModel(this)), sorted_(new Sorted(this)), table_(new QTableView), words_(new QLineEdit),
      count_(new QLabel) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 4, 0, 4);
    auto* head = new QHBoxLayout;
    words_->setObjectName("listSearch");
    words_->setAccessibleName(tr("search the list"));
    words_->setPlaceholderText(tr("search"));
    words_->setMinimumWidth(260);
    words_->setMaximumWidth(360);
    words_->setClearButtonEnabled(true);
    count_->setObjectName("listCount");
    count_->setProperty("second", true);
    head->addWidget(words_);
    head->addWidget(count_, 1);
    column->addLayout(head);
    sorted_->setSourceModel(model_);
    sorted_->setDynamicSortFilter(true);
    table_->setObjectName("list");
    table_->setAccessibleName(tr("the list"));
    table_->setModel(sorted_);
    table_->setSortingEnabled(true);
    table_->sortByColumn(-1, Qt::AscendingOrder);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setSelectionMode(QAbstractItemView::SingleSelection);
    table_->setEditTriggers(QAbstractItemView::DoubleClicked | QAbstractItemView::EditKeyPressed);
    table_->setShowGrid(false);
    table_->setWordWrap(false);
    table_->setTabKeyNavigation(false);
    table_->verticalHeader()->hide();
    table_->horizontalHeader()->setStretchLastSection(true);
    table_->horizontalHeader()->setHighlightSections(false);
    column->addWidget(table_, 1);
    connect(words_, &QLineEdit::textChanged, this, [this](const QString& words) {
        static_cast<Sorted*>(sorted_)->look(words);
        count();
    });
    connect(table_, &QTableView::activated, this, &ListPane::pick);
    connect(table_, &QTableView::clicked, this, [this](const QModelIndex& at) {
        if (at.column() != model_->listing().edited) pick(at); // a tap there may be the first of two
    });
    connect(model_, &ListModel::typed, this, &ListPane::typed, Qt::QueuedConnection); // the list is made anew by it
}

void ListPane::pick(const QModelIndex& at) {
    const auto row = static_cast<size_t>(sorted_->mapToSource(at).row());
    if (row >= model_->listing().rows.size()) return;
    emit picked(QString::fromStdString(model_->listing().rows[row].tag),
                table_->viewport()->mapTo(this, table_->visualRect(at).center()));
}

void ListPane::setTheme(const Theme& theme) {
    scale_ = theme.textScale();
    model_->setTheme(theme);
    table_->verticalHeader()->setDefaultSectionSize(theme.px(32));
    fitColumns();
}

void ListPane::show(analysis::Listing listing) {
    const bool other = listing.columns != columns_;
    columns_ = listing.columns;
    const int row = table_->currentIndex().row();
    model_->set(std::move(listing));
    if (other) {
        table_->sortByColumn(-1, Qt::AscendingOrder);
        fitColumns();
    } else if (row >= 0) {
        table_->setCurrentIndex(sorted_->index(std::min(row, sorted_->rowCount() - 1), 0));
    }
    count();
}

void ListPane::count() {
    const int all = model_->rowCount();
    const QString one = QString::fromStdString(model_->listing().one);
    const QString every = all == 1 ? tr("1 %1").arg(one) : tr("%1 %2s").arg(all).arg(one);
    count_->setText(sorted_->rowCount() == all ? every : tr("%1 of %2").arg(sorted_->rowCount()).arg(every));
}

} // namespace gorvet::desk
