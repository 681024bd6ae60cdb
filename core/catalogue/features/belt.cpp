// SPDX-License-Identifier: GPL-3.0-or-later
// A belt with a side-release buckle: two ends caught in the seams beside a face, or one belt through loops on it.
#include "drafting/cut.hpp"
#include "drafting/long_strip.hpp"
#include "drafting/panels.hpp"
#include "drafting/strip_width.hpp"
#include "features/feature.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class Belt : public FeatureKind {
public:
    std::string kind() const override { return "belt"; }
    std::string name() const override { return "Belt with a buckle"; }

    std::vector<Run> silhouette() const override
    {
        return {lineRun({{30, 30}, {30, 66}, {70, 66}, {70, 30}, {30, 30}}),
            Run{Cubic{{70, 54}, {112, 60}, {104, 96}, {62, 94}}}, Run{Cubic{{30, 54}, {-12, 60}, {-4, 96}, {38, 94}}},
            lineRun({{38, 88}, {38, 100}, {62, 100}, {62, 88}, {38, 88}}), lineRun({{50, 88}, {50, 100}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        using Q = DimensionSpec::Quantity;
        return {
            {"buckle", "Buckle width", "Inside width of the buckle.", "38", stock("ring"), "10", "60"},
            {"width", "Belt width", "Finished width of the belt; the buckle's inside width or just under it.",
                "@buckle", follow(), "8", "60"},
            {"reach", "Belt, longest",
                "Round the body with the buckle closed and the belt let out, over the face that carries it.",
                "max(1150, 2.4*face.width + 120)", hold(), "face.width + @closed + 150", "2500"},
            {"short", "Short end", "From the seam to the buckle, folded double round its bar.", "60", hold(), "20",
                "300", Q::Length, "@held=sides|numbered"},
            {"closed", "Buckle, closed", "Length of the closed buckle from bar to bar.", "60", hold(), "15", "150"},
            {"tail", "Tail", "What hangs out of the buckle when the belt is let out, to pull it by.", "80", hold(),
                "40", "400"},
            {"hem", "Tail's hem", "Each of both folds at the tail's end, which keep it from slipping out.", "15",
                hold(), "6", "40"},
            {"fold", "Belt fold", "Taken up where the belt is folded round the buckle's bar and sewn down.", "45",
                hold(), "20", "90", Q::Length, "@held=loops"},
            {"overlap", "Ends past the edge", "How far the raw ends reach past the cut edge before trimming.", "6",
                hold(), "0", "20", Q::Length, "@held=sides|numbered"},
            {"down", "Belt down", "From the top of the face to the middle of the belt.",
                "max(@width/2 + 12, 0.4*face.height)", follow(), "@width/2 + 8", "face.height - @width/2 - 8",
                Q::Length, "@held=sides|loops"},
            {"left.side", "Short end in side", kNumbered, "face.sides", hold(), "1", "face.sides", Q::Count,
                "@held=numbered"},
            {"right.side", "Long end in side", kNumbered, "2", hold(), "1", "face.sides", Q::Count, "@held=numbered"},
            {"along", "Up from the middle", "From the middles of those sides up to the middle of the belt.", "0",
                hold(), "-60", "60", Q::Length, "@held=numbered"},
            {"inset", "Loops in", "From the sides of the face to the middle of the belt loops.",
                "max(24, 0.22*face.width)", follow(), "@loop/2 + 6", "0.5*face.width - @loop/2 - 3", Q::Length,
                "@held=loops"},
            {"loop", "Loop width", "Finished width of the belt loops.", "min(30, 0.2*face.width)", hold(), "8",
                "min(80, 0.4*face.width)", Q::Length, "@held=loops"},
            {"ease", "Loop ease", "How much wider the loops are than the belt.", "4", hold(), "1", "20", Q::Length,
                "@held=loops"},
            {"under", "Loop ends", "Cloth at both ends of a loop that is folded under before it is sewn down.", "8",
                hold(), "5", "20", Q::Length, "@held=loops"},
            {"allowance", "Belt join allowance", "Seam allowance where strips are joined to make the length.", "10",
                hold(), "5", "20", Q::Length, "@make=cloth"},
            turnDimension(),
        };
    }

    std::vector<ChoiceSpec> choices(const Carrier& on) const override
    {
        ChoiceSpec held{"held", "Belt held",
            "Both ends caught in the seams beside a face, or one belt through loops that are sewn onto it.",
            {{"sides", "In the seams beside a face"}, {"loops", "Through loops on a face"}}};
        if (on.form.numbersSides())
            held.options.push_back({"numbered", "In sides of a face, by their numbers"});
        return {held,
            {"make", "Belt made of", "Bought webbing, or the shell cloth, folded.",
                {{"webbing", "Webbing"}, {"cloth", "Shell cloth, folded"}}},
            wayChoice("@make=cloth"), joinsChoice("@make=cloth"),
            siteChoice(
                on, "The face that lies against the body.", [](const SiteSpec& s) { return !s.lining; }, "back")};
    }

    std::map<std::string, std::string> materials() const override { return {{"strap", "webbing-cotton"}}; }

    std::vector<PartFace> faces() const override
    {
        return {{"belt", "Belt", "@width", "0.15*@reach", {}, false, true}};
    }

    Message unfit(const Form& form) const override
    {
        return choices(form).back().options.empty() ? say("this form has no face for a belt") : Message();
    }

    void draft(FeatureScope& f) const override
    {
        f.choice("held") == "loops" ? throughLoops(f) : inSides(f);
        f.d.pattern.hardware.push_back(
            {Ware::Buckle, 1, f("buckle"), say("{} inside width", Len(f("buckle"))), Message()});
    }

private:
    static constexpr const char* kNumbered = "Number of the side, counted anticlockwise from the lowest as seen from "
                                             "the front.";

    static std::string role(const FeatureScope& f) { return f.choice("make") == "webbing" ? "strap" : "shell"; }

    /// How its cloth is folded; loops are never faced: as their cloth asks for, then.
    static std::string way(const FeatureScope& f, bool loop = false)
    {
        const std::string& chosen = f.choice("way");
        return role(f) != "shell" || (loop && isFaced(chosen)) ? "by-cloth" : chosen;
    }

    static double turn(const FeatureScope& f) { return isFaced(way(f)) ? f("turn") : 0; }

    static double cutWidth(FeatureScope& f, const char* key, Message label, double finished, bool loop = false)
    {
        Pattern& p = f.d.pattern;
        return workCutWidth(f.d, f.id, f.key(key), std::move(label), finished, p.material(p.materials.at(role(f))),
            way(f, loop), loop ? 0 : turn(f));
    }

    static DrawnStrip drawBelt(FeatureScope& f, const PieceId& piece, double length, Message name, Message strip)
    {
        return drawLongStrip(f,
            {.piece = piece,
                .code = f.d.freeCode("F"),
                .name = f.named(std::move(name)),
                .strip = f.named(std::move(strip)),
                .join = say("Belt join {}", 1),
                .material = role(f),
                .width = f("width"),
                .cut = cutWidth(f, "cut", say("Belt cut width"), f("width")),
                .length = length,
                .allowance = f("allowance"),
                .turn = turn(f),
                .joins = role(f) == "shell" ? joinsOf(f.choice("joins")) : LongStrip::Joins::Straight,
                .padded = way(f) == "padded",
                .clear = 2 * f("hem") + f("tail")});
    }

    static std::vector<WorkId> withAll(const act::Pieces& some, const act::Pieces& others)
    {
        std::vector<WorkId> out(some.begin(), some.end());
        out.insert(out.end(), others.begin(), others.end());
        return out;
    }

    static void addBuckle(
        FeatureScope& f, const PieceId& belt, const DrawnStrip& drawn, double length, double least, double taken)
    {
        Drafter& d = f.d;
        const double cut = boundsOf(d.piece(belt).stitch()).width();
        // Clear of the end that is caught in a seam, or folded round the buckle, and of a slanting join.
        const double slant = drawn.count > 1 && f.choice("joins") == "diagonal" ? cut : 0;
        offerStrip(d, f.key("belt").text(), f.named(say("Belt")), belt, f("width"),
            boundsOf(d.piece(belt).stitch()).y1 - slant - std::max(taken, 30.0) - 10, 0.15 * f("reach"),
            f.choice("held") == "loops" ? "Strap" : "Small parts");
        d.pattern.straps.push_back({.name = f.named(say("Belt")),
            .piece = belt,
            .width = f("width"),
            .cutWidth = cut,
            .cutLength = length,
            .longest = f("reach"),
            .shortest = least,
            .fold = taken,
            .end = 2 * f("hem"),
            .strips = drawn.count,
            .ringWidth = f("buckle"),
            .worn = Strap::Worn::Waist});
        d.pattern.fittings.push_back({f.key("buckle"), say("Buckle"), belt, Fitting::Kind::Buckle,
            {cut / 2, f("hem") * 2 + f("tail")}, f("buckle"), 0, say("belt")});
    }

    static void addThreading(FeatureScope& f, const act::Pieces& pieces, std::vector<WorkId> takes)
    {
        f.d.add(Step{.id = f.key("thread"),
            .title = say("Thread the belt"),
            .acts = {{.verb = Act::Verb::ThreadTails,
                .pieces = pieces,
                .fittings = {f.key("buckle")},
                .distance = f("hem")}},
            .kind = StepKind::Strap,
            .phase = "Strap",
            .consumes = std::move(takes),
            .yields = "bag",
            .pieces = {pieces.front()},
            .fittings = {f.key("buckle")}});
    }

    /// The long end on the right, the short one with the buckle's fixed half on the left.
    void inSides(FeatureScope& f) const
    {
        Drafter& d = f.d;
        const PieceId belt = f.key("long"), end = f.key("short");
        const Site& site = f.site();
        const bool numbered = f.choice("held") == "numbered";
        const double y = numbered ? site.top - site.height / 2 : site.top - f("down");
        const Piece& face = d.pieceAt(site, y);
        const std::string place = f.dimension(numbered ? "right.side" : "down");
        const auto spotAt = [&](bool right) {
            return numbered ? sideSpot(d, site, int(std::lround(f(right ? "right.side" : "left.side"))), f("along"),
                       f.dimension(right ? "right.side" : "left.side"))
                            : sideSpot(d, face, y, right, place);
        };
        const SideSpot left = spotAt(false), right = spotAt(true);
        for (const SideSpot* spot : {&left, &right})
            if (spot->seam.empty())
                throw InputError(place, say("no seam is sewn at that side of the {}", within(face.name)));
        if (distance(left.at, right.at) < f("width"))
            throw InputError(place, say("both ends of the belt would lie on one spot; hold them in two sides"));
        for (const bool atRight : {false, true}) {
            const Point at = (atRight ? right : left).at;
            const Box held = boxAround(at, f("width") / 2, f("width") / 2);
            if (numbered)
                handleAlongSide(f, site, face.key, int(std::lround(f(atRight ? "right.side" : "left.side"))), at, held);
            else
                f.handle("down", face.key, at, {0, -1}, 1, Handle::From::Top, held);
        }
        const double s = d("allowance.body"), between = distance(left.at, right.at);
        const std::vector<Working::Input> given{
            {"between", between}, {"short", f("short")}, {"closed", f("closed")}, {"reach", f("reach")}};
        const double way = d.work({f.id, f.key("way"), say("Belt from seam to buckle"),
            "reach - between - short - closed", given, 0, Kind::Geometry, "mm",
            say("let out: round the body less the face between its seams, the short end and the closed buckle")});
        if (way < 60)
            throw InputError(f.dimension("reach"),
                say("the face, the short end and the buckle take all but {} of it; let the belt be longer",
                    Len(std::max(0.0, way))));
        const double length = d.work(
            {f.id, f.key("length"), say("Belt cut length"), "way + tail + 2*hem + allowance + overlap",
                {{"way", way}, {"tail", f("tail")}, {"hem", f("hem")}, {"allowance", s}, {"overlap", f("overlap")}}, 0,
                Kind::Geometry, "mm", say("one end is caught in the seam, the other is folded over twice")});
        const double doubled = d.work({f.id, f.key("short.length"), say("Short end, cut length"),
            "2*(short + allowance + overlap)", {{"short", f("short")}, {"allowance", s}, {"overlap", f("overlap")}}, 0,
            Kind::Geometry, "mm", say("looped: both ends lie in the seam")});
        const double least = d.work({f.id, f.key("least"), say("Belt, shortest"), "between + short + closed + pass",
            {{"between", between}, {"short", f("short")}, {"closed", f("closed")}, {"pass", 25}}, 0, Kind::Trade, "mm",
            say("the buckle pulled up to the seam, as near as it can be threaded")});
        const DrawnStrip drawn = drawBelt(f, belt, length, say("Long belt end"), say("Long belt end, strip"));
        addBuckle(f, belt, drawn, length, least, 0);
        const double cut = cutWidth(f, "short.cut", say("Short end, cut width"), f("width"));
        Piece& loop = d.add({.key = end,
            .code = d.freeCode("F"),
            .name = f.named(say("Short belt end")),
            .coat = Coat::Strip,
            .role = "strap",
            .material = role(f)});
        drawRectangle(loop, cut, doubled, 0);
        addStripFolds(loop, f("width"), cut, doubled, turn(f));
        const bool webbing = loop.plies == 1;
        loop.plies *= 2;
        act::Pieces ends{end};
        if (turn(f) > 0)
            ends.push_back(addFacing(d, end, say("{}, facing", within(loop.name))));
        for (const auto& piece : {belt, end})
            d.piece(piece).note = say("Ends are trimmed level with the edge after basting.");
        for (auto& seam : d.pattern.seams) {
            if (seam.key == right.seam)
                seam.trapped.push_back(belt);
            if (seam.key == left.seam)
                seam.trapped.push_back(end);
        }
        std::vector<Act> make = drawn.make;
        for (auto& act : make)
            if (act.verb == (webbing ? Act::Verb::SealCut : Act::Verb::FoldStrip))
                act.pieces.insert(act.pieces.end(), ends.begin(), ends.end()); // alike, in one go
        make.push_back(
            {.verb = Act::Verb::Ring, .pieces = {end}, .fittings = {f.key("buckle")}, .uses = {Ware::Buckle}});
        d.addFlatWork(Step{.id = f.key("make"),
            .title = say("Make the belt's ends"),
            .acts = std::move(make),
            .kind = drawn.count > 1 ? StepKind::Seam : StepKind::Flat,
            .phase = "Small parts",
            .consumes = withAll(drawn.pieces, ends),
            .yields = f.key("ready"),
            .pieces = {belt, end},
            .check = say("Both ends are {} wide; the buckle takes them.", Len(f("width")))});
        const auto onEdge = [&](const PieceId& piece, const SideSpot& spot) {
            Act act = act::lay(piece, face.key, spot.seam, f("overlap"));
            act.at = spot.at;
            return act;
        };
        d.addOnTop(
            Step{.id = f.key("baste"),
                .title = say("Baste the belt to the {}", within(face.name)),
                .acts = {onEdge(end, left),
                    act::saying(onEdge(belt, right),
                        say("The short end lies on the left, the long one on the right, rolled up and held with a "
                            "clip, so that no seam catches it.")),
                    act::baste(5), act::trim(end, 0), act::trim(belt, 0)},
                .kind = StepKind::Baste,
                .phase = site.phase,
                .consumes = {face.key, f.key("ready")},
                .yields = face.key,
                .pieces = {end, belt, face.key},
                .check = numbered
                    ? say("Each lies in its side of the face, by the numbers; the ends point inwards.")
                    : say("Their middles lie {} below the top, at both sides alike; the ends point inwards.",
                        Len(f("down")))},
            face.key);
        d.pattern.hung.push_back({.piece = belt,
            .on = face.key,
            .from = left.at,
            .to = right.at,
            .length = f("reach") - between,
            .width = f("width"),
            .round = true});
        addThreading(f, {belt}, {"bag"});
    }

    /// One belt, the buckle's fixed half sewn to its end, through two loops.
    void throughLoops(FeatureScope& f) const
    {
        Drafter& d = f.d;
        const PieceId belt = f.key("long"), loop = f.key("loop");
        const double length = d.work(
            {f.id, f.key("length"), say("Belt cut length"), "reach - closed + fold + tail + 2*hem",
                {{"reach", f("reach")}, {"closed", f("closed")}, {"fold", f("fold")}, {"tail", f("tail")},
                    {"hem", f("hem")}},
                0, Kind::Geometry, "mm", say("one end is folded round the buckle's bar, the other over twice")});
        const Site& site = f.site();
        const double least = d.work({f.id, f.key("least"), say("Belt, shortest"), "between + closed + pass",
            {{"between", site.width - 2 * f("inset") + f("loop")}, {"closed", f("closed")}, {"pass", 25}}, 0,
            Kind::Trade, "mm", say("the buckle pulled up to the loops, as near as it can be threaded")});
        const DrawnStrip drawn = drawBelt(f, belt, length, say("Belt"), say("Belt strip"));
        addBuckle(f, belt, drawn, length, least, f("fold"));
        drawLoops(f, loop);
        const double y = site.top - f("down"), out = site.width / 2 - f("inset");
        const PieceId face = d.pieceAt(site, y).key;
        const Point from{site.x - out, y}, to{site.x + out, y};
        d.pattern.hung.push_back({belt, face, from, to, 2 * out, f("width")}); // between the loops, on the face
        d.pattern.hung.push_back({.piece = belt,
            .on = face,
            .from = from,
            .to = to,
            .length = f("reach") - 2 * out,
            .width = f("width"),
            .round = true});
        std::vector<Act> make = drawn.make;
        make.push_back({.verb = Act::Verb::Ring,
            .pieces = {belt},
            .fittings = {f.key("buckle")},
            .distance = f("fold"),
            .uses = {Ware::Buckle}});
        d.add(Step{.id = f.key("make"),
            .title = say("Make the belt"),
            .acts = std::move(make),
            .kind = drawn.count > 1 ? StepKind::Seam : StepKind::Flat,
            .phase = "Strap",
            .consumes = withAll(drawn.pieces, {}),
            .yields = belt,
            .pieces = {belt},
            .check = say("Finished {} wide from end to end.", Len(f("width")))});
        addThreading(f, {belt, loop}, {"bag", belt});
    }

    void drawLoops(FeatureScope& f, const PieceId& loop) const
    {
        Drafter& d = f.d;
        const Site& site = f.site();
        const double y = site.top - f("down"), half = (f("width") + f("ease")) / 2, w = f("loop") / 2;
        Piece& face = d.pieceAt(site, y);
        const double cut = cutWidth(f, "loop.cut", say("Loop cut width"), f("loop"), true);
        Piece& piece = d.add({.key = loop,
            .code = d.freeCode("W"),
            .name = f.named(say("Belt loop")),
            .coat = Coat::Strip,
            .role = "strap",
            .material = role(f),
            .count = 2});
        drawRectangle(piece, cut, 2 * half, 0);
        for (auto& e : piece.edges)
            if (e.name == "top" || e.name == "bottom")
                e.allowance = f("under");
        addStripFolds(piece, f("loop"), cut, 2 * half);
        act::Seams on;
        for (const bool right : {false, true}) {
            const double x = site.x + (right ? 1 : -1) * (site.width / 2 - f("inset"));
            const Box loops = boxAround({x, y}, w, half);
            f.handle("down", face.key, {x, y}, {0, -1}, 1, Handle::From::Top, loops);
            f.handle("inset", face.key, {x, y}, {right ? -1.0 : 1.0, 0}, 1, Handle::From::Side, loops);
            for (const bool top : {true, false}) {
                const std::string name = fmt::format(
                    "{}, {} {}", f.line("belt loop").text(), right ? "right" : "left", top ? "top" : "bottom");
                const double at = y + (top ? half : -half);
                face.lines.push_back({EdgeId(name), FaceLine::Kind::Placement, lineRun({{x - w, at}, {x + w, at}})});
                on.push_back(f.key(fmt::format("{} {}", right ? "right" : "left", top ? "top" : "bottom")));
                d.add(Seam{.key = on.back(),
                    .name = say("Belt loop on the {}, {}", within(face.name), right ? say("right") : say("left")),
                    .a = {{face.key, EdgeId(name)}},
                    .b = {{loop, top ? "top" : "bottom", right ? 1 : 0, top}},
                    .stitch = "topstitch"});
            }
            d.pattern.hung.push_back({loop, face.key, {x, y + half}, {x, y - half}, 2 * half * 1.05, f("loop")});
        }
        const bool webbing = piece.plies == 1;
        d.addOnTop(Step{.id = f.key("loops"),
                       .title = say("Make the belt loops"),
                       .acts = {webbing ? act::of(Act::Verb::SealCut, loop) : act::foldStrip(loop, f("loop"))},
                       .kind = StepKind::Flat,
                       .phase = "Small parts",
                       .consumes = {loop},
                       .yields = loop,
                       .pieces = {loop}},
            face.key);
        d.addOnTop(Step{.id = f.key("loops on"),
                       .title = say("Sew the belt loops to the {}", within(face.name)),
                       .acts = {{.verb = Act::Verb::FoldIn, .seams = on, .pieces = {loop}, .distance = f("under")},
                           act::saying(act::stitchOn(on), say("Sew each end twice, back and forth."))},
                       .kind = StepKind::Flat,
                       .phase = site.phase,
                       .consumes = {face.key, loop},
                       .yields = face.key,
                       .pieces = {loop, face.key},
                       .check = say("A strip of the belt slips through both loops, {} wide.", Len(f("width")))},
            face.key);
    }
};

} // namespace

const FeatureKind& beltKind()
{
    static const Belt kind;
    return kind;
}

} // namespace tectonis
