#pragma once

#include "analysis/photos.hpp"
#include "analysis/results.hpp"

/// What a card beside a drawn item says and offers. Tags are those of the drawings: "reading:12", "pin:3", "figure:twist".
namespace gorvet::analysis {

struct CardRow {
    std::string label;
    std::string value;
    sheet::Mark mark = sheet::Mark::None;
    bool strong = false;
};

/// Something that can be done from the card: a line for the entry grammar, with a figure to be typed when `asks`.
struct CardAction {
    std::string label;
    std::string line;    ///< whole, or the part before the typed figure
    std::string current; ///< what stands in the field to begin with
    bool asks = false;
    bool picks_photo = false;                       ///< a file is picked and kept; its hash completes the line
    std::optional<PhotoAbout> photo = std::nullopt; ///< files are picked and kept as photos of this
};

struct Card {
    std::string title;
    std::string word; ///< verdict word; may be empty
    sheet::Severity severity = sheet::Severity::Good;
    std::vector<CardRow> rows;
    std::vector<std::string> sentences;
    std::vector<CardAction> actions;
    std::string journal_table; ///< what the log knows it as: "reading", "pin", …; empty: nothing to look up
    std::uint32_t journal_id = 0;
};

/// None for a tag that stands for nothing (any more).
std::optional<Card> cardFor(const build::Build&, const Results&, build::SubjectId, const std::string& tag);

} // namespace gorvet::analysis
