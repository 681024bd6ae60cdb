// SPDX-License-Identifier: GPL-3.0-or-later
// What lies under the foot at ends of straps, handles and belts, by hand; raw ends that are turned under where it fits.
#include "drawn.hpp"
#include "english.hpp"
#include "sewable.hpp"

#include "buildup/strap_ends.hpp"
#include "editing/edits.hpp"
#include "editing/repair.hpp"
#include "library/library.hpp"

#include <fmt/format.h>

using namespace tectonis;
using Catch::Contains;

namespace {

double endOf(const Pattern& p, const char* piece)
{
    for (const auto& end : strapEnds(p))
        if (end.piece.text() == piece)
            return end.bulk.underFoot;
    FAIL("no end of " << piece);
    return 0;
}

Design strapped(const char* worn, double limit)
{
    Design d = newDesign("gusseted-satchel");
    if (!medium(d).piece("strap"))
        addFeature(d, "strap");
    setChoice(d, "strap.worn", worn);
    d.workshop.machineLimit = limit;
    return d;
}

} // namespace

TEST_CASE("Strap ends by hand: folded back, turned under, lapped, both together; as often as the cloth is folded")
{
    const double canvas = material("canvas-12").underFoot(), webbing = material("webbing-cotton").underFoot();
    // Folded twice a strap is four layers of cloth. Common practice, no source: turned under an end lies three times.
    for (const auto& [worn, turned, flat] : {std::tuple{"shoulder", 3, 2}, {"doubled", 3, 2}, {"wrist", 5, 4}}) {
        Design d = strapped(worn, 40);
        INFO(worn);
        CHECK(endOf(medium(d), "strap") == Approx(4 * turned * canvas));
        setChoice(d, "strap.under", "flat");
        CHECK(endOf(medium(d), "strap") == Approx(4 * flat * canvas));
        setChoice(d, "strap.way", "meet");
        CHECK(endOf(medium(d), "strap") == Approx(2 * flat * canvas));
        setChoice(d, "strap.make", "webbing");
        CHECK(endOf(medium(d), "strap") == Approx(flat * webbing));
        requireSewable(d);
    }
    // What is fused behind it is folded with it.
    Design d = strapped("shoulder", 40);
    d.layers.push_back({"strap", "fusible-woven", "fused", "full", {}, ""});
    CHECK(endOf(medium(d), "strap") == Approx(12 * (canvas + material("fusible-woven").underFoot())));
    // A handle's end is folded under once and sewn to its face, with the interlining of that.
    Design tote = newDesign("separate-base");
    const std::string handles = addFeature(tote, "handles");
    tote.layers = {{"panel", "foam-sewin", "basted", "stitch", {}, ""}};
    const double face = canvas + material("foam-sewin").underFoot();
    CHECK(endOf(medium(tote), handles.c_str()) == Approx(8 * canvas + face));
    assign(tote, handles + ".fold=0");
    CHECK(endOf(medium(tote), handles.c_str()) == Approx(4 * canvas + face));
    // A belt's tail is folded over twice.
    Design pouch = newDesign("flat-pouch");
    const std::string belt = addFeature(pouch, "belt");
    CHECK(endOf(medium(pouch), (belt + ".long").c_str()) == Approx(3 * webbing));
    // Padded straps on a back: upper and underside folded in, on the back.
    const Pattern backpack = medium(newDesign("roll-top"));
    const Piece& upper = *backpack.piece("strap.upper");
    double padded = 0;
    for (const char* key : {"strap.upper", "strap.under"})
        padded += 2 * material(backpack.materials.at(backpack.piece(key)->material)).underFoot();
    for (const auto& layer : upper.layers)
        padded += 2 * material(layer.material).underFoot();
    const Piece& back = *backpack.piece("back");
    padded += material(backpack.materials.at(back.material)).underFoot();
    for (const auto& layer : back.layers)
        padded += material(layer.material).underFoot();
    CHECK(endOf(backpack, "strap.upper") == Approx(padded));
}

TEST_CASE("Strap ends: turned under where the machine takes them, else overcast and flat; the step says which")
{
    const double canvas = material("canvas-12").underFoot();
    for (const char* worn : {"shoulder", "doubled", "wrist"}) {
        const int most = std::string(worn) == "wrist" ? 5 : 3;
        for (const bool fits : {true, false}) {
            const Design d = strapped(worn, 4 * most * canvas + (fits ? 0 : -0.01));
            INFO(worn << (fits ? ", fits" : ", too thick"));
            const Pattern p = medium(d);
            CHECK(p.straps.front().turned == fits);
            const std::string text = booklet(p);
            const bool under = text.find("turned under, and sew") != std::string::npos
                || text.find("turned under over") != std::string::npos
                || text.find("turned under towards") != std::string::npos;
            CHECK(under == fits);
            CHECK((text.find("Overcast the strap's raw ends") != std::string::npos) == !fits);
            for (const auto& f : found(d, "bulk"))
                CHECK(f.key.text() != "strap");
        }
    }
}

TEST_CASE("Strap ends that are too thick are told, with every way that helps and what it gains")
{
    Design d = strapped("shoulder", 8);
    setChoice(d, "strap.under", "turned");
    const auto at = [](const Design& of, const char* piece) -> std::optional<Finding> {
        for (auto& f : found(of, "bulk"))
            if (f.key.text() == piece)
                return f;
        return std::nullopt;
    };
    const double canvas = material("canvas-12").underFoot();
    const auto told = at(d, "strap");
    REQUIRE(told);
    CHECK(told->severity == Severity::Error);
    CHECK_THAT(words(told->text), Contains("9 mm lie under the foot") && Contains("the machine takes 8 mm"));
    REQUIRE(told->repair);
    CHECK(told->others.size() == 4);
    std::vector<Repair> ways{*told->repair};
    ways.insert(ways.end(), told->others.begin(), told->others.end());
    for (const auto& way : ways) {
        Design mended = d;
        Finding f = *told;
        f.repair = way;
        edit(mended, [&](Design& next) { change::repair(next, f); });
        INFO(words(way.label));
        CHECK(!at(mended, "strap"));
        // Rounded as a maker reads it: half millimetres.
        const double gain = 12 * canvas - endOf(medium(mended), "strap");
        if (way.assignments.front() == "end.strap.care=hand") {
            CHECK(gain == 0); // only sewn otherwise
            continue;
        }
        CHECK(gain > 0);
        CHECK_THAT(words(way.label), Contains(words(say("{} less", Len(gain)))));
    }
    Design tote = newDesign("separate-base");
    const std::string handles = addFeature(tote, "handles");
    tote.layers.clear();
    tote.workshop.machineLimit = 8 * canvas + 0.5;
    const auto thick = at(tote, handles.c_str());
    REQUIRE(thick);
    REQUIRE(thick->repair);
    edit(tote, [&](Design& next) { change::repair(next, *thick); });
    CHECK(tote.dimensions.at(handles + ".fold").value == "0");
    CHECK(!at(tote, handles.c_str()));
}
