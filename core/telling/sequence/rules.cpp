// SPDX-License-Identifier: GPL-3.0-or-later
#include "sequence/rules.hpp"

#include "pattern/labels.hpp"
#include "sequence/order.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <bitset>
#include <map>
#include <optional>
#include <set>

namespace tectonis {
namespace {

template <class Item> bool has(const std::vector<Item>& list, const Item& item)
{
    return std::find(list.begin(), list.end(), item) != list.end();
}

template <class A, class B> bool shares(const std::vector<A>& a, const std::vector<B>& b)
{
    return std::any_of(a.begin(), a.end(), [&](const A& x) { return has(b, B(x)); });
}

bool sews(const Step& s)
{
    return s.kind == StepKind::Seam || s.kind == StepKind::Baste || s.kind == StepKind::Topstitch
        || s.kind == StepKind::Flat;
}

using Verb = Act::Verb;

/// What a step does: a place for each verb.
using Does = std::bitset<128>;
static_assert(unsigned(Verb::Note) < Does().size(), "the last of the verbs has its place");
Does bit(Verb verb) { return Does().set(unsigned(verb)); }
template <class... Verbs> Does anyOf(Verbs... verbs) { return (bit(verbs) | ...); }

Does verbsOf(const Step& step)
{
    Does out;
    for (const auto& act : step.acts)
        out |= bit(act.verb);
    return out;
}

template <class Wrong> bool anyPair(const Step& first, const Step& second, Wrong wrong)
{
    return std::any_of(first.acts.begin(), first.acts.end(), [&](const Act& a) {
        return std::any_of(second.acts.begin(), second.acts.end(), [&](const Act& b) { return wrong(a, b); });
    });
}

/// Do the pieces that @p seam joins lie side by side on one side of @p over: does that one run across it? A mouth that
/// is sewn flat is crossed by the sides instead.
bool crosses(const Seam& over, const Seam& seam)
{
    if (over.flat)
        return false;
    if (seam.flat) {
        Seam round = seam;
        round.flat = false;
        return crosses(round, over);
    }
    const auto in = [](const std::vector<EdgeUse>& side, const EdgeUse& use) {
        return std::any_of(side.begin(), side.end(),
            [&](const EdgeUse& each) { return each.piece == use.piece && each.copy == use.copy; });
    };
    for (const auto* side : {&over.a, &over.b})
        for (std::size_t i = 1; i < side->size(); ++i) {
            const EdgeUse &u = (*side)[i - 1], &v = (*side)[i];
            if (u.piece == v.piece && u.copy == v.copy)
                continue; // one edge after the other, even of a piece that is joined to itself
            if ((in(seam.a, u) && in(seam.b, v)) || (in(seam.b, u) && in(seam.a, v)))
                return true;
        }
    return false;
}

/// Is what is laid under @p over when that is put on after it: do they meet in one seam, at one place?
bool covers(const Pattern& p, const Overlay& over, const Act& laid)
{
    const Piece* piece = p.piece(over.piece);
    const auto level = [&](const EdgeUse& use) { return use.piece == over.on && piece->edge(use.edge); };
    const bool oneSeam = piece && std::any_of(laid.seams.begin(), laid.seams.end(), [&](const SeamId& key) {
        const Seam* seam = p.seam(key);
        return seam
            && (std::any_of(seam->a.begin(), seam->a.end(), level)
                || std::any_of(seam->b.begin(), seam->b.end(), level));
    });
    if (!oneSeam)
        return false;
    std::vector<std::pair<Point, double>> spots; // and half as wide
    if (laid.at)
        spots.emplace_back(*laid.at, 5);
    for (const auto& f : p.fittings)
        if (f.kind == Fitting::Kind::Ring && f.owner() == laid.pieces.front().owner() && f.piece == over.on)
            spots.emplace_back(f.at, f.size / 2);
    const Polyline outline = flattened(placed(piece->stitch(), over.placement), 0.5);
    return spots.empty() || std::any_of(spots.begin(), spots.end(), [&](const auto& spot) {
        return insideOutline(outline, spot.first) || distanceTo(outline, spot.first) < spot.second;
    });
}

/// A rule says of two steps, @p first done before @p second, what is wrong with that; empty if nothing.
struct Rule {
    const char* name;
    std::optional<StepKind> kind; ///< of the step that must not come second
    Does firstDoes, secondDoes;   ///< acts of which each must have one; none: whatever they do
    Message (*reason)(const Pattern&, const Step& first, const Step& second);

    /// Cheap questions that spare most pairs: @p does says which acts a step has.
    bool mayBeFirst(Does does) const { return firstDoes.none() || (firstDoes & does).any(); }
    bool mayBeSecond(const Step& step, Does does) const
    {
        return (!kind || *kind == step.kind) && (secondDoes.none() || (secondDoes & does).any());
    }
};

/// About pieces that still lie flat.
std::vector<Rule> whileFlat()
{
    return {
        {"wash before cutting", {}, 0, bit(Verb::Preshrink),
            [](const Pattern&, const Step& first, const Step& second) -> Message {
                return shares(first.pieces, second.pieces)
                    ? say("cloth is washed before anything is cut from it: what is cut already would shrink out of "
                          "shape.")
                    : Message();
            }},
        {"quilt before cutting", {}, bit(Verb::CutToShape), bit(Verb::Quilt),
            [](const Pattern&, const Step& first, const Step& second) -> Message {
                return shares(first.pieces, second.pieces)
                    ? say("a block is quilted before it is cut to shape: quilting takes cloth in.")
                    : Message();
            }},
        {"cut before the layers", {}, anyOf(Verb::Interline, Verb::RoundCorners), bit(Verb::CutToShape),
            [](const Pattern&, const Step& first, const Step& second) -> Message {
                return shares(first.pieces, second.pieces)
                    ? say("a quilted block is cut to shape before anything else is laid on it.")
                    : Message();
            }},
        {"shape before joining", {}, 0, anyOf(Verb::Quilt, Verb::CutToShape),
            [](const Pattern&, const Step& first, const Step& second) -> Message {
                return sews(first) && shares(first.pieces, second.pieces)
                    ? say("a piece is quilted and cut to shape before it is joined.")
                    : Message();
            }},
        {"round after the layers", {}, bit(Verb::RoundCorners), bit(Verb::Interline),
            [](const Pattern&, const Step& first, const Step& second) -> Message {
                return shares(first.pieces, second.pieces)
                    ? say("corners are rounded through all layers at once: they are on before.")
                    : Message();
            }},
        {"round before joining", {}, 0, bit(Verb::RoundCorners),
            [](const Pattern&, const Step& first, const Step& second) -> Message {
                return sews(first) && shares(first.pieces, second.pieces)
                    ? say("corners are rounded while the piece is still single: its seams go round them.")
                    : Message();
            }},
        {"interlining first", StepKind::Interline, 0, 0,
            [](const Pattern&, const Step& first, const Step& second) -> Message {
                if (sews(first) && shares(first.pieces, second.pieces))
                    return say(
                        "interlinings go on before a piece is joined: afterwards they cannot reach into the seams.");
                return {};
            }},
        {"one-layer hardware first", StepKind::Hardware, 0, 0,
            [](const Pattern& p, const Step& first, const Step& second) -> Message {
                const bool snap = std::any_of(p.fittings.begin(), p.fittings.end(),
                    [&](const Fitting& f) { return f.kind == Fitting::Kind::Snap && has(second.fittings, f.key); });
                if (snap && first.kind == StepKind::Seam && shares(first.pieces, second.pieces))
                    return say(
                        "a snap goes through one layer and its patch: it is set before the second layer is sewn on.");
                return {};
            }},
        {"flat work while flat", StepKind::Flat, 0, 0,
            [](const Pattern&, const Step& first, const Step& second) -> Message {
                if (first.kind == StepKind::Seam
                    && shares(first.pieces, second.consumes)) // what it is sewn onto is a piece still
                    return say("pockets and windows are sewn while the piece lies flat.");
                return {};
            }},
        {"feet before the board", {}, bit(Verb::PutIn), bit(Verb::Set),
            [](const Pattern& p, const Step& first, const Step& second) -> Message {
                const bool board = std::any_of(first.pieces.begin(), first.pieces.end(),
                    [&](const PieceId& k) { return p.piece(k) && p.piece(k)->role == "board"; });
                const bool feet = std::any_of(p.fittings.begin(), p.fittings.end(),
                    [&](const Fitting& f) { return f.kind == Fitting::Kind::Foot && has(second.fittings, f.key); });
                return board && feet ? say("feet go through the base before the board covers their prongs.")
                                     : Message();
            }},
        {"not through the lining", {}, anyOf(Verb::JoinCoats, Verb::DropIn, Verb::Line),
            anyOf(Verb::Set, Verb::Buttonhole),
            [](const Pattern& p, const Step& first, const Step& second) -> Message {
                const bool alone = std::any_of(p.fittings.begin(), p.fittings.end(), [&](const Fitting& f) {
                    return !f.throughLining && has(second.fittings, f.key);
                }) || std::ranges::any_of(second.acts, [](const Act& act) {
                    return act.verb == Verb::Buttonhole && act.fittings.empty();
                });
                const bool whole = (verbsOf(first) & bit(Verb::Line)) == 0;
                return alone && (whole || shares(first.pieces, second.pieces))
                    ? say("it does not go through the lining: it is set while no lining lies behind it.")
                    : Message();
            }},
        {"rows before the lining", {}, anyOf(Verb::JoinCoats, Verb::DropIn), anyOf(Verb::Topstitch, Verb::StitchOn),
            [](const Pattern& p, const Step&, const Step& second) -> Message {
                const auto lined = [&](const EdgeUse& use) {
                    const Piece* piece = p.piece(use.piece);
                    return !piece || piece->coat == Coat::Lining;
                };
                const auto strip = [&](const EdgeUse& use) { return p.piece(use.piece)->coat == Coat::Strip; };
                const auto ofShell = [&](const Seam& seam) { // and not of a strap that lies beside it
                    return !seam.mouth && std::ranges::none_of(seam.a, lined) && std::ranges::none_of(seam.b, lined)
                        && !(std::ranges::all_of(seam.a, strip) && std::ranges::all_of(seam.b, strip));
                };
                return std::ranges::any_of(second.acts,
                           [&](const Act& act) {
                               return (act.verb == Verb::Topstitch || act.verb == Verb::StitchOn)
                                   && std::ranges::any_of(act.seams, [&](const SeamId& key) {
                                          const Seam* seam = p.seam(key);
                                          return seam && ofShell(*seam);
                                      });
                           })
                    ? say("with the lining behind it the row would go through both.")
                    : Message();
            }},
        {"patch before hardware", {}, bit(Verb::Set), bit(Verb::Interline),
            [](const Pattern& p, const Step& first, const Step& second) -> Message {
                const auto patched = [&](const FittingId& key) {
                    const auto f = std::ranges::find(p.fittings, key, &Fitting::key);
                    const Piece* piece = f == p.fittings.end() ? nullptr : p.piece(f->piece);
                    return piece && std::ranges::any_of(piece->layers, [&](const Layer& layer) {
                        return !layer.wholePiece && insideOutline(flattened(layer.outline, 0.5), f->at)
                            && std::ranges::any_of(second.acts, [&](const Act& a) { return has(a.layers, layer.id); });
                    });
                };
                return std::ranges::any_of(first.fittings, patched)
                    ? say("the patch behind it goes on before anything is set through it.")
                    : Message();
            }},
    };
}

/// About seams and what they catch, clip and cross.
std::vector<Rule> atSeams()
{
    return {
        {"baste what is trapped", StepKind::Baste, 0, 0,
            [](const Pattern& p, const Step& first, const Step& second) -> Message {
                if (first.kind != StepKind::Seam)
                    return {};
                for (const auto& key : first.seams)
                    if (const Seam* seam = p.seam(key); seam && shares(seam->trapped, second.pieces))
                        return say("what a seam traps is basted before that seam is sewn.");
                return {};
            }},
        {"clip before the curve", {}, bit(Verb::Sew), bit(Verb::Clip),
            [](const Pattern&, const Step& first, const Step& second) -> Message {
                return anyPair(first, second,
                           [](const Act& a, const Act& b) {
                               return a.verb == Verb::Sew && b.verb == Verb::Clip && shares(a.seams, b.seams);
                           })
                    ? say("a straight edge is clipped before it is pinned round a curve.")
                    : Message();
            }},
        {"topstitch before the next seam", StepKind::Topstitch, 0, 0,
            [](const Pattern& p, const Step& first, const Step& second) -> Message {
                // Only where the proposed order topstitches first: a seam that was meant to come later has come too
                // early.
                if ((first.kind != StepKind::Seam && first.kind != StepKind::Baste)
                    || !shares(first.pieces, second.pieces))
                    return {};
                return &first - p.steps.data() > &second - p.steps.data()
                    ? say("a seam is pressed and topstitched before another seam crosses it.")
                    : Message();
            }},
        {"trim before basting", {}, bit(Verb::Lay), bit(Verb::Trim),
            [](const Pattern&, const Step& first, const Step& second) -> Message {
                return anyPair(first, second,
                           [](const Act& a, const Act& b) {
                               return a.verb == Verb::Lay && b.verb == Verb::Trim && b.distance > 0
                                   && a.pieces.back() == b.pieces.front();
                           })
                    ? say("an end that was cut long is trimmed before anything is basted to it.")
                    : Message();
            }},
        {"cover before what is caught", {}, bit(Verb::Lay), anyOf(Verb::LayOver, Verb::StitchOn),
            [](const Pattern& p, const Step& first, const Step& second) -> Message {
                for (const auto& act : first.acts)
                    if (act.verb == Verb::Lay && has(second.pieces, act.pieces.back()))
                        for (const auto& cover : p.overlays)
                            if (cover.on == act.pieces.back() && cover.piece != act.pieces.front()
                                && has(second.pieces, cover.piece) && covers(p, cover, act))
                                return say("it would lie over what is caught in that seam, which could not come out "
                                           "of it: it goes on before.");
                return {};
            }},
        {"press before crossing", {}, anyOf(Verb::Sew, Verb::JoinCoats), anyOf(Verb::Press, Verb::Topstitch),
            [](const Pattern& p, const Step& first, const Step& second) -> Message {
                return anyPair(first, second,
                           [&](const Act& a, const Act& b) {
                               if ((a.verb != Verb::Sew && a.verb != Verb::JoinCoats)
                                   || (b.verb != Verb::Press && b.verb != Verb::Topstitch))
                                   return false;
                               return std::any_of(a.seams.begin(), a.seams.end(), [&](const SeamId& over) {
                                   return std::any_of(b.seams.begin(), b.seams.end(), [&](const SeamId& seam) {
                                       const Seam *x = p.seam(over), *y = p.seam(seam);
                                       // A row that is the seam itself finishes none.
                                       const bool itself = y && b.verb == Verb::Topstitch && y->stitch == "topstitch";
                                       return x && y && !itself && over != seam && crosses(*x, *y);
                                   });
                               });
                           })
                    ? say("a seam is pressed, and topstitched, before another one runs across it.")
                    : Message();
            }},
    };
}

/// About zips, turning, closing and what melts or burns.
std::vector<Rule> towardsTheEnd()
{
    return {
        {"slider before the end", {}, anyOf(Verb::SealEnds, Verb::FoldEnds, Verb::CapEnds), bit(Verb::SliderOn),
            [](const Pattern&, const Step& first, const Step& second) -> Message {
                return anyPair(first, second,
                           [](const Act& a, const Act& b) {
                               return (a.verb == Verb::SealEnds || a.verb == Verb::FoldEnds || a.verb == Verb::CapEnds)
                                   && b.verb == Verb::SliderOn && a.zips == b.zips;
                           })
                    ? say("the slider goes on before the zip's end is sealed: afterwards there is no way on.")
                    : Message();
            }},
        {"open before turning", {}, anyOf(Verb::TurnBag, Verb::Sew), bit(Verb::OpenZip),
            [](const Pattern& p, const Step& first, const Step& second) -> Message {
                const auto throughZip = [](const Step& step) {
                    return std::any_of(step.acts.begin(), step.acts.end(),
                        [](const Act& a) { return a.verb == Verb::TurnBag && a.seams.empty(); });
                };
                if (throughZip(first))
                    return say("the zip is closed: nothing can be turned through it.");
                // The seam that closes the bag round the zip through which it is turned.
                if (first.kind == StepKind::Seam && first.yields == WorkId("bag")
                    && std::any_of(p.steps.begin(), p.steps.end(), throughZip) && !second.opensZips.empty())
                    return say("the zip is opened before the bag is closed round it.");
                return {};
            }},
        {"everything in before closing", {}, bit(Verb::CloseOpening), anyOf(Verb::TurnBag, Verb::PutIn),
            [](const Pattern&, const Step&, const Step& second) -> Message {
                return second.turnsThrough ? say("the bag turns through that opening: it is closed last.")
                                           : say("what goes in between shell and lining goes in before the opening is "
                                                 "closed.");
            }},
        {"bind before turning", {}, bit(Verb::TurnBag), bit(Verb::Bind),
            [](const Pattern& p, const Step&, const Step& second) -> Message {
                return anyPair(second, second,
                           [&](const Act& act, const Act&) {
                               return act.verb == Verb::Bind && std::ranges::any_of(act.seams, [&](const SeamId& key) {
                                   const Seam* seam = p.seam(key);
                                   return seam && seam->rawInside;
                               });
                           })
                    ? say("its raw edges lie inside once the bag is turned: they are bound before.")
                    : Message();
            }},
        {"flame before adhesive", {}, anyOf(Verb::Glue, Verb::WrapOver, Verb::PutIn), bit(Verb::SealCut),
            [](const Pattern& p, const Step&, const Step& second) -> Message {
                const auto melts = [&](const Act& act) {
                    const Piece* piece = act.verb == Verb::SealCut ? p.piece(act.pieces.front()) : nullptr;
                    const auto cloth = piece ? p.materials.find(piece->material) : p.materials.end();
                    return cloth != p.materials.end() && !p.material(cloth->second).heat;
                };
                return std::ranges::any_of(second.acts, melts)
                    ? say("a flame is used before any adhesive is about: its solvent burns.")
                    : Message();
            }},
    };
}

const std::vector<Rule>& rules()
{
    static const std::vector<Rule> all = [] {
        std::vector<Rule> out = whileFlat();
        for (const auto& more : {atSeams(), towardsTheEnd()})
            out.insert(out.end(), more.begin(), more.end());
        return out;
    }();
    return all;
}

} // namespace

std::vector<BrokenRule> brokenRules(const Pattern& p, const std::vector<std::size_t>& order)
{
    std::vector<BrokenRule> out;
    std::vector<std::size_t> at(p.steps.size(), 0);
    for (std::size_t i = 0; i < order.size(); ++i)
        at[order[i]] = i;
    std::set<std::pair<std::size_t, std::size_t>> told;
    std::vector<Does> does(p.steps.size());
    std::transform(p.steps.begin(), p.steps.end(), does.begin(), verbsOf);
    for (std::size_t k = 1; k < order.size(); ++k)
        for (const auto& rule : rules()) {
            if (!rule.mayBeSecond(p.steps[order[k]], does[order[k]]))
                continue;
            for (std::size_t i = 0; i < k; ++i)
                if (!rule.mayBeFirst(does[order[i]]))
                    continue;
                else if (const auto reason = rule.reason(p, p.steps[order[i]], p.steps[order[k]]);
                         !reason.empty() && told.insert({order[i], order[k]}).second)
                    out.push_back({rule.name, order[i], order[k], reason});
        }
    for (const auto& link : linksOf(p))
        if (at[link.before] > at[link.after] && told.insert({link.after, link.before}).second)
            out.push_back({"uses what is made", link.after, link.before,
                say("it needs “{}” as that step leaves it.", workLabel(p, link.part))});
    // Whatever a step takes that is no piece, some step has made before.
    std::set<WorkId> made;
    for (const auto& piece : p.pieces)
        made.insert(piece.key);
    for (const auto i : order) {
        for (const auto& part : p.steps[i].consumes)
            if (!made.contains(part))
                for (const auto k : order)
                    if (at[k] > at[i] && p.steps[k].yields == part && told.insert({i, k}).second)
                        out.push_back({"uses what is made", i, k,
                            say("it needs “{}” as that step leaves it.", workLabel(p, part))});
        made.insert(p.steps[i].yields);
    }
    return out;
}

std::vector<std::optional<BrokenRule>> movesOf(
    const Pattern& p, const std::vector<std::size_t>& order, std::size_t from)
{
    const auto links = linksOf(p);
    // What is wrong with doing one step before another.
    const auto wrong = [&](std::size_t first, std::size_t second) -> std::optional<BrokenRule> {
        const Step &a = p.steps[first], &b = p.steps[second];
        const Does doesFirst = verbsOf(a), doesSecond = verbsOf(b);
        for (const auto& rule : rules())
            if (rule.mayBeSecond(b, doesSecond) && rule.mayBeFirst(doesFirst))
                if (const Message reason = rule.reason(p, a, b); !reason.empty())
                    return BrokenRule{rule.name, first, second, reason};
        for (const auto& link : links)
            if (link.before == second && link.after == first)
                return BrokenRule{"uses what is made", first, second,
                    say("it needs “{}” as that step leaves it.", workLabel(p, link.part))};
        return {};
    };
    std::vector<std::optional<BrokenRule>> out(order.size() + 1);
    for (std::size_t to = from; to-- > 0;) {
        out[to] = to + 1 < from ? out[to + 1] : std::nullopt;
        if (!out[to])
            out[to] = wrong(order[from], order[to]);
    }
    for (std::size_t to = from + 2; to <= order.size(); ++to) {
        out[to] = out[to - 1];
        if (!out[to])
            out[to] = wrong(order[to - 1], order[from]);
    }
    return out;
}

std::vector<std::pair<std::size_t, std::size_t>> orderedPairs(const Pattern& p)
{
    std::vector<std::pair<std::size_t, std::size_t>> out;
    std::vector<Does> does(p.steps.size());
    std::transform(p.steps.begin(), p.steps.end(), does.begin(), verbsOf);
    for (std::size_t first = 0; first < p.steps.size(); ++first)
        for (std::size_t second = 0; second < p.steps.size(); ++second)
            if (first != second && std::ranges::any_of(rules(), [&](const Rule& rule) {
                    return rule.mayBeSecond(p.steps[first], does[first]) && rule.mayBeFirst(does[second])
                        && !rule.reason(p, p.steps[second], p.steps[first]).empty();
                }))
                out.emplace_back(first, second);
    return out;
}

std::vector<Binding> bindingsOf(const Pattern& p, const std::vector<std::size_t>& order, std::size_t step)
{
    std::vector<Binding> out;
    const auto here = std::find(order.begin(), order.end(), step);
    if (here == order.end())
        return out;
    const Step& own = p.steps[step];
    const Does does = verbsOf(own);
    for (const auto& rule : rules()) {
        // The nearest later step that must not come first, and the nearest earlier one before which this must not come.
        if (rule.mayBeSecond(own, does))
            for (auto at = here + 1; at != order.end(); ++at)
                if (rule.mayBeFirst(verbsOf(p.steps[*at])))
                    if (const Message reason = rule.reason(p, p.steps[*at], own); !reason.empty()) {
                        out.push_back({*at, true, reason});
                        break;
                    }
        if (rule.mayBeFirst(does))
            for (auto at = here; at != order.begin();)
                if (const Step& other = p.steps[*--at]; rule.mayBeSecond(other, verbsOf(other)))
                    if (const Message reason = rule.reason(p, own, other); !reason.empty()) {
                        out.push_back({*at, false, reason});
                        break;
                    }
    }
    return out;
}

} // namespace tectonis
