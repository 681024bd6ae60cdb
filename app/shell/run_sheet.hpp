// SPDX-License-Identifier: GPL-3.0-or-later
// The stages in working order, each with its sign and its open snags.
#pragma once

#include "document.hpp"

#include <QAbstractButton>
#include <QButtonGroup>

namespace tectonis {

class RunSheet : public QWidget {
    Q_OBJECT
public:
    explicit RunSheet(Document& document, QWidget* parent = nullptr);
    void choose(int stage);

signals:
    void chosen(int stage);

private:
    void count();
    Document& m_document;
    QButtonGroup m_buttons;
};

} // namespace tectonis
