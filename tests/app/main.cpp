// SPDX-License-Identifier: GPL-3.0-or-later
// The application's tests need a QApplication with the bundled font and an own settings place.
#include "application.hpp"
#include "fonts.hpp"
#include "main_window.hpp"
#include "tests.hpp"
#include "theme.hpp"

#include <QApplication>
#include <QFile>
#include <QStandardPaths>
#include <QTemporaryDir>
#include <QTimer>

namespace {

/// A run that edits without a pause until it is killed, for the test of recovery.
int editUntilKilled(const QString& file)
{
    tectonis::MainWindow window;
    window.show();
    if (!window.openFile(file))
        return 1;
    QTimer edits;
    double depth = 120;
    QObject::connect(&edits, &QTimer::timeout, [&] {
        depth += 0.5;
        window.document().edit("Depth", [&](tectonis::Design& d) {
            tectonis::setDimension(d, "depth", std::to_string(depth > 150 ? 121 : depth));
        });
    });
    edits.start(100);
    return QApplication::exec();
}

} // namespace

int main(int argc, char** argv)
{
    QTemporaryDir home;
    const bool steady = argc == 3 && std::string(argv[1]) == "--edit-until-killed";
    if (!steady) // a run that another test started has that one's places
        for (const char* place : {"XDG_CONFIG_HOME", "XDG_DATA_HOME", "XDG_RUNTIME_DIR"})
            qputenv(place, home.path().toUtf8());
    // A screen as large as the smallest that the window is made for.
    const QString screen = home.path() + "/screen.json";
    QFile config(screen);
    if (!config.open(QIODevice::WriteOnly))
        return 1;
    config.write(
        R"({"screens": [{"name": "tests", "x": 0, "y": 0, "width": 1280, "height": 800, "logicalDpi": 96, "logicalBaseDpi": 96, "dpr": 1}]})");
    config.close();
    qputenv("QT_QPA_PLATFORM", "offscreen:configfile=" + screen.toUtf8());
    qputenv("QT_LOGGING_RULES", "*.debug=false");
    tectonis::Application app(argc, argv);
    QApplication::setApplicationName("Tectonis");
    QApplication::setOrganizationName("tectonis");
    tectonis::loadFonts();
    tectonis::applyTheme(app, false);
    if (steady)
        return editUntilKilled(QString::fromUtf8(argv[2]));
    return runTests(argc, argv);
}
