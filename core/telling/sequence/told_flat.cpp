// SPDX-License-Identifier: GPL-3.0-or-later
// What is said of work on flat pieces: layers, folds, hems, strips, pockets, hardware, edges.
#include "sequence/telling.hpp"

#include "buildup/layers.hpp"
#include "library/library.hpp"
#include "pattern/labels.hpp"

#include <algorithm>
#include <cmath>
#include <set>

namespace tectonis {

void Telling::interline(const Act& act)
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

void Telling::held(const std::string& fixing, bool inSeams, bool within)
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
            add(say("What reaches into the allowances is basted there, {} to {} from the edge, and trimmed close to "
                    "the stitching after the seam.",
                Len(3), Len(6)));
        if (within)
            add(say("What ends at the stitch line is held by a row {} to {} inside its own edge, or by hand.", Len(2),
                Len(3)));
        machine();
        stitch(say("{}–{} mm, basting", Num(4), Num(5)));
        check(say("Each lies flat on the wrong side and nothing reaches past its line."));
    } else
        add(say("They are laid in, not fixed, when their piece is sewn."));
}

Message Telling::codesOf(const std::vector<PieceId>& pieces) const
{
    Message codes;
    for (const auto& id : pieces)
        if (const Piece* piece = p.piece(id))
            codes = codes.empty() ? naming(piece->code) : say("{}, {}", codes, piece->code);
    return codes;
}

void Telling::preshrink(const Act& act)
{
    std::set<std::string> told;
    for (const auto& id : act.pieces)
        if (const Piece* piece = p.piece(id))
            if (const Material& cloth = p.material(p.materials.at(piece->material)); told.insert(cloth.id).second)
                add(say("{}: it loses up to {} % of its length.", cloth.name, Num(cloth.shrink, 1)));
    add(say("Wash each as the bag will be washed, let it dry and press it smooth before anything is cut."));
    how(say("What is fused or quilted to cloth that shrinks later goes into bubbles."));
    tool(say("iron"));
    check(say("The cloth is dry, and its grain is straight."));
}

void Telling::quilt(const Act& act)
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
        add(each.layer->diamonds
                ? say("Quilt them to the wrong side of their blocks in diamonds, {} apart.", Len(each.layer->quilted))
                : say("Quilt them to the wrong side of their blocks in straight rows, {} apart.",
                    Len(each.layer->quilted)));
    }
    how(say("Baste them first; begin in the middle and sew every row in the same direction."));
    machine();
    stitch(lengthOfStitches(act, RowKind::Topstitch));
    check(say("Each block lies flat and is still larger than its template all round."));
}

void Telling::cutBack(const Piece& piece, const Layer& layer)
{
    if (layer.quilted <= 0)
        return;
    Message edges;
    bool all = true;
    for (const auto& [edge, reach] : layer.reach) {
        const Edge* of = piece.edge(edge);
        if (!of || of->allowance <= 0.01)
            continue;
        if (reach >= of->allowance - 0.01) {
            all = false;
            continue;
        }
        const Message name = edgeLabel(p, edge);
        edges = edges.empty() ? name : say("{}, {}", edges, name);
    }
    if (!edges.empty())
        add(all ? say("Peel {} back and cut it away in the allowances, all round, without its cloth.", layer.code)
                : say("Peel {} back and cut it away in the allowances, without its cloth: {}.", layer.code, edges));
}

void Telling::cutToShape(const Act& act)
{
    add(say("{}: lay the template on the quilted block and cut it to shape.", codesOf(act.pieces)));
    how(say("Sew round just inside the cut edge, so that the rows do not open."));
    for (const auto& id : act.pieces)
        if (const Piece* piece = p.piece(id))
            for (const auto& layer : piece->layers)
                cutBack(*piece, layer);
    tool(say("scissors"));
    check(say("The rows meet where pieces meet."));
}

void Telling::roundCorners(const Act& act)
{
    const Message codes = codesOf(act.pieces);
    add(say("{}: lay the template on, mark its round corners and cut them through all layers.", codes));
    tool(say("scissors"));
    check(say("The corners of pieces that meet are alike."));
}

void Telling::layOver(const Act& act)
{
    add(several(act.pieces.front()) ? say(
            "Lay each {} in its place on the {}, right side up.", nameOf(act.pieces.front()), nameOf(act.pieces.back()))
                                    : say("Lay the {} in its place on the {}, right side up.",
                                        nameOf(act.pieces.front()), nameOf(act.pieces.back())));
}

void Telling::insert(const Act& act)
{
    if (std::find(act.uses.begin(), act.uses.end(), Ware::WebbingSlider) != act.uses.end())
        add(say("Pass each {} round the upper bar of a slider and fold it in half.", nameOf(act.pieces.front())));
    add(say("Push the ends of the {} {} into the open end of the {}; sew across twice.", nameOf(act.pieces.front()),
        Len(act.distance), nameOf(act.pieces.back())));
    machine();
    stitch(lengthOfStitches(act, RowKind::Join));
}

void Telling::rows(const Act& act)
{
    add(say(
        "Sew the rows that are marked on the {}, through all layers; bar-tack where they end.", namesOf(act.pieces)));
    machine();
    stitch(lengthOfStitches(act, RowKind::Join));
}

void Telling::pleat(const Act& act)
{
    add(act.pieces.size() > 1
            ? say("Lay every pleat of the {} along its folds, alike from the centre, and baste.", namesOf(act.pieces))
            : say("Lay the pleats of the {} along their folds and baste.", nameOf(act.pieces.front())));
    if (act.distance > 0)
        add(say("Each takes {}.", Len(act.distance)));
    machine();
}

void Telling::drawIn(const Act& act)
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

void Telling::wrapOver(const Act& act)
{
    const Piece* over = p.piece(act.pieces.front());
    const bool round = over && std::any_of(over->edges.begin(), over->edges.end(), [](const Edge& e) {
        return std::any_of(
            e.stitch.begin(), e.stitch.end(), [](const Segment& s) { return !std::holds_alternative<Line>(s); });
    });
    const Message name = nameOf(act.pieces.front());
    const bool each = several(act.pieces.front());
    if (act.pieces.size() > 1)
        add(each ? say("Centre each {} on a {}, draw it over the rim and glue the {} that go over to the back.", name,
                nameOf(act.pieces.back()), Len(act.distance))
                 : say("Centre the {} on a {}, draw it over the rim and glue the {} that go over to the back.", name,
                     nameOf(act.pieces.back()), Len(act.distance)));
    else
        add(each ? say("Centre each {} on a half shell, draw it over the rim and glue the {} that go over inside.",
                name, Len(act.distance))
                 : say("Centre the {} on a half shell, draw it over the rim and glue the {} that go over inside.", name,
                     Len(act.distance)));
    add(round ? say("Straights first; then notch what goes round the corners and lay it down.")
              : say("Straights first, then the mitred corners."));
    tool(say("contact adhesive"));
    tool(say("bone folder"));
    caution(say("Contact adhesive: air the room, no flame; let it dry as its maker says."));
}

void Telling::sealCut(const Act& act)
{
    const Material* webbing = clothOf(act.pieces.front());
    if (!webbing || webbing->heat) {
        add(say("Zigzag the cut ends of the {}, so that they do not fray.", namesOf(act.pieces)));
        return machine();
    }
    add(say("Seal the cut ends of the {} with a flame or a hot knife.", namesOf(act.pieces)));
    tool(say("hot knife"));
    caution(say("Flame: never near adhesive or solvent; molten webbing burns the skin."));
}

void Telling::buttonhole(const Act& act)
{
    add(act.distance > 0
            ? say("Work a buttonhole of {} at each mark of the {} and cut it open.", Len(act.distance),
                namesOf(act.pieces))
            : say("Work a buttonhole at each mark of the {} and cut it open.", nameOf(act.pieces.front())));
    machine();
    tool(say("seam ripper"));
}

void Telling::foldInHalf(const Act& act)
{
    add(several(act.pieces.front()) ? say("Fold each {} in half, right sides together.", nameOf(act.pieces.front()))
                                    : say("Fold the {} in half, right sides together.", nameOf(act.pieces.front())));
    m_folded = true;
}

void Telling::line(const Act& act)
{
    add(say("Lay the {} behind the {}, wrong sides together.", nameOf(act.pieces.front()), nameOf(act.pieces.back())));
    check(say("The lining lies flat."));
}

void Telling::baste(const Act& act)
{
    add(act.pieces.empty() ? say("Baste {} from the edge.", Len(act.distance))
                           : say("Baste the {} {} from the edge.", namesOf(act.pieces), Len(act.distance)));
    m_out.allowance = std::max(m_out.allowance, act.distance);
    machine();
    stitch(lengthOfStitches(act, RowKind::Baste));
    if (m_out.check.empty())
        check(say("It has not shifted: it lies on its marks."));
}

void Telling::foldStrip(const Act& act)
{
    const Piece* piece = p.piece(act.pieces.front());
    if (!piece)
        return;
    const int times = int(std::lround(boundsOf(piece->cut).width() / act.distance)); // its length lies along y
    if (act.taken > 0)
        add(say("Fold the long edges of the {} to the wrong side by {}; lay them on each other, wrong sides together, "
                "folded edges level.",
            namesOf(act.pieces), Len(act.taken)));
    else if (times == 4)
        add(say("Fold both long edges to the middle, then fold once more."));
    else if (times == 2)
        add(say("Fold both long edges so that they meet behind."));
    if (times > 1 || act.taken > 0) {
        press(act);
        add(say("Edge-stitch both long edges."));
        machine();
        stitch(lengthOfStitches(act, RowKind::Join));
    }
    check(say("Finished {} wide from end to end.", Len(act.distance)));
}

void Telling::set(const Act& act)
{
    std::set<Fitting::Kind> told;
    for (const auto& key : act.fittings) {
        const auto f = std::find_if(
            p.fittings.begin(), p.fittings.end(), [&](const Fitting& each) { return each.key == key; });
        if (f == p.fittings.end() || !told.insert(f->kind).second)
            continue;
        act::Pieces on;
        for (const auto& each : p.fittings)
            if (each.kind == f->kind
                && std::find(act.fittings.begin(), act.fittings.end(), each.key) != act.fittings.end()
                && std::find(on.begin(), on.end(), each.piece) == on.end())
                on.push_back(each.piece);
        if (f->kind == Fitting::Kind::Snap && !act.uses.empty() && act.uses.front() != Ware::Snap)
            closure(act, *f);
        else
            setAll(*f, on);
        if (f->kind == Fitting::Kind::Snap && act.pieces.empty())
            whichMark(*f);
    }
}

void Telling::whichMark(const Fitting& f)
{
    const auto other = [&](const Fitting& each) {
        return each.kind == f.kind && each.piece == f.piece && each.owner() != f.owner();
    };
    const Piece* piece = p.piece(f.piece);
    if (!piece || std::none_of(p.fittings.begin(), p.fittings.end(), other))
        return;
    const Box box = boundsOf(piece->stitch());
    const double right = f.at.x - box.centre().x;
    if (std::any_of(p.fittings.begin(), p.fittings.end(),
            [&](const Fitting& each) { return other(each) && std::abs(each.at.x - f.at.x) < 1; }))
        add(say("It is the mark {} below the upper stitch line.", Len(box.y1 - f.at.y)));
    else if (std::abs(right) < 1)
        add(say("It is the mark in the middle."));
    else
        add(right > 0 ? say("It is the mark {} to the right of the middle.", Len(right))
                      : say("It is the mark {} to the left of the middle.", Len(-right)));
}

namespace {

/// Of a flap that is the bag's own piece without a lining: its half looks to the wrong side.
bool facesInwards(const Pattern& p, const Fitting& f)
{
    return f.key.name() == "flap half" && std::any_of(p.fittings.begin(), p.fittings.end(), [&](const Fitting& other) {
        return other.key.owner() == f.key.owner() && other.key.name() == "front half" && other.piece == f.piece;
    });
}

} // namespace

void Telling::closure(const Act& act, const Fitting& f)
{
    const bool second = !act.pieces.empty(); // it lands on the first one
    const Message on = facesInwards(p, f) ? say("{}, wrong side", nameOf(f.piece)) : nameOf(f.piece);
    switch (act.uses.front()) {
    case Ware::HookAndLoop: {
        Message size;
        for (const auto& h : p.hardware)
            if (h.owner() == f.owner() && h.kind == Ware::HookAndLoop)
                size = h.sizeText;
        // Either half may come first in the order.
        add(second
                ? say("Cut the tape's loop half ({}). Lay it over its mark on the {}, sew it {} inside its edge, all "
                      "round, and across both ways.",
                    size, on, Len(2))
                : say("Cut the tape's hook half ({}). Lay it over its mark on the {}, sew it {} inside its edge, all "
                      "round, and across both ways.",
                    size, on, Len(2)));
        machine();
        stitch(say("2.5–3 mm, lockstitch 301"));
        return check(say("No corner of the tape lifts."));
    }
    case Ware::SewnMagnet:
        add(second
                ? say("Lay the pair's other magnet, in its cover, behind the {} at its mark: the side that draws the "
                      "first one faces out (try it). Sew round the cover, {} from the magnet.",
                    on, Len(3))
                : say("Lay one magnet of the pair, in its cover, behind the {} at its mark. Sew round the cover, {} "
                      "from the magnet.",
                    on, Len(3)));
        machine();
        stitch(lengthOfStitches(act, RowKind::Join));
        check(say("It lies within {} of its mark and cannot turn over.", Len(1)));
        caution(say("Magnets: keep away from implanted medical devices; a swallowing hazard for children."));
        return caution(say("Needle strike: turn the handwheel by hand beside the magnet."));
    case Ware::TuckLock:
        addEither(second ? say("Close the flap and mark by touch where the tongue goes into its case. Punch the "
                               "tongue's holes there through all layers of the flap, put tongue and back plate on and "
                               "screw them together.")
                         : say("On the {}, slit for the prongs of the lock's case at the drill mark, push them "
                               "through this one layer and its patch from the right side, put the plate on, bend the "
                               "prongs, cover them.",
                             on),
            second ? say("Mark by touch, punch, screw tongue and back plate together.")
                   : say("Set the case on the {} at its mark, through this one layer and its patch.", on));
        tool(second ? say("punch") : say("awl"));
        tool(second ? say("screwdriver") : say("pliers"));
        check(second ? say("The tongue goes in without force and comes out by its spring.")
                     : say("The case stands level, within {}.", Len(1)));
        return caution(say("Awl, punch and prongs: wear eye protection."));
    case Ware::TurnLock:
        addEither(second
                ? say("Close the flap and mark by touch where the knob stands. Cut the plate's window there through "
                      "all layers of the flap, paint its edge, put the plate on and screw it down.")
                : say(
                    "On the {}, slit for the prongs of the knob's plate at the drill mark, push them through this one "
                    "layer and its patch from the right side, put the washer on, bend the prongs, cover them.",
                    on),
            second ? say("Mark by touch, cut the window, paint its edge, screw the plate on.")
                   : say("Set the knob on the {} at its mark, through this one layer and its patch.", on));
        tool(second ? say("knife") : say("awl"));
        tool(second ? say("screwdriver") : say("pliers"));
        check(
            second ? say("The knob turns freely in its window.") : say("The knob stands upright, within {}.", Len(1)));
        return caution(say("Awl and prongs: wear eye protection."));
    default:
        add(second
                ? say("Close the flap over the stud and press: punch where it has marked the flap, and set cap and "
                      "socket through all its layers.")
                : say("Punch at the drill mark of the {}, through all layers. Set stud and post from both sides.", on));
        tool(say("punch"));
        tool(say("snap setter"));
        check(say("It snaps, and comes open without pulling the cloth."));
        caution(say("Punch and hammer: wear eye protection."));
    }
}

void Telling::setAll(const Fitting& f, const std::vector<PieceId>& on)
{
    if (f.kind == Fitting::Kind::Snap) {
        addEither(facesInwards(p, f)
                ? say(
                    "On the {}, slit for the prongs at the drill mark, push them through its patch and this one layer "
                    "from the wrong side, which comes to lie on the front, put the washer on outside, bend the "
                    "prongs, cover them.",
                    nameOf(f.piece))
                : say("On the {}, slit for the prongs at the drill mark, push them through this one layer and its "
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
    add(say("Punch at the drill marks of the {}.", namesOf(on)));
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

void Telling::hem(const Act& act)
{
    add(say("Fold the upper edge of the {} {} to the wrong side, then the hem of {}; topstitch.", namesOf(act.pieces),
        Len(act.taken - act.distance), Len(act.distance)));
    machine();
    stitch(lengthOfStitches(act, RowKind::Join));
    if (!act.seams.empty())
        check(say("The mouth is as long all round as before it was folded."));
}

void Telling::foldIn(const Act& act)
{
    const Message name = nameOf(act.pieces.front());
    const Len wide(act.distance);
    std::set<EdgeId> edges; // of one piece that are stitched on
    for (const Seam* seam : seamsOf(act))
        for (const auto* side : {&seam->a, &seam->b})
            if (side->front().piece == act.pieces.front())
                edges.insert(side->front().edge);
    if (edges.size() > 1)
        add(noIron(act)
                ? say("Fold the edges of the {} that are stitched on in by {} and hold them with clips.", name, wide)
                : say("Press the edges of the {} that are stitched on under by {}.", name, wide));
    else if (!act.seams.empty())
        add(noIron(act)
                ? say("Fold the edge of the {} that is stitched on in by {} and hold it with clips.", name, wide)
                : say("Press the edge of the {} that is stitched on under by {}.", name, wide));
    else
        add(noIron(act) ? say("Fold the allowances of the {} in by {} and hold them with clips.", name, wide)
                        : say("Press the allowances of the {} under by {}.", name, wide));
    tool(noIron(act) ? say("clips") : say("iron"));
}

void Telling::joinStrips(const Act& act)
{
    const Piece* piece = p.piece(act.pieces.front());
    if (!piece || piece->count < 2)
        return;
    const double join = act.distance > 0 ? act.distance : 6; // mm (common practice, no source)
    const Edge* end = piece->edge("top");
    if (act.pieces.size() > 1)
        add(say("Join the {} to their length, each for itself.", namesOf(act.pieces)));
    if (act.taken > 0) {
        add(say(
            "Splice the {} strips: lap each end flat over the next, both right side up, by {}; stitch across twice, "
            "{} from both raw ends.",
            piece->count, Len(act.taken), Len(std::min(3.0, act.taken / 4))));
        return machine();
    }
    const bool aslant = end && std::abs(startOf(end->stitch).y - endOf(end->stitch).y) > 1;
    add(piece->grain == 45
            ? say("Join the {} strips: lay two at right angles, right sides together, sew from corner to corner, "
                  "trim to {}.",
                piece->count, Len(join))
            : aslant ? say("Join the {} strips at their slanting ends: right sides together, the points past each "
                           "other so that the stitch lines meet at both edges; sew at {}. Cut the outer ends square.",
                  piece->count, Len(join))
                     : say("Join the {} strips end to end at {}.", piece->count, Len(join)));
    if (noIron(act)) {
        tool(say("seam roller"));
        add(say("Open the allowances with your fingers and roll them flat: no iron."));
    } else {
        tool(say("iron"));
        add(say("Press the allowances open."));
    }
    machine();
}

void Telling::wrapCord(const Act& act)
{
    if (act.distance > 0)
        add(say("Sew the long edges of each {} round the cord, right side out, but for {} at both ends; flatten the "
                "ends and fold them in.",
            nameOf(act.pieces.front()), Len(act.distance)));
    else
        add(say(
            "Fold the {} round the cord, wrong sides together; sew close to the cord.", nameOf(act.pieces.front())));
    machine();
    stitch(lengthOfStitches(act, RowKind::Join));
}

void Telling::glue(const Act& act)
{
    if (act.pieces.size() < 2)
        add(say("Glue the {} on the face of each half shell, centred.", nameOf(act.pieces.front())));
    else
        add(act.distance > 0 ? say("Glue the {} to the {} within {} of the edges, wrong sides together.",
                nameOf(act.pieces.front()), nameOf(act.pieces.back()), Len(act.distance))
                             : say("Glue the {} to the {}.", nameOf(act.pieces.front()), nameOf(act.pieces.back())));
    tool(say("contact adhesive"));
    caution(say("Contact adhesive: air the room, no flame; let it dry as its maker says."));
}

void Telling::paint()
{
    add(say("Sand the edge, paint it, let it dry; sand and paint once more. Let it dry fully before it is handled "
            "or sewn over."));
    tool(say("sandpaper"));
    tool(say("edge paint"));
    check(say("Dry to the touch: it does not mark a white cloth."));
    caution(say("Edge paint: air the room, no flame."));
}

void Telling::trim(const Act& act)
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

void Telling::boxOn(const Act& act)
{
    const bool looped = std::ranges::any_of(p.steps, [&](const Step& step) {
        return std::ranges::any_of(step.acts,
            [&](const Act& each) { return each.verb == Act::Verb::Ring && each.pieces.front() == act.pieces.front(); });
    });
    // One to each wall, or both onto one face.
    const auto alike = std::ranges::count_if(p.steps, [&](const Step& step) {
        return std::ranges::any_of(step.acts, [&](const Act& each) {
            return each.verb == Act::Verb::BoxOn && each.pieces.front() == act.pieces.front();
        });
    });
    const Piece* tab = p.piece(act.pieces.front());
    if (looped)
        add(tab && tab->count > alike ? say("Lay each {} on its lines on the {}: its ends below, the ring above.",
                nameOf(act.pieces.front()), nameOf(act.pieces.back()))
                                      : say("Lay one {} on its lines on the {}: its ends below, the ring above.",
                                          nameOf(act.pieces.front()), nameOf(act.pieces.back())));
    else
        add(act.taken > 0 ? say("Lay the ends of one {} on their lines on the {}, folded under by {}.",
                nameOf(act.pieces.front()), nameOf(act.pieces.back()), Len(act.taken))
                          : say("Lay the ends of one {} on their lines on the {}, raw ends sealed.",
                              nameOf(act.pieces.front()), nameOf(act.pieces.back())));
    if (act.distance > 0) {
        add(say(
            "Box-X stitch from the lower edge up to {} below the stitch line of the upper edge.", Len(act.distance)));
        machine();
        stitch(say("3 mm, lockstitch 301, box-X"));
    }
    check(say("It is not twisted."));
    caution(say("Load ratings need testing by someone qualified; local safety rules go first."));
}

void Telling::ring(const Act& act)
{
    double width = 0;
    for (const auto& f : p.fittings)
        if (std::find(act.fittings.begin(), act.fittings.end(), f.key) != act.fittings.end())
            width = f.size;
    if (std::find(act.uses.begin(), act.uses.end(), Ware::Buckle) == act.uses.end()) {
        const Piece* tab = p.piece(act.pieces.front());
        add(tab && tab->count > 1
                ? say("Thread each through a ring of {} and fold it in half over the bar.", Len(width))
                : say("Thread it through a ring of {} and fold it in half over the bar.", Len(width)));
        return check(say("The ring turns freely."));
    }
    if (act.distance <= 0)
        return add(say("Fold the {} in half over the bar of the buckle's socket ({} inside width).",
            nameOf(act.pieces.front()), Len(width)));
    add(say("Fold one end of the {} round the bar of the buckle's socket ({} inside width), {} in all with the last {} "
            "turned under, and sew it down with a box-X stitch.",
        nameOf(act.pieces.front()), Len(width), Len(act.distance), Len(std::min(10.0, act.distance / 3))));
    machine();
    stitch(say("3 mm, lockstitch 301, box-X"));
}

} // namespace tectonis
