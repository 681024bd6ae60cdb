// SPDX-License-Identifier: GPL-3.0-or-later
// Rigid-frame clutch: two rigid half shells, padded and covered; everything is drafted from the frame's own measures.
#include "drafting/coat.hpp"
#include "drafting/plans.hpp"
#include "forms/form.hpp"
#include "library/library.hpp"
#include "mockup/folder.hpp"
#include "units/words.hpp"

#include <algorithm>
#include <tuple>

namespace tectonis {
namespace {

using Kind = Working::Kind;

class FrameClutch : public Form {
public:
    std::string id() const override { return "frame-clutch"; }
    std::string name() const override { return "Frame clutch"; }
    std::string meaning() const override
    {
        return "Two rigid half shells on a hinge, padded and covered outside, lined with covered cards: all from the "
               "frame's measures.";
    }

    std::vector<Run> silhouette() const override
    {
        return {placed(roundedPlan(84, 52, 16), {50, 40}), lineRun({{8, 44}, {92, 44}}), circleRun({50, 68}, 4)};
    }

    std::vector<DimensionSpec> dimensions() const override
    {
        return {
            {"frame.width", "Frame width", "Outside width of the frame.", "180", step(20), "60", "400"},
            {"frame.height", "Frame height", "Outside height of a half shell's face.", "110", step(10), "40", "300"},
            {"frame.depth", "Frame depth", "Outside depth of the closed frame; each half is half as deep.", "50",
                hold(), "20", "120"},
            {"radius", "Corner radius", "Outside radius of the frame's corners.", "20", hold(), "3",
                "min(frame.width, frame.height)/2"},
            {"turn.in", "Turn-in", "How far the cover turns into the half shell over its rim.", "10", hold(), "5",
                "25"},
            {"padding.hold", "Padding short", "How much smaller the padding is than the face on every edge.", "2",
                hold(), "0", "10"},
            {"cover.thick", "Covering thickness", "Thickness of the glued lining on the card's edge.", "0.8", hold(),
                "0", "4"},
            {"card.clear", "Card clearance", "Room between card and shell on every edge besides the covering.", "0.5",
                hold(), "0", "3"},
            {"shell.wall", "Shell wall", "Thickness of the rigid half shell.", "2", hold(), "0.5", "8"},
        };
    }

    std::vector<ChoiceSpec> choices() const override { return {}; }
    std::vector<DerivedSpec> derived() const override
    {
        return {{"face.width", "frame.width - 2*radius"},
            {"face.height", "frame.height - 2*(shell.wall + cover.thick + card.clear)"},
            {"cover.face.width", "frame.width - 2*radius"}, {"cover.face.height", "frame.height"},
            {"mouth.depth", "frame.depth"}};
    }
    std::vector<SiteSpec> sites() const override
    {
        std::vector<SiteSpec> out{
            {"lining front", "Lining front", true, false}, {"lining back", "Lining back", true, false}};
        for (const auto& [name, label] : {std::pair{"front", "Front cover"}, {"back", "Back cover"}})
            out.push_back({.name = name, .label = label, .small = true, .glued = true, .own = "cover."});
        return out;
    }

    void furnish(Design& design) const override
    {
        design.materials = {{"shell", "quilting-cotton"}, {"lining", "lining-cotton"}, {"card", "board"},
            {"padding", "fleece-fusible"}};
        design.layers = {{"cover", "fusible-woven", "fused", "full", {}, ""}};
        design.carried = {{"Cards", 86, 54, 10, "main"}, {"Mirror", 70, 70, 8, "main"}};
    }

    void draft(Drafter& d) const override
    {
        Pattern& p = d.pattern;
        const double w = d("frame.width"), h = d("frame.height"), half = d("frame.depth") / 2, r = d("radius");
        p.width = w, p.height = h, p.depth = d("frame.depth");
        // The cover wraps the half shell: face, rim and turn-in.
        const double wrap = d.work({"cover", "cover.wrap", say("Cover beyond the face"), "padding + rim + wall + turn",
            {{"padding", p.material(p.materials.at("padding")).thickness}, {"rim", half}, {"wall", d("shell.wall")},
                {"turn", d("turn.in")}},
            0, Kind::Geometry, "mm",
            say("down beside the padding, over the rim of the half shell, round the thickness of its wall, and turned "
                "in")});
        const bool apart = differ(p);
        for (const bool back : {false, true})
            if (apart || !back)
                outline(d.add({.key = back ? "cover.back" : "cover",
                            .code = back ? "B" : "A",
                            .name = !apart ? say("Cover")
                                : back     ? say("Back cover")
                                           : say("Front cover"),
                            .coat = Coat::Shell,
                            .role = "cover",
                            .material = "shell",
                            .count = apart ? 1 : 2,
                            .pair = back ? PieceId("cover") : PieceId()}),
                    w, h, r, wrap);
        const double inset = d("padding.hold");
        outline(d.add({.key = "padding",
                    .code = "P",
                    .name = say("Padding"),
                    .coat = Coat::Interlining,
                    .role = "padding",
                    .material = "padding",
                    .count = 2}),
            w - 2 * inset, h - 2 * inset, std::max(r - inset, 1.0), 0);
        const double less = d.work({"card", "card.less", say("Card smaller on every edge"), "wall + cover + clear",
            {{"wall", d("shell.wall")}, {"cover", d("cover.thick")}, {"clear", d("card.clear")}}, 0, Kind::Geometry,
            "mm", say("the card lies inside the half shell and is smaller by its covering thickness on each edge")});
        const double cw = w - 2 * less, ch = h - 2 * less, cr = std::max(r - less, 1.0);
        outline(d.add({.key = "card",
                    .code = "R",
                    .name = say("Lining card"),
                    .coat = Coat::Interlining,
                    .role = "card",
                    .material = "card",
                    .count = 2}),
            cw, ch, cr, 0);
        for (const auto& [key, code, name] : {std::tuple{lined("front"), "LA", say("Card cover, front")},
                 {lined("back"), "LB", say("Card cover, back")}})
            outline(d.add({.key = key,
                        .code = code,
                        .name = name,
                        .coat = Coat::Lining,
                        .role = "lining",
                        .material = "lining"}),
                cw, ch, cr, d("turn.in"));
        auto faces = sites();
        std::erase_if(faces, [](const SiteSpec& s) { return !s.lining; });
        addFaces(d, faces, ch / 2);
        for (const auto& [name, label, back] :
            {std::tuple{"front", say("Front cover"), false}, {"back", say("Back cover"), true}})
            p.sites.push_back({.name = SiteId(name),
                .label = label,
                .pieces = {back && apart ? PieceId("cover.back") : PieceId("cover")},
                .top = h / 2,
                .width = d("cover.face.width"),
                .height = d("cover.face.height"),
                .phase = back ? "Shell back" : "Shell front"});
        for (auto& piece : p.pieces)
            if (piece.role == "cover")
                piece.note = say("Notch the turn-in at the corners.");
        d.work({"cover", "frame.girth", say("Rim of the frame, once round"),
            "2*(width + height) - 8*radius + 2*pi*radius", {{"width", w}, {"height", h}, {"radius", r}}, 0,
            Kind::Geometry, "mm", say("for edging, cord or chain")});
        p.hardware.push_back(
            {Ware::Frame, 1, w, say("{} × {} × {}", Len(w), Len(h), Len(d("frame.depth"))), say("as all metal")});
        const double inside = less;
        p.spaces.push_back(
            {"main", say("Main space"), w - 2 * inside, h - 2 * inside, d("frame.depth") - 2 * inside, r, false});
        p.handles = {{"frame.width", "cover", {w / 2, 0}, {1, 0}, 2}, {"frame.height", "cover", {0, h / 2}, {0, 1}, 2}};
        addSteps(d);
    }

    /// Does anything sit on a cover? Else both are alike.
    static bool differ(const Pattern& p)
    {
        return std::any_of(p.choices.begin(), p.choices.end(), [](const auto& choice) {
            return choice.first.ends_with(".site") && (choice.second == "front" || choice.second == "back");
        });
    }

    static void outline(Piece& piece, double w, double h, double r, double allowance)
    {
        int i = 0;
        for (const auto& s : roundedPlan(w, h, r))
            piece.edges.push_back({"rim " + std::to_string(++i), {s}, allowance, {}});
    }

    void addSteps(Drafter& d) const
    {
        std::vector<PieceId> covers{"cover"};
        if (differ(d.pattern))
            covers.push_back("cover.back");
        const auto step = [&](const std::string& id, const Message& title, std::vector<Act> acts, StepKind kind,
                              const std::string& phase, std::vector<WorkId> consumes, const WorkId& yields,
                              std::vector<PieceId> pieces, const Message& check) {
            d.add(Step{.id = id,
                .title = title,
                .acts = std::move(acts),
                .kind = kind,
                .phase = phase,
                .consumes = std::move(consumes),
                .yields = yields,
                .pieces = std::move(pieces),
                .check = check});
        };
        step("pad", say("Pad the half shells"), {act::of(Act::Verb::Glue, "padding")}, StepKind::Flat, "Small parts",
            {"padding"}, "padded shells", {"padding"}, say("The padding ends short of the rim all round."));
        std::vector<Act> wraps;
        for (const auto& cover : covers)
            wraps.push_back(act::with(act::of(Act::Verb::WrapOver, cover, d("turn.in")),
                cover == covers.front() ? std::vector{Ware::Frame} : std::vector<Ware>()));
        std::vector<WorkId> parts{covers.begin(), covers.end()};
        parts.push_back("padded shells");
        step("cover", say("Cover the half shells"), std::move(wraps), StepKind::Flat, "Shell assembly",
            std::move(parts), "shell", covers, say("The cloth is smooth at all corners; let it dry."));
        step("card", say("Cover the lining cards"),
            {{.verb = Act::Verb::WrapOver, .pieces = {lined("front"), "card"}, .distance = d("turn.in")},
                {.verb = Act::Verb::WrapOver, .pieces = {lined("back"), "card"}, .distance = d("turn.in")}},
            StepKind::Flat, "Lining", {"card", lined("front"), lined("back")}, "lining",
            {"card", lined("front"), lined("back")}, say("Each covered card drops into its half shell."));
        std::vector<PieceId> all = covers;
        all.insert(all.end(), {lined("front"), lined("back")});
        step("set", say("Set the cards"),
            {act::saying({.verb = Act::Verb::Glue, .pieces = {"card", "cover"}},
                say("They lie in the half shells, cloth up; press until dry."))},
            StepKind::CloseOpening, "Closing", {"shell", "lining"}, "bag", std::move(all),
            say("The frame closes and clasps freely."));
    }

    Mockup fold(const Design& design, const Pattern& p) const override
    {
        const double z = p.depth / 2, h = p.height / 2;
        Mockup m = foldCoats(p, [&](Folder& folder, const LaidCoat& coat) {
            const bool shell = !coat.lining;
            const double at = shell ? z : z - 1; // the cards lie inside
            folder.lay(shell ? PieceId("cover") : lined("front"), [=](Point q) { return Vec3{q.x, q.y + h, at}; });
            const bool apart = p.piece("cover.back");
            folder.lay(
                !shell      ? lined("back")
                    : apart ? PieceId("cover.back")
                            : PieceId("cover"),
                [=](Point q) {
                    return Vec3{-q.x, q.y + h, -at};
                },
                {}, {}, shell && !apart ? 1 : 0);
        });
        // The rim is not a seam: the cover is drawn over it.
        const Polyline rim = flattened(p.piece("cover")->stitch(), 0.4);
        for (std::size_t i = 0; i + 1 < rim.size(); ++i) {
            const Point a = rim[i], b = rim[i + 1];
            m.facets.push_back({"cover", "cloth", "Cover",
                {{a.x, a.y + h, z}, {a.x, a.y + h, -z}, {b.x, b.y + h, -z}, {b.x, b.y + h, z}},
                {false, true, false, true}});
        }
        m.litres = areaOf(p.piece("cover")->stitch()) * p.depth / 1e6;
        placeThings(m, design, p);
        m.handles = {{"frame.width", {p.width / 2, h, 0}, {1, 0, 0}, 2},
            {"frame.height", {0, p.height, z}, {0, 1, 0}, 1},
            {"frame.depth", {p.width * 0.3, p.height * 0.2, z}, {0, 0, 1}, 2}};
        return m;
    }
};

} // namespace

const Form& frameClutch()
{
    static const FrameClutch form;
    return form;
}

} // namespace tectonis
