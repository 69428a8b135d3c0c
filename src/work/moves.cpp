// Moves as steps: of the body, of the frame, of what it stands on.
#include "work/moves.hpp"

#include "work/cautions.hpp"

namespace gorvet::work {

using namespace build;

namespace {

const char* ontoWords(Support s) {
    switch (s) {
    case Support::Stands: return "Set it on stands, level across";
    case Support::Trestles: return "Set it on trestles, level across";
    case Support::FixtureTable: return "Set it on the fixture table and clamp it";
    case Support::Wheels: return "Let it down on its wheels";
    case Support::Rotisserie: return "Hang it in the rotisserie, its centre of gravity in the axis";
    case Support::Floor: return "Lay it down on the floor, on timber";
    }
    return "";
}

} // namespace

Step moveTo(const Stance& from, const Stance& to, MovesDone& done) {
    Step s;
    s.moves_to = to;
    if (from.body != to.body) {
        const bool off = to.body == BodyPlace::Off;
        s.code = fmt::format("body-{}-{}", off ? "off" : "on", ++done.body);
        s.title = off ? "Lift the body off" : "Lower the body on";
        s.kind = JobKind::Lift;
        s.people = 2;
        s.cautions = {nobody_under, lift_check};
    } else if (from.attitude != to.attitude) {
        const bool side = from.attitude == Attitude::OnItsSide || to.attitude == Attitude::OnItsSide;
        ++done.turns;
        s.code = side ? fmt::format("turn-to-{}-{}", word(to.attitude), done.turns) : fmt::format("turn-{}", done.turns);
        s.title = to.attitude == Attitude::Inverted    ? "Turn the frame upside down"
                  : to.attitude == Attitude::OnItsSide ? "Turn the frame on its side"
                                                       : "Turn the frame right way up";
        s.kind = JobKind::Lift;
        s.people = 2;
        s.cautions = {turn_check};
    } else {
        s.code = fmt::format("set-on-{}-{}", word(to.support), ++done.supports);
        s.title = ontoWords(to.support);
        s.kind = JobKind::Lift;
        s.people = 2;
        s.cautions = {jack, nobody_under};
    }
    return s;
}

std::optional<Step> moveOfCode(const std::string& code, const Stance& from, MovesDone& done) {
    const auto starts = [&](const std::string& with) { return code.starts_with(with); };
    Stance to = from;
    if (starts("body-off-") || starts("body-on-")) {
        to.body = starts("body-off-") ? BodyPlace::Off : BodyPlace::On;
    } else if (starts("turn-to-")) {
        for (const Attitude a : {Attitude::RightWayUp, Attitude::Inverted, Attitude::OnItsSide})
            if (starts(fmt::format("turn-to-{}-", word(a)))) to.attitude = a;
    } else if (starts("turn-")) {
        to.attitude = from.attitude == Attitude::RightWayUp ? Attitude::Inverted : Attitude::RightWayUp;
    } else if (starts("set-on-")) {
        for (size_t k = 0; k < Words<Support>::text.size(); ++k)
            if (starts(fmt::format("set-on-{}-", Words<Support>::text[k]))) to.support = static_cast<Support>(k);
    } else {
        return std::nullopt;
    }
    // ticked where it stands so already: it is counted, and nothing moves
    Stance other = from;
    if (to == from) {
        if (starts("body-")) other.body = to.body == BodyPlace::On ? BodyPlace::Off : BodyPlace::On;
        if (starts("turn-")) other.attitude = to.attitude == Attitude::RightWayUp ? Attitude::Inverted : Attitude::RightWayUp;
    }
    Step s = moveTo(other, to, done);
    s.code = code;
    return s;
}

} // namespace gorvet::work
