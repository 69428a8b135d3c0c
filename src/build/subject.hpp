#pragma once

#include "build/figures.hpp"

#include "build/rows.hpp"

/// What is measured in a build: the body, the chassis, and whatever else stands on a bench of its own.
namespace gorvet::build {

struct Subject;
using SubjectId = Id<Subject>;

/// The two that every build has.
inline constexpr SubjectId the_body{1};
inline constexpr SubjectId the_chassis{2};

/// A thing with points, readings and axes of its own.
struct Subject {
    SubjectId id;
    std::string name; ///< unique; one word
    SubjectKind kind = SubjectKind::Component;
    std::string note;
    bool operator==(const Subject&) const = default;
};
template <> struct Schema<Subject> {
    static constexpr TableInfo table{"subject", "subjects", 4, "a subject"};
    static constexpr auto& in(auto& build) { return build.subjects; }
    static constexpr auto key = std::tuple{&Subject::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("kind", &S::kind),
            field("note", &S::note),
        };
    }
};

/// What a new build has.
inline Rows<Subject> bodyAndChassis() {
    return {{the_body, {the_body, "body", SubjectKind::Body, {}}},
            {the_chassis, {the_chassis, "chassis", SubjectKind::Chassis, {}}}};
}

/// Whether it is a frame: with rails, hubs and a centreline of its own.
constexpr bool isFrame(SubjectKind k) {
    return k == SubjectKind::Chassis || k == SubjectKind::Candidate || k == SubjectKind::AsBuilt;
}

} // namespace gorvet::build
