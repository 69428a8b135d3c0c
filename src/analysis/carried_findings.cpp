// Findings of the steering column, of weight and springs, rows of holes, brakes and pedals.
#include "analysis/carried.hpp"
#include "analysis/column.hpp"
#include "analysis/finding_maker.hpp"
#include "drive/weights_sheet.hpp"

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;

namespace {

class CarriedFinder : FindingMaker {
public:
    using FindingMaker::FindingMaker;

    void column() {
        if (!b_.steering_columns.empty()) {
            waits("drive.column-waits", "column", r_.column.input().missing, drive::column_tag);
            addRemarks(r_.column->remarks, "drive.", "column", drive::column_tag);
        }
        if (!b_.steering_gears.empty() && !b_.steering_gears.begin()->second.holes.empty()) {
            waits("drive.gear-waits", "steering gear", r_.gear_plate.input().missing, drive::gear_tag);
            addRemarks(r_.gear_plate->remarks, "drive.", "steering gear", drive::gear_tag);
        }
    }
    void carried() {
        if (r_.weights.input().said) {
            waits("drive.weight-waits", "weight", r_.weights.input().missing, drive::weights_tag);
            addRemarks(r_.weights->remarks, "drive.", "weight", drive::weights_tag);
        }
        for (const auto& node : r_.link_holes) {
            const std::string tag = fmt::format("link-holes:{}", node.input().row.id.value);
            waits("drive.holes-waits", node->name, node.input().travel.missing, tag);
            addRemarks(node->remarks, "drive.", node->name, tag);
        }
        if (r_.brakes.input().said) {
            waits("drive.brake-waits", "brakes", r_.brakes.input().missing, "brake:front");
            addRemarks(r_.brakes->remarks, "drive.", "brakes", "brake:front");
        }
    }

private:
    void waits(const char* code, const std::string& subject, const std::vector<std::string>& missing, const std::string& tag) {
        if (missing.empty()) return;
        std::string list;
        for (const std::string& m : missing) list += (list.empty() ? "" : "; ") + m;
        add(sheet::Severity::Warn, code, subject, "Waiting", fmt::format("It is not judged whole. Missing: {}.", list),
            "Measure it, or say it.")
            .tag = tag;
    }
};

} // namespace

void addColumnFindings(const Build& b, const Results& r, std::vector<Finding>& out) { CarriedFinder(b, r, out).column(); }
void addCarriedFindings(const Build& b, const Results& r, std::vector<Finding>& out) { CarriedFinder(b, r, out).carried(); }

} // namespace gorvet::analysis
