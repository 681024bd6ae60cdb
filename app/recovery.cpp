// SPDX-License-Identifier: GPL-3.0-or-later
#include "recovery.hpp"

#include "formats/design_file.hpp"
#include "units/error.hpp"

#include <QCoreApplication>
#include <QDir>
#include <QFile>
#include <QStandardPaths>

#include <csignal>

namespace tectonis {
namespace {

QDir folder()
{
    QDir dir(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + "/unsaved");
    dir.mkpath(".");
    return dir;
}

} // namespace

Recovery::Recovery(Document& document) : m_document(document), m_copy(folder().filePath(QString("%1.tectonis").arg(QCoreApplication::applicationPid())))
{
    m_timer.setSingleShot(true);
    m_timer.setInterval(2000);
    connect(&m_timer, &QTimer::timeout, this, &Recovery::keep);
    connect(&document, &Document::changed, this, [this] { m_timer.start(); });
    connect(&document, &Document::fileChanged, this, [this] { m_timer.start(); });
}

Recovery::~Recovery() { QFile::remove(m_copy); }

void Recovery::keep()
{
    if (!m_document.modified()) {
        QFile::remove(m_copy);
        return;
    }
    try {
        saveDesign(m_document.design(), m_copy.toStdString());
    } catch (const InputError&) {
        // No room for the copy: the open design is unharmed, and saving will tell.
    }
}

QString Recovery::leftover()
{
    for (const QString& name : folder().entryList({"*.tectonis"}, QDir::Files, QDir::Time)) {
        const qint64 pid = name.section('.', 0, 0).toLongLong();
        const bool running = pid > 0 && (pid == QCoreApplication::applicationPid() || ::kill(pid_t(pid), 0) == 0);
        if (!running)
            return folder().filePath(name);
    }
    return {};
}

void Recovery::discard(const QString& copy) { QFile::remove(copy); }

} // namespace tectonis
