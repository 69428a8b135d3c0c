#include "entry/form_pattern.hpp"

#include <algorithm>
#include <array>
#include <cctype>

namespace gorvet::entry {

namespace {

constexpr std::string_view dots = "…";

bool isSlot(std::string_view word, bool among_others) {
    static constexpr std::array<std::string_view, 4> others{"text", "x", "y", "z"};
    if (isFigureSlot(word)) return word != "x" && word != "y" && word != "z" ? true : !among_others;
    if (std::find(others.begin(), others.end(), word) != others.end()) return word == "text" || !among_others;
    return word.size() > 1 && std::all_of(word.begin(), word.end(), [](unsigned char c) { return std::isupper(c) || c == '-'; });
}

class PatternReader {
public:
    explicit PatternReader(std::string_view text) : text_(text) {
        // "100 x 60": where no y is asked for, an x stands for itself
        coordinates_ = text.find(" y ") != std::string_view::npos || text.find(" y]") != std::string_view::npos;
    }
    std::vector<FormItem> items() {
        std::vector<FormItem> list;
        while (at_ < text_.size() && text_[at_] != ']') {
            if (text_[at_] == ' ') {
                ++at_;
            } else if (text_[at_] == '[') {
                ++at_;
                FormItem group;
                group.group = items();
                ++at_; // its end
                list.push_back(std::move(group));
            } else {
                list.push_back(item());
            }
        }
        return list;
    }

private:
    FormItem item() {
        const auto end = text_.find_first_of(" []", at_);
        std::string_view token = text_.substr(at_, end == std::string_view::npos ? end : end - at_);
        at_ += token.size();
        FormItem item;
        if (token.ends_with(dots)) {
            item.repeat = true;
            token.remove_suffix(dots.size());
        }
        const bool several = token.find('|') != std::string_view::npos;
        while (!token.empty()) {
            const auto bar = token.find('|');
            const std::string_view one = token.substr(0, bar);
            token.remove_prefix(bar == std::string_view::npos ? token.size() : bar + 1);
            const bool literal_x = one == "x" && !coordinates_;
            (isSlot(one, several) && !literal_x ? item.slots : item.words).emplace_back(one);
        }
        return item;
    }
    std::string_view text_;
    std::size_t at_ = 0;
    bool coordinates_ = false;
};

} // namespace

bool isFigureSlot(std::string_view slot) {
    static constexpr std::array<std::string_view, 11> figures{"length", "angle", "mass", "figure", "number", "n",
                                                              "x",      "y",     "z",    "AHEAD",  "BEHIND"};
    return std::find(figures.begin(), figures.end(), slot) != figures.end();
}

std::vector<FormPattern> readPattern(std::string_view pattern) {
    std::vector<FormPattern> list;
    while (!pattern.empty()) {
        const auto comma = pattern.find(", ");
        std::string_view one = pattern.substr(0, comma);
        pattern.remove_prefix(comma == std::string_view::npos ? pattern.size() : comma + 2);
        FormPattern form;
        if (one.starts_with(dots)) {
            form.suffix = true;
            one.remove_prefix(dots.size());
        }
        form.items = PatternReader(one).items();
        list.push_back(std::move(form));
    }
    return list;
}

} // namespace gorvet::entry
