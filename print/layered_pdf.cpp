// SPDX-License-Identifier: GPL-3.0-or-later
#include "layered_pdf.hpp"

#include "units/error.hpp"

#include <qpdf/QPDF.hh>
#include <qpdf/QPDFPageDocumentHelper.hh>
#include <qpdf/QPDFPageObjectHelper.hh>
#include <qpdf/QPDFWriter.hh>

#include <memory>

namespace tectonis {

QByteArray layeredPdf(const QByteArray& ground, const std::vector<PdfLayer>& layers)
{
    try {
        QPDF out;
        out.processMemoryFile("ground", ground.constData(), std::size_t(ground.size()));
        auto pages = QPDFPageDocumentHelper(out).getAllPages();
        auto groups = QPDFObjectHandle::newArray();
        std::vector<std::shared_ptr<QPDF>> sources; // streams are copied when written: keep what they come from
        for (auto& page : pages) {
            page.addPageContents(out.newStream("q\n"), true);
            page.addPageContents(out.newStream("\nQ\n"), false);
        }
        for (std::size_t i = 0; i < layers.size(); ++i) {
            auto group = out.makeIndirectObject(QPDFObjectHandle::newDictionary());
            group.replaceKey("/Type", QPDFObjectHandle::newName("/OCG"));
            group.replaceKey("/Name", QPDFObjectHandle::newUnicodeString(layers[i].name.toStdString()));
            groups.appendItem(group);
            auto source = std::make_shared<QPDF>();
            source->processMemoryFile("layer", layers[i].pdf.constData(), std::size_t(layers[i].pdf.size()));
            sources.push_back(source);
            auto layerPages = QPDFPageDocumentHelper(*source).getAllPages();
            const std::string name = "/Size" + std::to_string(i);
            for (std::size_t k = 0; k < pages.size() && k < layerPages.size(); ++k) {
                auto form = out.copyForeignObject(layerPages[k].getFormXObjectForPage());
                form.getDict().replaceKey("/OC", group);
                auto resources = pages[k].getAttribute("/Resources", true);
                if (!resources.getKey("/XObject").isDictionary())
                    resources.replaceKey("/XObject", QPDFObjectHandle::newDictionary());
                resources.getKey("/XObject").replaceKey(name, form);
                pages[k].addPageContents(out.newStream("q " + name + " Do Q\n"), false);
            }
        }
        auto normal = QPDFObjectHandle::newDictionary();
        normal.replaceKey("/Order", groups);
        normal.replaceKey("/ON", groups);
        auto properties = QPDFObjectHandle::newDictionary();
        properties.replaceKey("/OCGs", groups);
        properties.replaceKey("/D", normal);
        out.getRoot().replaceKey("/OCProperties", properties);
        QPDFWriter writer(out);
        writer.setOutputMemory();
        writer.setMinimumPDFVersion("1.5");
        writer.write();
        const auto buffer = writer.getBufferSharedPointer();
        return QByteArray(reinterpret_cast<const char*>(buffer->getBuffer()), qsizetype(buffer->getSize()));
    } catch (const std::exception& e) {
        throw InputError(say("sheets"), say("the PDF's layers could not be joined: {}", std::string(e.what())));
    }
}

} // namespace tectonis
