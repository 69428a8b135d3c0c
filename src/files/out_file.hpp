#pragma once

#include "units/result.hpp"

#include <filesystem>
#include <functional>
#include <string_view>

/// The one way in which this program writes a file of its own, other than a build.
namespace gorvet::files {

enum class Kind { Pdf, Svg, Dxf, Step, Ply, Stl, Csv, Picture, Calendar };

/// Lets `write` write a temporary file beside `to`, waits until it is on the disk, and gives it the name: what stands there is
/// the old file or the whole new one. Never over a build, a file that was protected, a folder, or a file of another kind; a
/// device or pipe is written as it is. Fails with Conflict (what stands there may not be written over) or File; nothing is left
/// behind then.
Result<void> put(const std::filesystem::path& to, Kind, const std::function<Result<void>(const std::filesystem::path&)>& write);
/// The same of a text.
Result<void> putText(const std::filesystem::path& to, Kind, std::string_view text);

/// Whether `put` would write there, without writing: to be asked before long work. The same errors.
Result<void> mayPut(const std::filesystem::path& to, Kind);

/// From now on this process does not write over that file: it is read by the command that runs. Thread-safe.
void protect(const std::filesystem::path&);

/// Whether it is a build, by its name or its content.
bool isBuild(const std::filesystem::path&);

/// Whether it can be read as a file: exists and is no folder, device or pipe, which have no end. Fails with NotFound.
Result<void> isPlainFile(const std::filesystem::path&);

} // namespace gorvet::files
