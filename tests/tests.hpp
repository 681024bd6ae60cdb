// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

/// Runs the tests that the program holds, as the command line says; returns how many failed.
int runTests(int argc, char** argv);
