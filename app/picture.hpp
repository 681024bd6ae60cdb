// SPDX-License-Identifier: GPL-3.0-or-later
// A drawing that follows the design: painted anew when it or what is in hand changes.
#pragma once

#include "document.hpp"

#include <QWidget>

namespace tectonis {

class Picture : public QWidget {
public:
    Picture(Document& document, const QString& name, QWidget* parent = nullptr) : QWidget(parent), m_document(document)
    {
        setAccessibleName(name);
        connect(&document, &Document::changed, this, qOverload<>(&QWidget::update));
        connect(&document, &Document::viewChanged, this, qOverload<>(&QWidget::update));
    }

protected:
    Document& m_document;
};

} // namespace tectonis
