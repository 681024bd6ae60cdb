// SPDX-License-Identifier: GPL-3.0-or-later
#include "units/length.hpp"

#include "units/error.hpp"

#include <fmt/format.h>

#include <array>
#include <charconv>
#include <cmath>
#include <numeric>
#include <optional>
#include <utility>

namespace tectonis {
namespace {

constexpr std::array<std::pair<std::string_view, std::string_view>, 11> kVulgar{
    {{"½", "1/2"}, {"¼", "1/4"}, {"¾", "3/4"}, {"⅛", "1/8"}, {"⅜", "3/8"}, {"⅝", "5/8"}, {"⅞", "7/8"}, {"⁄", "/"},
        {"″", "\""}, {"”", "\""}, {"\u00a0", " "}}};

/// Plain ASCII: one-glyph fractions spelt out with a space before them, decimal comma as a point.
std::string plain(std::string_view text)
{
    std::string out;
    for (std::size_t i = 0; i < text.size();) {
        bool found = false;
        for (const auto& [glyph, ascii] : kVulgar) {
            if (text.substr(i, glyph.size()) != glyph)
                continue;
            if (ascii.find('/') == 1 && !out.empty())
                out += ' ';
            out += ascii;
            i += glyph.size();
            found = true;
            break;
        }
        if (!found)
            out += text[i] == ',' ? '.' : text[i], ++i;
    }
    return out;
}

std::string trimmed(const std::string& s)
{
    const auto from = s.find_first_not_of(" \t\n\r");
    if (from == std::string::npos)
        return {};
    return s.substr(from, s.find_last_not_of(" \t\n\r") - from + 1);
}

std::optional<double> decimal(std::string_view s)
{
    double v = 0;
    const auto [end, ec] = std::from_chars(s.data(), s.data() + s.size(), v);
    if (ec != std::errc{} || end != s.data() + s.size() || !std::isfinite(v))
        return std::nullopt;
    return v;
}

/// "9 1/2", "9-1/2", "3/8", "9.5" as a number.
std::optional<double> mixedNumber(const std::string& s)
{
    const auto slash = s.find('/');
    if (slash == std::string::npos)
        return decimal(s);
    const auto split = s.find_last_of(" -", slash);
    std::string whole, numerator = s.substr(0, slash);
    if (split != std::string::npos && split > 0) {
        whole = trimmed(s.substr(0, split));
        numerator = trimmed(s.substr(split + 1, slash - split - 1));
    }
    const auto n = decimal(trimmed(numerator));
    const auto d = decimal(trimmed(s.substr(slash + 1)));
    const auto w = whole.empty() ? std::optional<double>(0) : decimal(whole);
    if (!n || !d || !w || *d <= 0 || *n < 0)
        return std::nullopt;
    const double value = std::abs(*w) + *n / *d;
    return *w < 0 ? -value : value;
}

} // namespace

std::string_view unitSign(Unit unit)
{
    switch (unit) {
    case Unit::Mm: return "mm";
    case Unit::Cm: return "cm";
    case Unit::Inch: return "in";
    }
    return "mm";
}

Unit unitOf(std::string_view sign)
{
    for (const Unit unit : {Unit::Mm, Unit::Cm, Unit::Inch})
        if (unitSign(unit) == sign)
            return unit;
    throw InputError(std::string(sign), say("is no unit here; use mm, cm or in"));
}

double parseLength(std::string_view text, Unit bare)
{
    std::string s = trimmed(plain(text));
    if (s.empty())
        throw InputError("", say("no length given; write for example 240, 24 cm or 9 1/2in"));
    double factor = bare == Unit::Mm ? 1 : bare == Unit::Cm ? 10 : mmPerInch;
    static constexpr std::array<std::pair<std::string_view, double>, 7> units{{{"inches", mmPerInch},
        {"inch", mmPerInch}, {"mm", 1}, {"cm", 10}, {"in", mmPerInch}, {"\"", mmPerInch}, {"m", 1000}}};
    for (const auto& [sign, f] : units) {
        if (s.size() > sign.size() && s.ends_with(sign)) {
            s = trimmed(s.substr(0, s.size() - sign.size()));
            factor = f;
            break;
        }
    }
    const auto number = mixedNumber(s);
    if (!number || !std::isfinite(*number * factor))
        throw InputError("", say("“{}” is not a length; write for example 240, 24 cm or 9 1/2in", text));
    return *number * factor;
}

std::string formatNumber(double value, int decimals)
{
    std::string s = fmt::format("{:.{}f}", value, decimals);
    if (s.find('.') != std::string::npos) {
        s.erase(s.find_last_not_of('0') + 1);
        if (s.back() == '.')
            s.pop_back();
    }
    return s == "-0" ? "0" : s;
}

namespace {

/// Inches in sixteenths: "9 7/16".
std::string sixteenths(double mm)
{
    const long all = std::lround(std::abs(mm) / mmPerInch * 16), whole = all / 16, rest = all % 16;
    std::string out = mm < 0 && all > 0 ? "-" : "";
    if (whole > 0 || rest == 0)
        out += std::to_string(whole);
    if (rest > 0) {
        const long g = std::gcd(rest, 16L);
        out += fmt::format("{}{}/{}", whole > 0 ? " " : "", rest / g, 16 / g);
    }
    return out;
}

bool multipleOf(double mm, double of) { return std::abs(mm - std::round(mm / of) * of) < 0.011; }

} // namespace

std::string formatLengthBare(double mm, Unit unit)
{
    const double size = std::abs(mm);
    if (unit == Unit::Inch) {
        if (size < mmPerInch / 16 && size > 0.0127)
            return formatNumber(mm / mmPerInch, 3);
        return (std::abs(mm - std::round(mm / mmPerInch * 16) / 16 * mmPerInch) < 0.101 ? "" : "≈ ") + sixteenths(mm);
    }
    const bool eighths = multipleOf(mm, mmPerInch / 8);
    if (unit == Unit::Cm)
        return size < 1 ? formatNumber(mm / 10, 3) : formatNumber(mm / 10, size < 20 || eighths ? 2 : 1);
    return size < 1            ? formatNumber(mm, 2)
        : size < 20 || eighths ? formatNumber(mm, 1)
                               : formatNumber(std::round(mm * 2) / 2, 1);
}

std::string formatLength(double mm, Unit unit)
{
    return formatLengthBare(mm, unit) + " " + std::string(unitSign(unit));
}

std::string exactLengthBare(double mm, Unit unit)
{
    if (unit == Unit::Inch)
        return multipleOf(mm, mmPerInch / 16) ? sixteenths(mm) : formatNumber(mm / mmPerInch, 4);
    return unit == Unit::Cm ? formatNumber(mm / 10, 3) : formatNumber(mm, 2);
}

std::string exactLength(double mm, Unit unit) { return exactLengthBare(mm, unit) + " " + std::string(unitSign(unit)); }

} // namespace tectonis
