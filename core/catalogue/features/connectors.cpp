// SPDX-License-Identifier: GPL-3.0-or-later
// Ring connectors: two tabs looped through rings and caught in the mouth seam at the gusset tops.
#include "drafting/flat_order.hpp"
#include "drafting/panels.hpp"
#include "drafting/strip_width.hpp"
#include "drafting/unlined.hpp"
#include "features/feature.hpp"
#include "library/library.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <algorithm>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class Connectors : public FeatureKind {
public:
    std::string kind() const override { return "connectors"; }
    std::string name() const override { return "Ring connectors"; }

    std::vector<Run> silhouette() const override
    {
        return {circleRun({50, 62}, 22), lineRun({{38, 44}, {38, 10}, {62, 10}, {62, 44}, {38, 44}})};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"ring", "Ring inside width",
                "Inside width of the rings; rings are also sold by outside width, so measure.", "32", stock("ring"),
                "10", "60"},
            {"width", "Connector width", "Finished width of the tabs; just under the ring's inside width.", "@ring - 1",
                follow(), "8", "60"},
            {"loop", "Connector loop", "From the mouth seam up to the ring, along the folded tab.", "25", hold(), "10",
                "80"},
            {"overlap", "Ends past the edge", "How far the raw ends reach past the cut edge before trimming.", "6",
                hold(), "0", "20"},
        };
    }

    Message unfit(const Form& form) const override
    {
        const auto dimensions = form.dimensions();
        const bool mouth = std::any_of(
            dimensions.begin(), dimensions.end(), [](const DimensionSpec& d) { return d.name == "allowance.mouth"; });
        return mouth ? Message() : say("this form has no mouth seam for connectors to be caught in");
    }

    void draft(FeatureScope& f) const override
    {
        Drafter& d = f.d;
        if (unlined(d))
            throw InputError(f.id.text(),
                say("connectors are caught between shell and lining: a bag without a lining carries handles"));
        if (mouthFirst(d))
            throw InputError(f.id.text(),
                say("connectors lie over the side seams: they cannot be caught in a mouth that is sewn before the "
                    "sides"));
        const Material& cloth = d.pattern.material(d.pattern.materials.at("shell"));
        const double length = d.work(
            {f.id, f.key("length"), say("Connector cut length"), "2*(loop + allowance + overlap)",
                {{"loop", f("loop")}, {"allowance", d("allowance.mouth")}, {"overlap", f("overlap")}}, 0, Kind::Trade,
                "mm", say("looped: both ends lie in the seam")});
        const double cut = workCutWidth(d, f.id, f.key("cut"), say("Connector cut width"), f("width"), cloth);
        Piece& tab = d.add({.key = f.id,
            .code = d.pattern.pieceByCode("E") ? d.freeCode("E") : "E",
            .name = f.named(say("Connector")),
            .coat = Coat::Strip,
            .role = "connector",
            .material = "shell",
            .count = 2});
        drawRectangle(tab, cut, length, 0);
        addStripFolds(tab, f("width"), cut, length);
        tab.plies *= 2; // looped: both ends lie in the seam
        tab.note = say("Ends are trimmed level with the mouth after basting.");

        std::vector<const Anchor*> anchors;
        for (const auto& anchor : d.pattern.anchors)
            if (anchor.name == "left" || anchor.name == "right") {
                const bool same = !anchors.empty() && anchors.front()->piece == anchor.piece
                    && anchors.front()->at == anchor.at; // on two copies of one piece
                anchors.push_back(&anchor);
                if (!same)
                    d.pattern.fittings.push_back(
                        {f.key(anchor.name.text()), say("Ring, {}", sideLabel(anchor.name.text())), anchor.piece,
                            Fitting::Kind::Ring, anchor.at, f("ring"), 0, say("trapped in the mouth seam")});
            }
        if (anchors.size() != 2)
            throw InputError(f.id.text(), say("this form has no two places at its mouth for connectors"));
        const Anchor& first = *anchors.front();
        d.pattern.hardware.push_back(
            {Ware::Ring, 2, f("ring"), say("{} inside width", Len(f("ring"))), say("one finish for all metal")});
        for (auto& seam : d.pattern.seams)
            if (seam.key == "mouth")
                seam.trapped.push_back(f.id);

        d.addFlatWork({.id = f.key("make"),
            .title = say("Make the connectors"),
            .acts = {act::foldStrip(f.id, f("width")),
                {.verb = Act::Verb::Ring, .pieces = {f.id}, .fittings = {f.key("left")}, .uses = {Ware::Ring}}},
            .kind = StepKind::Flat,
            .phase = "Small parts",
            .consumes = {f.id},
            .yields = f.id,
            .check = say(
                "The ring turns freely: the tab is {} wide in a ring of {}.", Len(f("width")), Len(f("ring")))});
        d.addBeforeJoining({.id = f.key("baste"),
            .title = say("Baste the connectors to the mouth"),
            .acts = {act::lay(f.id, first.piece, "mouth", f("overlap")), act::baste(5), act::trim(f.id, 0)},
            .kind = StepKind::Baste,
            .phase = first.phase,
            .consumes = {first.part, f.id},
            .yields = first.part,
            .fittings = {f.key("left")},
            .check = say("Each is in the middle of its side; the ring points down, into the bag side of the piece.")});
    }
};

} // namespace

const FeatureKind& connectorsKind()
{
    static const Connectors kind;
    return kind;
}

} // namespace tectonis
