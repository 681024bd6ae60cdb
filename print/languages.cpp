// SPDX-License-Identifier: GPL-3.0-or-later
#include "languages.hpp"

#include <QFile>

#include <cstdio>
#include <exception>

// Resources of a static library are brought in by name, from outside every namespace.
static void bringLanguages() { Q_INIT_RESOURCE(languages); }

namespace tectonis {

const Language& readersLanguage()
{
    static const Language language = [] {
        const QString wanted = QString::fromUtf8(qgetenv("TECTONIS_LANGUAGE"));
        if (wanted.isEmpty() || wanted == "en")
            return Language::english();
        bringLanguages();
        QFile file(wanted.endsWith(".mo") ? wanted : ":/languages/" + wanted + ".mo");
        try {
            if (file.open(QIODevice::ReadOnly))
                return Language::fromCatalogue(wanted.toStdString(), file.readAll().toStdString());
            std::fprintf(stderr, "There is no language “%s”; English is spoken.\n", qPrintable(wanted));
        } catch (const std::exception& e) {
            std::fprintf(stderr, "%s; English is spoken.\n", e.what());
        }
        return Language::english();
    }();
    return language;
}

} // namespace tectonis
