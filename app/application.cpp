// SPDX-License-Identifier: GPL-3.0-or-later
#include "application.hpp"

#include "qtext.hpp"

#include <QAbstractItemView>
#include <QAbstractSpinBox>
#include <QComboBox>
#include <QHelpEvent>
#include <QKeyEvent>
#include <QLabel>
#include <QLayout>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QScreen>
#include <QTextEdit>
#include <QToolTip>
#include <QTranslator>

#include <algorithm>
#include <exception>

namespace tectonis {
namespace {

/// Could what is typed go into this widget?
bool takesText(const QObject* o)
{
    if (const auto* line = qobject_cast<const QLineEdit*>(o))
        return !line->isReadOnly();
    if (const auto* edit = qobject_cast<const QTextEdit*>(o))
        return !edit->isReadOnly();
    if (const auto* edit = qobject_cast<const QPlainTextEdit*>(o))
        return !edit->isReadOnly();
    if (qobject_cast<const QAbstractSpinBox*>(o))
        return true;
    if (const auto* view = qobject_cast<const QAbstractItemView*>(o))
        return view->editTriggers().testFlag(QAbstractItemView::AnyKeyPressed) && view->currentIndex().isValid()
            && view->currentIndex().flags().testFlag(Qt::ItemIsEditable) && view->selectionModel()
            && view->selectionModel()->isSelected(view->currentIndex());
    if (const auto* combo = qobject_cast<const QComboBox*>(o))
        return combo->isEditable();
    return false;
}

/// A number on a selected row is typed, not taken for a stage key.
bool keepKeyForField(QObject* o, QKeyEvent* key)
{
    if (key->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier))
        return false;
    const bool typed = (!key->text().isEmpty() && key->text().front().isPrint()) || key->key() == Qt::Key_Delete
        || key->key() == Qt::Key_Backspace;
    // Delete on a selected row of a table is not typing.
    if (key->key() == Qt::Key_Delete && qobject_cast<QAbstractItemView*>(o))
        return false;
    if (!typed || !takesText(o))
        return false;
    key->accept();
    return true;
}

/// The wheel scrolls; it does not change what it happens to pass over.
bool scrollPast(QObject* o, QEvent* event)
{
    if (!qobject_cast<QComboBox*>(o) && !qobject_cast<QAbstractSpinBox*>(o))
        return false;
    event->ignore();
    return true;
}

/// Tool tips are words from anywhere: never markup.
bool plainToolTip(QObject* o, QHelpEvent* help)
{
    auto* widget = qobject_cast<QWidget*>(o);
    if (!widget)
        return false;
    QString tip = widget->toolTip();
    if (auto* view = qobject_cast<QAbstractItemView*>(widget->parentWidget()); view && view->viewport() == widget)
        if (const QModelIndex at = view->indexAt(help->pos()); at.isValid())
            tip = at.data(Qt::ToolTipRole).toString();
    if (!Qt::mightBeRichText(tip))
        return false;
    QToolTip::showText(help->globalPos(), asPlain(tip), widget);
    return true;
}

class Manners : public QObject {
public:
    using QObject::QObject;
    bool eventFilter(QObject* o, QEvent* event) override
    {
        switch (event->type()) {
        case QEvent::Polish:
            // A tool tip is made plain before it is one.
            if (auto* label = qobject_cast<QLabel*>(o);
                label && label->textFormat() == Qt::AutoText && !label->inherits("QTipLabel"))
                label->setTextFormat(Qt::PlainText);
            return false;
        case QEvent::ShortcutOverride: return keepKeyForField(o, static_cast<QKeyEvent*>(event));
        case QEvent::Wheel: return scrollPast(o, event);
        case QEvent::ToolTip: return plainToolTip(o, static_cast<QHelpEvent*>(event));
        default: return false;
        }
    }
};

/// Qt's own words (buttons of boxes, the file dialog, menus of fields) in the reader's language, as far as they are
/// known here.
class QtWords : public QTranslator {
public:
    using QTranslator::QTranslator;
    bool isEmpty() const override { return false; }
    QString translate(const char*, const char* source, const char*, int) const override
    {
        static const Label known[] = {label("OK"), label("Save"), label("Open"), label("&Save"), label("&Open"),
            label("Cancel"), label("Close"), label("Discard"), label("Don't Save"), label("&Yes"), label("&No"),
            label("&Undo"), label("&Redo"), label("Cu&t"), label("&Copy"), label("Copy &Link Location"),
            label("&Paste"), label("Delete"), label("Select All"), label("&Step up"), label("Step &down"),
            label("Look in:"), label("File &name:"), label("Files of type:"), label("Directory:"), label("Folder"),
            label("Name"), label("Size"), label("Type"), label("Date Modified"), label("Back"), label("Forward"),
            label("Parent Directory"), label("Create New Folder"), label("List View"), label("Detail View"),
            label("&Choose"), label("Computer"), label("&Rename"), label("&Delete"), label("Show &hidden files"),
            label("&New Folder"), label("All Files (*)")};
        for (const Label& each : known)
            if (each == source)
                return text(each);
        return {};
    }
};

} // namespace

Application::Application(int& argc, char** argv) : QApplication(argc, argv)
{
    installEventFilter(new Manners(this));
    if (readersLanguage().id() != "en")
        installTranslator(new QtWords(this));
}

bool Application::notify(QObject* receiver, QEvent* event)
{
    QString what;
    try {
        return QApplication::notify(receiver, event);
    } catch (const std::bad_alloc&) {
        what = spoken("there is not enough memory for that");
    } catch (const std::exception& e) {
        what = spokenReason(e);
    } catch (...) {
        what = spoken("unknown");
    }
    if (failed)
        failed(spoken("That could not be done ({}). What is open is unharmed; undo goes back.", what));
    return true;
}

QString asPlain(const QString& text)
{
    return Qt::mightBeRichText(text) ? "<qt>" + text.toHtmlEscaped().replace('\n', "<br>") + "</qt>" : text;
}

void placeOnScreen(QWidget* window, const QPoint& wanted)
{
    const QScreen* screen = QGuiApplication::screenAt(wanted);
    if (!screen)
        screen = QGuiApplication::primaryScreen();
    const QRect room = screen->availableGeometry().adjusted(4, 4, -4, -4);
    window->ensurePolished();
    if (window->layout())
        window->layout()->activate();
    window->adjustSize();
    const QSize size = window->size().boundedTo(room.size());
    window->resize(size);
    window->move(std::clamp(wanted.x(), room.left(), room.right() + 1 - size.width()),
        std::clamp(wanted.y(), room.top(), room.bottom() + 1 - size.height()));
}

} // namespace tectonis
