// SPDX-License-Identifier: GPL-3.0-or-later
// Straps and connectors pass their rings without bunching, connectors fit the gusset, the strap fits a body.
#include "checks/finding.hpp"

#include "library/library.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace tectonis {
namespace {

constexpr double kMostSlack = 3; // mm of ring beyond the strap (common practice, no source)

/// Longest and shortest of what is worn round the waist against what bodies measure there (common practice, no source).
void checkBelt(Findings& out, const Strap& belt)
{
    constexpr double slim = 700, broad = 1100;
    const std::string reach = belt.piece.owner().text() + ".reach";
    if (belt.longest < broad - 0.01)
        out.push_back({Severity::Note, "strap-length", "", belt.name, reach, "Fittings",
            say("at its longest it goes round {}; round the hips, {} to {} suit most people.", Len(belt.longest),
                Len(slim), Len(broad)),
            {}});
    if (belt.shortest > slim + 0.01)
        out.push_back({Severity::Note, "strap-length", "", belt.name, reach, "Fittings",
            say("at its shortest it still goes round {}; slim people measure {} round the hips. Let the short end be "
                "shorter, or take a narrower face.",
                Len(belt.shortest), Len(slim)),
            {}});
}

void checkAgainstRing(Findings& out, const Message& what, const std::string& dimension, double width, double ring)
{
    const auto fix = [&](double to) {
        return Repair{say("Make it {}", Len(to)), {fmt::format("{}={}", dimension, to)}, false};
    };
    if (width > ring + 0.01)
        out.push_back({Severity::Error, "ring", "", what, dimension, "Fittings",
            say("at {} it is {} wider than the ring's inside width of {}. It will bunch in the ring; narrow it "
                "or take a wider ring.",
                Len(width), Len(width - ring), Len(ring)),
            fix(ring - 1)});
    else if (ring - width > kMostSlack + 0.01)
        out.push_back({Severity::Warning, "ring", "", what, dimension, "Fittings",
            say("at {} it leaves {} of play in a ring of {}; at most {} look right. Widen it or take a narrower ring.",
                Len(width), Len(ring - width), Len(ring), Len(kMostSlack)),
            fix(ring - 1)});
}

/// A buckle is as wide as its webbing: what is wider bunches, what is much narrower slips askew.
void checkAgainstBuckle(Findings& out, const Strap& belt)
{
    const std::string dimension = belt.piece.owner().text() + ".width";
    const auto tell = [&](Severity severity, Message words) {
        out.push_back({severity, "ring", "", belt.name, dimension, "Fittings", std::move(words),
            Repair{say("Make it {}", Len(belt.ringWidth)), {fmt::format("{}={}", dimension, belt.ringWidth)}, false}});
    };
    if (belt.width > belt.ringWidth + 0.01)
        tell(Severity::Error,
            say("at {} it is {} wider than the buckle's inside width of {}. It will bunch in it; narrow it or take a "
                "wider buckle.",
                Len(belt.width), Len(belt.width - belt.ringWidth), Len(belt.ringWidth)));
    else if (belt.ringWidth - belt.width > kMostSlack + 0.01)
        tell(Severity::Warning,
            say("at {} it leaves {} of play in a buckle of {}; at most {} hold it straight. Widen it or take a "
                "narrower buckle.",
                Len(belt.width), Len(belt.ringWidth - belt.width), Len(belt.ringWidth), Len(kMostSlack)));
}

/// A doubled loop goes over the shoulder with both strands, and across the body with one drawn out (common practice, no
/// source).
void checkDoubled(Findings& out, const Strap& strap)
{
    constexpr double least = 550, most = 850, across = 900; // mm, mouth to mouth
    const std::string length = strap.piece.text() + ".length";
    if (strap.shortest < least - 0.01 || strap.shortest > most + 0.01)
        out.push_back({Severity::Note, "strap-length", "", strap.name, length, "Fittings",
            say("doubled it is {} from mouth to mouth; {} to {} let an arm through and carry the bag under it.",
                Len(strap.shortest), Len(least), Len(most)),
            {}});
    if (strap.longest < across - 0.01)
        out.push_back({Severity::Note, "strap-length", "", strap.name, length, "Fittings",
            say("drawn out it is {}; worn across the body, {} to {} suit most people.", Len(strap.longest), Len(1100),
                Len(1400)),
            {}});
}

/// How thick the finished strap is: its layers, and what lies between them, as it is pressed.
double folded(const Pattern& p, const Piece& piece, const Strap& strap)
{
    const double cloth = p.material(p.materials.at(piece.material)).thickness;
    const Piece* facing = p.piece(OwnName{
        piece.key.owner().text(), piece.key.name().empty() ? std::string("facing") : piece.key.name() + ".facing"});
    if (!facing)
        return cloth * double(std::lround(strap.cutWidth / strap.width));
    // Both long edges of both are turned in; between them lies what pads it.
    double padding = 0;
    for (const auto& layer : piece.layers)
        padding += p.material(layer.material).underFoot();
    const double middle = cloth + p.material(p.materials.at(facing->material)).thickness;
    return std::max(2 * middle, middle + padding);
}

/// A strap across the body hangs from two rings.
void checkRings(const CheckInput& in, Findings& out, const Strap& strap)
{
    for (const auto& f : in.design.features) {
        if (f.kind != "connectors")
            continue;
        const std::string& sides = in.pattern.choices.at(f.id + ".sides");
        if (sides != "both")
            out.push_back({Severity::Error, "strap-rings", "", strap.name, f.id + ".sides", "Fittings",
                say("it is worn across the body, and there is a ring at one side alone: its other end has nothing to "
                    "hold on to. Put connectors at both sides, or make it a loop for the wrist."),
                Repair{say("Connectors at both sides"), {f.id + ".sides=both"}, false}});
        return; // it hangs from the first pair
    }
}

/// A hand goes through the loop, and it does not drag (common practice, no source).
void checkLoop(Findings& out, const Strap& strap)
{
    constexpr double least = 125, most = 220; // mm of the loop, its hook apart
    const double loop = strap.longest - strap.hook;
    if (loop < least - 0.01 || loop > most + 0.01)
        out.push_back({Severity::Note, "strap-length", "", strap.name, strap.piece.text() + ".loop", "Fittings",
            say("its loop is {} long; {} to {} let a hand through and hold it.", Len(loop), Len(least), Len(most)),
            {}});
}

} // namespace

void checkStraps(const CheckInput& in, Findings& out)
{
    const auto& v = in.pattern.values;
    for (const auto& strap : in.pattern.straps) {
        if (strap.worn == Strap::Worn::Waist)
            checkAgainstBuckle(out, strap);
        else
            checkAgainstRing(out, strap.name, strap.piece.text() + ".width", strap.width, strap.ringWidth);
        // Slider gap: the strap passes twice; bought sliders open about 8 mm (common practice, no source).
        constexpr double sliderGap = 8;
        const Piece* piece = in.pattern.piece(strap.piece);
        if (piece && (strap.worn == Strap::Worn::Shoulder || strap.worn == Strap::Worn::Waist)) {
            const double thick = folded(in.pattern, *piece, strap);
            if (2 * thick > sliderGap + 0.01)
                out.push_back({Severity::Warning, "slider", "", strap.name, strap.piece, "Fittings",
                    say("two passes are {} thick; sliders and buckles open about {}. Use a thinner cloth, fewer folds "
                        "or "
                        "webbing.",
                        Len(2 * thick, sliderGap), Len(sliderGap)),
                    {}});
        }
        if (strap.worn == Strap::Worn::Waist)
            checkBelt(out, strap);
        else if (strap.worn == Strap::Worn::Wrist)
            checkLoop(out, strap);
        else
            checkRings(in, out, strap);
        if (strap.worn == Strap::Worn::Doubled)
            checkDoubled(out, strap);
        if (strap.worn == Strap::Worn::Shoulder && strap.longest < 900 - 0.01)
            out.push_back({Severity::Note, "strap-length", "", strap.name, strap.piece.text() + ".length", "Fittings",
                say("at its longest it is {}; worn across the body, {} to {} suit most people.", Len(strap.longest),
                    Len(1100), Len(1400)),
                {}});
    }
    for (const auto& f : in.design.features) {
        if (f.kind != "connectors")
            continue;
        checkAgainstRing(out, say("Connector"), f.id + ".width", v.at(f.id + ".width"), v.at(f.id + ".ring"));
        if (in.pattern.choices.at(f.id + ".held") != "mouth")
            continue;
        const double room = in.pattern.anchors.empty() ? 0 : in.pattern.anchors.front().room;
        if (v.at(f.id + ".width") > room + 0.01)
            out.push_back({Severity::Error, "connector", "", say("Connector"), f.id + ".width", "Fittings",
                say("at {} it does not fit between the seams beside it at the mouth, which leave {}. It would "
                    "be caught in the long seams; take narrower rings or a deeper bag.",
                    Len(v.at(f.id + ".width")), Len(room)),
                {}});
    }
}

} // namespace tectonis
