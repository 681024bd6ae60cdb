// SPDX-License-Identifier: GPL-3.0-or-later
// The open design with everything computed from it. Views read it and push edits; nothing else writes.
#pragma once

#include "checks/finding.hpp"
#include "editing/edits.hpp"
#include "languages.hpp"
#include "mockup/mockup.hpp"
#include "units/error.hpp"

#include <QObject>
#include <QTimer>
#include <QUndoStack>
#include <functional>
#include <memory>
#include <optional>

namespace tectonis {

class KeptDesign;

class Document : public QObject {
    Q_OBJECT
public:
    explicit Document(QObject* parent = nullptr);

    const Design& design() const { return m_design; }
    const DesignSpec& spec() const { return m_spec; }
    /// All sizes. While something is dragged only the one looked at is drafted at once; who asks for all has the rest
    /// drafted here.
    const std::vector<Pattern>& patterns() const
    {
        followInAllSizes();
        return m_patterns;
    }
    const Pattern& pattern() const { return m_patterns[m_size]; } ///< of the size that is looked at
    const Mockup& mockup() const;                                 ///< of that size; folded when it is first asked for
    /// What the checks found. While something is dragged they follow a tenth of a second behind; judged() tells when.
    const Findings& findings() const { return m_findings; }
    /// What there is to choose from: the user's, with what the design carries over it in design().library.
    const SharedLibrary& library() const { return m_library; }
    void setLibrary(SharedLibrary library);
    QUndoStack& undoStack() { return m_undo; }
    QString fileName() const { return m_file; }
    const std::string& stamp() const { return m_stamp; } ///< of the file as it was opened or saved
    /// Has somebody else changed or made the file @p file since it was opened or saved here?
    bool changedOnDisk() const;
    bool modified() const { return !m_undo.isClean(); }

    std::size_t size() const { return m_size; }
    Unit unit() const { return m_unit; }
    const PieceId& pieceInHand() const { return m_piece; }
    const StepId& stepInHand() const { return m_step; }
    QString len(double mm) const
    {
        return QString::fromStdString(readersLanguage().length(mm, m_unit));
    } ///< to what can be set
    /// A message in the unit chosen and the reader's language.
    QString words(const Message& message) const
    {
        return QString::fromStdString(tectonis::words(message, m_unit, readersLanguage()));
    }
    /// "340 × 250 × 120 mm": the unit once.
    QString dims(std::initializer_list<double> mm) const;
    QString exact(double mm) const
    {
        return QString::fromStdString(readersLanguage().exactLength(mm, m_unit));
    } ///< for workings and own values
    /// A dimension's value with its unit: a length in the unit chosen, degrees, or a plain count. @p own: as the user
    /// gave it, else to what can be set.
    QString shown(const DimensionSpec& spec, double value, bool own = false) const;
    /// Does the dimension mean anything with the design's choices in the size looked at?
    bool counts(const DimensionSpec& spec) const;

    void setSize(std::size_t index);
    void setUnit(Unit unit);
    void takePiece(const PieceId& key);
    void takeStep(const StepId& id);
    void takeSeam(const SeamId& id) { emit seamTaken(id); } ///< for those who show seams

    /// Makes an undoable edit. A change that cannot be taken leaves everything as it was, emits refused() and returns
    /// false. Edits with the same non-empty @p merge key in a row become one (a drag).
    bool edit(const QString& what, const std::function<void(Design&)>& change, const QString& merge = {});

    /// Returns what there is to tell of the file. @throws InputError if the file cannot be read; the open design stays.
    std::vector<Message> open(const QString& file);
    /// @p stamp: of the file when the design was read from it; empty if there is none.
    void takeOver(Design design, const QString& file, bool asSaved = true, const std::string& stamp = {});
    /// @throws InputError if it cannot be written.
    void save(const QString& file);

signals:
    void changed();     ///< design and everything computed from it
    void judged();      ///< findings: with changed(), or soon after it while something is dragged
    void viewChanged(); ///< size, unit or what is in hand
    void refused(const QString& message);
    void seamTaken(const SeamId& id);
    void toldBesides(const QString& message); ///< what an accepted edit changed besides what was asked
    void fileChanged();

private:
    friend class DesignEdit;
    void set(Design design);
    void become(const std::shared_ptr<KeptDesign>& state);
    void judge();
    void followInAllSizes() const;
    void settle();
    void refuse(const std::exception& refusal);
    QString worded(const InputError& refusal) const;

    void offerLibrary(Design& design);

    std::shared_ptr<KeptDesign> m_state, m_toPack; ///< of the design now; of the one before the last edit

    Design m_design;
    SharedLibrary m_library, m_offered; ///< m_offered: the one of the two that designs have here
    DesignSpec m_spec;
    std::vector<Pattern> m_fresh;            ///< of the edit under way: all sizes, or the one looked at while dragging
    mutable std::vector<Pattern> m_patterns; ///< the others follow when somebody asks, or when the drag is judged
    mutable bool m_behind = false;           ///< do they still have to?
    mutable std::optional<InputError> m_unfit;   ///< why one of them cannot: the design goes back to m_sound
    mutable std::shared_ptr<KeptDesign> m_sound; ///< the last state that was drafted in all sizes
    QString m_drag;                              ///< of the last edit: what it merges with; empty for a plain one
    QString m_wary;          ///< the drag that is drafted in all sizes at every step, for it has failed in one
    bool m_dragging = false; ///< a step of a drag is under way
    QTimer m_judging;
    mutable std::optional<Mockup> m_mockup; ///< empty until somebody looks
    Findings m_findings;
    QUndoStack m_undo;
    QString m_file;
    std::string m_stamp;
    std::size_t m_size = 0;
    Unit m_unit = Unit::Mm;
    PieceId m_piece;
    StepId m_step;
};

} // namespace tectonis
