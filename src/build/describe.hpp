#pragma once

#include "build/build.hpp"

/// The document described from its schema, for people and for tests.
namespace gorvet::build {

/// The file version in which a table, a part or a field came last: what a program must know to read such a build whole.
int newestVersion();

/// One line of what a build holds.
struct FieldLine {
    std::string table;
    bool row = false; ///< of a table; else of a single part
    std::string key;  ///< in a snapshot
    std::string field;
    std::string type;  ///< "dimension", "text", "list of place", "id of point", "rail or front-hub …"
    std::string range; ///< "0 to 500 mm"; empty: none of its own
    std::string about;
    int since = 1;
};
/// All fields of all tables and parts, in the order of the document.
std::vector<FieldLine> fieldLines();

/// The same as a table in Markdown: what stands in docs/file-format.md.
std::string fieldTable();

} // namespace gorvet::build
