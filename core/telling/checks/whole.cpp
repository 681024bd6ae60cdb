// SPDX-License-Identifier: GPL-3.0-or-later
// Nothing bought, drafted or layered without a place in the work, and nothing in the work that does not exist.
#include "checks/finding.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>
#include <unordered_map>

namespace tectonis {

namespace {

/// Does the act join the seam, rather than press, turn or topstitch what is sewn?
bool joins(const Act& act, const Seam& seam)
{
    using Verb = Act::Verb;
    switch (act.verb) {
    case Verb::Sew:
    case Verb::StitchOn:
    case Verb::Hem:
    case Verb::Hinge:
    case Verb::JoinCoats:
    case Verb::DropIn:
    case Verb::Window:
    case Verb::SewTape:
    case Verb::FoldStrip:
    case Verb::Note:
    case Verb::Baste: return true;
    case Verb::Lay: return seam.stitch == "baste";
    case Verb::Topstitch: return seam.stitch == "topstitch";
    default: return false;
    }
}

/// Every seam is sewn by one act.
void checkSewn(const Pattern& p, Findings& out)
{
    std::unordered_map<SeamId, const Seam*> known;
    for (const auto& seam : p.seams)
        known.emplace(seam.key, &seam);
    std::unordered_map<const Seam*, int> sewn; // by how many acts
    for (const auto& step : p.steps)
        for (const auto& act : step.acts)
            for (const auto& key : act.seams)
                if (const auto seam = known.find(key); seam != known.end() && joins(act, *seam->second))
                    ++sewn[seam->second];
    for (const auto& seam : p.seams) {
        const auto found = sewn.find(&seam);
        const int times = found == sewn.end() ? 0 : found->second;
        if (times == 0)
            out.push_back({Severity::Warning, "no-act", "", say("Seam “{}”", seam.name), seam.key, "Sequence",
                say("no step sews it."), {}});
        else if (times > 1)
            out.push_back({Severity::Warning, "no-act", "", say("Seam “{}”", seam.name), seam.key, "Sequence",
                say("{} steps sew it; one of them is too many.", times), {}});
    }
}

/// Everything that is bought is put in its place, and nothing is put in its place that is not bought.
void checkBought(const Pattern& p, Findings& out)
{
    const auto uses = [](const Step& step, Ware kind) {
        return std::any_of(step.acts.begin(), step.acts.end(),
            [&](const Act& act) { return std::find(act.uses.begin(), act.uses.end(), kind) != act.uses.end(); });
    };
    for (const auto& h : p.hardware)
        if (std::none_of(p.steps.begin(), p.steps.end(),
                [&](const Step& step) { return step.id.owner() == h.owner() && uses(step, h.kind); }))
            out.push_back({Severity::Warning, "no-act", "", labelled(called(h.kind)), h.id, "Sequence",
                say("it is bought, but no step puts it in its place."), {}});
    for (const auto& step : p.steps)
        for (const auto& act : step.acts)
            for (const Ware kind : act.uses)
                if (std::none_of(p.hardware.begin(), p.hardware.end(),
                        [&](const Hardware& h) { return step.id.owner() == h.owner() && h.kind == kind; }))
                    out.push_back({Severity::Warning, "no-act", "", say("Step “{}”", step.title), step.id, "Sequence",
                        say("it uses “{}”, which is not bought.", called(kind)), {}});
}

} // namespace

void checkWhole(const CheckInput& in, Findings& out)
{
    const Pattern& p = in.pattern;
    checkSewn(p, out);
    checkBought(p, out);
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
