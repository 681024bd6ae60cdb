// SPDX-License-Identifier: GPL-3.0-or-later
// What is wrong or doubtful in every size, worst first: one line until opened.
#pragma once

#include "document.hpp"

#include <QLabel>
#include <QPushButton>
#include <QTreeWidget>

namespace tectonis {

class SnagLine : public QWidget {
    Q_OBJECT
public:
    explicit SnagLine(Document& document, QWidget* parent = nullptr);
    void setOpen(bool open);
    bool isOpen() const { return m_list->isVisibleTo(this); }

signals:
    void jump(int stage, const SubjectId& key, const std::string& size);

protected:
    void resizeEvent(QResizeEvent*) override;

private:
    void fill();
    void makeRoom();
    void addRepair(QTreeWidgetItem* row, const Finding& finding);

    Document& m_document;
    QPushButton* m_line;
    QTreeWidget* m_list;
};

} // namespace tectonis
