// SPDX-License-Identifier: GPL-3.0-or-later
#include "design/seam_care.hpp"

#include "units/error.hpp"

#include <array>
#include <utility>

namespace tectonis {
namespace {

constexpr std::array<std::pair<const char*, bool SeamCare::*>, 5> kWords{
    {{"graded", &SeamCare::graded}, {"open", &SeamCare::open}, {"aside", &SeamCare::aside},
        {"hammered", &SeamCare::hammered}, {"hand", &SeamCare::byHand}}};

} // namespace

std::string careText(const SeamCare& care)
{
    std::string out;
    for (const auto& [word, flag] : kWords)
        if (care.*flag)
            out += (out.empty() ? "" : " ") + std::string(word);
    return out.empty() ? "none" : out;
}

SeamCare parseCare(const std::string& text)
{
    SeamCare out;
    std::string word;
    const auto take = [&] {
        bool known = word.empty() || word == "none";
        for (const auto& [name, flag] : kWords)
            if (word == name)
                out.*flag = known = true;
        if (!known)
            throw InputError(say("seam"),
                say("“{}” is nothing that is done at a thick seam; use graded, open, aside, hammered, hand or none",
                    word));
        word.clear();
    };
    for (const char c : text)
        if (c == ' ' || c == ',' || c == '+')
            take();
        else
            word += c;
    take();
    return out;
}

} // namespace tectonis
