// SPDX-License-Identifier: GPL-3.0-or-later
#include "kept_design.hpp"

#include "formats/design_file.hpp"

namespace tectonis {

void KeptDesign::pack()
{
    if (!m_plain)
        return;
    m_packed = qCompress(QByteArray::fromStdString(designText(*m_plain)), 6);
    m_plain.reset();
}

Design KeptDesign::design() const
{
    if (m_plain)
        return *m_plain;
    Design out = designFromTrusted(qUncompress(m_packed).toStdString());
    out.library = m_library;
    return out;
}

bool KeptDesign::same(const KeptDesign& other) const
{
    return m_plain && other.m_plain ? *m_plain == *other.m_plain : design() == other.design();
}

} // namespace tectonis
