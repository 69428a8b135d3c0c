#pragma once

#include "analysis/results.hpp"
#include "build/edit.hpp"

/// Seatings kept and compared, and what costs what. Part of analyse(); the changes that keep and use one.
namespace gorvet::analysis {

/// Surveys, rails, sit_input and seat of the results must be there. What has the same input as in `previous` is taken over.
SeatingsCompared compareSeatings(const build::Build&, const Results&, const Results* previous);

/// Whether two pins ask the same of the same points.
bool samePin(const build::Pin&, const build::Pin&);
/// The build with its pins, school, lowering and change of wheelbase as a seating has them.
build::Build seatedAs(const build::Build&, const build::Seating&);

/// In one sentence: what a move costs and brings.
std::string moveSentence(const build::Build&, const Results&, const sit::Moved&);
/// In one sentence: what giving up a pin brings.
std::string givenUpSentence(const build::Build&, const Results&, const sit::GivenUp&);

} // namespace gorvet::analysis
