// Findings of the drive line.
#include "analysis/drive.hpp"
#include "analysis/finding_maker.hpp"

#include <cmath>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using sheet::Severity;

namespace {

class DriveFinder : FindingMaker {
public:
    using FindingMaker::FindingMaker;

    void shafts() {
        const drive::LinePlan& plan = *r_.drive;
        for (const drive::ChainPlan& c : plan.chains) addRemarks(c.remarks, "drive.", c.name, "chain:" + c.name);
        for (const std::string& lack : r_.drive.input().missing)
            add(Severity::Warn, "drive.waits", "shafts", "Waiting", fmt::format("The shafts wait for {}.", lack),
                "Give it on Drive, or measure it on Tape.");
        for (const std::string& loose : plan.loose)
            add(Severity::Warn, "drive.links-loose", "links", "Marginal", loose,
                "Say the links that are missing, or measure their points once more.");
        constexpr double most_strain_mm = 3;
        if (plan.strain_mm > most_strain_mm)
            add(Severity::Warn, "drive.links-bind", "links", "Marginal",
                fmt::format("The axle's links fight each other in its travel: bushes must give by {}.", small(plan.strain_mm)),
                "Rubber takes it, rod ends don't: make parallel links equally long, or set the panhard rod level.")
                .figure = small(plan.strain_mm);
    }
    /// A link that reaches over the cut is not as long as it was.
    void lengths() {
        constexpr double as_it_is_mm = 1;
        for (const auto& [id, l] : b_.links)
            for (std::size_t k = 1; k < l.points.size(); ++k) {
                const auto from = r_.chassis.positionOf(l.points[k - 1]), to = r_.chassis.positionOf(l.points[k]);
                if (!from || !to) continue;
                const double change =
                    geometry::between(r_.planned_chassis.map(*from), r_.planned_chassis.map(*to)) - geometry::between(*from, *to);
                if (std::abs(change) < as_it_is_mm) continue;
                Finding& f =
                    add(Severity::Bad, "drive.link-over-cut", l.name, "Fails",
                        fmt::format("{} reaches over what is cut: as planned its ends stand {} {}.", l.name,
                                    small(std::abs(change)), change > 0 ? "further from each other" : "nearer to each other"),
                        "Move its bracket with the axle, or plan it as a new link between new marks.");
                f.tag = "link:" + l.name;
                break;
            }
    }
    void travels() {
        for (const auto& node : r_.travels) {
            for (const std::string& lack : node.input().missing)
                add(Severity::Warn, "drive.travel-waits", node->name, "Waiting",
                    fmt::format("The {} waits for {}.", node->name, lack), "Measure it on Tape.")
                    .tag = "travel:" + node->name;
            addRemarks(node->remarks, "drive.", node->name, "travel:" + node->name);
        }
    }
    void levels() {
        const LevelsRead read = levelsRead(b_, r_);
        for (std::size_t k = 0; k < read.ids.size(); ++k) {
            const drive::LevelJudged& j = read.levels.readings[k];
            if (!j.set_aside) continue;
            const LevelReading& l = b_.level_readings.at(read.ids[k]);
            const std::string on = l.on == LevelOn::Frame  ? "frame"
                                   : l.on == LevelOn::Unit ? b_.drive_ends.at(l.end).name
                                                           : b_.shafts.at(l.shaft).name;
            Finding& f = add(Severity::Bad, "drive.level-retape", on, "Re-tape",
                             fmt::format("The level on {} ({}) stands {} off what all else makes of it{}.", on,
                                         slopeWords(l.slope.value), units::formatAngle(std::abs(j.residual)),
                                         j.other_sign ? "; with the other sign it would fit" : ""),
                             j.other_sign ? "Look which end was low: down at the back is above 0." : "Read it once more.");
            f.tag = fmt::format("level:{}", l.id.value);
        }
    }
    void ratios() {
        const auto all = workedRatios(b_);
        for (const WorkedRatio& w : all) {
            const std::string axle(word(w.axle));
            if (!w.counted) {
                add(Severity::Warn, "drive.ratio-uncounted", axle, "Marginal",
                    fmt::format("The ratio of the {} ({:g}) was said, and nobody counted.", axle, w.said->value),
                    fmt::format("Count it before anything is ordered: turns {} shaft … wheel 1 one-held.", axle))
                    .tag = "ratio:" + axle;
                continue;
            }
            if (w.said && std::abs(w.said->value - w.counted->value) > w.counted->u95 + 0.005)
                add(Severity::Bad, "drive.ratio-wrong", axle, "Fails",
                    fmt::format("The {} is geared {:.3f}, not {:g} as was said.", axle, w.counted->value, w.said->value),
                    "Order by what was counted, and by teeth.")
                    .tag = "ratio:" + axle;
        }
        // two driven axles on the ground must turn alike
        const auto of = [&](Carrier c) -> const WorkedRatio* {
            for (const WorkedRatio& w : all)
                if (w.axle == c) return &w;
            return nullptr;
        };
        const auto value = [](const WorkedRatio& w) {
            return w.counted ? *w.counted : Figure{w.said->value, 0, Provenance::Assumed};
        };
        for (const auto& [one, other] :
             {std::pair{Carrier::Front, Carrier::Rear}, std::pair{Carrier::Rear, Carrier::SecondRear}}) {
            const WorkedRatio *a = of(one), *z = of(other);
            if (!a || !z) continue;
            const Figure differs = value(*a) - value(*z);
            constexpr double most_share = 0.01; // wound up between them on a dry road
            if (std::abs(differs.value) - differs.u95 <= most_share * value(*a).value) continue;
            Finding& f = add(Severity::Bad, "drive.ratios-differ", fmt::format("{}, {}", word(one), word(other)), "Fails",
                             fmt::format("The {} is geared {:.3f}, the {} {:.3f}: driven together they wind up and break.",
                                         word(one), value(*a).value, word(other), value(*z).value),
                             "Same ratio both ends, or never both driven on a hard road.");
            f.figure = fmt::format("{:.1f} %", 100 * std::abs(differs.value) / value(*a).value);
            f.need = "≤ 1 %";
            f.tag = fmt::format("ratio:{}", word(one));
        }
    }
};

} // namespace

void addDriveFindings(const Build& b, const Results& r, std::vector<Finding>& out) {
    DriveFinder finder(b, r, out);
    finder.shafts();
    finder.travels();
    finder.lengths();
    finder.levels();
    finder.ratios();
}

} // namespace gorvet::analysis
