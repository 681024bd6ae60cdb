// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/long_strip.hpp"

#include "drafting/panels.hpp"
#include "drafting/strip_width.hpp"
#include "units/words.hpp"

#include <cmath>

namespace tectonis {

DrawnStrip drawLongStrip(FeatureScope& f, const LongStrip& strip)
{
    Drafter& d = f.d;
    const Material& cloth = d.pattern.material(d.pattern.materials.at(strip.material));
    const bool webbing = cloth.kind == "webbing";
    // A piece that is the whole part names its strips and joins after the part, others after themselves.
    const std::string own = strip.piece.name().empty() ? "" : strip.piece.name() + ".";
    DrawnStrip out;
    if (!webbing) {
        const double usable = cloth.width - 20;
        out.count = int(std::ceil((strip.length - 1e-9) / usable));
        while (out.count * usable < strip.length + 2 * (out.count - 1) * strip.allowance)
            ++out.count;
    }
    const double each = d.work(
        {f.id, f.key(own + "strip"), say("Cut length of each strip"), "(length + 2*joins*allowance)/strips",
            {{"length", strip.length}, {"joins", out.count - 1.0}, {"allowance", strip.allowance},
                {"strips", double(out.count)}},
            0, Working::Kind::Geometry, "mm",
            say("every join costs two allowances; strips are no longer than the cloth is wide")});
    const double s = out.count > 1 ? strip.allowance : 0;
    Piece& piece = d.add({.key = strip.piece,
        .code = strip.code,
        .name = out.count > 1 ? strip.strip : strip.name,
        .coat = Coat::Strip,
        .role = "strap",
        .material = strip.material,
        .count = out.count});
    // The stitch line of a joined strip ends at its joins; outer ends of the outer strips are cut there too.
    drawRectangle(piece, strip.cut, each - 2 * s, 0);
    for (auto& e : piece.edges)
        if (e.name == "top" || e.name == "bottom")
            e.allowance = s;
    addStripFolds(piece, strip.width, strip.cut, each - 2 * s);
    for (int i = 1; i < out.count; ++i) {
        out.joins.push_back(f.key(own + "join" + std::to_string(i)));
        d.add(Seam{.key = out.joins.back(),
            .name = strip.join.withArguments({i}),
            .a = {{strip.piece, "top", i - 1}},
            .b = {{strip.piece, "bottom", i, true}},
            .allowance = s});
    }
    if (webbing)
        out.make = {act::of(Act::Verb::SealCut, strip.piece)};
    else
        out.make = {act::of(Act::Verb::JoinStrips, strip.piece, strip.allowance),
            {.verb = Act::Verb::FoldStrip, .seams = out.joins, .pieces = {strip.piece}, .distance = strip.width}};
    return out;
}

} // namespace tectonis
