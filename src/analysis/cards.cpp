#include "analysis/cards.hpp"

#include "analysis/bench.hpp"
#include "analysis/card_maker.hpp"

#include <charconv>

#include <fmt/format.h>

namespace gorvet::analysis {

using sheet::Mark;
using sheet::Severity;

namespace {

Card cardOfOne(const Finding& f) {
    Card c;
    c.title = f.subject;
    c.word = f.word;
    c.severity = f.severity;
    if (!f.figure.empty()) c.rows.push_back({"figure", f.figure, Mark::Derived, true});
    if (!f.need.empty()) c.rows.push_back({"allowed or needed", f.need, Mark::None, false});
    c.sentences.push_back(f.sentence);
    if (!f.remedy.empty()) c.sentences.push_back(f.remedy);
    return c;
}

} // namespace

std::optional<Card> cardFor(const build::Build& b, const Results& r, build::SubjectId subject, const std::string& tag) {
    Tag t;
    const auto colon = tag.find(':');
    t.kind = tag.substr(0, colon);
    t.rest = colon == std::string::npos ? "" : tag.substr(colon + 1);
    std::from_chars(t.rest.data(), t.rest.data() + t.rest.size(), t.id);
    if (t.kind == "finding") return t.id < r.findings.size() ? std::optional(cardOfOne(r.findings[t.id])) : std::nullopt;
    for (const BenchInfo* bench : benches())
        if (bench->card)
            if (auto card = bench->card(b, r, subject, t)) return card;
    for (const Finding& f : r.findings) // what is on no card of its own says itself
        if (f.tag == tag) return cardOfOne(f);
    return std::nullopt;
}

} // namespace gorvet::analysis
