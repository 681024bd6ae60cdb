// SPDX-License-Identifier: GPL-3.0-or-later
// Flap of two layers, turned, caught in a seam across the back.
#include "drafting/panels.hpp"
#include "features/feature.hpp"
#include "units/words.hpp"

namespace tectonis {
namespace {

using Kind = Working::Kind;

class Flap : public FeatureKind {
public:
    std::string kind() const override { return "flap"; }
    std::string name() const override { return "Flap"; }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"hinge", "Hinge drop", "From the back's top edge down to the seam that holds the flap.", "25", hold(), "15", "height/3"},
            {"length", "Flap length", "From the hinge seam to the flap's lower edge, along the flap.", "@hinge + depth + 0.6*height", follow(), "60",
             "@hinge + depth + 1.1*height"},
            {"width", "Flap width", "Finished width of the flap.", "width - 2*max(taper, 0) - 10", follow(), "60",
             "min(width, width - 2*taper*(height - @hinge)/height) - 4"},
            {"radius", "Flap corner radius", "Radius of the flap's two lower corners.", "60", hold(), "4", "min(@width/2, @length)"},
            {"allowance", "Flap allowance", "Seam allowance round the flap; graded and clipped before turning.", "6.4", hold(), "4", "15"},
        };
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const UPanel shape{.width = f("width"), .height = f("length"), .radius = f("radius"), .allowance = f("allowance"), .topAllowance = d("allowance.body"),
                           .top = "hinge"};
        Piece& outer = d.add({.key = f.key("outer"), .code = "D", .name = "Flap", .group = PieceGroup::Shell, .role = "flap", .material = "shell"});
        drawUPanel(outer, shape);
        Piece& under = d.add({.key = f.key("lining"), .code = "LD", .name = "Flap lining", .group = PieceGroup::Lining, .role = "flap lining", .material = "lining"});
        drawUPanel(under, shape);
        d.add(Seam{.key = f.key("turned"), .name = "Flap to its lining", .a = d.runWithout(f.key("outer"), "hinge"), .b = d.runWithout(f.key("lining"), "hinge"),
                   .allowance = f("allowance")});

        const double y = d("height") - f("hinge"), half = f("width") / 2;
        cutAcross(d, {.piece = "back", .y = y, .stops = {-half, half}, .edgeNames = {"left of hinge", "hinge", "right of hinge"},
                      .upper = {.key = "back.upper", .code = "B1", .name = "Back, upper"}, .lower = {.key = "back.lower", .code = "B2", .name = "Back, lower"},
                      .allowance = d("allowance.body")});
        const std::vector<EdgeUse> above{{"back.upper", "left of hinge"}, {"back.upper", "hinge"}, {"back.upper", "right of hinge"}};
        const std::vector<EdgeUse> below{{"back.lower", "left of hinge", 0, true}, {"back.lower", "hinge", 0, true}, {"back.lower", "right of hinge", 0, true}};
        d.add(Seam{.key = f.key("hinge"), .name = "Back seam with the flap", .a = above, .b = below, .allowance = d("allowance.body"),
                   .trapped = {f.key("outer"), f.key("lining")}});
        d.add(Seam{.key = f.key("caught"), .name = "Flap in the back seam", .a = {{"back.upper", "hinge"}}, .b = {{f.key("outer"), "hinge", 0, true}},
                   .allowance = d("allowance.body"), .stitch = "baste"});
        for (const char* half2 : {"back.upper", "back.lower"}) {
            auto& notches = d.piece(half2).notches;
            const Edge& e = *d.piece(half2).edge("hinge");
            notches.push_back({"hinge", 0, "flap ends", true});
            notches.push_back({"hinge", e.length(), "flap ends", true});
        }
        d.pattern.handles.push_back({f.id + ".length", f.key("outer"), {0, 0}, {0, -1}, 1});
        steps(f);
    }

    void steps(FeatureScope& f) const
    {
        Drafter& d = f.d;
        const double s = f("allowance");
        d.work({f.key("outer"), f.key("clip"), "Clip spacing at the flap's corners", "opening*radius/allowance",
                {{"opening", 3}, {"radius", f("radius")}, {"allowance", s}}, 0, Kind::Trade, "mm", "notch out wedges on the convex corner; {3} is common practice"});
        const std::string outer = f.key("outer"), lining = f.key("lining");
        d.add(Step{.id = f.key("sew"), .title = "Sew the flap to its lining",
                   .text = "Right sides together, sew the sides and the lower edge at " + lengthToken(s) + "; leave the hinge edge open.", .kind = StepKind::Seam,
                   .phase = "Shell back", .consumes = {outer, lining}, .yields = f.id, .pieces = {outer, lining}, .seams = {f.key("turned")}, .allowance = s,
                   .stitch = "2.5–3 mm, lockstitch 301", .tool = "sewing machine", .check = "The snap half on the lining is set."});
        d.add(Step{.id = f.key("turn"), .title = "Turn and topstitch the flap",
                   .text = "Grade the allowances, notch the corners, turn through the hinge edge, roll the seam to the edge, press. Topstitch {3.2} from the edge.",
                   .kind = StepKind::Topstitch, .phase = "Shell back", .consumes = {f.id}, .yields = f.id, .pieces = {outer, lining}, .seams = {f.key("turned")},
                   .stitch = "3.5–4 mm, lockstitch 301", .tool = "iron, sewing machine", .check = "Both corners mirror each other.",
                   .cautions = {"Iron and steam: mind your hands; test the heat on an offcut."}});
        d.add(Step{.id = f.key("baste"), .title = "Baste the flap to the lower back",
                   .text = "Flap lining against the right side of the lower back's top edge, ends on the stop squares; baste {4} from the edge.", .kind = StepKind::Baste,
                   .phase = "Shell back", .consumes = {f.id, "back.lower"}, .yields = "back.lower", .pieces = {outer, "back.lower"}, .seams = {f.key("caught")},
                   .allowance = 4, .stitch = "4–5 mm, basting", .tool = "sewing machine", .check = "The flap is centred: both ends on their marks."});
        d.add(Step{.id = f.key("join"), .title = "Join the upper and the lower back over the flap",
                   .text = "Right sides together with the flap between, sew at " + lengthToken(d("allowance.body")) + ". Press the allowances up and topstitch {3.2} above the seam.",
                   .kind = StepKind::Seam, .phase = "Shell back", .consumes = {"back.upper", "back.lower"}, .yields = "back", .pieces = {"back.upper", "back.lower", outer},
                   .seams = {f.key("hinge")}, .allowance = d("allowance.body"), .stitch = "2.5–3 mm, lockstitch 301", .tool = "sewing machine",
                   .check = "Laid flat, the back is as tall as the front."});
    }
};

} // namespace

const FeatureKind& flapKind()
{
    static const Flap kind;
    return kind;
}

} // namespace tectonis
