// SPDX-License-Identifier: GPL-3.0-or-later
// The window in the test language (data/languages/test-language.py): nothing that it says is English, nothing is cut
// off. These tests run by themselves, with TECTONIS_LANGUAGE set (see tests/CMakeLists.txt). What is painted is read
// by poppler from the window printed as a PDF.
#include "driven.hpp"
#include "features/feature.hpp"
#include "forms/form.hpp"
#include "library/library.hpp"
#include "sequence/minutes.hpp"

#include <QHeaderView>
#include <QMenu>
#include <QMenuBar>
#include <QPdfWriter>
#include <QRegularExpression>
#include <QTextDocument>

#include <poppler-document.h>
#include <poppler-page.h>

#include <memory>
#include <set>

using namespace tectonis;

namespace {

/// Words of three or more plain letters; the test language writes none.
QStringList plainWords(const QString& text)
{
    static const QRegularExpression word(
        "(?<![\\w.])[A-Za-z]{3,}(?!\\w)", QRegularExpression::UseUnicodePropertiesOption);
    QStringList out;
    for (auto it = word.globalMatch(text); it.hasNext();)
        out << it.next().captured();
    return out;
}

/// Names that are nobody's to translate: the designer's, those of materials, and what formulas are made of.
std::set<QString> namesOf(const Document& document)
{
    const Design& d = document.design();
    std::set<QString> out{"Tectonis", "tectonis", "tuners", "satchel", "Inter", "max", "min", "sqrt", "ceil", "PDF",
        "SVG", "JSON", "HTML", "csv", "tsv", "txt", "json", "asin", "sin", "cos", "tan", "atan", "floor", "hypot",
        "abs", "stitch", "full", "inset", "ratio", "rows", "diamonds", "past", "strip", "along", "patch", "corner",
        "drawn", "as", "less", "lower", "upper", "left", "right"}; // from "stitch" on they are typed as they stand
    const auto add = [&](const std::string& s) {
        for (const auto& word : plainWords(QString::fromStdString(s).replace('.', ' ')))
            out.insert(word);
    };
    for (const auto& s : {d.name, d.studio, d.notes, d.workshop.machine})
        add(s);
    for (const auto& c : d.carried)
        add(c.name);
    for (const auto& piece : document.pattern().pieces) // shapes of layers name edges and areas as files do
        for (const auto& e : piece.edges)
            add("strip " + e.name.text());
    for (const auto& piece : document.pattern().pieces)
        add(piece.key.text());
    for (const auto& f : d.features)
        add(f.id);
    for (const auto& m : d.library->materials())
        add(m.name), add(m.id);
    for (const auto& paper : d.library->papers())
        add(paper.name);
    for (const auto& w : d.library->workshops())
        add(w.machine);
    for (const auto& t : d.trials)
        add(t.note), add(t.date);
    for (const auto& r : d.revisions)
        add(r.text);
    for (const auto& spec : document.spec().dimensions)
        add(spec.name);
    for (const auto& [name, dimension] : d.dimensions) {
        add(dimension.value);
        add(ruleText(dimension.rule)); // typed and shown as it is typed
    }
    for (const auto& p : document.patterns()) {
        std::vector<Working> workings = p.workings;
        for (const auto& step : p.steps)
            workings.push_back(minutesOf(p, step));
        for (const auto& w : workings) {
            add(w.formula);
            for (const auto& in : w.inputs)
                add(in.name);
        }
    }
    return out;
}

QString plain(const QString& s)
{
    if (!Qt::mightBeRichText(s))
        return s;
    QTextDocument document;
    document.setHtml(s);
    return document.toPlainText();
}

/// Everything that a widget and those in it say in words.
void wordsIn(const QWidget& widget, QStringList& out)
{
    out << widget.toolTip() << widget.accessibleName();
    if (const auto* label = qobject_cast<const QLabel*>(&widget))
        out << plain(label->text());
    else if (const auto* button = qobject_cast<const QAbstractButton*>(&widget))
        out << button->text();
    else if (const auto* line = qobject_cast<const QLineEdit*>(&widget))
        out << line->placeholderText();
    else if (const auto* browser = qobject_cast<const QTextBrowser*>(&widget))
        out << browser->toPlainText();
    else if (const auto* box = qobject_cast<const QComboBox*>(&widget))
        for (int i = 0; i < box->count(); ++i)
            out << box->itemText(i);
    if (const auto* view = qobject_cast<const QAbstractItemView*>(&widget); view && view->model()) {
        const std::function<void(const QModelIndex&)> rows = [&](const QModelIndex& parent) {
            for (int r = 0; r < view->model()->rowCount(parent); ++r)
                for (int c = 0; c < view->model()->columnCount(parent); ++c) {
                    const QModelIndex at = view->model()->index(r, c, parent);
                    out << at.data().toString() << plain(at.data(Qt::ToolTipRole).toString());
                    if (c == 0)
                        rows(at);
                }
        };
        rows({});
        for (const auto way : {Qt::Horizontal, Qt::Vertical})
            for (int i = 0; i < (way == Qt::Horizontal ? view->model()->columnCount() : view->model()->rowCount()); ++i)
                out << view->model()->headerData(i, way).toString();
    }
    for (const auto* action : widget.actions())
        out << action->text();
    for (const auto* child : widget.children())
        if (const auto* inner = qobject_cast<const QWidget*>(child); inner && !inner->inherits("QHeaderView"))
            wordsIn(*inner, out);
}

/// What is painted, as a reader of PDF finds it.
QString painted(QWidget& widget)
{
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter writer(&buffer);
        writer.setResolution(96);
        writer.setPageMargins(QMarginsF(0, 0, 0, 0));
        writer.setPageSize(QPageSize(QSizeF(widget.width(), widget.height()) * 72 / 96.0, QPageSize::Point));
        QPainter painter(&writer);
        widget.render(&painter);
    }
    const std::unique_ptr<poppler::document> pdf(
        poppler::document::load_from_raw_data(bytes.constData(), int(bytes.size())));
    REQUIRE(pdf);
    const std::unique_ptr<poppler::page> page(pdf->create_page(0));
    const auto utf8 = page->text().to_utf8();
    return QString::fromUtf8(utf8.data(), int(utf8.size()));
}

/// A name, the beginning of one that was elided, or two that stand close.
bool isName(const QString& word, const std::set<QString>& names)
{
    return names.contains(word) || std::any_of(names.begin(), names.end(), [&](const QString& name) {
        return name.startsWith(word) || (word.startsWith(name) && names.contains(word.mid(name.size())));
    });
}

/// English words that somebody wrote where a message was wanted, each with what it stands in.
QStringList english(const QStringList& said, const std::set<QString>& names)
{
    QStringList out;
    for (const auto& text : said)
        for (const auto& word : plainWords(text))
            if (!isName(word, names)) {
                out << word + " in “" + text.left(120) + "”";
                break;
            }
    out.removeDuplicates();
    return out;
}

/// Labels and buttons that do not get the room for their words.
QStringList cutOff(QWidget& window)
{
    QStringList out;
    for (auto* w : window.findChildren<QWidget*>()) {
        if (!w->isVisibleTo(&window) || w->width() == 0)
            continue;
        int wanted = 0;
        QString words;
        if (auto* label = qobject_cast<QLabel*>(w); label && !label->text().isEmpty()) {
            words = plain(label->text());
            wanted = label->wordWrap() ? 0 : label->sizeHint().width();
            if (label->wordWrap() && label->heightForWidth(label->width()) > label->height() + 1)
                out << "too low: " + words;
        } else if (auto* button = qobject_cast<QPushButton*>(w); button && !button->text().isEmpty()) {
            words = button->text();
            wanted = button->fontMetrics().horizontalAdvance(QString(words).remove('&')) + 4;
        } else if (auto* check = qobject_cast<QCheckBox*>(w))
            words = check->text(), wanted = check->sizeHint().width();
        if (const auto* table = qobject_cast<QTableWidget*>(w); table && !table->horizontalHeader()->isHidden())
            for (int c = 0; c < table->columnCount(); ++c)
                if (const auto* head = table->horizontalHeaderItem(c); head && !table->isColumnHidden(c))
                    if (const QRect needed = table->horizontalHeader()->fontMetrics().boundingRect(
                            QRect(0, 0, table->columnWidth(c) - 8, 1000), Qt::AlignCenter | Qt::TextWordWrap,
                            head->text());
                        needed.width() > table->columnWidth(c) || needed.height() > table->horizontalHeader()->height())
                        out << QString("heading, %1 px: %2").arg(table->columnWidth(c)).arg(head->text());
        if (wanted > w->width() + 1)
            out << QString("%1 of %2 px: %3").arg(w->width()).arg(wanted).arg(words);
    }
    return out;
}

} // namespace

TEST_CASE("The window in the test language shows no English on any stage, and cuts nothing off", "[.][spoken]")
{
    REQUIRE(readersLanguage().id() != "en");
    Shown s;
    const auto names = namesOf(s.window.document());
    for (int stage = 0; stage < stageNames().size(); ++stage) {
        INFO(stageNames()[stage].toStdString());
        s.window.goTo(stage);
        QCoreApplication::processEvents();
        QStringList said;
        wordsIn(s.window, said);
        said << s.window.windowTitle() << painted(s.window).split('\n');
        CHECK(english(said, names).join("\n").toStdString() == "");
        CHECK(cutOff(s.window).join("\n").toStdString() == "");
        CHECK(s.window.minimumSizeHint().height() <= 766); // a screen of 1280 × 800 with a frame
        CHECK(s.window.minimumSizeHint().width() <= 1272);
    }
}

TEST_CASE("In the test language every menu, refusal, snag, part and form is in it", "[.][spoken]")
{
    Shown s;
    auto& document = s.window.document();
    QStringList said;
    for (auto* menu : s.window.findChildren<QMenu*>())
        for (auto* action : menu->actions())
            said << action->text();
    CHECK(said.size() > 20);
    // Typed values that are refused: what is said of them is in the reader's language too.
    QStringList refusals;
    QObject::connect(&document, &Document::refused, [&](const QString& words) {
        if (!words.isEmpty())
            refusals << words;
    });
    for (const auto& spec : document.spec().dimensions)
        for (const char* value : {"-7", "99999", "abc", "missing.one + 1", "", "0"})
            document.edit("x", [&](Design& d) { change::dimension(d, spec.name, value, {}, Unit::Mm, ""); });
    CHECK(refusals.size() > 100);
    for (const auto& r : refusals)
        CHECK(r.contains("⟦"));
    std::set<QString> names = namesOf(document);
    names.insert({"abc", "missing", "one"});
    said << refusals;
    for (const Form* form : forms()) {
        document.takeOver(newDesign(form->id()), {});
        const auto more = namesOf(document);
        names.insert(more.begin(), more.end());
        for (const auto& f : document.findings())
            said << document.words(f.subject) << document.words(f.text);
        for (const int stage : {0, 2, 3, 5}) {
            s.window.goTo(stage);
            QCoreApplication::processEvents();
            wordsIn(s.window, said);
        }
    }
    CHECK(english(said, names).join("\n").toStdString() == "");
}
