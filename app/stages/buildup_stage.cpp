// SPDX-License-Identifier: GPL-3.0-or-later
// Build-up: the layers of the piece in hand pulled apart, and what lies under the foot at every seam.
#include "buildup/layers.hpp"
#include "design/limits.hpp"
#include "fonts.hpp"
#include "library/library.hpp"
#include "picture.hpp"
#include "qtext.hpp"
#include "shell/headings.hpp"

#include "pattern/labels.hpp"
#include "shell/library_menu.hpp"
#include "stage.hpp"
#include "stages.hpp"
#include "theme.hpp"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPainter>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include <algorithm>

namespace tectonis {
namespace {

/// The face and its layers, one below the other, seen from above at a slant.
class PulledApart : public Picture {
public:
    explicit PulledApart(Document& document) : Picture(document, spoken("Layers of the piece in hand, pulled apart"))
    {
        setMinimumHeight(180);
    }

protected:
    void paintEvent(QPaintEvent*) override
    {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const Theme& t = theme();
        p.fillRect(rect(), t.bench);
        const Piece* piece = m_document.pattern().piece(m_document.pieceInHand());
        if (!piece)
            return;
        const Box box = boundsOf(piece->cut);
        const int n = int(piece->layers.size()) + 1;
        // Slanted: height shrinks to 0.5, and x leans with y.
        constexpr double squash = 0.34, lean = 0.28;
        const double labelWidth = 250, w = box.width() + box.height() * lean, h = box.height() * squash;
        const double scale = std::min((width() - labelWidth - 60) / w, (height() - 36) / (h * (1 + 0.85 * (n - 1))));
        const double lift = std::min(110.0, 0.85 * h * scale); // each layer shows most of itself under the one above
        for (int i = n - 1; i >= 0; --i) {                     // the face lies on top
            const double x = 30, y = 20 + h * scale + i * lift;
            p.save();
            const QTransform slant(
                1, 0, -lean, squash, x - box.x0 * scale - box.y0 * scale * lean, y + box.y0 * scale * squash);
            p.setTransform(slant, true);
            View v;
            v.scale = scale;
            PieceLook look = t.pieceLook(piece->coat);
            look.label = false, look.marks = false;
            if (i == 0)
                drawPiece(p, v, *piece, look);
            else {
                p.setPen(Qt::NoPen);
                p.setBrush(t.surface);
                p.drawPath(pathOf(piece->layers[std::size_t(i) - 1].outline, v, true));
                drawLayer(p, v, piece->layers[std::size_t(i) - 1], look.layer, 1.2);
            }
            p.restore();
            const QString name = i == 0
                ? text(m_document.pattern().material(m_document.pattern().materials.at(piece->material)).name)
                : text(m_document.pattern().material(piece->layers[std::size_t(i) - 1].material).name);
            const QString detail = i == 0
                ? spoken("face, {} thick",
                    m_document.len(
                        m_document.pattern().material(m_document.pattern().materials.at(piece->material)).thickness))
                : text(say("{}  {}, {}", piece->layers[std::size_t(i) - 1].code,
                           roleLabel(piece->layers[std::size_t(i) - 1].fixing), piece->layers[std::size_t(i) - 1].trim),
                    m_document.unit());
            const double tx = width() - labelWidth, ty = 18 + i * std::max(lift, 54.0);
            p.setPen(QPen(t.muted, 1));
            p.drawLine(QPointF(x + w * scale - 6, y - h * scale * 0.5), QPointF(tx - 8, ty + 8));
            p.setPen(t.ink);
            p.setFont(pixelFont(13, QFont::DemiBold));
            p.drawText(QRectF(tx, ty - 4, labelWidth - 8, 18), Qt::AlignLeft | Qt::AlignVCenter, name);
            p.setFont(pixelFont(12));
            p.setPen(t.muted);
            p.drawText(
                QRectF(tx, ty + 13, labelWidth - 8, 34), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, detail);
        }
    }
};

/// A section through the chosen seam, magnified, beside the machine's limit.
class Section : public Picture {
public:
    explicit Section(Document& document) : Picture(document, spoken("Section through the chosen seam"))
    {
        setFixedWidth(300);
    }
    SeamId seam;

protected:
    void paintEvent(QPaintEvent*) override
    {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const Theme& t = theme();
        p.fillRect(rect(), t.bench);
        const Seam* s = m_document.pattern().seam(seam);
        if (!s)
            return;
        const Bulk bulk = bulkAt(m_document.pattern(), *s);
        const double limit = m_document.design().workshop.machineLimit;
        const double scale = (height() - 66) / std::max({limit, bulk.atCrossing, 1.0}) * 0.92;
        p.setPen(t.ink);
        p.setFont(pixelFont(13, QFont::DemiBold));
        p.drawText(QRectF(12, 6, width() - 24, 20), Qt::AlignLeft, text(s->name));
        const double floor = height() - 26.0, left = 14, w = 88;
        double y = floor;
        int k = 0;
        double labelY = floor;
        for (const auto& part : bulk.parts)
            for (int i = 0; i < part.times; ++i, ++k) {
                const double h = part.each * scale;
                const bool inter = part.layer != nullptr;
                p.setPen(QPen(t.dark ? QColor(0xB9B1A3) : QColor(0x5A4F43), 1));
                p.setBrush(inter ? t.interlining : k % 2 ? t.shell.darker(108) : t.shell);
                p.drawRect(QRectF(left, y - h, w, h));
                if (i == part.times / 2) {
                    labelY = std::min(labelY - 15, y - h / 2);
                    p.setPen(t.ink);
                    p.setFont(pixelFont(11));
                    p.drawText(QRectF(left + w + 8, labelY - 8, width() - left - w - 10, 16),
                        Qt::AlignLeft | Qt::AlignVCenter,
                        (part.times > 1 ? QString("%1 × ").arg(part.times) : QString())
                            + text(part.label(m_document.pattern())).left(24) + "  "
                            + m_document.len(part.each * part.times));
                }
                y -= h;
            }
        const double ly = floor - limit * scale;
        p.setPen(QPen(t.error, 1.6, Qt::DashLine));
        p.drawLine(QPointF(4, ly), QPointF(width() - 4, ly));
        p.setPen(t.error);
        p.setFont(pixelFont(11, QFont::Medium));
        p.drawText(
            QRectF(4, ly - 17, width() - 8, 16), Qt::AlignRight, spoken("machine takes {}", m_document.len(limit)));
        p.setPen(bulk.underFoot > limit ? t.error : t.ink);
        p.setFont(pixelFont(12, QFont::DemiBold));
        p.drawText(QRectF(12, height() - 22, width() - 20, 18), Qt::AlignLeft,
            spoken("under the foot: {}", m_document.len(bulk.underFoot)));
    }
};

class BuildupStage : public Stage {
public:
    explicit BuildupStage(Document& document) : Stage(document)
    {
        auto* column = new QVBoxLayout(this);
        column->setContentsMargins(0, 0, 0, 4);
        column->setSpacing(4);
        column->addWidget(new PulledApart(document), 5);
        auto* bar = new QHBoxLayout;
        bar->setContentsMargins(8, 0, 8, 0);
        m_scope = new QComboBox;
        m_scope->setAccessibleName(spoken("Layers for this role or this piece"));
        m_material = new QComboBox;
        m_material->setAccessibleName(spoken("Interlining to add"));
        m_trim = new QComboBox;
        m_trim->setEditable(true);
        m_trim->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        m_trim->setMinimumContentsLength(6);
        m_trim->setAccessibleName(spoken("Trim"));
        m_trim->addItems({"stitch", "full", "inset 3", "rows 30", "diamonds 40"});
        m_trim->setToolTip(spoken(
            "full: to the cut line; stitch: to the stitch line; inset 3: 3 mm inside it; rows 30 or diamonds 40: "
            "quilted to its cloth, so many mm apart, before that is cut to shape"));
        auto* add = new QPushButton(spoken("Put behind"));
        auto* remove = new QPushButton(spoken("Take away"));
        m_limit = new QLineEdit;
        m_limit->setFixedWidth(70);
        m_limit->setAccessibleName(spoken("What the machine takes"));
        bar->addWidget(m_scope);
        bar->addWidget(m_material);
        bar->addWidget(m_trim);
        bar->addWidget(add);
        bar->addWidget(remove);
        bar->addSpacing(12);
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
        column->addLayout(bar);
        auto* low = new QHBoxLayout;
        low->setContentsMargins(8, 0, 0, 0);
        m_table = new QTableWidget(0, 4);
        m_table->setObjectName("bulk");
        m_table->setAccessibleName(spoken("Thickness at every seam"));
        Headings::over(*m_table);
        m_table->setHorizontalHeaderLabels(
            {spoken("Seam"), spoken("At the seam"), spoken("At the crossing"), spoken("Crossed by")});
        m_table->verticalHeader()->hide();
        m_table->verticalHeader()->setDefaultSectionSize(25);
        m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
        for (const auto& [c, wide] : {std::pair{1, 98}, {2, 122}})
            m_table->horizontalHeader()->setSectionResizeMode(c, QHeaderView::Fixed), m_table->setColumnWidth(c, wide);
        m_table->setEditTriggers(QAbstractItemView::NoEditTriggers);
        m_table->setSelectionBehavior(QAbstractItemView::SelectRows);
        m_section = new Section(document);
        low->addWidget(m_table, 1);
        low->addWidget(m_section);
        column->addLayout(low, 6);
        connect(add, &QPushButton::clicked, this, [this] { change(true); });
        connect(remove, &QPushButton::clicked, this, [this] { change(false); });
        connect(m_workshop, &QComboBox::activated, this, [this] {
            const std::string name = m_workshop->currentText().toStdString();
            m_document.edit(spoken("Machine"), [&](Design& d) { change::workshop(d, name); });
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
                m_section->seam = m_table->item(row, 0)->data(Qt::UserRole).toString().toStdString();
                m_section->update();
                tellHand();
            }
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
        if (const Seam* s = m_document.pattern().seam(m_section->seam)) {
            const Bulk bulk = bulkAt(m_document.pattern(), *s);
            const double limit = m_document.design().workshop.machineLimit;
            DocketGroup seam{spoken("Seam: {}", text(s->name)), {}};
            for (const auto& part : bulk.parts)
                seam.rows.push_back({QString("%1 × %2").arg(part.times).arg(text(part.label(m_document.pattern()))),
                    m_document.len(part.each * part.times), {}});
            seam.rows.push_back({spoken("Under the foot"), m_document.len(bulk.underFoot),
                {spoken("the sum of the rows above")}, bulk.underFoot > limit});
            if (bulk.atCrossing > bulk.underFoot)
                seam.rows.push_back({spoken("Where it crosses {}", text(bulk.crossing)),
                    m_document.len(bulk.atCrossing), {}, bulk.atCrossing > limit});
            seam.rows.push_back({spoken("The machine takes"), m_document.len(limit), {}});
            out.groups.push_back(seam);
        }
        return out;
    }

private:
    const Piece* piece() const { return m_document.pattern().piece(m_document.pieceInHand()); }

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
        fillMaterials(*m_material, *m_document.design().library, "interlining");
        const int kept = m_scope->currentIndex();
        m_scope->clear();
        if (const Piece* p = piece()) {
            m_scope->addItem(spoken("every {}", text(roleLabel(p->role))), text(p->role));
            m_scope->addItem(spoken("only {}", text(say("{} {}", p->code, p->name))), text(p->key));
            m_scope->setCurrentIndex(std::max(0, kept));
        }
        fillWorkshops();
        m_limit->setText(m_document.len(m_document.design().workshop.machineLimit));
        const auto& seams = m_document.pattern().seams;
        const int row = std::max(0, m_table->currentRow());
        m_table->setRowCount(int(seams.size()));
        const double limit = m_document.design().workshop.machineLimit;
        int i = 0;
        for (const auto& s : seams) {
            const Bulk bulk = bulkAt(m_document.pattern(), s);
            const auto put = [&](int c, const QString& value, bool bad) {
                auto* item = new QTableWidgetItem(value);
                item->setData(Qt::UserRole, text(s.key));
                item->setForeground(bad ? theme().error : theme().ink);
                m_table->setItem(i, c, item);
            };
            put(0, text(s.name), false);
            put(1, m_document.len(bulk.underFoot), bulk.underFoot > limit);
            put(2, m_document.len(bulk.atCrossing), bulk.atCrossing > limit);
            put(3, text(bulk.crossing), false);
            ++i;
        }
        m_table->setCurrentCell(std::min(row, int(seams.size()) - 1), 0);
        m_section->seam = seams.empty() ? SeamId() : seams[std::size_t(std::min(row, int(seams.size()) - 1))].key;
    }

    void change(bool add)
    {
        const Piece* p = piece();
        if (!p)
            return;
        const std::string scope = m_scope->currentData().toString().toStdString(),
                          id = m_material->currentData().toString().toStdString(),
                          trim = m_trim->currentText().trimmed().toStdString();
        m_document.edit(add ? spoken("Put an interlining behind") : spoken("Take an interlining away"), [&](Design& d) {
            if (add)
                change::putBehind(d, m_document.pattern(), {.pieces = scope, .material = id, .trim = trim});
            else
                change::takeFromBehind(d, m_document.pattern(), scope);
        });
    }

    QTableWidget* m_table;
    Section* m_section;
    QComboBox *m_scope, *m_material, *m_trim;
    QComboBox* m_workshop;
    QLineEdit* m_limit;
};

} // namespace

QWidget* makeBuildupStage(Document& document) { return new BuildupStage(document); }

} // namespace tectonis
