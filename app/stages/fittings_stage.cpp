// SPDX-License-Identifier: GPL-3.0-or-later
// Fittings: the faces with zip, snap, rings and strap to scale; strips where no snap may sit are hatched.
#include "bench.hpp"
#include "cutting/load.hpp"
#include "editing/edits.hpp"
#include "editing/movables.hpp"
#include "face_layout.hpp"
#include "fonts.hpp"
#include "handles.hpp"
#include "pattern/labels.hpp"
#include "qtext.hpp"
#include "shell/docket_page.hpp"
#include "stages.hpp"

#include <QApplication>
#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QLineF>
#include <QMenu>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <optional>
#include <utility>

namespace tectonis {
namespace {

class FittingsBench : public Bench, public DocketSource {
public:
    explicit FittingsBench(Document& document)
        : Bench(document, spoken("Fittings on the faces")), m_layout(document), m_drag(document)
    {
        setObjectName("fittingsBench");
        connect(&document, &Document::changed, this, [this] { m_layout.forget(); });
        connect(&document, &Document::viewChanged, this, [this] { m_layout.forget(); });
    }

    ScreenHandle handle(const std::string& dimension) const override
    {
        const auto& laid = faces();
        for (const auto& thing : movablesOf(doc().pattern()))
            if (const auto own = handleOf(handlesOf(thing, laid), dimension); !own.dimension.empty())
                return own;
        return {};
    }

    /// The part in hand: where it lies, what is fixed to it, its workings; without one, the face in hand with its
    /// fittings.
    DocketPage docketPage() const override
    {
        const Pattern& p = doc().pattern();
        const Piece* piece = p.piece(doc().pieceInHand());
        const PartId part = partInHand();
        DocketPage out = pagePiece(doc(), doc().pieceInHand());
        const bool own = piece && part == piece->owner(); // else a part's thing on it is in hand
        if (!own && part)
            out.title = text(partLabel(p, part));
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
            if (!on || !piece || !((own && f.piece == piece->key) || (part && f.owner() == part)))
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
            if (const Piece* on = p.piece(z.piece);
                part.empty() || z.key.owner() == part || (on && on->owner() == part))
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
            out.groups.push_back(workingsOf(doc(), [&](const SubjectId& s) {
                return (own && s == SubjectId(piece->key)) || (part && s == SubjectId(part));
            }));
        return out;
    }

protected:
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

    const std::vector<LaidFace>& faces() const { return m_layout.faces(QSizeF(width(), height()), font()); }
    double strapTop() const { return FaceLayout::strapTop(faces()); }

    Box extent() const override { return m_layout.withStraps(faces()); }

    /// The handles of a thing that can be moved, if its piece lies here.
    std::vector<ScreenHandle> handlesOf(const Movable& thing, const std::vector<LaidFace>& laid) const
    {
        std::vector<ScreenHandle> out;
        if (thing.wanders)
            return out;
        for (const auto& f : laid)
            if (f.piece->key == thing.piece) {
                View v = view();
                v.placement = f.at;
                const Point at = thing.face.onPiece(thing.at);
                for (const auto& way : thing.ways)
                    out.push_back({way.dimension, v(at),
                        v(at + thing.face.onPiece(way.direction) - thing.face.onPiece(Point{})) - v(at), way.gain});
            }
        return out;
    }

    /// Round handles, and those of what is in hand.
    std::vector<ScreenHandle> handles() const
    {
        std::vector<ScreenHandle> out;
        const auto& laid = faces();
        for (const auto& thing : movablesOf(doc().pattern()))
            if (thing.area.width() == 0)
                for (auto& handle : handlesOf(thing, laid))
                    out.push_back(std::move(handle));
        if (const auto mine = inHand(); mine && mine->area.width() > 0)
            for (auto& handle : handlesOf(*mine, laid))
                out.push_back(std::move(handle));
        return out;
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
        const auto all = handles();
        const auto mine = inHand();
        m_drag.draw(p, all, labels, {}, [&](const ScreenHandle& h) {
            return mine ? h.dimension.starts_with(mine->part.text() + ".") : all.size() < 5;
        });
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
            if (f.kind == Fitting::Kind::Snap && f.owner() == frontHalf()->owner())
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
        const bool handle = m_drag.press(handles(), at);
        m_held = handle ? withHandle(m_drag.held(), at) : thingAt(q);
        if (!m_held) {
            for (const auto& f : faces())
                if (f.box.contains(q)) {
                    const bool thing = !std::exchange(m_chosen, PartId()).empty();
                    doc().takePiece(f.piece->key); // all is laid out anew
                    if (thing)
                        tellHand();
                    break;
                }
            return false;
        }
        m_layout.hold();
        ++m_drags;
        m_start = q, m_from = hung(*m_held), m_grip = {};
        for (const auto& f : faces())
            if (f.piece->key == m_held->piece && f.box.contains(q))
                m_grip = m_held->at - m_held->face.upright(f.on(q));
        choose(*m_held);
        return true;
    }
    void drag(Point q, QPointF) override
    {
        if (m_held)
            moveTo(q);
    }
    void release() override
    {
        m_drag.release();
        m_held.reset();
        m_guides.clear();
        m_moved = false;
        m_layout.release();
    }
    void hover(Point q, QPointF at) override
    {
        m_drag.hover(handles(), at);
        const auto thing = thingAt(q);
        setCursor(thing ? Qt::OpenHandCursor : Qt::ArrowCursor);
        setToolTip(!thing ? ""
                : thing->wanders
                ? spoken("Drag to move it, also onto another face; with Shift it does not line up. Arrow keys move "
                         "it by 1 mm, with Shift by 10, with Ctrl by 0.1; Delete takes it out")
                : spoken("Drag to move it; with Shift it does not line up. Arrow keys move it by 1 mm, with Shift by "
                         "10, with Ctrl by 0.1; Delete takes it out"));
        update();
    }

private:
    /// What lies under a point of the bench and can be moved; of several the smallest.
    std::optional<Movable> thingAt(Point q) const
    {
        std::optional<Movable> out;
        const auto sizeOf = [](const Movable& thing) { return thing.area.width() * thing.area.height(); };
        const auto& laid = faces();
        for (auto& thing : movablesOf(doc().pattern()))
            for (const auto& f : laid)
                if (f.piece->key == thing.piece && thing.area.width() > 0
                    && thing.area.contains(thing.face.upright(f.on(q)), kNear / view().scale)
                    && (!out || sizeOf(thing) < sizeOf(*out)))
                    out = thing;
        return out;
    }

    /// That whose handle of this name lies nearest to the pointer.
    std::optional<Movable> withHandle(const std::string& dimension, QPointF at) const
    {
        std::optional<Movable> out;
        double nearest = 1e300;
        const auto& laid = faces();
        for (auto& thing : movablesOf(doc().pattern()))
            for (const auto& handle : handlesOf(thing, laid))
                if (const double away = QLineF(handle.at, at).length(); handle.dimension == dimension && away < nearest)
                    nearest = away, out = thing;
        return out;
    }

    /// Of the things of one part, which this is.
    static std::size_t numberOf(const std::vector<Movable>& all, const Movable& thing)
    {
        std::size_t number = 0;
        for (const auto& each : all)
            if (each.part == thing.part) {
                if (each.piece == thing.piece && each.at == thing.at && each.area.width() == thing.area.width()
                    && each.ways.size() == thing.ways.size())
                    return number;
                ++number;
            }
        return 0;
    }
    std::optional<Movable> thingOf(const PartId& part, std::size_t number) const
    {
        for (auto& each : movablesOf(doc().pattern()))
            if (each.part == part && number-- == 0)
                return each;
        return {};
    }

    /// What was taken hold of last, while what came into hand with it is in hand; else the first thing that can be
    /// moved of the part in hand.
    std::optional<Movable> inHand() const
    {
        if (!m_chosen.empty() && doc().pieceInHand() == m_chosenWith)
            return thingOf(m_chosen, m_number);
        const Piece* piece = doc().pattern().piece(doc().pieceInHand());
        return piece && !piece->owner().empty() ? thingOf(piece->owner(), 0) : std::nullopt;
    }

    /// What lies at the pointer comes into hand: a part's own piece, or the piece that its thing lies on.
    void choose(const Movable& thing)
    {
        const PieceId own(thing.part);
        const PieceId with = thing.wanders && doc().pattern().piece(own) ? own : thing.piece;
        const bool same = m_chosen == thing.part && m_chosenWith == with && doc().pieceInHand() == with;
        m_number = numberOf(movablesOf(doc().pattern()), thing);
        m_chosen = thing.part, m_chosenWith = with;
        doc().takePiece(with);
        if (!same)
            tellHand();
    }

    /// The part of what is in hand; none for a face.
    PartId partInHand() const
    {
        if (!m_chosen.empty() && doc().pieceInHand() == m_chosenWith && doc().pattern().partLabels.contains(m_chosen))
            return m_chosen;
        const Piece* piece = doc().pattern().piece(doc().pieceInHand());
        return piece ? piece->owner() : PartId();
    }

    /// A drag and the keys that follow it are one undo step.
    QString mergeKey(const PartId& part) const
    {
        return QString("move %1 %2").arg(QString::fromStdString(part.text())).arg(m_drags);
    }

    /// By arrow keys: 1 mm, with Shift 10, with Ctrl a tenth.
    bool nudge(QKeyEvent* event)
    {
        const Point way = event->key() == Qt::Key_Left ? Point{-1, 0}
            : event->key() == Qt::Key_Right            ? Point{1, 0}
            : event->key() == Qt::Key_Up               ? Point{0, 1}
            : event->key() == Qt::Key_Down             ? Point{0, -1}
                                                       : Point{};
        const auto thing = inHand();
        if (!thing || (way.x == 0 && way.y == 0))
            return false;
        const double by = event->modifiers() & Qt::ShiftModifier ? 10
            : event->modifiers() & Qt::ControlModifier           ? 0.1
                                                                 : 1;
        Point to = thing->at + way * by;
        if (!thing->way(way.x != 0)) // aslant: its dimension goes by that much
            for (const auto& aslant : thing->ways)
                if (const double along = dot(way, aslant.direction); std::abs(along) > 0.1)
                    to = thing->at + aslant.direction * ((along > 0 ? by : -by) / aslant.gain);
        const Pattern& pattern = doc().pattern();
        doc().edit(
            spoken("Move a part"), [&](Design& d) { change::move(d, pattern, *thing, thing->face, to); },
            mergeKey(thing->part));
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
            if (const auto thing = thingAt(q))
                choose(*thing);
        const auto mine = inHand();
        if (!mine)
            return;
        const std::string part = mine->part.text();
        const QString name = text(within(partLabel(doc().pattern(), mine->part)));
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

    /// Lines that what is in hand is lined up with, and how far it is from the sides of its face.
    void drawGuides(QPainter& p, const View& base, Labels& labels)
    {
        const auto mine = m_moved ? inHand() : std::nullopt;
        if (!mine)
            return;
        const Site& site = mine->face;
        for (const auto& f : faces()) {
            if (f.piece->key != mine->piece)
                continue;
            View v = base;
            v.placement = f.at;
            const Box face{site.x - site.width / 2, site.top - site.height, site.x + site.width / 2, site.top};
            p.setPen(QPen(theme().accent, 1.2, Qt::DashLine));
            for (const auto& guide : m_guides) {
                const QPointF a = v(site.onPiece(
                                  guide.upright ? Point{guide.line, face.y0} : Point{face.x0, guide.line})),
                              b = v(site.onPiece(
                                  guide.upright ? Point{guide.line, face.y1} : Point{face.x1, guide.line}));
                p.drawLine(a, b);
                labels.add({text(guide.what, doc().unit()), guide.upright ? a : b,
                    guide.upright ? QPointF(0, 1) : QPointF(1, 0), 6, 9, true, true, theme().accent});
            }
            if (mine->area.width() == 0)
                continue; // a handle says its dimension
            const Box& at = mine->area;
            const auto far = [&](double mm) { return doc().len(std::round(mm * 10) / 10); };
            labels.add({spoken("{} left · {} right · {} above · {} below", far(at.x0 - face.x0), far(face.x1 - at.x1),
                            far(face.y1 - at.y1), far(at.y0 - face.y0)),
                v(site.onPiece({at.centre().x, at.y0})), {0, 1}, 12, 9, true, true, {}});
        }
    }

    /// From the middle of its face's top: that stays where it is on the bench.
    static Point hung(const Movable& thing) { return thing.at - Point{thing.face.x, thing.face.top}; }

    /// Where what is held goes with the pointer: a part that can, onto the face there. What lies in a gap between two
    /// pieces of its face, and what cannot leave its own, goes as far as the pointer has gone.
    std::optional<std::pair<Site, Point>> goal(const Movable& thing, Point q)
    {
        const Piece* piece = doc().pattern().piece(thing.piece);
        const bool between = piece && !boundsOf(piece->stitch()).contains(thing.face.onPiece(thing.at), -1e-6);
        const std::pair along{thing.face, Point{thing.face.x, thing.face.top} + m_from + (q - m_start)};
        if (!thing.wanders)
            return along;
        for (const auto& f : faces())
            if (const Site* under = f.box.contains(q) ? siteAt(doc().pattern(), f.piece->key, f.on(q)) : nullptr) {
                if (under->name == thing.face.name && between)
                    return along;
                return std::pair{*under, under->upright(f.on(q)) + m_grip};
            }
        if (between)
            return along;
        return {};
    }

    void moveTo(Point q)
    {
        const auto now = thingOf(m_chosen, m_number);
        const auto aim = now ? goal(*now, q) : std::nullopt;
        if (!aim)
            return;
        const Pattern& pattern = doc().pattern();
        const Site site = aim->first;
        Point to = aim->second;
        // In steps that a rule shows.
        const double step = doc().unit() == Unit::Inch ? 25.4 / 16 : 0.5;
        for (const auto& way : now->ways) {
            const double value = valueAt(pattern, *now, way, site, to);
            to = to + way.direction * ((std::round(value / step) * step - value) / way.gain);
        }
        // Shift: as it is drawn, without lining up.
        const bool free = QApplication::keyboardModifiers() & Qt::ShiftModifier;
        const LinedUp lined = linedUp(
            free ? std::vector<Alignment>{} : alignmentsFor(doc().design(), pattern, *now, site, to), to,
            kSnap / view().scale);
        m_moved = true;
        m_guides = lined.with;
        doc().edit(
            spoken("Move a part"), [&](Design& d) { change::move(d, pattern, *now, site, lined.at, lined.with); },
            mergeKey(now->part));
        const auto there = thingOf(m_chosen, m_number);
        if (there && there->piece != now->piece) // on another face, which may have been cut for it
            choose(*there);
        if (there && site.name != now->face.name) // on from here
            m_start = q, m_from = hung(*there);
    }

    Labels* m_labels = nullptr; ///< of the drawing under way
    FaceLayout m_layout;
    HandleDrag m_drag;
    static constexpr double kNear = 3; ///< px beside a thing it can still be taken hold of
    static constexpr double kSnap = 4; ///< px within which a part lines up
    std::optional<Movable> m_held;     ///< as it was when it was taken hold of
    Point m_start, m_from;             ///< where the pointer was then, on the bench, and the thing on its face
    Point m_grip;                      ///< from what of that face lay under the pointer to the thing
    int m_drags = 0;                   ///< each drag is one undo step
    PartId m_chosen;                   ///< the part that was last taken hold of,
    std::size_t m_number = 0;          ///< which of its things,
    PieceId m_chosenWith;              ///< and what came into hand with it
    std::vector<Alignment> m_guides;   ///< that what is moved is lined up with
    bool m_moved = false;
};

} // namespace

QWidget* makeFittingsStage(Document& document) { return new FittingsBench(document); }

} // namespace tectonis
