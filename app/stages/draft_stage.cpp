// SPDX-License-Identifier: GPL-3.0-or-later
// Draft: the pieces laid flat. An edge under the pointer lights up its mate; handles drag dimensions; a seam can be
// walked.
#include "bench.hpp"
#include "editing/edits.hpp"
#include "fonts.hpp"
#include "handles.hpp"
#include "qtext.hpp"
#include "seam_ledger.hpp"
#include "shell/docket_page.hpp"
#include "stages.hpp"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

class DraftBench : public Bench {
public:
    explicit DraftBench(Document& document) : Bench(document, spoken("Draft: pieces on the table")), m_drag(document)
    {
        setObjectName("draftBench");
        if (!document.pattern().seams.empty())
            m_seam = document.pattern().seams.front().key;
        setToolTip(spoken("Point at an edge: its mate lights up. Drag a round handle to change its dimension."));
        connect(&document, &Document::changed, this, [this] { m_laid.clear(); });
        connect(&document, &Document::viewChanged, this, [this] { m_laid.clear(); });
    }

    std::function<void(const QString&)> tell; ///< says what is under the pointer
    double walk = 0;                          ///< share of the seam walked, 0 to 1

    const Seam* seamInHand() { return doc().pattern().seam(m_seam); }

    void takeSeam(const SeamId& key)
    {
        m_seam = key;
        say();
        update();
    }

    /// Picks the seam of an edge, as the pointer would.
    void takeEdge(const PieceId& piece, const EdgeId& edge)
    {
        m_seam = {};
        for (const auto& seam : doc().pattern().seams)
            for (const auto* side : {&seam.a, &seam.b})
                for (const auto& use : *side)
                    if (use.piece == piece && use.edge == edge && m_seam.empty())
                        m_seam = seam.key;
        say();
        update();
    }

    ScreenHandle handle(const std::string& dimension) const override { return handleOf(handles(), dimension); }

protected:
    struct Spot {
        const Piece* piece;
        Placement at;
        Box box; ///< on the table
    };

    /// Lays the pieces in rows: shell, lining, strips; long strips lie down below.
    const std::vector<Spot>& laid() const
    {
        if (!m_laid.empty() || layAsHeld())
            return m_laid;
        // The row width that shows the pieces largest in this window.
        double best = 0, bestScale = 0;
        for (double wide = 900; wide <= 2600; wide += 100) {
            layRows(wide);
            Box all;
            for (const auto& s : m_laid)
                all.add(s.box);
            if (const double scale = std::min((width() - 60) / all.width(), (height() - 60) / all.height());
                scale > bestScale)
                bestScale = scale, best = wide;
        }
        layRows(best);
        return m_laid;
    }

    /// While a handle is dragged every piece lies where it lay, and the one in hand so that its handle is under the
    /// pointer.
    bool layAsHeld() const
    {
        if (m_drag.held().empty())
            return false;
        for (const auto& [key, at] : m_kept)
            if (const Piece* piece = doc().pattern().piece(key)) {
                Spot spot{piece, at, {}};
                const auto& handles = doc().pattern().handles;
                for (const auto& h : handles)
                    if (&h - handles.data() == m_drag.heldNumber() && h.dimension == m_drag.held() && h.piece == key
                        && key == doc().pieceInHand()) {
                        const Point off = view().plane(m_drag.heldAt()) - at(h.at);
                        spot.at.dx += off.x, spot.at.dy += off.y;
                    }
                spot.box = boundsOf(placed(piece->cut, spot.at));
                m_laid.push_back(spot);
            }
        std::stable_partition(m_laid.begin(), m_laid.end(),
            [&](const Spot& s) { return s.piece->key != doc().pieceInHand(); }); // it lies on top
        return !m_laid.empty();
    }

    void layRows(double wide) const
    {
        m_laid.clear();
        constexpr double gap = 34;
        double x = 0, y = 0, rowHeight = 0;
        for (const auto group : {Coat::Shell, Coat::Lining, Coat::Interlining, Coat::Strip}) {
            for (const auto& piece : doc().pattern().pieces) {
                if (piece.coat != group)
                    continue;
                Placement at;
                Box b = boundsOf(piece.cut);
                if (b.height() > 450) {
                    at.angle = -pi / 2;
                    b = Box{b.y0, -b.x1, b.y1, -b.x0};
                }
                if (x > 0 && x + b.width() > wide)
                    x = 0, y -= rowHeight + gap, rowHeight = 0;
                at.dx = x - b.x0;
                at.dy = y - b.y1;
                m_laid.push_back({&piece, at, {x, y - b.height(), x + b.width(), y}});
                x += b.width() + gap;
                rowHeight = std::max(rowHeight, b.height());
            }
        }
    }

    void resizeEvent(QResizeEvent*) override { m_laid.clear(); }

    Box extent() const override
    {
        Box all;
        for (const auto& s : laid())
            all.add(s.box);
        return all;
    }

    std::vector<ScreenHandle> handles() const
    {
        return handlesOnPieces(doc().pattern(), view(), [&](const PieceId& piece) -> const Placement* {
            for (const auto& s : laid())
                if (s.piece->key == piece && piece == doc().pieceInHand())
                    return &s.at;
            return nullptr;
        });
    }

    void draw(QPainter& p, const View& base, Labels& labels) override
    {
        const Theme& t = theme();
        for (const auto& s : laid()) {
            View v = base;
            v.placement = s.at;
            PieceLook look = t.pieceLook(s.piece->coat, s.piece->key == doc().pieceInHand());
            look.textSize = std::clamp(26 * base.scale, 10.0, 22.0);
            look.marks = look.dashed = base.scale > 0.2;
            drawPiece(p, v, *s.piece, look, text(s.piece->name));
            labels.avoid(QRectF(base(s.box.centre()) - QPointF(look.textSize * 3, look.textSize * 1.2),
                QSizeF(look.textSize * 6, look.textSize * 2.6))); // its own words
        }
        if (const Seam* seam = seamInHand()) {
            drawSide(p, base, seam->a, t.accent);
            drawSide(p, base, seam->b, t.second);
            if (walk > 0)
                drawRolled(p, base, *seam);
        }
        std::optional<QPointF> centre;
        for (const auto& s : laid())
            if (s.piece->key == doc().pieceInHand())
                centre = base(s.box.centre());
        m_drag.draw(p, handles(), labels, centre);
    }

    void drawSide(QPainter& p, const View& base, const std::vector<EdgeUse>& side, const QColor& color)
    {
        double at = 0;
        const double walked = walk * doc().pattern().lengthOfSide(side);
        for (const auto& use : side)
            for (const auto& s : laid())
                if (s.piece->key == use.piece) {
                    View v = base;
                    v.placement = s.at;
                    const Run run = doc().pattern().runOf(use);
                    const double n = lengthOf(run);
                    drawEdge(p, v, run, color, 4);
                    if (walk > 0 && walked >= at && walked <= at + n + 1e-9) {
                        p.setBrush(color);
                        p.setPen(QPen(theme().surface, 1.5));
                        p.drawEllipse(v(pointAlong(run, walked - at)), 6, 6);
                    }
                    at += n;
                }
    }

    /// Where a side of a seam is after a share of its length.
    struct Reached {
        const EdgeUse* use = nullptr;
        Point at, along; ///< in the piece's coordinates
    };
    Reached reached(const std::vector<EdgeUse>& side) const
    {
        double left = walk * doc().pattern().lengthOfSide(side);
        for (const auto& use : side) {
            const Run run = doc().pattern().runOf(use);
            const double n = lengthOf(run);
            if (left <= n + 1e-9 || &use == &side.back())
                return {&use, pointAlong(run, left), tangentAlong(run, left)};
            left -= n;
        }
        return {};
    }

    /// The mate rolled along the first run: it touches where both have been walked, edge to edge.
    void drawRolled(QPainter& p, const View& base, const Seam& seam)
    {
        const Reached a = reached(seam.a), b = reached(seam.b);
        const Piece* mate = b.use ? doc().pattern().piece(b.use->piece) : nullptr;
        const auto under = std::find_if(
            laid().begin(), laid().end(), [&](const Spot& s) { return a.use && s.piece->key == a.use->piece; });
        if (!mate || under == laid().end())
            return;
        // Two outlines that run the same way along the seam lie on one side of it: the mate is turned over then.
        Placement roll{0, 0, 0, a.use->reversed == b.use->reversed};
        const Point from = under->at(a.at), way = unit(under->at(a.at + a.along) - from);
        const Point mateWay = unit(roll(b.at + b.along) - roll(b.at));
        roll.angle = std::atan2(way.y, way.x) - std::atan2(mateWay.y, mateWay.x);
        const Point landed = roll(b.at);
        roll.dx = from.x - landed.x, roll.dy = from.y - landed.y;
        View v = base;
        v.placement = roll;
        PieceLook look = theme().pieceLook(mate->coat, false);
        look.card.setAlpha(150);
        look.label = false;
        p.save();
        drawPiece(p, v, *mate, look);
        p.restore();
        p.setBrush(theme().accent);
        p.setPen(QPen(theme().surface, 1.5));
        p.drawEllipse(base(from), 6, 6);
    }

    bool press(Point q, QPointF at) override
    {
        if (m_drag.press(handles(), at)) {
            m_kept.clear();
            for (const auto& s : laid())
                m_kept.emplace_back(s.piece->key, s.at);
            return true;
        }
        for (const auto& s : laid())
            if (s.box.contains(q)) {
                doc().takePiece(s.piece->key);
                break;
            }
        return false;
    }
    void drag(Point, QPointF at) override { m_drag.move(at); }
    void release() override
    {
        m_drag.release();
        m_laid.clear();
        update();
    }

    void hover(Point q, QPointF at) override
    {
        m_drag.hover(handles(), at);
        const double reach = 8 / view().scale;
        PieceId piece;
        EdgeId edge;
        double nearest = reach;
        for (const auto& s : laid()) {
            if (!s.box.contains(q, reach))
                continue;
            for (const auto& e : s.piece->edges)
                if (const double d = distanceTo(flattened(placed(e.stitch, s.at), 0.3), q); d < nearest)
                    nearest = d, piece = s.piece->key, edge = e.name;
        }
        if (!piece.empty() && (piece != m_hoverPiece || edge != m_hoverEdge))
            takeEdge(piece, edge);
        m_hoverPiece = piece, m_hoverEdge = edge;
        update();
    }

    void say()
    {
        const Seam* s = seamInHand();
        if (!tell)
            return;
        if (!s)
            return tell(spoken("Point at an edge: its mate lights up with both lengths. Drag a round handle to change "
                               "its dimension."));
        const auto codes = [&](const std::vector<EdgeUse>& side) {
            QStringList list;
            for (const auto& use : side)
                if (const Piece* piece = doc().pattern().piece(use.piece); piece && !list.contains(text(piece->code)))
                    list << text(piece->code);
            return list.join("+");
        };
        tell(spoken("{}:   {}  {}   ·   {}  {}   ·   difference {}", text(s->name), codes(s->a), doc().len(s->lengthA),
            codes(s->b), doc().len(s->lengthB), doc().len(s->difference())));
    }

private:
    HandleDrag m_drag;
    std::vector<std::pair<PieceId, Placement>> m_kept; ///< where each piece lay when a handle was taken
    mutable std::vector<Spot> m_laid;
    SeamId m_seam;
    PieceId m_hoverPiece;
    EdgeId m_hoverEdge;

    friend class DraftStage;
};

class DraftStage : public QWidget, public DocketSource {
public:
    DocketPage docketPage() const override { return pagePiece(m_document, m_document.pieceInHand()); }

    explicit DraftStage(Document& document) : m_document(document)
    {
        auto* column = new QVBoxLayout(this);
        column->setContentsMargins(0, 0, 0, 0);
        column->setSpacing(4);
        auto* bench = new DraftBench(document);
        auto* bar = new QHBoxLayout;
        bar->setContentsMargins(8, 0, 8, 4);
        auto* said = new QLabel;
        said->setObjectName("seamReadout");
        said->setWordWrap(true);
        bench->tell = [said](const QString& s) { said->setText(s); };
        bench->say();
        auto* walk = new QSlider(Qt::Horizontal);
        walk->setRange(0, 1000);
        walk->setFixedWidth(200);
        walk->setObjectName("walk");
        walk->setAccessibleName(spoken("Walk the seam"));
        auto* walked = new QLabel(spoken("Walk the seam"));
        connect(walk, &QSlider::valueChanged, this, [bench, walk, walked, &document] {
            bench->walk = walk->value() / 1000.0;
            if (const Seam* s = bench->seamInHand())
                walked->setText(walk->value() ? spoken("{} along both", document.len(bench->walk * s->lengthA))
                                              : spoken("Walk the seam"));
            bench->update();
        });
        auto* fit = new QPushButton(spoken("All"));
        fit->setToolTip(spoken("Show everything (F)"));
        auto* real = new QPushButton("1 : 1");
        real->setToolTip(spoken("True size (T)"));
        connect(fit, &QPushButton::clicked, bench, &Bench::fitAll);
        connect(real, &QPushButton::clicked, bench, &Bench::trueSize);
        connect(&document, &Document::changed, this, [bench] { bench->say(); });
        connect(&document, &Document::viewChanged, this, [bench] { bench->say(); });
        connect(&document, &Document::seamTaken, bench, [bench](const SeamId& seam) { bench->takeSeam(seam); });
        auto* ledger = new SeamLedger(document);
        ledger->picked = [bench](const SeamId& seam) { bench->takeSeam(seam); };
        ledger->hide();
        auto* sizes = new QCheckBox(spoken("All sizes"));
        sizes->setObjectName("ledgerSizes");
        sizes->setToolTip(spoken("A row for each size of every seam"));
        sizes->hide();
        connect(sizes, &QCheckBox::toggled, ledger, &SeamLedger::setAllSizes);
        auto* book = new QPushButton(spoken("Ledger"));
        book->setObjectName("ledgerButton");
        book->setCheckable(true);
        book->setToolTip(spoken("Every seam with both runs, their lengths, ease and allowance"));
        connect(book, &QPushButton::toggled, this, [ledger, sizes](bool on) {
            ledger->setVisible(on);
            sizes->setVisible(on);
            ledger->fill();
        });
        bar->addWidget(said, 1);
        bar->addWidget(sizes);
        bar->addWidget(book);
        bar->addWidget(walked);
        bar->addWidget(walk);
        bar->addWidget(fit);
        bar->addWidget(real);
        column->addWidget(bench, 1);
        column->addWidget(ledger);
        column->addLayout(bar);
        setFocusProxy(bench);
    }

private:
    Document& m_document;
};

} // namespace

QWidget* makeDraftStage(Document& document) { return new DraftStage(document); }

} // namespace tectonis
