#pragma once

#include "build/release.hpp"

/// What is decided with whom the car belongs to. Nothing here is deleted: it is struck out.
namespace gorvet::build {

struct Decision;
struct Choice;
using DecisionId = Id<Decision>;
using ChoiceId = Id<Choice>;

/// A question with choices, and who agreed to which of them.
struct Decision {
    DecisionId id;
    std::string name;             ///< unique; one word
    std::string asks;             ///< "How is the left floor mended?"
    std::string step;             ///< the step that waits for it, code or name of a job; empty: none does
    std::string wanted;           ///< date by which it must be known; empty: none
    std::string chosen;           ///< name of the choice; empty: still open
    std::optional<Signed> agreed; ///< with whom, as typed; and when it was entered
    std::optional<Signed> struck; ///< by whom it was struck out
    bool change = false;          ///< what was agreed before is changed: a change order
    std::string because;          ///< why: a job that was found, or in words
    std::string note;
    bool operator==(const Decision&) const = default;
};
template <> struct Schema<Decision> {
    static constexpr TableInfo table{"decision", "decisions", 6, "a decision"};
    static constexpr auto& in(auto& build) { return build.decisions; }
    static constexpr auto key = std::tuple{&Decision::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("asks", &S::asks),
            field("step", &S::step).says("code of a step, or name of a job"),
            date("wanted", &S::wanted),
            field("chosen", &S::chosen).says("name of the choice"),
            field("agreed", &S::agreed),
            field("struck", &S::struck),
            field("change", &S::change).came(7).says("a change order"),
            field("because", &S::because).came(7),
            field("note", &S::note),
        };
    }
};

/// One way to decide.
struct Choice {
    ChoiceId id;
    DecisionId decision;
    std::string name; ///< unique in its decision; one word
    std::string what;
    double price = 0; ///< what it adds; 0: nothing
    double hours = 0;
    double days = 0; ///< that it puts off the end
    bool operator==(const Choice&) const = default;
};
template <> struct Schema<Choice> {
    static constexpr TableInfo table{"choice", "choices", 6, "a choice"};
    static constexpr auto& in(auto& build) { return build.choices; }
    static constexpr auto key = std::tuple{&Choice::decision, &Choice::name};
    static constexpr auto title = std::tuple{&Choice::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            field("decision", &S::decision).needed(),
            word("name", &S::name),
            field("what", &S::what),
            number("price", &S::price, Unit::Money, -1e9, 1e9),
            number("hours", &S::hours, Unit::Hours, -10'000, 10'000),
            number("days", &S::days, Unit::Days, -5000, 5000).says("that it puts off the end"),
        };
    }
};

} // namespace gorvet::build
