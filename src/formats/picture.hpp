#pragma once

#include "units/result.hpp"

#include <filesystem>

namespace gorvet::formats {

/// Whether a file is a picture, by its first bytes: JPEG, PNG, TIFF, WebP, HEIC or AVIF, and long enough to hold one. Fails with
/// Error::BadInput otherwise: a photo that can't be looked at later proves nothing.
Result<void> isPicture(const std::filesystem::path&);

} // namespace gorvet::formats
