#pragma once

#include "build/edit.hpp"

#include <cmath>

#include <fmt/format.h>

/// Internal to this room: whether what is put into a build makes sense there. Conflict says what, where and what to do.
namespace gorvet::build {

using Checked = Result<void>;

inline Error bad(std::string subject, std::string message, std::string remedy = {}) {
    return Error{Error::Code::Conflict, std::move(subject), std::move(message), std::move(remedy), -1};
}

inline Checked finite(const std::string& subject, const Dimension& d, double low, double high, const char* name) {
    if (!std::isfinite(d.value) || d.value < low || d.value > high)
        return bad(subject, fmt::format("{} = {:g}: must be between {:g} and {:g}.", name, d.value, low, high));
    return {};
}

inline bool isHash(const std::string& text) {
    return text.size() == 64 && text.find_first_not_of("0123456789abcdef") == std::string::npos;
}

/// Runs checks in order and returns the first that fails.
template <class... Checks> Checked firstOf(Checks... checks) {
    Checked result;
    (void)((result = checks(), static_cast<bool>(result)) && ...);
    return result;
}

inline Checked oneWord(const std::string& name, const char* what) {
    if (name.empty() || name.find_first_of(" \t,\"") != std::string::npos)
        return bad(name, fmt::format("{} needs a name of one word, without blank, comma or quote.", what));
    return {};
}

Checked valid(const Build&, const Settings&);
Checked valid(const Build&, const Session&);
Checked valid(const Build&, const Point&);
/// All but that its name is its own.
Checked validAlone(const Point&);
Checked valid(const Build&, const Reading&);
Checked valid(const Build&, const SetUp&);
Checked valid(const Build&, const WheelReadings&);
Checked valid(const Build&, const ToeReadings&);
Checked valid(const Build&, const Instrument&);
Checked valid(const Build&, const Obstacle&);
Checked valid(const Build&, const Scan&);
Checked valid(const Build&, const DatumRule&);
Checked valid(const Build&, const DrawingFigure&);
Checked valid(const Build&, const Flaw&);
Checked valid(const Build&, const Rates&);
Checked valid(const Build&, const Practice&);
Checked valid(const Build&, const Answer&);
Checked valid(const Build&, const Gap&);
Checked valid(const Build&, const Hold&);
Checked valid(const Build&, const Zone&);
Checked valid(const Build&, const ClearanceRules&);
Checked valid(const Build&, const Pin&);
Checked valid(const Build&, const Seating&);
Checked valid(const Build&, const PairRule&);
Checked valid(const Build&, const Swing&);
Checked valid(const Build&, const WheelTravel&);
Checked valid(const Build&, const School&);
Checked valid(const Build&, const Lowering&);
Checked valid(const Build&, const PlannedCut&);
Checked valid(const Build&, const Mount&);
Checked valid(const Build&, const RailSection&);
Checked valid(const Build&, const AxleGround&);
Checked valid(const Build&, const Stretch&);
Checked valid(const Build&, const MountDesign&);
Checked valid(const Build&, const std::optional<Crossmember>&);
Checked valid(const Build&, const Crossing&);
Checked valid(const Build&, const WorkFacts&);
Checked valid(const Build&, const TemporarySteel&);
Checked valid(const Build&, const Tick&);
Checked valid(const Build&, const Check&);

} // namespace gorvet::build
