#include "cli/commands.hpp"

#include "cli/open_build.hpp"
#include "cli/tape_commands.hpp"

#include <iostream>

namespace gorvet::cli {

int Commands::run(int argc, char** argv) {
    for (auto* command : app_.get_subcommands({})) {
        command->fallthrough();
        for (auto* inner : command->get_subcommands({})) inner->fallthrough();
    }
    try {
        app_.parse(argc, argv);
    } catch (const CLI::ParseError& e) {
        const int code = app_.exit(e, std::cout, std::cerr);
        return code == 0 ? 0 : exit_wrong;
    }
    for (const auto& [command, run] : runs_)
        if (*command) return run();
    return exit_wrong;
}

void fileArgument(CLI::App& c, std::string& path) { c.add_option("FILE", path, "a build, FILE.gorvet")->required(); }
void surveyArgument(CLI::App& c, std::string& path) { c.add_option("FILE", path, "READINGS.csv or FILE.gorvet")->required(); }
void scanArgument(CLI::App& c, std::string& path) { c.add_option("FILE", path, "PLY, STL, OBJ, XYZ or CSV")->required(); }
void subjectOption(CLI::App& c, std::string& subject) {
    c.add_option("--subject", subject, "chassis, body, or another subject of the build")->capture_default_str();
}
void whyOption(CLI::App& c, std::string& why) { c.add_option("--why", why, "goes into the log"); }
CLI::Option* unitOption(CLI::App& c, std::string& unit) {
    return c.add_option("--unit", unit, "what one unit of the file is: mm, cm, m or in")
        ->check(CLI::IsMember({"mm", "cm", "m", "in"}));
}

} // namespace gorvet::cli
