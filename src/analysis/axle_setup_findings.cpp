// Findings of axles on the bench, and of the steering.
#include "analysis/axle_setup.hpp"
#include "analysis/finding_maker.hpp"
#include "analysis/steering.hpp"

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

class SetupFinder : FindingMaker {
public:
    using FindingMaker::FindingMaker;
    void find() {
        for (const WorkedSetup& w : workedSetups(b_, r_)) {
            addRemarks(w.plan.remarks, "drive.", w.plan.name, setupTag(w.end));
            if (w.plan.missing.empty()) continue;
            std::string list;
            for (const std::string& m : w.plan.missing) list += (list.empty() ? "" : "; ") + m;
            add(sheet::Severity::Warn, "drive.axle-unsaid", w.plan.name, "Waiting",
                fmt::format("The {} is not judged whole. Missing: {}.", w.plan.name, list),
                fmt::format("Say it: seat {} faces 1400 tube 76 springs 430 430 pads 0deg.", word(w.end)))
                .tag = setupTag(w.end);
        }
    }
};

class SteeringFinder : FindingMaker {
public:
    using FindingMaker::FindingMaker;
    void find() {
        const drive::SteeringIn& in = r_.steering.input();
        if (!in.said) return;
        if (!in.missing.empty())
            add(sheet::Severity::Warn, "drive.steering-waits", "steering", "Waiting",
                fmt::format("The steering waits for {}.", in.missing.front()), "Say it, or measure it.")
                .tag = drive::steering_tag;
        addRemarks(r_.steering->remarks, "drive.", "steering", drive::steering_tag);
    }
};

} // namespace

void addAxleSetupFindings(const Build& b, const Results& r, std::vector<Finding>& out) { SetupFinder(b, r, out).find(); }

void addSteeringFindings(const Build& b, const Results& r, std::vector<Finding>& out) { SteeringFinder(b, r, out).find(); }

} // namespace gorvet::analysis
