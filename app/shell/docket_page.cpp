// SPDX-License-Identifier: GPL-3.0-or-later
#include "docket_page.hpp"

#include "library/library.hpp"
#include "qtext.hpp"

#include "pattern/labels.hpp"

#include <cmath>

namespace tectonis {
namespace {

/// How an edge's length comes about, segment by segment.
QString edgeWorking(const Document& doc, const Edge& e)
{
    QStringList parts;
    for (const auto& s : e.stitch) {
        if (const auto* a = std::get_if<Arc>(&s))
            parts << spoken("arc: radius × angle = {} × {} rad", doc.exact(a->radius), number(std::abs(a->sweep), 4));
        else if (std::holds_alternative<Line>(s))
            parts << spoken("straight: distance of its ends, {}", doc.exact(lengthOf(s)));
        else
            parts << spoken("curve: measured, {}", doc.exact(lengthOf(s)));
    }
    return parts.join("; ");
}

QString boxText(const Document& doc, const Box& b) { return doc.dims({b.width(), b.height()}); }

DocketGroup edgesOf(const Document& doc, const Piece& piece)
{
    DocketGroup out{spoken("Edges on the stitch line"), {}};
    for (const auto& e : piece.edges) {
        QStringList details{edgeWorking(doc, e)};
        details << (e.allowanceAtEnd
                ? spoken("allowance {} widening to {}", doc.len(e.allowance), doc.len(*e.allowanceAtEnd))
                : spoken("allowance {}", doc.len(e.allowance)));
        for (const auto& seam : doc.pattern().seams)
            for (const auto* side : {&seam.a, &seam.b})
                for (const auto& use : *side)
                    if (use.piece == piece.key && use.edge == e.name && use.copy == 0)
                        details << spoken("seam “{}”: {} against {}, difference {}", text(seam.name),
                            doc.exact(seam.lengthA), doc.exact(seam.lengthB), doc.exact(seam.difference()));
        out.rows.push_back({text(edgeLabel(doc.pattern(), e.name)), doc.len(e.length()), details});
    }
    return out;
}

} // namespace

DocketRow rowOf(const Document& doc, const Working& w)
{
    QStringList inputs;
    for (const auto& in : w.inputs)
        inputs << text(in.name) + " " + number(in.value, 4);
    const QString unit = w.unit.empty() ? "" : " " + text(w.unit),
                  result = w.unit == "mm" ? doc.len(w.result)
                                          : number(w.result,
                                                w.unit.empty()      ? 2
                                                    : w.unit == "g" ? 0
                                                                    : 1)
            + unit;
    return {text(w.label), result,
        {"= " + text(w.formula), inputs.join(",  "),
            "= " + (w.unit == "mm" ? doc.exact(w.result) : number(w.result, 4) + unit),
            w.source.empty() ? text(nameOf(w.kind)) : text(nameOf(w.kind)) + ": " + text(w.source, doc.unit())}};
}

DocketGroup workingsOf(const Document& doc, const std::function<bool(const SubjectId&)>& wanted, const QString& title)
{
    DocketGroup out{title, {}};
    for (const auto& w : doc.pattern().workings)
        if (wanted(w.subject))
            out.rows.push_back(rowOf(doc, w));
    return out;
}

DocketPage pagePiece(const Document& doc, const PieceId& key)
{
    const Pattern& p = doc.pattern();
    const Piece* piece = p.piece(key);
    if (!piece)
        return {spoken("Nothing in hand"), {}, {}};
    DocketPage out{QString("%1  %2").arg(text(piece->code), text(piece->name)), {}, {}};
    const auto face = p.materials.find(piece->material);
    out.groups.push_back({spoken("Piece"),
        {{spoken("Cut from"),
             face == p.materials.end() ? text(piece->material) : text(p.material(face->second).name).section(',', 0, 0),
             {}},
            {spoken("Cut"),
                piece->mirrored ? spoken("{}, {} mirrored", piece->count, piece->mirrored)
                                : QString::number(piece->count),
                {}},
            {spoken("Stitch line"), boxText(doc, boundsOf(piece->stitch())),
                {spoken("width × height of the stitch line's box; geometry")}},
            {spoken("Cut line"), boxText(doc, boundsOf(piece->cut)),
                {spoken("the stitch line offset by each edge's own allowance; geometry")}},
            {spoken("Cut area"), spoken("{} cm²", number(areaOf(piece->cut) / 100, 1)),
                {spoken("Green's theorem on the cut line's lines and arcs; geometry")}}}});
    out.groups.push_back(edgesOf(doc, *piece));
    if (!piece->layers.empty()) {
        DocketGroup layers{spoken("Layers behind it"), {}};
        for (const auto& l : piece->layers)
            layers.rows.push_back(
                {text(l.code) + " " + text(p.material(l.material).name).section(',', 0, 0), text(roleLabel(l.fixing)),
                    {text(l.trim, doc.unit()),
                        spoken("thickness {}, under the foot {}", doc.len(p.material(l.material).thickness),
                            doc.len(p.material(l.material).underFoot()))}});
        out.groups.push_back(std::move(layers));
    }
    if (auto workings = workingsOf(doc,
            [&](const SubjectId& s) {
                return s == SubjectId(piece->key) || (piece->owner() && s == SubjectId(piece->owner()))
                    || (s == "body" && piece->role == "panel");
            });
        !workings.rows.empty())
        out.groups.push_back(std::move(workings));
    const std::string part = piece->owner().text();
    out.fields = {.body = part.empty(), .part = part, .opened = part.empty() ? "body" : part};
    return out;
}

} // namespace tectonis
