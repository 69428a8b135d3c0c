#include "sheet/plan_words.hpp"

namespace gorvet::sheet {

void SheetWords::lines(const std::string& text, double indent) {
    for (const std::string& line : wrapped(text, width_ - indent, f_.small())) {
        d_.add(Text{{indent, y_}, line, f_.small(), Ink::Ink}, tag_);
        y_ += f_.small() * 1.35;
    }
    y_ += f_.px(3);
}

void SheetWords::judged(Severity severity, const std::string& text) {
    addMark(d_, {f_.px(8), y_ - f_.small() * 0.35}, f_.px(10), severity, tag_);
    lines(text, f_.px(24));
}

void SheetWords::list(const char* before, const std::vector<std::string>& all) {
    if (all.empty()) return;
    std::string text = before;
    for (std::size_t k = 0; k < all.size(); ++k) text += (k ? ", " : "") + all[k];
    lines(text + ".");
}

void FigureColumn::head(const std::string& text) {
    at_.y += f_.body() * 1.7;
    d_.add(Text{at_, text, f_.small(), Ink::Ink, Anchor::Left, Level::Base, Face::Bold}, tag_);
}

void FigureColumn::row(const std::string& name, const std::string& figure, Mark mark) {
    at_.y += f_.body() * 1.4;
    d_.add(Text{at_, name, f_.small(), Ink::Second}, tag_);
    d_.add(Text{{at_.x + width_, at_.y}, figure, f_.body(), Ink::Ink, Anchor::Right, Level::Base, Face::Mono, mark}, tag_);
}

} // namespace gorvet::sheet
