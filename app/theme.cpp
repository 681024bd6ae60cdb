// SPDX-License-Identifier: GPL-3.0-or-later
#include "theme.hpp"

#include "fonts.hpp"

#include <QApplication>
#include <QPalette>
#include <QStyleFactory>

namespace tectonis {
namespace {

Theme current;

Theme lightTheme()
{
    return {false, 0xEEEAE2, 0xF9F6F0, 0xE3DDD2, 0xFFFFFF, 0x2A251F, 0x635A4F, 0xCFC6B8, 0x96361A, 0xFFFFFF, 0x1F5F8B,
        0xA3241A, 0x7E5200, 0x2C5A6B, 0xF5EAD3, 0xD9E5E8, 0xE9DCC6, 0xDFE3D4};
}

Theme darkTheme()
{
    return {true, 0x212428, 0x2A2E33, 0x191C1F, 0x1E2125, 0xECE7DE, 0xACA598, 0x454A50, 0xE8906A, 0x20160F, 0x82C2EC,
        0xF28B7D, 0xE9BE62, 0x8FC7D8, 0x5C5243, 0x3D4D54, 0x554B3C, 0x454C3F};
}

} // namespace

const Theme& theme() { return current; }

QColor Theme::groupColor(Coat group) const
{
    switch (group) {
    case Coat::Shell: return shell;
    case Coat::Lining: return lining;
    case Coat::Interlining: return interlining;
    case Coat::Strip: return strip;
    }
    return shell;
}

PieceLook Theme::pieceLook(Coat group, bool inHand) const
{
    PieceLook look;
    look.card = groupColor(group);
    look.edge = inHand ? accent : (dark ? QColor(0xB9B1A3) : QColor(0x5A4F43));
    look.ink = ink;
    look.stitch = dark ? QColor(0xE0B98E) : QColor(0x8A5426);
    look.mark = error;
    look.layer = dark ? QColor(0xA9C6B6) : QColor(0x3F6352);
    look.line = inHand ? 2 : 1; // Qt strokes lines of one pixel several times as fast as wider ones
    return look;
}

FigureLook Theme::figureLook() const
{
    FigureLook look;
    look.ground = surface, look.shell = shell, look.lining = lining, look.ink = ink, look.accent = accent;
    look.faint = muted, look.strip = strip;
    return look;
}

void applyTheme(QApplication& app, bool dark)
{
    current = dark ? darkTheme() : lightTheme();
    const Theme& t = current;
    app.setStyle(QStyleFactory::create("Fusion"));
    QPalette p;
    p.setColor(QPalette::Window, t.window);
    p.setColor(QPalette::WindowText, t.ink);
    p.setColor(QPalette::Base, t.field);
    p.setColor(QPalette::AlternateBase, t.surface);
    p.setColor(QPalette::Text, t.ink);
    p.setColor(QPalette::Button, t.surface);
    p.setColor(QPalette::ButtonText, t.ink);
    p.setColor(QPalette::Highlight, t.accent);
    p.setColor(QPalette::HighlightedText, t.accentInk);
    p.setColor(QPalette::ToolTipBase, t.surface);
    p.setColor(QPalette::ToolTipText, t.ink);
    p.setColor(QPalette::PlaceholderText, t.muted);
    p.setColor(QPalette::Mid, t.line);
    p.setColor(QPalette::Dark, t.line);
    p.setColor(QPalette::Light, t.surface);
    p.setColor(QPalette::Disabled, QPalette::Text, t.muted);
    p.setColor(QPalette::Disabled, QPalette::WindowText, t.muted);
    p.setColor(QPalette::Disabled, QPalette::ButtonText, t.muted);
    app.setPalette(p);
    app.setFont(pixelFont(13));
    const auto c = [](const QColor& color) { return color.name(); };
    app.setStyleSheet(QString(R"(
        QToolTip { color: %1; background: %2; border: 1px solid %3; padding: 3px; }
        QLineEdit, QPlainTextEdit { background: %4; color: %1; border: 1px solid %3; border-radius: 4px; padding: 2px 5px; selection-background-color: %5; }
        QLineEdit:focus, QPlainTextEdit:focus { border: 1px solid %5; }
        QPushButton { background: %2; color: %1; border: 1px solid %3; border-radius: 5px; padding: 4px 10px; }
        QPushButton:hover { border-color: %5; }
        QPushButton:focus { border: 1px solid %5; }
        QPushButton:checked { background: %5; color: %6; border-color: %5; }
        QPushButton:disabled { color: %7; }
        QScrollArea, QAbstractScrollArea { border: none; background: transparent; }
        QListView, QTreeView { background: %2; color: %1; }
        QTableWidget, QTreeWidget, QListWidget { background: %2; color: %1; border: 1px solid %3; border-radius: 5px; gridline-color: %3; }
        QHeaderView::section { background: %2; color: %7; border: none; border-bottom: 1px solid %3; padding: 4px 6px; }
        QScrollBar:vertical { background: transparent; width: 10px; } QScrollBar::handle:vertical { background: %3; border-radius: 4px; min-height: 24px; }
        QScrollBar:horizontal { background: transparent; height: 10px; } QScrollBar::handle:horizontal { background: %3; border-radius: 4px; min-width: 24px; }
        QScrollBar::add-line, QScrollBar::sub-line { width: 0; height: 0; }
        QMenu { background: %2; color: %1; border: 1px solid %3; } QMenu::item:selected { background: %5; color: %6; } QMenu::item:disabled { color: %7; background: %2; }
        QCheckBox { color: %1; spacing: 6px; } QCheckBox::indicator { width: 13px; height: 13px; border: 1px solid %7; border-radius: 3px; background: %4; }
        QCheckBox::indicator:checked { background: %5; border: 1px solid %5; } QCheckBox:focus { color: %5; }
        QSlider::groove:horizontal { height: 4px; background: %3; border-radius: 2px; } QSlider::handle:horizontal { width: 14px; height: 14px; margin: -6px 0; border-radius: 7px; background: %5; }
        QTableCornerButton::section { background: %2; border: none; border-bottom: 1px solid %3; }
        QPushButton[tight="true"] { padding: 0 4px; }
    )")
                          .arg(c(t.ink), c(t.surface), c(t.line), c(t.field), c(t.accent), c(t.accentInk), c(t.muted)));
}

} // namespace tectonis
