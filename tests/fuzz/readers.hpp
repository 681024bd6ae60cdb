// SPDX-License-Identifier: GPL-3.0-or-later
// Every reader of text from outside behind one door, for the fuzzer and for the seeded mutations in the tests.
#pragma once

#include <string>

namespace tectonis {

/// The first byte chooses the reader (see readers.cpp), the rest is its text. A refusal in words is an answer; anything
/// else that is thrown is a fault. What a reader accepted must come back the same when it is written and read again.
void readAnything(const std::string& bytes);

constexpr int readerCount = 6;

} // namespace tectonis
