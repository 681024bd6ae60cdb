// SPDX-License-Identifier: GPL-3.0-or-later
// Faces that are no front and no back: a polygon's band, a pouch's disc, covers that are glued over a frame.
#include "drawn.hpp"
#include "english.hpp"
#include "geos.hpp"
#include "sewable.hpp"
#include "space.hpp"

#include "buildup/layers.hpp"
#include "editing/edits.hpp"
#include "mockup/mockup.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

using namespace tectonis;
using Catch::Contains;

namespace {

/// A label of 40 × 12 mm, its upper edge 12 mm below the top of the face, in the face's middle.
std::string addLabel(Design& d, const std::string& site)
{
    const std::string id = addFeature(d, "label");
    setChoice(d, id + ".site", site);
    for (const char* set : {".drop=12", ".across=0", ".width=40", ".height=12"})
        assign(d, id + set);
    return id;
}

} // namespace

TEST_CASE("Polygon: parts on the band beside the lowest side, as far up as the zip panel leaves it")
{
    const Geos geos;
    for (const char* bands : {"one", "three"})
        for (const double shift : {0.0, 25.0, -25.0})
            for (const char* site : {"left", "right", "lining left", "lining right"}) {
                Design d = with("polygon", {"depth=90"});
                setChoice(d, "bands", bands);
                assign(d, fmt::format("zip.shift={}", shift));
                INFO(bands << " bands, shifted by " << shift << ", " << site);
                const std::string id = addLabel(d, site);
                requireSewable(d);
                for (const auto& p : draftAll(d)) {
                    const Place& place = *std::find_if(
                        p.places.begin(), p.places.end(), [&](const Place& q) { return q.feature == id; });
                    const Box b = place.area;
                    CHECK(geos.covers(flattened(p.piece(place.piece)->stitch(), 0.01),
                        {{b.x0, b.y0}, {b.x1, b.y0}, {b.x1, b.y1}, {b.x0, b.y1}}, 0.01));
                }
                const Mockup m = mediumMockup(d);
                CHECK(m.largestGap < 0.5);
                // A regular hexagon with sides of 110: the side runs from (55, 0) up to (110, 95.3); the zip panel of
                // 297 ends 148.5 and the shift from the top's middle, the side begins 165 from there.
                const bool right = std::string(site).ends_with("right");
                const double down = std::max(0.0, 148.5 + (right ? 1 : -1) * shift - 165) + 12 + 6;
                const Vec3 at = middleOf(m, PieceId(PartId(id)));
                CHECK((right ? at.x : -at.x) == Approx(110 - down / 2).margin(1.5));
                CHECK(at.y == Approx((110 - down) * std::sqrt(3.0) / 2).margin(1.5));
                assign(d, id + ".across=8");
                const bool lining = std::string(site).starts_with("lining");
                CHECK(middleOf(mediumMockup(d), PieceId(PartId(id))).z - at.z
                    == Approx((right == lining ? 1 : -1) * 8).margin(0.3));
            }
}

TEST_CASE("Polygon of any sides: the walls' height holds in every size, and connectors are riveted onto them")
{
    for (const int sides : {5, 6, 7, 8})
        for (const char* bands : {"one", "three"}) {
            Design d = with("polygon", {fmt::format("sides={}", sides), "depth=80"});
            setChoice(d, "bands", bands);
            INFO(sides << " sides, " << bands);
            addFeature(d, "strap");
            setChoice(d, "connectors.held", "walls");
            requireSewable(d);
            for (const auto& p : draftAll(d))
                for (const char* wall : {"left", "right"}) {
                    const Site& face = *p.site(SiteId(wall));
                    const Box piece = face.upright(boundsOf(p.piece(face.pieces.front())->stitch()));
                    CHECK(face.top <= piece.y1 + 1e-6);
                    CHECK(face.top - face.height >= piece.y0 - 1e-6);
                    CHECK(face.height <= p.values.at("side") + 1e-6);
                    CHECK(face.height > 30);
                }
        }
}

TEST_CASE("Circle pouch: what sits on a disc keeps its size in the folds, outside or inside, right side to the eye")
{
    for (const char* site : {"disc", "lining disc"})
        for (const double drop : {12.0, 60.0, 120.0}) {
            Design d = with("circle-pouch", {});
            setChoice(d, "inner", "no");
            const std::string id = addLabel(d, site);
            assign(d, fmt::format("{}.drop={}", id, drop));
            INFO(site << ", " << drop << " down");
            requireSewable(d);
            const bool lining = std::string(site).starts_with("lining");
            const Pattern p = medium(d);
            const PieceId piece{PartId(id)};
            const Mockup m = mediumMockup(d);
            double area = 0, shells = 0, labels = 0;
            for (const auto& f : m.facets) {
                if (f.kind == "overlay" && f.piece == piece)
                    area += areaOf(f.corners);
                if (f.kind == "cloth")
                    shells = std::max(shells, std::hypot(f.corners[0].x, f.corners[0].z));
                if (f.kind == "overlay")
                    labels = std::max(labels, std::hypot(f.corners[0].x, f.corners[0].z));
            }
            // As thick as it is it bows out over the folds, and in between them inside.
            CHECK(area == Approx(areaOf(p.piece(piece)->stitch())).epsilon(0.25));
            CHECK(labels < shells + 3);
            // Above the middle of the disc it comes to the front, below it to the back; to the right is to the right.
            const Vec3 at = middleOf(m, piece);
            const double y = p.site(SiteId(site))->top - drop - p.values.at(id + ".height") / 2;
            CHECK((at.z > 0) == (y > 0));
            assign(d, id + ".across=15");
            const Vec3 moved = middleOf(mediumMockup(d), piece);
            CHECK((lining ? at.x - moved.x : moved.x - at.x) > 3);
            CHECK((lining ? at.x - moved.x : moved.x - at.x) < 16);
        }
}

TEST_CASE("Circle pouch: on the flat floor a label lies below the shell, or above shell and lining")
{
    for (const char* site : {"disc", "lining disc"}) {
        Design d = with("circle-pouch", {});
        setChoice(d, "inner", "no");
        const std::string id = addLabel(d, site);
        const Pattern before = medium(d);
        assign(d, fmt::format("{}.drop={}", id, before.sites.front().height / 2 - 6)); // its middle is the disc's
        const Pattern p = medium(d);
        const Mockup m = mediumMockup(d);
        const Vec3 at = middleOf(m, PieceId(PartId(id)));
        CHECK(std::hypot(at.x, at.z) < 0.5);
        double low = 1e9, high = -1e9; // it lies on the shell's face, at 0, or on the lining's
        for (const auto& f : m.facets)
            if (f.piece == PieceId(PartId(id)))
                for (const Vec3& c : f.corners)
                    low = std::min(low, c.y), high = std::max(high, c.y);
        if (std::string(site) == "disc")
            CHECK(high == Approx(0).margin(0.01));
        else
            CHECK(low == Approx(thicknessOf(p, *p.piece("disc"))).margin(0.01));
    }
}

TEST_CASE("Frame clutch: covers that differ are cut apart, and each is told by itself; nothing goes through them")
{
    Design d = newDesign("frame-clutch");
    CHECK(medium(d).piece("cover")->count == 2);
    CHECK_THAT(words(textOf(medium(d), "cover")), Contains("Centre each cover"));
    const std::string id = addFeature(d, "label");
    for (const bool back : {false, true}) {
        setChoice(d, id + ".site", back ? "back" : "front");
        assign(d, id + ".across=20");
        requireSewable(d);
        const Pattern p = medium(d);
        const Piece &front = *p.piece("cover"), &behind = *p.piece("cover.back");
        CHECK((front.count == 1 && behind.count == 1));
        CHECK(areaOf(front.cut) == Approx(areaOf(behind.cut)));
        CHECK(front.code != behind.code);
        REQUIRE(front.layers.size() == behind.layers.size());
        CHECK(p.overlays.at(0).on == (back ? behind : front).key);
        CHECK_THAT(words(textOf(p, "cover")), Contains("Centre the front cover") && Contains("Centre the back cover"));
        const Vec3 at = middleOf(mediumMockup(d), PieceId(PartId(id)));
        CHECK((at.z > 0) == !back);
        CHECK(at.x == Approx(back ? -20 : 20).margin(0.1));
    }
    CHECK_THROWS_AS(setChoice(d, addFeature(d, "zip-pocket") + ".site", "front"), InputError);
    setChoice(d, id + ".site", "lining front");
    CHECK(!medium(d).piece("cover.back"));
}
