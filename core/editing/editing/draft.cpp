// SPDX-License-Identifier: GPL-3.0-or-later
#include "editing/draft.hpp"

#include "buildup/layers.hpp"
#include "drafting/seam_care.hpp"
#include "drafting/unlined.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "mockup/dress.hpp"
#include "parallel/parallel.hpp"
#include "pattern/marks.hpp"
#include "pattern/template.hpp"
#include "sequence/minutes.hpp"
#include "sequence/order.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace tectonis {
namespace {

void measureSeams(Pattern& p)
{
    for (auto& seam : p.seams) {
        seam.lengthA = p.lengthOfSide(seam.a);
        seam.lengthB = p.lengthOfSide(seam.b);
    }
}

/// Seams that the design leaves open at their ends.
/// @throws InputError if less than 20 mm would be sewn.
void leaveEndsOpen(Drafter& d)
{
    for (auto& seam : d.pattern.seams) {
        const auto ends = d.design.seamEnds.find(seam.key.text());
        if (ends == d.design.seamEnds.end())
            continue;
        seam.openStart = ends->second.start, seam.openEnd = ends->second.end;
        const double sewn = seam.lengthA - seam.openStart - seam.openEnd;
        if (seam.openStart < 0 || seam.openEnd < 0 || sewn < 20)
            throw InputError("seam." + seam.key.text(),
                say("of {} only {} would be sewn in size {}: leave less open at its ends", Len(seam.lengthA), Len(sewn),
                    d.pattern.size));
    }
}

/// What has no owner yet belongs to @p owner: marks, fittings, and what was bought since @p from.
void giveOwner(Pattern& p, std::size_t from, const PartId& owner)
{
    const auto own = [&](auto& list) {
        for (auto& item : list)
            if (!item.owned)
                item.owner = owner, item.owned = true;
    };
    for (auto& piece : p.pieces) {
        own(piece.lines);
        own(piece.drills);
    }
    for (std::size_t i = from; i < p.hardware.size(); ++i) {
        auto& bought = p.hardware[i];
        const auto alike = std::count_if(p.hardware.begin() + std::ptrdiff_t(from),
            p.hardware.begin() + std::ptrdiff_t(i), [&](const Hardware& h) { return h.kind == bought.kind; });
        bought.id = OwnName{owner.text(), fmt::format("{}/{}", wordOf(bought.kind), alike + 1)};
    }
}

/// Form and parts draw pieces and seams and say what is done with them.
void shape(Drafter& d, const Form& form)
{
    form.draft(d);
    if (unlined(d))
        takeLiningOut(d);
    giveOwner(d.pattern, 0, {});
    // Seams across a face come before what sits on it, and what others need before those: connectors before their
    // strap.
    std::map<std::string, int> ofKind;
    for (const auto& feature : d.design.features) {
        const Label name{featureKind(feature.kind).name()};
        const int nth = ++ofKind[feature.kind];
        d.pattern.partLabels.emplace(feature.id, nth > 1 ? say("{} {}", name, nth) : labelled(name));
    }
    const auto parts = hostsFirst(d.design);
    std::map<std::string, int> turns; // what sits on a part comes with it at the earliest
    for (const Feature* feature : parts) {
        const FeatureKind& kind = featureKind(feature->kind);
        const std::string host = hostOf(d.design, feature->id);
        const int own = kind.cutsAcross() && host.empty() ? 0
            : kind.goesByOthers()                         ? 3
            : kind.needs(form).empty()                    ? 1
                                                          : 2;
        turns[feature->id] = std::max(own, host.empty() ? 0 : turns[host]);
    }
    for (int round = 0; round < 4; ++round)
        for (const Feature* feature : parts)
            if (const FeatureKind& kind = featureKind(feature->kind); turns[feature->id] == round) {
                const std::size_t bought = d.pattern.hardware.size();
                FeatureScope scope(d, feature->id);
                kind.draft(scope);
                giveOwner(d.pattern, bought, feature->id);
            }
}

/// What follows from the shapes: cut lines, lengths, marks, layers, templates.
void finish(Drafter& d)
{
    for (auto& piece : d.pattern.pieces)
        piece.cut = cutLineOf(piece);
    measureSeams(d.pattern);
    leaveEndsOpen(d);
    careForSeams(d);
    careForEnds(d);
    placeMatchMarks(d.pattern);
    addLayers(d.pattern, d.design, d.patches);
    if (const std::string& templates = d.choice("templates"); templates != "whole")
        for (auto& piece : d.pattern.pieces)
            piece.folds = foldsOf(piece, templates == "quarter" ? 2 : 1);
}

/// Square where the outline goes round a convex corner by 30° to 150°, as its two sides would meet; a piece that is
/// round as a whole has no corners. Empty if there are none.
Run squared(const Run& cut)
{
    Run out;
    bool any = false;
    const Box box = boundsOf(cut);
    const double round = 0.45 * std::min(box.width(), box.height());
    for (const auto& segment : cut) {
        const auto* arc = std::get_if<Arc>(&segment);
        if (!arc || arc->sweep < pi / 6 || arc->sweep > 5 * pi / 6 || arc->radius > round) {
            out.push_back(segment);
            continue;
        }
        const Point corner = startOf(segment) + tangentOf(segment, 0) * (arc->radius * std::tan(arc->sweep / 2));
        out.push_back(Line{startOf(segment), corner});
        out.push_back(Line{corner, endOf(segment)});
        any = true;
    }
    return any ? out : Run();
}

/// Pieces with layers behind the whole of them are cut square at their round corners.
void roundLater(Drafter& d)
{
    for (auto& piece : d.pattern.pieces)
        if (piece.rough.empty() && std::any_of(piece.layers.begin(), piece.layers.end(), [](const Layer& layer) {
                return layer.wholePiece;
            }))
            if (piece.rough = squared(piece.cut); !piece.rough.empty())
                piece.note = piece.note.empty()
                    ? say("Cut it square at its round corners; round them by this template when its layers are on.")
                    : say("{} Cut it square at its round corners; round them by this template when its layers are on.",
                        piece.note);
}

/// What is quilted is cut as a block, 20 mm larger than the piece on each side (common practice, no source: quilting
/// takes cloth in), its layer with it.
void cutBlocks(Drafter& d)
{
    constexpr double over = 20;
    for (auto& piece : d.pattern.pieces)
        if (std::any_of(piece.layers.begin(), piece.layers.end(), [](const Layer& l) { return l.quilted > 0; })) {
            const Box box = boundsOf(piece.cut);
            piece.rough = rectangleRun(box.x0 - over, box.y0 - over, box.x1 + over, box.y1 + over);
            const Message note = say(
                "Cut a block {} larger on each side; cut it to shape by this template when it is quilted.", Len(over));
            piece.note = piece.note.empty() ? note : say("{} {}", piece.note, note);
        }
}

/// A second row of topstitching, 6.4 mm from the seam where the first runs at 3.2 (common practice, no source);
/// not on pieces that are too narrow for it.
void topstitchTwice(Drafter& d)
{
    const auto wide = [&](const SeamId& key) {
        const Seam* seam = d.pattern.seam(key);
        if (!seam)
            return false;
        for (const auto* side : {&seam->a, &seam->b})
            for (const auto& use : *side)
                if (const Piece* piece = d.pattern.piece(use.piece)) {
                    const Box box = boundsOf(piece->stitch());
                    if (std::min(box.width(), box.height()) < 20)
                        return false;
                }
        return true;
    };
    for (auto& step : d.steps)
        for (auto& act : step.acts)
            if ((act.verb == Act::Verb::Topstitch || act.verb == Act::Verb::Roll) && act.taken == 0 && act.distance > 0
                && std::all_of(act.seams.begin(), act.seams.end(), wide))
                act.taken = act.distance + 3.2;
}

} // namespace

Pattern draft(const Design& design, const DesignSpec& spec, std::size_t size)
{
    Drafter d(design, evaluate(design, spec, size), size);
    shape(d, formOf(design.form));
    finish(d);
    cutBlocks(d);
    if (d.choice("corners") == "after")
        roundLater(d);
    if (d.choice("topstitching") == "two")
        topstitchTwice(d);
    proposeOrder(d);
    addOwnSteps(d); // the words of steps are told when they are read
    if (!design.trials.empty())
        d.pattern.pace = paceOf(design, d.pattern);
    return std::move(d.pattern);
}

std::vector<Pattern> draftAll(const Design& design)
{
    const DesignSpec& spec = specOf(design);
    std::vector<Pattern> out(design.sizes.size());
    forEachIndex(out.size(), [&](std::size_t i) { out[i] = draft(design, spec, i); });
    return out;
}

Mockup mockupOf(const Design& design, const Pattern& pattern)
{
    Mockup m = formOf(design.form).fold(design, pattern);
    foldConnectors(m, pattern); // where the form has laid what carries their rings
    sewOntoStrips(m, pattern);
    return m;
}

} // namespace tectonis
