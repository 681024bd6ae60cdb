// SPDX-License-Identifier: GPL-3.0-or-later
// tectonis-cli VERB …: what the window does, without it. Exit codes: 0 fine, 1 a check found an error, 2 bad input.
#include "verbs.hpp"

#include <cstdio>

namespace tectonis::cli {
namespace {

int run(int argc, char** argv)
{
    CLI::App app{"Tectonis on the command line: bag patterns from a design file.\nLengths: 240, 24cm, 9 1/2in; plain "
                 "numbers are mm."};
    app.name("tectonis-cli");
    app.require_subcommand(1);
    app.set_version_flag("--version", "tectonis-cli " TECTONIS_VERSION);
    std::vector<Verb> verbs;
    for (const auto make : {formsVerb, newVerb, formVerb, setVerb, sizesVerb, ruleVerb, partVerb, layerVerb, carryVerb,
             orderVerb, trialVerb, libraryVerb, measureVerb, walkVerb, checkVerb, exportVerb, completionVerb})
        verbs.push_back(make(app));
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
    } catch (const std::exception& e) {
        std::fprintf(stderr, "tectonis-cli: %s\n", e.what());
        return 2;
    }
}
