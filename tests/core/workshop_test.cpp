// SPDX-License-Identifier: GPL-3.0-or-later
// What a workshop has and how it works: tools, its cutter's bed, its ways; how stiff pieces and bags are.
#include "drawn.hpp"

#include "buildup/layers.hpp"
#include "cutting/cut_list.hpp"
#include "design/ways.hpp"
#include "formats/design_file.hpp"
#include "library/fields.hpp"
#include "library/library_file.hpp"
#include "sequence/told.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

using namespace tectonis;
using Catch::Contains;

TEST_CASE("Workshop: tools that it lacks are told once each, with the step that wants them first")
{
    Design d = newDesign("gusseted-satchel");
    CHECK(found(d, "tools").empty());
    d.workshop.lacks = "Awl,  pliers , anvil";
    const auto told = found(d, "tools");
    REQUIRE(told.size() == 2); // no step wants an anvil
    CHECK_THAT(words(told[0].text), Contains("awl"));
    CHECK_THAT(words(told[1].text), Contains("pliers"));
    CHECK(medium(d).step(told[0].key.text()));
    while (!d.features.empty())
        removeFeature(d, d.features.back().id);
    CHECK(found(d, "tools").empty());
}

namespace {

/// Steps whose tools name a foot.
std::size_t sewnWith(const Design& d, const char* foot)
{
    const Pattern p = medium(d);
    return std::size_t(std::count_if(p.steps.begin(), p.steps.end(), [&](const Step& step) {
        const auto tools = told(p, step).tools;
        return std::any_of(tools.begin(), tools.end(), [&](const Message& tool) { return words(tool) == foot; });
    }));
}

} // namespace

TEST_CASE("Workshop: which foot a step asks for follows from cloth and act; a walking foot stands in on vinyl")
{
    Design d = newDesign("gusseted-satchel");
    CHECK(sewnWith(d, "non-stick foot") == 0);
    CHECK(sewnWith(d, "walking foot") == 0);
    const auto zips = sewnWith(d, "zip foot");
    CHECK(zips > 0);
    edit(d, [&](Design& next) {
        change::putBehind(next, medium(d), {.pieces = "front", .material = "fleece-fusible", .trim = "diamonds 40"});
    });
    CHECK(sewnWith(d, "walking foot") == 1);
    setMaterial(d, "shell", "vinyl");
    // Vinyl is sewn, basted and topstitched with it; rows beside a chain still with the zip foot.
    const auto vinyl = sewnWith(d, "non-stick foot");
    CHECK(vinyl > 5);
    CHECK(sewnWith(d, "zip foot") == zips);
    d.workshop.nonStickFoot = 0;
    CHECK(sewnWith(d, "non-stick foot") == 0);
    CHECK(sewnWith(d, "walking foot") >= vinyl);
    CHECK(found(d, "tools").empty());
    d.workshop.walkingFoot = 0;
    CHECK(sewnWith(d, "non-stick foot") == vinyl);
    const auto lacking = found(d, "tools");
    REQUIRE(lacking.size() == 2);
    CHECK_THAT(words(lacking[0].text), Contains("non-stick foot") && Contains("thin paper"));
    CHECK_THAT(words(lacking[1].text), Contains("walking foot") && Contains("baste the layers closely"));
    d.workshop.zipFoot = 0;
    CHECK(found(d, "tools").size() == 3);
    // Told once, also where it stands among the tools that it lacks.
    d.workshop.lacks = "zip foot, Walking foot";
    CHECK(found(d, "tools").size() == 3);
}

TEST_CASE("Workshop: a snap keeps clear of stitch lines by the foot that sews its cloth")
{
    Design d = newDesign("gusseted-satchel");
    const auto clearance = [&] { return worked(medium(d), "snap.clearance"); };
    const double before = clearance();
    d.workshop.nonStickFoot = 9.5;
    CHECK(clearance() == Approx(before));
    setMaterial(d, "shell", "vinyl");
    CHECK(clearance() == Approx(before - 6 + 9.5));
    d.workshop.nonStickFoot = 0, d.workshop.walkingFoot = 11;
    CHECK(clearance() == Approx(before - 6 + 11));
    d.workshop.walkingFoot = 0; // none at hand: the one that is on the machine
    CHECK(clearance() == Approx(before));
}

TEST_CASE("Workshop: pieces larger than the cutter's bed are told, turned by a quarter they may fit; just fits is in")
{
    Design d = newDesign("gusseted-satchel");
    CHECK(found(d, "bed").empty());
    double wide = 0, high = 0; // of the largest
    for (const auto& item : cutItems(medium(d))) {
        const Box box = boundsOf(item.outline);
        wide = std::max(wide, std::min(box.width(), box.height()));
        high = std::max(high, std::max(box.width(), box.height()));
    }
    d.workshop.bedWidth = wide, d.workshop.bedLength = high;
    CHECK(found(d, "bed").empty());
    d.workshop.bedWidth = high, d.workshop.bedLength = wide;
    CHECK(found(d, "bed").empty());
    d.workshop.bedLength = 0; // a roll
    d.workshop.bedWidth = wide;
    CHECK(found(d, "bed").empty());
    d.workshop.bedWidth = wide - 0.1;
    const auto told = found(d, "bed");
    REQUIRE(!told.empty());
    CHECK_THAT(words(told.front().text), Contains("Cut it by hand"));
    d.workshop.bedWidth = wide, d.workshop.bedLength = high - 0.1;
    CHECK(!found(d, "bed").empty());
}

TEST_CASE("Workshop: its ways are read with commas, told where a design goes other ways, and taken in one stroke")
{
    using Pairs = std::vector<std::pair<std::string, std::string>>;
    CHECK(parsedWays("") == Pairs{});
    CHECK(parsedWays(" a=1 ,b = 2,, c, =3") == Pairs{{"a", "1"}, {"b", "2"}});
    Design d = newDesign("gusseted-satchel");
    d.workshop.schools = "assembly=drop-in, connectors.held=riveted, closure=glued, assembly=bound";
    addFeature(d, "connectors");
    const auto other = otherWays(d);
    REQUIRE(other.size() == 3); // the first word about a choice counts; two pairs of connectors
    CHECK(other[0] == std::pair<std::string, std::string>("assembly", "drop-in"));
    CHECK(other[1].second == "riveted");
    CHECK(other[2].second == "riveted");
    const auto told = found(d, "ways");
    REQUIRE(told.size() == 3);
    for (const auto& finding : told) {
        REQUIRE(finding.repair);
        for (const auto& assignment : finding.repair->assignments)
            assign(d, assignment);
    }
    CHECK(otherWays(d).empty());
    CHECK(found(d, "ways").empty());

    // What a form cannot is left as it is, and told by nobody.
    Design frame = newDesign("frame-clutch");
    frame.workshop.schools = "assembly=flat, nothing=all";
    const auto before = frame.choices;
    change::ways(frame);
    CHECK(frame.choices == before);
    CHECK(found(frame, "ways").empty());
    for (const Form* form : forms()) {
        INFO(form->id());
        Design each = newDesign(form->id());
        each.workshop.schools = "assembly=bound, corner=stitched, connectors.held=riveted";
        change::ways(each);
        CHECK(found(each, "ways").empty());
        CHECK_NOTHROW(draftAll(each));
    }
}

TEST_CASE("Workshop: ways that are no NAME=VALUE are refused")
{
    Workshop w;
    CHECK(completed(w).empty());
    w.schools = "assembly=bound, lining=wider";
    CHECK(completed(w).empty());
    for (const char* wrong : {"bound", "assembly=bound lining=wider", "assembly=bound,", "a==b, c"}) {
        INFO(wrong);
        w.schools = wrong;
        CHECK(!completed(w).empty());
    }
}

TEST_CASE("Stiffness: a material's own word, or by class, weight and thickness")
{
    const auto of = [](const char* id) { return stiffnessOf(material(id)); };
    CHECK(of("quilting-cotton") == Stiffness::Soft);
    CHECK(of("canvas-12") == Stiffness::Medium);
    CHECK(of("vinyl") == Stiffness::Medium);
    CHECK(of("fusible-woven") == Stiffness::Soft);
    CHECK(of("fleece-fusible") == Stiffness::Medium);
    CHECK(of("foam-sewin-5") == Stiffness::Firm);
    CHECK(of("board") == Stiffness::Rigid);
    Material own = material("board");
    own.stiffness = "medium";
    CHECK(stiffnessOf(own) == Stiffness::Medium);
}

TEST_CASE("Stiffness: the stiffest layer that lies behind half a piece tells it; two held together make one more")
{
    Design d = newDesign("boxed-corner");
    while (!d.features.empty())
        removeFeature(d, d.features.back().id);
    d.layers = {{.pieces = "panel", .material = "fusible-woven", .fixing = "fused", .trim = "full"}};
    change::material(d, "shell", "quilting-cotton");
    const auto front = [&] {
        const Pattern p = medium(d);
        return stiffnessOf(p, *p.piece("front"));
    };
    CHECK(front() == Stiffness::Medium); // soft and soft, fused
    d.layers.front().fixing = "basted", d.layers.front().material = "batting-cotton";
    CHECK(front() == Stiffness::Medium); // the batting alone
    change::material(d, "shell", "canvas-12");
    CHECK(front() == Stiffness::Medium); // side by side
    d.layers.front().fixing = "fused", d.layers.front().material = "fleece-fusible";
    CHECK(front() == Stiffness::Firm); // medium and medium, fused
    CHECK(stiffnessOf(medium(d)) == Stiffness::Firm);
    d.layers.front() = {.pieces = "panel", .material = "board", .fixing = "glued", .trim = "inset 3"};
    CHECK(front() == Stiffness::Rigid);
    d.layers.front().area = "strip 40 along top";
    CHECK(front() == Stiffness::Medium); // a strip does not stiffen the whole
    d.layers.clear();
    CHECK(stiffnessOf(medium(d)) == Stiffness::Medium);
}

TEST_CASE("Workshop: every field is written and read again, in libraries and in designs; wrong ones are told")
{
    Workshop all;
    all.machine = "Treadle";
    for (const auto& field : fieldsOf<Workshop>()) { // each other than by itself
        if (std::string_view(field.name) == "machine")
            continue;
        const std::string text = field.quantity == FieldSpec::Quantity::Word ? "in"
            : std::string_view(field.name) == "schools"                      ? "assembly=bound, corner=stitched"
            : field.quantity == FieldSpec::Quantity::Text                    ? "Letter"
                                                                             : fmt::format("{}", field.least + 2);
        CHECK(setField(all, field, text).empty());
        CHECK(fieldText(all, field) != fieldText(Workshop(), field));
    }
    const Library written({.workshops = {all}});
    const Library read = readLibrary(libraryText(written), "library").library;
    REQUIRE(read.workshops().size() == 1);
    CHECK(read.workshops().front() == all);
    Design d = newDesign("flat-pouch");
    d.workshop = all;
    CHECK(designFromText(designText(d), "bag").workshop == all);

    std::string text = libraryText(written);
    const auto wrong = [&](const std::string& from, const std::string& to) {
        std::string bad = text;
        bad.replace(bad.find(from), from.size(), to);
        try {
            readLibrary(bad, "library");
            return std::string();
        } catch (const InputError& e) {
            return std::string(e.what());
        }
    };
    CHECK_THAT(wrong("\"in\"", "\"ells\""), Contains("line 20") && Contains("ells") && Contains("mm, cm, in"));
    CHECK_THAT(wrong("\"in\"", "7"), Contains("a word was expected"));
    CHECK_THAT(wrong("assembly=bound, corner=stitched", "bound"), Contains("NAME=VALUE"));
    Design odd = d;
    odd.workshop.unit = "ells";
    CHECK_THROWS_AS(validate(odd), InputError);
}
