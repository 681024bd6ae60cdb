// SPDX-License-Identifier: GPL-3.0-or-later
// What follows from an edit: everything that differs is told, with its reason, and nothing else.
#include "drawn.hpp"
#include "every_design.hpp"

#include "cutting/cut_list.hpp"
#include "edition/consequences.hpp"
#include "units/error.hpp"

using namespace tectonis;
using Catch::Contains;

namespace {

std::string told(const Design& before, const Design& after)
{
    std::string out;
    for (const auto& each : consequencesOf(before, after))
        out += words(each.what) + "\n";
    return out;
}

} // namespace

TEST_CASE("Consequences: nothing follows from nothing, on every form")
{
    for (const Form* form : forms()) {
        INFO(form->id());
        const Design d = newDesign(form->id());
        CHECK(told(d, d).empty());
    }
}

TEST_CASE("Consequences: canvas to vinyl changes straps, needles, stitches, tools, sums and snags, with reasons")
{
    Design d = newDesign("gusseted-satchel"), vinyl = d;
    change::material(vinyl, "shell", "vinyl");
    const std::string all = told(d, vinyl);
    // 31 mm wide: cut 4 × 31 of canvas, 2 × 31 of vinyl (common practice, no source).
    CHECK_THAT(all,
        Contains(
            "Strap strip: cut 62 mm × 735 mm instead of 124 mm × 735 mm (of Upholstery vinyl: its edges meet behind)"));
    CHECK_THAT(all, Contains("new stitch: 3–3.5 mm, lockstitch 301"));
    CHECK_THAT(all, Contains("new snag: ")); // what is fused is harmed by heat
    CHECK_THAT(all, Contains("thread: ") && Contains("weight: "));
    CHECK_THAT(all, Contains("cost: "));
    // Layers follow in one stroke for each role, and are told then.
    Design mended = vinyl;
    for (int round = 0; round < 20; ++round) {
        bool any = false;
        for (const auto& f : checkAll(mended, draftAll(mended)))
            if (f.check == "heat" && f.repair) {
                for (const auto& a : f.repair->assignments)
                    assign(mended, a);
                any = true;
                break;
            }
        if (!any)
            break;
    }
    CHECK(found(mended, "heat").empty());
    const std::string then = told(d, mended);
    CHECK_THAT(then, Contains("Woven fusible, fused, goes from behind D") && !Contains("new snag"));
    // Back again all is the other way round.
    CHECK_THAT(told(vinyl, d), Contains("Strap strip: cut 124 mm × ") && Contains("mended: "));
}

TEST_CASE("Consequences: parts that come and go, with their things and steps")
{
    Design d = newDesign("boxed-corner");
    while (!d.features.empty())
        removeFeature(d, d.features.back().id);
    Design more = d;
    addFeature(more, "feet");
    addFeature(more, "label");
    const std::string all = told(d, more);
    CHECK_THAT(
        all, Contains("new piece: ") && Contains("Foot") && Contains(": 4 instead of 0") && Contains("new step: "));
    CHECK_THAT(told(more, d), Contains("no longer: ") && Contains(": 0 instead of 4") && Contains("step no longer: "));
}

TEST_CASE("Consequences: one dimension, and just the pieces whose outlines measure otherwise")
{
    for (const Form* form : forms()) {
        Design d = newDesign(form->id()), next = d;
        const std::string name = form->dimensions().front().name;
        const double was = medium(d).values.at(name);
        try {
            assign(next, name + "=" + std::to_string(was + 3));
            draftAll(next);
        } catch (const InputError&) {
            continue;
        }
        INFO(form->id() << ", " << name);
        const Pattern a = medium(d), b = medium(next);
        std::size_t differ = 0;
        for (const auto& piece : b.pieces) {
            const Piece* then = a.piece(piece.key);
            const Box x = boundsOf(piece.cut), y = then ? boundsOf(then->cut) : Box();
            const auto said = [](double mm) { return std::lround(2 * mm); }; // to half a millimetre
            differ += !then || said(x.width()) != said(y.width()) || said(x.height()) != said(y.height());
        }
        const auto all = consequencesOf(d, next);
        CHECK(std::size_t(std::count_if(all.begin(), all.end(), [](const Consequence& c) {
            return c.of == Consequence::Of::Cut;
        })) == differ);
    }
}
