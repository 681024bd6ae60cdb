// SPDX-License-Identifier: GPL-3.0-or-later
// Circular drawstring pouch: two discs bagged out, a channel at its own radius, two cords in opposite directions.
#include "buildup/layers.hpp"
#include "drafting/coat.hpp"
#include "forms/form.hpp"
#include "mockup/dress.hpp"
#include "mockup/folder.hpp"
#include "mockup/gathered.hpp"
#include "units/words.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class CirclePouch : public Form {
public:
    std::string id() const override { return "circle-pouch"; }
    std::string name() const override { return "Circle pouch"; }
    std::string meaning() const override
    {
        return "Two discs bagged out and gathered by two cords in a channel; divided pockets may stand on the inside.";
    }

    std::vector<Run> silhouette() const override
    {
        return {Run{Cubic{{38, 66}, {-10, 50}, {0, 4}, {50, 4}}, Cubic{{50, 4}, {100, 4}, {110, 50}, {62, 66}},
                    Line{{62, 66}, {38, 66}}},
            lineRun({{38, 66}, {26, 88}, {44, 82}, {50, 70}, {56, 82}, {74, 88}, {62, 66}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"radius", "Radius", "Finished radius of the open pouch.", "180", step(20), "80", "600"},
            {"channel", "Channel radius", "From the centre to the middle of the channel.",
                "max(radius - 40, 0.65*radius)", follow(), "40", "radius - channel.width/2 - 8"},
            {"channel.width", "Channel width", "Between the two rows of stitching that make the channel.", "14", hold(),
                "6", "40"},
            {"tail", "Cord tail", "Length of cord left free at each end, outside the channel.", "180", hold(), "40",
                "600"},
            {"pocket.radius", "Pocket radius", "Radius of the inner disc that makes the pockets.",
                "min(0.62*radius, channel - channel.width/2 - 5)", follow(), "30", "channel - channel.width/2 - 5"},
            {"pocket.floor", "Floor radius", "Radius of the plain floor within the pockets.",
                "min(0.3*radius, pocket.radius - 20)", follow(), "10", "pocket.radius - 20"},
            {"pockets", "Pockets", "Number of pockets round the floor.", "8", hold(), "3", "16",
                DimensionSpec::Quantity::Count},
            {"allowance.body", "Rim allowance", "Seam allowance round the discs.", "8", hold(), "5", "15"},
            {"opening.length", "Turning opening", "Length left open in the rim to turn the pouch through.",
                "min(110, 0.9*radius)", hold(), "40", "radius"},
        };
    }

    std::vector<ChoiceSpec> choices() const override
    {
        return {{"inner", "Pockets inside", "A smaller disc stitched on the lining, divided by radial rows.",
            {{"yes", "With pockets"}, {"no", "Without"}}}};
    }
    std::vector<DerivedSpec> derived() const override
    {
        // On the disc, the square within the channel.
        const std::string square = "sqrt(2)*(channel - channel.width/2 - 6)";
        return {{"face.width", "radius"}, {"face.height", "radius"}, {"mouth.depth", "10"}, {"disc.face.width", square},
            {"disc.face.height", square}};
    }
    std::vector<SiteSpec> sites() const override
    {
        return {{.name = "disc", .label = "Disc", .small = true, .own = "disc."},
            {.name = "lining disc",
                .label = "Lining disc",
                .lining = true,
                .when = "inner=no",
                .small = true,
                .own = "disc."}};
    }

    void furnish(Design& design) const override
    {
        design.materials = {{"shell", "quilting-cotton"}, {"lining", "lining-cotton"}};
        design.carried = {};
    }

    /// Quarters, so that the template folds twice: "rim 1" begins at the lowest point.
    static void drawDisc(Piece& piece, double radius, double allowance)
    {
        for (int i = 0; i < 4; ++i)
            piece.edges.push_back(
                {"rim " + std::to_string(i + 1), {Arc{{0, 0}, radius, -pi / 2 + i * pi / 2, pi / 2}}, allowance, {}});
    }

    void draft(Drafter& d) const override
    {
        Pattern& p = d.pattern;
        const double r = d("radius"), s = d("allowance.body"), rho = d("channel");
        p.width = p.depth = 2 * r; // laid flat
        drawDisc(d.add({.key = "disc",
                     .code = "A",
                     .name = say("Disc"),
                     .coat = Coat::Shell,
                     .role = "panel",
                     .material = "shell"}),
            r, s);
        drawDisc(d.add({.key = lined("disc"),
                     .code = "LA",
                     .name = say("Lining disc"),
                     .coat = Coat::Lining,
                     .role = "lining panel",
                     .material = "lining"}),
            r, s);
        Piece& disc = d.piece("disc");
        for (const double side : {-0.5, 0.5})
            disc.lines.push_back(
                {"channel", FaceLine::Kind::Topstitch, circleRun({0, 0}, rho + side * d("channel.width"))});
        // The cords leave at two opposite places, through buttonholes across the channel's middle.
        for (const double side : {-1.0, 1.0}) {
            disc.lines.push_back({"cord hole", FaceLine::Kind::Slash, lineRun({{side * rho, -6}, {side * rho, 6}})});
            disc.drills.push_back({{side * rho, 0}, say("cord hole")});
            // Felt behind each hole, 24 mm square (common practice, no source), clear of the rim.
            const double half = std::min(12.0, 0.7 * (r - rho));
            const std::string area = side < 0 ? "patch, left cord hole" : "patch, right cord hole";
            disc.areas[area] = rectangleRun(side * rho - half, -half, side * rho + half, half);
            d.patches.push_back(
                {"disc", {.material = "patch-felt", .fixing = "glued", .area = area}, say("patch for the cord hole")});
        }
        d.add(Seam{.key = "rim",
            .name = say("Disc to lining"),
            .a = d.runFromTo("disc", "rim 1", "rim 4"),
            .b = reversedLikeMirror(d),
            .allowance = s,
            .open = d("opening.length")});
        const double cord = d.work({"disc", "cord.length", say("Length of each cord"), "2*pi*channel + 2*tail",
            {{"channel", rho}, {"tail", d("tail")}}, 0, Kind::Geometry, "mm",
            say("once round the channel and two tails; two cords run in opposite directions")});
        d.work({"disc", "rim.length", say("Rim"), "2*pi*radius", {{"radius", r}}, 0, Kind::Geometry, "mm",
            say("on the stitch line")});
        d.work({"disc", "cut.radius", say("Cut radius"), "radius + allowance", {{"radius", r}, {"allowance", s}}, 0,
            Kind::Geometry, "mm", Message()});
        p.hardware.push_back({Ware::Cord, 2, cord, say("{} each", Len(cord)), say("as you like")});
        const Gathered shut(
            r, rho, d.stack("panel", "disc", "shell") + d.stack("lining panel", lined("disc"), "lining"));
        d.work({"disc", "floor.flat", say("Flat floor, drawn shut"), "share*channel",
            {{"share", Gathered::floorShare}, {"channel", rho}}, 0, Kind::Trade, "mm",
            say("radius on which a gathered pouch stands; mock-up and room inside go by it. What is wider fits, but "
                "strains the gathers")});
        p.height = shut.at(r, 0, 0).y;
        const auto [radius, height] = shut.room();
        p.spaces.push_back({"main", say("Main space"), 2 * radius, height, 2 * radius, 0, false});
        p.spaces.back().endRadius = radius;
        const double square = d("disc.face.width");
        const auto offer = [&](const char* name, const Message& label, const PieceId& piece, const char* phase) {
            p.sites.push_back({.name = SiteId(name),
                .label = label,
                .pieces = {piece},
                .top = square / 2,
                .width = square,
                .height = square,
                .phase = phase,
                .lining = piece != PieceId("disc")});
        };
        offer("disc", say("Disc"), "disc", "Shell front");
        if (d.choice("inner") == "yes")
            drawPockets(d);
        else
            offer("lining disc", say("Lining disc"), lined("disc"), "Lining");
        p.handles = {{"radius", "disc", {r, 0}, {1, 0}, 1}, {"channel", "disc", {0, rho}, {0, 1}, 1}};
        addSteps(d, cord);
    }

    /// Right sides together the lining lies face down: its rims are met in mirrored order.
    static std::vector<EdgeUse> reversedLikeMirror(Drafter& d)
    {
        return reversedRun(d.runFromTo(lined("disc"), "rim 1", "rim 4"));
    }

    void drawPockets(Drafter& d) const
    {
        Pattern& p = d.pattern;
        const double r = d("pocket.radius"), floor = d("pocket.floor");
        const int n = int(std::lround(d("pockets")));
        Piece& ring = d.add({.key = "pockets",
            .code = "P",
            .name = say("Pocket disc"),
            .coat = Coat::Lining,
            .role = "pocket",
            .material = "lining",
            .count = 2});
        drawDisc(ring, r, d("allowance.body"));
        ring.lines.push_back({"floor", FaceLine::Kind::Topstitch, circleRun({0, 0}, floor)});
        for (int i = 0; i < n; ++i) {
            const Point way = polar(2 * pi * (i + 0.5) / n);
            ring.lines.push_back({"divider", FaceLine::Kind::Topstitch, lineRun({way * floor, way * r})});
        }
        for (const double at : {floor, r})
            d.piece(lined("disc"))
                .lines.push_back(
                    {at == r ? "pocket rim" : "pocket floor", FaceLine::Kind::Topstitch, circleRun({0, 0}, at)});
        const double mouth = d.work(
            {"pockets", "pocket.width", say("Width of each pocket at its mouth"), "2*pi*radius/pockets",
                {{"radius", r}, {"pockets", double(n)}}, 0, Kind::Geometry, "mm", say("rim divided evenly")});
        d.add(Seam{.key = "pocket.rim",
            .name = say("Pocket discs, layer to layer"),
            .a = d.runFromTo("pockets", "rim 1", "rim 4"),
            .b = withCopy(reversedRun(d.runFromTo("pockets", "rim 1", "rim 4"))),
            .allowance = d("allowance.body"),
            .open = 50});
        p.spaces.push_back({"pockets", say("Round pockets"), mouth, r - floor, 10, 0, true});
        d.add(Step{.id = "pockets.make",
            .title = say("Make the pocket disc"),
            .acts = {act::sew({"pocket.rim"}), act::grade({"pocket.rim"}), act::turn({"pocket.rim"}),
                act::roll({"pocket.rim"}, 3.2)},
            .kind = StepKind::Flat,
            .phase = "Small parts",
            .consumes = {"pockets"},
            .yields = "pocket disc",
            .check = say("The disc is round and flat.")});
        d.add(Step{.id = "pockets.on",
            .title = say("Stitch the pockets onto the lining"),
            .acts = {act::layOver("pockets", lined("disc"), say("It is centred.")),
                act::saying(act::of(Act::Verb::Rows, lined("disc")),
                    say("First the floor's circle, then the dividers from the floor outwards."))},
            .kind = StepKind::Flat,
            .phase = "Lining",
            .consumes = {lined("disc"), "pocket disc"},
            .yields = lined("disc"),
            .pieces = {lined("disc"), "pockets"},
            .check = say("All pockets are alike.")});
    }

    static std::vector<EdgeUse> withCopy(std::vector<EdgeUse> run)
    {
        for (auto& use : run)
            use.copy = 1;
        return run;
    }

    void addSteps(Drafter& d, double cord) const
    {
        d.add(Step{.id = "holes",
            .title = say("Work the cord holes"),
            .acts = {act::saying(act::of(Act::Verb::Buttonhole, "disc"),
                say("They lie across the channel's middle, opposite each other, and go through this layer and the "
                    "patch behind it."))},
            .kind = StepKind::Flat,
            .phase = "Shell front",
            .consumes = {"disc"},
            .yields = "disc",
            .pieces = {"disc"},
            .check = say("Cut open without catching a stitch.")});
        d.add(Step{.id = "rim",
            .title = say("Sew disc and lining together"),
            .acts = {act::sew({"rim"}), act::notch({"rim"})},
            .kind = StepKind::Seam,
            .phase = "Joining",
            .consumes = {"disc", lined("disc")},
            .yields = "bag",
            .check = say("Quarters meet.")});
        d.add(Step{.id = "turn",
            .title = say("Turn the pouch"),
            .acts = {act::turnBag({"rim"}), act::press("disc")},
            .kind = StepKind::Turn,
            .phase = "Joining",
            .consumes = {"bag"},
            .yields = "bag",
            .check = say("The seam lies on the edge and the rim is round.")});
        d.add(Step{.id = "close",
            .title = say("Close the rim"),
            .acts = {act::closeOpening("rim"), act::topstitch({"rim"}, 3.2, Act::To::Nowhere)},
            .kind = StepKind::CloseOpening,
            .phase = "Closing",
            .consumes = {"bag"},
            .yields = "bag",
            .check = say("The opening is caught.")});
        d.add(Step{.id = "channel",
            .title = say("Sew the channel and thread the cords"),
            .acts = {act::of(Act::Verb::Rows, "disc"),
                act::with({.verb = Act::Verb::ThreadCord, .distance = cord, .taken = 2}, {Ware::Cord})},
            .kind = StepKind::Strap,
            .phase = "Strap",
            .consumes = {"bag"},
            .yields = "bag",
            .pieces = {"disc"},
            .check = say("Pulled, the pouch closes evenly.")});
    }

    /// What sits on the discs, without these.
    static Mockup dressed(const Pattern& p, const Gathered& body, double thick)
    {
        if (p.overlays.empty() && p.fittings.empty())
            return {};
        std::vector<double> grid; // fine enough for how the radii are bent
        for (double at = 0; at < p.values.at("radius"); at += 8)
            grid.insert(grid.end(), {at, -at});
        Mockup m = foldCoats(p, [&](Folder& folder, const LaidCoat& coat) {
            folder.lay(
                coat.key("disc"), [body, in = coat.lining ? thick : 0](Point q) { return body.at(q, in); }, grid, grid,
                0, Gathered::folds());
        });
        std::erase_if(
            m.facets, [](const Facet& f) { return f.piece == PieceId("disc") || f.piece == lined(PieceId("disc")); });
        return m;
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        const double r = p.values.at("radius"), neck = p.values.at("channel"), thick = thicknessOf(p, *p.piece("disc")),
                     inside = thicknessOf(p, *p.piece(lined("disc")));
        const Gathered body(r, neck, thick + inside);
        Mockup m = dressed(p, body, thick);
        const auto addDisc = [&](const PieceId& piece, double inwards, double radius, Coat coat, const char* kind) {
            for (auto& f : body.facets(*p.piece(piece), inwards, radius)) {
                f.coat = coat, f.kind = kind;
                m.facets.push_back(std::move(f));
            }
        };
        addDisc("disc", 0, r, Coat::Shell, "cloth");
        m.litres = body.litres(0);
        addDisc(lined("disc"), thick, r, Coat::Lining, "cloth");
        m.liningLitres = body.litres(thick);
        if (p.piece("pockets"))
            addDisc("pockets", thick + inside + 0.6, p.values.at("pocket.radius"), Coat::Lining, "overlay");
        for (const double side : {-1.0, 1.0}) {
            std::vector<Vec3> path;
            for (int i = 0; i <= Gathered::panels; i += 2) { // over the outer folds
                const double turn = 2 * pi * i / Gathered::panels;
                const Vec3 on = body.at(neck, turn, -2);
                path.push_back(Vec3{side * on.x, on.y, on.z});
            }
            const Vec3 out = path.front();
            // The tail hangs aslant and lies on the table as far as it reaches.
            const double tail = p.values.at("tail"), drop = std::min(out.y, 0.8 * tail),
                         lying = std::max(0.0, tail - drop / 0.8);
            path.insert(path.begin(), {out.x + side * 0.75 * drop, out.y - drop, out.z});
            path.insert(path.begin(), path.front() + Vec3{side * lying, 0, 0});
            foldRibbon(m, "", path, {0, 4, 0});
        }
        placeThings(m, design, p);
        m.handles = {{"radius", body.at(body.floor, 0, 0), {1, 0, 0}, 1 / Gathered::floorShare}};
        return m;
    }
};

} // namespace

const Form& circlePouch()
{
    static const CirclePouch form;
    return form;
}

} // namespace tectonis
