#include "analysis/part_views.hpp"

#include "make/part_sheet.hpp"

#include <algorithm>
#include <numbers>

namespace gorvet::analysis {
namespace {

constexpr int view_fine_px = 900;

std::shared_ptr<const PartViews> made(const make::PartPlan& plan) {
    constexpr double right = std::numbers::pi / 2;
    PartViews all{make::partSolids(plan),
                  {{{"from the left", shape::ViewAxes::from(0, 0), {}},
                    {"from behind", shape::ViewAxes::from(right, 0), {}},
                    {"from above", shape::ViewAxes::from(0, right), {}},
                    {"as it stands", shape::ViewAxes::from(0.65, 0.5), {}}}}};
    if (all.solids)
        for (PartViews::View& v : all.views) v.lines = make::partLines(*all.solids, v.axes, view_fine_px);
    return std::make_shared<const PartViews>(std::move(all));
}

struct Kept {
    std::weak_ptr<const make::PartPlan> plan;
    std::shared_ptr<const PartViews> views;
};

} // namespace

std::shared_ptr<const PartViews> viewsOf(const Node<make::PartIn, make::PartPlan>& part) {
    thread_local std::vector<Kept> kept;
    std::erase_if(kept, [](const Kept& k) { return k.plan.expired(); });
    const auto plan = part.share();
    if (!plan) return made(*part);
    const auto known = std::find_if(kept.begin(), kept.end(), [&](const Kept& k) { return k.plan.lock() == plan; });
    if (known != kept.end()) return known->views;
    kept.push_back({plan, made(*plan)});
    return kept.back().views;
}

} // namespace gorvet::analysis
