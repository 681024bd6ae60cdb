// SPDX-License-Identifier: GPL-3.0-or-later
// A run of several bags: the work in batches by where it is done, and the order that stays there longest.
#pragma once

#include "document.hpp"
#include "sequence/batches.hpp"

#include <QDialog>

class QComboBox;
class QLabel;
class QPushButton;
class QSpinBox;
class QTableWidget;

namespace tectonis {

class RunDialog : public QDialog {
    Q_OBJECT
public:
    RunDialog(Document& document, QWidget* parent);

private:
    void fill();
    void take();

    Document& m_document;
    QSpinBox* m_bags;
    QComboBox* m_which;
    QTableWidget* m_table;
    QLabel* m_sums;
    QPushButton* m_take;
};

} // namespace tectonis
