// SPDX-License-Identifier: GPL-3.0-or-later
#include "sequence/presser_foot.hpp"

namespace tectonis {

PresserFoot footOf(const Act& act, bool sticks, const Workshop& workshop)
{
    using Verb = Act::Verb;
    switch (act.verb) {
    case Verb::Quilt: return PresserFoot::Walking;
    case Verb::SewTape:
    case Verb::InsertZip:
    case Verb::WrapCord: return PresserFoot::Zip;
    case Verb::Sew:
    case Verb::LayTape:
        if (!act.zips.empty())
            return PresserFoot::Zip;
        break;
    case Verb::Set:
        if (!act.uses.empty() && act.uses.front() == Ware::SewnMagnet)
            return PresserFoot::Zip;
        break;
    default: break;
    }
    return workshop.footFor(sticks);
}

Message nameOf(PresserFoot foot)
{
    switch (foot) {
    case PresserFoot::Standard: return say("presser foot");
    case PresserFoot::Zip: return say("zip foot");
    case PresserFoot::Walking: return say("walking foot");
    case PresserFoot::NonStick: return say("non-stick foot");
    }
    return {};
}

} // namespace tectonis
