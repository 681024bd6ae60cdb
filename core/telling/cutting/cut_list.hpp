// SPDX-License-Identifier: GPL-3.0-or-later
// What is cut from which material, and a first marker for it.
#pragma once

#include "pattern/pattern.hpp"

namespace tectonis {

/// A piece or interlining to cut.
struct CutItem {
    PieceId pieceKey;
    std::string code;
    Message name;
    MaterialId material;
    Run outline; ///< cut line in piece coordinates
    int count = 1, mirrored = 0;
    double grain = 90; ///< degrees from x
    bool layer = false;
    SubjectId id{}; ///< the same in every size: the piece's; for an interlining also which of the piece's it is
    std::string size{};
};

/// So many bags of one size.
struct Bags {
    const Pattern* pattern = nullptr;
    int count = 0;
    bool operator==(const Bags&) const = default;
};

/// Pieces first, then interlinings, in the pattern's order.
std::vector<CutItem> cutItems(const Pattern& pattern);

/// What is bought for one bag, its thread too: things alike in kind, size and finish are counted together, whoever
/// asked for them. By the first one's id.
std::vector<Hardware> notionsOf(const Pattern& pattern);

/// The item's outline turned so that its grain runs along x, the cloth's length.
Run alongCloth(const CutItem& item);

struct MarkerSpot {
    std::size_t item = 0; ///< index into Marker::items
    Placement placement;  ///< from alongCloth() coordinates to the cloth: x along its length, y across
    bool placed = true;
};

struct Marker {
    MaterialId material;
    double clothWidth = 0; ///< mm
    double length = 0;     ///< used, mm
    double shrinks = 0;    ///< % of its length that is lost before it is cut
    double soldLength = 0; ///< what is bought, also for what it shrinks, rounded up to how it is sold, mm
    double yield = 0;      ///< share of the used cloth that is in pieces, 0 to 1
    double cost = 0;
    std::vector<CutItem> items;
    std::vector<MarkerSpot> spots;
};

/// One marker per material: pieces in rows by height, single layer, @p gap mm apart. Face cloth keeps its grain along
/// the length (pieces may lie head to foot unless the cloth is one-way); interlinings may be turned. Webbing is
/// measured by the metre.
std::vector<Marker> makeMarkers(const Pattern& pattern, double gap = 5);
/// The same for several bags, of several sizes, on one length of cloth. Where that would take more than bags one after
/// the other, they lie so.
std::vector<Marker> makeMarkers(const std::vector<Bags>& bags, double gap = 5);

} // namespace tectonis
