// SPDX-License-Identifier: GPL-3.0-or-later
// measure, walk, check, export: what reads a design.
#include "verbs.hpp"

#include "checks/finding.hpp"
#include "editing/edits.hpp"
#include "editing/validated.hpp"
#include "edition/consequences.hpp"
#include "exporters/exporter.hpp"
#include "fonts.hpp"
#include "formats/measure_json.hpp"
#include "languages.hpp"
#include "pattern/walk.hpp"
#include "units/error.hpp"

#include <QGuiApplication>
#include <fmt/format.h>

#include <algorithm>

namespace tectonis::cli {
namespace {

int printFindings(const Design& design, const std::string& size, bool json)
{
    const auto patterns = drafted(design, size);
    const Findings findings = checkAll(design, patterns);
    if (json)
        print(findingsJson(findings));
    else {
        std::string out;
        for (const auto& f : findings)
            out += spoken("{}, size {}, {}: {}", nameOf(f.severity), f.size, f.subject, f.text) + "\n";
        print(out.empty() ? spoken("No snags in any size.") + "\n" : out);
    }
    const bool bad = std::any_of(
        findings.begin(), findings.end(), [](const Finding& f) { return f.severity == Severity::Error; });
    return bad ? 1 : 0;
}

/// Seam by seam, what meets as one run is rolled along the other.
std::string walkReport(const std::vector<Pattern>& patterns, const std::string& only, Unit unit)
{
    std::string out;
    const auto length = [&](double mm) { return readersLanguage().exactLength(mm, unit); };
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
            out += spoken("Size {}: {}", p.size, seam.name) + " [" + seam.key.text() + "]\n  "
                + spoken("{} {}   {} {}   ease {}   difference {}", codes(p, seam.a), length(seam.lengthA),
                    codes(p, seam.b), length(seam.lengthB), length(seam.ease), length(seam.difference()))
                + "\n";
            if (seam.openStart + seam.openEnd > 0)
                out += "  "
                    + spoken("open at its start {}, at its end {}", length(seam.openStart), length(seam.openEnd))
                    + "\n";
            for (const auto& stop : walked(p, seam)) {
                const std::string what = words(stop.what, unit, readersLanguage());
                out += fmt::format("  {:>12}  {:>12}  {}\n", stop.onA < 0 ? "–" : length(stop.onA),
                    stop.onB < 0 ? "–" : length(stop.onB),
                    std::abs(stop.apart) > 0.005 ? spoken("{}, {} apart", what, length(stop.apart)) : what);
            }
        }
    if (out.empty())
        throw InputError(only, say("the pattern has no such seam; leave --seam away to list them all"));
    return out;
}

} // namespace

Verb measureVerb(CLI::App& app)
{
    struct Options {
        std::string file, size;
        bool json = false;
    };
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand("measure", spoken("Every number of the pattern"));
    c->add_option("file", o->file, spoken("the design"))->required();
    c->add_option("--size", o->size, spoken("only this size"));
    c->add_flag("--json", o->json, spoken("as JSON (always)"));
    return {c, [o] {
                const Design design = opened(o->file);
                const auto patterns = drafted(design, o->size);
                print(measureJson(design, patterns, checkAll(design, patterns)));
                return 0;
            }};
}

Verb walkVerb(CLI::App& app)
{
    struct Options {
        std::string file, seam, size, unit = "mm";
    };
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand("walk", spoken("Walk the seams: both runs with every mark and join as they meet"));
    c->add_option("file", o->file, spoken("the design"))->required();
    c->add_option("--seam", o->seam, spoken("only this seam, by its key"));
    c->add_option("--size", o->size, spoken("only this size"));
    c->add_option("--unit", o->unit, spoken("in which lengths are written: mm, cm or in"));
    return {c, [o] {
                print(walkReport(drafted(opened(o->file), o->size), o->seam, unitOf(o->unit)));
                return 0;
            }};
}

Verb changesVerb(CLI::App& app)
{
    struct Options {
        std::string file, after, unit = "mm";
        std::vector<std::string> values;
    };
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand("changes",
        spoken("What follows from a change, in the base size: pieces, layers, work, things, steps, sums, snags"));
    c->add_option("file", o->file, spoken("the design"))->required();
    auto* after = c->add_option("--after", o->after, spoken("another state of it, in a file"));
    c->add_option("--set", o->values, spoken("NAME=VALUE …, tried and not kept"))->excludes(after);
    c->add_option("--unit", o->unit, spoken("in which lengths are written: mm, cm or in"));
    return {c, [o] {
                const Design before = opened(o->file);
                Design next = o->after.empty() ? before : opened(o->after);
                edit(next, [&](Design& d) {
                    for (const auto& value : o->values)
                        change::assign(d, value);
                });
                for (const auto& each : consequencesOf(before, next))
                    print(words(each.what, unitOf(o->unit), readersLanguage()) + "\n");
                return 0;
            }};
}

Verb checkVerb(CLI::App& app)
{
    struct Options {
        std::string file, size;
        bool json = false;
    };
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand("check", spoken("Check every size; exit code 1 if there is an error"));
    c->add_option("file", o->file, spoken("the design"))->required();
    c->add_option("--size", o->size, spoken("only this size"));
    c->add_flag("--json", o->json, spoken("as JSON"));
    return {c, [o] { return printFindings(opened(o->file), o->size, o->json); }};
}

Verb exportVerb(CLI::App& app)
{
    struct Options {
        std::string file, what, out, paper, unit, beside, size;
        bool figures = false, terse = false;
    };
    const auto o = std::make_shared<Options>();
    std::string labels, ids;
    for (const auto& e : exporters()) {
        labels += (labels.empty() ? "" : "; ") + spoken("{}", e.label);
        ids += (ids.empty() ? "" : ", ") + std::string(e.id);
    }
    auto* c = app.add_subcommand("export", spoken("Write a file or folder: {}", labels));
    c->add_option("file", o->file, spoken("the design"))->required();
    c->add_option("what", o->what, ids)->required();
    c->add_option("-o,--output", o->out, spoken("file or folder to write"))->required();
    c->add_option("--paper", o->paper,
        spoken("A4, A3, Letter, or a paper of your library; by itself the printer’s of the workshop"));
    c->add_flag("--figures", o->figures, spoken("sheets: plain rectangles as figures, not printed"));
    c->add_option("--unit", o->unit, spoken("in which lengths are written: mm, cm or in"));
    c->add_option("--beside", o->beside, spoken("booklets: lengths in this unit as well, in brackets"));
    c->add_flag("--terse", o->terse, spoken("booklets: for the practised, without how and why"));
    c->add_option("--size", o->size, spoken("only this size"));
    return {c, [o] {
                const Exporter& exporter = exporterOf(o->what);
                const Design design = opened(o->file);
                const auto patterns = drafted(design, o->size);
                std::vector<const Pattern*> list;
                for (const auto& p : patterns)
                    list.push_back(&p);
                int argc = 1;
                char name[] = "tectonis-cli";
                char* argv[] = {name, nullptr};
                qputenv("QT_QPA_PLATFORM", "offscreen");
                QGuiApplication gui(argc, argv);
                loadFonts();
                BookletManner manner{o->terse, {}};
                if (!o->beside.empty())
                    manner.beside = unitOf(o->beside);
                const Workshop& shop = design.workshop;
                const std::string paper = !o->paper.empty() ? o->paper : shop.printer.empty() ? "A4" : shop.printer;
                const std::string unit = !o->unit.empty() ? o->unit : shop.unit == "any" ? "mm" : shop.unit;
                exporter.write(
                    {design, list, design.library->paper(paper), unitOf(unit), {o->figures}, manner, {}, o->out});
                return 0;
            }};
}

} // namespace tectonis::cli
