#pragma once

#include "units/result.hpp"

#include <functional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace gorvet::entry {

struct Word {
    std::string text;
    int column = 0; ///< in characters
    bool quoted = false;
    size_t byte = 0; ///< where it begins in the line, its quote too
};

/// Thrown inside this room; becomes an Error at its border.
struct Failure {
    int column = -1;
    std::string message;
    std::string remedy;
};

/// The words of a line, taken one after the other. Quotes keep blanks together when they open a word.
class Line {
public:
    explicit Line(std::string_view text);
    bool atEnd() const { return next_ >= words_.size(); }
    size_t left() const { return words_.size() - next_; }
    const Word& peek(size_t ahead = 0) const { return words_[next_ + ahead]; }
    bool peekIs(std::string_view text) const { return !atEnd() && !peek().quoted && peek().text == text; }
    /// Takes the next word if it is this one.
    bool take(std::string_view text);
    /// The next word; fails with a sentence about what is missing.
    Word next(const char* missing);
    /// Everything up to (not including) one of these words, or to the end, as typed with single blanks. A word in quotes stops
    /// nothing. May be empty.
    Word upTo(std::span<const std::string_view> stops);
    /// The same up to where `ends` says so of the word that is next.
    Word upTo(const std::function<bool()>& ends);
    Word upTo(std::initializer_list<std::string_view> stops) { return upTo(std::span(stops.begin(), stops.size())); }
    /// The whole rest of the line as it was typed, quotes and all; one pair of quotes round all of it is taken off. May be empty.
    Word rest();
    void mustEnd() const;
    int endColumn() const { return end_column_; }

private:
    std::string text_;
    std::vector<Word> words_;
    size_t next_ = 0;
    int end_column_ = 0;
};

} // namespace gorvet::entry
