// SPDX-License-Identifier: GPL-3.0-or-later
// Match marks, as a hand finds them: on every seam, on every copy of a piece, in every size, measured again from the
// pieces alone.
#include "drawn.hpp"
#include "every_design.hpp"
#include "random_design.hpp"

#include "pattern/template.hpp"

#include <random>

using namespace tectonis;

namespace {

/// What is found along one side of a seam: notches, joins of cloth, and corners that need no mark. Written apart from
/// the code that places marks.
struct Found {
    std::vector<double> marks, joins, quarters, bare; ///< bare: from, to: where there is no cloth
    double whole = 0;
    bool closed = false;
    /// Lengths at which its pieces begin and end, in order.
    std::vector<double> bounds() const
    {
        std::vector<double> out{0};
        out.insert(out.end(), joins.begin(), joins.end());
        out.push_back(whole);
        return out;
    }
};

Found foundAlong(const Pattern& p, const std::vector<EdgeUse>& side)
{
    Found out;
    Point began, ended, way, left;
    bool first = true, clothBefore = true, samePiece = true;
    const EdgeUse* before = nullptr;
    for (const auto& use : side) {
        const Piece& piece = *p.piece(use.piece);
        const Run run = p.runOf(use);
        const bool cloth = piece.edge(use.edge) != nullptr;
        const double n = lengthOf(run);
        if (first)
            began = startOf(run), left = tangentOf(run.front(), 0);
        else if (before->piece != use.piece || before->copy != use.copy || cloth != clothBefore)
            out.joins.push_back(out.whole);
        else if (dot(way, tangentOf(run.front(), 0)) < std::cos(radians(15)))
            out.marks.push_back(out.whole); // a corner of the stitch line shows itself
        if (before && (before->piece != use.piece || before->copy != use.copy))
            samePiece = false;
        double corner = 0;
        for (std::size_t i = 0; i + 1 < run.size(); ++i) {
            corner += lengthOf(run[i]);
            if (dot(tangentOf(run[i], 1), tangentOf(run[i + 1], 0)) < std::cos(radians(15)))
                out.marks.push_back(out.whole + corner);
        }
        if (!cloth && !out.bare.empty() && out.bare.back() == out.whole)
            out.bare.back() = out.whole + n; // it goes on over a corner of the outline
        else if (!cloth)
            out.bare.insert(out.bare.end(), {out.whole, out.whole + n});
        for (const auto& notch : piece.notches) {
            if (notch.edge == use.edge)
                out.marks.push_back(out.whole + (use.reversed ? n - notch.along : notch.along));
            else if (const Edge* other = piece.edge(notch.edge); other && cloth) {
                // A corner's mark may have been put on the edge beside it.
                const Point at = pointAlong(other->stitch, notch.along);
                if (distance(at, startOf(run)) < 1e-6)
                    out.marks.push_back(out.whole);
                if (distance(at, endOf(run)) < 1e-6)
                    out.marks.push_back(out.whole + n);
            }
        }
        way = tangentOf(run.back(), 1);
        ended = endOf(run);
        out.whole += n;
        before = &use, clothBefore = cloth, first = false;
    }
    out.closed = samePiece && !first && distance(began, ended) < 1e-6;
    if (out.closed && dot(way, left) < std::cos(radians(15)))
        out.marks.push_back(0);
    return out;
}

bool has(const std::vector<double>& all, double at, double within)
{
    return std::any_of(all.begin(), all.end(), [&](double other) { return std::abs(other - at) <= within; });
}

/// Fails where a join or a quarter of one run has no mark at the same place of the other.
void checkMarks(const Pattern& p, int& joins, int& quarters)
{
    for (const auto& seam : p.seams) {
        if (seam.stitch != "construction")
            continue;
        const Found a = foundAlong(p, seam.a), b = foundAlong(p, seam.b);
        const auto bare = [](const Found& f, double at) {
            for (std::size_t i = 0; i + 1 < f.bare.size(); i += 2)
                if (at > f.bare[i] + 0.01 && at < f.bare[i + 1] - 0.01)
                    return true;
            return false;
        };
        const auto marked = [&](const Found& f, double at, double within) {
            return has(f.marks, at, within) || has(f.joins, at, within);
        };
        INFO("size " << p.size << ", seam " << seam.key << " of " << a.whole << " / " << b.whole << " mm");
        for (const auto& [one, other] : {std::pair{&a, &b}, {&b, &a}}) {
            std::vector<double> asked = one->joins;
            if (other->closed && !one->closed)
                asked.push_back(0); // the ends of the one meet on the other
            for (const double at : asked) {
                const double there = at / one->whole * other->whole;
                if (bare(*other, there))
                    continue;
                ++joins;
                INFO("join at " << at);
                CHECK(marked(*other, there, 0.01));
            }
        }
        std::vector<double> shares;
        for (const Found* f : {&a, &b}) {
            const auto bounds = f->bounds();
            for (std::size_t i = 0; i + 1 < bounds.size(); ++i)
                if (const double n = bounds[i + 1] - bounds[i]; n > 400 || f->closed)
                    for (const double share : {0.25, 0.5, 0.75})
                        shares.push_back((bounds[i] + share * n) / f->whole);
        }
        for (const double share : shares) {
            INFO("at " << share << " of the run");
            if (bare(a, share * a.whole) || bare(b, share * b.whole))
                continue;
            ++quarters;
            // A quarter beside a join gives way to it, on both alike.
            const auto on = [&](const Found& f, double of) {
                double best = 1e300;
                for (const auto* list : {&f.marks, &f.joins})
                    for (const double at : *list)
                        best = std::abs(at / f.whole * of - share * of) < std::abs(best - share * of)
                            ? at / f.whole * of
                            : best;
                return best;
            };
            CHECK(std::abs(on(a, a.whole) - share * a.whole) <= 4);
            CHECK(std::abs(on(b, a.whole) - share * a.whole) <= 4);
        }
    }
}

} // namespace

TEST_CASE("Every join and every quarter of one run has a mark on the other at the same stitch distance: all forms, "
          "parts, ways and sizes")
{
    int joins = 0, quarters = 0;
    forEveryDesign([&](const std::string& name, const Design& d) {
        INFO(name);
        for (const auto& p : draftAll(d))
            checkMarks(p, joins, quarters);
    });
    CHECK(joins > 20000);
    CHECK(quarters > 20000);
}

TEST_CASE("Marks meet on random designs too")
{
    std::mt19937 random(10);
    int refused = 0, joins = 0, quarters = 0;
    for (int i = 0; i < 300; ++i) {
        const Design d = randomDesign(random, refused);
        try {
            INFO("design " << i << ", " << d.form);
            checkMarks(draftAll(d)[std::size_t(i) % d.sizes.size()], joins, quarters);
        } catch (const InputError&) {}
    }
    CHECK(joins > 1000);
}

TEST_CASE("A template on the fold keeps exactly the marks of the whole piece")
{
    int folded = 0;
    forEveryDesign([&](const std::string& name, Design d) {
        setChoice(d, "templates", "quarter");
        for (const auto& p : draftAll(d))
            for (const auto& piece : p.pieces) {
                if (piece.folds == 0)
                    continue;
                ++folded;
                INFO(name << ", size " << p.size << ", piece " << piece.key);
                const auto placesOf = [](const Piece& of) {
                    std::vector<Point> out;
                    for (const auto& n : of.notches)
                        out.push_back(pointAlong(of.edge(n.edge)->stitch, n.along));
                    for (const auto& m : of.drills)
                        out.push_back(m.at);
                    return out;
                };
                const auto all = placesOf(piece);
                std::vector<Point> unfolded = placesOf(templateOf(piece));
                const Point middle = boundsOf(piece.stitch()).centre();
                const auto unfold = [&](bool sideways) {
                    for (std::size_t i = unfolded.size(); i-- > 0;)
                        unfolded.push_back(sideways ? Point{2 * middle.x - unfolded[i].x, unfolded[i].y}
                                                    : Point{unfolded[i].x, 2 * middle.y - unfolded[i].y});
                };
                unfold(true);
                if (piece.folds == 2)
                    unfold(false);
                const auto within = [](const std::vector<Point>& of, Point at) {
                    return std::any_of(of.begin(), of.end(), [&](Point other) { return distance(other, at) < 0.02; });
                };
                for (const Point at : all)
                    CHECK(within(unfolded, at));
                for (const Point at : unfolded)
                    CHECK(within(all, at));
            }
    });
    CHECK(folded > 5000);
}
