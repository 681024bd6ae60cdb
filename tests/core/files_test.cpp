// SPDX-License-Identifier: GPL-3.0-or-later
// Files: whole or not at all, modes and links kept, locked, names that every system takes; a kill at any moment.
#include "files/files.hpp"

#include "editing/edits.hpp"
#include "formats/design_file.hpp"
#include "process.hpp"
#include "units/error.hpp"

#include <catch2/catch.hpp>

#include <csignal>
#include <set>
#include <sys/stat.h>
#include <thread>

using namespace tectonis;
using Catch::Contains;
namespace fs = std::filesystem;

namespace {

unsigned modeOf(const std::string& file)
{
    struct stat is {};
    REQUIRE(::stat(file.c_str(), &is) == 0);
    return is.st_mode & 07777;
}

} // namespace

TEST_CASE("Writing keeps mode, hard links and symbolic links; what is read-only is refused and stays")
{
    const Scratch dir("files");
    const std::string file = dir / "a", second = dir / "b", link = dir / "link", late = dir / "late";
    writeWhole(file, "one");
    ::chmod(file.c_str(), 0640);
    writeWhole(file, "two");
    CHECK(modeOf(file) == 0640);
    REQUIRE(::link(file.c_str(), second.c_str()) == 0);
    writeWhole(file, "three");
    CHECK(slurp(second) == "three");
    CHECK(fs::hard_link_count(file) == 2);
    fs::create_symlink(second, link);
    writeWhole(link, "four");
    CHECK(fs::is_symlink(link));
    CHECK(slurp(file) == "four");
    fs::create_symlink(dir / "not yet", late); // a link to a file that is not there yet
    writeWhole(late, "five");
    CHECK(fs::is_symlink(late));
    CHECK(slurp(dir / "not yet") == "five");
    ::chmod(file.c_str(), 0444);
    CHECK_THROWS_WITH(writeWhole(file, "six"), Contains("read-only") && Contains("unharmed"));
    CHECK(slurp(file) == "four");
    CHECK(modeOf(file) == 0444);
    ::chmod(file.c_str(), 0644);
}

TEST_CASE("Special files are written to, not replaced; left-over parts of killed runs go, those of living ones stay")
{
    const Scratch dir("special");
    const std::string pipe = dir / "pipe";
    REQUIRE(::mkfifo(pipe.c_str(), 0600) == 0);
    std::string got;
    std::thread reader([&] { got = slurp(pipe); });
    writeWhole(pipe, "through");
    reader.join();
    CHECK(got == "through");
    CHECK(fs::is_fifo(pipe));
    writeWhole("/dev/null", "gone");
    CHECK(fs::is_character_file("/dev/null"));
    const std::string file = dir / "bag";
    writeWhole(file + ".part999999999", "old"); // no such process
    writeWhole(file + ".part1", "another's");   // a living one
    writeWhole(file + ".partner", "not ours");
    writeWhole(file, "new");
    CHECK_FALSE(fs::exists(file + ".part999999999"));
    CHECK(fs::exists(file + ".part1"));
    CHECK(fs::exists(file + ".partner"));
}

TEST_CASE("Reading is bounded: endless devices, silent pipes and huge files end in words")
{
    CHECK_THROWS_WITH(readWhole("/dev/zero", 1 << 20), Contains("holds more than 1 MB"));
    const Scratch dir("bounded");
    const std::string pipe = dir / "pipe";
    REQUIRE(::mkfifo(pipe.c_str(), 0600) == 0);
    CHECK(readWhole(pipe).empty()); // nobody writes: it ends at once
    CHECK(stampOf("/dev/zero").empty());
    CHECK(stampOf(dir / "none").empty());
    writeWhole(dir / "a", "x");
    const std::string before = stampOf(dir / "a");
    writeWhole(dir / "a", "y");
    CHECK(stampOf(dir / "a") != before);
    CHECK(stampOf(dir / "a") == stampOfBytes("y"));
}

TEST_CASE("A lock waits for its holder and follows a file that was replaced")
{
    const Scratch dir("lock");
    const std::string file = dir / "counter";
    writeWhole(file, "0");
    std::vector<std::thread> all;
    for (int i = 0; i < 4; ++i)
        all.emplace_back([&] {
            for (int k = 0; k < 25; ++k) {
                const FileLock lock(file);
                const std::string now = std::to_string(std::stoi(readWhole(file)) + 1);
                // As a save does: a new file takes the old one's place.
                const std::string beside = file + std::to_string(k) + "-"
                    + std::to_string(std::hash<std::thread::id>{}(std::this_thread::get_id()));
                std::ofstream(beside) << now;
                fs::rename(beside, file);
            }
        });
    for (auto& t : all)
        t.join();
    CHECK(readWhole(file) == "100");
    auto held = FileLock::tried(dir / "l");
    CHECK(held);
    CHECK_FALSE(FileLock::tried(dir / "l"));
    held.reset();
    CHECK(FileLock::tried(dir / "l"));
}

TEST_CASE("File names: letters of all languages stay, the rest is made safe, and no two are alike")
{
    for (const auto& [name, safe] : {std::pair<std::string, std::string>{"A-小.svg", "A-小.svg"}, {"S/M", "S_M"},
             {"S*", "S_"}, {"a\nb", "a_b"}, {"..", "_"}, {"", "_"}, {" x. ", "x"}, {"\xff", "_"}})
        CHECK(safeFileName(name) == safe);
    CHECK(safeFileName(std::string(500, 'x')).size() == 120);
    CHECK(isUtf8(
        safeFileName("x" + std::string("ääääääääääääääääääääääääääääääääääääääääääääääääääääääääääääääääääääääää"))));
    const auto names = uniqueFileNames({"A-S*.svg", "A-S+.svg", "A-S?.svg", "a-s_.svg", "A-小.svg", "A-中.svg"});
    CHECK(names
        == std::vector<std::string>{"A-S_.svg", "A-S+.svg", "A-S_ (2).svg", "a-s_ (3).svg", "A-小.svg", "A-中.svg"});
    // RFC 3629: overlong, surrogate and beyond the last code point.
    for (const char* bad : {"\xC0\xAF", "\xED\xA0\x80", "\xF4\x90\x80\x80", "\xE2\x82", "\x80"})
        CHECK_FALSE(isUtf8(bad));
    CHECK(isUtf8("a ä 小 😀"));
}

TEST_CASE("A kill at any moment of saving leaves the old file or the new one, whole")
{
    const Scratch dir("kill");
    const std::string file = dir / "bag.tectonis";
    Design d = newDesign("gusseted-satchel");
    saveDesign(d, file);
    int killed = 0;
    for (int i = 0; i < 40; ++i) {
        const pid_t child = ::fork();
        REQUIRE(child >= 0);
        if (child == 0) {
            for (int k = 0;; ++k) {
                d.notes = std::string(std::size_t(2000 + k % 7 * 1500), char('a' + k % 26));
                try {
                    writeWhole(file, designText(d));
                } catch (...) {
                    ::_exit(1);
                }
            }
        }
        std::this_thread::sleep_for(std::chrono::microseconds(1500 + 733 * i));
        ::kill(child, SIGKILL);
        int status = 0;
        ::waitpid(child, &status, 0);
        killed += WIFSIGNALED(status);
        CHECK_NOTHROW(loadDesign(file));
    }
    CHECK(killed == 40);
    saveDesign(d, file); // and what they left beside it is gone
    std::size_t left = 0;
    for (const auto& entry : fs::directory_iterator(fs::path(file).parent_path()))
        left += entry.path().filename() != "bag.tectonis";
    CHECK(left == 0);
}
