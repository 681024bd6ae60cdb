// SPDX-License-Identifier: GPL-3.0-or-later
// cmake -DTECTONIS_FUZZ=ON -DCMAKE_CXX_COMPILER=clang++ …; then fuzz-readers tests/fuzz/corpus
#include "readers.hpp"

#include <cstddef>
#include <cstdint>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    tectonis::readAnything(std::string(reinterpret_cast<const char*>(data), size));
    return 0;
}
