// SPDX-License-Identifier: GPL-3.0-or-later
// The seam ledger: every seam with both runs, their lengths on the stitch line, ease, difference, allowance, and what
// is left open at its ends.
#pragma once

#include "document.hpp"

#include <QTableWidget>

#include <functional>

namespace tectonis {

class SeamLedger : public QTableWidget {
public:
    explicit SeamLedger(Document& document);

    /// A row for every size of each seam, or for the size in view alone.
    void setAllSizes(bool on);
    /// Laid out only while it is seen: what nobody sees must not slow a drag.
    void fill();

    std::function<void(const SeamId& seam)> picked; ///< called when a row is picked

private:
    void fillRow(int row, const Pattern& pattern, const Seam& seam);
    void typed(int row, int column);

    Document& m_document;
    bool m_allSizes = false;
    std::vector<SeamId> m_seams; ///< by row
};

} // namespace tectonis
