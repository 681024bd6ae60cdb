// SPDX-License-Identifier: GPL-3.0-or-later
#include "pattern/labels.hpp"

#include <algorithm>

namespace tectonis {
namespace {

/// The label of that source, from a list of literals, so that translators get each; else the word itself.
Label among(const std::vector<Label>& all, const std::string& word)
{
    const auto it = std::find_if(all.begin(), all.end(), [&](const Label& l) { return l.source == word; });
    return it == all.end() ? Label{word} : *it;
}

const std::vector<Label>& edgeWords()
{
    static const std::vector<Label> all{label("across"), label("at the base"), label("at the fold"), label("back"),
        label("back left ease"), label("back right ease"), label("band"), label("base leg"), label("below band"),
        label("bottom"), label("bottom inside"), label("centre"), label("end"), label("facing seam"), label("flap end"),
        label("free"), label("front"), label("front left ease"), label("front right ease"), label("front top"),
        label("hinge"), label("left"), label("left above"), label("left back"), label("left corner"),
        label("left corner bottom"), label("left corner side"), label("left ease"), label("left end"),
        label("left flap"), label("left front"), label("left inside"), label("left ledge"), label("left mouth"),
        label("left side"), label("left wall"), label("mouth"), label("right"), label("right above"),
        label("right back"), label("right corner"), label("right corner bottom"), label("right corner side"),
        label("right ease"), label("right end"), label("right flap"), label("right front"), label("right inside"),
        label("right ledge"), label("right mouth"), label("right side"), label("right wall"), label("rim"),
        label("side"), label("side left"), label("side leg"), label("side right"), label("slant"), label("top"),
        label("top back"), label("top front"), label("up"), label("zip"), label("zip strip"),
        // lines on faces
        label("slip pocket"), label("patch pocket"), label("pocket flap"), label("zip window"), label("label"),
        label("channel"), label("slit"), label("overlay"), label("handle"), label("flap hinge"), label("corner patch"),
        label("connector"), label("shoulder strap"), label("belt loop")};
    return all;
}

const std::vector<Label>& workWords()
{
    static const std::vector<Label> all{label("bag"), label("shell"), label("body"), label("half"), label("back"),
        label("front"), label("front with gusset"), label("joined gusset"), label("lining"), label("loop"),
        label("base"), label("disc"), label("zip panel"), label("straps"), label("shell with channels"),
        label("channels"), label("pocket ready"), label("pocket disc"), label("braces"), label("ready"),
        label("zipped"), label("tab"), label("frame"), label("wall"), label("panel"), label("gusset"), label("facing"),
        label("halves")};
    return all;
}

} // namespace

Label sideLabel(const std::string& side)
{
    static const std::vector<Label> all{label("left"), label("right"), label("front"), label("back"), label("top"),
        label("bottom"), label("across"), label("up"), label("front half"), label("flap half"), label("flap lining"),
        label("left mouth"), label("right mouth"), label("base"), label("face"), label("lower left"),
        label("lower right"), label("upper left"), label("upper right")};
    return among(all, side);
}

Label roleLabel(const std::string& role)
{
    static const std::vector<Label> all{label("panel"), label("gusset"), label("flap"), label("flap lining"),
        label("lining"), label("lining panel"), label("lining gusset"), label("pocket"), label("strap"),
        label("strap facing"), label("shoulder strap"), label("tab"), label("connector"), label("facing"),
        label("binding"), label("board"), label("brace"), label("card"), label("channel"), label("channel strip"),
        label("cover"), label("handle"), label("label"), label("overlay"), label("padding"), label("patch"),
        label("piping"), label("webbing"), label("zip band"), label("shell"), label("fused"), label("basted"),
        label("glued"), label("loose"), label("quilted")};
    return among(all, role);
}

Message partLabel(const Pattern& pattern, const PartId& part)
{
    const auto it = pattern.partLabels.find(part);
    return it == pattern.partLabels.end() ? naming(part.text()) : it->second;
}

Message edgeLabel(const Pattern& pattern, const EdgeId& edge)
{
    const std::function<Message(const std::string&)> called = [&](const std::string& name) -> Message {
        const auto word = std::find_if(
            edgeWords().begin(), edgeWords().end(), [&](const Label& l) { return l.source == name; });
        if (word != edgeWords().end())
            return labelled(*word);
        if (pattern.partLabels.contains(PartId(name)))
            return partLabel(pattern, name);
        if (name.starts_with("left of "))
            return say("left of {}", within(called(name.substr(8))));
        if (name.starts_with("right of "))
            return say("right of {}", within(called(name.substr(9))));
        if (name.starts_with("bag of "))
            return say("bag of {}", within(called(name.substr(7))));
        if (const auto comma = name.find(", "); comma != std::string::npos)
            return say("{}, {}", called(name.substr(0, comma)), called(name.substr(comma + 2)));
        if (const auto open = name.find(" ("); open != std::string::npos && name.back() == ')')
            return say("{} ({})", called(name.substr(0, open)), name.substr(open + 2, name.size() - open - 3));
        if (const auto space = name.rfind(' ');
            space != std::string::npos && pattern.partLabels.contains(PartId(name.substr(space + 1))))
            return say("{} {}", called(name.substr(0, space)), name.substr(space + 1));
        const auto digits = name.find_last_not_of("0123456789");
        if (digits != std::string::npos && digits + 1 < name.size()) {
            const std::string word = name.substr(0, digits + 1 - (name[digits] == ' ' ? 1 : 0));
            return say("{} {}", called(word), name.substr(digits + 1));
        }
        return naming(name);
    };
    return called(edge.text());
}

Message workLabel(const Pattern& pattern, const WorkId& work)
{
    if (const Piece* piece = pattern.piece(work.as<PieceKind>()))
        return say("{}  {}", piece->code, piece->name);
    const std::string& name = work.name();
    if (const PartId part = work.owner()) // a part that stays a piece of the design
        return name.empty() ? partLabel(pattern, part)
                            : say("{}, {}", partLabel(pattern, part), among(workWords(), name));
    if (pattern.partLabels.contains(PartId(name)))
        return partLabel(pattern, name);
    if (name.starts_with("lining."))
        return say("{} of the lining", among(workWords(), name.substr(7)));
    return labelled(among(workWords(), name));
}

} // namespace tectonis
