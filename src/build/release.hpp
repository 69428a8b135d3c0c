#pragma once

#include "build/survey.hpp"

/// The register of what is taken apart: everything that must be undone before a part comes away, and done up again.
namespace gorvet::build {

struct Release;
using ReleaseId = Id<Release>;

/// Who says that something is so, and since when.
struct Signed {
    std::string who;
    std::string at_utc; ///< ISO 8601, seconds
    bool operator==(const Signed&) const = default;
};
template <> struct Schema<Signed> {
    static constexpr const char* called = "who and when";
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("who", &S::who),
            field("at_utc", &S::at_utc),
        };
    }
};

/// One connector, line, hose, cable, linkage, bolt or piece of trim.
struct Release {
    ReleaseId id;
    std::string name; ///< unique; one word: what its label and its bag say
    ReleaseKind kind = ReleaseKind::Other;
    std::string area;     ///< of the car: "engine bay left"
    std::string joins;    ///< what it joins: "bulkhead to chassis loom"
    std::string how;      ///< how it is released: "press the tab, pull"
    std::string cap;      ///< cap or plug that closes what is open
    std::string bag;      ///< where its bolts are; empty: a bag of its own name
    std::string photo;    ///< content hash of a blob in the file; empty: none
    std::string frees;    ///< the step that it must be undone for, code or name of a job; empty: lifting the body
    double torque_nm = 0; ///< 0: not said
    bool seized = false;
    bool captive = false;   ///< its nut is held in the part
    bool on_wheels = false; ///< tightened for good only when the weight is on the wheels
    bool renew = false;     ///< its fastener is renewed, not used again
    Fate fate = Fate::Keep; ///< of the part that it holds
    double soak_h = 0;      ///< that it soaks before it is tried, where it is seized; 0: as is usual, a day
    std::optional<Signed> soaked;
    std::optional<Signed> released;
    std::optional<Signed> proved;    ///< seen to be free on another walk-round, by whoever went
    std::optional<Signed> refitted;  ///< on again, by hand
    std::optional<Signed> tightened; ///< for good, to its torque
    std::string note;
    bool operator==(const Release&) const = default;
};
template <> struct Schema<Release> {
    static constexpr TableInfo table{"release", "releases", 6, "something that is taken apart"};
    static constexpr auto& in(auto& build) { return build.releases; }
    static constexpr auto key = std::tuple{&Release::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("kind", &S::kind),
            field("area", &S::area),
            field("joins", &S::joins),
            field("how", &S::how),
            field("cap", &S::cap),
            field("bag", &S::bag),
            hash("photo", &S::photo),
            field("frees", &S::frees).says("code of a step, or name of a job; empty: lifting the body"),
            number("torque_nm", &S::torque_nm, Unit::NewtonMetre, 0, 5000).says("0: not said"),
            field("seized", &S::seized),
            field("captive", &S::captive),
            field("on_wheels", &S::on_wheels).says("tightened when the weight is on"),
            field("renew", &S::renew),
            field("fate", &S::fate),
            number("soak_h", &S::soak_h, Unit::Hours, 0, 2000).came(7).says("0: a day"),
            field("soaked", &S::soaked),
            field("released", &S::released),
            field("proved", &S::proved).says("seen to be free on another walk-round"),
            field("refitted", &S::refitted),
            field("tightened", &S::tightened),
            field("note", &S::note),
        };
    }
};

} // namespace gorvet::build
