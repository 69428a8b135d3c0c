#pragma once

#include "units/result.hpp"

#include <filesystem>
#include <span>
#include <string>

/// Pictures as cameras and phones write them, and notes that were spoken.
namespace gorvet::formats {

/// What a picture's file says of it.
struct PictureFacts {
    std::string taken;   ///< by the camera's own clock, "2026-11-28 14:05:09"; empty: it does not say
    double width_px = 0; ///< as it is looked at, the right way up
    double height_px = 0;
    int turned = 1; ///< how the camera was held, 1 to 8 (EXIF orientation); 1: as it lies
};

/// What a JPEG or PNG file says of itself. Fails with BadInput where it is no picture, is cut off in its middle, or of a kind
/// that can't be shown and printed here (HEIC, AVIF, WebP, TIFF, camera raw): a photo that can't be looked at later proves
/// nothing.
Result<PictureFacts> readPicture(const std::filesystem::path&);

/// Whether a file is a spoken note, by its first bytes: WAV, OGG, FLAC, MP3 or M4A. Fails with BadInput otherwise.
Result<void> isSound(const std::filesystem::path&);

/// The picture turned the right way up, its longer side at most `longest_px`, as a JPEG's bytes. Fails with BadInput.
Result<std::string> smallPicture(std::span<const unsigned char> bytes, int turned, int longest_px);

} // namespace gorvet::formats
