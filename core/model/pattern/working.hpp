// SPDX-License-Identifier: GPL-3.0-or-later
// How a number came about: formula, what was put in, the result, and what kind of knowledge it rests on.
#pragma once

#include "pattern/ids.hpp"
#include "words/message.hpp"

#include <string>
#include <vector>

namespace tectonis {

struct Working {
    enum class Kind { Geometry, Trade, Standard, Own };
    struct Input {
        std::string name;
        double value = 0;
    };
    SubjectId subject;   ///< a piece, a part, a seam, or "body"
    WorkingId key;       ///< stable within the pattern: "gusset.run"
    Message label;       ///< "Gusset run"
    std::string formula; ///< over the inputs' names
    std::vector<Input> inputs;
    double result = 0;
    Kind kind = Kind::Geometry;
    std::string unit = "mm"; ///< "mm", "mm²", "°", "" for counts
    Message source;          ///< where the formula is from
};

inline Label nameOf(Working::Kind kind)
{
    switch (kind) {
    case Working::Kind::Geometry: return label("geometry");
    case Working::Kind::Trade: return label("trade practice");
    case Working::Kind::Standard: return label("standard");
    case Working::Kind::Own: return label("your own value");
    }
    return {};
}

} // namespace tectonis
