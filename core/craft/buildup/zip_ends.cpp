// SPDX-License-Identifier: GPL-3.0-or-later
#include "buildup/zip_ends.hpp"

#include "library/library.hpp"

#include <algorithm>

namespace tectonis {
namespace {

/// Does the tape go on into the seam, under a short tab or by itself?
bool tapeReaches(const ZipEnd& end)
{
    return !end.hangs
        && (end.kind == ZipEnd::Kind::Seam
            || (end.kind == ZipEnd::Kind::Tab && end.stitch > 0 && end.stitch < kTabLap));
}

} // namespace

const Zip* zipUnder(const Pattern& p, const EdgeUse& use)
{
    const Piece* piece = p.piece(use.piece);
    if (!piece || piece->edge(use.edge))
        return nullptr;
    const auto line = std::find_if(piece->lines.begin(), piece->lines.end(),
        [&](const FaceLine& l) { return l.name == use.edge && l.kind == FaceLine::Kind::Bridge; });
    if (line == piece->lines.end())
        return nullptr;
    const auto zip = std::find_if(
        p.zips.begin(), p.zips.end(), [&](const Zip& each) { return each.key.owner() == line->owner; });
    return zip == p.zips.end() ? nullptr : &*zip;
}

const Zip* zipOn(const Pattern& p, const PieceId& wall)
{
    for (const auto& step : p.steps)
        for (const auto& act : step.acts)
            if (act.verb == Act::Verb::LayTape
                && std::find(act.pieces.begin(), act.pieces.end(), wall) != act.pieces.end())
                for (const auto& zip : p.zips)
                    if (!act.zips.empty() && zip.key == act.zips.front())
                        return &zip;
    return nullptr;
}

const ZipEnd& endAt(const Zip& zip, bool right)
{
    return right == (zip.opens == label("to the left")) ? zip.first : zip.last;
}

CaughtEnd caughtOf(const Pattern& p, const Zip& zip, const ZipEnd& end)
{
    constexpr double perGauge = 0.4;
    CaughtEnd out;
    if (tapeReaches(end)) {
        out.tape = zip.thickness;
        out.chain = zip.kind == "metal" ? 0 : perGauge * zip.gauge;
    }
    if (end.kind != ZipEnd::Kind::Tab || end.stitch <= 0 || end.hangs)
        return out;
    const Piece* tab = p.piece(end.tab); // none where its end is to be put under one
    const auto cloth = p.materials.find(tab ? tab->material : "shell");
    if (cloth == p.materials.end())
        return out;
    double each = p.material(cloth->second).underFoot();
    for (const auto& layer : tab ? tab->layers : std::vector<Layer>())
        if (layer.wholePiece)
            each += p.material(layer.material).underFoot();
    out.cloth = 2 * each; // folded over the tape's end, or two right sides together and turned
    return out;
}

} // namespace tectonis
