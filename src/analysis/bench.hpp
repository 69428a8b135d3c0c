#pragma once

#include "analysis/cards.hpp"
#include "analysis/export.hpp"
#include "analysis/views.hpp"

#include <functional>
#include <string_view>

/// The benches of the desk, one table of them. All that goes over benches, in the window, on the command line and on paper, goes
/// over this table and knows none by name.
namespace gorvet::analysis {

struct Tag;

/// What a bench adds to the build sheet is made from.
struct SheetAsked {
    const build::Build& b;
    const Results& r;
    const ScanSheets& scans;
};

/// Takes the files that benches export, one after the other; none after the first that failed, or after a stop.
class FileKeeper {
public:
    using Write = std::function<Result<void>(const std::filesystem::path&)>;
    FileKeeper(std::filesystem::path folder, const Progress& progress) : folder_(std::move(folder)), progress_(progress) {}
    void keep(const std::string& name, const Write&);
    const std::optional<Error>& failed() const { return failed_; }
    std::vector<std::filesystem::path>& files() { return files_; }

private:
    std::filesystem::path folder_;
    const Progress& progress_;
    std::vector<std::filesystem::path> files_;
    std::optional<Error> failed_;
};

/// One bench. What it does not have is nullptr.
struct BenchInfo {
    std::string_view key; ///< "sit": begins the codes of its findings, names its command; never changes
    const char* name;     ///< "Sit"
    const char* question; ///< the one that its headline answers
    const char* command;  ///< what `gorvet-cli KEY FILE` prints, in a few words; nullptr: it has commands of its own
    /// Whether anything was entered or planned yet that it can judge.
    bool (*begun)(const build::Build&, const Results&);
    Headline (*headline)(const build::Build&, const Results&, build::SubjectId);
    sheet::Drawing (*view)(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width, double height,
                           const sheet::Format&);
    void (*findings)(const build::Build&, const Results&, std::vector<Finding>&);
    std::optional<Card> (*card)(const build::Build&, const Results&, build::SubjectId, const Tag&);
    void (*pages)(const SheetAsked&, std::vector<sheet::Drawing>&);
    void (*files)(const build::Build&, const Results&, FileKeeper&);
    std::string (*json)(const build::Build&, const Results&);
};

/// All benches in the order of work.
const std::vector<const BenchInfo*>& benches();
/// The bench of that key; nullptr when there is none.
const BenchInfo* benchOf(std::string_view key);
/// Its place in the table; that of the first for what concerns the whole file.
std::size_t placeOf(std::string_view key);
/// Name of the bench that a finding stands on.
const char* benchName(const Finding&);

} // namespace gorvet::analysis
