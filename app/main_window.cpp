// SPDX-License-Identifier: GPL-3.0-or-later
#include "main_window.hpp"
#include "qtext.hpp"

#include "fonts.hpp"
#include "formats/design_file.hpp"
#include "forms/form.hpp"
#include "mockup_view.hpp"
#include "shell/docket.hpp"
#include "shell/rail.hpp"
#include "shell/run_sheet.hpp"
#include "shell/snag_line.hpp"
#include "shell/stage_signs.hpp"
#include "stages/stages.hpp"
#include "theme.hpp"
#include "units/error.hpp"

#include <QApplication>
#include <QButtonGroup>
#include <QCloseEvent>
#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenuBar>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>
#include <QShortcut>
#include <QVBoxLayout>

namespace tectonis {
namespace {

const char* kFilter = "Tectonis designs (*.tectonis)";

} // namespace

MainWindow::MainWindow() : m_recovery(m_document)
{
    resize(1280, 800);
    setMinimumSize(1024, 640);
    m_runSheet = new RunSheet(m_document);
    m_docket = new Docket(m_document);
    m_snags = new SnagLine(m_document);
    m_stages = new QStackedWidget;
    for (auto* make : {makeBriefStage, makeDraftStage, makeBuildupStage, makeFittingsStage, makeSizesStage, makeSequenceStage, makeCutStage, makeSheetsStage, makeTrialStage})
        m_stages->addWidget(make(m_document));

    auto* centre = new QWidget;
    auto* column = new QVBoxLayout(centre);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    column->addWidget(buildBanner());
    column->addWidget(new Rail(m_document));
    auto* middle = new QHBoxLayout;
    middle->setSpacing(0);
    middle->addWidget(m_runSheet);
    middle->addWidget(m_stages, 1);
    middle->addWidget(m_docket);
    column->addLayout(middle, 1);
    column->addWidget(m_snags);
    setCentralWidget(centre);
    buildMenus();
    menuBar()->setCornerWidget(buildTopBar(), Qt::TopRightCorner);

    connect(m_runSheet, &RunSheet::chosen, this, &MainWindow::goTo);
    connect(m_snags, &SnagLine::jump, this, [this](int stage, const std::string& key, const std::string& size) {
        if (stage >= 0)
            goTo(stage);
        m_document.setSize(sizeIndex(m_document.design(), size));
        m_document.takePiece(key);
        m_document.takeStep(key);
        if (const Seam* seam = m_document.pattern().seam(key); seam && !seam->a.empty())
            m_document.takePiece(seam->a.front().piece);
        m_docket->showDimension(key);
    });
    connect(&m_document, &Document::changed, this, &MainWindow::fillChips);
    connect(&m_document, &Document::viewChanged, this, &MainWindow::fillChips);
    connect(&m_document, &Document::fileChanged, this, &MainWindow::showTitle);
    connect(&m_document.undoStack(), &QUndoStack::cleanChanged, this, &MainWindow::showTitle);
    for (int i = 0; i < 9; ++i)
        connect(new QShortcut(QKeySequence(Qt::Key_1 + i), this), &QShortcut::activated, this, [this, i] { goTo(i); });
    fillChips();
    showTitle();
    goTo(0);
}

void MainWindow::buildMenus()
{
    auto* file = menuBar()->addMenu("&File");
    auto* fresh = file->addMenu("&New");
    for (const Form* form : forms())
        fresh->addAction(text(form->name()), this, [this, form] { newDesignOf(form->id()); });
    file->addAction("&Open…", QKeySequence::Open, this, &MainWindow::openDialog);
    m_recent = file->addMenu("Open &recent");
    connect(m_recent, &QMenu::aboutToShow, this, &MainWindow::fillRecent);
    file->addSeparator();
    file->addAction("&Save", QKeySequence::Save, this, [this] { save(false); });
    file->addAction("Save &as…", QKeySequence::SaveAs, this, [this] { save(true); });
    file->addSeparator();
    file->addAction("&Quit", QKeySequence::Quit, this, &QWidget::close);
    auto* editMenu = menuBar()->addMenu("&Edit");
    auto* undo = m_document.undoStack().createUndoAction(this, "Undo");
    undo->setShortcut(QKeySequence::Undo);
    auto* redo = m_document.undoStack().createRedoAction(this, "Redo");
    redo->setShortcuts({QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), QKeySequence(Qt::CTRL | Qt::Key_Y)});
    editMenu->addAction(undo);
    editMenu->addAction(redo);
    editMenu->addAction("Take the &part in hand out", QKeySequence::Delete, this, [this] {
        const std::string id = featureOf(m_document.design(), m_document.pieceInHand());
        if (!id.empty())
            m_document.edit(text("Take out: " + id), [&](Design& d) { removeFeature(d, id); });
    });
    auto* look = menuBar()->addMenu("&View");
    look->addAction("&Mock-up beside the stage", QKeySequence(Qt::Key_M), this, &MainWindow::toggleMockup);
    look->addAction("&Snags", QKeySequence(Qt::Key_S), this, [this] { m_snags->setOpen(!m_snags->isOpen()); });
    look->addAction("&Light or dark", QKeySequence(Qt::CTRL | Qt::Key_D), this, [this] { setDark(!theme().dark); });
}

QWidget* MainWindow::buildTopBar()
{
    auto* bar = new QWidget;
    auto* row = new QHBoxLayout(bar);
    row->setContentsMargins(0, 2, 8, 2);
    row->setSpacing(4);
    m_name = new QLabel;
    m_name->setFont(pixelFont(13, QFont::Medium));
    m_name->setFixedWidth(380); // a menu bar does not lay its corner out again when a name gets longer
    m_name->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    row->addWidget(m_name);
    row->addSpacing(14);
    m_chips = new QHBoxLayout;
    m_chips->setSpacing(3);
    row->addLayout(m_chips);
    row->addSpacing(10);
    auto* units = new QButtonGroup(bar);
    int i = 0;
    for (const char* name : {"mm", "cm", "in"}) {
        auto* b = new QPushButton(name);
        b->setCheckable(true);
        b->setChecked(i == 0);
        b->setFixedSize(40, 24);
        b->setProperty("tight", true);
        b->setAccessibleName(QString("Show lengths in %1").arg(name));
        units->addButton(b, i++);
        row->addWidget(b);
    }
    connect(units, &QButtonGroup::idClicked, this, [this](int id) { m_document.setUnit(Unit(id)); });
    connect(&m_document, &Document::viewChanged, units, [this, units] { units->button(int(m_document.unit()))->setChecked(true); });
    return bar;
}

void MainWindow::fillChips()
{
    const auto& sizes = m_document.design().sizes;
    if (m_chips->count() != int(sizes.size())) {
        while (auto* item = m_chips->takeAt(0)) {
            item->widget()->deleteLater();
            delete item;
        }
        for (std::size_t k = 0; k < sizes.size(); ++k) {
            auto* b = new QPushButton;
            b->setCheckable(true);
            b->setFixedHeight(24);
            b->setMinimumWidth(34);
            b->setProperty("tight", true);
            connect(b, &QPushButton::clicked, this, [this, k] {
                m_document.setSize(k);
                fillChips();
            });
            m_chips->addWidget(b);
        }
    }
    for (std::size_t k = 0; k < sizes.size(); ++k) {
        auto* b = static_cast<QPushButton*>(m_chips->itemAt(int(k))->widget());
        b->setText(text(sizes[k]));
        b->setObjectName("size." + text(sizes[k]));
        b->setAccessibleName("Size " + text(sizes[k]));
        b->setChecked(k == m_document.size());
    }
}

QWidget* MainWindow::buildBanner()
{
    m_banner = new QWidget;
    auto* row = new QHBoxLayout(m_banner);
    row->setContentsMargins(10, 4, 10, 4);
    m_bannerText = new QLabel;
    m_bannerText->setWordWrap(true);
    m_bannerYes = new QPushButton("Open it");
    m_bannerNo = new QPushButton("Put it away");
    row->addWidget(m_bannerText, 1);
    row->addWidget(m_bannerYes);
    row->addWidget(m_bannerNo);
    m_banner->hide();
    connect(m_bannerYes, &QPushButton::clicked, this, [this] {
        try {
            m_document.takeOver(loadDesign(m_found.toStdString()), {}, false);
            Recovery::discard(m_found);
            m_banner->hide();
        } catch (const InputError& e) {
            m_bannerText->setText(e.what());
        }
    });
    connect(m_bannerNo, &QPushButton::clicked, this, [this] {
        if (!m_found.isEmpty())
            Recovery::discard(m_found);
        m_found.clear();
        m_banner->hide();
    });
    return m_banner;
}

void MainWindow::offerRecovery()
{
    m_found = Recovery::leftover();
    if (m_found.isEmpty())
        return;
    m_bannerText->setText("Tectonis did not end properly last time. Unsaved work from " + QFileInfo(m_found).lastModified().toString("d MMMM, hh:mm") + " was kept.");
    m_bannerYes->show();
    m_bannerNo->setText("Put it away");
    m_banner->show();
}

void MainWindow::goTo(int stage)
{
    m_stages->setCurrentIndex(stage);
    m_runSheet->choose(stage);
    m_docket->setStage(stage);
    if (m_mockup)
        m_mockup->setVisible(stage != 0);
}

void MainWindow::toggleMockup()
{
    if (m_mockup) {
        m_mockup->deleteLater();
        m_mockup = nullptr;
        return;
    }
    m_mockup = new MockupView(m_document, centralWidget());
    m_mockup->setFixedSize(320, 260);
    const QPoint corner = m_stages->mapTo(centralWidget(), QPoint(m_stages->width() - 330, 8));
    m_mockup->move(corner);
    m_mockup->setVisible(stage() != 0);
    m_mockup->raise();
}

void MainWindow::setDark(bool dark)
{
    applyTheme(*qApp, dark);
    QSettings().setValue("dark", dark);
    emit m_document.viewChanged();
    for (auto* w : findChildren<QWidget*>())
        w->update();
}

void MainWindow::showTitle()
{
    const QString file = m_document.fileName().isEmpty() ? QString("not saved yet") : QFileInfo(m_document.fileName()).fileName();
    setWindowTitle(QString("%1%2 – Tectonis").arg(file, m_document.modified() ? " *" : ""));
    const QString changed = m_document.modified() ? "  ·  changed" : "", name = text(m_document.design().name);
    m_name->setText(m_name->fontMetrics().elidedText(name, Qt::ElideRight, m_name->width() - m_name->fontMetrics().horizontalAdvance(changed)) + changed);
    m_name->setToolTip(name);
}

/// A message that stays until it is put away; what was open stays open.
void MainWindow::complain(const QString& message)
{
    m_found.clear();
    m_bannerText->setText(message);
    m_bannerYes->hide();
    m_bannerNo->setText("Understood");
    m_banner->show();
}

bool MainWindow::openFile(const QString& file)
{
    try {
        m_document.open(file);
        remember(file);
        return true;
    } catch (const InputError& e) {
        complain(e.what());
        return false;
    }
}

bool MainWindow::save(bool as)
{
    QString file = m_document.fileName();
    if (as || file.isEmpty())
        file = QFileDialog::getSaveFileName(this, "Save the design", file.isEmpty() ? text(m_document.design().name) + ".tectonis" : file, kFilter);
    if (file.isEmpty())
        return false;
    if (QFileInfo(file).suffix().isEmpty())
        file += ".tectonis";
    try {
        m_document.save(file);
        remember(file);
        m_banner->hide();
        return true;
    } catch (const InputError& e) {
        complain(e.what());
        return false;
    }
}

bool MainWindow::mayLeave()
{
    if (!m_document.modified())
        return true;
    QMessageBox box(QMessageBox::Question, "Tectonis", QString("“%1” has changes that are not saved.").arg(text(m_document.design().name)), QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, this);
    box.setDefaultButton(QMessageBox::Save);
    switch (box.exec()) {
    case QMessageBox::Save: return save(false);
    case QMessageBox::Discard: return true;
    default: return false;
    }
}

void MainWindow::openDialog()
{
    if (!mayLeave())
        return;
    const QString file = QFileDialog::getOpenFileName(this, "Open a design", QFileInfo(m_document.fileName()).path(), kFilter);
    if (!file.isEmpty())
        openFile(file);
}

void MainWindow::newDesignOf(const std::string& form)
{
    if (mayLeave())
        m_document.takeOver(newDesign(form), {});
}

void MainWindow::remember(const QString& file)
{
    QStringList recent = QSettings().value("recent").toStringList();
    const QString path = QFileInfo(file).absoluteFilePath();
    recent.removeAll(path);
    recent.prepend(path);
    QSettings().setValue("recent", recent.mid(0, 8));
}

void MainWindow::fillRecent()
{
    m_recent->clear();
    for (const QString& file : QSettings().value("recent").toStringList())
        m_recent->addAction(file, this, [this, file] {
            if (mayLeave())
                openFile(file);
        });
    if (m_recent->isEmpty())
        m_recent->addAction("Nothing yet")->setEnabled(false);
}

void MainWindow::closeEvent(QCloseEvent* event)
{
    if (mayLeave())
        event->accept();
    else
        event->ignore();
}

} // namespace tectonis
