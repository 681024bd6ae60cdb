// SPDX-License-Identifier: GPL-3.0-or-later
// Drawstring round the mouth: through eyelets, slits or a channel; positions evenly divided round the mouth's stitch line.
#include "features/feature.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class Drawstring : public FeatureKind {
public:
    std::string kind() const override { return "drawstring"; }
    std::string name() const override { return "Drawstring"; }
    std::vector<Run> silhouette() const override
    {
        return {Run{Cubic{{8, 56}, {8, 78}, {92, 78}, {92, 56}}}, Run{Cubic{{8, 56}, {8, 40}, {92, 40}, {92, 56}}}, Run{Cubic{{44, 44}, {30, 10}, {20, 30}, {26, 12}}}, Run{Cubic{{56, 44}, {70, 10}, {80, 30}, {74, 12}}}};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"count", "Eyelets or slits", "Number of eyelets or slits round the mouth; even, so that the cord ends on one side of the cloth.", "8", hold(), "4", "24", DimensionSpec::Quantity::Count, "@through=eyelets|slits"},
            {"drop", "Drop", "From the mouth down to the cord.", "35", hold(), "15", "0.4*face.height"},
            {"size", "Eyelet", "Inside diameter of the eyelets, or length of the slits.", "10", hold(), "4", "25", DimensionSpec::Quantity::Length, "@through=eyelets|slits"},
            {"astride", "Pair astride each strap", "Between the two eyelets or slits beside each strap at the sides; 0 divides all of them evenly.", "0", hold(), "0", "face.width/3", DimensionSpec::Quantity::Length, "@through=eyelets|slits"},
            {"channel", "Channel width", "Between the two rows that make a channel.", "15", hold(), "6", "40", DimensionSpec::Quantity::Length, "@through=channel"},
            {"tail", "Cord tail", "Length of cord left free at each end.", "250", hold(), "50", "800"},
        };
    }

    std::vector<ChoiceSpec> choices(const Form&) const override
    {
        return {{"through", "Cord runs through", "Eyelets or slits through all layers, or a channel between shell and lining.", {{"eyelets", "Eyelets"}, {"slits", "Slits"}, {"channel", "A channel"}}}};
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const Seam* mouth = d.pattern.seam("mouth");
        if (!mouth)
            throw InputError(f.id, "a drawstring needs an open mouth to run round; this form has none");
        const std::vector<EdgeUse> rim = mouth->a;
        double girth = 0;
        for (const auto& use : rim)
            girth += lengthOf(d.pattern.runOf(use));
        const std::string& through = f.choice("through");
        const double cord = d.work({f.id, f.key("cord"), "Cord", "mouth + 2*tail", {{"mouth", girth}, {"tail", f("tail")}}, 0, Kind::Geometry, "mm", "once round the mouth and two tails"});
        d.pattern.hardware.push_back({"Cord", 1, cord, lengthToken(cord), "as you like"});
        const int n = 2 * int(std::lround(f("count") / 2));
        std::vector<std::string> set;
        std::string first = rim.front().piece;
        if (through == "channel") {
            for (const auto& use : rim)
                for (const double row : {f("drop") - f("channel") / 2, f("drop") + f("channel") / 2})
                    d.piece(use.piece).lines.push_back({f.named("channel"), FaceLine::Kind::Topstitch, inside(d.pattern.runOf(use), use.reversed, row)});
        } else {
            int number = 0;
            for (const double along : positions(f, rim, girth, n))
                set.push_back(mark(f, rim, along, ++number, through == "slits"));
            if (through == "eyelets")
                d.pattern.hardware.push_back({"Eyelet", n, f("size"), lengthToken(f("size")) + " inside", "one finish for all metal"});
        }
        const bool hardware = through == "eyelets";
        d.add(Step{.id = f.key("set"), .title = hardware ? "Set the eyelets" : through == "slits" ? "Work the slits" : "Sew the channel",
                   .text = hardware          ? "Punch at the drill marks through shell and lining, set the eyelets over a washer."
                       : through == "slits" ? "Work a buttonhole of " + lengthToken(f("size")) + " at each mark through all layers and cut it open."
                                            : "Sew both rows round the mouth through shell and lining; leave a buttonhole in the shell at the middle of the front for the cord.",
                   .kind = hardware ? StepKind::Hardware : StepKind::Topstitch, .phase = "Strap", .consumes = {"bag"}, .yields = "bag", .pieces = {first}, .fittings = set, .tool = hardware ? "punch, eyelet setter, hammer" : "sewing machine",
                   .check = "They are evenly spaced and equally far from the mouth.", .cautions = hardware ? std::vector<std::string>{"Punch and hammer: wear eye protection."} : std::vector<std::string>{}});
        d.add(Step{.id = f.key("thread"), .title = "Thread the drawstring", .text = "Thread " + lengthToken(cord) + " of cord once round; knot or stop both ends.", .kind = StepKind::Strap, .phase = "Strap", .consumes = {"bag"}, .yields = "bag", .pieces = {first},
                   .tool = "bodkin", .check = "Pulled, the mouth closes evenly.", .cautions = {"Long cords: a strangulation hazard for small children."}});
    }

    /// Lengths along the mouth: evenly divided, or a pair astride each strap and the others evenly between the pairs.
    static std::vector<double> positions(FeatureScope& f, const std::vector<EdgeUse>& rim, double girth, int n)
    {
        Drafter& d = f.d;
        std::vector<double> out;
        const double astride = f("astride");
        const auto straps = astride > 0 ? anchorsAlong(d, rim) : std::vector<double>{};
        if (straps.size() != 2 || n < 6) {
            d.work({f.id, f.key("spacing"), "Spacing", "mouth/count", {{"mouth", girth}, {"count", double(n)}}, 0, Kind::Geometry, "mm", "evenly divided round the mouth's stitch line, half a spacing from the first seam"});
            for (int i = 0; i < n; ++i)
                out.push_back(girth * (i + 0.5) / n);
            return out;
        }
        const int between = (n - 4) / 2;
        for (int side = 0; side < 2; ++side) {
            const double from = straps[std::size_t(side)] + astride / 2, span = (side == 0 ? straps[1] - straps[0] : girth - straps[1] + straps[0]) - astride;
            if (span < 10 * (between + 1))
                throw InputError(f.id + ".astride", fmt::format("between the straps {:.1f} mm of mouth are left for {} eyelets; bring the pairs closer together or take fewer", span, between));
            d.work({f.id, f.key(side == 0 ? "spacing.one" : "spacing.other"), side == 0 ? "Spacing on one side" : "Spacing on the other side", "(span - astride)/(between + 1)",
                    {{"span", span + astride}, {"astride", astride}, {"between", double(between)}}, 0, Kind::Geometry, "mm", "between the pairs astride the straps, evenly divided"});
            for (int i = 0; i <= between + 1; ++i)
                out.push_back(std::fmod(from + span * i / (between + 1) + girth, girth));
        }
        return out;
    }

    /// Lengths along the mouth at which the places for straps lie, ascending.
    static std::vector<double> anchorsAlong(const Drafter& d, const std::vector<EdgeUse>& rim)
    {
        std::vector<double> out;
        double from = 0;
        for (const auto& use : rim) {
            const Run run = d.pattern.runOf(use);
            const double length = lengthOf(run);
            for (const auto& anchor : d.pattern.anchors) {
                if (anchor.piece != use.piece || (anchor.name != "left" && anchor.name != "right"))
                    continue;
                double nearest = 1e300, at = 0;
                for (int i = 0; i <= 400; ++i)
                    if (const double away = distance(pointAlong(run, length * i / 400), anchor.at); away < nearest)
                        nearest = away, at = from + length * i / 400;
                const bool known = std::any_of(out.begin(), out.end(), [&](double other) { return std::abs(other - at) < 1; });
                if (nearest < 0.5 && !known)
                    out.push_back(at);
            }
            from += length;
        }
        std::sort(out.begin(), out.end());
        return out;
    }

    /// A run moved to the inside of its piece. @p reversed tells that it was taken against the outline.
    static Run inside(const Run& run, bool reversed, double by)
    {
        Run out;
        for (const auto& s : run) {
            const Point in = rightOf(unit(endOf(s) - startOf(s))) * (reversed ? by : -by);
            out.push_back(placed(s, {in.x, in.y}));
        }
        return out;
    }

    /// One eyelet or slit at a length along the mouth.
    std::string mark(FeatureScope& f, const std::vector<EdgeUse>& rim, double along, int number, bool slit) const
    {
        Drafter& d = f.d;
        for (const auto& use : rim) {
            const Run run = d.pattern.runOf(use);
            const double n = lengthOf(run);
            if (along > n + 1e-9) {
                along -= n;
                continue;
            }
            const Point way = tangentAlong(run, along), in = rightOf(way) * (use.reversed ? 1.0 : -1.0), at = pointAlong(run, along) + in * f("drop");
            Piece& piece = d.piece(use.piece);
            piece.drills.push_back({at, slit ? "slit" : "eyelet"});
            if (slit)
                piece.lines.push_back({f.named("slit"), FaceLine::Kind::Slash, lineRun({at - in * (f("size") / 2), at + in * (f("size") / 2)})});
            const std::string key = f.key("eyelet" + std::to_string(number));
            d.pattern.fittings.push_back({key, (slit ? "Slit " : "Eyelet ") + std::to_string(number), use.piece, Fitting::Kind::Eyelet, at, f("size"), 0, "shell and lining"});
            return key;
        }
        return "";
    }
};

} // namespace

const FeatureKind& drawstringKind()
{
    static const Drawstring kind;
    return kind;
}

} // namespace tectonis
