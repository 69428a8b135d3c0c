// Drawings that are handed out.
#include "entry/reader.hpp"

#include <algorithm>

namespace gorvet::entry {
namespace {

constexpr const char* issue_like = "Like: issue note to the saw.";

/// A, B, … Z, AA, AB, …
std::string letters(std::size_t n) {
    std::string name;
    for (++n; n > 0; n = (n - 1) / 26) name.insert(name.begin(), static_cast<char>('A' + (n - 1) % 26));
    return name;
}

} // namespace

void Reader::issue() {
    if (!line_.atEnd() && !line_.peekIs("note")) { // what is said of one that was handed out
        const Word w = line_.next("its letter");
        const Issue* old = issueNamed(b_, w.text);
        if (!old)
            throw Failure{w.column, fmt::format("There is no issue {}.", w.text),
                          "The word issue alone hands out what is drawn now; its letter comes by itself."};
        if (!line_.take("note")) {
            if (line_.atEnd())
                throw Failure{line_.endColumn(), "What is said of it is missing.", "Like: issue A note to the saw."};
            notKnownHere("Like: issue A note to the saw.");
        }
        Issue i = *old;
        i.note = line_.rest().text;
        put(Put<Issue>{i});
        return say(fmt::format("issue {}: {}", i.name, i.note));
    }
    Issue i;
    if (line_.take("note")) i.note = line_.rest().text;
    if (!context_.drawn) throw Failure{0, "What is drawn is not worked out yet.", "Say it again in a moment."};
    std::vector<IssuedPiece> pieces = context_.drawn();
    if (pieces.empty())
        throw Failure{0, "Nothing is drawn that could be handed out.", "Plan parts, mounts, a crossmember or a cut first."};
    i.id = fresh<Issue>();
    std::size_t n = b_.issues.size();
    for (i.name = letters(n); issueNamed(b_, i.name);) i.name = letters(++n);
    i.handed_out = {context_.who, context_.now_utc};
    put(Put<Issue>{i});
    for (IssuedPiece& p : pieces) {
        p.id = fresh<IssuedPiece>();
        p.issue = i.id;
        put(Put<IssuedPiece>{std::move(p)});
    }
    say(fmt::format("issue {}: {} handed out as drawn now{}", i.name, units::counted(pieces.size(), "a piece"),
                    i.note.empty() ? "" : ", " + i.note));
}

/// It stays in the register, so that no two sheets ever bear the same letter.
void Reader::removeIssue(const Word&) {
    const Word w = line_.next("its letter");
    const Issue* old = issueNamed(b_, w.text);
    if (!old) throw Failure{w.column, fmt::format("There is no issue {}.", w.text), "Handed out, on Make, lists them all."};
    if (old->taken_back)
        throw Failure{w.column,
                      fmt::format("Issue {} was taken back already, on {}.", w.text, old->taken_back->at_utc.substr(0, 10)),
                      "Only undo brings it back."};
    Issue i = *old;
    i.taken_back = Signed{context_.who, context_.now_utc};
    put(Put<Issue>{i});
    say(fmt::format("issue {} is taken back", i.name));
}

} // namespace gorvet::entry
