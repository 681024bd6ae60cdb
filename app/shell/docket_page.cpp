// SPDX-License-Identifier: GPL-3.0-or-later
#include "docket_page.hpp"

#include "library/library.hpp"
#include "qtext.hpp"

#include <cmath>

namespace tectonis {
namespace {

/// How an edge's length comes about, segment by segment.
QString edgeWorking(const Document& doc, const Edge& e)
{
    QStringList parts;
    for (const auto& s : e.stitch) {
        if (const auto* a = std::get_if<Arc>(&s))
            parts << QString("arc: radius × angle = %1 × %2 rad")
                         .arg(doc.exact(a->radius), text(formatNumber(std::abs(a->sweep), 4)));
        else if (std::holds_alternative<Line>(s))
            parts << "straight: distance of its ends, " + doc.exact(lengthOf(s));
        else
            parts << "curve: measured, " + doc.exact(lengthOf(s));
    }
    return parts.join("; ");
}

QString boxText(const Document& doc, const Box& b) { return doc.dims({b.width(), b.height()}); }

DocketGroup edgesOf(const Document& doc, const Piece& piece)
{
    DocketGroup out{"Edges on the stitch line", {}};
    for (const auto& e : piece.edges) {
        QStringList details{edgeWorking(doc, e)};
        details << (e.allowanceAtEnd
                ? QString("allowance %1 widening to %2").arg(doc.len(e.allowance), doc.len(*e.allowanceAtEnd))
                : "allowance " + doc.len(e.allowance));
        for (const auto& seam : doc.pattern().seams)
            for (const auto* side : {&seam.a, &seam.b})
                for (const auto& use : *side)
                    if (use.piece == piece.key && use.edge == e.name && use.copy == 0)
                        details << QString("seam “%1”: %2 against %3, difference %4")
                                       .arg(text(seam.name), doc.exact(seam.lengthA), doc.exact(seam.lengthB),
                                           doc.exact(seam.difference()));
        out.rows.push_back({text(e.name), doc.len(e.length()), details});
    }
    return out;
}

} // namespace

DocketGroup workingsOf(const Document& doc, const std::function<bool(const SubjectId&)>& wanted, const QString& title)
{
    DocketGroup out{title, {}};
    for (const auto& w : doc.pattern().workings) {
        if (!wanted(w.subject))
            continue;
        QStringList inputs;
        for (const auto& in : w.inputs)
            inputs << text(in.name) + " " + text(formatNumber(in.value, 4));
        const QString unit = w.unit.empty() ? "" : " " + text(w.unit),
                      result = w.unit == "mm" ? doc.len(w.result)
                                              : text(formatNumber(w.result, w.unit.empty() ? 2 : 1)) + unit;
        out.rows.push_back({text(w.label), result,
            {"= " + text(w.formula), inputs.join(",  "),
                "= " + (w.unit == "mm" ? doc.exact(w.result) : text(formatNumber(w.result, 4)) + unit),
                QString(nameOf(w.kind)) + (w.source.empty() ? "" : ": " + text(w.source, doc.unit()))}});
    }
    return out;
}

DocketPage pagePiece(const Document& doc, const PieceId& key)
{
    const Pattern& p = doc.pattern();
    const Piece* piece = p.piece(key);
    if (!piece)
        return {"Nothing in hand", {}, {}};
    DocketPage out{QString("%1  %2").arg(text(piece->code), text(piece->name)), {}, {}};
    const auto face = p.materials.find(piece->material);
    out.groups.push_back({"Piece",
        {{"Cut from",
             face == p.materials.end() ? text(piece->material) : text(p.material(face->second).name).section(',', 0, 0),
             {}},
            {"Cut",
                piece->mirrored ? QString("%1, %2 mirrored").arg(piece->count).arg(piece->mirrored)
                                : QString::number(piece->count),
                {}},
            {"Stitch line", boxText(doc, boundsOf(piece->stitch())),
                {"width × height of the stitch line's box; geometry"}},
            {"Cut line", boxText(doc, boundsOf(piece->cut)),
                {"the stitch line offset by each edge's own allowance; geometry"}},
            {"Cut area", text(formatNumber(areaOf(piece->cut) / 100, 1)) + " cm²",
                {"Green's theorem on the cut line's lines and arcs; geometry"}}}});
    out.groups.push_back(edgesOf(doc, *piece));
    if (!piece->layers.empty()) {
        DocketGroup layers{"Layers behind it", {}};
        for (const auto& l : piece->layers)
            layers.rows.push_back(
                {text(l.code) + " " + text(p.material(l.material).name).section(',', 0, 0), text(l.fixing),
                    {text(l.trim, doc.unit()),
                        "thickness " + doc.len(p.material(l.material).thickness) + ", under the foot "
                            + doc.len(p.material(l.material).underFoot())}});
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
