// SPDX-License-Identifier: GPL-3.0-or-later
// Raw edges that lie open inside the finished bag are bound where the cloth frays.
#include "checks/finding.hpp"
#include "library/library.hpp"

#include <algorithm>

namespace tectonis {

void checkRawEdges(const CheckInput& in, Findings& out)
{
    const Pattern& p = in.pattern;
    const auto fraying = [&](const std::vector<EdgeUse>& side) {
        return std::any_of(side.begin(), side.end(), [&](const EdgeUse& use) {
            const Piece* piece = p.piece(use.piece);
            const auto cloth = piece ? p.materials.find(piece->material) : p.materials.end();
            return cloth != p.materials.end() && p.material(cloth->second).frays();
        });
    };
    for (const auto& seam : p.seams)
        if (seam.rawInside && seam.bound.empty() && !seam.overcast && (fraying(seam.a) || fraying(seam.b)))
            out.push_back({Severity::Warning, "raw-edge", "", say("Seam “{}”", seam.name), seam.key, "Fittings",
                say("its raw edges lie open inside the bag and would fray: add a binding that covers them, or overcast "
                    "them."),
                {}});
    for (const auto& step : p.steps)
        for (const auto& act : step.acts)
            for (const auto& key : act.verb == Act::Verb::BagSeam ? act.seams : std::vector<SeamId>())
                if (const Seam* seam = p.seam(key); seam && !seam->trapped.empty())
                    out.push_back(
                        {Severity::Warning, "raw-edge", "", say("Seam “{}”", seam->name), seam->key, "Fittings",
                            say("it is sewn twice, and what is caught in it would be trimmed away with the first row's "
                                "allowances. Fell the seams, or hold it elsewhere."),
                            Repair{say("Fell the seams"), {"assembly=unlined-felled"}, false}});
    for (const auto& seam : p.seams)
        if (!seam.rawOutside.empty() && fraying({{seam.rawOutside, EdgeId()}})) {
            const std::string edge = seam.key.owner().text() + ".edge";
            const ChoiceSpec* choice = in.spec.choice(edge);
            const std::string joins = seam.key.owner().text() + ".joins";
            std::optional<Repair> repair;
            if (seam.mouth) {
                if (const ChoiceSpec* way = in.spec.choice("assembly"); way
                    && std::any_of(
                        way->options.begin(), way->options.end(), [](const auto& o) { return o.first == "unlined"; }))
                    repair = Repair{say("Hem the mouth"), {"assembly=unlined"}, false};
            } else if (in.spec.choice(joins))
                repair = Repair{say("Join them end to end"), {joins + "=straight"}, false};
            else if (choice)
                repair = Repair{labelled(Label{choice->options.front().second}),
                    {edge + "=" + choice->options.front().first}, false};
            out.push_back({Severity::Warning, "raw-edge", "", say("Seam “{}”", seam.name), seam.key, "Fittings",
                say("its edge is cut raw and shows: this cloth would fray there. Fold it in, or take a cloth that does "
                    "not fray."),
                repair});
        }
}

} // namespace tectonis
