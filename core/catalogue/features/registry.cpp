// SPDX-License-Identifier: GPL-3.0-or-later
// All features. A new one: one file with its class and its accessor, and one line here.
#include "features/feature.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

namespace tectonis {

const FeatureKind& bandKind();
const FeatureKind& bindingKind();
const FeatureKind& braceKind();
const FeatureKind& channelKind();
const FeatureKind& connectorsKind();
const FeatureKind& cornerPatchKind();
const FeatureKind& drawstringKind();
const FeatureKind& flapKind();
const FeatureKind& handlesKind();
const FeatureKind& insetZipKind();
const FeatureKind& labelKind();
const FeatureKind& overlayKind();
const FeatureKind& patchPocketKind();
const FeatureKind& pipingKind();
const FeatureKind& slipPocketKind();
const FeatureKind& snapKind();
const FeatureKind& strapKind();
const FeatureKind& topZipKind();
const FeatureKind& zipPocketKind();

const std::vector<const FeatureKind*>& featureKinds()
{
    static const std::vector<const FeatureKind*> all{&flapKind(), &snapKind(), &topZipKind(), &slipPocketKind(),
        &patchPocketKind(), &zipPocketKind(), &insetZipKind(), &connectorsKind(), &strapKind(), &handlesKind(),
        &drawstringKind(), &bandKind(), &overlayKind(), &cornerPatchKind(), &braceKind(), &channelKind(), &pipingKind(),
        &bindingKind(), &labelKind()};
    return all;
}

ChoiceSpec siteChoice(const Form& form, const std::string& meaning, const std::function<bool(const SiteSpec&)>& fits,
    const std::string& preferred)
{
    ChoiceSpec choice{"site", "On", meaning, {}};
    for (const auto& site : form.sites())
        if (fits(site))
            choice.options.insert(
                site.name == preferred ? choice.options.begin() : choice.options.end(), {site.name, site.label});
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
