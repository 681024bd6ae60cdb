// SPDX-License-Identifier: GPL-3.0-or-later
// Brief: the form, the bag folded up with its main dimensions as handles, and the things it carries.
#include "application.hpp"
#include "design/limits.hpp"
#include "features/feature.hpp"
#include "fonts.hpp"
#include "forms/form.hpp"
#include "mockup/carry.hpp"
#include "mockup_view.hpp"
#include "pattern/labels.hpp"
#include "qtext.hpp"
#include "shell/headings.hpp"
#include "stage.hpp"
#include "stages.hpp"
#include "units/mass.hpp"

#include <QAbstractButton>
#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QMenu>
#include <QMessageBox>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <QSlider>
#include <QTableWidget>
#include <QVBoxLayout>

namespace tectonis {
namespace {

/// The room inside the body; null if the form has none. Pockets are spaces too, and may come first.
const Space* mainSpaceOf(const Pattern& p)
{
    const auto it = std::find_if(p.spaces.begin(), p.spaces.end(), [](const Space& s) { return s.place == "main"; });
    return it == p.spaces.end() ? nullptr : &*it;
}

/// A form or a feature as its drawn silhouette.
class DrawnButton : public QAbstractButton {
public:
    DrawnButton(
        const QString& name, const QString& meaning, std::vector<Run> drawing, QSize size, QWidget* parent = nullptr)
        : QAbstractButton(parent), m_drawing(std::move(drawing))
    {
        setText(name);
        setFixedSize(size);
        setAccessibleName(name);
        setToolTip(meaning);
        setFocusPolicy(Qt::StrongFocus);
    }
    std::function<void()> pointed; ///< called when the pointer comes onto it

protected:
    void paintEvent(QPaintEvent*) override
    {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        if (!isEnabled())
            p.setOpacity(0.38);
        const Theme& t = theme();
        const double words = height() > 70 ? 28 : 16;
        p.setPen(QPen(isChecked() || hasFocus() ? t.accent : t.line, isChecked() ? 1.8 : 1));
        p.setBrush(underMouse() ? t.bench : t.surface);
        p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 6, 6);
        const View v = View::fit(Box{0, 0, 100, 106}, QRectF(8, 4, width() - 16, height() - words - 6));
        p.setPen(QPen(t.ink, 1.3));
        for (const auto& run : m_drawing) {
            p.setBrush(distance(startOf(run), endOf(run)) < 1e-6 ? QBrush(t.shell) : Qt::NoBrush);
            p.drawPath(pathOf(run, v));
        }
        p.setPen(t.ink);
        const QRectF room(2, height() - words - 2, width() - 4, words);
        for (const double size : {10.5, 9.5, 8.5, 7.5}) { // a long name is written smaller rather than cut off
            p.setFont(pixelFont(size));
            const QRectF taken = p.boundingRect(room, Qt::AlignCenter | Qt::TextWordWrap, text());
            if (taken.height() <= room.height() + 1 && taken.width() <= room.width() + 1)
                break;
        }
        p.drawText(room, Qt::AlignCenter | Qt::TextWordWrap, text());
    }
    void enterEvent(QEnterEvent*) override
    {
        update();
        if (pointed)
            pointed();
    }
    void leaveEvent(QEvent*) override { update(); }

private:
    std::vector<Run> m_drawing;
};

class BriefStage : public Stage {
public:
    explicit BriefStage(Document& document) : Stage(document)
    {
        auto* row = new QHBoxLayout(this);
        row->setContentsMargins(6, 0, 0, 0);
        // On a low screen the drawings scroll rather than being cut off.
        auto* shelf = new QWidget;
        m_formGrid = new QGridLayout(shelf);
        m_formGrid->setContentsMargins(0, 0, 0, 0);
        m_formGrid->setSpacing(4);
        for (const Form* form : tectonis::forms()) {
            auto* b = new DrawnButton(
                spokenName(form->name()), spokenName(form->meaning()), form->silhouette(), {80, 83}, this);
            b->setCheckable(true);
            b->setObjectName("form." + text(form->id()));
            connect(b, &QAbstractButton::clicked, this, [this, form] {
                takeForm(*form);
                fill();
            });
            m_forms.push_back({form->id(), b});
        }
        m_formScroll = new QScrollArea;
        m_formScroll->setWidget(shelf);
        m_formScroll->setWidgetResizable(true);
        m_formScroll->setFrameShape(QFrame::NoFrame);
        m_formScroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
        layForms(2);
        row->addWidget(m_formScroll);
        auto* column = new QVBoxLayout;
        column->setSpacing(4);
        m_view = new MockupView(document);
        m_view->setObjectName("mockup");
        m_view->setMinimumHeight(104);
        column->addWidget(m_view, 1);
        m_fit = new QLabel;
        m_fit->setObjectName("fitSummary");
        addLooks(column);
        auto* bar = new QHBoxLayout;
        auto* add = new QPushButton(spoken("Add a thing"));
        connect(add, &QPushButton::clicked, this, [this] {
            m_document.edit(spoken("Add a thing to carry"), [](Design& d) {
                d.carried.push_back({spoken("New thing").toStdString(), 100, 100, 20, "main"});
            });
        });
        auto* drop = new QPushButton(spoken("Remove"));
        connect(drop, &QPushButton::clicked, this, [this] {
            const int i = m_table->currentRow();
            if (i >= 0)
                m_document.edit(
                    spoken("Remove a thing to carry"), [i](Design& d) { d.carried.erase(d.carried.begin() + i); });
        });
        m_fit->setWordWrap(true);
        bar->addWidget(m_fit, 1);
        bar->addWidget(add);
        bar->addWidget(drop);
        column->addLayout(bar);
        m_table = new QTableWidget(0, 7);
        m_table->setObjectName("carried");
        m_table->setAccessibleName(spoken("Things to carry"));
        Headings::over(*m_table);
        m_table->setHorizontalHeaderLabels({spoken("Thing to carry"), spoken("Width"), spoken("Height"),
            spoken("Thickness"), spoken("Goes into"), spoken("Does it fit?"), spoken("Weight")});
        m_table->verticalHeader()->hide();
        m_table->verticalHeader()->setDefaultSectionSize(27);
        m_table->setMinimumHeight(54);
        m_table->setMaximumHeight(122);
        m_table->horizontalHeader()->setSectionResizeMode(QHeaderView::Fixed);
        m_table->horizontalHeader()->setSectionResizeMode(5, QHeaderView::Stretch);
        for (const auto& [c, w] : {std::pair{0, 150}, {1, 72}, {2, 72}, {3, 80}, {4, 120}, {6, 64}})
            m_table->setColumnWidth(c, w);
        column->addWidget(m_table);
        row->addLayout(column, 1);
        connect(m_table, &QTableWidget::cellChanged, this, &BriefStage::typed);
        connect(m_table, &QTableWidget::currentCellChanged, this, [this] {
            if (!m_filling)
                tellHand();
        });
        // One click edits what can be edited.
        connect(m_table, &QTableWidget::cellClicked, this, [this](int r, int c) {
            if (QTableWidgetItem* item = m_table->item(r, c); item && (item->flags() & Qt::ItemIsEditable))
                m_table->editItem(item);
        });
        setFocusProxy(m_view);
    }

    DocketPage docketPage() const override
    {
        const Pattern& p = m_document.pattern();
        const Design& d = m_document.design();
        const Piece* hand = p.piece(m_document.pieceInHand());
        const std::string part = hand && !hand->owner().empty() ? hand->owner().text() : "body";
        DocketPage out{
            text(d.name), {}, {.design = true, .body = true, .materials = true, .parts = true, .opened = part}};
        DocketGroup bag{spoken("Bag, size {}", text(p.size)), {}};
        bag.rows.push_back({spoken("Finished"), m_document.dims({p.width, p.height, p.depth}),
            {spoken("width × height × depth, on the stitch lines")}});
        if (mainSpaceOf(p))
            bag.rows.push_back({spoken("Inside"),
                m_document.dims({mainSpaceOf(p)->width, mainSpaceOf(p)->height, mainSpaceOf(p)->depth}),
                {spoken("lining and interlinings counted")}});
        bag.rows.push_back({spoken("Holds"), spoken("{} litres", fixed(m_document.mockup().litres, 1)),
            {spoken("the room within the folded lining's stitch lines, by the divergence theorem; geometry")}});
        int pieces = 0, layers = 0;
        for (const auto& piece : p.pieces)
            pieces += piece.count, layers += piece.count * int(piece.layers.size());
        bag.rows.push_back({spoken("Pieces to cut"), QString::number(pieces), {}});
        bag.rows.push_back({spoken("Interlinings to cut"), QString::number(layers), {}});
        out.groups.push_back(bag);
        if (const int row = m_table->currentRow(); row >= 0 && row < int(d.carried.size())) {
            const Carried& thing = d.carried[std::size_t(row)];
            out.groups.push_back({spoken("In hand: {}", text(thing.name)),
                {{spoken("Measures"), m_document.dims({thing.width, thing.height, thing.thickness}),
                     {spoken("width × height × thickness")}},
                    {spoken("Weight"), thing.weight > 0 ? number(thing.weight, 0) + " g" : spoken("not known"), {}},
                    {spoken("In size {}", text(p.size)),
                        m_table->item(row, 5) ? m_table->item(row, 5)->text() : QString(), {}}}});
        }
        return out;
    }

private:
    /// Another form: what it can take stays; what cannot is told before.
    void takeForm(const Form& form)
    {
        if (m_document.design().form == form.id())
            return;
        Reformed next;
        try {
            next = reformed(m_document.design(), form.id());
        } catch (const std::exception& e) {
            emit m_document.refused(spokenReason(e));
            return;
        }
        if (!next.lost.empty()) {
            QStringList lost;
            for (std::size_t i = 0; i < next.lost.size() && i < 12; ++i)
                lost << "·  " + m_document.words(next.lost[i]);
            if (next.lost.size() > 12)
                lost << "·  " + spoken("and {} more", next.lost.size() - 12);
            QMessageBox box(QMessageBox::Question, "Tectonis",
                spoken("In the form “{}” these cannot stay:\n\n{}\n\nEverything else comes along. Undo brings all of "
                       "it back.",
                    spokenName(form.name()), lost.join("\n")),
                QMessageBox::NoButton, this);
            box.setTextFormat(Qt::PlainText);
            auto* change = box.addButton(spoken("Change the form"), QMessageBox::AcceptRole);
            box.setEscapeButton(box.addButton(spoken("Keep this one"), QMessageBox::RejectRole));
            box.exec();
            if (box.clickedButton() != change)
                return;
        }
        m_document.edit(spoken("Form: {}", spokenName(form.name())), [&](Design& d) { d = next.design; });
    }

    /// The forms' drawings, so many side by side.
    void layForms(int across)
    {
        if (across == m_formsAcross)
            return;
        m_formsAcross = across;
        while (QLayoutItem* item = m_formGrid->takeAt(0))
            delete item;
        int n = 0;
        for (const auto& form : m_forms) {
            m_formGrid->addWidget(form.second, n / across, n % across);
            ++n;
        }
        for (int i = 0; i <= int(m_forms.size()); ++i)
            m_formGrid->setRowStretch(i, i == (n + across - 1) / across ? 1 : 0);
        m_formScroll->setFixedWidth(across * 84 + 10);
    }

    void resizeEvent(QResizeEvent*) override
    {
        layForms(width() < 740 ? 1 : 2);
        placeViews();
    }

    /// From where it is seen: on the mock-up itself.
    void placeViews()
    {
        int x = m_view->width() - 6;
        for (auto it = m_views.rbegin(); it != m_views.rend(); ++it) {
            (*it)->adjustSize();
            x -= (*it)->width() + 4;
            (*it)->move(x, 6);
        }
    }

    bool eventFilter(QObject* o, QEvent* event) override
    {
        if (o == m_view && event->type() == QEvent::Resize)
            placeViews();
        return Stage::eventFilter(o, event);
    }

    /// How the mock-up is shown, and from where; below it the chips of the bag's parts.
    void addLooks(QVBoxLayout* column)
    {
        auto* bar = new QHBoxLayout;
        bar->setSpacing(6);
        const auto look = [this](auto change) {
            MockupView::Look next = m_view->look();
            change(next);
            m_view->setLook(next);
        };
        const auto check = [&](const QString& name, const QString& id, bool on, bool MockupView::Look::*what) {
            auto* box = new QCheckBox(name);
            box->setObjectName(id);
            box->setChecked(on);
            connect(box, &QCheckBox::toggled, this,
                [look, what](bool checked) { look([&](MockupView::Look& l) { l.*what = checked; }); });
            bar->addWidget(box);
        };
        check(spoken("Look inside"), "look.inside", true, &MockupView::Look::inside);
        check(spoken("Open"), "look.open", false, &MockupView::Look::open);
        check(spoken("Lining"), "look.lining", false, &MockupView::Look::lining);
        auto* apart = new QSlider(Qt::Horizontal);
        apart->setObjectName("look.apart");
        apart->setAccessibleName(spoken("Pull the pieces apart"));
        apart->setRange(0, 100);
        apart->setFixedWidth(56);
        connect(apart, &QSlider::valueChanged, this,
            [look](int v) { look([&](MockupView::Look& l) { l.apart = v / 100.0; }); });
        bar->addWidget(new QLabel(spoken("Apart")));
        bar->addWidget(apart);
        auto* person = new QComboBox;
        person->setObjectName("look.person");
        person->setAccessibleName(spoken("Person beside the bag"));
        person->addItem(spoken("No person"), 0.0);
        for (const double stature : {1500.0, 1600.0, 1700.0, 1800.0, 1900.0})
            person->addItem(spoken("Person, {}", m_document.len(stature)), stature);
        connect(person, &QComboBox::currentIndexChanged, this,
            [look, person](int i) { look([&](MockupView::Look& l) { l.stature = person->itemData(i).toDouble(); }); });
        person->setFixedWidth(132);
        bar->addWidget(person);
        bar->addStretch(1);
        const auto from = [&](const QString& name, double yaw, double pitch) {
            auto* b = new QPushButton(name, m_view);
            b->setToolTip(spoken("See it from there"));
            connect(b, &QPushButton::clicked, this, [this, yaw, pitch] { m_view->turnTo(yaw, pitch); });
            m_views.push_back(b);
        };
        from(spoken("Front"), 0, 0.05);
        from(spoken("Back"), pi, 0.1);
        from(spoken("Corner"), -0.5, 0.32);
        m_view->installEventFilter(this);
        column->addLayout(bar);
        // However many parts there are, each keeps its drawing: the row scrolls.
        auto* shelf = new QWidget;
        m_parts = new QHBoxLayout(shelf);
        m_parts->setContentsMargins(0, 0, 0, 0);
        m_parts->setSpacing(4);
        auto* scroll = new QScrollArea;
        scroll->setObjectName("partShelf");
        scroll->setFrameShape(QFrame::NoFrame);
        scroll->setWidgetResizable(true);
        scroll->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
        scroll->setFixedHeight(90);
        scroll->setWidget(shelf);
        auto* add = new QPushButton(spoken("Add a part…"));
        add->setObjectName("addPart");
        connect(add, &QPushButton::clicked, this, &BriefStage::offerParts);
        auto* row = new QHBoxLayout;
        row->setSpacing(6);
        row->addWidget(scroll, 1);
        row->addWidget(add);
        column->addLayout(row);
    }

    /// The design's features as drawn chips, each with a way out; and a button that offers those that this form can
    /// carry.
    void fillParts()
    {
        std::string key = m_document.design().form;
        for (const auto& f : m_document.design().features)
            key += "|" + f.id;
        if (key == m_partsShown)
            return;
        m_partsShown = key;
        while (QLayoutItem* item = m_parts->takeAt(0)) {
            if (item->widget())
                item->widget()->hide(), item->widget()->deleteLater();
            delete item;
        }
        const int wide = std::clamp(560 / std::max(1, int(m_document.design().features.size())), 76, 92);
        m_parts->parentWidget()->setMinimumWidth(
            int(m_document.design().features.size()) * (wide + m_parts->spacing()));
        for (const auto& f : m_document.design().features) {
            const FeatureKind& kind = featureKind(f.kind);
            auto* chip = new DrawnButton(text(partLabel(m_document.pattern(), f.id)),
                spoken("A part of this bag. Click to take it in hand or out."), kind.silhouette(), {wide, 74}, this);
            chip->setObjectName("part." + text(f.id));
            const std::string id = f.id;
            const QString name = spokenName(kind.name());
            connect(chip, &QAbstractButton::clicked, this, [this, chip, id, name] {
                auto* menu = new QMenu(this);
                menu->setAttribute(Qt::WA_DeleteOnClose);
                menu->addAction(spoken("Take it in hand"), this, [this, id] {
                    for (const auto& piece : m_document.pattern().pieces)
                        if (piece.owner() == id)
                            return m_document.takePiece(piece.key);
                });
                menu->addAction(spoken("Take it out of the bag"), this, [this, id, name] {
                    m_document.edit(spoken("Take out: {}", name), [&](Design& d) { change::removePart(d, id); });
                });
                menu->popup(chip->mapToGlobal(QPoint(0, chip->height())));
            });
            m_parts->addWidget(chip);
        }
        m_parts->addStretch(1);
    }

    void offerParts()
    {
        auto* offer = new QWidget(this, Qt::Popup);
        offer->setAttribute(Qt::WA_DeleteOnClose);
        offer->setObjectName("partOffer");
        offer->setAttribute(Qt::WA_StyledBackground);
        offer->setStyleSheet(QString("#partOffer { background: %1; border: 1px solid %2; border-radius: 6px; }")
                                 .arg(theme().window.name(), theme().muted.name()));
        auto* column = new QVBoxLayout(offer);
        auto* grid = new QGridLayout;
        grid->setSpacing(4);
        auto* why = new QLabel(spoken("What this bag cannot take is dim; point at it to read why."));
        why->setObjectName("whyNot");
        why->setWordWrap(true);
        column->addLayout(grid);
        column->addWidget(why);
        constexpr int across = 7;
        int n = 0;
        for (const FeatureKind* kind : featureKinds()) {
            const QString name = spokenName(kind->name());
            auto* b = new DrawnButton(name, spoken("Add: {}", name), kind->silhouette(), {88, 84}, offer);
            b->setObjectName("add." + text(kind->kind()));
            if (const Message reason = whyNotAdd(m_document.design(), kind->kind()); !reason.empty()) {
                b->setEnabled(false);
                b->setToolTip(name + ": " + m_document.words(reason));
            }
            b->pointed = [why, b] { why->setText(b->toolTip()); };
            connect(b, &QAbstractButton::clicked, this, [this, kind, name, offer] {
                offer->close();
                m_document.edit(spoken("Add: {}", name), [&](Design& d) { change::addPart(d, kind->kind()); });
            });
            grid->addWidget(b, n / across, n % across);
            ++n;
        }
        why->setMinimumHeight(2 * why->fontMetrics().height()); // a long reason moves nothing
        auto* from = findChild<QPushButton*>("addPart");
        placeOnScreen(offer, from->mapToGlobal(QPoint(0, from->height() + 2)));
        offer->show();
    }

    void fill() override
    {
        m_filling = true;
        const Design& d = m_document.design();
        if (auto* person = findChild<QComboBox*>("look.person"))
            for (int i = 1; i < person->count(); ++i)
                person->setItemText(i, spoken("Person, {}", m_document.len(person->itemData(i).toDouble())));
        for (const auto& [id, button] : m_forms)
            button->setChecked(id == d.form);
        fillParts();
        const Pattern& p = m_document.pattern();
        const auto placed = placeCarried(d, p);
        m_table->setRowCount(int(d.carried.size()));
        int bad = 0;
        for (std::size_t i = 0; i < d.carried.size(); ++i) {
            const Carried& thing = d.carried[i];
            const auto put = [&](int c, const QString& s) {
                auto* item = new QTableWidgetItem(s);
                if ((c > 0 && c < 4) || c == 6)
                    item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
                m_table->setItem(int(i), c, item);
                return item;
            };
            put(0, text(thing.name));
            put(1, m_document.exact(thing.width));
            put(2, m_document.exact(thing.height));
            put(3, m_document.exact(thing.thickness));
            put(6, thing.weight > 0 ? number(thing.weight, 0) + " g" : QString());
            QComboBox* combo = placesBox(i, p);
            combo->setAccessibleName(spoken("Place of {}", text(thing.name)));
            combo->setCurrentIndex(combo->findData(text(thing.place)));
            QStringList lacks;
            const auto spot = std::find_if(
                placed.begin(), placed.end(), [&](const PlacedThing& t) { return t.index == i; }); // names may be alike
            const bool found = spot != placed.end();
            if (found)
                for (const auto& [over, words] : {std::pair{spot->overWidth, say("{} too wide", Len(spot->overWidth))},
                         {spot->overHeight, say("{} too tall", Len(spot->overHeight))},
                         {spot->overDepth, say("{} too thick", Len(spot->overDepth))}})
                    if (over > 0.01)
                        lacks << m_document.words(words);
            auto* item = put(5,
                !found                ? spoken("has no such place")
                    : lacks.isEmpty() ? spoken("fits in size {}", text(p.size))
                                      : lacks.join(", "));
            item->setFlags(Qt::ItemIsEnabled);
            const bool fits = found && lacks.isEmpty();
            bad += fits ? 0 : 1;
            item->setForeground(fits ? theme().ink : theme().error);
        }
        const Mockup& mockup = m_document.mockup();
        const Space* main = mainSpaceOf(p);
        QStringList fit;
        if (main)
            fit << spoken("Inside, size {}: {} litres.", p.size, fixed(mockup.litres, 1));
        if (main && !d.carried.empty())
            fit << (bad ? spokenSome("One of the things does not fit.", "{} of the things do not fit.", bad, bad)
                        : spoken("Everything fits."));
        if (main && mockup.largestGap >= 1)
            fit << spoken("Sewn edges are up to {} apart in the mock-up, at “{}”.", m_document.len(mockup.largestGap),
                mockup.gapAt);
        m_fit->setText(fit.join("  "));
        m_filling = false;
    }

    /// The choice of places in a row: the one that is there if it offers just these.
    QComboBox* placesBox(std::size_t row, const Pattern& p)
    {
        auto* before = qobject_cast<QComboBox*>(m_table->cellWidget(int(row), 4));
        bool same = before && before->count() == int(p.spaces.size());
        for (std::size_t k = 0; same && k < p.spaces.size(); ++k)
            same = before->itemText(int(k)) == text(p.spaces[k].name)
                && before->itemData(int(k)) == text(p.spaces[k].place);
        if (same)
            return before;
        auto* combo = new QComboBox;
        for (const auto& s : p.spaces)
            combo->addItem(text(s.name), text(s.place));
        connect(
            combo, &QComboBox::activated, this,
            [this, combo, row] {
                const std::string place = combo->currentData().toString().toStdString();
                m_document.edit(
                    spoken("Where a thing goes"), [&](Design& design) { design.carried[row].place = place; });
            },
            Qt::QueuedConnection);
        if (before)
            before->hide(); // it is deleted only when control returns to the event loop
        m_table->setCellWidget(int(row), 4, combo);
        return combo;
    }

    void typed(int r, int c)
    {
        if (m_filling || (c > 3 && c != 6))
            return;
        const std::string value = m_table->item(r, c)->text().toStdString();
        m_document.edit(spoken("Thing to carry"), [&](Design& d) {
            Carried& thing = d.carried[std::size_t(r)];
            if (c == 0)
                thing.name = value;
            else if (c == 6)
                thing.weight = parseGrams(value);
            else
                (c == 1          ? thing.width
                        : c == 2 ? thing.height
                                 : thing.thickness) = within(say("things to carry"),
                    parseLength(value, m_document.unit()), 0, limits::length);
        });
        // Later: the editor is still at work.
        QMetaObject::invokeMethod(
            this, [this] { fill(); }, Qt::QueuedConnection);
    }

    MockupView* m_view;
    std::vector<std::pair<std::string, QAbstractButton*>> m_forms;
    QGridLayout* m_formGrid;
    QScrollArea* m_formScroll;
    int m_formsAcross = 0;
    std::vector<QPushButton*> m_views;
    QHBoxLayout* m_parts;
    std::string m_partsShown;
    QTableWidget* m_table;
    QLabel* m_fit;
    bool m_filling = false;
};

} // namespace

QWidget* makeBriefStage(Document& document) { return new BriefStage(document); }

} // namespace tectonis
