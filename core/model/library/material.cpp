// SPDX-License-Identifier: GPL-3.0-or-later
#include "library/material.hpp"

#include "embedded.hpp"
#include "units/error.hpp"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <unordered_map>

namespace tectonis {

const std::vector<Material>& materials()
{
    static const std::vector<Material> all = [] {
        std::vector<Material> out;
        for (const auto& m : nlohmann::json::parse(embedded::materials))
            out.push_back(
                {m.at("id"), m.at("name"), m.at("use"), m.at("class"), m.at("thickness"), m.value("compressed", 1.0),
                    m.at("gsm"), m.at("width"), m.at("heat"), m.at("oneWay"), m.value("rigid", false), m.at("price")});
        return out;
    }();
    return all;
}

const Material& material(const std::string& id)
{
    static const std::unordered_map<std::string, const Material*> byId = [] {
        std::unordered_map<std::string, const Material*> out;
        for (const auto& m : materials())
            out.emplace(m.id, &m);
        return out;
    }();
    const auto it = byId.find(id);
    if (it == byId.end())
        throw InputError("materials", fmt::format("there is no material “{}”", id));
    return *it->second;
}

} // namespace tectonis
