// SPDX-License-Identifier: GPL-3.0-or-later
// The facts about what is in hand, and the design's dimensions and choices. Every number opens to show its working.
#pragma once

#include "document.hpp"

#include <QLabel>
#include <QTreeWidget>

namespace tectonis {

class Docket : public QWidget {
    Q_OBJECT
public:
    explicit Docket(Document& document, QWidget* parent = nullptr);
    /// Opens the groups that matter at a stage.
    void setStage(int stage);
    /// Puts the cursor on a dimension.
    void showDimension(const std::string& name);

private:
    void refresh();
    void refreshFacts();
    void buildDimensions();
    void refreshDimensions();
    void fillDetails(QTreeWidgetItem* item); ///< meaning, range, formula and rule of an opened row
    void typed(QTreeWidgetItem* item, int column);

    Document& m_document;
    QLabel* m_title;
    QTreeWidget *m_facts, *m_dimensions;
    QLabel* m_refusal;
    bool m_filling = false;
    std::string m_builtFor;
};

} // namespace tectonis
