// SPDX-License-Identifier: GPL-3.0-or-later
// Everything that the design names is known: nothing is reckoned with guessed numbers.
#include "checks/finding.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

namespace tectonis {

void checkLibrary(const CheckInput& in, Findings& out)
{
    std::set<std::string> told;
    const auto look = [&](const std::string& id, const std::string& where) {
        const Material& m = in.pattern.material(id);
        if (!m.standIn || !told.insert(id).second)
            return;
        out.push_back({Severity::Error, "library", "", say("Material “{}”", id), where, "Build-up",
            say("neither the file nor your library knows it; it is reckoned as a cloth of {} that bears no "
                "iron. Add it to your library or choose another material.",
                Len(m.thickness)),
            {}, id});
    };
    for (const auto& [role, id] : in.design.materials)
        look(id, "material." + role);
    for (const auto& rule : in.design.layers)
        if (!rule.material.empty())
            look(rule.material, rule.pieces);
    for (const auto& id : in.design.goods)
        if (const auto& goods = in.pattern.library->goods();
            std::none_of(goods.begin(), goods.end(), [&](const Good& g) { return g.id == id; }))
            out.push_back({Severity::Note, "library", "", say("Thing “{}”", id), "", "Cut",
                say("it is taken by name, but neither the file nor your library knows it: what fits best of the "
                    "library "
                    "is taken. Add it to your library, or take another one."),
                {}, id});
    for (const auto& [name, d] : in.design.dimensions)
        if (d.rule.kind == SizeRule::Kind::Stock && !in.pattern.library->stock(d.rule.stock)) {
            const DimensionSpec* spec = in.spec.dimension(name);
            out.push_back(
                {Severity::Error, "library", "", spec ? labelled(Label{spec->label}) : naming(name), name, "Sizes",
                    say("its size rule asks for the stock “{}”, which neither the file nor your library knows; its "
                        "value is taken as it is. Choose another rule or add that stock.",
                        d.rule.stock),
                    {}});
        }
}

} // namespace tectonis
