// SPDX-License-Identifier: GPL-3.0-or-later
#include "fonts.hpp"

#include <QFontDatabase>
#include <QStringList>

static void initFontResources()
{
    Q_INIT_RESOURCE(fonts);
} // a static library's resources need asking for, outside any namespace

namespace tectonis {
namespace {

QString family;

} // namespace

void loadFonts()
{
    if (!family.isEmpty())
        return;
    initFontResources();
    for (const char* file : {":/fonts/Inter-Regular.otf", ":/fonts/Inter-Medium.otf", ":/fonts/Inter-SemiBold.otf"}) {
        const int id = QFontDatabase::addApplicationFont(file);
        if (id >= 0 && family.isEmpty())
            family = QFontDatabase::applicationFontFamilies(id).value(0);
    }
}

QFont bodyFont(double points, QFont::Weight weight)
{
    QFont f(family, -1, weight);
    f.setPointSizeF(points);
    return f;
}

QFont pixelFont(double pixels, QFont::Weight weight)
{
    QFont f(family, -1, weight);
    f.setPixelSize(std::max(1, int(pixels + 0.5)));
    // The typeface swaps ×, –, ( and : beside figures and capitals for forms that a PDF cannot name: copied text would
    // lose them.
    f.setStyleStrategy(QFont::PreferNoShaping);
    return f;
}

} // namespace tectonis
