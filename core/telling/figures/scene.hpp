// SPDX-License-Identifier: GPL-3.0-or-later
// A picture as a value: surfaces, strokes, layers in section, arrows and words in one plane, for whoever paints or
// writes it. Millimetres, y up; sections are schematic and much thicker than cloth is.
#pragma once

#include "geometry/run.hpp"
#include "words/message.hpp"

#include <variant>
#include <vector>

namespace tectonis {

/// Right sides have the colour of their coat, wrong sides a light texture on it.
enum class Skin { Shell, ShellWrong, Lining, LiningWrong, Strip, StripWrong, Padding, Metal, Tape };
/// The other side of a cloth.
Skin otherSide(Skin skin);

struct Surface {
    Polyline outline; ///< closed
    Skin skin = Skin::Shell;
    double light = 1;     ///< of a surface in space: 1 as it is, less is darker
    bool outlined = true; ///< its edge is drawn
};

struct Stroke {
    enum class Kind {
        Edge,      ///< of a piece
        Sew,       ///< to be sewn now
        Sewn,      ///< before
        Topstitch, ///< or edge-stitch: a row that shows
        Baste,
        Fold,
        Cut, ///< clips, notches, slashes
        Mark ///< what meets, what is measured
    };
    Polyline line;
    Kind kind = Kind::Edge;
};

/// A layer seen in section.
struct Band {
    Polyline line;
    double width = 2.4; ///< mm
    Skin skin = Skin::Shell;
};

/// Its head is at the end of the line.
struct Arrow {
    Polyline line;
};

/// Centred on its point.
struct Word {
    Point at;
    Message text;
};

using SceneItem = std::variant<Surface, Stroke, Band, Arrow, Word>;

struct Scene {
    enum class Kind { Plan, Section, SoFar };
    Kind kind = Kind::Plan;
    std::vector<SceneItem> items; ///< the later lie on the earlier
    bool empty() const { return items.empty(); }
};

/// What everything but words covers.
Box boundsOf(const Scene& scene);

} // namespace tectonis
