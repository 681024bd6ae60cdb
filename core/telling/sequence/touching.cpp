// SPDX-License-Identifier: GPL-3.0-or-later
#include "sequence/touching.hpp"

#include <algorithm>
#include <optional>

namespace tectonis {
namespace {

constexpr double kFoot = 8; // mm that a presser foot or a setter needs beside what it works on

Box around(Point at, double half) { return {at.x - half, at.y - half, at.x + half, at.y + half}; }

/// Where things lie on a face that a step puts there.
class Places {
public:
    Places(const Pattern& pattern, const Step& step, const Piece& face) : p(pattern), m_step(step), m_face(face)
    {
        for (const auto& act : step.acts)
            add(act);
    }

    /// Nothing if it is not known of one of its acts.
    std::optional<std::vector<Box>> boxes() const
    {
        return m_known && !m_boxes.empty() ? std::optional(m_boxes) : std::nullopt;
    }

private:
    void add(const Act& act)
    {
        switch (act.verb) {
        case Act::Verb::FoldIn:
        case Act::Verb::SealCut:
        case Act::Verb::Trim:
        case Act::Verb::Baste: return; // of what is laid by another act
        case Act::Verb::StitchOn: return stitched(act);
        case Act::Verb::LayOver: return over(act.pieces.front());
        case Act::Verb::Lay: return caught(act);
        case Act::Verb::BoxOn: return marked();
        case Act::Verb::Set: return set(act);
        default: m_known = false;
        }
    }

    void add(const Run& run)
    {
        Box box;
        for (const Point q : flattened(run, 0.5))
            box.add(q);
        m_boxes.push_back(box);
    }

    void over(const PieceId& thing)
    {
        bool found = false;
        const Piece* piece = p.piece(thing);
        for (const auto& overlay : p.overlays)
            if (piece && overlay.piece == thing && overlay.on == m_face.key)
                add(placed(piece->stitch(), overlay.placement)), found = true;
        m_known &= found;
    }

    void stitched(const Act& act)
    {
        for (const auto& key : act.seams) {
            const Seam* seam = p.seam(key);
            if (!seam)
                continue;
            for (const auto* side : {&seam->a, &seam->b})
                for (const auto& use : *side)
                    if (use.piece == m_face.key)
                        add(p.runOf(use));
                    else if (std::any_of(p.overlays.begin(), p.overlays.end(),
                                 [&](const Overlay& o) { return o.piece == use.piece && o.on == m_face.key; }))
                        over(use.piece);
        }
    }

    void caught(const Act& act)
    {
        bool found = false;
        const auto spot = [&](Point at, double width) { m_boxes.push_back(around(at, width / 2 + 50)), found = true; };
        if (act.at)
            spot(*act.at, 60);
        for (const auto& f : p.fittings)
            if (f.kind == Fitting::Kind::Ring && f.owner() == act.pieces.front().owner() && f.piece == m_face.key)
                spot(f.at, f.size);
        m_known &= found; // a flap or a piping lies along the whole edge
    }

    void marked()
    {
        for (const auto& line : m_face.lines)
            if (line.owner == m_step.id.owner())
                add(line.run);
    }

    void set(const Act& act)
    {
        for (const auto& f : p.fittings)
            if (f.piece == m_face.key
                && std::find(act.fittings.begin(), act.fittings.end(), f.key) != act.fittings.end())
                m_boxes.push_back(around(f.at, std::max(f.size / 2, f.clearance)));
    }

    const Pattern& p;
    const Step& m_step;
    const Piece& m_face;
    std::vector<Box> m_boxes;
    bool m_known = true;
};

template <class Item> bool share(const std::vector<Item>& a, const std::vector<Item>& b, const Item& but)
{
    return std::any_of(a.begin(), a.end(),
        [&](const Item& item) { return item != but && std::find(b.begin(), b.end(), item) != b.end(); });
}

bool laysOn(const Step& step)
{
    return step.kind == StepKind::Flat || step.kind == StepKind::Baste || step.kind == StepKind::Hardware;
}

bool apart(const Box& a, const Box& b)
{
    return a.x1 + kFoot < b.x0 || b.x1 + kFoot < a.x0 || a.y1 + kFoot < b.y0 || b.y1 + kFoot < a.y0;
}

} // namespace

bool touch(const Pattern& p, const Step& first, const Step& second, const WorkId& part)
{
    const Piece* face = p.piece(part.as<PieceKind>());
    const bool works = first.yields == part && second.yields == part && laysOn(first) && laysOn(second);
    if (!face || !works || first.id.owner() == second.id.owner() || first.id.owner().empty()
        || second.id.owner().empty() || share(first.pieces, second.pieces, face->key)
        || share(first.seams, second.seams, SeamId()) || share(first.fittings, second.fittings, FittingId()))
        return true;
    const auto a = Places(p, first, *face).boxes(), b = Places(p, second, *face).boxes();
    return !a || !b || std::any_of(a->begin(), a->end(), [&](const Box& one) {
        return std::any_of(b->begin(), b->end(), [&](const Box& other) { return !apart(one, other); });
    });
}

} // namespace tectonis
