// SPDX-License-Identifier: GPL-3.0-or-later
#include "formats/measure_json.hpp"

#include "buildup/layers.hpp"
#include "buildup/remedies.hpp"
#include "buildup/strap_ends.hpp"
#include "cutting/cut_list.hpp"
#include "editing/edits.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "library/library.hpp"
#include "sequence/minutes.hpp"
#include "sequence/order.hpp"
#include "sequence/told.hpp"
#include "units/error.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>

namespace tectonis {

using Ordered = nlohmann::ordered_json;

// What is told in words is told in English and in mm.
static void to_json(Ordered& out, const Message& m) { out = words(m); }
static void to_json(Ordered& out, const Label& l) { out = l.source; }

namespace {

Ordered boxed(const Run& outline)
{
    const Box box = boundsOf(outline);
    return {{"length", lengthOf(outline)}, {"area", areaOf(outline)}, {"width", box.width()}, {"height", box.height()}};
}

const char* nameOfGroup(Coat g)
{
    switch (g) {
    case Coat::Shell: return "shell";
    case Coat::Lining: return "lining";
    case Coat::Interlining: return "interlining";
    case Coat::Strip: return "strip";
    }
    return "";
}

Ordered pieceJson(const Pattern& p, const Piece& piece)
{
    const auto mat = p.materials.find(piece.material);
    Ordered out{{"code", piece.code}, {"name", piece.name}, {"layer", nameOfGroup(piece.coat)},
        {"material", mat == p.materials.end() ? piece.material : mat->second}, {"count", piece.count},
        {"mirrored", piece.mirrored}, {"key", piece.key}, {"grain", piece.grain}, {"stitch", boxed(piece.stitch())},
        {"cut", boxed(piece.cut)}};
    out["edges"] = Ordered::array();
    for (const auto& e : piece.edges) {
        Ordered edge{{"name", e.name}, {"length", e.length()}, {"allowance", e.allowance}};
        if (e.allowanceAtEnd)
            edge["allowance_end"] = *e.allowanceAtEnd;
        out["edges"].push_back(edge);
    }
    out["interlinings"] = Ordered::array();
    for (const auto& l : piece.layers) {
        const Box box = boundsOf(l.outline);
        out["interlinings"].push_back({{"kind", l.material}, {"code", l.code}, {"fixing", l.fixing}, {"trim", l.trim},
            {"cut", {{"width", box.width()}, {"height", box.height()}, {"area", areaOf(l.outline)}}}});
    }
    out["notches"] = Ordered::array();
    for (const auto& n : piece.notches)
        out["notches"].push_back({{"edge", n.edge}, {"along", n.along}, {"label", n.label}, {"stop", n.stop}});
    return out;
}

Ordered sideJson(const Pattern& p, const std::vector<EdgeUse>& side, double length)
{
    Ordered edges = Ordered::array();
    std::string pieces;
    std::string last;
    for (const auto& use : side) {
        const Piece* piece = p.piece(use.piece);
        const std::string code = piece ? piece->code : use.piece.text();
        edges.push_back(use.edge);
        if (code != last)
            pieces += (pieces.empty() ? "" : "+") + code;
        last = code;
    }
    return {{"piece", pieces}, {"edges", edges}, {"length", length}};
}

Ordered patternJson(const Design& design, const Pattern& p)
{
    Ordered out{{"name", p.size}, {"finished", {{"width", p.width}, {"height", p.height}, {"depth", p.depth}}}};
    out["dimensions"] = Ordered::object();
    for (const auto& [name, unused] : design.dimensions)
        out["dimensions"][name] = p.values.at(name);
    out["pieces"] = Ordered::array();
    for (const auto& piece : p.pieces)
        out["pieces"].push_back(pieceJson(p, piece));
    out["seams"] = Ordered::array();
    for (const auto& s : p.seams) {
        const Bulk bulk = bulkAt(p, s), row = isTopstitched(p, s) ? bulkUnderTopstitch(p, s) : Bulk();
        out["seams"].push_back(
            {{"name", s.name}, {"a", sideJson(p, s.a, s.lengthA)}, {"b", sideJson(p, s.b, s.lengthB)}, {"ease", s.ease},
                {"difference", s.difference()}, {"key", s.key}, {"allowance", s.allowance}, {"stitch", s.stitch},
                {"open", s.open}, {"under_foot", bulk.underFoot}, {"at_crossing", bulk.atCrossing},
                {"topstitched", row.underFoot}, {"topstitched_at_crossing", row.atCrossing}});
    }
    out["strap_ends"] = Ordered::array();
    for (const auto& end : strapEnds(p))
        out["strap_ends"].push_back({{"name", end.name}, {"piece", end.piece}, {"under_foot", end.bulk.underFoot}});
    out["zips"] = Ordered::array();
    for (const auto& z : p.zips)
        out["zips"].push_back({{"name", z.name}, {"gauge", z.gauge}, {"nominal_length", z.nominal},
            {"tape_length", z.tape}, {"visible_gap", z.visibleGap}, {"tape_width", z.tapeWidth}, {"kind", z.kind},
            {"first_stitch", z.first.stitch}, {"first_end", nameOf(z.first.kind)}, {"last_stitch", z.last.stitch},
            {"last_end", nameOf(z.last.kind)}});
    out["hardware"] = Ordered::array();
    for (const auto& h : p.hardware)
        out["hardware"].push_back(
            {{"kind", called(h.kind)}, {"count", h.count}, {"size", h.size}, {"text", h.sizeText}});
    out["straps"] = Ordered::array();
    for (const auto& s : p.straps)
        out["straps"].push_back({{"name", s.name}, {"cut_width", s.cutWidth}, {"cut_length", s.cutLength},
            {"longest", s.longest}, {"shortest", s.shortest}, {"width", s.width}, {"strips", s.strips}});
    out["fittings"] = Ordered::array();
    for (const auto& f : p.fittings)
        out["fittings"].push_back({{"name", f.name}, {"piece", p.piece(f.piece) ? p.piece(f.piece)->code : ""},
            {"x", f.at.x}, {"y", f.at.y}, {"size", f.size}, {"clearance", f.clearance}});
    out["steps"] = Ordered::array();
    int number = 0;
    for (const auto i : orderOf(design, p)) {
        const Step& s = p.steps[i];
        const StepWords said = told(p, s);
        Ordered pieces = Ordered::array();
        for (const auto& key : s.pieces)
            pieces.push_back(p.piece(key) ? p.piece(key)->code : key.text());
        out["steps"].push_back({{"number", ++number}, {"title", s.title}, {"pieces", pieces},
            {"allowance", said.allowance}, {"id", s.id}, {"phase", s.phase}, {"stitch", said.stitch},
            {"seam_class", said.seamClass}, {"tool", said.tool}, {"minutes", minutesOf(p, s).result},
            {"text", said.text}, {"check", said.check}, {"cautions", said.cautions}});
    }
    out["materials"] = Ordered::array();
    for (const auto& m : makeMarkers(p))
        out["materials"].push_back({{"id", m.material}, {"width", m.clothWidth}, {"length", m.length},
            {"sold_length", m.soldLength}, {"yield", m.yield}, {"cost", m.cost}});
    out["workings"] = Ordered::array();
    std::vector<Working> workings = p.workings;
    for (const auto& step : p.steps)
        workings.push_back(minutesOf(p, step));
    for (const auto& w : workings) {
        Ordered inputs = Ordered::object();
        for (const auto& in : w.inputs)
            inputs[in.name] = in.value;
        out["workings"].push_back({{"key", w.key}, {"label", w.label}, {"formula", w.formula}, {"inputs", inputs},
            {"result", w.result}, {"kind", nameOf(w.kind).source}, {"unit", w.unit}});
    }
    return out;
}

Ordered findingsArray(const Findings& findings)
{
    Ordered out = Ordered::array();
    for (const auto& f : findings)
        out.push_back({{"severity", nameOf(f.severity).source}, {"size", f.size}, {"subject", words(f.subject)},
            {"text", words(f.text)}, {"check", f.check}, {"stage", f.stage}});
    return out;
}

std::string dumped(const Ordered& j) { return j.dump(2, ' ', false, Ordered::error_handler_t::replace) + "\n"; }

Ordered dimensionJson(const DimensionSpec& d, const Values& values)
{
    const Range range = rangeOf(d, values);
    return {{"name", d.name}, {"label", d.label}, {"meaning", d.meaning},
        {"unit",
            d.quantity == DimensionSpec::Quantity::Length      ? "mm"
                : d.quantity == DimensionSpec::Quantity::Angle ? "°"
                                                               : ""},
        {"default", d.value}, {"value", values.at(d.name)}, {"rule", ruleText(d.rule)}, {"min", d.min}, {"max", d.max},
        {"min_now", range.min}, {"max_now", range.max}};
}

Ordered choiceJson(const ChoiceSpec& c)
{
    Ordered options = Ordered::array();
    for (const auto& [value, label] : c.options)
        options.push_back({{"value", value}, {"label", label}});
    return {{"name", c.name}, {"label", c.label}, {"meaning", c.meaning},
        {"default", c.options.empty() ? "" : c.options.front().first}, {"options", options}};
}

/// A kind of part with its dimensions as it comes to the first form that can carry it, and the forms that can.
Ordered partJson(const FeatureKind& kind)
{
    Ordered part{{"kind", kind.kind()}, {"name", kind.name()}, {"dimensions", Ordered::array()},
        {"choices", Ordered::array()}, {"needs", Ordered::array()}, {"forms", Ordered::array()}};
    for (const Form* form : forms()) {
        Design design = newDesign(form->id());
        while (!design.features.empty()) // bare, so that the part has its plain name
            removeFeature(design, design.features.front().id);
        std::string id;
        try {
            id = addFeature(design, kind.kind());
        } catch (const InputError&) {
            continue; // this form cannot carry it
        }
        for (const auto& needed : kind.needs(*form))
            if (std::find(part["needs"].begin(), part["needs"].end(), needed) == part["needs"].end())
                part["needs"].push_back(needed);
        if (part["forms"].empty()) {
            const DesignSpec& spec = specOf(design);
            const Values values = evaluate(design, spec, sizeIndex(design, design.baseSize));
            const auto own = [&](const std::string& name) { return name.starts_with(id + "."); };
            for (const auto& d : spec.dimensions)
                if (own(d.name))
                    part["dimensions"].push_back(dimensionJson(d, values));
            for (const auto& c : spec.choices)
                if (own(c.name))
                    part["choices"].push_back(choiceJson(c));
        }
        part["forms"].push_back(form->id());
    }
    return part;
}

} // namespace

std::string measureJson(const Design& design, const std::vector<Pattern>& patterns, const Findings& findings)
{
    Ordered out{{"format", "tectonis-measure"}, {"version", measureVersion}, {"unit", "mm"}, {"design", design.name},
        {"form", design.form}, {"base_size", design.baseSize}};
    out["sizes"] = Ordered::array();
    for (const auto& p : patterns)
        out["sizes"].push_back(patternJson(design, p));
    out["findings"] = findingsArray(findings);
    return dumped(out);
}

std::string findingsJson(const Findings& findings)
{
    return dumped({{"format", "tectonis-findings"}, {"version", 1}, {"findings", findingsArray(findings)}});
}

std::string formsJson()
{
    Ordered out{{"format", "tectonis-forms"}, {"version", 1}, {"unit", "mm"}, {"forms", Ordered::array()}};
    for (const Form* form : forms()) {
        const Design design = newDesign(form->id());
        const DesignSpec spec = specOf(design);
        const Values values = evaluate(design, spec, sizeIndex(design, design.baseSize));
        Ordered f{{"id", form->id()}, {"name", form->name()}, {"meaning", form->meaning()},
            {"dimensions", Ordered::array()}, {"choices", Ordered::array()}, {"features", Ordered::array()}};
        for (const auto& d : spec.dimensions)
            f["dimensions"].push_back(dimensionJson(d, values));
        for (const auto& c : spec.choices)
            f["choices"].push_back(choiceJson(c));
        for (const auto& feature : design.features)
            f["features"].push_back(
                {{"id", feature.id}, {"kind", feature.kind}, {"name", featureKind(feature.kind).name()}});
        out["forms"].push_back(f);
    }
    out["parts"] = Ordered::array();
    for (const FeatureKind* kind : featureKinds())
        out["parts"].push_back(partJson(*kind));
    return dumped(out);
}

} // namespace tectonis
