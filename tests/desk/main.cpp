// Where the tests of the window begin.
#define CATCH_CONFIG_RUNNER
#include "desk/shell/theme.hpp"

#include <QApplication>

#include <catch2/catch.hpp>

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    QApplication::setStyle("Fusion");
    gorvet::desk::registerTypefaces();
    return Catch::Session().run(argc, argv);
}
