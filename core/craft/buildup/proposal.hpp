// SPDX-License-Identifier: GPL-3.0-or-later
// Which layers suit a piece, by what it is in the bag and what it is cut from.
#pragma once

#include "library/library.hpp"
#include "words/message.hpp"

#include "design/design.hpp"

namespace tectonis {

struct Proposal {
    std::vector<LayerRule> layers; ///< outwards first; without the name of the pieces
    Message why;
};

/// Common practice, no source: thin cotton is fused everywhere and gets foam at panels; canvas gets foam for structure;
/// what heat harms has nothing fused; a lining is lightly fused; a base is stiffened.
Proposal proposedLayers(const std::string& role, const Material& face);

/// Layers as they are written in one line: "foam-sewin basted stitch, top: inset 12; fusible-woven fused full", or
/// "none". After commas edges that differ, "area" and "grain".
std::string layersText(const std::vector<LayerRule>& layers);
/// @throws InputError for what is no list of layers.
std::vector<LayerRule> parseLayers(const std::string& text);

} // namespace tectonis
