// SPDX-License-Identifier: GPL-3.0-or-later
#include "formats/xml.hpp"

namespace tectonis {

std::string escaped(const std::string& text)
{
    std::string out;
    for (const char c : text)
        switch (c) {
        case '&': out += "&amp;"; break;
        case '<': out += "&lt;"; break;
        case '>': out += "&gt;"; break;
        case '"': out += "&quot;"; break;
        case '\'': out += "&#39;"; break;
        default: out += static_cast<unsigned char>(c) < 32 || c == 127 ? ' ' : c;
        }
    return out;
}

} // namespace tectonis
