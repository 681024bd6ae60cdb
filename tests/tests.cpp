// SPDX-License-Identifier: GPL-3.0-or-later
// Catch itself, compiled once for all test programs.
#define CATCH_CONFIG_RUNNER
#include "tests.hpp"

#include <catch2/catch.hpp>

int runTests(int argc, char** argv) { return Catch::Session().run(argc, argv); }
