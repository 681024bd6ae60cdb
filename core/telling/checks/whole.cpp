// SPDX-License-Identifier: GPL-3.0-or-later
// Nothing bought, drafted or layered without a place in the work, and nothing in the work that does not exist.
#include "checks/finding.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace tectonis {

void checkWhole(const CheckInput& in, Findings& out)
{
    const Pattern& p = in.pattern;
    std::set<PieceId> handled;
    for (const auto& step : p.steps)
        handled.insert(step.pieces.begin(), step.pieces.end());
    for (const auto& piece : p.pieces)
        if (!handled.contains(piece.key))
            out.push_back(
                {Severity::Warning, "no-step", "", say("Piece {} {}", piece.code, piece.name), piece.key, "Sequence",
                    say("no step uses it: it would be cut for nothing, or be missing when the bag is sewn."), {}});
    for (const auto& f : p.fittings)
        if (!p.piece(f.piece))
            out.push_back({Severity::Error, "no-place", "", f.name, f.key, "Fittings",
                say("the piece that it sits on is not part of this bag. Give it another place, or take it out."), {}});
    for (const auto& patch : in.design.layers) {
        const bool addressed = std::any_of(p.pieces.begin(), p.pieces.end(), [&](const Piece& piece) {
            return piece.key == patch.pieces || piece.whole == patch.pieces || patch.pieces == piece.role
                || patch.pieces == piece.wholeRole;
        });
        const bool role = std::any_of(patch.pieces.begin(), patch.pieces.end(), [](char c) { return c == '.'; })
            || in.pattern.piece(patch.pieces);
        if (!addressed && role)
            out.push_back({Severity::Note, "no-piece", "", say("Layer behind “{}”", patch.pieces), patch.pieces,
                "Build-up", say("no piece of this bag is called so: the layer is not cut."), {}});
    }
}

} // namespace tectonis
