// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/gusset.hpp"

#include "drafting/turned.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

using Strips = Gusseted::Strips;

/// Length of the panel's run from mouth to mouth.
double runLength(const Piece& panel)
{
    double sum = 0;
    for (const auto& e : panel.edges)
        sum += e.name == "top" ? 0 : e.length();
    return sum;
}

/// How far the side strips of three reach down the panel; of the lining's shorter run as large a share.
double sideReach(const Gusseted& g, const Piece& panel, const Piece& shells)
{
    const double half = runLength(panel) / 2;
    // The lining's sides widen over the ease: its side strips reach past that.
    const Edge* ease = panel.edge("left ease");
    return std::min(std::max(g.side * half / (runLength(shells) / 2), ease ? ease->length() + 10 : 0), half - 10);
}

void drawStrips(CoatDraft& c, const Gusseted& g)
{
    const bool three = g.strips == Strips::Three;
    Piece& gusset = c.add("gusset", "C",
        three                         ? say("Gusset side")
            : g.strips == Strips::Two ? say("Gusset half")
                                      : say("Gusset"),
        "gusset", g.strips == Strips::One ? 1 : 2, 0);
    gusset.mirrored = gusset.count - 1;
    const Piece& panel = c.piece("front");
    Strip strip{.depth = g.depth,
        .narrow = g.narrow,
        .half = g.strips != Strips::One,
        .allowance = g.panel.allowance,
        .mouthAllowance = c.mouth + g.extra,
        .lowAllowance = g.low()};
    if (three)
        strip.upTo = sideReach(g, panel, c.d.piece("front"));
    drawStripAlong(gusset, panel, strip);
    if (!three)
        return;
    const double y0 = startOf(gusset.edge("front")->stitch).y, y1 = startOf(gusset.edge("back")->stitch).y;
    drawRectangle(c.add("gusset.bottom", "C2", say("Gusset bottom"), "gusset", 1, 0), runLength(panel) - 2 * strip.upTo,
        y1 - y0, g.low());
}

/// The gusset's long edges along one panel. The second of two strips is the first's mirror image, sewn against its
/// outline's direction.
std::vector<EdgeUse> along(const CoatDraft& c, const Gusseted& g, const std::string& panel)
{
    std::vector<EdgeUse> uses, other;
    for (const auto& e : c.piece("gusset").edges)
        if (e.name.text().starts_with(panel))
            uses.push_back(c.use("gusset", e.name));
    if (g.strips == Strips::One)
        return uses;
    for (auto it = uses.rbegin(); it != uses.rend(); ++it)
        other.push_back(c.use("gusset", it->edge, true, 1));
    const bool front = panel == "front";
    if (g.strips == Strips::Three) // the bottom lies between the sides, its edge "bottom" to the front
        other.insert(front ? other.begin() : other.end(), c.use("gusset.bottom", front ? "bottom" : "top"));
    uses.insert(front ? uses.end() : uses.begin(), other.begin(), other.end());
    return uses;
}

void joinAll(CoatDraft& c, const Gusseted& g)
{
    const auto join = [&](const char* key, const Message& name, std::vector<EdgeUse> a, std::vector<EdgeUse> b) {
        Seam& seam = c.join(key, name, std::move(a), std::move(b));
        seam.allowance = g.low();
        return &seam;
    };
    c.leaveOpen(
        *join("front-gusset", say("Front to gusset"), c.d.runWithout(c.key("front"), "top"), along(c, g, "front")));
    join("back-gusset", say("Back to gusset"), c.d.runWithout(c.key("back"), "top"), along(c, g, "back"));
    if (g.strips == Strips::Three) {
        join("gusset-left", say("Gusset side to bottom, left"), {c.use("gusset", "centre")},
            {c.use("gusset.bottom", "left", true)});
        join("gusset-right", say("Gusset side to bottom, right"), {c.use("gusset", "centre", false, 1)},
            {c.use("gusset.bottom", "right")});
    } else if (g.strips == Strips::Two)
        join("gusset-centre", say("Gusset centre bottom"), {c.use("gusset", "centre")},
            {c.use("gusset", "centre", false, 1)});
}

/// The strip as it is sewn to the panels: what was sewn onto a side lies on a piece that is called as before.
WorkId wholeStrip(const CoatDraft& c, const Gusseted& g)
{
    return g.carries && g.strips != Strips::One ? c.key("joined gusset") : c.key("gusset");
}

/// Two or three strips become one.
void joinStrips(CoatDraft& c, const Gusseted& g)
{
    const bool three = g.strips == Strips::Three;
    act::Seams joins{c.key("gusset-centre")};
    std::vector<PieceId> parts{c.key("gusset")};
    if (g.carries)
        parts.push_back(c.key("gusset.right"));
    if (three)
        joins = {c.key("gusset-left"), c.key("gusset-right")}, parts.push_back(c.key("gusset.bottom"));
    c.d.add(Step{.id = c.key("gusset.join"),
        .title = three ? say("Join the {}'s sides and bottom", c.what(say("gusset")))
                       : say("Join the {}", c.what(say("gusset halves"))),
        .acts = {act::sew(joins), act::press(joins, Act::To::Open), act::topstitch(joins, 3.2, Act::To::Open)},
        .kind = StepKind::Seam,
        .phase = c.phase("Shell gusset"),
        .consumes = {parts.begin(), parts.end()},
        .yields = wholeStrip(c, g),
        .check = say("The joined strip is as long as the panel's U-run.")});
}

/// Two sides that are alike, but for what sits on them: each a piece of its own.
void takeApart(CoatDraft& c, const Gusseted& g)
{
    const PieceId left = c.key("gusset"), right = c.key("gusset.right");
    const auto named = [&](const Message& name) { return c.isLining ? say("Lining {}", within(name)) : name; };
    const bool three = g.strips == Strips::Three;
    Piece other = c.piece("gusset");
    other.key = right, other.pair = left, other.code = c.isLining ? "LC3" : "C3";
    other.name = named(three ? say("Gusset side, right") : say("Gusset half, right"));
    other.count = 1, other.mirrored = 0;
    c.d.add(std::move(other));
    Piece& piece = c.piece("gusset");
    piece.name = named(three ? say("Gusset side, left") : say("Gusset half, left"));
    piece.count = 1, piece.mirrored = 0;
    for (auto& seam : c.d.pattern.seams)
        for (auto* side : {&seam.a, &seam.b})
            for (auto& use : *side)
                if (use.piece == left && use.copy == 1)
                    use.piece = right, use.copy = 0;
}

void clipStrip(CoatDraft& c, const Gusseted& g)
{
    c.d.add(Step{.id = c.key("gusset.clip"),
        .title = say("Clip the {} at the corners", c.what(say("gusset"))),
        .acts = {act::clip({c.key("front-gusset"), c.key("back-gusset")})},
        .kind = StepKind::Clip,
        .phase = c.phase("Shell gusset"),
        .consumes = {wholeStrip(c, g)},
        .yields = wholeStrip(c, g),
        .pieces = {c.key("gusset")}});
}

void sewPanels(CoatDraft& c, const Gusseted& g)
{
    const WorkId whole = c.isLining ? "lining" : "shell", half = c.key("front with gusset");
    const SeamId front = c.key("front-gusset"), back = c.key("back-gusset");
    c.d.add(Step{.id = front.as<StepKindOf>(),
        .title = say("Sew the {} to the {}", c.what(say("gusset")), c.what(say("front"))),
        .acts = {act::sew({front})},
        .kind = StepKind::Seam,
        .phase = c.phase("Shell assembly"),
        .consumes = {c.key("front"), wholeStrip(c, g)},
        .yields = half,
        .check = say("Both mouth ends are level.")});
    c.d.add(Step{.id = back.as<StepKindOf>(),
        .title = say("Sew the {} to the {}", c.what(say("gusset")), c.what(say("back"))),
        .acts = {act::sew({back}), act::notch({front, back}), act::press({front, back}, Act::To::Second)},
        .kind = StepKind::Seam,
        .phase = c.phase("Shell assembly"),
        .consumes = {c.key("back"), half},
        .yields = whole,
        .check = c.isLining ? say("The lining hangs in the shell without folds.")
                            : say("Turned right side out, the corners are smooth and alike.")});
    if (g.extra > 0)
        c.d.add(Step{.id = c.key("gusset.trim"),
            .title = say("Trim the {}'s ends", c.what(say("gusset"))),
            .acts = {act::trim(c.key("gusset"), g.extra)},
            .kind = StepKind::Cut,
            .phase = c.phase("Shell assembly"),
            .consumes = {whole},
            .yields = whole});
}

/// Lengths along the gusset strip and along the panel's run: where the strip narrows, its edge is longer than its
/// axis.
struct AlongStrip {
    double ease = 0, axial = 0, whole = 0;
    double onRun(double x) const
    {
        return x < axial                               ? x * ease / axial
            : whole - 2 * ease + 2 * axial - x < axial ? whole - (whole - 2 * ease + 2 * axial - x) * ease / axial
                                                       : x - axial + ease;
    }
    double onStrip(double s) const
    {
        return s < ease        ? s * axial / ease
            : whole - s < ease ? whole - 2 * ease + 2 * axial - (whole - s) * axial / ease
                               : s - ease + axial;
    }
    double length() const { return whole - 2 * ease + 2 * axial; }
};

} // namespace

void drawGusseted(CoatDraft& coat, const Gusseted& g)
{
    drawUPanel(coat.add("front", "A", say("Front"), "panel"), g.panel);
    drawUPanel(coat.add("back", "B", say("Back"), "panel"), g.panel);
    drawStrips(coat, g);
    joinAll(coat, g);
    if (!g.carries)
        return;
    // As it is drawn its face looks inwards. That of the right side, drawn as the left one's mirror image, does not.
    if (g.strips != Strips::One)
        takeApart(coat, g);
    mirrorPiece(coat.d.pattern, coat.key("gusset"), g.depth / 2);
}

bool sidesCarry(const Pattern& p)
{
    return std::any_of(p.choices.begin(), p.choices.end(), [&](const auto& choice) {
        const auto& [name, value] = choice;
        if (name.ends_with(".held") && value == "walls")
            return true;
        if (!name.ends_with(".site") || !(value.ends_with("left") || value.ends_with("right")))
            return false;
        const auto held = p.choices.find(name.substr(0, name.size() - 4) + "held");
        return held == p.choices.end(); // connectors sit there in name only
    });
}

void addSideFaces(CoatDraft& c, const Gusseted& g, double height)
{
    const bool one = g.strips == Strips::One;
    const auto face = [&](bool right, const PieceId& piece, bool farEnd) {
        const Point mouth = boundsOf(c.d.piece(piece).edge(farEnd ? "right mouth" : "left mouth")->stitch).centre();
        Site site{.name = SiteId(std::string(c.isLining ? "lining " : "") + (right ? "right" : "left")),
            .label = c.isLining ? right ? say("Lining right") : say("Lining left")
                : right ? say("Right side")
                                : say("Left side"),
            .pieces = {piece},
            .width = g.depth - 2 * g.narrow,
            .height = height,
            .phase = c.phase("Shell gusset"),
            .lining = c.isLining,
            .turn = farEnd ? 1 : 3};
        const Point stands = site.upright(mouth);
        site.x = stands.x, site.top = stands.y;
        c.d.pattern.sites.push_back(std::move(site));
    };
    // The lining is laid mirrored: its first end hangs on the right.
    for (const bool right : {false, true}) {
        const bool second = right != c.isLining;
        face(right, c.key(second && g.carries && !one ? "gusset.right" : "gusset"), second && one);
    }
}

void sewGusseted(CoatDraft& coat, const Gusseted& g)
{
    if (g.strips != Strips::One)
        joinStrips(coat, g);
    clipStrip(coat, g);
    sewPanels(coat, g);
}

std::vector<EdgeUse> mouthOf(const Gusseted& g)
{
    const EdgeUse right = g.strips == Strips::One ? EdgeUse{"gusset", "right mouth", 0, true}
                                                  : EdgeUse{"gusset", "left mouth", 1, false};
    std::vector<EdgeUse> out{{"front", "top"}, {"gusset", "left mouth", 0, true}, {"back", "top"}, right};
    if (g.carries) { // drawn as seen from the other side, or a piece of its own
        out[1].reversed = false;
        out[3] = g.strips == Strips::One ? EdgeUse{"gusset", "right mouth"} : EdgeUse{"gusset.right", "left mouth"};
    }
    return out;
}

double LeaningPanel::drop() const
{
    return std::sqrt(std::max(0.0, (height - from) * (height - from) - (low - mouth) * (low - mouth)));
}

Vec3 LeaningPanel::operator()(Point q) const
{
    const double share = height > from ? std::max(0.0, q.y - from) / (height - from) : 0;
    return {q.x, lift + std::min(q.y, from) + share * drop(), std::lerp(low, mouth, share)};
}

LeaningPanel panelOf(const Pattern& p, const Gusseted& g, const LaidCoat& coat)
{
    double from = 1e300;
    for (const auto& piece : p.pieces)
        if (const Edge* ease = piece.edge("left ease");
            ease && (piece.key == coat.key("front") || piece.whole == coat.key("front")))
            from = std::min(from, boundsOf(ease->stitch).y0);
    LeaningPanel out{.height = g.panel.height,
        .from = std::min(from, g.panel.height),
        .low = g.depth / 2 - coat.in,
        .mouth = g.depth / 2 - g.narrow};
    if (from > g.panel.height)
        out.mouth = out.low;
    if (coat.lining)
        out.lift = panelOf(p, g, {}).top() - out.top(); // mouths are level
    return out;
}

void foldGusseted(Folder& folder, const Pattern& p, const Gusseted& g, const LaidCoat& coat)
{
    const LeaningPanel panel = panelOf(p, g, coat);
    folder.lay(coat.key("front"), panel, {}, {panel.from});
    folder.lay(coat.key("back"),
        [panel](Point q) {
            const Vec3 v = panel(q);
            return Vec3{-v.x, v.y, -v.z};
        },
        {}, {panel.from});
    // The gusset follows the U-run; its second half is the mirror image, from the other mouth.
    Run run;
    double ease = 0;
    for (const auto& use : p.seam(coat.key("front-gusset").as<SeamKind>())->a)
        for (const auto& s : p.runOf(use)) {
            run.push_back(s);
            ease += use.edge.text().ends_with("left ease") ? lengthOf(s) : 0; // with what a zip across it shows
        }
    const Guide guide(run, 0.01);
    const double narrow = panel.low - panel.mouth, half = g.depth / 2;
    const AlongStrip along{
        .ease = ease, .axial = std::sqrt(std::max(0.0, ease * ease - narrow * narrow)), .whole = guide.length()};
    const auto at = [=](double s, double y, double edge) {
        const Vec3 front = panel(guide.at(s));
        return Vec3{front.x, front.y, edge > 0 ? front.z * (half - y) / edge : 0};
    };
    // Half the strip's width where the axis is at x.
    const auto halfWidth = [=](double x) {
        const double end = std::min(x, along.length() - x);
        return end < along.axial ? std::lerp(panel.mouth, panel.low, end / along.axial) : panel.low;
    };
    std::vector<double> bends, mirrored;
    for (const double s : guide.corners())
        bends.push_back(along.onStrip(s)), mirrored.push_back(along.length() - along.onStrip(s));
    const PieceId gusset = coat.key("gusset");
    const Fold left = [=](Point q) { return at(along.onRun(q.x), q.y, halfWidth(q.x)); },
               right = [=](Point q) { return at(along.whole - along.onRun(q.x), q.y, halfWidth(q.x)); };
    const bool several = g.strips != Strips::One;
    if (g.carries) {
        folder.lay(
            gusset,
            [=](Point q) {
                return left({q.x, g.depth - q.y});
            },
            bends);
        folder.lay(gusset.sub("right"), right, mirrored);
    } else {
        folder.layTurned(gusset, left, bends);
        if (several)
            folder.layTurned(gusset, right, mirrored, {}, 1);
    }
    if (g.strips == Strips::Three) {
        const double reach = boundsOf(p.piece(gusset)->stitch()).x1;
        for (double& b : bends)
            b -= reach;
        folder.layTurned(
            gusset.sub("bottom"),
            [=](Point q) { return at(along.onRun(reach + q.x), q.y + half - panel.low, panel.low); }, bends);
    }
}

} // namespace tectonis
