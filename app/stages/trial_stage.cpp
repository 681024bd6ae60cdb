// SPDX-License-Identifier: GPL-3.0-or-later
// Trial: predicted beside measured, minutes of the bag and of each step, revisions in words, cost.
#include "cutting/cost.hpp"
#include "design/limits.hpp"
#include "editing/edits.hpp"
#include "fonts.hpp"
#include "qtext.hpp"
#include "sequence/minutes.hpp"
#include "sequence/order.hpp"
#include "shell/headings.hpp"
#include "stage.hpp"
#include "stages.hpp"
#include "theme.hpp"

#include <QDate>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QStyledItemDelegate>
#include <QTableWidget>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

/// What a trial measures: its place in the record, and what the pattern predicts.
struct Measure {
    Label name;
    double Trial::*value;
    double (*predicted)(const Pattern&);
    bool minutes = false;
};

const std::vector<Measure>& measures()
{
    static const std::vector<Measure> all{
        {label("Finished width"), &Trial::width, [](const Pattern& p) { return p.width; }},
        {label("Finished height"), &Trial::height, [](const Pattern& p) { return p.height; }},
        {label("Finished depth"), &Trial::depth, [](const Pattern& p) { return p.depth; }},
        {label("Strap, longest"), &Trial::strapLongest,
            [](const Pattern& p) { return p.straps.empty() ? 0.0 : p.straps.front().longest; }},
        {label("Zip opening"), &Trial::zipOpening,
            [](const Pattern& p) { return p.zips.empty() ? 0.0 : p.zips.front().nominal; }},
        {label("Minutes"), &Trial::minutes, [](const Pattern& p) { return minutesOf(p); }, true}};
    return all;
}

/// The cell shows the difference too; what is edited is the measure alone.
class MeasureDelegate : public QStyledItemDelegate {
public:
    using QStyledItemDelegate::QStyledItemDelegate;
    void setEditorData(QWidget* editor, const QModelIndex& index) const override
    {
        auto* line = qobject_cast<QLineEdit*>(editor);
        if (!line || line->isModified())
            return;
        line->setText(index.data(Qt::UserRole).toString());
        line->selectAll();
    }
    void setModelData(QWidget* editor, QAbstractItemModel* model, const QModelIndex& index) const override
    {
        if (auto* line = qobject_cast<QLineEdit*>(editor);
            line && line->isModified() && line->text() != index.data(Qt::UserRole).toString())
            model->setData(index, line->text());
    }
};

class TrialStage : public Stage {
public:
    explicit TrialStage(Document& document) : Stage(document)
    {
        auto* column = new QVBoxLayout(this);
        column->setContentsMargins(10, 4, 10, 4);
        column->setSpacing(6);
        auto* bar = new QHBoxLayout;
        bar->addWidget(heading(spoken("Predicted beside measured")));
        bar->addStretch(1);
        auto* add = new QPushButton(spoken("New trial of this size"));
        add->setObjectName("newTrial");
        auto* drop = new QPushButton(spoken("Remove trial"));
        bar->addWidget(add);
        bar->addWidget(drop);
        column->addLayout(bar);
        m_table = new QTableWidget;
        m_table->setObjectName("trials");
        m_table->setAccessibleName(spoken("Predicted and measured"));
        m_table->verticalHeader()->setDefaultSectionSize(28);
        m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
        column->addWidget(m_table, 5);
        auto* low = new QHBoxLayout;
        auto* revisions = new QVBoxLayout;
        revisions->addWidget(heading(spoken("Revisions, in words")));
        m_revisions = new QTableWidget(0, 2);
        m_revisions->setAccessibleName(spoken("Revisions"));
        Headings::over(*m_revisions);
        m_revisions->setHorizontalHeaderLabels(
            {spoken("Date"), spoken("What changed, for those who have the pattern")});
        m_revisions->verticalHeader()->hide();
        m_revisions->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
        m_revisions->setEditTriggers(QAbstractItemView::NoEditTriggers);
        revisions->addWidget(m_revisions, 1);
        auto* note = new QHBoxLayout;
        m_note = new QLineEdit;
        m_note->setPlaceholderText(spoken("Front pocket 6 mm taller in all sizes"));
        m_note->setAccessibleName(spoken("New revision note"));
        auto* write = new QPushButton(spoken("Note it"));
        note->addWidget(m_note, 1);
        note->addWidget(write);
        revisions->addLayout(note);
        low->addLayout(revisions, 3);
        auto* cost = new QVBoxLayout;
        cost->addWidget(heading(spoken("Cost of one bag")));
        m_cost = new QLabel;
        m_cost->setObjectName("cost");
        m_cost->setTextFormat(Qt::RichText);
        m_cost->setAlignment(Qt::AlignTop);
        cost->addWidget(m_cost, 1);
        low->addLayout(cost, 2);
        column->addLayout(low, 4);
        connect(add, &QPushButton::clicked, this, [this] {
            const std::string size = m_document.pattern().size,
                              date = QDate::currentDate().toString(Qt::ISODate).toStdString();
            m_document.edit(spoken("New trial"), [&](Design& d) { d.trials.push_back({date, size}); });
        });
        connect(drop, &QPushButton::clicked, this, [this] {
            const int i = m_table->currentColumn() - 1;
            if (i >= 0 && i < int(m_document.design().trials.size()))
                m_document.edit(spoken("Remove a trial"), [i](Design& d) { d.trials.erase(d.trials.begin() + i); });
        });
        const auto noteIt = [this] {
            const std::string words = m_note->text().trimmed().toStdString(),
                              date = QDate::currentDate().toString(Qt::ISODate).toStdString();
            if (!words.empty() && m_document.edit(spoken("Revision note"), [&](Design& d) {
                    d.revisions.push_back({date, words});
                }))
                m_note->clear();
        };
        connect(write, &QPushButton::clicked, this, noteIt);
        connect(m_note, &QLineEdit::returnPressed, this, noteIt);
        m_note->setObjectName("revisionNote");
        connect(m_table, &QTableWidget::cellChanged, this, &TrialStage::typed);
        // One click edits what can be edited.
        connect(m_table, &QTableWidget::cellClicked, this, [this](int r, int c) {
            if (QTableWidgetItem* item = m_table->item(r, c); item && (item->flags() & Qt::ItemIsEditable))
                m_table->editItem(item);
        });
        connect(m_table, &QTableWidget::currentCellChanged, this, [this] {
            if (!m_filling)
                tellHand();
        });
        m_table->setItemDelegate(new MeasureDelegate(m_table));
        setFocusProxy(add);
    }

    /// The trial in hand: measured against predicted.
    DocketPage docketPage() const override
    {
        const auto& trials = m_document.design().trials;
        const int i = m_table->currentColumn() - 1;
        if (i < 0 || i >= int(trials.size())) {
            DocketPage out{spoken("Trial"), {{spoken("Predicted, size {}", text(m_document.pattern().size)), {}}}, {}};
            for (const auto& m : measures())
                if (const double v = m.predicted(m_document.pattern()); v > 0)
                    out.groups[0].rows.push_back({text(m.name), shown(m, v), {}});
            out.groups.push_back({spoken("In hand"),
                {{trials.empty()
                        ? spoken("No trial yet. Sew one, press “New trial of this size” and type what you measure.")
                        : spoken("Click a trial's column: it is compared here."),
                    "", {}}}});
            return out;
        }
        const Trial& t = trials[std::size_t(i)];
        DocketPage out{
            spoken("Trial {}, size {}", text(t.date), text(t.size)), {{spoken("Measured less predicted"), {}}}, {}};
        for (const auto& m : measures()) {
            const double v = t.*m.value, predicted = predictedFor(m, t);
            if (v <= 0)
                continue;
            const double off = v - predicted;
            out.groups[0].rows.push_back(
                {text(m.name), QString("%1%2").arg(off < 0 ? "−" : "+", shown(m, std::abs(off))),
                    {spoken("measured {}, predicted {}", shown(m, v), shown(m, predicted)),
                        m.minutes ? QString()
                                  : spoken("more than 3 mm is more than sewing explains; common practice, no source")},
                    !m.minutes && std::abs(off) > 3});
        }
        if (out.groups[0].rows.empty())
            out.groups[0].rows.push_back({spoken("Nothing measured yet."), "", {}});
        DocketGroup pace{spoken("What minutes are corrected by"), {}};
        const Pattern& p = m_document.pattern();
        if (p.pace.rest != 1)
            pace.rows.push_back({spoken("Steps not timed"), "× " + fixed(p.pace.rest, 2), {}});
        for (const auto& [id, factor] : p.pace.steps)
            if (const Step* step = p.step(id))
                pace.rows.push_back({text(step->title), "× " + fixed(factor, 2), {}});
        out.groups.push_back(pace);
        if (!t.note.empty())
            out.groups.push_back({spoken("Note"), {{text(t.note), "", {}}}});
        return out;
    }

private:
    static QLabel* heading(const QString& s)
    {
        auto* label = new QLabel(s);
        label->setFont(pixelFont(14, QFont::DemiBold));
        return label;
    }

    QString shown(const Measure& m, double v) const
    {
        return m.minutes ? spoken("{} min", fixed(v, 0)) : m_document.len(v);
    }

    /// Minutes are held against what was reckoned when they were measured.
    double predictedFor(const Measure& m, const Trial& t) const
    {
        return m.minutes && t.predicted > 0 ? t.predicted : m.predicted(patternOf(t.size));
    }

    const Pattern& patternOf(const std::string& size) const
    {
        for (const auto& p : m_document.patterns())
            if (p.size == size)
                return p;
        return m_document.pattern();
    }

    void fill() override
    {
        m_filling = true;
        const auto& trials = m_document.design().trials;
        const Pattern& p = m_document.pattern();
        const auto order = orderOf(m_document.design(), p);
        const auto numbers = numbersOf(p, order);
        m_steps.clear();
        for (const auto i : order)
            m_steps.push_back(p.steps[i].id.text());
        const int noteRow = int(measures().size()), rows = noteRow + 1 + int(m_steps.size());
        m_table->setRowCount(rows);
        m_table->setColumnCount(int(trials.size()) + 1);
        QStringList columns{spoken("Predicted, size {}", text(m_document.pattern().size))}, names;
        for (const auto& t : trials)
            columns << spoken("Trial {}, size {}", text(t.date), text(t.size));
        for (const auto& m : measures())
            names << text(m.name);
        names << spoken("Note");
        for (std::size_t i = 0; i < order.size(); ++i)
            names << (numbers[i] > 0 ? QString::number(numbers[i]) + "  " : QString("–  "))
                    + m_table->fontMetrics().elidedText(text(p.steps[order[i]].title), Qt::ElideRight, 230);
        m_table->setHorizontalHeaderLabels(columns);
        m_table->setVerticalHeaderLabels(names);
        for (int r = noteRow + 1; r < rows; ++r)
            fillStep(r, p.steps[order[std::size_t(r - noteRow - 1)]]);
        for (int r = 0; r <= noteRow; ++r) {
            auto* predicted = new QTableWidgetItem(r == noteRow
                    ? QString()
                    : shown(measures()[std::size_t(r)], measures()[std::size_t(r)].predicted(m_document.pattern())));
            predicted->setFlags(Qt::ItemIsEnabled);
            m_table->setItem(r, 0, predicted);
            // What this bag does not have is not asked for.
            m_table->setRowHidden(r,
                r < noteRow && measures()[std::size_t(r)].predicted(m_document.pattern()) == 0
                    && std::all_of(trials.begin(), trials.end(),
                        [&](const Trial& t) { return t.*measures()[std::size_t(r)].value == 0; }));
            for (std::size_t k = 0; k < trials.size(); ++k) {
                QString s, measured;
                bool off = false;
                if (r == noteRow)
                    s = measured = text(trials[k].note);
                else {
                    const Measure& m = measures()[std::size_t(r)];
                    const double v = trials[k].*m.value, predicted = predictedFor(m, trials[k]);
                    if (v > 0) {
                        measured = m.minutes ? number(v) : m_document.exact(v);
                        const double difference = v - predicted;
                        off = !m.minutes
                            && std::abs(difference) > 3; // mm: more than sewing explains (common practice, no source)
                        s = QString("%1   (%2%3)")
                                .arg(shown(m, v), difference < 0 ? "−" : "+", shown(m, std::abs(difference)));
                    } else
                        s = spoken("type what was measured");
                }
                auto* item = new QTableWidgetItem(s);
                item->setData(Qt::UserRole, measured);
                item->setForeground(off ? theme().error : measured.isEmpty() ? theme().muted : theme().ink);
                m_table->setItem(r, int(k) + 1, item);
            }
        }
        const auto& revisions = m_document.design().revisions;
        m_revisions->setRowCount(int(revisions.size()));
        for (std::size_t i = 0; i < revisions.size(); ++i) {
            m_revisions->setItem(int(i), 0, new QTableWidgetItem(text(revisions[i].date)));
            m_revisions->setItem(int(i), 1, new QTableWidgetItem(text(revisions[i].text)));
        }
        fillCost();
        m_filling = false;
    }

    /// The minutes of one step: reckoned now, and measured in each trial.
    void fillStep(int r, const Step& step)
    {
        const auto& trials = m_document.design().trials;
        auto* predicted = new QTableWidgetItem(
            spoken("{} min", fixed(minutesOf(m_document.pattern(), step).result, 1)));
        predicted->setFlags(Qt::ItemIsEnabled);
        m_table->setItem(r, 0, predicted);
        m_table->setRowHidden(r, false);
        for (std::size_t k = 0; k < trials.size(); ++k) {
            const auto at = trials[k].steps.find(step.id.text());
            const bool timed = at != trials[k].steps.end();
            QString s = spoken("type its minutes"), measured;
            if (timed) {
                const double off = at->second.minutes - at->second.predicted;
                measured = number(at->second.minutes);
                s = QString("%1   (%2%3)")
                        .arg(spoken("{} min", fixed(at->second.minutes, 1)), off < 0 ? "−" : "+",
                            spoken("{} min", fixed(std::abs(off), 1)));
            }
            auto* item = new QTableWidgetItem(s);
            item->setData(Qt::UserRole, measured);
            item->setForeground(timed ? theme().ink : theme().muted);
            m_table->setItem(r, int(k) + 1, item);
        }
    }

    void fillCost()
    {
        const Cost cost = costOf(m_document.design(), m_document.pattern());
        const Workshop& w = m_document.design().workshop;
        QStringList unpriced;
        for (const auto& n : cost.notions)
            if (!n.good)
                unpriced << text(called(n.bought.kind));
        const auto line = [](const QString& a, double v) {
            return QString("<tr><td style='padding-right:18px'>%1</td><td align='right'>%2</td></tr>")
                .arg(a)
                .arg(fixed(v, 2));
        };
        m_cost->setText("<table>" + line(spoken("Cloth and interlinings, by the marker"), cost.cloth)
            + line(spoken("Notions and thread"), cost.notionsCost)
            + line(spoken("Labour, {} min at {} an hour", fixed(cost.minutes, 0), w.labourRate), cost.labour)
            + line(spoken("Overhead, {} %", w.overhead), cost.overhead)
            + line("<b>" + spoken("In all").toHtmlEscaped() + "</b>", cost.whole()) + "</table>"
            + (unpriced.isEmpty() ? QString()
                                  : "<p>"
                        + spoken("Your library has no price for: {}.", unpriced.join(", ")).toHtmlEscaped() + "</p>"));
    }

    void typed(int r, int c)
    {
        if (m_filling || c < 1)
            return;
        const QString value = m_table->item(r, c)->text().trimmed();
        m_document.edit(spoken("Trial measure"), [&](Design& d) {
            const std::size_t trial = std::size_t(c) - 1;
            Trial& t = d.trials[trial];
            const auto minutes = [&] {
                const std::string number = QString(value).remove("min").trimmed().toStdString();
                return value.isEmpty() ? 0 : within(say("minutes"), parseLength(number), 0, limits::minutes, "min");
            };
            if (r == int(measures().size())) {
                t.note = value.toStdString();
                return;
            }
            if (r > int(measures().size())) {
                change::timed(d, patternOf(t.size), trial, minutes(), m_steps[std::size_t(r) - measures().size() - 1]);
                return;
            }
            const Measure& m = measures()[std::size_t(r)];
            if (m.minutes)
                change::timed(d, patternOf(t.size), trial, minutes());
            else if (value.isEmpty())
                t.*m.value = 0;
            else
                t.*m.value = within(
                    labelled(m.name), parseLength(value.toStdString(), m_document.unit()), 0, limits::length);
        });
        QMetaObject::invokeMethod(
            this, [this] { fill(); }, Qt::QueuedConnection);
    }

    QTableWidget *m_table, *m_revisions;
    std::vector<std::string> m_steps; ///< ids of the steps in the rows behind the note's
    QLineEdit* m_note;
    QLabel* m_cost;
    bool m_filling = false;
};

} // namespace

QWidget* makeTrialStage(Document& document) { return new TrialStage(document); }

} // namespace tectonis
