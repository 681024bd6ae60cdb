// SPDX-License-Identifier: GPL-3.0-or-later
// All body forms. A new one: one file with its class and its accessor, and one line here.
#include "forms/form.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

namespace tectonis {

// In the order in which they are offered.
#define TECTONIS_FORMS(FORM)                                                                                           \
    FORM(gussetedSatchel)                                                                                              \
    FORM(boxedCorner)                                                                                                  \
    FORM(separateBase)                                                                                                 \
    FORM(largeTote)                                                                                                    \
    FORM(cylinder)                                                                                                     \
    FORM(zipAround)                                                                                                    \
    FORM(polygon)                                                                                                      \
    FORM(flatPouch)                                                                                                    \
    FORM(envelopeClutch)                                                                                               \
    FORM(rollTop)                                                                                                      \
    FORM(hingedMouth)                                                                                                  \
    FORM(frameClutch)                                                                                                  \
    FORM(circlePouch)

#define DECLARED(name) const Form& name();
TECTONIS_FORMS(DECLARED)
#undef DECLARED

const std::vector<const Form*>& forms()
{
#define LISTED(name) &name(),
    static const std::vector<const Form*> all{TECTONIS_FORMS(LISTED)};
#undef LISTED
    return all;
}

const Form& formOf(const std::string& id)
{
    std::string known;
    for (const Form* f : forms()) {
        if (f->id() == id)
            return *f;
        known += (known.empty() ? "" : ", ") + f->id();
    }
    throw InputError(say("form"), say("there is no form “{}”; known forms: {}", id, known));
}

} // namespace tectonis
