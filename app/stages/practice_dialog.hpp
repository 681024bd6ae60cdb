// SPDX-License-Identifier: GPL-3.0-or-later
// Practice: the order of work as a game on the bag in hand.
#pragma once

#include "document.hpp"
#include "sequence/practice.hpp"

#include <QDialog>

class QLabel;
class QListWidget;
class QPushButton;

namespace tectonis {

/// How often a task was solved at the first answer, kept in the user's data.
struct PracticeScore {
    int right = 0, tried = 0;
    static PracticeScore load();
    void save() const; ///< in silence where it cannot be
};

class PracticeDialog : public QDialog {
    Q_OBJECT
public:
    PracticeDialog(const Document& document, QWidget* parent, unsigned seed);

    /// Of the task shown: where the two steps stand of which one is wrong; empty for a shuffled one.
    std::vector<int> solution() const;

private:
    void newMistake();
    void newShuffled();
    void show(const QString& asked, std::size_t from, std::size_t count, bool movable);
    void answer();
    void checkOrder();
    void solved(bool right);
    void tell(const QString& words, bool right);

    const Document& m_document;
    std::mt19937 m_random;
    std::vector<std::string> m_lately;
    std::optional<PlantedMistake> m_mistake;
    std::optional<Shuffled> m_shuffled;
    bool m_answered = false;
    PracticeScore m_score;
    QLabel *m_asked, *m_told, *m_points;
    QListWidget* m_list;
    QPushButton* m_answer;
};

} // namespace tectonis
