#include "analysis/bench.hpp"
#include "desk/handbook/handbook.hpp"
#include "desk/shell/main_window.hpp"

#include <QApplication>
#include <QCommandLineParser>
#include <QIcon>
#include <QScreen>
#include <QSettings>
#include <QTimer>
#include <QWindow>

#include <cstdio>
#include <ctime>
#include <fstream>
#include <string>

#include <malloc.h>
#include <unistd.h>

namespace {

/// Milliseconds since the system started this program, to 10 ms: from /proc/self/stat (proc(5), field 22).
double sinceStart_ms() {
    std::ifstream file("/proc/self/stat");
    const std::string all((std::istreambuf_iterator<char>(file)), {});
    // the name in brackets may hold blanks: the third field follows the last bracket
    std::size_t at = all.rfind(')') + 1;
    for (int field = 2; field < 21; ++field) at = all.find(' ', at + 1);
    timespec now{};
    clock_gettime(CLOCK_BOOTTIME, &now);
    return static_cast<double>(now.tv_sec) * 1e3 + static_cast<double>(now.tv_nsec) / 1e6 -
           std::stod(all.substr(at + 1)) * 1e3 / static_cast<double>(sysconf(_SC_CLK_TCK));
}

} // namespace

int main(int argc, char** argv) {
    // what a thread beside the window gave back stays with the system, not with the thread
    mallopt(M_ARENA_MAX, 1);
    mallopt(M_MMAP_THRESHOLD, 256 * 1024);
    QApplication app(argc, argv);
    QApplication::setApplicationName("gorvet");
    QApplication::setApplicationVersion(GORVET_VERSION);
    QApplication::setStyle("Fusion");
    // a caret that flashes has a window with an OpenGL part in it composed anew twice a second, for ever
    QApplication::setCursorFlashTime(0);
    QApplication::setDesktopFileName("gorvet");
    QIcon icon;
    for (const char* size : {"48", "128", "256"}) icon.addFile(QStringLiteral(":/icons/gorvet-%1.png").arg(size));
    QApplication::setWindowIcon(icon);
    QCommandLineParser parser;
    parser.setApplicationDescription("Body on chassis: measured, planned and drawn.");
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument("file", "A build to open.", "[file.gorvet]");
    QStringList keys;
    for (const gorvet::analysis::BenchInfo* info : gorvet::analysis::benches()) keys << QString::fromUtf8(info->key.data());
    const QCommandLineOption bench("bench", "Open on this bench: " + keys.join(", ") + ".", "key");
    const QCommandLineOption dye("dye", "Start with the Dye ground.");
    const QCommandLineOption text("text", "Text size in %: 100 to 150.", "percent");
    QCommandLineOption time_start("time-start", "Say in ms when the window could be used, and leave (bench/start.sh).");
    time_start.setFlags(QCommandLineOption::HiddenFromHelp);
    const QCommandLineOption handbook("handbook", "Write the handbook as one PDF, and leave.", "file.pdf");
    parser.addOptions({bench, dye, text, handbook, time_start});
    parser.process(app);
    if (!gorvet::desk::registerTypefaces()) qWarning("A typeface could not be loaded; the text will look different.");
    if (parser.isSet(handbook)) {
        const QString trouble = gorvet::desk::handbook::writePdf(parser.value(handbook));
        if (!trouble.isEmpty()) std::fprintf(stderr, "gorvet: %s\n", qPrintable(trouble));
        return trouble.isEmpty() ? 0 : 2;
    }
    gorvet::desk::MainWindow window;
    // what the command line says goes before what was left last time
    QSettings settings("gorvet", "gorvet");
    window.recall(settings);
    QObject::connect(&window, &gorvet::desk::MainWindow::buildsChanged, &window, [&] { window.remember(settings); });
    if (parser.isSet(dye)) window.setGround(gorvet::desk::Ground::Dye);
    if (parser.isSet(text)) window.setTextScale(std::clamp(parser.value(text).toDouble() / 100.0, 1.0, 1.5));
    if (!parser.positionalArguments().isEmpty()) window.openFile(parser.positionalArguments().first());
    if (parser.isSet(bench)) {
        if (!keys.contains(parser.value(bench)))
            qWarning("--bench %s: there are %s.", qPrintable(parser.value(bench)), qPrintable(keys.join(", ")));
        window.setBench(parser.value(bench).toStdString());
    }
    // a title bar and a task bar want room, too: on a small screen it takes all that there is
    constexpr int title_px = 36;
    if (const QSize room = window.screen()->availableSize();
        window.width() > room.width() || window.height() + title_px > room.height())
        window.showMaximized();
    else
        window.show();
    QTimer poll;
    if (parser.isSet(time_start)) {
        // usable: on the screen and painted, its results in, and nothing left to do: a timer of 0 ms comes after all other events
        QObject::connect(&poll, &QTimer::timeout, &window, [&window] {
            if (!window.windowHandle()->isExposed() || window.document().stale()) return;
            std::printf("%.0f\n", sinceStart_ms());
            QCoreApplication::quit();
        });
        poll.start(0);
    }
    const int code = QApplication::exec();
    window.keepPicture();
    window.remember(settings);
    return code;
}
