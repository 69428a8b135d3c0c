#include "desk/sit/sit_bench.hpp"

#include "desk/sit/trial_tool.hpp"
#include "desk/space/space.hpp"

namespace gorvet::desk {

std::vector<Starter> SitBench::starters(const Document&, const ViewState& state) const {
    if (view(state)->key == "costs")
        return {{tr("keep this seating"), "seating keep "},
                {tr("use one"), "seating use "},
                {tr("what leads"), "leads "},
                {tr("channel the floor"), "lower channel "},
                {tr("raise the floor"), "lower raise-floor "},
                {tr("kick the rails"), "lower kick "},
                {tr("none of these"), "lower none"}};
    return {{tr("front tyre"), "tyre front "},
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

bool SitBench::dragged(Desk& desk, const Drag& drag, bool let_go) const {
    if (drag.what != Drag::What::Body) return false;
    if (!let_go)
        desk.space().tryBody(drag.to);
    else
        desk.take(std::make_unique<TrialTool>(desk, drag.to));
    return true;
}

} // namespace gorvet::desk
