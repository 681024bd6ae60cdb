// SPDX-License-Identifier: GPL-3.0-or-later
#include "editing/alignments.hpp"

#include "features/spec_of.hpp"
#include "pattern/labels.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

constexpr double kSame = 0.01; // mm: a formula that gives what is seen

class Guiding {
public:
    Guiding(const Design& design, const Pattern& pattern, const PartId& part, const Site& site, Point at)
        : m_design(design), p(pattern), m_part(part), m_site(site), m_at(at), m_spec(specOf(design))
    {
        for (const auto& place : p.places)
            if (place.feature == part)
                m_box = place.area;
    }

    std::vector<Alignment> all()
    {
        const double w = m_box.width(), h = m_box.height();
        upright(0, 0, "0", say("middle"));
        for (const double side : {-1.0, 1.0})
            upright(side * m_site.width / 4, side * m_site.width / 4,
                fmt::format("{}*{}", side * 0.25, faceName("width", m_site.width)), say("a quarter of the width"));
        // As far from the side as from the top.
        const double drop = m_site.top - m_at.y;
        for (const double side : {-1.0, 1.0})
            upright(side * (m_site.width / 2 - w / 2 - drop), side * (m_site.width / 2 - drop),
                own("width", w).empty() || faceName("width", m_site.width).empty()
                    ? ""
                    : fmt::format("{}({}/2 - {}/2 - {}.drop)", side < 0 ? "-" : "", faceName("width", m_site.width),
                        own("width", w), m_part.text()),
                say("as far from the side as from the top"));
        level((m_site.height - h) / 2, m_site.height / 2,
            own("height", h).empty() || faceName("height", m_site.height).empty()
                ? ""
                : fmt::format("({} - {})/2", faceName("height", m_site.height), own("height", h)),
            say("half the height"));
        for (const auto& place : p.places)
            if (place.feature != m_part
                && std::find(m_site.pieces.begin(), m_site.pieces.end(), place.piece) != m_site.pieces.end())
                beside(place, w, h);
        return std::move(m_out);
    }

private:
    /// To one other part on the same face.
    void beside(const Place& place, double w, double h)
    {
        const Message name = partLabel(p, place.feature);
        const double x = place.area.centre().x - m_site.x, top = m_site.top - place.area.y1,
                     low = m_site.top - place.area.y0;
        const std::string across = others(place.feature, "across", x), drop = others(place.feature, "drop", top);
        upright(x, x, across, say("as {}", name));
        if (std::abs(x) > kSame)
            upright(-x, -x, across.empty() ? "" : "-" + across, say("mirrored to {}", name));
        const double left = place.area.x0 - m_site.x, right = place.area.x1 - m_site.x;
        upright(left + w / 2, left, "", say("left edges of both: {}", name));
        upright(right - w / 2, right, "", say("right edges of both: {}", name));
        level(top, top, drop, say("upper edges of both: {}", name));
        const std::string height = others(place.feature, "height", low - top);
        level(low - h, low,
            drop.empty() || height.empty() || own("height", h).empty()
                ? ""
                : fmt::format("{} + {} - {}", drop, height, own("height", h)),
            say("lower edges of both: {}", name));
    }

    void upright(double across, double line, std::string value, Message what)
    {
        if (has("across"))
            m_out.push_back({true, m_site.x + across, m_site.x + line, checked(std::move(value)), std::move(what)});
    }
    void level(double drop, double line, std::string value, Message what)
    {
        if (has("drop"))
            m_out.push_back({false, m_site.top - drop, m_site.top - line, checked(std::move(value)), std::move(what)});
    }
    /// A formula one of whose names could not be had is none.
    static std::string checked(std::string value)
    {
        return value.ends_with('*') || value.find("* ") != std::string::npos ? std::string() : std::move(value);
    }

    bool has(const char* name) const { return m_design.dimensions.contains(m_part.text() + "." + name); }

    /// "face.width" where that means this face in the part's formulas, as wide as it is seen; empty where it does not.
    std::string faceName(const char* name, double seen) const
    {
        const std::string face = std::string("face.") + name;
        const auto value = p.values.find(m_spec.meant(face, m_part.text() + ".across"));
        return value != p.values.end() && std::abs(value->second - seen) < kSame ? face : std::string();
    }
    /// "label.width" where the part is as large as that says.
    std::string own(const char* name, double seen) const { return others(m_part, name, seen); }
    std::string others(const PartId& part, const char* name, double seen) const
    {
        const std::string full = part.text() + "." + name;
        const auto value = p.values.find(full);
        return m_design.dimensions.contains(full) && value != p.values.end() && std::abs(value->second - seen) < kSame
            ? full
            : std::string();
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
