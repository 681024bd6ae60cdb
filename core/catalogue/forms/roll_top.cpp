// SPDX-License-Identifier: GPL-3.0-or-later
// Roll-top backpack: walls on a rectangular base, taller by the rolls; shoulder straps held at top and base by brace
// triangles.
#include "drafting/padded_straps.hpp"
#include "drafting/panels.hpp"
#include "drafting/plans.hpp"
#include "drafting/strip_width.hpp"
#include "drafting/unlined.hpp"
#include "drafting/walls.hpp"
#include "forms/form.hpp"
#include "library/library.hpp"
#include "units/words.hpp"

#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class RollTop : public Form {
public:
    std::string id() const override { return "roll-top"; }
    std::string name() const override { return "Roll-top backpack"; }
    std::string meaning() const override
    {
        return "Walls on a base, with extra height to roll down; two shoulder straps, held by brace triangles at the "
               "base.";
    }

    std::vector<Run> silhouette() const override
    {
        return {lineRun({{22, 6}, {78, 6}, {78, 80}, {22, 80}, {22, 6}}),
            lineRun({{18, 80}, {82, 80}, {82, 92}, {18, 92}, {18, 80}}), lineRun({{22, 66}, {78, 66}}),
            lineRun({{78, 12}, {90, 18}, {90, 40}, {78, 42}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        std::vector<DimensionSpec> out{
            {"width", "Width", "Finished width of front and back.", "290", step(15), "100", "600"},
            {"depth", "Depth", "Finished depth of the base, front to back.", "140", step(10), "40", "350"},
            {"height", "Height when rolled",
                "Finished height from the base seam to the lowest roll; choose it by the torso.", "420", step(25),
                "150", "900"},
            {"rolls", "Rolls", "How often the mouth is rolled; three at least keep rain out.", "3", hold(), "3", "8",
                DimensionSpec::Quantity::Count},
            {"roll.height", "Height of a roll", "Cloth that each roll takes up.", "45", hold(), "20", "90"},
            {"strap.width", "Shoulder strap width", "Finished width of the shoulder straps.", "60", hold(), "25",
                "100"},
            {"strap.length", "Shoulder strap length",
                "Finished length of each padded strap, from the back's seam down.", "0.85*height", follow(), "150",
                "900"},
            {"strap.spread", "Strap spread", "Between the strap centres where they leave the back.", "0.3*width",
                follow(), "strap.width + 10", "width - strap.width - 20"},
            {"strap.drop", "Strap drop", "From the lowest roll down to where the straps are sewn to the back.", "60",
                hold(), "20", "height/2"},
            {"brace", "Brace triangle", "Length of the two equal sides of the brace triangles.", "80", hold(), "40",
                "min(depth, height/2)"},
            {"webbing.width", "Webbing width", "Width of the webbing from strap end to brace triangle.", "25", hold(),
                "15", "50"},
            {"webbing.length", "Webbing length", "Length of each webbing tail.", "450", hold(), "150", "900"},
        };
        for (auto& d : coatDimensions("0.8*width"))
            out.push_back(d);
        return out;
    }

    std::vector<ChoiceSpec> choices() const override
    {
        auto out = coatChoices(false); // hook and ring are put to the closed mouth: it cannot be sewn first
        for (const auto& option : unlinedOptions())
            if (option.first != "unlined-bagged") // its braces are caught in seams that would be trimmed
                out.back().options.push_back(option);
        return out;
    }

    std::vector<DerivedSpec> derived() const override
    {
        return {{"tall", "height + rolls*roll.height"}, {"face.width", "width"}, {"face.height", "height"},
            {"mouth.depth", "depth"}, {"strap.face.width", "strap.width"},
            {"strap.face.height", "strap.length - strap.width"}};
    }

    std::vector<SiteSpec> sites() const override
    {
        return {{"front", "Front", false, true}, {"back", "Back", false, true},
            {.name = "left", .label = "Left side", .seam = true, .own = "side."},
            {.name = "right", .label = "Right side", .seam = true, .own = "side."},
            {"lining front", "Lining front", true, false}, {"lining back", "Lining back", true, false},
            {.name = "strap", .label = "Shoulder strap", .small = true, .strip = true, .own = "strap."}};
    }

    bool stands() const override { return true; }

    void furnish(Design& design) const override
    {
        furnishCoats(design);
        design.materials["shell"] = "waxed-canvas";
        design.layers = {{"base", "stabiliser-firm", "basted", "stitch", {}, ""},
            {"lining panel", "fusible-woven", "fused", "full", {}, ""},
            {"shoulder strap", "foam-sewin", "basted", "stitch", {}, ""}};
        design.features = {{"slip", "slip-pocket"}};
        design.carried = {{"Laptop", 240, 340, 20, "main"}, {"Folder, A4", 230, 310, 30, "main"}};
    }

    void draft(Drafter& d) const override
    {
        Pattern& p = d.pattern;
        p.width = d("width"), p.height = d("height"), p.depth = d("depth");
        d.work({"front", "rolled", say("Height of the walls"), "height + rolls*roll",
            {{"height", d("height")}, {"rolls", d("rolls")}, {"roll", d("roll.height")}}, 0, Kind::Geometry, "mm",
            say("what is rolled down is added")});
        CoatDraft shell = CoatDraft::shell(d);
        drawStanding(shell, body(p, 0));
        LiningOfStanding lining = draftLining(d, "front", [&](double in) { return body(p, in); });
        drawStanding(lining.coat, lining.body);
        for (const auto& piece : {"front", "back", "left", "right"})
            for (int i = 0; i <= int(std::lround(d("rolls"))); ++i) {
                const Box box = boundsOf(d.piece(piece).stitch());
                const double y = d("height") + i * d("roll.height");
                if (y < box.y1 - 1)
                    d.piece(piece).lines.push_back({"roll", FaceLine::Kind::Fold, lineRun({{box.x0, y}, {box.x1, y}})});
            }
        auto faces = sites();
        std::erase_if(faces, [](const SiteSpec& face) { return face.strip; }); // offered with the straps
        addFaces(d, faces, d("height"));
        addMainSpace(d, "front", "base", d("width"), d("height"), d("depth"), 0);
        p.handles = {{"width", "base", {d("width") / 2, 0}, {1, 0}, 2},
            {"depth", "base", {0, d("depth") / 2}, {0, 1}, 2}, {"height", "front", {0, d("height")}, {0, 1}, 1}};
        drawStraps(d);
        sewStanding(shell, body(p, 0));
        if (!unlined(d))
            fastenersInMouth(d);
        tailSteps(d);
        sewStanding(lining.coat, lining.body);
        joinCoats(d, {.mouth = mouthOf(body(p, 0)), .open = lined("base")});
        if (unlined(d))
            fastenersOnHem(d);
        else
            for (auto& seam : p.seams)
                if (seam.key == "mouth")
                    seam.trapped.push_back("roll.tab");
    }

    Standing body(const Pattern& p, double in) const
    {
        const double w = p.values.at("width") - 2 * in, d = p.values.at("depth") - 2 * in;
        Standing s{.plan = roundedPlan(w, d, 0), .start = d / 2, .height = p.values.at("tall") - in, .lean = -in};
        s.walls = {{"front", "A", say("Front"), w}, {"right", "D1", say("Right side"), d},
            {"back", "B", say("Back"), w}, {"left", "D2", say("Left side"), d}};
        return s;
    }

    /// Shoulder straps of two layers, webbing tails, and triangles that carry the tails at the base.
    void drawStraps(Drafter& d) const
    {
        const double brace = d("brace");
        drawBraces(d);
        drawPaddedStraps(d,
            {.upper = "strap.upper",
                .under = "strap.under",
                .loop = "strap.loop",
                .make = "strap.make",
                .loops = "strap.loops",
                .on = "strap.on",
                .sewn = "strap",
                .onFace = "strap.on",
                .code = "F",
                .loopCode = "W2",
                .face = "back",
                .at = {0, d("height") - d("strap.drop")},
                .spread = d("strap.spread"),
                .width = d("strap.width"),
                .length = d("strap.length"),
                .webbing = d("webbing.width"),
                .allowance = d("allowance.body"),
                .foot = {d("width") / 2 - brace / 2, brace / 2},
                .alsoSealed = {"roll.tab"}});
        braceSteps(d);
    }

    void drawBraces(Drafter& d) const
    {
        Pattern& p = d.pattern;
        const double s = d("allowance.body"), brace = d("brace"), web = d("webbing.width");
        // Two right triangles; the long side is folded, the legs lie in side and base seam.
        Piece& tri = d.add({.key = "brace",
            .code = "H",
            .name = say("Brace triangle"),
            .coat = Coat::Shell,
            .role = "brace",
            .material = "shell",
            .count = 4,
            .mirrored = 2,
            .plies = 2});
        tri.edges = {{"base leg", lineRun({{0, 0}, {brace, 0}}), s, {}},
            {"slant", lineRun({{brace, 0}, {0, brace}}), s, {}}, {"side leg", lineRun({{0, brace}, {0, 0}}), s, {}}};
        d.add(Seam{.key = "brace",
            .name = say("Brace triangles, layer to layer"),
            .a = {{"brace", "slant"}},
            .b = {{"brace", "slant", 2}},
            .allowance = s,
            .trapped = {"webbing"}});
        p.hardware.push_back(
            {Ware::WebbingSlider, 2, web, say("{} inside width", Len(web)), say("one finish for all metal")});
        p.hardware.push_back(
            {Ware::HookAndRing, 2, web, say("{} inside width", Len(web)), say("one finish for all metal")});
        Piece& tail = d.add({.key = "webbing",
            .code = "W",
            .name = say("Webbing tail"),
            .coat = Coat::Strip,
            .role = "webbing",
            .material = "strap",
            .count = 2});
        drawRectangle(tail, web, d("webbing.length"), 0);
        // Tabs that hold hook and ring: folded in half, 25 mm of them past the mouth's edge (common practice, no
        // source).
        drawRectangle(d.add({.key = "roll.tab",
                          .code = "W3",
                          .name = say("Webbing tab of the roll"),
                          .coat = Coat::Strip,
                          .role = "webbing",
                          .material = "strap",
                          .count = 2,
                          .plies = 2}),
            web, 100, 0);
        // Their legs lie in the base's seam and in those of the back.
        const auto ofBack = [](const EdgeUse& use) { return use.piece == PieceId("back"); };
        for (auto& seam : p.seams)
            if (seam.stitch == "construction"
                && (std::any_of(seam.a.begin(), seam.a.end(), ofBack)
                    || std::any_of(seam.b.begin(), seam.b.end(), ofBack)))
                seam.trapped.push_back("brace");
        const Box back = boundsOf(d.piece("back").stitch());
        p.overlays.push_back({"brace", "back", {back.x0, back.y0}});
        p.overlays.push_back({"brace", "back", {back.x1, back.y0, 0, true}});
    }

    void braceSteps(Drafter& d) const
    {
        d.add(Step{.id = "brace.make",
            .title = say("Make the brace triangles"),
            .acts = {act::of(Act::Verb::SealCut, "webbing"), act::sew({"brace"}), act::turn({"brace"}),
                act::topstitch({}, 3.2, Act::To::Nowhere), act::topstitch({}, 9.5, Act::To::Nowhere)},
            .kind = StepKind::Seam,
            .phase = "Small parts",
            .consumes = {"brace", "webbing"},
            .yields = "braces",
            .pieces = {"brace", "webbing"},
            .check = say("The webbing leaves the triangle at its middle, square to the slanting side."),
            .cautions = {say("Load ratings need testing by someone qualified; local safety rules go first.")}});
        d.add(Step{.id = "brace.on",
            .title = say("Baste the braces to the back"),
            .acts = {act::layOver("brace", "back",
                         say("Its right angle lies in a lower corner, the legs level with side and base edge.")),
                act::baste(4)},
            .kind = StepKind::Baste,
            .phase = "Shell back",
            .consumes = {"back", "braces"},
            .yields = "back",
            .pieces = {"brace", "back"},
            .check = say("The webbing points up and in.")});
    }

    void fastenersInMouth(Drafter& d) const
    {
        d.add(Step{.id = "fasteners",
            .title = say("Sew hook and ring to the ends of the roll"),
            .acts = {act::with(
                         act::saying(act::lay("roll.tab", "left", "mouth"),
                             say("One is folded in half through the hook and lies here, the other one through the "
                                 "ring and lies on the right side: each in the middle of its side, where the rolled "
                                 "mouth ends. Turned, it stands out of the mouth and is pulled outwards.")),
                         {Ware::HookAndRing}),
                act::baste(5)},
            .kind = StepKind::Baste,
            .phase = "Shell assembly",
            .consumes = {"shell", "roll.tab"},
            .yields = "shell",
            .pieces = {"left", "right", "roll.tab"},
            .check = say("Rolled down, the hook reaches the ring on the other side.")});
    }

    /// Without a lining nothing covers their ends: they are sewn onto the finished hem.
    void fastenersOnHem(Drafter& d) const
    {
        Piece& tab = d.piece("roll.tab");
        const double web = boundsOf(tab.stitch()).width(), in = 3, up = 20;
        tab.lines.push_back({"row", FaceLine::Kind::Topstitch,
            lineRun({{in, in}, {web - in, in}, {web - in, up}, {in, up}, {in, in}, {web - in, up}})});
        const double mouth = boundsOf(d.piece("left").stitch()).y1;
        d.pattern.overlays.push_back({"roll.tab", "left", {-web / 2, mouth - up - in}});
        d.add(Step{.id = "fasteners",
            .title = say("Sew hook and ring to the ends of the roll"),
            .acts = {act::with(
                         act::saying(act::layOver("roll.tab", "left"),
                             say("One is folded in half through the hook and lies here, its cut ends {} below the "
                                 "mouth, the other one through the ring and lies on the right side: each in the "
                                 "middle of its side, where the rolled mouth ends. The fold stands out of the mouth.",
                                 Len(up + in))),
                         {Ware::HookAndRing}),
                act::of(Act::Verb::Rows, "roll.tab")},
            .kind = StepKind::Strap,
            .phase = "Strap",
            .consumes = {"bag", "roll.tab"},
            .yields = "bag",
            .pieces = {"left", "right", "roll.tab"},
            .check = say("Rolled down, the hook reaches the ring on the other side.")});
    }

    void tailSteps(Drafter& d) const
    {
        d.add(Step{.id = "tails",
            .title = say("Thread the webbing tails"),
            .acts = {act::of(Act::Verb::ThreadTails, "webbing")},
            .kind = StepKind::Strap,
            .phase = "Strap",
            .consumes = {"bag"},
            .yields = "bag",
            .pieces = {"webbing", "strap.upper"}});
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        Mockup m = foldCoats(p, [&](Folder& folder, const LaidCoat& coat) {
            const auto at = [&](double in) { return body(p, in); };
            foldStanding(folder, coat.lining ? liningOf(p, at, coat.in) : at(0), coat);
            folder.leaveOpen(); // not rolled down
        });
        const double tall = p.values.at("tall");
        m.litres *= p.height / tall; // what is rolled down holds nothing
        dressUp(m, design, p, p.height, p.depth / 2);
        m.handles = {{"width", {p.width / 2, p.height * 0.45, 0}, {1, 0, 0}, 2},
            {"height", {-p.width * 0.3, p.height, p.depth / 2}, {0, 1, 0}, 1},
            {"depth", {p.width * 0.32, 0, p.depth / 2}, {0, 0, 1}, 2}};
        return m;
    }
};

} // namespace

const Form& rollTop()
{
    static const RollTop form;
    return form;
}

} // namespace tectonis
