#pragma once

#include "sheet/page.hpp"

#include <string>
#include <vector>

/// What the sheets of plans have alike: figures in a column, what is wrong below the drawing.
namespace gorvet::sheet {

/// Sentences under a drawing, from a height down.
class SheetWords {
public:
    SheetWords(Drawing& d, const Format& f, double y, double width, std::string tag)
        : d_(d), f_(f), y_(y), width_(width), tag_(std::move(tag)) {}
    double end() const { return y_; }
    void lines(const std::string& text, double indent = 0);
    /// What is wrong, tight or open: its mark, its sentence and what to do (a document's remarks).
    template <class Remark> void remarks(const std::vector<Remark>& all) {
        for (const Remark& r : all) judged(severityOf(r.verdict), r.sentence + " " + r.remedy);
    }
    void judged(Severity, const std::string& text);
    /// "Taken as usual, not measured: a, b."
    void list(const char* before, const std::vector<std::string>&);

private:
    Drawing& d_;
    const Format& f_;
    double y_, width_;
    std::string tag_;
};

/// Names at the left, figures at the right.
class FigureColumn {
public:
    FigureColumn(Drawing& d, const Format& f, P at, double width, std::string tag)
        : d_(d), f_(f), at_(at), width_(width), tag_(std::move(tag)) {}
    double end() const { return at_.y; }
    void head(const std::string& text);
    void row(const std::string& name, const std::string& figure, Mark mark = Mark::Derived);

private:
    Drawing& d_;
    const Format& f_;
    P at_;
    double width_;
    std::string tag_;
};

} // namespace gorvet::sheet
