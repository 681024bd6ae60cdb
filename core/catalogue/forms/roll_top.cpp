// SPDX-License-Identifier: GPL-3.0-or-later
// Roll-top backpack: walls on a rectangular base, taller by the rolls; shoulder straps held at top and base by brace
// triangles.
#include "drafting/panels.hpp"
#include "drafting/plans.hpp"
#include "drafting/strip_width.hpp"
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

    std::vector<ChoiceSpec> choices() const override { return coatChoices(false); }

    std::vector<std::pair<std::string, std::string>> derived() const override
    {
        return {{"tall", "height + rolls*roll.height"}, {"face.width", "width"}, {"face.height", "height"},
            {"mouth.depth", "depth"}};
    }

    std::vector<SiteSpec> sites() const override
    {
        return {{"front", "Front", false, true}, {"back", "Back", false, true}, {"left", "Left side", false, true},
            {"right", "Right side", false, true}, {"lining front", "Lining front", true, false},
            {"lining back", "Lining back", true, false}};
    }

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
        CoatDraft lining = CoatDraft::lining(d, liningShrink(d, "front"));
        drawStanding(lining, body(p, lining.shrink));
        for (const auto& piece : {"front", "back", "left", "right"})
            for (int i = 0; i <= int(std::lround(d("rolls"))); ++i) {
                const Box box = boundsOf(d.piece(piece).stitch());
                const double y = d("height") + i * d("roll.height");
                if (y < box.y1 - 1)
                    d.piece(piece).lines.push_back({"roll", FaceLine::Kind::Fold, lineRun({{box.x0, y}, {box.x1, y}})});
            }
        addFaces(d, sites(), d("height"));
        addMainSpace(d, "front", "base", d("width"), d("height"), d("depth"), 0);
        p.handles = {{"width", "base", {d("width") / 2, 0}, {1, 0}, 2},
            {"depth", "base", {0, d("depth") / 2}, {0, 1}, 2}, {"height", "front", {0, d("height")}, {0, 1}, 1}};
        drawStraps(d);
        sewStanding(shell, body(p, 0));
        tailSteps(d);
        sewStanding(lining, body(p, lining.shrink));
        joinCoats(d, {.mouth = mouthOf(body(p, 0)), .open = lined("base")});
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
        drawPadded(d);
        placeOnBack(d);
        drawBraces(d);
        strapSteps(d);
    }

    void drawPadded(Drafter& d) const
    {
        const double s = d("allowance.body"), w = d("strap.width"), length = d("strap.length");
        for (const bool under : {false, true}) {
            Piece& strap = d.add({.key = under ? "strap.under" : "strap.upper",
                .code = under ? "LF" : "F",
                .name = under ? say("Strap underside") : say("Shoulder strap"),
                .coat = under ? Coat::Lining : Coat::Shell,
                .role = under ? "strap underside" : "shoulder strap",
                .material = under ? "lining" : "shell",
                .count = 2,
                .mirrored = 1});
            // Round at the lower end, where the webbing leaves it.
            strap.edges = {{"top", lineRun({{w / 2, length}, {-w / 2, length}}), s, {}},
                {"left", lineRun({{-w / 2, length}, {-w / 2, w / 2}}), s, {}},
                {"end", {Arc{{0, w / 2}, w / 2, pi, pi}}, s, {}},
                {"right", lineRun({{w / 2, w / 2}, {w / 2, length}}), s, {}}};
        }
        for (int copy = 0; copy < 2; ++copy)
            d.add(Seam{.key = "strap " + std::to_string(copy + 1),
                .name = say("Shoulder strap to its underside, {}", (copy ? say("right") : say("left"))),
                .a = withCopy(d.runWithout("strap.upper", "top"), copy),
                .b = withCopy(d.runWithout("strap.under", "top"), copy),
                .allowance = s});
    }

    void placeOnBack(Drafter& d) const
    {
        Piece& back = d.piece("back");
        const double y = d("height") - d("strap.drop"), x = d("strap.spread") / 2, w = d("strap.width");
        for (const double side : {-1.0, 1.0}) {
            const std::string name = side < 0 ? "strap, left" : "strap, right";
            back.lines.push_back(
                {name, FaceLine::Kind::Placement, lineRun({{side * x - w / 2, y}, {side * x + w / 2, y}})});
            d.add(Seam{.key = side < 0 ? "strap.on left" : "strap.on right",
                .name = say("Shoulder strap on the back, {}", (side < 0 ? say("left") : say("right"))),
                .a = {{"back", name}},
                .b = {{"strap.upper", "top", side < 0 ? 0 : 1, true}},
                .stitch = "topstitch"});
        }
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
        // Loops that hold the sliders at the straps' ends, and tabs that hold hook and ring: folded in half, 25 mm of
        // them in the strap or past the mouth's edge (common practice, no source).
        for (const auto& [key, code, name] :
            {std::tuple{"strap.loop", "W2", say("Webbing loop")}, {"roll.tab", "W3", say("Webbing tab of the roll")}})
            drawRectangle(d.add({.key = key,
                              .code = code,
                              .name = name,
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

    void strapSteps(Drafter& d) const
    {
        d.add(Step{.id = "strap.make",
            .title = say("Make the shoulder straps"),
            .acts = {act::saying(act::sew({"strap 1", "strap 2"}),
                         say("The webbing's width stays open in the middle of the round end.")),
                act::grade({"strap 1", "strap 2"}), act::turn({"strap 1", "strap 2"}),
                act::roll({"strap 1", "strap 2"}, 6.4)},
            .kind = StepKind::Seam,
            .phase = "Small parts",
            .consumes = {"strap.upper", "strap.under"},
            .yields = "straps",
            .check = say("Both straps mirror each other.")});
        d.add(Step{.id = "strap.loops",
            .title = say("Put the sliders' loops into the straps"),
            .acts = {act::of(Act::Verb::SealCut, "strap.loop"), act::of(Act::Verb::SealCut, "roll.tab"),
                act::with({.verb = Act::Verb::Insert, .pieces = {"strap.loop", "strap.upper"}, .distance = 25},
                    {Ware::WebbingSlider})},
            .kind = StepKind::Seam,
            .phase = "Small parts",
            .consumes = {"straps", "strap.loop"},
            .yields = "straps",
            .pieces = {"strap.upper", "strap.loop"},
            .check = say("The sliders lie with their bars up.")});
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
        d.add(Step{.id = "strap.on",
            .title = say("Sew the straps to the back"),
            // Laid as they hang in the end: turned over the row they would show their underside.
            .acts = {{.verb = Act::Verb::FoldIn,
                         .seams = {"strap.on left"},
                         .pieces = {"strap.upper"},
                         .distance = d("allowance.body")},
                act::saying(act::stitchOn({"strap.on left", "strap.on right"}),
                    say("The straps point down. Box-X stitch over {}.", Len(25)))},
            .kind = StepKind::Flat,
            .phase = "Shell back",
            .consumes = {"back", "straps"},
            .yields = "back",
            .pieces = {"strap.upper", "back"},
            .check = say("Both straps are level.")});
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

    void tailSteps(Drafter& d) const
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
        d.add(Step{.id = "tails",
            .title = say("Thread the webbing tails"),
            .acts = {act::of(Act::Verb::ThreadTails, "webbing")},
            .kind = StepKind::Strap,
            .phase = "Strap",
            .consumes = {"bag"},
            .yields = "bag",
            .pieces = {"webbing", "strap.upper"}});
    }

    static std::vector<EdgeUse> withCopy(std::vector<EdgeUse> run, int copy)
    {
        for (auto& use : run)
            use.copy = copy;
        return run;
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        Mockup m = foldCoats(
            p, [&](Folder& folder, const LaidCoat& coat) { foldStanding(folder, body(p, coat.in), coat); });
        const double tall = p.values.at("tall");
        m.litres *= p.height / tall; // what is rolled down holds nothing
        // Straps arch out behind the back, from below the rolls to the braces at the base.
        const auto v = [&](const char* name) { return p.values.at(name); };
        for (const double side : {-1.0, 1.0}) {
            std::vector<Vec3> path;
            const double x = side * v("strap.spread") / 2, y = v("height") - v("strap.drop"), z = -p.depth / 2;
            for (int i = 0; i <= 16; ++i) {
                const double t = i / 16.0;
                path.push_back({std::lerp(x, side * (p.width / 2 - v("brace") / 2), t * t),
                    y * (1 - t) + v("brace") * 0.5 * t, z - 0.32 * y * std::sin(pi * t)});
            }
            foldRibbon(m, "strap.upper", path, {v("strap.width"), 0, 0});
        }
        placeThings(m, design, p);
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
