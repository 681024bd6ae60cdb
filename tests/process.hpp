// SPDX-License-Identifier: GPL-3.0-or-later
// Running programs and holding scratch files in tests.
#pragma once

#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <string>
#include <sys/wait.h>
#include <unistd.h>

inline std::string slurp(const std::string& file)
{
    std::ifstream in(file, std::ios::binary);
    std::ostringstream s;
    s << in.rdbuf();
    return s.str();
}

/// A folder that goes away with the program.
class Scratch {
public:
    explicit Scratch(const std::string& name)
        : m_path(std::filesystem::temp_directory_path() / ("tectonis-" + name + "-" + std::to_string(::getpid())))
    {
        std::filesystem::create_directories(m_path);
    }
    ~Scratch() { std::filesystem::remove_all(m_path); }
    std::string operator/(const std::string& name) const { return (m_path / name).string(); }

private:
    std::filesystem::path m_path;
};

struct Ran {
    int code = -1;
    std::string out, err;
};

inline Ran shell(const std::string& command)
{
    static const Scratch folder("ran");
    const std::string out = folder / "out", err = folder / "err";
    const int status = std::system(("{ " + command + " ; } >" + out + " 2>" + err).c_str());
    return {WIFEXITED(status) ? WEXITSTATUS(status) : -1, slurp(out), slurp(err)};
}

/// The command line of a user who has nothing of his own yet.
inline Ran cli(const std::string& arguments)
{
    static const Scratch home("home");
    return shell("XDG_DATA_HOME='" + (home / "data") + "' " TECTONIS_CLI " " + arguments);
}
