#pragma once

#include "desk/shell/theme.hpp"

#include <QList>
#include <QString>

class QTextDocument;

/// The handbook: docs/handbook, inside the program.
namespace gorvet::desk::handbook {

struct Page {
    QString key; ///< "tape": that of its bench, where it has one
    QString title;
    QString markdown;
};
/// All pages in the order of the first one's list.
const QList<Page>& pages();
/// The page of that key; nullptr when there is none.
const Page* pageOf(const QString& key);

/// A heading, or a row of a table, that words were found under.
struct Place {
    QString key;
    QString heading; ///< of the section; the page's title before its first
    QString text;    ///< the line, without its marks
};
/// Lines that hold all of the words, small and large letters alike; headings first.
QList<Place> search(const QString& words, int most = 40);

/// Lays a page out in our own dress; pictures are no wider than `width_px`.
void layOut(QTextDocument&, const Page&, const Theme&, double width_px);

/// All pages as one PDF on A4, with their pictures. Fails with a sentence.
QString writePdf(const QString& path);

} // namespace gorvet::desk::handbook
