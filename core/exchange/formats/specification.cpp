// SPDX-License-Identifier: GPL-3.0-or-later
#include "formats/specification.hpp"

#include "buildup/layers.hpp"
#include "library/library.hpp"
#include "pattern/labels.hpp"
#include "sequence/order.hpp"
#include "text/csv.hpp"

#include <algorithm>
#include <map>

namespace tectonis {
namespace {

bool uses(const std::vector<EdgeUse>& side, const PieceId& piece)
{
    return std::any_of(side.begin(), side.end(), [&](const EdgeUse& use) { return use.piece == piece; });
}

Message nameOf(FaceLine::Kind kind)
{
    switch (kind) {
    case FaceLine::Kind::Placement: return say("placement line");
    case FaceLine::Kind::Fold: return say("fold line");
    case FaceLine::Kind::Slash: return say("slash line");
    case FaceLine::Kind::Topstitch: return say("topstitching line");
    case FaceLine::Kind::Pleat: return say("pleat fold");
    case FaceLine::Kind::Bridge: break; // not on the cloth
    }
    return {};
}

/// One size.
class Specifying {
public:
    Specifying(const Design& design, const Pattern& pattern, Unit unit, const Language& language)
        : m_pattern(pattern),
          m_order(orderOf(design, pattern)),
          m_numbers(numbersOf(pattern, m_order)),
          m_unit(unit),
          m_language(language)
    {}

    PieceSpecification of(const Piece& piece) const
    {
        const auto one = [&](const Message& m) { return words(m, m_unit, m_language); };
        const auto cloth = m_pattern.materials.find(piece.material);
        const Box box = boundsOf(piece.cut);
        return {piece.key, m_pattern.size, piece.code, one(piece.name),
            cloth == m_pattern.materials.end() ? piece.material : m_pattern.material(cloth->second).name,
            one(say("{}", piece.count)), one(say("{}", piece.mirrored)), one(say("{}°", Num(piece.grain, 1))),
            m_language.lengthBare(box.width(), m_unit), m_language.lengthBare(box.height(), m_unit),
            m_language.lengthBare(thicknessOf(m_pattern, piece), m_unit),
            m_language.number(weightOf(m_pattern, piece), 0), one(labelled(nameOf(stiffnessOf(m_pattern, piece)))),
            layers(piece), seams(piece), marks(piece), fittings(piece), steps(piece), one(piece.note)};
    }

private:
    using Lines = std::vector<std::string>;
    void add(Lines& lines, const Message& thing) const
    {
        if (!thing.empty())
            lines.push_back(words(thing, m_unit, m_language));
    }

    Lines layers(const Piece& piece) const
    {
        Lines lines;
        for (const auto& layer : piece.layers)
            add(lines,
                say("{} {}, {}, {}", layer.code, m_pattern.material(layer.material).name, roleLabel(layer.fixing),
                    within(layer.trim)));
        return lines;
    }

    Lines seams(const Piece& piece) const
    {
        Lines lines;
        for (const auto& seam : m_pattern.seams)
            if (uses(seam.a, piece.key) || uses(seam.b, piece.key))
                add(lines,
                    seam.allowance > 0 ? say("{}, sewn at {}", seam.name, Len(seam.allowance)) : say("{}", seam.name));
        return lines;
    }

    /// Notches by what they are called, then drill marks and lines.
    Lines marks(const Piece& piece) const
    {
        std::map<std::string, std::pair<Message, int>> all;
        const auto count = [&](const Message& label) {
            auto& entry = all[words(label)];
            entry.first = label;
            ++entry.second;
        };
        for (const auto& notch : piece.notches)
            count(notch.label);
        for (const auto& drill : piece.drills)
            count(drill.label);
        for (const auto& faceLine : piece.lines)
            if (faceLine.kind != FaceLine::Kind::Bridge)
                count(nameOf(faceLine.kind));
        Lines lines;
        for (const auto& [text, entry] : all)
            add(lines, entry.second > 1 ? say("{} × {}", entry.second, entry.first) : entry.first);
        return lines;
    }

    Lines fittings(const Piece& piece) const
    {
        Lines lines;
        for (const auto& f : m_pattern.fittings)
            if (f.piece == piece.key)
                add(lines, f.size > 0 ? say("{}, {}", f.name, Len(f.size)) : f.name);
        return lines;
    }

    Lines steps(const Piece& piece) const
    {
        Lines lines;
        for (std::size_t i = 0; i < m_order.size(); ++i) {
            const Step& step = m_pattern.steps[m_order[i]];
            if (std::find(step.pieces.begin(), step.pieces.end(), piece.key) != step.pieces.end())
                add(lines, m_numbers[i] > 0 ? say("{} {}", m_numbers[i], step.title) : step.title);
        }
        return lines;
    }

    const Pattern& m_pattern;
    const std::vector<std::size_t> m_order;
    const std::vector<int> m_numbers; ///< as booklets tell them
    Unit m_unit;
    const Language& m_language;
};

} // namespace

std::vector<PieceSpecification> specificationOf(
    const Design& design, const Pattern& pattern, Unit unit, const Language& language)
{
    const Specifying specifying(design, pattern, unit, language);
    std::vector<PieceSpecification> out;
    for (const auto& piece : pattern.pieces)
        out.push_back(specifying.of(piece));
    return out;
}

std::string specificationCsv(
    const Design& design, const std::vector<const Pattern*>& patterns, Unit unit, const Language& language)
{
    const std::string sign(unitSign(unit));
    std::vector<std::string> head;
    for (const Message& title :
        {say("Size"), say("Code"), say("Piece"), say("Cloth"), say("Count"), say("Mirrored"), say("Grain"),
            say("Width, {}", sign), say("Height, {}", sign), say("Thickness, {}", sign), say("Weight, g"),
            say("Stiffness"), say("Layers"), say("Seams"), say("Marks"), say("Fittings"), say("Steps"), say("Note")})
        head.push_back(words(title, unit, language));
    std::string out = csvLine(head);
    const auto joined = [](const std::vector<std::string>& lines) {
        std::string cell;
        for (const auto& line : lines)
            cell += (cell.empty() ? "" : "; ") + line;
        return cell;
    };
    for (const Pattern* pattern : patterns)
        for (const auto& p : specificationOf(design, *pattern, unit, language))
            out += csvLine({p.size, p.code, p.name, p.cloth, p.count, p.mirrored, p.grain, p.width, p.height,
                p.thickness, p.weight, p.stiffness, joined(p.layers), joined(p.seams), joined(p.marks),
                joined(p.fittings), joined(p.steps), p.note});
    return out;
}

} // namespace tectonis
