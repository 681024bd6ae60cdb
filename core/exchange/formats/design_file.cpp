// SPDX-License-Identifier: GPL-3.0-or-later
#include "formats/design_file.hpp"

#include "design/carried_library.hpp"
#include "design/limits.hpp"
#include "design/spec.hpp"
#include "editing/edits.hpp"
#include "formats/older_design.hpp"
#include "library/fields.hpp"
#include "library/library_json.hpp"
#include "text/places.hpp"
#include "units/error.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>

namespace tectonis {
namespace {

using nlohmann::json;
constexpr const char* kFormat = "tectonis-design";

/// Members that this version does not know, put back.
void graft(json& onto, const json& more)
{
    for (const auto& [key, value] : more.items()) {
        if (!onto.contains(key))
            onto[key] = value;
        else if (onto[key].is_object() && value.is_object())
            graft(onto[key], value);
    }
}

json with(json j, const More& more)
{
    if (!more.empty())
        graft(j, json::parse(more));
    return j;
}

/// What @p given holds beyond @p known, member by member. Null if nothing.
json beyond(const json& given, const json& known)
{
    json out;
    for (const auto& [key, value] : given.items()) {
        if (!known.contains(key))
            out[key] = value;
        else if (value.is_object() && known[key].is_object())
            if (json inner = beyond(value, known[key]); !inner.is_null())
                out[key] = std::move(inner);
    }
    return out;
}

More moreIn(const json& given, const json& known)
{
    const json out = beyond(given, known);
    return out.is_null() ? More() : out.dump();
}

json toJson(const Dimension& d)
{
    json j{{"value", d.value}, {"rule", ruleText(d.rule)}};
    if (!d.bySize.empty())
        j["bySize"] = d.bySize;
    return with(j, d.more);
}

json toJson(const Feature& f) { return with({{"id", f.id}, {"kind", f.kind}}, f.more); }

json toJson(const LayerRule& r)
{
    json j{{"pieces", r.pieces}, {"material", r.material}, {"fixing", r.fixing}, {"trim", r.trim}};
    if (!r.edges.empty())
        j["edges"] = r.edges;
    if (!r.area.empty())
        j["area"] = r.area;
    if (!r.grain.empty())
        j["grain"] = r.grain;
    return with(j, r.more);
}

json toJson(const Carried& c)
{
    json j{{"name", c.name}, {"width", c.width}, {"height", c.height}, {"thickness", c.thickness}, {"place", c.place}};
    if (c.weight != 0)
        j["weight"] = c.weight;
    return with(j, c.more);
}

json toJson(const Timed& t) { return with({{"minutes", t.minutes}, {"predicted", t.predicted}}, t.more); }

json toJson(const Trial& t)
{
    json j{{"date", t.date}, {"size", t.size}, {"note", t.note}, {"width", t.width}, {"height", t.height},
        {"depth", t.depth}, {"strapLongest", t.strapLongest}, {"zipOpening", t.zipOpening}, {"minutes", t.minutes}};
    if (t.predicted > 0)
        j["predicted"] = t.predicted;
    for (const auto& [step, timed] : t.steps)
        j["steps"][step] = toJson(timed);
    return with(j, t.more);
}

json toJson(const OwnStep& s)
{
    return with(
        {{"id", s.id}, {"title", s.title}, {"text", s.text}, {"after", s.after}, {"minutes", s.minutes}}, s.more);
}
json toJson(const Split& s) { return with({{"step", s.step}, {"verb", s.verb}, {"nth", s.nth}}, s.more); }
json toJson(const Joined& s) { return with({{"first", s.first}, {"then", s.then}}, s.more); }
json toJson(const Wish& w) { return with({{"first", w.first}, {"then", w.then}}, w.more); }
json toJson(const OwnWords& w) { return with({{"text", w.text}, {"was", w.was}}, w.more); }
json toJson(const Revision& r) { return with({{"date", r.date}, {"text", r.text}}, r.more); }
json toJson(const SeamEnds& e) { return with({{"start", e.start}, {"end", e.end}}, e.more); }
json toJson(const SeamCare& c)
{
    return with(
        {{"graded", c.graded}, {"open", c.open}, {"aside", c.aside}, {"hammered", c.hammered}, {"byHand", c.byHand}},
        c.more);
}

template <class Items> json listOf(const Items& items)
{
    json out = json::array();
    for (const auto& item : items)
        out.push_back(toJson(item));
    return out;
}

json toJson(const Design& d)
{
    json j{{"format", kFormat}, {"version", designFileVersion}, {"name", d.name}, {"studio", d.studio},
        {"notes", d.notes}, {"form", d.form}, {"sizes", {{"names", d.sizes}, {"base", d.baseSize}}},
        {"choices", d.choices}, {"materials", d.materials}, {"stepOrder", d.stepOrder}};
    j["dimensions"] = json::object();
    for (const auto& [name, dim] : d.dimensions)
        j["dimensions"][name] = toJson(dim);
    j["features"] = listOf(d.features);
    j["layers"] = listOf(d.layers);
    j["carried"] = listOf(d.carried);
    for (const auto& field : fieldsOf<Workshop>())
        std::visit([&](auto member) { j["workshop"][field.name] = d.workshop.*member; }, field.member);
    if (!d.ownSteps.empty())
        j["ownSteps"] = listOf(d.ownSteps);
    if (!d.wishes.empty())
        j["wishes"] = listOf(d.wishes);
    if (!d.splits.empty())
        j["splits"] = listOf(d.splits);
    if (!d.joined.empty())
        j["joined"] = listOf(d.joined);
    for (const auto& [step, own] : d.ownWords)
        j["ownWords"][step] = toJson(own);
    if (!d.hiddenSteps.empty())
        j["hiddenSteps"] = d.hiddenSteps;
    if (!d.run.empty())
        j["run"] = d.run;
    if (!d.goods.empty())
        j["goods"] = d.goods;
    j["trials"] = listOf(d.trials);
    for (const auto& [key, ends] : d.seamEnds)
        j["seamEnds"][key] = toJson(ends);
    for (const auto& [key, care] : d.seamCare)
        j["seamCare"][key] = toJson(care);
    for (const auto& [key, care] : d.endCare)
        j["endCare"][key] = toJson(care);
    j["revisions"] = listOf(d.revisions);
    j["library"] = toJson(carriedBy(d).contents());
    return with(j, d.more);
}

/// Reads one item and keeps what it holds beyond that.
template <class Item> Item read(const json& j, Item item)
{
    item.more = moreIn(j, toJson(item));
    return item;
}

SeamCare readCare(const json& care)
{
    return read(care,
        SeamCare{care.value("graded", false), care.value("open", false), care.value("aside", false),
            care.value("hammered", false), care.value("byHand", false), {}});
}

Trial readTrial(const json& j)
{
    std::map<std::string, Timed> steps;
    const json timed = j.value("steps", json::object());
    for (const auto& [step, each] : timed.items())
        steps[step] = read(each, Timed{each.value("minutes", 0.0), each.value("predicted", 0.0), {}});
    return read(j,
        Trial{j.value("date", ""), j.value("size", ""), j.value("note", ""), j.value("width", 0.0),
            j.value("height", 0.0), j.value("depth", 0.0), j.value("strapLongest", 0.0), j.value("zipOpening", 0.0),
            j.value("minutes", 0.0), j.value("predicted", 0.0), std::move(steps), {}});
}

Design fromJson(const json& j)
{
    Design d;
    d.name = j.value("name", "");
    d.studio = j.value("studio", "");
    d.notes = j.value("notes", "");
    d.form = j.at("form").get<std::string>();
    d.sizes = j.at("sizes").at("names").get<std::vector<std::string>>();
    d.baseSize = j.at("sizes").at("base").get<std::string>();
    for (const auto& [name, dim] : j.at("dimensions").items())
        d.dimensions[name] = read(dim,
            Dimension{dim.at("value").get<std::string>(), parseRule(dim.at("rule").get<std::string>()),
                dim.value("bySize", std::map<std::string, std::string>{}), {}});
    d.choices = j.at("choices").get<std::map<std::string, std::string>>();
    d.materials = j.at("materials").get<std::map<std::string, std::string>>();
    for (const auto& f : j.at("features"))
        d.features.push_back(read(f, Feature{f.at("id").get<std::string>(), f.at("kind").get<std::string>(), {}}));
    for (const auto& r : j.at("layers"))
        d.layers.push_back(read(r,
            LayerRule{r.at("pieces").get<std::string>(), r.at("material").get<std::string>(),
                r.value("fixing", "basted"), r.value("trim", "stitch"),
                r.value("edges", std::map<std::string, std::string>{}), r.value("area", ""), {},
                r.value("grain", "")}));
    for (const auto& c : j.value("carried", json::array()))
        d.carried.push_back(read(c,
            Carried{c.at("name").get<std::string>(), c.value("width", 0.0), c.value("height", 0.0),
                c.value("thickness", 0.0), c.value("place", "main"), c.value("weight", 0.0), {}}));
    if (j.contains("workshop")) {
        const json& w = j.at("workshop");
        for (const auto& field : fieldsOf<Workshop>())
            std::visit(
                [&](auto member) { d.workshop.*member = w.value(field.name, d.workshop.*member); }, field.member);
    }
    const json seamEnds = j.value("seamEnds", json::object());
    for (const auto& [key, ends] : seamEnds.items())
        d.seamEnds[key] = read(ends, SeamEnds{ends.value("start", 0.0), ends.value("end", 0.0), {}});
    const json seamCare = j.value("seamCare", json::object());
    for (const auto& [key, care] : seamCare.items())
        d.seamCare[key] = readCare(care);
    const json endCare = j.value("endCare", json::object());
    for (const auto& [key, care] : endCare.items())
        d.endCare[key] = readCare(care);
    d.stepOrder = j.value("stepOrder", std::vector<std::string>{});
    for (const auto& s : j.value("ownSteps", json::array()))
        d.ownSteps.push_back(read(s,
            OwnStep{s.at("id").get<std::string>(), s.value("title", ""), s.value("text", ""), s.value("after", ""),
                s.value("minutes", 0.0), {}}));
    for (const auto& w : j.value("wishes", json::array()))
        d.wishes.push_back(read(w, Wish{w.at("first").get<std::string>(), w.at("then").get<std::string>(), {}}));
    for (const auto& s : j.value("splits", json::array()))
        d.splits.push_back(
            read(s, Split{s.at("step").get<std::string>(), s.at("verb").get<std::string>(), s.value("nth", 1), {}}));
    for (const auto& s : j.value("joined", json::array()))
        d.joined.push_back(read(s, Joined{s.at("first").get<std::string>(), s.at("then").get<std::string>(), {}}));
    const json ownWords = j.value("ownWords", json::object());
    for (const auto& [step, own] : ownWords.items())
        d.ownWords[step] = read(own, OwnWords{own.value("text", ""), own.value("was", ""), {}});
    d.hiddenSteps = j.value("hiddenSteps", std::vector<std::string>{});
    d.goods = j.value("goods", std::vector<std::string>{});
    d.run = j.value("run", std::map<std::string, int>{});
    for (const auto& t : j.value("trials", json::array()))
        d.trials.push_back(readTrial(t));
    for (const auto& r : j.value("revisions", json::array()))
        d.revisions.push_back(read(r, Revision{r.value("date", ""), r.value("text", ""), {}}));
    // The items keep their own; here is what the design, its sizes and its workshop hold beyond.
    json own = j, known = toJson(d);
    for (const char* items :
        {"dimensions", "features", "layers", "carried", "trials", "revisions", "seamEnds", "seamCare", "endCare",
            "ownSteps", "wishes", "splits", "joined", "ownWords", "choices", "materials", "library"})
        own.erase(items);
    d.more = moreIn(own, known);
    return d;
}

/// Nothing of JSON that grows without end: how deep it is nested is bounded.
json parsed(const std::string& text, const std::string& place)
{
    try {
        return json::parse(text, [&](int depth, json::parse_event_t, json&) {
            if (depth > limits::nesting)
                throw InputError(
                    place, say("it is nested more than {} deep, which no Tectonis design is", limits::nesting));
            return true;
        });
    } catch (const json::parse_error& e) {
        throw InputError(say("{}, {}", place, lineAndColumn(text, e.byte == 0 ? 0 : e.byte - 1)),
            say("this is not a whole Tectonis design; the file may be cut short or of another kind"));
    } catch (const json::exception&) { // a number beyond all bounds
        throw InputError(place, say("it holds a number that is too large"));
    }
}

/// @throws InputError for the first problem, with line and column.
Library carriedIn(const json& j, const std::string& text)
{
    if (!j.contains("library"))
        return Library();
    return Library(libraryFromJson(j.at("library"), [&](const std::string& pointer, const Message& problem) {
        throw InputError(say("library, {}", lineAndColumn(text, jsonByte(text, "/library" + pointer))), problem);
    }));
}

} // namespace

std::string designText(const Design& design)
{
    return toJson(design).dump(2, ' ', false, json::error_handler_t::replace) + "\n";
}

ReadDesign readDesign(const std::string& text, const std::string& place, const Library& mine)
{
    const json j = parsed(text, place);
    try {
        if (!j.is_object() || j.value("format", json()) != kFormat)
            throw InputError("", say("this is not a Tectonis design"));
        if (!j.contains("version") || !j["version"].is_number_integer() || j["version"] < 1)
            throw InputError("", say("the file names no version"));
        if (j["version"] > designFileVersion)
            throw InputError("",
                say("the file is of version {}, this Tectonis reads up to version {}; open it with a newer Tectonis",
                    j["version"].get<long long>(), designFileVersion));
        ReadDesign out{fromJson(j), {}};
        out.design.library = SharedLibrary(carriedIn(j, text));
        requireSound(out.design);
        bringUpToDate(out.design, j["version"].get<int>(), mine);
        if (const auto filled = fillIn(out.design); !filled.empty()) {
            std::string names;
            for (std::size_t i = 0; i < std::min<std::size_t>(filled.size(), 6); ++i)
                names += (i ? ", " : "") + filled[i];
            if (filled.size() > 6)
                names += ", …";
            out.told.push_back(saySome("{} lacks a value that this Tectonis asks for; its default was taken: {}.",
                "{} lacks {2} values that this Tectonis asks for; their defaults were taken: {1}.", long(filled.size()),
                place, names, filled.size()));
        }
        out.design.library = libraryFor(out.design, mine);
        validate(out.design);
        return out;
    } catch (const json::exception& e) {
        std::string what = e.what();
        if (const auto bracket = what.find("] "); bracket != std::string::npos)
            what = what.substr(bracket + 2);
        throw InputError(place, say("a field is missing or of the wrong kind: {}", what));
    } catch (const InputError& e) {
        throw e.at(e.place().empty() ? naming(place) : say("{}, {}", place, e.place()));
    }
}

Design designFromText(const std::string& text, const std::string& place) { return readDesign(text, place).design; }

Design designFromTrusted(const std::string& text) { return fromJson(json::parse(text)); }

Design loadDesign(const std::filesystem::path& file, const Library& mine)
{
    return readDesign(readWhole(file), file.filename().string(), mine).design;
}

void saveDesign(const Design& design, const std::filesystem::path& file) { writeWhole(file, designText(design)); }

} // namespace tectonis
