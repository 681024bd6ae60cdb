// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/ware.hpp"

#include <algorithm>
#include <iterator>

namespace tectonis {
namespace {

struct WareRow {
    Ware ware;
    const char* word;
    Label label;
    bool byTheMetre = false;
};

const std::vector<WareRow>& wares()
{
    static const std::vector<WareRow> rows{
        {Ware::Zip, "zip", label("Zip")},
        {Ware::ContinuousZip, "continuous-zip", label("Continuous zip"), true},
        {Ware::ZipSlider, "zip-slider", label("Zip slider")},
        {Ware::ZipEnd, "zip-end", label("Metal zip end")},
        {Ware::Ring, "ring", label("Ring")},
        {Ware::Slider, "slider", label("Slider")},
        {Ware::WebbingSlider, "webbing-slider", label("Webbing slider")},
        {Ware::SwivelHook, "swivel-hook", label("Swivel hook")},
        {Ware::HookAndRing, "hook-and-ring", label("Roll-top hook and ring")},
        {Ware::Buckle, "buckle", label("Side-release buckle")},
        {Ware::Snap, "magnetic-snap", label("Magnetic snap")},
        {Ware::PressSnap, "press-snap", label("Press snap")},
        {Ware::TurnLock, "turn-lock", label("Turn lock")},
        {Ware::TuckLock, "tuck-lock", label("Tuck lock")},
        {Ware::SewnMagnet, "sewn-in-magnet", label("Sewn-in magnet")},
        {Ware::HookAndLoop, "hook-and-loop", label("Hook-and-loop tape"), true},
        {Ware::Rivet, "rivet", label("Rivet")},
        {Ware::Eyelet, "eyelet", label("Eyelet")},
        {Ware::Foot, "foot", label("Foot")},
        {Ware::Cord, "cord", label("Cord"), true},
        {Ware::CordLock, "cord-lock", label("Cord lock")},
        {Ware::PipingCord, "piping-cord", label("Piping cord"), true},
        {Ware::Elastic, "elastic", label("Elastic"), true},
        {Ware::Stay, "stay", label("Metal stay")},
        {Ware::StayHinge, "stay-hinge", label("Stay hinge")},
        {Ware::Frame, "frame", label("Rigid frame with hinge and clasp")},
        {Ware::Thread, "thread", label("Thread")},
        {Ware::Needle, "needle", label("Machine needle")},
        {Ware::Adhesive, "adhesive", label("Adhesive")},
        {Ware::EdgePaint, "edge-paint", label("Edge paint")},
    };
    return rows;
}

/// The table is in the order of the kinds (a test holds them against each other).
const WareRow& rowOf(Ware ware) { return wares().at(std::size_t(ware)); }

} // namespace

const char* wordOf(Ware ware) { return rowOf(ware).word; }
const Label& called(Ware ware) { return rowOf(ware).label; }
bool byTheMetre(Ware ware) { return rowOf(ware).byTheMetre; }

bool byTheGram(Ware ware) { return ware == Ware::Adhesive || ware == Ware::EdgePaint; }

std::vector<const char*> wareWords()
{
    std::vector<const char*> out;
    std::transform(wares().begin(), wares().end(), std::back_inserter(out), [](const WareRow& w) { return w.word; });
    return out;
}

} // namespace tectonis
