// SPDX-License-Identifier: GPL-3.0-or-later
#include "rail.hpp"

#include "cutting/cut_list.hpp"
#include "fonts.hpp"
#include "theme.hpp"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollBar>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace tectonis {

class RailCards : public QWidget {
public:
    explicit RailCards(Document& document) : m_document(document)
    {
        setAccessibleName(spoken("Rail: the pattern pieces; left and right arrow keys pick"));
        setFocusPolicy(Qt::StrongFocus);
        setMouseTracking(true);
    }

    bool shown[4] = {true, true, false, true}; ///< by Coat

    /// One card: a piece, or one of its interlinings.
    struct Card {
        PieceId piece;
        std::string code;
        QString name;
        Coat group;
        Run outline;
        const Layer* layer = nullptr;
        int count;
        double x = 0, width = 0;
        bool turned = false;
        int snag = -1;
    };

    void lay()
    {
        m_cards.clear();
        const Pattern& p = m_document.pattern();
        for (const auto group : {Coat::Shell, Coat::Lining, Coat::Interlining, Coat::Strip}) {
            if (!shown[int(group)])
                continue;
            for (const auto& piece : p.pieces) {
                if (piece.coat == group)
                    m_cards.push_back(
                        {piece.key, piece.code, text(piece.name), group, piece.cut, nullptr, piece.count});
                if (group == Coat::Interlining)
                    for (const auto& layer : piece.layers)
                        m_cards.push_back({piece.key, layer.code, text(layer.material.text()), group, layer.outline,
                            &layer, piece.count});
            }
        }
        // One scale for all cards: the tallest standing piece fills the hooks' height; long strips lie down.
        double tallest = 1;
        for (auto& c : m_cards) {
            const Box b = boundsOf(c.outline);
            c.turned = b.height() > 450;
            tallest = std::max(tallest, c.turned ? b.width() : b.height());
        }
        // They shrink a little to stay in view together; beyond that the rail scrolls.
        const double most = 62 / tallest, room = parentWidget() ? parentWidget()->width() : 1000;
        double x = 0;
        for (m_scale = most; m_scale > 0.55 * most; m_scale *= 0.94) {
            x = hang();
            if (x <= room)
                break;
        }
        setFixedWidth(int(std::max(x, room)));
        mark();
    }

    /// Marks the cards of pieces that a check touches.
    void mark()
    {
        std::map<SubjectId, int> worst;
        for (const auto& f : m_document.findings())
            if (f.size == m_document.pattern().size) {
                const auto [at, fresh] = worst.try_emplace(f.key, int(f.severity));
                at->second = std::min(at->second, int(f.severity));
            }
        for (auto& c : m_cards) {
            const auto at = worst.find(c.piece);
            c.snag = at == worst.end() ? -1 : at->second;
        }
        update();
    }

    /// Puts the cards side by side at the scale in force; returns the width used.
    double hang()
    {
        double x = 10;
        Coat last = Coat::Shell;
        for (auto& c : m_cards) {
            const Box b = boundsOf(c.outline);
            if (c.group != last && x > 10)
                x += 14;
            last = c.group;
            c.x = x;
            c.width = std::max(34.0, (c.turned ? b.height() : b.width()) * m_scale);
            x += c.width + 10;
        }
        return x + 6;
    }

    const Card* inHand() const
    {
        for (const auto& c : m_cards)
            if (c.piece == m_document.pieceInHand())
                return &c;
        return nullptr;
    }

protected:
    void resizeEvent(QResizeEvent*) override { lay(); }

    void paintEvent(QPaintEvent*) override
    {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const Theme& t = theme();
        p.setPen(QPen(t.muted, 2));
        p.drawLine(QPointF(0, 8), QPointF(width(), 8));
        for (const auto& c : m_cards) {
            const bool mine = c.piece == m_document.pieceInHand();
            const Box b = boundsOf(c.outline);
            View v;
            v.scale = m_scale;
            v.placement.angle = c.turned ? -pi / 2 : 0;
            const double w = (c.turned ? b.height() : b.width()) * m_scale, left = c.x + (c.width - w) / 2;
            v.origin = c.turned ? QPointF(left - b.y0 * m_scale, 22 - b.x0 * m_scale)
                                : QPointF(left - b.x0 * m_scale, 22 + b.y1 * m_scale);
            // The hook.
            p.setPen(QPen(t.muted, 1.2));
            p.setBrush(Qt::NoBrush);
            p.drawLine(QPointF(c.x + c.width / 2, 8), QPointF(c.x + c.width / 2, 22));
            const PieceLook look = t.pieceLook(c.group, mine);
            if (c.layer)
                drawLayer(p, v, *c.layer, look.layer, 1);
            else {
                p.setPen(QPen(look.edge, look.line));
                p.setBrush(look.card);
                p.drawPath(pathOf(c.outline, v, true));
            }
            p.setFont(pixelFont(12, QFont::DemiBold));
            p.setPen(mine ? t.accent : t.ink);
            const QString count = c.count > 1 ? QString("%1 ×%2").arg(QString::fromStdString(c.code)).arg(c.count)
                                              : QString::fromStdString(c.code);
            p.drawText(QRectF(c.x - 20, 88, c.width + 40, 18), Qt::AlignCenter, count);
            if (c.snag >= 0) {
                p.setPen(Qt::NoPen);
                p.setBrush(t.severity(c.snag));
                p.drawPolygon(QPolygonF{{c.x + c.width - 4, 14}, {c.x + c.width + 3, 26}, {c.x + c.width - 11, 26}});
            }
        }
        if (m_cards.empty()) {
            p.setPen(t.muted);
            p.drawText(rect(), Qt::AlignCenter, spoken("No layer is switched on. Use the chips at the left."));
        }
    }

    void mousePressEvent(QMouseEvent* event) override
    {
        if (const Card* c = at(event->position()))
            m_document.takePiece(c->piece);
    }

    void mouseMoveEvent(QMouseEvent* event) override
    {
        const Card* c = at(event->position());
        setToolTip(c ? spoken("{}  {}, cut {}", QString::fromStdString(c->code), c->name, c->count) : QString());
    }

    void keyPressEvent(QKeyEvent* event) override
    {
        const int way = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
        if (!way || m_cards.empty())
            return QWidget::keyPressEvent(event);
        std::size_t i = 0;
        while (i < m_cards.size() && m_cards[i].piece != m_document.pieceInHand())
            ++i;
        i = i == m_cards.size() ? 0 : (i + m_cards.size() + std::size_t(way)) % m_cards.size();
        m_document.takePiece(m_cards[i].piece);
    }

private:
    const Card* at(QPointF p) const
    {
        for (const auto& c : m_cards)
            if (p.x() >= c.x - 4 && p.x() <= c.x + c.width + 4)
                return &c;
        return nullptr;
    }

    Document& m_document;
    std::vector<Card> m_cards;
    double m_scale = 0.2;
};

Rail::Rail(Document& document, QWidget* parent) : QWidget(parent)
{
    setFixedHeight(126);
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(6, 4, 6, 2);
    row->setSpacing(6);
    auto* chips = new QVBoxLayout;
    chips->setSpacing(3);
    m_cards = new RailCards(document);
    m_scroll = new QScrollArea;
    m_scroll->setWidget(m_cards);
    m_scroll->setWidgetResizable(true);
    m_scroll->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_scroll->setFocusPolicy(Qt::NoFocus);
    m_scroll->viewport()->setAutoFillBackground(false);
    const QString names[] = {spoken("Shell"), spoken("Lining"), spoken("Interlining"), spoken("Strips")};
    for (int i = 0; i < 4; ++i) {
        auto* chip = new QPushButton(names[i]);
        chip->setCheckable(true);
        chip->setChecked(m_cards->shown[i]);
        chip->setFixedHeight(26);
        chip->setMinimumWidth(88);
        chip->setAccessibleName(spoken("Show {} on the rail", names[i]));
        connect(chip, &QPushButton::toggled, this, [this, i](bool on) {
            m_cards->shown[i] = on;
            m_cards->lay();
        });
        chips->addWidget(chip);
    }
    row->addLayout(chips);
    row->addWidget(m_scroll, 1);
    const auto lay = [this] { m_cards->lay(); };
    connect(&document, &Document::changed, this, lay);
    connect(&document, &Document::judged, this, [this] { m_cards->mark(); });
    connect(&document, &Document::viewChanged, this, [this] {
        m_cards->lay();
        if (const auto* card = m_cards->inHand())
            m_scroll->ensureVisible(int(card->x + card->width / 2), 10, int(card->width / 2) + 20, 0);
    });
    m_cards->lay();
}

} // namespace tectonis
