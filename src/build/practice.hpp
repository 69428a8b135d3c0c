#pragma once

#include "build/survey.hpp"

/// A practice frame and the answers given.
namespace gorvet::build {

struct Answer;
using AnswerId = Id<Answer>;

/// A practice frame: its hidden truth follows from seed and difficulty.
struct Practice {
    bool on = false;
    double seed = 1;       ///< a whole number, 0…2³¹
    double difficulty = 1; ///< 1, 2, 3
    bool marked = false;   ///< the answers were handed in: the truth may be seen
    bool operator==(const Practice&) const = default;
};
template <> struct Schema<Practice> {
    static constexpr TableInfo table{"practice", "practice", 2, "the practice"};
    static constexpr auto& in(auto& build) { return build.practice; }
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("on", &S::on),
            number("seed", &S::seed, Unit::None, 0, 2147483647),
            number("difficulty", &S::difficulty, Unit::None, 1, 3),
            field("marked", &S::marked),
        };
    }
};

/// What the person says is wrong with the practice frame.
struct Answer {
    AnswerId id;
    std::string about;              ///< key of a figure, or "reading"; unique but for readings
    std::optional<Dimension> value; ///< mm; none: "straight"
    PointId from;                   ///< of a reading said to be wrong
    PointId to;
    bool operator==(const Answer&) const = default;
};
template <> struct Schema<Answer> {
    static constexpr TableInfo table{"answer", "answers", 2, "an answer"};
    static constexpr auto& in(auto& build) { return build.answers; }
    static constexpr auto title = std::tuple{&Answer::about};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            name("about", &S::about).says("key of a figure, or \"reading\""),
            mm("value", &S::value, -500, 500).says("null: straight"),
            field("from", &S::from),
            field("to", &S::to),
        };
    }
};

} // namespace gorvet::build
