// SPDX-License-Identifier: GPL-3.0-or-later
// measure, walk, check, export: what reads a design.
#include "verbs.hpp"

#include "checks/finding.hpp"
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
            out += words(say("{}, size {}, {}: {}", Label{nameOf(f.severity)}, f.size, f.subject, f.text), Unit::Mm,
                       readersLanguage())
                + "\n";
        print(out.empty() ? words(say("No snags in any size."), Unit::Mm, readersLanguage()) + "\n" : out);
    }
    const bool bad = std::any_of(
        findings.begin(), findings.end(), [](const Finding& f) { return f.severity == Severity::Error; });
    return bad ? 1 : 0;
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
            out += fmt::format("Size {}: {} [{}]\n  {} {}   {} {}   ease {}   difference {}\n", p.size,
                words(seam.name, unit, readersLanguage()), seam.key, codes(p, seam.a), exactLength(seam.lengthA, unit),
                codes(p, seam.b), exactLength(seam.lengthB, unit), exactLength(seam.ease, unit),
                exactLength(seam.difference(), unit));
            if (seam.openStart + seam.openEnd > 0)
                out += fmt::format("  open at its start {}, at its end {}\n", exactLength(seam.openStart, unit),
                    exactLength(seam.openEnd, unit));
            for (const auto& stop : walked(p, seam))
                out += fmt::format("  {:>12}  {:>12}  {}{}\n", stop.onA < 0 ? "–" : exactLength(stop.onA, unit),
                    stop.onB < 0 ? "–" : exactLength(stop.onB, unit), words(stop.what, unit, readersLanguage()),
                    std::abs(stop.apart) > 0.005 ? ", " + exactLength(stop.apart, unit) + " apart" : "");
        }
    if (out.empty())
        throw InputError(only, "the pattern has no such seam; leave --seam away to list them all");
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
    auto* c = app.add_subcommand("measure", "Every number of the pattern");
    c->add_option("file", o->file, "the design")->required();
    c->add_option("--size", o->size, "only this size");
    c->add_flag("--json", o->json, "as JSON (always)");
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
    auto* c = app.add_subcommand("walk", "Walk the seams: both runs with every mark and join as they meet");
    c->add_option("file", o->file, "the design")->required();
    c->add_option("--seam", o->seam, "only this seam, by its key");
    c->add_option("--size", o->size, "only this size");
    c->add_option("--unit", o->unit, "in which lengths are written: mm, cm or in");
    return {c, [o] {
                print(walkReport(drafted(opened(o->file), o->size), o->seam, unitOf(o->unit)));
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
    auto* c = app.add_subcommand("check", "Check every size; exit code 1 if there is an error");
    c->add_option("file", o->file, "the design")->required();
    c->add_option("--size", o->size, "only this size");
    c->add_flag("--json", o->json, "as JSON");
    return {c, [o] { return printFindings(opened(o->file), o->size, o->json); }};
}

Verb exportVerb(CLI::App& app)
{
    struct Options {
        std::string file, what, out, paper = "A4", unit = "mm", size;
        bool figures = false;
    };
    const auto o = std::make_shared<Options>();
    std::string labels, ids;
    for (const auto& e : exporters()) {
        labels += (labels.empty() ? "" : "; ") + std::string(e.label);
        ids += (ids.empty() ? "" : ", ") + std::string(e.id);
    }
    auto* c = app.add_subcommand("export", "Write a file or folder: " + labels);
    c->add_option("file", o->file, "the design")->required();
    c->add_option("what", o->what, ids)->required();
    c->add_option("-o,--output", o->out, "file or folder to write")->required();
    c->add_option("--paper", o->paper, "A4, A3, Letter, or a paper of your library");
    c->add_flag("--figures", o->figures, "sheets: plain rectangles as figures, not printed");
    c->add_option("--unit", o->unit, "in which lengths are written: mm, cm or in");
    c->add_option("--size", o->size, "only this size");
    return {
        c, [o] {
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
            exporter.write({design, list, design.library->paper(o->paper), unitOf(o->unit), {o->figures}, {}, o->out});
            return 0;
        }};
}

} // namespace tectonis::cli
