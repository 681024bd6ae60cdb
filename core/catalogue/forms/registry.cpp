// SPDX-License-Identifier: GPL-3.0-or-later
// All body forms. A new form: one file with its class and its accessor, and one line here.
#include "forms/form.hpp"
#include "units/error.hpp"

#include <fmt/format.h>

namespace tectonis {

const Form& boxedCorner();
const Form& circlePouch();
const Form& cylinder();
const Form& envelopeClutch();
const Form& flatPouch();
const Form& frameClutch();
const Form& gussetedSatchel();
const Form& hingedMouth();
const Form& largeTote();
const Form& polygon();
const Form& rollTop();
const Form& separateBase();
const Form& zipAround();

const std::vector<const Form*>& forms()
{
    static const std::vector<const Form*> all{&gussetedSatchel(), &boxedCorner(), &separateBase(), &largeTote(),
        &cylinder(), &zipAround(), &polygon(), &flatPouch(), &envelopeClutch(), &rollTop(), &hingedMouth(),
        &frameClutch(), &circlePouch()};
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
