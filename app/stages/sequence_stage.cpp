// SPDX-License-Identifier: GPL-3.0-or-later
// Sequence: the order of work as a list to drag, the graph of parts, the step's card, and the dry run.
#include "bench.hpp"
#include "editing/edits.hpp"
#include "fonts.hpp"
#include "pattern/labels.hpp"
#include "picture.hpp"
#include "practice_dialog.hpp"
#include "qtext.hpp"
#include "sequence/minutes.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"
#include "sequence/told.hpp"
#include "stage.hpp"
#include "stages.hpp"
#include "step_figure.hpp"

#include <QComboBox>
#include <QDialog>
#include <QDialogButtonBox>
#include <QDropEvent>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QPainter>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QStackedWidget>
#include <QTextBrowser>
#include <QTimer>
#include <QToolButton>
#include <QToolTip>
#include <QVBoxLayout>

#include <algorithm>
#include <set>

namespace tectonis {
namespace {

/// Steps from left to right by what they wait for; links carry the parts. As long as it is not zoomed by hand it shows
/// the step in hand with those that it hangs on, or all.
class GraphBench : public Bench {
public:
    explicit GraphBench(Document& document) : Bench(document, spoken("Graph of the steps"))
    {
        setMinimumHeight(150);
        setScaleShown(false);
        connect(&document, &Document::changed, this, [this] { m_plans.clear(); });
    }

    void showWhole(bool on)
    {
        m_whole = on;
        fitAll();
    }

protected:
    static constexpr double kW = 150, kH = 112, kGapX = 44, kGapY = 16, kTitle = 30;

    struct Node {
        std::size_t step;
        int number;
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
            out.push_back({i, int(out.size()) + 1, {x, y - kH, x + kW, y}});
        }
        return out;
    }

    Box extent() const override
    {
        const Pattern& p = doc().pattern();
        const auto list = nodes();
        Box all, near;
        const auto boxOf = [&](std::size_t step) {
            return std::find_if(list.begin(), list.end(), [&](const Node& n) { return n.step == step; })->box;
        };
        for (const auto& n : list)
            all.add(n.box);
        const Step* mine = p.step(doc().stepInHand());
        if (m_whole || !mine)
            return all;
        // The step in hand, with one to either side, and the nearest of those that it hangs on.
        const Box own = boxOf(std::size_t(mine - p.steps.data()));
        near.add(Box{own.x0 - 0.75 * kW, own.y0 - 0.35 * kH, own.x1 + 0.75 * kW, own.y1 + 0.35 * kH});
        for (const auto& link : linksOf(p))
            for (const auto& [here, there] : {std::pair{link.before, link.after}, {link.after, link.before}})
                if (&p.steps[here] == mine)
                    if (const Box box = boxOf(there); std::abs(box.centre().x - own.centre().x) < 1.6 * (kW + kGapX)
                        && std::abs(box.centre().y - own.centre().y) < 1.6 * (kH + kGapY))
                        near.add(box);
        return near;
    }

    void draw(QPainter& p, const View& v, Labels&) override
    {
        const Pattern& pattern = doc().pattern();
        const auto list = nodes();
        const auto boxOf = [&](std::size_t step) {
            return std::find_if(list.begin(), list.end(), [&](const Node& n) { return n.step == step; })->box;
        };
        // What is not in hand lies below.
        for (const bool mine : {false, true})
            for (const auto& link : linksOf(pattern))
                if (mine == isMine(pattern, link))
                    drawLink(p, v, boxOf(link.before), boxOf(link.after), mine);
        for (const auto& n : list)
            drawNode(p, v, n);
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

    void hover(Point q, QPointF) override
    {
        QString words;
        for (const auto& n : nodes())
            if (n.box.contains(q))
                words = QString("%1  %2").arg(n.number).arg(text(doc().pattern().steps[n.step].title));
        setToolTip(words);
    }

private:
    bool isMine(const Pattern& pattern, const Link& link) const
    {
        return pattern.steps[link.after].id == doc().stepInHand()
            || pattern.steps[link.before].id == doc().stepInHand();
    }

    void drawLink(QPainter& p, const View& v, const Box& a, const Box& b, bool mine) const
    {
        const QPointF from = v({a.x1, (a.y0 + a.y1) / 2}), to = v({b.x0, (b.y0 + b.y1) / 2});
        QPainterPath path(from);
        const double bend = std::abs(to.x() - from.x()) / 2;
        path.cubicTo(from + QPointF(bend, 0), to - QPointF(bend, 0), to);
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

    void drawNode(QPainter& p, const View& v, const Node& n)
    {
        const Theme& t = theme();
        const Step& s = doc().pattern().steps[n.step];
        const QRectF box(v({n.box.x0, n.box.y1}), v({n.box.x1, n.box.y0}));
        if (!box.intersects(QRectF(rect())))
            return;
        const bool mine = s.id == doc().stepInHand(), titled = box.width() > 92;
        p.setPen(QPen(mine ? t.accent : t.line, mine ? 2.2 : 1));
        p.setBrush(t.surface);
        p.drawRoundedRect(box, 5, 5);
        FigureLook look = t.figureLook();
        look.line = std::clamp(v.scale * 0.8, 0.5, 1.1);
        look.textSize = 0;
        const double head = titled ? kTitle * v.scale : 0;
        if (box.height() > 22)
            drawScene(p, titled ? box.adjusted(6, head + 2, -6, -5) : box.adjusted(box.width() * 0.25, 2, -2, -1),
                planOf(s), look);
        p.setPen(mine ? t.accent : t.ink);
        const double size = titled ? std::clamp(head * 0.4, 9.0, 13.0) : std::clamp(box.height() * 0.34, 9.0, 16.0);
        p.setFont(pixelFont(size, QFont::DemiBold));
        const QString number = QString::number(n.number);
        p.drawText(box.adjusted(6, 3, 0, 0), Qt::AlignLeft | Qt::AlignTop, number);
        if (!titled)
            return;
        const double x = 10 + p.fontMetrics().horizontalAdvance(number);
        p.setFont(pixelFont(size));
        p.setPen(t.ink);
        QTextOption option(Qt::AlignLeft | Qt::AlignTop);
        option.setWrapMode(QTextOption::WordWrap);
        const QRectF room(box.left() + x, box.top() + 3, box.width() - x - 5, head);
        p.save();
        p.setClipRect(room);
        p.drawText(room, text(s.title), option);
        p.restore();
    }

    const Scene& planOf(const Step& step)
    {
        if (m_size != doc().pattern().size)
            m_plans.clear(), m_size = doc().pattern().size;
        const auto found = m_plans.find(step.id);
        return found != m_plans.end() ? found->second
                                      : m_plans.emplace(step.id, tectonis::planOf(doc().pattern(), step)).first->second;
    }

    bool m_whole = false;
    std::string m_size;
    std::map<StepId, Scene> m_plans;
};

/// What lies on the table when the step in hand is done: every part as it is by then.
class TableView : public Picture {
public:
    explicit TableView(Document& document) : Picture(document, spoken("The table after this step")) {}

protected:
    void paintEvent(QPaintEvent*) override
    {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const Theme& t = theme();
        p.fillRect(rect(), t.bench);
        const Pattern& pattern = m_document.pattern();
        const Step* mine = pattern.step(m_document.stepInHand());
        if (!mine)
            return;
        const auto order = orderOf(m_document.design(), pattern);
        const auto place = std::size_t(
            std::find(order.begin(), order.end(), std::size_t(mine - pattern.steps.data())) - order.begin());
        const auto table = tableAfter(pattern, order, place + 1);
        // The most assembled first.
        std::vector<const std::pair<const WorkId, std::set<PieceId>>*> parts;
        for (const auto& part : table)
            parts.push_back(&part);
        std::stable_sort(parts.begin(), parts.end(), [&](const auto* a, const auto* b) {
            const bool made = a->first == mine->yields, other = b->first == mine->yields;
            return made != other ? made : a->second.size() > b->second.size();
        });
        // As many beside each other as make the largest cards.
        int columns = 1;
        double best = 0;
        for (int c = 1; c <= int(parts.size()); ++c) {
            const int rows = (int(parts.size()) + c - 1) / c;
            const double w = (width() - 8.0) / c, h = (height() - 8.0) / rows, size = std::min(w, h * 1.3);
            if (size > best)
                best = size, columns = c;
        }
        const int rows = (int(parts.size()) + columns - 1) / columns;
        const double w = (width() - 8.0) / columns, h = (height() - 8.0) / std::max(1, rows);
        for (std::size_t i = 0; i < parts.size(); ++i) {
            const QRectF card = QRectF(
                4 + double(i % std::size_t(columns)) * w, 4 + double(i / std::size_t(columns)) * h, w, h)
                                    .adjusted(3, 3, -3, -3);
            const bool made = parts[i]->first == mine->yields;
            p.setPen(QPen(made ? t.accent : t.line, made ? 2 : 1));
            p.setBrush(t.surface);
            p.drawRoundedRect(card, 5, 5);
            FigureLook look = t.figureLook();
            look.line = 0.9, look.textSize = 0;
            drawScene(p, card.adjusted(4, 3, -4, -18), pictureOf(pattern, m_document.mockup(), parts[i]->second), look);
            p.setFont(pixelFont(11, made ? QFont::DemiBold : QFont::Normal));
            p.setPen(made ? t.accent : t.ink);
            const Piece* piece = pattern.piece(parts[i]->first.as<PieceKind>());
            const QString name = piece ? text(piece->code) + "  " + text(piece->name)
                                       : text(workLabel(pattern, parts[i]->first));
            p.drawText(card.adjusted(5, 0, -5, -3), Qt::AlignHCenter | Qt::AlignBottom,
                p.fontMetrics().elidedText(name, Qt::ElideRight, int(card.width()) - 8));
        }
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
            drawStepFigure(p, QRectF(rect()).adjusted(8, 8, -8, -8),
                figureOf(
                    m_document.pattern(), *s, &m_document.mockup(), orderOf(m_document.design(), m_document.pattern())),
                theme().figureLook());
    }
};

/// A list whose rows can be dragged by hand: any row, also one that was not picked before, to any place, also between
/// two rows.
class OrderList : public QListWidget {
public:
    std::function<void(int from, int to)> moved; ///< @c to: the place among the rows before it is taken out
    /// Why it must not go there; empty where it may.
    std::function<QString(int from, int to)> forbidden;

protected:
    void startDrag(Qt::DropActions) override
    {
        m_dragged = currentRow();
        m_target = -1;
        QListWidget::startDrag(Qt::MoveAction);
        m_dragged = -1;
    }

    void dragMoveEvent(QDragMoveEvent* event) override
    {
        QListWidget::dragMoveEvent(event);
        if (event->source() == this)
            event->accept(); // also in the gaps between rows
        const int target = placeAt(event->position().toPoint());
        if (target != m_target) {
            m_target = target;
            const int from = m_dragged >= 0 ? m_dragged : currentRow();
            m_why = forbidden ? forbidden(from, target) : QString();
        }
        if (m_why.isEmpty())
            QToolTip::hideText();
        else
            QToolTip::showText(viewport()->mapToGlobal(event->position().toPoint()) + QPoint(14, 10), m_why, this);
        viewport()->update();
    }

    void dragLeaveEvent(QDragLeaveEvent* event) override
    {
        m_target = -1;
        QToolTip::hideText();
        QListWidget::dragLeaveEvent(event);
        viewport()->update();
    }

    void dropEvent(QDropEvent* event) override
    {
        const int from = m_dragged >= 0 ? m_dragged : currentRow(), to = placeAt(event->position().toPoint());
        m_target = -1;
        QToolTip::hideText();
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
        p.setPen(QPen(m_why.isEmpty() ? theme().accent : theme().error, m_why.isEmpty() ? 2 : 3,
            m_why.isEmpty() ? Qt::SolidLine : Qt::DashLine));
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
    QString m_why;
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
        m_list->forbidden = [this](int from, int to) { return whyNot(from, to); };
        left->addWidget(m_list, 1);
        auto* moves = new QHBoxLayout;
        auto *up = new QPushButton(spoken("Earlier")), *down = new QPushButton(spoken("Later")),
             *proposed = new QPushButton(spoken("As proposed"));
        for (auto* b : {up, down, proposed})
            moves->addWidget(b);
        auto* more = new QToolButton;
        more->setText("…");
        more->setObjectName("stepMenu");
        more->setAccessibleName(spoken("More about this step"));
        more->setToolTip(spoken("A step of your own, words of your own, wishes, what booklets leave out"));
        more->setPopupMode(QToolButton::InstantPopup);
        m_menu = new QMenu(more);
        connect(m_menu, &QMenu::aboutToShow, this, [this] { fillMenu(); });
        fillMenu();
        more->setMenu(m_menu);
        moves->addWidget(more);
        left->addLayout(moves);
        row->addLayout(left);
        auto* right = new QVBoxLayout;
        right->setSpacing(4);
        auto* graph = new GraphBench(document);
        graph->setObjectName("graph");
        setFocusProxy(graph);
        auto* table = new TableView(document);
        table->setObjectName("table");
        m_top = new QStackedWidget;
        m_top->addWidget(graph);
        m_top->addWidget(table);
        right->addWidget(m_top, 5);
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
        auto* shown = new QComboBox;
        shown->setObjectName("shown");
        shown->setAccessibleName(spoken("What is shown above"));
        shown->addItems({spoken("Around this step"), spoken("Whole flow"), spoken("Table")});
        shown->setToolTip(
            spoken("The step in hand with those that it hangs on, all steps, or every part as it is then"));
        shown->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        shown->setMinimumContentsLength(12);
        connect(shown, &QComboBox::currentIndexChanged, this, [this, graph](int what) {
            m_top->setCurrentIndex(what == 2 ? 1 : 0);
            graph->showWhole(what == 1);
        });
        connect(m_play, &QPushButton::toggled, shown, [shown](bool on) {
            if (on)
                shown->setCurrentIndex(2);
        });
        dry->addWidget(shown);
        right->addLayout(dry);
        right->addWidget(m_state);
        auto* card = new QHBoxLayout;
        m_figure = new Figure(document);
        m_card = new QTextBrowser;
        m_card->setObjectName("stepCard");
        m_card->setAccessibleName(spoken("Step card"));
        card->addWidget(m_figure, 11);
        card->addWidget(m_card, 9);
        right->addLayout(card, 6);
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
        DocketGroup rules{spoken("Rules that bind it"), {}};
        for (const auto& b : bindingsOf(p, order, indexOf(*s)))
            rules.rows.push_back({(b.before ? spoken("before {} {}", placeOf(b.other) + 1, p.steps[b.other].title)
                                            : spoken("after {} {}", placeOf(b.other) + 1, p.steps[b.other].title))
                    + ": " + text(b.reason, m_document.unit()),
                "", {}});
        DocketGroup wishes{spoken("Wishes"), {}};
        for (const auto& w : m_document.design().wishes)
            if (const Step* first = p.step(w.first), *then = p.step(w.then); first && then && (first == s || then == s))
                wishes.rows.push_back(
                    {spoken("“{}” always before “{}”", text(first->title), text(then->title)), "", {}});
        if (const auto states = dryRun(p, order); place < int(states.size()))
            for (const auto& problem : states[std::size_t(place)].problems)
                broken.rows.push_back({text(problem, m_document.unit()), "", {}, true});
        out.groups.insert(out.groups.end(), {broken, rules, wishes, takes, leaves, sews, after, before});
        return out;
    }

private:
    const Step* inHand() const { return m_document.pattern().step(m_document.stepInHand()); }

    /// What can be done with the step in hand beyond moving it.
    void fillMenu()
    {
        m_menu->clear();
        const Step* step = inHand();
        if (!step)
            return;
        const std::string id = step->id.text();
        const Design& design = m_document.design();
        const bool own = id.starts_with("own step "), words = own || design.ownWords.contains(id),
                   hidden = m_document.pattern().hidden.contains(step->id),
                   wished = std::any_of(design.wishes.begin(), design.wishes.end(),
                       [&](const Wish&w) { return w.first == id || w.then == id; });
        m_menu
            ->addAction(spoken("&Practise the order on this bag…"), this,
                [this] { PracticeDialog(m_document, this, std::random_device()()).exec(); })
            ->setObjectName("practise");
        m_menu->addSeparator();
        m_menu->addAction(spoken("&Add a step of your own behind it…"), this, [this, id] { addStep(id); })
            ->setObjectName("step.add");
        m_menu->addAction(spoken("&Write your own words for it…"), this, [this, id] { writeWords(id); })
            ->setObjectName("step.words");
        if (words && !own)
            m_menu->addAction(spoken("Take the words that follow from its &facts"), this, [this, id] {
                change(
                    spoken("Words of a step"), [&](Design& d, const Pattern& p) { change::stepWords(d, p, id, ""); });
            });
        m_menu->addAction(spoken("Always &before another step…"), this, [this, id] { addWish(id); })
            ->setObjectName("step.wish");
        if (wished)
            m_menu->addAction(spoken("Forget its w&ishes"), this, [this, id] {
                change(spoken("Wishes"), [&](Design& d, const Pattern&) { change::forgetWishes(d, id); });
            });
        auto* hide = m_menu->addAction(spoken("&Left out of booklets"), this, [this, id, hidden] {
            change(spoken("Step left out"), [&](Design& d, const Pattern& p) { change::hideStep(d, p, id, !hidden); });
        });
        hide->setObjectName("step.hide");
        hide->setCheckable(true);
        hide->setChecked(hidden);
        if (own)
            m_menu->addAction(spoken("&Take your step out"), this, [this, id] {
                change(spoken("Step taken out"), [&](Design& d, const Pattern&) { change::removeStep(d, id); });
            });
    }

    void change(const QString& name, const std::function<void(Design&, const Pattern&)>& by)
    {
        m_document.edit(name, [&](Design& d) { by(d, m_document.pattern()); });
        fill();
    }

    /// A dialog with a title line, if wanted, and room for words; true if they are taken.
    bool askWords(const QString& heading, QString* title, QString& words)
    {
        QDialog dialog(this);
        dialog.setWindowTitle(heading);
        dialog.setObjectName("stepWords");
        auto* column = new QVBoxLayout(&dialog);
        auto* line = new QLineEdit;
        line->setObjectName("stepTitle");
        line->setPlaceholderText(spoken("What is done, in a few words"));
        line->setMaxLength(190);
        auto* text = new QPlainTextEdit(words);
        text->setObjectName("stepText");
        text->setTabChangesFocus(true);
        text->setPlaceholderText(spoken("How it is done"));
        text->setMinimumSize(440, 160);
        if (title)
            column->addWidget(line);
        column->addWidget(text);
        auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
        connect(buttons, &QDialogButtonBox::accepted, &dialog, &QDialog::accept);
        connect(buttons, &QDialogButtonBox::rejected, &dialog, &QDialog::reject);
        column->addWidget(buttons);
        (title ? static_cast<QWidget*>(line) : text)->setFocus();
        if (dialog.exec() != QDialog::Accepted)
            return false;
        if (title)
            *title = line->text();
        words = text->toPlainText();
        return true;
    }

    void addStep(const std::string& behind)
    {
        QString title, words;
        if (!askWords(spoken("A step of your own"), &title, words))
            return;
        std::string id;
        change(spoken("Step of your own"), [&](Design& d, const Pattern& p) {
            id = change::addStep(d, p, behind, title.trimmed().toStdString(), words.toStdString(), 2);
        });
        if (m_document.pattern().step(id))
            m_document.takeStep(id);
    }

    void writeWords(const std::string& id)
    {
        const Step* step = m_document.pattern().step(id);
        if (!step)
            return;
        QString words = text(told(m_document.pattern(), *step).text, m_document.unit());
        if (askWords(text(step->title), nullptr, words))
            change(spoken("Words of a step"),
                [&](Design& d, const Pattern& p) { change::stepWords(d, p, id, words.trimmed().toStdString()); });
    }

    void addWish(const std::string& id)
    {
        const Pattern& p = m_document.pattern();
        QDialog dialog(this);
        dialog.setObjectName("wish");
        dialog.setWindowTitle(text(p.step(id)->title));
        auto* column = new QVBoxLayout(&dialog);
        column->addWidget(new QLabel(spoken("It always comes before")));
        auto* box = new QComboBox;
        box->setObjectName("wishThen");
        int number = 0;
        for (const auto i : orderOf(m_document.design(), p)) {
            ++number;
            if (p.steps[i].id != id)
                box->addItem(QString("%1  %2").arg(number).arg(text(p.steps[i].title)), text(p.steps[i].id));
        }
        column->addWidget(box);
        auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
        connect(buttons, &QDialogButtonBox::accepted, &dialog, &QDialog::accept);
        connect(buttons, &QDialogButtonBox::rejected, &dialog, &QDialog::reject);
        column->addWidget(buttons);
        if (dialog.exec() == QDialog::Accepted)
            change(spoken("Wish"), [&](Design& d, const Pattern& seen) {
                change::wish(d, seen, id, box->currentData().toString().toStdString());
            });
    }

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
            item->setForeground(!states[i].problems.empty() ? theme().error
                    : p.hidden.contains(s.id)               ? theme().muted
                                                            : theme().ink);
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
        if (said.own)
            html += QString("<p style='margin:0 0 6px 0;color:%1'>%2</p>")
                        .arg((said.outdated ? t.warning : t.muted).name(),
                            (said.outdated ? spoken("Your words, written when other facts held. Now it would say: {}",
                                 text(said.derived, m_document.unit()))
                                           : spoken("Your words."))
                                .toHtmlEscaped());
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
        if (!state.reach.empty())
            headed(spoken("Out of reach:"), state.reach, t.warning);
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
        const auto named = [&](const WorkId& part) { return text(workLabel(m_document.pattern(), part)); };
        QString more;
        for (const auto& part : state.wrongSideOut)
            more += "   " + spoken("Wrong side out: {}.", named(part));
        for (const auto& wet : state.wet)
            more += "   " + spoken("Wet for {} min: {}.", fixed(wet.minutes, 0), named(wet.part));
        if (state.waited > 0.5)
            more += "   " + spoken("Waited {} min for it to dry.", fixed(state.waited, 0));
        m_state->setText(spoken("On the table: {}.   Opening: {}.   Interlinings on: {}", parts.join(", "),
                             state.opening.empty() ? spoken("none yet") : text(state.opening), state.layers.size())
            + more + (zips.isEmpty() ? QString() : "   " + zips.join(",  ")));
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

    /// The rules that a move breaks which hold now, in words.
    QString whyNot(int from, int to) const
    {
        const Pattern& p = m_document.pattern();
        std::vector<std::size_t> order = orderOf(m_document.design(), p);
        if (from < 0 || from >= int(order.size()) || to == from || to == from + 1)
            return {};
        const auto brokenNow = [&] {
            std::set<std::pair<std::size_t, std::size_t>> out;
            for (const auto& b : brokenRules(p, order))
                out.insert({b.early, b.late});
            return out;
        };
        const auto before = brokenNow();
        const std::size_t step = order[std::size_t(from)];
        order.erase(order.begin() + from);
        order.insert(order.begin() + (to > from ? to - 1 : to), step);
        QStringList broken;
        for (const auto& b : brokenRules(p, order))
            if (!before.contains({b.early, b.late}))
                broken << text(
                    say("“{}” would come before “{}”, but {}", p.steps[b.early].title, p.steps[b.late].title, b.reason),
                    m_document.unit());
        return broken.mid(0, 3).join("\n");
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
    QStackedWidget* m_top;
    QMenu* m_menu = nullptr;
    bool m_filling = false;
};

} // namespace

QWidget* makeSequenceStage(Document& document) { return new SequenceStage(document); }

} // namespace tectonis
