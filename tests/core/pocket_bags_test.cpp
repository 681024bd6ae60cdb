// SPDX-License-Identifier: GPL-3.0-or-later
// Bags that hang behind a face: told and counted where a seam catches them, mended in one stroke.
#include "drawn.hpp"
#include "every_design.hpp"

#include "buildup/bulk.hpp"
#include "buildup/pocket_bags.hpp"
#include "checks/finding.hpp"
#include "units/error.hpp"

using namespace tectonis;

namespace {

std::vector<Finding> told(const Design& d)
{
    auto all = checkAll(d, draftAll(d));
    std::erase_if(all, [](const Finding& f) { return f.check != "pocket-bag"; });
    return all;
}

/// A pouch without parts but one: one seam goes round its front.
Design pouchWith(const std::string& kind, const char* form = "flat-pouch")
{
    Design d = newDesign(form);
    while (!d.features.empty())
        removeFeature(d, d.features.back().id);
    addFeature(d, kind);
    return d;
}

} // namespace

TEST_CASE("Pocket bags: a bag as wide as its face lies in the seam round it with two layers; narrower it hangs free")
{
    Design d = pouchWith("inset-zip");
    CHECK(told(d).empty());
    // By hand: 16 mm narrower than the face, with 10 mm of allowance at each side, it reaches 2 mm past each line.
    assign(d, "inset.width=face.width - 16");
    assign(d, "inset.drop=30");
    assign(d, "inset.depth=30"); // it ends above the round corners
    const Pattern p = medium(d);
    int sides = 0;
    for (const auto& caught : caughtBags(p)) {
        CHECK(caught.by == Approx(2).margin(0.01));
        const bool side = caught.way == CaughtBag::Way::Left || caught.way == CaughtBag::Way::Right;
        REQUIRE(side);
        CHECK(caught.seam->key == "outline");
        ++sides;
        // Front and back of the bag, with their interlinings, lie between.
        Design without = d;
        assign(without, "inset.width=face.width - 60");
        const Pattern q = medium(without);
        const double more = bulkAt(p, *caught.seam).underFoot - bulkAt(q, *q.seam(caught.seam->key)).underFoot;
        double bag = 0;
        for (const char* layer : {"bag front", "bag back"}) {
            const Piece* piece = p.piece(PieceId(PartId("inset"), layer));
            REQUIRE(piece);
            bag += p.material(p.materials.at(piece->material)).underFoot();
            for (const auto& each : piece->layers)
                if (std::any_of(each.reach.begin(), each.reach.end(), [](const auto& r) { return r.second > 0; }))
                    bag += p.material(each.material).underFoot();
        }
        CHECK(more == Approx(bag).margin(1e-6));
        CHECK(bag > 0.2);
    }
    CHECK(sides == 2);
    const auto findings = told(d);
    REQUIRE(findings.size() == d.sizes.size());
    CHECK(words(findings.front().text).find("2 mm past the stitch line") != std::string::npos);
    REQUIRE(findings.front().repair);
    for (const auto& a : findings.front().repair->assignments)
        assign(d, a);
    CHECK(told(d).empty());
}

TEST_CASE(
    "Pocket bags: a window's bag gets a smaller margin; pushed aside it is moved back; a bag too deep gets shorter")
{
    Design d = pouchWith("zip-pocket");
    CHECK(told(d).empty());
    const auto mended = [&] {
        const auto findings = told(d);
        REQUIRE(!findings.empty());
        REQUIRE(findings.front().repair);
        const std::string done = findings.front().repair->assignments.front();
        for (int i = 0; i < 6 && !told(d).empty(); ++i) {
            const Repair repair = told(d).front().repair.value();
            for (const auto& a : repair.assignments)
                assign(d, a);
        }
        CHECK(told(d).empty());
        return done.substr(0, done.find('='));
    };
    const Design plain = d;
    assign(d, "zip.length=face.width - 60");
    assign(d, "zip.margin=30");
    CHECK(mended() == "zip.margin");
    d = plain;
    assign(d, "zip.margin=9");
    assign(d, "zip.across=(face.width - zip.length)/2 - 12");
    CHECK(mended() == "zip.across");
    d = pouchWith("inset-zip", "gusseted-satchel");
    assign(d, "inset.width=100"); // between the round corners
    assign(d, "inset.depth=face.height - inset.drop - 5");
    CHECK(mended() == "inset.depth");
}

TEST_CASE("Pocket bags: on a wall that is folded onto itself, head down or not, its own side seams catch them")
{
    for (const char* face : {"front", "back"})
        for (const char* aside : {"", "-"}) {
            Design d = newDesign("envelope-clutch");
            const std::string id = addFeature(d, "zip-pocket");
            setChoice(d, id + ".site", face);
            assign(d, id + ".margin=9");
            INFO(face << ", pushed aside " << aside);
            CHECK(told(d).empty());
            assign(d, id + ".across=" + aside + "((face.width - " + id + ".length)/2 - 12)");
            const double pushed = medium(d).values.at(id + ".across");
            const auto findings = told(d);
            REQUIRE(!findings.empty());
            REQUIRE(findings.front().repair);
            CHECK(findings.front().repair->assignments.front().starts_with(id + ".across="));
            for (const auto& a : findings.front().repair->assignments)
                assign(d, a);
            CHECK(std::abs(medium(d).values.at(id + ".across")) < std::abs(pushed));
            CHECK(told(d).empty());
        }
}

TEST_CASE("Pocket bags: over all forms, faces and sizes a repair frees the bag, and what is told is caught")
{
    int caught = 0, freed = 0;
    for (const Form* form : tectonis::forms())
        for (const char* kind : {"inset-zip", "zip-pocket"}) {
            Design plain = newDesign(form->id());
            std::string id;
            try {
                id = addFeature(plain, kind);
            } catch (const InputError&) {
                continue;
            }
            const ChoiceSpec* faces = specOf(plain).choice(id + ".site");
            REQUIRE(faces);
            for (const auto& face : faces->options) {
                Design d = plain;
                try {
                    setChoice(d, id + ".site", face.first);
                    if (std::string(kind) == "inset-zip")
                        assign(d, id + ".width=face.width - 16");
                    else
                        assign(d, id + ".margin=40");
                } catch (const InputError&) {
                    continue;
                }
                INFO(form->id() << ", " << id << " on " << face.first);
                std::set<std::string> sizes;
                for (const auto& p : draftAll(d))
                    for (const auto& each : caughtBags(p))
                        if (each.bag->part == PartId(id)) {
                            sizes.insert(p.size);
                            REQUIRE(each.seam);
                            CHECK(each.by > 0);
                            CHECK(bulkAt(p, *each.seam).parts.size() > 2);
                        }
                std::set<std::string> said;
                std::optional<Repair> repair;
                for (const auto& f : told(d))
                    if (f.size == "all" || !f.size.empty()) {
                        said.insert(f.size);
                        if (f.repair)
                            repair = f.repair;
                    }
                CHECK(said.size() >= sizes.size());
                caught += !sizes.empty();
                if (!repair)
                    continue;
                for (int i = 0; i < 8; ++i) {
                    const auto left = told(d);
                    if (left.empty() || !left.front().repair)
                        break;
                    try {
                        for (const auto& a : left.front().repair->assignments)
                            assign(d, a, left.front().size);
                    } catch (const InputError&) {
                        break;
                    }
                }
                freed += told(d).empty();
            }
        }
    CHECK(caught > 15);
    CHECK(freed > caught * 0.8);
}
