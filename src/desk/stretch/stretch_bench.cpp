#include "desk/stretch/stretch_bench.hpp"

#include "analysis/bench.hpp"

namespace gorvet::desk {

std::vector<Starter> StretchBench::starters(const Document& d, const ViewState& state) const {
    const auto& views = analysis::benchOf("stretch")->views;
    const std::string_view view = state.view < views.size() ? views[state.view].key : "";
    if (view == "track")
        return {{tr("rear axle"), "track rear faces "},   {tr("wanted width"), "track rear wanted "},
                {tr("its housing"), "track rear tube "},  {tr("its shafts"), "track rear shaft-left "},
                {tr("its wheels"), "track rear offset "}, {tr("front axle"), "track front faces "}};
    if (view == "width")
        return {{tr("narrower"), "narrow by "}, {tr("slit at"), "narrow at "}, {tr("a floor to its sill"), "floor-edge "}};
    if (view == "holes") return {{tr("a hole"), "rail-hole "}};
    if (view == "let-in") return {{tr("a rail let in"), "let-in "}};
    if (view == "graft") {
        const auto& grafts = d.build().grafts;
        if (grafts.empty()) return {{tr("a piece"), "graft "}, {tr("survey it"), "subject "}};
        const QString name = QString::fromStdString(grafts.begin()->second.name);
        return {{tr("joined at"), "graft " + name + " at "},     {tr("its rails"), "graft " + name + " rails "},
                {tr("pin it"), "graft " + name + " pin "},       {tr("a transition"), "graft " + name + " transition "},
                {tr("its plates"), "graft " + name + " plate "}, {tr("another piece"), "graft "}};
    }
    if (view == "stock")
        return {{tr("the tube in hand"), "sleeve-tube "}, {tr("strip on it"), "tube-strip "}, {tr("rail section"), "rail "}};
    if (state.view > 0 && state.view < views.size()) // the frame as it carries
        return {{tr("a member"), "member "},  {tr("a load"), "load "},     {tr("a load case"), "case "},
                {tr("yield"), "yield "},      {tr("springs"), "springs "}, {tr("the body's own"), "body-twist "},
                {tr("rail section"), "rail "}};
    std::vector<Starter> list = {{tr("rail section"), "rail "}, {tr("cut at"), "cut "}, {tr("change by"), "change "}};
    if (d.build().stretch.wheelbase_change) list.push_back({tr("let the pins decide"), "change free"});
    list.push_back({tr("what crosses"), "crossing "});
    list.push_back({tr("stands"), "stand "});
    if (d.results().stretch->spine) {
        list.push_back({tr("what runs inside"), "crossing "});
        list.push_back({tr("stagger"), "stagger "});
        list.push_back({tr("saddle's wall"), "sleeve-wall "});
        list.push_back({tr("overlap"), "overlap "});
        return list;
    }
    list.push_back({tr("fish plates"), "fish-plate "});
    list.push_back({tr("plug holes"), "plug "});
    list.push_back({tr("kerf"), "kerf "});
    list.push_back({tr("root gap"), "root-gap "});
    list.push_back({tr("sleeve fit"), "sleeve-fit "});
    list.push_back({tr("overlap"), "overlap "});
    return list;
}

} // namespace gorvet::desk
