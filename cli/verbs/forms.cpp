// SPDX-License-Identifier: GPL-3.0-or-later
// forms, new, form: body forms, and designs made from them.
#include "verbs.hpp"

#include "design/carried_library.hpp"
#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "formats/design_file.hpp"
#include "formats/measure_json.hpp"
#include "formats/own_library.hpp"
#include "formats/svg.hpp"
#include "forms/form.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

namespace tectonis::cli {
namespace {

void printForms(bool json)
{
    if (json)
        return print(formsJson());
    std::string out;
    for (const Form* form : forms()) {
        const Design design = newDesign(form->id());
        const DesignSpec spec = specOf(design);
        const Values values = evaluate(design, spec, sizeIndex(design, design.baseSize));
        out += fmt::format("{} – {}\n  {}\n\n  {}\n", form->id(), spoken("{}", Label{form->name()}),
            spoken("{}", Label{form->meaning()}), spoken("Dimensions (mm):"));
        for (const auto& d : spec.dimensions) {
            const Range range = rangeOf(d, values);
            out += fmt::format("    {:<22} {:<10} {} … {}  [{}]  {}\n", d.name, formatNumber(values.at(d.name)),
                formatNumber(range.min), formatNumber(range.max), ruleText(d.rule), spoken("{}", Label{d.meaning}));
        }
        out += "\n  " + spoken("Choices:") + "\n";
        for (const auto& c : spec.choices) {
            std::string options;
            for (const auto& [value, label] : c.options)
                options += (options.empty() ? "" : " | ") + value;
            out += fmt::format("    {:<22} {}  {}\n", c.name, options, spoken("{}", Label{c.meaning}));
        }
    }
    print(out);
}

/// Each form's silhouette as SVG.
void drawForms(const std::filesystem::path& folder)
{
    std::error_code error;
    std::filesystem::create_directories(folder, error);
    if (error)
        throw InputError(folder.string(), say("the folder cannot be made: {}", error.message()));
    const auto draw = [&](const std::string& name, const std::vector<Run>& silhouette) {
        std::string svg =
            "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"150\" height=\"165\" viewBox=\"-4 -108 108 114\">\n";
        for (const auto& run : silhouette)
            svg += fmt::format(
                "<path d=\"{}\" fill=\"{}\" stroke=\"#2b2620\" stroke-width=\"1.6\" stroke-linejoin=\"round\"/>\n",
                svgPath(run, {}, false), distance(startOf(run), endOf(run)) < 1e-6 ? "#f4e8d0" : "none");
        writeWhole(folder / (name + ".svg"), svg + "</svg>\n");
    };
    for (const Form* form : forms())
        draw(form->id(), form->silhouette());
    for (const FeatureKind* kind : featureKinds())
        draw("part-" + kind->kind(), kind->silhouette());
}

} // namespace

Verb formsVerb(CLI::App& app)
{
    struct Options {
        bool json = false;
        std::string drawings;
    };
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand(
        "forms", spoken("List the body forms and the parts they can carry, with dimensions and defaults"));
    c->add_flag("--json", o->json, spoken("as JSON"));
    c->add_option("--drawings", o->drawings, spoken("folder to write a drawing of each form and part to, as SVG"));
    return {c, [o] {
                if (!o->drawings.empty())
                    drawForms(o->drawings);
                printForms(o->json);
                return 0;
            }};
}

Verb newVerb(CLI::App& app)
{
    struct Options {
        std::string form, out, workshop;
        std::vector<std::string> values;
    };
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand("new", spoken("Make a new design"));
    c->add_option("form", o->form, spoken("the body form"))->required();
    c->add_option("--set", o->values, spoken("NAME=VALUE, a dimension or choice"))->take_all()->allow_extra_args(false);
    c->add_option("--workshop", o->workshop, spoken("who makes it, and in whose ways: a machine of your library"));
    c->add_option("-o,--output", o->out, spoken("file to write"))->required();
    return {c, [o] {
                Design design = newDesign(o->form);
                design.library = libraryFor(design, myLibrary());
                edit(design, [&](Design& next) {
                    if (!o->workshop.empty())
                        change::workshop(next, o->workshop), change::ways(next);
                    for (const auto& v : o->values)
                        change::assign(next, v);
                });
                saveDesign(design, o->out);
                return 0;
            }};
}

Verb formVerb(CLI::App& app)
{
    struct Options {
        std::string file, form;
    };
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand(
        "form", spoken("Make a design anew in another body form; what the form can take stays, the rest is named"));
    c->add_option("file", o->file, spoken("the design"))->required();
    c->add_option("form", o->form, spoken("the body form"))->required();
    return {c, [o] {
                changedFile(o->file, [&](Design& design) {
                    Reformed next = reformed(design, o->form);
                    for (const auto& lost : next.lost)
                        tell(say("not kept: {}", lost));
                    design = std::move(next.design);
                    return true;
                });
                return 0;
            }};
}

} // namespace tectonis::cli
