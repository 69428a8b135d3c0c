#pragma once

#include "analysis/results.hpp"
#include "build/edit.hpp"
#include "sim/instruments.hpp"

/// Practice: a crooked frame is begun, and what a person says of it is marked against its hidden truth.
namespace gorvet::analysis {

/// What a new build needs to become a practice frame: points roughly placed, the drawing's figures, a datum on the frame itself,
/// a floor, the simulated instruments.
std::vector<build::Change> beginPractice(std::uint32_t seed, int difficulty);

/// What is asked of a simulated instrument, with how often it was read before, as the build's readings say.
sim::Task practiceTask(const build::Build&, const std::string& kind, const std::string& from, const std::string& to);

/// One thing that was said, or left unsaid.
struct PracticeMark {
    enum class How { Right, Near, Missed, Wrong };
    std::string about; ///< "twist", "reading Bl–Dr"
    std::string said;  ///< "8.0", "straight", "nothing"
    std::string truth; ///< "7.4, right side high at the front"; "straight"
    How how = How::Missed;
    std::string sentence; ///< the explanation
};
const char* markWord(PracticeMark::How);

struct PracticeResult {
    std::vector<PracticeMark> marks; ///< the figures in the order of Tape, then readings
    int points = 0;
    int most = 0;
    std::string sentence; ///< "4 of 5: the frame was …"
};

/// Right: a fault found within the tolerance (or within what the survey could know), a straight figure called straight, a misread
/// reading named. Near: the fault was found, its size is off. Never looks at the truth before the answers are handed in: empty
/// then.
PracticeResult markPractice(const build::Build&, const Results&);

/// The figures that are asked for, and what has been said of each so far: for the sheet.
std::vector<std::pair<std::string, std::string>> practiceQuestions(const build::Build&);

} // namespace gorvet::analysis
