// SPDX-License-Identifier: GPL-3.0-or-later
// completion: a script for bash, from the verbs and options that there are.
#include "verbs.hpp"

#include <fmt/format.h>

namespace tectonis::cli {
namespace {

std::string optionsOf(const CLI::App& command)
{
    std::string out;
    for (const auto* option : command.get_options())
        for (const auto& name : option->get_lnames())
            out += (out.empty() ? "--" : " --") + name;
    return out;
}

std::string script(const CLI::App& app)
{
    std::string verbs, cases;
    for (const auto* command : app.get_subcommands([](const CLI::App*) { return true; })) {
        verbs += (verbs.empty() ? "" : " ") + command->get_name();
        cases += fmt::format("    {}) words=\"{}\" ;;\n", command->get_name(), optionsOf(*command));
    }
    return "# Completion of tectonis-cli for bash: source <(tectonis-cli completion)\n"
           "_tectonis_cli() {\n"
           "  local word=\"${COMP_WORDS[COMP_CWORD]}\" words\n"
           "  COMPREPLY=()\n"
           "  if [ \"$COMP_CWORD\" -eq 1 ]; then\n"
           "    COMPREPLY=($(compgen -W \""
        + verbs + " " + optionsOf(app)
        + "\" -- \"$word\"))\n"
          "    return\n"
          "  fi\n"
          "  case \"${COMP_WORDS[1]}\" in\n"
        + cases
        + "  esac\n"
          "  case \"$word\" in\n"
          "    -*) COMPREPLY=($(compgen -W \"$words\" -- \"$word\")) ;;\n"
          "    *) compopt -o filenames 2>/dev/null; mapfile -t COMPREPLY < <(compgen -f -- \"$word\") ;;\n"
          "  esac\n"
          "}\n"
          "complete -F _tectonis_cli tectonis-cli\n";
}

} // namespace

Verb completionVerb(CLI::App& app)
{
    auto* c = app.add_subcommand(
        "completion", spoken("Write a completion script for bash: source <(tectonis-cli completion)"));
    return {c, [&app] {
                print(script(app));
                return 0;
            }};
}

} // namespace tectonis::cli
