// SPDX-License-Identifier: GPL-3.0-or-later
#include "document.hpp"

#include "kept_design.hpp"

#include "design/carried_library.hpp"
#include "edition/consequences.hpp"
#include "formats/design_file.hpp"
#include "forms/form.hpp"
#include "units/error.hpp"

#include <QUndoCommand>

#include <utility>

#include <algorithm>

namespace tectonis {

/// An edit keeps the states before and after it; neighbours share theirs.
class DesignEdit : public QUndoCommand {
public:
    using State = std::shared_ptr<KeptDesign>;
    DesignEdit(Document& document, const QString& what, State after, QString merge)
        : QUndoCommand(what),
          m_document(document),
          m_before(document.m_state),
          m_after(std::move(after)),
          m_merge(std::move(merge))
    {}
    void undo() override
    {
        m_document.followInAllSizes();
        if (m_document.m_unfit) // a drag that went too far, and was not yet taken back
            m_after = m_document.m_sound;
        m_document.become(m_before);
    }
    void redo() override { m_document.become(m_after); }
    int id() const override { return m_merge.isEmpty() ? -1 : 1; }
    bool mergeWith(const QUndoCommand* other) override
    {
        const auto* next = static_cast<const DesignEdit*>(other);
        if (next->m_merge != m_merge)
            return false;
        m_after = next->m_after;
        setText(next->text());
        setObsolete(m_after->same(*m_before));
        return true;
    }

private:
    Document& m_document;
    State m_before, m_after;
    QString m_merge;
};

Document::Document(QObject* parent) : QObject(parent)
{
    m_judging.setSingleShot(true);
    m_judging.setInterval(100);
    connect(&m_judging, &QTimer::timeout, this, &Document::judge);
    takeOver(newDesign(forms().front()->id()), {});
}

/// A design that comes from elsewhere, or from before the library changed, gets to choose from all that there is.
void Document::offerLibrary(Design& design)
{
    if (!design.library.same(m_offered))
        m_offered = design.library = libraryFor(design, *m_library);
}

void Document::setLibrary(SharedLibrary library)
{
    m_library = std::move(library);
    m_offered = m_design.library = libraryFor(m_design, *m_library);
    emit changed();
}

void Document::become(const std::shared_ptr<KeptDesign>& state)
{
    m_state = state;
    set(state->design());
}

void Document::set(Design design)
{
    // Only valid designs come here, so drafting cannot fail.
    const std::string size = m_size < m_design.sizes.size() ? m_design.sizes[m_size] : design.baseSize;
    offerLibrary(design);
    m_design = std::move(design);
    m_spec = specOf(m_design);
    m_unfit.reset();
    m_behind = m_fresh.size() == 1 && m_design.sizes.size() > 1;
    if (m_behind)
        m_patterns[m_size] = std::move(m_fresh.front()), m_fresh.clear();
    else
        m_patterns = m_fresh.empty() ? draftAll(m_design) : std::exchange(m_fresh, {}), m_sound = m_state;
    const auto it = std::find(m_design.sizes.begin(), m_design.sizes.end(), size);
    m_size = it != m_design.sizes.end() ? std::size_t(it - m_design.sizes.begin())
                                        : sizeIndex(m_design, m_design.baseSize);
    m_mockup.reset();
    if (!pattern().piece(m_piece))
        m_piece = pattern().pieces.empty() ? PieceId() : pattern().pieces.front().key;
    if (!pattern().step(m_step))
        m_step = pattern().steps.empty() ? StepId() : pattern().steps.front().id;
    if (!m_dragging)
        m_findings = checkAll(m_design, m_patterns);
    emit changed();
    if (!m_dragging)
        m_judging.stop(), emit judged();
    else if (!m_judging.isActive())
        m_judging.start();
}

/// Drafts the sizes that a drag left behind. If one cannot be drafted they stay as they were, until judge() takes the
/// design back.
void Document::followInAllSizes() const
{
    if (!std::exchange(m_behind, false))
        return;
    try {
        draftOthers(m_design, m_size, m_patterns);
        m_sound = m_state;
    } catch (const InputError& refusal) {
        m_unfit = refusal;
    }
}

void Document::judge()
{
    m_judging.stop();
    followInAllSizes();
    if (const auto unfit = m_unfit) {
        m_wary = m_drag;
        m_undo.push(new DesignEdit(*this, m_undo.undoText(), m_sound, m_drag));
        refuse(*unfit);
        return;
    }
    m_findings = checkAll(m_design, m_patterns);
    emit judged();
}

/// Nothing that a drag put off is left.
void Document::settle()
{
    if (m_judging.isActive())
        judge();
}

void Document::refuse(const std::exception& refusal)
{
    const auto* input = dynamic_cast<const InputError*>(&refusal);
    emit refused(input ? worded(*input) : spokenReason(refusal));
}

bool Document::edit(const QString& what, const std::function<void(Design&)>& change, const QString& merge)
{
    if (merge.isEmpty() || merge != m_drag)
        settle(), m_wary.clear();
    Design after;
    std::vector<Pattern> fresh;
    try {
        if (merge.isEmpty() || merge == m_wary) {
            Validated next = edited(m_design, change);
            after = std::move(next.design), fresh = std::move(next.patterns);
        } else {
            Sketched next = sketched(m_design, change, m_size);
            after = std::move(next.design);
            if (after.sizes == m_design.sizes)
                fresh.push_back(std::move(next.pattern));
            else
                fresh = validated(after);
        }
    } catch (const std::exception& e) {
        refuse(e);
        return false;
    }
    if (after == m_design)
        return true;
    m_fresh = std::move(fresh); // set() takes these over instead of drafting again
    emit refused({});           // an accepted edit clears the last refusal
    QStringList besides;
    for (const auto& each : fittedBesides(m_design, after))
        besides << text(each, m_unit);
    if (m_design.materials != after.materials) {
        QStringList follows;
        for (const auto& each : consequencesOf(m_design, after))
            follows << text(each.what, m_unit);
        if (!follows.isEmpty())
            besides << spoken("What follows: {}", follows.join("  ·  "));
    }
    m_drag = merge;
    m_dragging = !merge.isEmpty();
    const auto before = m_state;
    const int at = m_undo.index();
    m_undo.push(new DesignEdit(*this, what, std::make_shared<KeptDesign>(std::move(after)), merge));
    if (m_undo.index() > at) { // the edit before this one can no longer go on
        if (m_toPack)
            m_toPack->pack();
        m_toPack = before;
    }
    m_dragging = false;
    m_fresh.clear();
    if (!besides.isEmpty())
        emit toldBesides(besides.join("\n"));
    return true;
}

QString Document::dims(std::initializer_list<double> mm) const
{
    QStringList out;
    for (const double v : mm)
        out << QString::fromStdString(readersLanguage().lengthBare(v, m_unit));
    return out.join(" × ") + " " + QString::fromUtf8(unitSign(m_unit).data());
}

/// A refusal in the words of the window: a dimension that it names as its place goes by its label.
QString Document::worded(const InputError& e) const
{
    std::vector<MessageArgument> place(e.place().arguments().begin(), e.place().arguments().end());
    for (auto& argument : place)
        if (const auto* name = std::get_if<std::string>(&argument))
            if (const auto* spec = m_spec.dimension(*name))
                argument = Label{spec->label};
    return words(e.at(e.place().withArguments(std::move(place))).said());
}

bool Document::counts(const DimensionSpec& spec) const
{
    return tectonis::counts(
        spec, [&](const std::string& name) { return pattern().values.at(name); }, m_design.choices);
}

QString Document::shown(const DimensionSpec& spec, double value, bool own) const
{
    if (spec.quantity == DimensionSpec::Quantity::Length)
        return own && m_unit != Unit::Inch ? exact(value) : len(value);
    return number(value, own ? 2 : 1) + (spec.quantity == DimensionSpec::Quantity::Angle ? "°" : "");
}

void Document::setSize(std::size_t index)
{
    settle();
    if (index >= m_patterns.size() || index == m_size)
        return;
    m_size = index;
    m_mockup.reset();
    emit viewChanged();
}

const Mockup& Document::mockup() const
{
    if (!m_mockup)
        m_mockup = mockupOf(m_design, pattern());
    return *m_mockup;
}

void Document::setUnit(Unit unit)
{
    if (unit == m_unit)
        return;
    m_unit = unit;
    judge();
    emit viewChanged();
}

void Document::takePiece(const PieceId& key)
{
    const Piece* piece = pattern().piece(key);
    if (!piece)
        piece = pattern().piece(key.text()); // a hand knows texts only
    if (!piece || piece->key == m_piece)
        return;
    m_piece = piece->key;
    emit viewChanged();
}

void Document::takeStep(const StepId& id)
{
    const Step* step = pattern().step(id);
    if (!step)
        step = pattern().step(id.text());
    if (!step || step->id == m_step)
        return;
    m_step = step->id;
    emit viewChanged();
}

std::vector<Message> Document::open(const QString& file)
{
    const std::filesystem::path path = file.toStdString();
    const std::string bytes = readWhole(path);
    ReadDesign read = readDesign(bytes, path.filename().string(), *m_library);
    takeOver(std::move(read.design), file, true, stampOfBytes(bytes));
    return std::move(read.told);
}

bool Document::changedOnDisk() const
{
    const std::string now = m_file.isEmpty() ? std::string() : stampOf(m_file.toStdString());
    return !now.empty() && now != m_stamp;
}

void Document::takeOver(Design design, const QString& file, bool asSaved, const std::string& stamp)
{
    validate(design);
    m_undo.clear();
    m_file = file;
    m_stamp = stamp;
    m_size = sizeIndex(design, design.baseSize);
    m_design.sizes.clear(); // so that set() goes to the base size
    if (design.workshop.unit != "any")
        m_unit = unitOf(design.workshop.unit);
    m_toPack.reset();
    become(std::make_shared<KeptDesign>(std::move(design)));
    if (!asSaved)
        m_undo.resetClean();
    emit fileChanged();
}

void Document::save(const QString& file)
{
    settle();
    const std::string bytes = designText(m_design);
    std::optional<FileLock> held; // a command line that is changing it just now comes first
    if (std::error_code none; std::filesystem::is_regular_file(file.toStdString(), none))
        held.emplace(std::filesystem::path(file.toStdString()));
    writeWhole(file.toStdString(), bytes);
    m_file = file;
    m_stamp = stampOfBytes(bytes);
    m_undo.setClean();
    emit fileChanged();
}

} // namespace tectonis
