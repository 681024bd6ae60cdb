// SPDX-License-Identifier: GPL-3.0-or-later
#include "buildup/remedies.hpp"

#include "pattern/seam_shape.hpp"

#include <algorithm>

namespace tectonis {
namespace {

constexpr double kAround = 40; // mm sewn by hand where a crossing is too thick (common practice, no source)

} // namespace

Message whyNotGraded(const Pattern& pattern, const Seam& seam)
{
    if (foldedOver(seam))
        return say("it is one edge: it has no two allowances.");
    // While it is drafted its steps are not there yet.
    if (!pattern.steps.empty() && std::none_of(pattern.steps.begin(), pattern.steps.end(), [&](const Step& step) {
            return std::any_of(step.acts.begin(), step.acts.end(), [&](const Act& act) {
                return act::joins(act) && std::find(act.seams.begin(), act.seams.end(), seam.key) != act.seams.end();
            });
        }))
        return say("it is made with its strip.");
    if (seam.stitch == "baste")
        return say("it is only basted.");
    if (!seam.bound.empty() || seam.enclosed)
        return say("its allowances are bound or enclosed, and must be level for that.");
    if (!seam.rawOutside.empty() || seam.stitch == "topstitch")
        return say("it is lapped or stitched on: it has no two allowances.");
    return {};
}

Message whyNotOpened(const Pattern& p, const Seam& seam)
{
    if (Message why = whyNotGraded(p, seam); !why.empty())
        return why;
    if (!seam.trapped.empty())
        return say("something is caught in it: its allowances must lie away from that.");
    if (seam.mouth)
        return say("shell and lining are turned on it.");
    if (shapeOf(p, seam.a).bends() || shapeOf(p, seam.b).bends())
        return say("it goes round curves or corners.");
    return {};
}

double thickAt(const Pattern& p, const Seam& seam, ThickSpot spot, const Instead& instead)
{
    Bulks bulks(p, instead);
    const Bulk bulk = isRow(spot) ? bulks.underTopstitch(seam) : bulks.at(seam);
    return spot == ThickSpot::Row || spot == ThickSpot::Topstitch ? bulk.underFoot : bulk.atCrossing;
}

namespace {

/// One of the remedies that are a seam's care.
Remedy ofCare(const Pattern& p, const Seam& seam, ThickSpot spot, Remedy::Kind kind, bool SeamCare::*flag,
    const std::vector<SeamId>& where)
{
    Remedy out{.kind = kind, .seams = where};
    Instead with, without;
    out.done = !where.empty();
    for (const auto& key : where) {
        const SeamCare care = p.seam(key)->care;
        out.done = out.done && care.*flag;
        with.care[key] = without.care[key] = care;
        with.care[key].*flag = true, without.care[key].*flag = false;
    }
    out.leaves = thickAt(p, seam, spot, with);
    out.gain = std::max(0.0, thickAt(p, seam, spot, without) - out.leaves);
    return out;
}

} // namespace

namespace {

/// Another way to make the end of the zip that lies there, as far as less lies there then.
void addZipEndRemedy(
    const Pattern& p, const Seam& seam, ThickSpot spot, const Bulk& bulk, double thick, std::vector<Remedy>& out)
{
    for (const auto& key : bulk.crossedByZips) {
        const auto zip = std::find_if(p.zips.begin(), p.zips.end(), [&](const Zip& each) { return each.key == key; });
        const bool atMouth = zipOn(p, zip->piece) == &*zip; // else it goes from side to side
        for (const auto kind :
            atMouth ? std::vector{ZipEnd::Kind::Folded} : std::vector{ZipEnd::Kind::Seam, ZipEnd::Kind::Tab}) {
            Remedy remedy{.kind = Remedy::Kind::ZipEnd, .seams = {seam.key}, .zip = key, .end = kind};
            remedy.leaves = thickAt(p, seam, spot, {.zipEnds = {{key, kind}}});
            remedy.gain = thick - remedy.leaves;
            if (remedy.gain >= 0.005)
                out.push_back(remedy);
        }
    }
}

} // namespace

bool isRow(ThickSpot spot) { return spot == ThickSpot::Topstitch || spot == ThickSpot::TopstitchCrossing; }

bool isTopstitched(const Pattern& p, const Seam& seam)
{
    return std::any_of(p.steps.begin(), p.steps.end(), [&](const Step& step) {
        return std::any_of(step.acts.begin(), step.acts.end(), [&](const Act& act) {
            return (act.verb == Act::Verb::Topstitch || act.verb == Act::Verb::Roll)
                && std::find(act.seams.begin(), act.seams.end(), seam.key) != act.seams.end();
        });
    });
}

ThickSpot worstSpot(const Pattern& p, const Seam& seam)
{
    const double limit = p.workshop.machineLimit + 0.001;
    const Bulk bulk = bulkAt(p, seam);
    if (bulk.underFoot > limit)
        return ThickSpot::Row;
    if (bulk.atCrossing <= limit && isTopstitched(p, seam)) {
        const Bulk row = bulkUnderTopstitch(p, seam);
        if (row.atCrossing > limit)
            return row.underFoot > limit ? ThickSpot::Topstitch : ThickSpot::TopstitchCrossing;
    }
    return bulk.atCrossing > bulk.underFoot + 0.001 ? ThickSpot::Crossing : ThickSpot::Row;
}

std::vector<Remedy> remediesFor(const Pattern& p, const Seam& seam, ThickSpot spot)
{
    using Kind = Remedy::Kind;
    Bulks now(p);
    const Bulk bulk = isRow(spot) ? now.underTopstitch(seam) : now.at(seam);
    const bool crossing = spot == ThickSpot::Crossing || spot == ThickSpot::TopstitchCrossing;
    const double thick = crossing ? bulk.atCrossing : bulk.underFoot;
    const Message useless = spot == ThickSpot::Row ? say("In the row itself both allowances lie as they are.")
                                                   : say("No other seam's allowances lie across it.");
    std::vector<Remedy> out;

    Remedy trim{.kind = Kind::Trim, .seams = {seam.key}, .layer = bulk.heaviest, .leaves = thick};
    if (!bulk.heaviest.layer || bulk.heaviest.layer->rule < 0)
        trim.whyNot = say("No interlining of its pieces' rules lies there.");
    else {
        const Layer& layer = *bulk.heaviest.layer; // and what of the other pieces with its rules lies there
        trim.leaves = thickAt(p, seam, spot, {.trimmed = {{layer.rules, layer.rule}}});
        trim.gain = thick - trim.leaves;
    }
    out.push_back(trim);

    // In a topstitched row its own allowances lie, at a crossing those of what crosses it.
    std::vector<SeamId> folded = crossing ? bulk.crossedBy : std::vector<SeamId>();
    if (isRow(spot))
        folded.push_back(seam.key);
    const auto add = [&](Kind kind, bool SeamCare::*flag, std::vector<SeamId> where, auto why) {
        Message reason;
        std::erase_if(where, [&](const SeamId& key) {
            const Message no = why(*p.seam(key));
            if (!no.empty())
                reason = no;
            return !no.empty();
        });
        Remedy remedy = ofCare(p, seam, spot, kind, flag, where);
        if (!remedy.done && remedy.gain < 0.005)
            remedy.whyNot = !reason.empty() ? say("Not here: {}", reason) : useless;
        out.push_back(remedy);
    };
    add(Kind::Grade, &SeamCare::graded, folded, [&](const Seam& s) {
        return isRow(spot) && s.key == seam.key && s.graded ? say("its allowances are graded already.")
                                                            : whyNotGraded(p, s);
    });
    add(Kind::Open, &SeamCare::open, folded, [&](const Seam& s) {
        return s.pressedOpen && !s.care.open ? say("it is pressed open already.") : whyNotOpened(p, s);
    });
    const auto any = [](const Seam&) { return Message(); };
    if (crossing)
        addZipEndRemedy(p, seam, spot, bulk, thick, out);
    add(Kind::Aside, &SeamCare::aside,
        spot == ThickSpot::Crossing || seam.care.aside ? std::vector{seam.key} : std::vector<SeamId>(), any);
    add(Kind::Hammer, &SeamCare::hammered, {seam.key}, any);
    Remedy hand{.kind = Kind::Hand, .seams = {seam.key}, .leaves = thick, .done = seam.care.byHand};
    out.push_back(hand);
    return out;
}

double sewnByHand(const Pattern& p, const Seam& seam, ThickSpot spot)
{
    if (!seam.care.byHand)
        return 0;
    const double limit = p.workshop.machineLimit + 0.001;
    const Bulk bulk = isRow(spot) ? bulkUnderTopstitch(p, seam) : bulkAt(p, seam);
    if (bulk.underFoot > limit)
        return seam.lengthA;
    return std::min(seam.lengthA,
        kAround * double(std::count_if(bulk.everyCrossing.begin(), bulk.everyCrossing.end(), [&](double mm) {
            return mm > limit;
        })));
}
} // namespace tectonis
