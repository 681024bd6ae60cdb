// SPDX-License-Identifier: GPL-3.0-or-later
#include "editing/alignments.hpp"

#include "features/spec_of.hpp"
#include "pattern/labels.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <tuple>

namespace tectonis {
namespace {

constexpr double kSame = 0.01; // mm: a formula that gives what is seen
constexpr double kApart = 3;   // mm between things that stand beside each other (common practice, no source)

class Guiding {
public:
    Guiding(const Design& design, const Pattern& pattern, const Movable& moved, const Site& site, Point at)
        : m_design(design),
          p(pattern),
          m_moved(moved),
          m_site(site),
          m_at(at),
          m_spec(specOf(design)),
          m_wide(faceName("width", site.width)),
          m_tall(faceName("height", site.height))
    {}

    std::vector<Alignment> all()
    {
        const Box& area = m_moved.area;
        const double w = area.width(), h = area.height(), above = area.y1 - m_moved.at.y;
        const Term ownWidth = named(m_moved.part, "width", w), ownHeight = heightOf(m_moved);
        upright(0, 0, "0", say("middle"));
        for (const double side : {-1.0, 1.0})
            upright(side * m_site.width / 4, side * m_site.width / 4,
                formula(side < 0 ? "-0.25*{}" : "0.25*{}", m_wide), say("a quarter of the width"));
        // As far from the side as from the top.
        const double drop = m_site.top - m_at.y - above;
        for (const double side : {-1.0, 1.0})
            upright(side * (m_site.width / 2 - w / 2 - drop), side * (m_site.width / 2 - drop),
                formula(side < 0 ? "-({}/2 - {}/2 - {})" : "({}/2 - {}/2 - {})", m_wide, ownWidth,
                    fromUpperEdge(m_moved) ? dropOf(m_moved, m_site.top - m_at.y) : std::nullopt),
                say("as far from the side as from the top"));
        level((m_site.height - h) / 2 + above, m_site.height / 2,
            fromUpperEdge(m_moved)                ? formula("({} - {})/2", m_tall, ownHeight)
                : std::abs(2 * above - h) < kSame ? formula("{}/2", m_tall)
                                                  : Term(),
            say("half the height"));
        const auto here = [&](const PieceId& piece) {
            return std::find(m_site.pieces.begin(), m_site.pieces.end(), piece) != m_site.pieces.end();
        };
        std::set<PartId> others;
        for (const auto& other : movablesOf(p))
            if (other.part != m_moved.part && here(other.piece) && other.area.width() > 0) {
                others.insert(other.part);
                beside(other);
            }
        for (const auto& [owner, area] : fittings(here))
            if (!others.contains(owner)) {
                Movable other{owner, {}, m_site, area, {area.centre().x, area.y1}, {}, false};
                for (const auto& [name, way, from] : {std::tuple{"across", Point{1, 0}, Handle::From::Middle},
                         {"drop", Point{0, -1}, Handle::From::Top}})
                    if (m_design.dimensions.contains(owner.text() + "." + name))
                        other.ways.push_back({owner.text() + "." + name, way, 1, from});
                beside(other);
            }
        return std::move(m_out);
    }

private:
    /// A formula, or a name in one; none where it means something else there, or measures otherwise.
    using Term = std::optional<std::string>;

    /// None of its terms is lacking, or it is empty.
    template <class... Terms> static Term formula(const char* pattern, const Terms&... terms)
    {
        if ((!terms || ...))
            return {};
        return fmt::format(fmt::runtime(pattern), *terms...);
    }

    static bool fromUpperEdge(const Movable& thing) { return std::abs(thing.area.y1 - thing.at.y) < kSame; }

    /// The fittings of each other part that nothing there can be moved by: rivets.
    template <class Here> std::map<PartId, Box> fittings(const Here& here) const
    {
        std::map<PartId, Box> out;
        for (const auto& f : p.fittings) {
            if (f.key.owner() == m_moved.part || f.key.owner().empty() || !here(f.piece))
                continue;
            out[f.key.owner()].add(boxAround(m_site.upright(f.at), f.size / 2, f.size / 2));
        }
        return out;
    }

    /// To one other thing on the same face.
    void beside(const Movable& other)
    {
        const Message name = partLabel(p, other.part);
        const double w = m_moved.area.width(), h = m_moved.area.height(), above = m_moved.area.y1 - m_moved.at.y;
        const Box& area = other.area;
        const double x = other.at.x - m_site.x, top = m_site.top - area.y1, low = m_site.top - area.y0,
                     middle = (top + low) / 2;
        const Term across = acrossOf(other, x), at = dropOf(other, m_site.top - other.at.y),
                   drop = fromUpperEdge(other) ? at : Term(), height = heightOf(other),
                   width = named(other.part, "width", area.width()), ownHeight = heightOf(m_moved),
                   ownWidth = named(m_moved.part, "width", w);
        // Counted to the upper edge of what is moved, where its own way leads there.
        const bool edges = fromUpperEdge(m_moved);
        const auto toEdge = [&](Term term) { return edges ? std::move(term) : Term(); };
        upright(x, x, across, say("as {}", name));
        if (std::abs(x) > kSame)
            upright(-x, -x, formula("-({})", across), say("mirrored to {}", name));
        const double left = area.x0 - m_site.x, right = area.x1 - m_site.x;
        upright(left + w / 2, left, formula("{} - {}/2 + {}/2", across, width, ownWidth),
            say("left edges of both: {}", name));
        upright(right - w / 2, right, formula("{} + {}/2 - {}/2", across, width, ownWidth),
            say("right edges of both: {}", name));
        level(top + above, top, toEdge(drop), say("upper edges of both: {}", name));
        level(low - h + above, low, toEdge(formula("{} + {} - {}", drop, height, ownHeight)),
            say("lower edges of both: {}", name));
        const bool centred = std::abs(2 * above - h) < kSame;
        const Term centre = fromUpperEdge(other) && area.height() > 0 ? formula("{} + {}/2", drop, height) : at;
        level(middle - h / 2 + above, middle, centred ? centre : toEdge(formula("{} - {}/2", centre, ownHeight)),
            say("level with {}", name));
        // A little apart.
        level(low + kApart + above, low + kApart, toEdge(formula("{} + {} + 3", drop, height)),
            say("{} below {}", Len(kApart), name));
        level(top - kApart - h + above, top - kApart, toEdge(formula("{} - 3 - {}", drop, ownHeight)),
            say("{} above {}", Len(kApart), name));
        upright(right + kApart + w / 2, right + kApart, formula("{} + {}/2 + 3 + {}/2", across, width, ownWidth),
            say("{} beside {}", Len(kApart), name));
        upright(left - kApart - w / 2, left - kApart, formula("{} - {}/2 - 3 - {}/2", across, width, ownWidth),
            say("{} beside {}", Len(kApart), name));
    }

    /// @p term counts from the middle of the face to the right.
    void upright(double across, double line, const Term& term, Message what)
    {
        if (const MovableWay* way = m_moved.way(true))
            m_out.push_back({true, m_site.x + across, m_site.x + line, term ? valueOf(*way, *term).value_or("") : "",
                std::move(what)});
    }
    /// @p term counts from the top of the face down.
    void level(double drop, double line, const Term& term, Message what)
    {
        if (const MovableWay* way = m_moved.way(false))
            m_out.push_back({false, m_site.top - drop, m_site.top - line, term ? valueOf(*way, *term).value_or("") : "",
                std::move(what)});
    }

    /// What a dimension is when its thing lies there.
    Term valueOf(const MovableWay& way, const std::string& term) const
    {
        using From = Handle::From;
        const auto times = [](double factor, const std::string& what) {
            return factor == 1 ? what : factor == -1 ? "-(" + what + ")" : fmt::format("{}*({})", factor, what);
        };
        const bool right = way.direction.x > 0;
        switch (way.from) {
        case From::Middle: return times(right ? way.gain : -way.gain, term);
        case From::Side:
            return m_wide ? Term(times(way.gain, fmt::format("{}/2 {} ({})", *m_wide, right ? "+" : "-", term)))
                          : Term();
        case From::Top: return times(way.gain, term);
        case From::Base: return m_tall ? Term(times(way.gain, fmt::format("{} - ({})", *m_tall, term))) : Term();
        case From::Nowhere: break;
        }
        return {};
    }

    /// How far a thing lies to the right of the face's middle, by its own dimension, if that says @p seen.
    Term acrossOf(const Movable& thing, double seen) const
    {
        const MovableWay* way = thing.way(true);
        const auto value = way ? valueIn(way->dimension) : std::nullopt;
        if (!value)
            return {};
        const double side = way->direction.x > 0 ? 1 : -1;
        const std::string part = way->gain == 1 ? way->dimension : fmt::format("{}/{}", way->dimension, way->gain);
        if (way->from == Handle::From::Middle && std::abs(side * *value / way->gain - seen) < kSame)
            return (side < 0 ? "-" : "") + part;
        if (way->from == Handle::From::Side && m_wide
            && std::abs(side * (*value / way->gain - m_site.width / 2) - seen) < kSame)
            return side < 0 ? fmt::format("({}/2 - {})", *m_wide, part) : fmt::format("({} - {}/2)", part, *m_wide);
        return {};
    }

    /// How far a thing lies below the top of the face, by its own dimension, if that says @p seen.
    Term dropOf(const Movable& thing, double seen) const
    {
        const MovableWay* way = thing.way(false);
        const auto value = way && way->from == Handle::From::Top && way->gain == 1 ? valueIn(way->dimension)
                                                                                   : std::nullopt;
        return value && std::abs(*value - seen) < kSame ? Term(way->dimension) : std::nullopt;
    }

    Term heightOf(const Movable& thing) const
    {
        return thing.area.height() == 0 ? Term("0") : named(thing.part, "height", thing.area.height());
    }

    std::optional<double> valueIn(const std::string& dimension) const
    {
        const auto value = p.values.find(dimension);
        return m_design.dimensions.contains(dimension) && value != p.values.end() ? std::optional(value->second)
                                                                                  : std::nullopt;
    }

    /// "face.width" where that means this face in the formulas of what is moved, as wide as it is seen.
    Term faceName(const char* name, double seen) const
    {
        if (m_moved.ways.empty())
            return {};
        const std::string face = std::string("face.") + name;
        const auto value = p.values.find(m_spec.meant(face, m_moved.ways.front().dimension));
        return value != p.values.end() && std::abs(value->second - seen) < kSame ? Term(face) : std::nullopt;
    }
    /// "label.width" where the part is as large as that says.
    Term named(const PartId& part, const char* name, double seen) const
    {
        const std::string full = part.text() + "." + name;
        const auto value = valueIn(full);
        return value && std::abs(*value - seen) < kSame ? Term(full) : std::nullopt;
    }

    const Design& m_design;
    const Pattern& p;
    const Movable& m_moved;
    const Site& m_site;
    const Point m_at;
    const DesignSpec& m_spec;
    const Term m_wide, m_tall; ///< the face's width and height
    std::vector<Alignment> m_out;
};

} // namespace

std::vector<Alignment> alignmentsFor(
    const Design& design, const Pattern& seenIn, const Movable& moved, const Site& site, Point at)
{
    return Guiding(design, seenIn, moved, site, at).all();
}

LinedUp linedUp(const std::vector<Alignment>& guides, Point at, double reach)
{
    LinedUp out{at, {}};
    for (const bool upright : {true, false}) {
        const Alignment* nearest = nullptr;
        double least = reach;
        for (const auto& guide : guides)
            if (const double away = std::abs((upright ? at.x : at.y) - guide.at);
                guide.upright == upright && away < least)
                nearest = &guide, least = away;
        // Where lines lie close together there is room between them.
        const bool between = nearest && std::any_of(guides.begin(), guides.end(), [&](const Alignment& other) {
            const double apart = std::abs(other.at - nearest->at);
            return other.upright == upright && apart > kSame && least > apart / 3;
        });
        if (nearest && !between) {
            (upright ? out.at.x : out.at.y) = nearest->at;
            out.with.push_back(*nearest);
        }
    }
    return out;
}

} // namespace tectonis
