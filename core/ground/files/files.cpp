// SPDX-License-Identifier: GPL-3.0-or-later
#include "files/files.hpp"

#include "units/error.hpp"

#include <fcntl.h>
#include <fmt/format.h>
#include <poll.h>
#include <signal.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <functional>
#include <set>
#include <utility>

namespace tectonis {
namespace {

namespace fs = std::filesystem;

/// An open file that closes itself.
struct Descriptor {
    int fd = -1;
    explicit Descriptor(int opened) : fd(opened) {}
    Descriptor(const Descriptor&) = delete;
    Descriptor& operator=(const Descriptor&) = delete;
    ~Descriptor()
    {
        if (fd >= 0)
            ::close(fd);
    }
    /// Closes now; the error if that fails (a full disk may tell only here).
    int closed() { return ::close(std::exchange(fd, -1)) == 0 ? 0 : errno; }
};

[[noreturn]] void failRead(const fs::path& file, const std::string& why)
{
    throw InputError(file.string(), say("cannot be read: {}", why));
}
[[noreturn]] void failWrite(const fs::path& file, const std::string& why)
{
    throw InputError(file.string(), say("cannot be written: {}; what was there before is unharmed", why));
}

/// Writes all bytes and brings them to the disk. 0, or the error.
int writeAll(int fd, const std::string& bytes)
{
    for (std::size_t done = 0; done < bytes.size();) {
        const ssize_t n = ::write(fd, bytes.data() + done, bytes.size() - done);
        if (n < 0 && errno != EINTR)
            return errno;
        if (n > 0)
            done += std::size_t(n);
    }
    return ::fsync(fd) != 0 && errno != EINVAL && errno != EROFS ? errno : 0;
}

/// What killed runs left beside a file: NAME.part and the number of a process that is no more.
void clearLeftOvers(const fs::path& target)
{
    std::error_code error;
    const std::string begins = target.filename().string() + ".part";
    const fs::path folder = target.has_parent_path() ? target.parent_path() : fs::path(".");
    for (const auto& entry : fs::directory_iterator(folder, error)) {
        const std::string name = entry.path().filename().string();
        const std::string number = name.starts_with(begins) ? name.substr(begins.size()) : "";
        if (number.empty() || number.size() > 9 || number.find_first_not_of("0123456789") != std::string::npos)
            continue;
        if (::kill(pid_t(std::stol(number)), 0) != 0 && errno == ESRCH)
            fs::remove(entry.path(), error);
    }
}

} // namespace

std::string readWhole(const fs::path& file, std::size_t most)
{
    // Without waiting: a pipe that nobody writes to must not hold the window.
    Descriptor in(::open(file.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK));
    struct stat is {};
    if (in.fd < 0 || ::fstat(in.fd, &is) != 0)
        failRead(file, std::strerror(errno));
    if (S_ISDIR(is.st_mode))
        failRead(file, std::strerror(EISDIR));
    std::string bytes;
    char buffer[65536];
    for (;;) {
        const ssize_t n = ::read(in.fd, buffer, sizeof buffer);
        if (n == 0)
            return bytes;
        if (n < 0 && errno == EAGAIN) {
            pollfd waiting{in.fd, POLLIN, 0};
            if (::poll(&waiting, 1, 10000) <= 0)
                failRead(file, "nothing comes from it");
            continue;
        }
        if (n < 0 && errno != EINTR)
            failRead(file, std::strerror(errno));
        if (n > 0)
            bytes.append(buffer, std::size_t(n));
        if (bytes.size() > most)
            failRead(file, fmt::format("it holds more than {} MB, which no file of this kind does", most >> 20));
    }
}

void writeWhole(const fs::path& file, const std::string& bytes)
{
    // Standard output goes on where it is, also where it was sent to a file.
    if (const std::string name = file.string();
        name == "/dev/stdout" || name == "/dev/fd/1" || name == "/proc/self/fd/1") {
        if (const int failed = writeAll(STDOUT_FILENO, bytes))
            throw InputError(say("output"), say("cannot be written: {}", std::strerror(failed)));
        return;
    }
    std::error_code error;
    // A link keeps pointing where it did, also to a file that is not there yet.
    fs::path target = file;
    for (int links = 0; fs::is_symlink(target, error); ++links) {
        if (links == 40)
            failWrite(file, std::strerror(ELOOP));
        const fs::path to = fs::read_symlink(target, error);
        target = to.is_absolute() ? to : target.parent_path() / to;
    }
    struct stat is {};
    const bool exists = ::stat(file.c_str(), &is) == 0;
    if (exists && S_ISDIR(is.st_mode))
        failWrite(file, std::strerror(EISDIR));
    if (exists && !S_ISREG(is.st_mode)) {
        Descriptor out(::open(file.c_str(), O_WRONLY | O_CLOEXEC));
        int failed = out.fd < 0 ? errno : writeAll(out.fd, bytes);
        if (out.fd >= 0)
            if (const int closing = out.closed(); !failed)
                failed = closing;
        if (failed)
            throw InputError(file.string(), say("cannot be written: {}", std::strerror(failed)));
        return;
    }
    // No write bit at all means read-only for everybody, whatever the user may do.
    if (exists && ((is.st_mode & (S_IWUSR | S_IWGRP | S_IWOTH)) == 0 || ::access(target.c_str(), W_OK) != 0))
        failWrite(file, "it is read-only");
    const bool inPlace = exists && is.st_nlink > 1;
    clearLeftOvers(target);
    const std::string beside = target.string() + ".part" + std::to_string(::getpid());
    int failed = 0;
    {
        Descriptor out(::open(beside.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC | O_NOFOLLOW, 0644));
        if (out.fd < 0)
            failWrite(file, std::strerror(errno));
        failed = writeAll(out.fd, bytes);
        if (exists && !failed) {
            if (::fchown(out.fd, is.st_uid, is.st_gid) != 0 && errno != EPERM)
                failed = errno;
            if (!failed && ::fchmod(out.fd, is.st_mode & 07777) != 0)
                failed = errno;
        }
        if (const int closing = out.closed(); !failed)
            failed = closing;
    }
    if (!failed && inPlace) {
        Descriptor out(::open(target.c_str(), O_WRONLY | O_TRUNC | O_CLOEXEC));
        failed = out.fd < 0 ? errno : writeAll(out.fd, bytes);
        if (!failed)
            ::unlink(beside.c_str());
        else if (out.fd >= 0) // the whole copy stays beside it
            throw InputError(
                file.string(), say("cannot be written: {}; a whole copy lies in {}", std::strerror(failed), beside));
    } else if (!failed && ::rename(beside.c_str(), target.c_str()) != 0)
        failed = errno;
    if (failed) {
        ::unlink(beside.c_str());
        failWrite(file, std::strerror(failed));
    }
}

std::string stampOfBytes(const std::string& bytes)
{
    return fmt::format("{:016x}-{}", std::hash<std::string>{}(bytes), bytes.size());
}

std::string stampOf(const fs::path& file)
{
    std::error_code error;
    if (!fs::is_regular_file(file, error))
        return {};
    try {
        return stampOfBytes(readWhole(file, 64u << 20));
    } catch (const InputError&) {
        return "unreadable";
    }
}

FileLock::FileLock(const fs::path& file)
{
    for (;;) {
        Descriptor held(::open(file.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK));
        if (held.fd < 0)
            failRead(file, std::strerror(errno));
        while (::flock(held.fd, LOCK_EX) != 0)
            if (errno != EINTR)
                failRead(file, std::strerror(errno));
        // Whoever held it may have replaced the file: then its successor is the one to hold.
        struct stat mine {
        }, now{};
        if (::fstat(held.fd, &mine) == 0 && ::stat(file.c_str(), &now) == 0 && mine.st_ino == now.st_ino
            && mine.st_dev == now.st_dev) {
            m_fd = std::exchange(held.fd, -1);
            return;
        }
    }
}

std::optional<FileLock> FileLock::tried(const fs::path& file)
{
    const int fd = ::open(file.c_str(), O_RDWR | O_CREAT | O_CLOEXEC | O_NOFOLLOW, 0600);
    if (fd < 0)
        return {};
    if (::flock(fd, LOCK_EX | LOCK_NB) != 0) {
        ::close(fd);
        return {};
    }
    return FileLock(fd);
}

FileLock::FileLock(FileLock&& other) noexcept : m_fd(std::exchange(other.m_fd, -1)) {}

FileLock& FileLock::operator=(FileLock&& other) noexcept
{
    std::swap(m_fd, other.m_fd);
    return *this;
}

FileLock::~FileLock()
{
    if (m_fd >= 0)
        ::close(m_fd);
}

std::string safeFileName(const std::string& name)
{
    std::string out;
    for (const char c : isUtf8(name) ? name : std::string())
        out += static_cast<unsigned char>(c) < 32 || c == 127 || std::string("/\\:*?\"<>|").find(c) != std::string::npos
            ? '_'
            : c;
    const auto from = out.find_first_not_of(" .");
    out = from == std::string::npos ? "" : out.substr(from, out.find_last_not_of(" .") - from + 1);
    // A name may have 255 bytes; it is cut between letters.
    if (out.size() > 120) {
        std::size_t end = 120;
        while (end > 0 && (static_cast<unsigned char>(out[end]) & 0xC0) == 0x80)
            --end;
        out.resize(end);
    }
    return out.empty() ? "_" : out;
}

std::vector<std::string> uniqueFileNames(const std::vector<std::string>& wanted)
{
    std::vector<std::string> out;
    std::set<std::string> taken;
    const auto take = [&](const std::string& name) {
        std::string small = name;
        std::transform(
            small.begin(), small.end(), small.begin(), [](char c) { return c >= 'A' && c <= 'Z' ? char(c + 32) : c; });
        return taken.insert(small).second;
    };
    for (const auto& each : wanted) {
        const std::string name = safeFileName(each);
        const auto dot = name.rfind('.');
        const std::string stem = name.substr(0, dot), ending = dot == std::string::npos ? "" : name.substr(dot);
        std::string free = name;
        for (int i = 2; !take(free); ++i)
            free = fmt::format("{} ({}){}", stem, i, ending);
        out.push_back(free);
    }
    return out;
}

bool isUtf8(const std::string& text)
{
    for (std::size_t i = 0; i < text.size();) {
        const auto byte = [&](std::size_t k) {
            return i + k < text.size() ? static_cast<unsigned char>(text[i + k]) : 0u;
        };
        const unsigned lead = byte(0);
        const std::size_t n = lead < 0x80 ? 1
            : lead >= 0xC2 && lead < 0xE0 ? 2
            : lead >= 0xE0 && lead < 0xF0 ? 3
            : lead >= 0xF0 && lead < 0xF5 ? 4
                                          : 0;
        if (n == 0)
            return false;
        for (std::size_t k = 1; k < n; ++k)
            if ((byte(k) & 0xC0) != 0x80)
                return false;
        // Overlong forms, halves of pairs, and beyond the last code point (RFC 3629).
        if ((lead == 0xE0 && byte(1) < 0xA0) || (lead == 0xED && byte(1) >= 0xA0) || (lead == 0xF0 && byte(1) < 0x90)
            || (lead == 0xF4 && byte(1) >= 0x90))
            return false;
        i += n;
    }
    return true;
}

} // namespace tectonis
