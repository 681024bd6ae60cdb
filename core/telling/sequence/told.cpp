// SPDX-License-Identifier: GPL-3.0-or-later
#include "sequence/told.hpp"

#include "buildup/layers.hpp"
#include "library/library.hpp"
#include "pattern/labels.hpp"
#include "pattern/seam_shape.hpp"
#include "sequence/table.hpp"
#include "units/words.hpp"

#include <algorithm>
#include <cmath>
#include <set>
#include <utility>

namespace tectonis {
namespace {

using Verb = Act::Verb;
using To = Act::To;

constexpr double kClipOpens = 3; // mm that a clipped straight allowance opens at each clip (common practice, no source)
constexpr double kClipShort = 2; // mm from the end of a clip to the stitch line (common practice, no source)

/// Puts the words of one step together.
class Telling {
public:
    Telling(const Pattern& pattern, const Step& step) : p(pattern), m_step(step) {}

    StepWords words()
    {
        for (const auto& act : m_step.acts) {
            say_(act);
            m_out.drying = std::max(m_out.drying, dryingOf(p, act));
        }
        m_out.tools = m_tools.empty() ? m_step.tools : m_tools;
        for (const auto& tool : m_out.tools)
            m_out.tool = m_out.tool.empty() ? tool : say("{}, {}", m_out.tool, tool);
        if (m_out.stitch.empty())
            m_out.stitch = m_step.stitch;
        if (!m_step.check.empty())
            m_out.check = m_step.check;
        m_out.cautions.insert(m_out.cautions.end(), m_step.cautions.begin(), m_step.cautions.end());
        return std::move(m_out);
    }

private:
    // ---- What the sentences are made of -------------------------------------------------------------------------

    /// The piece; where it is cut across, one of its parts.
    const Piece* standing(const PieceId& id) const
    {
        if (const Piece* piece = p.piece(id))
            return piece;
        for (const auto& piece : p.pieces)
            if (halfOf(piece.name) && (piece.whole == id || piece.key.text().starts_with(id.text() + ".")))
                return &piece;
        return nullptr;
    }

    /// What a half is a half of: "back" of "back, lower"; null for a piece that is called otherwise.
    static const Message* halfOf(const Message& name)
    {
        return name.source() == "{}, upper" || name.source() == "{}, lower"
            ? std::get_if<Message>(&name.arguments().front())
            : nullptr;
    }

    Message nameOf(const PieceId& id) const
    {
        const Piece* piece = standing(id);
        if (!piece)
            return naming(id.text());
        Message name = piece->name;
        if (piece->key != id) { // joined again by now: it is called as it was before it was cut
            const auto depth = [](const PieceId& key) { return std::ranges::count(key.text(), '.'); };
            for (auto levels = depth(piece->key) - depth(id); levels > 0 && halfOf(name); --levels)
                name = Message(*halfOf(name));
        }
        return placed(name);
    }

    /// A half is called by its place: "lower back", "upper part of the lower back".
    static Message placed(const Message& name)
    {
        const Message* whole = halfOf(name);
        if (!whole)
            return within(name);
        const bool upper = name.source() == "{}, upper";
        if (halfOf(*whole))
            return upper ? say("upper part of the {}", placed(*whole)) : say("lower part of the {}", placed(*whole));
        return upper ? say("upper {}", within(*whole)) : say("lower {}", within(*whole));
    }

    bool several(const PieceId& id) const
    {
        const Piece* piece = p.piece(id);
        return piece && piece->count > 1;
    }

    /// "front and gusset"
    Message namesOf(const std::vector<PieceId>& ids) const
    {
        Message out;
        for (std::size_t i = 0; i < ids.size(); ++i)
            out = i == 0             ? nameOf(ids[i])
                : i + 1 < ids.size() ? say("{}, {}", out, nameOf(ids[i]))
                                     : say("{} and {}", out, nameOf(ids[i]));
        return out;
    }

    std::vector<const Seam*> seamsOf(const Act& act) const
    {
        std::vector<const Seam*> out;
        for (const auto& key : act.seams)
            if (const Seam* seam = p.seam(key))
                out.push_back(seam);
        return out;
    }

    const Material* clothOf(const PieceId& id) const
    {
        const Piece* piece = standing(id);
        const auto it = piece ? p.materials.find(piece->material) : p.materials.end();
        return it == p.materials.end() ? nullptr : &p.material(it->second);
    }

    template <class Is> bool anyCloth(const std::vector<PieceId>& pieces, Is is) const
    {
        return std::any_of(pieces.begin(), pieces.end(), [&](const PieceId& id) {
            const Material* cloth = clothOf(id);
            return cloth && is(*cloth);
        });
    }

    std::vector<PieceId> handled(const Act& act) const
    {
        std::vector<PieceId> out = act.pieces;
        for (const Seam* seam : seamsOf(act))
            for (const auto* side : {&seam->a, &seam->b})
                for (const auto& id : piecesOf(*side))
                    out.push_back(id);
        return out.empty() ? m_step.pieces : out;
    }

    /// Waxed, coated, vinyl, leather: no iron.
    bool noIron(const Act& act) const
    {
        return anyCloth(handled(act), [](const Material& m) { return !m.heat; });
    }

    /// Holes stay in it: longer stitches, no pins.
    bool holesStay(const Act& act) const
    {
        return anyCloth(handled(act),
            [](const Material& m) { return m.kind == "vinyl" || m.kind == "leather" || m.kind == "coated"; });
    }

    /// Does a flap hang already from what is sewn here?
    /// Handles that stand on a face of the shell and reach over its upper edge.
    bool hasHandles() const
    {
        return std::any_of(p.pieces.begin(), p.pieces.end(), [](const Piece& piece) { return piece.role == "handle"; });
    }

    bool carriesFlap(const Act& act) const
    {
        const auto isFlap = [&](const EdgeUse& use) {
            const Piece* piece = p.piece(use.piece);
            return piece && piece->role == "flap";
        };
        const auto seams = seamsOf(act);
        const auto here = [&](const EdgeUse& use) {
            return std::any_of(seams.begin(), seams.end(), [&](const Seam* seam) {
                const auto same = [&](const EdgeUse& each) { return each.piece == use.piece; };
                return std::any_of(seam->a.begin(), seam->a.end(), same)
                    || std::any_of(seam->b.begin(), seam->b.end(), same);
            });
        };
        const auto any = [](const std::vector<EdgeUse>& side, const auto& is) {
            return std::any_of(side.begin(), side.end(), is);
        };
        for (const Seam* seam : seams)
            if (any(seam->a, isFlap) || any(seam->b, isFlap)
                || std::any_of(seam->trapped.begin(), seam->trapped.end(), [&](const PieceId& id) {
                       return isFlap({id, {}});
                   }))
                return false; // it is the flap that is sewn
        return std::any_of(p.seams.begin(), p.seams.end(), [&](const Seam& seam) {
            return (any(seam.a, isFlap) && any(seam.b, here)) || (any(seam.b, isFlap) && any(seam.a, here));
        });
    }

    /// For every reader.
    void add(const Message& sentence) { addEither(sentence, sentence); }
    /// How it is done: for learners only.
    void how(const Message& sentence) { m_out.text = together(m_out.text, sentence); }
    void addEither(const Message& full, const Message& terse)
    {
        m_out.text = together(m_out.text, full);
        m_out.terse = together(m_out.terse, terse);
    }
    void tool(const Message& tool)
    {
        if (std::find(m_tools.begin(), m_tools.end(), tool) == m_tools.end())
            m_tools.push_back(tool);
    }
    void stitch(const Message& stitch)
    {
        if (m_out.stitch.empty())
            m_out.stitch = stitch;
    }
    void check(const Message& check) { m_out.check = check; }
    void caution(const Message& caution)
    {
        if (std::find(m_out.cautions.begin(), m_out.cautions.end(), caution) == m_out.cautions.end())
            m_out.cautions.push_back(caution);
    }
    void machine() { tool(say("sewing machine")); }

    // ---- One sentence or some for each act ----------------------------------------------------------------------

    void say_(const Act& act)
    {
        sentences(act);
        if (m_out.seamClass.empty())
            m_out.seamClass = seamClassOf(act);
        // Of a box and of what is put in the form's own words stand for all.
        if (!act.note.empty() && act.verb != Verb::Note && act.verb != Verb::Box && act.verb != Verb::PutIn)
            add(act.note);
    }

    /// As ISO 4916 divides seams, by the first digit of their designation (from memory; its figures are not ours).
    static Message seamClassOf(const Act& act)
    {
        switch (act.verb) {
        case Verb::Sew:
        case Verb::JoinCoats: return say("1, superimposed");
        case Verb::StitchOn:
        case Verb::DropIn: return say("2, lapped");
        case Verb::Bind: return say("3, bound");
        case Verb::Hem:
        case Verb::HemEnds: return say("6, edge finished");
        case Verb::FoldStrip: return act.distance > 0 ? say("8, one folded strip") : Message();
        default: return {};
        }
    }

    void sentences(const Act& act)
    {
        switch (act.verb) {
        case Verb::Interline: return interline(act);
        case Verb::Quilt: return quilt(act);
        case Verb::CutToShape: return cutToShape(act);
        case Verb::RoundCorners: return roundCorners(act);
        case Verb::LayOver: return layOver(act);
        case Verb::LayTape: return layTape(act);
        case Verb::Insert: return insert(act);
        case Verb::Hinge: return hinge(act);
        case Verb::Rows: return rows(act);
        case Verb::BarTack: return barTack(act);
        case Verb::FoldUp: return add(say("Fold the {} up, its upper edges level.", nameOf(act.pieces.front())));
        case Verb::Crease:
            return add(say("Fold the {} lengthwise at its line, wrong sides together, crease and unfold.",
                nameOf(act.pieces.front())));
        case Verb::Pleat: return pleat(act);
        case Verb::HoldAway: return add(say("Hold the {} out of the way.", namesOf(act.pieces)));
        case Verb::HemEnds:
            machine();
            return add(
                say("Fold both ends of the {} in by {} and stitch.", nameOf(act.pieces.front()), Len(act.distance)));
        case Verb::DrawIn: return drawIn(act);
        case Verb::WrapOver: return wrapOver(act);
        case Verb::SealCut: return sealCut(act);
        case Verb::Buttonhole: return buttonhole(act);
        case Verb::Sew: return sew(act);
        case Verb::StitchOn: return stitchOn(act);
        case Verb::Lay: return lay(act);
        case Verb::Line: return line(act);
        case Verb::Baste: return baste(act);
        case Verb::Topstitch: return topstitch(act);
        case Verb::Roll: return roll(act);
        case Verb::Press: return press(act);
        case Verb::FoldStrip: return foldStrip(act);
        case Verb::FoldInHalf: return foldInHalf(act);
        case Verb::Clip: return clip(act);
        case Verb::Notch: return notch(act);
        case Verb::Grade: return grade(act);
        case Verb::Turn: return turn(act);
        case Verb::TurnBag: return turnBag(act);
        case Verb::Set: return set(act);
        case Verb::Window: return window(act);
        case Verb::InsertZip: return insertZip(act);
        case Verb::OpenZip:
            tool(say("hands"));
            check(say("A hand passes through."));
            return add(say("Open the zip at least half way."));
        case Verb::SewTape: return sewTape(act);
        case Verb::SliderOn: return sliderOn(act);
        case Verb::SealEnds: return sealEnds(act);
        case Verb::Hem: return hem(act);
        case Verb::FoldIn: return foldIn(act);
        case Verb::JoinStrips: return joinStrips(act);
        case Verb::Bind: return bind(act);
        case Verb::WrapCord: return wrapCord(act);
        case Verb::Box:
            m_folded = true, m_onLine = act.taken > 0;
            return add(
                act.note.empty() ? say("Pull each corner apart until its two seams lie on each other.") : act.note);
        case Verb::Glue: return glue(act);
        case Verb::Paint: return paint();
        case Verb::ThreadStrap: return threadStrap(act);
        case Verb::ThreadTails: return threadTails(act);
        case Verb::ThreadCord: return threadCord(act);
        case Verb::Trim: return trim(act);
        case Verb::BoxOn: return boxOn(act);
        case Verb::Ring: return ring(act);
        case Verb::JoinCoats: return joinCoats(act);
        case Verb::DropIn: return dropIn(act);
        case Verb::PutIn: return putIn(act);
        case Verb::CloseOpening: return closeOpening(act);
        case Verb::Note: return add(act.note);
        }
    }

    /// What is fused, basted, glued or laid behind, by its material; how it is held is said once, after the last.
    void interline(const Act& act)
    {
        const auto lays = [](const Act& each, const Layer& layer) {
            return std::find(each.layers.begin(), each.layers.end(), layer.id) != each.layers.end();
        };
        Message codes;
        MaterialId material;
        bool inSeams = false, within = false; // reaches into an allowance anywhere; ends at or inside the stitch lines
        std::string fixing;
        for (const auto& piece : p.pieces)
            for (const auto& layer : piece.layers) {
                if (lays(act, layer)) {
                    codes = codes.empty() ? naming(layer.code) : say("{}, {}", codes, layer.code);
                    material = layer.material, fixing = layer.fixing;
                }
                if (std::none_of(m_step.acts.begin(), m_step.acts.end(),
                        [&](const Act& each) { return each.verb == Verb::Interline && lays(each, layer); }))
                    continue;
                const bool reaches = std::any_of(
                    layer.reach.begin(), layer.reach.end(), [](const auto& edge) { return edge.second > 3; });
                (reaches ? inSeams : within) = true;
            }
        if (codes.empty())
            return;
        add(say("{}: {}.", p.material(material).name, codes));
        const auto last = std::find_if(
            m_step.acts.rbegin(), m_step.acts.rend(), [](const Act& each) { return each.verb == Verb::Interline; });
        if (last == m_step.acts.rend() || &*last == &act)
            held(fixing, inSeams, within);
    }

    void held(const std::string& fixing, bool inSeams, bool within)
    {
        if (fixing == "fused") {
            tool(say("iron")), tool(say("press cloth"));
            check(say("No bubbles; let each piece cool flat."));
            caution(say("Iron and steam: mind your hands; test the heat on an offcut."));
        } else if (fixing == "glued") {
            tool(say("contact adhesive"));
            check(say("Each lies in its place and sticks to its edges."));
            caution(say("Contact adhesive: air the room, no flame; let it dry as its maker says."));
        } else if (fixing == "basted") {
            // There is cloth to baste in only where the layer reaches into the allowance.
            if (inSeams)
                add(say(
                    "What reaches into the allowances is basted there, {} to {} from the edge, and trimmed close to "
                    "the stitching after the seam.",
                    Len(3), Len(6)));
            if (within)
                add(say("What ends at the stitch line is held by a row {} to {} inside its own edge, or by hand.",
                    Len(2), Len(3)));
            machine();
            stitch(say("4–5 mm, basting"));
            check(say("Each lies flat on the wrong side and nothing reaches past its line."));
        } else
            add(say("They are laid in, not fixed, when their piece is sewn."));
    }

    Message codesOf(const std::vector<PieceId>& pieces) const
    {
        Message codes;
        for (const auto& id : pieces)
            if (const Piece* piece = p.piece(id))
                codes = codes.empty() ? naming(piece->code) : say("{}, {}", codes, piece->code);
        return codes;
    }

    /// By material and rows: what is quilted alike is told together.
    void quilt(const Act& act)
    {
        struct Alike {
            const Layer* layer;
            Message codes;
        };
        std::vector<Alike> all;
        for (const auto& piece : p.pieces)
            for (const auto& layer : piece.layers)
                if (std::find(act.layers.begin(), act.layers.end(), layer.id) != act.layers.end()) {
                    const auto alike = std::find_if(all.begin(), all.end(), [&](const Alike& each) {
                        return each.layer->material == layer.material && each.layer->quilted == layer.quilted
                            && each.layer->diamonds == layer.diamonds;
                    });
                    if (alike == all.end())
                        all.push_back({&layer, naming(layer.code)});
                    else
                        alike->codes = say("{}, {}", alike->codes, layer.code);
                }
        for (const auto& each : all) {
            add(say("{}: {}.", p.material(each.layer->material).name, each.codes));
            add(each.layer->diamonds ? say(
                    "Quilt them to the wrong side of their blocks in diamonds, {} apart.", Len(each.layer->quilted))
                                     : say("Quilt them to the wrong side of their blocks in straight rows, {} apart.",
                                         Len(each.layer->quilted)));
        }
        how(say("Baste them first; begin in the middle and sew every row in the same direction."));
        machine();
        tool(say("walking foot"));
        stitch(say("3–3.5 mm, lockstitch 301"));
        check(say("Each block lies flat and is still larger than its template all round."));
    }

    void cutToShape(const Act& act)
    {
        add(say("{}: lay the template on the quilted block and cut it to shape.", codesOf(act.pieces)));
        how(say("Sew round just inside the cut edge, so that the rows do not open."));
        tool(say("scissors"));
        check(say("The rows meet where pieces meet."));
    }

    void roundCorners(const Act& act)
    {
        const Message codes = codesOf(act.pieces);
        add(say("{}: lay the template on, mark its round corners and cut them through all layers.", codes));
        tool(say("scissors"));
        check(say("The corners of pieces that meet are alike."));
    }

    void layOver(const Act& act)
    {
        add(several(act.pieces.front()) ? say("Lay each {} in its place on the {}, right side up.",
                nameOf(act.pieces.front()), nameOf(act.pieces.back()))
                                        : say("Lay the {} in its place on the {}, right side up.",
                                            nameOf(act.pieces.front()), nameOf(act.pieces.back())));
    }

    void layTape(const Act& act)
    {
        add(say("Lay the zip face down on the right side of the {}, {} from the side seams, the mouth's stitch line {} "
                "from the tape's edge.",
            namesOf(act.pieces), Len(act.distance), Len(act.taken)));
    }

    void insert(const Act& act)
    {
        if (std::find(act.uses.begin(), act.uses.end(), Ware::WebbingSlider) != act.uses.end())
            add(say("Pass each {} round the upper bar of a slider and fold it in half.", nameOf(act.pieces.front())));
        add(say("Push the ends of the {} {} into the open end of the {}; sew across twice.", nameOf(act.pieces.front()),
            Len(act.distance), nameOf(act.pieces.back())));
        machine();
        stitch(say("3 mm, lockstitch 301"));
    }

    void hinge(const Act& act)
    {
        const auto seams = seamsOf(act);
        if (seams.empty())
            return;
        const EdgeUse& upper = p.piece(seams.front()->a.front().piece)
                && p.piece(seams.front()->a.front().piece)->edge(seams.front()->a.front().edge)
            ? seams.front()->a.front()
            : seams.front()->b.front();
        add(say(
            "Lay the hinge edge of the {} on its line, right sides together, pointing away from where it will hang; "
            "sew. Fold it over the row and sew again {} below.",
            nameOf(upper.piece), Len(act.distance)));
        machine();
        stitch(lockstitchOf(act));
    }

    void rows(const Act& act)
    {
        add(say("Sew the rows that are marked on the {}, through all layers; bar-tack where they end.",
            namesOf(act.pieces)));
        machine();
        stitch(say("3 mm, lockstitch 301"));
    }

    void barTack(const Act& act)
    {
        for (const auto& key : act.zips)
            if (const auto zip = std::find_if(
                    p.zips.begin(), p.zips.end(), [&](const Zip& each) { return each.key == key; });
                zip != p.zips.end())
                add(zip->sliders > 1 ? say("Bar-tack across the chain at both ends, so that the two sliders cannot run "
                                           "off.")
                                     : say("Bar-tack across the chain at both ends, so that the slider cannot run "
                                           "off."));
        caution(say("Needle strike: turn the handwheel by hand over the coil."));
    }

    void pleat(const Act& act)
    {
        add(act.pieces.size() > 1
                ? say(
                    "Lay every pleat of the {} along its folds, alike from the centre, and baste.", namesOf(act.pieces))
                : say("Lay the pleats of the {} along their folds and baste.", nameOf(act.pieces.front())));
        if (act.distance > 0)
            add(say("Each takes {}.", Len(act.distance)));
        machine();
    }

    void drawIn(const Act& act)
    {
        const Ware what = act.uses.empty() ? Ware::Elastic : act.uses.front();
        if (what == Ware::Elastic)
            add(act.distance > 0 ? say("Draw {} of elastic in and sew it over at both ends.", Len(act.distance))
                                 : say("Draw the elastic in and sew it over at both ends."));
        else
            add(say("Slide the stay in and bar-tack both ends."));
        if (what == Ware::Elastic)
            tool(say("bodkin"));
        machine();
    }

    /// A cover over a card or a shell of the frame.
    void wrapOver(const Act& act)
    {
        const Piece* over = p.piece(act.pieces.front());
        const bool round = over && std::any_of(over->edges.begin(), over->edges.end(), [](const Edge& e) {
            return std::any_of(
                e.stitch.begin(), e.stitch.end(), [](const Segment& s) { return !std::holds_alternative<Line>(s); });
        });
        if (act.pieces.size() > 1)
            add(say("Centre each {} on a {}, draw it over the rim and glue the {} that go over to the back.",
                nameOf(act.pieces.front()), nameOf(act.pieces.back()), Len(act.distance)));
        else
            add(say("Centre each {} on a half shell, draw it over the rim and glue the {} that go over inside.",
                nameOf(act.pieces.front()), Len(act.distance)));
        add(round ? say("Straights first; then notch what goes round the corners and lay it down.")
                  : say("Straights first, then the mitred corners."));
        tool(say("contact adhesive"));
        tool(say("bone folder"));
        caution(say("Contact adhesive: air the room, no flame; let it dry as its maker says."));
    }

    void sealCut(const Act& act)
    {
        const Material* webbing = clothOf(act.pieces.front());
        if (!webbing || webbing->heat) {
            add(say("Zigzag the cut ends of the {}, so that they do not fray.", nameOf(act.pieces.front())));
            return machine();
        }
        add(say("Seal the cut ends of the {} with a flame or a hot knife.", nameOf(act.pieces.front())));
        tool(say("hot knife"));
        caution(say("Flame: never near adhesive or solvent; molten webbing burns the skin."));
    }

    void buttonhole(const Act& act)
    {
        add(act.distance > 0
                ? say("Work a buttonhole of {} at each mark of the {} and cut it open.", Len(act.distance),
                    namesOf(act.pieces))
                : say("Work a buttonhole at each mark of the {} and cut it open.", nameOf(act.pieces.front())));
        machine();
        tool(say("seam ripper"));
    }

    void sliderOn(const Act& act)
    {
        const auto zip = std::find_if(p.zips.begin(), p.zips.end(),
            [&](const Zip& each) { return !act.zips.empty() && each.key == act.zips.front(); });
        add(zip != p.zips.end() && zip->sliders > 1 ? say("Put both sliders on, their pulls outwards, noses together.")
                                                    : say("Put the slider on."));
    }

    /// Two copies that are sewn to the two tapes of a zip.
    bool twoTapes(const Act& act) const
    {
        const PieceId first = !act.pieces.empty() ? act.pieces.front()
            : seamsOf(act).empty()                ? PieceId()
                                                  : seamsOf(act).front()->a.front().piece;
        return !act.zips.empty() && several(first)
            && std::none_of(act.seams.begin(), act.seams.end(), [&](const SeamId& key) {
                   const Seam* seam = p.seam(key);
                   return seam && seam->a.front().copy > 0; // the other one is said by itself
               });
    }

    void sew(const Act& act)
    {
        const auto seams = seamsOf(act);
        if (seams.empty())
            return;
        std::vector<PieceId> caught;
        bool marks = false, both = false, corners = false;
        double open = 0;
        for (const Seam* seam : seams) {
            for (const auto& id : seam->trapped)
                if (std::find(caught.begin(), caught.end(), id) == caught.end())
                    caught.push_back(id);
            marks |= hasMarks(p, *seam);
            open = std::max(open, seam->open);
            for (const auto* side : {&seam->a, &seam->b}) {
                const SideShape shape = shapeOf(p, *side);
                both |= shape.straights && std::min(shape.convex, shape.concave) < SideShape::none;
                corners |= shape.convexCorners + shape.concaveCorners > 0;
            }
        }
        if (m_folded)
            m_folded = false; // what is sewn lies there already
        else if (!act.zips.empty())
            add(say("Lay the {} right sides together with the zip's tape between, its edge {} past the stitch line.",
                namesOf(piecesAcross(seams)), Len(act.distance)));
        else if (caught.empty())
            add(marks ? say("Right sides together, match the marks.") : say("Right sides together, edges level."));
        else
            add(marks ? say("Right sides together with the {} between, match the marks.", namesOf(caught))
                      : say("Right sides together with the {} between, edges level.", namesOf(caught)));
        if (m_step.kind == StepKind::Seam && carriesFlap(act))
            add(say("The flap is folded out of the way."));
        if (holesStay(act))
            add(say("Hold with clips: pins leave holes."));
        if (!std::exchange(m_onLine, false))
            row(seams);
        if (twoTapes(act))
            add(say("Sew the other pair to the other tape alike."));
        if (both)
            how(say("Sew the straights before the curves."));
        if (corners)
            how(say("At each corner stop with the needle down and turn."));
        for (const Seam* seam : seams) {
            if (std::abs(seam->ease) > 0.05 && !seam->easeNote.empty())
                add(say("Take up {}: {}.", Len(std::abs(seam->ease)), within(seam->easeNote)));
            ends(*seam);
        }
        if (open > 0)
            add(say("Leave {} open in the middle for turning; back-stitch both ends of the opening.", Len(open)));
        trimLayers(seams);
        machine();
        stitch(lockstitchOf(act));
        if (!act.zips.empty()) {
            tool(say("zip foot"));
            caution(say("Needle strike: turn the handwheel by hand over the coil."));
        }
        check(upright(seams) ? say("Both ends are level, the marks meet and the cloth runs upwards in all pieces.")
                             : say("Both ends are level and the marks meet."));
    }

    /// Foam and the like that was basted in the allowances.
    void trimLayers(const std::vector<const Seam*>& seams)
    {
        Message codes;
        std::vector<const Layer*> all;
        for (const Seam* seam : seams)
            for (const Layer* layer : trimmedAfter(p, *seam))
                if (std::find(all.begin(), all.end(), layer) == all.end()) {
                    all.push_back(layer);
                    codes = codes.empty() ? naming(layer->code) : say("{}, {}", codes, layer->code);
                }
        if (all.empty())
            return;
        add(say("Trim {} close to the stitching.", codes));
        tool(say("scissors"));
    }

    static std::vector<PieceId> piecesAcross(const std::vector<const Seam*>& seams)
    {
        std::vector<PieceId> out;
        for (const Seam* seam : seams)
            for (const auto* side : {&seam->a, &seam->b})
                for (const auto& id : piecesOf(*side))
                    if (std::find(out.begin(), out.end(), id) == out.end())
                        out.push_back(id);
        return out;
    }

    /// Pieces of a cloth with a direction meet here.
    bool upright(const std::vector<const Seam*>& seams) const
    {
        const auto pieces = piecesAcross(seams);
        return pieces.size() > 1 && std::ranges::all_of(pieces, [&](const PieceId& id) {
            const Material* cloth = clothOf(id);
            return cloth && cloth->oneWay;
        });
    }

    /// "Sew at 10 mm", each allowance once.
    void row(const std::vector<const Seam*>& seams)
    {
        std::set<std::pair<long, long>> told;
        for (const Seam* seam : seams) {
            auto [least, most] = allowancesOf(p, *seam);
            // Where it is sewn, not how far a hem's or another edge's cloth reaches.
            if (std::abs(most - seam->allowance) > 0.005 || most - least < 0.005)
                least = most = seam->allowance;
            m_out.allowance = std::max(m_out.allowance, most);
            if (!told.insert({std::lround(least * 100), std::lround(most * 100)}).second)
                continue;
            add(most - least < 0.005 ? say("Sew at {}.", Len(most))
                                     : say("Sew at {} at the mouth, widening to {}.", Len(least), Len(most)));
        }
    }

    /// A partial seam.
    void ends(const Seam& seam)
    {
        if (seam.openStart > 0 || seam.openEnd > 0)
            add(say("“{}” begins {} in and stops {} before its end, at the stop squares; back-stitch both.", seam.name,
                Len(seam.openStart), Len(seam.openEnd)));
    }

    void stitchOn(const Act& act)
    {
        const auto seams = seamsOf(act);
        if (seams.empty())
            return;
        // The line lies on the piece below; the edge is the upper one's.
        const auto onLine = [&](const std::vector<EdgeUse>& side) {
            const Piece* piece = p.piece(side.front().piece);
            return piece && !piece->edge(side.front().edge);
        };
        const auto& upper = onLine(seams.front()->a) ? seams.front()->b : seams.front()->a;
        const auto& lower = onLine(seams.front()->a) ? seams.front()->a : seams.front()->b;
        std::set<int> copies; // of the upper piece that lie on this face
        for (const Seam* seam : seams)
            for (const auto* side : {&seam->a, &seam->b})
                for (const auto& use : *side)
                    if (use.piece == upper.front().piece)
                        copies.insert(use.copy);
        const Piece* on = p.piece(upper.front().piece);
        if (on && on->role == "flap")
            add(say(
                "Lay the hinge edge of the {} on its line on the {}, wrong side on right side, the flap pointing up "
                "over the mouth; edge-stitch.",
                nameOf(upper.front().piece), nameOf(lower.front().piece)));
        else
            add(copies.size() > 1 ? say("Lay each {} on its line on the {}, wrong side on right side; edge-stitch.",
                    nameOf(upper.front().piece), nameOf(lower.front().piece))
                                  : say("Lay the {} on its line on the {}, wrong side on right side; edge-stitch.",
                                      nameOf(upper.front().piece), nameOf(lower.front().piece)));
        if (act.distance > 0 && act.taken > 0)
            add(say("Two rows: {} and {} from the edge.", Len(act.distance), Len(act.taken)));
        else if (act.distance > 0)
            add(say("The row runs {} from the edge.", Len(act.distance)));
        if (closesOpeningOf(upper.front().piece))
            add(say("The row closes the opening that it was turned through."));
        if (endsInside(lower))
            add(say("Bar-tack both ends of the row."));
        for (const Seam* seam : seams)
            if (std::abs(seam->ease) > 0.05 && !seam->easeNote.empty())
                add(say("Take up {}: {}.", Len(std::abs(seam->ease)), within(seam->easeNote)));
        machine();
        stitch(lockstitchOf(act));
        check(say("It lies flat and square on its line."));
    }

    /// Was the piece turned through an opening that no other act closes?
    bool closesOpeningOf(const PieceId& id) const
    {
        return std::any_of(p.seams.begin(), p.seams.end(), [&](const Seam& seam) {
            const auto own = [&](const EdgeUse& use) { return use.piece == id; };
            return seam.open > 0 && std::all_of(seam.a.begin(), seam.a.end(), own)
                && std::none_of(p.steps.begin(), p.steps.end(), [&](const Step& step) {
                       return std::any_of(step.acts.begin(), step.acts.end(), [&](const Act& each) {
                           return each.verb == Verb::CloseOpening
                               && std::find(each.seams.begin(), each.seams.end(), seam.key) != each.seams.end();
                       });
                   });
        });
    }

    void foldInHalf(const Act& act)
    {
        add(several(act.pieces.front())
                ? say("Fold each {} in half, right sides together.", nameOf(act.pieces.front()))
                : say("Fold the {} in half, right sides together.", nameOf(act.pieces.front())));
        m_folded = true;
    }

    /// Does a row on a face end there, and not at the face's own edge?
    bool endsInside(const std::vector<EdgeUse>& line) const
    {
        const Piece* face = p.piece(line.front().piece);
        const Run* run = p.runBehind(line.front());
        if (!face || !run || distance(startOf(*run), endOf(*run)) < 0.5)
            return false;
        const Polyline stitch = flattened(face->stitch(), 0.1);
        const auto inside = [&](Point at) { return insideOutline(stitch, at) && distanceTo(stitch, at) > 3; };
        return inside(startOf(*run)) && inside(endOf(*run));
    }

    void lay(const Act& act)
    {
        const auto seams = seamsOf(act);
        if (const Piece* thing = p.piece(act.pieces.front()); thing && thing->role == "piping") {
            add(say("Lay the {} on the right side of the {}, raw edges level, the cord towards its middle.",
                nameOf(thing->key), nameOf(act.pieces.back())));
            if (std::any_of(seams.begin(), seams.end(),
                    [&](const Seam* seam) { return shapeOf(p, seam->a).bends() || shapeOf(p, seam->b).bends(); }))
                add(say("Clip its allowance at curves and corners."));
            return;
        }
        const bool named = std::any_of(seams.begin(), seams.end(), [&](const Seam* seam) {
            const auto uses = [&](const EdgeUse& use) { return use.piece == act.pieces.front(); };
            return std::any_of(seam->a.begin(), seam->a.end(), uses)
                || std::any_of(seam->b.begin(), seam->b.end(), uses);
        });
        if (several(act.pieces.front()) && !named)
            add(say("Lay each {} on the {}, right sides together, pointing away from the edge in which it will be "
                    "caught.",
                nameOf(act.pieces.front()), nameOf(act.pieces.back())));
        else
            add(say(
                "Lay the {} on the {}, right sides together, pointing away from the edge in which it will be caught.",
                nameOf(act.pieces.front()), nameOf(act.pieces.back())));
        add(act.taken > 0 ? say("Let the raw ends stand {} past that edge.", Len(act.taken))
                          : say("Raw edges are level."));
    }

    void line(const Act& act)
    {
        add(say(
            "Lay the {} behind the {}, wrong sides together.", nameOf(act.pieces.front()), nameOf(act.pieces.back())));
        check(say("The lining lies flat."));
    }

    void baste(const Act& act)
    {
        add(act.pieces.empty() ? say("Baste {} from the edge.", Len(act.distance))
                               : say("Baste the {} {} from the edge.", namesOf(act.pieces), Len(act.distance)));
        m_out.allowance = std::max(m_out.allowance, act.distance);
        machine();
        stitch(say("4–5 mm, basting"));
        if (m_out.check.empty())
            check(say("It has not shifted: it lies on its marks."));
    }

    void topstitch(const Act& act)
    {
        const auto seams = seamsOf(act);
        if (act.to == To::Open && act.taken > 0)
            add(say("Topstitch {} and {} from the seam on both sides.", Len(act.distance), Len(act.taken)));
        else if (act.to == To::Open)
            add(say("Topstitch {} from the seam on both sides.", Len(act.distance)));
        else if (act.to == To::Nowhere || seams.empty())
            add(say("Topstitch {} from the edge.", Len(act.distance)));
        else
            add(say("Topstitch {} from the seam, on the {}.", Len(act.distance),
                namesOf(piecesOf(act.to == To::First ? seams.front()->a : seams.front()->b))));
        if (act.taken > 0 && act.to != To::Open)
            add(act.to == To::Nowhere || seams.empty() ? say("A second row runs {} from the edge.", Len(act.taken))
                                                       : say("A second row runs {} from the seam.", Len(act.taken)));
        machine();
        stitch(say("3–3.5 mm, lockstitch 301"));
    }

    void roll(const Act& act)
    {
        add(noIron(act) ? say(
                "Roll the seam to the edge and hold it with clips; topstitch {} from the edge.", Len(act.distance))
                        : say("Roll the seam to the edge, press; topstitch {} from the edge.", Len(act.distance)));
        if (act.taken > 0)
            add(say("A second row runs {} from the edge.", Len(act.taken)));
        if (const auto seams = seamsOf(act); !seams.empty() && seams.front()->mouth)
            if (const bool flap = carriesFlap(act), handles = hasHandles(); flap || handles)
                add(flap && handles ? say("Keep the flap and the handles out of the way.")
                        : flap      ? say("Keep the flap out of the way.")
                                    : say("Keep the handles out of the way."));
        if (!noIron(act))
            tool(say("iron"));
        machine();
        stitch(say("3.5 mm, lockstitch 301"));
        check(say("The seam lies on the edge and shows on neither side."));
    }

    void press(const Act& act)
    {
        const auto seams = seamsOf(act);
        if (noIron(act)) {
            tool(say("seam roller"));
            if (act.to == To::Open)
                add(say("Open the allowances with your fingers and roll them flat: no iron."));
            else if (act.to == To::Nowhere || seams.empty())
                add(say("Crease with your fingers and roll it flat: no iron."));
            else
                add(say("Lay the allowances towards the {} and roll them flat: no iron.",
                    namesOf(piecesOf(act.to == To::First ? seams.front()->a : seams.front()->b))));
            return;
        }
        tool(say("iron"));
        if (act.to == To::Open)
            add(say("Press the allowances open."));
        else if (act.to == To::Nowhere || seams.empty())
            add(say("Press."));
        else
            add(say("Press the allowances towards the {}.",
                namesOf(piecesOf(act.to == To::First ? seams.front()->a : seams.front()->b))));
    }

    void foldStrip(const Act& act)
    {
        const Piece* piece = p.piece(act.pieces.front());
        if (!piece)
            return;
        const int times = int(std::lround(boundsOf(piece->cut).width() / act.distance)); // its length lies along y
        if (times == 4)
            add(say("Fold both long edges to the middle, then fold once more."));
        else if (times == 2)
            add(say("Fold both long edges so that they meet behind."));
        if (times > 1) {
            press(act);
            add(say("Edge-stitch both long edges."));
            machine();
            stitch(say("3 mm, lockstitch 301"));
        }
        check(say("Finished {} wide from end to end.", Len(act.distance)));
    }

    /// The side that goes straight where the other bends outwards is clipped there; a side that bends outwards is
    /// notched by grade().
    void clip(const Act& act)
    {
        double radius = SideShape::none, allowance = 0;
        bool corners = false;
        std::vector<PieceId> straight;
        for (const Seam* seam : seamsOf(act)) {
            const SideShape a = shapeOf(p, seam->a), b = shapeOf(p, seam->b);
            const bool clipA = !a.bends() && b.bends(), clipB = !b.bends() && a.bends();
            if (!clipA && !clipB)
                continue;
            const SideShape& bent = clipA ? b : a;
            radius = std::min(radius, bent.convex);
            corners |= bent.convexCorners > 0;
            allowance = std::max(allowance, seam->allowance);
            for (const auto& id : piecesOf(clipA ? seam->a : seam->b))
                if (std::find(straight.begin(), straight.end(), id) == straight.end())
                    straight.push_back(id);
        }
        if (straight.empty())
            return;
        // Clip spacing p = o·r/s, depth s − 2 mm (common practice, no source).
        if (radius < SideShape::none) {
            const Len every(std::max(2.0, std::floor(kClipOpens * radius / allowance))),
                deep(std::max(1.0, allowance - kClipShort));
            add(straight.size() < 3
                    ? say("Clip the allowance of the {} where it goes round the curve, every {}, {} deep.",
                        namesOf(straight), every, deep)
                    : say("Clip the straight edge's allowance where it goes round the curve, every {}, {} deep.", every,
                        deep));
        }
        if (corners)
            add(straight.size() < 3 ? say("At each corner clip the {} to the stitch line.", namesOf(straight))
                                    : say("At each corner clip the straight edge to the stitch line."));
        tool(say("scissors"));
        check(say("No clip reaches the stitch line."));
    }

    void notch(const Act& act)
    {
        double radius = SideShape::none, allowance = 1;
        std::vector<PieceId> round;
        for (const Seam* seam : seamsOf(act))
            for (const auto* side : {&seam->a, &seam->b})
                if (const SideShape shape = shapeOf(p, *side); shape.convex < SideShape::none) {
                    radius = std::min(radius, shape.convex);
                    allowance = std::max(allowance, seam->allowance);
                    for (const auto& id : piecesOf(*side))
                        if (std::find(round.begin(), round.end(), id) == round.end())
                            round.push_back(id);
                }
        if (round.empty())
            return;
        const Len every(std::max(2.0, std::floor(kClipOpens * radius / allowance)));
        add(round.size() < 3
                ? say("Notch out the allowance of the {} along the curve, every {}.", namesOf(round), every)
                : say("Notch out the allowance that bulges round the curve, every {}.", every));
        tool(say("scissors"));
    }

    void grade(const Act& act)
    {
        bool corners = false;
        for (const Seam* seam : seamsOf(act))
            corners |= shapeOf(p, seam->a).convexCorners > 0;
        add(say("Grade the allowances."));
        notch(act);
        if (corners)
            add(say("Cut them across at the corners, {} from the stitching.", Len(kClipShort)));
        tool(say("scissors"));
    }

    void turn(const Act& act)
    {
        const auto seams = seamsOf(act);
        const bool opening = std::any_of(seams.begin(), seams.end(), [](const Seam* s) { return s->open > 0; });
        add(opening ? say("Turn right side out through the opening.")
                    : say("Turn right side out through the edge that is left open."));
        how(say("Push the corners out."));
        tool(say("point turner"));
    }

    void turnBag(const Act& act)
    {
        const auto seams = seamsOf(act);
        if (seams.empty())
            addEither(say("Turn the bag right side out through the open zip; push the corners out."),
                say("Turn the bag through the open zip."));
        else
            addEither(say("Reach through the opening in “{}” and pull the bag out through it; push the corners out.",
                          seams.front()->name),
                say("Turn the bag through the opening in “{}”.", seams.front()->name));
        tool(say("hands"));
        check(say("Corners are pushed out fully; nothing is caught."));
    }

    void set(const Act& act)
    {
        std::set<Fitting::Kind> told;
        for (const auto& key : act.fittings) {
            const auto f = std::find_if(
                p.fittings.begin(), p.fittings.end(), [&](const Fitting& each) { return each.key == key; });
            if (f != p.fittings.end() && told.insert(f->kind).second)
                setAll(*f);
        }
    }

    /// One of a kind stands for all of it.
    void setAll(const Fitting& f)
    {
        if (f.kind == Fitting::Kind::Snap) {
            addEither(say("On the {}, slit for the prongs at the drill mark, push them through this one layer and its "
                          "patch from the right side, put the washer on, bend the prongs, cover them.",
                          nameOf(f.piece)),
                say("Set the half on the {} at its mark, through this one layer and its patch.", nameOf(f.piece)));
            tool(say("awl"));
            tool(say("pliers"));
            check(say("The half sits on its mark within {}.", Len(1)));
            caution(say("Magnets: keep away from implanted medical devices; a swallowing hazard for children."));
            caution(say("Awl and prongs: wear eye protection."));
            return;
        }
        add(say("Punch at the drill marks."));
        tool(say("punch"));
        tool(say("hammer"));
        caution(say("Punch and hammer: wear eye protection."));
        if (f.kind == Fitting::Kind::Rivet) {
            add(say("Set the rivets ({}).", f.through));
            tool(say("rivet setter"));
            check(say("No rivet turns."));
        } else if (f.kind == Fitting::Kind::Eyelet) {
            add(say("Set the eyelets over their washers ({}).", f.through));
            tool(say("eyelet setter"));
            check(say("They are at their marks and equally far from the mouth."));
        } else {
            add(say("Push the feet through ({}), spread the prongs over a washer.", f.through));
            check(say("All stand level."));
        }
    }

    void sewTape(const Act& act)
    {
        if (act.pieces.size() > 1)
            add(say("Lay the tape on the {}, right sides together, the {} on top; sew {} from the tape's edge.",
                nameOf(act.pieces.front()), nameOf(act.pieces.back()), Len(act.distance)));
        else
            add(say("Lay the tape on the {}, right sides together; sew {} from the tape's edge.",
                nameOf(act.pieces.front()), Len(act.distance)));
        add(say("Turn away from the chain; topstitch {} from the fold.", Len(3.2)));
        if (act.seams.empty() && twoTapes(act))
            add(say("Sew the other pair to the other tape alike."));
        machine();
        tool(say("zip foot"));
        stitch(say("2.5–3 mm, lockstitch 301"));
        check(say("The slider runs freely."));
        caution(say("Needle strike: turn the handwheel by hand over the coil."));
    }

    void sealEnds(const Act& act)
    {
        add(say("Fold the {} over the tape's ends and stitch it beside the chain: the slider is on already.",
            nameOf(act.pieces.front())));
        machine();
        caution(say("Needle strike: turn the handwheel by hand over the coil."));
    }

    void hem(const Act& act)
    {
        add(say("Fold the upper edge of the {} {} to the wrong side, then the hem of {}; topstitch.",
            nameOf(act.pieces.front()), Len(act.taken - act.distance), Len(act.distance)));
        machine();
        stitch(say("3 mm, lockstitch 301"));
    }

    void foldIn(const Act& act)
    {
        const Message name = nameOf(act.pieces.front());
        const Len wide(act.distance);
        if (!act.seams.empty())
            add(noIron(act)
                    ? say("Fold the edge of the {} that is stitched on in by {} and hold it with clips.", name, wide)
                    : say("Press the edge of the {} that is stitched on under by {}.", name, wide));
        else
            add(noIron(act) ? say("Fold the allowances of the {} in by {} and hold them with clips.", name, wide)
                            : say("Press the allowances of the {} under by {}.", name, wide));
        tool(noIron(act) ? say("clips") : say("iron"));
    }

    void joinStrips(const Act& act)
    {
        const Piece* piece = p.piece(act.pieces.front());
        if (!piece || piece->count < 2)
            return;
        const double join = act.distance > 0 ? act.distance : 6; // mm (common practice, no source)
        add(piece->grain == 45
                ? say("Join the {} strips: lay two at right angles, right sides together, sew from corner to corner, "
                      "trim to {}, press open.",
                    piece->count, Len(join))
                : say("Join the {} strips end to end at {}, press open.", piece->count, Len(join)));
        machine();
    }

    void bind(const Act& act)
    {
        addEither(
            say("Trim the allowances level. Open the {}, sew it on along its first fold, fold it over the edge and "
                "stitch the other side through all layers. Fold the end in over the beginning.",
                nameOf(act.pieces.front())),
            say("Bind the edge with the {}.", nameOf(act.pieces.front())));
        machine();
        stitch(say("3 mm, lockstitch 301"));
        check(say("The row catches the binding on both sides."));
    }

    void wrapCord(const Act& act)
    {
        if (act.distance > 0)
            add(say(
                "Sew the long edges of each {} round the cord, right side out, but for {} at both ends; flatten the "
                "ends and fold them in.",
                nameOf(act.pieces.front()), Len(act.distance)));
        else
            add(say("Fold the {} round the cord, wrong sides together; sew close to the cord.",
                nameOf(act.pieces.front())));
        machine();
        tool(say("zip foot"));
        stitch(say("3 mm, lockstitch 301"));
    }

    void glue(const Act& act)
    {
        if (act.pieces.size() < 2)
            add(say("Glue the {} on the face of each half shell, centred.", nameOf(act.pieces.front())));
        else
            add(act.distance > 0
                    ? say("Glue the {} to the {} within {} of the edges, wrong sides together.",
                        nameOf(act.pieces.front()), nameOf(act.pieces.back()), Len(act.distance))
                    : say("Glue the {} to the {}.", nameOf(act.pieces.front()), nameOf(act.pieces.back())));
        tool(say("contact adhesive"));
        caution(say("Contact adhesive: air the room, no flame; let it dry as its maker says."));
    }

    void paint()
    {
        add(say("Sand the edge, paint it, let it dry; sand and paint once more. Let it dry fully before it is handled "
                "or sewn over."));
        tool(say("sandpaper"));
        tool(say("edge paint"));
        check(say("Dry to the touch: it does not mark a white cloth."));
        caution(say("Edge paint: air the room, no flame."));
    }

    void threadStrap(const Act& act)
    {
        for (const auto& strap : p.straps)
            if (strap.piece == act.pieces.front())
                addEither(
                    say("Fold one end round the slider's bar, {} in all with the last {} turned under, and sew it "
                        "down with a box-X stitch. Pass the other end through one ring, back through the slider, "
                        "and sew it to the other ring alike.",
                        Len(strap.fold), Len(std::min(10.0, strap.fold / 3))),
                    say("Slider, ring, back through the slider, other ring; each end takes {}, box-X.",
                        Len(strap.fold)));
        machine();
        stitch(say("3 mm, lockstitch 301, box-X"));
        check(say("The slider runs over the whole way; the strap is not twisted."));
        caution(say("Long straps: a strangulation hazard for small children."));
        caution(say("Load ratings need testing by someone qualified; local safety rules go first."));
    }

    void threadTails(const Act& act)
    {
        addEither(say("Thread each {} through its slider, up behind the lower bar and down over it. Fold its end over "
                      "twice and sew it, so that it cannot slip out.",
                      nameOf(act.pieces.front())),
            say("Thread each {} through its slider; fold its end over twice and sew.", nameOf(act.pieces.front())));
        machine();
        stitch(say("3 mm, lockstitch 301"));
        check(say("Pulled, each slider holds; the webbing is not twisted."));
        caution(say("Load ratings need testing by someone qualified; local safety rules go first."));
    }

    void threadCord(const Act& act)
    {
        // @c taken: how many cords, from opposite holes.
        add(act.taken > 1
                ? say("Thread each cord ({}) once round, from opposite holes, and knot its ends.", Len(act.distance))
                : say("Thread {} of cord once round; knot or stop both ends.", Len(act.distance)));
        tool(say("bodkin"));
        check(say("Pulled, the mouth closes evenly."));
        caution(say("Long cords: a strangulation hazard for small children."));
    }

    void window(const Act& act)
    {
        const auto seams = seamsOf(act);
        if (seams.empty())
            return;
        add(say("Lay the {} on the {}, right sides together, windows matched; sew round the box. Slash along the "
                "middle, Y-cuts into the corners from {} inside the ends. Push the bag through.",
            nameOf(seams.front()->b.front().piece), nameOf(seams.front()->a.front().piece), Len(act.distance)));
        press(act);
        machine();
        tool(say("scissors"));
        stitch(say("2 mm round the box, lockstitch 301"));
        check(say("The window lies flat; its corners are square."));
    }

    void insertZip(const Act& act)
    {
        for (const auto& key : act.zips)
            if (const auto zip = std::find_if(
                    p.zips.begin(), p.zips.end(), [&](const Zip& each) { return each.key == key; });
                zip != p.zips.end())
                add(zip->opens == "to the right"
                        ? say("Centre the closed zip behind the window, slider at the left; edge-stitch all round, {} "
                              "from the fold.",
                            Len(act.distance))
                        : say("Centre the closed zip behind the window, slider at the right; edge-stitch all round, {} "
                              "from the fold.",
                            Len(act.distance)));
        add(say("Bar-tack across both ends: the slider lies between them."));
        machine();
        tool(say("zip foot"));
        stitch(say("2.5–3 mm, lockstitch 301"));
        check(say("The slider runs from end to end."));
        caution(say("Needle strike: turn the handwheel by hand over the coil."));
    }

    void trim(const Act& act)
    {
        if (act.pieces.size() > 1) {
            tool(say("knife"));
            return add(say("Trim {} level with a sharp knife.", namesOf(act.pieces)));
        }
        add(act.distance > 0 ? say("Trim both ends of the {} level with its neighbours: {} were cut extra.",
                nameOf(act.pieces.front()), Len(act.distance))
                             : say("Trim the ends of the {} level.", nameOf(act.pieces.front())));
        tool(say("scissors"));
        if (act.distance > 0)
            check(say("The mouth is level all round."));
    }

    void boxOn(const Act& act)
    {
        add(act.taken > 0 ? say("Lay the ends of one {} on their lines on the {}, folded under by {}.",
                nameOf(act.pieces.front()), nameOf(act.pieces.back()), Len(act.taken))
                          : say("Lay the ends of one {} on their lines on the {}, raw ends sealed.",
                              nameOf(act.pieces.front()), nameOf(act.pieces.back())));
        if (act.distance > 0) {
            add(say("Box-X stitch from the lower edge up to {} below the stitch line of the upper edge.",
                Len(act.distance)));
            machine();
            stitch(say("3 mm, lockstitch 301, box-X"));
        }
        check(say("It is not twisted."));
        caution(say("Load ratings need testing by someone qualified; local safety rules go first."));
    }

    void ring(const Act& act)
    {
        double width = 0;
        for (const auto& f : p.fittings)
            if (std::find(act.fittings.begin(), act.fittings.end(), f.key) != act.fittings.end())
                width = f.size;
        add(say("Thread each through a ring of {} and fold it in half over the bar.", Len(width)));
        check(say("The ring turns freely."));
    }

    void joinCoats(const Act& act)
    {
        const auto seams = seamsOf(act);
        std::vector<PieceId> caught;
        for (const Seam* seam : seams)
            caught.insert(caught.end(), seam->trapped.begin(), seam->trapped.end());
        addEither(
            say("Put the shell, right side out, into the lining, wrong side out: right sides together. Match side "
                "seams and centres."),
            say("Shell into lining, right sides together, seams and centres matched."));
        if (const Piece* one = caught.size() == 1 ? p.piece(caught.front()) : nullptr; one && one->count > 1)
            add(say("Each {} hangs down between the layers.", nameOf(one->key)));
        else if (!caught.empty())
            add(say("The {} hangs down between the layers.", namesOf(caught))
                    .counted("The {} hang down between the layers.", long(caught.size())));
        if (carriesFlap(act))
            add(say("The flap is folded down between the layers."));
        if (hasHandles())
            add(say("The handles are laid down between the layers."));
        for (const Seam* seam : seams) {
            m_out.allowance = seam->allowance;
            add(say("Sew round the mouth at {}.", Len(seam->allowance)));
            ends(*seam);
        }
        trimLayers(seams);
        machine();
        stitch(lockstitchOf(act));
        check(say("What hangs between the layers is not caught below the seam."));
    }

    Message lockstitchOf(const Act& act) const
    {
        return holesStay(act) ? say("3–3.5 mm, lockstitch 301") : say("2.5–3 mm, lockstitch 301");
    }

    void dropIn(const Act& act)
    {
        const auto seams = seamsOf(act);
        if (seams.empty())
            return;
        const Seam& seam = *seams.front();
        if (!seam.bound.empty()) {
            add(say("Put the lining, wrong side out, into the shell, raw edges level; match seams and centres. Baste "
                    "{} from the edge all round.",
                Len(4)));
            m_out.allowance = 4;
            stitch(say("4–5 mm, basting"));
            check(say("No pleats in either layer."));
        } else {
            add(say("Fold the mouth allowance of shell and lining to the wrong side ({}). Put the lining, wrong side "
                    "out, into the shell; match seams and centres; edge-stitch {} from the fold.",
                Len(seam.allowance), Len(act.distance)));
            m_out.allowance = seam.allowance;
            stitch(say("3.5 mm, lockstitch 301"));
            check(say("The fold is level all round."));
        }
        machine();
    }

    void putIn(const Act& act)
    {
        if (!act.note.empty()) {
            add(act.note);
            return;
        }
        add(say("Slide the {} onto the bottom, between shell and lining. Fix it with a few dots of glue.",
            nameOf(act.pieces.front())));
        tool(say("contact adhesive"));
        check(say("It lies flat and clear of the seams."));
        caution(say("Contact adhesive: air the room, no flame; let it dry as its maker says."));
    }

    void closeOpening(const Act& act)
    {
        for (const Seam* seam : seamsOf(act))
            addEither(say("In “{}”, fold the allowances of the opening in and stitch it shut close to the edge, or by "
                          "hand: {}.",
                          seam->name, Len(seam->open)),
                say("Close the opening of {} in “{}”.", Len(seam->open), seam->name));
        machine();
        stitch(say("2.5 mm, lockstitch 301"));
        check(say("Nothing is left between the layers: no pins, no clips."));
    }

    const Pattern& p;
    const Step& m_step;
    StepWords m_out;
    std::vector<Message> m_tools;
    bool m_folded = false; ///< what is sewn next was folded onto itself
    bool m_onLine = false; ///< and is sewn on a line, as was said
};

} // namespace

StepWords told(const Pattern& pattern, const Step& step)
{
    StepWords out = Telling(pattern, step).words();
    if (const auto own = pattern.ownWords.find(step.id); own != pattern.ownWords.end()) {
        out.own = true;
        out.derived = std::exchange(out.text, naming(own->second.text));
        out.outdated = tectonis::words(out.derived) != own->second.was;
    }
    return out;
}

std::vector<Message> factsOf(const StepWords& words)
{
    std::vector<Message> facts;
    for (const Message* each : {&words.tool, &words.stitch})
        if (!each->empty())
            facts.push_back(*each);
    if (words.allowance > 0)
        facts.push_back(say("allowance {}", Len(words.allowance)));
    if (words.drying > 0)
        facts.push_back(say("{} min to dry", Num(words.drying, 0)));
    return facts;
}

} // namespace tectonis
