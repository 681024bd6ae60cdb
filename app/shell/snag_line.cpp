// SPDX-License-Identifier: GPL-3.0-or-later
#include "snag_line.hpp"
#include "qtext.hpp"

#include "checks/snags.hpp"
#include "editing/repair.hpp"
#include "fonts.hpp"
#include "stage_signs.hpp"
#include "theme.hpp"

#include <QHeaderView>
#include <QMenu>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>

namespace tectonis {
namespace {

constexpr int kTried = 30;                  // repairs that are tried before they are offered; each costs a draft
constexpr int kHighest = 170;               // px of the list; more is scrolled
constexpr int kSizes = 84, kSubject = 220;  // px of the columns beside the text
constexpr int kRepair = 180, kWidest = 330; // px of the repairs

} // namespace

SnagLine::SnagLine(Document& document, QWidget* parent) : QWidget(parent), m_document(document)
{
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(8, 2, 8, 4);
    column->setSpacing(3);
    m_line = new QPushButton;
    m_line->setObjectName("snags");
    m_line->setFixedHeight(28);
    m_list = new QTreeWidget;
    m_list->setObjectName("snagList");
    m_list->setAccessibleName(spoken("Snags; Enter jumps there"));
    m_list->setHeaderLabels({spoken("Size"), spoken("What"), spoken("What it means and what to do"), ""});
    m_list->setRootIsDecorated(false);
    m_list->setWordWrap(true);
    m_list->header()->setSectionResizeMode(2, QHeaderView::Stretch);
    m_list->header()->setStretchLastSection(false);
    m_list->setColumnWidth(0, kSizes);
    m_list->setColumnWidth(1, kSubject);
    m_list->setColumnWidth(3, kRepair);
    m_list->hide();
    column->addWidget(m_list);
    column->addWidget(m_line);
    connect(m_line, &QPushButton::clicked, this, [this] { setOpen(!isOpen()); });
    // One click jumps; Enter does on a row that the arrow keys reached.
    const auto go = [this](QTreeWidgetItem* item) {
        const Finding f = m_document.findings()[item->data(0, Qt::UserRole).toUInt()];
        emit jump(int(stageNames().indexOf(text(f.stage))), f.key, f.size);
    };
    connect(m_list, &QTreeWidget::itemClicked, this, go);
    connect(m_list, &QTreeWidget::itemActivated, this, go);
    connect(&document, &Document::judged, this, &SnagLine::fill);
    connect(&document, &Document::viewChanged, this, &SnagLine::fill);
    fill();
}

void SnagLine::setOpen(bool open)
{
    m_list->setVisible(open);
    fill();
}

/// Every row shows its whole text; the list is as high as its rows, and no higher than leaves the stage its room.
void SnagLine::makeRoom()
{
    const QFontMetrics metrics(m_list->font());
    int high = m_list->header()->sizeHint().height() + 2 * m_list->frameWidth();
    int repairs = kRepair;
    for (int i = 0; i < m_list->topLevelItemCount(); ++i)
        if (const QWidget* mend = m_list->itemWidget(m_list->topLevelItem(i), 3))
            repairs = std::clamp(mend->sizeHint().width(), repairs, kWidest);
    m_list->setColumnWidth(3, repairs);
    const int wide = width() - 16 - 2 * m_list->frameWidth() - kSizes - kSubject - repairs
        - 24; // beside a bar that scrolls
    for (int i = 0; i < m_list->topLevelItemCount(); ++i) {
        QTreeWidgetItem* row = m_list->topLevelItem(i);
        const int text =
            metrics.boundingRect(QRect(0, 0, std::max(wide, 120), 2000), Qt::TextWordWrap, row->text(2)).height();
        const int own = std::max(text + 10, 34);
        row->setSizeHint(2, QSize(0, own));
        high += own;
    }
    m_list->setFixedHeight(std::clamp(high, 70, kHighest));
    m_list->doItemsLayout(); // the repairs go with their rows
}

void SnagLine::resizeEvent(QResizeEvent*) { makeRoom(); }

void SnagLine::fill()
{
    const Findings& all = m_document.findings();
    const Theme& t = theme();
    m_list->clear();
    if (all.empty()) // nothing to show: the stage has the room
        m_list->hide();
    const auto snags = snagsOf(all);
    for (std::size_t k = 0; isOpen() && k < snags.size(); ++k) {
        const Finding& f = all[snags[k].first];
        QStringList sizes;
        for (const auto& s : m_document.design().sizes) // in their own order: the worst was found first
            if (std::find(snags[k].sizes.begin(), snags[k].sizes.end(), s) != snags[k].sizes.end())
                sizes << text(s);
        auto* row = new QTreeWidgetItem(
            m_list, {sizes.join(" "), m_document.words(f.subject), m_document.words(f.text)});
        row->setData(0, Qt::UserRole, uint(snags[k].first));
        row->setForeground(0, t.severity(int(f.severity)));
        row->setForeground(1, t.severity(int(f.severity)));
        row->setFont(1, pixelFont(13, QFont::DemiBold));
        row->setToolTip(2, m_document.words(f.text));
        if (f.repair)
            addRepair(row, f);
    }
    makeRoom();
    const SnagCount count = countSnags(all);
    const QString arrow = isOpen() ? "▾" : "▴";
    if (all.empty())
        m_line->setText(spoken("{}  No snags in any size", arrow));
    else
        m_line->setText(spoken("{}  {} to mend, {} doubtful   ·   {}, size {}: {}", arrow, count.toMend, count.doubtful,
            m_document.words(all.front().subject), text(all.front().size), m_document.words(all.front().text)));
    const QColor c = all.empty() ? t.muted : t.severity(int(all.front().severity));
    m_line->setStyleSheet(QString("QPushButton{text-align:left; color:%1; background:%2; border:1px solid %3; "
                                  "border-radius:5px; padding-left:8px;} QPushButton:focus{border-color:%4;}")
                              .arg(c.name(), t.surface.name(), t.line.name(), t.accent.name()));
    m_line->setToolTip(all.empty() ? "" : m_document.words(all.front().text));
}

/// What the design would refuse is not offered: the button is dim and says why.
void SnagLine::addRepair(QTreeWidgetItem* row, const Finding& f)
{
    auto* mend = new QPushButton(m_document.words(f.repair->label));
    mend->setObjectName("repair");
    const Message why = m_list->topLevelItemCount() > kTried ? Message() : whyNotMend(m_document.design(), f);
    mend->setEnabled(why.empty());
    mend->setToolTip(m_document.words(why));
    // Queued: mending fills the list anew, and this button with it.
    connect(
        mend, &QPushButton::clicked, this,
        [this, f] { m_document.edit(m_document.words(f.repair->label), [&](Design& d) { change::repair(d, f); }); },
        Qt::QueuedConnection);
    if (f.others.empty())
        return m_list->setItemWidget(row, 3, mend);
    auto* both = new QWidget;
    auto* side = new QHBoxLayout(both);
    side->setContentsMargins(0, 0, 0, 0);
    side->setSpacing(2);
    side->addWidget(mend, 1);
    auto* more = new QToolButton;
    more->setObjectName("otherRepairs");
    more->setText("…");
    more->setAccessibleName(spoken("Other ways to mend it"));
    more->setToolTip(spoken("Other ways to mend it"));
    more->setPopupMode(QToolButton::InstantPopup);
    auto* menu = new QMenu(more);
    for (const Repair& other : f.others) {
        Finding way = f;
        way.repair = other;
        connect(
            menu->addAction(m_document.words(other.label)), &QAction::triggered, this,
            [this, way] {
                m_document.edit(m_document.words(way.repair->label), [&](Design& d) { change::repair(d, way); });
            },
            Qt::QueuedConnection);
    }
    more->setMenu(menu);
    side->addWidget(more);
    m_list->setItemWidget(row, 3, both);
}

} // namespace tectonis
