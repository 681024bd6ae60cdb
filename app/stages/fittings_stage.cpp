// SPDX-License-Identifier: GPL-3.0-or-later
// Fittings: the faces with zip, snap, rings and strap to scale; strips where no snap may sit are hatched.
#include "bench.hpp"
#include "cutting/load.hpp"
#include "editing/edits.hpp"
#include "fonts.hpp"
#include "handles.hpp"
#include "pattern/labels.hpp"
#include "qtext.hpp"
#include "shell/docket_page.hpp"
#include "stages.hpp"

#include <QApplication>
#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <set>

namespace tectonis {
namespace {

class FittingsBench : public Bench, public DocketSource {
public:
    explicit FittingsBench(Document& document) : Bench(document, spoken("Fittings on the faces")), m_drag(document)
    {
        setObjectName("fittingsBench");
    }

    ScreenHandle handle(const std::string& dimension) const override { return handleOf(handles(), dimension); }

    /// The part in hand: where it lies, what is fixed to it, its workings; without one, the face in hand with its
    /// fittings.
    DocketPage docketPage() const override
    {
        const Pattern& p = doc().pattern();
        const Piece* piece = p.piece(doc().pieceInHand());
        const PartId part = piece ? piece->owner() : PartId();
        DocketPage out = pagePiece(doc(), doc().pieceInHand());
        out.groups.clear();
        out.fields = {.parts = part.empty(), .part = part.text(), .opened = part.text()};
        DocketGroup lies{spoken("Lies on"), {}},
            fittings{part.empty() ? spoken("Fixed to this piece") : spoken("Fixed with it"), {}};
        for (const auto& place : p.places)
            if (const Piece* on = p.piece(place.piece);
                on && (place.feature == part || (part.empty() && piece && place.piece == piece->key)))
                lies.rows.push_back({part.empty() ? text(partLabel(p, place.feature))
                                                  : text(tectonis::say("{} {}", on->code, on->name)),
                    doc().dims({place.area.width(), place.area.height()}), {}});
        if (part.empty())
            lies.title = spoken("Parts on it");
        for (const auto& f : p.fittings) {
            const Piece* on = p.piece(f.piece);
            if (!on || !piece || !(f.piece == piece->key || (part && f.owner() == part)))
                continue;
            const bool inside = insideOutline(flattened(on->stitch(), 0.05), f.at);
            fittings.rows.push_back({spoken("{}, on {}", text(f.name), text(on->code)), doc().len(f.size),
                {inside ? spoken(
                     "{} from the nearest stitch line", doc().len(distanceTo(flattened(on->stitch(), 0.05), f.at)))
                        : spoken("beyond the stitch line"),
                    f.clearance > 0 ? spoken("needs {}", doc().len(f.clearance)) : spoken("needs no clearance"),
                    spoken("through {}", text(f.through))}});
        }
        DocketGroup straps{spoken("Strap"), {}}, zips{spoken("Zips"), {}};
        for (const auto& s : p.straps)
            if (part.empty() || (p.piece(s.piece) && p.piece(s.piece)->owner() == part)) {
                straps.rows.push_back({spoken("Strip"), doc().len(s.cutLength), {}});
                straps.rows.push_back({spoken("Width"), doc().len(s.width), {}});
                for (const auto& [label, v] : reachesOf(s))
                    straps.rows.push_back({QString::fromStdString(capitalised(label.toStdString())), doc().len(v), {}});
                straps.rows.push_back(rowOf(doc(), loadOf(doc().design(), p).working(SubjectId(s.piece.text()))));
            }
        for (const auto& z : p.zips)
            if (const Piece* on = p.piece(z.piece); part.empty() || (on && on->owner() == part))
                zips.rows.push_back({text(z.name), doc().len(z.nominal),
                    {spoken("tape {} long, {} wide", doc().len(z.tape), doc().len(z.tapeWidth)),
                        spoken("shows {}; gauge {} {}; opens {}", doc().len(z.visibleGap), z.gauge, text(z.kind),
                            text(z.opens)),
                        z.byTheMetre ? spoken("cut from continuous zip") : spoken("finished zip, stop to stop"),
                        spoken(
                            "first stitch {} from the side, {}", doc().len(z.first.stitch), text(nameOf(z.first.kind))),
                        spoken(
                            "last stitch {} from the side, {}", doc().len(z.last.stitch), text(nameOf(z.last.kind)))}});
        out.groups = {lies, fittings, zips, straps};
        if (piece)
            out.groups.push_back(workingsOf(doc(),
                [&](const SubjectId& s) { return s == SubjectId(piece->key) || (part && s == SubjectId(part)); }));
        return out;
    }

protected:
    struct Face {
        const Piece* piece;
        Placement at;
        Box box;
        /// On the piece, what lies at @p q on the bench.
        Point on(Point q) const
        {
            return quarterTurned(q - Point{at.dx, at.dy}, -int(std::lround(at.angle / (pi / 2))));
        }
    };

    /// How far a strap reaches, longest first.
    static std::vector<std::pair<QString, double>> reachesOf(const Strap& s)
    {
        switch (s.worn) {
        case Strap::Worn::Wrist: return {{spoken("loop, from the ring down"), s.longest}};
        case Strap::Worn::Waist:
            return {{spoken("longest, all round"), s.longest}, {spoken("shortest, all round"), s.shortest}};
        case Strap::Worn::Doubled:
            return {{spoken("drawn out, mouth to mouth"), s.longest}, {spoken("doubled, mouth to mouth"), s.shortest}};
        case Strap::Worn::Shoulder: break;
        }
        return {{spoken("longest, mouth to mouth"), s.longest}, {spoken("shortest, mouth to mouth"), s.shortest}};
    }

    /// The faces of the bag, each with the pieces it was cut into one above the other, then every other piece that
    /// carries a fitting or a placement. Straps lie below.
    std::vector<Face> faces() const
    {
        const Pattern& p = doc().pattern();
        std::set<PieceId> wanted, taken;
        for (const auto& f : p.fittings)
            wanted.insert(f.piece);
        for (const auto& piece : p.pieces)
            if (std::any_of(piece.lines.begin(), piece.lines.end(),
                    [](const FaceLine& l) { return l.kind == FaceLine::Kind::Placement; })
                && piece.role != "pocket")
                wanted.insert(piece.key);
        std::vector<std::vector<Standing>> groups; // pieces from the top down
        for (const auto& site : p.sites) {         // also empty ones: a part may be moved there
            // Of straps and tabs only those that carry something, or are in hand: long strips would make all small.
            const PieceId& strip = site.pieces.front();
            if (site.strip && strip != doc().pieceInHand()
                && std::none_of(p.places.begin(), p.places.end(), [&](const Place& on) { return on.piece == strip; }))
                continue;
            std::vector<Standing> group;
            for (const auto& key : site.pieces)
                if (taken.insert(key).second)
                    group.push_back(standing(*p.piece(key)));
            std::sort(group.begin(), group.end(), [](const Standing& a, const Standing& b) { return a.top > b.top; });
            if (!group.empty())
                groups.push_back(std::move(group));
        }
        for (const auto& piece : p.pieces)
            if (wanted.contains(piece.key) && piece.role != "strap" && taken.insert(piece.key).second)
                groups.push_back({standing(piece)});
        if (m_across > 0)
            return laidOut(groups, m_across);
        // As many side by side as shows them largest in this window; first without their names, which need the more
        // room the smaller they are.
        std::vector<Face> best;
        m_pixel = 0;
        for (const bool named : {false, true}) {
            double scale = 0;
            for (std::size_t across = 1; across <= groups.size(); ++across) {
                auto laid = laidOut(groups, across);
                const Box box = withStraps(laid);
                if (const double fits = std::min(width() / box.width(), height() / box.height()); fits > scale)
                    best = std::move(laid), scale = fits, m_best = across;
            }
            if (!named && scale > 0)
                m_pixel = 1 / scale;
        }
        return best;
    }

    /// A piece as it stands upright.
    struct Standing {
        const Piece* piece;
        double top;      ///< of its cut line, as it is drafted
        int turn;        ///< quarters
        Box box;         ///< turned
        double name = 0; ///< px that its name is wide
    };
    Message captionOf(const Piece& piece) const { return tectonis::say("{}  {}", piece.code, piece.name); }
    Standing standing(const Piece& piece) const
    {
        const Site* site = siteOf(piece.key);
        const Box b = boundsOf(piece.cut);
        Standing out{&piece, b.y1, site ? site->turn : 0, {}};
        for (const Point corner : {Point{b.x0, b.y0}, Point{b.x1, b.y1}})
            out.box.add(quarterTurned(corner, out.turn));
        QFont font = this->font();
        font.setBold(true);
        out.name = QFontMetrics(font).horizontalAdvance(text(captionOf(piece)));
        return out;
    }

    /// Faces as wide as the first @p across of them side by side, each as high up as it finds room beside and below
    /// those before it; the pieces of each one above the other.
    std::vector<Face> laidOut(const std::vector<std::vector<Standing>>& groups, std::size_t across) const
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
        for (std::size_t i = 0; i < across; ++i)
            room += sizes[i].first;
        room = std::max(room, most);
        std::vector<Face> out;
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
                out.push_back(
                    {piece, {left - b.x0, y - b.y1, turn * pi / 2}, {left, y - b.height(), left + b.width(), y}});
                y -= b.height() + stacked;
            }
        }
        return out;
    }

    /// Upper left corner of the highest place for something @p wide below what lies there already; of those that are
    /// about as high the first from the left.
    static Point highestFree(const std::vector<Box>& taken, double wide, double room)
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

    static double strapTop(const std::vector<Face>& faces)
    {
        double low = 0;
        for (const auto& f : faces)
            low = std::min(low, f.box.y0);
        return low - 100; // mm: room for its caption
    }
    double strapTop() const { return strapTop(faces()); }

    /// What the faces and the straps below them take.
    Box withStraps(const std::vector<Face>& faces) const
    {
        Box all;
        for (const auto& f : faces)
            all.add(f.box);
        all.add(Point{0, 40});
        double y = strapTop(faces);
        for (const auto& s : doc().pattern().straps) {
            all.add(Point{std::max(s.cutLength, s.longest), y - s.width - 150});
            y -= s.width + 150;
        }
        return all;
    }

    Box extent() const override { return withStraps(faces()); }

    std::vector<ScreenHandle> handles() const
    {
        const auto shown = faces();
        auto all = handlesOnPieces(doc().pattern(), view(), [&](const PieceId& piece) -> const Placement* {
            for (const auto& f : shown)
                if (f.piece->key == piece)
                    return &f.at;
            return nullptr;
        });
        std::erase_if(
            all, [&](const ScreenHandle& h) { return partOf(h.dimension).empty(); }); // the body's are dragged in Draft
        return all;
    }

    /// The part that a dimension belongs to; empty for the body's.
    std::string partOf(const std::string& dimension) const
    {
        for (const auto& f : doc().design().features)
            if (dimension.starts_with(f.id + "."))
                return f.id;
        return {};
    }

    void draw(QPainter& p, const View& base, Labels& labels) override
    {
        const Theme& t = theme();
        m_labels = &labels;
        for (const auto& f : faces()) {
            View v = base;
            v.placement = f.at;
            PieceLook look = t.pieceLook(f.piece->coat, f.piece->key == doc().pieceInHand());
            look.textSize = 12;
            look.label = false;
            drawPiece(p, v, *f.piece, look);
            labels.add({text(captionOf(*f.piece)), base({(f.box.x0 + f.box.x1) / 2, f.box.y1}), {0, -1}, 3, 8, false,
                true, {}});
            drawFittings(p, v, *f.piece);
            if (const Fitting* half = frontHalf(); half && half->piece == f.piece->key)
                drawFlapOver(p, v);
        }
        drawGuides(p, base, labels);
        double y = strapTop();
        for (const auto& s : doc().pattern().straps)
            y = drawStrap(p, base, s, y);
        // Of many handles only those of the part in hand are named; the others when the pointer is on them.
        const Piece* piece = doc().pattern().piece(doc().pieceInHand());
        const std::string mine = piece ? piece->owner().text() : "";
        m_drag.draw(p, handles(), labels, {},
            [&](const ScreenHandle& h) { return mine.empty() ? handles().size() < 5 : partOf(h.dimension) == mine; });
    }

    const Fitting* frontHalf() const
    {
        for (const auto& f : doc().pattern().fittings)
            if (f.kind == Fitting::Kind::Snap && f.key.name().ends_with("front half"))
                return &f;
        return nullptr;
    }

    /// The closed flap over the front: its snap half lies on the front's.
    void drawFlapOver(QPainter& p, const View& front)
    {
        const Pattern& pattern = doc().pattern();
        const Fitting *below = nullptr, *above = nullptr;
        for (const auto& f : pattern.fittings)
            if (f.kind == Fitting::Kind::Snap)
                (&f == frontHalf() ? below : above) = &f;
        const Piece* flap = above ? pattern.piece(above->piece) : nullptr;
        if (!flap || !below)
            return;
        // On a body with a flap of its own the front hangs head down.
        const bool headDown = std::any_of(pattern.handles.begin(), pattern.handles.end(),
            [&](const Handle& h) { return h.piece == below->piece && h.at == below->at && h.direction.y > 0; });
        const Box face = boundsOf(pattern.piece(below->piece)->stitch());
        const double mouth = headDown ? face.y0 : face.y1;
        p.save();
        p.setClipRect(QRectF(front({-2000, mouth}), front({2000, headDown ? 2000.0 : -2000.0})).normalized());
        const Point by = below->at - above->at;
        QPen pen(theme().second, 1.4);
        pen.setDashPattern({6, 4});
        p.setPen(pen);
        p.setBrush(Qt::NoBrush);
        p.drawPath(pathOf(placed(flap->stitch(), {by.x, by.y}), front, true));
        p.restore();
        say(front({by.x + boundsOf(flap->stitch()).x0 + 20, mouth + (headDown ? 20 : -20)}), {1, 0}, 2,
            spoken("flap, closed"), 2);
    }

    void drawFittings(QPainter& p, const View& v, const Piece& piece)
    {
        const Theme& t = theme();
        for (const auto& f : doc().pattern().fittings) {
            if (f.piece != piece.key)
                continue;
            const QPointF c = v(f.at);
            if (f.kind == Fitting::Kind::Snap) {
                drawForbidden(p, v, piece, f.clearance);
                const double r = f.size / 2 * v.scale;
                p.setPen(QPen(t.ink, 1.2));
                p.setBrush(QColor(0xB9BEC4));
                p.drawEllipse(c, r, r);
                p.setBrush(QColor(0x7C838B));
                p.drawEllipse(c, r * 0.35, r * 0.35);
                m_labels->avoid(QRectF(c - QPointF(r, r), QSizeF(2 * r, 2 * r)));
                if (piece.key == doc().pieceInHand())
                    say(c, {0, 1}, r + 3,
                        spoken("{} to the edge", doc().len(distanceTo(flattened(piece.stitch(), 0.05), f.at))), 6);
            } else if (f.kind == Fitting::Kind::Zip) {
                const double w = f.size / 2 * v.scale;
                p.setPen(QPen(t.ink, 2));
                p.drawLine(c - QPointF(w, 0), c + QPointF(w, 0));
                p.setPen(QPen(t.ink, 1));
                for (double x = -w; x <= w; x += 4)
                    p.drawLine(c + QPointF(x, -2), c + QPointF(x, 2));
                p.setBrush(t.accent);
                p.drawRect(QRectF(opensLeft(f) ? c.x() + w - 9 : c.x() - w, c.y() - 4, 9, 8));
                m_labels->avoid(QRectF(c.x() - w - 4, c.y() - 6, 2 * w + 8, 42)); // and its rule
                drawZipRule(p, v, f);
            } else if (f.kind == Fitting::Kind::Ring) {
                const double r = f.size / 2 * v.scale;
                // Caught in an edge it hangs outside; riveted on, it lies in its tab.
                const QPointF away = c - v(boundsOf(piece.stitch()).centre());
                const QPointF out = insideOutline(flattened(piece.stitch(), 0.05), f.at) ? QPointF()
                    : std::abs(away.x()) > std::abs(away.y()) ? QPointF(away.x() < 0 ? -1 : 1, 0)
                                                              : QPointF(0, away.y() < 0 ? -1 : 1);
                const QPointF at = c + out * (r + 6);
                p.setPen(QPen(t.muted, 3));
                p.setBrush(Qt::NoBrush);
                p.drawEllipse(at, out.y() != 0 ? r : r * 0.75, out.y() != 0 ? r * 0.75 : r);
                m_labels->avoid(QRectF(at - QPointF(r, r), QSizeF(2 * r, 2 * r)));
                if (lastOfItsKind(f)) // one says it for all
                    say(at, out.isNull() ? QPointF(0, -1) : out, r + 3, spoken("ring {} inside", doc().len(f.size)), 4);
            }
        }
    }

    /// A closed zip that opens to the left has its slider on the right.
    bool opensLeft(const Fitting& fitting) const
    {
        const auto& zips = doc().pattern().zips;
        return std::any_of(zips.begin(), zips.end(),
            [&](const Zip& z) { return z.key.text() == fitting.key.text() && z.opens == "to the left"; });
    }

    /// Of a part's rings of one width.
    bool lastOfItsKind(const Fitting& ring) const
    {
        const auto& all = doc().pattern().fittings;
        return std::none_of(all.begin() + (&ring - all.data()) + 1, all.end(), [&](const Fitting& f) {
            return f.kind == ring.kind && f.size == ring.size && f.key.owner() == ring.key.owner();
        });
    }

    /// Hatches the strip along the stitch line where a fitting's centre may not lie.
    void drawForbidden(QPainter& p, const View& v, const Piece& piece, double clearance)
    {
        std::vector<OffsetEdge> inner;
        for (const auto& e : piece.edges)
            inner.push_back({e.stitch, -clearance, -clearance});
        QPainterPath strip = pathOf(piece.stitch(), v, true).subtracted(pathOf(offsetOutline(inner), v, true));
        p.save();
        p.setClipPath(strip, Qt::IntersectClip);
        QColor c = theme().error;
        c.setAlpha(70);
        p.setPen(QPen(c, 1));
        const QRectF r = strip.boundingRect();
        for (double x = r.left() - r.height(); x < r.right(); x += 7)
            p.drawLine(QPointF(x, r.bottom()), QPointF(x + r.height(), r.top()));
        p.restore();
    }

    /// Lengths that can be bought, against the window.
    void drawZipRule(QPainter& p, const View& v, const Fitting& f)
    {
        const Theme& t = theme();
        const double y = 15;
        const QPointF from = v(f.at - Point{f.size / 2, 0}) + QPointF(0, y);
        p.setPen(QPen(t.muted, 1));
        p.setFont(pixelFont(10));
        double last = -100;
        const StockTable* zips = doc().pattern().library->stock("zip");
        for (const double length : zips ? zips->values : std::vector<double>{}) {
            if (length > doc().pattern().width)
                break;
            const double x = from.x() + length * v.scale;
            p.drawLine(QPointF(x, from.y()), QPointF(x, from.y() + 5));
            if (x - last > 24 || std::abs(length - f.size) < 0.01) {
                p.setPen(std::abs(length - f.size) < 0.01 ? t.accent : t.muted);
                p.drawText(QRectF(x - 20, from.y() + 5, 40, 13), Qt::AlignCenter,
                    text(readersLanguage().lengthBare(length, doc().unit())));
                p.setPen(QPen(t.muted, 1));
                last = x;
            }
        }
        p.drawLine(from, from + QPointF(f.size * v.scale, 0));
    }

    double drawStrap(QPainter& p, const View& base, const Strap& s, double y)
    {
        const Theme& t = theme();
        const auto bar = [&](double x0, double x1, double top, const QColor& c) {
            p.setPen(QPen(t.ink, 1));
            p.setBrush(c);
            p.drawRect(QRectF(base({x0, top}), base({x1, top - s.width})));
        };
        const auto caption = [&](double top, const QString& words) {
            say(base({0, top}) + QPointF(p.fontMetrics().horizontalAdvance(words) / 2.0, 0), {0, -1}, 3, words, 7);
        };
        p.setFont(pixelFont(11.5));
        caption(y,
            s.worn == Strap::Worn::Doubled ? spoken("{}, {} wide: strip {} long, its ends lapped by {}", text(s.name),
                doc().len(s.width), doc().len(s.cutLength), doc().len(s.fold))
                : s.fold == 0              ? spoken("{}, {} wide: strip {} long, {} taken up at its end", text(s.name),
                                   doc().len(s.width), doc().len(s.cutLength), doc().len(s.end))
                : s.fold == s.end
                ? spoken("{}, {} wide: strip {} long, {} taken up at each end", text(s.name), doc().len(s.width),
                    doc().len(s.cutLength), doc().len(s.fold))
                : spoken("{}, {} wide: strip {} long, {} taken up at one end, {} at the other", text(s.name),
                    doc().len(s.width), doc().len(s.cutLength), doc().len(s.fold), doc().len(s.end)));
        bar(0, s.cutLength, y, t.strip);
        m_labels->avoid(QRectF(base({0, y}), base({s.cutLength, y - s.width})));
        bar(0, s.fold, y, t.strip.darker(118));
        bar(s.cutLength - s.end, s.cutLength, y, t.strip.darker(118));
        for (int i = 1; i < s.strips; ++i) {
            const double x = s.cutLength * i / s.strips;
            p.setPen(QPen(t.accent, 1.4, Qt::DashLine));
            p.drawLine(base({x, y}), base({x, y - s.width}));
        }
        y -= s.width + 42;
        p.setPen(QPen(t.second, 2));
        for (const auto& [name, length] : reachesOf(s)) {
            const QPointF a = base({0, y}), b = base({length, y});
            p.setPen(QPen(t.second, 2));
            p.drawLine(a, b);
            p.drawLine(a - QPointF(0, 4), a + QPointF(0, 4));
            p.drawLine(b - QPointF(0, 4), b + QPointF(0, 4));
            m_labels->avoid(QRectF(a - QPointF(0, 3), b + QPointF(0, 3)));
            say(b, {1, 0}, 8, QString("%1: %2").arg(name, doc().len(length)), 7); // at its end
            y -= 42;
        }
        return y - 20;
    }

    void say(QPointF at, QPointF towards, double clear, const QString& words, int rank)
    {
        m_labels->add({words, at, towards, clear, rank, false, false, {}});
    }

    bool press(Point q, QPointF at) override
    {
        if (m_drag.press(handles(), at)) {
            m_across = m_best;
            return true;
        }
        if (const Held held = partAt(q); !held.feature.empty()) {
            m_across = m_best;
            m_held = held;
            choose(held);
            return true;
        }
        for (const auto& f : faces())
            if (f.box.contains(q))
                doc().takePiece(f.piece->key);
        return false;
    }
    void drag(Point q, QPointF at) override { m_held.feature.empty() ? m_drag.move(at) : movePart(q); }
    void release() override
    {
        m_drag.release();
        m_held = {};
        m_guides.clear();
        m_moved = false;
        m_across = 0;
    }
    void hover(Point q, QPointF at) override
    {
        m_drag.hover(handles(), at);
        const bool part = !partAt(q).feature.empty();
        setCursor(part ? Qt::OpenHandCursor : Qt::ArrowCursor);
        setToolTip(part
                ? spoken("Drag to move it, also onto another face; with Shift it does not line up. Arrow keys move "
                         "it by 1 mm, with Shift by 10, with Ctrl by 0.1; Delete takes it out")
                : "");
        update();
    }

private:
    /// A part taken hold of: its feature, and from the pointer to the middle of its upper edge.
    struct Held {
        PartId feature;
        PieceId piece;
        Point grip;
    };

    Held partAt(Point q) const
    {
        for (const auto& f : faces())
            for (const auto& place : doc().pattern().places) {
                const Point on = f.on(q);
                if (place.piece != f.piece->key || !place.area.contains(on))
                    continue;
                const Site* site = siteOf(place.piece, on);
                return {place.feature, place.piece,
                    site ? upperMiddle(*site, place) - site->upright(on) : Point{0, place.area.y1 - on.y}};
            }
        return {};
    }

    /// What is in hand, if it is a part: its feature and where it lies.
    const Place* placeInHand() const
    {
        const Piece* piece = doc().pattern().piece(doc().pieceInHand());
        const PartId part = doc().pieceInHand() == m_chosenWith ? m_chosen : piece ? piece->owner() : PartId();
        for (const auto& place : doc().pattern().places)
            if (place.feature == part)
                return &place;
        return nullptr;
    }

    /// What lies at the pointer comes into hand; a part without a piece of its own with the face that it lies on.
    void choose(const Held& held)
    {
        const PieceId own(held.feature);
        doc().takePiece(doc().pattern().piece(own) ? own : held.piece);
        m_chosen = held.feature, m_chosenWith = doc().pieceInHand();
    }

    /// The face that a piece is; of a piece that is several that in which @p on lies, or the nearest.
    const Site* siteOf(const PieceId& piece, std::optional<Point> on = {}) const
    {
        const Site* best = nullptr;
        double nearest = 1e300;
        for (const auto& site : doc().pattern().sites)
            if (std::find(site.pieces.begin(), site.pieces.end(), piece) != site.pieces.end()) {
                const double y = on ? site.upright(*on).y : site.top;
                if (const double away = std::max({0.0, y - site.top, site.top - site.height - y}); away < nearest)
                    best = &site, nearest = away;
            }
        return best;
    }

    /// Of a part on a face, as it stands: the middle of its upper edge.
    static Point upperMiddle(const Site& site, const Place& place)
    {
        const Box area = site.upright(place.area);
        return {area.centre().x, area.y1};
    }

    /// By arrow keys: 1 mm, with Shift 10, with Ctrl a tenth.
    bool nudge(QKeyEvent* event)
    {
        const Point way = event->key() == Qt::Key_Left ? Point{-1, 0}
            : event->key() == Qt::Key_Right            ? Point{1, 0}
            : event->key() == Qt::Key_Up               ? Point{0, 1}
            : event->key() == Qt::Key_Down             ? Point{0, -1}
                                                       : Point{};
        const Place* place = placeInHand();
        const Site* site = place ? siteOf(place->piece, place->area.centre()) : nullptr;
        if (!site || (way.x == 0 && way.y == 0))
            return false;
        const double by = event->modifiers() & Qt::ShiftModifier ? 10
            : event->modifiers() & Qt::ControlModifier           ? 0.1
                                                                 : 1;
        const Point to = site->onPiece(upperMiddle(*site, *place) + way * by);
        const Pattern& pattern = doc().pattern();
        const std::string part = place->feature.text(), face = site->name.text();
        doc().edit(
            spoken("Move a part"), [&](Design& d) { change::movePart(d, pattern, part, face, to); },
            spoken("move {}", part));
        return true;
    }

    void keyPressEvent(QKeyEvent* event) override
    {
        if (!nudge(event))
            Bench::keyPressEvent(event);
    }

    /// What can be done with a part, at the pointer or by the menu key.
    void contextMenuEvent(QContextMenuEvent* event) override
    {
        const Point q = view().plane(event->pos());
        if (event->reason() != QContextMenuEvent::Keyboard)
            if (const Held held = partAt(q); !held.feature.empty())
                choose(held);
        const Place* place = placeInHand();
        if (!place)
            return;
        const std::string part = place->feature.text();
        const QString name = text(within(partLabel(doc().pattern(), place->feature)));
        QMenu menu(this);
        menu.setObjectName("partMenu");
        auto* middle = menu.addAction(spoken("Put {} &into the middle", name), this, [this, part] {
            doc().edit(spoken("Put in the middle"), [&](Design& d) { change::dimension(d, part + ".across", "0"); });
        });
        auto* mirror = menu.addAction(spoken("&Mirror {} on the other side", name), this,
            [this, part] { doc().edit(spoken("Mirror a part"), [&](Design& d) { change::mirrorPart(d, part); }); });
        middle->setEnabled(doc().design().dimensions.contains(part + ".across"));
        mirror->setEnabled(middle->isEnabled());
        menu.addAction(spoken("&Take {} out", name), this, [this, part] {
            doc().edit(spoken("Take out: {}", part), [&](Design& d) { change::removePart(d, part); });
        });
        menu.exec(event->globalPos());
    }

    /// Lines that the part in hand is lined up with, and how far it is from the sides of its face.
    void drawGuides(QPainter& p, const View& base, Labels& labels)
    {
        const Place* place = placeInHand();
        const Site* site = place && m_moved ? siteOf(place->piece, place->area.centre()) : nullptr;
        if (!site)
            return;
        for (const auto& f : faces()) {
            if (f.piece->key != place->piece)
                continue;
            View v = base;
            v.placement = f.at;
            const Box face{site->x - site->width / 2, site->top - site->height, site->x + site->width / 2, site->top};
            p.setPen(QPen(theme().accent, 1.2, Qt::DashLine));
            for (const auto& guide : m_guides) {
                const QPointF a = v(site->onPiece(
                                  guide.upright ? Point{guide.line, face.y0} : Point{face.x0, guide.line})),
                              b = v(site->onPiece(
                                  guide.upright ? Point{guide.line, face.y1} : Point{face.x1, guide.line}));
                p.drawLine(a, b);
                labels.add({text(guide.what, doc().unit()), guide.upright ? a : b,
                    guide.upright ? QPointF(0, 1) : QPointF(1, 0), 6, 9, true, true, theme().accent});
            }
            const Box at = site->upright(place->area);
            const auto far = [&](double mm) { return doc().len(std::round(mm * 10) / 10); };
            labels.add({spoken("{} left · {} right · {} above · {} below", far(at.x0 - face.x0), far(face.x1 - at.x1),
                            far(face.y1 - at.y1), far(at.y0 - face.y0)),
                v(site->onPiece({at.centre().x, at.y0})), {0, 1}, 12, 9, true, true, {}});
        }
    }

    void movePart(Point q)
    {
        const Pattern& pattern = doc().pattern();
        for (const auto& f : faces())
            if (const Site* under = f.box.contains(q) ? siteOf(f.piece->key, f.on(q)) : nullptr) {
                const Site site = *under;
                Point to = site.upright(f.on(q)) + m_held.grip;
                // In steps that a rule shows.
                const double step = doc().unit() == Unit::Inch ? 25.4 / 16 : 0.5;
                to = {site.x + std::round((to.x - site.x) / step) * step,
                    site.top - std::round((site.top - to.y) / step) * step};
                // Shift: as it is drawn, without lining up.
                const bool free = QApplication::keyboardModifiers() & Qt::ShiftModifier;
                const LinedUp lined = linedUp(
                    free ? std::vector<Alignment>{} : alignmentsFor(doc().design(), pattern, m_held.feature, site, to),
                    to, kSnap / view().scale);
                m_moved = true;
                m_guides = lined.with;
                doc().edit(
                    spoken("Move a part"),
                    [&](Design& d) {
                        change::movePart(
                            d, pattern, m_held.feature.text(), site.name.text(), site.onPiece(lined.at), lined.with);
                    },
                    spoken("move {}", m_held.feature.text()));
                return;
            }
    }

    Labels* m_labels = nullptr; ///< of the drawing under way
    HandleDrag m_drag;
    static constexpr double kSnap = 6; ///< px within which a part lines up
    Held m_held;
    PartId m_chosen;                 ///< the part that was last taken hold of
    PieceId m_chosenWith;            ///< and what came into hand with it
    std::vector<Alignment> m_guides; ///< that the part being moved is lined up with
    bool m_moved = false;
    mutable std::size_t m_best = 1; ///< faces side by side, as last chosen
    mutable double m_pixel = 0;     ///< mm of one on the screen, about
    std::size_t m_across = 0;       ///< kept while something is dragged; 0: chosen anew
};

} // namespace

QWidget* makeFittingsStage(Document& document) { return new FittingsBench(document); }

} // namespace tectonis
