// SPDX-License-Identifier: GPL-3.0-or-later
// All features. A new one: one file with its class and its accessor, and one line here.
#include "features/feature.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

namespace tectonis {

// In the order in which they are offered.
#define TECTONIS_FEATURES(KIND)                                                                                        \
    KIND(flapKind)                                                                                                     \
    KIND(snapKind)                                                                                                     \
    KIND(topZipKind)                                                                                                   \
    KIND(slipPocketKind)                                                                                               \
    KIND(patchPocketKind)                                                                                              \
    KIND(zipPocketKind)                                                                                                \
    KIND(insetZipKind)                                                                                                 \
    KIND(connectorsKind)                                                                                               \
    KIND(strapKind)                                                                                                    \
    KIND(handlesKind)                                                                                                  \
    KIND(shoulderStrapsKind)                                                                                           \
    KIND(beltKind)                                                                                                     \
    KIND(drawstringKind)                                                                                               \
    KIND(bandKind)                                                                                                     \
    KIND(overlayKind)                                                                                                  \
    KIND(feetKind)                                                                                                     \
    KIND(cornerPatchKind)                                                                                              \
    KIND(braceKind)                                                                                                    \
    KIND(channelKind)                                                                                                  \
    KIND(pipingKind)                                                                                                   \
    KIND(bindingKind)                                                                                                  \
    KIND(labelKind)

#define DECLARED(name) const FeatureKind& name();
TECTONIS_FEATURES(DECLARED)
#undef DECLARED

const std::vector<const FeatureKind*>& featureKinds()
{
#define LISTED(name) &name(),
    static const std::vector<const FeatureKind*> all{TECTONIS_FEATURES(LISTED)};
#undef LISTED
    return all;
}

ChoiceSpec siteChoice(const Carrier& on, const std::string& meaning, const std::function<bool(const SiteSpec&)>& fits,
    const std::string& preferred, OnParts onParts, OnSmall onSmall)
{
    ChoiceSpec choice{"site", "On", meaning, {}};
    for (const bool small : {false, true}) // whoever has no wish comes to lie on a wide face
        for (const auto& site : on.sites)
            if (site.small == small && fits(site) && (!small || onSmall != OnSmall::No)
                && (!site.strip || onSmall == OnSmall::Strips))
                choice.options.insert(site.name == preferred && !small ? choice.options.begin() : choice.options.end(),
                    {site.name, site.label});
    for (const auto& face : on.parts)
        if (onParts == (face.covered ? OnParts::Covered : OnParts::Yes) && (!face.strip || onSmall == OnSmall::Strips))
            choice.options.emplace_back(face.name, face.label);
    return choice;
}

const FeatureKind& featureKind(const std::string& kind)
{
    for (const FeatureKind* k : featureKinds())
        if (k->kind() == kind)
            return *k;
    throw InputError(say("features"), say("there is no feature of kind “{}”", kind));
}

} // namespace tectonis
