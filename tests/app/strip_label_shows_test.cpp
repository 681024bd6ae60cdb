// SPDX-License-Identifier: GPL-3.0-or-later
// A label on a strap shows in the mock-up from outside, and not through the strap.
#include "driven.hpp"

using namespace tectonis;

namespace {

int apartPixels(const QImage& a, const QImage& b)
{
    int n = 0;
    for (int y = 0; y < std::min(a.height(), b.height()); ++y)
        for (int x = 0; x < std::min(a.width(), b.width()); ++x)
            n += a.pixel(x, y) != b.pixel(x, y);
    return n;
}

} // namespace

TEST_CASE("Mock-up: a label on the strap, on a connector, shows from outside, turned away it does not")
{
    for (const char* site : {"strap.strap", "connectors.tab"}) {
        Shown with, without;
        for (Shown* s : {&with, &without})
            s->window.goTo(0);
        with.window.document().edit("label", [&](Design& d) {
            const std::string id = addFeature(d, "label");
            change::choice(d, id + ".site", site);
            for (const char* set : {".width=20", ".height=14", ".drop=5"})
                change::assign(d, id + set);
            if (std::string(site) == "strap.strap")
                change::assign(d, id + ".height=80"), change::assign(d, id + ".drop=100");
        });
        with.settle();
        std::vector<int> seen;
        for (double yaw = -3.0; yaw < 3.2; yaw += 0.5) {
            QImage shots[2];
            for (Shown* s : {&with, &without}) {
                auto* view = s->window.findChild<MockupView*>();
                REQUIRE(view);
                view->turnTo(yaw, 0.15);
                shots[s == &with ? 0 : 1] = view->grab().toImage();
            }
            seen.push_back(apartPixels(shots[0], shots[1]));
        }
        INFO(site);
        CHECK(*std::max_element(seen.begin(), seen.end()) > 40);
        CHECK(*std::min_element(seen.begin(), seen.end()) < 10);
    }
}
