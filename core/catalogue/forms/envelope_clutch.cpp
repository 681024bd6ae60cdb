// SPDX-License-Identifier: GPL-3.0-or-later
// Envelope clutch: one piece folded twice, sized from the thing it holds.
#include "drafting/coat.hpp"
#include "drafting/unlined.hpp"
#include "forms/form.hpp"
#include "mockup/folder.hpp"
#include "units/words.hpp"

#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class EnvelopeClutch : public Form {
public:
    std::string id() const override { return "envelope-clutch"; }
    std::string name() const override { return "Envelope clutch"; }
    std::string meaning() const override
    {
        return "One piece folded: pocket front, pocket back, flap; its measures follow from the thing it holds.";
    }

    std::vector<Run> silhouette() const override
    {
        return {lineRun({{10, 14}, {90, 14}, {90, 70}, {10, 70}, {10, 14}}),
            lineRun({{10, 70}, {34, 36}, {66, 36}, {90, 70}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        std::vector<DimensionSpec> out{
            {"thing.width", "Thing's width", "Width of the thing it is made for, lying as it goes in.", "210", step(20),
                "40", "500"},
            {"thing.height", "Thing's height", "Height of the thing.", "140", step(10), "30", "500"},
            {"thing.thickness", "Thing's thickness", "Thickness of the thing.", "15", hold(), "0", "60"},
            {"ease", "Ease", "Room round the thing in the width.", "12", hold(), "4", "60"},
            {"width", "Width", "Finished width of the clutch.", "thing.width + thing.thickness + ease", follow(),
                "thing.width + thing.thickness", "620"},
            {"height", "Pocket depth", "From the mouth to the fold at the bottom.",
                "thing.height + thing.thickness/2 + 8", follow(), "thing.height + thing.thickness/2", "620"},
            {"flap.reach", "Flap length", "From the fold at the top to the flap's edge.", "0.6*height", follow(), "30",
                "height - 5"},
            {"flap.taper", "Flap taper", "How far each side of the flap leans in at its edge.", "width/4", follow(),
                "0", "width/2 - 20"},
        };
        for (auto& d : coatDimensions("0.9*height", "0.78*height"))
            out.push_back(d);
        return out;
    }

    std::vector<ChoiceSpec> choices() const override
    {
        std::vector<ChoiceSpec> out;
        for (auto& c : coatChoices(false))
            out.push_back(c.name == "assembly"
                    ? ChoiceSpec{c.name, c.label,
                        "Bagged out through a turning opening; or no lining, its flap and mouth cut where they end, of "
                        "cloth that does not fray.",
                        {c.options.front(), unlinedOptions().back()}}
                    : c);
        return out;
    }

    std::vector<DerivedSpec> derived() const override
    {
        return {{"face.width", "width"}, {"face.height", "height"}, {"mouth.depth", "2"},
            {"flap.face.width", "width - 2*flap.taper"}, {"flap.face.height", "flap.reach"}};
    }

    std::vector<SiteSpec> sites() const override
    {
        return {{"lining back", "Lining back", true, false}, {.name = "front", .label = "Front", .small = true},
            {.name = "back", .label = "Back", .small = true},
            {.name = "flap", .label = "Flap", .small = true, .own = "flap."},
            {.name = "lining front", .label = "Lining front", .lining = true, .small = true}};
    }
    std::vector<SiteSpec> underOwnFlap() const override { return {{"front", "Front", false, false}}; }

    void furnish(Design& design) const override
    {
        furnishCoats(design);
        design.layers = {{"panel", "fleece-fusible", "fused", "stitch", {}, ""},
            {"lining panel", "fusible-woven", "fused", "full", {}, ""},
            {"pocket", "fusible-woven", "fused", "full", {}, ""}};
        design.features = {{"snap", "snap"}, {"slip", "slip-pocket"}};
        design.dimensions["snap.diameter"] = {"14", stock("snap"), {}, {}};
        design.dimensions["snap.drop"] = {"0.3*height", follow(), {}, {}};
        design.carried = {{"Tablet", 180, 130, 10, "main"}};
    }

    /// How much longer the piece is for each fold: half of the folded thickness.
    double foldLoss(const Pattern& p) const { return p.values.at("thing.thickness") / 2; }

    void draft(Drafter& d) const override
    {
        Pattern& p = d.pattern;
        p.width = d("width"), p.height = d("height"), p.depth = d("thing.thickness");
        CoatDraft shell = CoatDraft::shell(d);
        drawCoat(shell);
        // Folded inside the shell the lining's way is half a turn about the wall's thickness shorter; flap and mouth
        // stay, where they are sewn to each other.
        CoatDraft lining = CoatDraft::lining(d, liningShrink(d, "body"));
        if (lining.shrink > 0)
            d.work({lined("body"), "lining.fold", say("Lining shorter at the bottom fold"), "pi*wall",
                {{"wall", lining.shrink}}, 0, Kind::Geometry, "mm",
                say("a wrapped half turn inside a wall of that thickness: π·t less")});
        drawCoat(lining);
        workWide(d, "body");
        const auto hull = [&](double in) { return Hull{p.width - 2 * in, 0, 0, 2 * (p.width - 2 * in)}; };
        workSlack(d, "body", hull(0), hull(std::max(lining.shrink, lining.wide)),
            hull(d.stack("panel", "body", "shell")).girth);
        d.work({"body", "body.length", say("Length of the piece"), "2*height + loss + reach + loss/2",
            {{"height", d("height")}, {"loss", foldLoss(p)}, {"reach", d("flap.reach")}}, 0, Kind::Geometry, "mm",
            say("the pocket's depth twice and the flap; each fold loses half of the folded thickness")});
        const double back = 2 * d("height") + foldLoss(p) - pi * lining.shrink;
        p.sites.push_back(
            {"lining back", say("Lining back"), {lined("body")}, 0, back, d("width"), d("height"), "Lining", true});
        // Front and flap hang head down when the piece lies face up: mouth and fold are their tops.
        const auto offer = [&](const char* name, Message label, bool inside, double top, int turn) {
            const bool flap = std::string(name) == "flap";
            p.sites.push_back({.name = SiteId(name),
                .label = std::move(label),
                .pieces = {inside ? lined("body") : PieceId("body")},
                .top = turn == 2 ? -top : top,
                .width = d(flap ? "flap.face.width" : "width"),
                .height = d(flap ? "flap.reach" : "height"),
                .phase = inside ? "Lining" : "Shell front",
                .lining = inside,
                .turn = turn});
        };
        const double outside = 2 * d("height") + foldLoss(p);
        offer("front", say("Front"), false, 0, 2);
        offer("back", say("Back"), false, outside, 0);
        offer("flap", say("Flap"), false, outside + foldLoss(p) / 2, 2);
        offer("lining front", say("Lining front"), true, 0, 2);
        p.spaces.push_back({"main", say("Main space"), d("width") - d("thing.thickness"), d("height"),
            d("thing.thickness") + 4, 0, false});
        p.handles = {{"thing.width", "body", {d("width") / 2, d("height") / 2}, {1, 0}, 2},
            {"flap.reach", "body", {0, boundsOf(d.piece("body").stitch()).y1}, {0, 1}, 1}};
        offerFlap(d);
        sewCoat(shell);
        sewCoat(lining);
        joinCoats(d,
            {.mouth = mouth(),
                .open = lined("left"),
                .more = say("The row begins at the front's mouth and runs on round the flap; at its corners stop with "
                            "the needle down and turn.")});
    }

    /// From the pocket's mouth upwards: front, fold, back, fold, flap; face up, the front hangs head down.
    void drawCoat(CoatDraft& c) const
    {
        Drafter& d = c.d;
        const double w = d("width") / 2, h = d("height"), loss = foldLoss(d.pattern), in = std::max(c.shrink, c.wide),
                     bottom = h + loss / 2 - pi * c.shrink / 2, back = 2 * bottom,
                     end = back + loss / 2 + d("flap.reach"), tip = w - d("flap.taper"), s = c.allowance;
        Piece& piece = c.add("body", "A", say("Body"), "panel");
        const double turned = back + loss / 2;
        // A wider seam widens from the mouth to the fold.
        const std::optional<double> low = c.wide > 0 ? std::optional(s + c.wide) : std::nullopt,
                                    top = c.wide > 0 ? std::optional(s) : std::nullopt;
        piece.edges = {{"front top", lineRun({{-w, 0}, {w, 0}}), c.mouth, {}},
            {"right front", lineRun({{w, 0}, {w - in, bottom}}), s, low},
            {"right back", lineRun({{w - in, bottom}, {w, back}}), s + c.wide, top},
            {"right flap", lineRun({{w, back}, {w, turned}, {tip, end}}), c.mouth, {}},
            {"flap end", lineRun({{tip, end}, {-tip, end}}), c.mouth, {}},
            {"left flap", lineRun({{-tip, end}, {-w, turned}, {-w, back}}), c.mouth, {}},
            {"left back", lineRun({{-w, back}, {-w + in, bottom}}), s, low},
            {"left front", lineRun({{-w + in, bottom}, {-w, 0}}), s + c.wide, top}};
        if (loss < 1e-9)
            for (const char* name : {"right flap", "left flap"})
                std::erase_if(piece.edge(name)->stitch, [](const Segment& seg) { return lengthOf(seg) < 1e-9; });
        piece.lines.push_back({"bottom fold", FaceLine::Kind::Fold, lineRun({{-w + in, bottom}, {w - in, bottom}})});
        piece.lines.push_back({"flap fold", FaceLine::Kind::Fold, lineRun({{-w, turned}, {w, turned}})});
        c.join("right", say("Right side"), {c.use("body", "right front", true)}, {c.use("body", "right back")})
            .allowance += c.wide;
        Seam& left = c.join(
            "left", say("Left side"), {c.use("body", "left front")}, {c.use("body", "left back", true)});
        left.allowance += c.wide;
        c.leaveOpen(left);
    }

    std::vector<EdgeUse> mouth() const
    {
        return {{"body", "front top"}, {"body", "right flap"}, {"body", "flap end"}, {"body", "left flap"}};
    }

    void sewCoat(CoatDraft& c) const
    {
        c.sew({.id = "sides",
            .title = say("Sew the {}", c.what(say("sides"))),
            .seams = {"right", "left"},
            .consumes = {"body"},
            .yields = "shell",
            .phase = "Shell assembly",
            .before = {act::foldInHalf(c.key("body"))},
            .then = {act::note(say("Stop exactly at the mouth and back-stitch; clip there to the stitch line."))},
            .check = say("The flap's allowances are free.")});
    }

    /// Seen by who looks at the closed clutch the front hangs head down, and the flap's lining has come over.
    void offerFlap(Drafter& d) const
    {
        // Without a lining the flap itself carries what closes it, seen from its outside.
        const bool bare = unlined(d);
        const PieceId under = bare ? PieceId("body") : lined(PieceId("body"));
        const double end = boundsOf(d.piece(under).stitch()).y1;
        d.ownFlap = OwnFlap{.face = "body",
            .mouth = {0, 0},
            .down = {0, 1},
            .right = {-1, 0},
            .phase = "Shell front",
            .under = under,
            .fold = {0, end - d("flap.reach")},
            .out = {0, 1},
            .across = {bare ? -1.0 : 1.0, 0},
            .underPhase = bare ? "Shell front" : "Lining",
            .way = d("thing.thickness") / 2,
            .allowance = bare ? 0 : d("allowance.mouth")};
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        const double h = p.height, loss = foldLoss(p), outside = h + loss / 2;
        Mockup m = foldCoats(p, [&](Folder& folder, const LaidCoat& coat) {
            const double z = !coat.lining ? 0.2 : 0.1;
            const double bottom = outside - pi * coat.in / 2, lift = outside - bottom,
                         turned = 2 * bottom + loss / 2; // mouths are level
            folder.lay(coat.key("body"),
                [=](Point q) -> Vec3 {
                    if (q.y <= bottom)
                        return {-q.x, lift + bottom - q.y, z};
                    if (q.y <= turned)
                        return {-q.x, lift + q.y - bottom, -z};
                    return {-q.x, lift + (turned - bottom) - (q.y - turned), z + 2};
                },
                {}, {bottom, turned});
        });
        m.litres = p.values.at("thing.width") * h * p.depth / 1e6; // a sheet folded flat holds what it is made for
        placeThings(m, design, p);
        m.handles = {{"thing.width", {p.width / 2, h * 0.4, 0}, {1, 0, 0}, 2},
            {"thing.height", {-p.width * 0.3, h, 0}, {0, 1, 0}, 1}};
        return m;
    }
};

} // namespace

const Form& envelopeClutch()
{
    static const EnvelopeClutch form;
    return form;
}

} // namespace tectonis
