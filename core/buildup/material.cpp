// SPDX-License-Identifier: GPL-3.0-or-later
#include "buildup/material.hpp"

#include "embedded.hpp"
#include "units/error.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>

namespace tectonis {

const std::vector<Material>& materials()
{
    static const std::vector<Material> all = [] {
        std::vector<Material> out;
        for (const auto& m : nlohmann::json::parse(embedded::materials))
            out.push_back({m.at("id"), m.at("name"), m.at("use"), m.at("class"), m.at("thickness"), m.value("compressed", 1.0),
                           m.at("gsm"), m.at("width"), m.at("heat"), m.at("oneWay"), m.value("rigid", false), m.at("price")});
        return out;
    }();
    return all;
}

const Material& material(const std::string& id)
{
    const auto& all = materials();
    const auto it = std::find_if(all.begin(), all.end(), [&](const Material& m) { return m.id == id; });
    if (it == all.end())
        throw InputError("materials", fmt::format("there is no material “{}”", id));
    return *it;
}

} // namespace tectonis
