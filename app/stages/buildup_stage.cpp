// SPDX-License-Identifier: GPL-3.0-or-later
// Build-up: what lies behind every piece, the piece in hand pulled apart, and what lies under the foot at every seam.
#include "buildup/allowance.hpp"
#include "buildup/layers.hpp"
#include "buildup/remedies.hpp"
#include "buildup/strap_ends.hpp"
#include "checks/remedies.hpp"
#include "cutting/load.hpp"
#include "design/limits.hpp"
#include "editing/repair.hpp"
#include "layer_bar.hpp"
#include "layer_pictures.hpp"
#include "library/library.hpp"
#include "pattern/labels.hpp"
#include "qtext.hpp"
#include "shell/headings.hpp"
#include "specification_table.hpp"
#include "stage.hpp"
#include "stages.hpp"
#include "theme.hpp"

#include <QAbstractButton>
#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QTabBar>
#include <QTabWidget>
#include <QTableWidget>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>

namespace tectonis {
namespace {

class BuildupStage : public Stage {
public:
    explicit BuildupStage(Document& document) : Stage(document)
    {
        auto* column = new QVBoxLayout(this);
        column->setContentsMargins(0, 0, 0, 4);
        column->setSpacing(2);
        auto* above = new QWidget;
        auto* pictures = new QHBoxLayout(above);
        pictures->setContentsMargins(0, 0, 0, 0);
        m_apart = new PulledApart(document);
        m_section = new Section(document);
        pictures->addWidget(m_apart, 1);
        pictures->addWidget(m_section);
        column->addWidget(above, 5);
        auto* tabs = new QTabWidget;
        tabs->setObjectName("buildup");
        tabs->setDocumentMode(true);
        tabs->setUsesScrollButtons(false);
        for (auto* unused : tabs->tabBar()->findChildren<QAbstractButton*>())
            unused->setAccessibleName({}); // Qt gives them names in English
        tabs->addTab(makeLayers(), spoken("Pieces and their layers"));
        tabs->addTab(makeSeams(), spoken("Seams under the foot"));
        m_specification = new SpecificationTable(document);
        tabs->addTab(m_specification, spoken("Specification"));
        connect(tabs, &QTabWidget::currentChanged, this, [this, above, tabs] {
            above->setVisible(tabs->currentWidget() != m_specification); // it takes the whole bench
            if (m_specification->isVisible())
                m_specification->fill();
        });
        column->addWidget(tabs, 6);
        m_apart->taken = [this, tabs](int layer) {
            tabs->setCurrentIndex(0);
            m_layers->take({m_document.pieceInHand(), layer});
            mark();
        };
        m_apart->reshaped = [this](int, const std::string& area, const QString& drag) { m_bar->reshape(area, drag); };
        connect(&document, &Document::seamTaken, this, [this, tabs](const SeamId& seam) {
            const auto at = std::find_if(
                m_seams.begin(), m_seams.end(), [&](const SeamId& each) { return each.text() == seam.text(); });
            if (!isVisible() || at == m_seams.end())
                return;
            const int row = int(at - m_seams.begin());
            tabs->setCurrentIndex(1);
            m_table->setCurrentCell(row, 0);
            m_table->scrollToItem(m_table->item(row, 0));
        });
    }

    /// The layers of the piece in hand, and the seam whose section is shown.
    DocketPage docketPage() const override
    {
        const Piece* p = piece();
        DocketPage out{p ? text(say("{}  {}", p->code, p->name)) : spoken("Nothing in hand"), {},
            {.materials = true, .opened = "materials"}};
        if (!p)
            return out;
        const auto facts = [&](const Material& m) {
            return std::vector<DocketRow>{{spoken("Thickness"), m_document.len(m.thickness), {}},
                {spoken("Under the foot"), m_document.len(m.underFoot()),
                    {spoken("{} of its thickness is left under the foot", m.compressed)}},
                {spoken("Weight"), number(m.gsm, 0) + " g/m²", {}},
                {spoken("Iron"), m.heat ? spoken("bears it") : spoken("harms it"), {}}};
        };
        const Pattern& pattern = m_document.pattern();
        const auto stiff = [](Stiffness s) {
            return DocketRow{spoken("Stiffness"), text(labelled(nameOf(s))), {text(labelled(meaningOf(s)))}};
        };
        out.groups.push_back({spoken("The piece with its layers"),
            {{spoken("Thickness"), m_document.len(thicknessOf(pattern, *p)), {}},
                {spoken("Weight"), number(weightOf(pattern, *p), 0) + " g", {spoken("of all {} copies", p->count)}},
                stiff(stiffnessOf(pattern, *p))}});
        // What its seams want, beside what they have.
        DocketGroup seams{spoken("Its seams' allowances"), {}};
        for (const auto& seam : pattern.seams)
            if (const auto of = [&](const EdgeUse& use) { return use.piece == p->key; }; seam.stitch == "construction"
                && (std::any_of(seam.a.begin(), seam.a.end(), of) || std::any_of(seam.b.begin(), seam.b.end(), of))) {
                const LeastAllowance least = leastAllowance(pattern, seam);
                seams.rows.push_back({text(seam.name),
                    spoken("{}, at least {}", m_document.len(seam.allowance), m_document.len(least.least)),
                    rowOf(m_document, least.working(SubjectId(seam.key.text()))).details});
            }
        if (!seams.rows.empty())
            out.groups.push_back(std::move(seams));
        out.groups.push_back({spoken("The whole bag"),
            {rowOf(m_document, loadOf(m_document.design(), pattern).bagWorking(SubjectId("bag"))),
                stiff(stiffnessOf(pattern))}});
        const auto face = m_document.pattern().materials.find(p->material);
        if (face != m_document.pattern().materials.end())
            out.groups.push_back({spoken("Face: {}", text(m_document.pattern().material(face->second).name)),
                facts(m_document.pattern().material(face->second))});
        for (const auto& l : p->layers) {
            DocketGroup layer{text(l.code) + ": " + text(m_document.pattern().material(l.material).name),
                {{spoken("Fixing"), text(roleLabel(l.fixing)), {}}, {spoken("Trim"), "", {}},
                    {spoken("Area"), spoken("{} cm²", number(areaOf(l.outline) / 100, 1)),
                        {spoken("of its own outline")}}}};
            layer.rows[1] = {spoken("Trim: {}", text(l.trim, m_document.unit())), "", {}};
            const auto more = facts(m_document.pattern().material(l.material));
            layer.rows.insert(layer.rows.end(), more.begin(), more.begin() + 2);
            out.groups.push_back(layer);
        }
        const Seam* s = m_document.pattern().seam(m_section->seam);
        const auto ends = s ? std::vector<StrapEnd>() : strapEnds(m_document.pattern());
        const auto end = std::find_if(
            ends.begin(), ends.end(), [&](const StrapEnd& e) { return e.piece == m_section->strap; });
        if (s || end != ends.end()) {
            const Bulk bulk = s ? bulkAt(m_document.pattern(), *s) : end->bulk;
            const double limit = m_document.design().workshop.machineLimit;
            DocketGroup seam{s ? spoken("Seam: {}", text(s->name)) : m_document.words(end->name), {}};
            for (const auto& part : bulk.parts)
                seam.rows.push_back({QString("%1 × %2").arg(part.times).arg(text(part.label(m_document.pattern()))),
                    m_document.len(part.each * part.times), {}});
            seam.rows.push_back({spoken("Under the foot"), m_document.len(bulk.underFoot),
                {spoken("the sum of the rows above")}, bulk.underFoot > limit});
            if (bulk.atCrossing > bulk.underFoot)
                seam.rows.push_back({spoken("Where it crosses {}", text(bulk.crossing)),
                    m_document.len(bulk.atCrossing), {}, bulk.atCrossing > limit});
            if (s && isTopstitched(m_document.pattern(), *s)) {
                const Bulk row = bulkUnderTopstitch(m_document.pattern(), *s);
                seam.rows.push_back({spoken("Topstitched"), m_document.len(row.underFoot), {}, row.underFoot > limit});
                if (row.atCrossing > row.underFoot)
                    seam.rows.push_back({spoken("Topstitched across {}", text(row.crossing)),
                        m_document.len(row.atCrossing), {}, row.atCrossing > limit});
            }
            seam.rows.push_back({spoken("The machine takes"), m_document.len(limit), {}});
            out.groups.push_back(seam);
        }
        return out;
    }

private:
    const Piece* piece() const { return m_document.pattern().piece(m_document.pieceInHand()); }

    QWidget* makeLayers()
    {
        auto* page = new QWidget;
        auto* column = new QVBoxLayout(page);
        column->setContentsMargins(0, 0, 0, 0);
        column->setSpacing(0);
        m_layers = new LayerMatrix(m_document);
        m_bar = new LayerBar(m_document, *m_layers);
        column->addWidget(m_bar);
        column->addWidget(m_layers, 1);
        connect(m_layers, &LayerMatrix::picked, this, &BuildupStage::mark);
        return page;
    }

    QWidget* makeSeams()
    {
        auto* page = new QWidget;
        auto* column = new QVBoxLayout(page);
        column->setContentsMargins(0, 0, 0, 0);
        column->setSpacing(0);
        auto* bar = new QHBoxLayout;
        bar->setContentsMargins(8, 2, 8, 2);
        m_limit = new QLineEdit;
        m_limit->setFixedWidth(70);
        m_limit->setAccessibleName(spoken("What the machine takes"));
        m_workshop = new QComboBox;
        m_workshop->setObjectName("workshop");
        m_workshop->setAccessibleName(spoken("Machine"));
        m_workshop->setToolTip(
            spoken("The machine, with what it takes under the foot, its foot, its speed and your rates"));
        m_workshop->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        m_workshop->setMinimumContentsLength(13);
        m_workshop->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
        bar->addWidget(m_workshop, 1);
        bar->addWidget(new QLabel(spoken("takes")));
        bar->addWidget(m_limit);
        bar->addStretch(1);
        m_thinner = new QToolButton;
        m_thinner->setObjectName("thinner");
        m_thinner->setText(spoken("Make it thinner"));
        m_thinner->setPopupMode(QToolButton::InstantPopup);
        auto* menu = new QMenu(m_thinner);
        menu->setToolTipsVisible(true);
        m_thinner->setMenu(menu);
        connect(menu, &QMenu::aboutToShow, this, [this, menu] { fillRemedies(*menu); });
        bar->addWidget(m_thinner);
        column->addLayout(bar);
        m_table = new QTableWidget(0, 5);
        m_table->setObjectName("bulk");
        m_table->setAccessibleName(spoken("Thickness at every seam"));
        Headings::over(*m_table);
        m_table->setHorizontalHeaderLabels({spoken("Seam"), spoken("At the seam"), spoken("At the crossing"),
            spoken("Topstitched"), spoken("Crossed by")});
        m_table->verticalHeader()->hide();
        m_table->verticalHeader()->setDefaultSectionSize(25);
        m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
        for (const auto& [c, wide] : {std::pair{1, 98}, {2, 122}, {3, 98}})
            m_table->horizontalHeader()->setSectionResizeMode(c, QHeaderView::Fixed), m_table->setColumnWidth(c, wide);
        m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
        m_table->setSelectionBehavior(QAbstractItemView::SelectRows);
        column->addWidget(m_table, 1);
        connect(m_workshop, &QComboBox::activated, this, [this] {
            const std::string name = m_workshop->currentText().toStdString();
            m_document.edit(spoken("Machine"), [&](Design& d) { change::workshop(d, name); });
            if (const std::string& unit = m_document.design().workshop.unit; unit != "any")
                m_document.setUnit(unitOf(unit));
            fill();
        });
        connect(m_limit, &QLineEdit::editingFinished, this, [this] {
            const std::string typed = m_limit->text().toStdString();
            m_document.edit(spoken("Machine limit"), [&](Design& d) {
                d.workshop.machineLimit = within(say("machine limit"), parseLength(typed, m_document.unit()), 1, 40);
            });
            fill();
        });
        connect(m_table, &QTableWidget::currentCellChanged, this, [this](int row) {
            if (row >= 0 && row < m_table->rowCount()) {
                show(row);
                tellHand();
            }
        });
        return page;
    }

    /// The seam of a row, or the end of a strap.
    void show(int row)
    {
        const auto at = std::size_t(std::max(row, 0));
        const bool end = at >= m_seams.size();
        m_section->seam = end ? SeamId() : m_seams[at];
        m_section->strap = end && at - m_seams.size() < m_ends.size() ? m_ends[at - m_seams.size()] : PieceId();
        m_thinner->setToolTip(
            spoken("What makes less of the chosen seam or end lie under the foot, in the order of the "
                   "trade"));
        m_section->update();
    }

    /// All remedies for the seam or strap end in hand: what is done is ticked and can be taken back, what is no use is
    /// dim and says why.
    void fillRemedies(QMenu& menu)
    {
        menu.clear();
        const Pattern& pattern = m_document.pattern();
        const Design& design = m_document.design();
        if (const Seam* seam = pattern.seam(m_section->seam)) {
            const ThickSpot spot = worstSpot(pattern, *seam);
            for (const Remedy& remedy : remediesFor(pattern, *seam, spot)) {
                const Message label = remedy.whyNot.empty() ? inWords(remedy, spot) : tectonis::nameOf(remedy, spot);
                QAction& action = addRemedy(menu, label, repairOf(design, remedy, spot), remedy.done);
                action.setToolTip(m_document.words(remedy.whyNot));
            }
        }
        for (const StrapEnd& end : strapEnds(pattern))
            if (end.piece == m_section->strap)
                for (const EndRemedy& remedy : remediesForEnd(design, specOf(design), pattern, end))
                    addRemedy(menu, inWords(remedy), Repair{remedy.label, {remedy.assignment}}, remedy.done);
    }

    QAction& addRemedy(QMenu& menu, const Message& label, const std::optional<Repair>& repair, bool done)
    {
        QAction* action = menu.addAction(m_document.words(label));
        action->setCheckable(true);
        action->setChecked(done);
        action->setEnabled(repair.has_value());
        if (repair)
            connect(
                action, &QAction::triggered, this,
                [this, way = Finding{.size = m_document.pattern().size, .repair = repair}] {
                    m_document.edit(m_document.words(way.repair->label), [&](Design& d) { change::repair(d, way); });
                    fill();
                },
                Qt::QueuedConnection);
        return *action;
    }

    /// The layer in hand is marked in the picture.
    void mark()
    {
        m_apart->inHand = m_layers->inHand().layer;
        m_apart->update();
        tellHand();
    }

    /// The library's workshops, and the design's own where it is none of them.
    void fillWorkshops()
    {
        const std::string& own = m_document.design().workshop.machine;
        m_workshop->clear();
        for (const auto& w : m_document.design().library->workshops())
            m_workshop->addItem(text(w.machine));
        if (m_workshop->findText(text(own)) < 0)
            m_workshop->addItem(text(own));
        m_workshop->setCurrentText(text(own));
    }

    void fill() override
    {
        m_layers->fill();
        m_bar->fill();
        m_apart->inHand = m_layers->inHand().layer;
        if (m_specification->isVisible())
            m_specification->fill();
        fillWorkshops();
        m_limit->setText(m_document.len(m_document.design().workshop.machineLimit));
        const auto& seams = m_document.pattern().seams;
        const int row = std::max(0, m_table->currentRow());
        const auto ends = strapEnds(m_document.pattern());
        m_table->setRowCount(int(seams.size() + ends.size()));
        const double limit = m_document.design().workshop.machineLimit;
        int i = 0;
        m_seams.clear();
        m_ends.clear();
        const auto put = [&](int c, const QString& value, bool bad) {
            auto* item = new QTableWidgetItem(value);
            item->setForeground(bad ? theme().error : theme().ink);
            m_table->setItem(i, c, item);
        };
        Bulks bulks(m_document.pattern());
        for (const auto& s : seams) {
            const Bulk bulk = bulks.at(s);
            m_seams.push_back(s.key);
            put(0, text(s.name), false);
            put(1, m_document.len(bulk.underFoot), bulk.underFoot > limit);
            put(2, m_document.len(bulk.atCrossing), bulk.atCrossing > limit);
            const double stitched = isTopstitched(m_document.pattern(), s) ? bulks.underTopstitch(s).atCrossing : 0;
            put(3, stitched > 0 ? m_document.len(stitched) : QString(), stitched > limit);
            put(4, text(bulk.crossing), false);
            ++i;
        }
        for (const auto& end : ends) {
            m_ends.push_back(end.piece);
            put(0, m_document.words(end.name), false);
            put(1, m_document.len(end.bulk.underFoot), end.bulk.underFoot > limit);
            for (const int c : {2, 3, 4})
                put(c, {}, false);
            ++i;
        }
        m_table->setCurrentCell(std::min(row, m_table->rowCount() - 1), 0);
        show(m_table->currentRow());
    }

    PulledApart* m_apart;
    LayerMatrix* m_layers;
    LayerBar* m_bar;
    SpecificationTable* m_specification;
    QTableWidget* m_table;
    Section* m_section;
    std::vector<SeamId> m_seams; ///< of the table's rows, then the ends
    std::vector<PieceId> m_ends;
    QToolButton* m_thinner;
    QComboBox* m_workshop;
    QLineEdit* m_limit;
};

} // namespace

QWidget* makeBuildupStage(Document& document) { return new BuildupStage(document); }

} // namespace tectonis
