#pragma once

#include "analysis/cards.hpp"
#include "units/quantity.hpp"

#include <cstdint>

/// What the makers of cards share, one of them for each bench. Internal to this room.
namespace gorvet::analysis {

/// A drawn item's tag, taken apart: "pin:3" is a pin of id 3.
struct Tag {
    std::string kind;
    std::string rest;
    std::uint32_t id = 0; ///< 0 where the rest is no number
};

using sheet::markOf;

/// How many photos there are of a step or part, and that more are kept.
void addPhotos(Card&, const build::Build&, const PhotoAbout&);

class CardMaker {
public:
    CardMaker(const build::Build& b, const Results& r, build::SubjectId subject)
        : b_(b), r_(r), s_(r.of(subject)), subject_(subject), step_(b.settings.length_step) {}

protected:
    std::string len(double mm) const { return units::formatLength(mm, step_, true); }
    std::string small(double mm) const { return units::formatSmall(mm, step_, true); }
    std::string provenance(const build::Dimension& d) const { return std::string(build::word(d.provenance)); }
    /// As typed, or the value when it never was.
    std::string current(const build::Dimension& d) const {
        return d.typed.empty() ? units::formatLength(d.value, step_) : d.typed;
    }

    const build::Build& b_;
    const Results& r_;
    const SurveyOf& s_;
    build::SubjectId subject_;
    units::LengthStep step_;
};

} // namespace gorvet::analysis
