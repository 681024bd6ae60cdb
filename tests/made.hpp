// SPDX-License-Identifier: GPL-3.0-or-later
// Design files for tests that run the command line.
#pragma once

#include "process.hpp"

#include <catch2/catch.hpp>

inline const Scratch scratch("tools");
inline const std::string demo = std::string(TECTONIS_DATA) + "/demos/tuners-satchel.tectonis";

/// A new satchel in a file of that name.
inline std::string made(const std::string& name)
{
    const std::string file = scratch / name;
    std::filesystem::remove(file);
    REQUIRE(cli("new gusseted-satchel -o " + file).code == 0);
    return file;
}
