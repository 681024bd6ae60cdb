// SPDX-License-Identifier: GPL-3.0-or-later
// The Library menu: the user's own materials come in from files, go out to them, and reach the design in hand.
#pragma once

#include <QMenu>
#include <functional>

class QComboBox;

namespace tectonis {

class Document;
class Library;

class LibraryMenu : public QMenu {
    Q_OBJECT
public:
    /// @p say shows words to the user.
    LibraryMenu(Document& document, std::function<void(const QString&)> say, QWidget* parent);

    /// Reads the user's own library; the design in hand may choose from it.
    void readOwn();

private:
    void open();
    void addFrom();
    void keepTheDesigns();
    void write();
    void takeNewer();

    Document& m_document;
    std::function<void(const QString&)> m_say;
};

/// The materials of one use in a box, by name, each with its id as data; the one chosen stays. Left alone if it holds
/// just these.
void fillMaterials(QComboBox& box, const Library& library, const std::string& use);

} // namespace tectonis
