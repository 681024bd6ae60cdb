// SPDX-License-Identifier: GPL-3.0-or-later
// What a folded bag measures in space.
#pragma once

#include "mockup/mockup.hpp"

#include <catch2/catch.hpp>

#include <cmath>
#include <vector>

namespace tectonis {

/// mm² of a flat polygon.
inline double areaOf(const std::vector<Vec3>& corners)
{
    Vec3 n{};
    for (std::size_t i = 1; i + 1 < corners.size(); ++i)
        n = n + cross(corners[i] - corners[0], corners[i + 1] - corners[0]);
    return std::sqrt(dot(n, n)) / 2;
}

/// Of all corners of a piece.
inline Vec3 middleOf(const Mockup& m, const PieceId& piece)
{
    Vec3 sum{};
    int n = 0;
    for (const auto& f : m.facets)
        if (f.piece == piece)
            for (const Vec3& c : f.corners)
                sum = sum + c, ++n;
    REQUIRE(n > 0);
    return sum * (1.0 / n);
}

} // namespace tectonis
