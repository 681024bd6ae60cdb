// SPDX-License-Identifier: GPL-3.0-or-later
#include "edition/edition.hpp"

#include "sequence/order.hpp"

namespace tectonis {
namespace {

template <class Range> auto pointersTo(const Range& range)
{
    std::vector<const typename Range::value_type*> out;
    for (const auto& item : range)
        out.push_back(&item);
    return out;
}

/// The same sentence but for its lengths?
bool alike(const Message& a, const Message& b)
{
    if (a.source() != b.source() || a.ofMany() != b.ofMany() || a.count() != b.count()
        || a.arguments().size() != b.arguments().size())
        return false;
    for (std::size_t i = 0; i < a.arguments().size(); ++i) {
        const auto &x = a.arguments()[i], &y = b.arguments()[i];
        if (std::holds_alternative<Len>(x) && std::holds_alternative<Len>(y))
            continue;
        const auto *inX = std::get_if<Message>(&x), *inY = std::get_if<Message>(&y);
        if (inX && inY ? !alike(*inX, *inY) : x != y)
            return false;
    }
    return true;
}

/// One message for several that are alike; @p row words what differs.
Message joined(
    const std::vector<const Message*>& all, const std::function<MessageArgument(const std::vector<Len>&)>& row)
{
    std::vector<MessageArgument> out(all.front()->arguments().begin(), all.front()->arguments().end());
    for (std::size_t i = 0; i < out.size(); ++i) {
        if (std::holds_alternative<Len>(out[i])) {
            std::vector<Len> lengths;
            for (const Message* m : all)
                lengths.push_back(std::get<Len>(m->arguments()[i]));
            out[i] = row(lengths);
        } else if (std::holds_alternative<Message>(out[i])) {
            std::vector<const Message*> inside;
            for (const Message* m : all)
                inside.push_back(&std::get<Message>(m->arguments()[i]));
            out[i] = joined(inside, row);
        }
    }
    return all.front()->withArguments(std::move(out));
}

} // namespace

Edition::Edition(const Design& design, std::vector<const Pattern*> patterns)
    : m_design(design), m_patterns(std::move(patterns))
{
    for (const Pattern* p : m_patterns) {
        m_cut.push_back(cutItems(*p));
        m_markers.push_back(makeMarkers(*p));
        m_notions.push_back(notionsOf(*p));
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
    for (const auto& notions : m_notions)
        lists.push_back(pointersTo(notions));
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

std::vector<std::string> Edition::sentences(
    const std::vector<std::vector<Message>>& sizes, Unit unit, const Language& language) const
{
    std::vector<std::vector<Message>> rows;
    for (std::size_t i = 0; i < sizes.size(); ++i)
        for (const Message& m : sizes[i]) {
            const auto same = [&](const std::vector<Message>& row) {
                return std::any_of(row.begin(), row.end(), [&](const Message& other) { return alike(m, other); });
            };
            auto row = std::find_if(rows.begin(), rows.end(), same);
            if (row == rows.end())
                row = rows.insert(row, std::vector<Message>(sizes.size()));
            (*row)[i] = m;
        }
    std::vector<std::string> out;
    for (const auto& row : rows)
        out.push_back(words(row, unit, language));
    return out;
}

std::string Edition::words(const std::vector<Message>& texts, Unit unit, const Language& language) const
{
    std::vector<const Message*> said;
    std::vector<std::size_t> which;
    for (std::size_t i = 0; i < texts.size(); ++i)
        if (!texts[i].empty())
            said.push_back(&texts[i]), which.push_back(i);
    if (said.empty())
        return {};
    if (std::all_of(said.begin(), said.end(), [&](const Message* m) { return alike(*m, *said.front()); }))
        return tectonis::words(
            joined(said,
                [&](const std::vector<Len>& lengths) -> MessageArgument {
                    std::vector<std::string> worded;
                    for (const Len& l : lengths)
                        worded.push_back(language.length(l.mm, unit));
                    if (std::adjacent_find(worded.begin(), worded.end(), std::not_equal_to<>()) == worded.end())
                        return lengths.front();
                    std::string row;
                    for (std::size_t k = 0; k < worded.size(); ++k)
                        row += (k == 0 ? "" : " · ") + m_patterns[which[k]]->size + " " + worded[k];
                    return row;
                }),
            unit, language);
    std::string out;
    for (std::size_t k = 0; k < which.size();) { // sizes with the same words share them
        std::string sizes;
        const Message& own = texts[which[k]];
        for (; k < which.size() && texts[which[k]] == own; ++k)
            sizes += (sizes.empty() ? "" : ", ") + m_patterns[which[k]]->size;
        out += (out.empty() ? "" : " ") + sizes + ": " + tectonis::words(own, unit, language);
    }
    return out;
}

} // namespace tectonis
