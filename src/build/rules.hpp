#pragma once

#include "build/build.hpp"
#include "units/result.hpp"

#include <string>

/// Internal to this room: what must hold of a row beyond what its fields say. Conflict says what, where and what to do.
namespace gorvet::build {

using Checked = Result<void>;

inline Error bad(std::string subject, std::string message, std::string remedy = {}) {
    return Error{Error::Code::Conflict, std::move(subject), std::move(message), std::move(remedy), -1};
}

/// Fields were looked at before: texts that are words, ranges, and that what is referred to is there.
template <class T> Checked rules(const Build&, const T&) { return {}; }

Checked rules(const Build&, const Settings&);
Checked rules(const Build&, const Subject&);
Checked rules(const Build&, const Session&);
Checked rules(const Build&, const Point&);
Checked rules(const Build&, const Reading&);
Checked rules(const Build&, const SetUp&);
Checked rules(const Build&, const Instrument&);
Checked rules(const Build&, const Obstacle&);
Checked rules(const Build&, const DatumRule&);
Checked rules(const Build&, const DrawingFigure&);
Checked rules(const Build&, const Flaw&);
Checked rules(const Build&, const Gap&);
Checked rules(const Build&, const Practice&);
Checked rules(const Build&, const Answer&);
Checked rules(const Build&, const Scan&);
Checked rules(const Build&, const Zone&);
Checked rules(const Build&, const ClearanceRules&);
Checked rules(const Build&, const PairRule&);
Checked rules(const Build&, const Swing&);
Checked rules(const Build&, const PlannedCut&);
Checked rules(const Build&, const Lowering&);
Checked rules(const Build&, const Pin&);
Checked rules(const Build&, const RailSection&);
Checked rules(const Build&, const Crossing&);
Checked rules(const Build&, const MountDesign&);
Checked rules(const Build&, const Mount&);
Checked rules(const Build&, const Crossmember&);
Checked rules(const Build&, const TemporarySteel&);
Checked rules(const Build&, const Tick&);
Checked rules(const Build&, const Check&);
Checked rules(const Build&, const Job&);
Checked rules(const Build&, const Awaited&);
Checked rules(const Build&, const Attempt&);
Checked rules(const Build&, const Lift&);
Checked rules(const Build&, const LiftPoint&);
Checked rules(const Build&, const DayOff&);
Checked rules(const Build&, const Estimate&);
Checked rules(const Build&, const Worked&);
Checked rules(const Build&, const Decision&);
Checked rules(const Build&, const Surface&);
Checked rules(const Build&, const Permit&);
Checked rules(const Build&, const Photo&);
Checked rules(const Build&, const Stock&);
Checked rules(const Build&, const Member&);
Checked rules(const Build&, const LoadCase&);
Checked rules(const Build&, const AxleJob&);
Checked rules(const Build&, const Graft&);
Checked rules(const Build&, const GraftPin&);
Checked rules(const Build&, const Narrowing&);
Checked rules(const Build&, const FloorEdge&);
Checked rules(const Build&, const LetIn&);
Checked rules(const Build&, const RailHole&);
Checked rules(const Build&, const DriveEnd&);
Checked rules(const Build&, const Shaft&);
Checked rules(const Build&, const LevelReading&);
Checked rules(const Build&, const Link&);
Checked rules(const Build&, const WheelSet&);
Checked rules(const Build&, const Hub&);
Checked rules(const Build&, const WheelRoom&);
Checked rules(const Build&, const DialTurn&);
Checked rules(const Build&, const Widening&);
Checked rules(const Build&, const Adaptor&);
Checked rules(const Build&, const AxleBracket&);
Checked rules(const Build&, const GearReading&);
Checked rules(const Build&, const SteeringColumn&);
Checked rules(const Build&, const SteeringGear&);
Checked rules(const Build&, const Run&);
Checked rules(const Build&, const Spring&);
Checked rules(const Build&, const LinkHoles&);
Checked rules(const Build&, const Pedal&);
Checked rules(const Build&, const SteelPart&);
Checked rules(const Build&, const Fixture&);
Checked rules(const Build&, const FixtureTower&);

/// The same of what comes in only: an older file may hold it.
template <class T> Checked entryRules(const T&) { return {}; }
Checked entryRules(const Subject&);
Checked entryRules(const Reading&);
Checked entryRules(const Pin&);
Checked entryRules(const DatumRule&);

} // namespace gorvet::build
