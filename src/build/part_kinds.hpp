#pragma once

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

/// The kinds of parts that Make knows: what each joins, and by which figures it is said. The line that is typed, the card and the
/// rules of the part go over this one list.
namespace gorvet::build {

/// In what a figure of a part is said.
enum class PartUnit { Length, Angle, Newton, Count };

/// A figure by which a part is said.
struct PartFigureKind {
    std::string word;
    PartUnit unit = PartUnit::Length;
    double least = 0; ///< mm, rad, N or a number
    double most = 0;
    std::optional<double> usual; ///< where nobody says it: assumed; none: it may be left out, or must be said
    bool must = false;           ///< without it the part waits
    std::string about;           ///< "its outside diameter"
    double shown = 0;            ///< in an example
    bool asked = false; ///< what it must bear, hold or do, or what it is cut from: nothing that comes out one way or another
};
/// A kind of part.
struct PartKind {
    std::string word;
    std::string about;               ///< "a tube or box between two places, sawn to the rails"
    std::vector<std::string> points; ///< what its points are, in order: "where its middle meets the one side"
    bool more = false;               ///< the last of them may come again
    std::vector<PartFigureKind> figures;
    std::string advice; ///< what it is for, and what is minded
    const PartFigureKind* figure(std::string_view word) const;
};
std::span<const PartKind> partKinds();
/// nullptr: no kind is called so.
const PartKind* partKindNamed(std::string_view word);

} // namespace gorvet::build
