// SPDX-License-Identifier: GPL-3.0-or-later
#include "editing/alignments.hpp"

#include "features/spec_of.hpp"
#include "pattern/labels.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace tectonis {
namespace {

constexpr double kSame = 0.01; // mm: a formula that gives what is seen
constexpr double kApart = 3;   // mm between things that stand beside each other (common practice, no source)

class Guiding {
public:
    Guiding(const Design& design, const Pattern& pattern, const PartId& part, const Site& site, Point at)
        : m_design(design), p(pattern), m_part(part), m_site(site), m_at(at), m_spec(specOf(design))
    {
        for (const auto& place : p.places)
            if (place.feature == part)
                m_box = site.upright(place.area);
    }

    std::vector<Alignment> all()
    {
        const double w = m_box.width(), h = m_box.height();
        const Term wide = faceName("width", m_site.width), tall = faceName("height", m_site.height),
                   ownWidth = named(m_part, "width", w), ownHeight = named(m_part, "height", h);
        upright(0, 0, "0", say("middle"));
        for (const double side : {-1.0, 1.0})
            upright(side * m_site.width / 4, side * m_site.width / 4, formula(side < 0 ? "-0.25*{}" : "0.25*{}", wide),
                say("a quarter of the width"));
        // As far from the side as from the top.
        const double drop = m_site.top - m_at.y;
        for (const double side : {-1.0, 1.0})
            upright(side * (m_site.width / 2 - w / 2 - drop), side * (m_site.width / 2 - drop),
                formula(side < 0 ? "-({}/2 - {}/2 - {})" : "({}/2 - {}/2 - {})", wide, ownWidth,
                    Term(m_part.text() + ".drop")),
                say("as far from the side as from the top"));
        level((m_site.height - h) / 2, m_site.height / 2, formula("({} - {})/2", tall, ownHeight),
            say("half the height"));
        const auto here = [&](const PieceId& piece) {
            return std::find(m_site.pieces.begin(), m_site.pieces.end(), piece) != m_site.pieces.end();
        };
        for (const auto& place : p.places)
            if (place.feature != m_part && here(place.piece))
                beside(place.feature, m_site.upright(place.area), w, h);
        for (const auto& [owner, area] : fittings(here))
            beside(owner, area, w, h);
        return std::move(m_out);
    }

private:
    /// A name in the part's formulas; none where it means something else there, or measures otherwise.
    using Term = std::optional<std::string>;

    /// None of its terms is lacking, or it is empty.
    template <class... Terms> static std::string formula(const char* pattern, const Terms&... terms)
    {
        if ((!terms || ...))
            return {};
        return fmt::format(fmt::runtime(pattern), *terms...);
    }

    /// The fittings of each other part that has no area of its own there: rivets, a snap's half.
    template <class Here> std::map<PartId, Box> fittings(const Here& here) const
    {
        std::map<PartId, Box> out;
        for (const auto& f : p.fittings) {
            const bool placed = std::any_of(p.places.begin(), p.places.end(),
                [&](const Place& place) { return place.feature == f.key.owner() && place.piece == f.piece; });
            if (f.key.owner() == m_part || f.key.owner().empty() || placed || !here(f.piece))
                continue;
            const double r = f.size / 2;
            const Point at = m_site.upright(f.at);
            out[f.key.owner()].add(Point{at.x - r, at.y - r});
            out[f.key.owner()].add(Point{at.x + r, at.y + r});
        }
        return out;
    }

    /// To one other part on the same face.
    void beside(const PartId& other, const Box& area, double w, double h)
    {
        const Message name = partLabel(p, other);
        const double x = area.centre().x - m_site.x, top = m_site.top - area.y1, low = m_site.top - area.y0;
        const Term across = named(other, "across", x), drop = named(other, "drop", top),
                   height = named(other, "height", low - top), width = named(other, "width", area.width()),
                   ownHeight = named(m_part, "height", h), ownWidth = named(m_part, "width", w);
        upright(x, x, across.value_or(""), say("as {}", name));
        if (std::abs(x) > kSame)
            upright(-x, -x, formula("-{}", across), say("mirrored to {}", name));
        const double left = area.x0 - m_site.x, right = area.x1 - m_site.x;
        upright(left + w / 2, left, formula("{} - {}/2 + {}/2", across, width, ownWidth),
            say("left edges of both: {}", name));
        upright(right - w / 2, right, formula("{} + {}/2 - {}/2", across, width, ownWidth),
            say("right edges of both: {}", name));
        level(top, top, drop.value_or(""), say("upper edges of both: {}", name));
        level(low - h, low, formula("{} + {} - {}", drop, height, ownHeight), say("lower edges of both: {}", name));
        // A little apart.
        level(low + kApart, low + kApart, formula("{} + {} + 3", drop, height), say("{} below {}", Len(kApart), name));
        level(top - kApart - h, top - kApart, formula("{} - 3 - {}", drop, ownHeight),
            say("{} above {}", Len(kApart), name));
        upright(right + kApart + w / 2, right + kApart, formula("{} + {}/2 + 3 + {}/2", across, width, ownWidth),
            say("{} beside {}", Len(kApart), name));
        upright(left - kApart - w / 2, left - kApart, formula("{} - {}/2 - 3 - {}/2", across, width, ownWidth),
            say("{} beside {}", Len(kApart), name));
    }

    void upright(double across, double line, std::string value, Message what)
    {
        if (has("across"))
            m_out.push_back({true, m_site.x + across, m_site.x + line, std::move(value), std::move(what)});
    }
    void level(double drop, double line, std::string value, Message what)
    {
        if (has("drop"))
            m_out.push_back({false, m_site.top - drop, m_site.top - line, std::move(value), std::move(what)});
    }

    bool has(const char* name) const { return m_design.dimensions.contains(m_part.text() + "." + name); }

    /// "face.width" where that means this face in the part's formulas, as wide as it is seen.
    Term faceName(const char* name, double seen) const
    {
        const std::string face = std::string("face.") + name;
        const auto value = p.values.find(m_spec.meant(face, m_part.text() + ".across"));
        return value != p.values.end() && std::abs(value->second - seen) < kSame ? Term(face) : std::nullopt;
    }
    /// "label.width" where the part is as large as that says.
    Term named(const PartId& part, const char* name, double seen) const
    {
        const std::string full = part.text() + "." + name;
        const auto value = p.values.find(full);
        return m_design.dimensions.contains(full) && value != p.values.end() && std::abs(value->second - seen) < kSame
            ? Term(full)
            : std::nullopt;
    }

    const Design& m_design;
    const Pattern& p;
    const PartId m_part;
    const Site& m_site;
    const Point m_at;
    const DesignSpec& m_spec;
    Box m_box;
    std::vector<Alignment> m_out;
};

} // namespace

std::vector<Alignment> alignmentsFor(
    const Design& design, const Pattern& seenIn, const PartId& part, const Site& site, Point upperMiddle)
{
    return Guiding(design, seenIn, part, site, upperMiddle).all();
}

LinedUp linedUp(const std::vector<Alignment>& guides, Point upperMiddle, double reach)
{
    LinedUp out{upperMiddle, {}};
    for (const bool upright : {true, false}) {
        const Alignment* nearest = nullptr;
        double least = reach;
        for (const auto& guide : guides)
            if (const double away = std::abs((upright ? upperMiddle.x : upperMiddle.y) - guide.at);
                guide.upright == upright && away < least)
                nearest = &guide, least = away;
        if (nearest) {
            (upright ? out.at.x : out.at.y) = nearest->at;
            out.with.push_back(*nearest);
        }
    }
    return out;
}

} // namespace tectonis
