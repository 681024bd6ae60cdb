// SPDX-License-Identifier: GPL-3.0-or-later
// What sides, faces, edges and halves are called when they are told of.
#pragma once

#include "words/message.hpp"

namespace tectonis {

/// The word for "left", "front", "front half"; one that is not known stands for itself.
Label sideLabel(const std::string& side);

} // namespace tectonis
