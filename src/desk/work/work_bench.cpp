#include "desk/work/work_bench.hpp"

#include "analysis/scans.hpp"
#include "desk/space/times_tool.hpp"

namespace gorvet::desk {

std::vector<Act> WorkBench::acts() const {
    const auto see = [](Desk& desk) {
        watch(desk, {analysis::slow::layers}, tr("the order of work"),
              tr("There is no work to be seen: plan a cut, a mount or a crossmember, and scan body or chassis."),
              [](const build::Build& b, const analysis::Results& r, const Worker::Progress&) {
                  return analysis::workTimes(b, r, *r.scans->overlay);
              });
    };
    return {{"seeWork", tr("See the work step by step"), {}, see}};
}

std::vector<Starter> WorkBench::starters(const Document& d, const ViewState&) const {
    std::vector<Starter> list;
    const auto& order = *d.results().work;
    if (order.next && order.steps[*order.next].open()) {
        const QString code = QString::fromStdString(order.steps[*order.next].code);
        list.push_back({tr("done"), "done " + code});
        list.push_back({tr("done, with a note"), "done " + code + " note "});
    }
    if (!d.build().scans.empty() && !order.steps.empty()) list.push_back({tr("See it step by step"), {}, "seeWork"});
    list.push_back({tr("list a brace"), "brace "});
    list.push_back({tr("the car has …"), "present "});
    list.push_back({tr("the car has no …"), "absent "});
    list.push_back({tr("how it stands"), "standing "});
    return list;
}

std::optional<Proposal> WorkBench::proposal(const Document& d, const ViewState& state) const {
    const auto& order = *d.results().work;
    if (!order.next) return std::nullopt;
    const work::Step& s = order.steps[*order.next];
    if (s.status != work::Status::HoldPoint) return std::nullopt;
    // what is not read yet first, then what is out
    std::vector<const work::CheckItem*> wanted;
    for (const auto& item : s.checks)
        if (!item.read_mm) wanted.push_back(&item);
    for (const auto& item : s.checks)
        if (item.read_mm && !item.agrees()) wanted.push_back(&item);
    if (wanted.empty()) return std::nullopt;
    const work::CheckItem& item = *wanted[static_cast<size_t>(state.skip) % wanted.size()];
    const auto& b = d.build();
    QString what;
    if (item.gap_of) {
        const auto steel = b.temporary_steel.find(item.gap_of);
        what = "gap " + (steel == b.temporary_steel.end() ? QString("?") : QString::fromStdString(steel->second.name));
    } else {
        what =
            (item.level ? "level " : "") + QString::fromStdString(build::nameOf(b, item.from) + " " + build::nameOf(b, item.to));
    }
    const auto step = b.settings.length_step;
    return Proposal{what,
                    "check " + QString::fromStdString(s.code) + " " + what + " ",
                    tr("plan %1, may be out by %2")
                        .arg(QString::fromStdString(units::formatLength(item.plan_mm, step)),
                             QString::fromStdString(units::formatSmall(item.tolerance_mm, step))),
                    {},
                    item.gap_of
                        ? std::nullopt
                        : std::optional(std::pair{d.results().chassis.indexOf(item.from), d.results().chassis.indexOf(item.to)})};
}

} // namespace gorvet::desk
