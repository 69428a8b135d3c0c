#include "desk/handbook/handbook.hpp"

#include "sheet/fonts.hpp"

#include <QFile>
#include <QImage>
#include <QPainter>
#include <QPdfWriter>
#include <QRegularExpression>
#include <QResource>
#include <QSaveFile>
#include <QTextBlock>
#include <QTextCursor>
#include <QTextDocument>
#include <QTextTable>
#include <QUrl>

#include <cmath>

extern "C" const unsigned char gorvet_handbook_resource; ///< the first byte: the pages with the pictures that they show

namespace gorvet::desk::handbook {

namespace {

[[maybe_unused]] const bool handbook_there = QResource::registerResource(&gorvet_handbook_resource);

const QString folder = QStringLiteral(":/docs/handbook/");

QString contentOf(const QString& key) {
    QFile file(folder + key + ".md");
    return file.open(QIODevice::ReadOnly) ? QString::fromUtf8(file.readAll()) : QString();
}

Page pageFrom(const QString& key) {
    const QString text = contentOf(key);
    const QString title = text.section('\n', 0, 0).remove(QRegularExpression("^# "));
    return {key, title, text};
}

/// A line as it is read: without the marks of its dress.
QString plain(QString line) {
    static const QRegularExpression picture("!\\[[^\\]]*\\]\\([^)]*\\)");
    static const QRegularExpression link("\\[([^\\]]*)\\]\\([^)]*\\)");
    line.remove(picture).replace(link, "\\1").remove('`').remove("**").remove('*');
    if (line.startsWith('|')) line = line.split('|', Qt::SkipEmptyParts).join(QString::fromUtf8(" · "));
    return line.remove(QRegularExpression("^#+ ")).remove(QRegularExpression("^\\s*([-]|\\d+\\.) ")).simplified();
}

} // namespace

const QList<Page>& pages() {
    static const QList<Page> list = [] {
        QList<Page> all{pageFrom("index")};
        static const QRegularExpression link("\\]\\((\\w+)\\.md\\)");
        for (auto i = link.globalMatch(all.front().markdown); i.hasNext();) {
            const QString key = i.next().captured(1);
            if (!std::any_of(all.begin(), all.end(), [&](const Page& p) { return p.key == key; })) all << pageFrom(key);
        }
        return all;
    }();
    return list;
}

const Page* pageOf(const QString& key) {
    for (const Page& p : pages())
        if (p.key == key) return &p;
    return nullptr;
}

QList<Place> search(const QString& words, int most) {
    const QStringList wanted = words.split(' ', Qt::SkipEmptyParts);
    QList<Place> headings;
    QList<Place> lines;
    if (wanted.isEmpty()) return {};
    for (const Page& page : pages()) {
        QString heading = page.title;
        for (const QString& raw : page.markdown.split('\n')) {
            if (raw.startsWith('#')) heading = plain(raw);
            const QString text = plain(raw);
            if (text.isEmpty()) continue;
            const bool all = std::all_of(wanted.begin(), wanted.end(),
                                         [&](const QString& w) { return text.contains(w, Qt::CaseInsensitive); });
            if (all) (raw.startsWith('#') ? headings : lines) << Place{page.key, heading, text};
        }
    }
    return (headings + lines).mid(0, most);
}

void layOut(QTextDocument& document, const Page& page, const Theme& theme, double width_px) {
    document.setBaseUrl(QUrl("qrc" + folder));
    document.setDefaultFont(theme.font(17));
    document.setMarkdown(page.markdown, QTextDocument::MarkdownDialectGitHub);
    const QColor ink = theme.color(sheet::Ink::Ink);
    const QColor second = theme.color(sheet::Ink::Second);
    const QColor panel = theme.color(sheet::Ink::Panel);
    QTextCursor all(&document);
    all.select(QTextCursor::Document);
    QTextCharFormat in_ink;
    in_ink.setForeground(ink);
    all.mergeCharFormat(in_ink);
    for (QTextBlock block = document.begin(); block.isValid(); block = block.next()) {
        QTextCursor at(block);
        QTextBlockFormat room = block.blockFormat();
        const int level = room.headingLevel();
        const bool code = block.charFormat().fontFixedPitch() || room.hasProperty(QTextFormat::BlockCodeLanguage) ||
                          room.hasProperty(QTextFormat::BlockCodeFence) || room.nonBreakableLines();
        room.setLineHeight(code ? 125 : 135, QTextBlockFormat::ProportionalHeight);
        if (level) {
            room.setTopMargin(theme.px(level == 1 ? 4 : 26));
            room.setBottomMargin(theme.px(8));
        } else if (code) {
            room.setBackground(panel);
            room.setLeftMargin(theme.px(16));
        } else if (!at.currentTable() && !at.currentList()) {
            room.setBottomMargin(theme.px(12));
        }
        at.setBlockFormat(room);
        for (auto i = block.begin(); !i.atEnd(); ++i) {
            const QTextFragment f = i.fragment();
            QTextCursor part(&document);
            part.setPosition(f.position());
            part.setPosition(f.position() + f.length(), QTextCursor::KeepAnchor);
            if (f.charFormat().isImageFormat()) {
                QTextImageFormat image = f.charFormat().toImageFormat();
                const QImage picture(QString(image.name()).replace("../", ":/docs/"));
                image.setName(QString(image.name()).replace("../", "qrc:/docs/"));
                const double scale = std::min(1.0, width_px / std::max(1, picture.width()));
                image.setWidth(picture.width() * scale);
                image.setHeight(picture.height() * scale);
                part.mergeCharFormat(image);
                continue;
            }
            QTextCharFormat dress;
            const bool mono = f.charFormat().fontFixedPitch() || code;
            if (level) {
                dress.setProperty(QTextFormat::FontSizeAdjustment, 0);
                dress.setProperty(QTextFormat::FontPixelSize, theme.px(level == 1 ? 28 : 22));
                dress.setFontWeight(QFont::Bold);
            }
            if (mono) dress.setFontFamilies({QString::fromUtf8(sheet::mono_family)});
            if (f.charFormat().isAnchor()) {
                dress.setFontUnderline(true);
                dress.setForeground(ink);
            }
            part.mergeCharFormat(dress);
        }
    }
    for (QTextFrame* frame : document.rootFrame()->childFrames())
        if (auto* table = qobject_cast<QTextTable*>(frame)) {
            QTextTableFormat lines = table->format();
            lines.setBorder(0);
            lines.setBorderCollapse(true);
            lines.setCellSpacing(0);
            lines.setCellPadding(theme.px(6));
            lines.setTopMargin(theme.px(4));
            lines.setBottomMargin(theme.px(14));
            lines.setBorderBrush(second);
            table->setFormat(lines);
            for (int r = 0; r < table->rows(); ++r)
                for (int c = 0; c < table->columns(); ++c) {
                    QTextTableCell cell = table->cellAt(r, c);
                    QTextTableCellFormat dress = cell.format().toTableCellFormat();
                    dress.setBottomBorder(1);
                    dress.setBottomBorderStyle(QTextFrameFormat::BorderStyle_Solid);
                    dress.setBottomBorderBrush(second);
                    cell.setFormat(dress);
                }
        }
}

QString writePdf(const QString& path) {
    QSaveFile file(path);
    if (!file.open(QIODevice::WriteOnly)) return QObject::tr("%1 can't be written: %2.").arg(path, file.errorString());
    {
        QPdfWriter writer(&file);
        writer.setTitle("Gorvet: the handbook");
        writer.setPageSize(QPageSize(QPageSize::A4));
        writer.setPageMargins(QMarginsF(18, 16, 18, 18), QPageLayout::Millimeter);
        constexpr int dpi = 120; // a page of 17 px type is then read at arm's length
        writer.setResolution(dpi);
        QPainter painter(&writer);
        const QSizeF size(writer.width(), writer.height() - 30);
        const Theme theme(Ground::Day, 1.0);
        int number = 0;
        for (const Page& page : pages()) {
            QTextDocument document;
            layOut(document, page, theme, size.width());
            document.setPageSize(size);
            document.setDocumentMargin(0);
            for (int k = 0; k < document.pageCount(); ++k) {
                if (number) writer.newPage();
                ++number;
                painter.save();
                painter.translate(0, -k * size.height());
                document.drawContents(&painter, QRectF(0, k * size.height(), size.width(), size.height()));
                painter.restore();
                painter.setPen(theme.color(sheet::Ink::Second));
                painter.setFont(theme.font(13));
                painter.drawText(
                    QRectF(0, size.height() + 8, size.width(), 22), Qt::AlignRight,
                    QString("%1 · %2").arg(page.title, QString::number(number)).replace(" · ", QString::fromUtf8(" · ")));
            }
        }
    }
    return file.commit() ? QString() : QObject::tr("%1 can't be written: %2.").arg(path, file.errorString());
}

} // namespace gorvet::desk::handbook
