// SPDX-License-Identifier: GPL-3.0-or-later
#include "pattern/pattern.hpp"

#include <algorithm>

namespace tectonis {
namespace {

template <class Range, class Key, class Member> auto* findBy(Range& range, Member member, const Key& key)
{
    const auto it = std::find_if(range.begin(), range.end(), [&](const auto& item) { return item.*member == key; });
    return it == range.end() ? nullptr : &*it;
}

template <class Range, class Member> auto* findByText(Range& range, Member member, const std::string& text)
{
    const auto it = std::find_if(
        range.begin(), range.end(), [&](const auto& item) { return (item.*member).text() == text; });
    return it == range.end() ? nullptr : &*it;
}

} // namespace

const double* Layer::reachAt(const EdgeId& edge) const
{
    for (const auto& [at, mm] : reach)
        if (at == edge)
            return &mm;
    return nullptr;
}

const Edge* Piece::edge(const EdgeId& edgeName) const { return findBy(edges, &Edge::name, edgeName); }
Edge* Piece::edge(const EdgeId& edgeName) { return findBy(edges, &Edge::name, edgeName); }

Run Piece::stitch() const
{
    Run out;
    for (const auto& e : edges)
        out.insert(out.end(), e.stitch.begin(), e.stitch.end());
    return out;
}

double Pattern::footWidth(const std::string& role) const
{
    const auto cloth = materials.find(role);
    const double width = workshop.widthOf(
        workshop.footFor(cloth != materials.end() && material(cloth->second).sticks()));
    return width > 0 ? width : workshop.footWidth;
}

const Piece* Pattern::piece(const PieceId& key) const { return findBy(pieces, &Piece::key, key); }
const Seam* Pattern::seam(const SeamId& key) const { return findBy(seams, &Seam::key, key); }
const Step* Pattern::step(const StepId& id) const { return findBy(steps, &Step::id, id); }
Box Site::upright(const Box& area) const
{
    Box out;
    for (const Point corner : {Point{area.x0, area.y0}, Point{area.x1, area.y1}})
        out.add(upright(corner));
    return out;
}

const Site* Pattern::site(const SiteId& name) const { return findBy(sites, &Site::name, name); }
const Piece* Pattern::piece(const std::string& text) const { return findByText(pieces, &Piece::key, text); }
const Seam* Pattern::seam(const std::string& text) const { return findByText(seams, &Seam::key, text); }
const Step* Pattern::step(const std::string& text) const { return findByText(steps, &Step::id, text); }
const Piece* Pattern::pieceByCode(const std::string& code) const { return findBy(pieces, &Piece::code, code); }

const Strap* Pattern::strapWorn(Strap::Worn worn) const
{
    const auto it = std::find_if(straps.begin(), straps.end(), [&](const Strap& s) { return s.worn == worn; });
    return it == straps.end() ? nullptr : &*it;
}

const Run* Pattern::runBehind(const EdgeUse& use) const
{
    const Piece* p = piece(use.piece);
    if (!p)
        return nullptr;
    if (const Edge* e = p->edge(use.edge))
        return &e->stitch;
    const FaceLine* l = findBy(p->lines, &FaceLine::name, use.edge);
    return l ? &l->run : nullptr;
}

Run Pattern::runOf(const EdgeUse& use) const
{
    const Run* run = runBehind(use);
    return !run ? Run{} : use.reversed ? reversed(*run) : *run;
}

double Pattern::lengthOfSide(const std::vector<EdgeUse>& side) const
{
    double sum = 0;
    for (const auto& use : side)
        if (const Run* run = runBehind(use))
            sum += lengthOf(*run);
    return sum;
}

ZipEnd::Kind zipEndOf(const std::string& chosen)
{
    using Kind = ZipEnd::Kind;
    return chosen == "tab"   ? Kind::Tab
        : chosen == "folded" ? Kind::Folded
        : chosen == "metal"  ? Kind::Metal
        : chosen == "seam"   ? Kind::Seam
                             : Kind::Stop;
}

Label nameOf(ZipEnd::Kind end)
{
    switch (end) {
    case ZipEnd::Kind::Stop: return label("bar-tacked");
    case ZipEnd::Kind::Tab: return label("under a tab");
    case ZipEnd::Kind::Folded: return label("tape folded away");
    case ZipEnd::Kind::Metal: return label("metal end");
    case ZipEnd::Kind::Seam: return label("into the seam");
    }
    return {};
}

} // namespace tectonis
