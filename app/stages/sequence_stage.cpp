// SPDX-License-Identifier: GPL-3.0-or-later
// Sequence: the order of work as a list to drag, the graph of parts, the step's card, and the dry run.
#include "editing/edits.hpp"
#include "fonts.hpp"
#include "order_list.hpp"
#include "pattern/act_words.hpp"
#include "pattern/labels.hpp"
#include "picture.hpp"
#include "practice_dialog.hpp"
#include "qtext.hpp"
#include "run_dialog.hpp"
#include "sequence/minutes.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "sequence/table.hpp"
#include "sequence/told.hpp"
#include "stage.hpp"
#include "stages.hpp"
#include "step_figure.hpp"
#include "step_flow.hpp"

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
        m_list->forbidden = [this](int from) { return whyNot(from); };
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
        auto* right = m_right = new QVBoxLayout;
        right->setSpacing(4);
        auto* graph = new StepFlow(document);
        graph->setObjectName("graph");
        graph->moved = m_list->moved;
        graph->forbidden = m_list->forbidden;
        m_flow = graph;
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
        auto *back = new QPushButton("◂"), *on = new QPushButton("▸");
        for (const auto& [button, words] : {std::pair{back, spoken("Step back")}, {on, spoken("Step on")}}) {
            button->setAccessibleName(words);
            button->setToolTip(words);
        }
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
            m_right->setStretch(0, what == 1 ? 9 : 5);
        });
        connect(m_play, &QPushButton::toggled, shown, [shown](bool on) {
            if (on)
                shown->setCurrentIndex(2);
        });
        auto* folds = new QToolButton;
        folds->setObjectName("folds");
        folds->setText(spoken("Fold"));
        folds->setToolTip(spoken("Show sub-assemblies as what comes of them, without their steps"));
        folds->setPopupMode(QToolButton::InstantPopup);
        m_folds = new QMenu(folds);
        connect(m_folds, &QMenu::aboutToShow, this, [this] { fillFolds(); });
        folds->setMenu(m_folds);
        dry->addWidget(folds);
        connect(shown, &QComboBox::currentIndexChanged, folds,
            [folds](int what) { folds->setEnabled(what != 2); }); // the table has no steps to fold
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
        const auto numbers = numbersOf(p, order);
        const auto numberOf = [&](std::size_t step) { // as booklets tell it
            const int number = numbers[std::size_t(placeOf(step))];
            return number > 0 ? QString::number(number) : QString("–");
        };
        const auto partName = [&](const WorkId& part) { return text(workLabel(p, part)); };
        const int place = placeOf(indexOf(*s));
        DocketPage out{spoken("Step {}: {}", numberOf(indexOf(*s)), text(s->title)), {}, {}};
        DocketGroup step{spoken("Step"), {{spoken("Sub-assembly"), spokenName(s->phase), {}}}};
        const StepWords said = told(p, *s);
        if (said.allowance > 0)
            step.rows.push_back({spoken("Sewn at"), m_document.len(said.allowance), {}});
        if (!said.seamClass.empty())
            step.rows.push_back({spoken("Seam class"), text(said.seamClass, m_document.unit()),
                {spoken("of ISO 4916, by the first digit of a seam's designation")}});
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
                    {QString("%1  %2").arg(numberOf(link.before)).arg(text(p.steps[link.before].title)), "", {}});
            if (link.before == indexOf(*s))
                before.rows.push_back(
                    {QString("%1  %2").arg(numberOf(link.after)).arg(text(p.steps[link.after].title)), "", {}});
        }
        DocketGroup rules{spoken("Rules that bind it"), {}};
        for (const auto& b : bindingsOf(p, order, indexOf(*s)))
            rules.rows.push_back({(b.before ? spoken("before {} {}", numberOf(b.other), p.steps[b.other].title)
                                            : spoken("after {} {}", numberOf(b.other), p.steps[b.other].title))
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

    void fillFolds()
    {
        m_folds->clear();
        const auto phases = m_flow->phasesThere();
        for (const auto& [words, all] : {std::pair{spoken("&All"), true}, {spoken("&None"), false}})
            m_folds->addAction(words, this, [this, phases, all = all] {
                m_flow->fold(all ? std::set<std::string>(phases.begin(), phases.end()) : std::set<std::string>());
            });
        m_folds->addSeparator();
        for (const auto& phase : phases) {
            auto* action = m_folds->addAction(spokenName(phase), this, [this, phase] {
                std::set<std::string> folded = m_flow->folded();
                if (!folded.erase(phase))
                    folded.insert(phase);
                m_flow->fold(folded);
            });
            action->setCheckable(true);
            action->setChecked(m_flow->folded().contains(phase));
        }
    }

    /// Where the step in hand can be divided.
    void fillDivisions(QMenu* menu, const Step& step)
    {
        for (std::size_t i = 1; i < step.acts.size(); ++i) {
            Step rest = step;
            rest.acts = {step.acts[i]};
            const QString said = text(told(m_document.pattern(), rest).terse, m_document.unit()).section(". ", 0, 0),
                          title = text(titleOf(step.acts[i].verb));
            QString label = said.isEmpty() ? title
                                           : title + ": " + (said.endsWith('.') ? said.chopped(1) : said).left(60);
            menu->addAction(label.replace("&", "&&"), this, [this, id = step.id.text(), i] {
                change(
                    spoken("Step told in two"), [&](Design& d, const Pattern& p) { change::splitStep(d, p, id, i); });
            });
        }
    }

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
        m_menu
            ->addAction(spoken("A &run of several bags…"), this,
                [this] {
                    RunDialog(m_document, this).exec();
                    fill();
                })
            ->setObjectName("step.run");
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
        m_menu->addSeparator();
        auto* divide = m_menu->addMenu(spoken("Tell it in two, fro&m"));
        divide->menuAction()->setObjectName("step.split");
        fillDivisions(divide, *step);
        divide->setEnabled(!divide->isEmpty());
        const auto& steps = m_document.pattern().steps;
        const bool divided = !step->goesOnFrom.empty()
            || std::any_of(steps.begin(), steps.end(), [&](const Step& s) { return s.goesOnFrom == step->id; });
        if (divided)
            m_menu
                ->addAction(spoken("Tell its parts as on&e again"), this,
                    [this, id] {
                        change(spoken("Parts of a step as one"),
                            [&](Design& d, const Pattern& p) { change::mendStep(d, p, id); });
                    })
                ->setObjectName("step.mend");
        const bool joined = std::any_of(
            design.joined.begin(), design.joined.end(), [&](const Joined& j) { return j.then == id; });
        auto* join = m_menu->addAction(spoken("As one with the step bef&ore"), this, [this, id, joined] {
            change(spoken("Steps told as one"),
                [&](Design& d, const Pattern& p) { joined ? change::partStep(d, id) : change::joinStep(d, p, id); });
        });
        join->setObjectName("step.join");
        join->setCheckable(true);
        join->setChecked(joined);
        join->setEnabled(joined || m_list->currentRow() > 0);
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
        const auto order = orderOf(m_document.design(), p);
        const auto numbers = numbersOf(p, order);
        for (std::size_t i = 0; i < order.size(); ++i)
            if (const Step& step = p.steps[order[i]]; step.id != id)
                box->addItem((numbers[i] > 0 ? QString::number(numbers[i]) : QString("–")) + "  " + text(step.title),
                    text(step.id));
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
        const auto numbers = numbersOf(p, order);
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
            item->setText(numbers[i] == 0                   ? QString("–  ") + text(s.title)
                    : i > 0 && numbers[i] == numbers[i - 1] ? QString("      + ") + text(s.title)
                                                            : QString("%1  %2").arg(numbers[i]).arg(text(s.title)));
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

    /// Of every place the rule that a step breaks if it goes there, in words.
    std::vector<QString> whyNot(int from) const
    {
        const Pattern& p = m_document.pattern();
        const auto order = orderOf(m_document.design(), p);
        std::vector<QString> out(order.size() + 1);
        if (from < 0 || from >= int(order.size()))
            return out;
        const auto moves = movesOf(p, order, std::size_t(from));
        for (std::size_t i = 0; i < moves.size(); ++i)
            if (const auto& b = moves[i])
                out[i] = text(say("“{}” would come before “{}”, but {}", p.steps[b->early].title,
                                  p.steps[b->late].title, b->reason),
                    m_document.unit());
        return out;
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
    StepFlow* m_flow;
    QMenu* m_folds;
    Figure* m_figure;
    QTextBrowser* m_card;
    QLabel* m_state;
    QPushButton* m_play;
    QTimer m_timer;
    QStackedWidget* m_top;
    QVBoxLayout* m_right;
    QMenu* m_menu = nullptr;
    bool m_filling = false;
};

} // namespace

QWidget* makeSequenceStage(Document& document) { return new SequenceStage(document); }

} // namespace tectonis
