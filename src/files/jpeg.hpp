#pragma once

#include "units/result.hpp"

#include <span>
#include <string>
#include <vector>

/// JPEG pictures, read smaller than they are, and written.
namespace gorvet::files {

/// Rows from the top, three bytes a pixel: red, green, blue.
struct Pixels {
    int width = 0;
    int height = 0;
    std::vector<unsigned char> rgb;
};

/// Whether bytes begin as a JPEG picture does.
bool looksLikeJpeg(std::span<const unsigned char>);
/// The picture at an eighth of its size or more, the smallest at which its longer side still has `longest_px`; whole when it has
/// fewer. Fails with BadInput where it is no JPEG, cut off, or of more than 200 million pixels.
Result<Pixels> readJpeg(std::span<const unsigned char>, int longest_px);
/// As a JPEG's bytes.
std::string writeJpeg(const Pixels&);

} // namespace gorvet::files
