// SPDX-License-Identifier: GPL-3.0-or-later
#include "edition/consequences.hpp"

#include "buildup/allowance.hpp"
#include "buildup/layers.hpp"
#include "checks/finding.hpp"
#include "cutting/cost.hpp"
#include "cutting/cut_list.hpp"
#include "cutting/load.hpp"
#include "editing/draft.hpp"
#include "features/spec_of.hpp"
#include "pattern/labels.hpp"
#include "sequence/minutes.hpp"
#include "sequence/told.hpp"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace tectonis {
namespace {

using Of = Consequence::Of;

/// Things of one size, by what they are called, with how many or how much of them there is.
using Counted = std::map<std::string, std::pair<Message, double>>;

class Comparing {
public:
    Comparing(const Design& before, const Design& after)
        : m_before(before),
          m_after(after),
          a(draft(before, specOf(before), sizeIndex(before, before.baseSize))),
          b(draft(after, specOf(after), sizeIndex(after, after.baseSize)))
    {}

    std::vector<Consequence> all()
    {
        pieces();
        layers();
        work();
        things();
        steps();
        sums();
        snags();
        return std::move(m_out);
    }

private:
    void tell(Of of, Message what) { m_out.push_back({of, std::move(what)}); }

    /// What a working of its owner says that comes to one of the piece's new measures.
    Message reasonFor(const Piece& piece, const Box& box) const
    {
        for (const auto& w : b.workings) {
            if (w.key.owner() != piece.owner()
                || (std::abs(w.result - box.width()) > 0.01 && std::abs(w.result - box.height()) > 0.01))
                continue;
            const auto was = std::find_if(
                a.workings.begin(), a.workings.end(), [&](const Working& each) { return each.key == w.key; });
            if (was != a.workings.end() && std::abs(was->result - w.result) > 0.005)
                return w.source;
        }
        return {};
    }

    void pieces()
    {
        for (const auto& piece : b.pieces) {
            const Piece* was = a.piece(piece.key);
            if (!was) {
                tell(Of::Cut, say("new piece: {} {}", piece.code, piece.name));
                continue;
            }
            const Box now = boundsOf(piece.cut), then = boundsOf(was->cut);
            // What a maker cannot cut otherwise is not told.
            const auto size = [](const Box& box) { return words(say("{} × {}", Len(box.width()), Len(box.height()))); };
            if (size(now) == size(then))
                continue;
            const Message why = reasonFor(piece, now);
            tell(Of::Cut,
                why.empty() ? say("{} {}: cut {} × {} instead of {} × {}", piece.code, piece.name, Len(now.width()),
                    Len(now.height()), Len(then.width()), Len(then.height()))
                            : say("{} {}: cut {} × {} instead of {} × {} ({})", piece.code, piece.name,
                                Len(now.width()), Len(now.height()), Len(then.width()), Len(then.height()), why));
        }
        for (const auto& piece : a.pieces)
            if (!b.piece(piece.key))
                tell(Of::Cut, say("no longer: {} {}", piece.code, piece.name));
    }

    /// By material and fixing, with the pieces that they lie behind.
    static std::map<std::pair<std::string, std::string>, std::vector<std::string>> layersOf(const Pattern& p)
    {
        std::map<std::pair<std::string, std::string>, std::vector<std::string>> out;
        for (const auto& piece : p.pieces)
            for (const auto& layer : piece.layers)
                out[{layer.material.text(), layer.fixing}].push_back(piece.code);
        return out;
    }

    void layers()
    {
        const auto was = layersOf(a), is = layersOf(b);
        const auto codes = [](const std::vector<std::string>& all, const std::vector<std::string>* but) {
            Message out;
            for (const auto& code : all)
                if (!but || std::find(but->begin(), but->end(), code) == but->end())
                    out = out.empty() ? naming(code) : say("{}, {}", out, naming(code));
            return out;
        };
        const auto look = [&](const auto& from, const auto& to, const Pattern& p, bool comes) {
            for (const auto& [what, behind] : from) {
                const auto other = to.find(what);
                const Message rest = codes(behind, other == to.end() ? nullptr : &other->second);
                if (rest.empty())
                    continue;
                const Message& name = naming(p.material(what.first).name);
                tell(Of::Layer,
                    comes ? say("{}, {}, comes behind {}", name, roleLabel(what.second), rest)
                          : say("{}, {}, goes from behind {}", name, roleLabel(what.second), rest));
            }
        };
        look(was, is, a, false);
        look(is, was, b, true);
    }

    struct Work {
        std::set<int> needles;
        Counted stitches, tools;
    };
    /// "2.5–3 mm, lockstitch 301" of "2.5–3 mm, lockstitch 301; needle 90".
    static Message withoutNeedle(const Message& stitch)
    {
        const auto* first = stitch.arguments().empty() ? nullptr : std::get_if<Message>(&stitch.arguments()[0]);
        return first ? *first : stitch;
    }

    static Work workOf(const Pattern& p)
    {
        Work out;
        for (const auto& step : p.steps) {
            const StepWords words = told(p, step);
            if (words.needle > 0)
                out.needles.insert(words.needle);
            if (!words.stitch.empty()) {
                const Message stitch = withoutNeedle(words.stitch);
                out.stitches[tectonis::words(stitch)] = {stitch, 1};
            }
            for (const auto& tool : words.tools)
                out.tools[tectonis::words(tool)] = {tool, 1};
        }
        return out;
    }

    void work()
    {
        const Work was = workOf(a), is = workOf(b);
        const auto numbers = [](const std::set<int>& all) {
            Message out;
            for (const int n : all)
                out = out.empty() ? say("{}", n) : say("{}, {}", out, n);
            return out;
        };
        if (was.needles != is.needles && !is.needles.empty() && !was.needles.empty())
            tell(Of::Work, say("needles: {} instead of {}", numbers(is.needles), numbers(was.needles)));
        for (const auto& [coat, name] : {std::pair{Coat::Shell, label("shell")}, {Coat::Lining, label("lining")}})
            if (const LeastAllowance then = leastAllowance(a, coat), now = leastAllowance(b, coat);
                then.least > 0 && now.least > 0 && std::abs(then.least - now.least) > 0.05)
                tell(Of::Work,
                    say("allowances of the {}: {} at least instead of {} (it {})", name, Len(now.least),
                        Len(then.least), now.why()));
        for (const auto& [key, stitch] : is.stitches)
            if (!was.stitches.contains(key))
                tell(Of::Work, say("new stitch: {}", stitch.first));
        for (const auto& [key, stitch] : was.stitches)
            if (!is.stitches.contains(key))
                tell(Of::Work, say("no longer: {}", stitch.first));
        for (const auto& [key, tool] : is.tools)
            if (!was.tools.contains(key))
                tell(Of::Work, say("now wanted: {}", tool.first));
        for (const auto& [key, tool] : was.tools)
            if (!is.tools.contains(key))
                tell(Of::Work, say("no longer wanted: {}", tool.first));
    }

    static Counted thingsOf(const Pattern& p)
    {
        Counted out;
        for (const auto& h : notionsOf(p))
            if (h.kind != Ware::Thread) {
                const Message name = h.sizeText.empty() ? say("{}", called(h.kind))
                                                        : say("{}, {}", called(h.kind), h.sizeText);
                auto& [what, count] = out[words(name)];
                what = name;
                count += h.count;
            }
        return out;
    }

    void things()
    {
        const Counted was = thingsOf(a), is = thingsOf(b);
        const auto countIn = [](const Counted& all, const std::string& key) {
            const auto at = all.find(key);
            return at == all.end() ? 0.0 : at->second.second;
        };
        std::map<std::string, Message> keys;
        for (const auto* each : {&was, &is})
            for (const auto& [key, thing] : *each)
                keys.emplace(key, thing.first);
        for (const auto& [key, name] : keys)
            if (const double now = countIn(is, key), then = countIn(was, key); now != then)
                tell(Of::Thing, say("{}: {} instead of {}", name, Num(now), Num(then)));
        // The same thing, but another one of the library's.
        std::set<std::string> told;
        for (const auto& thing : notionsOf(b))
            if (const Good* then = goodFor(*a.library, thing, m_before.goods),
                *now = goodFor(*b.library, thing, m_after.goods);
                then && now && then->id != now->id && told.insert(now->id).second)
                tell(Of::Thing, say("{} instead of {}", naming(now->name), naming(then->name)));
    }

    void steps()
    {
        for (const auto& step : b.steps)
            if (!a.step(step.id))
                tell(Of::Step, say("new step: {}", step.title));
        for (const auto& step : a.steps)
            if (!b.step(step.id))
                tell(Of::Step, say("step no longer: {}", step.title));
    }

    void sums()
    {
        std::map<std::string, std::pair<double, double>> cloth; // mm along the roll, by name
        for (const auto& [p, then] : {std::pair{&a, true}, {&b, false}})
            for (const auto& marker : makeMarkers(*p)) {
                auto& [was, is] = cloth[p->material(marker.material).name];
                (then ? was : is) = marker.length;
            }
        for (const auto& [name, lengths] : cloth)
            if (std::abs(lengths.first - lengths.second) >= 10)
                tell(Of::Sum,
                    say("{}: {} m instead of {} m", name, Num(lengths.second / 1000, 2), Num(lengths.first / 1000, 2)));
        const auto compare = [&](const char* text, double was, double is, double least, int decimals) {
            if (std::abs(is - was) >= least)
                tell(Of::Sum, say(text, Num(is, decimals), Num(was, decimals)));
        };
        compare("thread: {} m instead of {} m", threadOf(a).result / 1000, threadOf(b).result / 1000, 1, 0);
        compare("weight: {} g instead of {} g", loadOf(m_before, a).bag(), loadOf(m_after, b).bag(), 1, 0);
        compare("work: {} min instead of {} min", minutesOf(a), minutesOf(b), 1, 0);
        compare("cost: {} instead of {}", costOf(m_before, a).whole(), costOf(m_after, b).whole(), 0.01, 2);
        if (const Stiffness was = stiffnessOf(a), is = stiffnessOf(b); was != is)
            tell(Of::Sum, say("the bag is {} instead of {}", nameOf(is), nameOf(was)));
    }

    void snags()
    {
        const auto of = [](const Design& design, const Pattern& p) {
            std::map<std::string, Message> out;
            for (const auto& f : check({design, specOf(design), p}))
                if (f.severity != Severity::Note)
                    out.emplace(f.check + words(f.subject) + f.about, say("{}: {}", f.subject, f.text));
            return out;
        };
        const auto was = of(m_before, a), is = of(m_after, b);
        for (const auto& [key, what] : is)
            if (!was.contains(key))
                tell(Of::Snag, say("new snag: {}", what));
        for (const auto& [key, what] : was)
            if (!is.contains(key))
                tell(Of::Snag, say("mended: {}", what));
    }

    const Design &m_before, &m_after;
    const Pattern a, b; ///< before and after
    std::vector<Consequence> m_out;
};

} // namespace

std::vector<Consequence> consequencesOf(const Design& before, const Design& after)
{
    return Comparing(before, after).all();
}

} // namespace tectonis
