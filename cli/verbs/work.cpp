// SPDX-License-Identifier: GPL-3.0-or-later
// order, trial: the order of work, and what a sewn trial measured.
#include "verbs.hpp"

#include "languages.hpp"

#include "design/limits.hpp"
#include "editing/edits.hpp"
#include "pattern/act_words.hpp"
#include "sequence/batches.hpp"
#include "sequence/order.hpp"
#include "sequence/rules.hpp"
#include "units/error.hpp"
#include "units/words.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace tectonis::cli {
namespace {

std::vector<std::string> idsInOrder(const Design& design, const Pattern& p)
{
    std::vector<std::string> out;
    for (const auto i : orderOf(design, p))
        out.push_back(p.steps[i].id.text());
    return out;
}

/// Takes a step from its place and puts it before or behind another.
std::vector<std::string> moved(
    std::vector<std::string> ids, const std::string& step, const std::string& beside, bool behind)
{
    const auto from = std::find(ids.begin(), ids.end(), step);
    if (from == ids.end())
        throw InputError(step, say("there is no such step"));
    ids.erase(from);
    const auto to = std::find(ids.begin(), ids.end(), beside);
    if (to == ids.end())
        throw InputError(beside, step == beside ? say("a step goes beside another") : say("there is no such step"));
    ids.insert(behind ? to + 1 : to, step);
    return ids;
}

std::string orderText(const Design& design)
{
    const Pattern p = base(design);
    const auto order = orderOf(design, p);
    const auto numbers = numbersOf(p, order);
    std::string out;
    for (std::size_t i = 0; i < order.size(); ++i)
        out += fmt::format("{}\t{}\t{}{}\n", numbers[i] > 0 ? std::to_string(numbers[i]) : "–", p.steps[order[i]].id,
            words(p.steps[order[i]].title, Unit::Mm, readersLanguage()),
            numbers[i] == 0                             ? "\t" + spoken("hidden")
                : i > 0 && numbers[i] == numbers[i - 1] ? "\t" + spoken("told with the one before")
                                                        : "");
    for (const auto& w : design.wishes)
        out += "~ " + spoken("{} always before {}", w.first, w.then) + "\n";
    for (const auto& broken : brokenRules(p, order))
        out += "! "
            + spoken("{} comes before {}, but {}", p.steps[broken.early].id, p.steps[broken.late].id, broken.reason)
            + "\n";
    return out;
}

/// What is done in a step, one by one.
std::string actsText(const Design& design, const std::string& id)
{
    const Pattern p = base(design);
    const Step* step = p.step(id);
    if (!step)
        throw InputError(id, say("there is no such step"));
    std::string out;
    for (std::size_t i = 0; i < step->acts.size(); ++i)
        out += fmt::format(
            "{}\t{}\n", i + 1, words(labelled(titleOf(step->acts[i].verb)), Unit::Mm, readersLanguage()));
    return out;
}

/// A run of some bags, batch by batch, and the minutes that batches save.
std::string runText(const Design& design, int bags)
{
    const Pattern p = base(design);
    const auto order = orderOf(design, p);
    const auto numbers = numbersOf(p, order);
    const BagRun run = runOf(p, order, bags);
    std::string out;
    for (const auto& batch : run.batches) {
        out += fmt::format("{}\t{}", words(labelled(nameOf(batch.place)), Unit::Mm, readersLanguage()),
            spoken("{} min a bag, {} min in all", Num(batch.minutes, 1), Num(bags * batch.minutes, 0)));
        for (const auto i : batch.steps)
            out += "\n\t" + p.steps[i].id.text();
        out += "\n";
    }
    out += spoken("{} bags: {} min, of them {} setting up and {} waiting; one after the other {} min", bags,
               Num(run.whole(), 0), Num(run.setUp, 0), Num(run.waiting, 0), Num(run.bagByBag, 0))
        + "\n";
    return out;
}

constexpr std::pair<const char*, double Trial::*> kMeasures[] = {{"width", &Trial::width}, {"height", &Trial::height},
    {"depth", &Trial::depth}, {"strap", &Trial::strapLongest}, {"zip", &Trial::zipOpening},
    {"minutes", &Trial::minutes}};

void takeValue(Design& design, const Pattern& seenIn, const std::string& assignment)
{
    Trial& trial = design.trials.back();
    const auto equals = assignment.find('=');
    const std::string name = assignment.substr(0, equals),
                      value = equals == std::string::npos ? "" : assignment.substr(equals + 1);
    if (name == "minutes")
        change::timed(design, seenIn, design.trials.size() - 1, parseLength(value));
    else if (name.starts_with("step."))
        change::timed(design, seenIn, design.trials.size() - 1, parseLength(value), name.substr(5));
    else if (name == "date")
        trial.date = value;
    else if (name == "note")
        trial.note = value;
    else {
        for (const auto& [known, member] : kMeasures)
            if (name == known) {
                trial.*member = parseLength(value);
                return;
            }
        throw InputError(
            assignment, say("write date=, note=, width=, height=, depth=, strap=, zip=, minutes= or step.ID="));
    }
}

std::string trialsText(const Design& design)
{
    std::string out;
    for (std::size_t i = 0; i < design.trials.size(); ++i) {
        const Trial& t = design.trials[i];
        out += fmt::format("{}\t{}\t{}", i + 1, t.date, spoken("size {}", t.size));
        for (const auto& [name, member] : kMeasures)
            if (t.*member > 0)
                out += fmt::format("\t{}={}", name, formatNumber(t.*member));
        for (const auto& [step, timed] : t.steps)
            out += fmt::format("\tstep.{}={}", step, formatNumber(timed.minutes));
        out += (t.note.empty() ? "" : "\t" + t.note) + "\n";
    }
    return out;
}

} // namespace

Verb orderVerb(CLI::App& app)
{
    struct Options {
        std::string file, move, before, after, add, text, words, hide, show, remove, forget, acts, split, mend, join,
            part;
        std::vector<std::string> wish;
        double minutes = 0;
        std::size_t from = 0;
        int run = 0;
        bool reset = false, byTool = false;
    };
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand(
        "order", spoken("List the steps in their order with the rules it breaks, or move a step"));
    c->add_option("file", o->file, spoken("the design"))->required();
    auto* add = c->add_option("--add", o->add, spoken("TITLE of a step of your own"));
    auto* words = c->add_option("--words", o->words, spoken("id of a step that gets words of your own"));
    c->add_option("--text", o->text, spoken("those words; empty: what follows from its acts"));
    c->add_option("--minutes", o->minutes, spoken("of the step added"))->needs(add);
    c->add_option("--remove", o->remove, spoken("id of a step of your own"));
    c->add_option("--hide", o->hide, spoken("id of a step that booklets leave out"))->excludes(words);
    c->add_option("--show", o->show, spoken("id of a step that booklets tell again"));
    c->add_option("--wish", o->wish, spoken("FIRST THEN: one step always before another"))->expected(2);
    c->add_option("--forget", o->forget, spoken("id of a step about which all wishes are forgotten"));
    auto* move = c->add_option("--move", o->move, spoken("id of a step"));
    auto* before = c->add_option("--before", o->before, spoken("id of the step that it goes before"))->needs(move);
    c->add_option("--after", o->after, spoken("id of the step that it, or the one added, goes behind"))
        ->excludes(before);
    c->add_option("--acts", o->acts, spoken("id of a step: lists what is done in it"));
    auto* split = c->add_option("--split", o->split, spoken("id of a step that is told in two"));
    c->add_option("--from", o->from, spoken("NUMBER, as --acts tells it, of what the second half begins with"))
        ->needs(split);
    c->add_option("--mend", o->mend, spoken("id of a divided step that is told as one again"));
    c->add_option("--join", o->join, spoken("id of a step that is told as one with the one before it"));
    c->add_option("--part", o->part, spoken("id of a step that is told by itself again"));
    c->add_option("--run", o->run, spoken("NUMBER of bags: the work in batches by where it is done"))
        ->check(CLI::Range(1, 10000));
    c->add_flag("--by-tool", o->byTool, spoken("an order that stays at one tool as long as it can"))->excludes(move);
    c->add_flag("--as-proposed", o->reset, spoken("the order that Tectonis proposes"));
    return {c, [o] {
                if (!o->move.empty() && o->before.empty() && o->after.empty())
                    throw InputError("--move", say("it goes with --before or --after"));
                if (!o->add.empty() && o->after.empty())
                    throw InputError("--add", say("it goes with --after"));
                if (o->move.empty() && o->add.empty() && !o->after.empty())
                    throw InputError("--after", say("it goes with --move or --add"));
                const bool any = !o->move.empty() || o->reset || !o->add.empty() || !o->words.empty()
                    || !o->remove.empty() || !o->hide.empty() || !o->show.empty() || !o->wish.empty()
                    || !o->forget.empty() || !o->split.empty() || !o->mend.empty() || !o->join.empty()
                    || !o->part.empty() || o->byTool;
                if (!o->split.empty() && o->from < 1)
                    throw InputError("--split", say("it goes with --from"));
                const Design design = changedFile(o->file, [&](Design& d) {
                    if (any)
                        edit(d, [&](Design& next) {
                            if (o->reset)
                                next.stepOrder.clear();
                            const Pattern p = base(d);
                            if (!o->add.empty())
                                change::addStep(next, p, o->after, o->add, o->text, o->minutes);
                            else if (!o->words.empty())
                                change::stepWords(next, p, o->words, o->text);
                            if (!o->remove.empty())
                                change::removeStep(next, o->remove);
                            if (!o->hide.empty())
                                change::hideStep(next, p, o->hide, true);
                            if (!o->show.empty())
                                change::hideStep(next, p, o->show, false);
                            if (o->wish.size() == 2)
                                change::wish(next, p, o->wish[0], o->wish[1]);
                            if (!o->forget.empty())
                                change::forgetWishes(next, o->forget);
                            if (!o->split.empty())
                                change::splitStep(next, p, o->split, o->from - 1);
                            if (!o->mend.empty())
                                change::mendStep(next, p, o->mend);
                            if (!o->join.empty())
                                change::joinStep(next, p, o->join);
                            if (!o->part.empty())
                                change::partStep(next, o->part);
                            if (o->byTool) {
                                next.stepOrder.clear();
                                for (const auto i : batchedOrder(next, p))
                                    next.stepOrder.push_back(p.steps[i].id.text());
                            }
                            if (o->move.empty())
                                return;
                            const bool behind = o->before.empty();
                            change::order(
                                next, p, moved(idsInOrder(next, p), o->move, behind ? o->after : o->before, behind));
                        });
                    return any;
                });
                print(!o->acts.empty() ? actsText(design, o->acts)
                        : o->run > 0   ? runText(design, o->run)
                                       : orderText(design));
                return 0;
            }};
}

Verb trialVerb(CLI::App& app)
{
    struct Options {
        std::string file, size;
        std::vector<std::string> values;
        std::size_t remove = 0;
    };
    const auto o = std::make_shared<Options>();
    auto* c = app.add_subcommand("trial", spoken("List what sewn trials measured, add one or take one out"));
    c->add_option("file", o->file, spoken("the design"))->required();
    c->add_option("--add", o->size, spoken("a trial of this size"));
    c->add_option("values", o->values, spoken("date=2026-05-01 width=302 note=\"…\" …"));
    c->add_option("--remove", o->remove, spoken("NUMBER in the list"));
    return {c, [o] {
                if (o->size.empty() && !o->values.empty())
                    throw InputError(o->values.front(), say("values go with --add SIZE"));
                const bool any = !o->size.empty() || o->remove > 0;
                const Design design = changedFile(o->file, [&](Design& d) {
                    if (any)
                        edit(d, [&](Design& next) {
                            takeOut(next.trials, o->remove);
                            if (o->size.empty())
                                return;
                            const auto patterns = draftAll(d);
                            next.trials.push_back({.size = o->size});
                            for (const auto& v : o->values)
                                takeValue(next, patterns[sizeIndex(next, o->size)], v);
                        });
                    return any;
                });
                print(trialsText(design));
                return 0;
            }};
}

} // namespace tectonis::cli
