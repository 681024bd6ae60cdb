// SPDX-License-Identifier: GPL-3.0-or-later
// Folds a drafted pattern into space: a form says how each body piece bends, the rest follows from pieces, seams,
// overlays and fittings.
#pragma once

#include "mockup/dress.hpp"
#include "pattern/pattern.hpp"

#include <functional>

namespace tectonis {

/// Where a point of a piece comes to lie. Right-handed: a piece seen from its face has its outside towards the viewer.
using Fold = std::function<Vec3(Point)>;

/// Outward unit normal of a fold at a point, from small steps within the piece.
Vec3 normalAt(const Fold& at, Point p);

class Folder {
public:
    /// @p lining: faces look inwards. What is laid is mirrored, left and right as seen from outside: a lining's face is
    /// seen from the other side.
    explicit Folder(const Pattern& pattern, bool lining = false) : m_pattern(pattern), m_lining(lining) {}

    /// Lays a cut copy of a piece, or of the pieces that were cut from it. It is flat but for bends along x = const and
    /// y = const in its own coordinates; between bends the fold must be linear. @p aslant: further bends along straight
    /// lines through two points. Where the piece has an area "face", only that shows. Unknown pieces are passed over.
    void lay(const PieceId& piece, Fold at, const std::vector<double>& bendX = {},
        const std::vector<double>& bendY = {}, int copy = 0, const std::vector<Line>& aslant = {});
    /// The same for a strip that is alike on both sides and was drawn with its face towards the inside.
    void layTurned(const PieceId& piece, Fold at, const std::vector<double>& bendX = {},
        const std::vector<double>& bendY = {}, int copy = 0);

    /// The body is laid flat, but for closing it is @p depth mm deep at its mouth.
    void fill(double depth) { m_filled = depth; }
    /// The body is laid with its mouth standing up, as it is before it is closed: flaps are shown raised.
    void leaveOpen() { m_open = true; }

    /// Facets of all that was laid, with overlays and fittings; the largest gap between runs that are sewn together, in
    /// mm, and where; the volume in litres inside the body and the mouth, which is closed flat along @p mouth.
    Mockup finish(const std::vector<EdgeUse>& mouth) const;

private:
    struct Laid {
        const Piece* piece;
        int copy;
        Fold at;
        std::vector<double> bendX, bendY;
        std::string kind;
        bool turned = false; ///< its face looks inwards
        std::vector<Line> aslant;
        Fold opened = nullptr; ///< where it lies when flaps are open, if elsewhere
        Facet::Flap flap = Facet::Flap::No;
    };
    const Laid* find(const PieceId& piece, int copy) const;
    void addFacets(const Laid& laid, Mockup& m) const;
    /// A narrow strip that shows a layer's thickness along a run: from @p from to @p to mm outside the surface.
    void addThickness(const Laid& laid, const Run& run, double from, double to, Mockup& m) const;
    void addFitting(const Fitting& fitting, Mockup& m) const;
    void addHung(const Hung& hung, Mockup& m) const;
    /// Where a piece ends free or at the mouth its thickness shows.
    void addFreeEdges(Mockup& m) const;
    /// Lays an overlay on the piece below it and adds its facets; false if that is not laid.
    bool layOverlay(const Overlay& overlay, Mockup& m);
    /// The same for a flap: closed it lies taut over the body's section, open it stands away from its hinge.
    bool layHinged(const Hinged& flap, Mockup& m);
    double litresWithin(const Mockup& m, const std::vector<EdgeUse>& mouth) const;
    void findGap(Mockup& m) const;
    /// Points of one side of a seam at equal shares of its length; empty if a piece of it is not laid.
    std::vector<Vec3> sampled(const std::vector<EdgeUse>& side, int parts) const;

    const Pattern& m_pattern;
    bool m_lining, m_open = false;
    double m_filled = 0;
    std::vector<Laid> m_laid;
};

/// One coat as a form lays it: walls lie @c in mm further in than the shell's.
struct LaidCoat {
    bool lining = false;
    double in = 0;
    PieceId key(const std::string& shells) const { return lining ? lined(PieceId(shells)) : PieceId(shells); }
};

/// Folds shell and lining by one function. Gaps are sought in both; litres are the shell's, liningLitres the lining's.
Mockup foldCoats(const Pattern& p, const std::function<void(Folder&, const LaidCoat&)>& lay);

/// A line in space that strips and walls follow: a flat run with its lengths known.
class Guide {
public:
    explicit Guide(const Run& run, double sagitta = 0.02);
    Point at(double along) const; ///< clamped to the ends
    double length() const { return m_along.back(); }
    const std::vector<double>& corners() const { return m_along; } ///< lengths at which it bends

private:
    Polyline m_line;
    std::vector<double> m_along;
};

} // namespace tectonis
