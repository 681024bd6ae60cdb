// SPDX-License-Identifier: GPL-3.0-or-later
// What the window can do, the command line can: sizes, rules, layers, parts with their place, things carried, the order
// of work, trials, the library, completion.
#include "drawn.hpp"
#include "made.hpp"

#include "formats/design_file.hpp"
#include "formats/own_library.hpp"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <filesystem>
#include <fstream>

using namespace tectonis;
using Catch::Contains;
using nlohmann::json;

namespace {

/// The command line of a user with a home of his own.
Ran as(const std::string& user, const std::string& arguments)
{
    return shell("XDG_DATA_HOME='" + (scratch / user) + "' " TECTONIS_CLI " " + arguments);
}

void write(const std::string& file, const std::string& bytes) { std::ofstream(file, std::ios::binary) << bytes; }

/// A line of the output that begins so.
std::string line(const std::string& out, const std::string& begin)
{
    const auto at = ("\n" + out).find("\n" + begin);
    return at == std::string::npos ? "" : out.substr(at, out.find('\n', at) - at);
}

} // namespace

TEST_CASE("sizes: listed and replaced; rule: listed, changed, own values taken away; what is wrong changes nothing")
{
    const std::string file = made("sizes.tectonis");
    CHECK(cli("sizes " + file).out == "S\nM *\nL\n");
    CHECK(cli("sizes " + file + " Small Wide 'Extra wide' --base Wide").out == "Small\nWide *\nExtra wide\n");
    CHECK(loadDesign(file).baseSize == "Wide");
    CHECK_THAT(line(cli("rule " + file).out, "width\t"), Contains("step 30"));
    CHECK(cli("rule " + file + " width='ratio 1.1' depth=hold").code == 0);
    CHECK(cli("set " + file + " --size 'Extra wide' width=500").code == 0);
    CHECK_THAT(line(cli("rule " + file).out, "width\t"), Contains("ratio 1.1") && Contains("Extra wide=500"));
    const Design d = loadDesign(file);
    CHECK(draftAll(d)[0].values.at("width") == Approx(draftAll(d)[1].values.at("width") / 1.1));
    CHECK(cli("rule " + file + " --no-own width --size 'Extra wide'").code == 0);
    CHECK(loadDesign(file).dimensions.at("width").bySize.empty());
    const std::string before = slurp(file);
    for (const char* wrong :
        {"sizes FILE A A", "sizes FILE --base None", "rule FILE width=grow", "rule FILE nothing=hold",
            "rule FILE width='stock moons'", "rule FILE --no-own width", "rule FILE --no-own width --size None"}) {
        std::string command = wrong;
        command.replace(command.find("FILE"), 4, file);
        INFO(command);
        CHECK(cli(command).code == 2);
        CHECK(slurp(file) == before);
    }
}

TEST_CASE("part with its place, layer, carry: listed, put in, taken out")
{
    const std::string file = made("parts.tectonis");
    const auto parts = [&] { return loadDesign(file).features.size(); };
    const std::size_t before = parts();
    REQUIRE(cli("part " + file + " --add slip-pocket --set site='lining front' --set drop=55").code == 0);
    CHECK(parts() == before + 1);
    const Design d = loadDesign(file);
    const std::string id = d.features.back().id;
    CHECK(d.choices.at(id + ".site") == "lining front");
    CHECK(medium(d).values.at(id + ".drop") == 55);
    CHECK(cli("part " + file + " --set drop=3").code == 2);
    CHECK(cli("part " + file + " --add label --set drop=30000").code == 2);
    CHECK(parts() == before + 1);

    const auto layers = [&] { return loadDesign(file).layers.size(); };
    const std::size_t behind = layers();
    REQUIRE(cli("layer " + file + " --behind gusset --material stabiliser-firm --trim 'inset 3' --edge front=full").code
        == 0);
    const LayerRule rule = loadDesign(file).layers.back();
    CHECK(rule.pieces == "gusset");
    CHECK(rule.trim == "inset 3");
    CHECK(rule.edges.at("front") == "full");
    // One piece gets rules of its own, begun as a copy of its role's.
    REQUIRE(cli("layer " + file + " --behind front --material patch-felt --fixing glued").code == 0);
    const Pattern p = medium(loadDesign(file));
    CHECK(p.piece("front")->layers.size() == medium(newDesign("gusseted-satchel")).piece("front")->layers.size() + 1);
    CHECK(p.piece("front")->layers.back().fixing == "glued");
    // The nth of them is changed, moved, given another shape, taken; the piece goes back to its role's.
    const std::string nth = "layer " + file + " --behind front --nth 1";
    REQUIRE(cli(nth + " --area 'patch 60 x 40 at 0 80' --grain 45 --edge 'top=inset 9'").code == 0);
    CHECK(std::abs(areaOf(medium(loadDesign(file)).piece("front")->layers.front().outline) - 2400) < 1);
    const std::string first = medium(loadDesign(file)).piece("front")->layers.front().material.text();
    REQUIRE(cli(nth + " --inwards").code == 0);
    CHECK(medium(loadDesign(file)).piece("front")->layers[1].material == first);
    REQUIRE(cli(nth + " --take").code == 0);
    CHECK(medium(loadDesign(file)).piece("front")->layers.front().material == first);
    CHECK(cli(nth + " --area 'strip 9'").code == 2);
    CHECK(cli("layer " + file + " --take").code != 0);
    REQUIRE(cli("layer " + file + " --restore front").code == 0);
    CHECK(medium(loadDesign(file)).piece("front")->layers.front().wholePiece);
    CHECK(cli("layer " + file + " --restore front").code == 2);
    REQUIRE(cli("set " + file + " 'layers.pocket=foam-sewin basted stitch, top: inset 9'").code == 0);
    CHECK(loadDesign(file).layers.back().edges.at("top") == "inset 9");
    CHECK(cli("set " + file + " layers.pocket=foam-sewin").code == 2);
    REQUIRE(cli("layer " + file + " --remove " + std::to_string(behind + 1)).code == 0);
    CHECK(cli("layer " + file + " --behind hat --material patch-felt").code == 2);
    CHECK(cli("layer " + file + " --behind gusset --material moss").code == 2);
    CHECK(cli("layer " + file + " --behind gusset --material board --fixing nailed").code == 2);
    CHECK(cli("layer " + file + " --behind gusset").code == 2);
    CHECK(cli("layer " + file + " --remove 99").code == 2);

    REQUIRE(cli("carry " + file + " --add 'A box of reeds' --measures '9 1/2in×15cm x 20'").code == 0);
    const Carried thing = loadDesign(file).carried.back();
    CHECK(thing.width == Approx(9.5 * 25.4));
    CHECK(thing.height == 150);
    CHECK(thing.thickness == 20);
    CHECK_THAT(cli("carry " + file).out, Contains("A box of reeds\t241.3 x 150 x 20 mm\tmain"));
    CHECK(cli("carry " + file + " --add X --measures 3x4").code == 2);
    CHECK(cli("carry " + file + " --add X --measures 3x4x5x6").code == 2);
    CHECK(cli("carry " + file + " --add X").code == 2);
    const std::string count = std::to_string(loadDesign(file).carried.size());
    CHECK(cli("carry " + file + " --remove " + count).code == 0);
    CHECK_THAT(cli("carry " + file).out, !Contains("reeds"));
    CHECK(cli("carry " + file + " --remove 0 --add Y --measures 1x1x1").code == 0); // 0: none
}

TEST_CASE("order: steps are listed with what their order breaks, moved, and put back; trial: added and taken out")
{
    const std::string file = made("order.tectonis");
    const std::string proposed = cli("order " + file).out;
    CHECK_THAT(proposed, !Contains("!"));
    REQUIRE(cli("order " + file + " --move mouth --before front-gusset").code == 0);
    const std::string now = cli("order " + file).out;
    CHECK_THAT(now, Contains("! mouth comes before"));
    CHECK(now.find("\tmouth\t") < now.find("\tfront-gusset\t"));
    CHECK(cli("order " + file + " --as-proposed").out == proposed);
    CHECK(cli("order " + file + " --move mouth --after front-gusset").code == 0);
    CHECK(cli("order " + file + " --move nothing --before mouth").code == 2);
    CHECK(cli("order " + file + " --move mouth --before mouth").code == 2);
    CHECK(cli("order " + file + " --move mouth").code == 2);
    CHECK(cli("order " + file + " --before mouth").code == 2);

    REQUIRE(
        cli("trial " + file + " --add L date=2026-05-01 width=302 zip='8 in' minutes=95 note='Snap eased'").code == 0);
    const Trial t = loadDesign(file).trials.back();
    CHECK(t.size == "L");
    CHECK(t.zipOpening == Approx(203.2));
    CHECK_THAT(cli("trial " + file).out, Contains("2026-05-01\tsize L\twidth=302\tzip=203.2\tminutes=95\tSnap eased"));
    CHECK(cli("trial " + file + " --add XL width=3").code == 2);
    CHECK(cli("trial " + file + " --add L girth=3").code == 2);
    CHECK(cli("trial " + file + " width=3").code == 2);
    CHECK(cli("trial " + file + " --remove 1").code == 0);
    CHECK(loadDesign(file).trials.empty());
}

TEST_CASE("order: steps told in two and as one, by tool, and a run of bags; trial: minutes of steps")
{
    const std::string file = made("division.tectonis");
    const std::string proposed = cli("order " + file).out;
    const std::string acts = cli("order " + file + " --acts flap.turn").out;
    CHECK_THAT(acts, Contains("1\tGrade\n") || Contains("1\tTurn\n"));
    CHECK_THAT(acts, Contains("\tRoll the edge\n"));
    const std::string roll = acts.substr(acts.find("\tRoll") - 1, 1);
    REQUIRE(cli("order " + file + " --split flap.turn --from " + roll).code == 0);
    CHECK_THAT(cli("order " + file).out, Contains("\tflap.turn/roll\tTurn and topstitch the flap: roll the edge\n"));
    REQUIRE(cli("order " + file + " --join flap.turn/roll").code == 0);
    CHECK_THAT(cli("order " + file).out,
        Contains("flap.turn/roll\tTurn and topstitch the flap: roll the edge\ttold with the one before"));
    REQUIRE(cli("order " + file + " --part flap.turn/roll").code == 0);
    REQUIRE(cli("order " + file + " --mend flap.turn").code == 0);
    CHECK(cli("order " + file).out == proposed);
    CHECK(cli("order " + file + " --split flap.turn").code == 2);
    CHECK(cli("order " + file + " --split flap.turn --from 1").code == 2);
    CHECK(cli("order " + file + " --mend flap.turn").code == 2);
    CHECK(cli("order " + file + " --acts nothing").code == 2);

    const std::string run = cli("order " + file + " --run 10").out;
    CHECK_THAT(run, Contains("10 bags: "));
    REQUIRE(cli("order " + file + " --by-tool").code == 0);
    const std::string byTool = cli("order " + file + " --run 10").out;
    CHECK_THAT(cli("order " + file).out, !Contains("!"));
    const auto headings = [](const std::string& text) {
        std::size_t n = 0;
        for (auto at = text.find(" min a bag"); at != std::string::npos; at = text.find(" min a bag", at + 1))
            ++n;
        return n;
    };
    CHECK(headings(byTool) < headings(run));
    CHECK(cli("order " + file + " --run 0").code == 2);

    REQUIRE(cli("trial " + file + " --add M minutes=200 step.mouth=12").code == 0);
    CHECK_THAT(cli("trial " + file).out, Contains("minutes=200") && Contains("step.mouth=12"));
    const Trial t = loadDesign(file).trials.back();
    CHECK(t.predicted > 60);
    CHECK(t.steps.at("mouth").predicted > 1);
    CHECK(cli("trial " + file + " --add M step.nothing=12").code == 2);
}

TEST_CASE("library: a user's own cloth from a table is chosen, travels with the file and opens on another machine")
{
    const std::string table = scratch / "cloths.csv", file = made("cork.tectonis");
    write(table, "\xEF\xBB\xBFname;thickness;gsm;width;heat;price\r\nCork, blue;0,8;10 oz;1350;nein;19,5\r\n");
    const Ran refused = as("ann", "library --add " + table);
    CHECK(refused.code == 2);
    CHECK_THAT(refused.err, Contains("cloths.csv: line 2, column 27: heat: “nein”"));
    CHECK_THAT(as("ann", "library").out, !Contains("cork-blue"));
    write(table, "\xEF\xBB\xBFname;thickness;gsm;width;heat;price\r\nCork, blue;0,8;10 oz;1350;no;19,5\r\n");
    REQUIRE(as("ann", "library --add " + table).code == 0);
    CHECK_THAT(line(as("ann", "library --use face").out, "cork-blue"), Contains("0.8 mm") && Contains("339.06 g/m²"));
    CHECK_THAT(as("ann", "library --use interlining").out, !Contains("cork-blue"));
    CHECK(as("bob", "set " + file + " material.shell=cork-blue").code == 2); // bob has none yet
    REQUIRE(as("ann", "set " + file + " material.shell=cork-blue").code == 0);
    const std::string numbers = as("ann", "measure " + file).out;
    CHECK(as("bob", "measure " + file).out == numbers);
    CHECK_THAT(as("bob", "check " + file).out, !Contains("neither the file nor your library"));
    // Ann's cloth turns out thicker; the design follows when it is asked to.
    write(
        table, "id,name,thickness,gsm,width,heat,price\ncork-blue,\"Cork, blue\",0.9,339.057474748823,1350,no,19.5\n");
    REQUIRE(as("ann", "library --add " + table).code == 0);
    CHECK(as("ann", "measure " + file).out == numbers);
    CHECK(as("ann", "library --newer " + file).out == "Cork, blue\tThickness\t0.8 → 0.9\n");
    REQUIRE(as("ann", "library --newer " + file + " --take").code == 0);
    CHECK(as("ann", "measure " + file).out != numbers);
    CHECK_THAT(as("ann", "library --newer " + file).out, Contains("has the values of your library"));
    // Out as a table or whole, and in again elsewhere.
    REQUIRE(as("ann", "library -o " + (scratch / "all.csv")).code == 0);
    REQUIRE(as("bob", "library --add " + (scratch / "all.csv")).code == 0);
    CHECK(as("bob", "library").out == as("ann", "library").out);
    REQUIRE(as("ann", "library -o " + (scratch / "all.json")).code == 0);
    REQUIRE(as("eve", "library --add " + (scratch / "all.json")).code == 0);
    CHECK(as("eve", "library").out == as("ann", "library").out);
    CHECK(as("bob", "library --remove cork-blue").code == 0);
    CHECK(as("bob", "library --remove cork-blue").code == 2);
    CHECK_THAT(as("bob", "library").out, !Contains("cork-blue"));
    // A file of the user's own that is broken is told, not passed over.
    write((scratch / "ann") + "/tectonis/library.json", "{");
    const Ran broken = as("ann", "measure " + file);
    CHECK(broken.code == 2);
    CHECK_THAT(broken.err, Contains("library.json, line 1"));
}

TEST_CASE("Every verb has help, a line in the man page and in the completion, which bash takes")
{
    const std::string help = cli("--help").out, script = cli("completion").out;
    const std::string man = slurp(TECTONIS_DATA "/../docs/tectonis-cli.1");
    int verbs = 0;
    std::istringstream lines(help.substr(help.find("Subcommands:")));
    std::string l;
    for (std::getline(lines, l); std::getline(lines, l);) {
        std::istringstream words(l);
        std::string verb;
        if (l.size() < 3 || l[2] == ' ' || !(words >> verb))
            continue;
        ++verbs;
        INFO(verb);
        CHECK(cli(verb + " --help").code == 0);
        CHECK_THAT(man, Contains("tectonis-cli " + verb));
        CHECK_THAT(script, Contains("    " + verb + ")"));
    }
    CHECK(verbs == 18);
    write(scratch / "completion.bash", script);
    const auto completed = [&](const std::string& words, int at) {
        return shell("bash -c 'source " + (scratch / "completion.bash") + "; COMP_WORDS=(" + words
            + "); COMP_CWORD=" + std::to_string(at) + "; _tectonis_cli; echo \"${COMPREPLY[@]}\"'")
            .out;
    };
    CHECK(completed("tectonis-cli me", 1) == "measure\n");
    CHECK(completed("tectonis-cli export a.tectonis --pa", 3) == "--paper\n");
    CHECK_THAT(completed("tectonis-cli library --", 2), Contains("--newer") && Contains("--take"));
}

TEST_CASE("The catalogue for translators is what the collecting tool finds now; every language that ships is sound")
{
    const Ran now = shell(TECTONIS_DATA "/languages/collect " TECTONIS_CLI);
    INFO(now.err);
    REQUIRE(now.code == 0);
    CHECK(now.out.size() > 5000);
    CHECK(now.out == slurp(TECTONIS_DATA "/languages/tectonis.pot")); // else: data/languages/collect > …/tectonis.pot
    for (const auto& entry : std::filesystem::directory_iterator(TECTONIS_DATA "/languages"))
        if (entry.path().extension() == ".po")
            CHECK(shell("msgfmt --check -o /dev/null " + entry.path().string()).code == 0);
}

TEST_CASE("check speaks the reader's language, with its decimal sign")
{
    const std::string file = made("language.tectonis");
    REQUIRE(cli("set " + file + " connectors.width=40").code == 0);
    CHECK_THAT(cli("check " + file).out, Contains("error, size M, Connector: at 40 mm it is"));
    const Ran told = shell("TECTONIS_LANGUAGE=" TECTONIS_TEST_LANGUAGE " " TECTONIS_CLI " check " + file);
    CHECK_THAT(told.out, Contains("⟦èřřôř") && Contains("⟦Çôññèçtôř") && Contains("40 mm"));
    CHECK_THAT(told.out, !Contains("ring's inside width"));
    const Ran none = shell("TECTONIS_LANGUAGE=xx " TECTONIS_CLI " check " + file);
    CHECK_THAT(none.err, Contains("no language “xx”"));
    CHECK(none.out == cli("check " + file).out);
}
