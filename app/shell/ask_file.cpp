// SPDX-License-Identifier: GPL-3.0-or-later
#include "ask_file.hpp"

#include <QDir>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>

namespace tectonis {

QString lastFolder() { return QSettings().value("folder", QDir::homePath()).toString(); }
void rememberFolder(const QString& file) { QSettings().setValue("folder", QFileInfo(file).absolutePath()); }

QString askFileToWrite(QWidget* parent, const QString& title, const QString& suggested, const QString& ending,
    const QString& filter, const QString& own)
{
    QString at = QFileInfo(suggested).isAbsolute() ? suggested : QDir(lastFolder()).filePath(suggested);
    for (;;) {
        QFileDialog dialog(parent, title, QFileInfo(at).absolutePath(), filter);
        dialog.setAcceptMode(QFileDialog::AcceptSave);
        dialog.setOption(QFileDialog::DontConfirmOverwrite); // asked below, with the whole name
        dialog.selectFile(QFileInfo(at).fileName());
        if (dialog.exec() != QDialog::Accepted || dialog.selectedFiles().isEmpty())
            return {};
        QString file = dialog.selectedFiles().first();
        if (!file.endsWith(ending, Qt::CaseInsensitive))
            file += ending;
        const QFileInfo is(file);
        if (!is.exists() || (!own.isEmpty() && is == QFileInfo(own)))
            return rememberFolder(file), file;
        QMessageBox box(QMessageBox::Question, "Tectonis",
            spoken("There is a file “{}” already. Replace it?", is.fileName()), QMessageBox::NoButton, parent);
        box.setTextFormat(Qt::PlainText);
        auto* replace = box.addButton(spoken("Replace it"), QMessageBox::DestructiveRole);
        auto* other = box.addButton(spoken("Another name…"), QMessageBox::AcceptRole);
        auto* cancel = box.addButton(QMessageBox::Cancel);
        box.setDefaultButton(other);
        box.setEscapeButton(cancel);
        box.exec();
        if (box.clickedButton() == replace)
            return rememberFolder(file), file;
        if (box.clickedButton() != other)
            return {};
        at = file;
    }
}

} // namespace tectonis
