// SPDX-License-Identifier: GPL-3.0-or-later
// The one list of all places in a pattern that name a piece: who takes a piece apart or out follows it.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// Visits every reference to a piece. @p visit has
///   run(std::vector<EdgeUse>&)         one side of a seam,
///   list(std::vector<PieceId>&)        pieces side by side: those of a step, of a face, caught in a seam,
///   spot(PieceId&, Point)              something at a point of the piece,
///   name(PieceId&)                     a piece as a whole.
/// @p steps: the pattern's, or those that are still being drafted.
template <class Steps, class Visit> void forEachReference(Pattern& p, Steps& steps, Visit&& visit)
{
    for (auto& seam : p.seams) {
        visit.run(seam.a);
        visit.run(seam.b);
        visit.list(seam.trapped);
        visit.name(seam.bound);
    }
    for (auto& piece : p.pieces)
        visit.name(piece.backing);
    for (auto& step : steps)
        visit.list(step.pieces);
    for (auto& site : p.sites)
        visit.list(site.pieces);
    for (auto& handle : p.handles)
        visit.spot(handle.piece, handle.at);
    for (auto& place : p.places)
        visit.spot(place.piece, place.area.centre());
    for (auto& bag : p.bags) {
        visit.spot(bag.face, {bag.area.centre().x, bag.area.y1});
        visit.list(bag.layers);
    }
    for (auto& fitting : p.fittings)
        visit.spot(fitting.piece, fitting.at);
    for (auto& anchor : p.anchors)
        visit.spot(anchor.piece, anchor.at);
    for (auto& zip : p.zips) {
        visit.spot(zip.piece, zip.at);
        visit.name(zip.first.tab), visit.name(zip.last.tab);
    }
    for (auto& strap : p.straps)
        visit.name(strap.piece);
    for (auto& bottom : p.bottoms)
        visit.spot(bottom.piece, bottom.area.centre());
    for (auto& ribbon : p.hung) {
        visit.spot(ribbon.on, ribbon.from);
        visit.name(ribbon.piece);
    }
    for (auto& flap : p.hinged) {
        visit.spot(flap.on, flap.at);
        visit.name(flap.piece), visit.name(flap.lining);
    }
    for (auto& overlay : p.overlays) {
        const Piece* lies = p.piece(overlay.piece);
        visit.spot(overlay.on, overlay.placement(lies ? boundsOf(lies->stitch()).centre() : Point{}));
        visit.name(overlay.piece);
    }
}

} // namespace tectonis
