#pragma once

#include "build/release.hpp"

/// Pictures and spoken notes. Nothing here is deleted: it is struck out.
namespace gorvet::build {

struct Photo;
using PhotoId = Id<Photo>;

/// A picture, or a note that was spoken: its content is a blob in the file.
struct Photo {
    PhotoId id;
    std::string name; ///< unique; one word
    RecordKind kind = RecordKind::Picture;
    std::string content; ///< hash of a blob in the file
    std::string taken;   ///< by the camera's own clock, "2026-11-28 14:05:09"; empty: it does not say
    double width_px = 0; ///< as it is looked at, the right way up; 0: not known
    double height_px = 0;
    double turned = 1; ///< how the camera was held: 1 to 8, as pictures say it (EXIF orientation); 1: as it lies
    std::string area;  ///< of the car
    std::string step;  ///< code of the step, or name of a job
    std::string part;  ///< a row of the register or a surface
    Stage stage = Stage::Unsaid;
    std::string note;
    Signed kept;                  ///< by whom it was put in, and when
    std::optional<Signed> struck; ///< by whom it was struck out
    bool operator==(const Photo&) const = default;
};
template <> struct Schema<Photo> {
    static constexpr TableInfo table{"photo", "photos", 7, "a photo"};
    static constexpr auto& in(auto& build) { return build.photos; }
    static constexpr auto key = std::tuple{&Photo::name};
    template <class S> static constexpr auto fields() {
        return FieldList{
            field("id", &S::id),
            word("name", &S::name),
            field("kind", &S::kind),
            hash("content", &S::content),
            field("taken", &S::taken).says("by the camera's own clock"),
            number("width_px", &S::width_px, Unit::None, 0, 200'000).says("right way up; 0: not known"),
            number("height_px", &S::height_px, Unit::None, 0, 200'000),
            number("turned", &S::turned, Unit::None, 1, 8).says("how the camera was held, as pictures say it"),
            field("area", &S::area),
            field("step", &S::step).says("code of a step, or name of a job"),
            field("part", &S::part).says("a row of the register, or a surface"),
            field("stage", &S::stage),
            field("note", &S::note),
            field("kept", &S::kept),
            field("struck", &S::struck),
        };
    }
};

} // namespace gorvet::build
