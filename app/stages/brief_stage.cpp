// SPDX-License-Identifier: GPL-3.0-or-later
// Brief: the form, the bag folded up with its main dimensions as handles, and the things it carries.
#include "checks/carry.hpp"
#include "qtext.hpp"
#include "fonts.hpp"
#include "forms/form.hpp"
#include "mockup_view.hpp"
#include "stage.hpp"
#include "stages.hpp"

#include <QAbstractButton>
#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

namespace tectonis {
namespace {

/// A form as its drawn silhouette.
class FormButton : public QAbstractButton {
public:
    FormButton(const Form& form, QWidget* parent) : QAbstractButton(parent), m_form(form)
    {
        setCheckable(true);
        setFixedSize(98, 104);
        setAccessibleName(tectonis::text(form.name()));
        setToolTip(tectonis::text(form.meaning()));
    }

protected:
    void paintEvent(QPaintEvent*) override
    {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const Theme& t = theme();
        p.setPen(QPen(isChecked() || hasFocus() ? t.accent : t.line, isChecked() ? 1.6 : 1));
        p.setBrush(t.surface);
        p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 6, 6);
        const View v = View::fit(Box{0, 0, 100, 112}, QRectF(14, 6, 70, 68));
        p.setPen(QPen(t.ink, 1.5));
        for (const auto& run : m_form.silhouette()) {
            p.setBrush(startOf(run) == endOf(run) ? QBrush(t.shell) : Qt::NoBrush);
            p.drawPath(pathOf(run, v));
        }
        p.setPen(t.ink);
        p.setFont(pixelFont(11));
        p.drawText(QRectF(2, 74, 94, 28), Qt::AlignCenter | Qt::TextWordWrap, tectonis::text(m_form.name()));
    }

private:
    const Form& m_form;
};

class BriefStage : public Stage {
public:
    explicit BriefStage(Document& document) : Stage(document)
    {
        auto* row = new QHBoxLayout(this);
        row->setContentsMargins(6, 0, 0, 0);
        auto* forms = new QVBoxLayout;
        for (const Form* form : tectonis::forms()) {
            auto* b = new FormButton(*form, this);
            b->setChecked(true);
            connect(b, &QAbstractButton::clicked, this, [this, form, b] {
                if (m_document.design().form != form->id())
                    m_document.edit(text("Form: " + form->name()), [&](Design& d) { d = newDesign(form->id()); });
                b->setChecked(true);
            });
            forms->addWidget(b);
        }
        forms->addStretch(1);
        row->addLayout(forms);
        auto* column = new QVBoxLayout;
        column->setSpacing(4);
        m_view = new MockupView(document);
        m_view->setObjectName("mockup");
        column->addWidget(m_view, 1);
        auto* bar = new QHBoxLayout;
        m_fit = new QLabel;
        m_fit->setObjectName("fitSummary");
        auto* inside = new QCheckBox("Look inside");
        inside->setChecked(true);
        connect(inside, &QCheckBox::toggled, m_view, &MockupView::setLookInside);
        auto* front = new QPushButton("Front"), *back = new QPushButton("Back"), *corner = new QPushButton("Corner");
        connect(front, &QPushButton::clicked, this, [this] { m_view->turnTo(0, 0.05); });
        connect(back, &QPushButton::clicked, this, [this] { m_view->turnTo(pi, 0.1); });
        connect(corner, &QPushButton::clicked, this, [this] { m_view->turnTo(-0.5, 0.32); });
        auto* add = new QPushButton("Add a thing");
        connect(add, &QPushButton::clicked, this, [this] {
            m_document.edit("Add a thing to carry", [](Design& d) { d.carried.push_back({"New thing", 100, 100, 20, "main"}); });
        });
        auto* drop = new QPushButton("Remove");
        connect(drop, &QPushButton::clicked, this, [this] {
            const int i = m_table->currentRow();
            if (i >= 0)
                m_document.edit("Remove a thing to carry", [i](Design& d) { d.carried.erase(d.carried.begin() + i); });
        });
        bar->addStretch(1);
        for (QWidget* w : std::initializer_list<QWidget*>{inside, front, back, corner, add, drop})
            bar->addWidget(w);
        m_fit->setWordWrap(true);
        column->addWidget(m_fit);
        column->addLayout(bar);
        m_table = new QTableWidget(0, 6);
        m_table->setObjectName("carried");
        m_table->setAccessibleName("Things to carry");
        m_table->setHorizontalHeaderLabels({"Thing to carry", "Width", "Height", "Thickness", "Goes into", "Does it fit?"});
        m_table->verticalHeader()->hide();
        m_table->verticalHeader()->setDefaultSectionSize(27);
        m_table->setFixedHeight(140);
        m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::Fixed);
        m_table->horizontalHeader()->setSectionResizeMode(5, QHeaderView::Stretch);
        for (const auto& [c, w] : {std::pair{0, 170}, {1, 76}, {2, 76}, {3, 82}, {4, 140}})
            m_table->setColumnWidth(c, w);
        column->addWidget(m_table);
        row->addLayout(column, 1);
        connect(m_table, &QTableWidget::cellChanged, this, &BriefStage::typed);
    }

private:
    void fill() override
    {
        m_filling = true;
        const Design& d = m_document.design();
        const Pattern& p = m_document.pattern();
        const auto placed = placeCarried(d, p);
        m_table->setRowCount(int(d.carried.size()));
        int bad = 0;
        for (std::size_t i = 0; i < d.carried.size(); ++i) {
            const Carried& thing = d.carried[i];
            const auto put = [&](int c, const QString& s) {
                auto* item = new QTableWidgetItem(s);
                if (c > 0 && c < 4)
                    item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
                m_table->setItem(int(i), c, item);
                return item;
            };
            put(0, text(thing.name));
            put(1, m_document.len(thing.width));
            put(2, m_document.len(thing.height));
            put(3, m_document.len(thing.thickness));
            auto* combo = new QComboBox;
            combo->setAccessibleName("Place of " + text(thing.name));
            for (const auto& s : p.spaces)
                combo->addItem(text(s.name), text(s.place));
            combo->setCurrentIndex(combo->findData(text(thing.place)));
            connect(combo, &QComboBox::activated, this, [this, combo, i] {
                const std::string place = combo->currentData().toString().toStdString();
                m_document.edit("Where a thing goes", [&](Design& design) { design.carried[i].place = place; });
            }, Qt::QueuedConnection);
            if (QWidget* before = m_table->cellWidget(int(i), 4))
                before->hide(); // it is deleted only when control returns to the event loop
            m_table->setCellWidget(int(i), 4, combo);
            QStringList lacks;
            bool found = false;
            for (const auto& t : placed)
                if (t.name == thing.name && t.place == thing.place) {
                    found = true;
                    for (const auto& [over, word] : {std::pair{t.overWidth, "wide"}, {t.overHeight, "tall"}, {t.overDepth, "thick"}})
                        if (over > 0.01)
                            lacks << m_document.len(over) + " too " + word;
                }
            auto* item = put(5, !found ? "has no such place" : lacks.isEmpty() ? "fits in size " + text(p.size) : lacks.join(", "));
            item->setFlags(Qt::ItemIsEnabled);
            const bool fits = found && lacks.isEmpty();
            bad += fits ? 0 : 1;
            item->setForeground(fits ? theme().ink : theme().error);
        }
        const Space* main = p.spaces.empty() ? nullptr : &p.spaces.front();
        m_fit->setText(main ? QString("Inside, size %1: %2 × %3 × %4, %5 litres.  %6")
                                  .arg(text(p.size), m_document.len(main->width), m_document.len(main->height), m_document.len(main->depth))
                                  .arg(main->width * main->height * main->depth / 1e6 - (4 - pi) / 2 * main->cornerRadius * main->cornerRadius * main->depth / 1e6, 0, 'f', 1)
                                  .arg(bad ? QString("%1 of the things do not fit.").arg(bad) : "Everything fits.")
                            : QString());
        m_filling = false;
    }

    void typed(int r, int c)
    {
        if (m_filling || c > 3)
            return;
        const std::string value = m_table->item(r, c)->text().toStdString();
        m_document.edit("Thing to carry", [&](Design& d) {
            Carried& thing = d.carried[std::size_t(r)];
            if (c == 0)
                thing.name = value;
            else
                (c == 1 ? thing.width : c == 2 ? thing.height : thing.thickness) = std::max(0.0, parseLength(value, m_document.unit()));
        });
        fill();
    }

    MockupView* m_view;
    QTableWidget* m_table;
    QLabel* m_fit;
    bool m_filling = false;
};

} // namespace

QWidget* makeBriefStage(Document& document) { return new BriefStage(document); }

} // namespace tectonis
