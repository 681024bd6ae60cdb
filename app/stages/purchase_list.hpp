// SPDX-License-Identifier: GPL-3.0-or-later
// What to buy for a run of bags, what is in stock of it, and what could be taken instead.
#pragma once

#include "cutting/purchases.hpp"
#include "document.hpp"

#include <QWidget>

#include <functional>

class QHBoxLayout;
class QLabel;
class QListWidget;
class QPushButton;
class QSpinBox;
class QTableWidget;

namespace tectonis {

class PurchaseList : public QWidget {
    Q_OBJECT
public:
    explicit PurchaseList(Document& document);
    void fill();
    std::function<void(const MaterialId&)> picked; ///< a cloth came into hand

private:
    void fillBags();         ///< a number of bags for each size
    void fillSubstitutes();  ///< for the purchase in hand
    void tellConsequences(); ///< of the substitute in hand
    void takeInstead();

    Document& m_document;
    std::vector<Purchase> m_purchases;
    std::vector<Substitute> m_substitutes;
    std::vector<std::pair<std::string, QSpinBox*>> m_bags;
    QHBoxLayout* m_bagsRow;
    QTableWidget *m_table, *m_instead;
    QListWidget* m_with;
    QLabel* m_sum;
    QPushButton* m_take;
};

} // namespace tectonis
