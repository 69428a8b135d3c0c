// Before the first test of the window: the application that it belongs to. (A main of its own would compile the test library's.)
#define CATCH_CONFIG_EXTERNAL_INTERFACES
#include "desk/shell/theme.hpp"

#include <QApplication>
#include <memory>

#include <catch2/catch.hpp>

namespace desk_tests {
namespace {

struct WindowTests : Catch::TestEventListenerBase {
    using TestEventListenerBase::TestEventListenerBase;
    void testRunStarting(const Catch::TestRunInfo&) override {
        app_ = std::make_unique<QApplication>(count_, arguments_);
        QApplication::setStyle("Fusion");
        gorvet::desk::registerTypefaces();
    }
    void testRunEnded(const Catch::TestRunStats&) override { app_.reset(); }

private:
    char name_[6] = "tests";
    char* arguments_[2] = {name_, nullptr};
    int count_ = 1;
    std::unique_ptr<QApplication> app_;
};

CATCH_REGISTER_LISTENER(WindowTests)

} // namespace
} // namespace desk_tests
