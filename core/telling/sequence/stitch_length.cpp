// SPDX-License-Identifier: GPL-3.0-or-later
#include "sequence/stitch_length.hpp"

#include <algorithm>

namespace tectonis {

StitchLength stitchLength(const Pattern& pattern, const std::vector<PieceId>& through, RowKind kind)
{
    StitchLength out = kind == RowKind::Join ? StitchLength{2.5, 3}
        : kind == RowKind::Topstitch         ? StitchLength{3.5, 4}
                                             : StitchLength{4, 5};
    for (const auto& id : through) {
        const Piece* piece = pattern.piece(id);
        const auto role = piece ? pattern.materials.find(piece->material) : pattern.materials.end();
        if (role == pattern.materials.end())
            continue;
        const Material& cloth = pattern.material(role->second);
        const double least = cloth.stitch > 0 ? cloth.stitch : cloth.keepsHoles() ? 3 : 0;
        if (least > out.least)
            out = {least, std::max(out.most, least + 0.5)};
    }
    return out;
}

double lockstitchUse(double stack, double stitch) { return 2 * (1 + stack / stitch); }

} // namespace tectonis
