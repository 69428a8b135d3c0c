#include "desk/stretch/stretch_bench.hpp"

#include "analysis/bench.hpp"

namespace gorvet::desk {

std::vector<Starter> StretchBench::starters(const Document& d, const ViewState& state) const {
    const auto& views = analysis::benchOf("stretch")->views;
    if (state.view > 0 && state.view < views.size()) // the frame as it carries
        return {{tr("a member"), "member "},  {tr("a load"), "load "},        {tr("a load case"), "case "},
                {tr("yield"), "yield "},      {tr("springs"), "wheel-rate "}, {tr("the body's own"), "body-twist "},
                {tr("rail section"), "rail "}};
    std::vector<Starter> list = {{tr("rail section"), "rail "}, {tr("cut at"), "cut "}, {tr("change by"), "change "}};
    if (d.build().stretch.wheelbase_change) list.push_back({tr("let the pins decide"), "change free"});
    list.push_back({tr("what crosses"), "crossing "});
    list.push_back({tr("fish plates"), "fish-plate "});
    list.push_back({tr("plug holes"), "plug "});
    list.push_back({tr("kerf"), "kerf "});
    list.push_back({tr("root gap"), "root-gap "});
    list.push_back({tr("sleeve fit"), "sleeve-fit "});
    list.push_back({tr("overlap"), "overlap "});
    return list;
}

} // namespace gorvet::desk
