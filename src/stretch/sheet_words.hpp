#pragma once

#include "build/remark.hpp"
#include "sheet/page.hpp"

#include <string>
#include <vector>

/// What the sheets of plans have alike: figures in a column, what is wrong below the drawing. Internal to this room.
namespace gorvet::stretch {

/// Sentences under a drawing, from a height down.
class SheetWords {
public:
    SheetWords(sheet::Drawing& d, const sheet::Format& f, double y, double width, std::string tag)
        : d_(d), f_(f), y_(y), width_(width), tag_(std::move(tag)) {}
    double end() const { return y_; }
    void lines(const std::string& text, double indent = 0);
    void remarks(const std::vector<build::Remark>&);
    /// "Taken as usual, not measured: a, b."
    void list(const char* before, const std::vector<std::string>&);

private:
    sheet::Drawing& d_;
    const sheet::Format& f_;
    double y_, width_;
    std::string tag_;
};

/// Names at the left, figures at the right.
class FigureColumn {
public:
    FigureColumn(sheet::Drawing& d, const sheet::Format& f, sheet::P at, double width, std::string tag)
        : d_(d), f_(f), at_(at), width_(width), tag_(std::move(tag)) {}
    double end() const { return at_.y; }
    void head(const std::string& text);
    void row(const std::string& name, const std::string& figure, sheet::Mark mark = sheet::Mark::Derived);

private:
    sheet::Drawing& d_;
    const sheet::Format& f_;
    sheet::P at_;
    double width_;
    std::string tag_;
};

} // namespace gorvet::stretch
