// SPDX-License-Identifier: GPL-3.0-or-later
// Design files as earlier Tectonis wrote them (tests/older: every shape that the demos have had), and what becomes of
// them when they are damaged.
#include "drawn.hpp"

#include "checks/finding.hpp"
#include "files/files.hpp"
#include "formats/design_file.hpp"
#include "units/error.hpp"

#include <nlohmann/json.hpp>

#include <array>
#include <filesystem>
#include <random>

using namespace tectonis;
using nlohmann::json;

namespace {

std::vector<std::filesystem::path> olderFiles()
{
    std::vector<std::filesystem::path> out;
    for (const auto& entry : std::filesystem::directory_iterator(TECTONIS_OLDER))
        out.push_back(entry.path());
    std::sort(out.begin(), out.end());
    return out;
}

/// One value somewhere in the file: gone, of another kind, out of its range, or twice.
void damage(json& j, std::mt19937& random)
{
    json* at = &j;
    for (int depth = 0; depth < 6; ++depth) {
        if (!at->is_structured() || at->empty())
            break;
        auto it = at->begin();
        std::advance(it, random() % at->size());
        const bool go = it->is_structured() && !it->empty() && random() % 4 != 0;
        if (go) {
            at = &*it;
            continue;
        }
        static const json odd[] = {nullptr, -1, 1e308, "", "nonsense", "1e9", json::array(), json::object(), true, 0,
            "sqrt(-1)", "../x", std::string(500, 'a')};
        switch (random() % 4) {
        case 0: at->erase(it); break;
        case 1:
            if (at->is_array())
                at->push_back(json(*it));
            else
                (*at)[it.key() + "2"] = json(*it);
            break;
        default: *it = odd[random() % std::size(odd)];
        }
        return;
    }
}

} // namespace

TEST_CASE("Every older shape of a design file opens, holds in all sizes, and is the same once it is saved")
{
    const auto files = olderFiles();
    REQUIRE(files.size() >= 33);
    for (const auto& file : files) {
        INFO(file.filename().string());
        const ReadDesign read = readDesign(readWhole(file), file.filename().string());
        const json before = json::parse(readWhole(file));
        for (const Pattern& p : draftAll(read.design))
            for (const auto& seam : p.seams)
                CHECK(std::abs(seam.difference()) < 0.01);
        // What it said stays said, but for what the tote and the envelope drew themselves before these were parts.
        CHECK(read.design.name == before["name"]);
        for (const auto& [name, d] : before["dimensions"].items()) {
            if (before["form"] == "large-tote" && name != "width" && name != "height" && name != "depth")
                continue;
            if (before["form"] == "envelope-clutch" && (name == "snap.size" || name == "snap.margin"))
                continue;
            INFO(name);
            REQUIRE(read.design.dimensions.contains(name));
            CHECK(read.design.dimensions.at(name).value == d["value"]);
        }
        const std::string saved = designText(read.design);
        CHECK(designText(designFromText(saved, "again")) == saved);
        CHECK(designFromText(saved, "again") == read.design);
        CHECK(readDesign(saved, "again").told.empty());
    }
}

TEST_CASE("A tote of version 1: its overlay, patches and facing become parts, and are cut as they were")
{
    // Cut area of all pieces in mm² and rivets, by size, as the program drafted these files before.
    struct Was {
        const char* file;
        std::array<double, 3> area;
        std::size_t rivets;
    };
    const Was files[] = {{"23-choir-tote", {1429832.6, 1605266.1, 1790766.3}, 20},
        // Patches of 110 mm with four in a row; L has an overlay height of its own.
        {"28-choir-tote", {1460232.6, 1635666.1, 1863922.9}, 28},
        {"29-choir-tote", {1239210.6, 1393284.1, 1556208.3}, 0}, // without overlay and patches
        {"30-choir-tote", {0, 1138986.1, 1299647.5}, 20}};       // patches of 100 mm are more than S takes today
    for (const auto& was : files) {
        INFO(was.file);
        const std::filesystem::path file = std::filesystem::path(TECTONIS_OLDER)
            / (was.file + std::string(".tectonis"));
        const Design d = loadDesign(file);
        const auto patterns = draftAll(d);
        for (std::size_t i = 0; i < 3; ++i) {
            double area = 0;
            for (const auto& piece : patterns[i].pieces)
                area += piece.count * areaOf(piece.cut);
            if (was.area[i] > 0)
                CHECK(area == Approx(was.area[i]).margin(0.06));
            std::size_t rivets = 0;
            for (const auto& f : patterns[i].fittings)
                rivets += f.kind == Fitting::Kind::Rivet;
            CHECK(rivets == was.rivets);
        }
        CHECK_FALSE(d.choices.contains("patches"));
        CHECK_FALSE(d.dimensions.contains("facing"));
        // The parts of the back follow those of the front.
        Design moved = d;
        assign(moved, "facing.height=50");
        CHECK(medium(moved).values.at("facing2.height") == 50);
    }
    // What a file says of a piece, a seam's ends and a step goes by the new ids.
    json j = json::parse(readWhole(std::filesystem::path(TECTONIS_OLDER) / "23-choir-tote.tectonis"));
    j["layers"].push_back({{"pieces", "overlay.back"}, {"material", "fusible-woven"}, {"fixing", "fused"}});
    j["seamEnds"]["overlay.front.top"] = {{"start", 10.0}, {"end", 0.0}};
    j["stepOrder"] = {"patches.back", "overlay.front"};
    j["dimensions"]["label.drop"]["value"] = "facing + rivet + 0.1*face.height";
    const Design d = designFromText(j.dump(), "older");
    CHECK(d.layers.back().pieces == "overlay2");
    CHECK(d.seamEnds.at("overlay.free").start == 10);
    CHECK(d.stepOrder == std::vector<std::string>{"corner2.on", "overlay.on"});
    CHECK(d.dimensions.at("label.drop").value
        == "facing.height + facing.height + corner.rivet + 0.1*(height - overlay.height)");
}

TEST_CASE("A loop of version 2: what bound its raw edges are two parts, as long as before")
{
    for (const char* name : {"33-watch-case", "32-ringers-hip-bag"}) {
        INFO(name);
        json j = json::parse(readWhole(std::filesystem::path(TECTONIS_OLDER) / (name + std::string(".tectonis"))));
        REQUIRE(j["version"] == 2);
        j["dimensions"]["binding.width"] = {{"value", "8"}, {"rule", "hold"}};
        j["dimensions"]["label.own"] = {{"value", "2*binding.width"}, {"rule", "follow"}};
        const Design d = designFromText(j.dump(), "older");
        for (const Pattern& p : draftAll(d)) {
            CHECK(p.seam("front-loop")->bound == p.piece("binding")->key);
            CHECK(p.seam("back-loop")->bound == p.piece("binding2")->key);
            CHECK(boundsOf(p.piece("binding2")->cut).width() == Approx(32));
            CHECK(p.values.at("label.own") == 16);
        }
        CHECK(found(d, "raw-edge").empty());
        Design bare = d;
        removeFeature(bare, "binding2");
        CHECK(found(bare, "raw-edge").size() == 1);
        assign(bare, "material.shell=vinyl");
        assign(bare, "material.lining=vinyl");
        CHECK(found(bare, "raw-edge").empty());
    }
    // Strips of the watch case as the program cut them before, one face's: length by size.
    const auto patterns = draftAll(loadDesign(std::filesystem::path(TECTONIS_OLDER) / "33-watch-case.tectonis"));
    const std::array<double, 3> was{830, 900, 970};
    for (std::size_t i = 0; i < 3; ++i)
        CHECK(boundsOf(patterns[i].piece("binding")->cut).height() == Approx(was[i]).margin(0.01));
}

TEST_CASE("An envelope of version 2: its snap becomes a part, and stays where it was in every size")
{
    const std::filesystem::path file = std::filesystem::path(TECTONIS_OLDER) / "31-knife-envelope.tectonis";
    json j = json::parse(readWhole(file));
    REQUIRE(j["version"] == 2);
    // The front half's drop as the program worked it out before, by size; L has a margin of its own.
    j["dimensions"]["snap.margin"]["bySize"]["L"] = "33";
    j["stepOrder"] = {"closure.flap", "closure.front"};
    j["dimensions"]["thing.own"] = {{"value", "snap.margin + snap.size"}, {"rule", "follow"}};
    const Design d = designFromText(j.dump(), "older");
    const auto patterns = draftAll(d);
    const std::array<double, 3> was{26.06, 32.06, 38.06 - 5};
    for (std::size_t i = 0; i < 3; ++i) {
        INFO(i);
        const Pattern& p = patterns[i];
        const auto half = [&](const char* key) {
            return *std::find_if(p.fittings.begin(), p.fittings.end(), [&](const Fitting& f) { return f.key == key; });
        };
        CHECK(half("snap.front half").at.y == Approx(was[i]).margin(0.001));
        const double end = boundsOf(p.piece("lining.body")->stitch()).y1;
        CHECK(end - half("snap.flap half").at.y == Approx(i == 2 ? 33 : 28).margin(0.001));
        CHECK(p.values.at("thing.own") == Approx(28 + 14));
    }
    CHECK(d.stepOrder == std::vector<std::string>{"snap.flap", "snap.front"});
    // Without a closure there is none; a margin that grows from size to size still does.
    j["choices"]["closure"] = "none";
    CHECK(designFromText(j.dump(), "older").features.size() == d.features.size() - 1);
    j["choices"]["closure"] = "snap";
    j["dimensions"]["snap.margin"] = {{"value", "28"}, {"rule", "step 2"}};
    const auto grown = draftAll(designFromText(j.dump(), "older"));
    for (std::size_t i = 0; i < 3; ++i)
        for (const auto& f : grown[i].fittings)
            if (f.key == "snap.flap half")
                CHECK(boundsOf(grown[i].piece("lining.body")->stitch()).y1 - f.at.y
                    == Approx(26 + 2 * double(i)).margin(0.001));
}

TEST_CASE("1,000 damaged older files: each is refused with its place, or opens, checks and saves like any other")
{
    std::vector<json> good;
    for (const auto& file : olderFiles())
        good.push_back(json::parse(readWhole(file)));
    std::mt19937 random(20261126);
    int refused = 0, opened = 0;
    for (int i = 0; i < 1000; ++i) {
        json j = good[random() % good.size()];
        for (unsigned n = 1 + random() % 3; n > 0; --n)
            damage(j, random);
        const std::string text = j.dump(1);
        try {
            const Design d = designFromText(text, "damaged.tectonis");
            ++opened;
            checkAll(d, draftAll(d));
            INFO(text);
            CHECK(designFromText(designText(d), "again") == d);
        } catch (const InputError& e) {
            ++refused;
            CHECK(std::string(e.what()).starts_with("damaged.tectonis"));
            CHECK(words(e.problem()).size() > 10);
        } catch (const std::exception& e) {
            FAIL(e.what() << ": " << text);
        }
    }
    CHECK(refused > 100);
    CHECK(opened > 100);
}
