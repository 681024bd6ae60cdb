// SPDX-License-Identifier: GPL-3.0-or-later
// Text, tables and figures that flow down the pages of a PDF, with bookmarks at its headings.
#pragma once

#include "bookmarks.hpp"
#include "canvas.hpp"
#include "fonts.hpp"
#include "pdf_setup.hpp"

#include <QBuffer>
#include <QPainter>

#include <functional>

namespace tectonis {

constexpr double kFlowDpi = 600, kScale = kFlowDpi / mmPerInch, kMargin = 15; // margin in mm
inline const QColor kRule(0xBB, 0xB3, 0xA6), kWarn(0x9A, 0x2E, 0x12);

/// Lets text, tables and figures flow down the pages.
class Flow {
public:
    Flow(QPdfWriter& writer, QPainter& painter, const Paper& paper, const QString& foot)
        : m_writer(writer), m_p(painter), m_paper(paper), m_foot(foot)
    {
        drawFoot();
    }

    double width() const { return m_paper.width - 2 * kMargin; }
    double y() const { return m_y; }
    void skip(double mm) { m_y += mm; }

    /// Starts a new page unless @p height mm are free.
    void need(double height)
    {
        if (m_y + height <= m_paper.height - kMargin - 6)
            return;
        m_writer.newPage();
        ++m_page;
        m_y = kMargin;
        drawFoot();
    }

    void paragraph(const QString& s, double em, QFont::Weight weight = QFont::Normal, QColor color = kInk, double x = 0,
        double w = -1)
    {
        if (w < 0)
            w = width() - x;
        const double h = heightOf(s, em, weight, w);
        need(h);
        write(s, em, weight, color, x, w);
        m_y += h + em * 0.35;
    }

    double heightOf(const QString& s, double em, QFont::Weight weight, double w)
    {
        m_p.setFont(pixelFont(em * kScale, weight));
        m_p.setPen(kInk); // without a pen Qt finds no bounds
        return m_p.boundingRect(QRectF(0, 0, w * kScale, 10000 * kScale), Qt::TextWordWrap, s).height() / kScale;
    }

    void write(const QString& s, double em, QFont::Weight weight, QColor color, double x, double w, double dy = 0,
        int align = Qt::AlignLeft)
    {
        m_p.setFont(pixelFont(em * kScale, weight));
        m_p.setPen(color);
        m_p.drawText(QRectF((kMargin + x) * kScale, (m_y + dy) * kScale, w * kScale, 10000 * kScale),
            Qt::TextWordWrap | Qt::AlignTop | align, s);
    }

    /// @p below: mm that what stands below it needs to begin: a line of words, a table's head and its first row.
    void heading(const QString& s, double below = 34)
    {
        need(below + 14);
        m_y += 5;
        mark(s, 0);
        paragraph(s, 5.2, QFont::DemiBold);
        m_y += 1;
    }

    /// @p columns: share of the width of each column.
    void row(const QStringList& cells, const std::vector<double>& columns, bool head = false)
    {
        constexpr double em = 3.3;
        double h = 0;
        for (int i = 0; i < cells.size(); ++i)
            h = std::max(h,
                heightOf(cells[i], em, head ? QFont::DemiBold : QFont::Normal, columns[std::size_t(i)] * width() - 2));
        need(h + 2.4);
        double x = 0;
        for (int i = 0; i < cells.size(); ++i) {
            write(cells[i], em, head ? QFont::DemiBold : QFont::Normal, kInk, x, columns[std::size_t(i)] * width() - 2,
                1);
            x += columns[std::size_t(i)] * width();
        }
        m_y += h + 2;
        rule();
    }

    void rule()
    {
        m_p.setPen(QPen(kRule, 0.2 * kScale));
        m_p.drawLine(
            QPointF(kMargin * kScale, m_y * kScale), QPointF((m_paper.width - kMargin) * kScale, m_y * kScale));
    }

    /// A bookmark to where the next thing is written.
    void mark(const QString& title, int level)
    {
        m_bookmarks.push_back({title, m_page - 1, (m_paper.height - m_y + 3) * 72 / mmPerInch, level});
    }
    const std::vector<Bookmark>& bookmarks() const { return m_bookmarks; }

    QRectF area(double x, double w, double h) const
    {
        return {(kMargin + x) * kScale, m_y * kScale, w * kScale, h * kScale};
    }
    QPainter& painter() { return m_p; }

private:
    void drawFoot()
    {
        m_p.setFont(pixelFont(2.8 * kScale));
        m_p.setPen(kFaint);
        m_p.drawText(QRectF(kMargin * kScale, (m_paper.height - kMargin) * kScale, width() * kScale, 5 * kScale),
            Qt::AlignLeft, m_foot);
        m_p.drawText(QRectF(kMargin * kScale, (m_paper.height - kMargin) * kScale, width() * kScale, 5 * kScale),
            Qt::AlignRight, QString::number(m_page));
    }

    QPdfWriter& m_writer;
    QPainter& m_p;
    Paper m_paper;
    QString m_foot;
    double m_y = kMargin;
    int m_page = 1;
    std::vector<Bookmark> m_bookmarks;
};

/// A PDF that @p fill writes, with its outline; empty if it returns false.
inline QByteArray flowed(
    const QString& title, const QString& foot, const Paper& paper, const std::function<bool(Flow&)>& fill)
{
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    QPdfWriter writer(&buffer);
    setUp(writer, title, paper, kFlowDpi);
    std::vector<Bookmark> bookmarks;
    {
        QPainter painter(&writer);
        Flow flow(writer, painter, paper, foot);
        if (!fill(flow))
            return {};
        bookmarks = flow.bookmarks();
    }
    return withBookmarks(bytes, bookmarks);
}

} // namespace tectonis
