// SPDX-License-Identifier: GPL-3.0-or-later
#include "face_layout.hpp"

#include "editing/movables.hpp"
#include "qtext.hpp"

#include <QFontMetrics>

#include <algorithm>
#include <cmath>
#include <set>

namespace tectonis {

Point LaidFace::on(Point q) const
{
    return quarterTurned(q - Point{at.dx, at.dy}, -int(std::lround(at.angle / (pi / 2))));
}

Message captionOf(const Piece& piece) { return say("{}  {}", piece.code, piece.name); }

/// A piece as it stands upright.
struct FaceLayout::Standing {
    const Piece* piece;
    double top;      ///< of its cut line, as it is drafted
    int turn;        ///< quarters
    Box box;         ///< turned
    double name = 0; ///< px that its name is wide
};

FaceLayout::Standing FaceLayout::standing(const Piece& piece, const QFont& font) const
{
    const Site* site = siteAt(m_document.pattern(), piece.key);
    const Box b = boundsOf(piece.cut);
    Standing out{&piece, b.y1, site ? site->turn : 0, {}};
    for (const Point corner : {Point{b.x0, b.y0}, Point{b.x1, b.y1}})
        out.box.add(quarterTurned(corner, out.turn));
    QFont bold = font;
    bold.setBold(true);
    out.name = QFontMetrics(bold).horizontalAdvance(text(captionOf(piece)));
    return out;
}

/// Pieces of each face from the top down.
FaceLayout::Groups FaceLayout::groups(const QFont& font) const
{
    const Pattern& p = m_document.pattern();
    std::set<PieceId> wanted, taken;
    for (const auto& f : p.fittings)
        wanted.insert(f.piece);
    for (const auto& piece : p.pieces)
        if (std::any_of(piece.lines.begin(), piece.lines.end(),
                [](const FaceLine& l) { return l.kind == FaceLine::Kind::Placement; })
            && piece.role != "pocket")
            wanted.insert(piece.key);
    Groups out;
    for (const auto& site : p.sites) { // also empty ones: a part may be moved there
        // Of straps and tabs only those that carry something, or are in hand: long strips would make all small.
        const PieceId& strip = site.pieces.front();
        if (site.strip && strip != m_document.pieceInHand()
            && std::none_of(p.places.begin(), p.places.end(), [&](const Place& on) { return on.piece == strip; }))
            continue;
        std::vector<Standing> group;
        for (const auto& key : site.pieces)
            if (taken.insert(key).second)
                group.push_back(standing(*p.piece(key), font));
        std::sort(group.begin(), group.end(), [](const Standing& a, const Standing& b) { return a.top > b.top; });
        if (!group.empty())
            out.push_back(std::move(group));
    }
    for (const auto& piece : p.pieces)
        if (wanted.contains(piece.key) && piece.role != "strap" && taken.insert(piece.key).second)
            out.push_back({standing(piece, font)});
    return out;
}

const std::vector<LaidFace>& FaceLayout::faces(QSizeF room, const QFont& font) const
{
    if (m_known.empty() || m_room != room)
        m_known = laid(room, font), m_room = room;
    return m_known;
}

std::vector<LaidFace> FaceLayout::laid(QSizeF room, const QFont& font) const
{
    const Groups all = groups(font);
    if (m_across > 0)
        return laidOut(all, m_across);
    // First without their names, which need the more room the smaller they are.
    std::vector<LaidFace> best;
    m_pixel = 0;
    for (const bool named : {false, true}) {
        double scale = 0;
        for (std::size_t across = 1; across <= all.size(); ++across) {
            auto tried = laidOut(all, across);
            const Box box = withStraps(tried);
            if (const double fits = std::min(room.width() / box.width(), room.height() / box.height()); fits > scale)
                best = std::move(tried), scale = fits, m_best = across;
        }
        if (!named && scale > 0)
            m_pixel = 1 / scale;
    }
    return best;
}

namespace {

/// Upper left corner of the highest place for something @p wide below what lies there already; of those that are
/// about as high the first from the left.
Point highestFree(const std::vector<Box>& taken, double wide, double room)
{
    std::vector<double> starts{0};
    for (const auto& box : taken)
        starts.push_back(box.x1);
    std::sort(starts.begin(), starts.end());
    Point best{0, -1e300};
    for (const double x : starts) {
        if (x + wide > room + 1e-6)
            break;
        double y = 0;
        for (const auto& box : taken)
            if (box.x0 < x + wide - 1e-6 && box.x1 > x + 1e-6)
                y = std::min(y, box.y0);
        if (y > best.y + 60) // mm
            best = {x, y};
    }
    return best;
}

} // namespace

/// Faces as wide as the first @p across of them side by side, each as high up as it finds room beside and below
/// those before it; the pieces of each one above the other.
std::vector<LaidFace> FaceLayout::laidOut(const Groups& groups, std::size_t across) const
{
    constexpr double apart = 40;                         // mm
    const double stacked = std::max(34.0, 26 * m_pixel); // room for the names
    std::vector<std::pair<double, double>> sizes;
    double most = 0;
    for (const auto& group : groups) {
        double wide = 0, high = 0;
        for (const Standing& each : group)
            wide = std::max({wide, each.box.width(), each.name * m_pixel - apart / 2}),
            high += each.box.height() + stacked;
        sizes.emplace_back(wide + apart, high + stacked);
        most = std::max(most, wide + apart);
    }
    double room = 0;
    for (std::size_t i = 0; i < std::min(across, sizes.size()); ++i)
        room += sizes[i].first;
    room = std::max(room, most);
    std::vector<LaidFace> out;
    std::vector<Box> taken;
    for (std::size_t i = 0; i < groups.size(); ++i) {
        const auto [wide, high] = sizes[i];
        const Point at = highestFree(taken, wide, room);
        taken.emplace_back();
        taken.back().add(Point{at.x, at.y - high});
        taken.back().add(Point{at.x + wide, at.y});
        double y = at.y;
        for (const auto& [piece, top, turn, b, name] : groups[i]) {
            const double left = at.x + (wide - apart - b.width()) / 2;
            out.push_back({piece, {left - b.x0, y - b.y1, turn * pi / 2}, {left, y - b.height(), left + b.width(), y}});
            y -= b.height() + stacked;
        }
    }
    return out;
}

double FaceLayout::strapTop(const std::vector<LaidFace>& faces)
{
    double low = 0;
    for (const auto& f : faces)
        low = std::min(low, f.box.y0);
    return low - 100; // mm: room for its caption
}

Box FaceLayout::withStraps(const std::vector<LaidFace>& faces) const
{
    Box all;
    for (const auto& f : faces)
        all.add(f.box);
    all.add(Point{0, 40});
    double y = strapTop(faces);
    for (const auto& s : m_document.pattern().straps) {
        all.add(Point{std::max(s.cutLength, s.longest), y - s.width - 150});
        y -= s.width + 150;
    }
    return all;
}

} // namespace tectonis
