#include "cli/commands.hpp"
#include "cli/open_build.hpp"
#include "files/between.hpp"
#include "files/streams.hpp"

#include <iostream>

namespace gorvet::cli {
namespace {

int run(int argc, char** argv) {
    Commands commands(
        "Gorvet without a window: body on chassis, measured, planned and drawn. JSON on standard output, messages on standard error.");
    commands.app()
        .add_option_function<double>("--wait", setPatience,
                                     "how many seconds to wait for another program that writes the build; 10 unless said")
        ->check(files::between(0.0, 3600.0));
    setPatience(10);
    addBuildCommands(commands);
    addTapeCommands(commands);
    addPracticeCommands(commands);
    addScanCommands(commands);
    addClearanceCommands(commands);
    addBenchCommands(commands);
    addWorkCommands(commands);
    addPhotoCommands(commands);
    addFrameCommands(commands);
    return commands.run(argc, argv);
}

} // namespace
} // namespace gorvet::cli

int main(int argc, char** argv) {
    gorvet::files::openStandardStreams();
    try {
        return gorvet::cli::finished(gorvet::cli::run(argc, argv));
    } catch (const std::exception& e) {
        std::cerr << "gorvet-cli: " << e.what() << "\n";
        return 2;
    }
}
