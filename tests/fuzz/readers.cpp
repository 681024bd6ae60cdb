// SPDX-License-Identifier: GPL-3.0-or-later
#include "readers.hpp"

#include "checks/finding.hpp"
#include "design/formula.hpp"
#include "editing/edits.hpp"
#include "files/files.hpp"
#include "formats/design_file.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <cmath>
#include <stdexcept>

namespace tectonis {
namespace {

void require(bool held, const char* what)
{
    if (!held)
        throw std::logic_error(what);
}

void readDesignFile(const std::string& text)
{
    const Design d = designFromText(text, "fuzz");
    require(designFromText(designText(d), "again") == d, "a design does not come back the same");
}

/// One edit on a good design, as it is typed: what was taken can be saved and read.
void readAssignment(const std::string& text)
{
    static const Design start = newDesign("gusseted-satchel");
    Design d = start;
    assign(d, text);
    require(designFromText(designText(d), "again") == d, "an accepted edit does not come back the same");
}

void readFormula(const std::string& text)
{
    const double v = evaluateFormula(text, [](const std::string&) { return 3.0; });
    require(std::isfinite(v), "a formula gave no finite number");
}

void readLength(const std::string& text)
{
    for (const Unit unit : {Unit::Mm, Unit::Cm, Unit::Inch}) {
        const double v = parseLength(text, unit);
        require(std::isfinite(v), "a length is not finite");
        if (std::abs(v) < 1e6)
            require(std::abs(parseLength(exactLength(v, unit)) - v) < 0.02, "an exact length does not read back");
        formatLength(v, unit);
    }
}

void readRule(const std::string& text)
{
    const SizeRule rule = parseRule(text);
    require(parseRule(ruleText(rule)) == rule, "a size rule does not come back the same");
}

void readNames(const std::string& text)
{
    require(isUtf8(safeFileName(text)), "a file name is no text");
    require(!safeFileName(text).empty(), "a file name is empty");
    inUnit(text, Unit::Cm);
    const auto names = sizeNames(text);
    if (text.find('\n') == std::string::npos)
        require(sizeNames(sizesText(names)) == names, "size names do not come back the same");
}

} // namespace

void readAnything(const std::string& bytes)
{
    if (bytes.empty())
        return;
    const std::string text = bytes.substr(1);
    try {
        switch (static_cast<unsigned char>(bytes[0]) % readerCount) {
        case 0: return readDesignFile(text);
        case 1: return readAssignment(text);
        case 2: return readFormula(text);
        case 3: return readLength(text);
        case 4: return readRule(text);
        default: return readNames(text);
        }
    } catch (const InputError&) {
        // a refusal in words
    }
}

} // namespace tectonis
