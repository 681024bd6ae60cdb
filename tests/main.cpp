// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests.hpp"

int main(int argc, char** argv) { return runTests(argc, argv); }
