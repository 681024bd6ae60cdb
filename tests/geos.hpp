// SPDX-License-Identifier: GPL-3.0-or-later
// GEOS as an outside check of areas and offsets.
#pragma once

#include "geometry/run.hpp"

#include <geos_c.h>
#include <memory>

namespace tectonis {

class Geos {
public:
    Geos() : m_context(GEOS_init_r(), &GEOS_finish_r) {}

    double area(const Polyline& closed) const
    {
        auto g = polygon(closed);
        return areaOfGeometry(g.get());
    }
    /// Mitred buffer: the geometry of seam allowances.
    double bufferedArea(const Polyline& closed, double d) const
    {
        auto g = polygon(closed);
        std::unique_ptr<GEOSGeometry, Drop> b(
            GEOSBufferWithStyle_r(m_context.get(), g.get(), d, 200, GEOSBUF_CAP_FLAT, GEOSBUF_JOIN_MITRE, 4),
            Drop{m_context.get()});
        return areaOfGeometry(b.get());
    }
    bool valid(const Polyline& closed) const
    {
        auto g = polygon(closed);
        return GEOSisValid_r(m_context.get(), g.get()) == 1;
    }
    bool covers(const Polyline& outer, const Polyline& inner, double slack) const
    {
        auto o = polygon(outer), i = polygon(inner);
        std::unique_ptr<GEOSGeometry, Drop> grown(
            GEOSBuffer_r(m_context.get(), o.get(), slack, 8), Drop{m_context.get()});
        return GEOSCovers_r(m_context.get(), grown.get(), i.get()) == 1;
    }

    /// Area that two polygons share.
    double sharedArea(const Polyline& one, const Polyline& other) const
    {
        auto a = polygon(one), b = polygon(other);
        std::unique_ptr<GEOSGeometry, Drop> both(
            GEOSIntersectionPrec_r(m_context.get(), a.get(), b.get(), 1e-4), Drop{m_context.get()}); // edges on edges
        return both ? areaOfGeometry(both.get()) : std::nan("");
    }

    double length(const Polyline& line) const
    {
        auto g = lineString(line);
        double n = 0;
        GEOSLength_r(m_context.get(), g.get(), &n);
        return n;
    }
    /// Distance along a line at which it is nearest to a point.
    double project(const Polyline& line, Point p) const
    {
        auto g = lineString(line);
        std::unique_ptr<GEOSGeometry, Drop> at(
            GEOSGeom_createPointFromXY_r(m_context.get(), p.x, p.y), Drop{m_context.get()});
        return GEOSProject_r(m_context.get(), g.get(), at.get());
    }

private:
    struct Drop {
        GEOSContextHandle_t context;
        void operator()(GEOSGeometry* g) const { GEOSGeom_destroy_r(context, g); }
    };
    std::unique_ptr<GEOSGeometry, Drop> polygon(const Polyline& closed) const
    {
        auto c = m_context.get();
        const bool open = distance(closed.front(), closed.back()) > 1e-6;
        const auto n = unsigned(closed.size() + (open ? 1 : 0));
        GEOSCoordSequence* s = GEOSCoordSeq_create_r(c, n, 2);
        for (unsigned i = 0; i < n; ++i) {
            // The ring closes to the bit.
            const Point p = i + 1 == n ? closed.front() : closed[i];
            GEOSCoordSeq_setXY_r(c, s, i, p.x, p.y);
        }
        return {GEOSGeom_createPolygon_r(c, GEOSGeom_createLinearRing_r(c, s), nullptr, 0), Drop{c}};
    }
    std::unique_ptr<GEOSGeometry, Drop> lineString(const Polyline& line) const
    {
        auto c = m_context.get();
        GEOSCoordSequence* s = GEOSCoordSeq_create_r(c, unsigned(line.size()), 2);
        for (unsigned i = 0; i < line.size(); ++i)
            GEOSCoordSeq_setXY_r(c, s, i, line[i].x, line[i].y);
        return {GEOSGeom_createLineString_r(c, s), Drop{c}};
    }
    double areaOfGeometry(const GEOSGeometry* g) const
    {
        double a = 0;
        GEOSArea_r(m_context.get(), g, &a);
        return a;
    }
    std::unique_ptr<GEOSContextHandle_HS, decltype(&GEOS_finish_r)> m_context;
};

} // namespace tectonis
