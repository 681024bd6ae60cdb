// SPDX-License-Identifier: GPL-3.0-or-later
#include "recovery.hpp"

#include "formats/design_file.hpp"
#include "units/error.hpp"

#include <QDir>
#include <QFile>
#include <QFileInfo>
#include <QJsonDocument>
#include <QJsonObject>
#include <QStandardPaths>
#include <QUuid>

namespace tectonis {
namespace {

QDir folder(const QString& below = {})
{
    QDir dir(QStandardPaths::writableLocation(QStandardPaths::AppDataLocation) + "/unsaved" + below);
    dir.mkpath(".");
    return dir;
}

QString beside(const QString& copy, const QString& ending)
{
    return copy.chopped(QString(".tectonis").size()) + ending;
}

void removeAll(const QString& copy)
{
    for (const char* ending : {".tectonis", ".json", ".lock"})
        QFile::remove(beside(copy, ending));
}

Leftover described(const QString& copy)
{
    Leftover out;
    out.copy = copy;
    out.when = QFileInfo(copy).lastModified();
    QFile facts(beside(copy, ".json"));
    if (facts.open(QIODevice::ReadOnly)) {
        const QJsonObject o = QJsonDocument::fromJson(facts.readAll()).object();
        out.file = o["file"].toString(), out.stamp = o["stamp"].toString(), out.name = o["name"].toString();
    }
    return out;
}

constexpr int kMostPutAway = 20;

} // namespace

Recovery::Recovery(Document& document)
    : m_document(document), m_copy(folder().filePath(QUuid::createUuid().toString(QUuid::WithoutBraces) + ".tectonis"))
{
    m_lock = FileLock::tried(beside(m_copy, ".lock").toStdString());
    m_timer.setSingleShot(true);
    m_timer.setInterval(2000);
    connect(&m_timer, &QTimer::timeout, this, &Recovery::keep);
    // Not started anew at each edit: steady work would never be kept.
    const auto soon = [this] {
        if (!m_timer.isActive())
            m_timer.start();
    };
    connect(&document, &Document::changed, this, soon);
    connect(&document, &Document::fileChanged, this, soon);
}

Recovery::~Recovery()
{
    for (const auto& old : m_adopted)
        removeAll(old.copy);
    removeAll(m_copy);
}

void Recovery::keep()
{
    if (m_document.modified()) {
        try {
            const QJsonObject facts{{"file", m_document.fileName()},
                {"stamp", QString::fromStdString(m_document.stamp())},
                {"name", QString::fromStdString(m_document.design().name)}};
            saveDesign(m_document.design(), m_copy.toStdString());
            writeWhole(beside(m_copy, ".json").toStdString(), QJsonDocument(facts).toJson().toStdString());
        } catch (const InputError&) {
            return; // No room for the copy: the open design is unharmed, saving will tell, and an older copy stays.
        }
    } else {
        QFile::remove(m_copy);
        QFile::remove(beside(m_copy, ".json"));
    }
    for (const auto& old : m_adopted)
        removeAll(old.copy);
    m_adopted.clear();
}

std::vector<Leftover> Recovery::leftovers()
{
    std::vector<Leftover> out;
    for (const QString& name : folder().entryList({"*.tectonis"}, QDir::Files, QDir::Time)) {
        const QString copy = folder().filePath(name);
        auto lock = FileLock::tried(beside(copy, ".lock").toStdString());
        if (!lock)
            continue; // its window is open
        out.push_back(described(copy));
        out.back().held = std::make_shared<FileLock>(std::move(*lock));
    }
    return out;
}

void Recovery::putAway(const Leftover& leftover)
{
    const QDir away = folder("/put away");
    const QString name = away.filePath(QFileInfo(leftover.copy).fileName());
    QFile::rename(leftover.copy, name);
    QFile::rename(beside(leftover.copy, ".json"), beside(name, ".json"));
    QFile::remove(beside(leftover.copy, ".lock"));
    const QStringList all = away.entryList({"*.tectonis"}, QDir::Files, QDir::Time);
    for (int i = kMostPutAway; i < all.size(); ++i)
        removeAll(away.filePath(all[i]));
}

std::vector<Leftover> Recovery::putAwayCopies()
{
    std::vector<Leftover> out;
    const QDir away = folder("/put away");
    for (const QString& name : away.entryList({"*.tectonis"}, QDir::Files, QDir::Time))
        out.push_back(described(away.filePath(name)));
    return out;
}

void Recovery::adopt(Leftover leftover) { m_adopted.push_back(std::move(leftover)); }

} // namespace tectonis
