// SPDX-License-Identifier: GPL-3.0-or-later
#include "figures/section.hpp"

#include "figures/plan.hpp"
#include "pattern/seam_shape.hpp"

#include <algorithm>
#include <cmath>
#include <optional>

namespace tectonis {
namespace {

using Verb = Act::Verb;
using To = Act::To;
using Kind = Stroke::Kind;

constexpr double kThick = 2.4; // of a layer: far more than cloth has, so that it can be seen
constexpr double kFlap = 13;   // an allowance
constexpr double kReach = 36;  // how much of a piece is shown
constexpr double kRow = 6;     // a topstitched row from its fold

/// One step cut through. Right sides look up, unless layers lie right sides together.
class Section {
public:
    Section(const Pattern& pattern, const Step& step) : p(pattern), m_step(step) {}

    Scene scene()
    {
        m_scene.kind = Scene::Kind::Section;
        // The last act that shapes something says how things lie in the end; rows that follow are drawn on it.
        for (const auto& act : m_step.acts)
            note(act);
        if (m_fold)
            fold(*m_fold);
        else if (m_set)
            set(*m_set);
        else if (m_clip)
            clips(*m_clip);
        else if (m_zip)
            zip(*m_zip);
        else if (m_onFace)
            onFace(*m_onFace);
        else if (m_roll)
            rolled(*m_roll);
        else if (m_press && m_press->to != To::Nowhere && !m_press->seams.empty())
            pressed();
        else if (m_sew)
            together(*m_sew);
        return std::move(m_scene);
    }

private:
    void note(const Act& act)
    {
        switch (act.verb) {
        case Verb::Sew:
        case Verb::JoinCoats: m_sew = &act; break;
        case Verb::Press: m_press = &act; break;
        case Verb::Topstitch: m_row = &act; break;
        case Verb::Roll: m_roll = &act; break;
        case Verb::Clip:
        case Verb::Notch: m_clip = m_clip ? m_clip : &act; break;
        case Verb::SewTape:
        case Verb::InsertZip: m_zip = m_zip ? m_zip : &act; break;
        case Verb::StitchOn:
        case Verb::Window: m_onFace = &act; break;
        case Verb::Set: m_set = &act; break;
        case Verb::Interline:
        case Verb::Pleat:
        case Verb::WrapOver:
        case Verb::Hinge:
        case Verb::FoldStrip:
        case Verb::Hem:
        case Verb::FoldIn:
        case Verb::Bind:
        case Verb::Fell:
        case Verb::BagSeam:
        case Verb::WrapCord:
        case Verb::Paint:
        case Verb::Ring:
        case Verb::ThreadStrap:
        case Verb::ThreadTails:
        case Verb::DropIn: m_fold = m_fold ? m_fold : &act; break;
        default: break;
        }
    }

    template <class Item> void add(Item item) { m_scene.items.emplace_back(std::move(item)); }
    void band(Polyline line, Skin skin, double width = kThick) { add(Band{std::move(line), width, skin}); }
    /// A row of stitches cut through, and how far from what.
    void row(double x, double low, double high, Kind kind = Kind::Topstitch)
    {
        add(Stroke{{{x, low}, {x, high}}, kind});
    }
    void measure(double x0, double x1, double y, const Message& words)
    {
        add(Stroke{{{x0, y}, {x1, y}}, Kind::Mark});
        for (const double x : {x0, x1})
            add(Stroke{{{x, y - 1.6}, {x, y + 1.6}}, Kind::Mark});
        add(Word{{(x0 + x1) / 2, y + 4.5}, words});
    }

    const Seam* seamOf(const Act& act) const
    {
        for (const auto& key : act.seams)
            if (const Seam* s = p.seam(key); s && !s->a.empty() && !s->b.empty())
                return s;
        return nullptr;
    }
    Skin skin(const std::vector<EdgeUse>& side) const
    {
        const Piece* piece = side.empty() ? nullptr : p.piece(side.front().piece);
        return piece ? skinOf(*piece) : Skin::Shell;
    }
    Skin skin(const PieceId& id) const
    {
        const Piece* piece = p.piece(id);
        return piece ? skinOf(*piece) : Skin::Shell;
    }
    void code(const std::vector<EdgeUse>& side, Point at)
    {
        if (const Piece* piece = side.empty() ? nullptr : p.piece(side.front().piece))
            add(Word{at, naming(piece->code)});
    }

    /// Two layers on each other, raw edges level, a row at the allowance.
    void together(const Act& act)
    {
        const Seam* s = seamOf(act);
        if (!s || s->allowance <= 0)
            return;
        const double top = s->trapped.empty() ? kThick * 0.55 : kThick * 1.1;
        band({{-kReach, top}, {0, top}}, skin(s->a));
        if (!s->trapped.empty())
            band({{-kReach * 0.75, 0}, {0, 0}}, skin(s->trapped.front()));
        band({{-kReach, -top}, {0, -top}}, skin(s->b));
        row(-kFlap, -top - 4, top + 4, Kind::Sew);
        measure(-kFlap, 0, top + 6, say("{}", Len(s->allowance)));
        code(s->a, {-kReach - 6, top + 1.5});
        code(s->b, {-kReach - 6, -top - 1.5});
    }

    /// A seam opened: allowances pressed open or to a side, and the rows beside it.
    void pressed()
    {
        const Seam* s = seamOf(*m_press);
        if (!s)
            return;
        const Skin a = skin(s->a), b = skin(s->b);
        const double y1 = -kThick * 1.1, y2 = -kThick * 2.2;
        const auto leg = [&](double from, bool left, double y) {
            return Polyline{{from, 0}, {0, 0}, {0, y}, {left ? -kFlap : kFlap, y}};
        };
        // What lies nearer to the face is the allowance of the piece that it is pressed to.
        const bool open = m_press->to == To::Open, left = m_press->to == To::First;
        band(leg(-kReach, open || left, open || left ? y1 : y2), a);
        band(leg(kReach, !open && left, open || !left ? y1 : y2), b);
        if (m_press->to == To::First || m_press->to == To::Second)
            add(Arrow{{{left ? 7.0 : -7.0, y2 - 6}, {left ? -kFlap - 4 : kFlap + 4, y2 - 6}}});
        code(s->a, {-kReach + 5, 6});
        code(s->b, {kReach - 5, 6});
        if (!m_row)
            return;
        const double low = (open ? y1 : y2) - 3;
        if (m_row->to != To::Second)
            row(-kRow, low, 4), measure(-kRow, 0, 7, say("{}", Len(m_row->distance)));
        if (m_row->to == To::Second || m_row->to == To::Open)
            row(kRow, low, 4);
        if (m_row->taken > 0 && m_row->to != To::Second)
            row(-2 * kRow, low, 4);
        if (m_row->taken > 0 && (m_row->to == To::Second || m_row->to == To::Open))
            row(2 * kRow, low, 4);
        if (m_row->to == To::Second)
            measure(0, kRow, 7, say("{}", Len(m_row->distance)));
    }

    /// Turned out: the seam at the very edge, both allowances within.
    void rolled(const Act& act)
    {
        const Seam* s = seamOf(act);
        if (!s)
            return;
        const double y = kThick * 1.75;
        band({{-kReach, y}, {0, y}, {0, kThick * 0.55}, {-kFlap, kThick * 0.55}}, skin(s->a));
        band({{-kReach, -y}, {0, -y}, {0, -kThick * 0.55}, {-kFlap * 0.7, -kThick * 0.55}}, skin(s->b));
        row(-kRow, -y - 4, y + 4);
        measure(-kRow, 0, y + 6, say("{}", Len(act.distance)));
        code(s->a, {-kReach - 6, y});
        code(s->b, {-kReach - 6, -y});
    }

    /// Stitched flat on a face, its edges turned in where they have allowances.
    void onFace(const Act& act)
    {
        const Seam* s = seamOf(act);
        if (!s)
            return;
        const Piece* first = p.piece(s->a.front().piece);
        const bool aBelow = first && !first->edge(s->a.front().edge);
        const auto &low = aBelow ? s->a : s->b, &up = aBelow ? s->b : s->a;
        band({{-kReach * 0.7, 0}, {kReach, 0}}, skin(low));
        if (act.verb == Verb::Window) {
            const double y = -kThick * 1.1;
            m_scene.items.clear();
            band({{-kReach, 0}, {0, 0}, {0, y}, {-kFlap, y}}, skin(low));
            band({{-kReach, 2 * y}, {1.5, 2 * y}, {1.5, y / 2}, {-2, y / 2}}, skin(up));
            code(low, {-kReach - 6, 2});
            code(up, {-kReach - 6, 2 * y - 1});
            return;
        }
        const Piece* upper = p.piece(up.front().piece);
        const Edge* edge = upper ? upper->edge(up.front().edge) : nullptr;
        const double y = kThick * 2.2;
        if (edge && edge->allowance > 0.5)
            band({{kReach, y}, {0, y}, {0, kThick * 1.1}, {kFlap, kThick * 1.1}}, skin(up));
        else
            band({{kReach, kThick * 1.1}, {0, kThick * 1.1}}, skin(up));
        row(3.5, -4, y + 4);
        code(low, {-kReach * 0.7 + 4, -5});
        code(up, {kReach - 5, y + 5});
    }

    /// A zip beside what it is sewn to.
    void zip(const Act& act)
    {
        const Skin face = act.pieces.empty() ? Skin::Shell : skin(act.pieces.front());
        const double y = kThick * 1.1;
        band({{-20, 0}, {-2.2, 0}}, Skin::Tape, kThick * 0.7);
        band({{2.2, 0}, {20, 0}}, Skin::Tape, kThick * 0.7);
        Polyline chain;
        for (int i = 0; i < 20; ++i)
            chain.push_back(polar(2 * pi * i / 20) * 3.2);
        add(Surface{chain, Skin::Metal});
        const bool both = act.verb == Verb::InsertZip;
        for (const double side : {-1.0, 1.0}) {
            if (side > 0 && !both)
                break;
            if (act.taken > 0)
                band({{side * kReach, y}, {side * 7, y}}, face); // raw, lapped over the tape
            else
                band({{side * kReach, y}, {side * 7, y}, {side * 7, y + 0.1}, {side * 7, y}, {side * 18, y}}, face);
            if (act.pieces.size() > 1)
                band({{side * kReach, -y}, {side * 7, -y}}, skin(act.pieces.back()));
            row(side * 10, -y - 4, y + 4);
        }
        if (both)
            measure(7, 10, y + 6, say("{}", Len(act.distance)));
        else if (act.taken > 0) {
            measure(-20, -7, y + 6, say("{}", Len(act.distance)));
            measure(-10, -7, -y - 9, say("{}", Len(act.taken)));
        } else
            measure(-20, -10, y + 6, say("{}", Len(act.distance)));
    }

    void fold(const Act& act)
    {
        switch (act.verb) {
        case Verb::FoldStrip: return strip(act);
        case Verb::Hem: return hem(act);
        case Verb::Interline: return interlined(act);
        case Verb::Pleat: return pleated(act);
        case Verb::WrapOver: return wrapped(act);
        case Verb::Hinge: return hinged(act);
        case Verb::FoldIn: return foldIn(act);
        case Verb::Bind: return bound(act);
        case Verb::Fell: return felled(act);
        case Verb::BagSeam: return bagged(act);
        case Verb::WrapCord: return cord(act);
        case Verb::Paint: return painted(act);
        case Verb::DropIn: return droppedIn(act);
        case Verb::Ring: return overBar(act);
        case Verb::ThreadStrap: return throughSlider(act);
        case Verb::ThreadTails: return throughLadder(act);
        default: return;
        }
    }

    /// A bar of a ring, slider or buckle, seen from its end.
    void bar(Point at, double radius = 3)
    {
        Polyline round;
        for (int i = 0; i < 24; ++i)
            round.push_back(at + polar(2 * pi * i / 24) * radius);
        add(Surface{round, Skin::Metal});
    }

    /// A tab or a strap's end folded round a bar; an end that is sewn down has its raw edge turned under.
    void overBar(const Act& act)
    {
        const Skin s = act.pieces.empty() ? Skin::Strip : skin(act.pieces.front());
        const double y = 3 + kThick * 0.6, end = act.distance > 0 ? -26 : -kReach;
        Polyline line{{act.distance > 0 ? -kReach - 14 : -kReach, y}, {0, y}, {y * 0.8, y * 0.6}, {y, 0},
            {y * 0.8, -y * 0.6}, {0, -y}, {-9, -0.6}, {end, -0.6}};
        if (act.distance > 0) {
            line.push_back({end, 2});
            line.push_back({end + 9, 2});
        }
        bar({0, 0});
        band(line, s);
        if (act.distance > 0) {
            for (const double x : {end + 3, -12.0})
                row(x, -4, y + 4);
            measure(end, y, -y - 8, say("{}", Len(act.distance)));
        }
    }

    /// The strap's way from its sewn end round the slider's middle bar, through one ring, back through the slider and
    /// to the other ring.
    void throughSlider(const Act& act)
    {
        const Skin s = act.pieces.empty() ? Skin::Strip : skin(act.pieces.front());
        for (const auto& strap : p.straps) {
            if (act.pieces.empty() || strap.piece != act.pieces.front())
                continue;
            if (strap.worn == Strap::Worn::Wrist)
                return bothRound(s, strap.fold);
            if (strap.worn == Strap::Worn::Doubled)
                return closedLoop(s, strap.fold);
        }
        constexpr double ring = 74, slot = 17; // from the slider's middle bar to the rings, to its outer bars
        for (const double x : {-slot, 0.0, slot, ring, -ring})
            bar({x, 0});
        // Its end goes over the middle bar and comes out below, under the outer bar; there it is sewn.
        band({{40, -12}, {6, -12}, {-2, -5}, {-5, -2}, {-5, 2}, {-2, 5}, {2, 5}, {5, 2}, {10, -6.5}, {ring, -6.5},
                 {ring + 5, -4}, {ring + 6, 0}, {ring + 5, 4}},
            s);
        // Back from the ring, between the outer bar and the sewn end, over the middle bar.
        band({{ring + 5, 4}, {ring, 6}, {ring - 8, 4}, {ring - 16, -1}, {slot + 6, -3.8}, {slot - 5, -3}, {6, 7.5},
                 {-6, 7.5}, {-slot + 4, -3}, {-slot - 6, -4.8}, {-ring, -5.4}, {-ring - 5, -3}, {-ring - 6, 0},
                 {-ring - 5, 3}, {-ring, 5}, {-ring + 10, -1}, {-ring + 30, -2}},
            s);
        for (const double x : {26.0, 36.0})
            row(x, -16, -3, Kind::Sew);
        for (const double x : {-ring + 16, -ring + 26})
            row(x, -9, 2, Kind::Sew);
        add(Word{{31, -20}, say("box-X")});
        add(Arrow{{{ring - 22, 10}, {slot + 14, 10}}});
        add(Arrow{{{-slot - 10, 5}, {-ring + 14, 8}}});
    }

    /// A loop through two rings, its ends lapped on the upper strand, their raw ends turned under.
    void closedLoop(Skin s, double lap)
    {
        constexpr double ring = 74, r = 3 + kThick * 0.6, end = 16;
        for (const double x : {-ring, ring})
            bar({x, 0});
        const auto round = [&](double side) { // from below, round its ring and up
            return Polyline{{side * 12, -r}, {side * ring, -r}, {side * (ring + r * 0.8), -r * 0.6},
                {side * (ring + r), 0}, {side * (ring + r * 0.8), r * 0.6}, {side * ring, r}};
        };
        Polyline left = round(-1), right = round(1);
        left.front().x = 0, right.front().x = 0;
        // Each ends past the middle, one below the other, its raw end turned in between them.
        for (const Point q : {Point{-end, r}, Point{end, r}, Point{end, r + 1.6}, Point{end - 7, r + 1.6}})
            left.push_back(q);
        const double over = r + 2 * kThick + 1.6;
        for (const Point q : {Point{end + 14, r}, Point{end + 4, over}, Point{-end, over}, Point{-end, over - 1.6},
                 Point{-end + 7, over - 1.6}})
            right.push_back(q);
        band(left, s);
        band(right, s);
        for (const double x : {-end + 3, end - 3})
            row(x, r - 4, over + 4, Kind::Sew);
        measure(-end, end, over + 8, say("{}", Len(lap)));
        add(Word{{0, over + 20}, say("box-X")});
        add(Arrow{{{-40, -r - 6}, {40, -r - 6}}});
    }

    /// Both ends of a loop round one bar and back onto it, the outer one's raw edge turned under over the other.
    void bothRound(Skin s, double fold)
    {
        const double y = 3 + kThick * 0.6, out = y + kThick + 0.6, end = -26;
        bar({0, 0});
        band({{-kReach - 14, y}, {0, y}, {y * 0.8, y * 0.6}, {y, 0}, {y * 0.8, -y * 0.6}, {0, -y}, {-9, -0.6},
                 {end + 5, -0.6}},
            s);
        band({{-kReach - 14, out}, {0, out}, {out * 0.8, out * 0.6}, {out, 0}, {out * 0.8, -out * 0.6}, {0, -out},
                 {-9, -0.6 - kThick - 0.6}, {end, -0.6 - kThick - 0.6}, {end, 0}, {end + 4, 0}},
            s);
        for (const double x : {end + 3, -12.0})
            row(x, -8, out + 4, Kind::Sew);
        measure(end, out, -out - 12, say("{}", Len(fold)));
        add(Word{{-kReach - 2, out + 10}, say("box-X")});
    }

    /// Webbing up behind the lower bar and down over it; its end is folded over twice.
    void throughLadder(const Act& act)
    {
        const Skin s = act.pieces.empty() ? Skin::Strip : skin(act.pieces.front());
        for (const double x : {0.0, 15.0})
            bar({x, 0});
        band({{-70, -4.6}, {0, -4.6}, {4.6, -2.4}, {5, 0}, {4.6, 2.4}, {0, 4.6}, {-44, 4.6}, {-44, 7.2}, {-33, 7.2},
                 {-33, 9.8}, {-42, 9.8}},
            s);
        // What holds the other bar: the strap's loop, or the buckle itself.
        if (act.fittings.empty())
            band({{48, -4.6}, {15, -4.6}, {10.4, -2.4}, {10, 0}, {10.4, 2.4}, {15, 4.6}, {48, 4.6}}, Skin::Strip);
        else
            add(Surface{{{15, -3}, {44, -3}, {44, 3}, {15, 3}}, Skin::Metal});
        row(-38.5, 1, 14);
        if (act.distance > 0)
            measure(-44, -33, 17, say("{}", Len(act.distance)));
        add(Arrow{{{-60, -10}, {-8, -10}}});
        add(Arrow{{{-6, 10}, {-26, 10}}});
    }

    /// A strap cut through: as often as its cloth is wide.
    void strip(const Act& act)
    {
        const Piece* piece = act.pieces.empty() ? nullptr : p.piece(act.pieces.front());
        if (!piece || act.distance <= 0)
            return;
        const Skin s = skinOf(*piece);
        const Box box = boundsOf(piece->cut);
        const double times = std::min(box.width(), box.height()) / act.distance, w = 40, y = kThick;
        if (act.taken > 0 && act.pieces.size() > 1 && p.piece(act.pieces[1])) {
            const double turn = std::min(w / 2 - 2, w * act.taken / act.distance);
            const auto turnedIn = [&](double side, Skin skin) {
                band({{turn, side * y * 0.55}, {0, side * y * 0.55}, {0, side * y * 1.65}, {w, side * y * 1.65},
                         {w, side * y * 0.55}, {w - turn, side * y * 0.55}},
                    skin);
            };
            turnedIn(1, s);
            turnedIn(-1, skinOf(*p.piece(act.pieces[1])));
            if (piece->areas.contains("padding"))
                band({{turn + 1, 0}, {w - turn - 1, 0}}, Skin::Padding);
        } else if (times > 3)
            band({{3, y * 0.55}, {w, y * 0.55}, {w, y * 1.65}, {0, y * 1.65}, {0, -y * 1.65}, {w, -y * 1.65},
                     {w, -y * 0.55}, {3, -y * 0.55}},
                s);
        else if (times > 1.6)
            band({{w / 2 - 1, -y * 0.6}, {0, -y * 0.6}, {0, y * 0.6}, {w, y * 0.6}, {w, -y * 0.6},
                     {w / 2 + 1, -y * 0.6}},
                s);
        else
            band({{0, 0}, {w, 0}}, s);
        for (const double x : {4.0, w - 4})
            row(x, -y * 1.65 - 4, y * 1.65 + 4);
        measure(0, w, y * 1.65 + 7, say("{}", Len(act.distance)));
    }

    /// A layer on the wrong side of its piece, held as its fixing says: into the allowance, or short of it.
    void interlined(const Act& act)
    {
        const Layer* shown = nullptr;
        const Piece* on = nullptr;
        for (const auto& piece : p.pieces)
            for (const auto& layer : piece.layers)
                if (std::find(act.layers.begin(), act.layers.end(), layer.id) != act.layers.end()
                    && (!shown || (layer.wholePiece && !shown->wholePiece)))
                    shown = &layer, on = &piece;
        if (!shown)
            return;
        const bool inSeam = std::any_of(
            shown->reach.begin(), shown->reach.end(), [](const auto& edge) { return edge.second > 3; });
        const double thick = shown->loft ? 3 * kThick : kThick, y = kThick / 2 + thick / 2 + 0.3;
        band({{-kReach, 0}, {0, 0}}, otherSide(skinOf(*on)));
        band({{-kReach, y}, {inSeam ? 0 : -kFlap, y}}, Skin::Padding, thick);
        add(Stroke{{{-kFlap, -6}, {-kFlap, y + thick}}, Kind::Fold}); // the stitch line
        if (shown->fixing == "basted") {
            const double at = inSeam ? -4.5 : -kFlap - 4;
            row(at, -4, y + thick, Kind::Baste);
            measure(inSeam ? at : -kFlap, inSeam ? 0 : at, y + thick + 3,
                inSeam ? say("{} to {}", Len(3), Len(6)) : say("{} to {}", Len(2), Len(3)));
        }
        add(Word{{-kReach - 7, -2}, naming(on->code)});
        add(Word{{-kReach - 7, std::max(y + 1, 4.0)}, naming(shown->code)});
    }

    /// The cloth of a pleat lies three times.
    void pleated(const Act& act)
    {
        const Skin s = act.pieces.empty() ? Skin::Shell : skin(act.pieces.front());
        const double y = kThick * 1.15;
        band({{-kReach, 2 * y}, {9, 2 * y}, {9, y}, {-9, y}, {-9, 0}, {kReach, 0}}, s);
        row(0, -4, 2 * y + 4, Kind::Baste);
        if (act.distance > 0)
            measure(-9, 9, 2 * y + 6, say("{}", Len(act.distance / 2)));
    }

    /// A cover drawn over the rim of a card or a shell, its turn-in glued inside.
    void wrapped(const Act& act)
    {
        const Skin s = act.pieces.empty() ? Skin::Shell : skin(act.pieces.front());
        const double y = kThick * 1.15;
        band({{-kReach, 0}, {-kThick, 0}}, act.pieces.size() > 1 ? Skin::Padding : Skin::Metal, kThick * 0.8);
        band({{-kReach, y}, {0, y}, {0, -y}, {-kFlap - 4, -y}}, s);
        measure(-kFlap - 4, 0, -y - 9, say("{}", Len(act.distance)));
    }

    /// Folded over its first row and sewn again.
    void hinged(const Act& act)
    {
        const Seam* s = seamOf(act);
        if (!s)
            return;
        const bool aEdge = p.piece(s->a.front().piece) && p.piece(s->a.front().piece)->edge(s->a.front().edge);
        const auto &low = aEdge ? s->b : s->a, &up = aEdge ? s->a : s->b;
        const double y = kThick * 1.1;
        band({{-kReach, 0}, {kReach, 0}}, skin(low));
        band({{-kFlap, y}, {8, y}, {8, 2 * y}, {-kReach, 2 * y}}, skin(up));
        row(4, -4, 1.5 * y, Kind::Sewn);
        row(1, -4, 2 * y + 4);
        measure(1, 8, 2 * y + 6, say("{}", Len(act.distance)));
        code(low, {kReach - 4, -6});
        code(up, {-kReach + 4, 2 * y + 5});
    }

    void hem(const Act& act)
    {
        const Skin s = act.pieces.empty() ? Skin::Shell : skin(act.pieces.front());
        const double y = kThick * 1.15;
        if (act.taken > act.distance + 0.5)
            band({{-kReach, 0}, {0, 0}, {0, 2 * y}, {-17, 2 * y}, {-17, y}, {-5, y}}, s);
        else
            band({{-kReach, 0}, {0, 0}, {0, y}, {-17, y}}, s);
        row(-14.5, -4, 2 * y + 4);
        measure(-17, 0, 2 * y + 6, say("{}", Len(act.distance)));
    }

    void foldIn(const Act& act)
    {
        const Skin s = act.pieces.empty() ? Skin::Shell : skin(act.pieces.front());
        const double y = kThick * 1.15;
        band({{-kReach, 0}, {0, 0}, {0, y}, {-kFlap, y}}, s);
        measure(-kFlap, 0, y + 5, say("{}", Len(act.distance)));
    }

    void bound(const Act& act)
    {
        const Seam* s = seamOf(act);
        const Skin tape = act.pieces.empty() ? Skin::Strip : skin(act.pieces.front());
        const double y = kThick * 0.55;
        band({{-kReach, y}, {0, y}}, s ? skin(s->a) : Skin::Shell);
        band({{-kReach, -y}, {0, -y}}, s ? skin(s->b) : Skin::Lining);
        const double o = kThick * 1.75;
        band({{-6, o + kThick}, {-12, o + kThick}, {-12, o}, {2.6, o}, {2.6, -o}, {-12, -o}, {-12, -o - kThick},
                 {-6, -o - kThick}},
            tape);
        row(-9.5, -o - kThick - 4, o + kThick + 4);
    }

    void cord(const Act& act)
    {
        const Skin s = act.pieces.empty() ? Skin::Strip : skin(act.pieces.front());
        const double r = 6;
        Polyline round, wrap{{-kReach * 0.8, kThick * 0.6}, {-r * 1.3, kThick * 0.6}};
        for (int i = 0; i < 24; ++i)
            round.push_back(polar(2 * pi * i / 24) * r);
        for (int i = -12; i <= 12; ++i)
            wrap.push_back(polar(-pi * 0.85 * i / 12) * (r + kThick / 2));
        wrap.push_back({-r * 1.3, -kThick * 0.6});
        wrap.push_back({-kReach * 0.8, -kThick * 0.6});
        add(Surface{round, Skin::Padding});
        band(wrap, s);
        row(-r * 1.5, -kThick * 1.2 - 4, kThick * 1.2 + 4, Kind::Sew);
    }

    /// One allowance trimmed, the other folded over it and sewn down.
    void felled(const Act& act)
    {
        const Seam* s = seamOf(act);
        const Skin a = s ? skin(s->a) : Skin::Shell, b = s ? skin(s->b) : Skin::Shell;
        const double y = kThick * 1.15, fold = -17;
        band({{-kReach, 0}, {-1.2, 0}, {-1.2, y}, {-9, y}}, a); // its allowance is cut short
        band({{kReach, 0}, {1.2, 0}, {1.2, 2 * y}, {fold, 2 * y}, {fold, 3 * y}, {-4, 3 * y}}, b);
        row(0, -3, y, Kind::Sew);
        row(fold + 4, -kThick - 2, 3 * y + 4);
        measure(fold + 4, 0, 3 * y + 11, say("{}", Len(act.taken)));
    }

    /// Sewn twice: the raw edges lie inside, the first row at the fold.
    void bagged(const Act& act)
    {
        const Seam* s = seamOf(act);
        const Skin a = s ? skin(s->a) : Skin::Shell, b = s ? skin(s->b) : Skin::Shell;
        const double out = kThick * 1.75, in = kThick * 0.6;
        band({{-kReach, out}, {0, out}, {0, in}, {-5, in}}, a);
        band({{-kReach, -out}, {0, -out}, {0, -in}, {-5, -in}}, b);
        row(-2, -in - 3, in + 3, Kind::Sewn);
        row(-10, -out - 4, out + 4, Kind::Sew);
        if (s)
            measure(-10, 0, out + 11, say("{}", Len(s->allowance - act.distance)));
    }

    void painted(const Act& act)
    {
        const Skin s = act.pieces.empty() ? Skin::Shell : skin(act.pieces.front());
        for (const double y : {kThick * 0.55, -kThick * 0.55})
            band({{-kReach, y}, {0, y}}, s);
        band({{1.2, kThick * 1.2}, {1.2, -kThick * 1.2}}, Skin::Tape, kThick);
    }

    void droppedIn(const Act& act)
    {
        const Seam* s = seamOf(act);
        const Skin a = s ? skin(s->a) : Skin::Shell, b = s ? skin(s->b) : Skin::Lining;
        const double x = kThick * 1.8;
        // Upright: the mouth is up.
        band({{-x, -kReach}, {-x, 0}, {-kThick * 0.55, 0}, {-kThick * 0.55, -kFlap}}, a);
        band({{x, -kReach}, {x, 0}, {kThick * 0.55, 0}, {kThick * 0.55, -kFlap}}, b);
        add(Stroke{{{-x - 4, -5}, {x + 4, -5}}, Kind::Topstitch});
        add(Word{{x + 13, -3}, say("{}", Len(act.distance))});
    }

    /// What goes through, and what it holds.
    void set(const Act& act)
    {
        const auto f = std::find_if(p.fittings.begin(), p.fittings.end(), [&](const Fitting& each) {
            return std::find(act.fittings.begin(), act.fittings.end(), each.key) != act.fittings.end();
        });
        if (f == p.fittings.end() || f->kind == Fitting::Kind::Zip)
            return;
        const Piece* piece = p.piece(f->piece);
        const Skin s = piece ? skinOf(*piece) : Skin::Shell;
        const double r = 11;
        const std::optional<Ware> ware = act.uses.empty() ? std::optional<Ware>() : act.uses.front();
        if (ware == Ware::TurnLock && f->throughLining)
            return plate(*f);
        if (ware == Ware::TuckLock && f->throughLining)
            return tongue(*f);
        band({{-kReach, 0}, {kReach, 0}}, s);
        if (ware == Ware::HookAndLoop) {
            band({{-16, kThick * 1.3}, {16, kThick * 1.3}}, Skin::Padding);
            for (const double x : {-13.0, 13.0})
                row(x, -4, kThick * 2 + 3);
        } else if (ware == Ware::SewnMagnet) { // in its cover, behind the cloth
            band({{-17, -kThick * 1.1}, {17, -kThick * 1.1}}, Skin::Padding, 0.8);
            metal(-r, -kThick * 1.1 - 5, r, -kThick * 1.1 - 0.8);
            band({{-17, -kThick * 1.6}, {-r - 1.5, -kThick * 1.6}, {-r - 1, -kThick * 1.1 - 5.8},
                     {r + 1, -kThick * 1.1 - 5.8}, {r + 1.5, -kThick * 1.6}, {17, -kThick * 1.6}},
                Skin::Padding, 0.8);
            for (const double x : {-14.5, 14.5})
                row(x, -kThick * 2 - 3, 4);
        } else if (f->kind == Fitting::Kind::Snap && !f->throughLining) {
            band({{-20, -kThick * 1.1}, {20, -kThick * 1.1}}, Skin::Padding);
            metal(-r, kThick * 0.6, r, kThick * 0.6 + 4.5);
            metal(-r * 0.8, -kThick * 1.7 - 1.4, r * 0.8, -kThick * 1.7);
            for (const double side : {-1.0, 1.0}) // prongs, bent outwards
                add(Band{{{side * 4, kThick * 0.6}, {side * 4, -kThick * 1.7 - 2.6}, {side * 12, -kThick * 1.7 - 2.6}},
                    1.2, Skin::Metal});
            if (ware == Ware::TurnLock) { // the bar that turns
                metal(-2, kThick * 0.6 + 4.5, 2, kThick * 0.6 + 9);
                metal(-r * 0.7, kThick * 0.6 + 9, r * 0.7, kThick * 0.6 + 12);
            } else if (ware == Ware::TuckLock) // the case's roof; the tongue goes in below it
                metal(-r, kThick * 0.6 + 8, r, kThick * 0.6 + 11),
                    metal(r - 2.5, kThick * 0.6 + 4, r, kThick * 0.6 + 9);
        } else {
            double low = -kThick * 0.55;
            if (f->throughLining) {
                band({{-kReach, -kThick * 1.1}, {kReach, -kThick * 1.1}}, Skin::Lining);
                low -= kThick * 1.1;
            } else
                band({{-20, -kThick * 1.1}, {20, -kThick * 1.1}}, Skin::Padding), low -= kThick * 1.1;
            metal(-1.8, low - 1, 1.8, kThick);
            metal(-6, kThick * 0.55, 6, kThick * 0.55 + 2.4);
            metal(-6, low - 2.4, 6, low);
        }
        if (f->size > 0)
            measure(f->kind == Fitting::Kind::Snap && !f->throughLining ? -r : -6.0,
                f->kind == Fitting::Kind::Snap && !f->throughLining ? r : 6.0,
                kThick * 0.6 + (ware == Ware::TurnLock || ware == Ware::TuckLock ? 18 : 9), say("{}", Len(f->size)));
    }

    void metal(double x0, double y0, double x1, double y1)
    {
        add(Surface{{{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}}, Skin::Metal});
    }

    /// A lock's tongue over the flap's edge and its back plate, screwed together through all layers.
    void tongue(const Fitting& f)
    {
        const double edge = 12, top = kThick * 0.55, low = -kThick * 1.65;
        band({{-kReach, 0}, {edge, 0}}, Skin::Shell);
        band({{-kReach, -kThick * 1.1}, {edge, -kThick * 1.1}}, Skin::Lining);
        metal(-8, top, edge + 14, top + 2.4);
        metal(-8, low - 2.2, edge - 1, low);
        for (const double screw : {-3.0, 6.0})
            metal(screw - 1.1, low - 3.2, screw + 1.1, top);
        measure(-8, edge + 14, top + 9, say("{}", Len(f.size)));
    }

    /// A lock's plate: a frame on both sides of an opening through all layers, screwed together.
    void plate(const Fitting& f)
    {
        const double hole = 7, frame = 15, top = kThick * 0.55, low = -kThick * 1.65;
        for (const double side : {-1.0, 1.0}) {
            band({{side * kReach, 0}, {side * hole, 0}}, Skin::Shell);
            band({{side * kReach, -kThick * 1.1}, {side * hole, -kThick * 1.1}}, Skin::Lining);
            const double x0 = std::min(side * hole, side * frame), x1 = std::max(side * hole, side * frame);
            metal(x0, top, x1, top + 2.2);
            metal(x0, low - 2.2, x1, low);
            const double screw = side * (hole + frame) / 2;
            metal(screw - 1.1, low - 3.2, screw + 1.1, top);
        }
        measure(-hole, hole, top + 9, say("{}", Len(f.size)));
    }

    /// Clips of a straight allowance, or notches out of a round one, as far apart as they have to be.
    void clips(const Act& act)
    {
        const Seam* s = seamOf(act);
        if (!s || s->allowance <= 0)
            return;
        double r = SideShape::none;
        for (const auto* side : {&s->a, &s->b}) {
            const SideShape shape = shapeOf(p, *side);
            r = std::min({r, shape.convex, shape.concave});
        }
        const Skin cloth = otherSide(skin(act.verb == Verb::Clip && !shapeOf(p, s->b).bends() ? s->b : s->a));
        const double R = 42, a = 11; // of the stitch line, of the allowance
        const bool straight = r == SideShape::none;
        Polyline outer, stitch, inner;
        for (int i = -20; i <= 20; ++i) {
            const double t = pi / 2 + i * 0.9 / 20;
            const auto at = [&](double radius) {
                return straight ? Point{i * 2.0, radius - R} : polar(t) * radius - Point{0, R};
            };
            outer.push_back(at(R + a)), stitch.push_back(at(R)), inner.push_back(at(R - 18));
        }
        Polyline cloth_ = outer;
        cloth_.insert(cloth_.end(), inner.rbegin(), inner.rend());
        add(Surface{cloth_, cloth});
        add(Stroke{stitch, Kind::Sewn});
        const bool notch = act.verb == Verb::Notch;
        for (std::size_t i = 4; i + 1 < stitch.size(); i += 6) {
            const Point tip = lerp(stitch[i], outer[i], 0.2);
            if (notch)
                add(Stroke{{outer[i - 1], tip, outer[i + 1]}, Kind::Cut});
            else
                add(Stroke{{outer[i], tip}, Kind::Cut});
        }
    }

    const Pattern& p;
    const Step& m_step;
    Scene m_scene;
    const Act *m_sew = nullptr, *m_press = nullptr, *m_row = nullptr, *m_roll = nullptr, *m_clip = nullptr,
              *m_zip = nullptr, *m_onFace = nullptr, *m_set = nullptr, *m_fold = nullptr;
};

} // namespace

Scene sectionOf(const Pattern& pattern, const Step& step) { return Section(pattern, step).scene(); }

} // namespace tectonis
