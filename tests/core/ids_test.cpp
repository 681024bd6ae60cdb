// SPDX-License-Identifier: GPL-3.0-or-later
// Identities: one kind is not another, two owners do not collide, every reference leads somewhere.
#include "drawn.hpp"
#include "every_design.hpp"

#include "edition/edition.hpp"
#include "formats/design_file.hpp"
#include "forms/form.hpp"
#include "parallel/parallel.hpp"
#include "pattern/references.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"
#include "units/error.hpp"

#include <catch2/catch.hpp>

#include <set>

using namespace tectonis;

// An edge is no piece, a seam is no step; a part stands for its main piece, a piece for itself on the table.
static_assert(!std::is_convertible_v<PieceId, EdgeId> && !std::is_convertible_v<EdgeId, PieceId>);
static_assert(!std::is_convertible_v<SeamId, StepId> && !std::is_convertible_v<FittingId, ZipId>);
static_assert(!std::is_convertible_v<PieceId, PartId> && !std::is_convertible_v<PieceId, std::string>);
static_assert(std::is_convertible_v<PartId, PieceId> && std::is_convertible_v<PieceId, WorkId>);
static_assert(!std::is_convertible_v<WorkId, PieceId>);

TEST_CASE("An id is its owner and its name; its text is what files hold")
{
    const PieceId form("flap"), part = PartId("flap"), outer = OwnName{"flap", "outer"}, dotted("flap.outer");
    CHECK(form != part);
    CHECK(outer != dotted);
    CHECK(form.text() == part.text());
    CHECK(outer.text() == dotted.text());
    CHECK(outer.owner() == PartId("flap"));
    CHECK(dotted.owner().empty());
    CHECK(part.owner() == "flap");
    CHECK(PieceId("back").sub("lower") == PieceId("back.lower"));
    CHECK(part.sub("outer") == outer);
    CHECK(lined(PieceId("back.lower")) == PieceId("lining.back.lower"));
    CHECK(PieceId().empty());
    CHECK_FALSE(PieceId(""));
    CHECK(PieceId("a") < PieceId("b"));
    CHECK(std::set<PieceId>{form, part, outer, dotted}.size() == 4);
    // Made by several threads at once they are the same.
    std::vector<std::vector<PieceId>> made(16);
    forEachIndex(made.size(), [&](std::size_t i) {
        for (int k = 0; k < 500; ++k)
            made[i].push_back(OwnName{"owner" + std::to_string(k % 7), "piece" + std::to_string(k)});
    });
    for (const auto& each : made)
        CHECK(each == made.front());
}

TEST_CASE("Every reference to a piece leads to one, in every design and size")
{
    int seen = 0;
    forEveryDesign([&](const std::string& name, const Design& d) {
        for (Pattern p : draftAll(d)) {
            struct {
                const Pattern& p;
                int& seen;
                void look(const PieceId& id) const
                {
                    ++seen;
                    if (!p.piece(id))
                        FAIL_CHECK("no piece " << id.text());
                }
                void run(std::vector<EdgeUse>& side) const
                {
                    for (const auto& use : side) {
                        look(use.piece);
                        if (!p.runBehind(use))
                            FAIL_CHECK("no edge " << use.edge.text() << " of " << use.piece.text());
                    }
                }
                void list(std::vector<PieceId>& pieces) const
                {
                    for (const auto& id : pieces)
                        look(id);
                }
                void spot(PieceId& id, Point) const { look(id); }
                void name(PieceId& id) const
                {
                    if (id)
                        look(id);
                }
            } const visit{p, seen};
            INFO(name << ", size " << p.size);
            forEachReference(p, p.steps, visit);
            for (const auto& place : p.places)
                CHECK(std::any_of(
                    d.features.begin(), d.features.end(), [&](const Feature& f) { return place.feature == f.id; }));
            // What a part owns is called by it, and nothing is owned by a part that there is not.
            for (const auto& piece : p.pieces)
                CHECK(
                    (piece.owner().empty() || std::any_of(d.features.begin(), d.features.end(), [&](const Feature& f) {
                        return piece.owner() == f.id;
                    })));
        }
    });
    CHECK(seen > 10000);
}

TEST_CASE("A part may be called as anything of the form: both are kept apart in everything that is told")
{
    int tried = 0, refused = 0;
    for (const Form* form : forms()) {
        const Design plain = newDesign(form->id());
        if (plain.features.empty())
            continue;
        const std::string part = plain.features.front().id;
        std::set<std::string> names;
        const Pattern own = medium(plain);
        for (const auto& piece : own.pieces)
            if (piece.owner().empty() && piece.key.text().find_first_of(". ") == std::string::npos)
                names.insert(piece.key.text());
        for (const auto& name : names) {
            // As a hand would rename it in the file.
            std::string text = designText(plain);
            const auto all = [&](const std::string& from, const std::string& to) {
                for (std::size_t at = 0; (at = text.find(from, at)) != std::string::npos; at += to.size())
                    text.replace(at, from.size(), to);
            };
            all("\"" + part + "\"", "\"" + name + "\"");
            all("\"" + part + ".", "\"" + name + ".");
            INFO(form->id() << ": “" << part << "” called “" << name << "”");
            Design d;
            try {
                d = designFromText(text, "renamed");
            } catch (const InputError& e) {
                // Only where dimensions of both would have one name in the file.
                CHECK_THAT(e.what(), Catch::Matchers::Contains("name"));
                ++refused;
                continue;
            }
            ++tried;
            const auto all3 = draftAll(d);
            for (const Pattern& p : all3) {
                for (const auto& seam : p.seams)
                    CHECK(std::abs(seam.difference()) < 0.01);
                CHECK(brokenRules(p, orderOf(d, p)).empty());
                CHECK(dryRun(p, orderOf(d, p)).back().parts == std::vector<WorkId>{"bag"});
                CHECK(mockupOf(d, p).largestGap < 1);
                CHECK(p.pieces.size() == own.pieces.size());
            }
            std::vector<const Pattern*> sizes;
            for (const auto& p : all3)
                sizes.push_back(&p);
            const Edition edition(d, sizes);
            for (const auto& row : edition.cutList())
                for (const CutItem* item : row.in)
                    if (item)
                        CHECK(item->code == row.any().code);
        }
    }
    CHECK(tried > 13);
    CHECK(refused > 5);
}
