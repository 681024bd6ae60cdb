// SPDX-License-Identifier: GPL-3.0-or-later
// What a stage puts into the docket: facts about what is in hand there, and which of the design's fields belong to it.
#pragma once

#include "document.hpp"

#include <QStringList>

#include <functional>
#include <vector>

namespace tectonis {

struct DocketRow {
    QString label, value;
    QStringList details; ///< its working, shown when the row is opened
    bool bad = false;
};

struct DocketGroup {
    QString title;
    std::vector<DocketRow> rows;
};

/// Groups of the design's fields.
struct DocketFields {
    bool design = false; ///< name, studio, notes
    bool body = false, materials = false, parts = false;
    std::string part;   ///< one part's fields, also without @c parts
    std::string opened; ///< which group is open: "body", "materials", a part's id; empty: as the user left them
    bool any() const { return design || body || materials || parts || !part.empty(); }
};

struct DocketPage {
    QString title;
    std::vector<DocketGroup> groups;
    DocketFields fields;
};

/// A stage that fills the docket. It calls @c handChanged when something else is in hand.
class DocketSource {
public:
    virtual ~DocketSource() = default;
    virtual DocketPage docketPage() const = 0;
    /// Takes over what changed since it was last looked at: called before docketPage().
    virtual void freshen() {}
    std::function<void()> handChanged;

protected:
    void tellHand() const
    {
        if (handChanged)
            handChanged();
    }
};

/// The piece in hand: what it is cut from, its edges, its layers.
DocketPage pagePiece(const Document& document, const PieceId& piece);
/// A working: its result, and opened its formula, values and source.
DocketRow rowOf(const Document& document, const Working& working);
/// Workings whose subject is a piece, a part or the body.
DocketGroup workingsOf(const Document& document, const std::function<bool(const SubjectId& subject)>& wanted,
    const QString& title = spoken("Workings"));

} // namespace tectonis
