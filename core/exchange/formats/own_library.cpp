// SPDX-License-Identifier: GPL-3.0-or-later
#include "formats/own_library.hpp"

#include "files/files.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cstdlib>

namespace tectonis {
namespace {

/// The user's own library while nobody else changes it.
void changeOwn(const std::function<Library(const Library&)>& change)
{
    const std::filesystem::path file = ownLibraryFile();
    std::error_code error;
    std::filesystem::create_directories(file.parent_path(), error);
    if (error)
        throw InputError(file.parent_path().string(), say("the folder cannot be made: {}", error.message()));
    if (!std::filesystem::exists(file))
        writeWhole(file, libraryText(Library()));
    const FileLock lock(file);
    writeWhole(file, libraryText(change(ownLibrary())));
}

} // namespace

std::filesystem::path ownLibraryFile()
{
    if (const char* data = std::getenv("XDG_DATA_HOME"); data && *data == '/')
        return std::filesystem::path(data) / "tectonis" / "library.json";
    const char* home = std::getenv("HOME");
    return std::filesystem::path(home ? home : "/") / ".local" / "share" / "tectonis" / "library.json";
}

Library ownLibrary()
{
    const std::filesystem::path file = ownLibraryFile();
    std::error_code error;
    if (!std::filesystem::exists(file, error))
        return Library();
    return readLibrary(readWhole(file), file.string()).library;
}

Library myLibrary() { return Library::builtIn()->with(ownLibrary()); }

ReadLibrary addToOwnLibrary(const std::filesystem::path& file)
{
    ReadLibrary read = readLibrary(readWhole(file), file.filename().string());
    changeOwn([&](const Library& own) { return own.with(read.library); });
    return read;
}

std::size_t keepInOwnLibrary(const Library& library)
{
    const Library mine = myLibrary();
    Library::Contents fresh;
    for (const auto& m : library.materials())
        if (!mine.find(m.id) && !m.standIn)
            fresh.materials.push_back(m);
    for (const auto& g : library.goods())
        if (std::none_of(mine.goods().begin(), mine.goods().end(), [&](const Good& other) { return other.id == g.id; }))
            fresh.goods.push_back(g);
    const std::size_t kept = fresh.materials.size() + fresh.goods.size();
    if (kept > 0)
        changeOwn([&](const Library& own) { return own.with(Library(fresh)); });
    return kept;
}

void writeOwnLibrary(const Library& own)
{
    changeOwn([&](const Library&) { return own; });
}

void removeFromOwnLibrary(const std::string& id)
{
    changeOwn([&](const Library& own) {
        Library::Contents contents = own.contents();
        if (std::erase_if(contents.materials, [&](const Material& m) { return m.id == id; })
                + std::erase_if(contents.goods, [&](const Good& g) { return g.id == id; })
            == 0)
            throw InputError(id, say("your own library has no such entry"));
        return Library(std::move(contents));
    });
}

void saveLibrary(const Library& library, const std::filesystem::path& file, bool goods)
{
    std::string ending = file.extension().string();
    std::transform(ending.begin(), ending.end(), ending.begin(), [](unsigned char c) { return std::tolower(c); });
    writeWhole(file, ending == ".csv" ? (goods ? goodsCsv(library) : libraryCsv(library)) : libraryText(library));
}

} // namespace tectonis
