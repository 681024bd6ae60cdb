// SPDX-License-Identifier: GPL-3.0-or-later
// A drag as the hand makes it: pointer moves sent to the real window, 60 pieces in 8 sizes, with everything that is
// painted for each. Run it with QT_QPA_PLATFORM=offscreen.
#include "grown.hpp"

#include "bench.hpp"
#include "checks/finding.hpp"
#include "fonts.hpp"
#include "main_window.hpp"
#include "mockup_view.hpp"
#include "theme.hpp"

#include <QApplication>
#include <QMouseEvent>
#include <QTemporaryDir>

#include <cmath>
#include <cstdio>

using namespace tectonis;

namespace {

void send(QWidget* w, QEvent::Type type, QPointF at, Qt::MouseButton button)
{
    QMouseEvent e(type, at, w->mapToGlobal(at), button,
        type == QEvent::MouseButtonRelease ? Qt::NoButton : Qt::LeftButton, Qt::NoModifier);
    QCoreApplication::sendEvent(w, &e);
}

/// Median and worst time of the steps of a drag from @p at along @p way.
void dragAlong(const char* name, Document& document, QWidget* w, QPointF at, QPointF way, double redraw)
{
    std::vector<double> steps;
    int edits = 0;
    const auto counted = QObject::connect(&document, &Document::changed, [&] { ++edits; });
    send(w, QEvent::MouseButtonPress, at, Qt::LeftButton);
    for (int i = 1; i <= 80; ++i)
        steps.push_back(milliseconds([&] {
            send(w, QEvent::MouseMove, at + way * double(i < 40 ? i : 80 - i), Qt::NoButton);
            QCoreApplication::processEvents();
        }));
    send(w, QEvent::MouseButtonRelease, at, Qt::LeftButton);
    QCoreApplication::processEvents();
    QObject::disconnect(counted);
    std::sort(steps.begin(), steps.end());
    std::printf("  %-22s %5.1f ms a step (slowest of ten: %.1f ms), %.2f of a redraw with checks; %d of 80 moves "
                "changed something\n",
        name, steps[steps.size() / 2], steps[steps.size() * 9 / 10], steps[steps.size() / 2] / redraw, edits);
}

} // namespace

int main(int argc, char** argv)
{
    QTemporaryDir folder;
    qputenv("XDG_CONFIG_HOME", folder.path().toUtf8());
    qputenv("XDG_DATA_HOME", folder.path().toUtf8());
    QApplication app(argc, argv);
    loadFonts();
    applyTheme(app, false);
    const Design design = grown(loadDesign(TECTONIS_DATA "/demos/tuners-satchel.tectonis"), 60, 8);
    const std::string file = (folder.path() + "/grown.tectonis").toStdString();
    saveDesign(design, file);
    MainWindow window;
    window.resize(1272, 766);
    window.show();
    if (!window.openFile(QString::fromStdString(file)))
        return 1;
    QCoreApplication::processEvents();
    Document& document = window.document();
    const double redraw = best(40, {[&] { checkAll(design, draftAll(design)); }}).front();
    std::printf("%zu pieces in %zu sizes; redraw with checks %.1f ms\n", document.pattern().pieces.size(),
        document.patterns().size(), redraw);
    const auto handleOn = [&](const ScreenHandle& h) {
        return h.direction / std::hypot(h.direction.x(), h.direction.y());
    };
    auto* view = window.findChild<MockupView*>("mockup");
    if (const ScreenHandle h = view->handle("width"); !h.dimension.empty())
        dragAlong("Brief, mock-up: width", document, view, h.at, handleOn(h), redraw);
    window.goTo(1);
    QCoreApplication::processEvents();
    auto* draftBench = window.findChild<Bench*>("draftBench");
    for (const auto& handle : std::vector(document.pattern().handles)) // a drag drafts them anew
        if (handle.dimension == "height" || handle.dimension == "width") {
            document.takePiece(handle.piece);
            QCoreApplication::processEvents();
            if (const ScreenHandle h = draftBench->handle(handle.dimension); !h.dimension.empty())
                dragAlong(("Draft: " + handle.dimension).c_str(), document, draftBench, h.at, handleOn(h), redraw);
        }
    window.goTo(3);
    QCoreApplication::processEvents();
    auto* faces = window.findChild<Bench*>("fittingsBench");
    // A pocket: where the pointer becomes a hand.
    for (int y = 20; y < faces->height(); y += 12)
        for (int x = 20; x < faces->width(); x += 12) {
            send(faces, QEvent::MouseMove, QPointF(x, y), Qt::NoButton);
            if (faces->toolTip().contains("onto another face")) { // a part, not a thing that soon ends at its range
                dragAlong("Fittings: a pocket", document, faces, QPointF(x, y), QPointF(0.9, 0.7), redraw);
                return 0;
            }
        }
    return 0;
}
