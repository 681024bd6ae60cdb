// SPDX-License-Identifier: GPL-3.0-or-later
#include "pattern/walk.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

constexpr double kMeet = 2; // mm: nearer marks are meant for each other

struct Stop {
    double at;
    Message what;
};

/// Does the run lie on what a zip shows, where there is no cloth?
bool bridged(const Pattern& p, const EdgeUse& use)
{
    const Piece* piece = p.piece(use.piece);
    return piece && !piece->edge(use.edge)
        && std::any_of(piece->lines.begin(), piece->lines.end(),
            [&](const FaceLine& l) { return l.name == use.edge && l.kind == FaceLine::Kind::Bridge; });
}

std::vector<Stop> stopsOf(const Pattern& p, const std::vector<EdgeUse>& side)
{
    std::vector<Stop> out;
    double from = 0;
    for (std::size_t i = 0; i < side.size(); ++i) {
        const EdgeUse& use = side[i];
        const Piece* piece = p.piece(use.piece);
        const Run* run = p.runBehind(use);
        if (!piece || !run)
            continue;
        const double length = lengthOf(*run);
        if (i > 0 && (side[i - 1].piece != use.piece || side[i - 1].copy != use.copy)) {
            const Piece* before = p.piece(side[i - 1].piece);
            out.push_back({from, say("join: {} to {}", before ? before->code : "", piece->code)});
        } else if (i > 0 && (side[i - 1].edge != use.edge) && bridged(p, side[i - 1]) != bridged(p, use))
            out.push_back({from, bridged(p, use) ? say("zip begins") : say("zip ends")});
        for (const auto& n : piece->notches)
            if (n.edge == use.edge)
                out.push_back({from + (use.reversed ? length - n.along : n.along),
                    n.stop && n.label.source() != "stop" ? say("{} (stop square)", n.label) : n.label});
        from += length;
    }
    return out;
}

} // namespace

std::vector<WalkStop> walked(const Pattern& p, const Seam& seam)
{
    std::vector<WalkStop> out{{0, 0, say("start"), 0}};
    const auto a = stopsOf(p, seam.a);
    auto b = stopsOf(p, seam.b);
    const double share = seam.lengthA > 0 ? seam.lengthB / seam.lengthA : 1; // ease is shared out evenly
    for (const auto& s : a) {
        WalkStop stop{s.at, -1, s.what, 0};
        const auto mate = std::min_element(b.begin(), b.end(), [&](const Stop& x, const Stop& y) {
            return std::abs(x.at - s.at * share) < std::abs(y.at - s.at * share);
        });
        if (mate != b.end() && std::abs(mate->at - s.at * share) < kMeet) {
            stop.onB = mate->at, stop.apart = mate->at - s.at * share;
            if (mate->what != s.what)
                stop.what = say("{} at {}", s.what, mate->what);
            b.erase(mate);
        }
        out.push_back(std::move(stop));
    }
    for (const auto& s : b)
        out.push_back({-1, s.at, s.what, 0});
    out.push_back({seam.lengthA, seam.lengthB, say("end"), seam.difference()});
    const auto along = [&](const WalkStop& s) { return s.onA >= 0 ? s.onA : s.onB / share; };
    std::stable_sort(
        out.begin(), out.end(), [&](const WalkStop& x, const WalkStop& y) { return along(x) < along(y) - 1e-9; });
    return out;
}

} // namespace tectonis
