// SPDX-License-Identifier: GPL-3.0-or-later
// The application's tests need a QApplication with the bundled font and an own settings place.
#define CATCH_CONFIG_RUNNER
#include <catch2/catch.hpp>

#include "fonts.hpp"
#include "theme.hpp"

#include <QApplication>
#include <QStandardPaths>
#include <QTemporaryDir>

int main(int argc, char** argv)
{
    QTemporaryDir home;
    qputenv("XDG_CONFIG_HOME", home.path().toUtf8());
    qputenv("XDG_DATA_HOME", home.path().toUtf8());
    qputenv("XDG_RUNTIME_DIR", home.path().toUtf8());
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication app(argc, argv);
    QApplication::setApplicationName("Tectonis");
    QApplication::setOrganizationName("tectonis");
    tectonis::loadFonts();
    tectonis::applyTheme(app, false);
    return Catch::Session().run(argc, argv);
}
