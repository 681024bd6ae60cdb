// SPDX-License-Identifier: GPL-3.0-or-later
#include "sequence/order.hpp"

#include "library/library.hpp"
#include "units/length.hpp"

#include <algorithm>
#include <map>
#include <set>
#include <stdexcept>

namespace tectonis {
namespace {

Message listed(const Message& list, const std::string& name)
{
    return list.empty() ? naming(name) : say("{}, {}", list, name);
}

/// One step for each way of fixing, over all pieces that have such a layer.
std::vector<Step> interliningSteps(const Drafter& d)
{
    static const std::vector<std::pair<std::string, Message>> fixings{{"fused", say("Fuse the interlinings")},
        {"basted", say("Baste the interlinings")}, {"glued", say("Glue layers and patches")},
        {"loose", say("Lay the loose interlinings to their pieces")}};
    std::vector<Step> out;
    for (const auto& [fixing, title] : fixings) {
        Step step{.id = "interline." + fixing,
            .title = title,
            .kind = StepKind::Interline,
            .phase = "Interlinings",
            .tool = fixing == "fused" ? say("iron, press cloth")
                : fixing == "glued"   ? say("contact adhesive")
                                      : say("sewing machine")};
        std::vector<std::pair<MaterialId, Message>> codes; // by what is laid
        bool inSeams = false, within = false; // reaches into an allowance anywhere, ends at or inside the stitch lines
        for (const auto& piece : d.pattern.pieces)
            for (const auto& layer : piece.layers) {
                if (layer.fixing != fixing)
                    continue;
                auto list = std::find_if(
                    codes.begin(), codes.end(), [&](const auto& each) { return each.first == layer.material; });
                if (list == codes.end())
                    list = codes.insert(codes.end(), {layer.material, Message()});
                list->second = listed(list->second, layer.code);
                const bool reaches = std::any_of(
                    layer.reach.begin(), layer.reach.end(), [](const auto& edge) { return edge.second > 3; });
                (reaches ? inSeams : within) = true;
                if (step.pieces.empty() || step.pieces.back() != piece.key)
                    step.pieces.push_back(piece.key);
            }
        if (step.pieces.empty())
            continue;
        for (const auto& [material, list] : codes)
            step.acts.push_back(act::note(say("{}: {}.", d.pattern.material(material).name, list)));
        if (fixing == "basted") {
            // There is cloth to baste in only where the layer reaches into the allowance.
            if (inSeams)
                step.acts.push_back(act::note(
                    say("What reaches into the allowances is basted there, {} to {} from the edge, and trimmed close "
                        "to the stitching after the seam.",
                        Len(3), Len(6))));
            if (within)
                step.acts.push_back(act::note(
                    say("What ends at the stitch line is held by a row {} to {} inside its own edge, or by hand.",
                        Len(2), Len(3))));
            step.stitch = say("4–5 mm, basting");
            step.check = say("Each lies flat on the wrong side and nothing reaches past its line.");
        } else if (fixing == "fused") {
            step.check = say("No bubbles; let each piece cool flat.");
            step.cautions = {say("Iron and steam: mind your hands; test the heat on an offcut.")};
        } else if (fixing == "glued") {
            step.check = say("Each lies in its place and sticks to its edges.");
            step.cautions = {say("Contact adhesive: air the room, no flame; let it dry as its maker says.")};
        }
        out.push_back(std::move(step));
    }
    return out;
}

} // namespace

const std::vector<std::string>& phases()
{
    static const std::vector<std::string> all = [] {
        std::vector<std::string> out;
        for (const Label& phase : {label("Interlinings"), label("Small parts"), label("Shell front"),
                 label("Shell back"), label("Shell gusset"), label("Shell assembly"), label("Lining"), label("Joining"),
                 label("Closing"), label("Strap")})
            out.push_back(phase.source);
        return out;
    }();
    return all;
}

void proposeOrder(Drafter& d)
{
    std::vector<Step>& ordered = d.pattern.steps;
    ordered = interliningSteps(d); // their phase is the first
    const std::size_t all = ordered.size() + d.steps.size();
    ordered.reserve(all);
    for (const auto& phase : phases())
        for (auto& step : d.steps)
            if (step.phase == phase)
                ordered.push_back(std::move(step));
    if (ordered.size() != all)
        throw std::logic_error("a step names a phase that is not in phases()");
    d.steps.clear();
}

std::vector<Link> linksOf(const Pattern& p)
{
    std::vector<Link> out;
    std::map<WorkId, std::size_t> madeBy;             // part to the step that last yielded it
    std::map<WorkId, std::vector<std::size_t>> lined; // piece to the interlining steps
    for (std::size_t i = 0; i < p.steps.size(); ++i) {
        const Step& s = p.steps[i];
        if (s.kind == StepKind::Interline) {
            for (const auto& piece : s.pieces)
                lined[piece].push_back(i);
            continue;
        }
        for (const auto& part : s.consumes) {
            if (const auto made = madeBy.find(part); made != madeBy.end())
                out.push_back({made->second, i, part});
            else if (const auto it = lined.find(part); it != lined.end())
                for (const auto k : it->second)
                    out.push_back({k, i, part});
        }
        if (!s.yields.empty())
            madeBy[s.yields] = i;
    }
    return out;
}

std::vector<std::size_t> orderOf(const Design& design, const Pattern& p)
{
    std::vector<std::size_t> order;
    std::vector<bool> placed(p.steps.size(), false);
    for (const auto& id : design.stepOrder)
        for (std::size_t i = 0; i < p.steps.size(); ++i)
            if (p.steps[i].id == id && !placed[i])
                order.push_back(i), placed[i] = true;
    for (std::size_t i = 0; i < p.steps.size(); ++i) {
        if (placed[i])
            continue;
        const auto before = i == 0 ? order.end() : std::find(order.begin(), order.end(), i - 1);
        order.insert(before == order.end() ? (i == 0 ? order.begin() : order.end()) : before + 1, i);
    }
    return order;
}

} // namespace tectonis
