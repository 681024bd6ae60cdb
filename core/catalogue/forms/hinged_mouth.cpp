// SPDX-License-Identifier: GPL-3.0-or-later
// Hinged mouth: a boxed body whose mouth is held open by two metal stays in channels; a base board stands on the
// bottom.
#include "drafting/boxed.hpp"
#include "drafting/panels.hpp"
#include "forms/form.hpp"
#include "units/words.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class HingedMouth : public Form {
public:
    std::string id() const override { return "hinged-mouth"; }
    std::string name() const override { return "Hinged-mouth bag"; }
    std::string meaning() const override
    {
        return "A boxed body with two metal stays in channels round its mouth, so that it stands open; a board on the "
               "base.";
    }

    std::vector<Run> silhouette() const override
    {
        return {lineRun({{8, 8}, {92, 8}, {80, 66}, {20, 66}, {8, 8}}),
            lineRun({{20, 66}, {28, 78}, {72, 78}, {80, 66}}), {Cubic{{38, 78}, {38, 100}, {62, 100}, {62, 78}}}};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        std::vector<DimensionSpec> out{
            {"width", "Width", "Finished width of front and back, between the folds at the sides.", "320", step(30),
                "120", "700"},
            {"height", "Height", "Finished height from the base to the channels' lower seam.", "220", step(15), "80",
                "600"},
            {"depth", "Depth", "Finished depth that the boxed corners make.", "160", step(10), "60",
                "min(width, height)"},
            {"taper", "Taper", "How far each side leans in at the mouth.", "0", hold(), "0", "width/4"},
            {"stay.width", "Stay width", "Width of the metal stays.", "10", hold(), "4", "30"},
            {"stay.play", "Play in the channel", "How much higher the channel is than the stay.", "4", hold(), "2",
                "15"},
            {"stay.clear", "Stay ends clear",
                "From each end of a stay to the seam at the channel's end: where the hinge sits.", "8", hold(), "3",
                "30"},
            {"board.inset", "Base board inset", "Gap between base board and the edges of the base.", "4", hold(), "1",
                "15"},
        };
        for (auto& d : coatDimensions("0.9*width", "depth + 10"))
            out.push_back(d);
        return out;
    }

    std::vector<ChoiceSpec> choices() const override
    {
        std::vector<ChoiceSpec> out{{"boxing", "Boxing", "How the corners are boxed.",
            {{"pre-cut", "Squares cut first"}, {"from-seams", "Squares from the seams"},
                {"across", "Stitched across"}}}};
        for (auto& c : coatChoices(false))
            if (c.name == "assembly")
                out.push_back({c.name, c.label,
                    "Bagged out: the stays and the board go in through the turning opening.", {c.options.front()}});
            else
                out.push_back(c);
        return out;
    }

    std::vector<DerivedSpec> derived() const override
    {
        return {{"face.width", "width - 2*taper"}, {"face.height", "height"}, {"mouth.depth", "depth"},
            {"mouth.way", "depth + 2*(stay.width + stay.play)"}}; // over the channels, which stand on the mouth
    }

    std::vector<SiteSpec> sites() const override { return frontAndBack(true); }

    bool stands() const override { return true; }

    void furnish(Design& design) const override
    {
        furnishCoats(design);
        design.features = {{"slip", "slip-pocket"}};
        design.carried = {{"Case", 240, 150, 80, "main"}};
    }

    void draft(Drafter& d) const override
    {
        Pattern& p = d.pattern;
        p.width = d("width"), p.height = d("height"), p.depth = d("depth");
        CoatDraft shell = CoatDraft::shell(d);
        drawBoxed(shell);
        CoatDraft lining = CoatDraft::lining(d, liningShrink(d, "front"));
        drawBoxed(lining);
        workBoxedSlack(d, lining.shrink);
        drawChannels(d);
        drawBoard(d);
        addFaces(d, sites(), d("height") + d("depth") / 2);
        addMainSpace(d, "front", "front", d("width"), d("height"), d("depth"), 0);
        const double q = d("depth") / 2;
        p.handles = {{"width", "front", {d("width") / 2, q + d("height") / 2}, {1, 0}, 2},
            {"height", "front", {0, q + d("height")}, {0, 1}, 1},
            {"depth", "front", {d("width") / 2 + q, q}, {0, 1}, 2}};
        sewBoxed(shell);
        sewBoxed(lining);
        join(d);
    }

    /// A channel for each half of the mouth, folded over its stay: one long edge to the shell, the other to the lining.
    void drawChannels(Drafter& d) const
    {
        Pattern& p = d.pattern;
        const double half = d.piece("front").edge("top")->length(), s = d("allowance.mouth");
        const double tall = d.work({"channel", "channel.height", say("Channel, seam to seam"), "2*(stay + play)",
            {{"stay", d("stay.width")}, {"play", d("stay.play")}}, 0, Kind::Trade, "mm",
            say("folded over the stay, with room to slide it in")});
        const double stay = d.work({"channel", "stay.length", say("Length of each stay"), "mouth - 2*clear",
            {{"mouth", half}, {"clear", d("stay.clear")}}, 0, Kind::Geometry, "mm",
            say("half of the mouth less what the hinges need at both ends")});
        Piece& channel = d.add({.key = "channel",
            .code = "E",
            .name = say("Channel"),
            .coat = Coat::Shell,
            .role = "channel",
            .material = "shell",
            .count = 2,
            .grain = 0});
        drawRectangle(channel, half, tall, s);
        channel.lines.push_back(
            {"fold over the stay", FaceLine::Kind::Fold, lineRun({{0, tall / 2}, {half, tall / 2}})});
        const auto along = [](const char* edge, bool reversed) {
            return std::vector<EdgeUse>{{"channel", edge, 0, reversed}, {"channel", edge, 1, reversed}};
        };
        for (int i = 0; i < 2; ++i)
            d.add(Seam{.key = i == 0 ? "channel right" : "channel left",
                .name = say("Channel to channel, {}", (i == 0 ? say("right") : say("left"))),
                .a = {{"channel", "right", i}},
                .b = {{"channel", "left", 1 - i, true}},
                .allowance = s});
        const std::vector<EdgeUse> outside{{"front", "top", 0, true}, {"back", "top", 0, true}},
            inside{{lined("front"), "top", 0, true}, {lined("back"), "top", 0, true}};
        d.add(Seam{.key = "mouth",
            .name = say("Shell to channels"),
            .a = outside,
            .b = along("bottom", false),
            .allowance = s});
        d.add(Seam{.key = "mouth.lining",
            .name = say("Channels to lining"),
            .a = along("top", true),
            .b = inside,
            .allowance = s});
        p.hardware.push_back(
            {Ware::Stay, 2, stay, say("{} × {}", Len(stay), Len(d("stay.width"))), say("bare, in the channel")});
        p.hardware.push_back(
            {Ware::StayHinge, 2, d("stay.width"), say("{}", Len(d("stay.width"))), say("bare, in the channel")});
    }

    void drawBoard(Drafter& d) const
    {
        const double inset = d("board.inset");
        Piece& board = d.add({.key = "base.board",
            .code = "R",
            .name = say("Base board"),
            .coat = Coat::Interlining,
            .role = "board",
            .material = "board",
            .grain = 0});
        drawRectangle(board, d("width") - 2 * inset, d("depth") - 2 * inset, 0);
        board.note = say("Round the corners so that they do not wear through.");
    }

    void join(Drafter& d) const
    {
        d.add(Step{.id = "channel.ring",
            .title = say("Join the channels into a ring"),
            .acts = {act::sew({"channel right", "channel left"}),
                act::press({"channel right", "channel left"}, Act::To::Open),
                act::topstitch({"channel right", "channel left"}, 3.2, Act::To::Open),
                act::of(Act::Verb::Crease, "channel")},
            .kind = StepKind::Seam,
            .phase = "Joining",
            .consumes = {"channel"},
            .yields = "channels",
            .pieces = {"channel"},
            .check = say("The ring is as long as the mouth.")});
        d.add(Step{.id = "mouth",
            .title = say("Sew the channels to the shell"),
            .acts = {act::saying(act::sew({"mouth"}), say("The ring's joins lie on the side seams."))},
            .kind = StepKind::Seam,
            .phase = "Joining",
            .consumes = {"shell", "channels"},
            .yields = "shell with channels",
            .pieces = {"front", "back", "channel"},
            .check = say("Whatever hangs at the mouth is not caught below the seam.")});
        d.add(Step{.id = "mouth.lining",
            .title = say("Sew the lining to the channels"),
            .acts = {act::saying(act::sew({"mouth.lining"}),
                say("The shell lies, right side out, in the lining, wrong side out; the lining goes to the channels' "
                    "free "
                    "edge."))},
            .kind = StepKind::Seam,
            .phase = "Joining",
            .consumes = {"shell with channels", "lining"},
            .yields = "bag",
            .pieces = {lined("front"), lined("back"), "channel"},
            .check = say("Side seams meet.")});
        turnThrough(d, lined("bottom"), {"front", lined("front")});
        d.add(Step{.id = "stays",
            .title = say("Close the channels over the stays"),
            .acts = {{.verb = Act::Verb::PutIn,
                .pieces = {"channel"},
                .note = say(
                    "Slide each stay through the opening into the fold of its channel, hinges at the side seams; "
                    "stitch along the channel's lower seam, one needle's breadth above it."),
                .uses = {Ware::Stay, Ware::StayHinge}}},
            .kind = StepKind::Hardware,
            .phase = "Joining",
            .consumes = {"bag"},
            .yields = "bag",
            .pieces = {"channel"},
            .tools = {say("sewing machine"), say("zip foot")},
            .check = say("The mouth opens and closes freely."),
            .cautions = {say("Needle strike: keep the foot clear of the metal.")}});
        putBoardIn(d, "base.board");
        closeOpening(d, lined("bottom"));
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        // The channels stand on the mouth, folded flat to half their height.
        const double z = p.depth / 2, top = p.height, half = p.piece("channel")->edge("bottom")->length() / 2,
                     fold = half - z, tall = boundsOf(p.piece("channel")->stitch()).y1 / 2;
        Mockup m = foldCoats(p, [&](Folder& folder, const LaidCoat& coat) {
            foldBoxed(folder, p, coat);
            for (int i = 0; i < 2 && !coat.lining; ++i) {
                const double sign = i == 0 ? 1 : -1;
                folder.lay(
                    "channel",
                    [=](Point q) {
                        const double x = q.x - half, over = std::max(std::abs(x) - fold, 0.0);
                        return Vec3{sign * std::copysign(std::min(std::abs(x), fold), x),
                            top + std::min(q.y, 2 * tall - q.y), sign * (z - over)};
                    },
                    {half - fold, half + fold}, {tall}, i);
            }
        });
        dressUp(m, design, p, p.height, z);
        m.handles = {{"width", {p.width / 2, p.height * 0.45, 0}, {1, 0, 0}, 2},
            {"height", {-p.width * 0.3, p.height, z}, {0, 1, 0}, 1},
            {"depth", {p.width * 0.32, p.height * 0.1, z}, {0, 0, 1}, 2}};
        return m;
    }
};

} // namespace

const Form& hingedMouth()
{
    static const HingedMouth form;
    return form;
}

} // namespace tectonis
