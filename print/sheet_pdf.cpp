// SPDX-License-Identifier: GPL-3.0-or-later
#include "sheet_pdf.hpp"
#include "qtext.hpp"

#include "pattern/labels.hpp"

#include "canvas.hpp"
#include "fonts.hpp"
#include "layered_pdf.hpp"
#include "pdf_setup.hpp"
#include "units/length.hpp"

#include <QBuffer>

#include <cmath>

namespace tectonis {
namespace {

constexpr double kSheetDpi = 1200;

/// "300 × 240 × 100 mm": the unit once.
QString dims(std::initializer_list<double> values, Unit unit)
{
    QStringList out;
    for (const double v : values)
        out << text(readersLanguage().lengthBare(v, unit));
    return out.join(" × ") + " " + QString::fromUtf8(unitSign(unit).data());
}

/// Millimetres on the page to device units.
struct PageInk {
    QPainter& p;
    double scale;
    void pen(const QColor& c, double width, const QVector<qreal>& dash = {}) const
    {
        QPen pen(c, width * scale);
        if (!dash.isEmpty())
            pen.setDashPattern(dash);
        p.setPen(pen);
        p.setBrush(Qt::NoBrush);
    }
    QPointF at(double x, double y) const { return {x * scale, y * scale}; }
    void line(double x0, double y0, double x1, double y1) const { p.drawLine(at(x0, y0), at(x1, y1)); }
    void rect(double x, double y, double w, double h) const
    {
        p.drawRect(QRectF(at(x, y), QSizeF(w * scale, h * scale)));
    }
    /// @p size: height of the letters' em in mm.
    void write(double x, double y, double w, double size, const QString& s, int flags = Qt::AlignLeft,
        QFont::Weight weight = QFont::Normal, QColor c = kInk) const
    {
        p.setFont(pixelFont(size * scale, weight));
        p.setPen(c);
        p.drawText(QRectF(at(x, y), QSizeF(w * scale, 400 * scale)), flags | Qt::AlignTop | Qt::TextWordWrap, s);
    }
};

double usableHeight(const SheetPlan& plan) { return plan.paper.height - 2 * plan.margin - 8; }
double usableWidth(const SheetPlan& plan) { return plan.paper.width - 2 * plan.margin; }

/// A diamond whose halves lie on both sides of a joint.
void registration(const PageInk& ink, double x, double y)
{
    ink.pen(kInk, 0.3);
    constexpr double r = 4;
    ink.p.drawPolygon(QPolygonF{ink.at(x - r, y), ink.at(x, y - r), ink.at(x + r, y), ink.at(x, y + r)});
    ink.line(x - r, y, x + r, y);
    ink.line(x, y - r, x, y + r);
}

void drawFrame(const PageInk& ink, const SheetPlan& plan, const Page& page, const Design& design)
{
    const double m = plan.margin, w = usableWidth(plan), h = usableHeight(plan), o = plan.overlap;
    ink.pen(kFaint, 0.2);
    ink.rect(m, m, w, h);
    // The joint runs in the middle of the shared strip; both pages carry it and the mark that crosses it.
    const auto joint = [&](bool there, double x0, double y0, double x1, double y1) {
        if (!there)
            return;
        ink.pen(kFaint, 0.25, {3, 3});
        ink.line(x0, y0, x1, y1);
        registration(ink, (x0 + x1) / 2, (y0 + y1) / 2);
    };
    joint(page.joinsRight, m + w - o / 2, m, m + w - o / 2, m + h);
    joint(page.joinsLeft, m + o / 2, m, m + o / 2, m + h);
    joint(page.joinsBelow, m, m + h - o / 2, m + w, m + h - o / 2);
    joint(page.joinsAbove, m, m + o / 2, m + w, m + o / 2);
    const QString how = page.joinsRight && page.joinsBelow
        ? spoken("trim right and bottom on the dashed line, lay it on the next page's")
        : page.joinsRight                   ? spoken("trim right on the dashed line, lay it on the next page's")
        : page.joinsBelow                   ? spoken("trim bottom on the dashed line, lay it on the next page's")
        : page.joinsLeft || page.joinsAbove ? spoken("glue the neighbours on here")
                                            : spoken("joins no other page");
    ink.write(m, m + h + 1.5, w * 0.2, 5, text(page.name), Qt::AlignLeft, QFont::DemiBold);
    ink.write(m + 18, m + h + 2.2, w - 18, 3, text(design.name) + "  ·  100 %  ·  " + how, Qt::AlignLeft, QFont::Normal,
        kFaint);
}

View viewOn(double scale, const SheetPlan& plan, const Page& page)
{
    View v;
    v.scale = scale;
    v.origin = {(plan.margin - page.area.x0) * scale, (plan.margin + page.area.y1) * scale};
    return v;
}

/// Where a piece's words stand on the plan: in the middle of the page that its middle is on, as far as the piece
/// allows, so that they are not cut by a joint.
Point labelPlace(const SheetPlan& plan, const SheetSpot& spot)
{
    const auto along = [](double low, double high, double origin, double step, double usable) {
        const double middle = (low + high) / 2, page = origin + std::floor((middle - origin) / step) * step;
        const double inset = std::min(40.0, (high - low) / 2);
        return std::clamp(high - low > usable ? page + usable / 2 : middle, low + inset, high - inset);
    };
    // Rows count downwards from y = 0.
    return {along(spot.box.x0, spot.box.x1, 0, plan.stepX, usableWidth(plan)),
        -along(-spot.box.y1, -spot.box.y0, 0, plan.stepY, usableHeight(plan))};
}

/// Name of the piece, once, under all sizes; each size adds its own line.
void labelPiece(const PageInk& ink, QPointF c, double room, const Piece& piece, const std::vector<PieceId>& also,
    const Pattern& pattern, std::size_t line, bool title, Unit unit)
{
    const double size = std::clamp(room / 16, 2.4, 4.5);
    ink.p.save();
    ink.p.translate(c);
    const auto row = [&](double y, double em, const QString& s, QFont::Weight weight) {
        ink.p.setFont(pixelFont(em * ink.scale, weight));
        ink.p.drawText(QRectF(-200 * ink.scale, y * ink.scale, 400 * ink.scale, em * 1.6 * ink.scale),
            Qt::AlignHCenter | Qt::AlignTop, s);
    };
    ink.p.setPen(kInk);
    if (title) {
        QString names = text(piece.code) + "  " + text(piece.name);
        for (const auto& key : also)
            if (const Piece* other = pattern.piece(key))
                names += "   " + text(other->code) + "  " + text(other->name);
        row(-size * 3.2, also.empty() ? size * 1.3 : size, names, QFont::DemiBold);
        if (!piece.note.empty())
            row(-size * 4.9, size * 0.8, text(piece.note, unit), QFont::Normal);
    }
    QString counts = QString::number(piece.count) + " " + text(roleLabel(piece.material));
    for (const auto& key : also)
        if (const Piece* other = pattern.piece(key))
            counts += " + " + QString::number(other->count) + " " + text(roleLabel(other->material));
    if (piece.mirrored)
        counts = spoken("{} ({} mirrored)", counts, piece.mirrored);
    std::vector<double> allowances;
    for (const auto& e : piece.edges)
        if (!e.onFold && std::none_of(allowances.begin(), allowances.end(), [&](double a) {
                return std::abs(a - e.allowance) < 0.01;
            }))
            allowances.push_back(e.allowance);
    QStringList figures;
    for (const double a : allowances)
        figures << text(readersLanguage().lengthBare(a, unit));
    const QString allowance = figures.join(" / ") + " " + QString::fromUtf8(unitSign(unit).data());
    const QString cut = piece.folds == 2
        ? spoken("Size {}: cut {} on both folds, allowance {}", pattern.size, counts, allowance)
        : piece.folds == 1 ? spoken("Size {}: cut {} on the fold, allowance {}", pattern.size, counts, allowance)
                           : spoken("Size {}: cut {}, allowance {}", pattern.size, counts, allowance);
    ink.p.setPen(sizeLook(pattern.sizeAt).color);
    row(-size * 1.2 + double(line) * size * 1.4, size, cut, QFont::Normal);
    ink.p.restore();
}

void drawSizeOnPage(const PageInk& ink, const SheetPlan& plan, const Page& page,
    const std::vector<const Pattern*>& patterns, std::size_t which, bool labels)
{
    ink.p.save();
    ink.p.setClipRect(QRectF(
        ink.at(plan.margin, plan.margin), QSizeF(usableWidth(plan) * ink.scale, usableHeight(plan) * ink.scale)));
    const SizeLook size = sizeLook(patterns[which]->sizeAt);
    PieceLook look;
    look.fill = false, look.label = false, look.layers = false;
    look.line = 0.35 * ink.scale;
    look.edge = look.ink = size.color;
    look.stitch = size.color.lighter(140);
    look.cutDash = patterns.size() > 1 ? size.dash : QVector<qreal>{};
    look.textSize = 4 * ink.scale;
    for (const auto& spot : plan.spots) {
        const auto had = std::find(spot.patterns.begin(), spot.patterns.end(), which);
        const Piece* piece = had == spot.patterns.end() ? nullptr
                                                        : &spot.templates[std::size_t(had - spot.patterns.begin())];
        const bool overlaps = spot.box.x1 >= page.area.x0 && spot.box.x0 <= page.area.x1 && spot.box.y1 >= page.area.y0
            && spot.box.y0 <= page.area.y1;
        if (!piece || !overlaps)
            continue;
        View view = viewOn(ink.scale, plan, page);
        view.placement = spot.placement;
        look.foldWords = had == spot.patterns.begin();
        drawPiece(ink.p, view, *piece, look);
        for (const auto& layer : piece->layers) {
            QPen pen(size.color, 0.2 * ink.scale);
            pen.setDashPattern({1, 4});
            ink.p.setPen(pen);
            ink.p.drawPath(pathOf(layer.outline, view, true));
            const Box box = boundsOf(layer.outline);
            const QPointF at = view({box.x0 + 3, box.y1 - 4});
            ink.p.setFont(pixelFont(2.4 * ink.scale));
            ink.p.setPen(size.color);
            ink.p.drawText(at, text(layer.code) + " " + text(roleLabel(layer.fixing)));
        }
        // Where one template stands for several pieces, each mark says whose it is.
        ink.p.setFont(pixelFont(2.4 * ink.scale));
        ink.p.setPen(size.color);
        for (const auto& mark : spot.marks[std::size_t(had - spot.patterns.begin())])
            ink.p.drawText(view(mark.at) + QPointF(1, -1) * ink.scale, text(mark.code));
        if (labels) {
            std::size_t line = 0;
            for (const auto i : spot.patterns)
                if (i < which)
                    ++line;
            labelPiece(ink, viewOn(ink.scale, plan, page)(labelPlace(plan, spot)), spot.box.width(), *piece, spot.also,
                *patterns[which], line, spot.patterns.front() == which, plan.unit);
        }
    }
    ink.p.restore();
}

QByteArray pdfOf(const Paper& paper, const QString& title, int pages, const std::function<bool(QPainter&, int)>& draw)
{
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter writer(&buffer);
        setUp(writer, title, paper, kSheetDpi);
        QPainter painter(&writer);
        for (int i = 0; i < pages; ++i) {
            if (i > 0)
                writer.newPage();
            painter.save();
            if (!draw(painter, i))
                return {};
            painter.restore();
        }
    }
    return bytes;
}

void drawSquares(const PageInk& ink, double x, double y)
{
    const auto square = [&](double at, double top, double side, const QString& name, double em) {
        ink.pen(kInk, 0.25);
        ink.rect(at, top, side, side);
        ink.write(at + 1.5, top + 1.5, side - 2, em, name, Qt::AlignLeft, QFont::DemiBold);
    };
    square(x, y, 100, "100 mm", 4.2);
    square(x + 106, y, 76.2, "76.2 mm (3 in)", 4.2);
    square(x + 106, y + 79.2, 25.4, "25.4 mm (1 in)", 2.8);
}

} // namespace

void drawPage(QPainter& painter, double scale, const SheetPlan& plan, const Page& page,
    const std::vector<const Pattern*>& patterns, const Design& design)
{
    const PageInk ink{painter, scale};
    drawFrame(ink, plan, page, design);
    for (std::size_t i = 0; i < patterns.size(); ++i)
        drawSizeOnPage(ink, plan, page, patterns, i, true);
}

void drawCover(QPainter& painter, double scale, const SheetPlan& plan, const std::vector<const Pattern*>& patterns,
    const Design& design)
{
    const PageInk ink{painter, scale};
    const double m = plan.margin, w = usableWidth(plan);
    ink.write(m, m, w, 8, text(design.name), Qt::AlignLeft, QFont::DemiBold);
    QStringList sizes;
    for (const auto* p : patterns)
        sizes << text(p->size) + " " + dims({p->width, p->height, p->depth}, plan.unit);
    ink.write(m, m + 11, w, patterns.size() > 6 ? 2.7 : 3.6,
        (design.studio.empty() ? QString() : text(design.studio) + "  ·  ")
            + spoken("Sizes (width × height × depth): {}", sizes.join(",  ")));
    ink.write(m, m + 22, w, 3.6,
        spoken("Print at 100 %, “actual size”. Measure the 100 mm square: it must be 100 mm wide and high, within 0.5 "
               "mm. The others check the same in inches."));
    drawSquares(ink, m, m + 33);
    double y = m + 140;
    ink.write(m, y, w, 4.2, spoken("Page map"), Qt::AlignLeft, QFont::DemiBold);
    ink.write(m, y + 6, w * 0.42, 3.2,
        spoken(
            "Join the pages by row letter and column number. Where a page says so, trim its right and bottom sides on "
            "the dashed line and lay them on the dashed line of the next page; the halves of each diamond then meet.")
            + "\n\n" + spoken("Sizes are layers of this file and differ by dash and colour:"));
    // Many sizes stand in two columns.
    double ly = y + 46;
    const std::size_t rows = patterns.size() > 6 ? (patterns.size() + 1) / 2 : patterns.size();
    const double column = patterns.size() > 6 ? w * 0.21 : w * 0.42, dash = patterns.size() > 6 ? 14 : 30;
    for (std::size_t i = 0; i < patterns.size(); ++i) {
        const SizeLook look = sizeLook(patterns[i]->sizeAt);
        const double x = m + double(i / rows) * column, at = ly + double(i % rows) * 6;
        ink.pen(look.color, 0.6, patterns.size() > 1 ? look.dash : QVector<qreal>{});
        ink.line(x, at + 2, x + dash, at + 2);
        ink.write(x + dash + 3, at, column - dash - 4, 3.4, spoken("Size {}", patterns[i]->size), Qt::AlignLeft,
            QFont::Medium, look.color);
    }
    ly += double(rows) * 6 + 3;
    // One entry for a strip in all its sizes.
    std::map<std::string, QStringList> strips;
    for (const auto& strip : plan.toMeasure)
        strips[strip.code + " " + words(strip.name, plan.unit, readersLanguage())] << text(strip.size) + " "
                + QString::number(strip.count) + " × " + dims({strip.width, strip.length}, plan.unit);
    for (const auto& [name, sizes2] : strips) {
        ink.write(m, ly, w * 0.42, patterns.size() > 6 ? 2.6 : 3.2,
            spoken("Cut to measure: {}, size {}", name, sizes2.join(",  ")));
        ly += 5 + 4.2 * std::ceil(double(sizes2.size()) / 2);
    }
    const QRectF target(ink.at(m + w * 0.46, y), QSizeF(w * 0.54 * scale, (plan.paper.height - y - m) * scale));
    drawPageMap(painter, target, plan, patterns, false);
}

namespace {

View mapView(const QRectF& target, const SheetPlan& plan)
{
    Box all;
    for (const auto& page : plan.pages)
        all.add(page.area);
    return View::fit(all, target, target.width() * 0.01);
}

} // namespace

QRectF pageOnMap(const QRectF& target, const SheetPlan& plan, std::size_t index)
{
    const View v = mapView(target, plan);
    const Box& a = plan.pages[index].area;
    return QRectF(v({a.x0, a.y1}), v({a.x1, a.y0}));
}

void drawPageMap(QPainter& p, const QRectF& target, const SheetPlan& plan, const std::vector<const Pattern*>& patterns,
    bool dark, int picked)
{
    if (plan.pages.empty())
        return;
    View view = mapView(target, plan);
    const double thin = std::max(target.width() / 700, 0.6);
    const QColor paper = dark ? QColor(0x3A, 0x3F, 0x45) : QColor(Qt::white),
                 frame = dark ? QColor(0x9A, 0xA2, 0xAA) : QColor(0x8A, 0x8A, 0x8A);
    for (std::size_t i = 0; i < plan.pages.size(); ++i) {
        p.setPen(QPen(frame, thin));
        p.setBrush(int(i) == picked ? (dark ? QColor(0x55, 0x4A, 0x3A) : QColor(0xFB, 0xEF, 0xD8)) : paper);
        p.drawRect(pageOnMap(target, plan, i));
    }
    p.setBrush(Qt::NoBrush);
    for (const auto& spot : plan.spots)
        for (std::size_t k = 0; k < spot.patterns.size(); ++k) {
            const auto i = spot.patterns[k];
            const SizeLook look = sizeLook(patterns[i]->sizeAt, dark);
            QPen pen(look.color, thin * 1.2);
            p.setPen(pen);
            View v = view;
            v.placement = spot.placement;
            p.drawPath(pathOf(spot.templates[k].cut, v, true));
        }
    for (const auto& spot : plan.spots) {
        const Piece* piece = &spot.templates.front();
        const double size = std::clamp(
            std::min(spot.box.width(), spot.box.height()) * view.scale * 0.4, target.width() / 60, target.width() / 22);
        p.setFont(pixelFont(size, QFont::DemiBold));
        p.setPen(dark ? QColor(0xEE, 0xEA, 0xE2) : kInk);
        const QPointF c = view(spot.box.centre());
        QString codes = text(piece->code);
        for (const auto& key : spot.also)
            if (const Piece* other = patterns[spot.patterns.front()]->piece(key))
                codes += " " + text(other->code);
        p.drawText(QRectF(c.x() - size * 4, c.y() - size, size * 8, size * 2), Qt::AlignCenter, codes);
    }
    const double size = std::max(target.width() / 46, 1.0);
    p.setFont(pixelFont(size));
    p.setPen(frame.darker(dark ? 60 : 130));
    for (std::size_t i = 0; i < plan.pages.size(); ++i) {
        const QRectF r = pageOnMap(target, plan, i).adjusted(size * 0.4, size * 0.2, -size * 0.4, -size * 0.2);
        p.drawText(r, Qt::AlignRight | Qt::AlignBottom, text(plan.pages[i].name));
    }
}

QByteArray sheetPdf(const Design& design, const std::vector<const Pattern*>& patterns, const Paper& paper, Unit unit,
    const Progress& progress, SheetOptions options)
{
    const SheetPlan plan = planSheets(patterns, paper, unit, options);
    const int pages = int(plan.pages.size()) + 1, total = pages * (int(patterns.size()) + 1);
    int done = 0;
    const auto told = [&] { return !progress || progress(++done, total); };
    const double scale = kSheetDpi / mmPerInch;
    const QByteArray ground = pdfOf(paper, text(design.name), pages, [&](QPainter& p, int i) {
        if (i == 0)
            drawCover(p, scale, plan, patterns, design);
        else
            drawFrame({p, scale}, plan, plan.pages[std::size_t(i) - 1], design);
        return told();
    });
    std::vector<PdfLayer> layers;
    for (std::size_t k = 0; k < patterns.size() && !ground.isEmpty(); ++k) {
        layers.push_back({spoken("Size {}", patterns[k]->size), pdfOf(paper, "", pages, [&](QPainter& p, int i) {
                              if (i > 0)
                                  drawSizeOnPage({p, scale}, plan, plan.pages[std::size_t(i) - 1], patterns, k, true);
                              return told();
                          })});
        if (layers.back().pdf.isEmpty())
            return {};
    }
    return ground.isEmpty() ? QByteArray() : layeredPdf(ground, layers);
}

} // namespace tectonis
