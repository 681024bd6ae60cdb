// SPDX-License-Identifier: GPL-3.0-or-later
// Sequence: the order of work as a list to drag, the graph of parts, the step's card, and the dry run.
#include "bench.hpp"
#include "fonts.hpp"
#include "pattern/labels.hpp"
#include "picture.hpp"
#include "qtext.hpp"
#include "sequence/minutes.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/told.hpp"
#include "stage.hpp"
#include "stages.hpp"
#include "step_figure.hpp"

#include <QDropEvent>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QPainter>
#include <QPushButton>
#include <QTextBrowser>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>
#include <set>

namespace tectonis {
namespace {

/// Steps from left to right by what they wait for; links carry the parts.
class GraphBench : public Bench {
public:
    explicit GraphBench(Document& document) : Bench(document, spoken("Graph of the steps"))
    {
        setMinimumHeight(150);
        setScaleShown(false);
    }

protected:
    static constexpr double kW = 72, kH = 60, kGapX = 20, kGapY = 10;

    struct Node {
        std::size_t step;
        Box box;
    };

    std::vector<Node> nodes() const
    {
        const Pattern& p = doc().pattern();
        std::vector<int> depth(p.steps.size(), 0);
        for (const auto& link : linksOf(p)) // links go forward in the proposed order
            depth[link.after] = std::max(depth[link.after], depth[link.before] + 1);
        std::map<int, int> lanes;
        std::vector<Node> out;
        for (const auto i : orderOf(doc().design(), p)) {
            const double x = depth[i] * (kW + kGapX), y = -lanes[depth[i]]++ * (kH + kGapY);
            out.push_back({i, {x, y - kH, x + kW, y}});
        }
        return out;
    }

    Box extent() const override
    {
        Box all;
        for (const auto& n : nodes())
            all.add(n.box);
        return all;
    }

    void draw(QPainter& p, const View& v, Labels&) override
    {
        const Theme& t = theme();
        const Pattern& pattern = doc().pattern();
        const auto list = nodes();
        const auto boxOf = [&](std::size_t step) {
            return std::find_if(list.begin(), list.end(), [&](const Node& n) { return n.step == step; })->box;
        };
        for (const auto& link : linksOf(pattern)) {
            const Box a = boxOf(link.before), b = boxOf(link.after);
            const QPointF from = v({a.x1, (a.y0 + a.y1) / 2}), to = v({b.x0, (b.y0 + b.y1) / 2});
            const bool mine = pattern.steps[link.after].id == doc().stepInHand()
                || pattern.steps[link.before].id == doc().stepInHand();
            QPainterPath path(from);
            const double bend = std::abs(to.x() - from.x()) / 2;
            path.cubicTo(from + QPointF(bend, 0), to - QPointF(bend, 0), to);
            p.setPen(QPen(mine ? t.accent : t.line, mine ? 2 : 1.2));
            p.setBrush(Qt::NoBrush);
            p.drawPath(path);
        }
        int number = 0;
        for (const auto& n : list) {
            ++number;
            const Step& s = pattern.steps[n.step];
            const QRectF box(v({n.box.x0, n.box.y1}), v({n.box.x1, n.box.y0}));
            const bool mine = s.id == doc().stepInHand();
            p.setPen(QPen(mine ? t.accent : t.line, mine ? 2.2 : 1));
            p.setBrush(t.surface);
            p.drawRoundedRect(box, 5, 5);
            FigureLook look = t.figureLook();
            look.line = std::max(0.5, v.scale * 0.5);
            if (box.height() > 22)
                drawStepFigure(p, box.adjusted(box.width() * 0.25, 2, -2, -1), pattern, s, look);
            p.setPen(mine ? t.accent : t.ink);
            p.setFont(pixelFont(std::clamp(box.height() * 0.34, 9.0, 16.0), QFont::DemiBold));
            p.drawText(box.adjusted(4, 2, 0, 0), Qt::AlignLeft | Qt::AlignTop, QString::number(number));
        }
    }

    bool press(Point q, QPointF) override
    {
        for (const auto& n : nodes())
            if (n.box.contains(q)) {
                doc().takeStep(doc().pattern().steps[n.step].id);
                return true;
            }
        return false;
    }
};

class Figure : public Picture {
public:
    explicit Figure(Document& document) : Picture(document, spoken("Figure of the step")) {}

protected:
    void paintEvent(QPaintEvent*) override
    {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        p.setPen(QPen(theme().line, 1));
        p.setBrush(theme().surface);
        p.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 5, 5);
        if (const Step* s = m_document.pattern().step(m_document.stepInHand()))
            drawStepFigure(p, QRectF(rect()).adjusted(10, 10, -10, -6), m_document.pattern(), *s, theme().figureLook());
    }
};

/// A list whose rows can be dragged by hand: any row, also one that was not picked before, to any place, also between
/// two rows.
class OrderList : public QListWidget {
public:
    std::function<void(int from, int to)> moved; ///< @c to: the place among the rows before it is taken out

protected:
    void startDrag(Qt::DropActions) override
    {
        m_dragged = currentRow();
        QListWidget::startDrag(Qt::MoveAction);
        m_dragged = -1;
    }

    void dragMoveEvent(QDragMoveEvent* event) override
    {
        QListWidget::dragMoveEvent(event);
        if (event->source() == this)
            event->accept(); // also in the gaps between rows
        m_target = placeAt(event->position().toPoint());
        viewport()->update();
    }

    void dragLeaveEvent(QDragLeaveEvent* event) override
    {
        m_target = -1;
        QListWidget::dragLeaveEvent(event);
        viewport()->update();
    }

    void dropEvent(QDropEvent* event) override
    {
        const int from = m_dragged >= 0 ? m_dragged : currentRow(), to = placeAt(event->position().toPoint());
        m_target = -1;
        event->setDropAction(Qt::IgnoreAction); // the rows follow from the design's order
        event->accept();
        viewport()->update();
        if (from >= 0 && moved)
            moved(from, to);
    }

    void paintEvent(QPaintEvent* event) override
    {
        QListWidget::paintEvent(event);
        if (m_target < 0)
            return;
        QPainter p(viewport());
        p.setPen(QPen(theme().accent, 2));
        const int y = m_target < count() ? visualItemRect(item(m_target)).top()
                                         : visualItemRect(item(count() - 1)).bottom();
        p.drawLine(2, y, viewport()->width() - 2, y);
    }

private:
    /// The row before which a drop at @p at puts the dragged one.
    int placeAt(const QPoint& at) const
    {
        for (int i = 0; i < count(); ++i)
            if (at.y() < visualItemRect(item(i)).center().y())
                return i;
        return count();
    }

    int m_dragged = -1, m_target = -1;
};

class SequenceStage : public Stage {
public:
    explicit SequenceStage(Document& document) : Stage(document)
    {
        auto* row = new QHBoxLayout(this);
        row->setContentsMargins(6, 0, 0, 4);
        row->setSpacing(6);
        auto* left = new QVBoxLayout;
        left->setSpacing(4);
        m_list = new OrderList;
        m_list->setObjectName("steps");
        m_list->setAccessibleName(spoken("Steps in order; drag one, or use Earlier and Later"));
        m_list->setFixedWidth(272);
        m_list->setDragDropMode(QAbstractItemView::InternalMove);
        m_list->setWordWrap(true);
        m_list->setSpacing(1);
        m_list->setDropIndicatorShown(false); // it draws its own, which is never away
        m_list->moved = [this](int from, int to) {
            QMetaObject::invokeMethod(
                this, [this, from, to] { reorder(from, to); }, Qt::QueuedConnection);
        };
        left->addWidget(m_list, 1);
        auto* moves = new QHBoxLayout;
        auto *up = new QPushButton(spoken("Earlier")), *down = new QPushButton(spoken("Later")),
             *proposed = new QPushButton(spoken("As proposed"));
        for (auto* b : {up, down, proposed})
            moves->addWidget(b);
        left->addLayout(moves);
        row->addLayout(left);
        auto* right = new QVBoxLayout;
        right->setSpacing(4);
        auto* graph = new GraphBench(document);
        graph->setObjectName("graph");
        setFocusProxy(graph);
        right->addWidget(graph, 6);
        auto* dry = new QHBoxLayout;
        m_play = new QPushButton(spoken("Dry run"));
        m_play->setCheckable(true);
        m_play->setObjectName("dryRun");
        auto *back = new QPushButton(spoken("◂ Step")), *on = new QPushButton(spoken("Step ▸"));
        m_state = new QLabel;
        m_state->setObjectName("dryState");
        m_state->setWordWrap(true);
        dry->addWidget(m_play);
        dry->addWidget(back);
        dry->addWidget(on);
        dry->addStretch(1);
        right->addLayout(dry);
        right->addWidget(m_state);
        auto* card = new QHBoxLayout;
        m_figure = new Figure(document);
        m_card = new QTextBrowser;
        m_card->setObjectName("stepCard");
        m_card->setAccessibleName(spoken("Step card"));
        card->addWidget(m_figure, 4);
        card->addWidget(m_card, 6);
        right->addLayout(card, 5);
        row->addLayout(right, 1);

        connect(m_list, &QListWidget::currentRowChanged, this, [this](int r) {
            if (!m_filling && r >= 0)
                m_document.takeStep(m_list->item(r)->data(Qt::UserRole).toString().toStdString());
        });
        connect(up, &QPushButton::clicked, this, [this] { move(-1); });
        connect(down, &QPushButton::clicked, this, [this] { move(1); });
        connect(proposed, &QPushButton::clicked, this,
            [this] { m_document.edit(spoken("Order as proposed"), [](Design& d) { d.stepOrder.clear(); }); });
        connect(back, &QPushButton::clicked, this, [this] { go(-1); });
        connect(on, &QPushButton::clicked, this, [this] { go(1); });
        m_timer.setInterval(1400);
        connect(&m_timer, &QTimer::timeout, this, [this] {
            if (m_list->currentRow() + 1 >= m_list->count())
                m_play->setChecked(false);
            else
                go(1);
        });
        connect(m_play, &QPushButton::toggled, this, [this](bool on) {
            if (on && m_list->currentRow() + 1 >= m_list->count())
                m_list->setCurrentRow(0);
            on ? m_timer.start() : m_timer.stop();
        });
    }

    /// The step in hand: what it takes and leaves, what it sews, and the steps that it hangs on.
    DocketPage docketPage() const override
    {
        const Pattern& p = m_document.pattern();
        const Step* s = p.step(m_document.stepInHand());
        if (!s)
            return {spoken("Nothing in hand"), {}, {}};
        const auto order = orderOf(m_document.design(), p);
        const auto indexOf = [&](const Step& step) { return std::size_t(&step - p.steps.data()); };
        const auto placeOf = [&](std::size_t step) {
            return int(std::find(order.begin(), order.end(), step) - order.begin());
        };
        const auto partName = [&](const WorkId& part) { return text(workLabel(p, part)); };
        const int place = placeOf(indexOf(*s));
        DocketPage out{spoken("Step {}: {}", place + 1, text(s->title)), {}, {}};
        DocketGroup step{spoken("Step"), {{spoken("Sub-assembly"), spokenName(s->phase), {}}}};
        const StepWords said = told(p, *s);
        if (said.allowance > 0)
            step.rows.push_back({spoken("Sewn at"), m_document.len(said.allowance), {}});
        for (const auto& [label, words] : {std::pair{spoken("Stitch"), said.stitch}, {spoken("Tools"), said.tool}})
            if (!words.empty())
                step.rows.push_back({label + ": " + text(words, m_document.unit()), "", {}});
        const Working minutes = minutesOf(p, *s);
        QStringList inputs;
        for (const auto& in : minutes.inputs)
            inputs << text(in.name) + " " + number(in.value);
        step.rows.push_back({spoken("Minutes"), fixed(minutes.result, 1),
            {"= " + text(minutes.formula), inputs.join(",  "), text(nameOf(minutes.kind))}});
        out.groups.push_back(step);
        DocketGroup takes{spoken("Takes"), {}}, leaves{spoken("Leaves"), {}}, sews{spoken("Sews"), {}},
            after{spoken("Comes after"), {}}, before{spoken("Comes before"), {}}, broken{spoken("Forbidden here"), {}};
        if (!s->yields.empty())
            leaves.rows.push_back({partName(s->yields), "", {}});
        for (const auto& part : s->consumes)
            takes.rows.push_back({partName(part), "", {}});
        for (const auto& key : s->seams)
            if (const Seam* seam = p.seam(key))
                sews.rows.push_back({text(seam->name), m_document.len(seam->lengthA),
                    {spoken("{} against {}", m_document.exact(seam->lengthA), m_document.exact(seam->lengthB))}});
        std::set<std::pair<std::size_t, std::size_t>> told; // two parts may link the same two steps
        for (const auto& link : linksOf(p)) {
            if (!told.insert({link.before, link.after}).second)
                continue;
            if (link.after == indexOf(*s))
                after.rows.push_back(
                    {QString("%1  %2").arg(placeOf(link.before) + 1).arg(text(p.steps[link.before].title)), "", {}});
            if (link.before == indexOf(*s))
                before.rows.push_back(
                    {QString("%1  %2").arg(placeOf(link.after) + 1).arg(text(p.steps[link.after].title)), "", {}});
        }
        if (const auto states = dryRun(p, order); place < int(states.size()))
            for (const auto& problem : states[std::size_t(place)].problems)
                broken.rows.push_back({text(problem, m_document.unit()), "", {}, true});
        out.groups.insert(out.groups.end(), {broken, takes, leaves, sews, after, before});
        return out;
    }

private:
    void go(int by) { m_list->setCurrentRow(std::clamp(m_list->currentRow() + by, 0, m_list->count() - 1)); }

    void fill() override
    {
        m_filling = true;
        const Pattern& p = m_document.pattern();
        const auto order = orderOf(m_document.design(), p);
        const auto states = dryRun(p, order);
        // The rows stay while their number does: a press on one of them must not take it away from under the hand.
        while (m_list->count() > int(order.size()))
            delete m_list->takeItem(m_list->count() - 1);
        while (m_list->count() < int(order.size()))
            m_list->addItem(new QListWidgetItem);
        int current = 0;
        double minutes = 0;
        for (std::size_t i = 0; i < order.size(); ++i) {
            const Step& s = p.steps[order[i]];
            auto* item = m_list->item(int(i));
            item->setText(QString("%1  %2").arg(i + 1).arg(text(s.title)));
            item->setData(Qt::UserRole, text(s.id));
            item->setForeground(states[i].problems.empty() ? theme().ink : theme().error);
            item->setToolTip(
                states[i].problems.empty() ? spokenName(s.phase) : text(states[i].problems.front(), m_document.unit()));
            if (s.id == m_document.stepInHand())
                current = int(i);
            minutes += minutesOf(p, s).result;
        }
        m_list->setCurrentRow(current);
        if (!order.empty())
            showCard(p.steps[order[std::size_t(current)]], states[std::size_t(current)], minutes);
        m_filling = false;
    }

    void showCard(const Step& s, const DryState& state, double minutes)
    {
        const Theme& t = theme();
        const StepWords said = told(m_document.pattern(), s);
        const Working own = minutesOf(m_document.pattern(), s);
        QString html = QString("<p style='margin:0;color:%1'>%2</p><h3 style='margin:2px 0 4px 0'>%3</h3><p "
                               "style='margin:0 0 6px 0'>%4</p>")
                           .arg(t.muted.name(), spokenName(s.phase).toHtmlEscaped(), text(s.title).toHtmlEscaped(),
                               text(said.text, m_document.unit()).toHtmlEscaped());
        QStringList facts;
        for (const auto& fact : factsOf(said))
            facts << text(fact, m_document.unit());
        facts << spoken("{} min of {} min in all", fixed(own.result, 1), fixed(minutes, 0));
        html += QString("<p style='margin:0 0 6px 0;color:%1'>%2</p>")
                    .arg(t.muted.name(), facts.join("  ·  ").toHtmlEscaped());
        QStringList inputs;
        for (const auto& in : own.inputs)
            inputs << text(in.name) + " " + number(in.value);
        m_card->setToolTip(
            spoken("Minutes = {}", own.formula) + "\n" + inputs.join(",  ") + "\n" + text(nameOf(own.kind)));
        const auto headed = [&](const QString& heading, const Message& words, const QColor& color) {
            html += QString("<p style='margin:0 0 6px 0;color:%1'><b>%2</b> %3</p>")
                        .arg(color.name(), heading.toHtmlEscaped(), text(words, m_document.unit()).toHtmlEscaped());
        };
        if (!said.check.empty())
            headed(spoken("Check:"), said.check, t.ink);
        for (const auto& caution : said.cautions)
            headed(spoken("Caution:"), caution, t.warning);
        for (const auto& problem : state.problems)
            headed(spoken("Forbidden order:"), problem, t.error);
        m_card->setHtml(html);
        QStringList parts;
        for (const auto& part : state.parts) {
            const Piece* piece = m_document.pattern().piece(part.as<PieceKind>());
            parts << (piece ? text(piece->code) : text(workLabel(m_document.pattern(), part)));
        }
        QStringList zips;
        for (const auto& [key, now] : state.zips)
            for (const auto& zip : m_document.pattern().zips)
                if (zip.key == key)
                    zips << text(zip.name) + ": " + (now.empty() ? spoken("not in yet") : text(now));
        m_state->setText(spoken("On the table: {}.   Opening: {}.   Interlinings on: {}", parts.join(", "),
                             state.opening.empty() ? spoken("none yet") : text(state.opening), state.layers.size())
            + (zips.isEmpty() ? QString() : "   " + zips.join(",  ")));
    }

    void move(int by)
    {
        const int from = m_list->currentRow(), to = from + by;
        if (from < 0 || to < 0 || to >= m_list->count())
            return;
        std::vector<std::string> ids = idsInList();
        std::swap(ids[std::size_t(from)], ids[std::size_t(to)]);
        take(ids);
    }

    /// Row @p from comes to stand before row @p to.
    void reorder(int from, int to)
    {
        std::vector<std::string> ids = idsInList();
        if (from < 0 || from >= int(ids.size()) || to == from || to == from + 1)
            return;
        const std::string id = ids[std::size_t(from)];
        ids.erase(ids.begin() + from);
        ids.insert(ids.begin() + (to > from ? to - 1 : to), id);
        m_document.takeStep(id);
        take(ids);
    }

    std::vector<std::string> idsInList() const
    {
        std::vector<std::string> ids;
        for (int i = 0; i < m_list->count(); ++i)
            ids.push_back(m_list->item(i)->data(Qt::UserRole).toString().toStdString());
        return ids;
    }

    void take(const std::vector<std::string>& ids)
    {
        m_document.edit(spoken("Order of steps"), [&](Design& d) { d.stepOrder = ids; });
        fill();
    }

    OrderList* m_list;
    Figure* m_figure;
    QTextBrowser* m_card;
    QLabel* m_state;
    QPushButton* m_play;
    QTimer m_timer;
    bool m_filling = false;
};

} // namespace

QWidget* makeSequenceStage(Document& document) { return new SequenceStage(document); }

} // namespace tectonis
