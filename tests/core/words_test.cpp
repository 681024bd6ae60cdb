// SPDX-License-Identifier: GPL-3.0-or-later
// Messages as values, read in the reader's unit and language; the test language (made from what is collected for
// translators by GNU gettext) proves that nothing that a check says is left English.
#include "drawn.hpp"
#include "every_design.hpp"
#include "process.hpp"
#include "random_design.hpp"

#include "buildup/bulk.hpp"
#include "buildup/layers.hpp"
#include "checks/finding.hpp"
#include "pattern/walk.hpp"
#include "sequence/order.hpp"
#include "units/error.hpp"
#include "words/language.hpp"

#include <random>
#include <set>

using namespace tectonis;
using Catch::Contains;

namespace {

const Language& testLanguage()
{
    static const Language language = Language::fromCatalogue("test", slurp(TECTONIS_TEST_LANGUAGE));
    return language;
}

/// A compiled catalogue of these entries, by msgfmt.
Language compiled(const std::string& po)
{
    const Scratch folder("catalogue");
    std::ofstream(folder / "x.po") << "msgid \"\"\nmsgstr \"Content-Type: text/plain; charset=UTF-8\\n\"\n" + po;
    REQUIRE(shell("msgfmt " + (folder / "x.po") + " -o " + (folder / "x.mo")).code == 0);
    return Language::fromCatalogue("x", slurp(folder / "x.mo"));
}

/// Every source in a message that is a translator's to put into words.
void sourcesOf(const Message& m, std::set<std::string>& out)
{
    if (m.source() != "{}" && m.source() != "{} {}" && !m.empty())
        out.emplace(m.source());
    for (const auto& a : m.arguments())
        if (const auto* inner = std::get_if<Message>(&a))
            sourcesOf(*inner, out);
        else if (const auto* label = std::get_if<Label>(&a))
            out.insert(label->source);
}

} // namespace

TEST_CASE("A message is worded in the reader's unit and language; a translation may turn its arguments round")
{
    const Message m = say("it is {} too wide for {}", Len(12.5), std::string("{0} ÄÖ"));
    CHECK(words(m) == "it is 12.5 mm too wide for {0} ÄÖ");
    CHECK(words(m, Unit::Cm) == "it is 1.25 cm too wide for {0} ÄÖ");
    const Language x = compiled(
        "\"X-Decimal: ,\\n\"\n\nmsgid \"it is {} too wide for {}\"\nmsgstr \"für {1} um {0} zu breit\"\n\n"
        "msgid \"front\"\nmsgstr \"vorn\"\n");
    CHECK(words(m, Unit::Mm, x) == "für {0} ÄÖ um 12,5 mm zu breit");
    CHECK(words(say("it is {} too wide for {}", Len(12.7), std::string("X")), Unit::Inch, x)
        == "für X um 1/2 in zu breit");
    CHECK(words(say("{}: {}", label("front"), m), Unit::Mm, x) == "vorn: für {0} ÄÖ um 12,5 mm zu breit");
    CHECK(words(say("not in it {}", Num(1.25)), Unit::Mm, x) == "not in it 1,25");
    CHECK(words(together(m, say("So."))) == words(m) + " So.");
    CHECK(together(Message(), m) == m);
    // Lengths that rounding would make alike are written in full.
    CHECK(words(say("{} is not {}", Len(12.96, 13), Len(13))) == "12.96 mm is not 13 mm");
    CHECK(words(say("{} of {}", 3, std::size_t(7))) == "3 of 7");
    CHECK(words(say("no {brace} is an argument {}", 1)) == "no {brace} is an argument 1");
}

TEST_CASE("Counted things have their plural forms, as the language counts")
{
    const auto places = [](int n) { return saySome("one place", "{} places", n, n); };
    CHECK(words(places(1)) == "one place");
    CHECK(words(places(2)) == "2 places");
    CHECK(words(places(0)) == "0 places");
    const std::string entry =
        "\nmsgid \"one place\"\nmsgid_plural \"{} places\"\nmsgstr[0] \"{0} Ort\"\nmsgstr[1] \"{0} Orte\"\n";
    const Language german = compiled("\"Plural-Forms: nplurals=2; plural=(n != 1);\\n\"\n" + entry);
    CHECK(words(places(1), Unit::Mm, german) == "1 Ort");
    CHECK(words(places(0), Unit::Mm, german) == "0 Orte");
    const Language french = compiled("\"Plural-Forms: nplurals=2; plural=(n > 1);\\n\"\n" + entry);
    CHECK(words(places(0), Unit::Mm, french) == "0 Ort");
    CHECK(words(places(1), Unit::Mm, french) == "1 Ort");
    CHECK(words(places(2), Unit::Mm, french) == "2 Orte");
}

TEST_CASE("A catalogue that is broken, or asks for what its source has not, is refused; no bytes end the program")
{
    CHECK_THROWS_AS(Language::fromCatalogue("x", ""), InputError);
    CHECK_THROWS_AS(Language::fromCatalogue("x", "hello, this is no catalogue at all"), InputError);
    CHECK_THROWS_WITH(compiled("\nmsgid \"it is {} wide\"\nmsgstr \"breit: {1}\"\n"), Contains("{1}"));
    const std::string good = slurp(TECTONIS_TEST_LANGUAGE);
    std::mt19937 random(5);
    for (int i = 0; i < 400; ++i) {
        std::string bad = i % 3 ? good : good.substr(0, random() % good.size());
        for (unsigned n = 0; i % 3 && n < 1 + random() % 5; ++n)
            bad[random() % std::min<std::size_t>(bad.size(), i % 2 ? bad.size() : 600)] = char(random());
        try {
            Language::fromCatalogue("x", bad);
        } catch (const InputError&) {}
    }
    SUCCEED();
}

TEST_CASE("Messages are alike only where all of them is; refusals say place and problem in any language")
{
    const Message one = say("cut {} of {}", 1, label("shell"));
    CHECK(one == say("cut {} of {}", 1, label("shell")));
    CHECK(one != say("cut {} of {}", 2, label("shell")));
    CHECK(one != say("cut {} of {}", 1, label("lining")));
    CHECK(one != say("cut {}", 1));
    CHECK(within(one) != one);
    CHECK(saySome("one", "{} of them", 2, 2) != saySome("one", "{} of them", 3, 3));
    Message copy = one;
    copy = copy.withArguments({2, label("shell")});
    CHECK(one == "cut 1 of shell"); // what shares arguments is not changed with it
    CHECK(copy == "cut 2 of shell");

    const InputError refusal(say("{} in size {}", std::string("depth"), std::string("M")), outside(1.5, 2, 3));
    CHECK(std::string(refusal.what()) == "depth in size M: 1.5 mm is outside the allowed 2 mm to 3 mm");
    CHECK(words(refusal.said(), Unit::Mm, testLanguage()).find("1,5 mm") != std::string::npos);
    CHECK(words(refusal.at("x").said()) == "x: 1.5 mm is outside the allowed 2 mm to 3 mm");
    CHECK(outside(std::nan(""), 0, 1, "%") == "that is outside the allowed 0 to 1 %");
    CHECK(testLanguage().fixed(2, 2) == "2,00");
    CHECK(testLanguage().number(2.5, 1) == "2,5");
    CHECK(testLanguage().lengthBare(12.5, Unit::Mm) == "12,5");
}

TEST_CASE("Whatever the checks say of any design is in the catalogue, and in the test language none of it is English",
    "[.long]")
{
    std::set<std::string> sources;
    std::size_t findings = 0;
    const auto look = [&](const Findings& found) {
        for (const auto& f : found) {
            ++findings;
            for (const Message* m : {&f.subject, &f.text})
                sourcesOf(*m, sources);
            if (f.repair)
                sourcesOf(f.repair->label, sources);
            const std::string said = words(f.text, Unit::Mm, testLanguage());
            INFO(words(f.text) << " | " << said);
            CHECK(said.starts_with("⟦"));
            for (const auto& a : f.text.arguments())
                if (const auto* length = std::get_if<Len>(&a); length && !length->than) {
                    std::string shown = formatLength(length->mm, Unit::Mm);
                    std::replace(shown.begin(), shown.end(), '.', ',');
                    CHECK_THAT(said, Contains(shown));
                }
        }
    };
    forEveryDesign([&](const std::string&, const Design& d) { look(checkAll(d, draftAll(d))); });
    // Designs that are wrong on purpose: thick, heavy, tiny, crowded.
    std::mt19937 random(11);
    for (int i = 0; i < 400; ++i) {
        int refused = 0;
        Design d = randomDesign(random, refused);
        for (auto& [role, id] : d.materials) {
            const auto& all = d.library->materials();
            id = all[random() % all.size()].id;
        }
        d.carried = {
            {"A", 20.0 + double(random() % 500), 20.0 + double(random() % 500), double(random() % 200), "main"}};
        d.workshop.machineLimit = 1 + double(random() % 8);
        try {
            look(checkAll(d, draftAll(d)));
        } catch (const InputError&) {}
    }
    CHECK(findings > 2000);
    CHECK(sources.size() > 60);
    for (const auto& source : sources) {
        INFO(source);
        CHECK(testLanguage().of(source).starts_with("⟦"));
    }
}

namespace {

/// Everything that a pattern says.
template <class Visit> void forEachMessage(const Pattern& p, const Visit& visit)
{
    for (const auto& piece : p.pieces) {
        visit(piece.name), visit(piece.note);
        for (const auto& n : piece.notches)
            visit(n.label);
        for (const auto& m : piece.drills)
            visit(m.label);
        for (const auto& layer : piece.layers)
            visit(layer.trim);
    }
    for (const auto& seam : p.seams) {
        visit(seam.name), visit(seam.easeNote);
        for (const auto& stop : walked(p, seam))
            visit(stop.what);
        const Bulk bulk = bulkAt(p, seam);
        visit(bulk.crossing);
        for (const auto& part : bulk.parts)
            visit(part.label(p));
    }
    for (const auto& f : p.fittings)
        visit(f.name), visit(f.through);
    for (const auto& z : p.zips)
        visit(z.name), visit(labelled(z.kind)), visit(labelled(z.opens));
    for (const auto& h : p.hardware)
        visit(labelled(called(h.kind))), visit(h.sizeText), visit(h.finish);
    for (const auto& s : p.straps)
        visit(s.name);
    for (const auto& s : p.spaces)
        visit(s.name);
    for (const auto& s : p.sites)
        visit(s.label);
    for (const auto& s : p.steps) {
        const StepWords said = told(p, s);
        visit(s.title), visit(said.text), visit(said.check);
        for (const auto& c : said.cautions)
            visit(c);
        for (const auto& fact : factsOf(said))
            visit(fact);
    }
    for (const auto& w : p.workings)
        visit(w.label), visit(w.source);
}

/// The names in a message, which are nobody's to translate.
void namesIn(const Message& m, std::set<std::string>& out)
{
    for (const auto& a : m.arguments())
        if (const auto* name = std::get_if<std::string>(&a))
            out.insert(*name);
        else if (const auto* inner = std::get_if<Message>(&a))
            namesIn(*inner, out);
}

} // namespace

TEST_CASE("What pieces, seams, fittings, steps and workings of every design say can be put into another language")
{
    std::set<std::string> sources, names;
    long said = 0;
    forEveryDesign([&](const std::string&, const Design& d) {
        const Pattern p = medium(d);
        std::set<std::string> own; // names of this design's things
        forEachMessage(p, [&](const Message& m) {
            ++said;
            sourcesOf(m, sources);
            namesIn(m, own);
        });
        for (const auto& piece : p.pieces) {
            own.erase(piece.code);
            for (const auto& layer : piece.layers)
                own.erase(layer.code), own.erase(p.material(layer.material).name);
        }
        for (const auto& [role, material] : p.materials)
            own.erase(p.material(material).name);
        for (const auto& f : d.features)
            own.erase(f.id);
        names.merge(own);
    });
    CHECK(said > 100000);
    CHECK(sources.size() > 500);
    for (const auto& source : sources) {
        INFO(source);
        CHECK(testLanguage().of(source).starts_with("⟦"));
    }
    // Nothing of the program's own words goes by as a name.
    for (const auto& name : names)
        FAIL_CHECK("a name: " << name);
}
