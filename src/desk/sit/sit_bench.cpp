#include "desk/sit/sit_bench.hpp"

namespace gorvet::desk {

sheet::Drawing SitBench::draw(const Document& d, const ViewState& state, double width, double height,
                              const sheet::Format& f) const {
    return analysis::sitView(d.build(), d.results(), {state.selected, {}, 0}, width, height, f);
}

std::vector<Starter> SitBench::starters(const Document&, const ViewState&) const {
    return {{tr("front tyre"), "tyre front "},  {tr("rear tyre"), "tyre rear "},   {tr("hinge pillar"), "hinge "},
            {tr("centre the body"), "centred"}, {tr("front sill"), "sill front "}, {tr("rear sill"), "sill rear "},
            {tr("front arch"), "arch front"},   {tr("rear arch"), "arch rear"}};
}

} // namespace gorvet::desk
