// SPDX-License-Identifier: GPL-3.0-or-later
// Figures of steps: what lies on what is true to the pieces, for every form and part.
#include "drawn.hpp"
#include "english.hpp"
#include "every_design.hpp"

#include "editing/draft.hpp"
#include "figures/figure.hpp"
#include "figures/laid.hpp"
#include "pattern/seam_shape.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"

#include <numeric>
#include <set>

using namespace tectonis;

namespace {

template <class Item> std::vector<const Item*> itemsOf(const Scene& scene)
{
    std::vector<const Item*> out;
    for (const auto& item : scene.items)
        if (const auto* is = std::get_if<Item>(&item))
            out.push_back(is);
    return out;
}

std::vector<const Stroke*> strokes(const Scene& scene, Stroke::Kind kind)
{
    auto all = itemsOf<Stroke>(scene);
    std::erase_if(all, [&](const Stroke* s) { return s->kind != kind; });
    return all;
}

double lengthOf(const std::vector<const Stroke*>& all)
{
    double sum = 0;
    for (const Stroke* s : all)
        for (std::size_t i = 1; i < s->line.size(); ++i)
            sum += distance(s->line[i - 1], s->line[i]);
    return sum;
}

Scene plan(const Pattern& p, const char* step)
{
    REQUIRE(p.step(step));
    return planOf(p, *p.step(step));
}

bool shows(const Scene& scene, const char* code)
{
    const auto all = itemsOf<Word>(scene);
    return std::any_of(all.begin(), all.end(), [&](const Word* w) { return words(w->text) == code; });
}

bool has(const Scene& scene, Skin skin)
{
    const auto all = itemsOf<Surface>(scene);
    return std::any_of(all.begin(), all.end(), [&](const Surface* s) { return s->skin == skin; });
}

} // namespace

TEST_CASE("Two layers that are turned lie on each other edge to edge: their hands are right, in every design and size")
{
    int pairs = 0;
    everyPattern([&](const std::string& name, const Design&, const Pattern& p) {
        for (const auto& s : p.seams) {
            if (s.stitch != "construction" || piecesOf(s.a).size() != 1 || piecesOf(s.b).size() != 1
                || s.a.front().piece == s.b.front().piece || std::abs(s.ease) > 0.01)
                continue;
            const Piece &below = *p.piece(s.a.front().piece), &above = *p.piece(s.b.front().piece);
            if (std::abs(areaOf(above.cut) / areaOf(below.cut) - 1) > 0.005 || below.role != above.role
                || p.lengthOfSide(s.a) < 0.2 * lengthOf(below.cut))
                continue;
            INFO(name << ", " << s.key.text());
            const auto laid = laidOver(p, s.b, runOf(p, s.a), insideLeft(p, s.a), 1);
            REQUIRE(laid);
            ++pairs;
            Polyline outline = flattened(below.cut, 0.2);
            outline.push_back(outline.front());
            double off = 0;
            for (const Point q : flattened(above.cut, 0.2))
                off = std::max(off, distanceTo(outline, (*laid)(q)));
            CHECK(off < 3); // mm: edges at a mouth may have other allowances
        }
    });
    CHECK(pairs > 100);
}

TEST_CASE("Every step of every design has a figure, within bounds, and of what is sewn the whole length is bold")
{
    int sewn = 0, drawn = 0;
    forEveryDesign([&](const std::string& name, const Design& d) {
        const Pattern p = medium(d);
        for (const auto& step : p.steps) {
            INFO(name << ", " << step.id.text());
            const Scene scene = planOf(p, step);
            const Box box = boundsOf(scene);
            CHECK(!scene.empty());
            CHECK((box.width() < 6000 && box.height() < 6000));
            const Act* act = leadingAct(step);
            ++drawn;
            if (!act || act->verb != Act::Verb::Sew || act->seams.size() != 1)
                continue;
            const Seam& s = *p.seam(act->seams.front());
            const auto copies = [](const std::vector<EdgeUse>& side) {
                std::set<std::pair<PieceId, int>> out;
                for (const auto& use : side)
                    out.insert({use.piece, use.copy});
                return out.size();
            };
            if (copies(s.a) > 1 && copies(s.b) > 1)
                continue; // all round: only a stretch is shown
            ++sewn;
            const double expected = s.lengthA - s.open - s.openStart - s.openEnd;
            CHECK(lengthOf(strokes(scene, Stroke::Kind::Sew)) == Approx(expected).epsilon(0.02));
        }
    });
    CHECK(drawn > 3000);
    CHECK(sewn > 500);
}

TEST_CASE("Worked order A in figures: the flap on the lower back, gusset round the panel, gap left open, board goes in")
{
    const Pattern p = medium(newDesign("gusseted-satchel"));
    // The flap lies on the lower back, its lining towards you, and hangs down from the edge that will catch it.
    const Scene flap = plan(p, "flap.baste");
    CHECK(shows(flap, "B2"));
    CHECK(shows(flap, "LD"));
    const auto surfaces = itemsOf<Surface>(flap);
    REQUIRE(surfaces.size() == 2);
    CHECK(surfaces[0]->skin == Skin::Shell);
    CHECK(surfaces[1]->skin == Skin::Lining);
    Box back, over;
    for (const Point q : surfaces[0]->outline)
        back.add(q);
    for (const Point q : surfaces[1]->outline)
        over.add(q);
    CHECK(over.y1 == Approx(back.y1).margin(1)); // raw edges level
    CHECK(over.y0 < back.y1 - 100);              // pointing down
    // The panel lies right side up, both halves of the gusset stand round it wrong side out.
    const Scene gusset = plan(p, "front-gusset");
    CHECK(has(gusset, Skin::Shell));
    CHECK(has(gusset, Skin::ShellWrong));
    CHECK(lengthOf(strokes(gusset, Stroke::Kind::Sew)) == Approx(p.seam("front-gusset")->lengthA).epsilon(0.01));
    CHECK(strokes(gusset, Stroke::Kind::Mark).size() >= 3);
    // A gap of the opening's length.
    const Scene lining = plan(p, "lining.front-gusset");
    const Seam& s = *p.seam("lining.front-gusset");
    CHECK(s.open > 100);
    CHECK(lengthOf(strokes(lining, Stroke::Kind::Sew)) == Approx(s.lengthA - s.open).epsilon(0.01));
    // Allowances of the seam over the flap lie towards the lower back, a row beside it.
    const Scene join = sectionOf(p, *p.step("flap.join"));
    CHECK(itemsOf<Band>(join).size() == 2);
    CHECK(itemsOf<Arrow>(join).size() == 1);
    CHECK(strokes(join, Stroke::Kind::Topstitch).size() == 1);
    // Numbers in a section are the pattern's.
    const Scene level = sectionOf(p, *p.step("front-gusset"));
    CHECK(shows(level, "10 mm"));
    CHECK(itemsOf<Arrow>(plan(p, "turn")).size() == 1);
    CHECK(itemsOf<Arrow>(plan(p, "mouth")).size() == 1);
}

TEST_CASE("The part so far grows: what is joined by a step is folded, and in the end it is the whole bag")
{
    for (const Form* form : forms()) {
        INFO(form->id());
        const Design d = newDesign(form->id());
        const Pattern p = medium(d);
        const Mockup mockup = mockupOf(d, p);
        std::vector<std::size_t> order(p.steps.size());
        std::iota(order.begin(), order.end(), 0u);
        std::size_t most = 0;
        for (const auto& step : p.steps)
            most = std::max(most, joinedBy(p, order, step.id).size());
        CHECK(most + 2 >= p.pieces.size()); // a strap is threaded last and a card is glued in
        const auto& last = p.steps.back();
        CHECK(!soFar(p, mockup, joinedBy(p, order, last.id)).empty());
        const auto& first = *std::find_if(
            p.steps.begin(), p.steps.end(), [](const Step& s) { return s.kind != StepKind::Interline; });
        CHECK(joinedBy(p, order, first.id).size() < 4);
    }
}

TEST_CASE("A strip stood round an edge: along the edge as along the strip, squeezed inwards, mitred at corners")
{
    const Run strip = lineRun({{0, 0}, {200, 0}}), square = lineRun({{100, 0}, {100, 100}, {0, 100}});
    // Going up, then left: the inside lies to the left.
    const StoodRound round(strip, true, square, 0, 200, true, 0.5);
    const Polyline there = round({{0, 0}, {100, 0}, {200, 0}, {200, 20}, {100, 20}, {0, 20}});
    Box box;
    for (const Point q : there)
        box.add(q);
    CHECK(box.x1 == Approx(100).margin(0.01));
    CHECK(box.y1 == Approx(100).margin(0.01));
    CHECK(std::any_of(there.begin(), there.end(), [](Point q) { return distance(q, {90, 0}) < 0.01; }));
    CHECK(std::any_of(there.begin(), there.end(), [](Point q) { return distance(q, {0, 90}) < 0.01; }));
    CHECK(std::any_of(there.begin(), there.end(), [](Point q) { return distance(q, {90, 90}) < 0.01; })); // the mitre
    // Nothing of the inner edge comes nearer to the edge than its depth.
    for (const Point q : there)
        CHECK((q.x > 99.9 || q.y > 99.9 || (q.x < 90.01 && q.y < 90.01) || q.x < 0.01 || q.y < 0.01
            || std::abs(q.x - 95) < 5));
    const Polyline half = cutOff({{0, 0}, {10, 0}, {10, 10}, {0, 10}}, {5, 5}, {1, 0});
    CHECK(half.size() == 4);
    CHECK(std::abs(areaOf(lineRun({half[0], half[1], half[2], half[3], half[0]}))) == Approx(50));
}

TEST_CASE("What is stitched on lies as its seam lists it: right side up, from the same start, in every design")
{
    int laidOn_ = 0;
    forEveryDesign([&](const std::string& name, const Design& d) {
        const Pattern p = medium(d);
        for (const auto& s : p.seams)
            for (const auto& [up, low] : {std::pair{&s.a, &s.b}, {&s.b, &s.a}})
                for (const auto& o : p.overlays) {
                    const Piece* face = p.piece(low->front().piece);
                    if (s.stitch != "topstitch" || up->front().piece != o.piece || up->front().copy > 0 || !face
                        || face->edge(low->front().edge) || std::abs(s.ease) > 0.01)
                        continue;
                    if (std::count_if(p.overlays.begin(), p.overlays.end(),
                            [&](const Overlay& each) { return each.piece == o.piece; })
                        > 1)
                        continue; // which of the copies the seam is about, the overlay does not say
                    // A boxed pocket's sides come together only when its corners are sewn.
                    bool joined = true;
                    for (std::size_t k = 1; k < up->size(); ++k)
                        joined &= distance(endOf(p.runOf((*up)[k - 1])), startOf(p.runOf((*up)[k]))) < 0.01;
                    if (!joined)
                        continue;
                    INFO(name << ", " << s.key.text());
                    const auto laid = laidOn(runOf(p, *up), runOf(p, *low), false, 1);
                    REQUIRE(laid);
                    ++laidOn_;
                    const Box box = boundsOf(p.piece(o.piece)->cut);
                    for (const Point q : {Point{box.x0, box.y0}, {box.x1, box.y0}, {box.x0, box.y1}})
                        CHECK(distance((*laid)(q), o.placement(q)) < 1);
                }
    });
    CHECK(laidOn_ > 100);
}

TEST_CASE("The table: each piece lies in one part, and the parts are those that the dry run tells, after every step")
{
    for (const Form* form : forms()) {
        INFO(form->id());
        const Pattern p = medium(newDesign(form->id()));
        std::vector<std::size_t> order(p.steps.size());
        std::iota(order.begin(), order.end(), 0u);
        const auto states = dryRun(p, order);
        for (std::size_t i = 0; i < order.size(); ++i) {
            INFO(p.steps[i].id.text());
            const auto table = tableAfter(p, order, i + 1);
            std::set<WorkId> told(states[i].parts.begin(), states[i].parts.end()), shown;
            std::map<PieceId, int> times;
            for (const auto& [part, pieces] : table) {
                shown.insert(part);
                for (const auto& piece : pieces)
                    ++times[piece];
            }
            CHECK(shown == told);
            CHECK(times.size() == p.pieces.size());
            for (const auto& [piece, n] : times) {
                INFO(piece.text());
                CHECK(n == 1);
            }
        }
    }
}

TEST_CASE("A raw edge lapped on a zip's tape is drawn right side up over the tape, the bag below: on every form")
{
    int seen = 0;
    for (const Form* form : forms()) {
        Design d = newDesign(form->id());
        std::string zip;
        try {
            zip = addFeature(d, "inset-zip");
            setChoice(d, zip + ".edge", "raw");
        } catch (const InputError&) {
            continue;
        }
        for (const auto& p : draftAll(d))
            for (const char* edge : {".lower", ".upper"}) {
                INFO(form->id() << ", " << p.size << edge);
                const Scene scene = plan(p, (zip + edge).c_str());
                const auto surfaces = itemsOf<Surface>(scene);
                // Bag, tape, face; the face's turned corner comes after it.
                REQUIRE(surfaces.size() >= 3);
                CHECK(surfaces[0]->skin == (edge == std::string(".lower") ? Skin::LiningWrong : Skin::Lining));
                CHECK(surfaces[1]->skin == Skin::Tape);
                CHECK(surfaces[2]->skin == Skin::Shell);
                CHECK(!strokes(scene, Stroke::Kind::Topstitch).empty());
                CHECK(strokes(scene, Stroke::Kind::Sew).empty()); // nothing is sewn right sides together
                Box bag, face;
                for (const Point q : surfaces[0]->outline)
                    bag.add(q);
                for (const Point q : surfaces[2]->outline)
                    face.add(q);
                // The lower part's bag lies behind it; the upper part's hangs down over the chain.
                CHECK((bag.centre().y < face.y0) == (edge == std::string(".upper")));
                ++seen;
            }
    }
    CHECK(seen > 50);
}

TEST_CASE("A flap on a face that a zip cuts is basted on the part with the edge; both parts lie there with the zip")
{
    Design d = newDesign("gusseted-satchel");
    setChoice(d, addFeature(d, "inset-zip") + ".site", "back");
    const Pattern p = draftAll(d)[1];
    const Scene scene = plan(p, "flap.baste");
    std::set<std::string> wholes;
    for (const auto& id : p.step("flap.baste")->pieces)
        wholes.insert(p.piece(id)->whole.text());
    CHECK(p.step("flap.baste")->pieces.size() == 3);
    CHECK(has(scene, Skin::Tape));
    CHECK(has(scene, Skin::Lining)); // the flap's lining looks at the maker
    CHECK(!strokes(scene, Stroke::Kind::Baste).empty());
    CHECK(lengthOf(strokes(scene, Stroke::Kind::Baste)) == Approx(p.values.at("flap.width")).epsilon(0.01));
}

TEST_CASE("A lock in section: its knob stands through one layer, its plate frames an opening through all of the flap")
{
    for (const char* form : {"gusseted-satchel", "zip-around", "cylinder", "envelope-clutch"}) {
        INFO(form);
        Design d = newDesign(form);
        if (std::none_of(d.features.begin(), d.features.end(), [](const Feature& f) { return f.kind == "snap"; })) {
            addFeature(d, "flap");
            addFeature(d, "snap");
        }
        setChoice(d, "snap.closure", "turn");
        const Pattern p = draftAll(d)[1];
        const Scene knob = sectionOf(p, *p.step("snap.front")), plate = sectionOf(p, *p.step("snap.late"));
        const auto covers = [](const Polyline& line, double x) {
            return std::any_of(line.begin(), line.end(), [&](Point q) { return q.x <= x; })
                && std::any_of(line.begin(), line.end(), [&](Point q) { return q.x >= x; });
        };
        for (const Band* band : itemsOf<Band>(plate))
            CHECK(!covers(band->line, 0));       // an opening
        CHECK(itemsOf<Band>(plate).size() == 4); // two layers on both sides of it
        const auto through = itemsOf<Surface>(knob);
        CHECK(std::count_if(through.begin(), through.end(), [&](const Surface* s) {
            return s->skin == Skin::Metal && covers(s->outline, 0);
        }) >= 3);
    }
}
