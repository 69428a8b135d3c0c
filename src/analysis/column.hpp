#pragma once

#include "analysis/bench.hpp"
#include "analysis/card_maker.hpp"
#include "drive/column_sheet.hpp"

/// The steering column, the gear's plate, and pipes and lines through the car.
namespace gorvet::analysis {

drive::ColumnIn columnInput(const build::Build&, const Results&);
drive::GearPlateIn gearPlateInput(const build::Build&, const Results&);
/// All pipes and lines, with their points among those taken.
class CarPoints;
std::vector<drive::RunIn> runsIn(const build::Build&, CarPoints&);

sheet::Drawing columnDrawing(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width,
                             double height, const sheet::Format&);
Headline columnHeadline(const build::Build&, const Results&, build::SubjectId);
std::vector<sheet::Drawing> columnPages(const build::Build&, const Results&);
void keepColumnFiles(const build::Build&, const Results&, FileKeeper&);
void addColumnFindings(const build::Build&, const Results&, std::vector<Finding>&);
/// "column:NAME", "steer-gear:NAME", "run:NAME".
std::optional<Card> columnCard(const build::Build&, const Results&, const Tag&);
std::string driveColumnJson(const build::Build&, const Results&);

} // namespace gorvet::analysis
