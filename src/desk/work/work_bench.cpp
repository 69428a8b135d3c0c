#include "desk/work/work_bench.hpp"

#include "analysis/bench.hpp"
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

std::vector<Starter> WorkBench::starters(const Document& d, const ViewState& state) const {
    std::vector<Starter> list;
    const auto& views = analysis::benchOf("work")->views;
    const std::string_view view = state.view < views.size() ? views[state.view].key : "";
    if (view == "register")
        return {{tr("tag what ties it"), "tag "},
                {tr("undone"), "untied "},
                {tr("seen free once more"), "proved "},
                {tr("on again"), "refit "},
                {tr("tightened"), "torqued "}};
    if (view == "lifts") return {{tr("a lift"), "lift "}, {tr("a leg or point"), "leg "}, {tr("a pair of stands"), "stand "}};
    if (view == "coats")
        return {{tr("a surface"), "surface "},
                {tr("a coat"), "coat "},
                {tr("it is bare metal"), "bared "},
                {tr("a coat is on"), "coated "},
                {tr("make jobs of it"), "coat-jobs "}};
    if (view == "time")
        return {{tr("what a step takes"), "hours "},     {tr("hours worked"), "worked "},
                {tr("the shop's hours"), "shop "},       {tr("days off"), "off "},
                {tr("a part awaited"), "await "},        {tr("found on the way"), "discovered "},
                {tr("what the week did"), {}, "weekDid"}};
    if (view == "photos" || view == "all-photos")
        return {{tr("keep photos"), {}, "addPhotos"}, {tr("what one shows"), "photo "}, {tr("strike one out"), "strike-photo "}};
    if (view == "buy")
        return {{tr("steel on the shelf"), "stock "}, {tr("cut a piece off"), "cut-off "}, {tr("a part awaited"), "await "}};
    if (view == "owner")
        return {{tr("a question"), "decide "},
                {tr("a choice"), "choice "},
                {tr("a change order"), "change-order "},
                {tr("what was agreed"), "agreed "},
                {tr("strike out"), "strike "}};
    const auto& order = *d.results().work;
    if (order.next && order.steps[*order.next].open()) {
        const QString code = QString::fromStdString(order.steps[*order.next].code);
        if (order.steps[*order.next].hot && !build::permitted(d.build(), code.toStdString())) {
            list.push_back({tr("permit it, with a watch"), "permit " + code + " watch "});
            list.push_back({tr("done without a permit, because"), "done " + code + " note "});
        } else {
            list.push_back({tr("done"), "done " + code});
            list.push_back({tr("done, with a note"), "done " + code + " note "});
        }
    }
    if (!d.build().scans.empty() && !order.steps.empty()) list.push_back({tr("See it step by step"), {}, "seeWork"});
    list.push_back({tr("a job of your own"), "job "});
    list.push_back({tr("a ready-made list"), "jobs "});
    list.push_back({tr("tag what ties it"), "tag "});
    list.push_back({tr("the car has …"), "present "});
    list.push_back({tr("the car has no …"), "absent "});
    return list;
}

namespace {

/// On the register, row by row under the car: what is undone next, then seen free, then on again. Enter says it; a name that is
/// typed tags another row.
std::optional<Proposal> nextRow(const Document& d, int skip) {
    std::vector<std::pair<const char*, const build::Release*>> next;
    const auto& rows = d.build().releases;
    for (const auto& [id, r] : rows)
        if (!r.released) next.emplace_back("untied", &r);
    if (next.empty())
        for (const auto& [id, r] : rows)
            if (!r.proved) next.emplace_back("proved", &r);
    if (next.empty())
        for (const auto& [id, r] : rows)
            if (!r.refitted && r.fate != build::Fate::Scrap) next.emplace_back("refit", &r);
    if (next.empty()) return std::nullopt;
    const auto& [word, row] = next[static_cast<size_t>(skip) % next.size()];
    const QString name = QString::fromStdString(row->name);
    QStringList hint;
    for (const std::string& text : {row->area, row->joins, row->how})
        if (!text.empty()) hint << QString::fromStdString(text);
    hint << (std::string_view(word) == "untied"   ? WorkBench::tr("Enter: undone; a name tags another")
             : std::string_view(word) == "proved" ? WorkBench::tr("Enter: had your hand on it, it is free")
                                                  : WorkBench::tr("Enter: on again"));
    return Proposal{name, "tag ", hint.join(QString::fromUtf8(" · ")), {}, {}, QString(word) + " " + name};
}

} // namespace

std::optional<Proposal> WorkBench::calledOut(const Document& d, const ViewState& state) const {
    const auto& views = analysis::benchOf("work")->views;
    if (state.view < views.size() && views[state.view].key == "register") return nextRow(d, state.skip);
    return proposal(d, state);
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
