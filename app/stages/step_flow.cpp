// SPDX-License-Identifier: GPL-3.0-or-later
#include "step_flow.hpp"

#include "fonts.hpp"
#include "qtext.hpp"
#include "sequence/order.hpp"
#include "step_figure.hpp"

#include <QPainter>
#include <QPainterPath>
#include <QTextOption>
#include <QToolTip>

#include <algorithm>
#include <numeric>

namespace tectonis {
namespace {

constexpr double kW = 150, kH = 112, kGapX = 44, kGapY = 16, kTitle = 30, kGapRow = 40;

} // namespace

StepFlow::StepFlow(Document& document) : Bench(document, spoken("Flow of the steps"))
{
    setMinimumHeight(150);
    setScaleShown(false);
    connect(&document, &Document::changed, this, [this] { m_scenes.clear(), m_nodes.clear(); });
}

void StepFlow::showWhole(bool on)
{
    m_whole = on;
    m_nodes.clear();
    fitAll();
}

void StepFlow::fold(const std::set<std::string>& phases)
{
    m_folded = phases;
    m_nodes.clear(), m_scenes.clear();
    fitAll();
    update();
}

std::vector<std::string> StepFlow::phasesThere() const
{
    std::vector<std::string> out;
    for (const auto& step : doc().pattern().steps)
        if (std::find(out.begin(), out.end(), step.phase) == out.end())
            out.push_back(step.phase);
    return out;
}

const std::vector<StepFlow::Node>& StepFlow::nodes() const
{
    const Pattern& p = doc().pattern();
    if (!m_nodes.empty() && m_size == p.size)
        return m_nodes;
    m_size = p.size, m_nodes.clear();
    // The steps of a phase lie together in the proposed order, where links go forward: nor do folded phases go round.
    std::vector<std::size_t> nodeOfStep(p.steps.size());
    std::map<std::string, std::size_t> ofPhase;
    std::size_t count = 0;
    for (std::size_t i = 0; i < p.steps.size(); ++i)
        if (const std::string& phase = p.steps[i].phase; !m_folded.contains(phase))
            nodeOfStep[i] = count++;
        else if (const auto [at, fresh] = ofPhase.try_emplace(phase, count); true)
            nodeOfStep[i] = at->second, count += fresh;
    std::vector<int> depth(count, 0);
    const auto links = linksOf(p);
    for (const auto& link : links)
        if (const std::size_t a = nodeOfStep[link.before], b = nodeOfStep[link.after]; a != b)
            depth[b] = std::max(depth[b], depth[a] + 1);
    // Of the columns where it may stand each takes the emptiest, the last of these: cards spread, links stay short.
    std::vector<int> load(count, 0);
    for (std::size_t node = count; node-- > 0;) {
        int until = -1;
        for (const auto& link : links)
            if (const std::size_t b = nodeOfStep[link.after]; nodeOfStep[link.before] == node && b != node)
                until = until < 0 ? depth[b] - 1 : std::min(until, depth[b] - 1);
        int best = depth[node];
        for (int column = best; column <= until; ++column)
            if (load[std::size_t(column)] <= load[std::size_t(best)])
                best = column;
        depth[node] = best, ++load[std::size_t(best)];
    }
    const auto order = orderOf(doc().design(), p);
    const auto numbers = numbersOf(p, order);
    std::vector<int> columns;                  // of m_nodes
    std::vector<std::size_t> at(count, count); // among m_nodes
    for (std::size_t place = 0; place < order.size(); ++place) {
        const std::size_t step = order[place], node = nodeOfStep[step];
        if (at[node] == count) {
            at[node] = m_nodes.size();
            const std::string& phase = p.steps[step].phase;
            columns.push_back(depth[node]);
            m_nodes.push_back({{}, {}, m_folded.contains(phase) ? phase : std::string(), {}, {}});
        }
        Node& n = m_nodes[at[node]];
        n.places.push_back(int(place)), n.steps.push_back(step);
        const QString number = numbers[place] > 0 ? QString::number(numbers[place]) : QString("–");
        n.number = n.places.size() == 1 ? number : n.number.section(QChar(0x2013), 0, 0) + QChar(0x2013) + number;
    }
    wrap(std::move(columns));
    return m_nodes;
}

void StepFlow::wrap(std::vector<int> columns) const
{
    const int last = columns.empty() ? 0 : *std::max_element(columns.begin(), columns.end());
    std::vector<int> lanes(std::size_t(last) + 1, 0);
    for (const int column : columns)
        ++lanes[std::size_t(column)];
    // How many lanes each row of the flow needs if a row holds so many columns.
    const auto rowsOf = [&](int wide) {
        std::vector<int> rows;
        for (int from = 0; from <= last; from += wide)
            rows.push_back(*std::max_element(lanes.begin() + from, lanes.begin() + std::min(last + 1, from + wide)));
        return rows;
    };
    int wide = last + 1;
    if (m_whole) {
        double best = 0;
        for (int each = last + 1; each >= std::max(1, (last + 1) / 4); --each) {
            const auto rows = rowsOf(each);
            const int all = std::accumulate(rows.begin(), rows.end(), 0);
            const double scale = std::min(
                width() / (each * (kW + kGapX)), height() / (all * (kH + kGapY) + double(rows.size() - 1) * kGapRow));
            if (scale > best * 1.05)
                best = scale, wide = each;
        }
    }
    const auto rows = rowsOf(wide);
    std::vector<double> top(rows.size(), 0);
    for (std::size_t r = 1; r < rows.size(); ++r)
        top[r] = top[r - 1] - rows[r - 1] * (kH + kGapY) - kGapRow;
    std::fill(lanes.begin(), lanes.end(), 0);
    for (std::size_t i = 0; i < m_nodes.size(); ++i) {
        const int column = columns[i];
        const double x = column % wide * (kW + kGapX),
                     y = top[std::size_t(column / wide)] - lanes[std::size_t(column)]++ * (kH + kGapY);
        m_nodes[i].box = {x, y - kH, x + kW, y};
    }
}

const StepFlow::Node* StepFlow::nodeOf(std::size_t step) const
{
    for (const auto& n : nodes())
        if (std::find(n.steps.begin(), n.steps.end(), step) != n.steps.end())
            return &n;
    return nullptr;
}

bool StepFlow::isMine(const Node& node) const
{
    return std::any_of(node.steps.begin(), node.steps.end(),
        [&](std::size_t i) { return doc().pattern().steps[i].id == doc().stepInHand(); });
}

QRectF StepFlow::boxOf(const StepId& step) const
{
    const Pattern& p = doc().pattern();
    for (const auto& n : nodes())
        if (!n.folded() && p.steps[n.steps.front()].id == step)
            return QRectF(onScreen({n.box.x0, n.box.y1}), onScreen({n.box.x1, n.box.y0}));
    return {};
}

Box StepFlow::extent() const
{
    const Pattern& p = doc().pattern();
    Box all, near;
    for (const auto& n : nodes())
        all.add(n.box);
    const Step* mine = p.step(doc().stepInHand());
    const Node* own = mine ? nodeOf(std::size_t(mine - p.steps.data())) : nullptr;
    if (m_whole || !own)
        return all;
    // The step in hand, with one to either side, and the nearest of those that it hangs on.
    const Box& box = own->box;
    near.add(Box{box.x0 - 0.75 * kW, box.y0 - 0.35 * kH, box.x1 + 0.75 * kW, box.y1 + 0.35 * kH});
    for (const auto& link : linksOf(p))
        for (const auto& [here, there] : {std::pair{link.before, link.after}, {link.after, link.before}})
            if (nodeOf(here) == own)
                if (const Box& other = nodeOf(there)->box;
                    std::abs(other.centre().x - box.centre().x) < 1.6 * (kW + kGapX)
                    && std::abs(other.centre().y - box.centre().y) < 1.6 * (kH + kGapY))
                    near.add(other);
    return near;
}

void StepFlow::draw(QPainter& p, const View& v, Labels&)
{
    const Pattern& pattern = doc().pattern();
    // What is not in hand lies below.
    for (const bool mine : {false, true})
        for (const auto& link : linksOf(pattern)) {
            const Node *a = nodeOf(link.before), *b = nodeOf(link.after);
            if (a != b && mine == (isMine(*a) || isMine(*b)))
                drawLink(p, v, a->box, b->box, mine);
        }
    for (const auto& n : nodes())
        drawNode(p, v, n);
    if (!m_dragged)
        return;
    p.setPen(QPen(theme().accent, 1.5, Qt::DashLine));
    p.setBrush(Qt::NoBrush);
    p.drawRoundedRect(QRectF(m_at - QPointF(30, 22), QSizeF(60, 44)), 5, 5);
}

void StepFlow::drawLink(QPainter& p, const View& v, const Box& a, const Box& b, bool mine) const
{
    const QPointF from = v({a.x1, (a.y0 + a.y1) / 2}), to = v({b.x0, (b.y0 + b.y1) / 2});
    QPainterPath path(from);
    const double bend = std::abs(to.x() - from.x()) / 2;
    if (to.x() > from.x())
        path.cubicTo(from + QPointF(bend, 0), to - QPointF(bend, 0), to);
    else { // it goes on in a later row: along the gap above that
        const double out = 0.4 * kGapX * v.scale, gap = v({0, b.y1}).y() - 0.6 * kGapRow * v.scale;
        path.quadTo(from + QPointF(out, 0), QPointF(from.x() + out, (from.y() + gap) / 2));
        path.quadTo(QPointF(from.x() + out, gap), QPointF(from.x() - out, gap));
        path.lineTo(to.x() + out, gap);
        path.quadTo(QPointF(to.x() - out, gap), QPointF(to.x() - out, (gap + to.y()) / 2));
        path.quadTo(to - QPointF(out, 0), to);
    }
    p.setPen(QPen(mine ? theme().accent : theme().line, mine ? 2 : 1.2));
    p.setBrush(Qt::NoBrush);
    p.drawPath(path);
    if (!mine)
        return;
    const double size = std::clamp(5 * v.scale, 4.0, 9.0);
    p.setPen(Qt::NoPen);
    p.setBrush(theme().accent);
    p.drawPolygon(QPolygonF{to, to + QPointF(-size * 1.5, size * 0.8), to + QPointF(-size * 1.5, -size * 0.8)});
}

QString StepFlow::titleOf(const Node& n) const
{
    const Pattern& pattern = doc().pattern();
    return n.folded() ? spokenName(n.phase) + "  ·  " + spokenSome("{} step", "{} steps", int(n.steps.size()))
                      : text(pattern.steps[n.steps.front()].title);
}

void StepFlow::drawNode(QPainter& p, const View& v, const Node& n)
{
    const Theme& t = theme();
    const QRectF box(v({n.box.x0, n.box.y1}), v({n.box.x1, n.box.y0}));
    if (!box.intersects(QRectF(rect())))
        return;
    const bool mine = isMine(n), titled = box.width() > 92;
    p.setPen(QPen(mine ? t.accent : t.line, mine ? 2.2 : 1));
    p.setBrush(t.surface);
    if (n.folded() && box.width() > 24) // a pile
        for (const double off : {6.0, 3.0})
            p.drawRoundedRect(box.translated(off, off), 5, 5);
    p.drawRoundedRect(box, 5, 5);
    FigureLook look = t.figureLook();
    look.line = std::clamp(v.scale * 0.8, 0.5, 1.1);
    look.textSize = 0;
    const bool named = !titled && n.folded() && box.width() > 56; // small, with the phase's name above
    const double head = titled ? kTitle * v.scale : named ? 14 : 0;
    const double size = titled ? std::clamp(head * 0.4, 9.0, 13.0) : std::clamp(box.height() * 0.34, 9.0, 16.0);
    p.setFont(pixelFont(named ? 9.5 : size, QFont::DemiBold));
    if (box.height() > 22)
        drawScene(p,
            titled || named ? box.adjusted(6, head + 2, -6, -4)
                            : box.adjusted(8 + p.fontMetrics().horizontalAdvance(n.number), 2, -2, -1),
            sceneOf(n), look);
    p.setFont(pixelFont(named ? 9.5 : size, QFont::DemiBold));
    p.setPen(mine ? t.accent : t.ink);
    if (named)
        p.drawText(box.adjusted(3, 2, -3, 0), Qt::AlignHCenter | Qt::AlignTop,
            p.fontMetrics().elidedText(spokenName(n.phase), Qt::ElideRight, int(box.width()) - 6));
    else
        p.drawText(box.adjusted(6, 3, 0, 0), Qt::AlignLeft | Qt::AlignTop, n.number);
    if (titled) {
        const double x = 10 + p.fontMetrics().horizontalAdvance(n.number);
        p.setFont(pixelFont(size));
        p.setPen(t.ink);
        QTextOption option(Qt::AlignLeft | Qt::AlignTop);
        option.setWrapMode(QTextOption::WordWrap);
        const QRectF room(box.left() + x, box.top() + 3, box.width() - x - 5, head);
        p.save();
        p.setClipRect(room);
        p.drawText(room, titleOf(n), option);
        p.restore();
    }
    if (m_dragged)
        drawForbidden(p, box, n);
}

/// The halves of a card beside which the dragged step must not go are hatched; where it would go stands a bar.
void StepFlow::drawForbidden(QPainter& p, const QRectF& box, const Node& n) const
{
    const Theme& t = theme();
    const int before = n.places.front(), behind = n.places.back() + 1;
    const double half = box.width() / 2;
    for (const auto& [place, left] : {std::pair{before, true}, {behind, false}}) {
        const QRectF side(left ? box.left() : box.left() + half, box.top(), half, box.height());
        const bool no = !m_why[std::size_t(place)].isEmpty();
        if (no) {
            QColor tint = t.error;
            tint.setAlpha(70);
            p.fillRect(side, QBrush(tint, Qt::BDiagPattern));
        }
        if (place == m_to) {
            p.setPen(QPen(no ? t.error : t.accent, 3, no ? Qt::DashLine : Qt::SolidLine));
            const double x = left ? box.left() - 4 : box.right() + 4;
            p.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()));
        }
    }
}

bool StepFlow::press(Point q, QPointF at)
{
    for (const auto& n : nodes())
        if (n.box.contains(q)) {
            m_from = n.folded() ? -1 : n.places.front();
            m_to = -1, m_pressed = at;
            if (!isMine(n))
                doc().takeStep(doc().pattern().steps[n.steps.front()].id);
            return true;
        }
    return false;
}

void StepFlow::drag(Point q, QPointF at)
{
    m_at = at;
    if (m_from < 0 || !forbidden || (!m_dragged && (at - m_pressed).manhattanLength() < 8))
        return;
    if (!m_dragged)
        m_dragged = true, m_why = forbidden(m_from);
    m_to = -1;
    for (const auto& n : nodes())
        if (n.box.contains(q) && n.places.front() != m_from)
            m_to = q.x < n.box.centre().x ? n.places.front() : n.places.back() + 1;
    const QString why = m_to >= 0 ? m_why[std::size_t(m_to)] : QString();
    if (why.isEmpty())
        QToolTip::hideText();
    else
        QToolTip::showText(mapToGlobal(at.toPoint()) + QPoint(14, 10), why, this);
    update();
}

void StepFlow::release()
{
    const int from = m_from, to = m_dragged ? m_to : -1;
    m_from = m_to = -1, m_dragged = false;
    QToolTip::hideText();
    update();
    if (to >= 0 && moved)
        moved(from, to);
}

void StepFlow::hover(Point q, QPointF)
{
    QString words;
    for (const auto& n : nodes())
        if (n.box.contains(q))
            words = n.number + "  " + titleOf(n);
    setToolTip(words);
}

const Scene& StepFlow::sceneOf(const Node& n)
{
    const Pattern& pattern = doc().pattern();
    const Step& step = pattern.steps[n.folded() ? n.steps.back() : n.steps.front()];
    if (const auto found = m_scenes.find(step.id); found != m_scenes.end())
        return found->second;
    Scene scene;
    if (n.folded())
        scene = soFar(pattern, doc().mockup(), joinedBy(pattern, orderOf(doc().design(), pattern), step.id));
    if (scene.empty())
        scene = planOf(pattern, step);
    return m_scenes.emplace(step.id, std::move(scene)).first->second;
}

} // namespace tectonis
