#pragma once

#include "tape/judge.hpp"
#include "tape/undetermined.hpp"

/// The search for misread readings. Internal to this room.
namespace gorvet::tape {

/// A survey in the course of its search: `survey` is the network's own, whose σ may be widened.
struct Searched {
    Survey& survey;
    Network& net;
    Rows rows;
    Fixing fixing;
    Judged judged;
    int redundancy = 0; ///< of all readings, those that were left out from the start included
    Network robust{};   ///< as the robust start left it: where to begin again once a gross reading has thrown the points about
};

/// Factors and judges the network as it stands.
void refresh(Searched&);

/// Angles that are grossly off what all else says, from a start without them (where they are needed: with their σ fifty times as
/// wide): a slope with its sign slipped, a rail's angle near 90°. One such angle would bend a whole survey before it is found.
/// They are made inactive, and named.
std::vector<int> leaveOutGrossAngles(Survey&, Network&);
/// Lengths and heights that are off the typed rough places by far more than all others are (metres taken for mm, a height a metre
/// off) start outside: few, and only where the rest fixes as much without them. They come back when the rest agrees with them.
std::vector<int> leaveOutGrossLengths(const Survey&, Network&);

/// Where plain weights don't close on a shape because of a reading that is off by metres: from the robust start, readings that
/// are well checked and furthest off are made inactive, at most five, until the others close. True when they do; the network then
/// stands there.
bool leaveOutFar(Network&, const Network& robust, std::vector<int>& left_out);

/// Data snooping (Baarda): the reading with the largest |w| beyond the limit is set aside, adjusted again, and so on. The limit
/// is retape_w while Ω fails, familyLimit once it passes. Readings that may not be told from it by their correlation and whose w²
/// is as large (inseparableFrom) go out together; where that, or one alone, would leave something undetermined, they stay in with
/// their σ widened to the error they may have, so that the ± of what they reach says so. At the end what was set aside and agrees
/// with the rest comes back. Fills `set_aside`, `widened_sigma` and what each showed when it was judged, and `inseparable`.
/// `left_out`: set aside from the start.
void snoop(Solution&, Searched&, const Options&, const std::vector<int>& left_out);

/// Verdicts of all readings; those in groups that can't be told apart are Re-tape.
void giveVerdicts(Solution&, const Searched&);

} // namespace gorvet::tape
