#pragma once

#include "analysis/listing.hpp"
#include "desk/shell/theme.hpp"

#include <QAbstractTableModel>
#include <QWidget>

class QLabel;
class QLineEdit;
class QSortFilterProxyModel;
class QTableView;

namespace gorvet::desk {

/// A listing as a table of Qt's.
class ListModel : public QAbstractTableModel {
    Q_OBJECT
public:
    using QAbstractTableModel::QAbstractTableModel;
    void set(analysis::Listing);
    void setTheme(const Theme&);
    const analysis::Listing& listing() const { return listing_; }
    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex&, int role) const override;
    QVariant headerData(int section, Qt::Orientation, int role) const override;
    Qt::ItemFlags flags(const QModelIndex&) const override;
    bool setData(const QModelIndex&, const QVariant&, int role) override;

signals:
    /// What was typed in a row, as a line.
    void typed(const QString& line);

private:
    analysis::Listing listing_;
    Theme theme_{Ground::Day, 1.0};
};

/// A list with a line that searches it. A tap on a head sorts; Enter or a tap opens a row's card; F2, a double tap or a figure
/// edits where it can be.
class ListPane : public QWidget {
    Q_OBJECT
public:
    explicit ListPane(QWidget* parent = nullptr);
    void setTheme(const Theme&);
    /// The rows anew; what was searched, sorted and chosen stays.
    void show(analysis::Listing);
    QTableView* table() { return table_; }

signals:
    void picked(const QString& tag, const QPoint& at);
    void typed(const QString& line);

private:
    void count();
    void fitColumns();
    void pick(const QModelIndex&);
    ListModel* model_;
    QSortFilterProxyModel* sorted_;
    QTableView* table_;
    QLineEdit* words_;
    QLabel* count_;
    std::vector<std::string> columns_;
    double scale_ = 1;
};

} // namespace gorvet::desk
