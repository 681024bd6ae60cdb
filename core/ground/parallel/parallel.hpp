// SPDX-License-Identifier: GPL-3.0-or-later
// Work on all sizes at once. Threads are kept, because what they have learnt (formulas, specs) is kept per thread.
#pragma once

#include <cstddef>
#include <functional>

namespace tectonis {

/// Calls @p work for 0 … @p count - 1, on several threads and in no set order; returns when all are done.
/// If calls throw, the exception of the lowest index is thrown here. Calls must not touch each other's data.
void forEachIndex(std::size_t count, const std::function<void(std::size_t)>& work);

} // namespace tectonis
