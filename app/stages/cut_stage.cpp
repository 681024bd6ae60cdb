// SPDX-License-Identifier: GPL-3.0-or-later
// Cut: each material with its marker, length to buy, yield and cost.
#include "bench.hpp"
#include "cutting/lays.hpp"
#include "cutting/purchases.hpp"
#include "fonts.hpp"
#include "library/library.hpp"
#include "purchase_list.hpp"
#include "qtext.hpp"
#include "shell/headings.hpp"
#include "stage.hpp"
#include "stages.hpp"

#include <QComboBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QSignalBlocker>
#include <QTableWidget>
#include <QVBoxLayout>

namespace tectonis {
namespace {

class MarkerBench : public Bench {
public:
    explicit MarkerBench(Document& document) : Bench(document, spoken("Marker on the cloth")) {}
    const Marker* marker = nullptr;
    bool several = false; ///< bags: of which size each piece is, stands on it

protected:
    Box extent() const override
    {
        if (!marker)
            return {0, 0, 100, 100};
        return {0, 0, std::max(marker->soldLength, 50.0), std::max(marker->clothWidth, 60.0)};
    }

    void draw(QPainter& p, const View& v, Labels&) override
    {
        if (!marker)
            return;
        const Theme& t = theme();
        const Box e = extent();
        const QRectF cloth(v({e.x0, e.y1}), v({e.x1, e.y0}));
        p.setPen(QPen(t.muted, 1.2));
        p.setBrush(t.surface);
        p.drawRect(cloth);
        // Selvedges.
        p.setPen(QPen(t.muted, 3));
        p.drawLine(cloth.topLeft(), cloth.topRight());
        p.drawLine(cloth.bottomLeft(), cloth.bottomRight());
        if (marker->clothWidth <= 0) {
            p.setPen(t.ink);
            p.setFont(pixelFont(13));
            p.drawText(cloth, Qt::AlignCenter, spoken("{} by the metre", doc().len(marker->length)));
            return;
        }
        for (const auto& spot : marker->spots) {
            if (!spot.placed)
                continue;
            const CutItem& item = marker->items[spot.item];
            View at = v;
            at.placement = spot.placement;
            const Piece* piece = doc().pattern().piece(item.pieceKey);
            const bool mine = item.pieceKey == doc().pieceInHand();
            p.setPen(QPen(mine ? t.accent : t.dark ? QColor(0xB9B1A3) : QColor(0x5A4F43), mine ? 2 : 1.1));
            p.setBrush(t.groupColor(item.layer ? Coat::Interlining : piece ? piece->coat : Coat::Shell));
            const QPainterPath path = pathOf(alongCloth(item), at, true);
            p.drawPath(path);
            p.setPen(t.ink);
            const QRectF room = path.boundingRect();
            const QString code = several ? text(item.code + " " + item.size) : text(item.code);
            p.setFont(pixelFont(std::clamp(room.height() * 0.3, 8.0, 14.0), QFont::DemiBold));
            // Of dozens of bags, what is too small for its code is read in the list.
            if (!several || (room.height() > 9 && room.width() > p.fontMetrics().horizontalAdvance(code)))
                p.drawText(room.adjusted(-20, -8, 20, 8), Qt::AlignCenter, code);
        }
        const double y = cloth.bottom() + 14;
        p.setPen(t.muted);
        p.setFont(pixelFont(11));
        p.drawText(QRectF(cloth.center().x() - 250, y - 10, 500, 16), Qt::AlignCenter,
            spoken(
                "length along the grain {}, width {}", doc().len(marker->soldLength), doc().len(marker->clothWidth)));
    }

    bool press(Point q, QPointF) override
    {
        for (const auto& spot : marker ? marker->spots : std::vector<MarkerSpot>{})
            if (spot.placed
                && insideOutline(flattened(placed(alongCloth(marker->items[spot.item]), spot.placement), 0.5), q))
                doc().takePiece(marker->items[spot.item].pieceKey);
        return false;
    }
};

class CutStage : public Stage {
public:
    explicit CutStage(Document& document) : Stage(document)
    {
        auto* column = new QVBoxLayout(this);
        column->setContentsMargins(0, 0, 0, 4);
        column->setSpacing(4);
        m_bench = new MarkerBench(document);
        column->addWidget(m_bench, 5);
        m_lists = new QWidget;
        auto* low = new QHBoxLayout(m_lists);
        low->setContentsMargins(8, 0, 8, 0);
        m_materials = table(
            {spoken("Material"), spoken("Cloth width"), spoken("Used"), spoken("Buy"), spoken("Yield"), spoken("Cost")},
            "markers", spoken("Materials with length to buy"));
        m_pieces = table({spoken("Code"), spoken("Piece"), spoken("Cut"), spoken("Width × height")}, "cutList",
            spoken("Pieces of this material"));
        low->addWidget(m_materials, 6);
        low->addWidget(m_pieces, 5);
        column->addWidget(m_lists, 4);
        m_purchases = new PurchaseList(document);
        m_purchases->hide();
        m_purchases->picked = [this](const MaterialId& cloth) {
            for (std::size_t i = 0; i < m_markers.size(); ++i)
                if (m_markers[i].material == cloth)
                    m_materials->setCurrentCell(int(i), 0);
        };
        column->addWidget(m_purchases, 9);
        auto* bar = new QHBoxLayout;
        bar->setContentsMargins(8, 0, 8, 0);
        auto* of = new QLabel(spoken("&Marker for"));
        m_of = new QComboBox;
        m_of->setObjectName("markerFor");
        m_of->setAccessibleName(spoken("Marker for"));
        m_of->setToolTip(spoken("One bag of the size that is looked at; or the run, whose bags are set under What to "
                                "buy, cut together, two dozen at a time"));
        of->setBuddy(m_of);
        bar->addWidget(of);
        bar->addWidget(m_of);
        bar->addStretch(1);
        auto* buy = new QPushButton(spoken("What to buy"));
        buy->setObjectName("purchasesButton");
        buy->setCheckable(true);
        buy->setToolTip(spoken("Cloth and notions for a run of bags, less what is in stock"));
        bar->addWidget(buy);
        column->addLayout(bar);
        connect(buy, &QPushButton::toggled, this, [this, of](bool on) {
            m_bench->setVisible(!on);
            m_lists->setVisible(!on);
            m_purchases->setVisible(on);
            of->setVisible(!on);
            m_of->setVisible(!on);
            fill();
        });
        connect(m_of, &QComboBox::activated, this, [this] {
            fill();
            tellHand();
        });
        connect(m_materials, &QTableWidget::currentCellChanged, this, [this](int r) {
            choose(r);
            tellHand();
        });
        setFocusProxy(m_bench);
    }

    /// The material in hand with its marker, and the piece in hand on it.
    DocketPage docketPage() const override
    {
        const int r = m_materials->currentRow();
        if (r < 0 || r >= int(m_markers.size()))
            return {spoken("Nothing in hand"), {}, {.materials = true, .opened = "materials"}};
        const Marker& m = m_markers[std::size_t(r)];
        const Material& cloth = m_document.pattern().material(m.material);
        DocketPage out{text(cloth.name), {}, {.materials = true, .opened = "materials"}};
        int count = 0, unplaced = 0;
        double area = 0;
        for (const auto& item : m.items)
            count += item.count, area += item.count * areaOf(item.outline);
        for (const auto& spot : m.spots)
            unplaced += spot.placed ? 0 : 1;
        DocketGroup marker{spoken("Marker, {}", m_bags), {}};
        marker.rows.push_back(
            {spoken("Cloth width"), m.clothWidth > 0 ? m_document.len(m.clothWidth) : spoken("by length"), {}});
        marker.rows.push_back({spoken("Length used"), m_document.len(m.length), {}});
        marker.rows.push_back({spoken("To buy"), fixed(m.soldLength / 1000, 1) + " m",
            m.shrinks > 0
                ? QStringList{spoken("the length used ÷ (1 − {} %) for what it shrinks, rounded up to 0.1 m as "
                                     "cloth is sold; trade practice",
                    fixed(m.shrinks, 0))}
                : QStringList{spoken("the length used, rounded up to 0.1 m as cloth is sold; trade practice")}});
        if (m.clothWidth > 0)
            marker.rows.push_back({spoken("Yield"), fixed(m.yield * 100, 0) + " %",
                {spoken("area of the pieces ÷ (cloth width × length used)"),
                    spoken("{} cm² of {} cm²", fixed(area / 100, 0), fixed(m.clothWidth * m.length / 100, 0))}});
        marker.rows.push_back({spoken("Cost"), fixed(m.cost, 2),
            {spoken("{} m × {} a metre", fixed(m.soldLength / 1000, 1), fixed(cloth.price, 2))}});
        marker.rows.push_back({spoken("Pieces"), QString::number(count), {}});
        if (unplaced > 0)
            marker.rows.push_back({spoken("Too wide for the cloth"), QString::number(unplaced), {}, true});
        marker.rows.push_back(
            {spoken("Direction"), cloth.oneWay ? spoken("one way: all upright") : spoken("may lie head to foot"), {}});
        out.groups.push_back(marker);
        for (const auto& item : m.items)
            if (item.pieceKey == m_document.pieceInHand()) {
                const Box b = boundsOf(item.outline);
                out.groups.push_back({m_bench->several
                        ? spoken("{}, size {}", text(say("{}  {}", item.code, item.name)), text(item.size))
                        : text(say("{}  {}", item.code, item.name)),
                    {{spoken("Cut"),
                         item.mirrored ? spoken("{}, {} mirrored", item.count, item.mirrored)
                                       : QString::number(item.count),
                         {}},
                        {spoken("Width × height"), m_document.dims({b.width(), b.height()}), {}},
                        {spoken("Area"), spoken("{} cm²", fixed(areaOf(item.outline) / 100, 1)), {}}}});
            }
        return out;
    }

private:
    static QTableWidget* table(const QStringList& headers, const QString& name, const QString& aloud)
    {
        auto* t = tableToRead(headers, name, aloud);
        for (int c = 0; c < headers.size(); ++c) // fixed: fitting columns to their contents is slow on every drag step
            t->setColumnWidth(c, name == "markers" ? (c == 1 || c == 2 ? 86 : 56) : (c == 0 ? 50 : c == 2 ? 96 : 132));
        t->horizontalHeader()->setSectionResizeMode(name == "markers" ? 0 : 1, QHeaderView::Stretch);
        return t;
    }

    void fill() override
    {
        const int row = std::max(0, m_materials->currentRow());
        m_bench->marker = nullptr;
        makeAll();
        m_materials->setRowCount(int(m_markers.size()) + 1);
        double sum = 0;
        int r = 0;
        const auto put = [&](QTableWidget* t, int row2, int c, const QString& s) {
            t->setItem(row2, c, new QTableWidgetItem(s));
        };
        for (const auto& m : m_markers) {
            put(m_materials, r, 0, text(m_document.pattern().material(m.material).name).section(',', 0, 0));
            put(m_materials, r, 1, m.clothWidth > 0 ? m_document.len(m.clothWidth) : spoken("by length"));
            put(m_materials, r, 2, m_document.len(m.length));
            put(m_materials, r, 3, fixed(m.soldLength / 1000, 1) + " m");
            put(m_materials, r, 4, fixed(m.yield * 100, 0) + " %");
            put(m_materials, r, 5, fixed(m.cost, 2));
            sum += m.cost;
            ++r;
        }
        put(m_materials, r, 0, spoken("Together, {}", m_bags));
        for (int c = 1; c < 5; ++c)
            put(m_materials, r, c, "");
        put(m_materials, r, 5, fixed(sum, 2));
        m_materials->setCurrentCell(std::min(row, int(m_markers.size()) - 1), 0);
        choose(m_materials->currentRow());
        if (m_purchases->isVisibleTo(this))
            m_purchases->fill();
    }

    /// The markers of one bag, or of the lay that is chosen.
    void makeAll()
    {
        const Design& design = m_document.design();
        std::vector<Bags> run;
        const auto bags = bagsOf(design);
        int all = 0;
        for (const auto& each : bags)
            all += each.second;
        if (all > 1) // else there is no run, and the other sizes need not be drafted for it
            for (const auto& pattern : m_document.patterns())
                if (const auto at = bags.find(pattern.size); at != bags.end())
                    run.push_back({&pattern, at->second});
        const int chosen = std::max(0, m_of->currentIndex());
        const std::vector<Lay> lays = all > 1 && chosen > 0 ? laysFor(run) : std::vector<Lay>();
        QStringList names{spoken("one bag, size {}", text(m_document.pattern().size))};
        if (all > 1 && lays.empty())
            names << spoken("the run: {}", inWords(run));
        for (std::size_t i = 0; i < lays.size(); ++i)
            names << (lays.size() == 1 && lays[i].times == 1
                    ? spoken("the run: {}", inWords(lays[i].bags))
                    : spoken("the run, lay {}: {}, cut {} ×", i + 1, inWords(lays[i].bags), lays[i].times));
        const QSignalBlocker quiet(m_of);
        m_of->clear();
        m_of->addItems(names);
        m_of->setEnabled(names.size() > 1);
        m_of->setCurrentIndex(std::min(chosen, int(names.size()) - 1));
        const int lay = m_of->currentIndex() - 1;
        m_bench->several = lay >= 0;
        m_markers = lay >= 0 ? lays[std::size_t(lay)].markers : makeMarkers(m_document.pattern());
        m_bags = lay >= 0 ? inWords(lays[std::size_t(lay)].bags) : spoken("size {}", text(m_document.pattern().size));
    }

    /// "S 2 · M 3"
    static QString inWords(const std::vector<Bags>& bags)
    {
        QStringList out;
        for (const auto& each : bags)
            out << text(each.pattern->size) + " " + QString::number(each.count);
        return out.join("  ·  ");
    }

    void choose(int r)
    {
        if (r < 0 || r >= int(m_markers.size()))
            return;
        const Marker& m = m_markers[std::size_t(r)];
        m_bench->marker = &m;
        m_bench->update();
        m_pieces->setRowCount(int(m.items.size()));
        for (std::size_t i = 0; i < m.items.size(); ++i) {
            const CutItem& item = m.items[i];
            const Box b = boundsOf(item.outline);
            const QString cells[] = {m_bench->several ? text(item.code + " " + item.size) : text(item.code),
                text(item.name),
                item.mirrored ? spoken("{} ({} mirrored)", item.count, item.mirrored) : QString::number(item.count),
                m_document.dims({b.width(), b.height()})};
            for (int c = 0; c < 4; ++c)
                m_pieces->setItem(int(i), c, new QTableWidgetItem(cells[c]));
        }
    }

    MarkerBench* m_bench;
    QTableWidget *m_materials, *m_pieces;
    QWidget* m_lists;
    PurchaseList* m_purchases;
    QComboBox* m_of;
    QString m_bags; ///< that are cut by the markers
    std::vector<Marker> m_markers;
};

} // namespace

QWidget* makeCutStage(Document& document) { return new CutStage(document); }

} // namespace tectonis
