#pragma once

#include "sheet/drawing.hpp"

/// What printed pages share: frame, title, cautions, the check bar, tables.
namespace gorvet::sheet {

/// Of a page that lies on its long side, mm.
struct PaperSize {
    double width = 297;
    double height = 210;
};

struct PageTitle {
    std::string title;
    std::string build;
    std::string note; ///< "kept 14:02, revision 12"
    PaperSize paper = {};
};

/// The part of a page that is free for its content, mm.
struct Area {
    double x = 0;
    double y = 0;
    double width = 0;
    double height = 0;
};

inline constexpr PaperSize a4{297, 210};
inline constexpr PaperSize letter{279.4, 215.9};
inline constexpr PaperSize a3{420, 297};

/// A landscape page with title, a line to sign on, and the cautions at its foot. `area` receives what is left.
Drawing blankPage(const PageTitle&, const std::vector<std::string>& cautions, Area& area);
/// Writes "page n of m" on each.
void numberPages(std::vector<Drawing>&);

/// The scale of a view on paper, in words: "1 : 2.3. Its figures count; do not measure from the print." Nothing on a screen,
/// where a view has none.
void addScale(Drawing&, P at, double mm_per_mm, const Format&);
/// A bar of exactly 100 mm with its words: whoever prints the page can check the printer's scale. Only for pages at 1 : 1.
void addCheckBar(Drawing&, P left_end);

struct Column {
    std::string heading;
    double width = 20;
    Anchor anchor = Anchor::Left;
    Face face = Face::Sans;
    bool wraps = false; ///< a text that is wider is broken into lines
};
/// What a whole table takes in height.
double tableHeight(const std::vector<Column>&, const std::vector<std::vector<std::string>>& rows, double text_size);
/// Columns that are wider than the area together are all narrowed alike.
std::vector<Column> fittedTo(std::vector<Column>, double width);
/// A ruled table, as many rows as fit into `height`; returns the index of the first row that did not.
size_t addTable(Drawing&, const Area&, const std::vector<Column>&, const std::vector<std::vector<std::string>>& rows,
                double text_size, size_t first = 0);

/// A text broken into lines of at most `width`; a word that is wider stands alone.
std::vector<std::string> wrapped(const std::string& text, double width, double size, Face face = Face::Sans);

} // namespace gorvet::sheet
