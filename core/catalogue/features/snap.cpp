// SPDX-License-Identifier: GPL-3.0-or-later
// What closes a flap: magnetic or press snap, turn or tuck lock, sewn-in magnets, hook-and-loop tape; one half on the
// flap, the other where it lands on the front.
#include "drafting/unlined.hpp"
#include "features/feature.hpp"
#include "features/spec_of.hpp"
#include "library/library.hpp"
#include "units/words.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class Snap : public FeatureKind {
public:
    std::string kind() const override { return "snap"; }
    std::string name() const override { return "Flap closure"; }

    std::vector<Run> silhouette() const override { return {circleRun({50, 50}, 30), circleRun({50, 50}, 13)}; }

    std::vector<DimensionSpec> dimensions() const override
    {
        using Q = DimensionSpec::Quantity;
        return {
            {"diameter", "Snap diameter", "Diameter of both halves, or width of a lock's plate.", "18", stock("snap"),
                "10", "40", Q::Length, "@closure=magnetic|press|turn|tuck|sewn"},
            {"tape", "Tape width", "Width of the hook-and-loop tape.", "20", hold(), "10", "50", Q::Length,
                "@closure=tape"},
            {"length", "Tape length", "Length of both pieces of tape, across the flap.", "40", hold(), "15",
                "0.8*face.width", Q::Length, "@closure=tape"},
            {"drop", "Snap drop", "From the front's mouth down to the centre of the front half.", "0.38*face.height",
                follow(), "10", "face.height - 10"},
            {"across", "Sideways", "From the middle of the face to the snap, on both halves; to the right is positive.",
                "0", hold(), "-max(0, face.width/2 - 20)", "max(0, face.width/2 - 20)"},
            {"slack", "Slack", "Extra length of the flap's way over the mouth, so that it closes without pulling.", "4",
                hold(), "0", "12"},
            {"patch", "Patch", "Side of the square patch behind each half.", "45", hold(), "25", "90", Q::Length,
                "@closure=magnetic|press|turn|tuck"},
        };
    }

    std::vector<std::string> needs(const Form& form) const override
    {
        return form.underOwnFlap().empty() ? std::vector<std::string>{"flap"} : std::vector<std::string>{};
    }
    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        const std::string meaning = "The face that carries the other half.";
        const ChoiceSpec closure{"closure", "Closure",
            "A magnetic snap, each half through one layer; a press snap, set last through all layers; a turn lock, its "
            "knob through one layer of the front, its plate through the whole flap; a tuck lock, its case and tongue "
            "alike; magnets sewn behind one layer each, unseen; or hook-and-loop tape, sewn on.",
            {{"magnetic", "Magnetic snap"}, {"press", "Press snap"}, {"turn", "Turn lock"}, {"tuck", "Tuck lock"},
                {"sewn", "Sewn-in magnets"}, {"tape", "Hook-and-loop tape"}}};
        if (const auto own = on.form.underOwnFlap(); !own.empty()) {
            ChoiceSpec site{"site", "On", meaning, {}};
            for (const auto& face : own)
                site.options.emplace_back(face.name, face.label);
            for (const auto& face : on.parts)
                if (face.covered)
                    site.options.emplace_back(face.name, face.label);
            return {site, closure};
        }
        return {siteChoice(
                    on, meaning, [](const SiteSpec& s) { return !s.lining; }, "front", OnParts::Covered),
            closure};
    }

    /// Where the two halves go.
    struct Halves {
        PieceId face, under;
        Point onFace, onUnder;
        Point down, right; ///< on the face: where a greater drop lies, and one further to the right
        Point out, aside;  ///< the same on the flap
        std::string phase, underPhase;
        double allowance = 0; ///< mm of the flap's seam
    };

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        const Halves halves = !hostOf(d.design, f.id.text()).empty() ? onPocket(f)
            : d.ownFlap                                              ? onOwnFlap(f, *d.ownFlap)
                                                                     : onFlapPart(f);
        const std::string& closure = f.choice("closure");
        const double clear = clearance(f, halves.allowance);
        place(f, halves.face, halves.onFace, clear, "front half");
        place(f, halves.under, halves.onUnder, clear, "flap half");
        const double wide = f(closure == "tape" ? "length" : "diameter"),
                     tall = f(closure == "tape" ? "tape" : "diameter");
        const Box onFace = boxAround(halves.onFace, wide / 2, tall / 2),
                  onUnder = boxAround(halves.onUnder, wide / 2, tall / 2);
        f.handle("drop", halves.face, halves.onFace, halves.down, 1, Handle::From::Top, onFace);
        f.handle("across", halves.face, halves.onFace, halves.right, 1, Handle::From::Middle, onFace);
        f.handle("drop", halves.under, halves.onUnder, halves.out, 1, Handle::From::Nowhere, onUnder);
        f.handle("across", halves.under, halves.onUnder, halves.aside, 1, Handle::From::Nowhere, onUnder);
        if (closure == "tape")
            d.pattern.hardware.push_back(
                {Ware::HookAndLoop, 1, f("length"), say("{}, {} wide", Len(f("length")), Len(f("tape"))), Message()});
        else
            d.pattern.hardware.push_back(
                {bought(closure), 1, f("diameter"), say("{}", Len(f("diameter"))), say("as all metal")});
        if (closure == "magnetic") {
            early(f, halves.face, halves.phase, "front half", act::set({f.key("front half")}, Ware::Snap));
            early(f, halves.under, halves.underPhase, "flap half", act::set({f.key("flap half")}, Ware::Snap));
        } else if (closure == "tape") {
            early(f, halves.face, halves.phase, "front half", act::set({f.key("front half")}, Ware::HookAndLoop));
            early(f, halves.under, halves.underPhase, "flap half",
                onto(act::set({f.key("flap half")}, Ware::HookAndLoop), halves.face));
        } else if (closure == "sewn") {
            early(f, halves.face, halves.phase, "front half", act::set({f.key("front half")}, Ware::SewnMagnet));
            early(f, halves.under, halves.underPhase, "flap half",
                onto(act::set({f.key("flap half")}, Ware::SewnMagnet), halves.face));
        } else if (isLock(closure)) {
            early(f, halves.face, halves.phase, "front half", act::set({f.key("front half")}, bought(closure)));
            late(f, halves, closure == "turn" ? say("Set the lock's plate") : say("Set the lock's tongue"),
                {onto(act::set({f.key("flap half")}, bought(closure)), halves.face)});
        } else
            late(f, halves, say("Set the press snap"),
                {act::set({f.key("front half")}, Ware::PressSnap),
                    onto(act::set({f.key("flap half")}, Ware::PressSnap), halves.face)});
    }

    static bool isLock(const std::string& closure) { return closure == "turn" || closure == "tuck"; }

    static Ware bought(const std::string& closure)
    {
        return closure == "press" ? Ware::PressSnap
            : closure == "turn"   ? Ware::TurnLock
            : closure == "tuck"   ? Ware::TuckLock
            : closure == "sewn"   ? Ware::SewnMagnet
            : closure == "tape"   ? Ware::HookAndLoop
                                  : Ware::Snap;
    }

    /// Least distance of a half's middle from any stitch line.
    static double clearance(FeatureScope& f, double allowance)
    {
        Drafter& d = f.d;
        const std::string& closure = f.choice("closure");
        const double foot = d.pattern.footWidth("shell");
        if (closure == "press") // set when all is sewn
            return d.work({f.id, f.key("clearance"), say("Least distance from any stitch line"), "radius + setter",
                {{"radius", f("diameter") / 2}, {"setter", 3}}, 0, Kind::Trade, "mm",
                say("so that the setter stands flat (common practice)")});
        if (closure == "tape")
            return d.work({f.id, f.key("clearance"), say("Least distance from any stitch line"),
                "sqrt(width*width + length*length)/2 + foot/2",
                {{"width", f("tape")}, {"length", f("length")}, {"foot", foot}}, 0, Kind::Trade, "mm",
                say("so that its corners can be sewn (common practice)")});
        if (closure == "sewn")
            return d.work({f.id, f.key("clearance"), say("Least distance from any stitch line"),
                "sqrt(2)*(radius + cover) + foot/2", {{"radius", f("diameter") / 2}, {"cover", kCover}, {"foot", foot}},
                0, Kind::Trade, "mm", say("so that the corners of its cover can be sewn (common practice)")});
        return d.work({f.id, f.key("clearance"), say("Least distance from any stitch line"),
            "radius + allowance + foot", {{"radius", f("diameter") / 2}, {"allowance", allowance}, {"foot", foot}}, 0,
            Kind::Trade, "mm", say("so that the presser foot passes (common practice)")});
    }

    /// Of the second half: it is marked by touch where the first one stands.
    static Act onto(Act act, const PieceId& first)
    {
        act.pieces = {first};
        return act;
    }

    static Halves onFlapPart(FeatureScope& f)
    {
        Drafter& d = f.d;
        const PartId flapId = flapOf(f);
        const auto flapsOwn = [&](const char* dimension) { return d.pattern.of(flapId, dimension); };
        const Site& site = f.site();
        const double y = site.top - f("drop");
        const Piece& face = d.pieceAt(site, y);
        const PieceId behind = lined(face.whole.empty() ? face.key : face.whole);
        const double wall = d.stack(face)
            + d.stack("lining " + (face.wholeRole.empty() ? face.role : face.wholeRole), behind, "lining");
        const double flap = d.stack("flap", {flapId, "outer"}, "shell")
            + d.stack("flap lining", {flapId, "lining"}, "lining");
        const double reach = d.work({f.id, f.key("reach"), say("Flap half: from the hinge seam along the flap"),
            "hinge + depth + stack + drop + slack",
            {{"hinge", flapsOwn("hinge")}, {"depth", d("mouth.way")},
                {"stack", workStack(f, wall, flap, {flapId, "lining"})}, {"drop", f("drop")}, {"slack", f("slack")}},
            0, Kind::Geometry, "mm", say("up the back, across the mouth, round the thickness, down the front")});
        // Seen from its lining the flap is the other way round.
        return {face.key, {flapId, "lining"}, {site.x + f("across"), y}, {-f("across"), flapsOwn("length") - reach},
            {0, -1}, {1, 0}, {0, -1}, {-1, 0}, site.phase, d.site(d.choice(flapId.text() + ".site")).phase,
            flapsOwn("allowance")};
    }

    /// On a patch pocket, and where it lands in the pocket's own flap.
    static Halves onPocket(FeatureScope& f)
    {
        Drafter& d = f.d;
        const PartId pocket = hostOf(d.design, f.id.text());
        const Site& site = f.site();
        const double y = site.top - f("drop");
        const Piece &face = d.pieceAt(site, y), &lid = d.piece({pocket, "lid"}),
                    &under = d.piece({pocket, "lid.under"});
        // On the face below: from the flap's hinge down to the pocket's upper edge.
        const Seam* hinge = d.pattern.seam(SeamId(pocket, "lid.on"));
        const auto lies = std::find_if(d.pattern.overlays.begin(), d.pattern.overlays.end(),
            [&](const Overlay& o) { return o.piece == PieceId(pocket); });
        const Site& ground = d.site(SiteId(d.choice(pocket.text() + ".site"))); // a front may hang head down
        const double above = ground.upright(startOf(d.pattern.runOf(hinge->a.front()))).y
            - ground.upright(lies->placement({site.x, site.top})).y;
        const double reach = d.work({f.id, f.key("reach"), say("Flap half: from the hinge along the pocket's flap"),
            "above + stack + drop + slack",
            {{"above", above}, {"stack", workStack(f, d.stack(face), d.stack(lid) + d.stack(under), under.key)},
                {"drop", f("drop")}, {"slack", f("slack")}},
            0, Kind::Geometry, "mm", say("down to the pocket's upper edge, round the thickness, down the pocket")});
        return {face.key, under.key, {site.x + f("across"), y}, {-f("across"), d.pattern.of(pocket, "flap") - reach},
            {0, -1}, {1, 0}, {0, -1}, {-1, 0}, site.phase, site.phase, d.pattern.of(pocket, "allowance")};
    }

    static Halves onOwnFlap(FeatureScope& f, const OwnFlap& own)
    {
        Drafter& d = f.d;
        const double wall = d.stack("panel", own.face, "shell") + d.stack("lining panel", lined(own.face), "lining");
        const double reach = d.work(
            {f.id, f.key("reach"), say("Flap half: from the fold along the flap"), "way + stack + drop + slack",
                {{"way", own.way}, {"stack", workStack(f, wall, wall)}, {"drop", f("drop")}, {"slack", f("slack")}}, 0,
                Kind::Geometry, "mm",
                say("from the fold to the mouth, round the thickness of wall and flap, down the front")});
        const Point onFace = own.mouth + own.down * f("drop") + own.right * f("across"),
                    onUnder = own.fold + own.out * reach + own.across * f("across");
        return {d.partOf(own.face, onFace).key, d.partOf(own.under, onUnder).key, onFace, onUnder, own.down, own.right,
            own.out, own.across, own.phase, own.underPhase, own.allowance};
    }

    static double workStack(FeatureScope& f, double wall, double flap, const PieceId& under = {})
    {
        const double stack = f.d.work({f.id, f.key("stack"), say("Thickness the flap goes round"), "wall + flap",
            {{"wall", wall}, {"flap", flap}}, 0, Kind::Geometry, "mm",
            say("half the wall at back and front, and the flap's own turn over both edges, as one thickness each")});
        for (auto& hinged : f.d.pattern.hinged)
            if (hinged.lining == under)
                hinged.ease = stack + f("slack");
        return stack;
    }

    /// The flap that comes down over the snap's face: the first that does not hang from it.
    static PartId flapOf(const FeatureScope& f)
    {
        for (const auto& other : f.d.design.features)
            if (other.kind == "flap" && f.d.choice(other.id + ".site") != f.choice("site"))
                return other.id;
        return f.d.firstOf("flap");
    }

    void settle(Design& design, const std::string& id) const override
    {
        if (const std::string pocket = hostOf(design, id); !pocket.empty()) {
            // As far down as the pocket's flap leaves room for the foot.
            design.dimensions.at(id + ".drop").value = "max(24, " + pocket + ".flap - 44)";
            return;
        }
        std::vector<std::string> others;
        for (const auto& other : design.features)
            if (other.kind == "snap" && other.id != id && hostOf(design, other.id).empty())
                others.push_back(other.id);
        if (others.empty())
            return;
        // A pair stands on both sides of the middle; further ones take the places between.
        std::string width = "face.width";
        for (const auto& other : design.features)
            if (other.kind == "flap")
                width = other.id + ".width";
        if (others.size() == 1 && design.dimensions.at(others.front() + ".across").value == "0") {
            design.dimensions.at(others.front() + ".across").value = "-0.25*" + width;
            design.dimensions.at(id + ".across").value = "0.25*" + width;
            return;
        }
        const auto taken = [&](const std::string& value) {
            return std::any_of(others.begin(), others.end(),
                [&](const std::string& other) { return design.dimensions.at(other + ".across").value == value; });
        };
        for (const char* share : {"0", "0.25*", "-0.25*", "0.375*", "-0.375*", "0.125*", "-0.125*"})
            if (const std::string value = std::string(share) == "0" ? "0" : share + width; !taken(value)) {
                design.dimensions.at(id + ".across").value = value;
                return;
            }
    }

    static constexpr double kCover = 3; ///< mm from a magnet to the row round its cover (common practice, no source)

    void place(FeatureScope& f, const PieceId& piece, Point at, double clear, const std::string& half) const
    {
        Drafter& d = f.d;
        const std::string& closure = f.choice("closure");
        const bool tape = closure == "tape", flap = half == "flap half",
                   all = closure == "press" || (isLock(closure) && flap), sewn = closure == "sewn";
        Fitting fitting{f.key(half), say("{}, {}", f.named(say("Snap")), sideLabel(half)), piece, Fitting::Kind::Snap,
            at, tape ? f("tape") : f("diameter"), clear,
            tape             ? say("sewn onto one layer")
                : sewn       ? say("sewn behind one layer")
                : !all       ? say("one layer and its patch")
                : flap       ? say("all layers of the flap")
                : unlined(d) ? say("shell and patch")
                             : say("shell, patch and lining")};
        fitting.throughLining = all;
        d.pattern.fittings.push_back(std::move(fitting));
        if (tape) {
            const double w = f("length") / 2, h = f("tape") / 2;
            d.piece(piece).lines.push_back({f.line("tape"), FaceLine::Kind::Topstitch,
                rectangleRun(at.x - w + 2, at.y - h + 2, at.x + w - 2, at.y + h - 2)});
            return;
        }
        d.piece(piece).drills.push_back({at, say("snap")});
        if (sewn) { // round its cover
            const double r = f("diameter") / 2 + kCover;
            d.piece(piece).lines.push_back(
                {f.line("cover"), FaceLine::Kind::Topstitch, rectangleRun(at.x - r, at.y - r, at.x + r, at.y + r)});
            return;
        }
        if (isLock(closure) && flap)
            return; // its plate holds it
        const double h = f("patch") / 2;
        const Message what = f.named(say("patch for the snap"));
        const std::string area = words(what); // each snap's own
        d.piece(piece).areas[area] = rectangleRun(at.x - h, at.y - h, at.x + h, at.y + h);
        d.patches.push_back({piece, {.material = "patch-felt", .fixing = "glued", .area = area}, what});
    }

    /// Of several closures each step says which.
    static Message titled(FeatureScope& f, const Message& title)
    {
        const Message plain = say("Snap"), own = f.named(plain);
        return own == plain ? title : say("{} ({})", title, within(own));
    }

    /// While the piece is single.
    void early(FeatureScope& f, const PieceId& piece, const std::string& phase, const std::string& half, Act act) const
    {
        const std::string& closure = f.choice("closure");
        f.d.addBeforeUse(Step{.id = f.key(half == "front half" ? "front" : "flap"),
                             .title = titled(f,
                                 closure == "tape"       ? say("Sew the tape's {}", sideLabel(half))
                                     : closure == "sewn" ? (half == "front half" ? say("Sew in the front's magnet")
                                                                                 : say("Sew in the flap's magnet"))
                                     : isLock(closure)   ? say("Set the lock's {}", sideLabel(half))
                                                         : say("Set the snap's {}", sideLabel(half))),
                             .acts = {std::move(act)},
                             .kind = StepKind::Hardware,
                             .phase = phase,
                             .consumes = {piece},
                             .yields = piece,
                             .pieces = {piece}},
            piece);
    }

    /// On the finished bag.
    void late(FeatureScope& f, const Halves& halves, const Message& title, std::vector<Act> acts) const
    {
        f.d.add(Step{.id = f.key("late"),
            .title = titled(f, title),
            .acts = std::move(acts),
            .kind = StepKind::Flat,
            .phase = "Strap",
            .consumes = {"bag"},
            .yields = "bag",
            .pieces = {halves.face, halves.under},
            .check = say("The flap closes without pulling; the halves meet.")});
    }
};

} // namespace

const FeatureKind& snapKind()
{
    static const Snap kind;
    return kind;
}

} // namespace tectonis
