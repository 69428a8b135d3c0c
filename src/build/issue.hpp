#pragma once

#include "build/release.hpp"

/// Drawings that were handed out: what stood on them, so that what changed since can be said.
namespace gorvet::build {

struct Issue;
struct IssuedPiece;
using IssueId = Id<Issue>;
using IssuedPieceId = Id<IssuedPiece>;

struct Issue {
    IssueId id;
    std::string name; ///< "A"; unique; one word
    Signed handed_out;
    std::string note; ///< to whom
    /// Its sheets were collected. It stays in the register: another issue never bears its letter.
    std::optional<Signed> taken_back;
    bool operator==(const Issue&) const = default;
};
template <> struct Schema<Issue> {
    static constexpr TableInfo table{"issue", "issues", 15, "an issue of drawings"};
    static constexpr auto& in(auto& build) { return build.issues; }
    static constexpr auto key = std::tuple{&Issue::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("handed_out", &S::handed_out),
            field("note", &S::note).says("to whom"),
            field("taken_back", &S::taken_back).came(16).says("its sheets were collected"),
        };
    }
};

/// One piece as it was drawn then.
struct IssuedPiece {
    IssuedPieceId id;
    IssueId issue;
    std::string thing; ///< the tag of what it is a piece of: "part:o1"; empty: it has none
    std::string piece; ///< its full name
    double count = 1;
    std::string stock;              ///< of what it is sawn, or what is bought; of a flat piece empty
    double length_mm = 0;           ///< sawn off; 0: it has none that matters
    std::string ends;               ///< how they are cut, or how it is fitted
    double thickness_mm = 0;        ///< of a flat piece
    std::vector<double> lines_mm;   ///< of a flat piece: how many corners, then x, y of each; its outline, then each window
    std::vector<double> holes_mm;   ///< x, y, diameter of each
    std::vector<double> bends_mm;   ///< x, y, x, y, inside radius of each
    std::vector<double> angles_rad; ///< of those bends; of a sawn piece: how its ends are tilted, then bend and turn of each
    bool operator==(const IssuedPiece&) const = default;
};
template <> struct Schema<IssuedPiece> {
    static constexpr TableInfo table{"issued-piece", "issued_pieces", 15, "a piece as it was handed out"};
    static constexpr auto& in(auto& build) { return build.issued_pieces; }
    static constexpr auto title = std::tuple{&IssuedPiece::piece};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("issue", &S::issue).needed(),
            field("thing", &S::thing).says("tag of what it is a piece of"),
            field("piece", &S::piece),
            number("count", &S::count, Unit::None, 1, 10'000),
            field("stock", &S::stock).says("sawn of it, or bought; empty: flat"),
            mm("length_mm", &S::length_mm, 0, 50'000),
            field("ends", &S::ends),
            mm("thickness_mm", &S::thickness_mm, 0, 200),
            mm("lines_mm", &S::lines_mm, -50'000, 50'000).says("corners of the outline, x, y of each; then of each window"),
            mm("holes_mm", &S::holes_mm, -50'000, 50'000).says("x, y, diameter of each"),
            mm("bends_mm", &S::bends_mm, -50'000, 50'000).says("x, y, x, y, inside radius of each; of a tube: where each begins"),
            rad("angles_rad", &S::angles_rad, -6.3, 6.3)
                .says("of those bends; of a sawn piece: tilts of its ends, then bend and turn of each"),
        };
    }
};

} // namespace gorvet::build
