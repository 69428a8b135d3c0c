#include "analysis/axle_setup.hpp"
#include "analysis/bench_parts.hpp"
#include "analysis/carried.hpp"
#include "analysis/column.hpp"
#include "analysis/drive.hpp"
#include "analysis/scans.hpp"
#include "analysis/steering.hpp"
#include "analysis/travel.hpp"
#include "analysis/wheels.hpp"
#include "drive/line_sheet.hpp"
#include "sheet/write.hpp"

#include <algorithm>

#include <fmt/format.h>

namespace gorvet::analysis {

using namespace build;
using namespace sheet;

namespace {

Drawing shaftsDrawing(const Build& b, const Results& r, SubjectId, const ViewOptions& o, double width, double height,
                      const Format& f) {
    drive::LineView v{&r.drive.input(), &*r.drive, [&](double mm) { return units::formatLength(mm, b.settings.length_step); }, 0,
                      true};
    if (o.grip.starts_with("travel of ")) v.share = std::clamp(o.grip_value, -1.0, 1.0);
    return drive::lineSheet(v, width, std::max(height, f.px(drive::lineSheetLeast(*r.drive))), f);
}

/// Travel is shown while it is dragged, and kept by nothing.
std::string draggedTravel(const Build&, const Results&, const std::string&, double) { return {}; }

std::vector<Drawing> driveSheets(const Build& b, const Results& r) {
    std::vector<Drawing> pages = drivePages(b, r);
    for (Drawing& page : travelPages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : steeringPages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : columnPages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : carriedPages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : wheelsPages(b, r)) pages.push_back(std::move(page));
    for (Drawing& page : axleSetupPages(b, r)) pages.push_back(std::move(page));
    return pages;
}

Headline levelsHeadline(const Build& b, const Results& r, SubjectId) {
    const LevelsRead read = levelsRead(b, r);
    if (read.ids.empty())
        return {
            "No slope was read yet.",
            "Lay a digital level on the frame, on the flange or pinion, on the shaft: level-on frame -0.6deg, level-on gearbox 3.1deg. Down at the "
            "back is above 0."};
    std::size_t bad = 0;
    for (const drive::LevelJudged& j : read.levels.readings) bad += j.set_aside;
    Headline h;
    h.sentence = bad ? fmt::format("{} of {} to be read again.", bad, units::counted(read.ids.size(), "level"))
                     : fmt::format("{}, none against another.", units::counted(read.ids.size(), "level"));
    h.below = read.levels.frame
                  ? fmt::format("The frame stood {}: that is taken off all others.", slopeWords(read.levels.frame->value))
                  : std::string("No level lay on the frame: it is taken as level, and nothing holds by that.");
    return h;
}

} // namespace

extern const BenchInfo drive_bench; // of the table
const BenchInfo drive_bench{"drive",
                            "Drive",
                            "Will it run smooth, steer and clear its wheels?",
                            "shafts and links through their travel, slopes, ratios, wheels",
                            [](const Build& b, const Results&) {
                                return !b.drive_ends.empty() || !b.turn_counts.empty() || !b.links.empty() ||
                                       !b.wheel_sets.empty() || !b.wheel_rooms.empty() || !b.dial_turns.empty() ||
                                       !b.axle_seats.empty() || !b.axle_brackets.empty() || !b.gear_readings.empty() ||
                                       !b.steering_columns.empty() || !b.steering_gears.empty() || !b.runs.empty() ||
                                       !b.springs.empty() || !b.axles_lifted.empty() || !b.brakes.empty() || !b.pedals.empty();
                            },
                            driveHeadline,
                            driveLacks,
                            {{"shafts", "Shafts", shaftsDrawing, {}, driveHeadline, nullptr, draggedTravel},
                             {"links", "Links", travelDrawing, {}, travelHeadline, nullptr, draggedTravel},
                             {"levels", "Slopes as read", nullptr, {}, levelsHeadline, levelsList},
                             {"ratios", "Ratios", nullptr, {}, ratioHeadline, ratiosList},
                             {"wheels", "Wheels", wheelsDrawing, {slow::wheels}, wheelsHeadline},
                             {"fit", "Which fit", wheelMapDrawing, {slow::wheels}, wheelsHeadline, nullptr, draggedOffset},
                             {"dial", "Under the dial", nullptr, {}, dialHeadline, dialList},
                             {"setup", "On the bench", axleSetupDrawing, {}, axleSetupHeadline},
                             {"steering", "Steering", steeringDrawing, {}, steeringHeadline, nullptr, draggedTravel},
                             {"column", "Column", columnDrawing, {}, columnHeadline},
                             {"weight", "Weight and springs", weightsDrawing, {}, weightsHeadline},
                             {"holes", "Rows of holes", nullptr, {}, linkHolesHeadline, linkHolesList},
                             {"brakes", "Brakes, checked", nullptr, {}, brakesHeadline, brakesList}},
                            [](const Build& b, const Results& r, std::vector<Finding>& out) {
                                addDriveFindings(b, r, out);
                                addSteeringFindings(b, r, out);
                                addColumnFindings(b, r, out);
                                addCarriedFindings(b, r, out);
                                addWheelFindings(b, r, out);
                                addAxleSetupFindings(b, r, out);
                            },
                            driveCard,
                            [](const Build& b, const Results& r, std::vector<Drawing>& pages) {
                                for (Drawing& page : driveSheets(b, r)) pages.push_back(std::move(page));
                            },
                            [](const Build& b, const Results& r, FileKeeper& out) {
                                keepWheelFiles(b, r, out);
                                keepColumnFiles(b, r, out);
                                auto pages = driveSheets(b, r);
                                if (pages.empty()) return;
                                numberPages(pages);
                                out.keep("drive.pdf", [&](const auto& to) {
                                    return writePdf(pages, {"Drive: " + b.settings.name, "Gorvet drive line"}, to);
                                });
                            },
                            driveJson,
                            &wheel_nodes,
                            false,
                            nullptr,
                            {{"shaft", driveShaftJson},
                             {"link", driveLinkJson},
                             {"ratio", driveRatioJson},
                             {"wheel", driveWheelJson, {slow::wheels}},
                             {"axle", driveAxleJson},
                             {"steer", driveSteerJson},
                             {"column", driveColumnJson},
                             {"weight", driveWeightJson},
                             {"holes", driveHolesJson},
                             {"brake", driveBrakeJson}}};

} // namespace gorvet::analysis
