// SPDX-License-Identifier: GPL-3.0-or-later
#include "formats/older_design.hpp"

#include "buildup/layers.hpp"
#include "design/carried_library.hpp"
#include "design/evaluate.hpp"
#include "features/spec_of.hpp"
#include "units/error.hpp"
#include "words/language.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>

namespace tectonis {
namespace {

/// @p formula with a dimension's name replaced where it stands by itself.
std::string renamed(const std::string& formula, const std::string& name, const std::string& by)
{
    const auto inName = [](char c) { return std::isalnum(static_cast<unsigned char>(c)) || c == '.' || c == '_'; };
    std::string out;
    for (std::size_t i = 0; i < formula.size();) {
        if (!inName(formula[i])) {
            out += formula[i++];
            continue;
        }
        std::size_t end = i;
        while (end < formula.size() && inName(formula[end]))
            ++end;
        const std::string word = formula.substr(i, end - i);
        out += word == name ? by : word;
        i = end;
    }
    return out;
}

template <class Change> void inFormulas(Dimension& d, const Change& change)
{
    d.value = change(d.value);
    for (auto& [size, value] : d.bySize)
        value = change(value);
}

/// What migrations do to a design as an older file holds it.
class Older {
protected:
    explicit Older(Design& design) : m_design(design) {}

    std::string taken(const std::string& choice)
    {
        const auto node = m_design.choices.extract(choice);
        return node.empty() ? std::string() : node.mapped();
    }

    /// The dimension, taken out; @p otherwise if the file lacks it.
    Dimension found(const std::string& name, Dimension otherwise)
    {
        auto node = m_design.dimensions.extract(name);
        return node.empty() ? std::move(otherwise) : std::move(node.mapped());
    }

    void everywhere(const std::string& name, const std::string& by)
    {
        for (auto& [unused, d] : m_design.dimensions)
            inFormulas(d, [&](const std::string& v) { return renamed(v, name, by); });
    }

    /// An id that no part has yet.
    std::string freeId(const std::string& id) const
    {
        std::string free = id;
        for (int i = 2; std::any_of(
                 m_design.features.begin(), m_design.features.end(), [&](const Feature& f) { return f.id == free; });
             ++i)
            free = id + std::to_string(i);
        return free;
    }

    /// Ranges have become narrower: a value beyond the end stays at the end.
    void holdBounds(const std::string& name, const std::string& most)
    {
        if (!m_design.dimensions.contains(name))
            return;
        Design filled = m_design;
        try {
            fillIn(filled);
            const DesignSpec& spec = specOf(filled);
            for (std::size_t i = 0; i < filled.sizes.size(); ++i)
                evaluate(filled, spec, i);
        } catch (const InputError& e) {
            if (words(e.place()).find(name) != std::string::npos)
                inFormulas(
                    m_design.dimensions.at(name), [&](const std::string& v) { return "min(" + v + ", " + most + ")"; });
        }
    }

    Design& m_design;
};

/// Until version 1 the large tote drew overlay, corner patches and facing itself; since then they are parts like
/// anybody's.
class Tote : private Older {
public:
    explicit Tote(Design& design) : Older(design) {}

    void bringUpToDate()
    {
        const bool overlay = taken("overlay") != "no", patches = taken("patches") != "no";
        const Dimension height = found("overlay.height", {"0.38*height", {SizeRule::Kind::Follow, 0, ""}, {}, {}});
        // Faces ended at the overlay.
        everywhere("face.height", "(height - " + (overlay ? "overlay.height" : "(" + height.value + ")") + ")");
        std::vector<Feature> parts;
        if (overlay) {
            m_design.dimensions["overlay.height"] = height;
            addPair(parts, "overlay", "overlay", {"front", "back"}, {"height"});
            m_design.choices["overlay.from"] = m_design.choices["overlay2.from"] = "base";
            renameKeys("overlay.front", "overlay", "overlay.free", "overlay.on");
            renameKeys("overlay.back", "overlay2", "overlay2.free", "overlay2.on");
        } else {
            everywhere("overlay.height", "(" + height.value + ")");
        }
        const Dimension head = found("rivet", {"8", {}, {}, {}});
        everywhere("rivet", patches ? "corner.rivet" : "(" + head.value + ")");
        if (patches) {
            m_design.dimensions["corner.rivet"] = head;
            for (const auto& [name, value] : {std::pair{"side", "70"}, {"rivets", "3"}, {"margin", "9"}})
                m_design.dimensions.try_emplace(std::string("corner.") + name, Dimension{value, {}, {}, {}});
            addPair(parts, "corner", "corner-patch", {"front", "back"}, {"side", "rivets", "margin", "rivet"});
            renameKeys("patches.front", "corner", "", "corner.on");
            renameKeys("patches.back", "corner2", "", "corner2.on");
        } else {
            for (const char* name : {"side", "rivets", "margin"}) {
                const Dimension d = found(std::string("corner.") + name, {"0", {}, {}, {}});
                everywhere(std::string("corner.") + name, "(" + d.value + ")");
            }
        }
        m_design.dimensions["facing.height"] = found("facing", {"60", {}, {}, {}});
        everywhere("facing", "facing.height");
        // What sits in the lining hung below the facing.
        for (const auto& f : m_design.features)
            if (const auto drop = m_design.dimensions.find(f.id + ".drop");
                drop != m_design.dimensions.end() && sitsInLining(f))
                inFormulas(drop->second, [](const std::string& v) { return "facing.height + " + v; });
        addPair(parts, "facing", "band", {"lining front", "lining back"}, {"height"});
        m_design.choices["facing.cloth"] = m_design.choices["facing2.cloth"] = "shell";
        m_design.features.insert(m_design.features.begin(), parts.begin(), parts.end());
        holdBounds("corner.side", "0.45*min(face.width, face.height)");
        holdBounds("corner.margin", "corner.side/3");
    }

private:
    bool sitsInLining(const Feature& f) const
    {
        const auto chosen = [&](const std::string& name) {
            const auto it = m_design.choices.find(f.id + "." + name);
            return it == m_design.choices.end() ? std::string() : it->second;
        };
        return chosen("site").starts_with("lining") || (f.kind == "top-zip" && chosen("held") == "bands");
    }

    /// Two parts of a kind: the second follows the first.
    void addPair(std::vector<Feature>& parts, const std::string& id, const std::string& kind,
        const std::array<const char*, 2>& sites, const std::vector<std::string>& dimensions)
    {
        const std::string second = id + "2";
        parts.push_back({id, kind, {}});
        parts.push_back({second, kind, {}});
        m_design.choices[id + ".site"] = sites[0];
        m_design.choices[second + ".site"] = sites[1];
        for (const auto& name : dimensions)
            m_design.dimensions[second + "." + name] = {id + "." + name, {SizeRule::Kind::Follow, 0, ""}, {}, {}};
    }

    /// What the file says of a piece, of the seam along its free edge and of its step.
    void renameKeys(const std::string& old, const std::string& piece, const std::string& seam, const std::string& step)
    {
        for (auto& rule : m_design.layers)
            if (rule.pieces == old)
                rule.pieces = piece;
        if (auto ends = m_design.seamEnds.extract(old + ".top"); !ends.empty() && !seam.empty()) {
            ends.key() = seam;
            m_design.seamEnds.insert(std::move(ends));
        }
        std::replace(m_design.stepOrder.begin(), m_design.stepOrder.end(), old, step);
    }
};

/// Until version 2 a case with a zip round it bound its raw edges itself; since then two bindings are parts.
class Loop : private Older {
public:
    explicit Loop(Design& design) : Older(design) {}

    void bringUpToDate()
    {
        const Dimension width = found("binding.width", {"10", {}, {}, {}});
        std::string first;
        for (const char* face : {"front", "back"}) {
            const std::string id = freeId("binding");
            m_design.features.insert(m_design.features.begin() + (first.empty() ? 0 : 1), Feature{id, "binding", {}});
            m_design.choices[id + ".covers"] = face;
            const auto follows = [&](const std::string& name) {
                return Dimension{first + "." + name, {SizeRule::Kind::Follow, 0, ""}, {}, {}};
            };
            m_design.dimensions[id + ".width"] = first.empty() ? width : follows("width");
            m_design.dimensions[id + ".overlap"] = first.empty() ? Dimension{"20", {}, {}, {}} : follows("overlap");
            if (first.empty())
                first = id;
        }
        if (first != "binding")
            everywhere("binding.width", first + ".width");
    }
};

/// Until version 2 the envelope set its snap itself, by the distance from the flap's edge; since then it is a part,
/// placed by its drop from the mouth.
class Envelope : private Older {
public:
    Envelope(Design& design, const Library& mine) : Older(design), m_mine(mine) {}

    void bringUpToDate()
    {
        const bool held = taken("closure") != "none";
        const Dimension size = found("snap.size", {"14", {}, {}, {}}), slack = found("snap.slack", {"4", {}, {}, {}}),
                        margin = found("snap.margin", {"28", {}, {}, {}});
        const std::string id = freeId("snap");
        const auto inBrackets = [](const Dimension& d) { return "(" + d.value + ")"; };
        everywhere("snap.margin", inBrackets(margin));
        everywhere("snap.size", held ? id + ".diameter" : inBrackets(size));
        everywhere("snap.slack", held ? id + ".slack" : inBrackets(slack));
        if (!held)
            return;
        m_design.features.insert(m_design.features.begin(), Feature{id, "snap", {}});
        m_design.choices[id + ".site"] = "front";
        m_design.dimensions[id + ".diameter"] = size;
        m_design.dimensions[id + ".slack"] = slack;
        m_design.dimensions[id + ".across"] = {"0", {}, {}, {}};
        m_design.dimensions[id + ".patch"] = {"40", {}, {}, {}};
        m_design.dimensions[id + ".drop"] = dropOf(id, margin);
        std::replace(m_design.stepOrder.begin(), m_design.stepOrder.end(), std::string("closure.front"), id + ".front");
        std::replace(m_design.stepOrder.begin(), m_design.stepOrder.end(), std::string("closure.flap"), id + ".flap");
    }

private:
    /// Going round the top takes half of the thing's thickness, the wall and the flap's own thickness.
    Dimension dropOf(const std::string& id, const Dimension& margin)
    {
        Design known = m_design;
        known.library = libraryFor(known, m_mine);
        const double wall = stackThickness(known, {"panel", "body"}, "shell")
            + stackThickness(known, {"lining panel", lined(PieceId("body"))}, "lining");
        Dimension drop = margin;
        if (margin.rule.kind != SizeRule::Kind::Hold && margin.rule.kind != SizeRule::Kind::Follow) {
            // What grows by a rule of its own stays a dimension of the designer's.
            m_design.dimensions["closure.margin"] = margin;
            drop = {"closure.margin", {}, {}, {}};
        }
        drop.rule = {SizeRule::Kind::Follow, 0, ""};
        inFormulas(drop, [&](const std::string& v) {
            return fmt::format("max(10, flap.reach - ({}) - thing.thickness/2 - {:.6f} - {}.slack)", v, 2 * wall, id);
        });
        return drop;
    }

    const Library& m_mine;
};

} // namespace

void bringUpToDate(Design& design, int version, const Library& mine)
{
    if (version < 2 && design.form == "large-tote")
        Tote(design).bringUpToDate();
    if (version < 3 && (design.form == "zip-around" || design.form == "polygon"))
        Loop(design).bringUpToDate();
    if (version < 3 && design.form == "envelope-clutch")
        Envelope(design, mine).bringUpToDate();
}

} // namespace tectonis
