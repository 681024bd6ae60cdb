// SPDX-License-Identifier: GPL-3.0-or-later
#include "sequence/minutes.hpp"

#include "buildup/layers.hpp"
#include "buildup/remedies.hpp"
#include "buildup/strap_ends.hpp"
#include "drafting/drafter.hpp"
#include "pattern/seam_shape.hpp"
#include "sequence/stitch_length.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

namespace tectonis {
namespace {

using Verb = Act::Verb;

/// What the acts of a step come to. Lengths in mm; the minutes of handwork are common practice, no source; the trial
/// log corrects them.
class Effort {
public:
    Effort(const Pattern& pattern, const Step& step) : p(pattern)
    {
        for (const auto& act : step.acts)
            add(act);
    }

    double sewn = 0;    ///< all rows
    double slow = 0;    ///< of them, what goes round curves and corners
    double rows = 0;    ///< each is begun and ended
    double pinned = 0;  ///< edges that are matched and held
    double trimmed = 0; ///< along which layers are cut back
    double pressed = 0; ///< seams pressed, or opened with the fingers
    double hand = 0;    ///< minutes

    /// Rows that go through one stack, for the thread that they take.
    struct Sewn {
        double length = 0; ///< mm of all of them
        RowKind kind = RowKind::Join;
        std::vector<PieceId> through;
        const Seam* seam = nullptr; ///< through what lies in it
        int plies = 1; ///< otherwise: through so many layers of the first piece's cloth, and its own layers
    };
    std::vector<Sewn> stacks;

private:
    /// mm of saddle stitch in a minute, its holes made one by one (common practice, no source; from memory).
    static constexpr double kHandStitched = 40;

    void through(const Seam& seam, double length, RowKind kind)
    {
        stacks.push_back({.length = length, .kind = kind, .seam = &seam});
        for (const auto* side : {&seam.a, &seam.b})
            for (const auto& use : *side)
                stacks.back().through.push_back(use.piece);
    }

    void row(const Seam& seam, RowKind kind, double times = 1)
    {
        sewn += times * seam.lengthA;
        rows += times;
        hand += times * sewnByHand(p, seam, kind == RowKind::Topstitch ? ThickSpot::Topstitch : ThickSpot::Row)
            / kHandStitched;
        through(seam, times * seam.lengthA, kind);
        if (shapeOf(p, seam.a).bends() || shapeOf(p, seam.b).bends())
            slow += times * seam.lengthA;
    }

    void add(const Act& act)
    {
        double run = 0;
        for (const auto& key : act.seams)
            if (const Seam* seam = p.seam(key)) {
                run += seam->lengthA;
                rowsOf(act, *seam);
            }
        hand += byHand(act, run);
        if (endsByHand(p, act)) {
            const Piece& piece = *p.piece(act.pieces.front());
            const Box box = boundsOf(piece.stitch());
            const double width = std::min(box.width(), box.height()) / std::max(1, piece.plies);
            hand += 2 * (4 + 2 * std::sqrt(2.0)) * width / kHandStitched; // a box with both diagonals at either end
        }
    }

    void rowsOf(const Act& act, const Seam& seam)
    {
        using enum RowKind;
        switch (act.verb) {
        case Verb::Sew:
        case Verb::JoinCoats: trimmed += trimmedAfter(p, seam).empty() ? 0 : seam.lengthA; [[fallthrough]];
        case Verb::DropIn:
        case Verb::Window: pinned += seam.lengthA; return row(seam, Join);
        case Verb::Hem: pressed += 2 * seam.lengthA; return row(seam, Join);
        case Verb::StitchOn: pinned += seam.lengthA; return row(seam, Join, act.taken > 0 ? 2 : 1);
        case Verb::Hinge: pinned += seam.lengthA; return row(seam, Join, 2);
        case Verb::SewTape: pinned += seam.lengthA; return row(seam, Join, 2); // and topstitched
        case Verb::FoldStrip:
        case Verb::Note: return row(seam, Join);
        case Verb::Baste: return row(seam, RowKind::Baste);
        case Verb::Topstitch:
            return row(seam, RowKind::Topstitch, (act.to == Act::To::Open ? 2 : 1) * (act.taken > 0 ? 2 : 1));
        case Verb::Roll: pressed += seam.lengthA; return row(seam, RowKind::Topstitch, act.taken > 0 ? 2 : 1);
        case Verb::Fell:
            trimmed += seam.lengthA;
            pressed += seam.lengthA;
            return row(seam, RowKind::Topstitch);
        case Verb::BagSeam:
            trimmed += seam.lengthA;
            pressed += seam.lengthA;
            return row(seam, Join);
        case Verb::Overcast:
        case Verb::Bind: return row(seam, Join, 2);
        case Verb::Press: pressed += seam.lengthA; return;
        case Verb::Lay:
            if (seam.stitch == "baste")
                pinned += seam.lengthA, row(seam, RowKind::Baste);
            return;
        case Verb::CloseOpening:
            sewn += seam.open;
            rows += 1;
            through(seam, seam.open, RowKind::Topstitch);
            return;
        default: return;
        }
    }

    /// Pieces of a strip or of loops are made one by one.
    double copies(const Act& act) const
    {
        const Piece* piece = act.pieces.empty() ? nullptr : p.piece(act.pieces.front());
        return piece ? piece->count : 1;
    }

    double ofAll(const Act& act) const
    {
        double sum = 0;
        for (const auto& key : act.pieces)
            if (const Piece* piece = p.piece(key))
                sum += piece->count;
        return sum;
    }

    double byHand(const Act& act, double run)
    {
        switch (act.verb) {
        case Verb::Clip:
        case Verb::Notch: return 1.5 * run / 1000;
        case Verb::Grade: return 2.0 * run / 1000;
        case Verb::Stagger: return 1.0 * run / 1000;
        case Verb::Turn: return 1.5;
        case Verb::TurnBag: return 4;
        case Verb::Baste: return act.seams.empty() ? 1 : 0;
        case Verb::Lay:
        case Verb::LayOver:
        case Verb::FoldUp:
        case Verb::Line: return 0.5 * copies(act);
        case Verb::LayTape: return 2;
        case Verb::Insert: return 2 * copies(act);
        case Verb::Rows: return marked(act);
        case Verb::Preshrink: return 15; // into the water, out to dry, pressed (common practice, no source)
        case Verb::Quilt: return quilted(act);
        case Verb::CutToShape: return cutBack(act);
        case Verb::BarTack: return 1;
        case Verb::Crease: return 1;
        case Verb::Pleat: return 1.5 * copies(act);
        case Verb::HoldAway: return 0.2;
        case Verb::HemEnds: return 1 * copies(act);
        case Verb::DrawIn: return 2 * copies(act);
        case Verb::WrapOver: return 8 * copies(act);
        case Verb::SealCut: return 0.5 * ofAll(act);
        case Verb::Buttonhole: return 3 * std::max<double>(2, double(act.fittings.size()));
        case Verb::Press: return act.seams.empty() ? 0.5 : 0;
        case Verb::FoldStrip: return strip(act);
        case Verb::FoldInHalf:
        case Verb::FoldIn: return 0.5 * copies(act);
        case Verb::Hem: return act.seams.empty() ? 1.5 * copies(act) : 0; // of a mouth: its row and its folds
        case Verb::BoxOn: return 2;                                       // a box with both diagonals at each end
        case Verb::Ring: return 0.5 * copies(act);
        case Verb::Set: return set(act);
        case Verb::Window: return 3;
        case Verb::InsertZip: return 4;
        case Verb::SewTape: return act.seams.empty() ? 6 : 1; // of a loop: both tapes and their linings
        case Verb::SliderOn: return 0.5;
        case Verb::CutDown: return 3;
        case Verb::SealEnds:
        case Verb::FoldEnds: return 2;
        case Verb::CapEnds: return 1;
        case Verb::Hammer: return 1;
        case Verb::OpenZip: return 0.2;
        case Verb::JoinStrips: return 1.5 * std::max(0.0, copies(act) - 1);
        case Verb::Bind: return 2.0 * run / 1000;
        case Verb::WrapCord: return 2 * copies(act);
        case Verb::Box: return 2;
        case Verb::Glue: return 3;
        case Verb::Paint: return 8; // twice; drying is waiting
        case Verb::ThreadStrap: return 7;
        case Verb::ThreadTails: return 3 * copies(act);
        case Verb::ThreadCord: return 3;
        case Verb::Trim: return 1;
        case Verb::PutIn: return 4;
        case Verb::Note: return 1;
        default: return 0;
        }
    }

    /// Folded and edge-stitched along both long edges.
    double strip(const Act& act)
    {
        for (const auto& key : act.pieces)
            if (const Piece* piece = p.piece(key)) {
                const double length = boundsOf(piece->cut).height() * piece->count;
                pressed += length;
                if (act.taken > 0 && key != act.pieces.front()) // a facing lies under the same rows
                    continue;
                sewn += 2 * length, rows += 2 * piece->count;
                // As often as it is folded to its width; faced, as its edges lie.
                const double folds = act.taken > 0 ? piece->plies
                    : act.distance > 0             ? boundsOf(piece->cut).width() / act.distance
                                                   : 1;
                stacks.push_back(
                    {2 * length, RowKind::Topstitch, {key}, nullptr, std::max(1, int(std::lround(folds)))});
            }
        return 0;
    }

    /// Rows all over the blocks, in both directions for diamonds.
    double quilted(const Act& act)
    {
        for (const auto& id : act.pieces)
            if (const Piece* piece = p.piece(id))
                for (const auto& layer : piece->layers)
                    if (layer.quilted > 0 && !piece->rough.empty()) {
                        const Box box = boundsOf(piece->rough);
                        const double ways = layer.diamonds ? 2 : 1;
                        const double length = ways * piece->count * box.width() * box.height() / layer.quilted;
                        sewn += length;
                        stacks.push_back({length, RowKind::Topstitch, {id}});
                        rows += ways * piece->count * std::ceil(box.width() / layer.quilted);
                    }
        return 0;
    }

    /// Quilted layers that end at the stitch line are trimmed there.
    double cutBack(const Act& act)
    {
        for (const auto& id : act.pieces)
            if (const Piece* piece = p.piece(id))
                for (const auto& layer : piece->layers)
                    for (const auto& [edge, reach] : layer.reach)
                        if (const Edge* of = piece->edge(edge); of && layer.quilted > 0 && reach < of->allowance - 0.01)
                            trimmed += of->length() * piece->count;
        return 0;
    }

    /// Rows that are marked on a face.
    double marked(const Act& act)
    {
        for (const auto& id : act.pieces)
            if (const Piece* piece = p.piece(id))
                for (const auto& line : piece->lines)
                    if (line.kind == FaceLine::Kind::Topstitch) {
                        sewn += lengthOf(line.run), slow += lengthOf(line.run), rows += 1;
                        stacks.push_back({lengthOf(line.run), RowKind::Topstitch, {id}});
                    }
        return 0;
    }

    double set(const Act& act) const
    {
        double sum = 0;
        for (const auto& f : p.fittings)
            if (std::find(act.fittings.begin(), act.fittings.end(), f.key) != act.fittings.end())
                sum += f.kind == Fitting::Kind::Snap ? 4 : 1.5;
        return sum;
    }

    const Pattern& p;
};

} // namespace

Working minutesOf(const Pattern& pattern, const Step& step)
{
    if (step.ownMinutes >= 0)
        return worked({step.id, WorkingId("minutes." + step.id.text()), say("Minutes"), "own",
            {{"own", step.ownMinutes}}, 0, Working::Kind::Own, "min", say("as you wrote")});
    Working out = uncorrectedMinutesOf(pattern, step);
    const auto own = pattern.pace.steps.find(step.id);
    const double pace = own != pattern.pace.steps.end() ? own->second : pattern.pace.rest;
    if (pace == 1)
        return out;
    std::vector<Working::Input> inputs = out.inputs;
    inputs.push_back({"pace", pace});
    return worked({step.id, out.key, out.label, fmt::format("pace*({})", out.formula), std::move(inputs), 0,
        Working::Kind::Own, "min", say("as reckoned, times what the trial log measured against it")});
}

Working uncorrectedMinutesOf(const Pattern& pattern, const Step& step)
{
    const Effort e(pattern, step);
    // Layers are laid as quickly as their pieces are taken up; quilting is sewing.
    const bool layers = step.kind == StepKind::Interline && e.rows == 0;
    return worked({step.id, WorkingId("minutes." + step.id.text()), say("Minutes"),
        "pieces*each + rows*0.2 + (sewn + slow/2)/1000/speed + pinned/1000 + 0.8*pressed/1000 + 2*trimmed/1000 + hand",
        {{"pieces", double(step.pieces.size())}, {"each", layers ? 1.5 : 0.4}, {"rows", e.rows}, {"sewn", e.sewn},
            {"slow", e.slow}, {"speed", pattern.workshop.stitchSpeed}, {"pinned", e.pinned}, {"pressed", e.pressed},
            {"trimmed", e.trimmed}, {"hand", layers ? 0 : e.hand}},
        0, Working::Kind::Trade, "min",
        say("pieces taken up, rows begun and ended, rows at the workshop's speed in m/min, half as fast again round "
            "curves, pinning, pressing and trimming of layers by their length, handwork; the trial log corrects it")});
}

double minutesOf(const Pattern& pattern)
{
    double sum = 0;
    for (const auto& step : pattern.steps)
        sum += minutesOf(pattern, step).result;
    return sum;
}

double uncorrectedMinutesOf(const Pattern& pattern)
{
    double sum = 0;
    for (const auto& step : pattern.steps)
        sum += step.ownMinutes >= 0 ? step.ownMinutes : uncorrectedMinutesOf(pattern, step).result;
    return sum;
}

Pace paceOf(const Design& design, const Pattern& pattern)
{
    Pace out;
    double measured = 0, predicted = 0;                     // of what was not timed step by step
    std::map<StepId, std::pair<double, double>> timedSteps; // measured and predicted, over all trials
    for (const auto& trial : design.trials) {
        double minutes = trial.minutes, foretold = trial.predicted;
        for (const auto& [id, timed] : trial.steps) {
            if (timed.minutes <= 0 || timed.predicted <= 0)
                continue;
            minutes -= timed.minutes, foretold -= timed.predicted;
            if (const Step* step = pattern.step(id))
                timedSteps[step->id].first += timed.minutes, timedSteps[step->id].second += timed.predicted;
        }
        if (trial.minutes > 0 && trial.predicted > 0 && minutes > 0 && foretold > 0)
            measured += minutes, predicted += foretold;
    }
    if (predicted > 0)
        out.rest = measured / predicted;
    for (const auto& [id, sums] : timedSteps)
        out.steps[id] = sums.first / sums.second;
    return out;
}

namespace {

/// What thread goes into.
struct ThreadRows {
    double sewn = 0;    ///< mm of rows
    double through = 0; ///< mm·mm of stack for each mm of stitch, along all rows
    double rows = 0;    ///< each is begun and ended
    double thread() const { return 2 * (sewn + through) + kEnds * rows; }
    /// mm of both threads left at the beginning and end of a row (common practice, no source)
    static constexpr double kEnds = 200;
};

/// mm under the foot.
double stackOf(const Pattern& p, const Effort::Sewn& row, std::map<std::pair<const Seam*, bool>, double>& known)
{
    if (row.seam) {
        const bool over = row.kind == RowKind::Topstitch;
        const auto [at, fresh] = known.try_emplace({row.seam, over}, 0);
        if (fresh)
            at->second = (over ? bulkUnderTopstitch(p, *row.seam) : bulkAt(p, *row.seam)).underFoot;
        return at->second;
    }
    double out = 0;
    for (const auto& id : row.through)
        if (const Piece* piece = p.piece(id))
            if (const auto role = p.materials.find(piece->material); role != p.materials.end()) {
                out += row.plies * p.material(role->second).underFoot();
                for (const auto& layer : piece->layers)
                    out += layer.wholePiece ? p.material(layer.material).underFoot() : 0;
            }
    return out;
}

void addRows(const Pattern& p, const Step& step, ThreadRows& to, std::map<std::pair<const Seam*, bool>, double>& known)
{
    const Effort effort(p, step);
    to.sewn += effort.sewn, to.rows += effort.rows;
    for (const auto& row : effort.stacks)
        to.through += row.length * stackOf(p, row, known) / stitchLength(p, row.through, row.kind).middle();
}

} // namespace

std::vector<ThreadUse> threadsOf(const Pattern& pattern)
{
    ThreadUse shell{Coat::Shell}, lining{Coat::Lining};
    std::map<std::pair<const Seam*, bool>, double> known;
    for (const auto& step : pattern.steps) {
        ThreadRows rows;
        addRows(pattern, step, rows, known);
        const bool inside = !step.pieces.empty()
            && std::all_of(step.pieces.begin(), step.pieces.end(), [&](const PieceId& id) {
                   const Piece* piece = pattern.piece(id);
                   return piece && piece->coat == Coat::Lining;
               });
        (inside ? lining : shell).length += rows.thread();
    }
    std::vector<ThreadUse> out;
    for (ThreadUse use : {shell, lining}) {
        int needle = 0;
        for (const auto& piece : pattern.pieces)
            if (const auto cloth = pattern.materials.find(piece.material); cloth != pattern.materials.end()
                && (piece.coat == Coat::Lining) == (use.coat == Coat::Lining) && piece.coat != Coat::Interlining)
                needle = std::max(needle, needleOf(pattern.material(cloth->second)));
        use.tex = needle <= 80 ? 27 : needle <= 90 ? 40 : needle <= 110 ? 70 : 90;
        if (use.length > 0)
            out.push_back(use);
    }
    return out;
}

Working threadOf(const Pattern& pattern)
{
    ThreadRows all;
    std::map<std::pair<const Seam*, bool>, double> known;
    for (const auto& step : pattern.steps)
        addRows(pattern, step, all, known);
    return worked({{}, "thread", say("Thread"), "2*(sewn + through) + rows*ends",
        {{"sewn", all.sewn}, {"through", all.through}, {"rows", all.rows}, {"ends", ThreadRows::kEnds}}, 0,
        Working::Kind::Geometry, "mm",
        say("lockstitch 301: both threads run along every row, and at every stitch to the middle of the stack and back "
            "(row times compressed stack over stitch length); what hangs at the ends of rows is common practice")});
}

} // namespace tectonis
