// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/fields.hpp"

#include "files/files.hpp"
#include "units/error.hpp"
#include "units/length.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

using Quantity = FieldSpec::Quantity;

std::string lower(std::string s)
{
    std::transform(s.begin(), s.end(), s.begin(), [](char c) { return c >= 'A' && c <= 'Z' ? char(c + 32) : c; });
    return s;
}

std::string withoutEnding(const std::string& s, const std::string& ending)
{
    return s.substr(0, s.find_last_not_of(" \u00a0", s.size() - ending.size() - 1) + 1);
}

/// A number, or a length in mm, or a weight in g/m². @throws InputError.
double numberOf(const std::string& text, Quantity quantity)
{
    if (quantity == Quantity::Length)
        return parseLength(text);
    std::string s = text;
    double factor = 1;
    if (quantity == Quantity::Weight)
        for (const auto& [unit, f] : {std::pair<const char*, double>{"oz/yd²", gsmOfOunces(1)},
                 {"oz/yd2", gsmOfOunces(1)}, {"oz", gsmOfOunces(1)}, {"g/m²", 1}, {"g/m2", 1}, {"gsm", 1}})
            if (s.ends_with(unit) && s != unit) {
                s = withoutEnding(s, unit), factor = f;
                break;
            }
    // A length without a unit is a number, with decimal comma or fraction; one with a unit is none.
    if (s.empty() || !std::isdigit(static_cast<unsigned char>(s.back())))
        throw InputError("", say("“{}” is no number", text));
    return parseLength(s) * factor;
}

/// "Blue cork, 1 mm" to "blue-cork-1-mm".
std::string idFrom(const std::string& name)
{
    std::string out;
    for (const char c : lower(name))
        if ((c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || static_cast<unsigned char>(c) >= 128)
            out += c;
        else if (!out.empty() && out.back() != '-')
            out += '-';
    while (!out.empty() && out.back() == '-')
        out.pop_back();
    return out.substr(0, 80);
}

/// An id from the name, a name from the id. @returns what is wrong with them.
Message named(std::string& id, std::string& name)
{
    if (name.empty())
        name = id;
    if (id.empty())
        id = idFrom(name);
    if (id.empty())
        return say("it has neither a name nor an id");
    if (id.find('=') != std::string::npos || id.front() == ' ' || id.back() == ' ')
        return say("“{}” is no id: no = and no space at its ends", id);
    return {};
}

} // namespace

Message setValue(std::string& to, const FieldSpec& field, const std::string& text)
{
    if (!printable(text))
        return say("a line of text of at most 200 bytes was expected");
    if (field.quantity == Quantity::Word
        && std::none_of(field.words.begin(), field.words.end(), [&](const char* w) { return text == w; }))
        return say("“{}” was given; write one of {}", text, fmt::format("{}", fmt::join(field.words, ", ")));
    to = text;
    return {};
}

Message setValue(double& to, const FieldSpec& field, const std::string& text)
{
    try {
        const double v = numberOf(text, field.quantity);
        if (!(v >= field.least && v <= field.most))
            return outside(v, field.least, field.most,
                field.quantity == Quantity::Length       ? "mm"
                    : field.quantity == Quantity::Weight ? "g/m²"
                                                         : "");
        to = v;
        return {};
    } catch (const InputError& e) {
        return e.problem();
    }
}

Message setValue(bool& to, const FieldSpec&, const std::string& text)
{
    const std::string word = lower(text);
    for (const char* yes : {"yes", "true", "1", "y"})
        if (word == yes)
            return to = true, Message();
    for (const char* no : {"no", "false", "0", "n"})
        if (word == no)
            return to = false, Message();
    return say("“{}” was given; write yes or no", text);
}

bool printable(const std::string& text)
{
    return text.size() <= 200 && isUtf8(text) && std::none_of(text.begin(), text.end(), [](char c) {
        return static_cast<unsigned char>(c) < 32 || c == 127;
    });
}

Message expected(const FieldSpec& field)
{
    switch (field.quantity) {
    case Quantity::Text: return say("a line of text was expected");
    case Quantity::Word: return say("a word was expected");
    case Quantity::Length: return say("a length was expected");
    case Quantity::Weight: return say("a weight was expected");
    case Quantity::Number: return say("a number was expected");
    case Quantity::YesNo: return say("yes or no was expected");
    }
    return {};
}

std::string valueText(const std::string& value) { return value; }
std::string valueText(double value) { return fmt::format("{}", value); }
std::string valueText(bool value) { return value ? "yes" : "no"; }

Message completed(Material& m)
{
    if (auto problem = named(m.id, m.name); !problem.empty())
        return problem;
    if (m.thickness <= 0)
        return say("“{}” has no thickness", m.name);
    return {};
}

Message completed(Good& g)
{
    if (auto problem = named(g.id, g.name); !problem.empty())
        return problem;
    if (g.kind.empty())
        return say("“{}” has no kind", g.name);
    if (g.width > 0 && g.clearWidth() <= 0)
        return say("“{}” is measured outside, and its wire leaves no room inside", g.name);
    return {};
}

Message completed(Workshop& w)
{
    if (w.machine.empty())
        return say("its “machine” is missing");
    if (w.schools.find_first_not_of(' ') == std::string::npos)
        return {};
    for (std::size_t from = 0; from <= w.schools.size();) {
        const std::size_t comma = std::min(w.schools.find(',', from), w.schools.size());
        const std::string one = w.schools.substr(from, comma - from);
        const auto equals = one.find('=');
        if (std::count(one.begin(), one.end(), '=') != 1
            || one.substr(0, equals).find_first_not_of(' ') == std::string::npos
            || one.substr(equals + 1).find_first_not_of(' ') == std::string::npos
            || one.find(' ', one.find_first_not_of(' ', equals + 1)) < one.find_last_not_of(' '))
            return say("“{}” was given; write NAME=VALUE, with commas between", w.schools);
        from = comma + 1;
    }
    return {};
}

template <> const std::vector<Field<Workshop>>& fieldsOf()
{
    using Q = Quantity;
    static const std::vector<Field<Workshop>> fields{
        {{"machine", label("Machine")}, &Workshop::machine},
        {{"machineLimit", label("Thickest stack"), Q::Length, 1, 40}, &Workshop::machineLimit},
        {{"footWidth", label("Foot, from the needle"), Q::Length, 0, 40}, &Workshop::footWidth},
        {{"zipFoot", label("Zip foot, 0: none"), Q::Length, 0, 40}, &Workshop::zipFoot},
        {{"walkingFoot", label("Walking foot, 0: none"), Q::Length, 0, 40}, &Workshop::walkingFoot},
        {{"nonStickFoot", label("Non-stick foot, 0: none"), Q::Length, 0, 40}, &Workshop::nonStickFoot},
        {{"leastRound", label("Smallest round"), Q::Length, 0, 2000}, &Workshop::leastRound},
        {{"stitchSpeed", label("Metres a minute"), Q::Number, 0.01, 100}, &Workshop::stitchSpeed},
        {{"setUp", label("Set-up, min"), Q::Number, 0, 600, {}, true}, &Workshop::setUp},
        {{"labourRate", label("Rate an hour"), Q::Number, 0, 100000, {}, true}, &Workshop::labourRate},
        {{"overhead", label("Overhead, %"), Q::Number, 0, 1000, {}, true}, &Workshop::overhead},
        {{"lacks", label("Tools it lacks")}, &Workshop::lacks},
        {{"printer", label("Printer’s paper")}, &Workshop::printer},
        {{"bedWidth", label("Cutter, across"), Q::Length, 0, 10000}, &Workshop::bedWidth},
        {{"bedLength", label("Cutter, along"), Q::Length, 0, 100000}, &Workshop::bedLength},
        {{"unit", label("Unit"), Q::Word, 0, 0, {"any", "mm", "cm", "in"}}, &Workshop::unit},
        {{"schools", label("Ways of making")}, &Workshop::schools},
    };
    return fields;
}

template <> const std::vector<Field<Material>>& fieldsOf()
{
    using Q = Quantity;
    static const std::vector<Field<Material>> fields{
        {{"id", label("Id")}, &Material::id},
        {{"name", label("Name")}, &Material::name},
        {{"use", label("Use"), Q::Word, 0, 0, {"face", "interlining", "strap"}}, &Material::use},
        {{"class", label("Class"), Q::Word, 0, 0,
             {"canvas", "cotton", "waxed", "vinyl", "leather", "coated", "felt", "fusible", "sewin", "board",
                 "webbing"}},
            &Material::kind},
        {{"thickness", label("Thickness"), Q::Length, 0.01, 50}, &Material::thickness},
        {{"compressed", label("Under the foot"), Q::Number, 0.02, 1}, &Material::compressed},
        {{"gsm", label("Weight"), Q::Weight, 0, 20000}, &Material::gsm},
        {{"width", label("Width"), Q::Length, 0, 10000}, &Material::width},
        {{"heat", label("Bears the iron"), Q::YesNo}, &Material::heat},
        {{"oneWay", label("One-way"), Q::YesNo}, &Material::oneWay},
        {{"rigid", label("Rigid"), Q::YesNo}, &Material::rigid},
        {{"needle", label("Needle"), Q::Number, 0, 200}, &Material::needle},
        {{"stitch", label("Stitch"), Q::Length, 0, 12}, &Material::stitch},
        {{"stiffness", label("Stiffness"), Q::Word, 0, 0, {"by-class", "soft", "medium", "firm", "rigid"}},
            &Material::stiffness},
        {{"shrink", label("Shrinks, %"), Q::Number, 0, 30}, &Material::shrink},
        {{"fray", label("Frays"), Q::Word, 0, 0, {"by-class", "yes", "no"}}, &Material::fray},
        {{"stretch", label("Stretches, %"), Q::Number, 0, 100}, &Material::stretch},
        {{"price", label("Price per metre"), Q::Number, 0, 1e6, {}, true}, &Material::price},
        {{"sold", label("Sold by"), Q::Length, 1, 100000}, &Material::sold},
        {{"stock", label("In stock, m"), Q::Number, 0, 1e5, {}, false, true}, &Material::stock},
        {{"lead", label("Arrives in, days"), Q::Number, 0, 1000, {}, false, true}, &Material::lead},
    };
    return fields;
}

template <> const std::vector<Field<Good>>& fieldsOf()
{
    using Q = Quantity;
    static const std::vector<Field<Good>> fields{
        {{"id", label("Id")}, &Good::id},
        {{"name", label("Name")}, &Good::name},
        {{"kind", label("Kind"), Q::Word, 0, 0, wareWords()}, &Good::kind},
        {{"make", label("Make")}, &Good::make},
        {{"width", label("Width"), Q::Length, 0, 1000}, &Good::width},
        {{"length", label("Length"), Q::Length, 0, 1e8}, &Good::length},
        {{"gauge", label("Gauge"), Q::Number, 0, 30}, &Good::gauge},
        {{"measured", label("Width is"), Q::Word, 0, 0, {"inside", "outside"}}, &Good::measured},
        {{"wire", label("Wire"), Q::Length, 0, 50}, &Good::wire},
        {{"tape", label("Tape’s thickness"), Q::Length, 0, 10}, &Good::tape},
        {{"weight", label("Weight, g"), Q::Number, 0, 1e5}, &Good::weight},
        {{"price", label("Price"), Q::Number, 0, 1e6, {}, true}, &Good::price},
        {{"pack", label("In a pack"), Q::Number, 0, 1e5}, &Good::pack},
        {{"stock", label("In stock"), Q::Number, 0, 1e6, {}, false, true}, &Good::stock},
        {{"lead", label("Arrives in, days"), Q::Number, 0, 1000, {}, false, true}, &Good::lead},
    };
    return fields;
}

} // namespace tectonis
