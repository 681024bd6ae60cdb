// SPDX-License-Identifier: GPL-3.0-or-later
// The schema of design files, by a public validator: python3-jsonschema (JSON Schema, draft 2020-12).
#include "every_design.hpp"
#include "process.hpp"

#include "formats/design_file.hpp"
#include "library/library_file.hpp"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <filesystem>
#include <fstream>

using namespace tectonis;
using nlohmann::json;

namespace {

const std::string kSchema = TECTONIS_DATA "/design.schema.json", kLibrarySchema = TECTONIS_DATA "/library.schema.json";

/// What the validator says; empty where all files hold.
std::string invalid(const std::vector<std::string>& files, const std::string& schema = kSchema)
{
    std::string command = "/usr/bin/python3 -W ignore -m jsonschema --output plain";
    for (const auto& file : files)
        command += " -i '" + file + "'";
    const Ran ran = shell(command + " '" + schema + "'");
    return ran.code == 0 ? "" : ran.out + ran.err + " code " + std::to_string(ran.code);
}

} // namespace

TEST_CASE("Schema: every demo, and designs of every form, option, part and way hold to it")
{
    std::vector<std::string> files;
    for (const auto& entry : std::filesystem::directory_iterator(TECTONIS_DATA "/demos"))
        if (entry.path().extension() == ".tectonis")
            files.push_back(entry.path());
    REQUIRE(files.size() > 5);
    const Scratch folder("schema");
    int n = 0;
    forEveryDesign([&](const std::string&, const Design& d) {
        files.push_back(folder / (std::to_string(++n) + ".tectonis"));
        saveDesign(d, files.back());
    });
    CHECK(n > 300);
    CHECK(invalid(files) == "");
}

TEST_CASE("Schema: what it refuses the application refuses too, and it does refuse")
{
    const Scratch folder("schema-faults");
    const std::string good = designText(newDesign("gusseted-satchel"));
    const std::string file = folder / "changed.tectonis";
    const auto changed = [&](const std::function<void(json&)>& change) {
        json j = json::parse(good);
        change(j);
        std::ofstream(file) << j.dump(1);
    };
    changed([](json& j) { j["from a later version"] = {{"kept", true}}; });
    CHECK(invalid({file}) == "");
    CHECK_NOTHROW(loadDesign(file));
    const std::vector<std::function<void(json&)>> faults{
        [](json& j) { j.erase("sizes"); },
        [](json& j) { j["format"] = "another"; },
        [](json& j) { j["version"] = "1"; },
        [](json& j) { j["sizes"]["names"] = json::array(); },
        [](json& j) {
            j["sizes"]["names"] = {"M", "M"};
        },
        [](json& j) { j["dimensions"]["width"]["value"] = 300; },
        [](json& j) { j["dimensions"]["width"]["rule"] = "grow 3"; },
        [](json& j) { j["dimensions"]["width"].erase("rule"); },
        [](json& j) { j["features"][0].erase("kind"); },
        [](json& j) { j["features"][0]["id"] = "two words"; },
        [](json& j) { j["layers"][0]["trim"] = "ragged"; },
        [](json& j) { j["workshop"]["machineLimit"] = -3; },
        [](json& j) { j["workshop"]["machineLimit"] = "thick"; },
        [](json& j) {
            j["carried"] = {{{"name", "Box"}, {"width", -1}}};
        },
        [](json& j) { j["notes"] = std::string(20001, 'a'); },
        [](json& j) {
            j["stepOrder"] = {1, 2};
        },
    };
    for (std::size_t i = 0; i < faults.size(); ++i) {
        INFO("fault " << i);
        changed(faults[i]);
        CHECK(invalid({file}) != "");
        CHECK_THROWS_AS(loadDesign(file), InputError);
    }
}

TEST_CASE("Schema of libraries: what ships and what is written hold to it; what it refuses the reader refuses too")
{
    const Scratch folder("library-schema");
    const std::string file = folder / "library.json";
    CHECK(invalid({TECTONIS_DATA "/library.json"}, kLibrarySchema) == "");
    std::ofstream(file) << libraryText(*Library::builtIn());
    CHECK(invalid({file}, kLibrarySchema) == "");
    // One definition of an entry for both kinds of file.
    const json one = json::parse(slurp(kSchema)), other = json::parse(slurp(kLibrarySchema));
    for (const auto& [name, definition] : other["$defs"].items())
        CHECK(one["$defs"][name] == definition);
    CHECK(one["properties"]["library"]["properties"]["materials"] == other["properties"]["materials"]);

    const json whole = json::parse(slurp(TECTONIS_DATA "/library.json"));
    const auto changed = [&](const std::function<void(json&)>& change) {
        json j = whole;
        change(j);
        std::ofstream(file) << j.dump(2);
    };
    const std::vector<std::function<void(json&)>> faults{
        [](json& j) { j.erase("format"); },
        [](json& j) { j["version"] = 0; },
        [](json& j) { j["materials"] = 3; },
        [](json& j) { j["materials"][0].erase("thickness"); },
        [](json& j) { j["materials"][0]["thickness"] = 0; },
        [](json& j) { j["materials"][0]["thickness"] = json::array(); },
        [](json& j) { j["materials"][0]["use"] = "hat"; },
        [](json& j) { j["materials"][0]["class"] = "wood"; },
        [](json& j) { j["materials"][0]["compressed"] = 1.5; },
        [](json& j) { j["materials"][0]["heat"] = 3; },
        [](json& j) { j["materials"][0]["id"] = "a=b"; },
        [](json& j) { j["materials"][0]["name"] = "two\nlines"; },
        [](json& j) { j["materials"][0]["name"] = std::string(201, 'a'); },
        [](json& j) { j["stock"]["zip"]["values"] = json::array(); },
        [](json& j) { j["stock"]["zip"]["values"][0] = "long"; },
        [](json& j) { j["stock"]["zip"]["snap"] = "sideways"; },
        [](json& j) { j["stock"]["two words"] = j["stock"]["zip"]; },
        [](json& j) { j["papers"][0].erase("width"); },
        [](json& j) { j["papers"][0]["height"] = 3; },
        [](json& j) { j["workshops"][0]["footWidth"] = 99; },
        [](json& j) { j["workshops"][0].erase("machine"); },
    };
    for (std::size_t i = 0; i < faults.size(); ++i) {
        INFO("fault " << i);
        changed(faults[i]);
        CHECK(invalid({file}, kLibrarySchema) != "");
        CHECK_THROWS_AS(readLibrary(slurp(file), "library"), InputError);
    }
}
