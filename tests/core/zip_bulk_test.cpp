// SPDX-License-Identifier: GPL-3.0-or-later
// What ends of zips bring into the seams that catch them, and what lies under rows of topstitching, by hand.
#include "drawn.hpp"
#include "english.hpp"
#include "sewable.hpp"

#include "checks/remedies.hpp"
#include "editing/edits.hpp"
#include "editing/repair.hpp"
#include "formats/design_file.hpp"
#include "forms/form.hpp"
#include "library/library.hpp"

using namespace tectonis;
using Catch::Contains;

namespace {

constexpr double kChainOf5 = 2; // mm of a gauge 5 chain, 0.4 × 5 (common practice, no source; from memory)
constexpr double kTape = 0.6;   // of a gauge 5 coil zip in the library

/// A form with one part and no interlinings.
Design bareWith(const char* form, const char* kind)
{
    Design d = newDesign(form);
    while (!d.features.empty())
        removeFeature(d, d.features.back().id);
    if (kind)
        addFeature(d, kind);
    d.layers.clear();
    return d;
}

double crossing(const Design& d, const char* seam)
{
    const Pattern p = medium(d);
    REQUIRE(p.seam(seam));
    return bulkAt(p, *p.seam(seam)).atCrossing;
}

std::string crosses(const Design& d, const char* seam)
{
    const Pattern p = medium(d);
    return exactly(bulkAt(p, *p.seam(seam)).crossing);
}

} // namespace

TEST_CASE("Zips in side seams by hand: tabs, tape and chain of an inset zip, turned or raw, of every make")
{
    Design d = bareWith("separate-base", "inset-zip");
    const double canvas = material("canvas-12").underFoot();
    const auto ways = [&](const char* edge, const char* ends) {
        setChoice(d, "inset.edge", edge);
        setChoice(d, "inset.ends", ends);
        return crossing(d, "side 1");
    };
    // Both walls; the panel's turned edge; a tab of two cloths.
    CHECK(ways("turned", "tab") == Approx(5 * canvas));
    CHECK(ways("raw", "tab") == Approx(4 * canvas));
    // The tape under the turned edge, or between the edges the chain on the other wall: whichever is more.
    CHECK(ways("turned", "seam") == Approx(std::max(3 * canvas + kTape, canvas + kChainOf5)));
    CHECK(ways("raw", "seam") == Approx(std::max(2 * canvas + kTape, canvas + kChainOf5)));
    CHECK_THAT(crosses(d, "side 1"), Contains("Inset zip"));
    assign(d, "inset.gauge=10");
    CHECK(crossing(d, "side 1") == Approx(canvas + 4));
    // Metal teeth are pulled where a needle goes; a metal zip's tape is 0.7 mm in the library.
    setChoice(d, "inset.teeth", "metal");
    CHECK(crossing(d, "side 1") == Approx(2 * canvas + 0.7));
    // Under a tab shorter than its lap the tape goes on into the seam.
    setChoice(d, "inset.teeth", "coil");
    assign(d, "inset.gauge=5");
    Design wide = bareWith("gusseted-satchel", "inset-zip");
    for (const auto& [less, tape] : {std::pair{"30", 0.0}, {"17", kTape}}) {
        assign(wide, std::string("inset.width=face.width - ") + less);
        const Pattern p = medium(wide);
        int crossed = 0;
        for (const auto& seam : p.seams)
            for (const auto& use : seam.a)
                if (zipUnder(p, use)) {
                    ++crossed;
                    CHECK(bulkAt(p, seam).atCrossing == Approx(5 * canvas + tape));
                }
        CHECK(crossed == 2);
    }
    // An interlining that reaches the side lies in the fold too; one of the library's thicker tapes counts.
    d.layers = {{"panel", "foam-sewin", "basted", "full", {}, ""}};
    const double foam = material("foam-sewin").underFoot();
    CHECK(ways("raw", "seam") == Approx(2 * canvas + 2 * foam + kTape));
    CHECK(ways("turned", "seam") == Approx(3 * canvas + 3 * foam + kTape));
    d.layers.clear();
    Library::Contents more;
    more.goods = {{.id = "thick", .name = "Thick zip", .kind = "continuous-zip", .make = "coil", .tape = 1.9}};
    d.library = d.library->with(Library(more));
    change::takeGood(d, "thick");
    CHECK(ways("raw", "seam") == Approx(2 * canvas + 1.9));
}

TEST_CASE(
    "Zips in side seams: wherever an inset zip goes, on any form and face, the seams at both its ends are crossed")
{
    int tried = 0;
    for (const Form* form : forms()) {
        Design plain = bareWith(form->id().c_str(), nullptr);
        std::string id;
        try {
            id = addFeature(plain, "inset-zip");
        } catch (const InputError&) {
            continue;
        }
        for (const char* ends : {"tab", "seam"}) {
            Design d = plain;
            setChoice(d, id + ".ends", ends);
            for (const Pattern& p : draftAll(d)) {
                INFO(form->id() << ", " << ends << ", " << p.size);
                const Zip& zip = p.zips.back();
                REQUIRE(zip.key.owner() == PartId(id));
                int crossed = 0;
                for (const auto& seam : p.seams) {
                    const Bulk bulk = bulkAt(p, seam);
                    for (const auto* side : {&seam.a, &seam.b})
                        for (const auto& use : *side)
                            if (zipUnder(p, use) == &zip) {
                                ++crossed, ++tried;
                                CHECK(bulk.atCrossing >= bulk.underFoot - 1e-9);
                                // The other run lies there whole, with the tape or the tab on it.
                                const double least = std::string(ends) == "tab" ? 2 : 1;
                                double thinnest = 1e9;
                                for (const auto& part : bulk.parts)
                                    thinnest = std::min(thinnest, part.each);
                                CHECK(bulk.atCrossing >= thinnest * least);
                                CHECK(!bulk.everyCrossing.empty());
                            }
                }
                CHECK(crossed >= 2);
            }
        }
    }
    CHECK(tried > 60);
}

TEST_CASE("A case's zip by hand: chain or tabs in the joins of its loop")
{
    Design d = bareWith("zip-around", nullptr);
    const double canvas = material("canvas-12").underFoot(), gauge = medium(d).zips.front().gauge;
    setChoice(d, "zip.ends", "seam");
    // The band's end and the strip's, both with their linings, the strip's edge turned with its lining; or the chain
    // between the strips.
    const double cotton = material("lining-cotton").underFoot(), both = canvas + cotton;
    const Pattern p = medium(d);
    CHECK(bulkAt(p, *p.seam("join 1")).underFoot == Approx(2 * both));
    CHECK(crossing(d, "join 1") == Approx(std::max(3 * both + p.zips.front().thickness, both + 0.4 * gauge)));
    setChoice(d, "zip.ends", "tab");
    CHECK(crossing(d, "join 1") == Approx(3 * both + 2 * canvas));
    // Round the faces; with the binding folded over all of it.
    CHECK(bulkAt(p, *p.seam("front-loop")).underFoot == Approx(2 * both));
    d = newDesign("zip-around");
    d.layers.clear();
    const Pattern q = medium(d);
    const Piece* binding = q.piece(q.seam("front-loop")->bound);
    REQUIRE(binding);
    CHECK(bulkAt(q, *q.seam("front-loop")).underFoot
        == Approx(2 * both + 4 * q.material(q.materials.at(binding->material)).underFoot()));
}

TEST_CASE(
    "Mouths by hand: dropped in, hemmed, left raw: how often the cloth lies in their row and where seams cross it")
{
    Design d = bareWith("separate-base", nullptr);
    const double canvas = material("canvas-12").underFoot(), cotton = material("lining-cotton").underFoot();
    struct {
        const char* way;
        double row, crossing; ///< side seams are pressed open: one allowance of each lies across
    } const mouths[] = {{"drop-in", 2 * (canvas + cotton), 4 * (canvas + cotton)}, {"unlined", 3 * canvas, 6 * canvas},
        {"unlined-raw", canvas, 2 * canvas}};
    for (const auto& mouth : mouths) {
        INFO(mouth.way);
        setChoice(d, "assembly", mouth.way);
        const Pattern p = medium(d);
        const Seam& seam = *p.seam("mouth");
        const bool stitched = isTopstitched(p, seam);
        CHECK(stitched == (std::string(mouth.way) == "unlined-raw"));
        CHECK(bulkAt(p, seam).underFoot == Approx(mouth.row));
        CHECK(bulkAt(p, seam).atCrossing == Approx(mouth.crossing));
        if (stitched) {
            CHECK(bulkUnderTopstitch(p, seam).underFoot == Approx(mouth.row));
            CHECK(bulkUnderTopstitch(p, seam).atCrossing == Approx(mouth.crossing));
        }
    }
    // A hem is a row: it takes thread and time, and can be hammered or sewn by hand.
    setChoice(d, "assembly", "unlined");
    const Pattern p = medium(d);
    double thread = 0;
    for (const auto& use : threadsOf(p))
        thread += use.length;
    CHECK(thread > 2 * p.seam("mouth")->lengthA);
    CHECK_THAT(exactly(whyNotGraded(p, *p.seam("mouth"))), Contains("one edge"));
    d.workshop.machineLimit = 3 * canvas - 0.1;
    assign(d, "seam.mouth.care=hand");
    const Pattern hand = medium(d);
    CHECK_THAT(booklet(hand), Contains("is too thick for the machine: sew it by hand"));
    CHECK(minutesOf(hand) > minutesOf(p) + 0.99 * p.seam("mouth")->lengthA / 40);
}

TEST_CASE("A zip at the mouth by hand: its tab in the mouth's seam; sewn flat, tape and mouth in the sides")
{
    Design d = bareWith("separate-base", "top-zip");
    const double canvas = material("canvas-12").underFoot(), cotton = material("lining-cotton").underFoot();
    setChoice(d, "topzip.held", "mouth");
    setChoice(d, "assembly", "bagged-out");
    for (const char* set : {"topzip.end=25", "topzip.past=0"})
        assign(d, set);
    const auto mouthOf = [&](const char* first, const char* tail) {
        setChoice(d, "topzip.first", first), setChoice(d, "topzip.tail", tail);
        return crossing(d, "mouth");
    };
    const double plain = mouthOf("folded", "folded"); // the side seams, pressed open or to one side
    CHECK(mouthOf("tab", "folded") == Approx(plain + 2 * canvas));
    CHECK_THAT(crosses(d, "mouth"), Contains("Zip at the mouth"));
    // Under a tab shorter than its lap the tape lies there too.
    Design narrow = bareWith("gusseted-satchel", "top-zip");
    setChoice(narrow, "topzip.held", "mouth");
    for (const char* set : {"topzip.past=0", "topzip.first=tab", "topzip.tail=folded", "topzip.last=30"})
        assign(narrow, set);
    std::vector<double> thick;
    for (const char* end : {"13", "5"}) {
        assign(narrow, std::string("topzip.end=") + end);
        thick.push_back(crossing(narrow, "mouth"));
    }
    CHECK(thick[1] == Approx(thick[0] + kTape));
    // What hangs out past the mouth is not caught at the side.
    assign(d, "topzip.past=60");
    CHECK(mouthOf("folded", "tab") == Approx(plain));

    assign(d, "topzip.past=0");
    assign(d, "topzip.end=19");
    setChoice(d, "assembly", "flat");
    setChoice(d, "topzip.first", "seam"), setChoice(d, "topzip.tail", "folded");
    // A mouth that is sewn flat is not crossed by the sides, which come later: it crosses them, in both walls.
    Pattern p = medium(d);
    CHECK(bulkAt(p, *p.seam("mouth")).crossedBy.empty());
    const double side = 2 * canvas + 2 * (canvas + cotton), inner = 2 * cotton + 2 * (canvas + cotton);
    const double zip = std::max(2 * kTape, kChainOf5);
    std::multiset<std::string> with, without;
    for (const char* key : {"side 1", "side 2"}) {
        const double thick = bulkAt(p, *p.seam(key)).atCrossing;
        CHECK((thick == Approx(side) || thick == Approx(side + zip)));
        (thick == Approx(side) ? without : with).insert(key);
    }
    CHECK(with.size() == 1); // it begins in one of them
    for (const char* key : {"lining.side 1", "lining.side 2"}) {
        const double thick = bulkAt(p, *p.seam(key)).atCrossing;
        CHECK((thick == Approx(inner) || thick == Approx(inner + zip)));
    }
    // Shell and lining meet the zip at one and the same side of the bag: where the front's end of that seam lies.
    const auto sideOf = [&](const Pattern& of, const char* key) {
        const Seam& seam = *of.seam(key);
        for (const auto* run : {&seam.a, &seam.b})
            for (const auto& use : *run)
                if (use.piece == PieceId("front"))
                    return boundsOf(of.runOf(use)).centre().x > of.site("front")->x;
        FAIL("no front in " << key);
        return false;
    };
    CHECK(!sideOf(p, with.begin()->c_str())); // it opens to the right: the closed slider rests at the left
    setChoice(d, "topzip.opens", "left");
    p = medium(d);
    for (const char* key : {"side 1", "side 2"})
        CHECK((bulkAt(p, *p.seam(key)).atCrossing == Approx(side + zip)) == sideOf(p, key));
}

TEST_CASE("A seam that is too thick at a zip's end offers the end that is thinner, which mends it")
{
    Design d = bareWith("separate-base", "inset-zip");
    const double canvas = material("canvas-12").underFoot();
    d.workshop.machineLimit = 5 * canvas - 0.2;
    const auto told = [&](const Design& of) -> std::optional<Finding> {
        for (const auto& f : found(of, "bulk"))
            if (f.key.text() == "side 1")
                return f;
        return std::nullopt;
    };
    const auto f = told(d);
    REQUIRE(f);
    CHECK_THAT(words(f->text), Contains("Inset zip") && Contains("Run the zip itself into the seam"));
    REQUIRE(f->repair);
    CHECK(f->repair->assignments == std::vector<std::string>{"inset.ends=seam"});
    Design mended = d;
    edit(mended, [&](Design& next) { change::repair(next, *f); });
    CHECK(!told(mended));
    // Turned aside, graded or pressed open: nothing can be done so about a zip.
    assign(d, "seam.side 1.care=aside");
    CHECK(crossing(d, "side 1") == Approx(5 * canvas));
    CHECK_THAT(booklet(medium(d)), !Contains("turn its allowances to the other side"));
    assign(d, "seam.side 1.care=hammered"); // common practice, no source
    CHECK(crossing(d, "side 1") == Approx(0.85 * 5 * canvas));
}

TEST_CASE("Topstitched rows by hand: turned edges, pressed to one side, what is caught, graded, and what crosses")
{
    Design d = bareWith("separate-base", nullptr);
    const double canvas = material("canvas-12").underFoot(), cotton = material("lining-cotton").underFoot();
    setChoice(d, "assembly", "bagged-out");
    Pattern p = medium(d);
    const Seam& mouth = *p.seam("mouth");
    CHECK(mouth.graded); // by the step that sews it
    // Both pieces, and of their two allowances the thinner: the other one ends before the row.
    CHECK(bulkUnderTopstitch(p, mouth).underFoot == Approx(canvas + cotton + std::min(canvas, cotton)));
    // A mouth that is sewn flat is understitched: the lining and both allowances, none graded.
    setChoice(d, "assembly", "flat");
    const Pattern flat = medium(d);
    CHECK(!flat.seam("mouth")->graded);
    CHECK(bulkUnderTopstitch(flat, *flat.seam("mouth")).underFoot == Approx(canvas + 2 * cotton));
    // Where side seams cross it, what crosses lies in piece and allowance alike: of the graded side once.
    Pattern q = p;
    for (auto& seam : q.seams)
        seam.pressedOpen = false;
    const auto at = [&] { return bulkUnderTopstitch(q, *q.seam("mouth")).atCrossing; };
    CHECK(at() == Approx(canvas + 2 * cotton + 2 * canvas + 2 * (2 * cotton)));
    for (auto& seam : q.seams)
        seam.graded = false;
    CHECK(at() == Approx(2 * canvas + 2 * cotton + 2 * (2 * canvas) + 2 * (2 * cotton)));
    for (auto& seam : q.seams)
        seam.pressedOpen = seam.key == SeamId("side 1") || seam.key == SeamId("side 2");
    CHECK(at() == Approx(2 * canvas + 2 * cotton + 2 * canvas + 2 * (2 * cotton)));
    // A connector of a quarter's fold, looped, is caught between: eight layers more, away from the side seams.
    setChoice(d, "assembly", "bagged-out");
    const std::string tabs = addFeature(d, "connectors");
    d.layers.clear();
    p = medium(d);
    const Seam* caught = nullptr;
    for (const auto& seam : p.seams)
        if (!seam.trapped.empty())
            caught = &seam;
    REQUIRE(caught);
    const Piece& tab = *p.piece(caught->trapped.front());
    CHECK(bulkUnderTopstitch(p, *caught).underFoot
        == Approx(canvas + cotton + std::min(canvas, cotton) + tab.plies * canvas));
    // Too thick there alone, it is told, with what helps.
    d.workshop.machineLimit = bulkUnderTopstitch(p, *caught).underFoot - 0.1;
    bool told = false;
    for (const auto& f : found(d, "bulk"))
        if (f.key == caught->key) {
            told = true;
            CHECK_THAT(words(f.text), Contains("topstitched, ") && Contains("Hammer it flat"));
        }
    CHECK(told);
}

TEST_CASE("Ends of straps are hammered or sewn by hand in one stroke: said, timed, kept in the file, taken back")
{
    Design d = newDesign("gusseted-satchel");
    while (!d.features.empty())
        removeFeature(d, d.features.back().id);
    addFeature(d, "strap");
    addFeature(d, "handles");
    const Design plain = d;
    const auto ends = strapEnds(medium(d));
    REQUIRE(ends.size() >= 2);
    for (const auto& end : ends) {
        const std::string name = "end." + end.piece.text() + ".care";
        INFO(name);
        d = plain;
        d.workshop.machineLimit = end.bulk.underFoot - 0.1;
        const Design tight = d;
        const Pattern before = medium(d);
        for (const auto& way : remediesForEnd(d, specOf(d), before, end))
            CHECK(!way.done);
        assign(d, name + "=hammered");
        Pattern p = medium(d);
        double flat = 0;
        for (const auto& part : end.bulk.parts) // common practice, no source
            flat += part.times * part.each * (part.layer ? 1 : 0.85);
        for (const auto& each : strapEnds(p))
            if (each.piece == end.piece)
                CHECK(each.bulk.underFoot == Approx(flat));
        CHECK_THAT(booklet(p), Contains("flat, folded as they will be sewn"));
        CHECK(minutesOf(p) > minutesOf(before));
        // Each other way leaves what it says, hammered or not.
        for (const auto& each : strapEnds(p))
            if (each.piece == end.piece)
                for (const auto& way : remediesForEnd(d, specOf(d), p, each)) {
                    if (way.byHand || way.done)
                        continue;
                    INFO(way.assignment);
                    Design other = d;
                    assign(other, way.assignment);
                    for (const auto& then : strapEnds(medium(other)))
                        if (then.piece == end.piece)
                            CHECK(then.bulk.underFoot == Approx(way.leaves));
                }
        assign(d, name + "=hand");
        p = medium(d);
        CHECK_THAT(booklet(p), Contains("Its ends are too thick for the machine: sew them by hand"));
        CHECK_THAT(booklet(p), !Contains("flat, folded as they will be sewn"));
        CHECK(minutesOf(p) > minutesOf(before) + 1);
        for (const auto& f : found(d, "bulk"))
            CHECK(f.key.text() != end.piece.text());
        CHECK(designFromText(designText(d), "again") == d);
        // Where the machine takes it, it does it.
        Design wide = d;
        wide.workshop.machineLimit = 40;
        CHECK_THAT(booklet(medium(wide)), !Contains("Its ends are too thick"));
        for (const auto& way : remediesForEnd(d, specOf(d), p, end))
            if (way.byHand) {
                CHECK(way.done);
                assign(d, way.assignment);
            }
        CHECK(d == tight);
    }
    CHECK_THROWS_WITH(assign(d, "end.front.care=hammered"), Contains("no strap, handle or belt"));
    CHECK_THROWS_WITH(assign(d, "end.strap.care=open"), Contains("hammered or sewn by hand, nothing else"));
    CHECK_THROWS_WITH(assign(d, "end.strap.care=ironed"), Contains("ironed"));
}

TEST_CASE("Stitched on by hand: a pocket that was turned, patches and labels with edges folded in or left raw")
{
    Design d = bareWith("separate-base", nullptr);
    const double canvas = material("canvas-12").underFoot(), cotton = material("lining-cotton").underFoot();
    for (const char* kind : {"slip-pocket", "patch-pocket", "corner-patch", "label"})
        addFeature(d, kind);
    d.layers.clear();
    const Pattern p = medium(d);
    int corners = 0;
    for (const auto& seam : p.seams) {
        const std::string key = seam.key.text();
        INFO(key);
        if (key == "slip.on") { // its two halves with their allowances, one of them graded, on the lining
            CHECK(p.seam("slip.bag")->graded);
            CHECK(bulkAt(p, seam).underFoot == Approx(4 * cotton));
        } else if (key == "patch.on") { // its edge is folded in
            CHECK(bulkAt(p, seam).underFoot == Approx(3 * canvas));
        } else if (key.starts_with("corner.")) { // its edge is folded in, if it has cloth for that
            ++corners;
            const Piece& patch = *p.piece(seam.b.front().piece);
            const int times = patch.edge(seam.b.front().edge)->allowance > 0 ? 2 : 1;
            CHECK(bulkAt(p, seam).underFoot
                == Approx(canvas + times * p.material(p.materials.at(patch.material)).underFoot()));
        }
    }
    CHECK(corners >= 2);
    const Piece& label = *p.piece("label");
    CHECK(bulkAt(p, *p.seam("label.on")).underFoot
        == Approx(cotton
            + (label.edges.front().allowance > 0 ? 2 : 1) * p.material(p.materials.at(label.material)).underFoot()));
}
