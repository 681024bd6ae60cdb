// SPDX-License-Identifier: GPL-3.0-or-later
// The facts about what is in hand at the stage, and those of the design's fields that belong there. Every number opens
// to show its working.
#pragma once

#include "docket_page.hpp"
#include "field_tree.hpp"

#include <QLabel>

class QSplitter;

namespace tectonis {

class Docket : public QWidget {
    Q_OBJECT
public:
    explicit Docket(Document& document, QWidget* parent = nullptr);
    /// Follows a stage from now on.
    void follow(DocketSource* stage);
    /// Puts the cursor on a dimension.
    void showDimension(const std::string& name);
    /// Called when Esc lets go of the docket.
    std::function<void()> left;

protected:
    void resizeEvent(QResizeEvent* event) override;

private:
    void refresh();
    void refreshFacts();
    /// The values get the room that they need, at most half; the names the rest.
    void fitValues();
    void buildFields();
    void refreshFields();
    void showGroups(); ///< those that belong to the stage
    void addMaterials();
    QTreeWidgetItem* groupOf(const std::string& id, const QString& title);
    QTreeWidgetItem* addField(
        QTreeWidgetItem* group, const std::string& name, const std::string& label, const std::string& meaning);
    void fillDetails(QTreeWidgetItem* item); ///< meaning, range, formula and rule of an opened row
    bool typed(const std::string& name, const QString& text);
    void say(const QString& refusal);

    Document& m_document;
    DocketSource* m_stage = nullptr;
    DocketPage m_page;
    QLabel* m_title;
    QSplitter* m_split;
    FieldTree *m_facts, *m_fields;
    QLabel* m_refusal;                                 ///< lies over the facts: rows do not shift under the pointer
    std::map<std::string, QTreeWidgetItem*> m_groups;  ///< by id: "design", "body", a part's id, "materials"
    std::map<std::string, QTreeWidgetItem*> m_choices; ///< by name
    std::string m_builtFor, m_openedFor;
};

} // namespace tectonis
