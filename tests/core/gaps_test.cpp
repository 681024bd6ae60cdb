// SPDX-License-Identifier: GPL-3.0-or-later
// What no test saw when each file of core was broken on purpose: small facts, each tried on all designs where it can
// be.
#include "drawn.hpp"
#include "every_design.hpp"

#include "buildup/bulk.hpp"
#include "buildup/layers.hpp"
#include "checks/finding.hpp"
#include "checks/snags.hpp"
#include "checks/stack.hpp"
#include "edition/edition.hpp"
#include "formats/svg.hpp"
#include "mockup/folder.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"

#include <random>
#include <set>

using namespace tectonis;
using Catch::Contains;

namespace {

std::vector<Finding> foundBy(const std::string& check, const Design& d)
{
    std::vector<Finding> out;
    for (const auto& f : checkAll(d, draftAll(d)))
        if (f.check == check)
            out.push_back(f);
    return out;
}

} // namespace

TEST_CASE("Every outline is closed: each edge begins where the one before ends")
{
    forEveryDesign([](const std::string& name, const Design& d) {
        for (const Pattern& p : draftAll(d))
            for (const auto& piece : p.pieces)
                for (std::size_t i = 0; i < piece.edges.size(); ++i) {
                    const Edge &here = piece.edges[i], &next = piece.edges[(i + 1) % piece.edges.size()];
                    if (distance(endOf(here.stitch), startOf(next.stitch)) < 0.001)
                        continue;
                    INFO(name << ", " << p.size << ", " << piece.key << ": " << here.name << " and " << next.name);
                    CHECK(distance(endOf(here.stitch), startOf(next.stitch)) < 0.001);
                }
    });
}

TEST_CASE("What lies on a face lies inside it at both ends of its own range: sideways, wide", "[.long]")
{
    int tried = 0;
    forEveryDesign([&](const std::string& name, const Design& d) {
        const DesignSpec& spec = specOf(d);
        const std::size_t base = sizeIndex(d, d.baseSize);
        for (const auto& s : spec.dimensions) {
            if (!s.name.ends_with(".across") && s.name != "label.width")
                continue;
            const Range range = rangeOf(s, evaluate(d, spec, base));
            for (const double end : {range.min, range.max}) {
                Design moved = d;
                for (auto& [dimension, value] : moved.dimensions)
                    value.rule = hold(); // one size's ends are all sizes' ends
                try {
                    setDimensionMm(moved, s.name, end, moved.baseSize);
                } catch (const InputError&) {
                    continue; // another of its bounds
                }
                const Pattern p = medium(moved);
                const std::string part = s.name.substr(0, s.name.find('.'));
                const auto chosen = moved.choices.find(part + ".site");
                const auto onFace = [&](const PieceId& piece, const Box& area) {
                    for (const auto& site : p.sites)
                        if (std::find(site.pieces.begin(), site.pieces.end(), piece) != site.pieces.end()) {
                            // Of a strip with a side at each end, the one that it was put on.
                            if (site.turn != 0 && chosen != moved.choices.end() && site.name.text() != chosen->second)
                                continue;
                            const double half = site.turn != 0 ? site.width / 2 : p.values.at("face.width") / 2;
                            const double x0 = site.upright(area).x0, x1 = site.upright(area).x1;
                            INFO(name << ": " << s.name << " = " << end << ", " << piece << " from " << x0 - site.x
                                      << " to " << x1 - site.x << " of ±" << half);
                            CHECK(x0 >= site.x - half - 0.01);
                            CHECK(x1 <= site.x + half + 0.01);
                            ++tried;
                            return;
                        }
                };
                for (const auto& place : p.places)
                    if (place.feature == part)
                        onFace(place.piece, place.area);
                for (const auto& f : p.fittings)
                    if (f.owner() == part && f.kind == Fitting::Kind::Snap)
                        onFace(f.piece, {f.at.x - f.size / 2, f.at.y, f.at.x + f.size / 2, f.at.y});
            }
        }
    });
    CHECK(tried > 50);
}

TEST_CASE("A patch pocket's face lies where its placement line is, in every body and on every form")
{
    int tried = 0;
    forEveryDesign([&](const std::string& name, const Design& d) {
        if (name.find("patch") == std::string::npos)
            return;
        for (const Pattern& p : draftAll(d))
            for (const auto& o : p.overlays) {
                const Piece* pocket = p.piece(o.piece);
                const auto place = std::find_if(p.places.begin(), p.places.end(),
                    [&](const Place& each) { return each.feature == o.piece && each.piece == o.on; });
                if (!pocket || !pocket->areas.contains("face") || place == p.places.end())
                    continue;
                INFO(name << ", " << p.size);
                const Box face = boundsOf(placed(pocket->areas.at("face"), o.placement));
                CHECK(face.x0 == Approx(place->area.x0).margin(0.01));
                CHECK(face.y0 == Approx(place->area.y0).margin(0.01));
                CHECK(face.x1 == Approx(place->area.x1).margin(0.01));
                CHECK(face.y1 == Approx(place->area.y1).margin(0.01));
                // The wall it lies on, and where on it.
                for (const OnWall& on : wallsOf(p, *pocket)) {
                    CHECK(on.wall == (p.piece(o.on)->whole.empty() ? o.on : p.piece(o.on)->whole));
                    CHECK(distance(on.to({0, 0}), o.placement({0, 0})) < 1e-9);
                }
                ++tried;
            }
    });
    CHECK(tried > 50);
}

TEST_CASE("Y-cuts go from the ends of the slash into the corners of the window")
{
    Design d = newDesign("gusseted-satchel");
    if (std::none_of(d.features.begin(), d.features.end(), [](const Feature& f) { return f.kind == "zip-pocket"; }))
        addFeature(d, "zip-pocket");
    int cuts = 0;
    for (const Pattern& p : draftAll(d))
        for (const auto& piece : p.pieces) {
            std::vector<Run> slashes, ys;
            Box window;
            for (const auto& line : piece.lines) {
                if (line.kind == FaceLine::Kind::Slash)
                    (line.name == "Y-cut" ? ys : slashes).push_back(line.run);
                if (line.name == "zip window")
                    window = boundsOf(line.run);
            }
            std::set<std::pair<int, int>> corners;
            for (const Run& y : ys) {
                const Point from = startOf(y), to = endOf(y);
                CHECK(std::any_of(slashes.begin(), slashes.end(), [&](const Run& s) {
                    return distance(from, startOf(s)) < 0.01 || distance(from, endOf(s)) < 0.01;
                }));
                CHECK((std::abs(to.x - window.x0) < 0.01 || std::abs(to.x - window.x1) < 0.01));
                CHECK((std::abs(to.y - window.y0) < 0.01 || std::abs(to.y - window.y1) < 0.01));
                CHECK(std::abs(to.x - from.x) == Approx(6.4)); // 1/4 in inside the ends: the trade's value
                corners.insert({int(std::lround(to.x)), int(std::lround(to.y))});
                ++cuts;
            }
            CHECK(corners.size() == ys.size());
        }
    CHECK(cuts == 12);
}

TEST_CASE("One fault in several sizes is one snag that names each size once")
{
    Design d = newDesign("gusseted-satchel");
    Findings all;
    for (const char* size : {"S", "M", "M", "L"})
        all.push_back({Severity::Warning, "bulk", size, naming("Seam"), "a", "Build-up", naming("text"), {}});
    all.push_back({Severity::Error, "bulk", "M", naming("Seam"), "b", "Build-up", naming("text"), {}});
    const auto snags = snagsOf(all);
    REQUIRE(snags.size() == 2);
    CHECK(snags[0].sizes == std::vector<std::string>{"S", "M", "L"});
    CHECK(snags[1].sizes == std::vector<std::string>{"M"});
    CHECK(countSnags(all, "Build-up", "L").all() == 1);
    CHECK(countSnags(all).toMend == 1);
}

TEST_CASE("Bulk: what is thickest under the foot is named to be trimmed, in whatever order it lies; half a millimetre "
          "over the limit is told, at the limit nothing is")
{
    for (const bool foamFirst : {true, false}) {
        Design d = newDesign("gusseted-satchel");
        // Of the interlinings that there are, one lofty and one thin.
        d.layers.clear();
        for (const char* id :
            {foamFirst ? "foam-sewin" : "fusible-woven", foamFirst ? "fusible-woven" : "foam-sewin"}) {
            LayerRule rule;
            rule.pieces = "front", rule.material = id, rule.trim = "full";
            d.layers.push_back(rule);
        }
        const Pattern p = medium(d);
        const Piece& front = *p.piece("front");
        const auto foam = std::find_if(
            front.layers.begin(), front.layers.end(), [](const Layer& l) { return l.material == "foam-sewin"; });
        REQUIRE(foam != front.layers.end());
        const Seam *seam = nullptr, *crossed = nullptr;
        for (const auto& s : p.seams) {
            if (!seam && s.stitch == "construction"
                && std::any_of(s.a.begin(), s.a.end(), [](const EdgeUse& u) { return u.piece == "front"; }))
                seam = &s;
            if (const Bulk here = bulkAt(p, s); here.atCrossing > here.underFoot + 0.5)
                crossed = &s;
        }
        REQUIRE(seam);
        REQUIRE(crossed);
        REQUIRE(bulkAt(p, *seam).heaviest.layer);
        CHECK(bulkAt(p, *seam).heaviest.layer->code == foam->code);
        const auto told = [&](const Seam& at, double limit) {
            Design limited = d;
            limited.workshop.machineLimit = limit;
            for (const auto& f : foundBy("bulk", limited))
                if (f.key == at.key && f.size == "M")
                    return nameOf(f.severity).source;
            return std::string("nothing");
        };
        CHECK(told(*seam, bulkAt(p, *seam).underFoot - 0.5) == "error");
        CHECK(told(*crossed, bulkAt(p, *crossed).atCrossing - 0.4) == "warning");
        CHECK(told(*crossed, bulkAt(p, *crossed).atCrossing + 0.01) == "nothing");
    }
}

TEST_CASE("A head beside a part's edge is told when the setter has no room, to the left as to the right")
{
    Design d = newDesign("gusseted-satchel");
    addFeature(d, "patch-pocket");
    setChoice(d, "patch.site", "front");
    assign(d, "patch.width=80");
    assign(d, "snap.across=25");
    const auto areaIn = [](const Pattern& p) {
        return std::find_if(p.places.begin(), p.places.end(), [](const Place& each) {
            return each.feature == "patch";
        })->area;
    };
    for (const int side : {-1, 1}) {
        setDimensionMm(d, "patch.across", 70.0 * side, "M");
        const Pattern p = medium(d);
        const auto snap = std::find_if(p.fittings.begin(), p.fittings.end(),
            [&](const Fitting& f) { return f.kind == Fitting::Kind::Snap && f.piece == "front"; });
        REQUIRE(snap != p.fittings.end());
        const Box area = areaIn(p);
        // The edge towards the snap, brought as near as room + 1, and as room − 1: half the head and 4 mm.
        const double room = snap->size / 2 + 4;
        for (const double off : {1.0, -1.0}) {
            Design near = d;
            const double edge = snap->at.x + side * (room + off), now = side > 0 ? area.x0 : area.x1;
            setDimensionMm(near, "patch.across", 70.0 * side + edge - now, "M");
            setDimensionMm(near, "patch.drop", std::max(10.0, p.values.at("patch.drop")), "M");
            const Pattern q = medium(near);
            const Box there = areaIn(q);
            if (snap->at.y < there.y0 || snap->at.y > there.y1)
                setDimensionMm(near, "patch.drop", p.values.at("patch.drop") + there.y1 - snap->at.y - 20, "M");
            bool told = false;
            for (const auto& f : foundBy("collision", near))
                told |= f.size == "M" && words(f.text).find("centre and the part's edge") != std::string::npos;
            INFO("side " << side << ", off " << off);
            CHECK(told == (off < 0));
        }
    }
}

TEST_CASE("Stock lengths a little off are told too; anchor triangles bring a slider for each webbing")
{
    Design d = newDesign("gusseted-satchel");
    assign(d, "connectors.ring=40.9");
    CHECK(foundBy("stock", d).size() == 1);
    for (const Form* form : forms()) {
        Design braced = newDesign(form->id());
        try {
            addFeature(braced, "brace");
        } catch (const InputError&) {
            continue;
        }
        for (const Pattern& p : draftAll(braced))
            CHECK(std::count_if(p.hardware.begin(), p.hardware.end(), [&](const Hardware& h) {
                return h.owner() == braced.features.back().id && h.kind == Ware::WebbingSlider && h.count == 2;
            }) == 1);
    }
}

TEST_CASE("Steps over all sizes: each once, in the order of each size")
{
    const Design d = newDesign("gusseted-satchel");
    const auto all = draftAll(d);
    const auto steps = Edition(d, {&all[0], &all[1], &all[2]}).steps();
    REQUIRE(steps.size() == all.front().steps.size());
    for (std::size_t k = 0; k < all.size(); ++k) {
        const auto order = orderOf(d, all[k]);
        for (std::size_t i = 0; i < order.size(); ++i) {
            REQUIRE(steps[i].in[k]);
            CHECK(steps[i].in[k]->id == all[k].steps[order[i]].id);
        }
    }
}

TEST_CASE("What a form adds to the words of a seam stands in its step, in both coats")
{
    const Pattern p = medium(newDesign("flat-pouch"));
    int said = 0;
    for (const auto& step : p.steps)
        said += words(told(p, step).text).find("Notch out the allowance of the ") != std::string::npos;
    CHECK(said == 2);
}

TEST_CASE("Two patches at both ends of an edge lie there once, not on each other")
{
    Design d = newDesign("gusseted-satchel");
    addFeature(d, "corner-patch");
    const Pattern p = medium(d);
    int held = 0;
    for (const auto& seam : p.seams) {
        int times = 0;
        for (const auto& part : bulkAt(p, seam).parts)
            times += part.label(p) == p.piece("corner")->name ? part.times : 0;
        held = std::max(held, times);
    }
    CHECK(held == 1);
}

TEST_CASE("Every notch of every piece is drawn in its SVG, stops as stops")
{
    for (const Form* form : forms()) {
        const Pattern p = medium(newDesign(form->id()));
        for (const auto& piece : p.pieces) {
            if (piece.folds > 0)
                continue;
            const std::string svg = pieceSvg(p, piece, "d");
            const auto drawn = [&](const std::string& what) {
                std::size_t n = 0;
                for (auto at = svg.find("class=\"" + what + "\""); at != std::string::npos;
                     at = svg.find("class=\"" + what + "\"", at + 1))
                    ++n;
                return n;
            };
            INFO(form->id() << " " << piece.key);
            const auto stops = std::size_t(
                std::count_if(piece.notches.begin(), piece.notches.end(), [](const Notch& n) { return n.stop; }));
            CHECK(drawn("notch stop") == stops);
            CHECK(drawn("notch") == piece.notches.size() - stops);
        }
    }
}

TEST_CASE("Cord holes of a circle pouch: a slash across the channel at each drill mark")
{
    const Pattern p = medium(newDesign("circle-pouch"));
    const Piece& disc = *p.piece("disc");
    REQUIRE(disc.drills.size() >= 2);
    for (const auto& drill : disc.drills)
        CHECK(std::any_of(disc.lines.begin(), disc.lines.end(), [&](const FaceLine& l) {
            return l.kind == FaceLine::Kind::Slash && distance(pointAlong(l.run, lengthOf(l.run) / 2), drill.at) < 0.01;
        }));
}

TEST_CASE("A base board is drafted where it is chosen, and only there")
{
    int asked = 0;
    for (const Form* form : forms()) {
        const Design plain = newDesign(form->id());
        const ChoiceSpec* board = specOf(plain).choice("base.board");
        if (!board)
            continue;
        for (const auto& [value, label] : board->options) {
            Design d = plain;
            setChoice(d, "base.board", value);
            CHECK((medium(d).piece("base.board") != nullptr) == (value == "yes"));
            ++asked;
        }
    }
    CHECK(asked >= 4);
}

TEST_CASE("Every layer is put on in one step, that of its fixing; every piece of the step has such a layer")
{
    int layers = 0;
    forEveryDesign([&](const std::string& name, const Design& d) {
        const Pattern p = medium(d);
        for (const auto& piece : p.pieces)
            for (const auto& layer : piece.layers) {
                ++layers;
                std::vector<std::string> in;
                const std::string material = p.material(layer.material).name + ": ";
                for (const auto& step : p.steps) {
                    if (step.kind != StepKind::Interline)
                        continue;
                    const std::string text = words(told(p, step).text);
                    const auto at = text.find(material);
                    if (at == std::string::npos)
                        continue;
                    const auto from = at + material.size();
                    if ((", " + text.substr(from, text.find('.', from) - from) + ",").find(", " + layer.code + ",")
                        != std::string::npos)
                        in.push_back(step.id.text());
                }
                if (in == std::vector<std::string>{"interline." + layer.fixing})
                    continue;
                INFO(name << ": " << layer.code << ", " << layer.fixing);
                CHECK(in == std::vector<std::string>{"interline." + layer.fixing});
            }
    });
    CHECK(layers > 1000);
}

TEST_CASE("Whatever order was asked for, with steps twice and steps that there are not, every step stands in it once")
{
    std::mt19937 random(4);
    for (const Form* form : forms()) {
        Design d = newDesign(form->id());
        const Pattern p = medium(d);
        for (int round = 0; round < 20; ++round) {
            std::vector<std::string> ids;
            for (const auto& step : p.steps)
                if (random() % 3)
                    ids.push_back(step.id.text());
            std::shuffle(ids.begin(), ids.end(), random);
            if (!ids.empty())
                ids.push_back(ids.front()), ids.push_back("no such step");
            d.stepOrder = ids;
            auto order = orderOf(d, p);
            std::sort(order.begin(), order.end());
            REQUIRE(order.size() == p.steps.size());
            for (std::size_t i = 0; i < order.size(); ++i)
                CHECK(order[i] == i);
        }
    }
}

TEST_CASE(
    "A join on a curve or nearer than 12 mm to a bend is told, all round the loop and over its beginning; farther "
    "away it is not")
{
    int told = 0, clear = 0, first = 0;
    const auto tryAll = [&](const Design& d) {
        const Pattern p = medium(d);
        std::set<std::string> names;
        for (const auto& f : checkAll(d, draftAll(d)))
            if (f.check == "join" && f.size == p.size)
                names.insert(words(f.subject));
        for (const auto& seam : p.seams) {
            if (seam.key != "front-loop" && seam.key != "back-loop")
                continue;
            // Measured on the face: walk 12 mm on from the join and 12 mm back, by way of the whole outline.
            Run rim;
            for (const auto& use : seam.a)
                for (const auto& s : p.runOf(use))
                    rim.push_back(s);
            const double girth = lengthOf(rim);
            const auto bent = [&](double at) {
                const Point t = tangentAlong(rim, at);
                for (double k = -11.95; k < 11.95; k += 0.05) {
                    const Point u = tangentAlong(rim, std::fmod(at + k + girth, girth));
                    if (distance(t, u) > 0.001)
                        return true;
                }
                return false;
            };
            double at = 0;
            for (std::size_t i = 0; i < seam.b.size(); ++i) {
                const EdgeUse &here = seam.b[i], &before = seam.b[(i + seam.b.size() - 1) % seam.b.size()];
                const std::string name = p.piece(before.piece)->code + " " + words(p.piece(before.piece)->name)
                    + " and " + p.piece(here.piece)->code + " " + words(p.piece(here.piece)->name) + ", seam “"
                    + words(seam.name);
                const bool found = std::any_of(names.begin(), names.end(),
                    [&](const std::string& n) { return n.find(name) != std::string::npos; });
                const bool expected = bent(at);
                INFO(name << " at " << at << " of " << girth);
                CHECK(found == expected);
                ++(expected ? told : clear);
                first += i == 0 && expected;
                at += lengthOf(p.runOf(here));
            }
        }
    };
    for (const char* side : {"side.left", "side.right", "zip.shift"})
        for (double length = 5; length < 190; length += 7.3) {
            Design d = newDesign("zip-around");
            setChoice(d, "bands", "three");
            try {
                assign(d, std::string(side) + "=" + std::to_string(length));
            } catch (const InputError&) {
                continue; // longer than the outline has room for
            }
            tryAll(d);
        }
    CHECK(told > 20);
    CHECK(clear > 20);
    CHECK(first > 3);

    Design satchel = newDesign("gusseted-satchel");
    setChoice(satchel, "gusset.strips", "three");
    assign(satchel, "gusset.side=225");
    const auto on = foundBy("join", satchel);
    REQUIRE(!on.empty());
    CHECK_THAT(words(on.front().text), Contains("it meets a curve of radius 45"));
}

TEST_CASE("After the dry run just the pieces that have interlinings are told to have them")
{
    forEveryDesign([](const std::string& name, const Design& d) {
        const Pattern p = medium(d);
        const auto states = dryRun(p, orderOf(d, p));
        REQUIRE(!states.empty());
        std::set<PieceId> with;
        for (const auto& piece : p.pieces)
            if (!piece.layers.empty())
                with.insert(piece.key);
        INFO(name);
        CHECK(std::set<PieceId>(states.back().layers.begin(), states.back().layers.end()) == with);
    });
}

TEST_CASE("A thing a little too thick for the bag is told once, not for the mouth as well")
{
    Design d = newDesign("gusseted-satchel");
    assign(d, "depth.mouth=" + std::to_string(medium(d).values.at("depth.mouth") / 2));
    int mouth = 0, thick = 0;
    for (double t = 20; t < 140; t += 0.25) {
        d.carried = {{.name = "box", .width = 230, .height = 100, .thickness = t, .place = "main"}};
        const auto found = foundBy("carried", d);
        const bool tooThick = std::any_of(found.begin(), found.end(),
            [](const Finding& f) { return words(f.text).find("thick") != std::string::npos; });
        const bool noWay = std::any_of(found.begin(), found.end(),
            [](const Finding& f) { return words(f.text).find("mouth") != std::string::npos; });
        INFO(t);
        CHECK(!(tooThick && noWay));
        mouth += noWay, thick += tooThick;
    }
    CHECK(mouth > 0);
    CHECK(thick > 0);
}

TEST_CASE("A label keeps 15 mm of its face on either side")
{
    for (const Form* form : forms()) {
        Design d = newDesign(form->id());
        try {
            addFeature(d, "label");
        } catch (const InputError&) {
            continue;
        }
        const DesignSpec& spec = specOf(d);
        const Values values = evaluate(d, spec, sizeIndex(d, d.baseSize));
        const std::string face = spec.meant("face.width", "label.width");
        CHECK(rangeOf(*spec.dimension("label.width"), values).max == Approx(medium(d).values.at(face) - 30));
    }
}

TEST_CASE("A free edge that runs over bends both ways, against their order, shows its thickness once")
{
    for (const bool against : {false, true}) {
        Pattern p;
        p.materials = {{"shell", "canvas-12"}};
        Piece piece{.key = "a", .code = "A", .material = "shell"};
        const std::vector<Point> corners{{0, 0}, {60, 0}, {60, 40}, {0, 40}};
        for (std::size_t i = 0; i < 4; ++i)
            piece.edges.push_back({"side " + std::to_string(i), lineRun({corners[i], corners[(i + 1) % 4]}), 10, {}});
        p.pieces = {piece};
        Folder f(p);
        f.lay(
            "a",
            [](Point q) {
                return Vec3{q.x, q.y, 0};
            },
            against ? std::vector<double>{40, 20} : std::vector<double>{20, 40},
            against ? std::vector<double>{30, 10} : std::vector<double>{10, 30});
        const Mockup m = f.finish({});
        double length = 0;
        for (const auto& facet : m.facets)
            if (facet.kind == "edge") {
                const Vec3 along = facet.corners[1] - facet.corners[0];
                length += std::sqrt(dot(along, along));
            }
        CHECK(length == Approx(200));
    }
}
