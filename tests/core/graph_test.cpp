// SPDX-License-Identifier: GPL-3.0-or-later
// Steps as a graph, orders of the user, materials, stock and findings over all sizes.
#include "buildup/layers.hpp"
#include "checks/finding.hpp"
#include "cutting/cut_list.hpp"
#include "editing/edits.hpp"
#include "library/library.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"
#include "units/error.hpp"

#include <catch2/catch.hpp>

#include <random>
#include <set>

using namespace tectonis;

namespace {

/// Combinations of the form's choices, drawn so that any two choices meet in each of their ways many times over; and
/// every choice of every feature by itself.
std::vector<Design> everyChoice()
{
    std::vector<Design> out{satchel()}, single;
    for (const auto& c : specOf(satchel()).choices) {
        const auto is = [&](const char* what) { return c.name.find(what) != std::string::npos; };
        if (is(".site") || is(".way") || is(".joins") || is(".mount") || is(".closure") || is(".sides") || is(".worn")
            || is(".ends") || is(".teeth") || is(".sold") || is(".opens") || is(".under")) {
            for (const auto& [value, label] : c.options) {
                if (value.find('.') != std::string::npos || (is(".site") && value.ends_with("left"))
                    || (is(".site") && value.ends_with("right")))
                    continue; // too small for some: parts_on_parts_test.cpp, side_walls_test.cpp
                single.push_back(satchel());
                single.back().choices[c.name] = value;
            }
            continue;
        }
        std::vector<Design> next;
        for (const auto& d : out)
            for (const auto& [value, label] : c.options) {
                if (value.starts_with("unlined")) // its parts sit on the lining: unlined_test.cpp
                    continue;
                Design one = d;
                one.choices[c.name] = value;
                next.push_back(one);
            }
        out = next;
    }
    std::mt19937 random(17);
    std::shuffle(out.begin() + 1, out.end(), random);
    if (out.size() > 240)
        out.resize(240);
    out.insert(out.end(), single.begin(), single.end());
    return out;
}

} // namespace

TEST_CASE("Any combination of choices drafts, keeps its rules and ends in one bag")
{
    const auto designs = everyChoice();
    CHECK(designs.size() > 2 * 3 * 2 * 2 * 2 * 2);
    for (const auto& d : designs) {
        const auto patterns = draftAll(d);
        const Findings findings = checkAll(d, patterns);
        const bool neverMeets = d.choices.at("snap.site")
                == d.choices.at("flap.site")               // the snap on the face that its flap hangs from
            || d.choices.at("connectors.sides") != "both"; // the strap has one ring alone
        // Of canvas folded twice an end that is turned under, or two that lie on each other, are too thick.
        const bool thickEnd = d.choices.at("strap.under") == "turned" || d.choices.at("strap.worn") == "wrist";
        // Dropped in, shell and lining lie twice round the connectors: with layers to the edge 8.3 mm, where the
        // machine takes 8.
        const bool droppedIn = d.choices.at("assembly") == "drop-in";
        const bool wrong = std::any_of(
            findings.begin(), findings.end(), [](const Finding& f) { return f.severity == Severity::Error; });
        CHECK((wrong == (neverMeets || thickEnd) || droppedIn));
        for (const auto& f : findings)
            if (f.severity == Severity::Error)
                CHECK(
                    (f.check == "snap" || f.check == "strap-rings" || ((thickEnd || droppedIn) && f.check == "bulk")));
        for (const auto& p : patterns) {
            const auto order = orderOf(d, p);
            CHECK(brokenRules(p, order).empty());
            CHECK(dryRun(p, order).back().parts == std::vector<WorkId>{"bag"});
            // Steps name real seams, pieces and fittings; ids are their own.
            std::set<std::string> ids;
            for (const auto& s : p.steps) {
                INFO(s.id);
                CHECK(ids.insert(s.id.text()).second);
                CHECK(!told(p, s).text.empty());
                CHECK(minutesOf(p, s).result > 0);
                for (const auto& key : s.seams)
                    CHECK(p.seam(key));
                for (const auto& key : s.pieces)
                    CHECK(p.piece(key));
                for (const auto& key : s.fittings)
                    CHECK(std::any_of(
                        p.fittings.begin(), p.fittings.end(), [&](const Fitting& f) { return f.key == key; }));
            }
            // Every construction seam is sewn in some step.
            for (const auto& seam : p.seams)
                CHECK(std::any_of(p.steps.begin(), p.steps.end(), [&](const Step& s) {
                    return std::find(s.seams.begin(), s.seams.end(), seam.key) != s.seams.end();
                }));
        }
    }
}

TEST_CASE("Links go forward in the proposed order, and the graph has one end for the bag")
{
    const Design d = satchel();
    const Pattern p = draftAll(d)[1];
    std::set<std::size_t> used;
    for (const auto& l : linksOf(p)) {
        CHECK(l.before < l.after);
        used.insert(l.before);
    }
    for (std::size_t i = 0; i + 1 < p.steps.size(); ++i) {
        INFO(p.steps[i].id);
        CHECK(used.contains(i)); // nothing is made and then forgotten
    }
}

TEST_CASE("A user's order: kept where it names steps, new steps find their place, foreign names are passed over")
{
    Design d = satchel();
    const Pattern p = draftAll(d)[1];
    std::vector<std::string> ids;
    for (const auto& s : p.steps)
        ids.push_back(s.id.text());
    std::mt19937 random(3);
    for (int i = 0; i < 50; ++i) {
        std::shuffle(ids.begin(), ids.end(), random);
        d.stepOrder.assign(ids.begin(), ids.begin() + long(ids.size() / 2));
        d.stepOrder.push_back("a step of another bag");
        const auto order = orderOf(d, p);
        CHECK(std::set<std::size_t>(order.begin(), order.end()).size() == p.steps.size());
        std::vector<std::size_t> at;
        for (const auto& id : d.stepOrder)
            for (std::size_t k = 0; k < order.size(); ++k)
                if (p.steps[order[k]].id == id)
                    at.push_back(k);
        CHECK(std::is_sorted(at.begin(), at.end()));
        // Whatever the order, the rules answer and name real steps.
        for (const auto& b : brokenRules(p, order)) {
            CHECK(b.early < p.steps.size());
            CHECK(!b.reason.empty());
        }
    }
}

TEST_CASE("A broken order is a finding that mends itself")
{
    Design d = satchel();
    d.stepOrder = {"close", "turn"};
    const auto found = checkAll(d, draftAll(d));
    REQUIRE(!found.empty());
    CHECK(found.front().check == "sequence");
    REQUIRE(found.front().repair);
    CHECK(found.front().repair->proposedOrder);
}

TEST_CASE("Findings come worst first, with the size they were found in")
{
    Design d = satchel();
    setDimension(d, "strap.length", "700");
    setDimension(d, "connectors.width", "40");
    setDimension(d, "opening.length", "95");
    const auto found = checkAll(d, draftAll(d));
    CHECK(found.size() > 3);
    CHECK(std::is_sorted(
        found.begin(), found.end(), [](const Finding& a, const Finding& b) { return a.severity < b.severity; }));
    for (const auto& f : found) {
        CHECK(std::find(d.sizes.begin(), d.sizes.end(), f.size) != d.sizes.end());
        CHECK(!f.stage.empty());
        CHECK(words(f.text).size() > 20);
    }
    // The texts follow the reader's unit.
    CHECK(words(found.front().text, Unit::Inch).find(" in") != std::string::npos);
    CHECK(words(found.front().text).find(" mm") != std::string::npos);
}

TEST_CASE("Every offered repair that changes a dimension leaves its finding gone in that size")
{
    Design d = satchel();
    setDimension(d, "connectors.width", "40");
    setDimension(d, "strap.width", "20");
    setDimension(d, "opening.length", "70");
    d.carried.push_back({"Tall flask", 70, 260, 70, "main"});
    int mended = 0;
    for (const auto& f : checkAll(d, draftAll(d))) {
        if (!f.repair || f.repair->assignments.empty())
            continue;
        Design next = d;
        for (const auto& a : f.repair->assignments) {
            const auto equals = a.find('=');
            setDimension(next, a.substr(0, equals), a.substr(equals + 1), {}, Unit::Mm, f.size);
        }
        INFO(f.size << " " << words(f.subject) << ": " << words(f.repair->label));
        for (const auto& g : checkAll(next, draftAll(next)))
            CHECK_FALSE((g.check == f.check && g.size == f.size && words(g.subject) == words(f.subject)
                && words(g.text) == words(f.text)));
        ++mended;
    }
    CHECK(mended >= 6);
}

TEST_CASE("Materials: ids are their own, values are in range, unknown ones are refused")
{
    std::set<std::string> ids;
    for (const auto& m : Library::builtIn()->materials()) {
        INFO(m.id);
        CHECK(ids.insert(m.id).second);
        CHECK(m.thickness > 0);
        CHECK(m.compressed > 0);
        CHECK(m.compressed <= 1);
        CHECK(m.underFoot() <= m.thickness);
    }
    CHECK(material("unobtainium").standIn);
    // Loft is crushed to about a quarter to a third under the foot (common practice, no source).
    for (const char* id : {"foam-sewin", "fleece-fusible"}) {
        CHECK(material(id).compressed >= 0.25);
        CHECK(material(id).compressed <= 1.0 / 3);
    }
    for (const auto& [name, table] : Library::builtIn()->contents().stock) {
        CHECK(std::is_sorted(table.values.begin(), table.values.end()));
        for (const double v : table.values)
            CHECK(snapToStock(table, v) == v);
    }
}

TEST_CASE("Every material of the right use can be chosen for shell and lining; heat is told where it harms")
{
    for (const auto& m : Library::builtIn()->materials()) {
        if (m.use != "face")
            continue;
        Design d = satchel();
        setMaterial(d, "shell", m.id);
        const auto found = checkAll(d, draftAll(d));
        const bool heat = std::any_of(found.begin(), found.end(), [](const Finding& f) { return f.check == "heat"; });
        INFO(m.id);
        CHECK(heat == !m.heat); // the flap is fused by default
    }
}

TEST_CASE("Layer rules: a piece's own go before its role's; trims are read or refused")
{
    Design d = satchel();
    d.layers.push_back({"back.lower", "stabiliser-firm", "basted", "inset 3", {}, ""});
    const Pattern p = draftAll(d)[1];
    REQUIRE(p.piece("back.lower")->layers.size() == 1);
    CHECK(p.piece("back.lower")->layers[0].material == "stabiliser-firm");
    CHECK(p.piece("front")->layers[0].material == "foam-sewin");
    const Box stitch = boundsOf(p.piece("back.lower")->stitch()),
              layer = boundsOf(p.piece("back.lower")->layers[0].outline);
    CHECK(layer.height() == Approx(stitch.height() - 6));
    CHECK(trimReach("full", 9.5) == 9.5);
    CHECK(trimReach("stitch", 9.5) == 0);
    CHECK(trimReach("inset 1/8in", 9.5) == Approx(-3.175));
    for (const char* bad : {"", "half", "inset", "inset wide"})
        CHECK_THROWS_AS(trimReach(bad, 9.5), InputError);
}

TEST_CASE("The cut list has every piece and interlining, with the counts to cut")
{
    for (const auto& p : draftAll(satchel())) {
        const auto items = cutItems(p);
        std::size_t layers = 0;
        for (const auto& piece : p.pieces)
            layers += piece.layers.size();
        CHECK(items.size() == p.pieces.size() + layers);
        std::size_t inMarkers = 0;
        for (const auto& m : makeMarkers(p))
            inMarkers += m.items.size();
        CHECK(inMarkers == items.size());
        std::set<std::string> codes;
        for (const auto& i : items) {
            CHECK(codes.insert(i.code).second);
            CHECK(areaOf(i.outline) > 0);
        }
    }
}
