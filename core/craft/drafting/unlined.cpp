// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/unlined.hpp"

#include "drafting/coat.hpp"
#include "pattern/seam_shape.hpp"

#include <algorithm>
#include <cmath>
#include <iterator>
#include <set>

namespace tectonis {
namespace {

/// What belongs to the lining of the body.
class Lining {
public:
    explicit Lining(const Pattern& p)
    {
        for (const auto& piece : p.pieces) // a pocket that is lined by itself stays so
            if (p.piece(lined(piece.key)))
                m_pieces.insert(lined(piece.key));
    }

    bool has(const PieceId& piece) const { return m_pieces.contains(piece); }
    bool holds(const Seam& seam) const
    {
        const auto lined = [&](const EdgeUse& use) { return has(use.piece); };
        return std::any_of(seam.a.begin(), seam.a.end(), lined) || std::any_of(seam.b.begin(), seam.b.end(), lined);
    }
    bool handledIn(const Step& step) const
    {
        return std::any_of(step.pieces.begin(), step.pieces.end(), [&](const PieceId& id) { return has(id); });
    }

private:
    std::set<PieceId> m_pieces;
};

constexpr double kLeastEnclosed = 8; // mm of allowance that can be folded over (common practice, no source)

/// Each seam that is sewn is overcast at once, while it can be reached.
void overcastSeams(Drafter& d)
{
    for (auto& seam : d.pattern.seams)
        seam.overcast = seam.rawInside;
    for (auto& step : d.steps)
        for (std::size_t i = 0; i < step.acts.size(); ++i) {
            if (step.acts[i].verb != Act::Verb::Sew)
                continue;
            Act overcast{.verb = Act::Verb::Overcast, .seams = step.acts[i].seams};
            std::erase_if(overcast.seams, [&](const SeamId& key) {
                const Seam* seam = d.pattern.seam(key);
                return !seam || !seam->overcast;
            });
            if (!overcast.seams.empty())
                step.acts.insert(step.acts.begin() + std::ptrdiff_t(++i), std::move(overcast));
        }
}

bool boxes(const Step& step)
{
    return std::any_of(step.acts.begin(), step.acts.end(), [](const Act& act) { return act.verb == Act::Verb::Box; });
}

/// Straight seams are felled, or sewn twice so that they enclose their edges; what goes round a curve or a corner is
/// overcast.
void encloseSeams(Drafter& d, bool felled)
{
    Pattern& p = d.pattern;
    for (auto& seam : p.seams) {
        const bool straight = !shapeOf(p, seam.a).bends() && !shapeOf(p, seam.b).bends();
        // Boxed corners are pulled apart by then: what crosses them is too thick to be folded.
        const bool sewn = std::any_of(d.steps.begin(), d.steps.end(), [&](const Step& step) {
            return !boxes(step) && std::any_of(step.acts.begin(), step.acts.end(), [&](const Act& act) {
                return act.verb == Act::Verb::Sew
                    && std::find(act.seams.begin(), act.seams.end(), seam.key) != act.seams.end();
            });
        });
        seam.enclosed = seam.rawInside && straight && sewn && seam.allowance >= kLeastEnclosed;
        seam.rawInside = seam.rawInside && !seam.enclosed;
    }
    overcastSeams(d);
    const auto enclosed = [&](const SeamId& key) {
        const Seam* seam = p.seam(key);
        return seam && seam->enclosed;
    };
    if (felled) // laid flat to one side as it is felled
        for (auto& step : d.steps)
            std::erase_if(step.acts, [&](const Act& act) {
                return act.verb == Act::Verb::Press && !act.seams.empty()
                    && std::all_of(act.seams.begin(), act.seams.end(), enclosed);
            });
    for (auto& step : d.steps)
        for (std::size_t i = 0; i < step.acts.size(); ++i) {
            Act& act = step.acts[i];
            // What is felled or bagged lies to one side.
            if ((act.verb == Act::Verb::Press || act.verb == Act::Verb::Topstitch) && act.to == Act::To::Open
                && std::any_of(act.seams.begin(), act.seams.end(), enclosed))
                act.to = Act::To::First;
            if (act.verb != Act::Verb::Sew)
                continue;
            std::vector<SeamId> these;
            std::copy_if(act.seams.begin(), act.seams.end(), std::back_inserter(these), enclosed);
            if (these.empty())
                continue;
            const double s = p.seam(these.front())->allowance;
            if (felled) {
                // Half of the allowance folded in; the row a little inside the fold (common practice, no source).
                step.acts.insert(step.acts.begin() + std::ptrdiff_t(++i),
                    Act{.verb = Act::Verb::Fell, .seams = these, .distance = s / 2 - 1, .taken = s / 2 - 1.5});
            } else {
                const double first = std::floor(s * 0.4 * 2) / 2; // the second row passes the trimmed edges
                step.acts.insert(step.acts.begin() + std::ptrdiff_t(i++),
                    Act{.verb = Act::Verb::BagSeam,
                        .seams = these,
                        .distance = first,
                        .taken = std::min(3.0, s - first - 2)});
            }
        }
}

/// The edges of the mouth get cloth for a hem of @p depth with its raw edge turned in; their neighbours' cut lines are
/// mirrored about the fold. Returns the pieces.
std::vector<PieceId> hemEdges(Drafter& d, const std::vector<EdgeUse>& mouth, double cloth)
{
    std::vector<PieceId> out;
    for (const auto& use : mouth) {
        Piece& piece = d.piece(use.piece);
        for (std::size_t i = 0; i < piece.edges.size(); ++i)
            if (Edge& edge = piece.edges[i]; edge.name == use.edge) {
                edge.allowance = cloth, edge.allowanceAtEnd.reset();
                edge.hem = true, edge.corner = Corner::FoldBack;
                piece.edges[(i + piece.edges.size() - 1) % piece.edges.size()].corner = Corner::FoldBack;
            }
        if (std::find(out.begin(), out.end(), use.piece) == out.end())
            out.push_back(use.piece);
    }
    return out;
}

/// The edges of the mouth end at their line. Returns the pieces.
std::vector<PieceId> leaveRaw(Drafter& d, const std::vector<EdgeUse>& mouth)
{
    std::vector<PieceId> out;
    for (const auto& use : mouth) {
        if (Edge* edge = d.piece(use.piece).edge(use.edge))
            edge->allowance = 0, edge->allowanceAtEnd.reset();
        if (std::find(out.begin(), out.end(), use.piece) == out.end())
            out.push_back(use.piece);
    }
    return out;
}

} // namespace

std::vector<std::pair<std::string, std::string>> unlinedOptions()
{
    return {{"unlined", "Unlined, raw edges bound"}, {"unlined-overcast", "Unlined, raw edges overcast"},
        {"unlined-felled", "Unlined, straight seams felled"}, {"unlined-bagged", "Unlined, straight seams sewn twice"},
        {"unlined-raw", "Unlined, all edges raw"}};
}

bool unlined(const Drafter& d)
{
    const auto assembly = d.pattern.choices.find("assembly");
    return assembly != d.pattern.choices.end() && assembly->second.starts_with("unlined");
}

void takeLiningOut(Drafter& d)
{
    Pattern& p = d.pattern;
    const Lining lining(p);
    std::erase_if(p.seams, [&](const Seam& seam) { return seam.key != "mouth" && lining.holds(seam); });
    std::erase_if(p.sites, [](const Site& site) { return site.lining; });
    std::erase_if(p.overlays, [&](const Overlay& o) { return lining.has(o.piece) || lining.has(o.on); });
    std::erase_if(p.handles, [&](const Handle& h) { return lining.has(h.piece); });
    std::erase_if(p.workings, [&](const Working& w) { return lining.has(w.subject.as<PieceKind>()); });
    std::erase_if(d.patches, [&](const Patch& patch) { return lining.has(patch.behind); });
    static const std::set<std::string> joining{"turn", "mouth.topstitch", "close"};
    std::erase_if(d.steps, [&](const Step& s) {
        return s.phase == "Lining" || joining.contains(s.id.text()) || (s.id != "mouth" && lining.handledIn(s));
    });
    std::erase_if(p.pieces, [&](const Piece& piece) { return lining.has(piece.key); });

    const auto mouth = std::find_if(p.seams.begin(), p.seams.end(), [](const Seam& s) { return s.key == "mouth"; });
    const std::string way = d.choice("assembly");
    const bool raw = way == "unlined-raw";
    const double depth = d("allowance.mouth");
    const double cloth = raw
        ? 0
        : d.work({"mouth", "hem.cloth", say("Cloth for the hem of the mouth"), "hem + min(8, hem)", {{"hem", depth}}, 0,
            Working::Kind::Trade, "mm", say("folded twice: the raw edge is turned in, then the hem")});
    mouth->name = raw ? say("Mouth, left raw") : say("Mouth, hemmed");
    mouth->b = mouth->a; // folded onto itself
    mouth->allowance = cloth;
    const std::vector<PieceId> pieces = raw ? leaveRaw(d, mouth->a) : hemEdges(d, mouth->a, cloth);
    if (raw)
        mouth->stitch = "topstitch", mouth->rawOutside = pieces.front();
    // What is turned has its edges between its own layers: braces, padded straps.
    const auto turned = [&](const Seam& seam) {
        return std::any_of(d.steps.begin(), d.steps.end(), [&](const Step& step) {
            return std::any_of(step.acts.begin(), step.acts.end(), [&](const Act& act) {
                return act.verb == Act::Verb::Turn
                    && std::find(act.seams.begin(), act.seams.end(), seam.key) != act.seams.end();
            });
        });
    };
    for (auto& seam : p.seams)
        if (seam.stitch == "construction" && !seam.mouth && !turned(seam))
            seam.rawInside = true;
    if (way == "unlined-overcast")
        overcastSeams(d);
    else if (way == "unlined-felled" || way == "unlined-bagged")
        encloseSeams(d, way == "unlined-felled");
    const auto at = std::find_if(d.steps.begin(), d.steps.end(), [](const Step& s) { return s.id == "mouth"; });
    *at = gathered(p,
        Step{.id = "mouth",
            .title = raw ? say("Topstitch the mouth's raw edge") : say("Hem the mouth"),
            .acts = {raw ? act::topstitch({"mouth"}, 3.2, Act::To::Nowhere)
                         : Act{.verb = Act::Verb::Hem,
                             .seams = {"mouth"},
                             .pieces = pieces,
                             .distance = depth,
                             .taken = cloth}},
            .kind = StepKind::Seam,
            .phase = "Joining",
            .consumes = {"shell"},
            .yields = "bag",
            .pieces = pieces});
    d.steps.insert(std::next(at),
        gathered(p,
            Step{.id = "turn",
                .title = say("Turn the bag right side out"),
                .acts = {{.verb = Act::Verb::Turn, .seams = {"mouth"}}},
                .kind = StepKind::Turn,
                .phase = "Joining",
                .consumes = {"bag"},
                .yields = "bag",
                .pieces = pieces,
                .check = say("Corners are pushed out fully; nothing is caught.")}));
    if (p.piece("base.board"))
        putBoardIn(d, "base.board");
}

} // namespace tectonis
