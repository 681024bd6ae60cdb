// SPDX-License-Identifier: GPL-3.0-or-later
#include "main_window.hpp"
#include "application.hpp"
#include "qtext.hpp"

#include "editing/edits.hpp"
#include "fonts.hpp"
#include "formats/design_file.hpp"
#include "forms/form.hpp"
#include "mockup_view.hpp"
#include "shell/ask_file.hpp"
#include "shell/banner.hpp"
#include "shell/docket.hpp"
#include "shell/library_menu.hpp"
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
#include <QTimer>
#include <QVBoxLayout>

namespace tectonis {
namespace {

QString designFilter() { return spoken("Tectonis designs") + " (*.tectonis);;" + spoken("All files") + " (*)"; }
const char* kEnding = ".tectonis";

} // namespace

MainWindow::MainWindow() : m_recovery(m_document)
{
    resize(1280, 800);
    setMinimumSize(1000, 590); // with a frame and its title this is 1024 × 640
    m_runSheet = new RunSheet(m_document);
    m_snags = new SnagLine(m_document);
    m_stages = new QStackedWidget;
    for (auto* make : {makeBriefStage, makeDraftStage, makeBuildupStage, makeFittingsStage, makeSizesStage,
             makeSequenceStage, makeCutStage, makeSheetsStage, makeTrialStage})
        m_stages->addWidget(make(m_document));
    m_docket = new Docket(m_document); // after the stages: it asks the one in view, which hears of a change first

    auto* centre = new QWidget;
    auto* column = new QVBoxLayout(centre);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    m_banner = new Banner;
    column->addWidget(m_banner);
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
    connect(m_snags, &SnagLine::jump, this, [this](int stage, const SubjectId& key, const std::string& size) {
        if (stage >= 0)
            goTo(stage);
        m_document.setSize(sizeIndex(m_document.design(), size));
        m_document.takePiece(key.as<PieceKind>());
        m_document.takeStep(key.as<StepKindOf>());
        if (const Seam* seam = m_document.pattern().seam(key.as<SeamKind>()); seam && !seam->a.empty()) {
            m_document.takePiece(seam->a.front().piece);
            m_document.takeSeam(seam->key);
        }
        m_docket->showDimension(key.text());
    });
    connect(&m_document, &Document::changed, this, &MainWindow::fillChips);
    connect(&m_document, &Document::toldBesides, this, [this](const QString& besides) { m_banner->tell({besides}); });
    connect(&m_document, &Document::changed, this, &MainWindow::showTitle);
    connect(&m_document, &Document::viewChanged, this, &MainWindow::fillChips);
    connect(&m_document, &Document::fileChanged, this, &MainWindow::showTitle);
    connect(&m_document.undoStack(), &QUndoStack::cleanChanged, this, &MainWindow::showTitle);
    // The bare number goes to a stage where nothing can be typed; with Ctrl it always does.
    for (int i = 0; i < 9; ++i)
        for (const auto& key : {QKeySequence(Qt::Key_1 + i), QKeySequence(int(Qt::CTRL) | (Qt::Key_1 + i))})
            connect(new QShortcut(key, this), &QShortcut::activated, this, [this, i] { goTo(i); });
    if (auto* app = dynamic_cast<Application*>(qApp))
        app->failed = [this](const QString& words) { complain(words); };
    m_docket->left = [this] { m_stages->currentWidget()->setFocus(); };
    fillChips();
    showTitle();
    goTo(0);
    m_libraryMenu->readOwn();
}

/// The widgets go before the document that they show: an open field would still be written.
MainWindow::~MainWindow()
{
    if (auto* app = dynamic_cast<Application*>(qApp))
        app->failed = {};
    delete takeCentralWidget();
}

void MainWindow::finishTyping()
{
    if (QWidget* typing = focusWidget())
        typing->clearFocus();
}

void MainWindow::buildMenus()
{
    auto* file = menuBar()->addMenu(spoken("&File"));
    auto* fresh = file->addMenu(spoken("&New"));
    for (const Form* form : forms())
        fresh->addAction(spokenName(form->name()), this, [this, form] { newDesignOf(form->id()); })
            ->setObjectName("new." + text(form->id()));
    auto* choose = new QAction(spoken("New"), this); // the usual keys open the list of forms
    choose->setShortcut(QKeySequence::New);
    connect(choose, &QAction::triggered, this,
        [this, fresh] { fresh->popup(menuBar()->mapToGlobal(QPoint(0, menuBar()->height()))); });
    addAction(choose);
    file->addAction(spoken("&Open…"), QKeySequence::Open, this, &MainWindow::openDialog);
    m_recent = file->addMenu(spoken("Open &recent"));
    connect(m_recent, &QMenu::aboutToShow, this, &MainWindow::fillRecent);
    m_putAway = file->addMenu(spoken("&Unsaved work put away"));
    connect(m_putAway, &QMenu::aboutToShow, this, &MainWindow::fillPutAway);
    file->addSeparator();
    file->addAction(spoken("&Save"), QKeySequence::Save, this, [this] { save(false); });
    file->addAction(spoken("Save &as…"), QKeySequence::SaveAs, this, [this] { save(true); });
    file->addSeparator();
    file->addAction(spoken("&Quit"), QKeySequence::Quit, this, &QWidget::close);
    auto* editMenu = menuBar()->addMenu(spoken("&Edit"));
    auto* undo = m_document.undoStack().createUndoAction(this, spoken("Undo"));
    undo->setShortcut(QKeySequence::Undo);
    auto* redo = m_document.undoStack().createRedoAction(this, spoken("Redo"));
    redo->setShortcuts({QKeySequence(Qt::CTRL | Qt::SHIFT | Qt::Key_Z), QKeySequence(Qt::CTRL | Qt::Key_Y)});
    editMenu->addAction(undo);
    editMenu->addAction(redo);
    editMenu->addAction(spoken("Take the &part in hand out"), QKeySequence::Delete, this, [this] {
        const Piece* piece = m_document.pattern().piece(m_document.pieceInHand());
        const std::string id = piece ? piece->owner().text() : "";
        if (id.empty())
            emit m_document.refused(spoken("The piece in hand belongs to the bag's form. What can be taken out are its "
                                           "parts: pockets, flaps, straps."));
        else
            m_document.edit(spoken("Take out: {}", id), [&](Design& d) { change::removePart(d, id); });
    });
    m_libraryMenu = new LibraryMenu(
        m_document, [this](const QString& words) { complain(words); }, this);
    menuBar()->addMenu(m_libraryMenu);
    auto* look = menuBar()->addMenu(spoken("&View"));
    look->addAction(spoken("&Mock-up beside the stage"), QKeySequence(Qt::Key_M), this, &MainWindow::toggleMockup);
    look->addAction(spoken("&Snags"), QKeySequence(Qt::Key_S), this, [this] { m_snags->setOpen(!m_snags->isOpen()); });
    look->addAction(
        spoken("&Light or dark"), QKeySequence(Qt::CTRL | Qt::Key_D), this, [this] { setDark(!theme().dark); });
}

QWidget* MainWindow::buildTopBar()
{
    auto* bar = new QWidget;
    auto* row = new QHBoxLayout(bar);
    row->setContentsMargins(0, 2, 8, 2);
    row->setSpacing(4);
    m_name = new QLabel;
    m_name->setFont(pixelFont(13, QFont::Medium));
    m_name->setFixedWidth(300); // a menu bar does not lay its corner out again when a name gets longer
    m_name->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    row->addWidget(m_name);
    row->addSpacing(14);
    m_chips = new QHBoxLayout;
    m_chips->setSpacing(3);
    row->addLayout(m_chips);
    m_sizeChoice = new QComboBox;
    m_sizeChoice->setObjectName("sizeChoice");
    m_sizeChoice->setAccessibleName(spoken("Size that is looked at"));
    connect(m_sizeChoice, &QComboBox::activated, this, [this](int i) { m_document.setSize(std::size_t(i)); });
    row->addWidget(m_sizeChoice);
    row->addSpacing(10);
    auto* units = new QButtonGroup(bar);
    int i = 0;
    for (const char* name : {"mm", "cm", "in"}) {
        auto* b = new QPushButton(name);
        b->setCheckable(true);
        b->setChecked(i == 0);
        b->setFixedSize(40, 24);
        b->setProperty("tight", true);
        b->setAccessibleName(spoken("Show lengths in {}", name));
        units->addButton(b, i++);
        row->addWidget(b);
    }
    connect(units, &QButtonGroup::idClicked, this, [this](int id) { m_document.setUnit(Unit(id)); });
    connect(&m_document, &Document::viewChanged, units,
        [this, units] { units->button(int(m_document.unit()))->setChecked(true); });
    return bar;
}

void MainWindow::fillChips()
{
    const auto& sizes = m_document.design().sizes;
    int wide = 0;
    for (const auto& s : sizes)
        wide += std::max(34, fontMetrics().horizontalAdvance(text(s)) + 16) + 3;
    const bool many = wide > 230; // chips would push the rest off the bar
    m_sizeChoice->setVisible(many);
    QStringList names;
    for (const auto& s : sizes)
        names << spoken("Size {}", text(s));
    QStringList shown;
    for (int i = 0; i < m_sizeChoice->count(); ++i)
        shown << m_sizeChoice->itemText(i);
    if (shown != names) {
        m_sizeChoice->clear();
        m_sizeChoice->addItems(names);
        m_sizeChoice->setFixedWidth(many ? 130 : 10);
        placeOnMenuBar();
    }
    m_sizeChoice->setCurrentIndex(int(m_document.size()));
    const std::size_t chips = many ? 0 : sizes.size();
    if (m_chips->count() != int(chips)) {
        while (auto* item = m_chips->takeAt(0)) {
            item->widget()->hide();
            item->widget()->deleteLater();
            delete item;
        }
        for (std::size_t k = 0; k < chips; ++k) {
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
    for (std::size_t k = 0; k < chips; ++k) {
        auto* b = static_cast<QPushButton*>(m_chips->itemAt(int(k))->widget());
        b->setText(text(sizes[k]).replace("&", "&&"));
        b->setObjectName("size." + text(sizes[k]));
        b->setAccessibleName(spoken("Size {}", text(sizes[k])));
        b->setChecked(k == m_document.size());
    }
}

/// A menu bar lays its corner out only when that changes.
void MainWindow::placeOnMenuBar()
{
    if (QWidget* corner = menuBar()->cornerWidget()) {
        corner->adjustSize();
        menuBar()->setCornerWidget(corner, Qt::TopRightCorner);
        corner->show();
    }
}

void MainWindow::offerRecovery()
{
    for (const Leftover& found : Recovery::leftovers()) {
        const QString file = QFileInfo(found.file).fileName(), when = found.when.toString("d MMMM, hh:mm");
        m_banner->tellLater({found.name.isEmpty() && file.isEmpty()
                ? spoken("Tectonis did not end properly. Unsaved work from {} was kept.", when)
                : file.isEmpty()
                ? spoken("Tectonis did not end properly. Unsaved work on “{}” from {} was kept.", found.name, when)
                : spoken("Tectonis did not end properly. Unsaved work on “{}”, opened from {}, from {} was kept.",
                    found.name.isEmpty() ? file : found.name, file, when),
            {{spoken("Open it"), [this, found] { return mayLeave() && openLeftover(found); }},
                {spoken("Put it away"), [found] {
                     Recovery::putAway(found);
                     return true;
                 }}}});
    }
}

bool MainWindow::openLeftover(const Leftover& leftover)
{
    try {
        ReadDesign read = readDesign(readWhole(leftover.copy.toStdString()),
            QFileInfo(leftover.copy).fileName().toStdString(), *m_document.library());
        m_document.takeOver(std::move(read.design), leftover.file, false, leftover.stamp.toStdString());
        m_recovery.adopt(leftover);
        m_recovery.keep();
        return true;
    } catch (const std::exception& e) {
        complain(spoken("{} The copy stays where it is: {}", spokenReason(e), leftover.copy));
        return false;
    }
}

void MainWindow::goTo(int stage)
{
    m_stages->setCurrentIndex(stage);
    m_runSheet->choose(stage);
    m_docket->follow(dynamic_cast<DocketSource*>(m_stages->widget(stage)));
    if (m_mockup)
        m_mockup->setVisible(stage != 0);
    // What was typed into before lets go, so that the next key is the stage's.
    if (QWidget* now = m_stages->currentWidget(); isVisible() && now)
        now->setFocus();
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
    const QString file = m_document.fileName().isEmpty() ? spoken("not saved yet")
                                                         : QFileInfo(m_document.fileName()).fileName();
    setWindowTitle(file + (m_document.modified() ? " * – Tectonis" : " – Tectonis"));
    const QString changed = m_document.modified() ? "  ·  " + spoken("changed") : "",
                  name = text(m_document.design().name);
    m_name->setText(m_name->fontMetrics().elidedText(
                        name, Qt::ElideRight, m_name->width() - m_name->fontMetrics().horizontalAdvance(changed))
        + changed);
    m_name->setToolTip(name);
}

void MainWindow::complain(const QString& message) { m_banner->tell({message}); }

bool MainWindow::openFile(const QString& file)
{
    try {
        const auto told = m_document.open(file);
        remember(file);
        rememberFolder(file);
        m_banner->clearTold();
        for (const auto& words : told)
            m_banner->tell({text(words)});
        return true;
    } catch (const std::exception& e) {
        complain(spokenReason(e));
        return false;
    }
}

/// Another program, or another window, may have saved the file meanwhile.
bool MainWindow::mayReplaceChanged()
{
    QMessageBox box(QMessageBox::Warning, "Tectonis",
        spoken("“{}” was changed by another program or window since it was opened here. Saving would put yours in its "
               "place.",
            QFileInfo(m_document.fileName()).fileName()),
        QMessageBox::NoButton, this);
    box.setTextFormat(Qt::PlainText);
    auto* other = box.addButton(spoken("Save under another name…"), QMessageBox::AcceptRole);
    auto* replace = box.addButton(spoken("Put mine in its place"), QMessageBox::DestructiveRole);
    auto* cancel = box.addButton(QMessageBox::Cancel);
    box.setDefaultButton(other);
    box.setEscapeButton(cancel);
    box.exec();
    if (box.clickedButton() == other) {
        save(true);
        return false;
    }
    return box.clickedButton() == replace;
}

bool MainWindow::save(bool as)
{
    finishTyping();
    QString file = m_document.fileName();
    if (as || file.isEmpty())
        file = askFileToWrite(this, spoken("Save the design"),
            file.isEmpty() ? text(safeFileName(m_document.design().name)) + kEnding : file, kEnding, designFilter(),
            m_document.fileName());
    if (file.isEmpty())
        return false;
    if (file == m_document.fileName() && m_document.changedOnDisk() && !mayReplaceChanged())
        return !m_document.modified(); // it may have been saved under another name
    try {
        m_document.save(file);
        remember(file);
        m_recovery.keep();
        m_banner->clearTold();
        return true;
    } catch (const std::exception& e) {
        complain(spokenReason(e));
        return false;
    }
}

bool MainWindow::mayLeave()
{
    finishTyping();
    if (!m_document.modified())
        return true;
    QMessageBox box(QMessageBox::Question, "Tectonis",
        spoken("“{}” has changes that are not saved.", text(m_document.design().name)),
        QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel, this);
    box.setTextFormat(Qt::PlainText);
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
    const QString file = QFileDialog::getOpenFileName(this, spoken("Open a design"),
        m_document.fileName().isEmpty() ? lastFolder() : QFileInfo(m_document.fileName()).path(), designFilter());
    if (!file.isEmpty())
        openFile(file);
}

void MainWindow::newDesignOf(const std::string& form)
{
    if (!mayLeave())
        return;
    // The same workshop makes it, in its ways.
    Design design = newDesign(form);
    design.workshop = m_document.design().workshop;
    change::ways(design);
    m_document.takeOver(std::move(design), {});
    goTo(0); // it begins with its brief
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
        m_recent->addAction(QString(file).replace("&", "&&"), this, [this, file] {
            if (mayLeave())
                openFile(file);
        });
    if (m_recent->isEmpty())
        m_recent->addAction(spoken("Nothing yet"))->setEnabled(false);
}

void MainWindow::fillPutAway()
{
    m_putAway->clear();
    for (const Leftover& copy : Recovery::putAwayCopies())
        m_putAway->addAction(QString("%1, %2")
                                 .arg(copy.name.isEmpty() ? QFileInfo(copy.copy).fileName() : copy.name,
                                     copy.when.toString("d MMMM, hh:mm"))
                                 .replace("&", "&&"),
            this, [this, copy] {
                if (mayLeave())
                    openLeftover(copy);
            });
    if (m_putAway->isEmpty())
        m_putAway->addAction(spoken("Nothing"))->setEnabled(false);
}

void MainWindow::showEvent(QShowEvent* event)
{
    QMainWindow::showEvent(event);
    QTimer::singleShot(60, this, &MainWindow::fitScreen); // its frame is known only then
}

void MainWindow::resizeEvent(QResizeEvent* event)
{
    QMainWindow::resizeEvent(event);
    m_docket->setFixedWidth(width() < 1150 ? 300 : 336); // a small window gives the room to the bench
}

/// The window with its frame lies inside the screen.
void MainWindow::fitScreen()
{
    if (isMaximized() || isFullScreen() || !screen())
        return;
    const QRect room = screen()->availableGeometry(), frame = frameGeometry();
    const QSize border = frame.size() - size(), most = room.size() - border;
    if (width() > most.width() || height() > most.height())
        resize(size().boundedTo(most));
    if (!room.contains(frameGeometry()))
        move(std::max(room.left(), std::min(frameGeometry().left(), room.right() + 1 - frameGeometry().width())),
            std::max(room.top(), std::min(frameGeometry().top(), room.bottom() + 1 - frameGeometry().height())));
}

void MainWindow::closeEvent(QCloseEvent* event)
{
    if (mayLeave())
        event->accept();
    else
        event->ignore();
}

} // namespace tectonis
