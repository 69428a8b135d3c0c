#pragma once

#include "build/edit.hpp"

#include <map>
#include <string>
#include <string_view>
#include <vector>

/// Readings as CSV: header `kind,from,to,value,unit,sigma_mm,note`, one reading, point or held coordinate a line. docs/cli.md.
namespace gorvet::formats {

/// A line that was left out, with its place.
struct CsvProblem {
    int line = 0;       ///< 1-based, as an editor counts
    std::string column; ///< name of the column; empty when it is about the whole line
    std::string text;   ///< what stood there
    std::string message;

    std::string sentence() const;
};

struct ReadReadings {
    build::Edit edit;                      ///< adds all good lines
    std::vector<CsvProblem> problems;      ///< the others, in order
    std::map<build::ReadingId, int> lines; ///< the line of each reading
    int readings = 0;
    int points = 0; ///< new ones
    int holds = 0;
    std::string remark; ///< how the file was understood where that is worth a look; usually empty
};

/// Reads CSV against a build: known points are met by name (a `point` line gives them a rough position or role they lack),
/// unknown ones are added. Comma or semicolon between columns, quotes, CR LF and a byte-order mark are taken.
/// `session` takes the readings; when it is none, a new one with the name `session_name` is made in the same edit.
/// A bare number takes the line's unit; without one, the build's. A coordinate that is held otherwise already is left out. Fails
/// only when the bytes are no text (`decodedText`) or there is no header to go by.
Result<ReadReadings> readReadings(std::string_view bytes, const build::Build&, build::SubjectId, build::SessionId session,
                                  const std::string& session_name);

/// Writes a subject's points, held coordinates and readings; `readReadings` gives the same values back.
std::string writeReadings(const build::Build&, build::SubjectId);

} // namespace gorvet::formats
