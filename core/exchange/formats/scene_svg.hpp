// SPDX-License-Identifier: GPL-3.0-or-later
// Scenes as SVG.
#pragma once

#include "design/design.hpp"
#include "figures/scene.hpp"
#include "pattern/pattern.hpp"
#include "words/language.hpp"

#include <filesystem>
#include <functional>

namespace tectonis {

/// Style sheet for all scenes of one document: colours as CSS variables, so that a page can darken them.
std::string sceneStyle();

/// Textures that the style refers to, once in a document.
std::string sceneTextures();

/// An <svg> element of at most @p width × @p height px. @p alone: with style and textures, as a file by itself. What is
/// named in it is escaped.
std::string sceneSvg(const Scene& scene, double width, double height, Unit unit, const Language& language, bool alone);

/// Writes the figures of all steps, in the design's order of work, as "01-SIZE.svg" (the plan), "01-SIZE-section.svg",
/// "01-SIZE-so-far.svg", as far as a step has them. Returns how many were written: fewer than there are if @p progress
/// stopped the work by giving false.
/// @throws InputError if a file or the folder cannot be written.
std::size_t writeFigures(const Design& design, const std::vector<const Pattern*>& patterns,
    const std::filesystem::path& folder, Unit unit, const Language& language,
    const std::function<bool(int done, int total)>& progress = {});

} // namespace tectonis
