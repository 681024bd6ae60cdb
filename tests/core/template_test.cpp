// SPDX-License-Identifier: GPL-3.0-or-later
// Templates cut on the fold, and lengths inside words.
#include "geos.hpp"

#include "editing/draft.hpp"
#include "editing/edits.hpp"
#include "formats/svg.hpp"
#include "pattern/template.hpp"
#include "sheets/plan.hpp"
#include "units/words.hpp"

#include <catch2/catch.hpp>

using namespace tectonis;
using Catch::Contains;

TEST_CASE("Half templates: twice the half is the piece, for every symmetric piece in every size")
{
    Design d = newDesign("gusseted-satchel");
    setChoice(d, "templates", "half");
    const Geos geos; // outside check of areas
    int halves = 0;
    for (const auto& p : draftAll(d))
        for (const auto& piece : p.pieces) {
            INFO(p.size << " " << piece.key);
            const Piece half = templateOf(piece);
            if (piece.folds == 0) {
                CHECK(half.edges.size() == piece.edges.size());
                continue;
            }
            ++halves;
            // Joints of an evenly widening allowance are exact to some 0.0002 mm.
            CHECK(2 * areaOf(half.cut) == Approx(areaOf(piece.cut)).epsilon(1e-6));
            CHECK(2 * geos.area(flattened(half.cut, 0.001)) == Approx(areaOf(piece.cut)).epsilon(1e-5));
            CHECK(2 * areaOf(half.stitch()) == Approx(areaOf(piece.stitch())).epsilon(1e-9));
            CHECK(geos.valid(flattened(half.cut)));
            CHECK(half.edges.back().onFold);
            CHECK(half.edges.back().allowance == 0);
            // The fold edge is straight and as tall as the piece at its middle; the half is half as wide.
            CHECK(boundsOf(half.cut).width() * 2 == Approx(boundsOf(piece.cut).width()).margin(1e-6));
            double sewn = 0, whole = 0;
            for (const auto& e : half.edges)
                sewn += e.onFold ? 0 : e.length();
            for (const auto& e : piece.edges)
                whole += e.length();
            CHECK(2 * sewn == Approx(whole).margin(1e-6));
            for (std::size_t i = 0; i < piece.layers.size(); ++i)
                CHECK(2 * areaOf(half.layers[i].outline) == Approx(areaOf(piece.layers[i].outline)).epsilon(1e-6));
            for (const auto& n : half.notches)
                CHECK(half.edge(n.edge) != nullptr);
        }
    CHECK(halves > 15); // fronts, backs, flaps, pockets in three sizes
}

TEST_CASE("What is not its own mirror image is printed whole")
{
    Design d = newDesign("gusseted-satchel");
    setChoice(d, "templates", "half");
    setChoice(d, "gusset.strips", "two");
    const Pattern p = draftAll(d).front();
    CHECK(p.piece("gusset")->folds == 0); // its mouth end differs from its centre end in allowance or marks
    Piece front = *p.piece("front");
    REQUIRE(isSymmetric(front));
    front.drills.push_back({{40, 100}, say("only on the right")});
    CHECK(!isSymmetric(front));
    front.drills.push_back({{-40, 100}, say("now on both sides")});
    CHECK(isSymmetric(front));
    front.edges.front().allowance += 2; // alike on both sides
    front.cut = cutLineOf(front);
    CHECK(isSymmetric(front));
    front.edge("right side")->allowance += 2;
    front.cut = cutLineOf(front);
    CHECK(!isSymmetric(front));
}

TEST_CASE("Half templates print on fewer pages and say what to do")
{
    Design d = newDesign("gusseted-satchel");
    const auto pages = [](const Design& design) {
        const auto all = draftAll(design);
        return planSheets({&all[0], &all[1], &all[2]}, paperOf("A4")).pages.size();
    };
    const auto whole = pages(d);
    setChoice(d, "templates", "half");
    CHECK(pages(d) < whole);
    const Pattern p = draftAll(d)[1];
    CHECK_THAT(pieceSvg(p, *p.piece("front"), d.name), Contains("on the fold") && Contains("class=\"on-fold\""));
}

TEST_CASE("Lengths inside words follow the reader's unit")
{
    CHECK(inUnit("sew at {10}, trim", Unit::Mm) == "sew at 10 mm, trim");
    CHECK(inUnit("sew at {10}, trim", Unit::Cm) == "sew at 1 cm, trim");
    CHECK(inUnit("{3.2}", Unit::Inch) == "1/8 in");
    CHECK(inUnit("{", Unit::Mm) == "{");
    CHECK(inUnit("{}", Unit::Mm) == "{}");
    CHECK(inUnit("{name} and {5", Unit::Mm) == "{name} and {5");
    CHECK(inUnit("a {{7}} b", Unit::Mm) == "a {7}} b"); // what verbatim() makes of a name
    // No step, check, notion or trim names millimetres on its own account; stitch lengths alone are always mm.
    for (const auto& p : draftAll(newDesign("gusseted-satchel"))) {
        for (const auto& s : p.steps) {
            const StepWords said = told(p, s);
            for (const auto* words : {&said.text, &said.check, &s.title}) {
                INFO(*words);
                // Interlining steps list materials, whose names may hold a thickness.
                CHECK((s.kind == StepKind::Interline || exactly(*words).find(" mm") == std::string::npos));
            }
        }
        for (const auto& h : p.hardware)
            CHECK(exactly(h.sizeText).find(" mm") == std::string::npos);
    }
}
