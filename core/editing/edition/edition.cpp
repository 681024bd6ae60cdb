// SPDX-License-Identifier: GPL-3.0-or-later
#include "edition/edition.hpp"

#include "sequence/order.hpp"
#include "units/words.hpp"

namespace tectonis {
namespace {

template <class Range> auto pointersTo(const Range& range)
{
    std::vector<const typename Range::value_type*> out;
    for (const auto& item : range)
        out.push_back(&item);
    return out;
}

/// Words without their lengths, and the lengths as they stand: "sew at {}" and {"10"}.
struct Split {
    std::string frame;
    std::vector<std::string> lengths;
};

Split split(const std::string& words)
{
    Split out;
    for (std::size_t at = 0; at < words.size();) {
        const auto close = words[at] == '{' ? words.find('}', at) : std::string::npos;
        if (close == std::string::npos) {
            out.frame += words[at++];
            continue;
        }
        out.frame += "{}";
        out.lengths.push_back(words.substr(at, close - at + 1));
        at = close + 1;
    }
    return out;
}

} // namespace

Edition::Edition(const Design& design, std::vector<const Pattern*> patterns)
    : m_design(design), m_patterns(std::move(patterns))
{
    for (const Pattern* p : m_patterns) {
        m_cut.push_back(cutItems(*p));
        m_markers.push_back(makeMarkers(*p));
    }
}

std::vector<AllSizes<CutItem>> Edition::cutList() const
{
    std::vector<std::vector<const CutItem*>> lists;
    for (const auto& items : m_cut)
        lists.push_back(pointersTo(items));
    return mergedById<CutItem>(lists, [](const CutItem& item) { return item.id; });
}

std::vector<AllSizes<Marker>> Edition::markers() const
{
    std::vector<std::vector<const Marker*>> lists;
    for (const auto& markers : m_markers)
        lists.push_back(pointersTo(markers));
    return mergedById<Marker>(lists, [](const Marker& m) { return m.material; });
}

std::vector<AllSizes<Hardware>> Edition::notions() const
{
    std::vector<std::vector<const Hardware*>> lists;
    for (const Pattern* p : m_patterns)
        lists.push_back(pointersTo(p->hardware));
    return mergedById<Hardware>(lists, [](const Hardware& h) { return h.id; });
}

std::vector<AllSizes<Seam>> Edition::seams() const
{
    std::vector<std::vector<const Seam*>> lists;
    for (const Pattern* p : m_patterns)
        lists.push_back(pointersTo(p->seams));
    return mergedById<Seam>(lists, [](const Seam& s) { return s.key; });
}

std::vector<AllSizes<Step>> Edition::steps() const
{
    std::vector<std::vector<const Step*>> lists;
    for (const Pattern* p : m_patterns) {
        lists.emplace_back();
        for (const auto i : orderOf(m_design, *p))
            lists.back().push_back(&p->steps[i]);
    }
    return mergedById<Step>(lists, [](const Step& s) { return s.id; });
}

std::string Edition::bySize(const std::vector<std::string>& values) const
{
    const auto shown = [](const std::string& v) { return v.empty() ? std::string("–") : v; };
    if (std::adjacent_find(values.begin(), values.end(), std::not_equal_to<>()) == values.end())
        return values.empty() ? "" : shown(values.front());
    std::string out;
    for (std::size_t i = 0; i < values.size(); ++i)
        out += (i == 0 ? "" : " · ") + m_patterns[i]->size + " " + shown(values[i]);
    return out;
}

std::string Edition::words(const std::vector<std::string>& texts, Unit unit) const
{
    std::vector<Split> split;
    std::vector<std::size_t> which;
    for (std::size_t i = 0; i < texts.size(); ++i)
        if (!texts[i].empty())
            split.push_back(tectonis::split(texts[i])), which.push_back(i);
    if (split.empty())
        return {};
    const bool alike = std::all_of(
        split.begin(), split.end(), [&](const Split& s) { return s.frame == split.front().frame; });
    if (!alike) {
        std::string out;
        for (std::size_t k = 0; k < which.size();) { // sizes with the same words share them
            std::string sizes;
            const std::string& own = texts[which[k]];
            for (; k < which.size() && texts[which[k]] == own; ++k)
                sizes += (sizes.empty() ? "" : ", ") + m_patterns[which[k]]->size;
            out += (out.empty() ? "" : " ") + sizes + ": " + inUnit(own, unit);
        }
        return out;
    }
    std::string out;
    std::size_t next = 0;
    const std::string& frame = split.front().frame;
    for (std::size_t at = 0; at < frame.size(); ++at) {
        if (frame.compare(at, 2, "{}") != 0) {
            out += frame[at];
            continue;
        }
        std::vector<std::string> lengths;
        for (const auto& s : split)
            lengths.push_back(inUnit(s.lengths[next], unit));
        if (std::adjacent_find(lengths.begin(), lengths.end(), std::not_equal_to<>()) == lengths.end())
            out += lengths.front();
        else
            for (std::size_t k = 0; k < lengths.size(); ++k)
                out += (k == 0 ? "" : " · ") + m_patterns[which[k]]->size + " " + lengths[k];
        ++next, ++at;
    }
    return out;
}

} // namespace tectonis
