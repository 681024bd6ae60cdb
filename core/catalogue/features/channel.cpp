// SPDX-License-Identifier: GPL-3.0-or-later
// A channel on a face: a strip stitched on at both long edges that holds a stay, a cord or an elastic.
#include "drafting/panels.hpp"
#include "features/feature.hpp"
#include "units/words.hpp"

namespace tectonis {
namespace {

using Kind = Working::Kind;

class Channel : public FeatureKind {
public:
    std::string kind() const override { return "channel"; }
    std::string shortName() const override { return "casing"; }
    std::string name() const override { return "Channel"; }
    std::vector<Run> silhouette() const override
    {
        return {lineRun({{8, 88}, {8, 12}, {92, 12}, {92, 88}, {8, 88}}),
            lineRun({{16, 58}, {84, 58}, {84, 74}, {16, 74}, {16, 58}}), lineRun({{2, 66}, {98, 66}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"length", "Channel length", "Finished length of the channel.", "face.width - 40", follow(), "30",
                "face.width - 20"},
            {"drop", "Channel drop", "From the mouth down to the channel's upper stitching.",
                "min(25, 0.2*face.height)", hold(), "12", "face.height - 30"},
            {"across", "Sideways",
                "From the middle of the face to the middle of the channel; to the right is positive.", "0", hold(),
                "-(face.width - @length)/2", "(face.width - @length)/2"},
            {"thing", "Width of what it holds", "Width of the stay or elastic, or diameter of the cord.", "10", hold(),
                "2", "40"},
            {"thick", "Thickness of what it holds", "Thickness of the stay or elastic, or diameter of the cord.", "2",
                hold(), "0.5", "12"},
            {"play", "Play", "What the channel is wider than needed.", "3", hold(), "1", "12"},
            {"clear", "Ends clear", "From each end of a stay to the channel's end.", "5", hold(), "0", "20",
                DimensionSpec::Quantity::Length, "@holds=stay"},
            {"hem", "Ends folded in", "Folded under at both ends.", "8", hold(), "4", "15"},
            {"allowance", "Edges folded in", "Folded under along both long edges.", "7", hold(), "4", "12"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        return {siteChoice(
                    on, "The face that it is stitched onto.", [](const SiteSpec&) { return true; }, "lining back"),
            {"holds", "Holds", "What runs through it.",
                {{"stay", "A metal stay"}, {"cord", "A cord"}, {"elastic", "An elastic"}}}};
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const Site& site = f.site();
        const double tall = d.work({f.id, f.key("height"), say("Channel between its stitchings"),
            "thing + thick + play", {{"thing", f("thing")}, {"thick", f("thick")}, {"play", f("play")}}, 0, Kind::Trade,
            "mm", say("width and thickness of what it holds, and play to slide it in")});
        const double half = f("length") / 2, top = site.top - f("drop"), low = top - tall, x = site.x + f("across"),
                     w = f("length");
        Piece& face = d.pieceAt(site, (top + low) / 2);
        const std::string holds = f.choice("holds"), role = site.lining ? "lining" : "shell";
        Piece& strip = d.add({.key = f.id,
            .code = d.freeCode("J"),
            .name = f.named(say("Channel")),
            .coat = site.lining ? Coat::Lining : Coat::Shell,
            .role = "channel strip",
            .material = role,
            .grain = 0});
        drawRectangle(strip, w, tall, f("allowance"));
        strip.edge("left")->allowance = strip.edge("right")->allowance = f("hem");
        const EdgeId mark = f.line("channel");
        f.placeOn(face, mark, rectangleRun(x - half, low, x + half, top));
        for (const auto& [edge, y] : {std::pair{"top", top}, {"bottom", low}}) {
            face.lines.push_back(
                {EdgeId(mark.text() + " " + edge), FaceLine::Kind::Topstitch, lineRun({{x - half, y}, {x + half, y}})});
            d.add(Seam{.key = f.key(edge),
                .name = say("{} on its face, {}", f.named(say("Channel")), sideLabel(edge)),
                .a = {{face.key, EdgeId(mark.text() + " " + edge)}},
                .b = {{f.id, edge, 0, std::string(edge) == "top"}},
                .stitch = "topstitch"});
        }
        d.pattern.overlays.push_back({f.id, face.key, {x - half, low}});
        const auto [kind, cut] = bought(f);
        d.pattern.hardware.push_back(
            {kind, 1, cut, say("{}, {} wide", Len(cut), Len(f("thing"))), say("in a channel")});
        f.handle("length", face.key, {x + half, (top + low) / 2}, {1, 0}, 2);
        f.handle("drop", face.key, {x, top}, {0, -1}, 1, Handle::From::Top);
        Step on{.id = f.key("on"),
            .title = say("Stitch the channel onto the {}", within(face.name)),
            .acts = {act::of(Act::Verb::HemEnds, f.id, f("hem")), act::of(Act::Verb::FoldIn, f.id, f("allowance")),
                act::saying(act::stitchOn({f.key("top"), f.key("bottom")}), say("Leave the ends open.")),
                act::with(act::of(holds == "cord" ? Act::Verb::Note : Act::Verb::DrawIn, f.id), {kind})},
            .kind = StepKind::Flat,
            .phase = site.phase,
            .consumes = {face.key, f.id},
            .yields = face.key,
            .pieces = {f.id, face.key},
            .check = say("What it holds slides through before the ends are closed.")};
        d.addOnTop(std::move(on), face.key);
    }

    /// What it holds, and how long that is, mm.
    static std::pair<Ware, double> bought(FeatureScope& f)
    {
        Drafter& d = f.d;
        const std::string& holds = f.choice("holds");
        const double w = f("length");
        if (holds == "stay")
            return {Ware::Stay,
                d.work({f.id, f.key("stay"), say("Stay"), "length - 2*clear", {{"length", w}, {"clear", f("clear")}}, 0,
                    Kind::Geometry, "mm", say("clear of both ends")})};
        if (holds == "cord")
            return {Ware::Cord,
                d.work({f.id, f.key("cord"), say("Cord"), "length + 2*tail", {{"length", w}, {"tail", 200}}, 0,
                    Kind::Trade, "mm", say("with a tail of {} at both ends", Len(200))})};
        return {Ware::Elastic,
            d.work({f.id, f.key("elastic"), say("Elastic"), "0.8*length + 2*end", {{"length", w}, {"end", 15}}, 0,
                Kind::Trade, "mm", say("four fifths of the channel at rest, {} to sew at both ends", Len(15))})};
    }
};

} // namespace

const FeatureKind& channelKind()
{
    static const Channel kind;
    return kind;
}

} // namespace tectonis
