// SPDX-License-Identifier: GPL-3.0-or-later
#include "bookmarks.hpp"

#include <qpdf/QPDF.hh>
#include <qpdf/QPDFObjectHandle.hh>
#include <qpdf/QPDFPageDocumentHelper.hh>
#include <qpdf/QPDFPageObjectHelper.hh>
#include <qpdf/QPDFWriter.hh>

#include <algorithm>

namespace tectonis {
namespace {

/// Writes the entries from @p from that lie below @p parent; returns where they end. ISO 32000-1, 12.3.3.
std::size_t addBelow(QPDF& pdf, QPDFObjectHandle parent, const std::vector<Bookmark>& all, std::size_t from, int level,
    const std::vector<QPDFPageObjectHelper>& pages)
{
    QPDFObjectHandle before;
    int count = 0;
    while (from < all.size() && all[from].level >= level) {
        const Bookmark& mark = all[from];
        QPDFObjectHandle item = pdf.makeIndirectObject(QPDFObjectHandle::newDictionary());
        item.replaceKey("/Title", QPDFObjectHandle::newUnicodeString(mark.title.toStdString()));
        item.replaceKey("/Parent", parent);
        QPDFObjectHandle page = pages[std::min(std::size_t(mark.page), pages.size() - 1)].getObjectHandle();
        item.replaceKey("/Dest",
            QPDFObjectHandle::newArray({page, QPDFObjectHandle::newName("/XYZ"), QPDFObjectHandle::newNull(),
                QPDFObjectHandle::newReal(mark.top, 1), QPDFObjectHandle::newNull()}));
        if (count++ == 0)
            parent.replaceKey("/First", item);
        else {
            item.replaceKey("/Prev", before);
            before.replaceKey("/Next", item);
        }
        parent.replaceKey("/Last", item);
        before = item;
        from = addBelow(pdf, item, all, from + 1, level + 1, pages);
    }
    if (count > 0) // what lies below a heading of the second rank is shown closed
        parent.replaceKey("/Count", QPDFObjectHandle::newInteger(level < 2 ? count : -count));
    return from;
}

} // namespace

QByteArray withBookmarks(const QByteArray& bytes, const std::vector<Bookmark>& bookmarks)
{
    if (bookmarks.empty())
        return bytes;
    QPDF pdf;
    pdf.processMemoryFile("booklet", bytes.constData(), std::size_t(bytes.size()));
    const auto pages = QPDFPageDocumentHelper(pdf).getAllPages();
    QPDFObjectHandle outline = pdf.makeIndirectObject(QPDFObjectHandle::newDictionary());
    outline.replaceKey("/Type", QPDFObjectHandle::newName("/Outlines"));
    addBelow(pdf, outline, bookmarks, 0, 0, pages);
    pdf.getRoot().replaceKey("/Outlines", outline);
    pdf.getRoot().replaceKey("/PageMode", QPDFObjectHandle::newName("/UseOutlines"));
    QPDFWriter writer(pdf);
    writer.setOutputMemory();
    writer.write();
    const auto out = writer.getBufferSharedPointer();
    return QByteArray(reinterpret_cast<const char*>(out->getBuffer()), qsizetype(out->getSize()));
}

} // namespace tectonis
