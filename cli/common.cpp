// SPDX-License-Identifier: GPL-3.0-or-later
#include "verbs.hpp"

#include "editing/draft.hpp"
#include "formats/design_file.hpp"
#include "formats/own_library.hpp"

#include <algorithm>
#include <cstdio>

namespace tectonis::cli {

void print(const std::string& text)
{
    if (std::fwrite(text.data(), 1, text.size(), stdout) != text.size() || std::fflush(stdout) != 0)
        throw InputError(say("output"), say("cannot be written"));
}

void tell(const Message& message)
{
    std::fprintf(stderr, "tectonis-cli: %s\n", words(message, Unit::Mm, readersLanguage()).c_str());
}

Design opened(const std::filesystem::path& file)
{
    ReadDesign read = readDesign(readWhole(file), file.filename().string(), myLibrary());
    for (const auto& told : read.told)
        tell(told);
    return std::move(read.design);
}

Design changedFile(const std::filesystem::path& file, const std::function<bool(Design&)>& change)
{
    const FileLock lock(file);
    Design design = opened(file);
    if (change(design))
        saveDesign(design, file);
    return design;
}

std::vector<Pattern> drafted(const Design& design, const std::string& size)
{
    auto all = draftAll(design);
    if (size.empty())
        return all;
    sizeIndex(design, size);
    std::erase_if(all, [&](const Pattern& p) { return p.size != size; });
    return all;
}

Pattern base(const Design& design) { return draft(design, specOf(design), sizeIndex(design, design.baseSize)); }

} // namespace tectonis::cli
