#pragma once

#include "analysis/results.hpp"
#include "store/store.hpp"

#include <memory>
#include <string>

/// How the commands get at a build, and what every one of them says when its file is damaged.
namespace gorvet::cli {

using StorePtr = std::unique_ptr<store::Store>;

/// For commands that only read: takes no lock. Says what is damaged or was brought up, and remembers it for `finished`.
Result<StorePtr> openToRead(const std::string& path);
/// For commands that write: waits for another writer as long as `setPatience` says. A damaged file is an error.
Result<StorePtr> openToWrite(const std::string& path);
/// Seconds; 10 unless it is set.
void setPatience(double seconds);

/// Who writes: GORVET_USER, USER, or "builder".
store::Author author(const std::string& why = {});

/// The subject of that name. Fails with NotFound, naming those that there are.
Result<build::SubjectId> subjectIn(const build::Build&, const std::string& name, const std::string& file);

/// The build's results; what was found damaged on opening stands among their findings and on every sheet.
analysis::Results analysed(const build::Build&, std::int64_t revision = 0);
analysis::Results analysed(const store::Store&);

/// The exit code of a command that ends with `code`: not 0 when what was read is damaged, or when the answer could not be
/// written.
int finished(int code);

} // namespace gorvet::cli
