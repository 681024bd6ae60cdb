// SPDX-License-Identifier: GPL-3.0-or-later
// The window: run sheet, rail, stages, docket, snag line, put together from parts.
#pragma once

#include "recovery.hpp"

#include <QMainWindow>
#include <QStackedWidget>

class QHBoxLayout;
class QLabel;
class QPushButton;

namespace tectonis {

class Docket;
class RunSheet;
class SnagLine;

class MainWindow : public QMainWindow {
    Q_OBJECT
public:
    MainWindow();

    Document& document() { return m_document; }
    void goTo(int stage);
    int stage() const { return m_stages->currentIndex(); }
    bool openFile(const QString& file);
    void offerRecovery();
    void setDark(bool dark);

protected:
    void closeEvent(QCloseEvent* event) override;

private:
    void buildMenus();
    QWidget* buildTopBar();
    QWidget* buildBanner();
    void fillChips();
    void showTitle();
    void complain(const QString& message);
    bool save(bool as);
    bool mayLeave(); ///< asks about unsaved changes; true if the design may be left
    void openDialog();
    void newDesignOf(const std::string& form);
    void remember(const QString& file);
    void fillRecent();
    void toggleMockup();

    Document m_document;
    Recovery m_recovery;
    RunSheet* m_runSheet;
    QStackedWidget* m_stages;
    Docket* m_docket;
    SnagLine* m_snags;
    QHBoxLayout* m_chips;
    QWidget* m_banner;
    QLabel* m_bannerText;
    QPushButton *m_bannerYes, *m_bannerNo;
    QMenu* m_recent;
    QLabel* m_name;
    QWidget* m_mockup = nullptr;
    QString m_found; ///< a recovered copy on offer
};

} // namespace tectonis
