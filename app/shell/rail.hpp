// SPDX-License-Identifier: GPL-3.0-or-later
// The pieces on their hooks: to scale with one another, grouped by layer, with codes, counts and check marks.
#pragma once

#include "document.hpp"

#include <QPushButton>
#include <QScrollArea>

namespace tectonis {

class RailCards;

class Rail : public QWidget {
    Q_OBJECT
public:
    explicit Rail(Document& document, QWidget* parent = nullptr);

private:
    RailCards* m_cards;
    QScrollArea* m_scroll;
};

} // namespace tectonis
