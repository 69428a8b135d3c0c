#include "desk/shell/main_window.hpp"

#include <QApplication>
#include <QCommandLineParser>
#include <QSettings>

int main(int argc, char** argv) {
    QApplication app(argc, argv);
    QApplication::setApplicationName("gorvet");
    QApplication::setApplicationVersion(GORVET_VERSION);
    QApplication::setStyle("Fusion");
    QCommandLineParser parser;
    parser.setApplicationDescription("Body on chassis: measured, planned and drawn.");
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument("file", "A build to open.", "[file.gorvet]");
    const QCommandLineOption bench("bench", "Open on this bench: 1 Tape, 2 Sit, 3 Stretch, 4 Make, 5 Work.", "number");
    const QCommandLineOption dye("dye", "Start with the Dye ground.");
    const QCommandLineOption text("text", "Text size in %: 100 to 150.", "percent");
    parser.addOptions({bench, dye, text});
    parser.process(app);
    if (!gorvet::desk::registerTypefaces()) qWarning("A typeface could not be loaded; the text will look different.");
    gorvet::desk::MainWindow window;
    // what the command line says goes before what was left last time
    QSettings settings("gorvet", "gorvet");
    window.recall(settings);
    if (parser.isSet(dye)) window.setGround(gorvet::desk::Ground::Dye);
    if (parser.isSet(text)) window.setTextScale(std::clamp(parser.value(text).toDouble() / 100.0, 1.0, 1.5));
    if (!parser.positionalArguments().isEmpty()) window.openFile(parser.positionalArguments().first());
    if (parser.isSet(bench)) window.setBench(std::clamp(parser.value(bench).toInt(), 1, 5) - 1);
    window.show();
    const int code = QApplication::exec();
    window.remember(settings);
    return code;
}
