// SPDX-License-Identifier: GPL-3.0-or-later
#include "formats/design_file.hpp"

#include "design/edits.hpp"
#include "design/spec.hpp"
#include "units/error.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <nlohmann/json.hpp>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <cmath>
#include <cstring>
#include <fstream>
#include <sstream>

namespace tectonis {
namespace {

using nlohmann::json;
constexpr const char* kFormat = "tectonis-design";

json toJson(const LayerRule& r)
{
    json j{{"pieces", r.pieces}, {"material", r.material}, {"fixing", r.fixing}, {"trim", r.trim}};
    if (!r.edges.empty())
        j["edges"] = r.edges;
    if (!r.area.empty())
        j["area"] = r.area;
    return j;
}

json toJson(const Design& d)
{
    json j{{"format", kFormat}, {"version", designFileVersion}, {"name", d.name}, {"studio", d.studio}, {"notes", d.notes}, {"form", d.form},
           {"sizes", {{"names", d.sizes}, {"base", d.baseSize}}}, {"choices", d.choices}, {"materials", d.materials}, {"stepOrder", d.stepOrder}};
    j["dimensions"] = json::object();
    for (const auto& [name, dim] : d.dimensions) {
        auto& out = j["dimensions"][name] = {{"value", dim.value}, {"rule", ruleText(dim.rule)}};
        if (!dim.bySize.empty())
            out["bySize"] = dim.bySize;
    }
    j["features"] = json::array();
    for (const auto& f : d.features)
        j["features"].push_back({{"id", f.id}, {"kind", f.kind}});
    j["layers"] = json::array();
    for (const auto& r : d.layers)
        j["layers"].push_back(toJson(r));
    j["carried"] = json::array();
    for (const auto& c : d.carried)
        j["carried"].push_back({{"name", c.name}, {"width", c.width}, {"height", c.height}, {"thickness", c.thickness}, {"place", c.place}});
    j["workshop"] = {{"machine", d.workshop.machine},         {"machineLimit", d.workshop.machineLimit}, {"footWidth", d.workshop.footWidth},
                     {"stitchSpeed", d.workshop.stitchSpeed}, {"labourRate", d.workshop.labourRate},     {"overhead", d.workshop.overhead}};
    j["trials"] = json::array();
    for (const auto& t : d.trials)
        j["trials"].push_back({{"date", t.date}, {"size", t.size}, {"note", t.note}, {"width", t.width}, {"height", t.height}, {"depth", t.depth},
                               {"strapLongest", t.strapLongest}, {"zipOpening", t.zipOpening}, {"minutes", t.minutes}});
    for (const auto& [key, ends] : d.seamEnds)
        j["seamEnds"][key] = {{"start", ends.start}, {"end", ends.end}};
    j["revisions"] = json::array();
    for (const auto& r : d.revisions)
        j["revisions"].push_back({{"date", r.date}, {"text", r.text}});
    return j;
}

/// What @p given holds beyond @p known: members this version did not take over. Null if nothing.
json unknownIn(const json& given, const json& known)
{
    json out;
    if (given.is_object() && known.is_object()) {
        for (const auto& [key, value] : given.items()) {
            if (!known.contains(key))
                out[key] = value;
            else if (json inner = unknownIn(value, known[key]); !inner.is_null())
                out[key] = std::move(inner);
        }
    } else if (given.is_array() && known.is_array() && given.size() == known.size()) {
        for (std::size_t i = 0; i < given.size(); ++i)
            if (json inner = unknownIn(given[i], known[i]); !inner.is_null())
                out[std::to_string(i)] = std::move(inner); // by position
    }
    return out;
}

void graft(json& onto, const json& unknown)
{
    if (!unknown.is_object())
        return;
    for (const auto& [key, value] : unknown.items()) {
        if (onto.is_array()) {
            const std::size_t i = std::strtoul(key.c_str(), nullptr, 10);
            if (i < onto.size())
                graft(onto[i], value);
        } else if (onto.is_object()) {
            if (!onto.contains(key))
                onto[key] = value;
            else
                graft(onto[key], value);
        }
    }
}

std::string lineAndColumn(const std::string& text, std::size_t byte)
{
    const std::size_t end = std::min(byte == 0 ? 0 : byte - 1, text.size());
    const auto line = std::count(text.begin(), text.begin() + long(end), '\n') + 1;
    const auto start = text.rfind('\n', end == 0 ? 0 : end - 1);
    return fmt::format("line {}, column {}", line, start == std::string::npos ? end + 1 : end - start);
}

double finite(const json& j, const char* name, double fallback = 0)
{
    if (!j.contains(name))
        return fallback;
    const double v = j.at(name).get<double>();
    if (!std::isfinite(v) || v < 0 || v > 1e7)
        throw InputError(name, fmt::format("{} is no usable measure", v));
    return v;
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
        d.dimensions[name] = {dim.at("value").get<std::string>(), parseRule(dim.at("rule").get<std::string>()),
                              dim.value("bySize", std::map<std::string, std::string>{})};
    d.choices = j.at("choices").get<std::map<std::string, std::string>>();
    d.materials = j.at("materials").get<std::map<std::string, std::string>>();
    for (const auto& f : j.at("features"))
        d.features.push_back({f.at("id").get<std::string>(), f.at("kind").get<std::string>()});
    for (const auto& r : j.at("layers"))
        d.layers.push_back({r.at("pieces").get<std::string>(), r.at("material").get<std::string>(), r.value("fixing", "basted"), r.value("trim", "stitch"),
                            r.value("edges", std::map<std::string, std::string>{}), r.value("area", "")});
    for (const auto& c : j.value("carried", json::array()))
        d.carried.push_back({c.at("name").get<std::string>(), finite(c, "width"), finite(c, "height"), finite(c, "thickness"), c.value("place", "main")});
    if (j.contains("workshop")) {
        const json& w = j.at("workshop");
        d.workshop.machine = w.value("machine", d.workshop.machine);
        d.workshop.machineLimit = finite(w, "machineLimit", d.workshop.machineLimit);
        d.workshop.footWidth = finite(w, "footWidth", d.workshop.footWidth);
        d.workshop.stitchSpeed = std::max(0.01, finite(w, "stitchSpeed", d.workshop.stitchSpeed));
        d.workshop.labourRate = finite(w, "labourRate", d.workshop.labourRate);
        d.workshop.overhead = finite(w, "overhead", d.workshop.overhead);
    }
    const json seamEnds = j.value("seamEnds", json::object());
    for (const auto& [key, ends] : seamEnds.items())
        d.seamEnds[key] = {ends.value("start", 0.0), ends.value("end", 0.0)};
    d.stepOrder = j.value("stepOrder", std::vector<std::string>{});
    for (const auto& t : j.value("trials", json::array()))
        d.trials.push_back({t.value("date", ""), t.value("size", ""), t.value("note", ""), finite(t, "width"), finite(t, "height"), finite(t, "depth"),
                            finite(t, "strapLongest"), finite(t, "zipOpening"), finite(t, "minutes")});
    for (const auto& r : j.value("revisions", json::array()))
        d.revisions.push_back({r.value("date", ""), r.value("text", "")});
    return d;
}

[[noreturn]] void failWrite(const std::filesystem::path& file, int error)
{
    throw InputError(file.string(), fmt::format("cannot be written: {}; what was there before is unharmed", std::strerror(error)));
}

} // namespace

std::string designText(const Design& design)
{
    json j = toJson(design);
    if (!design.unknownFields.empty())
        graft(j, json::parse(design.unknownFields));
    return j.dump(2, ' ', false, json::error_handler_t::replace) + "\n";
}

Design designFromText(const std::string& text, const std::string& place)
{
    json j;
    try {
        j = json::parse(text);
    } catch (const json::parse_error& e) {
        throw InputError(fmt::format("{}, {}", place, lineAndColumn(text, e.byte)), "this is not a whole Tectonis design; the file may be cut short or of another kind");
    }
    if (!j.is_object() || j.value("format", json()) != kFormat)
        throw InputError(place, "this is not a Tectonis design");
    if (!j.contains("version") || !j["version"].is_number_integer() || j["version"] < 1)
        throw InputError(place, "the file names no version");
    if (j["version"] > designFileVersion)
        throw InputError(place, fmt::format("the file is of version {}, this Tectonis reads up to version {}; open it with a newer Tectonis",
                                            j["version"].get<long long>(), designFileVersion));
    try {
        Design d = fromJson(j);
        fillIn(d);
        validate(d);
        // What this version writes back, compared with what it was given, shows what it does not know.
        json known = toJson(d);
        if (json unknown = unknownIn(j, known); !unknown.is_null())
            d.unknownFields = unknown.dump();
        return d;
    } catch (const json::exception& e) {
        std::string what = e.what();
        if (const auto bracket = what.find("] "); bracket != std::string::npos)
            what = what.substr(bracket + 2);
        throw InputError(place, "a field is missing or of the wrong kind: " + what);
    } catch (const InputError& e) {
        throw InputError(fmt::format("{}, {}", place, e.place()), e.problem());
    }
}

std::string readWhole(const std::filesystem::path& file)
{
    std::ifstream in(file, std::ios::binary);
    if (!in || std::filesystem::is_directory(file))
        throw InputError(file.string(), fmt::format("cannot be read: {}", std::strerror(std::filesystem::is_directory(file) ? EISDIR : errno)));
    std::ostringstream text;
    text << in.rdbuf();
    return text.str();
}

Design loadDesign(const std::filesystem::path& file) { return designFromText(readWhole(file), file.filename().string()); }

void writeWhole(const std::filesystem::path& file, const std::string& bytes)
{
    // A link keeps pointing where it did: what it names is replaced, not the link.
    std::error_code ignored;
    const auto target = std::filesystem::is_symlink(file, ignored) ? std::filesystem::canonical(file, ignored) : file;
    const auto beside = target.string() + ".part" + std::to_string(::getpid());
    const int fd = ::open(beside.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, 0644);
    if (fd < 0)
        failWrite(file, errno);
    std::size_t done = 0;
    int error = 0;
    while (done < bytes.size() && !error) {
        const ssize_t n = ::write(fd, bytes.data() + done, bytes.size() - done);
        if (n < 0 && errno != EINTR)
            error = errno;
        else if (n > 0)
            done += std::size_t(n);
    }
    if (!error && ::fsync(fd) != 0 && errno != EINVAL)
        error = errno;
    if (::close(fd) != 0 && !error)
        error = errno;
    if (!error && ::rename(beside.c_str(), target.c_str()) != 0)
        error = errno;
    if (error) {
        ::unlink(beside.c_str());
        failWrite(file, error);
    }
}

void saveDesign(const Design& design, const std::filesystem::path& file) { writeWhole(file, designText(design)); }

} // namespace tectonis
