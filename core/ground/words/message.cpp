// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/message.hpp"

#include <algorithm>

namespace tectonis {

Message::Message(const char* source, std::vector<MessageArgument> arguments) : m_source(source)
{
    *this = withArguments(std::move(arguments));
}

Message Message::withArguments(std::vector<MessageArgument> arguments) const
{
    Message out = *this;
    auto kept = std::make_shared<MessageArgument[]>(arguments.size());
    std::move(arguments.begin(), arguments.end(), kept.get());
    out.m_arguments = std::move(kept);
    out.m_argumentCount = std::uint16_t(arguments.size());
    return out;
}

bool Message::operator==(const Message& other) const
{
    return m_source == other.m_source && m_ofMany == other.m_ofMany && m_count == other.m_count
        && m_within == other.m_within
        && (m_arguments == other.m_arguments || std::ranges::equal(arguments(), other.arguments()));
}

} // namespace tectonis
