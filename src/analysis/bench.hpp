#pragma once

#include "analysis/cards.hpp"
#include "analysis/export.hpp"
#include "analysis/slow.hpp"
#include "analysis/views.hpp"

#include <functional>
#include <string_view>

/// The benches of the desk, one table of them. All that goes over benches, in the window, on the command line and on paper, goes
/// over this table and knows none by name.
namespace gorvet::analysis {

struct Lack;
struct Listing;
struct Tag;

/// One sheet of a bench: on screen one at a time, the first of the list first.
struct BenchView {
    std::string_view key; ///< "costs": never changes
    const char* name;     ///< "What costs what"
    /// nullptr: it is a list, or the view of the scans
    sheet::Drawing (*draw)(const build::Build&, const Results&, build::SubjectId, const ViewOptions&, double width, double height,
                           const sheet::Format&);
    std::vector<std::string_view> needs = {}; ///< slow nodes that are made while it is shown
    /// Its own sentence; nullptr: the bench's.
    Headline (*headline)(const build::Build&, const Results&, build::SubjectId) = nullptr;
    /// Rows in place of a drawing.
    Listing (*list)(const build::Build&, const Results&, build::SubjectId) = nullptr;
    /// The line that keeps what a handle of its drawing was dragged to; nullptr: it has none.
    std::string (*dragged)(const build::Build&, const Results&, const std::string& grip, double value) = nullptr;
    bool isSpace() const { return !draw && !list; }
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

/// A part of what a bench's command prints, asked for by its word: `gorvet-cli stretch track FILE`.
struct JsonPart {
    std::string_view key;
    std::string (*json)(const build::Build&, const Results&);
    std::vector<std::string_view> needs = {}; ///< slow nodes that are made first
};

/// One bench. What it does not have is nullptr, or empty.
struct BenchInfo {
    std::string_view key; ///< "sit": begins the codes of its findings, names its command; never changes
    const char* name;     ///< "Sit"
    const char* question; ///< the one that its headline answers
    const char* command;  ///< what `gorvet-cli KEY FILE` prints, in a few words; nullptr: it has commands of its own
    /// Whether anything was entered or planned yet that it can judge.
    bool (*begun)(const build::Build&, const Results&);
    Headline (*headline)(const build::Build&, const Results&, build::SubjectId);
    /// What it waits for, by name (lead.hpp).
    std::vector<Lack> (*lacks)(const build::Build&, const Results&, build::SubjectId);
    std::vector<BenchView> views;
    void (*findings)(const build::Build&, const Results&, std::vector<Finding>&) = nullptr;
    std::optional<Card> (*card)(const build::Build&, const Results&, build::SubjectId, const Tag&) = nullptr;
    void (*pages)(const build::Build&, const Results&, std::vector<sheet::Drawing>&) = nullptr;
    void (*files)(const build::Build&, const Results&, FileKeeper&) = nullptr;
    std::string (*json)(const build::Build&, const Results&) = nullptr;
    const std::vector<SlowNode>* slow = nullptr;
    bool by_subject = false; ///< its sheets show one subject at a time
    /// Raw figures behind its pages, at the end of the build sheet.
    void (*annex)(const build::Build&, const Results&, std::vector<sheet::Drawing>&) = nullptr;
    std::vector<JsonPart> parts{};
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
