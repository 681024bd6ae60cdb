// SPDX-License-Identifier: GPL-3.0-or-later
// What is said of zips, windows, straps and cords.
#include "sequence/telling.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {

void Telling::layTape(const Act& act)
{
    const Zip* zip = zipOf(act);
    if (zip && std::abs(zip->first.stitch - zip->last.stitch) > 0.005)
        add(say("Lay the zip face down on the right side of the {}, its closed end {} and its tail {} from the side "
                "seams, the mouth's stitch line {} from the tape's edge.",
            namesOf(act.pieces), Len(zip->first.stitch), Len(zip->last.stitch), Len(act.taken)));
    else
        add(say("Lay the zip face down on the right side of the {}, {} from the side seams, the mouth's stitch line {} "
                "from the tape's edge.",
            namesOf(act.pieces), Len(act.distance), Len(act.taken)));
    for (const bool first : {true, false})
        if (zip && (first ? zip->first : zip->last).kind == ZipEnd::Kind::Seam)
            add(first ? say("At its closed end the tape runs on into the side seam.")
                      : say("At its tail the tape runs on into the side seam."));
}

const Zip* Telling::zipOf(const Act& act) const
{
    const auto zip = std::find_if(p.zips.begin(), p.zips.end(),
        [&](const Zip& each) { return !act.zips.empty() && each.key == act.zips.front(); });
    return zip == p.zips.end() ? nullptr : &*zip;
}

void Telling::barTack(const Act& act)
{
    if (const Zip* zip = zipOf(act))
        add(act.to == To::First ? say("Bar-tack across the chain at the closed end.")
                : act.to == To::Second
                ? say("Bar-tack across the chain at the tail, so that the slider cannot run off.")
                : zip->sliders > 1 ? say("Bar-tack across the chain at both ends, so that the two sliders cannot run "
                                         "off.")
                                   : say("Bar-tack across the chain at both ends, so that the slider cannot run "
                                         "off."));
    caution(say("Needle strike: turn the handwheel by hand over the chain."));
}

void Telling::sliderOn(const Act& act)
{
    constexpr double bare = 12; // mm of tape without teeth (common practice, no source)
    const Zip* zip = zipOf(act);
    if (zip && zip->kind == "metal") {
        add(say("Pull the teeth off the last {} of both ends, so that no needle meets them.", Len(bare)));
        tool(say("pliers"));
    }
    if (zip && zip->sliders > 1)
        return add(say("Put both sliders on, their pulls outwards, noses together."));
    add(zip && zip->opens == "to the left" ? say("Put the slider on so that it opens to the left.")
                                           : say("Put the slider on so that it opens to the right."));
}

void Telling::cutDown(const Act& act)
{
    constexpr double past = 20; // mm (common practice, no source)
    const Zip* zip = zipOf(act);
    const bool metal = zip && zip->kind == "metal";
    add(metal
            ? say("Cut the zip down from {} to {}, measured from its top stop: pull the teeth beyond off with pliers, "
                  "set a new stop there and cut the tape {} past it.",
                Len(act.taken), Len(act.distance), Len(past))
            : say("Cut the zip down from {} to {}, measured from its top stop: sew across the chain there with a few "
                  "close stitches as its new stop and cut it off {} past them.",
                Len(act.taken), Len(act.distance), Len(past)));
    tool(metal ? say("pliers") : say("needle and thread"));
    tool(say("scissors"));
    check(say("The slider does not run past the new stop."));
}

bool Telling::twoTapes(const Act& act) const
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

void Telling::sewTape(const Act& act)
{
    if (act.taken > 0) {
        const Message face = nameOf(act.pieces.front()), bag = nameOf(act.pieces.back());
        addEither(say("Lay the raw edge of the {} on the tape, right side up, so that {} of tape lie under it.", face,
                      Len(act.distance)),
            say("Lap the {} by {} over the tape.", face, Len(act.distance)));
        // What goes on beside the face ends at its raw edge; what hangs down over the chain reaches up behind the face.
        double up = 0;
        for (const Seam* seam : seamsOf(act))
            for (const auto* side : {&seam->a, &seam->b})
                for (const auto& use : *side)
                    if (const Piece* piece = p.piece(use.piece); piece && use.piece == act.pieces.back())
                        if (const Edge* edge = piece->edge(use.edge))
                            up = std::max(up, edge->allowance);
        add(up > 0 ? say("The {} lies below, right side up, and hangs down behind the chain; its edge reaches {} up "
                         "behind the {}.",
                bag, Len(up), face)
                   : say("The {} lies below, right side down, its edge level with the raw edge.", bag));
        addEither(say("Hold all with clips or a strip of tape; stitch {} from the raw edge.", Len(act.taken)),
            say("Stitch {} from the raw edge.", Len(act.taken)));
        machine();
        stitch(lengthOfStitches(act, RowKind::Topstitch));
        check(say("The slider runs freely."));
        return caution(say("Needle strike: turn the handwheel by hand over the chain."));
    }
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
    stitch(say("2.5–3 mm, lockstitch 301"));
    check(say("The slider runs freely."));
    caution(say("Needle strike: turn the handwheel by hand over the chain."));
}

void Telling::sealEnds(const Act& act)
{
    add(act.to == To::First ? say("Fold the {} over the tape's closed end and stitch it beside the chain: the "
                                  "slider is on already.",
            nameOf(act.pieces.front()))
            : act.to == To::Second
            ? say("Fold the {} over the tape's tail and stitch it beside the chain: the slider is "
                  "on already.",
                nameOf(act.pieces.front()))
            : say("Fold the {} over the tape's ends and stitch it beside the chain: the slider is "
                  "on already.",
                nameOf(act.pieces.front())));
    machine();
    caution(say("Needle strike: turn the handwheel by hand over the chain."));
}

void Telling::foldEnds(const Act& act)
{
    add(act.to == To::First ? say("Fold the tape's closed end away, to the wrong side and aslant beside the last "
                                  "tooth, and stitch it down: the slider is on already.")
            : act.to == To::Second
            ? say("Fold the tape's tail away, to the wrong side and aslant beside the last tooth, "
                  "and stitch it down: the slider is on already.")
            : say("Fold both ends of the tape away, to the wrong side and aslant beside the last "
                  "tooth, and stitch them down: the slider is on already."));
    machine();
    caution(say("Needle strike: turn the handwheel by hand over the chain."));
}

void Telling::capEnds(const Act& act)
{
    add(act.to == To::First ? say("Push a metal end over the tape's closed end and squeeze it shut: the slider is "
                                  "on already.")
            : act.to == To::Second ? say("Push a metal end over the tape's tail and squeeze it shut: the slider is on "
                                         "already.")
                                   : say("Push a metal end over each end of the tape and squeeze them shut: the slider "
                                         "is on already."));
    tool(say("pliers"));
}

void Telling::threadStrap(const Act& act)
{
    for (const auto& strap : p.straps) {
        if (strap.piece != act.pieces.front())
            continue;
        if (!strap.turned)
            add(say(
                "Overcast the strap's raw ends, zigzag 304 or overedge 504: turned under they would be too thick."));
        const Len fold(strap.fold), under(std::min(10.0, strap.fold / 3));
        if (strap.worn == Strap::Worn::Wrist) {
            const bool hook = strap.hook > 0;
            addEither(strap.turned ? hook
                        ? say("Fold the strap in half, right side outside. Pass both ends together round the bar of "
                              "the hook, {} with the last {} of the outer one turned under over the other, and sew "
                              "them down with a box-X stitch. Hook it into the ring.",
                            fold, under)
                        : say("Fold the strap in half, right side outside. Pass both ends together round the ring, "
                              "{} with the last {} of the outer one turned under over the other, and sew them down "
                              "with a box-X stitch.",
                            fold, under)
                    : hook
                    ? say("Fold the strap in half, right side outside. Pass both ends together round the bar of "
                          "the hook, {}, lay them flat on each other and sew them down with a box-X stitch. Hook "
                          "it into the ring.",
                        fold)
                    : say("Fold the strap in half, right side outside. Pass both ends together round the ring, "
                          "{}, lay them flat on each other and sew them down with a box-X stitch.",
                        fold),
                say("Both ends together round the bar, {} each, box-X.", fold));
            machine();
            stitch(say("3 mm, lockstitch 301, box-X"));
            check(say("The loop hangs {} down from the ring; it is not twisted.", Len(strap.longest)));
            return caution(say("Load ratings need testing by someone qualified; local safety rules go first."));
        }
        if (strap.worn == Strap::Worn::Doubled) {
            addEither(strap.turned
                    ? say("Pass one end through one ring and on through the other, right side outside. Lap it over the "
                          "other end by {}, the last {} of both turned under towards each other, and sew through all "
                          "with a box-X stitch: a closed loop that slides in both rings.",
                        fold, under)
                    : say(
                        "Pass one end through one ring and on through the other, right side outside. Lap it flat over "
                        "the other end by {} and sew through both with a box-X stitch: a closed loop that slides in "
                        "both rings.",
                        fold),
                say("Through both rings; ends lapped by {}, box-X.", fold));
            machine();
            stitch(say("3 mm, lockstitch 301, box-X"));
            check(say("The loop slides through both rings, its join too; both strands hang {}, drawn out one hangs {}.",
                Len(strap.shortest), Len(strap.longest)));
            caution(say("Long straps: a strangulation hazard for small children."));
            return caution(say("Load ratings need testing by someone qualified; local safety rules go first."));
        }
        const Message first = strap.turned
            ? say(
                "Fold one end round the slider's bar, {} in all with the last {} turned under, and sew it down with a "
                "box-X stitch.",
                fold, under)
            : say("Fold one end round the slider's bar, {} in all, and sew it down flat with a box-X stitch.", fold);
        if (strap.hook > 0)
            addEither(
                together(first,
                    say("Pass the other end through the eye of one hook, back through the slider, and sew it round "
                        "the eye of the other hook alike. Hook both into the rings.")),
                say("Slider, one hook, back through the slider, other hook; each end takes {}, box-X.", fold));
        else
            addEither(
                together(first,
                    say("Pass the other end through one ring, back through the slider, and sew it to the other ring "
                        "alike.")),
                say("Slider, ring, back through the slider, other ring; each end takes {}, box-X.", fold));
    }
    machine();
    stitch(say("3 mm, lockstitch 301, box-X"));
    check(say("The slider runs over the whole way; the strap is not twisted."));
    caution(say("Long straps: a strangulation hazard for small children."));
    caution(say("Load ratings need testing by someone qualified; local safety rules go first."));
}

void Telling::threadTails(const Act& act)
{
    if (!act.fittings.empty()) { // a belt's one tail, with a buckle
        if (act.pieces.size() > 1)
            add(say("Pass the {} through both loops.", nameOf(act.pieces.front())));
        const Message belt = nameOf(act.pieces.front());
        addEither(say("Thread the {} through the buckle's other half, up behind the first bar and down over it. Fold "
                      "its end over twice, {} each, and sew it, so that it cannot slip out.",
                      belt, Len(act.distance)),
            say("Thread the {} through the buckle's other half; fold its end over twice, {} each, and sew.", belt,
                Len(act.distance)));
        machine();
        stitch(lengthOfStitches(act, RowKind::Join));
        check(say("Closed and pulled, the buckle holds; the belt is not twisted."));
        caution(say("Long straps: a strangulation hazard for small children."));
        return caution(say("Load ratings need testing by someone qualified; local safety rules go first."));
    }
    addEither(say("Thread each {} through its slider, up behind the lower bar and down over it. Fold its end over "
                  "twice and sew it, so that it cannot slip out.",
                  nameOf(act.pieces.front())),
        say("Thread each {} through its slider; fold its end over twice and sew.", nameOf(act.pieces.front())));
    machine();
    stitch(lengthOfStitches(act, RowKind::Join));
    check(say("Pulled, each slider holds; the webbing is not twisted."));
    caution(say("Load ratings need testing by someone qualified; local safety rules go first."));
}

void Telling::threadCord(const Act& act)
{
    // @c taken: how many cords, from opposite holes.
    const bool locked = std::find(act.uses.begin(), act.uses.end(), Ware::CordLock) != act.uses.end();
    if (locked)
        add(act.taken > 1
                ? say("Thread each cord ({}) once round, from opposite holes; put both its tails through a cord "
                      "lock and knot them behind it.",
                    Len(act.distance))
                : say("Thread {} of cord once round; put both tails through the cord lock and knot them behind "
                      "it.",
                    Len(act.distance)));
    else
        add(act.taken > 1
                ? say("Thread each cord ({}) once round, from opposite holes, and knot its ends.", Len(act.distance))
                : say("Thread {} of cord once round; knot or stop both ends.", Len(act.distance)));
    tool(say("bodkin"));
    check(say("Pulled, the mouth closes evenly."));
    caution(say("Long cords: a strangulation hazard for small children."));
}

void Telling::window(const Act& act)
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

void Telling::insertZip(const Act& act)
{
    for (const auto& key : act.zips)
        if (const auto zip = std::find_if(
                p.zips.begin(), p.zips.end(), [&](const Zip& each) { return each.key == key; });
            zip != p.zips.end())
            add(zip->sliders > 1 ? say("Centre the closed zip behind the window, its sliders together in the middle; "
                                       "edge-stitch all round, {} from the fold.",
                    Len(act.distance))
                    : zip->opens == "to the right"
                    ? say("Centre the closed zip behind the window, slider at the left; edge-stitch all round, {} "
                          "from the fold.",
                        Len(act.distance))
                    : say("Centre the closed zip behind the window, slider at the right; edge-stitch all round, {} "
                          "from the fold.",
                        Len(act.distance)));
    for (const auto& key : act.zips)
        if (const Zip* zip = zipOf({.zips = {key}})) {
            const double beyond = (zip->tape - zip->nominal) / 2;
            if (zip->first.kind == ZipEnd::Kind::Folded)
                add(say("Before that fold the tape's ends away behind it, aslant beside the last tooth."));
            else if (zip->first.kind == ZipEnd::Kind::Seam)
                add(say("Let {} of tape lie flat beyond each end: the sides of the pocket bag catch it.", Len(beyond)));
        }
    add(say("Bar-tack across both ends: the slider lies between them."));
    machine();
    stitch(say("2.5–3 mm, lockstitch 301"));
    check(say("The slider runs from end to end."));
    caution(say("Needle strike: turn the handwheel by hand over the chain."));
}

} // namespace tectonis
