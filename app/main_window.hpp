// SPDX-License-Identifier: GPL-3.0-or-later
// The window: run sheet, rail, stages, docket, snag line, put together from parts.
#pragma once

#include "recovery.hpp"

#include <QMainWindow>
#include <QStackedWidget>

class QComboBox;
class QHBoxLayout;
class QLabel;

namespace tectonis {

class Banner;
class LibraryMenu;
class Docket;
class RunSheet;
class SnagLine;

class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    MainWindow();
    ~MainWindow() override;

    Document& document() { return m_document; }
    void goTo(int stage);
    int stage() const { return m_stages->currentIndex(); }
    bool openFile(const QString& file);
    /// Offers what runs left that did not end properly.
    void offerRecovery();
    void setDark(bool dark);
    /// A message that stays until it is put away; what was open stays open.
    void complain(const QString& message);

protected:
    void closeEvent(QCloseEvent* event) override;
    void showEvent(QShowEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void buildMenus();
    QWidget* buildTopBar();
    void fillChips();
    void showTitle();
    bool save(bool as);
    bool mayReplaceChanged(); ///< asks if somebody else changed the file since; sets nothing
    bool openLeftover(const Leftover& leftover);
    bool mayLeave(); ///< asks about unsaved changes; true if the design may be left
    void openDialog();
    void newDesignOf(const std::string& form);
    void remember(const QString& file);
    void fillRecent();
    void fillPutAway();
    void fitScreen();
    void finishTyping(); ///< what stands in an open field counts
    void placeOnMenuBar();
    void toggleMockup();

    Document m_document;
    Recovery m_recovery;
    RunSheet* m_runSheet;
    QStackedWidget* m_stages;
    Docket* m_docket;
    SnagLine* m_snags;
    QHBoxLayout* m_chips;
    QComboBox* m_sizeChoice; ///< in place of the chips where there are many sizes
    Banner* m_banner;
    LibraryMenu* m_libraryMenu;
    QMenu *m_recent, *m_putAway;
    QLabel* m_name;
    QWidget* m_mockup = nullptr;
};

} // namespace tectonis
