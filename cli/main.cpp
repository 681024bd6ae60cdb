// SPDX-License-Identifier: GPL-3.0-or-later
// tectonis-cli: forms, new, set, part, form, measure, walk, check, export. Exit codes: 0 fine, 1 a check found an
// error, 2 bad input.
#include "booklet_pdf.hpp"
#include "checks/finding.hpp"
#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "fonts.hpp"
#include "formats/design_file.hpp"
#include "formats/measure_json.hpp"
#include "formats/svg.hpp"
#include "forms/form.hpp"
#include "pattern/walk.hpp"
#include "sheet_pdf.hpp"
#include "units/error.hpp"

#include <CLI/App.hpp>
#include <CLI/Config.hpp>
#include <CLI/Formatter.hpp>
#include <QGuiApplication>
#include <fmt/format.h>

#include <algorithm>
#include <cstdio>
#include <functional>

namespace tectonis {
namespace {

/// Output that fails (a full disk, a closed pipe) is an error too.
void print(const std::string& s)
{
    if (std::fwrite(s.data(), 1, s.size(), stdout) != s.size() || std::fflush(stdout) != 0)
        throw InputError("output", "cannot be written");
}

void printForms(bool json)
{
    if (json)
        return print(formsJson());
    std::string out;
    for (const Form* form : forms()) {
        const Design design = newDesign(form->id());
        const DesignSpec spec = specOf(design);
        const Values values = evaluate(design, spec, sizeIndex(design, design.baseSize));
        out += fmt::format("{} – {}\n  {}\n\n  Dimensions (mm):\n", form->id(), form->name(), form->meaning());
        for (const auto& d : spec.dimensions) {
            const Range range = rangeOf(d, values);
            out += fmt::format("    {:<22} {:<10} {} … {}  [{}]  {}\n", d.name, formatNumber(values.at(d.name)),
                formatNumber(range.min), formatNumber(range.max), ruleText(d.rule), d.meaning);
        }
        out += "\n  Choices:\n";
        for (const auto& c : spec.choices) {
            std::string options;
            for (const auto& [value, label] : c.options)
                options += (options.empty() ? "" : " | ") + value;
            out += fmt::format("    {:<22} {}  {}\n", c.name, options, c.meaning);
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
        throw InputError(folder.string(), "the folder cannot be made: " + error.message());
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

std::vector<Pattern> chosen(const Design& design, const std::string& size)
{
    auto all = draftAll(design);
    if (size.empty())
        return all;
    sizeIndex(design, size);
    std::erase_if(all, [&](const Pattern& p) { return p.size != size; });
    return all;
}

int printFindings(const Design& design, const std::string& size, bool json)
{
    const auto patterns = chosen(design, size);
    const Findings findings = checkAll(design, patterns);
    if (json)
        print(findingsJson(findings));
    else {
        std::string out;
        for (const auto& f : findings)
            out += fmt::format("{}, size {}, {}: {}\n", nameOf(f.severity), f.size, f.subject, f.text);
        print(out.empty() ? "No snags in any size.\n" : out);
    }
    const bool bad = std::any_of(
        findings.begin(), findings.end(), [](const Finding& f) { return f.severity == Severity::Error; });
    return bad ? 1 : 0;
}

void exportTo(const Design& design, const std::string& what, const std::filesystem::path& out,
    const std::string& paperName, const std::string& size, Unit unit, SheetOptions options)
{
    const auto patterns = chosen(design, size);
    const Paper& paper = paperOf(paperName);
    std::vector<const Pattern*> list;
    for (const auto& p : patterns)
        list.push_back(&p);
    if (what == "pieces") {
        writePieces(list, design.name, out);
        return;
    }
    if (what == "cutlist")
        return writeWhole(out, cutListText(design, patterns, unit));
    int argc = 1;
    char name[] = "tectonis-cli";
    char* argv[] = {name, nullptr};
    qputenv("QT_QPA_PLATFORM", "offscreen");
    QGuiApplication gui(argc, argv);
    loadFonts();
    const QByteArray pdf = what == "sheets" ? sheetPdf(design, list, paper, unit, {}, options)
                                            : bookletPdf(design, list, paper, unit);
    writeWhole(out, pdf.toStdString());
}

/// The design in a file, and what the reader of the file should know.
Design opened(const std::filesystem::path& file)
{
    ReadDesign read = readDesign(readWhole(file), file.filename().string());
    for (const auto& told : read.told)
        std::fprintf(stderr, "tectonis-cli: %s\n", told.c_str());
    return std::move(read.design);
}

/// Reads, changes and saves a file while nobody else does: two runs at once lose nothing.
Design changedFile(const std::filesystem::path& file, const std::function<bool(Design&)>& change)
{
    const FileLock lock(file);
    Design design = opened(file);
    if (change(design))
        saveDesign(design, file);
    return design;
}

/// Seam by seam, what meets as one run is rolled along the other.
std::string walkReport(const std::vector<Pattern>& patterns, const std::string& only, Unit unit)
{
    std::string out;
    const auto codes = [](const Pattern& p, const std::vector<EdgeUse>& side) {
        std::string list, last;
        for (const auto& use : side)
            if (const Piece* piece = p.piece(use.piece); piece && piece->code != last)
                list += (list.empty() ? "" : "+") + piece->code, last = piece->code;
        return list;
    };
    for (const auto& p : patterns)
        for (const auto& seam : p.seams) {
            if (!only.empty() && seam.key != only)
                continue;
            out += fmt::format("Size {}: {} [{}]\n  {} {}   {} {}   ease {}   difference {}\n", p.size, seam.name,
                seam.key, codes(p, seam.a), exactLength(seam.lengthA, unit), codes(p, seam.b),
                exactLength(seam.lengthB, unit), exactLength(seam.ease, unit), exactLength(seam.difference(), unit));
            if (seam.openStart + seam.openEnd > 0)
                out += fmt::format("  open at its start {}, at its end {}\n", exactLength(seam.openStart, unit),
                    exactLength(seam.openEnd, unit));
            for (const auto& stop : walked(p, seam))
                out += fmt::format("  {:>12}  {:>12}  {}{}\n", stop.onA < 0 ? "–" : exactLength(stop.onA, unit),
                    stop.onB < 0 ? "–" : exactLength(stop.onB, unit), stop.what,
                    std::abs(stop.apart) > 0.005 ? ", " + exactLength(stop.apart, unit) + " apart" : "");
        }
    if (out.empty())
        throw InputError(only, "the pattern has no such seam; leave --seam away to list them all");
    return out;
}

int run(int argc, char** argv)
{
    CLI::App app{"Tectonis on the command line: bag patterns from a design file.\nLengths: 240, 24cm, 9 1/2in; plain "
                 "numbers are mm."};
    app.name("tectonis-cli");
    app.require_subcommand(1);
    app.set_version_flag("--version", "tectonis-cli " TECTONIS_VERSION);
    bool json = false;
    std::string form, file, out, size, what, paper = "A4", unit = "mm";
    bool figures = false;
    std::vector<std::string> values;

    auto* formsCommand = app.add_subcommand(
        "forms", "List the body forms and the parts they can carry, with dimensions and defaults");
    formsCommand->add_flag("--json", json, "as JSON");
    formsCommand->add_option("--drawings", out, "folder to write a drawing of each form and part to, as SVG");
    auto* newCommand = app.add_subcommand("new", "Make a new design");
    newCommand->add_option("form", form, "the body form")->required();
    newCommand->add_option("--set", values, "NAME=VALUE, a dimension or choice")->take_all()->allow_extra_args(false);
    newCommand->add_option("-o,--output", out, "file to write")->required();
    auto* setCommand = app.add_subcommand("set", "Change dimensions or choices of a design");
    setCommand->add_option("file", file, "the design")->required();
    setCommand->add_option("values", values, "NAME=VALUE …")->required();
    setCommand->add_option("--size", size, "only in this size");
    std::vector<std::string> added, removed;
    auto* partCommand = app.add_subcommand("part", "List, add or take out the parts (features) of a design");
    partCommand->add_option("file", file, "the design")->required();
    partCommand->add_option("--add", added, "KIND, e.g. slip-pocket")->take_all()->allow_extra_args(false);
    partCommand->add_option("--remove", removed, "ID, e.g. slip2")->take_all()->allow_extra_args(false);
    auto* formCommand = app.add_subcommand(
        "form", "Make a design anew in another body form; what the form can take stays, the rest is named");
    formCommand->add_option("file", file, "the design")->required();
    formCommand->add_option("form", form, "the body form")->required();
    auto* measureCommand = app.add_subcommand("measure", "Every number of the pattern");
    measureCommand->add_option("file", file, "the design")->required();
    measureCommand->add_option("--size", size, "only this size");
    measureCommand->add_flag("--json", json, "as JSON (always)");
    std::string seamKey;
    auto* walkCommand = app.add_subcommand("walk", "Walk the seams: both runs with every mark and join as they meet");
    walkCommand->add_option("file", file, "the design")->required();
    walkCommand->add_option("--seam", seamKey, "only this seam, by its key");
    walkCommand->add_option("--size", size, "only this size");
    walkCommand->add_option("--unit", unit, "in which lengths are written: mm, cm or in");
    auto* checkCommand = app.add_subcommand("check", "Check every size; exit code 1 if there is an error");
    checkCommand->add_option("file", file, "the design")->required();
    checkCommand->add_option("--size", size, "only this size");
    checkCommand->add_flag("--json", json, "as JSON");
    auto* exportCommand = app.add_subcommand(
        "export", "Write sheets or booklet (PDF), pieces (a folder of SVG), or cutlist (text)");
    exportCommand->add_option("file", file, "the design")->required();
    exportCommand->add_option("what", what, "sheets, booklet, pieces or cutlist")->required();
    exportCommand->add_option("-o,--output", out, "file or folder to write")->required();
    exportCommand->add_option("--paper", paper, "A4 or Letter");
    exportCommand->add_flag("--figures", figures, "sheets: plain rectangles as figures, not printed");
    exportCommand->add_option("--unit", unit, "in which lengths are written: mm, cm or in");
    exportCommand->add_option("--size", size, "only this size");

    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& e) {
        return app.exit(e) == 0 ? 0 : 2;
    }
    if (*formsCommand) {
        if (!out.empty())
            drawForms(out);
        printForms(json);
    } else if (*newCommand) {
        Design design = newDesign(form);
        edit(design, [&](Design& next) {
            for (const auto& v : values)
                change::assign(next, v);
        });
        saveDesign(design, out);
    } else if (*setCommand) {
        changedFile(file, [&](Design& design) {
            edit(design, [&](Design& next) {
                for (const auto& v : values)
                    change::assign(next, v, size.empty() ? std::nullopt : std::optional(size));
            });
            return true;
        });
    } else if (*partCommand) {
        const Design design = changedFile(file, [&](Design& d) {
            edit(d, [&](Design& next) {
                for (const auto& kind : added)
                    change::addPart(next, kind);
                for (const auto& id : removed)
                    change::removePart(next, id);
            });
            return !added.empty() || !removed.empty();
        });
        std::string list;
        for (const auto& f : design.features)
            list += fmt::format("{}\t{}\n", f.id, f.kind);
        print(list);
    } else if (*formCommand) {
        changedFile(file, [&](Design& design) {
            Reformed next = reformed(design, form);
            for (const auto& lost : next.lost)
                std::fprintf(stderr, "tectonis-cli: not kept: %s\n", lost.c_str());
            design = std::move(next.design);
            return true;
        });
    } else if (*measureCommand) {
        const Design design = opened(file);
        const auto patterns = chosen(design, size);
        print(measureJson(design, patterns, checkAll(design, patterns)));
    } else if (*walkCommand) {
        const Design design = opened(file);
        print(walkReport(chosen(design, size), seamKey, unitOf(unit)));
    } else if (*checkCommand)
        return printFindings(opened(file), size, json);
    else if (*exportCommand) {
        if (what != "sheets" && what != "booklet" && what != "pieces" && what != "cutlist")
            throw InputError(what, "there is no such export; use sheets, booklet, pieces or cutlist");
        exportTo(opened(file), what, out, paper, size, unitOf(unit), {figures});
    }
    return 0;
}

} // namespace
} // namespace tectonis

int main(int argc, char** argv)
{
    try {
        return tectonis::run(argc, argv);
    } catch (const std::exception& e) {
        std::fprintf(stderr, "tectonis-cli: %s\n", e.what());
        return 2;
    }
}
