// SPDX-License-Identifier: GPL-3.0-or-later
// Zips as they are bought and made fit: their kind, ready-made or by the metre, which way they open.
#pragma once

#include "drafting/drafter.hpp"

namespace tectonis {

/// What a zip is called by the choice of its teeth.
Label zipTeeth(const std::string& teeth);
/// Of what its teeth are.
ChoiceSpec zipKindChoice(const std::string& name);
/// The choices of a part's zip: its kind, how it is bought (@p ready: at first ready-made), which way it opens.
std::vector<ChoiceSpec> zipChoices(bool ready);

/// Which way a zip opens; @p first: what it does at first.
ChoiceSpec zipOpensChoice(const std::string& name, const std::string& first = "right");
Label zipOpens(const std::string& chosen);
/// How an end is made: of these kinds, the first is the default.
ChoiceSpec zipEndChoice(const std::string& name, const std::string& label, const std::string& meaning,
    std::initializer_list<ZipEnd::Kind> kinds);

/// The acts that make both ends of a zip before it is sewn in; tabs are the pieces over its ends, in order, one for
/// both where they are alike. Nothing for an end that runs on into a seam.
std::vector<Act> zipEndActs(const Zip& zip, const std::vector<PieceId>& tabs);
/// The verb with which such acts, or else @p sewn, begin.
Act::Verb firstZipVerb(const std::vector<Act>& ends, Act::Verb sewn);

/// Puts the part's zip into the pattern with what is bought for it. Its key, name, place, gauge, lengths and widths are
/// given; kind, direction and how it is bought are the part's choices. A ready-made zip is the next one in stock that
/// has at least @p chain mm between its stops; what is longer is cut down.
void addZip(FeatureScope& f, Zip zip, double chain);

/// Before the act @p verb that is drafted for a zip: sliders onto continuous tape, or a ready-made one cut down. One
/// that just fits is bought for that act itself.
void readyBefore(Drafter& d, const ZipId& zip, Act::Verb verb);

/// Metal ends of any zip.
void buyMetalEnds(Pattern& p, const Zip& zip);
/// Notions of a continuous zip. Its tape is as thick as what the library has.
void buyContinuousZip(Drafter& d, Zip& zip);

} // namespace tectonis
