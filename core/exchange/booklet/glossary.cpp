// SPDX-License-Identifier: GPL-3.0-or-later
#include "booklet/glossary.hpp"

#include <algorithm>

namespace tectonis {

std::vector<Term> glossaryOf(const std::set<Act::Verb>& verbs)
{
    using V = Act::Verb;
    struct Row {
        Term term;
        std::set<V> in;
    };
    const std::vector<Row> rows{{{label("Right side"), say("the face of a cloth: what is seen in the finished bag.")},
                                    {V::Sew, V::StitchOn, V::Lay}},
        {{label("Allowance"), say("cloth between a stitch line and the cut edge.")}, {V::Sew, V::Clip, V::Grade}},
        {{label("Baste"), say("to hold layers with long stitches inside the allowance; they stay or are taken out.")},
            {V::Baste, V::Line}},
        {{label("Topstitch"), say("a row that shows, sewn from the right side beside a seam or an edge.")},
            {V::Topstitch, V::Roll, V::Hem, V::SewTape}},
        {{label("Edge-stitch"), say("a row close to a folded edge, {} from it.", Len(2))},
            {V::StitchOn, V::InsertZip, V::DropIn, V::FoldStrip}},
        {{label("Clip"), say("to snip into an allowance, so that a straight edge can go round a curve.")}, {V::Clip}},
        {{label("Notch out"), say("to cut small wedges from an allowance, so that it lies flat within a curve.")},
            {V::Notch, V::Grade}},
        {{label("Grade"),
             say("to trim the layers of an allowance to different widths, so that none shows as a ridge.")},
            {V::Grade}},
        {{label("Bag out"),
             say("to sew shell and lining round the mouth, right sides together, and turn the bag through an "
                 "opening.")},
            {V::JoinCoats}},
        {{label("Drop in"), say("to put the finished lining into the finished shell, wrong sides together.")},
            {V::DropIn}},
        {{label("Bar tack"), say("some stitches forth and back across the end of a row.")},
            {V::StitchOn, V::InsertZip}},
        {{label("Box-X stitch"), say("a square with both diagonals: it holds the end of a strap.")}, {V::ThreadStrap}},
        {{label("Box a corner"),
             say("to give depth to a corner: its two seams are laid on each other and sewn across.")},
            {V::Box}},
        {{label("Binding"), say("a strip that covers raw edges on both sides; on the bias round curves.")}, {V::Bind}},
        {{label("Stop square"), say("a mark where a seam begins or ends inside its edge.")}, {V::Sew}},
        {{label("Placement line"), say("a line on the right side on which something is laid.")}, {V::StitchOn}}};
    std::vector<Term> out;
    for (const auto& row : rows)
        if (std::any_of(row.in.begin(), row.in.end(), [&](V v) { return verbs.contains(v); }))
            out.push_back(row.term);
    return out;
}

std::vector<Message> careOf(const std::vector<const Material*>& materials)
{
    const auto any = [&](const auto& is) {
        return std::any_of(materials.begin(), materials.end(), [&](const Material* m) { return is(*m); });
    };
    const auto kind = [&](const char* wanted) { return any([&](const Material& m) { return m.kind == wanted; }); };
    std::vector<Message> out;
    if (kind("leather"))
        out.push_back(say("Leather: wipe with a soft cloth, no water; feed it as its maker says. Do not wash."));
    else if (kind("board") || any([](const Material& m) { return m.rigid; }))
        out.push_back(say("Do not wash: the board would warp. Clean spots with a damp cloth."));
    else if (kind("waxed"))
        out.push_back(say("Waxed cloth: brush it, clean spots with cold water and no soap. Do not wash."));
    else if (kind("vinyl") || kind("coated"))
        out.push_back(say("Wipe with a damp cloth and mild soap. Do not wash in a machine."));
    else
        out.push_back(
            say("Wash by hand, cold, if lining and interlinings were shrunk before cutting; else clean spots."));
    out.push_back(say("Do not bleach. Do not tumble dry; dry it stuffed, in the shade."));
    if (any([](const Material& m) { return !m.heat && m.use != "strap"; }))
        out.push_back(say("Do not iron: heat harms some of its materials."));
    else
        out.push_back(say("Iron under a cloth, and not over metal."));
    return out;
}

} // namespace tectonis
