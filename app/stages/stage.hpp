// SPDX-License-Identifier: GPL-3.0-or-later
// A stage that shows computed things: it fills itself anew when the design changes and it is looked at.
#pragma once

#include "document.hpp"
#include "shell/docket_page.hpp"

#include <QWidget>

namespace tectonis {

class Stage : public QWidget, public DocketSource {
public:
    explicit Stage(Document& document) : m_document(document)
    {
        connect(&document, &Document::changed, this, &Stage::refresh);
        connect(&document, &Document::viewChanged, this, &Stage::refresh);
    }

    void freshen() override
    {
        if (m_stale) {
            m_stale = false;
            fill();
        }
    }

protected:
    virtual void fill() = 0;
    void showEvent(QShowEvent*) override
    {
        if (m_stale)
            refresh();
    }
    void refresh()
    {
        m_stale = !isVisible(); // out of sight it waits: nine stages need not be filled for one drag
        if (!m_stale)
            fill();
    }
    Document& m_document;

private:
    bool m_stale = true;
};

} // namespace tectonis
