// SPDX-License-Identifier: GPL-3.0-or-later
// A design as the undo stack keeps it: as it is while a drag may still go on, later packed to a hundredth of its size,
// so that a long day's edits fit into little memory.
#pragma once

#include "design/design.hpp"

#include <QByteArray>
#include <optional>

namespace tectonis {

class KeptDesign {
public:
    explicit KeptDesign(Design design) : m_plain(std::move(design)), m_library(m_plain->library) {}
    Design design() const;
    void pack();
    bool same(const KeptDesign& other) const;

private:
    std::optional<Design> m_plain; ///< empty once it is packed
    QByteArray m_packed;
    SharedLibrary m_library;
};

} // namespace tectonis
