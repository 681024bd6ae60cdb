// SPDX-License-Identifier: GPL-3.0-or-later
#include "practice_dialog.hpp"

#include "formats/own_library.hpp"
#include "qtext.hpp"
#include "sequence/order.hpp"
#include "theme.hpp"

#include <QDir>
#include <QFile>
#include <QHBoxLayout>
#include <QJsonDocument>
#include <QJsonObject>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QSaveFile>
#include <QVBoxLayout>

#include <algorithm>

namespace tectonis {
namespace {

QString scoreFile() { return QString::fromStdString((ownLibraryFile().parent_path() / "practice.json").string()); }

} // namespace

PracticeScore PracticeScore::load()
{
    QFile file(scoreFile());
    if (!file.open(QIODevice::ReadOnly))
        return {};
    const QJsonObject o = QJsonDocument::fromJson(file.read(10000)).object();
    const int tried = std::clamp(o["tried"].toInt(), 0, 1000000);
    return {std::clamp(o["right"].toInt(), 0, tried), tried};
}

void PracticeScore::save() const
{
    QDir().mkpath(QFileInfo(scoreFile()).absolutePath());
    QSaveFile file(scoreFile());
    if (file.open(QIODevice::WriteOnly)) {
        file.write(QJsonDocument(QJsonObject{{"right", right}, {"tried", tried}}).toJson());
        file.commit();
    }
}

PracticeDialog::PracticeDialog(const Document& document, QWidget* parent, unsigned seed)
    : QDialog(parent), m_document(document), m_random(seed), m_score(PracticeScore::load())
{
    setObjectName("practice");
    setWindowTitle(spoken("Practice"));
    resize(560, 620);
    auto* column = new QVBoxLayout(this);
    m_asked = new QLabel;
    m_asked->setWordWrap(true);
    m_asked->setObjectName("practiceAsked");
    column->addWidget(m_asked);
    m_list = new QListWidget;
    m_list->setObjectName("practiceSteps");
    m_list->setAccessibleName(spoken("Steps of the task"));
    m_list->setWordWrap(true);
    column->addWidget(m_list, 1);
    m_told = new QLabel;
    m_told->setWordWrap(true);
    m_told->setObjectName("practiceTold");
    m_told->setMinimumHeight(58);
    m_told->setAlignment(Qt::AlignTop);
    column->addWidget(m_told);
    auto* row = new QHBoxLayout;
    m_answer = new QPushButton;
    m_answer->setObjectName("practiceAnswer");
    auto* mistake = new QPushButton(spoken("Find a mistake"));
    mistake->setObjectName("practiceMistake");
    auto* order = new QPushButton(spoken("Put in order"));
    order->setObjectName("practiceOrder");
    m_points = new QLabel;
    m_points->setObjectName("practiceScore");
    row->addWidget(m_answer);
    row->addStretch(1);
    row->addWidget(m_points);
    row->addStretch(1);
    row->addWidget(mistake);
    row->addWidget(order);
    column->addLayout(row);
    for (auto* b : {m_answer, mistake, order})
        b->setAutoDefault(false);
    connect(m_answer, &QPushButton::clicked, this, [this] { m_mistake ? answer() : checkOrder(); });
    connect(m_list, &QListWidget::itemDoubleClicked, this, [this] {
        if (m_mistake)
            answer();
    });
    connect(mistake, &QPushButton::clicked, this, &PracticeDialog::newMistake);
    connect(order, &QPushButton::clicked, this, &PracticeDialog::newShuffled);
    newMistake();
}

std::vector<int> PracticeDialog::solution() const
{
    std::vector<int> out;
    if (m_mistake)
        for (std::size_t i = 0; i < m_mistake->order.size(); ++i)
            if (m_mistake->order[i] == m_mistake->broken.early || m_mistake->order[i] == m_mistake->broken.late
                || m_mistake->order[i] == m_mistake->moved)
                out.push_back(int(i));
    return out;
}

void PracticeDialog::newMistake()
{
    const Pattern& p = m_document.pattern();
    m_shuffled.reset();
    m_mistake = plantMistake(p, orderOf(m_document.design(), p), m_random, m_lately);
    if (!m_mistake)
        return tell(spoken("In this bag no single move breaks a rule. Put steps in order instead."), false);
    m_lately.push_back(m_mistake->broken.rule);
    if (m_lately.size() > 6)
        m_lately.erase(m_lately.begin());
    show(spoken("One step stands where it must not. Which?"), 0, m_mistake->order.size(), false);
    m_answer->setText(spoken("This one"));
}

void PracticeDialog::newShuffled()
{
    const Pattern& p = m_document.pattern();
    m_mistake.reset();
    m_shuffled = shuffle(p, orderOf(m_document.design(), p), 7, m_random);
    if (!m_shuffled)
        return tell(spoken("The steps of this bag can stand in any order."), true);
    show(spoken("Drag these steps into an order that works. All others are where they belong."), m_shuffled->from,
        m_shuffled->count, true);
    m_answer->setText(spoken("Check the order"));
}

void PracticeDialog::show(const QString& asked, std::size_t from, std::size_t count, bool movable)
{
    const Pattern& p = m_document.pattern();
    const auto& order = m_mistake ? m_mistake->order : m_shuffled->order;
    m_answered = false;
    m_asked->setText(asked);
    m_told->clear();
    m_list->clear();
    m_list->setDragDropMode(movable ? QAbstractItemView::InternalMove : QAbstractItemView::NoDragDrop);
    for (std::size_t i = from; i < from + count; ++i) {
        auto* item = new QListWidgetItem(text(p.steps[order[i]].title), m_list);
        item->setData(Qt::UserRole, int(order[i]));
    }
    m_list->setCurrentRow(0);
    m_points->setText(spoken("{} of {} at once", m_score.right, m_score.tried));
}

void PracticeDialog::answer()
{
    const auto right = solution();
    const bool found = std::find(right.begin(), right.end(), m_list->currentRow()) != right.end();
    if (!found) {
        solved(false);
        return tell(
            spoken("This one may stand here. Look again: what does each step need, and what does it close off?"),
            false);
    }
    const Pattern& p = m_document.pattern();
    const BrokenRule& b = m_mistake->broken;
    solved(true);
    tell(text(say("Yes. “{}” comes before “{}”, but {}", p.steps[b.early].title, p.steps[b.late].title, b.reason),
             m_document.unit()),
        true);
}

void PracticeDialog::checkOrder()
{
    if (!m_shuffled)
        return;
    for (int i = 0; i < m_list->count(); ++i)
        m_shuffled->order[m_shuffled->from + std::size_t(i)] = std::size_t(m_list->item(i)->data(Qt::UserRole).toInt());
    const Pattern& p = m_document.pattern();
    const auto broken = brokenRules(p, m_shuffled->order);
    solved(broken.empty());
    if (broken.empty())
        return tell(spoken("Yes, so it can be sewn."), true);
    const BrokenRule& b = broken.front();
    tell(text(say("Not yet. “{}” comes before “{}”, but {}", p.steps[b.early].title, p.steps[b.late].title, b.reason),
             m_document.unit()),
        false);
}

/// The first answer to a task counts.
void PracticeDialog::solved(bool right)
{
    if (std::exchange(m_answered, true))
        return;
    ++m_score.tried;
    m_score.right += right;
    m_score.save();
    m_points->setText(spoken("{} of {} at once", m_score.right, m_score.tried));
}

void PracticeDialog::tell(const QString& words, bool right)
{
    m_told->setText(words);
    QPalette colours = m_told->palette();
    colours.setColor(QPalette::WindowText, right ? theme().ink : theme().warning);
    m_told->setPalette(colours);
}

} // namespace tectonis
