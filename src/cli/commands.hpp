#pragma once

#include <deque>
#include <functional>
#include <memory>
#include <string>
#include <vector>

#include <CLI/CLI.hpp>

/// The commands of the program, each declared and done in one place. Only for .cpp files.
namespace gorvet::cli {

/// What most commands ask for; each takes what it wants of it.
struct Asked {
    std::string path;  ///< FILE
    std::string other; ///< a second file
    std::string text;
    std::string from;
    std::string to;
    std::string why;
    std::string unit;
    std::string subject = "chassis";
    std::vector<std::string> lines;
    double number = 0;
    int count = 20;
    bool flag = false;
};

class Commands {
public:
    explicit Commands(const std::string& about) : app_(about) { app_.require_subcommand(1); }
    CLI::App& app() { return app_; }
    /// A command with what it asks for; it lives as long as the program.
    template <class Request = Asked>
    std::pair<CLI::App&, Request&> add(CLI::App& under, const std::string& name, const std::string& what) {
        auto request = std::make_shared<Request>();
        Request& asked = *request;
        kept_.push_back(std::move(request));
        return {*under.add_subcommand(name, what), asked};
    }
    /// Commands under a word of their own.
    CLI::App& group(const std::string& name, const std::string& what) {
        CLI::App& g = *app_.add_subcommand(name, what);
        g.require_subcommand(1);
        return g;
    }
    /// What the command does: returns the exit code.
    void runs(const CLI::App& command, std::function<int()> run) { runs_.emplace_back(&command, std::move(run)); }
    /// Reads the words and does what they say.
    int run(int argc, char** argv);

private:
    CLI::App app_;
    std::deque<std::shared_ptr<void>> kept_;
    std::vector<std::pair<const CLI::App*, std::function<int()>>> runs_;
};

// options that many commands share
void fileArgument(CLI::App&, std::string& path);
void surveyArgument(CLI::App&, std::string& path);
void scanArgument(CLI::App&, std::string& path);
void subjectOption(CLI::App&, std::string& subject);
void whyOption(CLI::App&, std::string& why);
/// --unit mm|cm|m|in
CLI::Option* unitOption(CLI::App&, std::string& unit);

// the tables, by what they are about
void addBuildCommands(Commands&);
void addTapeCommands(Commands&);
void addPracticeCommands(Commands&);
void addScanCommands(Commands&);
void addClearanceCommands(Commands&);
void addBenchCommands(Commands&);
void addWorkCommands(Commands&);
void addPhotoCommands(Commands&);
void addFrameCommands(Commands&);

} // namespace gorvet::cli
