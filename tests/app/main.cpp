// SPDX-License-Identifier: GPL-3.0-or-later
// The application's tests need a QApplication with the bundled font and an own settings place.
#define CATCH_CONFIG_RUNNER
#include <catch2/catch.hpp>

#include "application.hpp"
#include "fonts.hpp"
#include "theme.hpp"

#include <QApplication>
#include <QFile>
#include <QStandardPaths>
#include <QTemporaryDir>

int main(int argc, char** argv)
{
    QTemporaryDir home;
    qputenv("XDG_CONFIG_HOME", home.path().toUtf8());
    qputenv("XDG_DATA_HOME", home.path().toUtf8());
    qputenv("XDG_RUNTIME_DIR", home.path().toUtf8());
    // A screen as large as the smallest that the window is made for.
    const QString screen = home.path() + "/screen.json";
    QFile config(screen);
    if (!config.open(QIODevice::WriteOnly))
        return 1;
    config.write(R"({"screens": [{"name": "tests", "x": 0, "y": 0, "width": 1280, "height": 800, "logicalDpi": 96, "logicalBaseDpi": 96, "dpr": 1}]})");
    config.close();
    qputenv("QT_QPA_PLATFORM", "offscreen:configfile=" + screen.toUtf8());
    qputenv("QT_LOGGING_RULES", "*.debug=false");
    tectonis::Application app(argc, argv);
    QApplication::setApplicationName("Tectonis");
    QApplication::setOrganizationName("tectonis");
    tectonis::loadFonts();
    tectonis::applyTheme(app, false);
    return Catch::Session().run(argc, argv);
}
