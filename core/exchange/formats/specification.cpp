// SPDX-License-Identifier: GPL-3.0-or-later
#include "formats/specification.hpp"

#include "library/library.hpp"
#include "pattern/labels.hpp"
#include "sequence/order.hpp"
#include "text/csv.hpp"

#include <algorithm>
#include <map>

namespace tectonis {
namespace {

/// What one cell says: several things, each with the reader's words.
class Cell {
public:
    Cell(Unit unit, const Language& language) : m_unit(unit), m_language(language) {}
    void add(const Message& thing)
    {
        if (!thing.empty())
            m_text += (m_text.empty() ? "" : "; ") + words(thing, m_unit, m_language);
    }
    const std::string& text() const { return m_text; }

private:
    Unit m_unit;
    const Language& m_language;
    std::string m_text;
};

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
class Specification {
public:
    Specification(const Design& design, const Pattern& pattern, Unit unit, const Language& language)
        : m_pattern(pattern), m_order(orderOf(design, pattern)), m_unit(unit), m_language(language)
    {}

    std::string line(const Piece& piece) const
    {
        const auto one = [&](const Message& m) { return words(m, m_unit, m_language); };
        const auto cloth = m_pattern.materials.find(piece.material);
        const Box box = boundsOf(piece.cut);
        return csvLine({m_pattern.size, piece.code, one(piece.name),
            cloth == m_pattern.materials.end() ? piece.material : m_pattern.material(cloth->second).name,
            one(say("{}", piece.count)), one(say("{}", piece.mirrored)), one(say("{}°", Num(piece.grain, 1))),
            m_language.lengthBare(box.width(), m_unit), m_language.lengthBare(box.height(), m_unit), layers(piece),
            seams(piece), marks(piece), fittings(piece), steps(piece), one(piece.note)});
    }

private:
    std::string layers(const Piece& piece) const
    {
        Cell cell(m_unit, m_language);
        for (const auto& layer : piece.layers)
            cell.add(say("{} {}, {}, {}", layer.code, m_pattern.material(layer.material).name, roleLabel(layer.fixing),
                within(layer.trim)));
        return cell.text();
    }

    std::string seams(const Piece& piece) const
    {
        Cell cell(m_unit, m_language);
        for (const auto& seam : m_pattern.seams)
            if (uses(seam.a, piece.key) || uses(seam.b, piece.key))
                cell.add(
                    seam.allowance > 0 ? say("{}, sewn at {}", seam.name, Len(seam.allowance)) : say("{}", seam.name));
        return cell.text();
    }

    /// Notches by what they are called, then drill marks and lines.
    std::string marks(const Piece& piece) const
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
        Cell cell(m_unit, m_language);
        for (const auto& [text, entry] : all)
            cell.add(entry.second > 1 ? say("{} × {}", entry.second, entry.first) : entry.first);
        return cell.text();
    }

    std::string fittings(const Piece& piece) const
    {
        Cell cell(m_unit, m_language);
        for (const auto& f : m_pattern.fittings)
            if (f.piece == piece.key)
                cell.add(f.size > 0 ? say("{}, {}", f.name, Len(f.size)) : f.name);
        return cell.text();
    }

    std::string steps(const Piece& piece) const
    {
        Cell cell(m_unit, m_language);
        for (std::size_t i = 0; i < m_order.size(); ++i) {
            const Step& step = m_pattern.steps[m_order[i]];
            if (std::find(step.pieces.begin(), step.pieces.end(), piece.key) != step.pieces.end())
                cell.add(say("{} {}", i + 1, step.title));
        }
        return cell.text();
    }

    const Pattern& m_pattern;
    const std::vector<std::size_t> m_order;
    Unit m_unit;
    const Language& m_language;
};

} // namespace

std::string specificationCsv(
    const Design& design, const std::vector<const Pattern*>& patterns, Unit unit, const Language& language)
{
    const std::string sign(unitSign(unit));
    std::vector<std::string> head;
    for (const Message& title : {say("Size"), say("Code"), say("Piece"), say("Cloth"), say("Count"), say("Mirrored"),
             say("Grain"), say("Width, {}", sign), say("Height, {}", sign), say("Layers"), say("Seams"), say("Marks"),
             say("Fittings"), say("Steps"), say("Note")})
        head.push_back(words(title, unit, language));
    std::string out = csvLine(head);
    for (const Pattern* pattern : patterns) {
        const Specification specification(design, *pattern, unit, language);
        for (const auto& piece : pattern->pieces)
            out += specification.line(piece);
    }
    return out;
}

} // namespace tectonis
