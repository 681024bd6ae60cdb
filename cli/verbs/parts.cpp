// SPDX-License-Identifier: GPL-3.0-or-later
// part, layer, carry: what is put onto a bag, behind its pieces, into it.
#include "verbs.hpp"

#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "units/error.hpp"
#include "units/mass.hpp"

#include <fmt/format.h>

#include <sstream>

namespace tectonis::cli {
namespace {

std::string layersText(const Design& design)
{
    std::string out;
    for (std::size_t i = 0; i < design.layers.size(); ++i) {
        const LayerRule& r = design.layers[i];
        if (r.material.empty()) {
            out += fmt::format("{}\t{}\t{}\n", i + 1, r.pieces, spoken("nothing"));
            continue;
        }
        out += fmt::format("{}\t{}\t{}\t{}\t{}", i + 1, r.pieces, r.material, r.fixing, r.trim);
        if (!r.area.empty())
            out += "\t" + spoken("area {}", r.area);
        if (!r.grain.empty())
            out += "\t" + spoken("grain {}°", r.grain);
        for (const auto& [edge, trim] : r.edges)
            out += fmt::format("\t{}={}", edge, trim);
        out += "\n";
    }
    return out;
}

/// "240x170x20", also with × and units.
void takeMeasures(Carried& thing, const std::string& text)
{
    std::string plain = text;
    for (std::size_t i; (i = plain.find("×")) != std::string::npos;)
        plain.replace(i, std::string("×").size(), "x");
    std::istringstream in(plain);
    for (double* to : {&thing.width, &thing.height, &thing.thickness}) {
        std::string one;
        if (!std::getline(in, one, 'x'))
            throw InputError(text, say("write width x height x thickness: 240x170x20"));
        *to = parseLength(one);
    }
    if (std::string more; std::getline(in, more))
        throw InputError(text, say("three measures make a thing: 240x170x20"));
}

} // namespace

Verb partVerb(CLI::App& app)
{
    struct Options {
        std::string file;
        std::vector<std::string> added, removed, values;
    };
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand("part", spoken("List, add or take out the parts of a design"));
    c->add_option("file", o->file, spoken("the design"))->required();
    c->add_option("--add", o->added, spoken("KIND, e.g. slip-pocket"))->take_all()->allow_extra_args(false);
    c->add_option("--set", o->values, spoken("NAME=VALUE of the part added: site=\"lining front\", drop=40"))
        ->take_all()
        ->allow_extra_args(false);
    c->add_option("--remove", o->removed, spoken("ID, e.g. slip2"))->take_all()->allow_extra_args(false);
    return {c, [o] {
                if (!o->values.empty() && o->added.size() != 1)
                    throw InputError("--set", say("it goes with one --add"));
                const Design design = changedFile(o->file, [&](Design& d) {
                    edit(d, [&](Design& next) {
                        for (const auto& kind : o->added) {
                            const std::string id = change::addPart(next, kind);
                            for (const auto& v : o->values)
                                change::assign(next, id + "." + v);
                        }
                        for (const auto& id : o->removed)
                            change::removePart(next, id);
                    });
                    return !o->added.empty() || !o->removed.empty();
                });
                std::string list;
                for (const auto& f : design.features)
                    list += fmt::format("{}\t{}\n", f.id, f.kind);
                print(list);
                return 0;
            }};
}

Verb layerVerb(CLI::App& app)
{
    struct Options {
        std::string file, pieces, fixing, trim, area, grain, restored;
        std::vector<std::string> edges;
        std::string material;
        std::size_t remove = 0, nth = 0;
        bool takes = false, inwards = false, outwards = false;
    };
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand(
        "layer", spoken("List what lies behind pieces, put something behind, change it, move it or take it away"));
    c->add_option("file", o->file, spoken("the design"))->required();
    auto* behind = c->add_option("--behind", o->pieces, spoken("a role (panel) or the key of a piece"));
    c->add_option("--material", o->material, spoken("id of the interlining; “tectonis-cli library” lists them"));
    c->add_option("--fixing", o->fixing, spoken("fused, basted, glued, loose or quilted"));
    c->add_option(
        "--trim", o->trim, spoken("full, stitch, inset 3 or past 3; of a quilted one rows 30 or diamonds 40"));
    c->add_option("--edge", o->edges, spoken("NAME=TRIM where an edge differs"))->take_all()->allow_extra_args(false);
    c->add_option("--area", o->area,
        spoken("only a named area of the piece, or a shape: strip 40 along top, patch 60 x 40 at 0 45, corner 60 x 60 "
               "lower left, drawn X,Y X,Y X,Y, as PIECE less 3"));
    c->add_option("--grain", o->grain, spoken("degrees in the piece"));
    auto* nth = c->add_option("--nth", o->nth, spoken("NUMBER of the layer behind it, from 1: change that one"));
    nth->needs(behind);
    c->add_flag("--take", o->takes, spoken("with --nth: take it away"))->needs(nth);
    c->add_flag("--inwards", o->inwards, spoken("with --nth: lay it one further from the face"))->needs(nth);
    c->add_flag("--outwards", o->outwards, spoken("with --nth: lay it one nearer to the face"))->needs(nth);
    c->add_option("--restore", o->restored,
        spoken("a piece: the layers of its role again; a role: those that suit it and its cloth"));
    c->add_option("--remove", o->remove, spoken("NUMBER in the list"));
    return {
        c, [o] {
            if (o->nth == 0 && o->material.empty() != o->pieces.empty())
                throw InputError("--behind", say("it goes with --material"));
            const bool any = !o->pieces.empty() || o->remove > 0 || !o->restored.empty();
            const auto edges = [&](LayerRule& rule) {
                for (const auto& e : o->edges)
                    rule.edges[e.substr(0, e.find('='))] = e.find('=') == std::string::npos ? ""
                                                                                            : e.substr(e.find('=') + 1);
            };
            const auto nthChanged = [&](Design& next) {
                const Pattern seen = base(next);
                if (o->takes)
                    return change::takeLayer(next, seen, o->pieces, o->nth - 1);
                if (o->inwards || o->outwards)
                    return change::moveLayer(next, seen, o->pieces, o->nth - 1, o->inwards);
                change::layer(next, seen, o->pieces, o->nth - 1, [&](LayerRule& rule) {
                    for (const auto& [given, to] : {std::pair{&o->material, &rule.material}, {&o->fixing, &rule.fixing},
                             {&o->trim, &rule.trim}, {&o->area, &rule.area}, {&o->grain, &rule.grain}})
                        if (!given->empty())
                            *to = *given;
                    edges(rule);
                });
            };
            const Design design = changedFile(o->file, [&](Design& d) {
                if (any)
                    edit(d, [&](Design& next) {
                        takeOut(next.layers, o->remove);
                        if (!o->restored.empty())
                            change::restoreLayers(next, base(d), o->restored);
                        if (o->nth > 0)
                            return nthChanged(next);
                        if (o->material.empty())
                            return;
                        LayerRule rule{.pieces = o->pieces,
                            .material = o->material,
                            .fixing = o->fixing,
                            .trim = o->trim,
                            .area = o->area,
                            .grain = o->grain};
                        edges(rule);
                        change::putBehind(next, base(d), rule);
                    });
                return any;
            });
            print(layersText(design));
            return 0;
        }};
}

Verb carryVerb(CLI::App& app)
{
    struct Options {
        std::string file, name, measures, weight, place = "main";
        std::size_t remove = 0;
    };
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand("carry", spoken("List the things that the bag is for, add one or take one out"));
    c->add_option("file", o->file, spoken("the design"))->required();
    c->add_option("--add", o->name, spoken("what it is called"));
    c->add_option("--measures", o->measures, spoken("width x height x thickness, as it stands in the bag: 240x170x20"));
    c->add_option("--weight", o->weight, spoken("what it weighs: 450, 1.2kg, 3oz"));
    c->add_option("--place", o->place, spoken("main, or the id of a pocket"));
    c->add_option("--remove", o->remove, spoken("NUMBER in the list"));
    return {c, [o] {
                if (o->name.empty() != o->measures.empty())
                    throw InputError("--add", say("it goes with --measures"));
                const bool any = !o->name.empty() || o->remove > 0;
                const Design design = changedFile(o->file, [&](Design& d) {
                    if (any)
                        edit(d, [&](Design& next) {
                            takeOut(next.carried, o->remove);
                            if (o->name.empty())
                                return;
                            Carried thing{.name = o->name, .place = o->place};
                            takeMeasures(thing, o->measures);
                            thing.weight = parseGrams(o->weight);
                            next.carried.push_back(std::move(thing));
                        });
                    return any;
                });
                std::string list;
                for (std::size_t i = 0; i < design.carried.size(); ++i) {
                    const Carried& t = design.carried[i];
                    list += fmt::format("{}\t{}\t{} x {} x {} mm\t{}{}\n", i + 1, t.name, formatNumber(t.width),
                        formatNumber(t.height), formatNumber(t.thickness), t.place,
                        t.weight > 0 ? fmt::format("\t{} g", formatNumber(t.weight)) : "");
                }
                print(list);
                return 0;
            }};
}

} // namespace tectonis::cli
