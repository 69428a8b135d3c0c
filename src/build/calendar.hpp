#pragma once

#include "build/figures.hpp"

/// When the shop works, how long things should take and how long they took.
namespace gorvet::build {

struct Estimate;
struct DayOff;
struct Worked;
using EstimateId = Id<Estimate>;
using DayOffId = Id<DayOff>;
using WorkedId = Id<Worked>;

/// The hours that the shop has for this build. Usual for somebody who builds after work, until they are said.
struct Calendar {
    Dimension weekday_h{2.0, "", Provenance::Assumed}; ///< hours a day, Monday to Friday, of each person
    Dimension saturday_h{6.0, "", Provenance::Assumed};
    Dimension sunday_h{0.0, "", Provenance::Assumed};
    double people = 1;        ///< who work on it at the same time
    std::string wanted;       ///< date it is wanted by; empty: none
    Dimension cost_of_hour{}; ///< what an hour of one person costs; 0: nothing is charged
    bool operator==(const Calendar&) const = default;
};
template <> struct Schema<Calendar> {
    static constexpr TableInfo table{"calendar", "calendar", 6, "the shop's hours"};
    static constexpr auto& in(auto& build) { return build.calendar; }
    template <class S> static constexpr auto fields() {
        return FieldList{
            number("weekday_h", &S::weekday_h, Unit::Hours, 0, 24).says("of each person, Monday to Friday"),
            number("saturday_h", &S::saturday_h, Unit::Hours, 0, 24),
            number("sunday_h", &S::sunday_h, Unit::Hours, 0, 24),
            number("people", &S::people, Unit::None, 1, 50),
            date("wanted", &S::wanted),
            number("cost_of_hour", &S::cost_of_hour, Unit::Money, 0, 1e6).says("0: nothing is charged"),
        };
    }
};

/// Days on which nobody works on it.
struct DayOff {
    DayOffId id;
    std::string from; ///< date, unique
    std::string to;   ///< the last of them
    std::string why;
    bool operator==(const DayOff&) const = default;
};
template <> struct Schema<DayOff> {
    static constexpr TableInfo table{"day-off", "days_off", 6, "days off"};
    static constexpr auto& in(auto& build) { return build.days_off; }
    static constexpr auto key = std::tuple{&DayOff::from};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            date("from", &S::from),
            date("to", &S::to).says("the last day"),
            field("why", &S::why),
        };
    }
};

/// What a step of the plan should take; a job of one's own says it itself.
struct Estimate {
    EstimateId id;
    std::string step; ///< code; unique
    double least_h = 0;
    double likely_h = 0;
    double most_h = 0;
    bool operator==(const Estimate&) const = default;
};
template <> struct Schema<Estimate> {
    static constexpr TableInfo table{"estimate", "estimates", 6, "an estimate"};
    static constexpr auto& in(auto& build) { return build.estimates; }
    static constexpr auto key = std::tuple{&Estimate::step};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            name("step", &S::step),
            number("least_h", &S::least_h, Unit::Hours, 0, 10'000).says("0: not said"),
            number("likely_h", &S::likely_h, Unit::Hours, 0, 10'000),
            number("most_h", &S::most_h, Unit::Hours, 0, 10'000).says("0: not said"),
        };
    }
};

/// Hours that somebody worked on a step, on one day.
struct Worked {
    WorkedId id;
    std::string step; ///< code
    std::string day;  ///< date
    double hours = 0;
    std::string who;
    std::string note;
    bool operator==(const Worked&) const = default;
};
template <> struct Schema<Worked> {
    static constexpr TableInfo table{"worked", "worked", 6, "hours worked"};
    static constexpr auto& in(auto& build) { return build.worked; }
    static constexpr auto title = std::tuple{&Worked::step, &Worked::day};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),   name("step", &S::step),
            date("day", &S::day),  number("hours", &S::hours, Unit::Hours, 0.01, 1000),
            field("who", &S::who), field("note", &S::note),
        };
    }
};

} // namespace gorvet::build
