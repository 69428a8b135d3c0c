#include "entry/line.hpp"

#include "entry/entry.hpp"

#include <algorithm>

namespace gorvet::entry {

namespace {
bool startsCharacter(char c) { return (static_cast<unsigned char>(c) & 0xC0) != 0x80; }
} // namespace

Line::Line(std::string_view text) : text_(text) {
    int column = 0;
    size_t i = 0;
    while (i < text.size()) {
        if (text[i] == ' ' || text[i] == '\t') {
            ++i;
            ++column;
            continue;
        }
        Word word;
        if (words_.size() >= most_words)
            throw Failure{column, "The line has more words than any entry needs.", "Type one thing after the other."};
        word.column = column;
        word.byte = i;
        const bool opens = text[i] == '"' && text.find('"', i + 1) != std::string_view::npos;
        if (opens) {
            word.quoted = true;
            ++i;
            ++column;
        }
        while (i < text.size() && (opens ? text[i] != '"' : text[i] != ' ' && text[i] != '\t')) {
            word.text += text[i];
            if (startsCharacter(text[i])) ++column;
            ++i;
        }
        if (opens) {
            ++i;
            ++column;
        }
        words_.push_back(std::move(word));
    }
    end_column_ = column;
}

bool Line::take(std::string_view text) {
    if (!peekIs(text)) return false;
    ++next_;
    return true;
}

Word Line::next(const char* missing) {
    if (atEnd()) throw Failure{end_column_, std::string(missing) + " is missing.", ""};
    return words_[next_++];
}

Word Line::upTo(std::span<const std::string_view> stops) {
    return upTo([&] { return std::find(stops.begin(), stops.end(), peek().text) != stops.end(); });
}

Word Line::upTo(const std::function<bool()>& ends) {
    Word joined;
    joined.column = atEnd() ? end_column_ : peek().column;
    while (!atEnd() && (peek().quoted || !ends())) {
        const Word& word = words_[next_++];
        // keep every character in its column, so that an error inside can be pointed at
        if (!joined.text.empty()) {
            const auto characters = static_cast<int>(std::count_if(joined.text.begin(), joined.text.end(), startsCharacter));
            joined.text += std::string(static_cast<size_t>(std::max(1, word.column - joined.column - characters)), ' ');
        }
        joined.text += word.text;
    }
    return joined;
}

Word Line::rest() {
    Word all;
    all.column = atEnd() ? end_column_ : peek().column;
    if (atEnd()) return all;
    std::string_view raw = std::string_view(text_).substr(peek().byte);
    while (!raw.empty() && (raw.back() == ' ' || raw.back() == '\t' || raw.back() == '\r')) raw.remove_suffix(1);
    if (raw.size() > 1 && raw.front() == '"' && raw.find('"', 1) == raw.size() - 1) raw = raw.substr(1, raw.size() - 2);
    all.text = raw;
    next_ = words_.size();
    return all;
}

void Line::mustEnd() const {
    if (!atEnd()) throw Failure{peek().column, "\"" + peek().text + "\" is not expected here.", "F1 shows what can be typed."};
}

} // namespace gorvet::entry
