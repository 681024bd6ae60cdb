// SPDX-License-Identifier: GPL-3.0-or-later
// library: what can be bought and worked with.
#include "verbs.hpp"

#include "design/carried_library.hpp"
#include "editing/edits.hpp"
#include "formats/own_library.hpp"
#include "units/error.hpp"
#include "units/length.hpp"

#include <fmt/format.h>

namespace tectonis::cli {
namespace {

struct Options {
    std::string use, add, remove, out, newer;
    bool take = false;
};

std::string listed(const Library& library, const std::string& use)
{
    std::string out;
    for (const auto& m : library.materials())
        if (use.empty() || m.use == use)
            out += fmt::format("{}\t{}\t{}\t{} mm\t{} g/m²\t{}\n", m.id, m.name, m.use, formatNumber(m.thickness),
                formatNumber(m.gsm), m.width > 0 ? spoken("{} mm wide", Num(m.width)) : spoken("by the metre"));
    if (use.empty() || use == "goods")
        for (const auto& g : library.goods())
            out += fmt::format("{}\t{}\t{}\t{}\t{}\n", g.id, g.name, g.kind, g.make,
                spoken("{} a piece, metre or spool", Num(g.price)));
    return out;
}

void add(const std::string& file)
{
    const ReadLibrary read = addToOwnLibrary(file);
    for (const auto& told : read.told)
        tell(told);
    const auto& c = read.library.contents();
    tell(say("taken into {}: {} materials, {} goods, {} stock tables, {} papers, {} workshops",
        ownLibraryFile().string(), c.materials.size(), c.goods.size(), c.stock.size(), c.papers.size(),
        c.workshops.size()));
}

/// What a design carries otherwise than the library at hand; taken over if asked for.
void newer(const Options& o)
{
    std::string out;
    changedFile(o.newer, [&](Design& design) {
        const Library mine = myLibrary();
        for (const auto& n : newerValues(design, mine))
            out += spoken("{}\t{}\t{} → {}", n.name, n.field, n.was, n.now) + "\n";
        if (o.take)
            edit(design, [&](Design& next) { change::newerValues(next, mine); });
        return o.take && !out.empty();
    });
    print(out.empty() ? spoken("The design has the values of your library.") + "\n" : out);
}

} // namespace

Verb libraryVerb(CLI::App& app)
{
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand("library",
        spoken("List the materials that there are, take some into your own library, write it, or bring a design up to "
               "it"));
    c->add_option("--use", o->use, spoken("only face, interlining, strap, or goods: zips, hardware, threads"));
    c->add_option("--add", o->add, spoken("take what this file holds (CSV or JSON) into your own library"));
    c->add_option("--remove", o->remove, spoken("ID: take a material or a good out of your own library"));
    c->add_option("-o,--output", o->out,
        spoken("write the whole library: .csv the materials (with --use goods those), .json all"));
    auto* newerOption = c->add_option(
        "--newer", o->newer, spoken("a design: list what it carries otherwise than the library has it"));
    c->add_flag("--take", o->take, spoken("with --newer: take those values into the design"))->needs(newerOption);
    return {c, [o] {
                if (!o->add.empty())
                    add(o->add);
                if (!o->remove.empty())
                    removeFromOwnLibrary(o->remove);
                if (!o->out.empty())
                    saveLibrary(myLibrary(), o->out, o->use == "goods");
                if (!o->newer.empty())
                    newer(*o);
                if (o->add.empty() && o->remove.empty() && o->out.empty() && o->newer.empty())
                    print(listed(myLibrary(), o->use));
                return 0;
            }};
}

} // namespace tectonis::cli
