// SPDX-License-Identifier: GPL-3.0-or-later
// set, sizes, rule: single values, the list of sizes, how dimensions grow.
#include "verbs.hpp"

#include "design/spec.hpp"
#include "editing/edits.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

namespace tectonis::cli {
namespace {

/// NAME=VALUE in two. @throws InputError if there is no equals sign.
std::pair<std::string, std::string> parted(const std::string& assignment)
{
    const auto equals = assignment.find('=');
    if (equals == std::string::npos || equals == 0)
        throw InputError(assignment, say("write NAME=RULE"));
    return {assignment.substr(0, equals), assignment.substr(equals + 1)};
}

/// Every dimension with its value, its rule and the own values of sizes.
std::string rulesText(const Design& design)
{
    std::string out;
    for (const auto& spec : specOf(design).dimensions) {
        const Dimension& d = design.dimensions.at(spec.name);
        out += fmt::format("{}\t{}\t{}", spec.name, d.value, ruleText(d.rule));
        for (const auto& [size, own] : d.bySize)
            out += fmt::format("\t{}={}", size, own);
        out += "\n";
    }
    return out;
}

} // namespace

Verb setVerb(CLI::App& app)
{
    struct Options {
        std::string file, size;
        std::vector<std::string> values;
    };
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand("set",
        spoken(
            "Change dimensions, choices, material.ROLE, seam.KEY.start, workshop, name, studio or notes of a design"));
    c->add_option("file", o->file, spoken("the design"))->required();
    c->add_option("values", o->values, spoken("NAME=VALUE …"))->required();
    c->add_option("--size", o->size, spoken("only in this size"));
    return {c, [o] {
                changedFile(o->file, [&](Design& design) {
                    const Design before = design;
                    edit(design, [&](Design& next) {
                        for (const auto& v : o->values)
                            change::assign(next, v, o->size.empty() ? std::nullopt : std::optional(o->size));
                    });
                    for (const auto& besides : fittedBesides(before, design))
                        fmt::print("{}\n", words(besides));
                    return true;
                });
                return 0;
            }};
}

Verb sizesVerb(CLI::App& app)
{
    struct Options {
        std::string file, base;
        std::vector<std::string> names;
    };
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand(
        "sizes", spoken("List the sizes of a design, or give it others; the base size has a *"));
    c->add_option("file", o->file, spoken("the design"))->required();
    c->add_option("names", o->names, spoken("all sizes in their order"));
    c->add_option("--base", o->base, spoken("the size that values are given for"));
    return {c, [o] {
                const bool any = !o->names.empty() || !o->base.empty();
                const Design design = changedFile(o->file, [&](Design& d) {
                    if (any)
                        edit(d, [&](Design& next) {
                            change::sizes(next, o->names.empty() ? next.sizes : o->names, o->base);
                        });
                    return any;
                });
                std::string list;
                for (const auto& s : design.sizes)
                    list += s + (s == design.baseSize ? " *" : "") + "\n";
                print(list);
                return 0;
            }};
}

Verb ruleVerb(CLI::App& app)
{
    struct Options {
        std::string file, size;
        std::vector<std::string> rules, none;
    };
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand("rule",
        spoken("List dimensions with their size rules and own values, or change rules: hold, follow, step 20, ratio "
               "1.08, stock zip"));
    c->add_option("file", o->file, spoken("the design"))->required();
    c->add_option("rules", o->rules, spoken("NAME=RULE …"));
    c->add_option("--no-own", o->none, spoken("NAME: takes its own value in --size away again"))
        ->take_all()
        ->allow_extra_args(false);
    c->add_option("--size", o->size, spoken("the size that --no-own means"));
    return {c, [o] {
                const bool any = !o->rules.empty() || !o->none.empty();
                if (!o->none.empty() && o->size.empty())
                    throw InputError("--no-own", say("name the size with --size"));
                const Design design = changedFile(o->file, [&](Design& d) {
                    if (any)
                        edit(d, [&](Design& next) {
                            for (const auto& r : o->rules)
                                change::rule(next, parted(r).first, parseRule(parted(r).second));
                            for (const auto& name : o->none) {
                                sizeIndex(next, o->size);
                                change::noOwnValue(next, name, o->size);
                            }
                        });
                    return any;
                });
                if (!any)
                    print(rulesText(design));
                return 0;
            }};
}

} // namespace tectonis::cli
