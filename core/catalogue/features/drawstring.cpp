// SPDX-License-Identifier: GPL-3.0-or-later
// Drawstring round the mouth: through eyelets, slits or a channel; positions evenly divided round the mouth's stitch
// line.
#include "drafting/unlined.hpp"
#include "features/feature.hpp"
#include "geometry/outline.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class Drawstring : public FeatureKind {
public:
    std::string kind() const override { return "drawstring"; }
    std::string name() const override { return "Drawstring"; }
    std::vector<Run> silhouette() const override
    {
        return {Run{Cubic{{8, 56}, {8, 78}, {92, 78}, {92, 56}}}, Run{Cubic{{8, 56}, {8, 40}, {92, 40}, {92, 56}}},
            Run{Cubic{{44, 44}, {30, 10}, {20, 30}, {26, 12}}}, Run{Cubic{{56, 44}, {70, 10}, {80, 30}, {74, 12}}}};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"count", "Eyelets or slits",
                "Number of eyelets or slits round the mouth; even, so that the cord ends on one side of the cloth.",
                "8", hold(), "4", "24", DimensionSpec::Quantity::Count, "@through=eyelets|slits"},
            {"drop", "Drop", "From the mouth down to the cord.", "35", hold(), "15", "0.4*face.height"},
            {"size", "Eyelet", "Inside diameter of the eyelets, or length of the slits.", "10", hold(), "4", "25",
                DimensionSpec::Quantity::Length, "@through=eyelets|slits"},
            {"astride", "Pair astride each strap",
                "Between the two eyelets or slits beside each strap at the sides, or beside each end of the handles; 0 "
                "divides all of them evenly.",
                "0", hold(), "0", "face.width/3", DimensionSpec::Quantity::Length, "@through=eyelets|slits"},
            {"channel", "Channel width", "Between the two rows that make a channel.", "15", hold(), "6", "40",
                DimensionSpec::Quantity::Length, "@through=channel"},
            {"tail", "Cord tail", "Length of cord left free at each end.", "250", hold(), "50", "800"},
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier&) const override
    {
        return {{"through", "Cord runs through",
                    "Eyelets or slits through all layers, or a channel between shell and lining.",
                    {{"eyelets", "Eyelets"}, {"slits", "Slits"}, {"channel", "A channel"}}},
            {"cords", "Cords", "One cord, or two that are drawn at opposite sides.",
                {{"one", "One cord"}, {"two", "Two cords, opposite"}}},
            {"stop", "Tails held by", "A knot in each tail, or a cord lock that runs on both tails of a cord.",
                {{"knot", "Knots"}, {"lock", "A cord lock"}}}};
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const Seam* mouth = d.pattern.seam("mouth");
        if (!mouth)
            throw InputError(f.id.text(), say("a drawstring needs an open mouth to run round; this form has none"));
        const std::vector<EdgeUse> rim = mouth->a;
        double girth = 0;
        for (const auto& use : rim)
            girth += lengthOf(d.pattern.runOf(use));
        const std::string& through = f.choice("through");
        const double cord = d.work(
            {f.id, f.key("cord"), say("Cord"), "mouth + 2*tail", {{"mouth", girth}, {"tail", f("tail")}}, 0,
                Kind::Geometry, "mm", say("once round the mouth and two tails")});
        const int cords = f.choice("cords") == "two" ? 2 : 1;
        d.pattern.hardware.push_back({Ware::Cord, cords, cord,
            cords > 1 ? say("{} each", Len(cord)) : say("{}", Len(cord)), say("as you like")});
        const bool locked = f.choice("stop") == "lock";
        if (locked)
            d.pattern.hardware.push_back({Ware::CordLock, cords, 0, Message(), say("as you like")});
        // Both ends of a cord come out on one side of the cloth: at opposite holes only if half of them are even too.
        const int n = 2 * cords * int(std::lround(f("count") / (2 * cords)));
        std::vector<FittingId> set;
        PieceId first = rim.front().piece;
        std::vector<PieceId> pieces; // on which holes or rows are
        const auto onPiece = [&](const PieceId& id) {
            if (std::find(pieces.begin(), pieces.end(), id) == pieces.end())
                pieces.push_back(id);
        };
        const bool slits = through == "slits";
        if (through == "channel") {
            for (const auto& use : rim) {
                for (const double row : {f("drop") - f("channel") / 2, f("drop") + f("channel") / 2})
                    onPiece(drawRow(f, use, row));
                const auto [piece, middle, in] = below(f, use, f("drop"));
                f.handle("drop", piece->key, middle, in);
            }
            workHoles(f, rim, girth, cords);
        } else {
            const Mouth mouthLine(f, rim, slits);
            int number = 0;
            for (const double along : positions(f, mouthLine, girth, n)) {
                const Spot spot = mouthLine.at(along);
                set.push_back(mark(f, spot, ++number, slits));
                onPiece(spot.piece->key);
            }
            if (!slits)
                d.pattern.hardware.push_back(
                    {Ware::Eyelet, n, f("size"), say("{} inside", Len(f("size"))), say("one finish for all metal")});
        }
        const bool hardware = through == "eyelets";
        d.add(Step{.id = f.key("set"),
            .title = hardware ? say("Set the eyelets")
                : slits       ? say("Work the slits")
                              : say("Sew the channel"),
            .acts = hardware ? std::vector<Act>{act::set(set, Ware::Eyelet)}
                : slits      ? std::vector<Act>{act::saying(
                           {.verb = Act::Verb::Buttonhole, .pieces = pieces, .fittings = set, .distance = f("size")},
                           say("It goes through all layers."))}
                             : std::vector<Act>{{.verb = Act::Verb::Rows, .pieces = pieces}},
            .kind = hardware ? StepKind::Hardware : StepKind::Topstitch,
            .phase = "Strap",
            .consumes = {"bag"},
            .yields = "bag",
            .pieces = through == "channel" || slits ? pieces : std::vector<PieceId>{first},
            .fittings = set,
            .check = through == "channel" ? say("The rows run level with the mouth, {} apart.", Len(f("channel")))
                                          : say("They are at their marks and equally far from the mouth.")});
        d.add(Step{.id = f.key("thread"),
            .title = say("Thread the drawstring"),
            .acts = {act::with({.verb = Act::Verb::ThreadCord, .distance = cord, .taken = double(cords)},
                locked ? std::vector<Ware>{Ware::Cord, Ware::CordLock} : std::vector<Ware>{Ware::Cord})},
            .kind = StepKind::Strap,
            .phase = "Strap",
            .consumes = {"bag"},
            .yields = "bag",
            .pieces = {first}});
    }

private:
    static constexpr double kSetter = 4; ///< mm beside an eyelet for the tool that sets it (common practice, no source)

    static PieceId rootOf(const Piece& piece) { return piece.whole.empty() ? piece.key : piece.whole; }

    /// Of the pieces that a wall is cut into, the one that a point lies on; null where there is no cloth.
    static Piece* clothAt(Drafter& d, const PieceId& root, Point at)
    {
        for (auto& piece : d.pattern.pieces)
            if (rootOf(piece) == root && insideOutline(flattened(piece.stitch(), 0.5), at))
                return &piece;
        return nullptr;
    }

    struct Spot {
        Piece* piece = nullptr; ///< null: no cloth lies there
        Point at, in;           ///< on the piece; the way from the mouth into the bag
    };

    /// The line below the mouth on which the holes lie, and what is in their way.
    class Mouth {
    public:
        Mouth(FeatureScope& f, const std::vector<EdgeUse>& rim, bool slits)
            : m_d(f.d), m_drop(f("drop")), m_reach(slits ? 1.5 : f("size") / 2), m_length(slits ? f("size") / 2 : 0)
        {
            const double allowance = m_d("allowance.body");
            for (const auto& use : rim) {
                // Side seams end here: their allowances lie beside them.
                m_barriers.push_back({m_girth, allowance + m_reach});
                m_runs.push_back({use, m_d.pattern.runOf(use), m_girth, rootOf(m_d.piece(use.piece))});
                m_girth += lengthOf(m_runs.back().run);
            }
            for (const double strap : anchorsAlong(m_d, rim))
                for (const auto& ring : m_d.pattern.fittings)
                    if (ring.kind == Fitting::Kind::Ring)
                        m_barriers.push_back({strap, ring.size / 2 + m_reach + kSetter});
            for (auto& piece : m_d.pattern.pieces)
                if (std::any_of(m_runs.begin(), m_runs.end(), [&](const On& r) { return r.root == rootOf(piece); }))
                    m_cloth.push_back({&piece, flattened(piece.stitch(), 0.5)});
            for (const auto& piece : m_d.pattern.pieces)
                for (const auto& line : piece.lines)
                    if (line.kind == FaceLine::Kind::Placement)
                        m_taken.push_back({rootOf(piece), boundsOf(line.run)});
        }

        double girth() const { return m_girth; }
        const std::vector<EdgeUse> rim() const
        {
            std::vector<EdgeUse> out;
            for (const auto& r : m_runs)
                out.push_back(r.use);
            return out;
        }

        Spot at(double along) const
        {
            for (std::size_t i = 0; i < m_runs.size(); ++i) {
                const auto& r = m_runs[i];
                const double local = along - r.from;
                if (local > lengthOf(r.run) + 1e-9 && i + 1 < m_runs.size())
                    continue;
                const Point way = tangentAlong(r.run, local), in = rightOf(way) * (r.use.reversed ? 1.0 : -1.0),
                            at = pointAlong(r.run, local) + in * m_drop;
                return {clothUnder(r.root, at), at, in};
            }
            return {};
        }

        /// Clearance in mm to the nearest thing in the way; negative where a hole cannot be.
        double room(double along) const
        {
            double least = 1e9;
            for (const auto& [where, clear] : m_barriers)
                least = std::min(least, std::abs(std::remainder(along - where, m_girth)) - clear);
            const Spot spot = at(along);
            if (!spot.piece)
                return -1e3;
            for (const auto& [root, box] : m_taken)
                if (root == rootOf(*spot.piece))
                    least = std::min(least, away(box, spot) - m_reach - kSetter);
            for (const auto& other : m_d.pattern.fittings)
                if (other.kind != Fitting::Kind::Ring && m_d.pattern.piece(other.piece)
                    && rootOf(*m_d.pattern.piece(other.piece)) == rootOf(*spot.piece))
                    least = std::min(
                        least, distance(other.at, spot.at) - other.size / 2 - m_reach - m_length - kSetter);
            return least;
        }

    private:
        struct On {
            EdgeUse use;
            Run run;
            double from;
            PieceId root;
        };
        Piece* clothUnder(const PieceId& root, Point at) const
        {
            for (const auto& [piece, outline] : m_cloth)
                if (rootOf(*piece) == root && insideOutline(outline, at))
                    return piece;
            return nullptr;
        }
        double away(const Box& box, const Spot& spot) const
        {
            double least = 1e9;
            for (const double up : {-m_length, 0.0, m_length}) {
                const Point p = spot.at + spot.in * up;
                const double dx = std::max({box.x0 - p.x, 0.0, p.x - box.x1}),
                             dy = std::max({box.y0 - p.y, 0.0, p.y - box.y1});
                const bool inside = dx == 0 && dy == 0;
                least = std::min(least,
                    inside ? -std::min({p.x - box.x0, box.x1 - p.x, p.y - box.y0, box.y1 - p.y}) : std::hypot(dx, dy));
            }
            return least;
        }
        Drafter& m_d;
        double m_drop, m_reach, m_length, m_girth = 0;
        std::vector<On> m_runs;
        std::vector<std::pair<Piece*, Polyline>> m_cloth;
        std::vector<std::pair<double, double>> m_barriers; ///< along the mouth, and how wide each side
        std::vector<std::pair<PieceId, Box>> m_taken;      ///< places of other parts, by the wall that they are on
    };

    /// Lengths along the mouth: evenly divided, or a pair astride each strap and the others evenly between the pairs.
    /// All are turned round together until nothing is in their way; where that is impossible, single ones give way to
    /// the nearest free place.
    static std::vector<double> positions(FeatureScope& f, const Mouth& mouth, double girth, int n)
    {
        Drafter& d = f.d;
        std::vector<double> out;
        const double astride = f("astride");
        const auto straps = astride > 0 ? strapsAlong(d, mouth.rim()) : std::vector<double>{};
        const int pairs = int(straps.size());
        if (pairs < 2 || n < std::max(6, 2 * pairs)) {
            const double spacing = d.work({f.id, f.key("spacing"), say("Spacing"), "mouth/count",
                {{"mouth", girth}, {"count", double(n)}}, 0, Kind::Geometry, "mm",
                say("evenly divided round the mouth's stitch line, clear of seams, straps and parts where that can "
                    "be")});
            double best = -1e9, phase = 0.5;
            for (int i = 0; i < 60 && best < 0; ++i) {
                const int away = (i + 1) / 2;
                const double tried = 0.5 + (i % 2 ? away : -away) / 60.0; // from half a spacing outwards
                double least = 1e9;
                for (int k = 0; k < n && least > best; ++k)
                    least = std::min(least, mouth.room(std::fmod(girth * (k + tried) / n, girth)));
                if (least > best)
                    best = least, phase = tried;
            }
            for (int i = 0; i < n; ++i)
                out.push_back(
                    freeNear(mouth, std::fmod(girth * (i + phase) / n, girth), spacing / 2 - f("size") / 2 - kSetter));
            return out;
        }
        std::vector<double> spans;
        for (int i = 0; i < pairs; ++i)
            spans.push_back(
                (i + 1 < pairs ? straps[std::size_t(i) + 1] : straps[0] + girth) - straps[std::size_t(i)] - astride);
        const auto between = sharedOut(n - 2 * pairs, spans);
        for (int i = 0; i < pairs; ++i) {
            const double from = straps[std::size_t(i)] + astride / 2, span = spans[std::size_t(i)];
            const int holes = between[std::size_t(i)];
            if (span < 10 * (holes + 1))
                throw InputError(f.dimension("astride"),
                    say("between the straps {} of mouth are left for {} eyelets; bring the pairs closer together or "
                        "take fewer",
                        Len(span), holes));
            const double spacing = d.work({f.id, f.key(fmt::format("spacing.{}", i + 1)),
                say("Spacing behind strap {}", i + 1), "(span - astride)/(between + 1)",
                {{"span", span + astride}, {"astride", astride}, {"between", double(holes)}}, 0, Kind::Geometry, "mm",
                say("between the pairs astride the straps, evenly divided")});
            for (int k = 0; k <= holes + 1; ++k) {
                const double at = std::fmod(from + span * k / (holes + 1) + girth, girth);
                const bool ofPair = k == 0 || k == holes + 1; // these stay astride their strap
                out.push_back(ofPair ? at : freeNear(mouth, at, spacing / 2 - f("size") / 2 - kSetter));
            }
        }
        return out;
    }

    /// So many holes into the gaps that they stand as evenly as can be.
    static std::vector<int> sharedOut(int holes, const std::vector<double>& spans)
    {
        std::vector<int> out(spans.size(), 0);
        for (; holes > 0; --holes) {
            std::size_t widest = 0;
            for (std::size_t i = 1; i < spans.size(); ++i)
                if (spans[i] / (out[i] + 1) > spans[widest] / (out[widest] + 1) + 1e-6)
                    widest = i;
            ++out[widest];
        }
        return out;
    }

    /// The place itself if nothing is in its way, else the nearest that is free within @p reach; the place itself if
    /// there is none: a check tells.
    static double freeNear(const Mouth& mouth, double along, double reach)
    {
        if (mouth.room(along) >= 0)
            return along;
        for (double by = 0.5; by < reach; by += 0.5)
            for (const double sign : {-1.0, 1.0})
                if (const double there = std::fmod(along + sign * by + mouth.girth(), mouth.girth());
                    mouth.room(there) >= 0)
                    return there;
        return along;
    }

    /// Lengths along the mouth of what the holes stand astride of: straps at the sides and the ends of handles; where
    /// there are none, the places for straps. Ascending.
    static std::vector<double> strapsAlong(const Drafter& d, const std::vector<EdgeUse>& rim)
    {
        auto out = anchorsAlong(d, rim);
        const bool hung = std::any_of(d.pattern.fittings.begin(), d.pattern.fittings.end(),
            [](const Fitting& f) { return f.kind == Fitting::Kind::Ring; });
        const auto ends = handlesAlong(d, rim);
        if (!ends.empty() && !hung)
            out.clear();
        out.insert(out.end(), ends.begin(), ends.end());
        std::sort(out.begin(), out.end());
        return out;
    }

    /// Lengths along the mouth at which handles end on the walls below it.
    static std::vector<double> handlesAlong(const Drafter& d, const std::vector<EdgeUse>& rim)
    {
        std::vector<double> out;
        double from = 0;
        for (const auto& use : rim) {
            const Run run = d.pattern.runOf(use);
            for (const auto& piece : d.pattern.pieces) {
                if (rootOf(piece) != use.piece && piece.key != use.piece)
                    continue;
                for (const auto& line : piece.lines)
                    if (const Piece* part = d.pattern.piece(PieceId(line.owner));
                        line.kind == FaceLine::Kind::Placement && part && part->role == "handle")
                        out.push_back(from + alongOf(run, boundsOf(line.run).centre()));
            }
            from += lengthOf(run);
        }
        return out;
    }

    /// How far along a run the point lies that is nearest to @p at.
    static double alongOf(const Run& run, Point at)
    {
        const double length = lengthOf(run);
        double nearest = 1e300, out = 0;
        for (int i = 0; i <= 4000; ++i)
            if (const double away = distance(pointAlong(run, length * i / 4000), at); away < nearest)
                nearest = away, out = length * i / 4000;
        return out;
    }

    /// Lengths along the mouth at which the places for straps lie, ascending.
    static std::vector<double> anchorsAlong(const Drafter& d, const std::vector<EdgeUse>& rim)
    {
        std::vector<double> out;
        double from = 0;
        for (const auto& use : rim) {
            const Run run = d.pattern.runOf(use);
            const double length = lengthOf(run);
            for (const auto& anchor : d.pattern.anchors) {
                if (anchor.piece != use.piece || (anchor.name != "left" && anchor.name != "right"))
                    continue;
                double nearest = 1e300, at = 0;
                for (int i = 0; i <= 400; ++i)
                    if (const double away = distance(pointAlong(run, length * i / 400), anchor.at); away < nearest)
                        nearest = away, at = from + length * i / 400;
                const bool known = std::any_of(
                    out.begin(), out.end(), [&](double other) { return std::abs(other - at) < 1; });
                if (nearest < 0.5 && !known)
                    out.push_back(at);
            }
            from += length;
        }
        std::sort(out.begin(), out.end());
        return out;
    }

    /// One row of a channel below an edge of the mouth, from side to side of whatever piece lies there.
    static PieceId drawRow(FeatureScope& f, const EdgeUse& use, double row)
    {
        const auto [piece, middle, in] = below(f, use, row);
        const Point way = rightOf(in);
        // Out to the nearest side in both directions.
        const Polyline outline = flattened(piece->stitch(), 0.01);
        double back = 1e9, on = 1e9;
        for (std::size_t i = 0; i + 1 < outline.size(); ++i) {
            const Point a = outline[i], b = outline[i + 1];
            const double side = cross(way, a - middle), other = cross(way, b - middle);
            if ((side > 0) == (other > 0))
                continue;
            const double along = dot(way, lerp(a, b, side / (side - other)) - middle);
            (along > 0 ? on : back) = std::min(along > 0 ? on : back, std::abs(along));
        }
        piece->lines.push_back(
            {f.line("channel"), FaceLine::Kind::Topstitch, lineRun({middle - way * back, middle + way * on}), true});
        return piece->key;
    }

    /// Below the middle, or a share from its beginning, of an edge of the mouth, on whatever piece lies there.
    static Spot below(FeatureScope& f, const EdgeUse& use, double drop, double share = 0.5)
    {
        Drafter& d = f.d;
        const Run run = d.pattern.runOf(use);
        const double half = lengthOf(run) * share;
        const Point in = rightOf(tangentAlong(run, half)) * (use.reversed ? 1.0 : -1.0),
                    middle = pointAlong(run, half) + in * drop;
        Piece* piece = clothAt(d, rootOf(d.piece(use.piece)), middle);
        if (!piece)
            throw InputError(f.dimension("drop"),
                say("no cloth of the {} lies {} below its mouth", within(d.piece(use.piece).name), Len(drop)));
        return {piece, middle, in};
    }

    /// Where cords leave their channel: in the middle of one edge of the mouth, and half round for the other cord; on a
    /// mouth of one edge at a quarter from both its ends.
    static void workHoles(FeatureScope& f, const std::vector<EdgeUse>& rim, double girth, int cords)
    {
        if (cords < 2)
            return workHole(f, rim.front(), 0.5, 1);
        if (rim.size() == 1) {
            workHole(f, rim.front(), 0.25, 1);
            return workHole(f, rim.front(), 0.75, 2);
        }
        workHole(f, rim.front(), 0.5, 1);
        const double first = lengthOf(f.d.pattern.runOf(rim.front())) / 2;
        double from = 0, nearest = 1e300;
        const EdgeUse* opposite = nullptr;
        for (const auto& use : rim) {
            const double length = lengthOf(f.d.pattern.runOf(use)),
                         away = std::abs(std::remainder(from + length / 2 - first - girth / 2, girth));
            if (&use != &rim.front() && away < nearest)
                nearest = away, opposite = &use;
            from += length;
        }
        workHole(f, *opposite, 0.5, 2);
    }

    /// A buttonhole in the shell alone, so it is worked while the piece lies flat.
    static void workHole(FeatureScope& f, const EdgeUse& use, double share, int number)
    {
        const auto [piece, at, in] = below(f, use, f("drop"), share);
        const double half = std::min(6.0, f("channel") / 2 - 1);
        const std::string name = number > 1 ? "hole 2" : "hole";
        piece->drills.push_back({at, say("cord hole")});
        piece->lines.push_back({f.line(name), FaceLine::Kind::Slash, lineRun({at - in * half, at + in * half})});
        f.d.addOnTop(Step{.id = f.key(name),
                         .title = number > 1 ? say("Work the other cord's hole") : say("Work the cord's hole"),
                         .acts = {act::saying({.verb = Act::Verb::Buttonhole, .pieces = {piece->key}},
                             say("It lies between the rows of the channel and goes through the shell alone."))},
                         .kind = StepKind::Flat,
                         .phase = piece->coat == Coat::Shell ? phaseOf(f.d, piece->key) : "Shell front",
                         .consumes = {piece->key},
                         .yields = piece->key,
                         .pieces = {piece->key},
                         .check = say("Cut open without catching a stitch.")},
            piece->key);
    }

    /// When a piece is worked on: as the first step that takes it up.
    static std::string phaseOf(const Drafter& d, const WorkId& part)
    {
        for (const auto& step : d.steps)
            if (std::find(step.consumes.begin(), step.consumes.end(), part) != step.consumes.end())
                return step.phase;
        return "Shell front";
    }

    /// One eyelet or slit.
    static FittingId mark(FeatureScope& f, const Spot& spot, int number, bool slit)
    {
        Drafter& d = f.d;
        if (!spot.piece)
            throw InputError(
                f.dimension("drop"), say("no cloth lies {} below the mouth where a hole would be", Len(f("drop"))));
        spot.piece->drills.push_back({spot.at, slit ? say("slit") : say("eyelet")});
        if (slit)
            spot.piece->lines.push_back({f.line("slit"), FaceLine::Kind::Slash,
                lineRun({spot.at - spot.in * (f("size") / 2), spot.at + spot.in * (f("size") / 2)})});
        f.handle("drop", spot.piece->key, spot.at, spot.in, 1, Handle::From::Nowhere,
            boxAround(spot.at, f("size") / 2, f("size") / 2));
        const FittingId key = f.key("eyelet" + std::to_string(number));
        d.pattern.fittings.push_back({key, say("{} {}", f.named(slit ? say("Slit") : say("Eyelet")), number),
            spot.piece->key, Fitting::Kind::Eyelet, spot.at, f("size"), 0,
            unlined(d) ? say("the shell") : say("shell and lining"), true});
        return key;
    }

public:
    bool goesByOthers() const override { return true; }

    void settle(Design& design, const std::string& id) const override
    {
        // A second one runs below the first.
        for (const auto& other : design.features)
            if (other.kind == "drawstring" && other.id != id)
                design.dimensions.at(id + ".drop").value = "min(0.4*face.height, " + other.id + ".drop + " + other.id
                    + ".size + 20)";
    }
};

} // namespace

const FeatureKind& drawstringKind()
{
    static const Drawstring kind;
    return kind;
}

} // namespace tectonis
