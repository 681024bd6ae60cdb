// SPDX-License-Identifier: GPL-3.0-or-later
// Asking for the name of a file to write: the ending is put on before it is asked whether an existing file may be
// replaced.
#pragma once

#include <QString>

class QWidget;

namespace tectonis {

/// Empty if the user went back. @p ending with its dot, ".tectonis"; @p own: the file that may be replaced without a
/// question.
QString askFileToWrite(QWidget* parent, const QString& title, const QString& suggested, const QString& ending,
    const QString& filter, const QString& own = {});

/// The folder that files were last written to or read from.
QString lastFolder();
void rememberFolder(const QString& file);

} // namespace tectonis
