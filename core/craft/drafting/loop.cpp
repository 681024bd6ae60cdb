// SPDX-License-Identifier: GPL-3.0-or-later
#include "drafting/loop.hpp"

#include "buildup/zip_ends.hpp"
#include "drafting/panels.hpp"
#include "drafting/zips.hpp"
#include "units/words.hpp"

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

using Kind = Working::Kind;

/// A piece of the loop and how much of the face's outline it covers.
struct Section {
    std::string part;
    double length = 0;
};

/// Clockwise from the left end of the zip panel, seen from the front.
std::vector<Section> sectionsOf(const LoopBody& b)
{
    const double rest = lengthOf(b.face) - b.zip;
    if (!b.threeBands)
        return {{"zip strip", b.zip}, {"band", rest}};
    return {{"zip strip", b.zip}, {"side right", b.right}, {"band", rest - b.right - b.left}, {"side left", b.left}};
}

/// The face's outline clockwise from the left end of the zip panel.
Run pathOf(const LoopBody& b)
{
    const Run once = reversed(b.face);
    const double girth = lengthOf(once), from = std::fmod(b.topCentre - b.zip / 2 + 2 * girth, girth);
    Run twice = once;
    twice.insert(twice.end(), once.begin(), once.end());
    return part(twice, from, from + girth);
}

/// Face edges, one for each segment between the joins of the loop; named by the section they are sewn to.
struct Rim {
    std::vector<Edge> edges;                               ///< counter-clockwise
    std::map<std::string, std::vector<std::string>> names; ///< section to edges, clockwise
};

Rim rimOf(const LoopBody& b, double allowance)
{
    Rim out;
    const Run path = pathOf(b);
    double from = 0;
    for (const auto& section : sectionsOf(b)) {
        int i = 0;
        for (const auto& s : part(path, from, from + section.length)) {
            if (lengthOf(s) < 1e-9)
                continue;
            const std::string name = section.part + " " + std::to_string(++i);
            out.names[section.part].push_back(name);
            out.edges.insert(out.edges.begin(), {name, {reversed(s)}, allowance, {}});
        }
        from += section.length;
    }
    return out;
}

std::vector<EdgeUse> rimRun(const Rim& rim, const std::string& face, const std::string& section)
{
    std::vector<EdgeUse> out;
    for (const auto& name : rim.names.at(section))
        out.push_back({face, name, 0, true});
    return out;
}

/// A rectangle along x, its front edge below: edges "front", "right", "back", "left".
void drawBand(Piece& piece, double length, double depth, double allowance)
{
    piece.edges = {{"front", lineRun({{0, 0}, {length, 0}}), allowance, {}},
        {"right", lineRun({{length, 0}, {length, depth}}), allowance, {}},
        {"back", lineRun({{length, depth}, {0, depth}}), allowance, {}},
        {"left", lineRun({{0, depth}, {0, 0}}), allowance, {}}};
}

Message title(const std::string& part)
{
    return part == "band"      ? say("Band")
        : part == "side right" ? say("Right side band")
        : part == "side left"  ? say("Left side band")
                               : say("Zip strip");
}

/// The back's outline: the front's mirror image, every edge called as its mate across the loop.
std::vector<Edge> mirrored(const std::vector<Edge>& edges)
{
    std::vector<Edge> out(edges.rbegin(), edges.rend());
    for (auto& e : out)
        e.stitch = reversed(placed(e.stitch, {0, 0, 0, true}));
    return out;
}

/// Once round the back, section by section as the front: anticlockwise seen from its own face.
std::vector<EdgeUse> backRim(const Rim& rim, const std::vector<Section>& sections)
{
    std::vector<EdgeUse> out;
    for (const auto& section : sections)
        for (const auto& name : rim.names.at(section.part))
            out.push_back({"back", name});
    return out;
}

/// The line that runs on over what the zip shows, at one end of the zip panel.
std::string zipShown(const std::string& end) { return "zip end, " + end; }

std::vector<PieceId> withFirst(const PieceId& first, std::vector<PieceId> rest)
{
    rest.insert(rest.begin(), first);
    return rest;
}

/// A loop on the drafting table.
class LoopDraft {
public:
    LoopDraft(Drafter& table, const LoopBody& body);
    void drawPieces();
    void sewSeams();
    void addZip();
    void offerPlaces(double inWidth, double inHeight);
    void closeLoop();
    void assemble();

private:
    std::vector<PieceId> loopsPieces() const;

    Drafter& d;
    Pattern& p;
    const LoopBody& b;
    const double s; ///< allowance of the body's seams
    const Rim rim;
    const std::vector<Section> sections;
    double gap = 0, strip = 0; ///< what the zip shows; a zip strip's finished width
    std::vector<SeamId> m_joins;
};

LoopDraft::LoopDraft(Drafter& table, const LoopBody& body)
    : d(table), p(table.pattern), b(body), s(table("allowance.body")), rim(rimOf(body, s)), sections(sectionsOf(body))
{
    const double girth = lengthOf(b.face);
    gap = d.work({"zip strip", "zip.gap", say("Visible zip gap"), "tape - 2*sewn",
        {{"tape", d("zip.tape")}, {"sewn", d("zip.sewn")}}, 0, Kind::Geometry, "mm",
        say("g = T − 2·s_z, the same on both sides")});
    strip = d.work({"zip strip", "zip.strip", say("Finished width of each zip strip"), "(depth - gap)/2",
        {{"depth", b.depth}, {"gap", gap}}, 0, Kind::Geometry, "mm",
        say("both strips and the gap make the loop's depth")});
    d.work({"band", "loop.girth", say("Closed loop: zip panel and bands together"), "zip + rest",
        {{"zip", b.zip}, {"rest", girth - b.zip}}, 0, Kind::Geometry, "mm",
        say("the stitch lengths add up to the face's whole outline")});
}

/// Faces, zip strips and bands, in both coats.
void LoopDraft::drawPieces()
{
    for (const bool lining : {false, true}) {
        const auto add = [&](const std::string& part, const std::string& code, const Message& name,
                             const std::string& role, int count, double grain) -> Piece& {
            if (lining) // basted to its shell before that is joined
                d.piece(PieceId(part)).backing = lined(PieceId(part));
            return d.add({.key = lining ? lined(PieceId(part)) : PieceId(part),
                .code = lining ? "L" + code : code,
                .name = lining ? say("Lining {}", within(name)) : name,
                .coat = lining ? Coat::Lining : Coat::Shell,
                .role = lining ? "lining " + role : role,
                .material = lining ? "lining" : "shell",
                .count = count,
                .grain = grain});
        };
        // A lining's face is seen from the other side.
        add("front", "A", say("Front"), "panel", 1, 90).edges = lining ? mirrored(rim.edges) : rim.edges;
        add("back", "B", say("Back"), "panel", 1, 90).edges = lining ? rim.edges : mirrored(rim.edges);
        // The second strip is the first one's mirror image, like the back face: so its marks meet the back's.
        Piece& zipStrip = add("zip strip", "D", say("Zip strip"), "gusset", 2, 0);
        zipStrip.mirrored = 1;
        drawBand(zipStrip, b.zip, strip, s);
        // What the zip shows lies beyond the first strip's back edge; the loop's joins run on over it.
        for (const auto& [end, x] : {std::pair{"left", 0.0}, {"right", b.zip}})
            zipStrip.lines.push_back({zipShown(end), FaceLine::Kind::Bridge, lineRun({{x, strip}, {x, strip + gap}})});
        Piece shown{.key = zipStrip.key, .name = say("Zip"), .material = "shell", .whole = zipStrip.key};
        shown.edges = {{"zip", rectangleRun(0, strip, b.zip, strip + gap), 0, {}}};
        p.gaps.push_back(std::move(shown));
        int code = 0;
        for (const auto& section : sections)
            if (section.part != "zip strip") {
                drawBand(add(section.part, b.threeBands ? "C" + std::to_string(++code) : "C", title(section.part),
                             "gusset", 1, 0),
                    section.length, b.depth, s);
            }
    }
}

void LoopDraft::sewSeams()
{
    // The loop to the faces; then its own joins, section after section round to the zip panel again.
    std::vector<EdgeUse> frontRim, frontLoop, backLoop;
    for (const auto& section : sections) {
        for (const auto& use : rimRun(rim, "front", section.part))
            frontRim.push_back(use);
        frontLoop.push_back({section.part, "front"});
        backLoop.push_back(
            section.part == "zip strip" ? EdgeUse{"zip strip", "front", 1} : EdgeUse{section.part, "back", 0, true});
    }
    d.add(Seam{.key = "front-loop",
        .name = say("Front to loop"),
        .a = frontRim,
        .b = frontLoop,
        .allowance = s,
        .rawInside = true});
    d.add(Seam{.key = "back-loop",
        .name = say("Back to loop"),
        .a = backRim(rim, sections),
        .b = backLoop,
        .allowance = s,
        .rawInside = true});
    for (std::size_t i = 0; i < sections.size(); ++i) {
        const std::string &left = sections[i].part, &right = sections[(i + 1) % sections.size()].part;
        // From the front to the back, over both strips and the zip between them.
        const auto end = [&](const std::string& part, bool atRight) {
            const std::string edge = atRight ? "right" : "left";
            std::vector<EdgeUse> out{{part, edge, 0, !atRight}};
            if (part == "zip strip")
                out.insert(out.end(), {{part, zipShown(edge)}, {part, edge, 1, atRight}});
            return out;
        };
        Seam seam{.key = "join " + std::to_string(i + 1),
            .name = say("{} to {}", title(left), within(title(right))),
            .a = end(left, true),
            .b = end(right, false),
            .allowance = s};
        if (left == "zip strip" || right == "zip strip")
            seam.name = left == "zip strip" ? say("Zip panel to {}, right", within(title(right)))
                                            : say("Zip panel to {}, left", within(title(left)));
        m_joins.push_back(seam.key);
        d.add(std::move(seam));
    }
}

void LoopDraft::addZip()
{
    const bool tabs = zipEndOf(d.choice("zip.ends")) == ZipEnd::Kind::Tab;
    const double opening = tabs ? d.work({"zip strip", "zip.opening", say("Zip between its tabs"), "zip - 2*tab",
                               {{"zip", b.zip}, {"tab", d("zip.tab")}}, 0, Kind::Geometry, "mm",
                               say("what the tabs leave of the zip panel")})
                                : b.zip,
                 lap = kTabLap;
    const double tape = tabs
        ? d.work({"zip strip", "zip.cut", say("Tape cut from continuous zip"), "opening + 2*lap",
            {{"opening", opening}, {"lap", lap}}, 0, Kind::Trade, "mm", say("its ends lie in the tabs")})
        : d.work({"zip strip", "zip.cut", say("Tape cut from continuous zip"), "zip + 2*allowance",
            {{"zip", b.zip}, {"allowance", s}}, 0, Kind::Geometry, "mm",
            say("the tape runs through into both end seams")});
    if (tabs) {
        Piece& tab = d.add({.key = "zip tab",
            .code = d.freeCode("X"),
            .name = say("Zip end tab"),
            .coat = Coat::Shell,
            .role = "tab",
            .material = "shell",
            .count = 4});
        drawRectangle(tab,
            d.work({"zip tab", "zip.tab.cut", say("Tab at each end of the zip, cut length"), "tab + lap + allowance",
                {{"tab", d("zip.tab")}, {"lap", lap}, {"allowance", s}}, 0, Kind::Geometry, "mm",
                say("over the tape's end, and into the end seam")}),
            d("zip.tape"), 0);
        tab.note = say("Two to each end, right sides together over the tape, turned outwards.");
    }
    const std::string& opens = d.choice("zip.opens");
    Zip zip{"zip", say("Loop zip"), "zip strip", {b.zip / 2, strip}, int(d("zip.gauge")), opening, tape, d("zip.tape"),
        gap, zipTeeth(d.choice("zip.teeth")), zipOpens(opens), opens == "both" ? 2 : 1, true};
    zip.first = zip.last = {tabs ? ZipEnd::Kind::Tab : ZipEnd::Kind::Seam, (b.zip - opening) / 2};
    if (tabs)
        zip.first.tab = zip.last.tab = "zip tab";
    buyContinuousZip(d, zip);
    p.zips.push_back(std::move(zip));
}

void LoopDraft::offerPlaces(double inWidth, double inHeight)
{
    const auto site = [&](const SiteId& id, const Message& name, const PieceId& piece, const std::string& phase,
                          bool lining) {
        const Box box = boundsOf(d.piece(piece).stitch());
        p.sites.push_back(
            {id, name, {piece}, box.centre().x, box.y1, d("face.width"), d("face.height"), phase, lining});
    };
    site("front", say("Front"), "front", "Shell front", false);
    site("back", say("Back"), "back", "Shell back", false);
    site("lining front", say("Lining front"), lined("front"), "Small parts", true);
    site("lining back", say("Lining back"), lined("back"), "Small parts", true);
    // The band runs clockwise: down on the right, up on the left. Its lining lies behind it, the other way round.
    for (const bool lining : {false, true})
        for (const bool right : {false, true}) {
            if (b.upright <= 0)
                break;
            const bool first = right != lining;
            const double from = right ? b.rightFrom : b.leftFrom;
            const PieceId shells = !b.threeBands ? "band" : right ? "side right" : "side left";
            const PieceId piece = lining ? lined(shells) : shells;
            const double far = boundsOf(d.piece(piece).stitch()).x1;
            p.sites.push_back({.name = SiteId(std::string(lining ? "lining " : "") + (right ? "right" : "left")),
                .label = lining ? right ? say("Lining right") : say("Lining left")
                    : right ? say("Right side")
                                : say("Left side"),
                .pieces = {piece},
                .x = first ? b.depth / 2 : -b.depth / 2,
                .top = first ? -from : far - from,
                .width = b.depth,
                .height = b.upright,
                .phase = lining ? "Small parts" : "Shell gusset",
                .lining = lining,
                .turn = first ? 3 : 1});
        }
    const double wall = d.stack("panel", "front", "shell") + d.stack("lining panel", lined("front"), "lining"),
                 side = d.stack("gusset", "band", "shell") + d.stack("lining gusset", lined("band"), "lining");
    p.spaces.push_back(
        {"main", say("Main space"), inWidth - 2 * side, inHeight - 2 * side, b.depth - 2 * wall, 0, false});
    p.handles.push_back({"depth", "band", {d.piece("band").edge("front")->length() / 2, b.depth}, {0, 1}, 1});
}

/// Pieces of the shell's loop, the zip strip first.
std::vector<PieceId> LoopDraft::loopsPieces() const
{
    std::vector<PieceId> out{"zip strip"};
    for (const auto& section : sections)
        if (section.part != "zip strip")
            out.push_back(section.part);
    return out;
}

/// Zip panel and bands become a loop.
void LoopDraft::closeLoop()
{
    const bool tabs = p.zips.back().first.kind == ZipEnd::Kind::Tab;
    const Act tape{.verb = Act::Verb::SewTape,
        .pieces = {"zip strip", lined("zip strip")},
        .zips = {"zip"},
        .distance = d("zip.sewn")};
    const Act slider = act::with(act::ofZip(Act::Verb::SliderOn, "zip"), {Ware::ContinuousZip, Ware::ZipSlider});
    std::vector<PieceId> zipped{"zip strip", lined("zip strip")};
    if (tabs)
        zipped.push_back("zip tab");
    d.add(Step{
        .id = "zip",
        .title = say("Sew the zip between its strips"),
        .acts = tabs ? std::vector<Act>{slider, act::ofZip(Act::Verb::SealEnds, "zip", {"zip tab"}), tape}
                     : std::vector<Act>{tape, slider, act::ofZip(Act::Verb::BarTack, "zip")},
        .kind = StepKind::Hardware,
        .phase = "Shell gusset",
        .consumes = {zipped.begin(), zipped.end()},
        .yields = "zip panel",
        .pieces = zipped,
        .check = say("The zip panel is {} wide between its stitch lines.", Len(b.depth)),
    });
    std::vector<WorkId> parts{"zip panel"};
    std::vector<PieceId> linings;
    for (const auto& section : sections)
        if (section.part != "zip strip")
            parts.push_back(section.part), linings.push_back(lined(PieceId(section.part)));
    std::vector<WorkId> loopParts = parts;
    loopParts.insert(loopParts.end(), linings.begin(), linings.end());
    const std::vector<PieceId> loopPieces = loopsPieces();
    std::vector<PieceId> closed = loopPieces;
    closed.insert(closed.end(), linings.begin(), linings.end());
    std::vector<Act> acts{act::saying(
        act::sew(m_joins), say("The linings go on the other face of the zip panel and are turned behind."))};
    for (const auto to : {Act::To::First, Act::To::Second}) { // away from the zip, towards the middle band
        std::vector<SeamId> these;
        for (std::size_t i = 0; i < m_joins.size(); ++i) {
            const bool second = sections[i].part == "zip strip" || sections[(i + 1) % sections.size()].part == "band";
            if (second == (to == Act::To::Second))
                these.push_back(m_joins[i]);
        }
        acts.insert(acts.end(), {act::press(these, to), act::topstitch(these, 3.2, to)});
    }
    acts.push_back(act::saying(act::baste(4), say("So lining and shell of the long edges are one.")));
    d.add(Step{.id = "loop",
        .title = say("Close the loop"),
        .acts = std::move(acts),
        .kind = StepKind::Seam,
        .phase = "Shell gusset",
        .consumes = loopParts,
        .yields = "loop",
        .pieces = closed,
        .check = say("The sliders are on and cannot run off."),
        .closesZips = {"zip"}});
}

/// Faces and loop become the bag.
void LoopDraft::assemble()
{
    const std::vector<PieceId> loop = loopsPieces();
    for (const auto& [face, phase] : {std::pair{"front", "Shell front"}, {"back", "Shell back"}})
        d.add(Step{.id = std::string(face) + ".line",
            .title = say("Baste the lining to the {}", sideLabel(face)),
            .acts = {act::line(lined(face), face), act::baste(4)},
            .kind = StepKind::Baste,
            .phase = phase,
            .consumes = {face, lined(face)},
            .yields = face,
            .pieces = {face, lined(face)},
            .check = say("The lining lies flat.")});
    d.add(Step{.id = "front-loop",
        .title = say("Sew the loop to the front"),
        .acts = {act::clip({"front-loop"}), act::sew({"front-loop"})},
        .kind = StepKind::Seam,
        .phase = "Shell assembly",
        .consumes = {"front", "loop"},
        .yields = "half",
        .pieces = withFirst("front", loop),
        .check = say("The zip is centred at the top.")});
    d.add(Step{.id = "zip.open",
        .title = say("Open the zip"),
        .acts = {act::ofZip(Act::Verb::OpenZip, "zip")},
        .kind = StepKind::Press,
        .phase = "Shell assembly",
        .consumes = {"half"},
        .yields = "half",
        .pieces = {"zip strip"}});
    d.add(Step{.id = "back-loop",
        .title = say("Sew the loop to the back"),
        .acts = {act::clip({"back-loop"}), act::sew({"back-loop"})},
        .kind = StepKind::Seam,
        .phase = "Shell assembly",
        .consumes = {"back", "half"},
        .yields = "bag",
        .pieces = withFirst("back", loop),
        .check = say("The zip is open.")});
    d.add(Step{.id = "turn",
        .title = say("Turn the bag through the zip"),
        .acts = {act::turnBag({})},
        .kind = StepKind::Turn,
        .phase = "Closing",
        .consumes = {"bag"},
        .yields = "bag",
        .pieces = {"front", "back"},
        .check = say("The zip runs from end to end.")});
}

} // namespace

std::vector<DimensionSpec> loopDimensions(const std::string& girth)
{
    return {
        {"depth", "Depth", "Finished depth: the width of the loop between its two long seams.", "70", step(5),
            "max(30, zip.tape - 2*zip.sewn + 10)", "300"},
        {"zip.length", "Zip panel length", "How much of the faces' outline the zip panel covers, end seam to end seam.",
            fmt::format("0.45*({})", girth), follow(), "80", fmt::format("0.8*({})", girth)},
        {"zip.shift", "Zip panel, shifted",
            "How far the middle of the zip panel lies from the top's middle, along the outline; to the right seen from "
            "the front is positive.",
            "0", hold(), fmt::format("-0.25*({})", girth), fmt::format("0.25*({})", girth)},
        {"side.right", "Right side band",
            "How far the right side band reaches round from the zip panel's end: where it is joined to the bottom "
            "band.",
            fmt::format("(({}) - zip.length)/4", girth), follow(), "20",
            fmt::format("(({}) - zip.length)/2 - 10", girth), DimensionSpec::Quantity::Length, "bands=three"},
        {"side.left", "Left side band", "The same on the left.", fmt::format("(({}) - zip.length)/4", girth), follow(),
            "20", fmt::format("(({}) - zip.length)/2 - 10", girth), DimensionSpec::Quantity::Length, "bands=three"},
        {"zip.tape", "Tape width", "Width of the zip's tapes with the closed chain.", "32", hold(), "20", "50"},
        {"zip.sewn", "Tape sewn at", "From the tape's edge to the stitch line of the zip strip.", "10", hold(), "4",
            "zip.tape/2 - 3"},
        {"zip.tab", "Tab shows", "How much of the tab is seen at each end of the zip, from its end seam.", "20", hold(),
            "5", "0.25*zip.length", DimensionSpec::Quantity::Length, "zip.ends=tab"},
        {"zip.gauge", "Zip gauge", "Gauge number: about the width of the closed chain in mm.", "5", hold(), "3", "10",
            DimensionSpec::Quantity::Count},
        {"allowance.body", "Body allowance", "Seam allowance of all seams of faces and loop.", "10", hold(), "5", "20"},
    };
}

std::vector<ChoiceSpec> loopChoices()
{
    return {{"bands", "Band", "One band from zip end to zip end, or two sides and a bottom.",
                {{"one", "One band"}, {"three", "Sides and bottom"}}},
        zipKindChoice("zip.teeth"), zipOpensChoice("zip.opens", "both"),
        zipEndChoice("zip.ends", "Zip's ends",
            "The tape runs on into both end seams, bar-tacked before them; or its ends lie under tabs of cloth.",
            {ZipEnd::Kind::Seam, ZipEnd::Kind::Tab})};
}

void furnishLoop(Design& design)
{
    design.materials = {{"shell", "canvas-12"}, {"lining", "lining-cotton"}, {"strap", "webbing-cotton"}};
    design.layers = {{"panel", "foam-sewin", "basted", "stitch", {}, ""},
        {"gusset", "fusible-woven", "fused", "full", {}, ""}, {"pocket", "fusible-woven", "fused", "full", {}, ""}};
    // Its raw edges lie open inside.
    design.features = {{"binding", "binding"}, {"binding2", "binding"}};
    design.choices["binding2.covers"] = "back";
    for (const char* same : {"width", "overlap"})
        design.dimensions[std::string("binding2.") + same] = {std::string("binding.") + same, follow(), {}, {}};
}

void draftLoop(Drafter& d, const LoopBody& body, double inWidth, double inHeight)
{
    LoopDraft loop(d, body);
    loop.drawPieces();
    loop.sewSeams();
    loop.addZip();
    loop.offerPlaces(inWidth, inHeight);
    loop.closeLoop();
    loop.assemble();
}

Mockup foldLoop(const Design& design, const Pattern& p, const LoopBody& b)
{
    const double z = b.depth / 2, up = -boundsOf(b.face).y0; // the bag stands on y = 0
    const Guide guide(pathOf(b));
    Mockup m = foldCoats(p, [&](Folder& folder, const LaidCoat& coat) {
        folder.lay(coat.key("front"), [z, up](Point q) { return Vec3{q.x, q.y + up, z}; });
        folder.lay(coat.key("back"), [z, up](Point q) { return Vec3{-q.x, q.y + up, -z}; });
        double from = 0;
        for (const auto& section : sectionsOf(b)) {
            const double at = from;
            std::vector<double> bends;
            for (const double corner : guide.corners())
                bends.push_back(coat.lining ? at + section.length - corner : corner - at);
            // x goes on clockwise round the faces, y from the front seam to the back. A lining lies behind its section,
            // wrong side on wrong side; what is laid of it is mirrored once more.
            const auto on = [guide, at, up, length = section.length, lining = coat.lining](double x, double z0) {
                const Point c = guide.at(at + (lining ? length - x : x));
                return Vec3{lining ? -c.x : c.x, c.y + up, z0};
            };
            folder.lay(
                coat.key(section.part), [on, z](Point q) { return on(q.x, z - q.y); }, bends);
            if (section.part == "zip strip")
                folder.lay(
                    coat.key(section.part), [on, z](Point q) { return on(q.x, -z + q.y); }, bends, {}, 1);
            from += section.length;
        }
    });
    placeThings(m, design, p);
    return m;
}

} // namespace tectonis
