// SPDX-License-Identifier: GPL-3.0-or-later
// tectonis-cli VERB …: what the window does, without it. Exit codes: 0 fine, 1 a check found an error, 2 bad input.
#include "verbs.hpp"

#include <cstdio>

namespace tectonis::cli {
namespace {

int run(int argc, char** argv)
{
    CLI::App app{spoken("Tectonis on the command line: bag patterns from a design file.\nLengths: 240, 24cm, 9 1/2in; "
                        "plain numbers are mm.")};
    app.name("tectonis-cli");
    // What the parser itself writes into help.
    const auto& help = app.get_formatter();
    for (const auto& [name, meaning] : {std::pair{"Usage", label("Usage")}, {"OPTIONS", label("OPTIONS")},
             {"Positionals", label("Positionals")}, {"REQUIRED", label("REQUIRED")}, {"TEXT", label("TEXT")},
             {"SUBCOMMAND", label("SUBCOMMAND")}, {"UINT", label("NUMBER")}, {"INT", label("NUMBER")},
             {"FLOAT", label("NUMBER")}, {"Needs", label("Needs")}, {"Excludes", label("Excludes")}})
        help->label(name, spoken("{}", meaning));
    app.option_defaults()->group(spoken("Options"));
    app.set_help_flag("-h,--help", spoken("Print this help message and exit"));
    app.require_subcommand(1);
    app.set_version_flag("--version", "tectonis-cli " TECTONIS_VERSION, spoken("Print the version and exit"));
    std::vector<Verb> verbs;
#define MADE(name) verbs.push_back(name(app));
    TECTONIS_VERBS(MADE)
    for (const Verb& verb : verbs) {
        verb.command->group(spoken("Subcommands"));
        verb.command->set_help_flag("-h,--help", spoken("Print this help message and exit"));
    }
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& e) {
        return app.exit(e) == 0 ? 0 : 2;
    }
    for (const Verb& verb : verbs)
        if (*verb.command)
            return verb.run();
    return 0;
}

} // namespace
} // namespace tectonis::cli

int main(int argc, char** argv)
{
    try {
        return tectonis::cli::run(argc, argv);
    } catch (const tectonis::InputError& e) {
        tectonis::cli::tell(e.said());
        return 2;
    } catch (const std::exception& e) {
        tectonis::cli::tell(tectonis::naming(e.what()));
        return 2;
    }
}
