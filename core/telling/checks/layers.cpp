// SPDX-License-Identifier: GPL-3.0-or-later
// Layers with shapes of their own lie on their pieces, and every rule finds its place.
#include "checks/finding.hpp"

#include "buildup/layers.hpp"
#include "pattern/labels.hpp"

#include <algorithm>

namespace tectonis {
namespace {

/// How far @p outline lies past a cut line, mm.
double past(const Polyline& cut, const Polyline& outline)
{
    double out = 0;
    for (const Point p : outline)
        if (!insideOutline(cut, p))
            out = std::max(out, distanceTo(cut, p));
    return out;
}

} // namespace

void checkLayers(const CheckInput& in, Findings& out)
{
    for (const auto& piece : in.pattern.pieces) {
        const auto subject = [&] { return say("Piece {} {}", piece.code, piece.name); };
        for (const auto& layer : piece.layers)
            if (layer.rule >= 0 && !layer.wholePiece)
                if (const double by = past(flattened(piece.cut, 0.05), flattened(layer.outline, 0.05)); by > 0.1)
                    out.push_back({Severity::Error, "layer-past", "", subject(), piece.key, "Build-up",
                        say("{} ({}) reaches {} past the cut line: it would be cut off, or stiffen what lies beside "
                            "it. "
                            "Make it smaller, or move it.",
                            layer.code, in.pattern.material(layer.material).name, Len(by)),
                        {}, layer.code});
        const auto rules = layerRulesFor(in.design, piece);
        for (std::size_t i = 0; i < rules.size(); ++i)
            if (rulesFor(in.design, piece) == piece.key.text()
                && std::none_of(
                    piece.layers.begin(), piece.layers.end(), [&](const Layer& l) { return l.rule == int(i); }))
                out.push_back({Severity::Warning, "layer-nowhere", "", subject(), piece.key, "Build-up",
                    say("its layer {} has no place on it: “{}” is not there. The layer is not cut.", i + 1,
                        rules[i]->area),
                    {}, std::to_string(i)});
    }
}

} // namespace tectonis
