#pragma once

#include "build/release.hpp"

/// Jobs that no plan asks for: what a shop does besides, what a step waits for, and what did not come off at once.
namespace gorvet::build {

struct Job;
struct Awaited;
struct Attempt;
using JobId = Id<Job>;
using AwaitedId = Id<Awaited>;
using AttemptId = Id<Attempt>;

/// A job of one's own. In the order of work its step has the code "job-" and its name.
struct Job {
    JobId id;
    std::string name;  ///< unique; one word
    std::string title; ///< what is done; empty: the name
    std::string area;  ///< of the car: "left sill"; may be empty
    JobKind kind = JobKind::General;
    double least_h = 0; ///< hours, all people together; 0: not said
    double likely_h = 0;
    double most_h = 0;
    double rest_h =
        0; ///< hours by the clock that it is left alone afterwards, before what waits for it: paint, seam sealer, soak
    double people = 1; ///< hands that it takes at the same time
    std::optional<BodyPlace> body;
    std::optional<Attitude> attitude;
    std::optional<Support> support;
    std::vector<std::string> after;  ///< steps that must be done before it: codes, or names of jobs
    std::vector<std::string> before; ///< steps that must wait for it
    std::string closes;              ///< a space that it closes off: "inside of the left sill"; empty: none
    std::string inside;              ///< the space that it is done in
    std::string wanted;              ///< date, 2026-12-24; empty: none
    std::optional<Signed> found;     ///< nobody had planned it: by whom it was found, and when
    std::string found_at;            ///< the step at which it was found, code or name of a job
    std::string list;                ///< the ready-made list that it came with; empty: one's own
    std::string note;
    bool operator==(const Job&) const = default;
};
template <> struct Schema<Job> {
    static constexpr TableInfo table{"job", "jobs", 6, "a job"};
    static constexpr auto& in(auto& build) { return build.jobs; }
    static constexpr auto key = std::tuple{&Job::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("title", &S::title),
            field("area", &S::area),
            field("kind", &S::kind),
            number("least_h", &S::least_h, Unit::Hours, 0, 10'000).says("0: not said"),
            number("likely_h", &S::likely_h, Unit::Hours, 0, 10'000).says("0: not said"),
            number("most_h", &S::most_h, Unit::Hours, 0, 10'000).says("0: not said"),
            number("rest_h", &S::rest_h, Unit::Hours, 0, 10'000).says("that it is left alone afterwards"),
            number("people", &S::people, Unit::None, 1, 50),
            field("body", &S::body),
            field("attitude", &S::attitude),
            field("support", &S::support),
            words("after", &S::after).says("codes of steps, or names of jobs"),
            words("before", &S::before).says("codes of steps, or names of jobs"),
            field("closes", &S::closes).says("a space"),
            field("inside", &S::inside).says("a space"),
            date("wanted", &S::wanted),
            field("found", &S::found).came(7).says("nobody had planned it"),
            field("found_at", &S::found_at).came(7).says("code of a step, or name of a job"),
            field("list", &S::list).says("the ready-made list it came with"),
            field("note", &S::note),
        };
    }
};

/// A part or a supplier that a step waits for.
struct Awaited {
    AwaitedId id;
    std::string name; ///< unique; one word
    std::string step; ///< code of the step that needs it, or name of a job
    std::string supplier;
    std::string ordered;   ///< date; empty: not ordered yet
    std::string arrived;   ///< date; empty: not here yet
    double least_days = 0; ///< from the order until it is here; 0: not said
    double likely_days = 0;
    double most_days = 0;
    std::optional<double> cost;
    std::string note;
    bool operator==(const Awaited&) const = default;
};
template <> struct Schema<Awaited> {
    static constexpr TableInfo table{"awaited", "awaited", 6, "a part that is awaited"};
    static constexpr auto& in(auto& build) { return build.awaited; }
    static constexpr auto key = std::tuple{&Awaited::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            name("step", &S::step),
            field("supplier", &S::supplier),
            date("ordered", &S::ordered),
            date("arrived", &S::arrived),
            number("least_days", &S::least_days, Unit::Days, 0, 5000).says("0: not said"),
            number("likely_days", &S::likely_days, Unit::Days, 0, 5000).says("0: not said"),
            number("most_days", &S::most_days, Unit::Days, 0, 5000).says("0: not said"),
            number("cost", &S::cost, Unit::Money, 0, 1e9),
            field("note", &S::note),
        };
    }
};

/// A step that was done and did not come off: it is to be done again.
struct Attempt {
    AttemptId id;
    std::string step; ///< code
    std::string why;
    std::string who;
    std::string at_utc; ///< ISO 8601, seconds
    bool operator==(const Attempt&) const = default;
};
template <> struct Schema<Attempt> {
    static constexpr TableInfo table{"attempt", "attempts", 6, "an attempt that failed"};
    static constexpr auto& in(auto& build) { return build.attempts; }
    static constexpr auto title = std::tuple{&Attempt::step};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),   name("step", &S::step),      field("why", &S::why),
            field("who", &S::who), field("at_utc", &S::at_utc),
        };
    }
};

} // namespace gorvet::build
