// SPDX-License-Identifier: GPL-3.0-or-later
// What is accepted can be saved and read again; what is hostile costs a message; what a later version wrote goes where
// its thing goes.
#include "checks/snags.hpp"
#include "design/limits.hpp"
#include "drawn.hpp"
#include "editing/repair.hpp"
#include "formats/design_file.hpp"
#include "formats/measure_json.hpp"
#include "mockup/carry.hpp"
#include "random_design.hpp"

#include <catch2/catch.hpp>

#include <functional>

using namespace tectonis;
using Catch::Contains;

namespace {

std::string replaced(std::string text, const std::string& from, const std::string& to)
{
    const auto at = text.find(from);
    REQUIRE(at != std::string::npos);
    return text.replace(at, from.size(), to);
}

} // namespace

TEST_CASE("After any accepted edits, saving and opening gives the same design")
{
    std::mt19937 random(20261125);
    int refused = 0, taken = 0;
    for (int i = 0; i < 60; ++i) {
        Design d = randomDesign(random, refused);
        try {
            validate(d);
        } catch (const InputError&) {
            continue; // no edit would have led here
        }
        ++taken;
        const auto number = [&] { return std::ldexp(double(random()) / 4e9, int(random() % 60) - 30); };
        const auto attempt = [&](auto change) {
            Design next = d;
            try {
                change(next);
                validate(next);
                d = next;
            } catch (const InputError&) {
                ++refused;
            }
        };
        for (int k = 0; k < 12; ++k)
            switch (random() % 8) {
            case 0:
                attempt([&](Design& n) {
                    n.trials.push_back({"2026-11-25", "M", "Strap (webbing) “too” short\n½", number(), number(),
                        number(), 0, 0, number() * 1e6, {}});
                });
                break;
            case 1:
                attempt([&](Design& n) {
                    n.carried.push_back({"Tin", number() * 1e4, number(), number(), "main", {}});
                });
                break;
            case 2:
                attempt([&](Design& n) {
                    setRule(n, "width", {SizeRule::Kind::Step, number() * (random() % 2 ? 1 : -1), ""});
                });
                break;
            case 3: attempt([&](Design& n) { setSizes(n, {"小", "S/M", "L*"}, "S/M"); }); break;
            case 4: attempt([&](Design& n) { n.workshop.labourRate = number() * 100; }); break;
            case 5:
                attempt(
                    [&](Design& n) { assign(n, std::string("name=") + (random() % 2 ? "Täsch <b>&" : "\xff\xfe")); });
                break;
            case 6: attempt([&](Design& n) { n.seamEnds["mouth"] = {number(), number(), {}}; }); break;
            default: attempt([&](Design& n) { n.revisions.push_back({"d", "6 mm\ttaller", {}}); }); break;
            }
        const std::string text = designText(d);
        INFO(text);
        const ReadDesign again = readDesign(text, "again");
        CHECK(again.design == d);
        CHECK(again.told.empty());
    }
    CHECK(refused > 0);
    CHECK(taken > 30);
}

TEST_CASE("Numbers beyond all measure are refused with their range, wherever they come from")
{
    const std::string good = designText(newDesign("gusseted-satchel"));
    for (const auto& [from, to] : {std::pair<std::string, std::string>{"\"thickness\": 20", "\"thickness\": 1e999"},
             {"\"thickness\": 20", "\"thickness\": 1e308"}, {"\"labourRate\": 24", "\"labourRate\": -1"},
             {"\"machineLimit\": 8", "\"machineLimit\": 1e300"}})
        CHECK_THROWS_AS(designFromText(replaced(good, from, to), "bag"), InputError);
    Design d = newDesign("gusseted-satchel");
    d.trials.push_back({"2026-11-25", "M", "", 0, 0, 0, 0, 0, 20261112, {}});
    CHECK_THROWS_WITH(validate(d), Contains("trial, minutes") && Contains("0 to 100000"));
    for (const char* width : {"1e308m", "1e999", "99999999999"})
        CHECK_THROWS_AS(setDimension(d, "width", width), InputError);
}

TEST_CASE("Hostile names, depths and chains cost a message", "[.long]")
{
    const std::string good = designText(newDesign("gusseted-satchel"));
    const auto with = [&](const std::string& dimension) {
        return replaced(good, "\"dimensions\": {", "\"dimensions\": {" + dimension + ",");
    };
    for (const char* name : {"inf", "nan", "Infinity", "pi", "mm", "sqrt", "a b", "1a", "", "a.", "a-b", "ä"})
        CHECK_THROWS_WITH(
            designFromText(with("\"" + std::string(name) + "\": {\"value\": \"1\", \"rule\": \"hold\"}"), "bag"),
            Contains("no name for a dimension"));
    CHECK_THROWS_WITH(
        designFromText(
            replaced(good, "{", "{\"x\": " + std::string(100000, '[') + std::string(100000, ']') + ","), "bag"),
        Contains("nested"));
    std::string chain, much;
    for (int i = 0; i < 300; ++i)
        chain += "\"own" + std::to_string(i) + "\": {\"value\": \"own" + std::to_string(i + 1)
            + "\", \"rule\": \"hold\"},";
    chain += "\"own300\": {\"value\": \"1\", \"rule\": \"hold\"}";
    CHECK_THROWS_WITH(designFromText(with(chain), "bag"), Contains("leads through more than"));
    for (int i = 0; i < 20000; ++i)
        much += "\"own" + std::to_string(i) + "\": {\"value\": \"1\", \"rule\": \"hold\"}" + (i < 19999 ? "," : "");
    CHECK_THROWS_WITH(designFromText(with(much), "bag"), Contains("at most 2000"));
    // A part that is called as nothing can be.
    CHECK_THROWS_WITH(designFromText(replaced(good, "\"id\": \"slip\"", "\"id\": \"lining.front\""), "bag"),
        Contains("no name for a part"));
    Design crowd = newDesign("gusseted-satchel");
    for (int i = 0; i < 500; ++i)
        crowd.features.push_back({"slip" + std::to_string(i + 2), "slip-pocket", {}});
    CHECK_THROWS_WITH(validate(crowd), Contains("at most 80"));
    Design many = newDesign("gusseted-satchel");
    for (int i = 0; i < 200; ++i)
        many.carried.push_back({"Thing", 10, 10, 10, "main", {}});
    CHECK_THROWS_WITH(validate(many), Contains("at most 100"));
}

TEST_CASE("A corner patch on a nearly flat corner is refused in words; own dimensions and lacking ones live together, "
          "misspelt ones do not")
{
    Design d = with("polygon", {"sides=8", "side.1=15", "angle.5=171.8"});
    try {
        addFeature(d, "corner-patch");
    } catch (const InputError& e) {
        CHECK_THAT(e.what(), Contains("no corner for a patch"));
    }
    std::string text = designText(newDesign("gusseted-satchel"));
    const auto at = text.find("    \"bow\": {");
    REQUIRE(at != std::string::npos);
    text.erase(at, text.find("},", at) + 2 - at);
    const std::string own = replaced(
        text, "\"dimensions\": {", "\"dimensions\": {\"tool.length\": {\"value\": \"120\", \"rule\": \"hold\"},");
    const ReadDesign read = readDesign(own, "bag.tectonis");
    REQUIRE(read.told.size() == 1);
    CHECK_THAT(words(read.told[0]), Contains("lacks a value") && Contains("bow"));
    CHECK(read.design.dimensions.at("tool.length").value == "120");
    CHECK_THROWS_WITH(readDesign(replaced(text, "\"dimensions\": {",
                                     "\"dimensions\": {\"bowe\": {\"value\": \"0\", \"rule\": \"hold\"},"),
                          "bag"),
        Contains("misspelt"));
}

TEST_CASE("Fields of a later version stay with what they describe, and go with it")
{
    std::string text = designText(newDesign("gusseted-satchel"));
    text = replaced(text, "\"slip.width\": {", "\"slip.width\": {\"why\": \"a phone\",");
    text = replaced(text, "\"id\": \"zip\",", "\"id\": \"zip\", \"pin\": {\"x\": 3},");
    Design d = designFromText(text, "bag");
    CHECK(d.dimensions.at("slip.width").more == "{\"why\":\"a phone\"}");
    removeFeature(d, "slip");
    const std::string again = designText(d);
    CHECK(again.find("why") == std::string::npos);
    const Design back = designFromText(again, "again");
    for (const auto& f : back.features)
        CHECK((f.more.empty() ? "" : f.more) == (f.id == "zip" ? "{\"pin\":{\"x\":3}}" : ""));
}

TEST_CASE("A part never owns a piece of the form: a band on the zip-around is the part's alone")
{
    Design d = newDesign("zip-around");
    const std::size_t before = draftAll(d)[1].pieces.size();
    const std::string id = addFeature(d, "band");
    const Pattern p = draftAll(d)[1];
    CHECK(id != "band");
    REQUIRE(p.piece("band"));
    CHECK(p.piece("band")->owner().empty());
    removeFeature(d, id);
    CHECK(draftAll(d)[1].pieces.size() == before);
    // No refusal speaks of inner names.
    for (const Form* form : forms())
        for (const FeatureKind* kind : featureKinds()) {
            INFO(form->id() << " + " << kind->kind());
            const std::string why = words(whyNotAdd(newDesign(form->id()), kind->kind()));
            CHECK(why.find("no such dimension") == std::string::npos);
            CHECK(why.find("cannot be drafted like this") == std::string::npos);
        }
}

TEST_CASE("A size that gets another name keeps its own values and its trials; sizes are typed with spaces or commas")
{
    Design d = newDesign("gusseted-satchel");
    setDimension(d, "width", "350", "L");
    setDimension(d, "width", "280", "S");
    d.trials.push_back({"d", "L", "", 0, 0, 0, 0, 0, 0, {}});
    setSizes(d, {"S", "Medium", "Large", "XL"}, "");
    CHECK(d.baseSize == "S"); // M and L became two of three: which is which cannot be told
    d = newDesign("gusseted-satchel");
    setDimension(d, "width", "350", "L");
    setDimension(d, "width", "280", "S");
    d.trials.push_back({"d", "L", "", 0, 0, 0, 0, 0, 0, {}});
    setSizes(d, {"S", "Medium", "Large"}, "");
    CHECK(d.baseSize == "Medium");
    CHECK(d.dimensions.at("width").bySize == std::map<std::string, std::string>{{"Large", "350"}, {"S", "280"}});
    CHECK(d.trials[0].size == "Large");
    setSizes(d, {"XS", "S", "Medium", "Large"}, "");
    CHECK(d.dimensions.at("width").bySize.size() == 2);
    setSizes(d, {"One size"}, "");
    CHECK(d.dimensions.at("width").bySize.empty());
    for (const auto& names :
        {std::vector<std::string>{"S", "M*", "L"}, {"One size", "Two"}, {"One size"}, {"S/M", "小"}})
        CHECK(sizeNames(sizesText(names)) == names);
    CHECK(sizeNames("  S   M ,") == std::vector<std::string>{"S   M"});
    CHECK(sizeNames("") == std::vector<std::string>{});
    CHECK_THROWS_WITH(setSizes(d, {}, ""), Contains("at least one size"));
    CHECK_THROWS_WITH(setSizes(d, std::vector<std::string>(30, "X"), ""), Contains("at most 24"));
}

TEST_CASE("Two things of one name have each their own verdict, and every count of snags is the same")
{
    Design d = newDesign("gusseted-satchel");
    d.carried = {
        {"Tin", 100, 100, 10, "main", {}}, {"Tin", 2000, 100, 10, "main", {}}, {"Tin", 3000, 100, 10, "main", {}}};
    const auto patterns = draftAll(d);
    const auto placed = placeCarried(d, patterns[1]);
    REQUIRE(placed.size() == 3);
    CHECK(placed[0].overWidth < 0);
    CHECK(placed[1].overWidth > 0);
    const Findings all = checkAll(d, patterns);
    const auto snags = snagsOf(all);
    std::size_t wide = 0;
    for (const auto& s : snags)
        wide += words(all[s.first].text).find("too wide") != std::string::npos;
    CHECK(wide == 2);
    int byStage = 0;
    for (const char* stage : {"Brief", "Draft", "Build-up", "Fittings", "Sizes", "Sequence", "Cut", "Sheets", "Trial"})
        byStage += countSnags(all, stage).all();
    CHECK(byStage == countSnags(all).all());
    CHECK(std::size_t(byStage) == snags.size());
}

TEST_CASE("Of a fault in several sizes the worst is told first, and its repair mends them all in one stroke")
{
    Design d = newDesign("gusseted-satchel");
    assign(d, "depth=140"); // boards of 124, 134 and 144 mm
    const auto opening = [&] {
        Findings out;
        for (auto& f : checkAll(d, draftAll(d)))
            if (f.check == "opening")
                out.push_back(f);
        return out;
    };
    const auto told = opening();
    REQUIRE(told.size() == 2);
    CHECK(told[0].size == "L");
    CHECK(told[1].size == "M");
    REQUIRE(told[0].repair);
    applyRepair(d, told[0]);
    CHECK(opening().empty());
    CHECK(snagsOf(checkAll(d, draftAll(d))).empty());
}

TEST_CASE("A repair that is offered is taken: the opening's is inside its own range")
{
    int offered = 0;
    for (const char* width : {"130", "140", "300"}) {
        Design d = newDesign("gusseted-satchel");
        while (!d.features.empty())
            removeFeature(d, d.features.front().id);
        for (const char* a : {"base.board=no", "radius=20", "opening.length=45"})
            assign(d, a);
        assign(d, std::string("width=") + width);
        for (const auto& f : checkAll(d, draftAll(d)))
            if (f.check == "opening" && f.repair) {
                ++offered;
                INFO(width << ": " << words(f.repair->label));
                CHECK(whyNotMend(d, f).empty());
                Design mended = d;
                applyRepair(mended, f);
                CHECK(mended != d);
            }
    }
    CHECK(offered >= 3);
}

TEST_CASE("A dimension that is not shown changes nothing", "[.long]")
{
    // Every form and part in every choice: what does not count is moved inside its range, and the drafted pattern
    // stays.
    int hidden = 0;
    for (const Form* form : forms()) {
        Design d = newDesign(form->id());
        for (const FeatureKind* kind : featureKinds())
            if (std::none_of(
                    d.features.begin(), d.features.end(), [&](const Feature& f) { return f.kind == kind->kind(); })
                && whyNotAdd(d, kind->kind()).empty())
                addFeature(d, kind->kind());
        const DesignSpec spec = specOf(d);
        std::size_t most = 0;
        for (const auto& c : spec.choices)
            if (!c.name.ends_with(".site"))
                most = std::max(most, c.options.size());
        for (std::size_t option = 0; option < most; ++option) {
            Design now = d;
            std::vector<std::pair<std::string, std::string>> wanted;
            for (const auto& c : spec.choices)
                if (const auto& value = c.options[std::min(option, c.options.size() - 1)].first;
                    !c.name.ends_with(".site") && value != now.choices[c.name])
                    wanted.emplace_back(c.name, value);
            // All at once; in halves where one of them is refused.
            const std::function<void(std::size_t, std::size_t)> choose = [&](std::size_t from, std::size_t to) {
                try {
                    edit(now, [&](Design& next) {
                        for (std::size_t i = from; i < to; ++i)
                            change::choice(next, wanted[i].first, wanted[i].second);
                    });
                } catch (const InputError&) {
                    if (const std::size_t middle = (from + to) / 2; middle > from)
                        choose(from, middle), choose(middle, to);
                }
            };
            choose(0, wanted.size());
            const Pattern p = medium(now);
            const auto valueOf = [&](const std::string& name) { return p.values.at(name); };
            // All that is told of patterns but the hidden dimensions' own values.
            std::vector<const DimensionSpec*> out;
            for (const auto& s : spec.dimensions)
                if (!counts(s, valueOf, now.choices))
                    out.push_back(&s);
            const auto told = [&](const Design& design, std::vector<Pattern> patterns) {
                const Findings findings = checkAll(design, patterns);
                for (auto& each : patterns)
                    for (const auto* s : out)
                        each.values[s->name] = 0;
                return measureJson(design, patterns, findings);
            };
            const auto before = told(now, draftAll(now));
            const auto moved = [&](std::size_t from, std::size_t to) {
                Design other = now;
                for (std::size_t i = from; i < to; ++i) {
                    const Range range = rangeOf(*out[i], p.values);
                    other.dimensions[out[i]->name] = {
                        fmt::format("{}", std::floor(range.min + (range.max - range.min) * 0.37)), {}, {}, {}};
                }
                return other;
            };
            // All at once; in smaller groups where the range of another hangs on one of them.
            const std::function<void(std::size_t, std::size_t)> compare = [&](std::size_t from, std::size_t to) {
                const Design other = moved(from, to);
                std::vector<Pattern> patterns;
                try {
                    patterns = validated(other);
                } catch (const InputError&) {
                    if (const std::size_t middle = (from + to) / 2; middle > from)
                        compare(from, middle), compare(middle, to);
                    return;
                }
                hidden += int(to - from);
                INFO(form->id() << ": " << out[from]->name << " … " << out[to - 1]->name);
                CHECK(told(other, std::move(patterns)) == before);
            };
            if (!out.empty())
                compare(0, out.size());
        }
    }
    CHECK(hidden > 1000);
}
