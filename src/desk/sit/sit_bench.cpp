#include "desk/sit/sit_bench.hpp"

namespace gorvet::desk {

sheet::Drawing SitBench::draw(const Document& d, const ViewState& state, double width, double height,
                              const sheet::Format& f) const {
    if (state.compare)
        return analysis::seatingsView(d.build(), d.results(), width, height, f, state.seatings ? state.seatings() : nullptr);
    return analysis::sitView(d.build(), d.results(), {state.selected, {}, 0}, width, height, f);
}

std::vector<Starter> SitBench::starters(const Document&, const ViewState& state) const {
    if (state.compare)
        return {{tr("The sheet again"), "!compareSeatings"},
                {tr("keep this seating"), "seating keep "},
                {tr("use one"), "seating use "},
                {tr("what leads"), "leads "},
                {tr("channel the floor"), "lower channel "},
                {tr("raise the floor"), "lower raise-floor "},
                {tr("kick the rails"), "lower kick "},
                {tr("none of these"), "lower none"}};
    return {{tr("What costs what"), "!compareSeatings"},
            {tr("front tyre"), "tyre front "},
            {tr("rear tyre"), "tyre rear "},
            {tr("hinge pillar"), "hinge "},
            {tr("centre the body"), "centred"},
            {tr("front sill"), "sill front "},
            {tr("rear sill"), "sill rear "},
            {tr("front arch"), "arch front"},
            {tr("rear arch"), "arch rear"},
            {tr("between two features"), "pin "},
            {tr("wheel travel"), "travel "},
            {tr("keep this seating"), "seating keep "}};
}

} // namespace gorvet::desk
