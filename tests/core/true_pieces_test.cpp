// SPDX-License-Identifier: GPL-3.0-or-later
// Pieces and marks of parts that once came out wrong without a snag: each with the property, over all forms and sizes,
// that would have found it.
#include "cutting/cut_list.hpp"
#include "drawn.hpp"
#include "every_design.hpp"

#include "drafting/edging.hpp"
#include "library/library.hpp"

using namespace tectonis;
using Catch::Contains;

namespace {

/// The same for every size of every design.
const Working* workingKeyed(const Pattern& p, const std::string& key)
{
    for (const auto& w : p.workings)
        if (w.key == key)
            return &w;
    return nullptr;
}

} // namespace

TEST_CASE("The raw edge of a whole outline is its cut line, of a U-run the cut line less the mouth's")
{
    int seen = 0;
    everyPattern([&](const std::string&, const Design&, const Pattern& p) {
        for (const auto& piece : p.pieces) {
            std::vector<EdgeUse> round;
            bool plain = !piece.edges.empty();
            for (const auto& e : piece.edges) {
                round.push_back({piece.key, e.name});
                plain &= !e.allowanceAtEnd && e.corner == Corner::Mitre && !e.hem
                    && std::abs(e.allowance - piece.edges.front().allowance) < 1e-9;
                for (const auto& s : e.stitch)
                    if (const auto* arc = std::get_if<Arc>(&s))
                        plain &= arc->sweep > 0
                            || arc->radius > e.allowance; // an arc that is offset away has no length to compare
            }
            // Mitres over four times the allowance are blunted: not on these pieces.
            for (std::size_t i = 0; i < piece.edges.size(); ++i) {
                const Point a = tangentOf(piece.edges[i].stitch.back(), 1),
                            b = tangentOf(piece.edges[(i + 1) % piece.edges.size()].stitch.front(), 0);
                plain &= dot(a, b) > -0.8;
            }
            if (!plain)
                continue;
            ++seen;
            INFO(piece.key);
            CHECK(rawEdgeLength(p, round) == Approx(lengthOf(piece.cut)).margin(0.05));
        }
    });
    CHECK(seen > 5000);
    // Hand-worked: 2(h − r) + (r + s)·π + (w − 2r), and the mouth's allowance at both ends.
    const Pattern p = medium(with("gusseted-satchel",
        {"taper=0", "radius=40", "width=300", "height=240", "allowance.body=10", "allowance.mouth=12"}));
    CHECK(rawEdgeLength(p, p.seam("front-gusset")->a) == Approx(2 * (240 - 40) + 50 * pi + (300 - 80) + 2 * 12));
}

TEST_CASE("Strips that are joined make the length they are told for: piping and binding on every form, in every size")
{
    int joined = 0;
    everyPattern([&](const std::string&, const Design&, const Pattern& p) {
        for (const auto& piece : p.pieces) {
            if (piece.role != "piping" && piece.role != "binding")
                continue;
            INFO(piece.key << ": " << piece.count << " strips");
            const Working* whole = workingKeyed(p, piece.owner().text() + ".length");
            REQUIRE(whole);
            const Box cut = boundsOf(piece.cut);
            const double length = std::max(cut.width(), cut.height()), width = std::min(cut.width(), cut.height());
            const int strips = piece.count;
            const double lost = piece.grain == 45
                ? width
                : 12; // at right angles, corner to corner; straight: two allowances of 6
            CHECK(strips * length - (strips - 1) * lost == Approx(whole->result).margin(0.01));
            joined += strips > 1;
        }
    });
    CHECK(joined >= 0);
    // A case with a joined binding: its strips go round the raw edge of a face of 560 × 500 with corners of 60; three
    // make each, joined twice at right angles.
    const Pattern p = medium(with("zip-around", {"width=560", "height=500", "radius=60"}));
    const double raw = 2 * (440 + 380) + 2 * pi * 70;
    CHECK(worked(p, "binding.length") == Approx(raw + 20));
    const Piece& binding = *p.piece("binding");
    const double cloth = material(p.materials.at("lining")).width;
    const int each = int(std::ceil((raw + 20 - 40) / (1.3 * cloth - 40)));
    CHECK(binding.count == each);
    CHECK(boundsOf(binding.cut).height() == Approx((raw + 20 + (each - 1) * 40) / each));
    // Piping too: a narrow cloth makes it several strips.
    Design big = with("gusseted-satchel", {"width=830", "height=700"});
    addFeature(big, "piping");
    const Pattern q = medium(big);
    CHECK(q.piece("piping")->count > 1);
    const Box strip = boundsOf(q.piece("piping")->cut);
    CHECK(q.piece("piping")->count * strip.width() - (q.piece("piping")->count - 1) * strip.height()
        == Approx(worked(q, "piping.length")));
}

TEST_CASE("What goes round a curve is cut on the bias, what goes along straights is not")
{
    everyPattern([&](const std::string&, const Design&, const Pattern& p) {
        for (const auto& piece : p.pieces) {
            if (piece.role != "binding")
                continue;
            std::vector<EdgeUse> edges;
            for (const auto& seam : p.seams)
                if (seam.bound == piece.key && (seam.rawInside || seam.mouth))
                    edges = seam.a;
            if (!edges.empty())
                CHECK((piece.grain == 45) == curves(p, edges));
        }
    });
    CHECK(medium(newDesign("zip-around")).piece("binding")->grain == 45);
    CHECK(medium(newDesign("polygon")).piece("binding")->grain == 0);
}

TEST_CASE("Rivets: as many are bought as there are places, no two on one spot; a patch takes 13")
{
    int rivets = 0;
    const auto check = [&](const Pattern& p) {
        int bought = 0, there = 0;
        for (const auto& h : p.hardware)
            bought += h.kind == Ware::Rivet ? h.count : 0;
        for (std::size_t i = 0; i < p.fittings.size(); ++i) {
            const Fitting& f = p.fittings[i];
            if (f.kind != Fitting::Kind::Rivet)
                continue;
            ++there;
            int drills = 0;
            for (const auto& m : p.piece(f.piece)->drills)
                drills += m.owner == f.owner() && distance(m.at, f.at) < 0.01;
            CHECK(drills == 1);
            for (std::size_t k = i + 1; k < p.fittings.size(); ++k)
                if (p.fittings[k].piece == f.piece && p.fittings[k].kind == Fitting::Kind::Rivet
                    && p.fittings[k].owner() == f.owner()) // of two parts: a check tells
                    CHECK(distance(f.at, p.fittings[k].at) > f.size / 4);
        }
        CHECK(bought == there);
        rivets += there;
    };
    everyPattern([&](const std::string&, const Design&, const Pattern& p) { check(p); });
    CHECK(rivets > 1000);
    for (const int row : {1, 2, 3, 7, 12}) {
        Design tote = with(
            "large-tote", {"overlay.height=200", "corner.side=120", "corner.rivets=" + std::to_string(row)});
        INFO(row << " in a row");
        check(medium(tote));
        for (const char* part : {"corner.count", "corner2.count"})
            CHECK(worked(medium(tote), part) == Approx(row == 1 ? 4 : 2 * (2 * row - 1)));
    }
    CHECK(worked(medium(with("large-tote", {"corner.rivets=7"})), "corner.count") == Approx(2 * 13));
}

TEST_CASE("Patch pockets: pleats lie beside one another, a boxed one has the height for its bottom, a hem has cloth "
          "for two folds")
{
    forEveryDesign([&](const std::string& name, const Design& d) {
        for (const auto& p : draftAll(d))
            for (const auto& piece : p.pieces) {
                INFO(name << ", size " << p.size << ", piece " << piece.key);
                // Folds of pleats come in pairs, from left to right without crossing.
                std::vector<double> folds;
                for (const auto& line : piece.lines)
                    if (line.name.text().starts_with("pleat"))
                        folds.push_back(startOf(line.run).x);
                CHECK(folds.size() % 2 == 0);
                CHECK(std::is_sorted(folds.begin(), folds.end()));
                if (!folds.empty()) {
                    const Box box = boundsOf(piece.stitch());
                    CHECK(folds.front() > box.x0);
                    CHECK(folds.back() < box.x1);
                }
            }
    });
    Design d = with("boxed-corner", {});
    addFeature(d, "patch-pocket");
    for (const char* a : {"patch.width=160", "patch.height=120", "patch.depth=15", "patch.hem=20"})
        assign(d, a);
    setChoice(d, "patch.body", "full");
    const Pattern p = medium(d);
    const Piece& pocket = *p.piece("patch");
    CHECK(boundsOf(pocket.stitch()).width() == Approx(160 + 2 * 15)); // front = back + 2t
    CHECK(boundsOf(pocket.stitch()).height() == Approx(120 + 15));    // and one t of bottom
    for (const char* seam : {"patch.box right", "patch.box left"}) {
        CHECK(p.seam(seam)->lengthA == Approx(15));
        CHECK(p.seam(seam)->lengthB == Approx(15));
    }
    CHECK(p.seam("patch.on")->lengthA == Approx(2 * 120 + 160));
    CHECK(p.seam("patch.on")->ease == 0);
    CHECK(pocket.edge("top")->allowance == Approx(20 + 8)); // hem and its raw edge turned in
    CHECK_THAT(exactly(textOf(p, "patch.make")), Contains("{8} to the wrong side, then the hem of {20}"));
    // The finest case of overlapping pleats: as deep as half the pocket is wide.
    setChoice(d, "patch.body", "pleated");
    for (const char* a : {"patch.width=40", "patch.depth=80"})
        assign(d, a);
    std::vector<double> folds;
    const Pattern pleated = medium(d);
    for (const auto& line : pleated.piece("patch")->lines)
        if (line.name == "pleat")
            folds.push_back(startOf(line.run).x);
    REQUIRE(folds.size() == 4);
    const double worked[] = {
        40.0 / 3, 40.0 / 3 + 160, 80.0 / 3 + 160, 80.0 / 3 + 320}; // two pleats of 2p at the finished thirds
    for (std::size_t i = 0; i < 4; ++i)
        CHECK(folds[i] == Approx(worked[i]));
}

TEST_CASE("Ends that are folded under have cloth for it")
{
    Design d = newDesign("large-tote");
    assign(d, "handles.fold=15");
    const double with15 = worked(medium(d), "handles.length");
    assign(d, "handles.fold=0");
    CHECK(with15 == Approx(worked(medium(d), "handles.length") + 30));
    CHECK_THAT(exactly(textOf(medium(d), "handles.on front")), !Contains("folded under"));
}

TEST_CASE("Notions that are alike are bought in one line, and none is lost")
{
    everyPattern([&](const std::string& name, const Design&, const Pattern& p) {
        INFO(name);
        const auto bought = notionsOf(p);
        int all = 0, asked = 0;
        for (const auto& h : bought)
            all += h.kind == Ware::Thread ? 0 : h.count; // which nothing asks for by the piece
        for (const auto& h : p.hardware)
            asked += h.count;
        CHECK(all == asked);
        for (std::size_t i = 0; i < bought.size(); ++i)
            for (std::size_t k = i + 1; k < bought.size(); ++k)
                CHECK((words(bought[i].sizeText) != words(bought[k].sizeText) || !(bought[i].kind == bought[k].kind)
                    || bought[i].finish != bought[k].finish));
    });
    const auto rivets = notionsOf(medium(newDesign("large-tote"))); // front and back have each its own
    const auto of = std::find_if(rivets.begin(), rivets.end(), [](const Hardware& h) { return h.kind == Ware::Rivet; });
    REQUIRE(of != rivets.end());
    CHECK(of->count == 20);
}
