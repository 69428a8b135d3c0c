#pragma once

#include "sheet/page.hpp"

/// Photos on a sheet: what a place looked like before and after, side by side, and what came lately.
namespace gorvet::work {

struct PhotoShown {
    std::string name;
    std::string when;                         ///< "2026-11-28 14:05"
    std::string what;                         ///< where, at which step, note
    std::shared_ptr<const std::string> bytes; ///< null: not made yet
    bool voice = false;                       ///< a note that was spoken
    bool unread = false;                      ///< it can't be read
};
struct PhotoPair {
    std::string place;
    PhotoShown before;
    PhotoShown after;
};
struct PhotosView {
    std::vector<PhotoPair> pairs;
    std::vector<PhotoShown> newest;
    std::size_t all = 0;  ///< of the build
    std::string selected; ///< tag
};

/// As high as it needs.
sheet::Drawing photoSheet(const PhotosView&, double width, double height, const sheet::Format&);
/// Three pairs a page, then twelve pictures a page.
std::vector<sheet::Drawing> photoPages(const PhotosView&, const sheet::PageTitle&, const std::vector<std::string>& cautions);
/// One picture in its frame, with its words below; returns how high both are.
double addPhoto(sheet::Drawing&, const PhotoShown&, sheet::P at, double width, double height, const sheet::Format&,
                bool strong = false);

} // namespace gorvet::work
