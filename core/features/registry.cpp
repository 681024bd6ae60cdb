// SPDX-License-Identifier: GPL-3.0-or-later
// All features. A new one: one file with its class and its accessor, and one line here.
#include "features/feature.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

namespace tectonis {

const FeatureKind& connectorsKind();
const FeatureKind& drawstringKind();
const FeatureKind& flapKind();
const FeatureKind& handlesKind();
const FeatureKind& labelKind();
const FeatureKind& patchPocketKind();
const FeatureKind& slipPocketKind();
const FeatureKind& snapKind();
const FeatureKind& strapKind();
const FeatureKind& zipPocketKind();

const std::vector<const FeatureKind*>& featureKinds()
{
    static const std::vector<const FeatureKind*> all{&flapKind(), &snapKind(), &slipPocketKind(), &patchPocketKind(), &zipPocketKind(), &connectorsKind(), &strapKind(), &handlesKind(), &drawstringKind(), &labelKind()};
    return all;
}

ChoiceSpec siteChoice(const Form& form, const std::string& meaning, const std::function<bool(const SiteSpec&)>& fits, const std::string& preferred)
{
    ChoiceSpec choice{"site", "On", meaning, {}};
    for (const auto& site : form.sites())
        if (fits(site))
            choice.options.insert(site.name == preferred ? choice.options.begin() : choice.options.end(), {site.name, site.label});
    return choice;
}

const FeatureKind& featureKind(const std::string& kind)
{
    for (const FeatureKind* k : featureKinds())
        if (k->kind() == kind)
            return *k;
    throw InputError("features", fmt::format("there is no feature of kind “{}”", kind));
}

} // namespace tectonis
