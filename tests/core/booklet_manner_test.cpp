// SPDX-License-Identifier: GPL-3.0-or-later
// A booklet for learners or for the practised, in one unit or two; why a step stands where it does.
#include "booklet/booklet.hpp"
#include "editing/draft.hpp"
#include "editing/edits.hpp"
#include "every_design.hpp"
#include "features/spec_of.hpp"
#include "library/library.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/told.hpp"
#include "units/length.hpp"

#include <catch2/catch.hpp>

#include <regex>

using namespace tectonis;
using Catch::Contains;

TEST_CASE("For the practised a booklet says what is done; how, and why now, is for learners")
{
    const Design d = newDesign("gusseted-satchel");
    const auto patterns = draftAll(d);
    const Booklet full = bookletOf(d, {&patterns[1]}, Unit::Mm),
                  terse = bookletOf(d, {&patterns[1]}, Unit::Mm, Language::english(), {true, {}});
    REQUIRE(full.steps.size() == terse.steps.size());
    int shorter = 0, reasons = 0;
    for (std::size_t i = 0; i < full.steps.size(); ++i) {
        INFO(full.steps[i].title);
        CHECK(!terse.steps[i].text.empty());
        CHECK(terse.steps[i].text.size() <= full.steps[i].text.size());
        shorter += terse.steps[i].text.size() < full.steps[i].text.size();
        reasons += !full.steps[i].why.empty();
        CHECK(terse.steps[i].why.empty());
        CHECK(terse.steps[i].cautions == full.steps[i].cautions); // safety is for everybody
        CHECK(terse.steps[i].facts == full.steps[i].facts);
    }
    CHECK(shorter > 5);
    CHECK(reasons > 5);
    CHECK_THAT(full.steps.front().why, Contains("before a piece is joined"));
}

TEST_CASE("Lengths in two units say the same, by the inch of 25.4 mm (NIST SP 811, from memory)")
{
    Design d = newDesign("boxed-corner");
    const auto patterns = draftAll(d);
    const std::regex both(R"((\d+(?:\.\d+)?) mm \((?:≈ )?([0-9 /]+) in\))");
    for (const Unit own : {Unit::Mm, Unit::Inch}) {
        const Booklet b = bookletOf(d, {&patterns[0], &patterns[1]}, own, Language::english(),
            {false, own == Unit::Mm ? Unit::Inch : Unit::Mm});
        int found = 0;
        for (const auto& step : b.steps) {
            INFO(step.text);
            if (own == Unit::Mm)
                for (std::sregex_iterator it(step.text.begin(), step.text.end(), both), end; it != end; ++it) {
                    ++found;
                    CHECK(std::abs(parseLength((*it)[2].str() + " in") - std::stod((*it)[1])) <= 25.4 / 32 + 0.25);
                }
            else
                found += step.text.find(" mm)") != std::string::npos;
        }
        CHECK(found > 3);
        // Bare numbers of tables as well, and their notes say so.
        const auto cut = std::find_if(
            b.before.begin(), b.before.end(), [](const BookletTable& t) { return t.heading == "Cut list"; });
        REQUIRE(cut != b.before.end());
        CHECK_THAT(cut->note, Contains(own == Unit::Mm ? "mm (in)" : "in (mm)"));
        CHECK_THAT(cut->rows[1].back(), Contains("("));
    }
}

TEST_CASE("What binds a step breaks when the step is put on the other side of what it is bound to", "[.long]")
{
    int bound = 0;
    everyPattern([&](const std::string&, const Design& d, const Pattern& p) {
        const auto order = orderOf(d, p);
        for (const auto step : order)
            for (const auto& binding : bindingsOf(p, order, step)) {
                ++bound;
                auto moved = order;
                std::erase(moved, step);
                const auto other = std::find(moved.begin(), moved.end(), binding.other);
                moved.insert(binding.before ? other + 1 : other, step);
                const auto broken = brokenRules(p, moved);
                INFO(d.form << ": " << p.steps[step].id << (binding.before ? " before " : " after ")
                            << p.steps[binding.other].id << ", " << words(binding.reason));
                CHECK(std::any_of(broken.begin(), broken.end(), [&](const BrokenRule& b) {
                    return binding.before ? b.early == binding.other && b.late == step
                                          : b.early == step && b.late == binding.other;
                }));
            }
    });
    CHECK(bound > 1000);
}

TEST_CASE("Needles: of the thickest cloth of a step, or the material's own; the booklet lists them all")
{
    Design d = newDesign("gusseted-satchel");
    const auto needles = [&] {
        std::set<int> out;
        const Pattern p = draftAll(d)[1];
        for (const auto& step : p.steps) {
            const StepWords said = told(p, step);
            const std::string stitch = words(said.stitch);
            INFO(step.id.text() << ": " << stitch);
            CHECK((said.needle > 0) == (stitch.find("needle") != std::string::npos));
            if (said.needle > 0)
                out.insert(said.needle);
            int most = 0;
            for (const auto& id : step.pieces)
                if (const Piece* piece = p.piece(id))
                    most = std::max(most, needleOf(p.material(p.materials.at(piece->material))));
            if (said.needle > 0)
                CHECK(said.needle == most);
        }
        return out;
    };
    CHECK(needles() == std::set<int>{80, 100}); // lining cotton; canvas
    const auto patterns = draftAll(d);
    const Booklet b = bookletOf(d, {&patterns[1]}, Unit::Mm);
    CHECK(std::ranges::count(b.facts, "Needles: 80, 100") == 1);

    setMaterial(d, "shell", "leather-4oz");
    const Pattern p = draftAll(d)[1];
    CHECK_THAT(words(told(p, *p.step("mouth")).stitch), Contains("needle 100, leather point"));
    // A material's own number stands before its class.
    Library::Contents mine = d.library->contents();
    for (auto& m : mine.materials)
        if (m.id == "lining-cotton")
            m.needle = 65;
    d.library = SharedLibrary(Library(mine));
    CHECK(needles() == std::set<int>{65, 100});
    for (const auto& m : Library::builtIn()->materials())
        CHECK((needleOf(m) == 0) == (m.use == "interlining"));
}
