// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/long_strip.hpp"

#include "drafting/panels.hpp"
#include "drafting/strip_width.hpp"
#include "units/words.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {

namespace {

constexpr int kMost = 400; // strips: more are no strap

/// A run whose points lie @p rise mm higher at x = @p rise than at x = 0: slanting at 45°.
Run sheared(const Run& run, double rise)
{
    std::vector<Point> points;
    for (const Point p : flattened(run, 0.01))
        points.push_back({p.x, p.y + std::clamp(p.x, 0.0, rise)});
    return lineRun(points);
}

} // namespace

ChoiceSpec joinsChoice(const std::string& when)
{
    return {"joins", "Strips joined",
        "Where it is longer than its cloth is wide: straight across; aslant at 45°, so that the join's layers do not "
        "lie on one spot; or spliced, one end lapped flat over the other and stitched through, for what does not fray.",
        {{"straight", "Straight across"}, {"diagonal", "Aslant"}, {"lapped", "Spliced, lapped flat"}}, when};
}

LongStrip::Joins joinsOf(const std::string& chosen)
{
    using Joins = LongStrip::Joins;
    return chosen == "diagonal" ? Joins::Diagonal : chosen == "lapped" ? Joins::Lapped : Joins::Straight;
}

DrawnStrip drawLongStrip(FeatureScope& f, const LongStrip& strip)
{
    Drafter& d = f.d;
    const Material& cloth = d.pattern.material(d.pattern.materials.at(strip.material));
    const bool webbing = cloth.kind == "webbing";
    // A piece that is the whole part names its strips and joins after the part, others after themselves.
    const std::string own = strip.piece.name().empty() ? "" : strip.piece.name() + ".";
    DrawnStrip out;
    bool aslant = false;
    // Along the strip, what its slanting end takes beyond the middle of the other.
    const double slant = strip.cut, more = 2 * std::sqrt(2.0) * strip.allowance;
    if (!webbing) {
        const double usable = cloth.width - 20;
        out.count = int(std::ceil((strip.length - 1e-9) / usable));
        aslant = strip.joins == LongStrip::Joins::Diagonal && out.count > 1;
        const auto tooLong = [&] {
            return aslant ? (strip.length + slant) / out.count + slant + more > usable
                          : out.count * usable < strip.length + 2 * (out.count - 1) * strip.allowance;
        };
        while (tooLong() && out.count < kMost)
            ++out.count;
    }
    const double s = out.count > 1 ? strip.allowance : 0;
    const bool lapped = strip.joins == LongStrip::Joins::Lapped && out.count > 1;
    const double each = aslant
        ? d.work({f.id, f.key(own + "strip"), say("Length of each strip, stitch line to stitch line"),
            "(length + width)/strips", {{"length", strip.length}, {"width", strip.cut}, {"strips", double(out.count)}},
            0, Working::Kind::Geometry, "mm",
            say("joined at 45°; cut square, the outer ends take the strip's width once")})
        : d.work({f.id, f.key(own + "strip"), say("Cut length of each strip"), "(length + 2*joins*allowance)/strips",
              {{"length", strip.length}, {"joins", out.count - 1.0}, {"allowance", strip.allowance},
                  {"strips", double(out.count)}},
              0, Working::Kind::Geometry, "mm",
              lapped ? say("every join costs two allowances, which lie on each other; strips are no longer than the "
                           "cloth is wide")
                     : say("every join costs two allowances; strips are no longer than the cloth is wide")})
            - 2 * s;
    Piece& piece = d.add({.key = strip.piece,
        .code = strip.code,
        .name = out.count > 1 ? strip.strip : strip.name,
        .coat = Coat::Strip,
        .role = "strap",
        .material = strip.material,
        .count = out.count});
    // The stitch line of a joined strip ends at its joins; outer ends of the outer strips are cut there too.
    drawRectangle(piece, strip.cut, each, 0);
    if (aslant)
        for (auto& e : piece.edges) // the right edge lies as much higher as the strip is wide
            e.stitch = sheared(e.stitch, strip.cut);
    for (auto& e : piece.edges)
        if (e.name == "top" || e.name == "bottom")
            e.allowance = s;
    addStripFolds(piece, strip.width, strip.cut, each, strip.turn);
    if (aslant)
        for (auto& line : piece.lines)
            line.run = sheared(line.run, strip.cut);
    out.pieces = {strip.piece};
    if (!webbing && strip.turn > 0)
        out.pieces.push_back(addFacing(d, strip.piece, say("{}, facing", within(piece.name))));
    if (!webbing && strip.padded)
        addPadding(d, strip.piece, strip.turn, out.count > 1 ? 0 : strip.clear, say("padding of the strap"));
    std::vector<SeamId> joins;
    for (const auto& layer : out.pieces)
        for (int i = 1; i < out.count; ++i) {
            const bool facing = layer != strip.piece;
            joins.push_back(f.key(own + (facing ? "facing.join" : "join") + std::to_string(i)));
            const Message name = strip.join.withArguments({i});
            d.add(Seam{.key = joins.back(),
                .name = facing ? say("{}, facing", within(name)) : name,
                .a = {{layer, "top", i - 1}},
                .b = {{layer, "bottom", i, true}},
                .allowance = s,
                .rawOutside = lapped ? layer : PieceId()});
        }
    if (webbing) {
        out.make = {act::of(Act::Verb::SealCut, strip.piece)};
        return out;
    }
    out.make.push_back({.verb = Act::Verb::JoinStrips,
        .pieces = out.pieces,
        .distance = strip.allowance,
        .taken = lapped ? 2 * strip.allowance : 0});
    out.make.push_back({.verb = Act::Verb::FoldStrip,
        .seams = joins,
        .pieces = out.pieces,
        .distance = strip.width,
        .taken = strip.turn});
    return out;
}

} // namespace tectonis
