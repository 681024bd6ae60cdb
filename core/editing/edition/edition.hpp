// SPDX-License-Identifier: GPL-3.0-or-later
// An edition: a design's patterns in several sizes with their lists merged by id. What tells of more than one size
// reads this; nobody takes the first size for all.
#pragma once

#include "cutting/cut_list.hpp"
#include "pattern/pattern.hpp"
#include "units/length.hpp"
#include "words/language.hpp"

#include <algorithm>
#include <functional>

namespace tectonis {

/// One thing over the sizes of an edition, in their order; null where a size has none of it.
template <class T> struct AllSizes {
    SubjectId id;
    std::vector<const T*> in;
    /// The first size's that has it.
    const T& any() const
    {
        return **std::find_if(in.begin(), in.end(), [](const T* t) { return t != nullptr; });
    }
};

/// Merges the sizes' lists by id. The order is the first list's; what only later lists have comes after what it follows
/// there. Ids are told apart within one list.
template <class T> std::vector<AllSizes<T>> mergedById(
    const std::vector<std::vector<const T*>>& lists, const std::function<SubjectId(const T&)>& idOf)
{
    std::vector<AllSizes<T>> out;
    for (std::size_t size = 0; size < lists.size(); ++size) {
        auto after = out.begin(); // where something unknown goes
        for (const T* item : lists[size]) {
            const SubjectId id = idOf(*item);
            auto at = std::find_if(out.begin(), out.end(), [&](const AllSizes<T>& row) { return row.id == id; });
            if (at == out.end())
                at = out.insert(after, {id, std::vector<const T*>(lists.size(), nullptr)});
            at->in[size] = item;
            after = at + 1;
        }
    }
    return out;
}

/// The patterns of one design in the sizes asked for. Refers to them: they must outlive it.
class Edition {
public:
    Edition(const Design& design, std::vector<const Pattern*> patterns);

    const std::vector<const Pattern*>& patterns() const { return m_patterns; }
    const Design& design() const { return m_design; }
    const Material& material(const MaterialId& id) const { return m_design.library->material(id); }
    std::vector<AllSizes<CutItem>> cutList() const;
    std::vector<AllSizes<Marker>> markers() const;
    std::vector<AllSizes<Hardware>> notions() const;
    std::vector<AllSizes<Seam>> seams() const;
    /// In the design's order of work.
    std::vector<AllSizes<Step>> steps() const;
    /// Sentences of which each size has some: each told once over those that have it, lengths that differ as a row.
    template <class T> std::vector<std::string> sentences(const AllSizes<T>& row,
        const std::function<std::vector<Message>(const T&)>& of, Unit unit,
        const Language& language = Language::english()) const
    {
        std::vector<std::vector<Message>> all;
        for (const T* t : row.in)
            all.push_back(t ? of(*t) : std::vector<Message>());
        return sentences(all, unit, language);
    }
    std::vector<std::string> sentences(const std::vector<std::vector<Message>>& sizes, Unit unit,
        const Language& language = Language::english()) const;

    /// A value that every size has is said once: "300"; others by size: "S 270 · M 300 · L –". Empty values read "–".
    std::string bySize(const std::vector<std::string>& values) const;
    /// The same for something of each size; "–" where a size has none.
    template <class T>
    std::string bySize(const AllSizes<T>& row, const std::function<std::string(const T&)>& value) const
    {
        std::vector<std::string> values;
        for (const T* t : row.in)
            values.push_back(t ? value(*t) : std::string());
        return bySize(values);
    }
    /// One sentence over all sizes: lengths that differ stand as a row, "sew at S 9.5 mm · M 10 mm". Where more than
    /// lengths differ each size has its own words. Sizes that say nothing are passed over.
    std::string words(
        const std::vector<Message>& texts, Unit unit, const Language& language = Language::english()) const;
    /// The same of something that each size has.
    template <class T> std::string words(const AllSizes<T>& row, const std::function<Message(const T&)>& of, Unit unit,
        const Language& language = Language::english()) const
    {
        std::vector<Message> texts;
        for (const T* t : row.in)
            texts.push_back(t ? of(*t) : Message());
        return words(texts, unit, language);
    }

private:
    const Design& m_design;
    std::vector<const Pattern*> m_patterns;
    std::vector<std::vector<CutItem>> m_cut;
    std::vector<std::vector<Marker>> m_markers;
    std::vector<std::vector<Hardware>> m_notions;
};

} // namespace tectonis
