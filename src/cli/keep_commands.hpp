#pragma once

#include "build/build.hpp"

#include <string>
#include <vector>

/// The commands that make a build, put things into it, take them back, and hand a photo out again. Each prints, and returns the
/// exit code.
namespace gorvet::cli {

int newBuild(const std::string& path, const std::string& name);
int importReadings(const std::string& path, const std::string& csv_path, const std::string& subject,
                   const std::string& session_name, const std::string& why);
/// `as`: rough, drawing or coordinates.
int importPoints(const std::string& path, const std::string& csv_path, const std::string& subject, const std::string& as,
                 const std::string& source);
/// Without lines, from standard input, each kept as it comes.
int enterLines(const std::string& path, const std::string& subject, const std::vector<std::string>& given,
               const std::string& why);
int keepPhoto(const std::string& path, const std::string& step, const std::string& picture, const std::string& note);
int keepPhotoFound(const std::string& path, const std::string& subject, const std::string& kind, const std::string& where,
                   const std::string& picture);
int takePhotoOut(const std::string& path, const std::string& hash, const std::string& out);
int undoRedo(const std::string& path, bool undo);
int printLog(const std::string& path);

} // namespace gorvet::cli
