// SPDX-License-Identifier: GPL-3.0-or-later
// What a maker is told, against what is drafted: markers, tiles, allowances in words, minutes, pleats. Each of these
// could once be wrong with every test green.
#include "drawn.hpp"
#include "every_design.hpp"
#include "geos.hpp"

#include "cutting/cut_list.hpp"
#include "library/library.hpp"
#include "sheets/plan.hpp"
#include "units/words.hpp"

#include <regex>

using namespace tectonis;
using Catch::Contains;

TEST_CASE(
    "Markers: mirrored copies lie mirrored, pieces keep their gap, grain runs along the cloth: every form and part")
{
    const Geos geos;
    int mirrored = 0, pairs = 0;
    forEveryDesign([&](const std::string& name, const Design& d) {
        const Pattern p = medium(d);
        for (const auto& m : makeMarkers(p)) {
            const Material& cloth = material(m.material);
            if (cloth.width <= 0)
                continue;
            INFO(name << ", " << cloth.name);
            std::vector<int> turnedOver(m.items.size(), 0), laid(m.items.size(), 0);
            std::vector<Box> boxes;
            for (const auto& spot : m.spots) {
                const CutItem& item = m.items[spot.item];
                ++laid[spot.item];
                turnedOver[spot.item] += spot.placement.mirror;
                if (!spot.placed)
                    continue;
                const Run there = placed(alongCloth(item), spot.placement);
                CHECK((areaOf(there) < 0) == spot.placement.mirror); // a mirror image runs the other way round
                boxes.push_back(boundsOf(there));
                CHECK(boxes.back().y0 > -1e-6);
                CHECK(boxes.back().y1 < cloth.width + 1e-6);
                // A pattern's grain direction, drawn on the piece, comes to lie along x.
                const Point grain = spot.placement(Placement{0, 0, -radians(item.grain)}(polar(radians(item.grain))))
                    - spot.placement(Placement{0, 0, -radians(item.grain)}({0, 0}));
                if (cloth.use == "face")
                    CHECK(std::abs(grain.x) == Approx(1));
                // Measured without that: a piece whose grain is upright is as long on the cloth as it is tall.
                if (cloth.use == "face" && (item.grain == 90 || item.grain == 0))
                    CHECK(boxes.back().width()
                        == Approx(item.grain == 90 ? boundsOf(item.outline).height() : boundsOf(item.outline).width()));
            }
            for (std::size_t i = 0; i < m.items.size(); ++i) {
                CHECK(laid[i] == m.items[i].count);
                CHECK(turnedOver[i] == m.items[i].mirrored);
                mirrored += m.items[i].mirrored;
            }
            for (std::size_t i = 0; i < boxes.size(); ++i)
                for (std::size_t k = i + 1; k < boxes.size(); ++k) {
                    const double across = std::max(boxes[i].x0, boxes[k].x0) - std::min(boxes[i].x1, boxes[k].x1),
                                 up = std::max(boxes[i].y0, boxes[k].y0) - std::min(boxes[i].y1, boxes[k].y1);
                    ++pairs;
                    CHECK(std::max(across, up) > 5 - 1e-6);
                }
        }
    });
    CHECK(mirrored > 200);
    CHECK(pairs > 10000);
}

TEST_CASE("Grain: panels stand upright, strips run lengthwise, bias strips lie at 45 degrees")
{
    forEveryDesign([&](const std::string& name, const Design& d) {
        for (const auto& piece : medium(d).pieces) {
            INFO(name << ", " << piece.key);
            if (piece.role == "panel" || piece.role == "lining panel" || piece.role == "flap")
                CHECK(piece.grain == 90);
            if (piece.role == "gusset" || piece.role == "lining gusset")
                CHECK(piece.grain == 0); // drawn along x
            if (piece.role == "piping")
                CHECK(piece.grain == 45);
            if (piece.role == "strap" || piece.role == "handle")
                CHECK((piece.grain == 90) == (boundsOf(piece.cut).height() >= boundsOf(piece.cut).width()));
        }
    });
}

TEST_CASE("Tiles: neighbours share a strip of 10 mm, and every outline point in it is on both pages")
{
    for (const char* form : {"gusseted-satchel", "large-tote", "roll-top"}) {
        const auto all = draftAll(newDesign(form));
        const SheetPlan plan = planSheets({&all[0], &all[1], &all[2]}, paperOf("A4"));
        int joints = 0;
        for (const auto& page : plan.pages)
            for (const auto& other : plan.pages) {
                if (other.row == page.row && other.column == page.column + 1) {
                    CHECK(page.area.x1 - other.area.x0 == Approx(10));
                    CHECK(page.area.width() == Approx(210 - 20));
                    ++joints;
                }
                if (other.column == page.column && other.row == page.row + 1) {
                    CHECK(other.area.y1 - page.area.y0 == Approx(10));
                    CHECK(page.area.height() == Approx(297 - 28));
                    ++joints;
                }
            }
        CHECK(joints > 5);
    }
}

TEST_CASE("Allowances in words are those of the edges that are sewn: every seam's step on every form and part")
{
    static const std::regex number("[Ss]ew(?:n)?[^.;{]* at \\{([0-9.]+)\\}");
    int steps = 0;
    forEveryDesign([&](const std::string& name, const Design& d) {
        const Pattern p = medium(d);
        for (const auto& step : p.steps) {
            std::vector<double> allowances;
            for (const auto& key : step.seams)
                if (const Seam* seam = p.seam(key))
                    for (const auto* side : {&seam->a, &seam->b})
                        for (const auto& use : *side)
                            if (const Edge* e = p.piece(use.piece)->edge(use.edge))
                                allowances.insert(
                                    allowances.end(), {e->allowance, e->allowanceAtEnd.value_or(e->allowance)});
            if (allowances.empty())
                continue;
            const StepWords said = told(p, step);
            const std::string text = exactly(said.text);
            for (auto it = std::sregex_iterator(text.begin(), text.end(), number); it != std::sregex_iterator(); ++it) {
                const double at = std::stod((*it)[1]);
                ++steps;
                INFO(name << ", step " << step.id << ": " << it->str());
                CHECK(std::any_of(
                    allowances.begin(), allowances.end(), [&](double a) { return std::abs(a - at) < 0.001; }));
            }
            if (step.kind == StepKind::Seam && said.allowance > 0 && step.id != "mouth") {
                INFO(name << ", step " << step.id << " told at " << said.allowance);
                const bool raw = said.allowance == 3.2; // beside a raw edge
                CHECK((raw || std::any_of(allowances.begin(), allowances.end(), [&](double a) {
                    return std::abs(a - said.allowance) < 0.001;
                })));
            }
        }
    });
    CHECK(steps > 2000);
    // Dropped in: the mouth is folded by its edges' own allowance.
    Design d = with("separate-base", {"allowance.mouth=13"});
    setChoice(d, "assembly", "drop-in");
    const Pattern p = medium(d);
    CHECK(p.piece("front")->edge("top")->allowance == 13);
    CHECK_THAT(exactly(textOf(p, "mouth")), Contains("to the wrong side ({13})"));
    setChoice(d, "assembly", "bagged-out");
    CHECK_THAT(exactly(textOf(medium(d), "mouth")), Contains("Sew round the mouth at {13}"));
}

TEST_CASE("Minutes by hand: pieces, rows, their length at the workshop's speed, pinning, pressing and handwork")
{
    Design d = with("separate-base", {"base.radius=0"});
    d.workshop.stitchSpeed = 2; // m/min
    const Pattern p = medium(d);
    // Two walls, two side seams, pinned, sewn, pressed open.
    const double sides = (p.seam("side 1")->lengthA + p.seam("side 2")->lengthA) / 1000;
    CHECK(minutesAt(p, "sides") == Approx(2 * 0.4 + 2 * 0.2 + sides / 2 + sides + 0.8 * sides));
    // Round four corners: half as fast again; 1.5 min of clipping for each metre.
    const double base = p.seam("base")->lengthA / 1000;
    CHECK(minutesAt(p, "base") == Approx(3 * 0.4 + 0.2 + 1.5 * base / 2 + base + 1.5 * base));
    CHECK(minutesAt(p, "turn") == Approx(4 * 0.4 + 4));
    CHECK(minutesAt(p, "close")
        == Approx(p.step("close")->pieces.size() * 0.4 + 0.2 + p.seam("lining.base")->open / 1000 / 2));
    // A row on both sides of a seam is two rows.
    const Pattern joined = medium(with("gusseted-satchel", {"gusset.strips=two"}));
    const double centre = joined.seam("gusset-centre")->lengthA / 1000, speed = satchel().workshop.stitchSpeed;
    CHECK(minutesAt(joined, "gusset.join") == Approx(0.4 + 3 * 0.2 + 3 * centre / speed + centre + 0.8 * centre));
    double sum = 0;
    for (const auto& s : p.steps)
        sum += minutesOf(p, s).result;
    CHECK(sum > 60);
    CHECK(sum < 400); // a lined tote is an afternoon, not a week
}

TEST_CASE("Pleats at the base: two folds each, 2p apart, and what lies between them finished divides the base evenly")
{
    for (const int n : {1, 2, 3}) {
        const Design d = with("boxed-corner", {"pleats=" + std::to_string(n), "pleat=11"});
        const Pattern p = medium(d);
        for (const char* panel : {"front", "back"}) {
            std::vector<double> folds;
            for (const auto& l : p.piece(panel)->lines)
                if (l.kind == FaceLine::Kind::Pleat)
                    folds.push_back(startOf(l.run).x);
            REQUIRE(folds.size() == std::size_t(2 * n));
            const double left = p.piece(panel)->edge("bottom") ? startOf(p.piece(panel)->edge("bottom")->stitch).x : 0,
                         width = p.values.at("width");
            for (int i = 0; i < n; ++i) {
                CHECK(folds[std::size_t(2 * i + 1)] - folds[std::size_t(2 * i)] == Approx(2 * 11));
                CHECK(folds[std::size_t(2 * i)] - left - 2 * 11 * i
                    == Approx(width * (i + 1) / (n + 1))); // folded away, they lie at even shares
            }
        }
    }
}

TEST_CASE("Tabs, straps and handles are cut as wide as their cloth folds: by hand for canvas, vinyl and webbing")
{
    // Edges to the middle and once more: four widths; edges meeting behind: two; webbing: one (common practice, no
    // source).
    for (const auto& [cloth, times] : {std::pair{"canvas-12", 4}, {"vinyl", 2}}) {
        Design d = newDesign("gusseted-satchel");
        setMaterial(d, "shell", cloth);
        setChoice(d, "strap.make", "cloth");
        const Pattern p = medium(d);
        CHECK(boundsOf(p.piece("connectors")->cut).width() == Approx(times * p.values.at("connectors.width")));
        CHECK(p.straps.front().cutWidth == Approx(times * p.values.at("strap.width")));
        CHECK(p.piece("connectors")->plies == 2 * times);
    }
    Design d = newDesign("gusseted-satchel");
    setChoice(d, "strap.make", "webbing");
    CHECK(medium(d).straps.front().cutWidth == Approx(medium(d).values.at("strap.width")));
}
