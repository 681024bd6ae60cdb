// SPDX-License-Identifier: GPL-3.0-or-later
// Sheets: the page map, each page as printed, what a wrong printer scale does, and the exports.
#include "editing/edits.hpp"
#include "exporters/exporter.hpp"
#include "fonts.hpp"
#include "formats/design_file.hpp"
#include "qtext.hpp"
#include "sheet_pdf.hpp"
#include "shell/ask_file.hpp"
#include "stage.hpp"
#include "stages.hpp"
#include "theme.hpp"
#include "units/error.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QDoubleSpinBox>
#include <QFileDialog>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QMouseEvent>
#include <QProgressBar>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <atomic>
#include <cmath>
#include <filesystem>
#include <thread>

namespace tectonis {
namespace {

/// Which sizes and paper; the plan that follows; which page is looked at (0: the cover).
struct Choice {
    SheetPlan plan;
    std::vector<const Pattern*> patterns;
    std::size_t page = 0;
};

class MapView : public QWidget {
public:
    MapView(Choice& choice, std::function<void()> changed) : m_choice(choice), m_changed(std::move(changed))
    {
        setAccessibleName(spoken("Page map"));
        setMinimumWidth(200);
    }

protected:
    QRectF target() const { return QRectF(rect()).adjusted(8, 8, -8, -8); }
    void paintEvent(QPaintEvent*) override
    {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        p.fillRect(rect(), theme().bench);
        drawPageMap(p, target(), m_choice.plan, m_choice.patterns, theme().dark, int(m_choice.page) - 1);
    }
    void mousePressEvent(QMouseEvent* event) override
    {
        for (std::size_t i = 0; i < m_choice.plan.pages.size(); ++i)
            if (pageOnMap(target(), m_choice.plan, i).contains(event->position()))
                m_choice.page = i + 1;
        m_changed();
    }

private:
    Choice& m_choice;
    std::function<void()> m_changed;
};

class PageView : public QWidget {
public:
    PageView(Document& document, Choice& choice) : m_document(document), m_choice(choice)
    {
        setAccessibleName(spoken("Page as printed"));
    }

protected:
    void paintEvent(QPaintEvent*) override
    {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        p.fillRect(rect(), theme().bench);
        const Paper& paper = m_choice.plan.paper;
        const double scale = std::min((width() - 24) / paper.width, (height() - 24) / paper.height);
        const QRectF sheet((width() - paper.width * scale) / 2, (height() - paper.height * scale) / 2,
            paper.width * scale, paper.height * scale);
        p.setPen(QPen(theme().line, 1));
        p.setBrush(Qt::white);
        p.drawRect(sheet);
        p.save();
        p.setClipRect(sheet);
        p.translate(sheet.topLeft());
        if (m_choice.page == 0)
            drawCover(p, scale, m_choice.plan, m_choice.patterns, m_document.design());
        else
            drawPage(p, scale, m_choice.plan, m_choice.plan.pages[m_choice.page - 1], m_choice.patterns,
                m_document.design());
        p.restore();
    }

private:
    Document& m_document;
    Choice& m_choice;
};

constexpr const char* kSizeName = "sizeName"; // not "size": every widget has a property of that name

class SheetsStage : public Stage {
public:
    explicit SheetsStage(Document& document) : Stage(document)
    {
        auto* row = new QHBoxLayout(this);
        row->setContentsMargins(0, 0, 0, 4);
        row->setSpacing(4);
        m_map = new MapView(m_choice, [this] { show(); });
        m_page = new PageView(document, m_choice);
        row->addWidget(m_map, 5);
        row->addWidget(m_page, 6);
        auto* side = new QVBoxLayout;
        side->setContentsMargins(6, 4, 6, 0);
        addPaperAndSizes(*side);
        addWriting(*side);
        addPageTurning(*side);
        addPrinterScale(*side);
        side->addStretch(1);
        auto* holder = new QWidget;
        holder->setLayout(side);
        auto* scroll = new QScrollArea; // on a low screen nothing is squeezed together
        scroll->setWidget(holder);
        scroll->setWidgetResizable(true);
        scroll->setFrameShape(QFrame::NoFrame);
        scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
        scroll->setFixedWidth(214);
        row->addWidget(scroll);
        setFocusProxy(m_map);
        m_map->setFocusPolicy(Qt::StrongFocus);
        // What was written of one design says nothing of the next.
        connect(&document, &Document::changed, this, [this] { report({}); });
        connect(&document, &Document::fileChanged, this, [this] { report({}); });
    }

    ~SheetsStage() override
    {
        m_cancel = true;
        if (m_worker.joinable())
            m_worker.join();
    }

    /// The sheet in hand: what is on it, what it joins.
    DocketPage docketPage() const override
    {
        DocketPage out{m_choice.page == 0 ? spoken("Cover")
                                          : spoken("Sheet {}", text(m_choice.plan.pages[m_choice.page - 1].name)),
            {}, {}};
        const Paper& paper = m_choice.plan.paper;
        DocketGroup all{spoken("All sheets"),
            {{spoken("Pages"), spoken("{} and the cover", m_choice.plan.pages.size()),
                 {spoken("{} rows of up to {}", m_choice.plan.rows, m_choice.plan.columns),
                     spoken("pages with nothing on them are left out")}},
                {spoken("Paper"), spoken("{}, {} × {} mm", text(paper.name), paper.width, paper.height),
                    {spoken("margin {} mm, shared strip {} mm", m_choice.plan.margin, m_choice.plan.overlap)}}}};
        for (const auto* p : m_choice.patterns)
            all.rows.push_back({spoken("Layer: size {}", text(p->size)), m_document.dims({p->width, p->height}), {}});
        if (m_choice.page > 0) {
            const Page& page = m_choice.plan.pages[m_choice.page - 1];
            QStringList joins;
            for (const auto& [is, side] :
                {std::pair{page.joinsLeft, spoken("left")}, {page.joinsRight, spoken("right")},
                    {page.joinsAbove, spoken("above")}, {page.joinsBelow, spoken("below")}})
                if (is)
                    joins << side;
            DocketGroup here{spoken("On this sheet"),
                {{spoken("Joins"), joins.isEmpty() ? spoken("none: it stands alone") : joins.join(", "), {}}}};
            for (const auto& spot : m_choice.plan.spots) {
                const bool on = spot.box.x0 < page.area.x1 && spot.box.x1 > page.area.x0 && spot.box.y0 < page.area.y1
                    && spot.box.y1 > page.area.y0;
                if (!on || spot.templates.empty())
                    continue;
                const Piece& piece = spot.templates.front();
                const bool whole = spot.box.x0 >= page.area.x0 - 0.01 && spot.box.x1 <= page.area.x1 + 0.01
                    && spot.box.y0 >= page.area.y0 - 0.01 && spot.box.y1 <= page.area.y1 + 0.01;
                QString names = text(say("{}  {}", piece.code, piece.name));
                for (const auto& key : spot.also)
                    if (const Piece* other = m_choice.patterns[spot.patterns.front()]->piece(key))
                        names += ", " + text(say("{}  {}", other->code, other->name));
                here.rows.push_back(
                    {names, whole ? spoken("whole") : spoken("a part of it"), {spoken("cut {}", piece.count)}});
            }
            out.groups.push_back(here);
        }
        if (!m_choice.plan.toMeasure.empty()) {
            DocketGroup strips{spoken("Cut to measure, not printed"), {}};
            for (const auto& s : m_choice.plan.toMeasure)
                strips.rows.push_back({text(s.code + "  " + s.size),
                    QString("%1 × %2").arg(s.count).arg(m_document.dims({s.width, s.length})), {text(s.name)}});
            out.groups.push_back(strips);
        }
        out.groups.push_back(all);
        return out;
    }

private:
    void addPaperAndSizes(QVBoxLayout& side)
    {
        m_paper = new QComboBox;
        m_paper->setObjectName("paper");
        m_paper->setAccessibleName(spoken("Paper"));
        connect(m_paper, &QComboBox::currentIndexChanged, this, &SheetsStage::plan);
        side.addWidget(heading(spoken("Paper and sizes")));
        side.addWidget(m_paper);
        // However many sizes there are, the rest keeps its place: the boxes scroll.
        auto* boxes = new QWidget;
        m_sizesBox = new QGridLayout(boxes);
        m_sizesBox->setContentsMargins(0, 0, 0, 0);
        m_sizesBox->setVerticalSpacing(2);
        m_sizesScroll = new QScrollArea;
        m_sizesScroll->setObjectName("sizeBoxes");
        m_sizesScroll->setWidget(boxes);
        m_sizesScroll->setWidgetResizable(true);
        m_sizesScroll->setFrameShape(QFrame::NoFrame);
        m_sizesScroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
        side.addWidget(m_sizesScroll);
        m_count = new QLabel;
        m_count->setObjectName("pageCount");
        m_count->setWordWrap(true);
        side.addWidget(m_count);
        m_figures = new QCheckBox(spoken("Rectangles as figures"));
        m_figures->setObjectName("figures");
        m_figures->setToolTip(spoken("Plain rectangles are listed to be cut to measure instead of printed."));
        connect(m_figures, &QCheckBox::toggled, this, &SheetsStage::plan);
        side.addWidget(m_figures);
        m_fold = new QPushButton;
        m_fold->setObjectName("onTheFold");
        m_fold->setToolTip(spoken("Symmetric pieces are printed as halves, to be laid on the folded cloth."));
        m_fold->hide();
        connect(m_fold, &QPushButton::clicked, this, [this] {
            m_document.edit(spoken("Print on the fold"), [](Design& d) { change::choice(d, "templates", "half"); });
        });
        side.addWidget(m_fold);
    }

    void addWriting(QVBoxLayout& side)
    {
        side.addWidget(heading(spoken("Write")));
        m_level = new QComboBox;
        m_level->setObjectName("level");
        m_level->setAccessibleName(spoken("For whom the booklet is"));
        m_level->setToolTip(spoken("Learners read how each thing is done and why now; who is practised reads what."));
        m_level->addItems({spoken("For learners"), spoken("For the practised")});
        m_bothUnits = new QCheckBox(spoken("Both units"));
        m_bothUnits->setObjectName("bothUnits");
        m_bothUnits->setToolTip(spoken("Lengths of the booklet in inches as well, or in mm beside inches."));
        side.addWidget(m_level);
        side.addWidget(m_bothUnits);
        auto* list = new QVBoxLayout;
        list->setSpacing(2);
        // What a maker gets has a button each; the rest shares one.
        constexpr int kButtons = 4;
        auto* more = new QMenu(this);
        for (const Exporter& exporter : exporters()) {
            const QString name = text(exporter.label) + "…";
            if (list->count() < kButtons) {
                auto* b = new QPushButton(name);
                b->setObjectName(QString("write.") + exporter.id);
                connect(b, &QPushButton::clicked, this, [this, &exporter] { ask(exporter); });
                list->addWidget(b);
            } else
                more->addAction(name, this, [this, &exporter] { ask(exporter); })
                    ->setObjectName(QString("write.") + exporter.id);
        }
        auto* others = new QPushButton(spoken("More"));
        others->setObjectName("write.more");
        others->setMenu(more);
        list->addWidget(others);
        side.addLayout(list);
        m_progress = new QProgressBar;
        m_progress->hide();
        m_stop = new QPushButton(spoken("Stop"));
        m_stop->hide();
        connect(m_stop, &QPushButton::clicked, this, [this] { m_cancel = true; });
        m_said = new QLabel;
        m_said->setObjectName("exportSaid");
        m_said->setWordWrap(true);
        m_said->hide();
        side.addWidget(m_progress);
        side.addWidget(m_stop);
        side.addWidget(m_said);
    }

    void addPageTurning(QVBoxLayout& side)
    {
        auto* turn = new QHBoxLayout;
        auto *back = new QPushButton("◂"), *on = new QPushButton("▸");
        back->setAccessibleName(spoken("Page before"));
        on->setAccessibleName(spoken("Next page"));
        m_name = new QLabel;
        m_name->setAlignment(Qt::AlignCenter);
        turn->addWidget(back);
        turn->addWidget(m_name, 1);
        turn->addWidget(on);
        side.addLayout(turn);
        connect(back, &QPushButton::clicked, this, [this] { turnTo(-1); });
        connect(on, &QPushButton::clicked, this, [this] { turnTo(1); });
    }

    void addPrinterScale(QVBoxLayout& side)
    {
        side.addSpacing(6);
        side.addWidget(heading(spoken("What if the printer scales?")));
        m_scale = new QDoubleSpinBox;
        m_scale->setRange(80, 120);
        m_scale->setValue(97);
        m_scale->setSuffix(" %");
        m_scale->setAccessibleName(spoken("Printer scale"));
        side.addWidget(m_scale);
        m_effect = new QLabel;
        m_effect->setObjectName("scaleEffect");
        m_effect->setWordWrap(true);
        side.addWidget(m_effect);
        connect(m_scale, &QDoubleSpinBox::valueChanged, this, &SheetsStage::effect);
    }

    static QLabel* heading(const QString& s)
    {
        auto* label = new QLabel(s);
        label->setFont(pixelFont(13, QFont::DemiBold));
        return label;
    }

    std::vector<std::string> chosenSizes() const
    {
        std::vector<std::string> out;
        for (const auto* box : m_boxes)
            if (box->isChecked())
                out.push_back(box->property(kSizeName).toString().toStdString());
        return out;
    }

    void fill() override { plan(); }

    void fillPapers()
    {
        QStringList names, shown;
        for (const auto& p : m_document.design().library->papers())
            names << text(p.name);
        for (int i = 0; i < m_paper->count(); ++i)
            shown << m_paper->itemText(i);
        if (names == shown)
            return;
        const QSignalBlocker quiet(m_paper);
        const QString chosen = m_paper->currentText();
        m_paper->clear();
        m_paper->addItems(names);
        m_paper->setCurrentIndex(std::max(0, m_paper->findText(chosen)));
    }

    /// A design comes with its workshop's printer.
    void takePrinter()
    {
        const std::string& printer = m_document.design().workshop.printer;
        if (printer == m_printer)
            return;
        m_printer = printer;
        if (const int at = m_paper->findText(text(printer)); at >= 0) {
            const QSignalBlocker quiet(m_paper);
            m_paper->setCurrentIndex(at);
        }
    }

    void plan()
    {
        fillPapers();
        takePrinter();
        QStringList names;
        for (const auto& s : m_document.design().sizes)
            names << text(s);
        if (names != m_names) {
            // Sizes that stay, stay ticked.
            const auto ticked = chosenSizes();
            const bool fresh = m_names.isEmpty();
            m_names = names;
            for (auto* b : m_boxes)
                delete b;
            m_boxes.clear();
            const bool shortNames = std::all_of(
                names.begin(), names.end(), [](const auto& n) { return n.size() <= 3; });
            const int across = shortNames ? 3 : names.size() > 3 ? 2 : 1;
            for (const auto& n : names) {
                auto* b = new QCheckBox(
                    across == 1 ? spoken("Size {}", QString(n).replace("&", "&&")) : QString(n).replace("&", "&&"));
                b->setObjectName("sheetSize." + n);
                b->setAccessibleName(spoken("Size {}", n));
                b->setProperty(kSizeName, n);
                b->setChecked(fresh ? n == text(m_document.design().baseSize)
                                    : std::find(ticked.begin(), ticked.end(), n.toStdString()) != ticked.end());
                connect(b, &QCheckBox::toggled, this, &SheetsStage::plan);
                m_sizesBox->addWidget(b, int(m_boxes.size()) / across, int(m_boxes.size()) % across);
                m_boxes.push_back(b);
            }
            m_sizesScroll->setFixedHeight(std::min(6, (int(names.size()) + across - 1) / across) * 24 + 4);
        }
        m_choice.patterns.clear();
        const auto sizes = chosenSizes();
        for (const auto& p : m_document.patterns())
            if (std::find(sizes.begin(), sizes.end(), p.size) != sizes.end())
                m_choice.patterns.push_back(&p);
        if (m_choice.patterns.empty())
            m_choice.patterns.push_back(&m_document.pattern());
        m_choice.plan = planSheets(m_choice.patterns,
            m_document.design().library->paper(m_paper->currentText().toStdString()), m_document.unit(), options());
        offerFold();
        m_choice.page = std::min(m_choice.page, m_choice.plan.pages.size());
        const Paper& paper = m_choice.plan.paper;
        QStringList printed;
        for (const auto* p : m_choice.patterns)
            printed << text(p->size);
        const QString count = spoken("{}: {} pages and a cover, {} × {} mm, {} mm shared",
            printed.size() > 4 ? spoken("{} sizes", printed.size()) : spoken("Size {}", printed.join(", ")),
            m_choice.plan.pages.size(), paper.width, paper.height, m_choice.plan.overlap);
        m_count->setText(sizes.empty()
                ? count + ". " + spoken("No size is ticked, so the one that is looked at is printed.")
                : count);
        effect();
        show();
    }

    SheetOptions options() const { return {m_figures->isChecked()}; }

    BookletManner manner() const
    {
        BookletManner out{m_level->currentIndex() == 1, {}};
        if (m_bothUnits->isChecked())
            out.beside = m_document.unit() == Unit::Inch ? Unit::Mm : Unit::Inch;
        return out;
    }

    /// Offered where whole templates are printed and halves would save pages.
    void offerFold()
    {
        const bool whole = m_document.design().choices.at("templates") == "whole";
        const std::size_t folded = whole ? pagesOnTheFold(m_choice.patterns, m_choice.plan.paper, options())
                                         : m_choice.plan.pages.size();
        m_fold->setVisible(folded < m_choice.plan.pages.size());
        m_fold->setText(spoken("On the fold: {} pages", folded));
    }

    void show()
    {
        m_name->setText(m_choice.page == 0 ? spoken("Cover")
                                           : spoken("Page {}", text(m_choice.plan.pages[m_choice.page - 1].name)));
        m_map->update();
        m_page->update();
        tellHand();
    }

    void turnTo(int by)
    {
        const auto n = m_choice.plan.pages.size() + 1;
        m_choice.page = (m_choice.page + n + std::size_t(by)) % n;
        show();
    }

    void effect()
    {
        const ScaleError e = scaleError(m_document.pattern(), m_scale->value());
        const bool bad = std::abs(e.on100) > 0.5;
        const QString square = m_document.len(100 + e.on100), run = m_document.len(e.longestSeam),
                      off = m_document.len(std::abs(e.onSeam));
        m_effect->setText(
            (e.onSeam < 0
                    ? spoken("The 100 mm square prints as {}. {} ({}) comes out {} short.", square, e.seam, run, off)
                    : spoken("The 100 mm square prints as {}. {} ({}) comes out {} long.", square, e.seam, run, off))
            + " "
            + (bad ? spoken("Rings, zips and things to carry will not fit: print again at 100 %.")
                   : spoken("Within 0.5 mm on 100: fine.")));
        m_effect->setStyleSheet(QString("color:%1").arg((bad ? theme().error : theme().ink).name()));
    }

    void ask(const Exporter& exporter)
    {
        if (m_worker.joinable() && m_running)
            return;
        const QString base = m_document.fileName().isEmpty() ? text(safeFileName(m_document.design().name))
                                                             : QFileInfo(m_document.fileName()).completeBaseName();
        const QString ending = exporter.ending;
        const QString file = ending.isEmpty()
            ? QFileDialog::getExistingDirectory(this, spoken("Folder to write into"), lastFolder())
            : askFileToWrite(this, spoken("Write"), base + "-" + exporter.id, ending,
                QString("%1 (*%2)").arg(text(exporter.kind), ending));
        if (!file.isEmpty())
            write(exporter, file);
    }

    /// Works on copies, off the window's thread.
    void write(const Exporter& exporter, const QString& file)
    {
        if (m_worker.joinable())
            m_worker.join();
        std::vector<Pattern> copies;
        for (const auto* p : m_choice.patterns)
            copies.push_back(*p);
        m_cancel = false;
        m_running = true;
        m_progress->setRange(0, 0);
        m_progress->show();
        m_stop->show();
        report(spoken("Writing…"));
        const Paper paper = m_choice.plan.paper;
        m_worker = std::thread([this, &exporter, file, paper, unit = m_document.unit(), chosen = options(),
                                   manner = manner(), design = m_document.design(), copies = std::move(copies)] {
            std::vector<const Pattern*> list;
            for (const auto& p : copies)
                list.push_back(&p);
            const Progress progress = [this](int done, int total) {
                QMetaObject::invokeMethod(
                    this, [this, done, total] { m_progress->setRange(0, total), m_progress->setValue(done); },
                    Qt::QueuedConnection);
                return !m_cancel;
            };
            QString said;
            try {
                const std::size_t files = exporter.write(
                    {design, list, paper, unit, chosen, manner, progress, file.toStdString()});
                said = wordsOf(exporter, QFileInfo(file).fileName(), files, m_cancel);
            } catch (const std::exception& e) {
                said = spokenReason(e);
            }
            QMetaObject::invokeMethod(
                this, [this, said] { written(said); }, Qt::QueuedConnection);
        });
    }

    static QString wordsOf(const Exporter& exporter, const QString& name, std::size_t files, bool stopped)
    {
        if (QString(exporter.ending).isEmpty())
            return stopped ? spoken("Stopped: {} pieces were written into {} before.", files, name)
                           : spoken("Written: {} pieces into {}", files, name);
        return files == 0 ? spoken("Stopped; nothing was written.") : spoken("Written: {}", name);
    }

    /// What is not said takes no room.
    void report(const QString& words)
    {
        m_said->setText(words);
        m_said->setVisible(!words.isEmpty());
    }

    void written(const QString& said)
    {
        m_running = false;
        m_progress->hide();
        m_stop->hide();
        report(said);
    }

    Choice m_choice;
    MapView* m_map;
    PageView* m_page;
    std::string m_printer; ///< whose paper was chosen last
    QComboBox *m_paper, *m_level;
    QCheckBox* m_bothUnits;
    QGridLayout* m_sizesBox;
    QScrollArea* m_sizesScroll;
    std::vector<QCheckBox*> m_boxes;
    QStringList m_names;
    QLabel *m_count, *m_name, *m_effect, *m_said;
    QDoubleSpinBox* m_scale;
    QCheckBox* m_figures;
    QPushButton* m_fold;
    QProgressBar* m_progress;
    QPushButton* m_stop;
    std::thread m_worker;
    std::atomic<bool> m_cancel = false, m_running = false;
};

} // namespace

QWidget* makeSheetsStage(Document& document) { return new SheetsStage(document); }

} // namespace tectonis
