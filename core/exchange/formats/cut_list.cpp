// SPDX-License-Identifier: GPL-3.0-or-later
#include "formats/cut_list.hpp"

#include "cutting/cut_list.hpp"
#include "library/library.hpp"

namespace tectonis {

std::string cutListText(
    const Design& design, const std::vector<const Pattern*>& patterns, Unit unit, const Language& language)
{
    const auto spoken = [&](const Message& m) { return words(m, unit, language); };
    const auto row = [&](std::initializer_list<Message> cells) {
        std::string out;
        for (const auto& cell : cells)
            out += (out.empty() ? "" : "\t") + spoken(cell);
        return out + "\n";
    };
    std::string out = design.name + "\n" + spoken(say("Cut list, all lengths in {}", std::string(unitSign(unit))))
        + "\n";
    for (const Pattern* each : patterns) {
        const Pattern& p = *each;
        out += "\n" + spoken(say("Size {}", p.size)) + "\n";
        for (const auto& m : makeMarkers(p)) {
            const Material& cloth = p.material(m.material);
            out += "\n"
                + row({naming(cloth.name), say("width {}", language.lengthBare(m.clothWidth, unit)),
                    say("buy {} m", Num(m.soldLength / 1000, 1))});
            out += row({say("code"), say("piece"), say("count"), say("mirrored"), say("width"), say("height")});
            for (const auto& item : m.items) {
                const Box box = boundsOf(item.outline);
                out += row({naming(item.code), item.name, say("{}", item.count), say("{}", item.mirrored),
                    naming(language.lengthBare(box.width(), unit)), naming(language.lengthBare(box.height(), unit))});
            }
        }
        out += "\n" + row({say("Notions")}) + row({say("kind"), say("count"), say("size")});
        for (const auto& h : notionsOf(p))
            out += row({labelled(called(h.kind)), say("{}", h.count), h.sizeText});
    }
    return out;
}

} // namespace tectonis
