// SPDX-License-Identifier: GPL-3.0-or-later
// The kinds of things that are bought for a bag besides cloth.
#pragma once

#include "words/message.hpp"

#include <vector>

namespace tectonis {

enum class Ware {
    Zip,
    ContinuousZip,
    ZipSlider,
    ZipEnd,
    Ring,
    Slider,
    WebbingSlider,
    SwivelHook,
    HookAndRing,
    Buckle,
    Snap,
    PressSnap,
    TurnLock,
    TuckLock,
    SewnMagnet,
    HookAndLoop,
    Rivet,
    Eyelet,
    Foot,
    Cord,
    CordLock,
    PipingCord,
    Elastic,
    Stay,
    StayHinge,
    Frame,
    Thread,
    Needle,
    Adhesive,
    EdgePaint
};

/// In files and ids: "webbing-slider".
const char* wordOf(Ware ware);
/// For people.
const Label& called(Ware ware);
/// Is it cut from a longer length, and priced by the metre?
bool byTheMetre(Ware ware);
/// Is it weighed out, and priced by the gram?
bool byTheGram(Ware ware);
/// All words, in order.
std::vector<const char*> wareWords();

} // namespace tectonis
