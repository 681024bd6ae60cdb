// SPDX-License-Identifier: GPL-3.0-or-later
// tectonis [FILE]: the desktop application. --shots DIR writes a picture of every stage and ends.
#include "application.hpp"
#include "fonts.hpp"
#include "main_window.hpp"
#include "shell/stage_signs.hpp"
#include "theme.hpp"

#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QCommandLineParser>
#include <QDir>
#include <QPushButton>
#include <QSettings>
#include <QSlider>
#include <QTableWidget>

namespace {

/// The mock-up pulled apart, open, and worn.
bool takeLooks(tectonis::MainWindow& window, const QString& folder)
{
    auto* apart = window.findChild<QSlider*>("look.apart");
    auto* open = window.findChild<QCheckBox*>("look.open");
    auto* person = window.findChild<QComboBox*>("look.person");
    const auto take = [&](const QString& name) {
        QCoreApplication::processEvents();
        return window.grab().save(folder + "/brief-" + name + ".png");
    };
    apart->setValue(60);
    bool saved = take("apart");
    apart->setValue(0);
    open->setChecked(true);
    saved &= take("open");
    open->setChecked(false);
    person->setCurrentIndex(3);
    saved &= take("worn");
    person->setCurrentIndex(0);
    return saved;
}

/// Pictures of all stages for the documentation.
int takePictures(tectonis::MainWindow& window, const QString& folder)
{
    QDir().mkpath(folder);
    const auto& steps = window.document().pattern().steps;
    if (!steps.empty())
        window.document().takeStep(steps[steps.size() / 2].id); // one with seams to show
    for (int i = 0; i < tectonis::stageNames().size(); ++i) {
        window.goTo(i);
        QCoreApplication::processEvents();
        const QString name = QString("%1/%2-%3.png").arg(folder).arg(i + 1).arg(tectonis::stageNames()[i].toLower());
        if (!window.grab().save(name))
            return 1;
        if (i == 0 && !takeLooks(window, folder))
            return 1;
        // The same with its ledger open and a seam half walked.
        if (auto* ledger = window.findChild<QPushButton*>("ledgerButton"); ledger && ledger->isVisible()) {
            ledger->click();
            if (auto* list = window.findChild<QTableWidget*>("ledger"); list && list->rowCount() > 0)
                list->setCurrentCell(0, 0);
            if (auto* walk = window.findChild<QSlider*>("walk"))
                walk->setValue(420);
            QCoreApplication::processEvents();
            if (!window.grab().save(folder + "/draft-ledger.png"))
                return 1;
            ledger->click();
        }
    }
    return 0;
}

} // namespace

int main(int argc, char** argv)
{
    tectonis::Application app(argc, argv);
    QApplication::setApplicationName("Tectonis");
    QApplication::setOrganizationName("tectonis");
    QApplication::setApplicationVersion(TECTONIS_VERSION);
    QCommandLineParser parser;
    parser.setApplicationDescription("Drafts, grades and specifies bag patterns.");
    parser.addHelpOption();
    parser.addVersionOption();
    parser.addPositionalArgument("file", "a .tectonis design to open");
    const QCommandLineOption shots("shots", "write a picture of every stage into a folder and end", "folder");
    const QCommandLineOption dark("dark", "start dark");
    parser.addOptions({shots, dark});
    parser.process(app);

    tectonis::loadFonts();
    tectonis::applyTheme(
        app, parser.isSet(dark) || (!parser.isSet(shots) && QSettings().value("dark", false).toBool()));
    tectonis::MainWindow window;
    if (!parser.positionalArguments().isEmpty() && !window.openFile(parser.positionalArguments().first())
        && parser.isSet(shots))
        return 2;
    if (!parser.isSet(shots))
        window.offerRecovery();
    window.show();
    if (parser.isSet(shots))
        return takePictures(window, parser.value(shots));
    return QApplication::exec();
}
