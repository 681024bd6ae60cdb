// SPDX-License-Identifier: GPL-3.0-or-later
// The specification of the whole bag: what each piece is cut from, what lies behind it, how it is sewn, marked, fitted,
// and in which steps it is handled.
#pragma once

#include "document.hpp"

#include <QTableWidget>

namespace tectonis {

class SpecificationTable : public QTableWidget {
    Q_OBJECT
public:
    explicit SpecificationTable(Document& document);
    void fill();

protected:
    void resizeEvent(QResizeEvent* event) override; ///< shares its width among the columns

private:
    Document& m_document;
};

} // namespace tectonis
