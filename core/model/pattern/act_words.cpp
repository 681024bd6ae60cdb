// SPDX-License-Identifier: GPL-3.0-or-later
#include "pattern/act_words.hpp"

namespace tectonis {
namespace {

struct VerbWords {
    Act::Verb verb;
    const char* word;
    Label title;
};

const std::vector<VerbWords>& verbs()
{
    using Verb = Act::Verb;
    static const std::vector<VerbWords> all{
        {Verb::Interline, "interline", label("Put the layers on")},
        {Verb::Preshrink, "preshrink", label("Wash the cloth")},
        {Verb::Quilt, "quilt", label("Quilt")},
        {Verb::CutToShape, "cut-to-shape", label("Cut to shape")},
        {Verb::RoundCorners, "round-corners", label("Round the corners")},
        {Verb::Sew, "sew", label("Sew")},
        {Verb::StitchOn, "stitch-on", label("Stitch on")},
        {Verb::Lay, "lay", label("Lay")},
        {Verb::LayOver, "lay-over", label("Lay in its place")},
        {Verb::LayTape, "lay-tape", label("Lay the tape")},
        {Verb::Insert, "insert", label("Push in")},
        {Verb::Hinge, "hinge", label("Sew the hinge")},
        {Verb::Line, "line", label("Lay on the lining")},
        {Verb::Baste, "baste", label("Baste")},
        {Verb::Topstitch, "topstitch", label("Topstitch")},
        {Verb::Rows, "rows", label("Sew the marked rows")},
        {Verb::BarTack, "bar-tack", label("Bar-tack")},
        {Verb::Roll, "roll", label("Roll the edge")},
        {Verb::Press, "press", label("Press")},
        {Verb::FoldStrip, "fold-strip", label("Fold the strip")},
        {Verb::FoldInHalf, "fold-in-half", label("Fold in half")},
        {Verb::FoldUp, "fold-up", label("Fold up")},
        {Verb::Crease, "crease", label("Crease")},
        {Verb::Pleat, "pleat", label("Pleat")},
        {Verb::HoldAway, "hold-away", label("Hold away")},
        {Verb::Clip, "clip", label("Clip")},
        {Verb::Notch, "notch", label("Notch")},
        {Verb::Grade, "grade", label("Grade")},
        {Verb::Stagger, "stagger", label("Grade one allowance")},
        {Verb::Hammer, "hammer", label("Hammer flat")},
        {Verb::Turn, "turn", label("Turn")},
        {Verb::TurnBag, "turn-bag", label("Turn the bag")},
        {Verb::Set, "set", label("Set")},
        {Verb::Window, "window", label("Sew the window")},
        {Verb::InsertZip, "insert-zip", label("Put the zip in")},
        {Verb::OpenZip, "open-zip", label("Open the zip")},
        {Verb::SewTape, "sew-tape", label("Sew the tape")},
        {Verb::SliderOn, "slider-on", label("Put the slider on")},
        {Verb::CutDown, "cut-down", label("Cut the zip down")},
        {Verb::SealEnds, "seal-ends", label("Seal the ends")},
        {Verb::FoldEnds, "fold-ends", label("Fold the tape's ends away")},
        {Verb::CapEnds, "cap-ends", label("Put the metal ends on")},
        {Verb::Hem, "hem", label("Hem")},
        {Verb::HemEnds, "hem-ends", label("Hem the ends")},
        {Verb::DrawIn, "draw-in", label("Draw in")},
        {Verb::FoldIn, "fold-in", label("Fold the edges in")},
        {Verb::JoinStrips, "join-strips", label("Join the strips")},
        {Verb::Overcast, "overcast", label("Overcast")},
        {Verb::Fell, "fell", label("Fell the seam")},
        {Verb::BagSeam, "bag-seam", label("Sew wrong sides together first")},
        {Verb::Bind, "bind", label("Bind")},
        {Verb::WrapCord, "wrap-cord", label("Wrap the cord")},
        {Verb::WrapOver, "wrap-over", label("Wrap over")},
        {Verb::SealCut, "seal-cut", label("Seal the cut ends")},
        {Verb::Buttonhole, "buttonhole", label("Make the buttonholes")},
        {Verb::Box, "box", label("Box the corners")},
        {Verb::Glue, "glue", label("Glue")},
        {Verb::Paint, "paint", label("Paint")},
        {Verb::ThreadStrap, "thread-strap", label("Thread the strap")},
        {Verb::ThreadTails, "thread-tails", label("Thread the tails")},
        {Verb::ThreadCord, "thread-cord", label("Thread the cord")},
        {Verb::Trim, "trim", label("Trim")},
        {Verb::BoxOn, "box-on", label("Fix the ends")},
        {Verb::Ring, "ring", label("Fold round the ring")},
        {Verb::JoinCoats, "join-coats", label("Join shell and lining")},
        {Verb::DropIn, "drop-in", label("Drop the lining in")},
        {Verb::PutIn, "put-in", label("Put it in")},
        {Verb::CloseOpening, "close-opening", label("Close the opening")},
        {Verb::Note, "note", label("In own words")},
    };
    return all;
}

} // namespace

const char* wordOf(Act::Verb verb)
{
    for (const auto& each : verbs())
        if (each.verb == verb)
            return each.word;
    return "";
}

std::optional<Act::Verb> verbOf(const std::string& word)
{
    for (const auto& each : verbs())
        if (word == each.word)
            return each.verb;
    return {};
}

Label titleOf(Act::Verb verb)
{
    for (const auto& each : verbs())
        if (each.verb == verb)
            return each.title;
    return {};
}

} // namespace tectonis
