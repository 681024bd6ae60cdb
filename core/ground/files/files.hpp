// SPDX-License-Identifier: GPL-3.0-or-later
// Files as a whole: read within bounds, written whole or not at all, locked, told apart when somebody else changed
// them; safe names.
#pragma once

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

namespace tectonis {

constexpr std::size_t mostFileBytes = 8u << 20; ///< of a file that is read; designs are a few kilobytes

/// All bytes of a file, a pipe or a device.
/// @throws InputError if it cannot be read, holds more than @p most bytes, or nothing comes for ten seconds.
std::string readWhole(const std::filesystem::path& file, std::size_t most = mostFileBytes);

/// Writes whole or not at all: a new file is written beside the old one and takes its place when it is safely on the
/// disk; mode and owner stay. Links are written through: a symbolic link keeps pointing where it did; a file with
/// several names keeps them (it is rewritten in place, a whole copy lies beside it meanwhile). What is no plain file
/// (standard output, a pipe) is written to. Copies that a killed run left beside it are cleared away.
/// @throws InputError if it cannot be written or is read-only; what was there before is unharmed.
void writeWhole(const std::filesystem::path& file, const std::string& bytes);

/// A short mark of the bytes of a file, to tell whether somebody else changed it; empty if there is no file.
/// It holds within one machine and version of the program.
std::string stampOf(const std::filesystem::path& file);
std::string stampOfBytes(const std::string& bytes);

/// Holds a file for one writer at a time, as long as it lives; others that ask wait. A file that is replaced meanwhile
/// is followed to its successor.
class FileLock {
public:
    /// @throws InputError if the file cannot be opened.
    explicit FileLock(const std::filesystem::path& file);
    /// Does not wait. Empty if another holds it. The file is made if need be.
    static std::optional<FileLock> tried(const std::filesystem::path& file);
    FileLock(FileLock&& other) noexcept;
    FileLock& operator=(FileLock&& other) noexcept;
    ~FileLock();

private:
    explicit FileLock(int fd) : m_fd(fd) {}
    int m_fd = -1;
};

/// @p name as a file name that every system takes: letters of all languages stay, what is not allowed becomes "_".
/// Never empty.
std::string safeFileName(const std::string& name);

/// Safe names that are all different, also where capitals do not count: of two alike the later one gets " (2)" before
/// its ending.
std::vector<std::string> uniqueFileNames(const std::vector<std::string>& wanted);

/// Is it UTF-8?
bool isUtf8(const std::string& text);

} // namespace tectonis
