// SPDX-License-Identifier: GPL-3.0-or-later
// The mock-up with its flap open: what is set into the flap's lining shows there.
#include "driven.hpp"

using namespace tectonis;

namespace {

/// Pixels of metal above the mouth.
int metalAbove(MockupView& view, bool inside, const QColor& metal)
{
    MockupView::Look look = view.look();
    look.open = true, look.inside = inside;
    view.setLook(look);
    view.turnTo(0, 0.15);
    const QImage shot = view.grab().toImage();
    int out = 0;
    for (int y = 0; y < shot.height() / 2; ++y)
        for (int x = shot.width() * 2 / 5; x < shot.width() * 3 / 5; ++x) {
            const QColor c = shot.pixelColor(x, y);
            out += std::abs(c.red() - metal.red()) < 30 && std::abs(c.green() - metal.green()) < 30
                && std::abs(c.blue() - metal.blue()) < 30 && std::abs(c.blue() - c.red()) < 22;
        }
    return out;
}

} // namespace

TEST_CASE("Mock-up with its flap open: the snap's half on its lining shows, with walls and looking inside")
{
    for (const bool inside : {false, true}) {
        Shown with, without;
        for (Shown* s : {&with, &without})
            s->window.goTo(0);
        without.window.document().edit("no snap", [](Design& d) { removeFeature(d, "snap"); });
        without.settle();
        const QColor metal(0x8C9299);
        auto* shown = with.window.findChild<MockupView*>();
        auto* bare = without.window.findChild<MockupView*>();
        REQUIRE(shown);
        REQUIRE(bare);
        INFO((inside ? "looking inside" : "with walls"));
        CHECK(metalAbove(*shown, inside, metal) > metalAbove(*bare, inside, metal) + 20);
    }
}
