#pragma once

#include "build/edit.hpp"

#include <map>
#include <memory>

/// Photos and spoken notes: how they come into the build, what of them is shown together.
namespace gorvet::analysis {

/// What a photo is said to show. What is empty is not said.
struct PhotoAbout {
    std::string area;
    std::string step; ///< code
    std::string part; ///< a row of the register, or a surface
    build::Stage stage = build::Stage::Unsaid;
    std::string note;
};

/// A file that was kept as a blob, as it is to become a photo.
struct NewPhoto {
    std::string hash;
    build::RecordKind kind = build::RecordKind::Picture;
    std::string taken; ///< as formats::PictureFacts has these
    double width_px = 0;
    double height_px = 0;
    int turned = 1;
};

/// The edit that makes photos of them, named p0001 and on; what is not said is taken from what is: the area of a step or part.
/// One whose content is kept already is passed over; Conflict when none is left.
Result<build::Edit> keepPhotos(const build::Build&, const std::vector<NewPhoto>&, const PhotoAbout&, const build::Signed&);

/// Two pictures of the same place, before and after.
struct BeforeAfter {
    std::string place; ///< a part, or an area
    build::PhotoId before;
    build::PhotoId after;
};
/// Of each part and area that has both: the last that was taken before, and the last after. The newest pair first.
std::vector<BeforeAfter> beforeAndAfter(const build::Build&);
/// When it was taken; where the camera does not say, when it was put in.
std::string whenTaken(const build::Photo&);
/// Pictures and notes that are not struck out, the newest first, at most so many.
std::vector<build::PhotoId> newestPictures(const build::Build&, std::size_t most);

/// Which small ones are made: by hash, how they are turned, and how long their longer side is.
struct PhotosAsked {
    std::map<std::string, int> turned;
    int longest_px = 0;
    bool operator==(const PhotosAsked&) const = default;
};
using SmallPhotos =
    std::map<std::string, std::shared_ptr<const std::string>>; ///< JPEG, by hash of the whole; null: can't be read

} // namespace gorvet::analysis
