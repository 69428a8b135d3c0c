#pragma once

#include "build/verdict.hpp"
#include "sheet/drawing.hpp"

#include <optional>
#include <string>
#include <vector>

namespace gorvet::analysis {

enum class Bench { Tape, Scan, Sit, Stretch, Make, Work };
inline constexpr Bench all_benches[] = {Bench::Tape, Bench::Scan, Bench::Sit, Bench::Stretch, Bench::Make, Bench::Work};
const char* benchName(Bench);

/// How a plan's verdict is marked.
inline sheet::Severity severityOf(build::PlanVerdict v) {
    return v == build::PlanVerdict::Holds      ? sheet::Severity::Good
           : v == build::PlanVerdict::Marginal ? sheet::Severity::Warn
                                               : sheet::Severity::Bad;
}

/// The unit of judgement: what is wrong or open, how much, how much is needed, what to do, and where.
struct Finding {
    sheet::Severity severity = sheet::Severity::Warn;
    Bench bench = Bench::Tape;
    std::string code;     ///< stable, "tape.retape"
    std::string subject;  ///< "chassis", "Bl–Dr", "mount Ml"
    std::string word;     ///< verdict word
    std::string figure;   ///< as shown; may be empty
    std::string need;     ///< the figure needed; may be empty
    std::string sentence; ///< the reason
    std::string remedy;
    std::optional<double> station_mm; ///< where it hangs on The Rule, chassis frame
    std::string brief;                ///< two or three words for the tag
    std::string tag;                  ///< the drawn item it belongs to
};

} // namespace gorvet::analysis
