#pragma once

#include "analysis/cards.hpp"
#include "analysis/results.hpp"

/// What the last days did to the date: the likely end as it was expected then, as it is expected now, and what moved it.
namespace gorvet::analysis {

struct Mover {
    std::string what;  ///< "work that was done"
    std::string words; ///< "3 steps done, 12.5 h worked"; may be empty
    double days = 0;   ///< by which it moved the likely end, > 0 later
};
struct WeekDid {
    int then_day = 0;
    int now_day = 0;
    double then_end = 0; ///< likely end as it was expected then, days since 1970
    double now_end = 0;
    std::vector<Mover> movers; ///< they add up to now_end − then_end; the time that went by first
    std::string why_not;       ///< no end is known then or now; empty: it is
    double moved() const { return now_end - then_end; }
};

/// `then`: the build as it stood at the end of `then_day`. What was changed since is brought in one kind after the other, and
/// each kind is given what the end moves when it comes: in another order the shares would be others, their sum not.
WeekDid weekDid(const build::Build& then, int then_day, const build::Build& now, const Results& now_results);
/// One sentence, and as a card.
std::string weekWords(const WeekDid&);
Card weekCard(const WeekDid&);
std::string weekJson(const build::Build&, const WeekDid&);

} // namespace gorvet::analysis
